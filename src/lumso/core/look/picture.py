"""The picture of a finish: what each spot of its surface gives back, lit from the upper left."""

from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..book.optics import Optics
from ..colour.kubelka_munk import terms, through
from ..colour.spectra import TO_SCREEN, encoded
from ..colour.strength import hides
from ..colour.surfaces import sealed
from ..layers.laid import WHOLE
from .films import PotFilm
from .noise import Grid
from .surface import Coat, LookSurface

LEVELS = 256
"""Thicknesses a film is worked out for; spots between take the nearest."""
CHUNK = 8192
"""Spots worked out at once: what fits beside the processor."""
LIT, STEEP, LAMP = 0.5, 1.4, 1 / 160
"""How strongly a slope is lit, how steep counts as steep, and the share of the picture over which a slope is taken: the
same at every size."""
GLINTS, SMOOTH = 0.65, 9.0
"""The same for metal, which throws light about."""
METALS = {"metal", "leaf"}
CODES = 4096

ENCODED = np.rint(255 * encoded(np.arange(CODES + 1) / CODES)).astype(np.uint8)
"""sRGB bytes of linear light (IEC 61966-2-1)."""
Light = NDArray[Any]


def shading(height: Grid, mm_per_px: float = 1.0, lit: float = LIT, steep: float = STEEP) -> Grid:
    """How much light of a low lamp each spot gets, 1 where it is level."""
    step = max(1, round(LAMP * len(height)))
    across = np.roll(height, -step, 1) - np.roll(height, step, 1)
    down = np.roll(height, -step, 0) - np.roll(height, step, 0)
    across[:, :step], across[:, -step:], down[:step], down[-step:] = 0, 0, 0, 0
    slope = (across + down) / (2 * step * mm_per_px * np.sqrt(2))
    lamp: Grid = (1 + lit * np.tanh(steep * slope)).astype(np.float32)
    return lamp


class _Film:
    """One pot's film as tables over its thickness."""

    def __init__(self, pot: PotFilm, most: float, scatters: float) -> None:
        self.most = max(most, 1e-6)
        t = np.linspace(0, 1, LEVELS)[None, :] ** 2 * self.most  # thin films differ most
        k, s = pot.k[:, None] * t, scatters * pot.s[:, None] * t
        self.gives, self.dims = (x.astype(np.float32) for x in terms(k, s))
        self.lacks = (pot.lack[:, None] * hides(k, s)).astype(np.float32) if pot.lack.any() else None
        self.shines = np.exp(-2 * (k + s)).mean(axis=0).astype(np.float32)

    def at(self, thick: Light | float) -> NDArray[np.intp]:
        """The rows of its tables for these thicknesses: one a spot, or one for all."""
        part = np.sqrt(np.asarray(thick, np.float32).reshape(-1) / np.float32(self.most))
        rows: NDArray[np.intp] = np.minimum((part * (LEVELS - 1) + 0.5).astype(np.intp), LEVELS - 1)
        return rows

    def over(self, light: Light, rows: NDArray[np.intp]) -> Light:
        """The film over what lies beneath, its terms looked up."""
        seen = through(self.gives.take(rows, 1), self.dims.take(rows, 1), light)
        if self.lacks is not None:
            seen -= self.lacks.take(rows, 1)
            np.maximum(seen, 0, out=seen)
        return seen


class _CoatTables:
    def __init__(self, coat: Coat, wet: bool, optics: Optics) -> None:
        self.coat, one = coat, coat.film
        self.wet = wet
        self.surface = optics.surface_of(optics.wet_gloss) if wet else one.surface
        self.thick = coat.thick if isinstance(coat.thick, float) else coat.thick.reshape(-1)
        most = float(np.max(self.thick))
        self.films = [_Film(pot, most, one.drying.wet_scatters if wet else 1.0) for pot in one.pots]
        self.own_k, self.own_s = (x.astype(np.float32)[:, None] for x in (one.pots[0].own_k, one.pots[0].own_s))
        if wet:
            self.own_s = self.own_s + np.float32(one.milk)
        self.inert = [not (pot.k.any() or pot.s.any()) for pot in one.pots]
        self.cover = _flat(coat.cover)
        self.bared, self.where = _flat(coat.bared), _flat(coat.where)
        self.shares = [_flat(s) for s in coat.pots]
        self.grains = [_flat(g) for g in coat.grains]


def _flat(grid: Grid | float) -> Light | float:
    return float(grid) if isinstance(grid, float | int) else np.asarray(grid, np.float32).reshape(-1)


def _cut(value: Light | float, part: slice) -> Light | float:
    return value if isinstance(value, float) else value[part]


def _over(light: Light, surface: Light | float, tables: _CoatTables, part: slice, times: float,
          optics: Optics) -> Light:  # fmt: skip
    """What is seen where a coat lies, at `times` its thickness."""
    one = tables.coat.film
    made: Any = 0.0
    for film, inert, share in zip(tables.films, tables.inert, tables.shares, strict=True):
        mine = _cut(share, part)
        rows = None if inert else film.at(_cut(tables.thick, part) * times)
        seen = light if rows is None else film.over(light, rows)
        if one.clear:
            front = surface if rows is None else 1 - (1 - surface) * film.shines[rows]
            seen = sealed(seen, front, tables.surface, tables.own_k, tables.own_s, optics, axis=0)
        elif tables.wet:
            seen = sealed(seen, one.surface, tables.surface, 0 * tables.own_k, tables.own_s, optics, axis=0)
        made = made + mine * seen if len(tables.films) > 1 else seen
    for grains, grit in zip(tables.grains, one.grains, strict=True):
        here = _cut(grains, part)
        made = made + here * (grit.light.astype(np.float32)[:, None] - made)
    return np.asarray(made)


def light_of(surface: LookSurface, ground_surface: float, optics: Optics, wet: bool = False) -> NDArray[np.float32]:
    """Linear red, green and blue that each spot gives back in even light: (px, px, 3), before anything is cut off;
    `wet` before its last film is dry."""
    ground, px = surface.ground, surface.sheet.px
    first, second = (np.array(x, np.float32)[:, None] for x in (ground.first, ground.second))
    mixed = None if ground.mixed is None else ground.mixed.reshape(-1)
    tables = [_CoatTables(c, wet and c is surface.coats[-1], optics) for c in surface.coats]
    made = np.empty((3, px * px), np.float32)
    to_screen = TO_SCREEN.astype(np.float32)
    for start in range(0, px * px, CHUNK):
        part = slice(start, min(start + CHUNK, px * px))
        share = np.zeros(part.stop - start, np.float32) if mixed is None else mixed[part]
        light: Light = first + share * (second - first)
        scatters: Any = ground_surface
        for coat in tables:
            cover = _cut(coat.cover, part)
            here = _over(light, scatters, coat, part, 1.0, optics)
            between = coat.coat.between
            if between > 0:
                thin = _over(light, scatters, coat, part, between, optics)
                here = thin + cover * (here - thin)
                cover = 1.0
            lies: Any = _cut(coat.where, part) * cover * (1 - _cut(coat.bared, part))
            light = here if isinstance(lies, float) and lies == 1.0 else light + lies * (here - light)
            scatters = scatters + lies * (coat.surface - scatters)
        made[:, part] = to_screen @ light
    return np.moveaxis(made.reshape(3, px, px), 0, -1)


def picture(surface: LookSurface, ground_surface: float, optics: Optics, wet: bool = False) -> NDArray[np.uint8]:
    """The picture: (px, px, 3) bytes of sRGB, lit from the upper left."""
    light = light_of(surface, ground_surface, optics, wet)
    metal = any(c.film.laid.film.kind in METALS and c.film.touched >= WHOLE for c in surface.coats)
    lamp = (GLINTS, SMOOTH) if metal else (LIT, STEEP)
    light *= shading(surface.height, surface.sheet.mm_per_px, *lamp)[:, :, None]
    codes: NDArray[np.uint8] = ENCODED[np.clip(light * CODES + 0.5, 0, CODES).astype(np.intp)]
    return codes
