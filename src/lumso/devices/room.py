"""A simulated thermo-hygrometer: the air of a place by its profile, with drift, noise and drop-outs."""

import random
import socket
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from select import select

from lumso.core.book.profiles import Profile

from .lines import GREETING, line


@dataclass
class Sensor:
    """What stands in for the sensor. Everything random comes from `seed`.

    `drift_c` is how far it is off after a day, in °C; `noise_c` the spread of a reading; `drops` and `garbles` the
    share of readings that are lost, or whose line is damaged.
    """

    profile: Profile
    drift_c: float = 0.3
    noise_c: float = 0.1
    drops: float = 0.0
    garbles: float = 0.0
    seed: int = 1
    _random: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self._random = random.Random(self.seed)

    def measure(self, minute_of_day: float, after_min: float) -> str | None:
        """The line it sends at a minute of the day, so many minutes after it was begun; None where it drops out."""
        if self._random.random() < self.drops:
            return None
        hour = minute_of_day / 60 % 24
        first, part = int(hour), hour % 1
        after = (first + 1) % 24

        def between(values: tuple[float, ...]) -> float:
            return values[first] * (1 - part) + values[after] * part

        drift = self.drift_c * after_min / 1440
        temperature = between(self.profile.temperature_c) + drift + self._random.gauss(0, self.noise_c)
        humidity = min(max(between(self.profile.humidity) + self._random.gauss(0, self.noise_c / 20), 0.02), 1.0)
        text = line(temperature, humidity)
        if self._random.random() < self.garbles:
            place = self._random.randrange(len(text))
            text = f"{text[:place]}?{text[place + 1 :]}"
        return text


def serve(listener: socket.socket, sensor: Sensor, every_s: float, minute_of_day: Callable[[], float]) -> None:
    """Send readings to whoever is connected, until the process is ended."""
    clients: list[socket.socket] = []
    begun, due = time.monotonic(), 0.0
    listener.setblocking(False)
    while True:
        readable, _, _ = select([listener, *clients], [], [], max(min(due - time.monotonic(), every_s), 0.0))
        asked: list[socket.socket] = []
        for one in readable:
            if one is listener:
                client, _ = listener.accept()
                client.setblocking(False)
                clients.append(client)
                _send([client], f"{GREETING} {sensor.profile.slug} {every_s:g}", clients)
                asked.append(client)
            else:
                try:
                    heard = one.recv(256)
                except OSError:
                    heard = b""
                if not heard:
                    clients.remove(one)
                    one.close()
                elif b"NOW" in heard:
                    asked.append(one)
        now = time.monotonic()
        to = list(clients) if now >= due else asked
        if now >= due:
            due = now + every_s
        if to:
            text = sensor.measure(minute_of_day(), (now - begun) / 60)
            if text:
                _send(to, text, clients)


def _send(to: list[socket.socket], text: str, clients: list[socket.socket]) -> None:
    for client in to:
        try:
            client.sendall(f"{text}\n".encode("ascii"))
        except OSError:
            if client in clients:
                clients.remove(client)
            client.close()
