"""The measuring kit: the spoons, cups, jugs, syringes and scale one owns."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen, Predicate

from ..errors import InvalidValue
from ..measure.amounts import amount_within
from ..measure.measures import MeasureSystem
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


KINDS: Mapping[str, Shape] = {"scoop": "scoop", "cup": "cup", "mug": "cup", "jug": "jug", "beaker": "jug",
                              "syringe": "syringe", "pipette": "syringe"}  # fmt: skip
EXAMPLE = "for example 5 ml, 15 ml, ½ cup, jug 500 ml"


def measures_said(typed: str, system: MeasureSystem) -> tuple[KitMeasure, ...]:
    """The measures of a drawer as they are said: 5 ml, 15 ml, ½ cup, jug 500 ml. A bare number is ml.

    Raises InvalidValue with the one that cannot be read.
    """
    found = []
    for said in (s.strip() for s in re.split(r";|\n|,\s|,(?!\d)|\band\b|\+", typed) if s.strip()):
        amount = amount_within(said, system, EXAMPLE)
        if amount is None:
            raise InvalidValue(f"How much {said!r} holds was not said.", value=said, allowed=EXAMPLE, field="typed")
        ml, bare = amount
        if not 0.05 <= ml <= 20_000:
            says = f"{said!r} holds {ml:g} ml."
            raise InvalidValue(says, value=said, allowed="0.05 ml to 20 l", field="typed")
        words = said.lower().split()
        kind: Shape = next((k for word, k in KINDS.items() if word in words), "spoon")
        found.append(KitMeasure(f"{said} ml" if bare else said, ml, 0.0, kind))
    if not found:
        raise InvalidValue("No measure was given.", value=typed, allowed=EXAMPLE, field="typed")
    return tuple(found)
