"""The gate: in workshop mode, whoever comes over the network shows that they were let in.

The machine Lumso runs on is never asked, and never locked out. Everybody else enters once with the code that stands in
the terminal, and is a device on a list from then on, to be turned out at any time.
"""

import ipaddress
import secrets
import time
from collections import OrderedDict, deque
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from http.cookies import CookieError, SimpleCookie
from math import ceil
from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Receive, Scope, Send

from lumso.core.errors import LumsoError
from lumso.serving.proxy import FOREIGN
from lumso.store import devices
from lumso.store.batches import CONSONANTS, VOWELS
from lumso.store.database import Database
from lumso.store.devices import Device, Kind, Stay

from . import rights
from .errors import ProblemOut, TooManyTries, WrongCode, problem_of, reply

COOKIE = "lumso"
KEPT_S = 400 * 24 * 3600
"""How long a browser is asked to keep its token: as long as browsers do."""

WORDS, SYLLABLES = 4, 2
TRIES, WITHIN_S = 5, 600.0
"""How many wrong codes a device may give in a while."""
LISTED, REMEMBERED = 20, 2000
"""How many failed tries are listed, and of how many addresses they are counted."""
CODE_S = 3600.0
"""How long a code that was made for one device is good."""

OPEN = {"/api/door", "/api/enter", "/api/trust/authority.pem"}
"""What is answered to anybody: whether a code is asked, and how to give it."""

SEEN_EVERY = timedelta(minutes=5)


def new_code() -> str:
    """Four made-up words, such as "mofa lobi rine tuzo": 70⁸ of them, so that none is guessed."""

    def word() -> str:
        return "".join(secrets.choice(CONSONANTS) + secrets.choice(VOWELS) for _ in range(SYLLABLES))

    return " ".join(word() for _ in range(WORDS))


def _plain(code: str) -> str:
    return "".join(c for c in code.lower() if c.isalnum())


@dataclass(frozen=True)
class Try:
    """A code that was wrong: when (seconds since 1970), and from where."""

    at: float
    whose: str


@dataclass(frozen=True)
class OneCode:
    """A code for one device: what it may do, how long it is let in, and till when the code is good."""

    code: str
    kind: Kind
    stay: Stay
    until: float


@dataclass
class Entry:
    """What is asked of whoever comes over the network, and where a phone finds Lumso."""

    reach: str
    """The address that others reach, such as http://192.168.1.20:8321."""
    code: str = field(default_factory=new_code)
    """Lets a device look; another code, made for one device, lets it work."""
    secure: bool = False
    authority: bytes | None = None
    """The certificate of the authority of one's own, where there is one: to be trusted by devices."""
    clock: Callable[[], float] = time.time
    """Seconds since 1970."""
    told: Callable[[str], None] = lambda code: None
    """Says a new code where Lumso runs."""
    one: OneCode | None = None
    failed: deque[Try] = field(default_factory=lambda: deque(maxlen=LISTED))
    """The last codes that were wrong, the newest first."""
    _wrong: OrderedDict[str, list[float]] = field(default_factory=OrderedDict)
    _out: int | None = None

    def address(self, code: str = "") -> str:
        """The address with a code in it, to be scanned: what stands behind the # is never sent."""
        return f"{self.reach}/#code={(code or self.code).replace(' ', '-')}"

    def renew(self) -> None:
        """Another code: whoever was turned out knows the one there was."""
        self.code, self.one = new_code(), None
        self.told(self.code)

    def heed(self, turned_out: int) -> None:
        """Be told how many devices were turned out so far, by whomever: once it is one more, the code is another."""
        before, self._out = self._out, turned_out
        if before is not None and turned_out > before:
            self.renew()

    def make_one(self, kind: Kind, stay: Stay) -> OneCode:
        """A code for one device; the one made before is good no longer."""
        self.one = OneCode(new_code(), kind, stay, self.clock() + CODE_S)
        return self.one

    def _is(self, said: str, code: str) -> bool:
        return secrets.compare_digest(_plain(said).encode(), _plain(code).encode())

    def check(self, said: str, whose: str) -> tuple[Kind, Stay]:
        """What a code lets do, and how long. Raises WrongCode, and TooManyTries for an address that gave too many wrong
        ones of late."""
        now = self.clock()
        wrong = [at for at in self._wrong.pop(whose, ()) if now - at < WITHIN_S]
        if len(wrong) >= TRIES:
            self._wrong[whose] = wrong
            left_s = ceil(WITHIN_S - (now - wrong[0]))
            says = f"That was wrong {TRIES} times. Look for the code, and try again in {ceil(left_s / 60)} min."
            raise TooManyTries(says, left_s)
        if self.one and now < self.one.until and self._is(said, self.one.code):
            kind, stay, self.one = self.one.kind, self.one.stay, None
            return kind, stay
        if self._is(said, self.code):
            return "looks", "always"
        self._wrong[whose] = [*wrong, now]
        while len(self._wrong) > REMEMBERED:  # those who tried longest ago are forgotten first
            self._wrong.popitem(last=False)
        self.failed.appendleft(Try(now, whose))
        raise WrongCode("That is not the code. It stands where Lumso was started: four words.")


def is_own(scope: Scope) -> bool:
    """Whether it comes from the machine Lumso runs on, by its own name, and was passed on by nobody."""
    if scope.get(FOREIGN):
        return False
    try:
        host = urlsplit(f"//{Headers(scope=scope).get('host', '')}").hostname or ""
        client = ipaddress.ip_address((scope.get("client") or ("",))[0])
        return client.is_loopback and (host == "localhost" or ipaddress.ip_address(host).is_loopback)
    except ValueError:
        return False


def token_of(scope: Scope) -> str:
    """The token a request shows; empty where it shows none."""
    try:
        found = SimpleCookie(Headers(scope=scope).get("cookie", "")).get(COOKIE)
    except CookieError:
        return ""
    return found.value if found else ""


def device_of(db: Database, scope: Scope) -> Device | None:
    """The device a request comes from, turned out or not; None where it is none that was let in."""
    token = token_of(scope)
    return devices.by_token(db, token) if token else None


def let_in(db: Database, scope: Scope, entry: Entry | None) -> bool:
    """Whether whoever asks may (still) come in."""
    if entry is None or is_own(scope):
        return True
    device = device_of(db, scope)
    return device is not None and device.is_in(entry.clock())


def turned_away(device: Device | None) -> ProblemOut:
    """Why whoever comes is not let in."""
    if device and device.turned_out:
        kind, says = "TurnedOut", "This device was turned out of the workshop. What it kept of it is let go."
    elif device:
        kind, says = "Lapsed", f"This device was let in until {device.until[:10]}. With a code it comes in again."
    else:
        kind, says = "Entry", "Lumso asks for the code of the workshop. It stands where Lumso was started."
    return ProblemOut(type=f"/problems/{kind}", title="Not let in", status=401, detail=says)


def _not_allowed(needs: Kind) -> ProblemOut:
    return ProblemOut(type="/problems/NotAllowed", title=f"Needs a device that {needs}", status=403,
                      detail=rights.SAYS[needs])  # fmt: skip


class Gate:
    """Stands before the API. The interface itself is open: it is the same everywhere, and asks for the code."""

    def __init__(self, app: ASGIApp, entry: Entry, db: Callable[[], Database]) -> None:
        self.app, self.entry, self.db = app, entry, db

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer, or ask for the code."""
        path = scope.get("path", "")
        if scope["type"] != "http" or not path.startswith("/api/") or path in OPEN or is_own(scope):
            await self.app(scope, receive, send)
            return
        try:
            problem = self._problem(scope)
        except LumsoError as error:
            problem = problem_of(error)
        if problem:
            await reply(problem)(scope, receive, send)
            return
        await self.app(scope, receive, send)

    def _problem(self, scope: Scope) -> ProblemOut | None:
        """Why whoever asks may not; None where they may."""
        device = device_of(self.db(), scope)
        if device is None or not device.is_in(self.entry.clock()):
            return turned_away(device)
        needs = rights.needed(scope["method"], scope["path"])
        if not rights.may(device.kind, needs):
            return _not_allowed(needs)
        if datetime.now(UTC) - datetime.fromisoformat(device.seen_at) > SEEN_EVERY:
            with suppress(LumsoError):  # full: it may come in all the same
                devices.seen(self.db(), device)
        return None
