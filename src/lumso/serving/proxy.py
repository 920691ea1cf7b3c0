"""Standing behind a proxy: who asks is whom the proxy says, where it is the proxy that says it.

Without one, whatever says that it was passed on is not from the machine itself: a proxy that nobody told Lumso of runs
there too, and would else let in the whole world as the machine's own user.
"""

import ipaddress
from collections import Counter
from collections.abc import Iterable

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Receive, Scope, Send

from lumso.api.errors import ProblemOut, reply

PASSED_ON = (
    "forwarded", "via", "x-forwarded-for", "x-forwarded-host", "x-forwarded-proto", "x-forwarded-port",
    "x-forwarded-server", "x-real-ip", "cf-connecting-ip", "true-client-ip", "x-client-ip", "x-cluster-client-ip",
)  # fmt: skip
"""Headers that say that a request was passed on."""

FOREIGN = "lumso.foreign"
"""Set in a request's scope where it cannot be from the machine itself."""
MOST_AT_ONCE = 64
"""How many requests are answered at once for one address behind the proxy."""
BUSY = ProblemOut(type="/problems/Refused", title="Too much at once", status=503,
                  detail=f"At most {MOST_AT_ONCE} questions of one address are answered at once. Ask again in a "
                         "moment.")  # fmt: skip


def _address(said: str) -> str:
    """An address as it stands in a header, without its port; "" where it is none."""
    text = said.strip().strip('"')
    if text.startswith("["):
        text = text[1:].partition("]")[0]
    elif text.count(":") == 1:
        text = text.partition(":")[0]
    try:
        return str(ipaddress.ip_address(text))
    except ValueError:
        return ""


def _last_before(said: Iterable[str], trusted: frozenset[str]) -> str:
    """Of a chain of addresses, the last that is no trusted proxy: what comes before it anybody may have written."""
    for one in reversed(list(said)):
        address = _address(one)
        if address not in trusted:
            return address
    return ""


def _said_for(headers: Headers) -> list[str]:
    """The chain of addresses that a request names, the nearest last."""
    if found := headers.getlist("x-forwarded-for"):
        return [part for line in found for part in line.split(",")]
    chain = []
    for line in headers.getlist("forwarded"):
        for hop in line.split(","):
            pairs = (pair.partition("=") for pair in hop.split(";"))
            chain += [value for name, _, value in pairs if name.strip().lower() == "for"]
    return chain or headers.getlist("x-real-ip")


def _said_scheme(headers: Headers) -> str:
    said = headers.get("x-forwarded-proto", "").rpartition(",")[2].strip().lower()
    for pair in headers.get("forwarded", "").rpartition(",")[2].split(";"):
        name, _, value = pair.partition("=")
        if name.strip().lower() == "proto":
            said = said or value.strip().strip('"').lower()
    return said if said in ("http", "https") else ""


class PassedOn:
    """Before all else: whom a request is from."""

    def __init__(self, app: ASGIApp, trusted: frozenset[str] = frozenset()) -> None:
        """`trusted` are the addresses of the proxy; none where there is no proxy."""
        self.app, self.trusted = app, trusted
        self.at_once: Counter[str] = Counter()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Pass on, with who asks as it is."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers, client = Headers(scope=scope), scope.get("client") or ("", 0)
        by_proxy = _address(str(client[0])) in self.trusted
        if not by_proxy:
            if any(name in headers for name in PASSED_ON):
                scope[FOREIGN] = True
            await self.app(scope, receive, send)
            return
        whose = _last_before(_said_for(headers), self.trusted) or "behind the proxy"
        scope[FOREIGN], scope["client"] = True, (whose, 0)
        scope["scheme"] = _said_scheme(headers) or scope.get("scheme", "http")
        if self.at_once[whose] >= MOST_AT_ONCE:
            await reply(BUSY, {"Retry-After": "5"})(scope, receive, send)
            return
        self.at_once[whose] += 1
        try:
            await self.app(scope, receive, send)
        finally:
            self.at_once[whose] -= 1
            if not self.at_once[whose]:
                del self.at_once[whose]
