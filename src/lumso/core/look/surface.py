"""A stack as it lies on a surface: each film's cover and thickness, what stands up, and what sanding takes away.

Heights are in mm. Sanding is a surface that comes down: flat for a block and a machine, after the hand and its pressure
for a pad, first on edges and on what stands proud; what it passes through is bare.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from math import hypot
from typing import Any

import numpy as np

from ..book.catalogue import pick
from ..book.optics import Optics
from ..book.preparation import Sanding
from ..layers.abrasion import usually_um
from ..layers.stack import Stack
from .films import MOST_GRIT, LayerFilm
from .ground import Bare, bare, inside
from .laid_out import painted
from .marking import GRIT_MM, IN_LOWS, Place, flaked, lying, pressed
from .noise import Grid, Sheet, below, blurred, fall, hollow

POTS, SPOTS, GRAINS, ROUGH, WARPED = 21, 22, 23, 24, 25
UNEVEN = 0.13
"""How uneven a film is that looks even: sanding comes through it between so much less and so much more than its
thickness."""
LEVELS = 0.5
"""A thick coat is knocked back by at least this share of what stands above its mean."""
STANDS_MM = 0.008
"""A film thinner than this changes nothing of how a surface stands: a wash."""
WARPED_MM = 0.03
"""How far from flat a board is where a machine's pad finds it: a standard deviation. An untested starting point."""
ON_AN_EDGE = 1.6
"""How much more paper takes off an edge, on which the whole hand stands. An untested starting point."""
GRAIN_MM = 1.3
"""How far apart grains of sand or pepper lie, about."""


@dataclass
class Coat:
    """A layer where it lies: the share of each spot it covers, how thick it is, once wiped, as a multiple of what was
    laid, and what is left of it in mm."""

    film: LayerFilm
    cover: Grid | float
    thick: Grid | float
    between: float
    left_mm: Grid | float
    uneven: float = UNEVEN
    """How uneven it is in what the picture does not show: a standard deviation of its logarithm."""
    bared: Grid | float = 0.0
    """The share of each spot where sanding has come through it."""
    pots: tuple[Grid | float, ...] = (1.0,)
    """The share of each spot that is of each pot."""
    grains: tuple[Grid | float, ...] = ()
    where: Grid | float = 1.0
    """The share of each spot that was touched at all, and has not come off in flakes."""

    @property
    def lies(self) -> Grid | float:
        """The share of each spot where it lies."""
        return self.where * self.cover * (1 - self.bared)


@dataclass
class LookSurface:
    """A ground with all its films, and how high it stands in the end, in mm."""

    sheet: Sheet
    ground: Bare
    height: Grid
    coats: list[Coat] = field(default_factory=list)
    bridges_mm: float = 1.0
    """How deep a hollow is that a cloth does not reach."""
    saved: Grid | float = 0.0
    """The share of each spot that wax keeps watery coats from."""
    _falls: tuple[Grid, Grid] | None = None

    def falls(self) -> Grid:
        """How far each spot lies below its surroundings, in mm; remembered as long as nothing is put on that counts."""
        if self._falls is None or self._falls[0] is not self.height:
            self._falls = (self.height, fall(self.height, self.sheet))
        return self._falls[1]

    def seen(self, index: int) -> Grid | float:
        """The share of each spot at which a layer is what is seen; -1 is the ground."""
        above: Grid | float = 1.0
        for coat in self.coats[index + 1 :]:
            above = above * (1 - coat.lies)
        return above if index < 0 else above * self.coats[index].lies


def _pots(coat_film: LayerFilm, place: Place) -> tuple[Grid | float, ...]:
    """Which of a layer's pots lies where: patches, each pot on its share."""
    if len(coat_film.pots) == 1:
        return (1.0,)
    made: list[Grid | float] = []
    rest: Grid | float = 1.0
    for i, pot in enumerate(coat_film.pots[:-1]):
        blots = place.pattern(POTS + 10 * i, 24, 32)
        mine = blots.above(pot.share, 0.12, rest)
        made.append(rest * mine)
        rest = rest * (1 - mine)
    return (*made, rest)


def _kept(surface: LookSurface, one: LayerFilm) -> Grid | float:
    """The share of what was laid that wiping leaves, spot by spot."""
    if one.hollows <= one.kept or one.mark.kind in IN_LOWS:
        return one.kept
    low = hollow(surface.falls(), surface.bridges_mm) * inside(surface.ground.edge)
    if surface.ground.pores is not None:
        low = np.maximum(low, surface.ground.pores)
    kept: Grid = one.kept + (one.hollows - one.kept) * low
    return kept


def lay(surface: LookSurface, one: LayerFilm, tag: int) -> None:
    """Put a layer's film on a surface."""
    sheet = surface.sheet
    place = Place(sheet, surface.ground, one.touched, tag, surface.falls)
    lies = lying(place, one.mark)
    where = lies.where * flaked(place) if one.chips else lies.where
    if (layout := one.laid.layer.layout) is not None:
        where = where * painted(layout, sheet)
    if one.saves:
        surface.saved = 1 - (1 - surface.saved) * (1 - where * lies.cover)
    elif one.runs_off:
        where = where * (1 - surface.saved)
    dry_mm = one.laid.dry_um * one.laid.layer.coats / 1000
    thick, cover = lies.thick * _kept(surface, one), lies.cover
    if one.covers:
        late = surface.ground.late
        covered = np.maximum(one.covered(thick), 1e-4)
        wood = 1.0 if late is None else 1 - one.late * late
        cover, thick = cover * covered * wood, thick / (covered * float(np.mean(wood)))
    left = dry_mm * thick
    coat = Coat(one, cover, thick, lies.between, left, hypot(UNEVEN, lies.uneven), pots=_pots(one, place), where=where)
    if one.grains:
        rough = place.pattern(ROUGH, GRAIN_MM * 1.6, GRAIN_MM * 1.6)
        surface.height = surface.height + np.float32(min(GRIT_MM, dry_mm)) * rough.at
        grains = place.pattern(GRAINS, GRAIN_MM, GRAIN_MM, True)
        coat.grains = tuple(grains.above(min(g.share, MOST_GRIT), 0.2) for g in one.grains)
    if dry_mm > STANDS_MM:
        surface.height = (surface.height + where * lies.cover * left).astype(np.float32)
    surface.coats.append(coat)


def depth_mm(surface: LookSurface, sand: Sanding, takes_mm: float, tag: int) -> Grid:
    """How deep a sanding goes at each spot, in mm: `takes_mm` where it takes most."""
    sheet, top = surface.sheet, surface.height
    place = Place(sheet, surface.ground, 1.0, tag, surface.falls)
    if sand.purpose == "level" or (sand.by == "machine" and sand.where == "all"):
        flat = top - blurred(top, 90, sheet)
        if sand.by == "machine":
            flat = flat + np.float32(WARPED_MM) * place.pattern(WARPED, 60, 60).at
        crest = float(np.quantile(flat[:: max(1, sheet.px // 160), :: max(1, sheet.px // 160)], 0.99))
        depth = max(takes_mm, LEVELS * crest) if sand.purpose == "level" else takes_mm
        went: Grid = np.clip(flat - (crest - depth), 0, None).astype(np.float32)
        return went
    proud = top - blurred(top, 24, sheet)
    rough = max(float(proud.std()), 0.03)
    edge = np.exp(-surface.ground.edge / 3.5)
    stands = np.clip(proud / rough, -2, 2) * min(1, rough / 0.08)
    press = below(0.9 * pressed(place).at + 0.9 * stands + 3.2 * edge - 1.0)
    if sand.where == "edges":
        press = press * np.exp(-surface.ground.edge / 7) * ON_AN_EDGE
    elif sand.where == "spots":
        spots = place.pattern(SPOTS, 30, 40)
        press = press * spots.above(0.3, 0.4)
    return (takes_mm * press).astype(np.float32)


def sand_down(surface: LookSurface, depth: Grid) -> None:
    """Take so much off, in mm, from whatever lies uppermost. Deeper never leaves more of a film."""
    rest: Grid = depth
    for coat in reversed(surface.coats):
        thickness = np.asarray(coat.left_mm, np.float32)
        through = below((rest - thickness) / np.maximum(coat.uneven * thickness, 1e-4))
        through = np.where(rest > 0, through, 0.0)
        before = coat.left_mm
        coat.bared = 1 - (1 - coat.bared) * (1 - through)
        coat.left_mm = np.maximum(thickness - rest, 0.1 * thickness)
        coat.thick = coat.thick * (coat.left_mm / np.maximum(np.asarray(before, np.float32), 1e-9))
        rest = np.maximum(rest - thickness * coat.cover * coat.where, 0)
        if float(rest.max()) <= 0:
            break
    surface.height = surface.height - depth


COARSE_PX = 200
"""A picture no larger than this is worked out twice as fine, so that borders fall where they do in a large one."""


def _halved(grid: Grid | float) -> Grid | float:
    if isinstance(grid, float):
        return grid
    return (0.25 * (grid[::2, ::2] + grid[1::2, ::2] + grid[::2, 1::2] + grid[1::2, 1::2])).astype(np.float32)


def _coarse(fine: LookSurface) -> LookSurface:
    """The same half as fine: every px the mean of four."""
    ground = fine.ground
    here = (n for n in ("mixed", "height", "pores", "edge", "late") if getattr(ground, n) is not None)
    grids: dict[str, Any] = {n: _halved(getattr(ground, n)) for n in here}
    coats = [
        replace(c, cover=_halved(c.cover), thick=_halved(c.thick), left_mm=_halved(c.left_mm), bared=_halved(c.bared),
                where=_halved(c.where),
                pots=tuple(map(_halved, c.pots)), grains=tuple(map(_halved, c.grains)))
        for c in fine.coats
    ]  # fmt: skip
    sheet = replace(fine.sheet, px=fine.sheet.px // 2)
    return LookSurface(sheet, replace(ground, **grids), np.asarray(_halved(fine.height)), coats)


def surface_of(stack: Stack, films: Sequence[LayerFilm], sheet: Sheet, optics: Optics) -> LookSurface:
    """A stack as it lies on its ground."""
    if sheet.px <= COARSE_PX:
        return _coarse(surface_of(stack, films, replace(sheet, px=2 * sheet.px), optics))
    relief = pick("relief", stack.catalogue.reliefs, stack.zone.relief)
    ground = bare(stack.ground, relief, sheet, optics.kinds)
    surface = LookSurface(sheet, ground, ground.height, bridges_mm=optics.cloth_bridges_mm)
    for i, one in enumerate(films):
        lay(surface, one, i + 1)
        for j, sand in enumerate(one.laid.layer.sandings):
            if not sand.rubs:
                takes_mm = one.sands * usually_um(stack, sand) / 1000
                sand_down(surface, depth_mm(surface, sand, takes_mm, 50 + 8 * i + j))
    return surface
