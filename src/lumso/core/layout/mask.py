"""Where a pattern lies on a face: its polygons and areas, exact on rectangles and ovals; borders as true parallels."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from math import asin, cos, hypot, pi, prod, sin, sqrt
from typing import Literal

from ..errors import InvalidValue
from ..measure.drawing import Point
from ..value import Value
from .fit import Band, Fit, fit
from .pattern import Layout
from .turned import Arc, Wall, arc_of, wall_of

MOST_CROSSINGS = 3_000
"""More checks than that are no pattern that anybody tapes."""
CORNERS = 180
"""An oval is drawn with so many."""


@dataclass(frozen=True)
class Surface:
    """A face to lay a pattern on: a polygon, an oval in its box, or the side of something round, x to the right and y
    down from its datum, mm."""

    shape: Literal["polygon", "oval", "round", "solid"]
    outline: tuple[Point, ...]

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
        """mm²."""
        if self.shape == "round":
            return self.wall.area(0.0, self.wall.length)
        if self.shape == "oval":
            return pi * self.width * self.height / 4
        return polygon_area(self.outline)

    def from_datum(self) -> "Surface":
        """The same, with the corner of its box at (0, 0): what is measured from."""
        x, y = min(p.x for p in self.outline), min(p.y for p in self.outline)
        return Surface(self.shape, tuple(Point(p.x - x, p.y - y) for p in self.outline))


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


def rectangle(width: float, height: float) -> Surface:
    """A rectangle from (0, 0)."""
    return Surface("polygon", (Point(0, 0), Point(width, 0), Point(width, height), Point(0, height)))


def oval(width: float, height: float) -> Surface:
    """An oval from (0, 0)."""
    return Surface("oval", oval_outline(width, height))


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


def _oval_up_to(x: float, a: float, b: float) -> float:
    """The area of an ellipse with half axes a, b left of x, from −a to a."""
    u = min(max(x / a, -1.0), 1.0)
    return a * b * (u * sqrt(1 - u * u) + asin(u) + pi / 2)


def strip_area(surface: Surface, axis: Literal["x", "y"], low: float, high: float) -> float:
    """The area of a surface between two lines across an axis, mm²: of an oval in closed form, of a wall as frusta."""
    if surface.shape == "round":
        return surface.wall.area(low, high)
    if surface.shape == "oval":
        along, across = (surface.width, surface.height) if axis == "x" else (surface.height, surface.width)
        a, b = along / 2, across / 2
        return _oval_up_to(high - a, a, b) - _oval_up_to(low - a, a, b)
    return polygon_area(clipped(surface.outline, axis, low, high))


def chord(surface: Surface, axis: Literal["x", "y"], at: float) -> float:
    """How long a line across an axis is inside a surface, mm; of what is round, how far it is round it."""
    if surface.shape == "round":
        return surface.wall.girth(at)
    if surface.shape == "oval":
        along, across = (surface.width, surface.height) if axis == "x" else (surface.height, surface.width)
        u = 2 * at / along - 1
        return across * sqrt(max(1 - u * u, 0.0))
    crossings = []
    for a, b in zip(surface.outline, (*surface.outline[1:], surface.outline[0]), strict=True):
        (u, s), (v, t) = ((a.x, a.y), (b.x, b.y)) if axis == "x" else ((a.y, a.x), (b.y, b.x))
        if (u <= at) != (v <= at):
            crossings.append(s + (at - u) / (v - u) * (t - s))
    crossings.sort()
    pairs = zip(crossings[::2], crossings[1::2], strict=False)
    inside = sum(high - low for low, high in pairs)
    return inside or _edge_chord(surface, axis, at)


def _edge_chord(surface: Surface, axis: Literal["x", "y"], at: float) -> float:
    """The length of edges that lie on the line itself."""
    found = 0.0
    for a, b in zip(surface.outline, (*surface.outline[1:], surface.outline[0]), strict=True):
        (u, s), (v, t) = ((a.x, a.y), (b.x, b.y)) if axis == "x" else ((a.y, a.x), (b.y, b.x))
        if abs(u - at) < 1e-6 and abs(v - at) < 1e-6:
            found += abs(t - s)
    return found


def least_radius(surface: Surface) -> float:
    """The least radius of curvature of an oval: b²/a; half the lesser side of anything else."""
    long, short = sorted((surface.width, surface.height), reverse=True)
    return short * short / 2 / long if surface.shape == "oval" else short / 2


def parallel(surface: Surface, inset: float) -> tuple[Point, ...]:
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


@dataclass(frozen=True)
class Region(Value):
    """A part of a face that is painted: its outline, in mm from the datum, and a hole in it, if it has one."""

    number: int
    outline: tuple[Point, ...]
    hole: tuple[Point, ...] = ()
    area_m2: float = 0.0


@dataclass(frozen=True)
class LaidOut(Value):
    """A pattern on a face: what is painted, and the share of the face that is."""

    regions: tuple[Region, ...]
    share: float
    painted_m2: float
    face_m2: float
    down: Fit | None = None
    """The stripes that run down it, by their places across."""
    across: Fit | None = None
    """The stripes that run across it, by their places down; of what is round, along its wall."""
    arcs: tuple[Arc, ...] = ()
    """Of what is round: each band developed."""


def oval_parallel_area(surface: Surface, inset: float) -> float:
    """The area inside a parallel of an oval: area − inset × circumference + π × inset² (Steiner), mm²."""
    return surface.area - inset * circumference(surface) + pi * inset * inset


def circumference(surface: Surface) -> float:
    """The length of the outline, mm; of an oval by 4,096 chords, good to a thousandth of a mm."""
    outline = oval_outline(surface.width, surface.height, 4096) if surface.shape == "oval" else surface.outline
    return sum(hypot(b.x - a.x, b.y - a.y) for a, b in zip(outline, (*outline[1:], outline[0]), strict=True))


def lay_out(layout: Layout, face: Surface) -> LaidOut:
    """A pattern on a face. Raises InvalidValue for what cannot be laid on it."""
    surface = face.from_datum()
    if surface.shape == "solid":
        raise InvalidValue("No pattern is laid on a ball or a bar.", value="solid", field="surfaces",
                           allowed="flat faces, and round parts that stand upright")  # fmt: skip
    if surface.shape == "round":
        return _banded(layout, surface)
    if layout.kind == "border":
        return _border(layout, surface)
    if layout.kind == "repeats":
        return _frieze(layout, surface)
    ways: tuple[Literal["x", "y"], ...] = ("x", "y") if layout.kind == "checks" else (
        ("x",) if layout.runs == "down" else ("y",))  # fmt: skip
    fits = {way: fit(layout, surface.extent(way)) for way in ways}
    if (crossings := prod(len(f.bands) for f in fits.values())) > MOST_CROSSINGS and len(ways) == 2:
        raise InvalidValue(f"That would be {crossings:,} crossings.", value=layout.repeat_mm, field="stripes",
                           allowed=f"at most {MOST_CROSSINGS:,}: a wider repeat")  # fmt: skip
    regions: list[Region] = []
    painted = 0.0
    for way, found in fits.items():
        for band in found.bands:
            area = strip_area(surface, way, band.start_mm, band.end_mm)
            painted += area
            outline = clipped(surface.outline, way, band.start_mm, band.end_mm)
            regions.append(Region(len(regions) + 1, outline, (), area / 1e6))
    if len(ways) == 2:
        painted -= _crossings(surface, fits["x"].bands, fits["y"].bands)
    return LaidOut(tuple(regions), painted / surface.area, painted / 1e6, surface.area / 1e6, fits.get("x"),
                   fits.get("y"))  # fmt: skip


def _banded(layout: Layout, surface: Surface) -> LaidOut:
    """Bands round a turned or tapering part, by their places along its wall from the top."""
    if layout.kind != "stripes" or layout.runs != "across":
        raise InvalidValue("Round a part go bands, across it.", value=layout.runs, field="runs",
                           allowed="stripes that run across it")  # fmt: skip
    wall = surface.wall
    found = fit(layout, wall.length)
    regions, arcs, painted = [], [], 0.0
    for band in found.bands:
        area = wall.area(band.start_mm, band.end_mm)
        painted += area
        outline = clipped(surface.outline, "y", wall.at(band.start_mm)[0], wall.at(band.end_mm)[0])
        regions.append(Region(band.number, outline, (), area / 1e6))
        arcs.append(arc_of(wall, band.number, band.start_mm, band.end_mm))
    return LaidOut(tuple(regions), painted / surface.area, painted / 1e6, surface.area / 1e6, None, found, tuple(arcs))


def _frieze(layout: Layout, surface: Surface) -> LaidOut:
    """Motifs in a row along the edge the datum is on: whole ones, their boxes clipped by the face."""
    along: Literal["x", "y"] = "x" if layout.runs == "across" else "y"
    across: Literal["x", "y"] = "y" if along == "x" else "x"
    high = surface.extent(across)
    if layout.inset_mm + layout.row_mm > high + 1e-9:
        raise InvalidValue(
            f"A row of {layout.row_mm:.0f} mm, {layout.inset_mm:.0f} mm in, does not fit on {high:.0f} mm.",
            value=layout.row_mm, field="row_mm", allowed=f"at most {max(high - layout.inset_mm, 0):.0f} mm",
        )  # fmt: skip
    row = clipped(surface.outline, across, layout.inset_mm, layout.inset_mm + layout.row_mm)
    found = fit(layout, surface.extent(along))
    regions = []
    for band in found.bands:
        box = clipped(row, along, band.start_mm, band.end_mm)
        regions.append(Region(band.number, box, (), polygon_area(box) * layout.covers / 1e6))
    painted = sum(r.area_m2 for r in regions)
    down, over = (None, found) if along == "y" else (found, None)
    return LaidOut(tuple(regions), painted * 1e6 / surface.area, painted, surface.area / 1e6, down, over)


def _crossings(surface: Surface, down: Sequence[Band], across: Sequence[Band]) -> float:
    """What is painted both ways, mm²."""
    found = 0.0
    for a in down:
        outline = clipped(surface.outline, "x", a.start_mm, a.end_mm)
        for b in across:
            found += polygon_area(clipped(outline, "y", b.start_mm, b.end_mm))
    return found


def _border(layout: Layout, surface: Surface) -> LaidOut:
    """A band along the edge, the first stripe's gap in from it."""
    band = layout.stripes[0]
    outer = parallel(surface, band.gap_mm) if band.gap_mm > 0 else surface.outline
    inner = parallel(surface, band.gap_mm + band.width_mm)
    if surface.shape == "oval":
        area = oval_parallel_area(surface, band.gap_mm) - oval_parallel_area(surface, band.gap_mm + band.width_mm)
    else:
        area = polygon_area(outer) - polygon_area(inner)
    region = Region(1, outer, inner, area / 1e6)
    return LaidOut((region,), area / surface.area, area / 1e6, surface.area / 1e6)
