"""The air as a drawing: the last day as it was measured, the next two as they may become, on one scale."""

from collections.abc import Sequence
from dataclasses import dataclass

from ..layers.conditions import Spell
from ..layers.drying import COLDEST_C, no_film
from ..value import Value
from .air import Judged
from .words import day_of

WIDTH, HEIGHT = 480.0, 96.0
PAST_MIN, AHEAD_MIN = 24 * 60.0, 48 * 60.0
LEAST_C, MOST_C = 0.0, 35.0


@dataclass(frozen=True)
class Dot(Value):
    """A reading; hollow where it is not believed."""

    x: float
    y: float
    believed: bool


@dataclass(frozen=True)
class Hour(Value):
    """Some hours to come: from where to where, how high, and whether films form."""

    x: float
    width: float
    y: float
    fit: bool


@dataclass(frozen=True)
class Midnight(Value):
    """A day that begins."""

    x: float
    says: str


@dataclass(frozen=True)
class AirDrawing(Value):
    """The whole of it; `coldest_y` is the line of the coldest air that films form in."""

    width: float
    height: float
    now_x: float
    coldest_y: float
    dots: tuple[Dot, ...]
    hours: tuple[Hour, ...]
    days: tuple[Midnight, ...]


def _y(temperature_c: float) -> float:
    share = (min(max(temperature_c, LEAST_C), MOST_C) - LEAST_C) / (MOST_C - LEAST_C)
    return round(HEIGHT * (1 - share), 1)


def air_drawing(judged: Sequence[Judged], ahead: Sequence[Spell], now_min: float, zone: str) -> AirDrawing:
    """The air drawn. `ahead` are the spells from now on."""

    def x(minute: float) -> float:
        share = (minute - now_min + PAST_MIN) / (PAST_MIN + AHEAD_MIN)
        return round(min(max(share, 0.0), 1.0) * WIDTH, 1)

    dots = [
        Dot(x(j.reading.at_min), _y(j.reading.temperature_c), not j.doubt)
        for j in judged
        if j.reading.at_min >= now_min - PAST_MIN
    ]
    ends = [*(s.from_min for s in ahead[1:]), now_min + AHEAD_MIN]
    hours = [
        Hour(x(s.from_min), round(x(end) - x(s.from_min), 1), _y(s.conditions.temperature_c), not no_film(s.conditions))
        for s, end in zip(ahead, ends, strict=True)
    ]
    days, last = [], ""
    for hour in range(int(now_min - PAST_MIN) // 60, int(now_min + AHEAD_MIN) // 60 + 1):
        day = day_of(hour * 60, zone)
        if last and day != last:
            days.append(Midnight(x(hour * 60), day))
        last = day
    return AirDrawing(WIDTH, HEIGHT, x(now_min), _y(COLDEST_C), tuple(dots), tuple(hours), tuple(days))
