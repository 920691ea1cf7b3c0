"""The door: who may ask, how much may be sent, and what a browser may do with the answer.

A page from elsewhere must neither read the workshop nor write to it. Browsers see to most of it, as no answer allows
another origin. What is left is a foreign name that is made to point here (its pages then count as Lumso's own): so a
name must be known, and whoever writes must come from the very address it writes to.
"""

import ipaddress
import logging
from urllib.parse import urlsplit

from fastapi import HTTPException
from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from .errors import ProblemOut, reply

log = logging.getLogger("lumso")

MOST_BYTES = 8 * 1024 * 1024
"""The largest request, bytes: 60 zones of 40 layers each, as long as the longest of the demo, have 3.4 MB."""

SMALL = 256 * 1024
MOST = {
    "/api/restore": 4 * 1024**3,
    "/api/enter": 2 * 1024,
    "/api/photographs": 32 * 1024**2,
    **dict.fromkeys(("/api/lengths", "/api/tint", "/api/workshop"), SMALL),
    **dict.fromkeys(("/api/kits/", "/api/shelf/", "/api/better/", "/api/recipes/"), SMALL),
}
"""The largest request where it is another: by address, or by how an address begins."""

SAFE = ("GET", "HEAD", "OPTIONS")

HEADERS = {
    "Content-Security-Policy": "default-src 'self'; connect-src 'self' blob:; img-src 'self' data: blob:; "
    "style-src 'self' 'unsafe-inline'; "
    "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Referrer-Policy": "same-origin",
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
}
"""Sent with every answer. A page's own pictures are blobs, which a browser now and then fetches anew to fill a drawing
with: that counts as connecting. Styles are set by the interface's parts as they open, so they may stand in the page."""


def _is_address(name: str) -> bool:
    try:
        ipaddress.ip_address(name)
    except ValueError:
        return False
    return True


def _refused(status: int, title: str, detail: str) -> ProblemOut:
    return ProblemOut(type="/problems/Refused", title=title, status=status, detail=detail)


class Door:
    """Looks at every request before anything else does, and lets no mistake out but in words."""

    def __init__(self, app: ASGIApp, names: frozenset[str] = frozenset()) -> None:
        """`names` are what this machine is called beside localhost, in lower case."""
        self.app, self.names = app, names | {"localhost"}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Answer, or refuse."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        begun = False

        async def sent(message: Message) -> None:
            nonlocal begun
            if message["type"] == "http.response.start":
                begun = True
                MutableHeaders(scope=message).update(HEADERS)
            await send(message)

        most = _most(scope["path"])
        problem = self._foreign(scope) or self._too_large(Headers(scope=scope), most)
        if problem:
            await reply(problem)(scope, receive, sent)
            return
        try:
            await self.app(scope, _counted(receive, most), sent)
        except Exception as error:
            log.error("%s %s", scope["method"], scope["path"], exc_info=error)
            if begun:
                raise
            detail = "Lumso made a mistake of its own. What was saved is safe; the log says more."
            broken = ProblemOut(type="/problems/Internal", title="Something broke", status=500, detail=detail)
            await reply(broken)(scope, receive, sent)

    def _foreign(self, scope: Scope) -> ProblemOut | None:
        """Why this does not come from Lumso's own pages, if it does not."""
        headers = Headers(scope=scope)
        host = headers.get("host", "").lower()
        try:
            name = urlsplit(f"//{host}").hostname or ""
        except ValueError:
            name = ""
        if not (name in self.names or _is_address(name)):
            detail = f"Lumso is not known as {name[:100]!r}. Open it by the address shown where it was started."
            return _refused(421, "Not known by that name", detail)
        origin = headers.get("origin")
        elsewhere = origin is not None and origin.lower() not in (f"http://{host}", f"https://{host}")
        site, writes = headers.get("sec-fetch-site", ""), scope["method"] not in SAFE
        # What only reads may take a while to work out: no page elsewhere sets it going, though it never sees it.
        asks = writes or scope["path"].startswith("/api/")
        across = (asks and site == "cross-site") or (writes and site == "same-site")
        if elsewhere or across:
            return _refused(
                403, "Not from here", "Only Lumso's own pages may ask this. Open Lumso itself and try again."
            )
        return None

    def _too_large(self, headers: Headers, most: int) -> ProblemOut | None:
        said = headers.get("content-length", "0")
        if len(said) < 20 and said.isdecimal() and int(said) <= most:
            return None
        return _refused(413, "Too large", _says(most))


def _most(path: str) -> int:
    """How much may be sent to an address, bytes."""
    begins = next((size for start, size in MOST.items() if start.endswith("/") and path.startswith(start)), MOST_BYTES)
    return MOST.get(path, begins)


def _says(most: int) -> str:
    words = f"{most // 1024} kB" if most < 1024**2 else f"{most // 1024**2:,} MB"
    return f"That is too large. At most {words} can be sent here at once."


def _counted(receive: Receive, most: int) -> Receive:
    """What arrives, refused once it is more than may be sent, whatever its head said."""
    so_far = 0

    async def counting() -> Message:
        nonlocal so_far
        message = await receive()
        so_far += len(message.get("body", b""))
        if so_far > most:
            raise HTTPException(413, _says(most))
        return message

    return counting
