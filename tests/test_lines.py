"""The lines that are held: how many, for whom, how long in silence; and who asks behind a proxy."""

import asyncio
import socket
import ssl
from collections.abc import Awaitable, Callable, Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path
from threading import Thread
from typing import Any

import pytest
import uvicorn

from lumso.commands.parts import bind
from lumso.serving.lines import Limits, Lines, WatchedServer, counted
from lumso.serving.proxy import FOREIGN, MOST_AT_ONCE, PassedOn
from lumso.tls import certificate

from .waiting import until

QUICK = Limits(an_address=6, kept_s=1, look_every_s=0.02)


class Time:
    """What time it is for lines, in seconds, to be turned on."""

    now = 0.0

    def __call__(self) -> float:
        return self.now


async def app(scope: Any, receive: Any, send: Any) -> None:
    """Answers with how much was sent; /stream goes on, /much is more than a line holds."""
    if scope["type"] != "http":
        return
    size, more = 0, True
    while more:
        message = await receive()
        size, more = size + len(message.get("body", b"")), message.get("more_body", False)
    await send({"type": "http.response.start", "status": 200, "headers": []})
    if scope["path"] == "/stream":
        for _ in range(3):
            await send({"type": "http.response.body", "body": b"beat\n", "more_body": True})
            await receive()
    if scope["path"] == "/much":
        for _ in range(2000):
            await send({"type": "http.response.body", "body": b"x" * 65536, "more_body": True})
    await send({"type": "http.response.body", "body": str(size).encode()})


@contextmanager
def served(limits: Limits = QUICK, tls: Path | None = None, time: Time | None = None) -> Iterator[tuple[int, Lines]]:
    lines = Lines(limits, clock=time or Time())
    listener = bind("127.0.0.1", 0)
    port = listener.getsockname()[1]
    cert, key = certificate(tls, {"127.0.0.1"})[:2] if tls else (None, None)
    config = uvicorn.Config(app, http=lines.protocol(), ws="none", lifespan="off", log_level="critical",
                            timeout_keep_alive=limits.kept_s, ssl_certfile=cert, ssl_keyfile=key)  # fmt: skip
    server = WatchedServer(config, lines)
    thread = Thread(target=server.run, kwargs={"sockets": [counted(listener, lines)]}, daemon=True)
    thread.start()
    until(lambda: server.started)
    try:
        yield port, lines
    finally:
        server.should_exit = True
        thread.join()


def opened(port: int, stack: ExitStack) -> socket.socket:
    return stack.enter_context(socket.create_connection(("127.0.0.1", port), timeout=20))


def said(line: socket.socket) -> bytes:
    """All that comes until the line is closed; nothing where it was cut."""
    got = b""
    try:
        while piece := line.recv(65536):
            got += piece
    except ConnectionError:
        pass
    return got


def test_an_address_has_only_so_many_lines_and_one_that_ends_makes_room() -> None:
    with served(Limits(an_address=6)) as (port, lines), ExitStack() as stack:
        held = [opened(port, stack) for _ in range(6)]
        until(lambda: lines.by_address["127.0.0.1"] == 6)
        assert said(opened(port, stack)) == b"", "a seventh is closed at once"
        held[0].close()
        until(lambda: lines.by_address["127.0.0.1"] == 5)
        last = opened(port, stack)
        last.sendall(b"GET / HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n")
        assert said(last).startswith(b"HTTP/1.1 200")


def test_some_lines_are_held_back_for_the_machine_itself() -> None:
    lines = Lines(Limits(an_address=64, in_all=512, own=8))
    lines.by_address.update({f"192.168.1.{n}": 63 for n in range(8)})
    assert lines.by_address.total() == 504
    assert not lines.may_open("192.168.1.200")
    assert lines.may_open("127.0.0.1")
    lines.by_address["127.0.0.1"] += 8
    assert not lines.may_open("127.0.0.1")
    assert not Lines(Limits(an_address=1), by_address=lines.by_address).may_open("10.0.0.1")


def test_a_proxy_that_is_trusted_counts_for_itself() -> None:
    lines = Lines(Limits(an_address=4), trusted=frozenset({"10.0.0.2"}))
    lines.by_address.update({"10.0.0.2": 100, "10.0.0.3": 4})
    assert lines.may_open("10.0.0.2")
    assert not lines.may_open("10.0.0.3")


@pytest.mark.parametrize("sent", [b"", b"GET / HTTP/1.1\r\n", b"GET /"])
def test_a_head_that_does_not_come_closes_its_line(sent: bytes) -> None:
    time = Time()
    with served(time=time) as (port, lines), ExitStack() as stack:
        line = opened(port, stack)
        line.sendall(sent)
        until(lambda: bool(lines.watched))
        time.now = 9.9
        lines.look()
        assert lines.by_address["127.0.0.1"] == 1
        time.now = 21
        assert said(line) == b""
        until(lambda: not lines.by_address)


def test_over_tls_whoever_does_not_shake_hands_is_let_go_too(tmp_path: Path) -> None:
    time = Time()
    with served(tls=tmp_path, time=time) as (port, lines), ExitStack() as stack:
        silent = opened(port, stack)
        until(lambda: bool(lines.silent))
        time.now = 11
        assert said(silent) == b""
        until(lambda: not lines.by_address and not lines.silent)
        trusting = ssl.create_default_context(cafile=str(tmp_path / "authority.pem"))
        line = stack.enter_context(trusting.wrap_socket(opened(port, stack), server_hostname="127.0.0.1"))
        line.sendall(b"GET / HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n")
        assert said(line).startswith(b"HTTP/1.1 200")


def test_a_body_that_stops_closes_its_line_and_one_that_goes_on_does_not() -> None:
    head, time = b"POST / HTTP/1.1\r\nHost: x\r\nConnection: close\r\nContent-Length: 4\r\n\r\n", Time()
    with served(time=time) as (port, lines), ExitStack() as stack:
        slow, stopped = opened(port, stack), opened(port, stack)
        stopped.sendall(head + b"1")
        slow.sendall(head)
        until(lambda: len([w for w in lines.watched if w.asking is None]) == 2)
        for n in range(1, 4):
            time.now = n * 15.0
            slow.sendall(b"1")
            until(lambda: any(w.heard == time.now for w in lines.watched))
            lines.look()
        slow.sendall(b"1")
        assert b"\r\n4\r\n" in said(slow), "45 s for a body, and never 20 of silence"
        assert said(stopped) == b""


def test_a_stream_is_alive_as_long_as_it_is_taken_on_and_no_longer() -> None:
    time = Time()
    with served(time=time) as (port, lines), ExitStack() as stack:
        heard = opened(port, stack)
        heard.sendall(b"GET /stream HTTP/1.1\r\nHost: x\r\n\r\n")
        got = b""
        while b"beat" not in got:
            got += heard.recv(65536)
        time.now = 3600.0
        lines.look()
        assert lines.by_address["127.0.0.1"] == 1, "an hour, and nothing is asked"
        heard.close()
        deaf = opened(port, stack)
        deaf.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 4096)
        deaf.sendall(b"GET /much HTTP/1.1\r\nHost: x\r\n\r\n")
        until(lambda: any(w.stuck for w in lines.watched))
        time.now += 61
        until(lambda: not lines.by_address)


def test_a_line_that_nothing_is_asked_on_any_more_is_closed_and_a_second_question_is_answered() -> None:
    with served() as (port, lines), ExitStack() as stack:
        line = opened(port, stack)
        for _ in range(2):
            line.sendall(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n")
            answer = b""
            while not answer.endswith(b"0\r\n\r\n"):
                answer += line.recv(65536)
            assert answer.startswith(b"HTTP/1.1 200")
        said(line)
        until(lambda: not lines.by_address)


Asked = tuple[str, str, bool]


def whose(client: str, headers: dict[str, str], trusted: str = "") -> Asked:
    """From whom a request is, by which scheme, and whether it can be from the machine itself."""
    found: list[Asked] = []

    async def seen(scope: Any, receive: Any, send: Any) -> None:
        found.append((scope["client"][0], scope["scheme"], bool(scope.get(FOREIGN))))

    raw = [(k.lower().encode(), v.encode()) for k, v in headers.items()]
    scope = {"type": "http", "client": (client, 4000), "scheme": "http", "headers": raw, "path": "/"}
    trust = frozenset(trusted.split()) if trusted else frozenset()
    asyncio.run(_ask(PassedOn(seen, trust), scope))
    return found[0]


async def _ask(made: Callable[..., Awaitable[None]], scope: Any) -> None:
    async def nothing(message: Any = None) -> Any:
        return {"type": "http.disconnect"}

    await made(scope, nothing, nothing)


USUAL = {"X-Forwarded-For": "203.0.113.9", "X-Forwarded-Proto": "https", "X-Forwarded-Host": "loft.example"}


@pytest.mark.parametrize(
    ("client", "headers", "trusted", "comes_to"),
    [
        ("127.0.0.1", {}, "", ("127.0.0.1", "http", False)),
        ("127.0.0.1", USUAL, "", ("127.0.0.1", "http", True)),  # a proxy nobody told of: foreign, and not believed
        ("127.0.0.1", {"Via": "1.1 loft"}, "", ("127.0.0.1", "http", True)),
        ("127.0.0.1", {"Forwarded": "for=127.0.0.1"}, "", ("127.0.0.1", "http", True)),
        ("127.0.0.1", {"X-Real-IP": "127.0.0.1"}, "", ("127.0.0.1", "http", True)),
        ("127.0.0.1", USUAL, "127.0.0.1", ("203.0.113.9", "https", True)),
        ("127.0.0.1", {}, "127.0.0.1", ("behind the proxy", "http", True)),
        ("127.0.0.1", {"X-Forwarded-For": "127.0.0.1"}, "127.0.0.1", ("behind the proxy", "http", True)),
        # What stands before the last one that is no proxy, whoever asks may have written.
        ("10.0.0.2", {"X-Forwarded-For": "127.0.0.1, 203.0.113.9, 10.0.0.3"}, "10.0.0.2 10.0.0.3",
         ("203.0.113.9", "http", True)),
        ("10.0.0.2", {"Forwarded": 'for="[2001:db8::7]:4711";proto=https'}, "10.0.0.2",
         ("2001:db8::7", "https", True)),
        ("10.0.0.2", {"X-Real-IP": "203.0.113.9"}, "10.0.0.2", ("203.0.113.9", "http", True)),
        ("10.0.0.2", {"X-Forwarded-For": "203.0.113.9:8080"}, "10.0.0.2", ("203.0.113.9", "http", True)),
        ("10.0.0.9", USUAL, "10.0.0.2", ("10.0.0.9", "http", True)),  # not the proxy: not believed
    ],
)  # fmt: skip
def test_who_asks_is_whom_the_proxy_says_where_it_is_the_proxy(
    client: str, headers: dict[str, str], trusted: str, comes_to: Asked
) -> None:
    assert whose(client, headers, trusted) == comes_to


def test_behind_a_proxy_an_address_is_answered_so_many_at_once() -> None:
    busy = PassedOn(app, frozenset({"10.0.0.2"}))
    busy.at_once["203.0.113.9"] = MOST_AT_ONCE
    told: list[Any] = []

    async def send(message: Any) -> None:
        told.append(message)

    async def one() -> None:
        async def receive() -> Any:
            return {"type": "http.request", "body": b""}

        for whose_ in (b"203.0.113.9", b"203.0.113.10"):
            head = [(b"x-forwarded-for", whose_)]
            await busy({"type": "http", "client": ("10.0.0.2", 1), "headers": head, "path": "/"}, receive, send)

    asyncio.run(one())
    assert [m["status"] for m in told if "status" in m] == [503, 200]
    assert "203.0.113.10" not in busy.at_once
