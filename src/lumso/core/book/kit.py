"""The measuring kit: the spoons, cups, jugs, syringes and scale one owns."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen

from ..value import Name, NotNegative, Slug, Value


@dataclass(frozen=True)
class KitMeasure(Value):
    """One thing to measure with. `step_ml` is the spacing of its marks; 0 when it is only ever filled level."""

    name: Name
    ml: Annotated[float, Interval(gt=0, le=20_000)]
    step_ml: NotNegative = 0.0
    kind: Literal["spoon", "scoop", "cup", "jug", "syringe"] = "spoon"


@dataclass(frozen=True)
class Kit(Value):
    """A drawer of measures, and a scale when there is one (`scale_g` is its resolution in g, 0 for none)."""

    slug: Slug
    name: Name
    measures: Annotated[tuple[KitMeasure, ...], MaxLen(40)]
    scale_g: NotNegative = 0.0
    surplus: Annotated[float, Interval(ge=0, le=3)] = 0.3
    """How much more than needed may be mixed so that it measures well: 0.3 is 30 %."""
    tolerance: Annotated[float, Interval(ge=0, le=0.5)] = 0.03
    """The largest relative change of any share that is accepted."""
