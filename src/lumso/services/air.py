"""The air there is in the workshop, by what a sensor says and by what a room of its kind is like."""

from lumso.core.book.catalogue import pick
from lumso.core.days.air import Judged, Outlook, Reading, judge, outlook
from lumso.core.days.chosen import Chosen
from lumso.store import readings

from .context import Context

AIR_DAYS = 126
"""How far ahead the air is looked at."""
READINGS_MIN = 3 * 24 * 60.0
"""How far back readings count for what dries: what was laid before is dry, or its hours were the usual."""


def air_of(chosen: Chosen, here: Context, now: float) -> tuple[Outlook, tuple[Judged, ...]]:
    """The air there is and will be, by the sensor or by a room of its kind; and what the sensor said, judged."""
    profile = pick("profile", here.catalogue.profiles, chosen.profile) if chosen.profile else None
    heard = tuple(readings.since(here.db, now - READINGS_MIN)) if chosen.listens else ()

    def made() -> tuple[Outlook, tuple[Judged, ...]]:
        judged = judge(Reading(*r) for r in heard)
        return outlook(profile, here.room().first, judged, chosen.table.zone, now, AIR_DAYS), judged

    return here.memo.recall("air", (profile, here.room(), heard, chosen.table.zone, now), made)
