"""The bare ground as it looks and as it stands: grain, pores, courses of brick, relief."""

from dataclasses import dataclass
from functools import lru_cache
from math import pi

import numpy as np

from ..book.optics import Kinds
from ..book.surfaces import Ground, Relief
from ..colour.spectra import reflectance
from .noise import Grid, Pattern, Sheet, below, fall, hollow, pattern

GRAIN, PORES, BLOTCHES, CARVING, WARP = 1, 2, 3, 4, 5
PORE_SHARE, PORE_MM = 0.13, 0.12
BRICK_MM, COURSE_MM, JOINT_MM = 225.0, 75.0, 10.0
MORTAR = "#b9b0a2"
WALL_MM, BOARD_MM = 420.0, 120.0
"""How much of a wall of brick is shown, and of anything else, in mm."""
ARRIS_MM, FAR_MM = 2.5, 500.0
"""The radius of the edge that a picture shows along its top and its left: what is sanded first."""


@dataclass(frozen=True)
class Bare:
    """A ground before the first coat: two colours and how much of the second shows, and how high it stands in mm."""

    first: tuple[float, ...]
    second: tuple[float, ...]
    mixed: Grid | None
    """The share of the second colour; None for none of it."""
    height: Grid
    grain: Pattern | None
    """Where the wood drinks more (positive) and less; None where it is no wood."""
    pores: Grid | None
    """The share of each spot that is open pore."""
    edge: Grid
    """mm to the nearest edge."""
    late: Grid | None
    """The share of each spot that is late wood; None where it is no wood."""


def side_mm(ground: Ground, relief: Relief, kinds: Kinds) -> float:
    """How much of a surface its picture shows, in mm."""
    return WALL_MM if ground.surface == "brick" or relief.slug in kinds.coursed else BOARD_MM


def is_wood(ground: Ground) -> bool:
    """Whether the grain of wood can be seen on it."""
    return ground.surface == "raw wood" or any(t in ground.traits for t in ("oil-bound", "waxed"))


def bare(ground: Ground, relief: Relief, sheet: Sheet, kinds: Kinds) -> Bare:
    """A ground as it looks, over its relief."""
    x, y = sheet.axes()
    edge = np.minimum(*np.broadcast_arrays(x, y)) if sheet.edged else np.full((sheet.px, sheet.px), FAR_MM, np.float32)
    height = _relief(relief, sheet, kinds)
    own = reflectance(ground.hex)
    first, second, mixed, late = own, own, None, None
    grain: Pattern | None = None
    pores: Grid | None = None
    if side_mm(ground, relief, kinds) == WALL_MM:
        joint = _joints(sheet)
        height = height - 4.5 * joint
        second, mixed = reflectance(MORTAR), joint
        tone = pattern(sheet, BLOTCHES, 60, 60).at
        height = height + 0.25 * pattern(sheet, GRAIN, 4, 4).at + 0.1 * tone
    else:
        height = height - np.maximum(ARRIS_MM - edge, 0) ** 2 / (2 * ARRIS_MM)
    if is_wood(ground):
        late = mixed = _late(sheet)
        fine = pattern(sheet, WARP, 1.3, 60, True)
        grain = fine * 0.4 + (2.6 * (late - float(late.mean()))).astype(np.float32)
        first, second = own**0.84, own**1.24
        if "open grain" in ground.traits:
            pores = _pores(sheet)
            height = height - PORE_MM * pores
            first, second = own**0.8, own**1.3
            late = 0.7 * mixed * (1 - pores)
            mixed = late + pores
    elif mixed is None and ground.surface in {"plaster", "unsealed paint"}:
        first, second, mixed = own**0.94, own**1.06, below(pattern(sheet, BLOTCHES, 35, 35).at)
    return Bare(tuple(first), tuple(second), mixed, height, grain, pores, edge, late)


def inside(edge: Grid) -> Grid:
    """How far each spot is from the rounding of an edge, 0–1: that lies low, and a cloth goes over it all the same."""
    return np.asarray(np.clip(edge / ARRIS_MM - 1, 0, 1), np.float32)


@dataclass(frozen=True)
class Stand:
    """What a ground has, all over: shares of its surface."""

    pores: float = 0.0
    late: float = 0.0
    hollow: float = 0.0
    """How far wiping does not reach, over the whole."""


PLAIN = Stand()
STOOD_PX, STOOD_SEED = 96, 20


@lru_cache(maxsize=64)
def stand(ground: Ground, relief: Relief, kinds: Kinds, bridges_mm: float) -> Stand:
    """What a ground has of pores, late wood and hollows, counted on a small picture of it."""
    sheet = Sheet(STOOD_PX, side_mm(ground, relief, kinds), STOOD_SEED)
    made = bare(ground, relief, sheet, kinds)
    pores, late = (0.0 if x is None else float(x.mean()) for x in (made.pores, made.late))
    low = hollow(fall(made.height, sheet), bridges_mm) * inside(made.edge)
    low = low if made.pores is None else np.maximum(low, made.pores)
    return Stand(pores, late, float(low.mean()))


LATE_SHARE = 0.4
"""How much of a year is late wood, by how dark it is: the mean of the curve in `_late`."""
RING_MM, PLANK_MM, HEART_MM = 5.5, 150.0, 260.0
"""How wide a year is, how wide a board, and how far apart its arches come along it: plain-sawn, as most boards are.
Untested starting points, set by eye."""


def _late(sheet: Sheet) -> Grid:
    """The share of each spot that is late wood: years cut in arches along the middle of each board, straight beside
    it; each grows dark slowly and ends at once."""
    x, y = sheet.axes()
    along = HEART_MM if sheet.edged else sheet.mm / round(sheet.mm / HEART_MM)
    wander = 5 * pattern(sheet, GRAIN, 40, 120).at
    across = (x + wander) % PLANK_MM - 0.42 * PLANK_MM
    deep = 3 + 16 * (1 - np.cos(2 * pi * (y / along + 0.1))) / 2
    year = np.sqrt(across**2 + deep**2) / RING_MM
    year = year + 0.4 * pattern(sheet, BLOTCHES, 30, 200).at + 0.07 * pattern(sheet, WARP, 2.5, 40).at
    part = year % 1
    soft = max(0.05, sheet.mm_per_px / RING_MM)
    ends = np.clip((1 - part) / soft, 0, 1)
    made = np.clip((part - 0.2) / 0.6, 0, 1) ** 1.4 * ends
    blur = min(max(sheet.mm_per_px / RING_MM / 0.4 - 0.5, 0.0), 1.0)  # too fine to be told apart: their mean
    late: Grid = (made + blur * (LATE_SHARE - made)).astype(np.float32)
    return late


def _pores(sheet: Sheet) -> Grid:
    lines = pattern(sheet, PORES, 1.1, 16, True)
    gathered = pattern(sheet, GRAIN, 12, 200).at
    return (lines + 0.45 * gathered).above(PORE_SHARE, 0.25)


def band(at: Grid, start: float, width: float, period: float, step: float) -> Grid:
    """The share of each px, `step` mm wide with its middle at `at`, inside bands of `width` every `period` mm."""

    def covered(to: Grid) -> Grid:
        whole, rest = np.divmod(to - start, period)
        return whole * width + np.minimum(rest, width)

    return ((covered(at + step / 2) - covered(at - step / 2)) / step).astype(np.float32)


def _joints(sheet: Sheet) -> Grid:
    x, y = sheet.axes()
    wander = 1.5 * pattern(sheet, WARP, 90, 90).at
    step = sheet.mm_per_px
    beds = band(y + wander, 58, JOINT_MM, COURSE_MM, step)
    odd = np.floor((y - 58) / COURSE_MM) % 2
    heads = band(x + wander + odd * BRICK_MM / 2, 140, JOINT_MM, BRICK_MM, step)
    return np.clip(np.maximum(beds, heads), 0, 1)


def _relief(relief: Relief, sheet: Sheet, kinds: Kinds) -> Grid:
    """Heights of a relief: its section drawn from left to right; a carved one turns as it goes."""
    x, y = sheet.axes()
    xs = np.array([p.x for p in relief.profile], dtype=float)
    ys = np.array([p.y for p in relief.profile], dtype=float)
    if not ys.any() or relief.slug in kinds.coursed:
        return np.zeros((sheet.px, sheet.px), np.float32)
    deepest = float(ys.max() - ys.min())
    if relief.slug in kinds.turning:
        turned = x + 9 * np.sin(2 * pi * y / 74) + 5 * pattern(sheet, CARVING, 40, 40).at
        leaf = np.sin(2 * pi * turned / 40) * (0.65 + 0.35 * np.sin(2 * pi * (y + 0.4 * x) / 26))
        made: Grid = (deepest / 2 * leaf).astype(np.float32)
        return made
    length = float(xs[-1])
    area = np.concatenate(([0.0], np.cumsum(np.diff(xs) * (ys[1:] + ys[:-1]) / 2)))
    step = sheet.mm_per_px

    def summed(to: Grid) -> Grid:
        whole, rest = np.divmod(to, length)
        at = np.clip(np.searchsorted(xs, rest, "right") - 1, 0, len(xs) - 2)
        slope = np.divide(ys[at + 1] - ys[at], xs[at + 1] - xs[at], out=np.zeros_like(rest, dtype=float),
                          where=xs[at + 1] > xs[at])  # fmt: skip
        into = rest - xs[at]
        sums: Grid = whole * area[-1] + area[at] + ys[at] * into + slope * into**2 / 2
        return sums

    line = (summed(x[0] + step / 2) - summed(x[0] - step / 2)) / step
    return np.broadcast_to(line.astype(np.float32), (sheet.px, sheet.px)).copy()
