"""The air of the room by the hour: as it was measured, and as it may become.

A reading is believed when it can be, and does not jump. Hours to come are those of a usual day of the place, moved by
how much the last day's readings were off it; that fades over 24 hours, for nobody knows the weather of the day after.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import floor

from ..book.profiles import Profile
from ..layers.conditions import Conditions, Room, Spell
from ..value import Value
from .hours import local

HOUR = 60.0
DAY = 24 * HOUR
STALE_MIN = 30.0
"""An older reading is no longer how it is."""
MOST_JUMP_C, MOST_JUMP_HUMIDITY, JUMP_MIN = 6.0, 0.3, 15.0
"""No room changes by more within so many minutes: a hand on the sensor, or a bad line."""
AGREE = 3
"""So many readings that agree with each other are believed all the same."""
PAST_DAYS = 14


@dataclass(frozen=True)
class Reading(Value):
    """What a thermo-hygrometer said, and when: minutes since 1970 UTC, °C, relative humidity 0–1."""

    at_min: float
    temperature_c: float
    humidity: float


@dataclass(frozen=True)
class Judged(Value):
    """A reading, and why it is not believed; "" where it is."""

    reading: Reading
    doubt: str


def _out_of_range(reading: Reading) -> str:
    if not -10 <= reading.temperature_c <= 50:
        return "out of range: no workshop is that warm or cold"
    if not 0.02 <= reading.humidity <= 1:
        return "out of range: no air is that dry or damp"
    return ""


def _jumps(before: Reading, now: Reading) -> bool:
    near = now.at_min - before.at_min <= JUMP_MIN
    far = (
        abs(now.temperature_c - before.temperature_c) > MOST_JUMP_C
        or abs(now.humidity - before.humidity) > MOST_JUMP_HUMIDITY
    )
    return near and far


def judge(readings: Iterable[Reading]) -> tuple[Judged, ...]:
    """Readings in order of time, each believed or doubted."""
    found: list[Judged] = []
    last: Reading | None = None
    doubted: list[Reading] = []
    for reading in sorted(readings, key=lambda r: r.at_min):
        doubt = _out_of_range(reading)
        if not doubt and last is not None and _jumps(last, reading):
            doubted = [r for r in doubted if not _jumps(r, reading)] + [reading]
            if len(doubted) < AGREE:
                doubt = "it jumps: a hand on it, or a bad line"
        if not doubt:
            last, doubted = reading, []
        found.append(Judged(reading, doubt))
    return tuple(found)


def now_from(judged: Sequence[Judged], now_min: float) -> Reading | None:
    """How it is now: the last believed reading, unless it is stale."""
    for one in reversed(judged):
        if not one.doubt:
            return one.reading if now_min - one.reading.at_min <= STALE_MIN else None
    return None


@dataclass(frozen=True)
class Outlook(Value):
    """The air over the days. `off_c` and `off_humidity` are how much the last day was off the usual, and `hours` of how
    many hours that is known."""

    room: Room
    says: str
    off_c: float = 0.0
    off_humidity: float = 0.0
    hours: int = 0


def _usual(profile: Profile | None, otherwise: Conditions, at_min: float, zone: str) -> Conditions:
    if profile is None:
        return otherwise
    hour = local(at_min, zone).hour
    return Conditions(profile.temperature_c[hour], max(profile.humidity[hour], 0.01))


def _by_hour(judged: Iterable[Judged]) -> dict[int, Conditions]:
    """The mean of what was believed, by the hour since 1970."""
    sums: dict[int, list[Reading]] = {}
    for one in judged:
        if not one.doubt:
            sums.setdefault(floor(one.reading.at_min / HOUR), []).append(one.reading)
    return {
        h: Conditions(
            sum(r.temperature_c for r in mine) / len(mine), max(sum(r.humidity for r in mine) / len(mine), 0.01)
        )
        for h, mine in sums.items()
    }


def outlook(profile: Profile | None, otherwise: Conditions, judged: Sequence[Judged], zone: str, now_min: float,
            days: int) -> Outlook:  # fmt: skip
    """The air from two weeks ago to so many days ahead, by the hour.

    With no profile it is as `otherwise`; steady, where nothing was measured.
    """
    measured = _by_hour(judged)
    recent = {h: c for h, c in measured.items() if now_min - DAY <= h * HOUR <= now_min}
    if profile is None and not measured:
        return Outlook(Room((Spell(0.0, otherwise),)), "as it was set, day and night")
    offs = [
        (c.temperature_c - u.temperature_c, c.humidity - u.humidity)
        for h, c in recent.items()
        if (u := _usual(profile, otherwise, h * HOUR, zone))
    ]
    off_c = sum(o for o, _ in offs) / len(offs) if offs else 0.0
    off_humidity = sum(o for _, o in offs) / len(offs) if offs else 0.0
    spells: list[Spell] = []
    first = floor(now_min / HOUR)
    for hour in range(first - PAST_DAYS * 24, first + days * 24):
        usual = _usual(profile, otherwise, hour * HOUR, zone)
        ahead = hour * HOUR - now_min
        fade = max(0.0, 1 - max(ahead, 0.0) / DAY) if ahead > -HOUR else 0.0
        conditions = measured.get(hour) if ahead <= 0 else None
        if conditions is None:
            conditions = Conditions(
                min(max(round(usual.temperature_c + off_c * fade, 1), -10.0), 50.0),
                min(max(round(usual.humidity + off_humidity * fade, 2), 0.01), 1.0),
            )
        if not spells or spells[-1].conditions != conditions:
            spells.append(Spell(hour * HOUR, conditions))
    name = "as it was set" if profile is None else f"a usual day of {_a(profile.name)}"
    moved = f", moved by what was measured over the last day ({off_c:+.1f} °C), fading over 24 h" if offs else ""
    return Outlook(Room(tuple(spells)), f"{name}{moved}: an assumption", off_c, off_humidity, len(recent))


def _a(name: str) -> str:
    low = name[:1].lower() + name[1:]
    return f"an {low}" if low[:1] in "aeiou" else f"a {low}"


def hours_of(room: Room, from_min: float, until_min: float) -> tuple[Spell, ...]:
    """The spells of a room between two minutes, the first from the first minute on."""
    found = [Spell(from_min, room.at(from_min))]
    found += [s for s in room.spells if from_min < s.from_min < until_min]
    return tuple(found)
