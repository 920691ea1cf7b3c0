"""Faces as outlines: their areas, chords and parallels, exact on rectangles and ovals. All in mm."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from math import asin, cos, hypot, pi, sin, sqrt
from typing import Literal

from ..errors import InvalidValue
from ..measure.drawing import Point
from .turned import Wall, wall_of

CORNERS = 180
"""An oval is drawn with so many."""


@dataclass(frozen=True)
class FlatFace:
    """A face to lay a pattern on: a polygon, an oval in its box, or the side of something round, x to the right and y
    down from its datum, mm."""

    shape: Literal["polygon", "oval", "round", "solid"]
    outline: tuple[Point, ...]
    holes: tuple[tuple[Point, ...], ...] = ()
    """What is cut out of it or set into it: convex, inside its outline."""

    @property
    def width(self) -> float:
        """How wide its box is."""
        return max(p.x for p in self.outline) - min(p.x for p in self.outline)

    @property
    def height(self) -> float:
        """How high its box is."""
        return max(p.y for p in self.outline) - min(p.y for p in self.outline)

    @cached_property
    def wall(self) -> Wall:
        """The wall of what is round."""
        return wall_of(self.outline)

    def extent(self, axis: Literal["x", "y"]) -> float:
        """How long it is along an axis; of what is round, along its wall."""
        return self.width if axis == "x" else self.wall.length if self.shape == "round" else self.height

    @property
    def area(self) -> float:
        """mm², less its holes."""
        if self.shape == "round":
            return self.wall.area(0.0, self.wall.length)
        whole = pi * self.width * self.height / 4 if self.shape == "oval" else polygon_area(self.outline)
        return whole - sum(polygon_area(h) for h in self.holes)

    @property
    def upright(self) -> bool:
        """Whether it is a rectangle, its sides along the axes."""
        corners = {(p.x, p.y) for p in self.outline}
        ends = {(x, y) for x in {p.x for p in self.outline} for y in {p.y for p in self.outline}}
        return self.shape == "polygon" and len(ends) == 4 and corners == ends

    def from_datum(self) -> "FlatFace":
        """The same, with the corner of its box at (0, 0): what is measured from."""
        x, y = min(p.x for p in self.outline), min(p.y for p in self.outline)

        def moved(points: Sequence[Point]) -> tuple[Point, ...]:
            return tuple(Point(p.x - x, p.y - y) for p in points)

        return FlatFace(self.shape, moved(self.outline), tuple(moved(h) for h in self.holes))


def polygon_area(outline: Sequence[Point]) -> float:
    """The area of a polygon, mm²; 0 of what is none."""
    if len(outline) < 3:
        return 0.0
    pairs = zip(outline, (*outline[1:], outline[0]), strict=True)
    return abs(sum(a.x * b.y - b.x * a.y for a, b in pairs)) / 2


def oval_outline(width: float, height: float, corners: int = CORNERS) -> tuple[Point, ...]:
    """An oval in its box from (0, 0)."""
    turn = 2 * pi / corners
    return tuple(Point(width / 2 * (1 + cos(k * turn)), height / 2 * (1 + sin(k * turn))) for k in range(corners))


def rectangle(width: float, height: float) -> FlatFace:
    """A rectangle from (0, 0)."""
    return FlatFace("polygon", (Point(0, 0), Point(width, 0), Point(width, height), Point(0, height)))


def oval(width: float, height: float) -> FlatFace:
    """An oval from (0, 0)."""
    return FlatFace("oval", oval_outline(width, height))


def clipped(outline: Sequence[Point], axis: Literal["x", "y"], low: float, high: float) -> tuple[Point, ...]:
    """The part of a polygon between two parallel lines: Sutherland and Hodgman, against each line."""
    found = list(outline)
    for bound, keeps in ((low, 1.0), (high, -1.0)):
        inside = [(p, keeps * ((p.x if axis == "x" else p.y) - bound) >= 0) for p in found]
        found = []
        for (a, a_in), (b, b_in) in zip(inside, (*inside[1:], *inside[:1]), strict=True):
            if a_in:
                found.append(a)
            if a_in != b_in:
                u, v = (a.x, b.x) if axis == "x" else (a.y, b.y)
                t = (bound - u) / (v - u)
                found.append(Point(a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)))
    return tuple(found)


def cut_to(outline: Sequence[Point], convex: Sequence[Point]) -> tuple[Point, ...]:
    """The part of a polygon inside a convex one: cut along each of its edges in turn."""
    turn = sum(a.x * b.y - b.x * a.y for a, b in zip(convex, (*convex[1:], convex[0]), strict=True))
    way = 1.0 if turn > 0 else -1.0
    found = list(outline)
    for p, q in zip(convex, (*convex[1:], convex[0]), strict=True):
        nx, ny = -way * (q.y - p.y), way * (q.x - p.x)
        inside = [(one, nx * (one.x - p.x) + ny * (one.y - p.y)) for one in found]
        found = []
        for (one, at), (other, then) in zip(inside, (*inside[1:], *inside[:1]), strict=True):
            if at >= 0:
                found.append(one)
            if (at >= 0) != (then >= 0):
                t = at / (at - then)
                found.append(Point(one.x + t * (other.x - one.x), one.y + t * (other.y - one.y)))
    return tuple(found)


def _oval_up_to(x: float, a: float, b: float) -> float:
    """The area of an ellipse with half axes a, b left of x, from −a to a."""
    u = min(max(x / a, -1.0), 1.0)
    return a * b * (u * sqrt(1 - u * u) + asin(u) + pi / 2)


def strip_area(surface: FlatFace, axis: Literal["x", "y"], low: float, high: float) -> float:
    """The area of a surface between two lines across an axis, mm²: of an oval in closed form, of a wall as frusta."""
    if surface.shape == "round":
        return surface.wall.area(low, high)
    if surface.shape == "oval":
        along, across = (surface.width, surface.height) if axis == "x" else (surface.height, surface.width)
        a, b = along / 2, across / 2
        whole = _oval_up_to(high - a, a, b) - _oval_up_to(low - a, a, b)
    else:
        whole = polygon_area(clipped(surface.outline, axis, low, high))
    return whole - sum(polygon_area(clipped(h, axis, low, high)) for h in surface.holes)


def chord(surface: FlatFace, axis: Literal["x", "y"], at: float) -> float:
    """How long a line across an axis is inside a surface, mm; of what is round, how far it is round it."""
    if surface.shape == "round":
        return surface.wall.girth(at)
    if surface.shape == "oval":
        along, across = (surface.width, surface.height) if axis == "x" else (surface.height, surface.width)
        u = 2 * at / along - 1
        inside = across * sqrt(max(1 - u * u, 0.0))
    else:
        inside = _crossed(surface.outline, axis, at) or _edge_chord(surface, axis, at)
    return max(inside - sum(_crossed(h, axis, at) for h in surface.holes), 0.0)


def _crossed(outline: Sequence[Point], axis: Literal["x", "y"], at: float) -> float:
    """How long a line across an axis is inside a polygon."""
    crossings = []
    for a, b in zip(outline, (*outline[1:], outline[0]), strict=True):
        (u, s), (v, t) = ((a.x, a.y), (b.x, b.y)) if axis == "x" else ((a.y, a.x), (b.y, b.x))
        if (u <= at) != (v <= at):
            crossings.append(s + (at - u) / (v - u) * (t - s))
    crossings.sort()
    return sum(high - low for low, high in zip(crossings[::2], crossings[1::2], strict=False))


def _edge_chord(surface: FlatFace, axis: Literal["x", "y"], at: float) -> float:
    """The length of edges that lie on the line itself."""
    found = 0.0
    for a, b in zip(surface.outline, (*surface.outline[1:], surface.outline[0]), strict=True):
        (u, s), (v, t) = ((a.x, a.y), (b.x, b.y)) if axis == "x" else ((a.y, a.x), (b.y, b.x))
        if abs(u - at) < 1e-6 and abs(v - at) < 1e-6:
            found += abs(t - s)
    return found


def least_radius(surface: FlatFace) -> float:
    """The least radius of curvature of an oval: b²/a; half the lesser side of anything else."""
    long, short = sorted((surface.width, surface.height), reverse=True)
    return short * short / 2 / long if surface.shape == "oval" else short / 2


def parallel(surface: FlatFace, inset: float) -> tuple[Point, ...]:
    """The outline so far inside a surface, everywhere as far: corners stay corners, and an oval's is no smaller oval.

    Raises InvalidValue for an inset that would cross itself.
    """
    least = least_radius(surface)
    if inset >= least:
        where = "the ends of the oval bend too sharply" if surface.shape == "oval" else "nothing would be left inside"
        raise InvalidValue(f"{inset:.0f} mm in, {where}.", value=inset, allowed=f"less than {least:.0f} mm",
                           field="stripes/0/gap_mm")  # fmt: skip
    if surface.shape == "oval":
        a, b, made = surface.width / 2, surface.height / 2, []
        for k in range(CORNERS):
            t = 2 * pi * k / CORNERS
            x, y, nx, ny = a * cos(t), b * sin(t), b * cos(t), a * sin(t)
            made.append(Point(a + x - inset * nx / hypot(nx, ny), b + y - inset * ny / hypot(nx, ny)))
        return tuple(made)
    return _mitred(surface.outline, inset)


def _mitred(outline: Sequence[Point], inset: float) -> tuple[Point, ...]:
    """A convex polygon so far in, its corners mitred."""
    turn = sum(a.x * b.y - b.x * a.y for a, b in zip(outline, (*outline[1:], outline[0]), strict=True))
    way = 1.0 if turn > 0 else -1.0
    found = []
    count = len(outline)
    for k in range(count):
        before, here, after = outline[k - 1], outline[k], outline[(k + 1) % count]
        e, f = _inward(before, here, way), _inward(here, after, way)
        scale = inset / (1 + e.x * f.x + e.y * f.y)
        found.append(Point(here.x + (e.x + f.x) * scale, here.y + (e.y + f.y) * scale))
    return tuple(found)


def _inward(a: Point, b: Point, way: float) -> Point:
    """The unit normal of an edge, into the polygon."""
    long = hypot(b.x - a.x, b.y - a.y) or 1.0
    return Point(-way * (b.y - a.y) / long, way * (b.x - a.x) / long)


def oval_parallel_area(surface: FlatFace, inset: float) -> float:
    """The area inside a parallel of an oval: area − inset × circumference + π × inset² (Steiner), mm²."""
    whole = pi * surface.width * surface.height / 4
    return whole - inset * circumference(surface) + pi * inset * inset


def circumference(surface: FlatFace) -> float:
    """The length of the outline, mm; of an oval by 4,096 chords, good to a thousandth of a mm."""
    outline = oval_outline(surface.width, surface.height, 4096) if surface.shape == "oval" else surface.outline
    return sum(hypot(b.x - a.x, b.y - a.y) for a, b in zip(outline, (*outline[1:], outline[0]), strict=True))
