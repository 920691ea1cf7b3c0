"""A simulated bench scale: what stands on it, with noise, drift, settling, overload, and a hand that pours."""

import os
import random
import secrets
import socket
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from pathlib import Path
from select import select

from lumso.core.pour.scale import GRAMS

from .scale_lines import LONGEST, hello, reading_line

EVERY_S = 0.1


@dataclass
class Pan:
    """What stands in for the load cell. Everything random but `boot` comes from `seed`.

    `noise_g` is the spread of one reading, `drift_g_per_h` how its zero walks, `settles_s` the time constant in which
    it comes to rest.
    """

    most_g: float = 3000.0
    step_g: float = 0.1
    noise_g: float = 0.03
    drift_g_per_h: float = 0.2
    settles_s: float = 0.25
    seed: int = 1
    clock: Callable[[], float] = time.monotonic
    load_g: float = 0.0
    shown_g: float = 0.0
    zero_g: float = 0.0
    tares: int = 0
    unit: str = "g"
    boot: str = ""
    _at: float = field(init=False)
    _since: float = field(init=False)
    _random: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)
        self._at = self._since = self.clock()
        self.boot = self.boot or secrets.token_hex(4)

    def do(self, line: str) -> bool:
        """What a client or a hand asks; False where it is nothing it knows."""
        word, _, more = line.partition(" ")
        try:
            amount = float(more) if word in {"PUT", "POUR"} else 0.0
        except ValueError:
            return False
        if word == "TARE" and not more:
            self.zero_g, self.tares = self._true(), self.tares + 1
        elif word == "PUT" and 0 <= amount <= self.most_g * 3:
            self.load_g += amount
        elif word == "POUR" and -self.most_g <= amount <= self.most_g:
            self.load_g = max(self.load_g + amount, 0.0)
        elif word == "LIFT" and not more:
            self.load_g = 0.0
        elif word == "UNIT" and more in GRAMS:
            self.unit = more
        elif word == "RESTART" and not more:
            self.boot, self.tares, self.zero_g, self.unit = secrets.token_hex(4), 0, self._true(), "g"
        else:
            return False
        return True

    def _true(self) -> float:
        return self.load_g + self.drift_g_per_h * (self.clock() - self._since) / 3600

    def read(self) -> str:
        """The line it sends now."""
        now = self.clock()
        true, passed = self._true(), now - self._at
        self._at = now
        left = 2.0 ** (-passed / self.settles_s * 1.4427) if self.settles_s else 0.0
        self.shown_g = true + (self.shown_g - true) * left
        if self.load_g > self.most_g:
            return reading_line("O", 0.0, self.unit, self.tares)
        steady = abs(self.shown_g - true) < self.step_g / 2
        raw = self.shown_g - self.zero_g + self._random.gauss(0, self.noise_g)
        g = round(raw / self.step_g) * self.step_g
        return reading_line("S" if steady else "U", g / GRAMS[self.unit] + 0.0, self.unit, self.tares)


def listen_at(path: Path) -> socket.socket:
    """A socket at a path that only its owner may open. What a process that is gone left there is put away."""
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    with suppress(FileNotFoundError):
        if path.is_socket():
            path.unlink()
    made = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
    before = os.umask(0o177)
    try:
        made.bind(str(path))
    finally:
        os.umask(before)
    made.listen(4)
    return made


@dataclass
class _Client:
    one: socket.socket
    boot: str = ""
    rest: bytes = b""


def serve(listener: socket.socket, pan: Pan, over: Callable[[], bool] = lambda: False) -> None:
    """Send readings to whoever is connected, and do what they ask, until `over`. A restart greets again."""
    clients: list[_Client] = []
    listener.setblocking(False)
    due = 0.0
    while not over():
        wait = max(due - time.monotonic(), 0.0)
        readable, _, _ = select([listener, *(c.one for c in clients)], [], [], wait)
        for one in readable:
            if one is listener:
                taken, _ = listener.accept()
                taken.setblocking(False)
                clients.append(_Client(taken))
                continue
            client = next(c for c in clients if c.one is one)
            if not _hear(client, pan):
                clients.remove(client)
                one.close()
        if time.monotonic() < due:
            continue
        due = time.monotonic() + EVERY_S
        text = pan.read()
        for client in list(clients):
            lines = [text] if client.boot == pan.boot else [hello(pan.boot, pan.most_g, pan.step_g), text]
            client.boot = pan.boot
            try:
                client.one.sendall("".join(f"{line}\n" for line in lines).encode("ascii"))
            except OSError:
                clients.remove(client)
                client.one.close()
    for client in clients:
        client.one.close()


def _hear(client: _Client, pan: Pan) -> bool:
    """Do what a client asks; False where it is gone."""
    try:
        heard = client.one.recv(4096)
    except OSError:
        return False
    if not heard:
        return False
    *lines, client.rest = (client.rest + heard).split(b"\n")
    client.rest = client.rest if len(client.rest) <= LONGEST else b""
    for raw in lines:
        if len(raw) <= LONGEST:
            pan.do(raw.decode("ascii", "replace").strip())
    return True
