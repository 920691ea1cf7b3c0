"""What goes wrong under a hand that comes too soon or too late: as it is seen, why it is so, and from what it comes."""

from dataclasses import dataclass
from typing import Literal

from ..value import Fraction, Name, Slug, Value

Cause = Literal[
    "recoat", "seal", "rub wet", "solvent", "tape", "night to tell", "night to hold", "texture", "closed", "life",
    "knocked soon", "knocked late", "wiped soon", "wiped late", "dragged soon", "dragged late", "sanded soon",
    "buffed soon", "damp ground", "ground not prepared", "not sanded",
]  # fmt: skip
"""What a hand does at the wrong time, or leaves out. The first eight are what a layer waits for (`layers.awaited`)."""

Shape = Literal["patches", "streaks", "cracks", "line", "specks", "edge", "veil", "smooth", "none"]
"""Where a flaw lies: blots, lines along the strokes, a net of cracks, one line across, specks, along a taped edge, all
over, all over by its relief alone, or nowhere that is seen yet."""
Shows = Literal["beneath", "doubled", "paler", "darker", "flat"]
"""What is seen there: what lies beneath the film, twice as much of it, a milky veil, a stain, or one without relief."""


@dataclass(frozen=True)
class Flaw(Value):
    """Something gone wrong that is seen. `{upper}` and `{lower}` in what is said are the mix that was laid or worked,
    and what it lies on."""

    slug: Slug
    name: Name
    sign: str
    """The sign it is looked up by among the rescues; "" where none answers."""
    causes: tuple[Cause, ...]
    says: str
    mends: str
    """What is done about it where no rescue is known."""
    shape: Shape
    shows: Shows
    most: Fraction
    """The share of the surface it takes at the worst."""
    provenance: str
