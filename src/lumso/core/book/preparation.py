"""What is done to a ground before the first coat, and to a dry layer: preparations and sanding."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval

from ..value import Name, NotNegative, Positive, Slug, Value


@dataclass(frozen=True)
class Abrasive(Value):
    """A grit for a purpose: from coarse to fine, and why no coarser."""

    purpose: Literal["raw wood", "scuff", "soften", "bite", "reveal", "level", "between clear coats", "thin washes"]
    name: Name
    coarsest: Annotated[int, Interval(ge=24, le=2000)]
    finest: Annotated[int, Interval(ge=24, le=2000)]
    why: str
    provenance: str


@dataclass(frozen=True)
class Preparation(Value):
    """Something done to a ground before the first coat. `order` says what goes before what."""

    slug: Slug
    name: Name
    how: str
    check: str
    order: int
    provenance: str
    wait_min: NotNegative = 0.0
    pace_m2_per_h: Positive = 10.0
    abrades: bool = False
    grit: int = 0
    kit: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()


@dataclass(frozen=True)
class Sanding(Value):
    """Sanding a dry layer: with what, and what for."""

    grit: Annotated[int, Interval(ge=24, le=2000)]
    purpose: Literal["scuff", "soften", "bite", "reveal", "level", "between clear coats"]
    abrasive: Literal["paper", "synthetic pad", "bronze wool", "steel wool"] = "paper"
