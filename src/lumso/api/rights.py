"""Who may do what: each call of the API needs a kind of device, from one table.

What only reads, or asks and keeps nothing, is for all who were let in; what changes the workshop is for those who work
in it; what lets others in, takes all of it out or cannot be taken back is for those who keep it. A call that nobody
named here is work: a new one is never open by mistake.
"""

import re

from lumso.store.devices import KINDS, Kind

SAFE = {"GET", "HEAD", "OPTIONS"}

ASKS = {
    "/api/edits", "/api/plan", "/api/lengths", "/api/measures", "/api/amounts", "/api/coverage",
    "/api/finish/advice", "/api/finish/library", "/api/finish/steps", "/api/forms/{slug}",
    "/api/look", "/api/look/chip", "/api/look/hides", "/api/look/match", "/api/photographs/{name}/colour",
    "/api/boards/plan", "/api/boards/offers", "/api/boards/taught", "/api/boards/stepped", "/api/boards/sheet",
    "/api/mix-sheet", "/api/mix-sheet/measure", "/api/sheet", "/api/sheet/measure", "/api/tint",
    "/api/shelf/density", "/api/days", "/api/days/backwards",
    "/api/ask/left", "/api/ask/advice", "/api/bench/test", "/api/layouts", "/api/rehearsal", "/api/rehearsal/picture",
}  # fmt: skip
"""What is posted and keeps nothing."""

KEEPS = {
    ("GET", "/api/workshop-mode"), ("POST", "/api/codes"), ("PUT", "/api/devices/{device_id}"),
    ("DELETE", "/api/devices/{device_id}"),
    ("GET", "/api/backups"), ("POST", "/api/backups"), ("GET", "/api/backups/{name}"),
    ("POST", "/api/backups/{name}/restore"), ("POST", "/api/restore"),
    ("PUT", "/api/copies/{name}"), ("POST", "/api/copies/{name}/restore"),
    ("GET", "/api/export/everything.json"),
    ("DELETE", "/api/jobs/{job_id}"), ("DELETE", "/api/aside/{number}"), ("DELETE", "/api/unread/{kind}/{slug}"),
    ("DELETE", "/api/photographs/{name}"), ("DELETE", "/api/recordings/{name}"),
}  # fmt: skip
"""What is for those who keep the workshop: who comes in, copies and the way back, all of it at once, for good."""


def _pattern(template: str) -> re.Pattern[str]:
    return re.compile(re.sub(r"\\{\w+\\}", "[^/]+", re.escape(template)))


_ASKS = tuple(map(_pattern, sorted(ASKS)))
_KEEPS = tuple((method, _pattern(path)) for method, path in sorted(KEEPS))


def needed(method: str, path: str) -> Kind:
    """The least kind of device that may do what is asked."""
    read = "GET" if method == "HEAD" else method
    if any(read == m and p.fullmatch(path) for m, p in _KEEPS):
        return "keeps"
    if method in SAFE or (method == "POST" and any(p.fullmatch(path) for p in _ASKS)):
        return "looks"
    return "works"


def may(kind: Kind, needs: Kind) -> bool:
    """Whether a device of a kind may do what needs one of another."""
    return KINDS.index(kind) >= KINDS.index(needs)


SAYS: dict[Kind, str] = {
    "looks": "This is for devices that were let in.",
    "works": "This device looks only. Whoever keeps the workshop can let it work, under Kept.",
    "keeps": "This is for a device that keeps the workshop, or for the machine Lumso runs on.",
}
"""Why it is refused, by what is needed."""
