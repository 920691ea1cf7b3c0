"""Listening to the thermo-hygrometer: readings are kept as they come, and a device that is gone is tried again."""

import logging
import socket
from collections.abc import Callable
from threading import Event, Lock, Thread
from time import time
from typing import Literal

from .lines import LONGEST, parse

log = logging.getLogger("lumso")
QUIET_S = 180.0
TRY_AGAIN_S = 3.0
State = Literal["none", "listening", "gone"]


class Listener:
    """Listens to a device at an address of this machine. `keep` is given minute, °C and relative humidity."""

    def __init__(self, port: int, keep: Callable[[float, float, float], None]) -> None:
        self.port, self.keep = port, keep
        self.state: State = "gone"
        self.garbled = 0
        self._over, self._lock = Event(), Lock()
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
                    heard.settimeout(1.0)
                    self._read(heard)
            except OSError:
                pass
            if self.state == "listening":
                log.info("the thermo-hygrometer on port %d is gone", self.port)
            self.state = "gone"
            self._over.wait(TRY_AGAIN_S)

    def _read(self, heard: socket.socket) -> None:
        """Read lines until the device is gone. A line that never ends is let go of."""
        rest, last = b"", time()
        while not self._over.is_set():
            try:
                more = heard.recv(4096)
            except TimeoutError:
                if time() - last > QUIET_S:
                    return
                continue
            if not more:
                return
            last = time()
            *lines, rest = (rest + more).split(b"\n")
            rest = rest[-LONGEST:]
            for raw in lines:
                self._take(raw.decode("ascii", "replace").strip())

    def _take(self, text: str) -> None:
        if text.startswith("LUMSO-ROOM 1"):
            self.state = "listening"
            return
        found = parse(text) if self.state == "listening" else None
        if found is None:
            self.garbled += 1
            return
        try:
            self.keep(float(int(time() / 60)), *found)
        except Exception as error:
            log.warning("a reading could not be kept: %s", error)
