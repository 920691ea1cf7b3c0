"""What every kind of piece has: sizes and counts with their bounds, surfaces, and a drawing."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from ...measure.drawing import Drawing
from ...value import Value

Sizes = Mapping[str, float]
"""Sizes in mm and counts, by the name of their spec."""


@dataclass(frozen=True)
class SizeSpec(Value):
    """A size a tape gives, and between which bounds (mm) a piece of this kind can have it."""

    slug: str
    name: str
    least_mm: float
    most_mm: float
    usual_mm: float
    of: str = ""
    """The count it is the size of: not asked for where that is 0."""


@dataclass(frozen=True)
class CountSpec(Value):
    """A number of like things: drawers in a row, doors, legs."""

    slug: str
    name: str
    least: int
    most: int
    usual: int


Does = Literal["closes", "lifts", "slides", "bears"]
"""What a face does in use: closes against another like a door, lifts like a lid, slides or folds along one like a
drawer or a leaf, bears what stands on it like a shelf."""


@dataclass(frozen=True)
class FaceGroup:
    """A group of like faces of a piece: their area together in m², and how that was reached.

    `group` is the zone it usually belongs to, `usually_bare` why it usually gets no coat ("" when it does).
    """

    slug: str
    name: str
    area_m2: float
    how: str
    group: str = "Body"
    vertical: bool = True
    usually_bare: str = ""
    does: frozenset[Does] = frozenset()
    """What it does when the piece is used."""
    narrow: bool = False
    """An edge: too narrow for anything to slide down it."""


@dataclass(frozen=True)
class Misfit:
    """A size or count that the others make impossible: which, what is wrong, and the bound that was crossed."""

    slug: str
    says: str
    allowed: str


def nothing_wrong(sizes: Sizes) -> tuple[Misfit, ...]:
    """The check of a kind whose sizes do not depend on each other."""
    return ()


@dataclass(frozen=True)
class PieceKind:
    """A kind of piece. `check`, `surfaces` and `draw` are pure functions of its sizes and counts.

    `check` is asked first; the other two are only called for sizes it finds nothing wrong with.
    """

    slug: str
    name: str
    sizes: tuple[SizeSpec, ...]
    surfaces: Callable[[Sizes], tuple[FaceGroup, ...]]
    draw: Callable[[Sizes], Drawing]
    counts: tuple[CountSpec, ...] = ()
    check: Callable[[Sizes], tuple[Misfit, ...]] = field(default=nothing_wrong)
    turned: bool = False
    """Whether it is turned on a lathe: painting it goes half as fast."""

    def usual(self) -> dict[str, float]:
        """The usual sizes and counts of this kind."""
        sizes: dict[str, float] = {s.slug: s.usual_mm for s in self.sizes}
        return {**sizes, **{c.slug: float(c.usual) for c in self.counts}}
