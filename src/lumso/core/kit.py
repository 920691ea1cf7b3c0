"""The measuring kit: the spoons, cups, jugs, syringes and scale one owns."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen

from .value import Name, NotNegative, Slug, Value


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


@dataclass(frozen=True)
class Filling(Value):
    """`count` fillings of a measure, each to `ml` (its brim, or one of its marks)."""

    name: str
    ml: float
    count: int
    to_mark: bool


@dataclass(frozen=True)
class Measured(Value):
    """How one component is measured out. `error` is the relative change of its share of the whole."""

    component: str
    need_ml: float
    ml: float
    error: float
    fillings: tuple[Filling, ...]


@dataclass(frozen=True)
class KitOption(Value):
    """One way to measure the whole mix: total in ml as poured, surplus over the need, worst share error, fillings."""

    label: str
    total_ml: float
    surplus: float
    error: float
    count: int
    parts: tuple[Measured, ...]


@dataclass(frozen=True)
class Weighed(Value):
    """A component on the scale: need and what to weigh out, g. `error` is the relative change of its share."""

    component: str
    need_g: float
    g: float
    error: float


@dataclass(frozen=True)
class KitAnswer(Value):
    """The trade-offs, best first: the first is the default. Without any, `says` why, and what would work."""

    options: tuple[KitOption, ...]
    weighed: tuple[Weighed, ...]
    says: str = ""
    smallest_batch: float | None = None
    """How many times the need the smallest batch is that can be measured; None when the need can be."""
    proved: bool = True
    """Whether the search looked at everything: false when it had to stop early."""
