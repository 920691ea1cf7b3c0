"""How deep sanding goes: how much of a dry film it takes, and what it may come through to."""

from ..book.preparation import Abrasive, Sanding
from .stack import Stack

THIN_SPOTS = 0.6
"""A film is thinner than its mean in spots, and there the paper comes through first."""
MACHINE = 2.0
"""By machine it takes so much more. An untested starting point."""


def takes_um(stack: Stack, sand: Sanding) -> float:
    """How much of a dry film a sanding may take at most, in µm, which cautions go by; paper coarser than usual takes
    more."""
    known = stack.catalogue.abrasives.get(sand.purpose)
    return known.takes_um * _times(known, sand) if known else 0.0


def usually_um(stack: Stack, sand: Sanding) -> float:
    """How much of a dry film a sanding usually takes where the hand presses most, in µm."""
    known = stack.catalogue.abrasives.get(sand.purpose)
    return (known.usually_um or known.takes_um) * _times(known, sand) if known else 0.0


def _times(known: Abrasive, sand: Sanding) -> float:
    return max(1.0, known.coarsest / sand.grit) * (MACHINE if sand.by == "machine" else 1.0)


def reaches(stack: Stack, index: int, sand: Sanding) -> int:
    """The lowest layer that sanding the layer `index` may come through to; -1 is the ground. An estimate."""
    left = takes_um(stack, sand)
    for k in range(index, -1, -1):
        one = stack.laid[k]
        left -= one.dry_um * one.layer.coats * THIN_SPOTS * one.layer.touched
        if left <= 0:
            return k
    return -1
