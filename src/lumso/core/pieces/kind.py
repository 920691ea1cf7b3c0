"""What every kind of piece has: sizes with their bounds, surfaces, and a drawing."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from ..drawing import Drawing
from ..value import Value

Sizes = Mapping[str, float]
"""Sizes in mm by the name of their spec."""


@dataclass(frozen=True)
class SizeSpec(Value):
    """A size a tape gives, and between which bounds (mm) a piece of this kind can have it."""

    slug: str
    name: str
    least_mm: float
    most_mm: float
    usual_mm: float


@dataclass(frozen=True)
class Surface:
    """One surface of a piece: its area in m², and how that was reached."""

    slug: str
    name: str
    area_m2: float
    how: str
    usually_bare: str = ""
    """Why it usually gets no coat; "" when it usually does."""


@dataclass(frozen=True)
class PieceKind:
    """A kind of piece. `surfaces` and `draw` are pure functions of its sizes; `draw` also takes the coated ones."""

    slug: str
    name: str
    sizes: tuple[SizeSpec, ...]
    surfaces: Callable[[Sizes], tuple[Surface, ...]]
    draw: Callable[[Sizes, frozenset[str]], Drawing]
