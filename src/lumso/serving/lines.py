"""The lines that are held open: how many, for whom, and how long one may say nothing.

The server underneath limits neither connections by address nor the time a head takes; so connections are counted as
they are accepted, before they cost anything, and looked at every second. It stays the server that is known to end
cleanly and to speak TLS: what is added is a socket that counts and a protocol that watches.
"""

import asyncio
import ipaddress
import socket
from collections import Counter
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from time import monotonic
from typing import Any

import h11
import uvicorn
from uvicorn.protocols.http.h11_impl import H11Protocol


@dataclass(frozen=True)
class Limits:
    """What lines may cost. `own` of all are held back for the machine Lumso runs on; times in seconds."""

    an_address: int = 64
    in_all: int = 512
    own: int = 8
    head_s: float = 10.0
    """A head must be complete so soon after its line was opened, or after its first byte."""
    body_s: float = 20.0
    """A body must go on so soon after what came last."""
    taken_s: float = 60.0
    """What is answered must be taken on so soon."""
    kept_s: int = 75
    """A line that nothing is asked on is closed after so long."""
    look_every_s: float = 1.0


def _is_own(address: str) -> bool:
    try:
        return ipaddress.ip_address(address).is_loopback
    except ValueError:
        return False


class _Counted(socket.socket):
    """A line that was accepted: counted as long as it is open."""

    gone: Callable[[], None] | None = None

    def close(self) -> None:
        """Close it, and count it no more."""
        super().close()
        gone, self.gone = self.gone, None
        if gone:
            gone()


@dataclass
class Lines:
    """The lines that are open."""

    limits: Limits = field(default_factory=Limits)
    trusted: frozenset[str] = frozenset()
    """A proxy's addresses: all come over it, so that it counts itself."""
    clock: Callable[[], float] = monotonic
    by_address: Counter[str] = field(default_factory=Counter)
    silent: dict[int, tuple[float, _Counted]] = field(default_factory=dict)
    """Lines, by number, that have not yet been spoken on (over TLS: not shaken hands on), and since when."""
    watched: "set[HttpLine]" = field(default_factory=set)

    def may_open(self, address: str) -> bool:
        """Whether one more is held for an address."""
        limits, own = self.limits, _is_own(address)
        if self.by_address.total() >= limits.in_all - (0 if own else limits.own):
            return False
        return address in self.trusted or self.by_address[address] < limits.an_address

    def opened(self, line: _Counted, address: str) -> None:
        """Count a line until it is closed."""
        number = line.fileno()
        self.by_address[address] += 1
        self.silent[number] = (self.clock(), line)

        def gone() -> None:
            self.by_address[address] -= 1
            if not self.by_address[address]:
                del self.by_address[address]
            if self.silent.get(number, (0.0, None))[1] is line:
                del self.silent[number]

        line.gone = gone

    def look(self) -> None:
        """Close what has been silent too long."""
        now = self.clock()
        for since, line in list(self.silent.values()):
            if now - since > self.limits.head_s:
                with suppress(OSError):  # its own protocol then finds it closed
                    line.shutdown(socket.SHUT_RDWR)
        for watched in list(self.watched):
            if watched.is_late(now):
                watched.transport.abort()

    async def watch(self) -> None:
        """Look again and again, for as long as the server runs."""
        while True:
            await asyncio.sleep(self.limits.look_every_s)
            self.look()

    def protocol(self) -> "type[HttpLine]":
        """The protocol of these lines."""
        return type("HttpLine", (HttpLine,), {"lines": self})


class Listening(socket.socket):
    """A listening socket that closes at once what is one too many."""

    lines: Lines

    def accept(self) -> tuple[socket.socket, Any]:
        """The next line. Raises ConnectionAbortedError for one that is not held, which the event loop passes over."""
        number, whence = self._accept()  # type: ignore[attr-defined]
        line = _Counted(self.family, self.type, self.proto, fileno=number)
        address = str(whence[0])
        if not self.lines.may_open(address):
            line.close()
            raise ConnectionAbortedError("no more lines are held for this address")
        self.lines.opened(line, address)
        return line, whence


def counted(listener: socket.socket, lines: Lines) -> Listening:
    """A listening socket whose lines are counted; the one that is given is used up."""
    made = Listening(listener.family, listener.type, listener.proto, fileno=listener.detach())
    made.lines = lines
    return made


class HttpLine(H11Protocol):
    """One line: the protocol of the server underneath, with a look at how long it says nothing."""

    lines: Lines
    heard: float = 0.0
    """When anything last came."""
    asking: float | None = None
    """Since when a head is awaited that has begun to come, or that a fresh line owes."""
    stuck: float | None = None
    """Since when nothing of the answer is taken."""

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        """Begin to watch: a head is owed."""
        super().connection_made(transport)
        self.heard = self.asking = self.lines.clock()
        held = transport.get_extra_info("socket")
        if held is not None:
            self.lines.silent.pop(held.fileno(), None)
        self.lines.watched.add(self)

    def connection_lost(self, exc: Exception | None) -> None:
        """Watch it no more."""
        self.lines.watched.discard(self)
        super().connection_lost(exc)

    def data_received(self, data: bytes) -> None:
        """Take what came."""
        before, self.heard = self.cycle, self.lines.clock()
        if self.asking is None and (before is None or before.response_complete):
            self.asking = self.heard
        super().data_received(data)
        if self.cycle is not before:
            self.asking = None  # its head is there

    def pause_writing(self) -> None:
        """The answer is not taken on."""
        self.stuck = self.lines.clock()
        super().pause_writing()

    def resume_writing(self) -> None:
        """It is again."""
        self.stuck = None
        super().resume_writing()

    def is_late(self, now: float) -> bool:
        """Whether it has said nothing for longer than it may. Where an answer is awaited, it may say nothing."""
        limits = self.lines.limits
        if self.asking is not None:
            return now - self.asking > limits.head_s
        if self.stuck is not None:
            return now - self.stuck > limits.taken_s
        in_midst = self.conn.their_state is h11.SEND_BODY and not self.flow.read_paused
        return in_midst and now - self.heard > limits.body_s


class WatchedServer(uvicorn.Server):
    """The server underneath, its lines watched for as long as it runs."""

    def __init__(self, config: uvicorn.Config, lines: Lines) -> None:
        super().__init__(config)
        self.lines = lines

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        """Begin to serve, and to watch."""
        await super().startup(sockets)
        self.watching = asyncio.create_task(self.lines.watch())
