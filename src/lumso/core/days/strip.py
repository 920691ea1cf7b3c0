"""The strip of days as geometry: hands-on time against drying, by zone, on one axis of time.

An hour at the bench has a true length. Hours in which nobody is there are folded: shorter, and said to be. The lanes
are zones; what is done stands on them, what dries hangs on after it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from ..figure import lasts
from ..layers.drying import COLDEST_C, no_film
from ..value import Value
from .days import DayOperation, Days
from .hours import Session
from .words import day_of, span, time_of

HOUR, FOLDED_HOUR, LEAST_FOLD = 60.0, 2.0, 14.0
"""Lengths of an hour at the bench, of one when nobody is there, and of the shortest fold."""
LANE, HEAD, AIR = 36.0, 44.0, 40.0
AIR_LEAST_C, AIR_MOST_C = 0.0, 30.0


@dataclass(frozen=True)
class Stretch(Value):
    """A stretch of the axis: at the bench, open but not needed, or closed."""

    kind: Literal["visit", "open", "closed"]
    x: float
    width: float
    from_min: float
    until_min: float
    says: str


@dataclass(frozen=True)
class Mark(Value):
    """A place on the axis with what stands there: a day, an hour."""

    x: float
    says: str


@dataclass(frozen=True)
class Lane(Value):
    """A zone of a job, from top to bottom."""

    job: str
    zone: str
    says: str
    of: str
    """The job's name, where there are several."""
    y: float


@dataclass(frozen=True)
class Bar(Value):
    """Something on a lane. `operation` is what it stands for; "wet" is until touch dry, "dry" until it may be gone on
    with; a "window" closes at its end."""

    kind: Literal["hands", "wet", "dry", "window"]
    x: float
    width: float
    y: float
    job: str
    operation: str
    says: str
    state: Literal["planned", "begun", "done"]
    critical: bool
    pinned: bool


@dataclass(frozen=True)
class AirPoint(Value):
    """The temperature at a place on the axis, and whether films form there."""

    x: float
    y: float
    fit: bool


@dataclass(frozen=True)
class Strip(Value):
    """The whole strip; lengths are in steps of the drawing."""

    width: float
    height: float
    lane_height: float
    stretches: tuple[Stretch, ...]
    days: tuple[Mark, ...]
    hours: tuple[Mark, ...]
    lanes: tuple[Lane, ...]
    bars: tuple[Bar, ...]
    now_x: float
    air: tuple[AirPoint, ...]
    coldest_y: float
    """Where the line of the coldest air that films form in lies."""


class Axis:
    """Where a minute lies."""

    def __init__(self, days: Days, sessions: Sequence[Session]) -> None:
        ends = [o.ends_min for o in days.operations] + [d.ready_min or d.touch_min or d.from_min for d in days.drying]
        begins = min([days.now_min, *(o.begins_min for o in days.operations)])
        last = max([days.now_min + 60, *ends])
        used = {v.opens_min for v in days.visits}
        self.stretches: list[Stretch] = []
        self.zone = days.zone
        x, at = 0.0, begins
        open_hours = [s for s in sessions if s.ends_min > begins and s.begins_min < last]
        past = [(o.begins_min, o.ends_min) for o in days.operations if o.state != "planned"]
        parts: list[tuple[float, float, Literal["visit", "open"]]] = [
            (max(s.begins_min, begins), s.ends_min, "visit" if s.begins_min in used else "open") for s in open_hours
        ]
        if past:
            parts.insert(0, (min(b for b, _ in past), max(e for _, e in past), "visit"))
        for opens, closes, kind in parts:
            opens = max(opens, at)
            if closes <= opens:
                continue
            if opens > at:
                x = self._add("closed", x, at, opens)
            x = self._add(kind, x, opens, closes)
            at = closes
        if last > at:
            x = self._add("closed", x, at, last)
        self.width = x

    def _add(self, kind: Literal["visit", "open", "closed"], x: float, begins: float, ends: float) -> float:
        hours = (ends - begins) / 60
        width = hours * HOUR if kind == "visit" else max(hours * FOLDED_HOUR, LEAST_FOLD)
        says = (
            f"{day_of(begins, self.zone)}, {span(begins, ends, self.zone)}"
            if kind != "closed"
            else lasts(ends - begins)
        )
        self.stretches.append(Stretch(kind, round(x, 2), round(width, 2), begins, ends, says))
        return x + width

    def x(self, minute: float) -> float:
        """Where a minute lies on the axis."""
        for one in self.stretches:
            if minute <= one.until_min:
                inside = max(minute - one.from_min, 0.0) / (one.until_min - one.from_min)
                return round(one.x + one.width * inside, 2)
        return round(self.width, 2)


def _lanes(days: Days) -> dict[tuple[str, str], Lane]:
    names = {j.job: j.name for j in days.jobs}
    found: dict[tuple[str, str], str] = {}
    for one in days.operations:
        found.setdefault((one.job, one.operation.zone), one.operation.zone_name or "The whole piece")
    several = len(days.jobs) > 1
    order = sorted(found, key=lambda k: ([j.job for j in days.jobs].index(k[0]) if k[0] in names else 99, not k[1]))
    return {
        key: Lane(key[0], key[1], found[key], names.get(key[0], "") if several else "",
                  HEAD + AIR + n * LANE)
        for n, key in enumerate(order)
    }  # fmt: skip


def strip_of(days: Days, sessions: Sequence[Session]) -> Strip:
    """The strip of days, over the sessions there are."""
    axis, lanes, zone = Axis(days, sessions), _lanes(days), days.zone
    bars = [*_hands(days, axis, lanes), *_drying(days, axis, lanes), *_windows(days, axis, lanes)]
    marks, ticks, last = [], [], ""
    for one in axis.stretches:
        day = day_of(one.from_min, zone)
        if one.kind != "closed" and day != last:
            marks.append(Mark(one.x, day))
            last = day
        if one.kind == "visit":
            first = -(-one.from_min // 60) * 60
            ticks += [
                Mark(axis.x(m), time_of(m, zone)) for m in _every_hour(first, one.until_min) if m > one.from_min + 1
            ]
    return Strip(
        round(axis.width, 2), HEAD + AIR + LANE * len(lanes), LANE, tuple(axis.stretches), tuple(marks), tuple(ticks),
        tuple(lanes.values()), tuple(bars), axis.x(days.now_min), tuple(_air(days, axis)), _air_y(COLDEST_C),
    )  # fmt: skip


def _every_hour(first: float, until: float) -> list[float]:
    return [first + 60 * n for n in range(int((until - first) // 60) + 1)]


def _hands(days: Days, axis: Axis, lanes: dict[tuple[str, str], Lane]) -> list[Bar]:
    """What is done, a bar for what is done in one go on a lane."""
    goes: dict[tuple[str, str, str, str], list[DayOperation]] = {}
    for one in days.operations:
        if one.operation.hands_on_min > 0:
            goes.setdefault((one.job, one.stint, one.operation.zone, one.state), []).append(one)
    made = []
    for (job, _, zone, _), mine in goes.items():
        first = mine[0]
        begins, ends = axis.x(first.begins_min), axis.x(max(o.ends_min for o in mine))
        laid = next((o for o in mine if o.operation.kind == "lay"), first)
        made.append(
            Bar("hands", begins, max(round(ends - begins, 2), 2.0), lanes[job, zone].y, job, first.operation.id,
                laid.operation.says, first.state, any(o.critical for o in mine), any(o.pinned for o in mine))
        )  # fmt: skip
    return made


def _drying(days: Days, axis: Axis, lanes: dict[tuple[str, str], Lane]) -> list[Bar]:
    made = []
    for one in days.drying:
        lane = lanes.get((one.job, one.zone))
        if lane is None:
            continue
        at = axis.x(one.from_min)
        wet = axis.x(one.touch_min) if one.touch_min is not None else at
        dry = axis.x(one.ready_min) if one.ready_min is not None else wet
        says = f"{one.says} dries"
        made.append(
            Bar("wet", at, round(wet - at, 2), lane.y, one.job, one.operation, says, "planned", one.critical, False)
        )
        long = round(dry - wet, 2)
        if long > 0:
            made.append(
                Bar("dry", wet, long, lane.y, one.job, one.operation, says, "planned", one.critical, False)
            )  # fmt: skip
    return made


def _windows(days: Days, axis: Axis, lanes: dict[tuple[str, str], Lane]) -> list[Bar]:
    """Windows that close: from when something is begun to the last minute it could have been."""
    made = []
    for one in days.operations:
        if one.must_by_min is None or one.state != "planned" or one.must_by_min < one.begins_min:
            continue
        at, end = axis.x(one.begins_min), axis.x(one.must_by_min)
        says = f"{one.operation.says}: by {one.must_by}"
        made.append(
            Bar("window", at, round(end - at, 2), lanes[one.job, one.operation.zone].y, one.job, one.operation.id, says,
                "planned", one.critical, one.pinned)
        )  # fmt: skip
    return made


def _air_y(temperature_c: float) -> float:
    share = (min(max(temperature_c, AIR_LEAST_C), AIR_MOST_C) - AIR_LEAST_C) / (AIR_MOST_C - AIR_LEAST_C)
    return round(HEAD + AIR - 4 - share * (AIR - 8), 2)


def _air(days: Days, axis: Axis) -> list[AirPoint]:
    """The temperature over the axis, a point where it changes."""
    made = []
    last = max((o.ends_min for o in days.operations), default=days.now_min + 60)
    for spell, after in pairwise((*days.air, None)):
        if spell is None or spell.from_min > last:
            break
        y, fit = _air_y(spell.conditions.temperature_c), not no_film(spell.conditions)
        made.append(AirPoint(axis.x(spell.from_min), y, fit))
        until = last if after is None else min(after.from_min, last)
        made.append(AirPoint(axis.x(until), y, fit))
    return made
