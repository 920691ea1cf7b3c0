"""What each kind of layout begins as, and what it is called: starting shapes, not rules. What is not said is usual."""

from dataclasses import dataclass

from ..value import Value
from .pattern import Layout, Stripe


@dataclass(frozen=True)
class Begin(Value):
    """A kind of layout: how it is said after "layer 2 goes", and what it begins as."""

    says: str
    layout: Layout


FIFTY = (Stripe(50, 50),)

BEGINS: tuple[Begin, ...] = (
    Begin("in stripes", Layout("stripes", FIFTY)),
    Begin("in checks, both ways", Layout("checks", FIFTY)),
    Begin("as a board of squares", Layout("chequers", FIFTY)),
    Begin("as diamonds", Layout("diamonds", (Stripe(80, 80),), down=(Stripe(120, 120),))),
    Begin("as panels or tiles", Layout("panels", (Stripe(100, 12),), ends="with half a gap")),
    Begin("as a border along the edge", Layout("border", (Stripe(20, 40),))),
    Begin("as a stencil, over and over in a row", Layout("repeats", FIFTY, runs="across", ends="with half a gap")),
    Begin("as lettering", Layout("lettering", (Stripe(50, 12),), row_mm=60.0, covers=0.35, even=False, words="Loft")),
)
"""In the order they are offered."""
