"""The minute it is, and the air there is then."""

from collections.abc import Callable

from fastapi import Request

from lumso.core.book.catalogue import pick
from lumso.core.days.air import Judged, Outlook, Reading, judge, outlook
from lumso.core.days.chosen import Chosen
from lumso.services.context import Context
from lumso.store import readings

AIR_DAYS = 126
"""How far ahead the air is looked at."""
READINGS_MIN = 3 * 24 * 60.0
"""How far back readings count for what dries: what was laid before is dry, or its hours were the usual."""


def exact_now(request: Request) -> float:
    """The minute it is, to the second, by the clock the application was given."""
    clock: Callable[[], float] = request.app.state.clock
    return clock() / 60


def now_min(request: Request) -> float:
    """The whole minute it is."""
    return float(int(exact_now(request)))


def air_of(chosen: Chosen, here: Context, now: float) -> tuple[Outlook, tuple[Judged, ...]]:
    """The air there is and will be, by the sensor or by a room of its kind; and what the sensor said, judged."""
    profile = pick("profile", here.catalogue.profiles, chosen.profile) if chosen.profile else None
    heard = tuple(readings.since(here.db, now - READINGS_MIN)) if chosen.listens else ()

    def made() -> tuple[Outlook, tuple[Judged, ...]]:
        judged = judge(Reading(*r) for r in heard)
        return outlook(profile, here.room().first, judged, chosen.table.zone, now, AIR_DAYS), judged

    return here.memo.recall("air", (profile, here.room(), heard, chosen.table.zone, now), made)
