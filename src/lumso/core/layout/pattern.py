"""A pattern: stripes and gaps that repeat, checks, a border; and how it is set on a surface."""

from dataclasses import dataclass, replace
from typing import Annotated, Literal

from annotated_types import Interval, Len, MaxLen

from ..value import Slug, Value

Mm = Annotated[float, Interval(gt=0, le=5000)]
Kind = Literal["stripes", "checks", "chequers", "diamonds", "panels", "border", "repeats", "lettering"]
Anchor = Literal["centred on a stripe", "centred on a gap", "from an edge"]
Ends = Literal["with a stripe", "with half a gap", "cut"]
Gives = Literal["gaps", "stripes", "all"]

Fronts = Literal["each by itself", "over the gaps", "without the gaps"]

LEAST_MM = 2.0
"""Nothing narrower is taped and painted: an untested starting point."""


@dataclass(frozen=True)
class Spared(Value):
    """A knob, a keyhole or a hinge that stays free of it: a circle, its middle from the datum of the face, mm."""

    x_mm: Annotated[float, Interval(ge=0, le=5000)]
    y_mm: Annotated[float, Interval(ge=0, le=5000)]
    across_mm: Annotated[float, Interval(gt=0, le=500)]


@dataclass(frozen=True)
class Stripe(Value):
    """A stripe of a repeat, and the gap after it that stays as it is, mm."""

    width_mm: Mm
    gap_mm: Mm
    name: Annotated[str, MaxLen(30)] = ""


@dataclass(frozen=True)
class Layout(Value):
    """Where a layer goes. `stripes` are one repeat, with what each kind makes of it:

    "stripes" run one way, "checks" both ways, "panels" are what of checks is crossed. "chequers" are squares and
    "diamonds" lozenges as wide as the first stripe, every other one painted; as high as the first of `down`. A "border"
    is as wide as the first stripe, its gap the inset from the edge. "repeats" are a stencil's motifs, as wide as
    stripes, in a row `row_mm` high, `inset_mm` in from the edge it runs along, each painted over the share `covers` of
    its box; "lettering" the same with a box for each of the `words`' letters.

    `runs` is the way stripes run on the drawing: down it, or across it. `surfaces` are those of the zone it is on; none
    is all that are drawn. Where it comes out `even`, whole repeats are made by what `gives`.
    """

    kind: Kind
    stripes: Annotated[tuple[Stripe, ...], Len(1, 8)]
    runs: Literal["down", "across"] = "down"
    anchor: Anchor = "centred on a stripe"
    mirrored: bool = False
    """Whether each repeat runs there and back: the same from both edges, whatever the stripes."""
    even: bool = True
    ends: Ends = "with a stripe"
    gives: Gives = "gaps"
    surfaces: Annotated[tuple[Slug, ...], MaxLen(60)] = ()
    row_mm: Mm = 100.0
    inset_mm: Annotated[float, Interval(ge=0, le=5000)] = 0.0
    covers: Annotated[float, Interval(gt=0, le=1)] = 0.5
    tapes_mm: Annotated[tuple[Mm, ...], MaxLen(12)] = (6.0, 12.0, 19.0, 25.0, 38.0, 50.0)
    """Widths of the tapes there are."""
    tape_off_mm: Annotated[float, Interval(ge=0, le=2)] = 0.2
    """How far off a tape's width may be."""
    tick_mm: Annotated[float, Interval(ge=0.1, le=10)] = 1.0
    """The tick of the rule it is marked with."""
    down: Annotated[tuple[Stripe, ...], MaxLen(8)] = ()
    """The repeat the other way, of what runs both ways; none is the same."""
    around: bool = False
    """Whether a stencil runs along all four edges, with a corner piece in each corner."""
    corners: Literal["painted", "left out"] = "painted"
    """What a border, or a stencil all around, does at corners."""
    remainder_mm: Annotated[float, Interval(ge=0, le=5000)] = 0.0
    """What is left free at both ends: the caps of an oval, or a margin."""
    narrowest_mm: Annotated[float, Interval(ge=LEAST_MM, le=100)] = LEAST_MM
    """Nothing painted is narrower: what the edge cuts narrower is left out."""
    centre_mm: Annotated[float, Interval(ge=0, le=5000)] | None = None
    """What a pattern that is cut at the edges is centred on, from the datum: a handle; None is the middle."""
    fronts: Fronts = "each by itself"
    """Whether it runs on from front to front, and whether the gaps between take part of it."""
    front_gap_mm: Annotated[float, Interval(ge=0, le=500)] = 3.0
    spared: Annotated[tuple[Spared, ...], MaxLen(12)] = ()
    diagonals_mm: Annotated[tuple[Mm, ...], MaxLen(2)] = ()
    """Both diagonals as they were measured, from the datum's corner first; none is square."""
    pen_mm: Annotated[float, Interval(ge=0, le=3)] = 0.0
    """How wide the pen marks: marks lie half of it outside what is painted."""
    words: Annotated[str, MaxLen(60)] = ""

    @property
    def taped(self) -> bool:
        """Whether it is laid between tape: a stencil is held, and letters are drawn by hand."""
        return self.kind not in ("repeats", "lettering")

    @property
    def other_way(self) -> "Layout":
        """The pattern as it runs the other way, of what runs both ways."""
        return replace(self, stripes=self.down) if self.down else self

    @property
    def repeat(self) -> tuple[Stripe, ...]:
        """The stripes of a repeat as they are laid: mirrored, there and back, each gap before the stripe it was after,
        and the last gap left out.
        """
        if not self.mirrored or len(self.stripes) < 2:
            return self.stripes
        there = self.stripes[:-1]
        gaps = [s.gap_mm for s in there]
        back = zip(self.stripes[:0:-1], reversed(gaps), strict=True)
        return (*there, *(Stripe(s.width_mm, gap, s.name) for s, gap in back))

    @property
    def repeat_mm(self) -> float:
        """How wide a repeat is."""
        return sum(s.width_mm + s.gap_mm for s in self.repeat)
