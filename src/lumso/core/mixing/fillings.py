"""How a mix is measured out: fillings, options, what a scale shows."""

from dataclasses import dataclass
from typing import Literal

from ..value import Value


@dataclass(frozen=True)
class Filling(Value):
    """`count` fillings of a measure, each to `ml` (its brim, or one of its marks)."""

    name: str
    ml: float
    count: int
    to_mark: bool


@dataclass(frozen=True)
class Filled(Value):
    """How one component, named by its id, is measured out. `error` is the relative change of its share of the whole."""

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
    parts: tuple[Filled, ...]


@dataclass(frozen=True)
class Weighed(Value):
    """A component on the scale: need and what to weigh out, g. `error` is the relative change of its share."""

    component: str
    need_g: float
    g: float
    error: float


Outcome = Literal["found", "none", "too small", "stopped"]
"""What came of looking for fillings: found; none within the surplus, and all were tried; below the smallest measure;
stopped at the budget, with the best so far where there is one."""


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
    weigh_says: str = ""
    """Why it cannot be weighed with this scale; "" where it can, or there is none."""
    smallest_weighed: float | None = None
    """How many times the need the smallest batch is that can be weighed; None when the need can be."""
    outcome: Outcome = "found"
    larger: KitOption | None = None
    """Where the need cannot be measured: the smallest batch above the surplus that can, in the same shares."""
    larger_says: tuple[str, ...] = ()
    """What speaks against so much."""
