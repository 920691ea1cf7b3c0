"""Areas of plain solids, in m², from sizes in mm. Every formula is elementary geometry."""

from collections.abc import Sequence
from math import hypot, pi

MM2_PER_M2 = 1_000_000


def rectangle(length: float, width: float) -> float:
    """One face of `length` × `width`."""
    return length * width / MM2_PER_M2


def disc(diameter: float) -> float:
    """One face of a round."""
    return pi * diameter**2 / 4 / MM2_PER_M2


def oval(length: float, width: float) -> float:
    """One face of an ellipse of the given full length and width: πab with the half axes.

    >>> round(oval(1200, 800), 4)
    0.754
    """
    return pi * length * width / 4 / MM2_PER_M2


def ring(outer_diameter: float, inner_diameter: float) -> float:
    """One face of a flat ring."""
    return disc(outer_diameter) - disc(inner_diameter)


def cylinder_wall(diameter: float, height: float) -> float:
    """The round wall of a cylinder, without its ends."""
    return pi * diameter * height / MM2_PER_M2


def frustum_wall(top_diameter: float, bottom_diameter: float, height: float) -> float:
    """The wall of a tapering round: π(r₁+r₂)√(L²+(r₁−r₂)²).

    >>> round(frustum_wall(50, 30, 420), 5)
    0.05279
    """
    r1, r2 = top_diameter / 2, bottom_diameter / 2
    return pi * (r1 + r2) * hypot(height, r1 - r2) / MM2_PER_M2


def sphere(diameter: float) -> float:
    """A whole knob or ball."""
    return pi * diameter**2 / MM2_PER_M2


def turned_profile(stations: Sequence[Sequence[float]]) -> float:
    """The wall of a turning given as (height, diameter) stations: a run of frusta between them."""
    pairs = zip(stations, stations[1:], strict=False)
    return sum(frustum_wall(d1, d2, h2 - h1) for (h1, d1), (h2, d2) in pairs)


def board_edges(length: float, width: float, thickness: float) -> float:
    """The four edges of a board.

    >>> rectangle(1000, 500) + board_edges(1000, 500, 20)
    0.56
    """
    return 2 * (length + width) * thickness / MM2_PER_M2
