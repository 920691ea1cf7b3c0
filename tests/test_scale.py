"""The bench scale: a process of its own, a line protocol, and a listener that believes no more than it heard."""

import socket
import stat
import subprocess
import sys
import threading
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path

import pytest

from lumso.core.pour.scale import ScaleReading, believed, zero_at
from lumso.devices.scale import Pan, listen_at, serve
from lumso.devices.scale_lines import LONGEST, hello, parse_hello, parse_reading, reading_line
from lumso.devices.weighing import SocketScale
from tests.waiting import until


class Clock:
    now = 0.0

    def __call__(self) -> float:
        return self.now


@pytest.fixture
def pan() -> Pan:
    return Pan(noise_g=0.0, drift_g_per_h=0.0, clock=Clock(), boot="abcd")


def shown(pan: Pan, after_s: float = 10.0) -> str:
    assert isinstance(pan.clock, Clock)
    pan.clock.now += after_s
    return pan.read()


def test_a_reading_says_weight_unit_tares_and_whether_it_is_steady(pan: Pan) -> None:
    assert pan.do("PUT 250") is True
    moving = shown(pan, 0.1)
    assert moving.startswith("U ")
    assert 50 < float(moving.split()[1]) < 150  # a third of the way after 0.1 s
    assert shown(pan) == reading_line("S", 250.0, "g", 0)
    pan.do("TARE")
    assert shown(pan) == reading_line("S", 0.0, "g", 1)
    pan.do("POUR 28.349523125")
    pan.do("UNIT oz")
    reading = parse_reading(shown(pan), "abcd", 3000, 0.1)
    assert reading is not None
    assert (reading.unit, reading.tare) == ("oz", 1)
    assert reading.g == pytest.approx(28.3, abs=0.06)
    pan.do("POUR -100")
    assert parse_reading(shown(pan), "abcd", 3000, 0.1).g == pytest.approx(178.3 - 250, abs=0.1)  # type: ignore[union-attr]
    pan.do("PUT 5000")
    over = parse_reading(shown(pan), "abcd", 3000, 0.1)
    assert over is not None
    assert (over.over, over.g) == (True, None)
    pan.do("LIFT")
    pan.do("RESTART")
    assert pan.boot != "abcd"
    assert shown(pan) == reading_line("S", 0.0, "g", 0)


def test_noise_and_drift_are_as_said() -> None:
    clock = Clock()
    noisy = Pan(noise_g=0.3, drift_g_per_h=6.0, step_g=0.01, settles_s=0, clock=clock, load_g=100.0)
    clock.now = 3600.0
    seen = [float(noisy.read().split()[1]) for _ in range(400)]
    mean = sum(seen) / len(seen)
    assert mean == pytest.approx(106, abs=0.1)
    assert (sum((s - mean) ** 2 for s in seen) / len(seen)) ** 0.5 == pytest.approx(0.3, abs=0.04)


@pytest.mark.parametrize(
    "line", ["", "PUT", "PUT x", "PUT -1", "PUT nan", "POUR 1e9", "UNIT st", "TARE 3", "tare", "\0"]
)
def test_what_it_does_not_know_changes_nothing(pan: Pan, line: str) -> None:
    before = shown(pan)
    assert pan.do(line) is False
    assert shown(pan) == before


def test_garbled_lines_are_told(pan: Pan) -> None:
    good = reading_line("S", 12.3, "g", 4)
    assert parse_reading(good, "abcd", 3000, 0.1) is not None
    for i in range(len(good)):
        if good[i] != "?":
            assert parse_reading(f"{good[:i]}?{good[i + 1 :]}", "abcd", 3000, 0.1) is None
    assert parse_reading(good.replace("12.3", "12.4"), "abcd", 3000, 0.1) is None
    assert parse_hello(hello("abcd", 3000, 0.1)) == ("abcd", 3000, 0.1)
    assert parse_hello("LUMSO-SCALE 2 abcd 3000 0.1") is None


@pytest.fixture
def at_bench(tmp_path: Path) -> Iterator[tuple[SocketScale, Pan, Path]]:
    path, pan = tmp_path / "bench" / "scale.sock", Pan(noise_g=0.0, drift_g_per_h=0.0, settles_s=0.0)
    listener, over = listen_at(path), threading.Event()
    thread = threading.Thread(target=serve, args=(listener, pan, over.is_set))
    thread.start()
    scale = SocketScale(path)
    scale.start()
    until(lambda: scale.state == "listening")
    yield scale, pan, path
    scale.stop()
    over.set()
    thread.join()
    listener.close()


def test_it_is_listened_to_asked_and_not_believed_once_it_was_switched_off(
    at_bench: tuple[SocketScale, Pan, Path],
) -> None:
    scale, _, _ = at_bench
    assert scale.ask("PUT 212") is True
    until(lambda: scale.reading and scale.reading.g == 212)
    scale.ask("TARE")
    until(lambda: scale.reading and scale.reading.tare == 1)
    assert scale.reading is not None
    zero = zero_at(scale.reading, "pot", 0.0)
    scale.ask("POUR 54")
    until(lambda: believed(scale.reading, zero).g == 54)
    scale.ask("RESTART")
    until(lambda: believed(scale.reading, zero).why == "begun anew")
    assert scale.ask("x" * 300) is False
    assert scale.ask("PUT 1\nPUT 1") is False


def test_only_its_owner_may_open_it(at_bench: tuple[SocketScale, Pan, Path]) -> None:
    _, _, path = at_bench
    assert stat.S_IMODE(path.stat().st_mode) == 0o600
    assert stat.S_IMODE(path.parent.stat().st_mode) == 0o700


def test_lines_too_long_are_dropped_on_both_sides(at_bench: tuple[SocketScale, Pan, Path], tmp_path: Path) -> None:
    scale, pan, path = at_bench
    with socket.socket(socket.AF_UNIX, socket.SOCK_STREAM) as rude:
        rude.connect(str(path))
        rude.sendall(b"PUT 1" + b"0" * 5000 + b"\nPUT 7\n\xff\xfe\n")
        until(lambda: pan.load_g == 7)
    until(lambda: scale.reading and scale.reading.g == 7)  # the others are still served


def test_a_babbling_scale_is_counted_and_outlived(tmp_path: Path) -> None:
    path = tmp_path / "rude.sock"
    listener = listen_at(path)
    scale = SocketScale(path)
    scale.start()
    taken, _ = listener.accept()
    lines = [hello("abcd", 3000, 0.1), "what?", "S 1.0 g 0 *00", "x" * (LONGEST + 50), reading_line("S", 5.0, "g", 0)]
    taken.sendall("".join(f"{line}\n" for line in lines).encode())
    until(lambda: scale.reading and scale.reading.g == 5)
    assert scale.garbled == 3
    taken.sendall(b"y" * 10_000)  # a line that never ends
    taken.sendall(f"\n{reading_line('S', 6.0, 'g', 0)}\n".encode())
    until(lambda: scale.reading and scale.reading.g == 6)
    assert scale.garbled == 4
    taken.close()
    until(lambda: scale.state == "gone")
    assert scale.reading is None
    assert scale.ask("TARE") is False
    again, _ = listener.accept()  # it is tried again
    again.sendall(f"{hello('beef', 3000, 0.1)}\n{reading_line('S', 0.0, 'g', 0)}\n".encode())
    until(lambda: scale.reading and scale.reading.boot == "beef")
    scale.stop()
    listener.close()
    again.close()


def test_as_a_process_it_ends_with_whoever_began_it(tmp_path: Path) -> None:
    command = [sys.executable, "-m", "lumso", "scale", "--at", str(tmp_path / "s.sock"), "--tied"]
    process = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
    assert process.stdout
    assert process.stdin
    assert process.stdout.readline().split()[-1] == str(tmp_path / "s.sock")
    scale = SocketScale(tmp_path / "s.sock")
    scale.start()
    until(lambda: scale.state == "listening")
    process.stdin.close()
    process.stdout.close()
    assert process.wait(timeout=10) == 0
    until(lambda: scale.state == "gone")
    scale.stop()


def test_rubbish_on_the_line_is_no_weight_however_much_of_it_comes(tmp_path: Path) -> None:
    """A loose plug: one reading, then noise without an end. The weight before it is not shown as what stands there."""
    listener, over = listen_at(tmp_path / "loose.sock"), threading.Event()

    def noise() -> None:
        listener.settimeout(0.2)
        while not over.is_set():
            try:
                one, _ = listener.accept()
            except TimeoutError:
                continue
            with one, suppress(OSError):
                one.sendall(f"{hello('abcd', 3000, 0.1)}\n{reading_line('S', 250.0, 'g', 0)}\n".encode())
                while not over.wait(0.02):
                    one.sendall(b"S 25\x000.0 g 0 *00\nS 999.9 g 0 *FF\n")

    thread = threading.Thread(target=noise)
    thread.start()
    scale = SocketScale(tmp_path / "loose.sock")
    scale.start()
    until(lambda: scale.reading is not None and scale.reading.g == 250)
    until(lambda: scale.reading is None)
    assert scale.state == "gone"
    assert scale.garbled > 0
    assert (
        believed(scale.reading, zero_at(ScaleReading("abcd", 0, "g", 0.0, True, False, 0.1, 3000), "p", 0.0)).g is None
    )
    over.set()
    scale.stop()
    thread.join()
    listener.close()


@pytest.mark.parametrize(
    ("line", "g", "over", "unsettled"),
    [
        (reading_line("S", 2999.9, "g", 0), 2999.9, False, False),
        (reading_line("S", 50_000.0, "g", 0), None, True, False),
        (reading_line("S", 9.0, "lb", 3), None, True, False),
        (reading_line("S", -0.8, "g", 0), -0.8, False, False),  # drift
        (reading_line("S", -400.0, "g", 0), None, False, True),  # below its own zero: no weight
        (reading_line("S", -400.0, "g", 1), -400.0, False, False),  # taken off after a tare
        (reading_line("S", -50_000.0, "g", 1), None, False, True),  # more than ever stood on it
    ],
)
def test_limits_hold_for_all_that_stands_on_it(line: str, g: float | None, over: bool, unsettled: bool) -> None:
    reading = parse_reading(line, "abcd", 3000, 0.1)
    assert reading is not None
    assert reading.g == (None if g is None else pytest.approx(g, abs=0.06))
    assert (reading.over, reading.unsettled) == (over, unsettled)
    said = believed(reading, zero_at(reading, "pot", 0.0))
    assert (said.g is None) is (g is None)
    assert said.why == ("overload" if over else "unsettled" if unsettled else "")
