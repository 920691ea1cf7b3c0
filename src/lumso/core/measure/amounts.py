"""Amounts as people say them: 120, 120 ml, 1,5 l, ½ cup, 2 fl oz."""

import re
from collections.abc import Mapping

from ..errors import AmbiguousValue, InvalidValue
from .measures import MeasureSystem
from .numbers import NUMBER, plain, read_number, readings

WORDS: Mapping[str, tuple[str, ...]] = {
    "tsp": ("tsp", "tsps", "teaspoon", "teaspoons"),
    "tbsp": ("tbsp", "tbsps", "tablespoon", "tablespoons"),
    "cup": ("cup", "cups"),
    "fl-oz": ("fl oz", "floz", "fluid ounce", "fluid ounces"),
    "pint": ("pint", "pints", "pt"),
    "quart": ("quart", "quarts", "qt"),
    "gallon": ("gallon", "gallons", "gal"),
}
LITRES = {"ml": 1.0, "millilitre": 1.0, "millilitres": 1.0, "cc": 1.0, "cl": 10.0, "dl": 100.0, "l": 1000.0,
          "litre": 1000.0, "litres": 1000.0, "liter": 1000.0, "liters": 1000.0}  # fmt: skip
AMOUNT = re.compile(rf"({NUMBER})\s*([a-z]+(?:\s+(?:oz|ounces?))?)?")
LEAST_ML, MOST_ML = 0.05, 200_000.0
"""A drop, and more than is ever mixed at once."""


def amount_within(said: str, system: MeasureSystem, example: str) -> tuple[float, bool] | None:
    """The first amount in a text, ml, and whether it is a number and nothing else; None where there is none.

    A number without a unit is ml. Raises InvalidValue, with `example` as what is allowed, for a unit the system does
    not have, and for a number divided by zero; AmbiguousValue for 1,250 ml, where both readings could be mixed.
    """
    text = _one_reading(said, system)
    amount = AMOUNT.search(text)
    if amount is None:
        return None
    unit = amount.group(2) or "ml"
    each = _each(unit, system)
    if each is None:
        says = f"{said!r} is in a unit that is not known."
        raise InvalidValue(says, value=said, allowed=f"ml, l, {', '.join(WORDS)}: {example}", field="typed")
    try:
        ml = round(read_number(amount.group(1)) * each, 6)
    except ZeroDivisionError as error:
        raise InvalidValue(f"{said!r} divides by zero.", value=said, allowed=example, field="typed") from error
    return ml, amount.group(1) == text


def _one_reading(said: str, system: MeasureSystem) -> str:
    """What is said. `1,250 ml` is 1250 to some and 1.25 to others: never guess, where both can be mixed."""
    both = readings(plain(said))
    if len(both) == 1:
        return both[0]
    amount = AMOUNT.search(both[0])
    if amount is not None and float(amount.group(1)) * (_each(amount.group(2) or "ml", system) or 0) > MOST_ML:
        return both[-1]
    says = f"{said[:60]!r} can be read as {both[0]} or as {both[-1]}."
    raise AmbiguousValue(says, value=said, readings=(both[0], both[-1]), field="typed")


def _each(unit: str, system: MeasureSystem) -> float | None:
    """How much one of a unit is, ml; None where the system does not have it."""
    slug = next((s for s, words in WORDS.items() if unit in words), "")
    return LITRES.get(unit) or next((m.ml for m in system.measures if m.slug == slug), None)


def read_amount(typed: str, system: MeasureSystem) -> float:
    """An amount to pour, ml, as it was typed. A number without a unit is ml.

    Raises InvalidValue for what is no amount, or not from a drop to 200 l.
    """
    example = "0.05 ml to 200 l, for example 120 ml, 1.5 l or ½ cup"
    said = typed.strip()
    found = amount_within(said, system, example) if AMOUNT.fullmatch(readings(plain(said))[-1]) else None
    if found is None or not LEAST_ML <= found[0] <= MOST_ML:
        says = f"{said[:60]!r} is no amount." if found is None else f"{said!r} is {found[0]:g} ml."
        raise InvalidValue(says, value=typed, allowed=example, field="typed")
    return found[0]
