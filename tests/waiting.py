"""Waiting for something that comes by itself, from another thread or process: for a named state, never for a while."""

import time
from collections.abc import Callable
from threading import Event

PATIENCE_S = 30.0
"""So long is waited on a busy machine before a test says that it never came."""


def until(so: Callable[[], object], says: str = "it never came to that") -> None:
    """Wait until something is so."""
    over, pause = time.monotonic() + PATIENCE_S, Event()
    while not so():
        assert time.monotonic() < over, says
        pause.wait(0.01)
