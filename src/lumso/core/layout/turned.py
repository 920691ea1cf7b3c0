"""Round parts: places are counted along the wall, and straight tape does not lie on a cone."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from math import cos, hypot, pi

from ..measure.drawing import Point
from ..value import Value

LIES_MM = 1.0
"""Straight tape that misses itself by no more than this at its closure lies: an untested starting point."""


@dataclass(frozen=True)
class Arc(Value):
    """A band on a round part, developed flat: a sector between two radii (0, both, on a cylinder: it is a strip), its
    girth at each edge, and by how much straight tape would miss itself where it closes."""

    band: int
    inner_mm: float
    outer_mm: float
    angle_rad: float
    girths_mm: tuple[float, ...]
    misses_mm: float
    says: str


@dataclass(frozen=True)
class Wall:
    """The wall of a turning seen from the side: (y, diameter) stations from the top down, mm."""

    stations: tuple[tuple[float, float], ...]

    @cached_property
    def along(self) -> tuple[float, ...]:
        """How far along the wall each station is."""
        found = [0.0]
        for (y, d), (z, e) in zip(self.stations, self.stations[1:], strict=False):
            found.append(found[-1] + hypot(z - y, (e - d) / 2))
        return tuple(found)

    @property
    def length(self) -> float:
        """The length of the wall."""
        return self.along[-1]

    def at(self, place: float) -> tuple[float, float]:
        """The y and the diameter at a place along the wall."""
        place = min(max(place, 0.0), self.length)
        for k, end in enumerate(self.along[1:], 1):
            if place <= end or k == len(self.along) - 1:
                run = end - self.along[k - 1]
                t = (place - self.along[k - 1]) / run if run else 0.0
                (y, d), (z, e) = self.stations[k - 1], self.stations[k]
                return y + t * (z - y), d + t * (e - d)
        return self.stations[-1]

    def girth(self, place: float) -> float:
        """How far it is round it there."""
        return pi * self.at(place)[1]

    def area(self, low: float, high: float) -> float:
        """The wall between two places, mm²: frusta, each its mean girth by its length."""
        cuts = [low, *(a for a in self.along if low < a < high), high]
        return sum((self.girth(a) + self.girth(b)) / 2 * (b - a) for a, b in zip(cuts, cuts[1:], strict=False))


def wall_of(outline: Sequence[Point]) -> Wall:
    """The wall of a turning from its outline: the points of one side, then those of the other, back."""
    pairs = zip(outline[: len(outline) // 2], reversed(outline[len(outline) // 2 :]), strict=True)
    stations = sorted((a.y, abs(a.x - b.x)) for a, b in pairs)
    return Wall(tuple(stations))


def arc_of(wall: Wall, band: int, start: float, end: float) -> Arc:
    """A band from one place to another along a wall, developed. Straight tape is laid square to the axis at its wide
    edge, and runs on straight over the flat sector."""
    (_, d), (_, e) = wall.at(start), wall.at(end)
    wide, narrow = max(d, e), min(d, e)
    girths = (pi * d, pi * e)
    slope = (wide - narrow) / 2 / (end - start)
    if slope < 1e-9:
        return Arc(band, 0.0, 0.0, 0.0, girths, 0.0, "Straight tape lies.")
    outer, angle = wide / 2 / slope, 2 * pi * slope
    misses = outer * (1 / cos(angle) - 1) if angle < pi / 2 else float(pi * wide)
    says = "Straight tape lies." if misses <= LIES_MM else (
        f"Straight tape misses itself by {misses:.0f} mm where it closes: stretching tape of 6 mm or less, or the "
        "template."
    )  # fmt: skip
    return Arc(band, outer - (end - start), outer, angle, girths, misses, says)
