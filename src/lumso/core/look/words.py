"""Colours in words, for eyes that cannot tell them apart and for ears."""

from math import atan2, degrees, hypot

import numpy as np
from numpy.typing import NDArray

HUES = ((18, "pink red"), (42, "red"), (62, "orange brown"), (82, "ochre"), (105, "yellow"), (130, "yellow green"),
        (170, "green"), (205, "blue green"), (240, "green blue"), (285, "blue"), (315, "violet"), (345, "purple"),
        (361, "pink red"))  # fmt: skip
"""Where each hue ends, in degrees of CIELAB."""
LIGHT: tuple[tuple[float, str], ...] = (
    (12, "black"),
    (28, "very dark"),
    (45, "dark"),
    (62, "middle"),
    (78, "light"),
    (90, "pale"),
    (101, "very pale"),
)
STEP = 5.0
"""A step of lightness in words, in L*: plainly seen, not only side by side."""
COUNTED = ("", "one step", "two steps", "three steps", "four steps", "five steps", "six steps")


def colour_in_words(lab: NDArray[np.float64]) -> str:
    """What one would call a colour, by lightness, strength and hue.

    >>> colour_in_words(np.array([93.0, 0.5, 4.0]))
    'very pale yellow white'
    """
    light, a, b = (float(x) for x in lab)
    strength, hue = hypot(a, b), degrees(atan2(b, a)) % 360
    said = next(w for end, w in LIGHT if light < end)
    name = next(w for end, w in HUES if hue < end)
    if light < LIGHT[0][0] and strength < 8:
        return "black"
    if strength < 3:
        return "white" if light > 95 else f"{said} grey"
    if strength < 10:
        return f"{said} {name} {'white' if light > 90 else 'grey'}"
    return f"{said}{', strong' if strength > 55 else ''} {name}"


def steps_apart(before: float, after: float) -> str:
    """How much darker or lighter a second colour is than a first, from their L*.

    >>> steps_apart(60.0, 49.0)
    'two steps darker'
    """
    count = round(abs(after - before) / STEP)
    if count == 0:
        return "as light" if abs(after - before) < 1 else "a touch lighter" if after > before else "a touch darker"
    said = COUNTED[count] if count < len(COUNTED) else f"{count} steps"
    return f"{said} {'lighter' if after > before else 'darker'}"


SURE = ((1.5, "hardly off"), (4.0, "may be a little off"), (8.0, "may be a shade off"), (1e9, "may be two shades off"))
"""What a range of so many ΔE₀₀ is called."""


def how_sure(within: float) -> str:
    """What a range is good for.

    >>> how_sure(6.0)
    'may be a shade off'
    """
    return next(words for end, words in SURE if within < end)
