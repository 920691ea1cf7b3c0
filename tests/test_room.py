"""The simulated thermo-hygrometer: a process of its own, killed, begun again and garbled; and who listens to it."""

import random
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.devices.lines import checksum, line, parse
from lumso.devices.listener import Listener
from lumso.devices.room import Sensor
from tests.waiting import until

PORCH = shipped().profiles["porch"]


@given(st.floats(-10, 50), st.floats(0.02, 1))
def test_a_line_is_read_as_it_was_written(temperature: float, humidity: float) -> None:
    found = parse(line(temperature, humidity))
    assert found
    assert found[0] == pytest.approx(temperature, abs=0.051)
    assert found[1] == pytest.approx(humidity, abs=0.00051)


@given(st.floats(-10, 50), st.floats(0.02, 1), st.data())
def test_a_line_with_any_one_character_damaged_is_not_believed(t: float, h: float, data: st.DataObject) -> None:
    text = line(t, h)
    place = data.draw(st.integers(0, len(text) - 1))
    other = data.draw(st.characters(min_codepoint=32, max_codepoint=126).filter(lambda c: c != text[place]))
    assert parse(text[:place] + other + text[place + 1 :]) is None


@pytest.mark.parametrize(
    "text", ["", "READ", "READ 20 50", "READ 1e3 50 *00", "READ 20 50 *zz", "NOW", "READ nan 5 *11"]
)
def test_what_is_no_line_is_skipped(text: str) -> None:
    assert parse(text) is None
    body = text.partition(" *")[0]
    if not body.startswith("READ 20"):
        assert parse(f"{body} *{checksum(body)}") is None


def test_the_sensor_follows_its_place_drifts_and_repeats() -> None:
    def day(sensor: Sensor, after: float = 0.0) -> list[tuple[float, float]]:
        return [found for h in range(24) if (text := sensor.measure(h * 60, after)) and (found := parse(text))]

    exact = day(Sensor(PORCH, drift_c=0, noise_c=0))
    assert [t for t, _ in exact] == [pytest.approx(t, abs=0.051) for t in PORCH.temperature_c]
    drifted = day(Sensor(PORCH, drift_c=2, noise_c=0), after=720)
    assert [t - e for (t, _), (e, _) in zip(drifted, exact, strict=True)] == [pytest.approx(1.0, abs=0.11)] * 24
    assert day(Sensor(PORCH, seed=4)) == day(Sensor(PORCH, seed=4)) != day(Sensor(PORCH, seed=5))
    lossy, damaged = Sensor(PORCH, drops=0.5, seed=2), Sensor(PORCH, garbles=1.0, seed=2)
    assert 4 < sum(lossy.measure(60, 0) is None for _ in range(24)) < 20
    assert all(parse(damaged.measure(60, 0) or "") is None for _ in range(24))


@contextmanager
def sensor(*options: str, port: int = 0) -> Iterator[tuple[subprocess.Popen[str], int]]:
    command = [sys.executable, "-m", "lumso", "room", "--port", str(port), "--every", "0.05", *options]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert process.stdout
    try:
        yield process, int(process.stdout.readline().split()[-1])
    finally:
        process.kill()
        process.wait()
        process.stdout.close()


Heard = list[tuple[float, float, float]]


@pytest.fixture
def heard() -> Heard:
    return []


def test_a_sensor_that_is_killed_is_heard_again_when_it_is_back(heard: Heard, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("lumso.devices.listener.TRY_AGAIN_S", 0.05)
    with sensor() as (process, port):
        listener = Listener(port, lambda *r: heard.append(r))
        listener.start()
        until(lambda: len(heard) > 2)
        assert listener.state == "listening"
        process.kill()
        until(lambda: listener.state == "gone")
    count = len(heard)
    with sensor("--profile", "porch", port=port):
        until(lambda: len(heard) > count)
        assert listener.state == "listening"
        listener.stop()
    assert all(abs(minute - time.time() / 60) < 2 and 0 < h <= 1 for minute, _, h in heard)


def test_garbled_lines_are_counted_and_never_kept(heard: Heard) -> None:
    with sensor("--garbles", "0.7", "--drops", "0.2", "--noise", "0", "--at", "15:00", "--drift", "0") as (_, port):
        listener = Listener(port, lambda *r: heard.append(r))
        listener.start()
        until(lambda: listener.garbled > 5 and len(heard) > 2)
        listener.stop()
    assert {(t, h) for _, t, h in heard} <= {(20.0, 0.5), (20.0, 0.501), (20.0, 0.499)}


def fake() -> tuple[socket.socket, int]:
    server = socket.create_server(("127.0.0.1", 0))
    return server, server.getsockname()[1]


@pytest.mark.parametrize(
    "rubbish",
    [
        b"\xff\xfe\x00" * 4000,
        b"x" * 50_000,
        b"READ 20.0 50.0\n" * 50,
        bytes(random.Random(3).randrange(256) for _ in range(5000)),
    ],
)
def test_rubbish_on_the_line_harms_nobody(heard: Heard, rubbish: bytes) -> None:
    server, port = fake()
    listener = Listener(port, lambda *r: heard.append(r))
    listener.start()
    client, _ = server.accept()
    client.sendall(rubbish + b"\nLUMSO-ROOM 1 porch\n" + rubbish + b"\n" + line(18, 0.5).encode() + b"\n")
    until(lambda: heard)
    assert [(t, h) for _, t, h in heard] == [(18.0, 0.5)]
    listener.stop()
    client.close()
    server.close()


def test_a_device_that_does_not_greet_is_not_listened_to(heard: Heard) -> None:
    server, port = fake()
    listener = Listener(port, lambda *r: heard.append(r))
    listener.start()
    client, _ = server.accept()
    client.sendall((line(18, 0.5) + "\n").encode() * 3)
    until(lambda: listener.garbled == 3)
    assert heard == []
    assert listener.state == "gone"
    listener.stop()
    client.close()
    server.close()


def test_a_reading_that_cannot_be_kept_does_not_stop_the_next(heard: Heard) -> None:
    def keep(*reading: float) -> None:
        if not heard:
            heard.append((0, 0, 0))
            raise OSError("the disk is full")
        heard.append(reading)  # type: ignore[arg-type]

    with sensor() as (_, port):
        listener = Listener(port, keep)
        listener.start()
        until(lambda: len(heard) > 2)
        listener.stop()


def test_a_sensor_that_is_tied_ends_with_whoever_began_it() -> None:
    command = [sys.executable, "-m", "lumso", "room", "--port", "0", "--tied"]
    process = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
    assert process.stdout
    assert process.stdin
    assert "sends on port" in process.stdout.readline()
    process.stdin.close()
    assert process.wait(timeout=20) == 0
    process.stdout.close()


@pytest.mark.parametrize("goes_on", [b"", b"READ 20.0 50.0 *00\n"])
def test_a_device_that_says_how_often_it_measures_is_gone_after_three_of_its_intervals(goes_on: bytes) -> None:
    """Silent, or rubbish on the line: neither is a room that is heard."""
    with socket.create_server(("127.0.0.1", 0)) as device:
        listener = Listener(device.getsockname()[1], lambda *found: None)
        listener.start()
        try:
            client, _ = device.accept()
            with client:
                client.sendall(b"LUMSO-ROOM 1 porch 0.05\n" + line(18, 0.5).encode() + b"\n")
                until(lambda: listener.state == "listening")

                def gone() -> bool:
                    with suppress(OSError):
                        client.sendall(goes_on)
                    return listener.state == "gone"

                until(gone)
        finally:
            listener.stop()
