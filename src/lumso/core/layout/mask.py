"""Where a pattern lies on a face: what of it is painted, its polygons and areas; borders as true parallels."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import prod
from typing import Literal

from ..errors import InvalidValue
from ..measure.drawing import Point
from ..value import Value
from .cells import Cell, both_ways, cells_of
from .fit import Band, Fit, fit
from .flat import (
    FlatFace,
    clipped,
    cut_to,
    oval_outline,
    oval_parallel_area,
    parallel,
    polygon_area,
    strip_area,
)
from .pattern import Layout
from .turned import Arc, arc_of

MOST_CROSSINGS = 3_000
"""More checks than that are no pattern that anybody tapes."""


@dataclass(frozen=True)
class Region(Value):
    """A part of a face that is painted: its outline, in mm from the datum, and holes in it, if it has any. `number` is
    that of its element in the list."""

    number: int
    outline: tuple[Point, ...]
    holes: tuple[tuple[Point, ...], ...] = ()
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
    cells: tuple[Cell, ...] = ()
    """What is painted in boxes: squares, lozenges, panels, motifs all around, letters."""


Fits = dict[Literal["x", "y"], Fit]


def lay_out(layout: Layout, face: FlatFace, given: Fits | None = None) -> LaidOut:
    """A pattern on a face; `given` are fits found for several faces together. Raises InvalidValue for what cannot be
    laid on it."""
    surface = face.from_datum()
    if surface.shape == "solid":
        raise InvalidValue("No pattern is laid on a ball or a bar.", value="solid", field="surfaces",
                           allowed="flat faces, and round parts that stand upright")  # fmt: skip
    if surface.shape == "round":
        return _banded(layout, surface)
    if layout.kind in ("chequers", "diamonds", "panels", "lettering") or (layout.kind == "repeats" and layout.around):
        laid = _in_cells(layout, surface)
    elif layout.kind == "border":
        laid = _border(layout, surface)
    elif layout.kind == "repeats":
        laid = _frieze(layout, surface)
    else:
        laid = _striped(layout, surface, given or {})
    return _sparing(layout, laid, surface) if layout.spared else laid


def _striped(layout: Layout, surface: FlatFace, given: Fits) -> LaidOut:
    ways: tuple[Literal["x", "y"], ...] = ("x", "y") if layout.kind == "checks" else (
        ("x",) if layout.runs == "down" else ("y",))  # fmt: skip
    fits = {way: given.get(way) or fit(layout if way == ways[0] else layout.other_way, surface.extent(way))
            for way in ways}  # fmt: skip
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
            regions.append(Region(len(regions) + 1, outline, _holes(surface, outline), area / 1e6))
    if len(ways) == 2:
        fits = both_ways(fits["x"], fits["y"])
        painted -= _crossings(surface.outline, fits["x"].bands, fits["y"].bands)
        painted += sum(_crossings(h, fits["x"].bands, fits["y"].bands) for h in surface.holes)
    return LaidOut(tuple(regions), painted / surface.area, painted / 1e6, surface.area / 1e6, fits.get("x"),
                   fits.get("y"))  # fmt: skip


def _holes(surface: FlatFace, outline: Sequence[Point]) -> tuple[tuple[Point, ...], ...]:
    """What of a face's holes lies in a part of it."""
    inside = (cut_to(h, outline) for h in surface.holes) if len(outline) > 2 else ()
    return tuple(h for h in inside if polygon_area(h) > 1e-6)


def _in_cells(layout: Layout, surface: FlatFace) -> LaidOut:
    """What is painted box by box."""
    down, across, cells = cells_of(layout, surface)
    covers = layout.covers if layout.kind in ("repeats", "lettering") else 1.0
    kept: list[Cell] = []
    regions: list[Region] = []
    whole_inside = surface.upright  # no edge of a rectangle cuts a box of its own rows and columns
    for cell in cells:
        outline = cell.outline if whole_inside else cut_to(surface.outline, cell.outline)
        holes = _holes(surface, outline) if surface.holes else ()
        lies = polygon_area(outline)
        area = (lies - sum(polygon_area(h) for h in holes)) * covers
        if area < 1.0:
            continue  # less than a mm² is left of it at the edge
        number = len(kept) + 1
        cut = not whole_inside and lies < polygon_area(cell.outline) - 1e-6
        kept.append(cell if cell.number == number and not cut else replace(cell, number=number, cut=cut))
        regions.append(Region(number, outline, holes, area / 1e6))
    painted = sum(r.area_m2 for r in regions)
    return LaidOut(tuple(regions), painted * 1e6 / surface.area, painted, surface.area / 1e6, down, across, (),
                   tuple(kept))  # fmt: skip


def _near(outline: Sequence[Point], x: float, y: float, reach: float) -> bool:
    """Whether the box round an outline comes as near to a point, both ways."""
    xs, ys = [p.x for p in outline], [p.y for p in outline]
    return min(xs) < x + reach and max(xs) > x - reach and min(ys) < y + reach and max(ys) > y - reach


def _sparing(layout: Layout, laid: LaidOut, surface: FlatFace) -> LaidOut:
    """The pattern less what stays free of it."""
    covers = layout.covers if layout.kind in ("repeats", "lettering") else 1.0
    painted = laid.painted_m2
    regions = list(laid.regions)
    for one in layout.spared:
        ring = tuple(
            Point(one.x_mm + p.x - one.across_mm / 2, one.y_mm + p.y - one.across_mm / 2)
            for p in oval_outline(one.across_mm, one.across_mm, 48)
        )
        reach = one.across_mm / 2
        for n, region in enumerate(regions):
            if not _near(region.outline, one.x_mm, one.y_mm, reach):
                continue
            hole = cut_to(region.outline, ring)
            if len(hole) < 3:
                continue
            lost = polygon_area(hole) * covers / 1e6
            regions[n] = replace(region, holes=(*region.holes, hole), area_m2=max(region.area_m2 - lost, 0.0))
            painted -= lost
        if layout.kind == "checks" and laid.down and laid.across:  # what crosses there was taken off twice
            painted += _crossings(cut_to(surface.outline, ring), laid.down.bands, laid.across.bands) / 1e6
    return replace(laid, regions=tuple(regions), painted_m2=painted, share=painted / laid.face_m2)


def _banded(layout: Layout, surface: FlatFace) -> LaidOut:
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


def _frieze(layout: Layout, surface: FlatFace) -> LaidOut:
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
        holes = _holes(surface, box)
        area = (polygon_area(box) - sum(polygon_area(h) for h in holes)) * layout.covers
        regions.append(Region(band.number, box, holes, area / 1e6))
    painted = sum(r.area_m2 for r in regions)
    down, over = (None, found) if along == "y" else (found, None)
    return LaidOut(tuple(regions), painted * 1e6 / surface.area, painted, surface.area / 1e6, down, over)


def _crossings(face: Sequence[Point], down: Sequence[Band], across: Sequence[Band]) -> float:
    """What of an outline is painted both ways, mm²."""
    found = 0.0
    for a in down:
        outline = clipped(face, "x", a.start_mm, a.end_mm)
        for b in across:
            found += polygon_area(clipped(outline, "y", b.start_mm, b.end_mm))
    return found


def _border(layout: Layout, surface: FlatFace) -> LaidOut:
    """A band along the edge, the first stripe's gap in from it."""
    band = layout.stripes[0]
    outer = parallel(surface, band.gap_mm) if band.gap_mm > 0 else surface.outline
    inner = parallel(surface, band.gap_mm + band.width_mm)
    if surface.shape == "oval":
        area = oval_parallel_area(surface, band.gap_mm) - oval_parallel_area(surface, band.gap_mm + band.width_mm)
    else:
        area = polygon_area(outer) - polygon_area(inner)
    if layout.corners == "left out":
        regions = _sides(layout, surface)
        area = sum(r.area_m2 for r in regions) * 1e6
    else:
        holes = _holes(surface, outer)
        area -= sum(polygon_area(h) - polygon_area(cut_to(h, inner)) for h in holes)
        regions = (Region(1, outer, (inner, *holes), area / 1e6),)
    return LaidOut(regions, area / surface.area, area / 1e6, surface.area / 1e6)


def _sides(layout: Layout, surface: FlatFace) -> tuple[Region, ...]:
    """The four sides of a border, its corners left out. Raises InvalidValue on what has no four square corners."""
    if not surface.upright:
        raise InvalidValue("Corners are left out on rectangles only.", value=layout.corners, field="corners",
                           allowed="painted")  # fmt: skip
    low, high = layout.stripes[0].gap_mm, layout.stripes[0].gap_mm + layout.stripes[0].width_mm
    w, h = surface.width, surface.height
    boxes = ((high, low, w - high, high), (w - high, high, w - low, h - high), (high, h - high, w - high, h - low),
             (low, high, high, h - high))  # fmt: skip
    made = []
    for n, (x, y, to_x, to_y) in enumerate(boxes, 1):
        corners = (Point(x, y), Point(to_x, y), Point(to_x, to_y), Point(x, to_y))
        made.append(Region(n, corners, (), (to_x - x) * (to_y - y) / 1e6))
    return tuple(made)
