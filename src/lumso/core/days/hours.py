"""When somebody is at the bench: opening hours by weekday, in the workshop's zone, as minutes that pass.

The axis of all days is minutes since 1970 in UTC, which know no clock change. Hours are what the clock on the wall
says: a night in March may have 23 hours, one in October 25.
"""

from dataclasses import dataclass, field
from datetime import UTC, date, datetime, timedelta
from typing import Annotated, Literal
from zoneinfo import ZoneInfo, available_timezones

from annotated_types import Interval, Len, MaxLen

from ..errors import InvalidValue
from ..value import Value

DAY = 24 * 60
WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


@dataclass(frozen=True)
class Hours(Value):
    """A stretch of a day, in minutes after midnight on the wall clock; until 1440 is midnight."""

    from_min: Annotated[int, Interval(ge=0, lt=DAY)]
    until_min: Annotated[int, Interval(gt=0, le=DAY)]


Open = Annotated[tuple[Hours, ...], MaxLen(6)]


EVENING = Hours(18 * 60 + 30, 21 * 60 + 30)
"""An evening at the bench, where nobody said when it is."""


def _evenings() -> tuple[Open, ...]:
    return (*((EVENING,) for _ in range(5)), (Hours(10 * 60, 16 * 60),), ())


@dataclass(frozen=True)
class Timetable(Value):
    """When the workshop's painters are there. `week` begins on Monday; several stretches of a day have a break between.

    `zone` is the workshop's IANA time zone, `days_off` are dates, ISO 8601. `daylight` says when colours are judged.
    """

    zone: str = "UTC"
    week: Annotated[tuple[Open, ...], Len(7, 7)] = field(default_factory=_evenings)
    days_off: Annotated[tuple[Annotated[str, MaxLen(10)], ...], MaxLen(400)] = ()
    painters: Annotated[int, Interval(ge=1, le=6)] = 1
    flat_places: Annotated[int, Interval(ge=0, le=50)] = 0
    """How many parts can lie flat to dry at a time; 0 is as many as there are."""
    daylight: Hours = field(default_factory=lambda: Hours(9 * 60, 16 * 60))
    by_daylight: bool = False
    """Whether colours are laid by daylight where nothing is lost by it."""
    goal: Literal["finish", "visits"] = "finish"
    """What comes first once nothing is late: the earliest finish, or the fewest visits to the bench."""


@dataclass(frozen=True)
class Session(Value):
    """A stretch of open hours, in minutes since 1970 UTC."""

    begins_min: float
    ends_min: float


def check_timetable(table: Timetable) -> Timetable:
    """The timetable, when it can be used. Raises InvalidValue with the field."""
    if table.zone not in available_timezones():
        raise InvalidValue(f"There is no time zone {table.zone!r}.", value=table.zone,
                           allowed="an IANA zone, such as UTC", field="zone")  # fmt: skip
    for n, day in enumerate(table.week):
        for m, hours in enumerate(day):
            if hours.until_min <= hours.from_min:
                says = f"On {WEEKDAYS[n]} it closes before it opens."
                usual = f"{clock(EVENING.from_min)}–{clock(EVENING.until_min)}"
                raise InvalidValue(says, value=f"{clock(hours.from_min)}–{clock(hours.until_min)}",
                                   allowed=f"an end after the beginning, as {usual}; past midnight is two stretches",
                                   field=f"week/{n}/{m}")  # fmt: skip
            if m and hours.from_min < day[m - 1].until_min:
                raise InvalidValue(f"On {WEEKDAYS[n]} two stretches overlap, or are out of order.",
                                   value=f"{clock(hours.from_min)}–{clock(hours.until_min)}",
                                   allowed="stretches one after the other", field=f"week/{n}/{m}")  # fmt: skip
    for n, off in enumerate(table.days_off):
        try:
            date.fromisoformat(off)
        except ValueError:
            raise InvalidValue(f"{off!r} is no date.", value=off, allowed="a date, such as 2026-12-24",
                               field=f"days_off/{n}") from None  # fmt: skip
    return table


def clock(minute_of_day: float) -> str:
    """A minute of the day as a clock shows it.

    >>> clock(1110)
    '18:30'
    """
    return f"{int(minute_of_day) // 60:02d}:{int(minute_of_day) % 60:02d}"


def minute_of(at: datetime) -> float:
    """An instant in minutes since 1970 UTC."""
    return at.timestamp() / 60


def instant(minute: float) -> datetime:
    """A minute since 1970 as an instant in UTC."""
    return datetime.fromtimestamp(round(minute * 60), UTC)


def local(minute: float, zone: str) -> datetime:
    """What clock and calendar on the wall show at a minute."""
    return instant(minute).astimezone(ZoneInfo(zone))


def on_clock(day: date, minute_of_day: int, zone: ZoneInfo, last: bool = False) -> float:
    """The minute at which the clock on the wall shows a time on a date.

    Where the clock shows it twice, the first time, or with `last` the second; where it never does, the moment it jumps.
    """
    wall = datetime(day.year, day.month, day.day) + timedelta(minutes=minute_of_day)
    at = wall.replace(tzinfo=zone, fold=int(last)).astimezone(UTC)
    if at.astimezone(zone).replace(tzinfo=None) == wall:
        return minute_of(at)
    early = minute_of(wall.replace(tzinfo=zone, fold=1).astimezone(UTC))
    late = minute_of(wall.replace(tzinfo=zone, fold=0).astimezone(UTC))
    before = instant(early).astimezone(zone).utcoffset()
    while late - early > 1:
        middle = (early + late) // 2
        if instant(middle).astimezone(zone).utcoffset() == before:
            early = middle
        else:
            late = middle
    return late


def sessions(table: Timetable, from_min: float, days: int) -> tuple[Session, ...]:
    """The open stretches from a minute on, over a number of calendar days; what touches is one."""
    zone = ZoneInfo(table.zone)
    first = local(from_min, table.zone).date()
    off = {date.fromisoformat(d) for d in table.days_off}
    found: list[Session] = []
    for n in range(days):
        day = first + timedelta(days=n)
        if day in off:
            continue
        for hours in table.week[day.weekday()]:
            begins = max(on_clock(day, hours.from_min, zone), from_min)
            ends = on_clock(day, hours.until_min, zone, last=True)
            if ends <= begins:
                continue
            if found and begins <= found[-1].ends_min:
                found[-1] = Session(found[-1].begins_min, ends)
            else:
                found.append(Session(begins, ends))
    return tuple(found)


def is_daylight(minute: float, table: Timetable) -> bool:
    """Whether colours can be judged by daylight at a minute."""
    wall = local(minute, table.zone)
    return table.daylight.from_min <= wall.hour * 60 + wall.minute < table.daylight.until_min


SHORT = {name[:3].lower(): n for n, name in enumerate(WEEKDAYS)}
WEEK_EXAMPLE = "tue,thu 18:30-21:30; sat 10-12,13-16"


def parse_week(text: str) -> tuple[Open, ...]:
    """Opening hours as people type them. Raises InvalidValue with an example.

    >>> [len(day) for day in parse_week("tue,thu 18:30-21:30; sat 10-12,13-16; mon-tue 9-10")]
    [1, 2, 0, 1, 0, 2, 0]
    """
    week: list[list[Hours]] = [[] for _ in WEEKDAYS]
    for part in (p.strip() for p in text.replace("–", "-").split(";")):
        if not part:
            continue
        names, _, times = part.partition(" ")
        hours = [_hours(one, text) for one in times.replace(" ", "").split(",") if one]
        if not hours:
            raise _bad_week(text)
        for name in names.lower().split(","):
            first, _, last = name.partition("-")
            if first[:3] not in SHORT or (last and last[:3] not in SHORT):
                raise _bad_week(text)
            for day in range(SHORT[first[:3]], SHORT[last[:3] if last else first[:3]] + 1):
                week[day] += hours
    return tuple(tuple(sorted(day, key=lambda h: h.from_min)) for day in week)


def _hours(text: str, whole: str) -> Hours:
    begins, _, ends = text.partition("-")
    try:
        made = Hours(_minute(begins), _minute(ends))
    except ValueError:
        raise _bad_week(whole) from None
    if not 0 <= made.from_min < made.until_min <= DAY:
        raise _bad_week(whole)
    return made


def _minute(text: str) -> int:
    hour, _, minute = text.partition(":")
    return int(hour) * 60 + int(minute or 0)


def _bad_week(text: str) -> InvalidValue:
    return InvalidValue(f"{text!r} are no opening hours.", value=text, allowed=f"such as {WEEK_EXAMPLE}", field="hours")
