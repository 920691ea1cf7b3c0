"""The sheet that goes with a piece: what was put on it and when, how to care for it, how to mend it."""

from collections.abc import Sequence
from dataclasses import dataclass

from ..book.films import Film, UseWord
from ..figure import listed
from ..layers.stack import Stack
from ..value import Value
from ..work.work import Work
from .event import Event, standing
from .summary import PotSummary

DAY_MIN = 24 * 60.0
CARE: dict[UseWord, tuple[str, str, str]] = {
    "water": ("It stands water: wipe it damp, and dry it.", "Wipe it nearly dry; let nothing stand wet on it.",
              "Keep water off it: dust it dry, or with a cloth that is hardly damp."),
    "heat": ("", "A warm cup, not a hot pan: use a mat.", "Nothing hot on it: use a mat."),
    "hands": ("", "It marks where hands go often: touch it where it is meant to be touched.",
              "It is bare there and marks at a touch."),
    "weather": ("It may stand outdoors.", "Under a roof outdoors, not in the rain.", "Indoors only."),
    "feet": ("", "Light wear underfoot only.", ""),
}  # fmt: skip
"""What is said of how a film stands something: yes, a little, no. Words of ours; the label of a maker beats them."""
ALWAYS = (
    "No scouring, no solvents, no steam. The makers’ labels of what was used beat this sheet.",
    "Not for food to lie on, and nothing for small children to chew, unless its label says so.",
)
MENDED = ("finger mark", "chip where none was wanted", "over-sanded", "lap line")
"""Signs a user of the piece meets, in the order they are said."""


@dataclass(frozen=True)
class PutOn(Value):
    """A coat that was laid: when (minutes since 1970 UTC), of what, under which code it can be mixed again."""

    at_min: float
    says: str
    code: str
    mix: str


@dataclass(frozen=True)
class ZoneSheet(Value):
    """A zone: what was put on it, how to care for it and mend it."""

    name: str
    put_on: tuple[PutOn, ...]
    care: tuple[str, ...]
    mend: tuple[str, ...]
    gently_min: float | None
    cured_min: float | None


@dataclass(frozen=True)
class PieceSheet(Value):
    """What goes with a piece."""

    name: str
    zones: tuple[ZoneSheet, ...]
    says: tuple[str, ...]


def _mix(pot: PotSummary | None) -> str:
    if pot is None:
        return ""
    parts = (f"{p.share:.0%} {p.colour or p.name.lower()}" for p in pot.parts)
    return listed(tuple(parts))


def _care(film: Film) -> tuple[str, ...]:
    found = []
    for word, (yes, little, no) in CARE.items():
        stands = film.stands.get(word)
        if stands is not None:
            found.append({"yes": yes, "a little": little, "no": no}[stands])
    return tuple(s for s in found if s)


def _mend(stack: Stack, work: Work) -> tuple[str, ...]:
    kind = stack.laid[-1].film.kind
    rescues = {r.sign: r for r in work.jobs[0].catalogue.rescues_for(kind) if r.dry}
    return tuple(f"{sign[:1].upper()}{sign[1:]}: {rescues[sign].dry}." for sign in MENDED if sign in rescues)


def piece_sheet(name: str, work: Work, events: Sequence[Event], pots: Sequence[PotSummary]) -> PieceSheet:
    """The sheet of a job by what was noted of it; what was not noted is not on it."""
    by_batch = {p.batch: p for p in pots}
    laid = [e for e in standing(events) if e.did == "done" and e.planned is not None and e.planned.kind == "lay"]
    zones = []
    for job in work.jobs:
        for zone in job.zones:
            mine = [e for e in laid if e.planned and e.planned.zone == zone.zone.id]
            put_on = []
            for e in sorted(mine, key=lambda x: x.at_min):
                assert e.planned is not None
                pot = by_batch.get(e.planned.batch)
                put_on.append(PutOn(e.at_min, e.planned.says, pot.code if pot else "", _mix(pot)))
            film = zone.stack.laid[-1].film if zone.stack and zone.stack.laid else None
            last = put_on[-1].at_min if put_on else None
            gently = None if film is None or last is None or film.gentle_days is None else (
                last + film.gentle_days * DAY_MIN)  # fmt: skip
            cured = film.times.cured if film else None
            zones.append(
                ZoneSheet(
                    zone.zone.name, tuple(put_on), _care(film) if film else (),
                    _mend(zone.stack, work) if zone.stack and zone.stack.laid else (), gently,
                    None if cured is None or last is None else last + cured,
                )
            )  # fmt: skip
    return PieceSheet(name, tuple(zones), ALWAYS)
