"""The measuring kit: the spoons, cups, jugs, syringes and scale one owns."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen, Predicate

from ..value import Name, Slug, Value


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
    kind: Literal["spoon", "scoop", "cup", "jug", "syringe"] = "spoon"


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
