"""A layout on a picture: the share of each spot that it paints, at its true size and as it was asked for."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ..job.job import Zone
from ..layout.cells import USUAL
from ..layout.pattern import Layout, Stripe
from .noise import Grid, Sheet

SOFT = 0.5
"""An edge is as wide as so much of a px either way: as sharp as tape leaves it."""


def _within(at: Grid, low: float, high: float, px_mm: float) -> Grid:
    """How much of each spot lies between two places, its edges softened over a px."""
    up = np.clip((at - low) / px_mm + SOFT, 0, 1)
    down = np.clip((high - at) / px_mm + SOFT, 0, 1)
    return np.asarray(np.minimum(up, down), np.float32)


def _striped(at: Grid, stripes: Sequence[Stripe], px_mm: float, begins: float = 0.0) -> Grid:
    """What of a line is in stripes that repeat, the first beginning at `begins`."""
    repeat = sum(s.width_mm + s.gap_mm for s in stripes)
    place = (at - begins) % repeat
    found = np.zeros_like(at)
    low = 0.0
    for stripe in stripes:
        for lap in (0.0, repeat):  # the soft edge of the first reaches into the repeat before
            found = np.maximum(found, _within(place, low + lap, low + lap + stripe.width_mm, px_mm))
        low += stripe.width_mm + stripe.gap_mm
    return found


def _begins(layout: Layout) -> float:
    return 0.0 if layout.ends == "with a stripe" else layout.stripes[-1].gap_mm / 2


def _motifs(layout: Layout, x: Grid, y: Grid, px_mm: float) -> Grid:
    """A row of motifs, each as round as it fits its box and as large as it paints of it."""
    along, across = (x, y) if layout.runs == "across" or layout.kind == "lettering" else (y, x)
    wide = USUAL * layout.row_mm if layout.kind == "lettering" else layout.stripes[0].width_mm
    repeat = wide + layout.stripes[0].gap_mm
    u = ((along - layout.stripes[0].gap_mm / 2) % repeat - wide / 2) / (wide / 2)
    v = (across - layout.inset_mm - layout.row_mm / 2) / (layout.row_mm / 2)
    reach = np.sqrt(min(layout.covers / (np.pi / 4), 1.0))
    soft = px_mm / (min(wide, layout.row_mm) / 2)
    return np.asarray(np.clip((reach - np.hypot(u, v)) / soft + SOFT, 0, 1), np.float32)


def painted(layout: Layout, sheet: Sheet) -> Grid:
    """The share of each spot of a sheet that a layout paints, its datum in the upper left: (px, px)."""
    row, column = sheet.axes()
    x, y = np.broadcast_to(row, (sheet.px, sheet.px)), np.broadcast_to(column, (sheet.px, sheet.px))
    px = sheet.mm_per_px
    begins = _begins(layout)
    wide, high = layout.stripes[0].width_mm, layout.other_way.stripes[0].width_mm
    match layout.kind:
        case "stripes":
            return _striped(x if layout.runs == "down" else y, layout.repeat, px, begins)
        case "checks":
            down = _striped(y, layout.other_way.repeat, px, _begins(layout.other_way))
            return np.asarray(np.maximum(_striped(x, layout.repeat, px, begins), down), np.float32)
        case "panels":
            down = _striped(y, layout.other_way.repeat, px, _begins(layout.other_way))
            return np.asarray(_striped(x, layout.repeat, px, begins) * down, np.float32)
        case "chequers":
            a, b = _striped(x, (Stripe(wide, wide),), px), _striped(y, (Stripe(high, high),), px)
            return np.asarray(a * b + (1 - a) * (1 - b), np.float32)
        case "diamonds":
            u, v = np.abs(x % wide / wide - 0.5), np.abs(y % high / high - 0.5)
            return np.asarray(np.clip((0.5 - u - v) / (px / min(wide, high)) + SOFT, 0, 1), np.float32)
        case "border":
            gap = layout.stripes[0].gap_mm
            return _within(np.minimum(x, y), gap, gap + wide, px)
        case _:
            return _motifs(layout, x, y, px)


def as_tile(zone: Zone, pattern: str = "") -> Zone:
    """A zone as it is between its patterns; with `pattern`, a layer that has a layout, where that one is painted."""
    layers = (replace(x, layout=None, touched=1.0) if x.id == pattern else x for x in zone.layers)
    return replace(zone, layers=tuple(x for x in layers if x.layout is None))
