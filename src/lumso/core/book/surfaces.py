"""What a mix goes onto: grounds, and how far they depart from flat."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, MinLen

from ..measure.drawing import Point
from ..value import Name, NotNegative, Slug, Value
from .colours import Hex

GroundTrait = Literal[
    "open grain", "close grain", "tannins", "knots", "blotches", "rusts", "oil-bound", "waxed", "soot", "old coating",
    "may hide lead", "may hide asbestos", "unknown", "stain bleeds", "resin-bound", "metal", "bends", "cockles",
    "cannot be scuffed",
]  # fmt: skip
"""What a ground does to what is put on it."""


@dataclass(frozen=True)
class Ground(Value):
    """A surface as it is before the first coat."""

    slug: Slug
    name: Name
    surface: Literal["raw wood", "unsealed paint", "sealed", "plaster", "brick", "slick"]
    first_coat_extra_ml_per_m2: NotNegative
    """What the first coat loses into it, beyond the rate of the technique."""
    looks: str
    hex: Hex
    provenance: str
    traits: tuple[GroundTrait, ...] = ()


@dataclass(frozen=True)
class Relief(Value):
    """How far a surface departs from flat, and what that does to its area."""

    slug: Slug
    name: Name
    factor: Annotated[float, Interval(ge=1, le=3)]
    looks: str
    provenance: str
    profile: Annotated[tuple[Point, ...], MinLen(2)]
    """A section across it, x along the surface and y out of it, in mm: a picture that is as long as it says."""
