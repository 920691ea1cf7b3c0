"""The marks ways of putting a mix on leave on a surface."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval

from ..value import Fraction, NotNegative, Positive, Slug, Value
from .techniques import Technique

MarkKind = Literal[
    "drawn", "broken", "combed", "woven", "peaks", "swept", "islands", "dabs", "rolled", "wiped", "streaks", "run",
    "rubbed", "crests", "hollows", "pores", "patches", "edges", "stripes", "figures", "even",
]  # fmt: skip
"""What a mark looks like: lines drawn one way, strokes broken every way, combed lines, a weave, pounced peaks, trowel
sweeps, islands off a knife, dabs, a roller's skin, wiped with lows left full, dry streaks, runs into the hollows,
rubbed in, crests only, hollows only, pores only, patches, edges only, taped stripes, figures, none."""


@dataclass(frozen=True)
class Mark(Value):
    """What a technique leaves."""

    slug: Slug
    """The technique."""
    kind: MarkKind
    across_mm: Positive = 1.0
    """How far apart its marks lie."""
    along_mm: Positive = 1.0
    """How long they are."""
    depth: Annotated[float, Interval(ge=0, le=1)] = 0.15
    """How much thicker and thinner than its mean the film is in them."""
    between: Fraction = 0.0
    """The share of its film that lies between the marks, where these are apart."""
    kept: Annotated[float, Interval(gt=0, le=1)] = 1.0
    """The share of what was laid that wiping leaves, where the surface beneath is closed and flat."""
    thirsty: Fraction = 0.0
    """The same where it drinks; 0 where that makes no difference."""
    hollows: Fraction = 0.0
    """The same in hollows and pores; 0 where wiping reaches them too."""
    turned_deg: NotNegative = 0.0
    """Which way its lines run, from upright."""
    provenance: str = "untested starting point of our own, set by eye"

    def wiped(self, said: float | None) -> bool:
        """Whether it is wiped, as it is usual or because somebody `said` what wiping leaves."""
        return said is not None or self.kept < 1


FALLBACK: tuple[tuple[str, Mark], ...] = (
    ("stands in peaks", Mark("", "peaks", 5, 5, 0.36)),
    ("levels", Mark("", "swept", 12, 45, 0.2)),
    ("drags", Mark("", "combed", 1.4, 200, 0.6, 0.35)),
    ("fills pores", Mark("", "pores", kept=0.3)),
    ("stays in recesses", Mark("", "hollows", 10, 10)),
    ("stays on peaks", Mark("", "crests", 2, 40)),
    ("rubs in", Mark("", "rubbed", 6, 60, 0.3, kept=0.7)),
    ("stacks", Mark("", "run", 14, 60, 0.5)),
    ("lifts", Mark("", "wiped", 8, 60, 0.4, kept=0.7)),
    ("patchy", Mark("", "patches", 30, 30)),
    ("tapes", Mark("", "stripes", 30, 1)),
)
"""The mark of a technique that is not in the book, by what it does."""
DRAWN = Mark("", "drawn", 0.9, 120, 0.15)


def mark_of(technique: Technique, marks: Mapping[str, Mark]) -> Mark:
    """The mark a technique leaves: its own, else what it does suggests."""
    if technique.slug in marks:
        return marks[technique.slug]
    return next((mark for act, mark in FALLBACK if act in technique.acts), DRAWN)
