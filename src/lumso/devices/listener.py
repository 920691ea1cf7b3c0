"""Listening to the thermo-hygrometer: readings are kept as they come, and a device that is gone is tried again."""

import logging
import socket
from collections.abc import Callable
from threading import Event, Lock, Thread
from time import monotonic, time

from lumso.core.pour.scale import Connection

from .lines import LONGEST, greeted, parse

log = logging.getLogger("lumso")
QUIET_S = 180.0
"""A device that does not say how often it measures is gone when so long nothing valid came."""
INTERVALS = 3.0
"""One that says so is gone after so many of its own."""
LEAST_QUIET_S = 1.0
TRY_AGAIN_S = 3.0


class Listener:
    """Listens to a device at an address of this machine. `keep` is given minute, °C and relative humidity."""

    def __init__(self, port: int, keep: Callable[[float, float, float], None]) -> None:
        self.port, self.keep = port, keep
        self.state: Connection = "gone"
        self.garbled = 0
        self._over, self._lock = Event(), Lock()
        self._valid, self._quiet_s = 0.0, QUIET_S
        self._socket: socket.socket | None = None
        self._thread = Thread(target=self._listen, name="room", daemon=True)

    def start(self) -> None:
        """Begin to listen."""
        self._thread.start()

    def stop(self) -> None:
        """Listen no more."""
        self._over.set()
        with self._lock:
            if self._socket:
                self._socket.close()
        self._thread.join(timeout=2)

    def _listen(self) -> None:
        while not self._over.is_set():
            try:
                with socket.create_connection(("127.0.0.1", self.port), timeout=5) as heard:
                    with self._lock:
                        self._socket = heard
                    self._read(heard)
            except OSError:
                pass
            if self.state == "listening":
                log.info("the thermo-hygrometer on port %d is gone", self.port)
            self.state = "gone"
            self._over.wait(TRY_AGAIN_S)

    def _read(self, heard: socket.socket) -> None:
        """Read lines until the device is gone, or says nothing valid any more. A line that never ends is let go of."""
        rest, self._valid, self._quiet_s = b"", monotonic(), QUIET_S
        heard.settimeout(min(1.0, QUIET_S / 4))
        while not self._over.is_set():
            if monotonic() - self._valid > self._quiet_s:  # rubbish on the line is no reading
                return
            try:
                more = heard.recv(4096)
            except TimeoutError:
                continue
            if not more:
                return
            *lines, rest = (rest + more).split(b"\n")
            rest = rest[-LONGEST:]
            for raw in lines:
                self._take(raw.decode("ascii", "replace").strip())

    def _take(self, text: str) -> None:
        if (every_s := greeted(text)) is not None:
            self.state, self._valid = "listening", monotonic()
            self._quiet_s = max(INTERVALS * every_s, LEAST_QUIET_S) if every_s else QUIET_S
            return
        found = parse(text) if self.state == "listening" else None
        if found is None:
            self.garbled += 1
            return
        self._valid = monotonic()
        try:
            self.keep(float(int(time() / 60)), *found)
        except Exception as error:
            log.warning("a reading could not be kept: %s", error)
