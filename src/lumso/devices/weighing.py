"""Listening to the bench scale. Behind `Scale` another adapter could take the place of the one for the socket."""

import logging
import socket
from collections.abc import Callable
from pathlib import Path
from threading import Condition, Event, Thread
from time import monotonic
from typing import Protocol

from lumso.core.pour.scale import Connection, ScaleReading

from .scale_lines import LONGEST, parse_hello, parse_reading

log = logging.getLogger("lumso")
TRY_AGAIN_S = 0.5
QUIET_S = 2.0
LIVE_S = 1.5
"""A weight counts as current as long as a whole, valid reading came within so many seconds, whatever else arrives."""


class Scale(Protocol):
    """What a scale is to whoever pours: its last reading, and what can be asked of it."""

    simulated: bool

    @property
    def state(self) -> Connection: ...

    @property
    def reading(self) -> ScaleReading | None: ...

    @property
    def seen(self) -> int:
        """Rises whenever something changed."""
        ...

    def ask(self, line: str) -> bool:
        """Ask something of it; False where it cannot be asked now."""
        ...


class SocketScale:
    """A scale behind the line protocol, on a socket of this machine. A device that is gone is tried again."""

    simulated = True

    def __init__(self, path: Path, changed: Callable[[], None] = lambda: None) -> None:
        self.path, self._changed = path, changed
        self.garbled = 0
        self._state: Connection = "gone"
        self._reading: ScaleReading | None = None
        self._seen = 0
        self._device: tuple[str, float, float] | None = None
        self._over, self._turn = Event(), Condition()
        self._socket: socket.socket | None = None
        self._thread = Thread(target=self._listen, name="scale", daemon=True)

    @property
    def state(self) -> Connection:
        """Whether it answers."""
        return self._state

    @property
    def reading(self) -> ScaleReading | None:
        """What it shows; None where it does not answer."""
        return self._reading

    @property
    def seen(self) -> int:
        """Rises whenever something changed."""
        return self._seen

    def start(self) -> None:
        """Begin to listen."""
        self._thread.start()

    def stop(self) -> None:
        """Listen no more."""
        self._over.set()
        self._thread.join(timeout=3)

    def ask(self, line: str) -> bool:
        """Send a line to it; False where it does not answer."""
        with self._turn:
            if self._socket is None or len(line) > LONGEST or "\n" in line:
                return False
            try:
                self._socket.sendall(f"{line}\n".encode("ascii"))
            except (OSError, UnicodeEncodeError):
                return False
        return True

    def _listen(self) -> None:
        while not self._over.is_set():
            try:
                with socket.socket(socket.AF_UNIX, socket.SOCK_STREAM) as one:
                    one.settimeout(QUIET_S)
                    one.connect(str(self.path))
                    with self._turn:
                        self._socket = one
                    self._read(one)
            except OSError:
                pass
            with self._turn:
                self._socket = None
            if self._state == "listening":
                log.info("the scale at %s is gone", self.path)
            self._say("gone", None)
            self._over.wait(TRY_AGAIN_S)

    def _read(self, one: socket.socket) -> None:
        """Read lines until the device is gone or says nothing valid any more. A line that never ends is let go of."""
        self._device, rest, long = None, b"", False
        heard = monotonic()
        one.settimeout(0.25)
        while not self._over.is_set():
            silent = monotonic() - heard
            if silent > LIVE_S:  # rubbish on the line is no weight
                self._say("gone", None)
            if silent > QUIET_S:
                return
            try:
                more = one.recv(4096)
            except TimeoutError:
                continue
            if not more:
                return
            *lines, rest = (rest + more).split(b"\n")
            for raw in lines:
                if long or len(raw) > LONGEST:
                    self.garbled, long = self.garbled + 1, False
                elif self._take(raw.decode("ascii", "replace").strip()):
                    heard = monotonic()
            if len(rest) > LONGEST:
                rest, long = b"", True

    def _take(self, text: str) -> bool:
        if (device := parse_hello(text)) is not None:
            self._device = device
            return True
        reading = parse_reading(text, *self._device) if self._device else None
        if reading is None:
            self.garbled += 1
            return False
        if reading != self._reading:
            self._say("listening", reading)
        return True

    def _say(self, state: Connection, reading: ScaleReading | None) -> None:
        if (state, reading) != (self._state, self._reading):
            self._state, self._reading, self._seen = state, reading, self._seen + 1
            self._changed()
