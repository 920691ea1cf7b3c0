"""A test board: strips that are painted before the piece is, each a step of a ladder, and what was seen on them."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, Len, MaxLen

from ..book.colours import Hex
from ..value import Name, NotNegative, Slug, Value

MOST_RUNGS, MOST_STRIPS = 8, 24

What = Literal["share", "tint", "coats", "kept", "thickness", "sanding", "sealer"]
"""What is varied: a component's share of the whole as poured, the last paint's share of a component that is mixed of
several, how many coats, the share left after wiping, the mean
thickness in mm, the grit it is sanded back with (0 for none), what it is sealed with."""
Verdict = Literal[
    "", "as wanted", "too strong", "too weak", "too dark", "too pale", "lifted", "blotchy", "came off",
]  # fmt: skip


@dataclass(frozen=True)
class SeenWithin(Value):
    """How far off a colour is at least that was seen so (ΔE₀₀). Untested starting points."""

    typed: float = 2.0
    nearest_chip: float = 3.0
    photograph: float = 4.0


SEEN_WITHIN = SeenWithin()


@dataclass(frozen=True)
class Rung(Value):
    """A step of a ladder: a number, or the slug of a recipe where that is what is varied ("" for none)."""

    value: Annotated[float, Interval(ge=0, le=10_000)] = 0.0
    slug: str = ""


@dataclass(frozen=True)
class Ladder(Value):
    """What is varied on which layer of the zone that the board is for, and its steps."""

    what: What
    layer: Slug
    rungs: Annotated[tuple[Rung, ...], Len(1, MOST_RUNGS)]
    component: str = ""
    """Whose share is varied."""


@dataclass(frozen=True)
class SeenColour(Value):
    """A colour that was seen on a dry strip, how it was found, and how far off that may be (ΔE₀₀)."""

    hex: Hex
    how: Literal["typed", "nearest chip", "photograph"]
    within: NotNegative


@dataclass(frozen=True)
class BoardStrip(Value):
    """One strip, which is a zone of the board's own job, and what became of it."""

    zone: Slug
    code: Annotated[str, MaxLen(8)]
    rungs: tuple[Rung, ...]
    layer: str = ""
    """Its layer that was varied; "" where that was left out."""
    verdict: Verdict = ""
    note: Annotated[str, MaxLen(500)] = ""
    photo: Annotated[str, MaxLen(80)] = ""
    """The photograph of it, by its hash."""
    seen: SeenColour | None = None


@dataclass(frozen=True)
class Board(Value):
    """What makes a job a test board: which zone of which job it is for, what is varied, and its strips."""

    job: Annotated[str, MaxLen(80)]
    """The job it is for, by its id; "" where that was never saved."""
    job_name: Name
    zone: Slug
    zone_name: Name
    ladders: Annotated[tuple[Ladder, ...], Len(1, 2)]
    strips: Annotated[tuple[BoardStrip, ...], Len(1, MOST_STRIPS)]
    width_mm: Annotated[float, Interval(ge=20, le=400)]
    length_mm: Annotated[float, Interval(ge=20, le=400)]
    why: Annotated[str, MaxLen(300)] = ""
    """What decided the size of its strips."""
