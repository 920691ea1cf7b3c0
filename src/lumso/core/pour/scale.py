"""Whether what a scale shows can be believed to be what is in the pot.

A reading counts from a zero: the tare it was taken at. Where the scale was begun anew, tared again or set to another
unit while nobody looked, its zero is another, and so is its weight; then the painter says what stands on it.
"""

from dataclasses import dataclass
from typing import Literal, cast

from ..log.acts import Tared
from ..value import Value

Unit = Literal["g", "oz", "lb"]
Connection = Literal["none", "listening", "gone"]
"""Whether a device is listened to: there is none, it is, or it does not answer."""
GRAMS: dict[str, float] = {"g": 1.0, "oz": 28.349523125, "lb": 453.59237}
"""Grams of each unit a scale may show (international avoirdupois)."""


@dataclass(frozen=True)
class ScaleReading(Value):
    """What a scale says. `boot` and `tare` tell one zero from another; `g` is None on overload, and where it shows less
    than nothing: a net weight below zero after a tare is one, as something was taken off."""

    boot: str
    tare: int
    unit: str
    g: float | None
    steady: bool
    over: bool
    step_g: float
    most_g: float
    unsettled: bool = False
    """Whether it lies below its own zero."""


@dataclass(frozen=True)
class Believed(Value):
    """What is in the pot by the scale, or why that is not known."""

    g: float | None
    why: Literal["", "gone", "begun anew", "tared again", "another unit", "overload", "unsettled", "not tared"]
    steady: bool
    says: str


SAYS: dict[str, str] = {
    "": "",
    "gone": "The scale does not answer. What was poured is kept; pour on when it is back, or say how much by hand.",
    "begun anew": "The scale was switched off and on: its zero is another. Put the pot on, and say that it is the pot.",
    "tared again": "The scale was tared again. Put the pot on, and say that it is the pot.",
    "another unit": "The scale was set to another unit. Put the pot on, and say that it is the pot.",
    "overload": "That is more than the scale can weigh. Take it off, and pour in two pots or by volume.",
    "unsettled": "The scale shows less than nothing. Take all off, let it come to rest, and switch it on anew.",
    "not tared": "Put the empty pot on the scale and tare it.",
}


def zero_at(reading: ScaleReading, pot: str, known_g: float) -> Tared:
    """The zero of a pot that holds `known_g` and stands on the scale now; `reading.g` is not None."""
    return Tared("tared", pot, reading.boot, reading.tare, cast(Unit, reading.unit), reading.g or 0.0, known_g)


def believed(reading: ScaleReading | None, zero: Tared | None) -> Believed:
    """What is in the pot, in g. Small amounts below nothing are nothing: drift."""
    if reading is None:
        return _unknown("gone")
    if zero is None:
        return _unknown("not tared")
    if reading.boot != zero.boot:
        return _unknown("begun anew")
    if reading.tare != zero.tare:
        return _unknown("tared again")
    if reading.unit != zero.unit:
        return _unknown("another unit")
    if reading.unsettled:
        return _unknown("unsettled")
    if reading.over or reading.g is None:
        return _unknown("overload")
    return Believed(reading.g - zero.shown_g + zero.known_g, "", reading.steady, "")


STEPS_OFF, SHARE_OFF = 3.0, 0.02
"""By how many steps of the scale, or which share of a pour, what is noted may be more than what stands on it."""


def not_yet_noted(g: float, held_g: float, seen: Believed, step_g: float) -> float:
    """What of a pour of `g` by the scale is not noted yet, in g: two people at one bench press at once, and the second
    says what the first said. All of it where the scale cannot tell, or shows that much more than the pot is known to
    hold; 0.0 where all that stands there is noted.

    >>> seen = Believed(43.3, "", True, "")
    >>> not_yet_noted(43.3, 0.0, seen, 0.1), not_yet_noted(43.3, 43.3, seen, 0.1)
    (43.3, 0.0)
    >>> round(not_yet_noted(43.3, 40.0, seen, 0.1), 1)
    3.3
    >>> not_yet_noted(20.0, 43.3, Believed(-212.0, "", True, ""), 0.1)
    20.0
    """
    if seen.g is None or not seen.steady:
        return g
    left, slack = seen.g - held_g, max(STEPS_OFF * step_g, SHARE_OFF * g)
    if g <= left + slack or left < -slack:  # less than is known to be in it: the pot was taken off meanwhile
        return g
    return 0.0 if left <= slack else left


def _unknown(
    why: Literal["gone", "begun anew", "tared again", "another unit", "overload", "unsettled", "not tared"],
) -> Believed:
    return Believed(None, why, False, SAYS[why])
