"""The gate: in workshop mode, whoever comes over the network shows that they were let in.

The machine Lumso runs on is never asked, and never locked out. Everybody else enters once with the code that stands in
the terminal, and is a device on a list from then on, to be turned out at any time.
"""

import ipaddress
import secrets
import time
from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from http.cookies import CookieError, SimpleCookie
from math import ceil
from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Receive, Scope, Send

from lumso.core.errors import LumsoError
from lumso.store import devices
from lumso.store.batches import CONSONANTS, VOWELS
from lumso.store.database import Database
from lumso.store.devices import Device

from .errors import ProblemOut, TooManyTries, WrongCode, problem_of, reply

COOKIE = "lumso"
KEPT_S = 400 * 24 * 3600
"""How long a browser is asked to keep its token: as long as browsers do."""

WORDS, SYLLABLES = 4, 2
TRIES, WITHIN_S = 5, 600.0
"""How many wrong codes a device may give in a while."""

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


@dataclass
class Entry:
    """What is asked of whoever comes over the network, and where a phone finds Lumso."""

    reach: str
    """The address that others reach, such as http://192.168.1.20:8321."""
    code: str = field(default_factory=new_code)
    secure: bool = False
    authority: bytes | None = None
    """The certificate of the authority of one's own, where there is one: to be trusted by devices."""
    clock: Callable[[], float] = time.monotonic
    told: Callable[[str], None] = lambda code: None
    """Says a new code where Lumso runs."""
    _wrong: dict[str, list[float]] = field(default_factory=lambda: defaultdict(list))

    def address(self) -> str:
        """The address with the code in it, to be scanned: what stands behind the # is never sent."""
        return f"{self.reach}/#code={self.code.replace(' ', '-')}"

    def renew(self) -> None:
        """Another code: whoever was turned out knows the one there was."""
        self.code = new_code()
        self.told(self.code)

    def check(self, said: str, whose: str) -> None:
        """Raises WrongCode, and TooManyTries for an address that gave too many wrong ones of late."""
        now = self.clock()
        wrong = self._wrong[whose] = [at for at in self._wrong[whose] if now - at < WITHIN_S]
        if len(wrong) >= TRIES:
            left_s = ceil(WITHIN_S - (now - wrong[0]))
            says = f"That was wrong {TRIES} times. Look for the code, and try again in {ceil(left_s / 60)} min."
            raise TooManyTries(says, left_s)
        if not secrets.compare_digest(_plain(said).encode(), _plain(self.code).encode()):
            wrong.append(now)
            raise WrongCode("That is not the code. It stands where Lumso was started: four words.")
        self._wrong.pop(whose, None)


def is_own(scope: Scope) -> bool:
    """Whether it comes from the machine Lumso runs on, by its own name: nobody else can say so."""
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


def turned_away(device: Device | None) -> ProblemOut:
    """Why whoever comes is not let in."""
    if device:
        kind, says = "TurnedOut", "This device was turned out of the workshop. What it kept is let go."
    else:
        kind, says = "Entry", "Lumso asks for the code of the workshop. It stands where Lumso was started."
    return ProblemOut(type=f"/problems/{kind}", title="Not let in", status=401, detail=says)


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
            device = device_of(self.db(), scope)
            if device is None or device.turned_out:
                await reply(turned_away(device))(scope, receive, send)
                return
            if datetime.now(UTC) - datetime.fromisoformat(device.seen_at) > SEEN_EVERY:
                devices.seen(self.db(), device)
        except LumsoError as error:
            await reply(problem_of(error))(scope, receive, send)
            return
        await self.app(scope, receive, send)
