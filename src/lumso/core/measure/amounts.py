"""Amounts as people say them: 120, 120 ml, 1,5 l, ½ cup, 2 fl oz."""

import re
from collections.abc import Mapping

from ..errors import AmbiguousValue, InvalidValue
from .measures import MeasureSystem
from .numbers import NUMBER, plain, points, read_number

WORDS: Mapping[str, tuple[str, ...]] = {
    "tsp": ("tsp", "tsps", "teaspoon", "teaspoons"),
    "tbsp": ("tbsp", "tbsps", "tablespoon", "tablespoons"),
    "cup": ("cup", "cups"),
    "fl-oz": ("fl oz", "floz", "fluid ounce", "fluid ounces"),
    "pint": ("pint", "pints", "pt"),
    "quart": ("quart", "quarts", "qt"),
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
    text = points(plain(said))
    amount = AMOUNT.search(text)
    if amount is None:
        return None
    unit = amount.group(2) or "ml"
    slug = next((s for s, words in WORDS.items() if unit in words), "")
    each = LITRES.get(unit) or next((m.ml for m in system.measures if m.slug == slug), None)
    if each is None:
        says = f"{said!r} is in a unit that is not known."
        raise InvalidValue(says, value=said, allowed=f"ml, l, {', '.join(WORDS)}: {example}", field="typed")
    _ask_about_thousands(plain(said)[amount.start() : amount.end()], each, said)
    try:
        ml = round(read_number(amount.group(1)) * each, 6)
    except ZeroDivisionError as error:
        raise InvalidValue(f"{said!r} divides by zero.", value=said, allowed=example, field="typed") from error
    return ml, amount.group(1) == text


def _ask_about_thousands(amount: str, each_ml: float, said: str) -> None:
    """`1,250 ml` is 1250 to some and 1.25 to others: never guess, where both can be mixed."""
    found = re.match(r"([1-9]\d{0,2}),(\d{3})(?!\d)", amount)
    if found is None or float(found.group(1) + found.group(2)) * each_ml > MOST_ML:
        return
    rest = amount[found.end() :]
    readings = (f"{found.group(1)}{found.group(2)}{rest}", f"{found.group(1)}.{found.group(2)}{rest}")
    says = f"{said[:60]!r} can be read as {readings[0]} or as {readings[1]}."
    raise AmbiguousValue(says, value=said, readings=readings, field="typed")


def read_amount(typed: str, system: MeasureSystem) -> float:
    """An amount to pour, ml, as it was typed. A number without a unit is ml.

    Raises InvalidValue for what is no amount, or not from a drop to 200 l.
    """
    example = "0.05 ml to 200 l, for example 120 ml, 1.5 l or ½ cup"
    said = typed.strip()
    text = points(plain(said))
    found = amount_within(said, system, example) if AMOUNT.fullmatch(text) else None
    if found is None or not LEAST_ML <= found[0] <= MOST_ML:
        says = f"{said[:60]!r} is no amount." if found is None else f"{said!r} is {found[0]:g} ml."
        raise InvalidValue(says, value=typed, allowed=example, field="typed")
    return found[0]
