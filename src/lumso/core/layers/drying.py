"""How long films take in this room.

Water leaves a film as fast as the air takes it up: E ∝ p_sat(T)·(1 − RH), with p_sat in hPa after Magnus
(coefficients of Sonntag 1990), against 20 °C and 50 %. The factor t/t_ref = E_ref/E is held within 0.35–6.
"""

from bisect import bisect_left
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from math import exp, inf, log
from typing import Literal

from ..book.films import Film
from ..figure import tidy
from ..job.job import DriesBy
from ..value import Value
from .conditions import Conditions, Room

LEAST_THIN = 1 / 3
"""A thin coat is never touch dry, or ready for the next, sooner than this share of the usual time."""
HURRIED: dict[str, float] = {"hair dryer": 0.5, "heat gun": 1 / 3}
"""How much sooner moving warm air lets a thin water-borne coat be touched and covered. Untested starting values."""
HURRIED_MOST_UM = 300.0
"""Thicker than this it only skins over, and traps its water."""
WARM_ROOM = Conditions(28.0, 0.35)
"""What a room is warmed to, to dry a coat sooner: the trade's hot dry day."""
NIGHT = 480.0
"""Minutes: what takes a night takes at least this, however dry the room."""
LEAST_FACTOR, MOST_FACTOR = 0.35, 6.0
COLDEST_C, DAMPEST, DEW_MARGIN_C = 10.0, 0.85, 3.0
Moment = Literal["touch", "recoat_from", "recoat_until", "wet_rub", "seal", "tape_safe", "cured"]


@dataclass(frozen=True)
class Wait(Value):
    """Something that takes its time: minutes at 20 °C and 50 %, and what they depend on.

    "evaporation" is water leaving a film, "night" the same but never under eight hours, "oil" the setting of oils and
    every cure, "clock" neither air nor warmth. None is unknown: read the label; it is never zero or forever.
    """

    reference_min: float | None
    by: Literal["evaporation", "night", "oil", "clock"] = "clock"
    warmed: bool = False
    """Whether the room is warmed for it; a room that is as warm already stays as it is."""


def saturation_hpa(temperature_c: float) -> float:
    """Vapour pressure over water, in hPa."""
    return 6.112 * exp(17.62 * temperature_c / (243.12 + temperature_c))


def dew_point_c(temperature_c: float, humidity: float) -> float:
    """Where the air's water would condense, in °C; `humidity` is 0–1, more than 0."""
    x = log(humidity * saturation_hpa(temperature_c) / 6.112)
    return 243.12 * x / (17.62 - x)


def factor(temperature_c: float, humidity: float) -> float:
    """How many times as long as at 20 °C and 50 % a water-borne film takes, within 0.35–6.

    >>> round(factor(28, 0.35), 3), round(factor(12, 0.75), 2), round(factor(16, 0.6), 2)
    (0.476, 3.33, 1.61)
    """
    taken_up = saturation_hpa(temperature_c) * (1 - humidity)
    if taken_up <= 0:
        return MOST_FACTOR
    return min(max(saturation_hpa(20) * 0.5 / taken_up, LEAST_FACTOR), MOST_FACTOR)


def cure_factor(temperature_c: float) -> float:
    """Cure and oils: as said from 18 °C up, doubled for each 10 °C below."""
    return float(2.0 ** (max(0.0, 18 - temperature_c) / 10))


def no_film(conditions: Conditions, surface_c: float | None = None) -> str:
    """Why water-based films may not form here; "" when they do. No time is promised where it is not "".

    `surface_c` is the surface's own temperature, the room's when not known.
    """
    temperature_c, humidity = conditions.temperature_c, conditions.humidity
    surface = temperature_c if surface_c is None else surface_c
    if surface < COLDEST_C or temperature_c < COLDEST_C:
        return f"It is {tidy(min(surface, temperature_c))} °C; below {COLDEST_C:g} °C water-based films may not form."
    if humidity > DAMPEST:
        return f"The air is {humidity:.0%} humid; above {DAMPEST:.0%} water-based films may not dry through."
    dew = dew_point_c(temperature_c, humidity)
    if surface - dew < DEW_MARGIN_C:
        return f"The surface is within {DEW_MARGIN_C:g} °C of the dew point ({tidy(dew)} °C): water will sit on it."
    return ""


def thickness_factor(wet_um: float, usual_um: float) -> float:
    """How many times as long a film of `wet_um` takes as one of `usual_um`: linear to 500 µm, by the square beyond."""

    def slowness(um: float) -> float:
        return um if um <= 500 else um * um / 500

    return slowness(wet_um) / slowness(usual_um)


def _scaled(film: Film, moment: Moment, wet_um: float, whole: bool) -> float | None:
    """Minutes one of a film's times takes at a wet thickness, at 20 °C and 50 %."""
    minutes: float | None = getattr(film.times, moment)
    if minutes is None:
        return None
    sooner = (moment in {"touch", "recoat_from"} or not whole) and moment not in film.labelled
    factor = thickness_factor(wet_um, film.usual_um)
    return minutes * max(factor, LEAST_THIN if sooner else 1.0)


def wait_for(film: Film, moment: Moment, wet_um: float, whole: bool = True, thick: Film | None = None,
             dries_by: DriesBy = "air") -> Wait:  # fmt: skip
    """What one of a film's times waits for, its thickness counted: a thinner film is sooner, a thicker one later.

    A thin coat may be touched and covered sooner, by no more than to a third; what covers the whole is not rubbed wet
    or sealed sooner for being thin. `thick` is the film whose times hold where it is laid thick: the lesser of both,
    never less than its own usual ones. Films without water set as oils do, and so does every cure; neither goes by
    thickness.
    """
    minutes: float | None = getattr(film.times, moment)
    if moment == "cured" or film.carrier != "water":
        return Wait(minutes, "oil")
    by: Literal["night", "evaporation"] = "night" if minutes is not None and minutes >= NIGHT else "evaporation"
    if minutes is not None and film.kind not in {"wax", "oil"}:
        usual = minutes
        minutes = _scaled(film, moment, wet_um, whole) or 0.0
        if thick is not None and (deep := _scaled(thick, moment, wet_um, whole)) is not None and minutes > usual:
            minutes = min(minutes, max(deep, usual))
        if by == "night" and minutes < NIGHT:
            by = "evaporation"  # so thin that it needs no night
        if moment in {"touch", "recoat_from"} and moment not in film.labelled:
            minutes *= HURRIED.get(dries_by, 1.0)
    return Wait(minutes, by, dries_by == "warm room")


@lru_cache(maxsize=4096)
def _no_film(conditions: Conditions) -> str:
    return no_film(conditions)


@lru_cache(maxsize=4096)
def _pace(by: str, warmed: bool, conditions: Conditions) -> float:
    """Reference minutes that pass in one minute here; 0 where no film forms."""
    if warmed:
        return max(_pace(by, False, conditions), _pace(by, False, WARM_ROOM))
    if by == "clock":
        return 1.0
    if by == "oil":
        return 1 / cure_factor(conditions.temperature_c)
    return 0.0 if _no_film(conditions) else 1 / factor(conditions.temperature_c, conditions.humidity)


def dry_at(begun_min: float, wait: Wait, room: Room) -> float | None:
    """The minute of the job at which what began at `begun_min` is done waiting.

    None where the time is unknown, and where no time can be promised because no film forms in this room.
    """
    if wait.reference_min is None:
        return None
    if len(room.spells) == 1:
        pace = _pace(wait.by, wait.warmed, room.spells[0].conditions)
        done = begun_min + wait.reference_min / pace if pace else None
    else:
        done = _done(begun_min, wait, room)
    return max(done, begun_min + NIGHT) if done is not None and wait.by == "night" else done


def _done(begun_min: float, wait: Wait, room: Room) -> float | None:
    """When a wait is over that begins in a room that changes: by what has dried until each of its spells."""
    key = (wait.by, wait.warmed)
    if key not in room.dried:
        room.dried[key] = _sums(wait, room)
    until, paces = room.dried[key]
    place = room.place_at(begun_min)
    before = until[place] + paces[place] * (begun_min - room.spells[place].from_min)
    assert wait.reference_min is not None
    wanted = before + wait.reference_min
    last = max(bisect_left(until, wanted) - 1, place)
    while last < len(paces) and not paces[last]:
        last += 1
    if last == len(paces):
        return None
    return max(room.spells[last].from_min + (wanted - until[last]) / paces[last], begun_min)


def _sums(wait: Wait, room: Room) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Reference minutes that pass until each spell, and in each minute of it."""
    paces = tuple(_pace(wait.by, wait.warmed, s.conditions) for s in room.spells)
    until = [0.0]
    for pace, (spell, after) in zip(paces, pairwise(room.spells), strict=False):
        until.append(until[-1] + pace * (after.from_min - spell.from_min))
    return tuple(until), paces


def unfit(from_min: float, until_min: float, room: Room) -> tuple[float, str] | None:
    """The last spell between two minutes in which water-based films may not form: when it ends (inf where it never
    does), and why. None where they form throughout."""
    found = None
    last = len(room.spells) - 1
    for place in range(room.place_at(from_min), last + 1):
        if place and room.spells[place].from_min >= until_min:
            break
        if why := _no_film(room.spells[place].conditions):
            found = (room.spells[place + 1].from_min if place < last else inf, why)
    return found


def takes_min(wait: Wait, room: Room, begun_min: float = 0.0) -> float | None:
    """Minutes a wait takes when it begins at `begun_min`; None as in `dry_at`."""
    done = dry_at(begun_min, wait, room)
    return None if done is None else round(done - begun_min, 9)
