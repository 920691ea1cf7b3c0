"""The measuring kit: the spoons, cups, jugs, syringes and scale one owns."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen, Predicate

from ..errors import InvalidValue
from ..measure.measures import MeasureSystem
from ..measure.numbers import NUMBER, plain, points, read_number
from ..value import Name, Slug, Value

Shape = Literal["spoon", "scoop", "cup", "jug", "syringe"]


def _is_step(ml: float) -> bool:
    return ml == 0 or 0.01 <= ml <= 20_000


def _is_resolution(g: float) -> bool:
    return g == 0 or 0.001 <= g <= 1000


@dataclass(frozen=True)
class KitMeasure(Value):
    """One thing to measure with, 0.05 ml to 20 l: a drop is about 0.05 ml, and nothing smaller is filled.

    `step_ml` is the spacing of its marks, 0.01 ml or more; 0 when it is only ever filled level.
    """

    name: Name
    ml: Annotated[float, Interval(ge=0.05, le=20_000)]
    step_ml: Annotated[float, Predicate(_is_step)] = 0.0
    kind: Shape = "spoon"


@dataclass(frozen=True)
class Kit(Value):
    """A drawer of measures, and a scale when there is one (`scale_g` is its resolution, 0.001–1000 g; 0 for none)."""

    slug: Slug
    name: Name
    measures: Annotated[tuple[KitMeasure, ...], MaxLen(40)]
    scale_g: Annotated[float, Predicate(_is_resolution)] = 0.0
    surplus: Annotated[float, Interval(ge=0, le=3)] = 0.3
    """How much more than needed may be mixed so that it measures well: 0.3 is 30 %."""
    tolerance: Annotated[float, Interval(ge=0, le=0.5)] = 0.03
    """The largest relative change of any share that is accepted."""


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
KINDS: Mapping[str, Shape] = {"scoop": "scoop", "cup": "cup", "mug": "cup", "jug": "jug", "beaker": "jug",
                              "syringe": "syringe", "pipette": "syringe"}  # fmt: skip
AMOUNT = re.compile(rf"({NUMBER})\s*([a-z]+(?:\s+oz)?)?")
EXAMPLE = "for example 5 ml, 15 ml, ½ cup, jug 500 ml"


def measures_said(typed: str, system: MeasureSystem) -> tuple[KitMeasure, ...]:
    """The measures of a drawer as they are said: 5 ml, 15 ml, ½ cup, jug 500 ml. A bare number is ml.

    Raises InvalidValue with the one that cannot be read.
    """
    found = []
    for said in (s.strip() for s in re.split(r";|\n|,\s|,(?!\d)|\band\b|\+", typed) if s.strip()):
        amount = AMOUNT.search(points(plain(said)))
        if amount is None:
            raise InvalidValue(f"How much {said!r} holds was not said.", value=said, allowed=EXAMPLE, field="typed")
        unit = amount.group(2) or "ml"
        slug = next((s for s, words in WORDS.items() if unit in words), "")
        each = LITRES.get(unit) or (_of(system, slug) if slug else None)
        if each is None:
            says = f"{said!r} is in a unit that is not known."
            raise InvalidValue(says, value=said, allowed=f"ml, l, {', '.join(WORDS)}: {EXAMPLE}", field="typed")
        try:
            ml = round(read_number(amount.group(1)) * each, 6)
        except ZeroDivisionError as error:
            raise InvalidValue(f"{said!r} divides by zero.", value=said, allowed=EXAMPLE, field="typed") from error
        if not 0.05 <= ml <= 20_000:
            says = f"{said!r} holds {ml:g} ml."
            raise InvalidValue(says, value=said, allowed="0.05 ml to 20 l", field="typed")
        words = said.lower().split()
        kind: Shape = next((k for word, k in KINDS.items() if word in words), "spoon")
        bare = re.fullmatch(NUMBER, points(plain(said))) is not None
        found.append(KitMeasure(f"{said} ml" if bare else said, ml, 0.0, kind))
    if not found:
        raise InvalidValue("No measure was given.", value=typed, allowed=EXAMPLE, field="typed")
    return tuple(found)


def _of(system: MeasureSystem, slug: str) -> float | None:
    return next((m.ml for m in system.measures if m.slug == slug), None)
