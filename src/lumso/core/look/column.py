"""A stack as one column of flat colour: bare, wet, dry and sealed, each with how far off it may be.

A film lies on what the one beneath gives back. A clear film also makes one piece with it (`colour.surfaces`). The
pigment of a glaze or a tinted wax counts as it was entered, dry and matt, before that: so a glaze that hides all comes
to its paint's colour, sealed.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from math import hypot
from typing import Any

import numpy as np

from ..book.optics import Optics
from ..colour.difference import delta_e, lab_of
from ..colour.kubelka_munk import film
from ..colour.spectra import BANDS, Array, hex_of
from ..colour.strength import hides
from ..colour.surfaces import first_surface, sealed
from ..value import Value
from .films import MOST_GRIT, LayerFilm, PotFilm
from .ground import PLAIN, Stand
from .marking import GRIT_MM, IN_LOWS, ridges, thicknesses
from .words import colour_in_words, how_sure, steps_apart

SAMPLES = 96
"""How many stacks are tried within what is not known of each film."""
SURE = 0.9
"""The share of them a stated range holds."""


@dataclass(frozen=True)
class Shade(Value):
    """A colour that is estimated: what it is likely to be, and from how dark to how pale it may be."""

    hex: str
    darkest: str
    darker: str
    """What lies halfway in lightness."""
    paler: str
    palest: str
    within: float
    """ΔE₀₀ that nine in ten of what it may be lie within."""
    lightness: float
    """L*, 0–100."""
    words: str
    sure: str
    """What that is good for, in words."""


@dataclass(frozen=True)
class StripFilm(Value):
    """A layer in the strip: the colour of its film alone, and what is seen when it is wet and when it is dry."""

    layer: str
    name: str
    own: str
    """The film alone, as thick as one likes; "" where it has no colour of its own."""
    wet: Shade
    dry: Shade
    dries: str
    """How it changes as it dries, in words."""
    clear: bool
    wiped: bool
    kept: float
    """The share that wiping leaves."""


@dataclass(frozen=True)
class Column(Value):
    """From the bare ground to the last layer."""

    ground: str
    films: tuple[StripFilm, ...]
    top: Shade


Laid = tuple[Array, float]
"""What is seen, and the share its surface scatters."""


def _coloured(pot: PotFilm, k: Array, s: Array, light: Array) -> Array:
    """What is seen of a pot's pigment over what lies beneath."""
    return np.asarray(np.maximum(film(k, s, light) - pot.lack * hides(k, s), 0.0))


def pigmented(beneath: Laid, pot: PotFilm, k: Array, s: Array) -> tuple[Array, Array]:
    """What is seen of pigment over what lies beneath, and the share of its surface: of the matt pigment as far as that
    hides, of what is beneath as far as it shines through."""
    light, surface = beneath
    shines = np.exp(-2 * (k + s)).mean(axis=-1, keepdims=True)
    return _coloured(pot, k, s, light), 1 - (1 - surface) * shines


def over(beneath: Laid, one: LayerFilm, pot: PotFilm, k: Array, s: Array, optics: Optics,
         loose: float | Array = 1.0) -> Array:  # fmt: skip
    """What is seen where a film of K·X and S·X lies."""
    light, surface = beneath
    if one.clear:
        light, front = pigmented(beneath, pot, k, s) if pot.dyes else (light, np.full((*light.shape[:-1], 1), surface))
        return np.asarray(sealed(light, front, one.surface, pot.own_k, pot.own_s, optics, loose=loose))
    return _coloured(pot, k, s, light)


def wet(beneath: Laid, one: LayerFilm, pot: PotFilm, k: Array, s: Array, optics: Optics) -> Array:
    """What is seen while that film is wet: a shining surface, pigment that scatters less, a binder that is milky."""
    light = beneath[0]
    gloss = optics.surface_of(optics.wet_gloss)
    s = s * one.drying.wet_scatters
    still = np.zeros(BANDS)
    if one.clear:
        light, front = pigmented(beneath, pot, k, s)
        return np.asarray(sealed(light, front, gloss, pot.own_k, pot.own_s + one.milk, optics))
    return np.asarray(sealed(_coloured(pot, k, s, light), one.surface, gloss, still, still + one.milk, optics))


@lru_cache(maxsize=64)
def _draws(films: int) -> Array:
    """Standard normal numbers for each of so many films, none in the first row: the same every time, each with its
    opposite."""
    half = np.random.default_rng(films).standard_normal((SAMPLES // 2, films, 5))
    return np.concatenate((np.zeros((1, films, 5)), half, -half))


def _spread(one: LayerFilm, pot: PotFilm, draws: Array, optics: Optics) -> tuple[Array, Array]:
    """K·X and S·X of a pot as they are and as they may be: (rows, bands). `draws` are of one film."""
    rate = _rate(one, draws, optics)
    k, s = pot.k * rate, pot.s * rate
    if not pot.dyes:
        return k, s
    sk, ss = (max(getattr(d, name) for d in pot.dyes) for name in ("k_spread", "s_spread"))
    return k * np.exp(sk * draws[:, :1]), s * np.exp(ss * draws[:, 1:2])


def shade(light: Array) -> Shade:
    """An estimate, in the first row, and what else it may be, as a colour with its range."""
    tried = lab_of(light)
    own, order = tried[0], np.argsort(tried[:, 0])
    edge = round(len(order) * (1 - SURE) / 2) if len(order) > 1 else 0
    within = float(np.quantile(delta_e(tried[1:], own), SURE)) if len(order) > 1 else 0.0
    dark, pale = order[edge], order[-1 - edge]
    halfway = (int(np.argmin(np.abs(tried[:, 0] - (own[0] + tried[end, 0]) / 2))) for end in (dark, pale))
    darkest, darker, paler, palest = (hex_of(light[i]) for i in (dark, *halfway, pale))
    return Shade(
        hex_of(light[0]),
        darkest,
        darker,
        paler,
        palest,
        round(within, 1),
        round(float(own[0]), 1),
        colour_in_words(own),
        how_sure(within),
    )


Step = tuple[LayerFilm, Array, Array]
"""A layer with what is seen when it is wet and when it is dry: (rows, bands) each."""


Part = tuple[Any, Any]
"""A share of the surface, and how thick the film is there, as a multiple of what was laid: one for all, or by row."""


def _rate(one: LayerFilm, draws: Array, optics: Optics) -> Array:
    """How thick a film lies after all, as a multiple of what is planned, by row."""
    rate = np.exp(optics.spread.rate * draws[:, 2:3])
    if one.wiped:
        rate = rate * np.clip(np.exp(optics.spread.kept * draws[:, 3:4]), None, 1 / max(one.kept, 0.01))
    return np.asarray(rate)


def spread_out(one: LayerFilm, stand: Stand, rate: Array) -> tuple[Part, ...]:
    """How thick a film is on which share of the surface once it is wiped. What is rubbed in or left in what is
    rough lies where it covers, in early wood first."""
    made: list[Part] = []
    for share, t in thicknesses(one.mark, one.touched, stand.pores):
        low = stand.hollow if one.hollows > one.kept and one.mark.kind not in IN_LOWS else 0.0
        made += [(share * (1 - low), t * one.kept), (share * low, t * one.hollows)]
    made = [(share, t) for share, t in made if share > 0]
    if not one.covers:
        return tuple(made)
    wood: list[Part] = []
    for share, t in made:
        if t == 0:
            wood.append((share, t))
            continue
        lies = one.covered(t * rate) * (1 - one.late * stand.late)
        wood += [(share * lies, t / lies), (share * (1 - lies), 0.0)]
    return tuple(wood)


def roughened(stand: Stand, one: LayerFilm, optics: Optics) -> Stand:
    """The same with what a layer stands up: its grit, and the ridges of its marks."""
    dry_mm = one.laid.dry_um * one.laid.layer.coats / 1000
    high = hypot(min(GRIT_MM, dry_mm) if one.grains else 0.0, ridges(one.mark) * dry_mm * one.kept)
    return replace(stand, hollow=min(0.5, hypot(stand.hollow, BELOW * high / optics.cloth_bridges_mm)))


BELOW = 0.4
"""How far the mean of a normal distribution's lower half lies below its middle: its mean cut off at 0."""


def _first(share: Any) -> float:
    """A share as it is expected, of one that varies."""
    return float(share if np.ndim(share) == 0 else share[0, 0])


class _Path:
    """What is seen on one part of the surface, as the layers go on."""

    def __init__(self, light: Array, surface: float, wets: bool) -> None:
        """`wets`: whether it is to be seen wet, too."""
        self.wet = self.dry = light
        self.surface, self.wets = surface, wets

    def lay(self, one: LayerFilm, parts: Sequence[Part], draws: Array, optics: Optics) -> None:
        light, surface = self.dry, self.surface
        clamped = (first_surface(light[:1], surface, optics) < optics.first_surface)[..., :1]
        loose = np.where(clamped, np.clip(1 + 0.3 * draws[:, 4:5], 0, 1.2), 1.0)
        seen_wet, dry, top = np.zeros_like(light), np.zeros_like(light), 0.0
        for share, t in parts:
            if np.ndim(t) == 0 and t == 0:
                seen_wet, dry, top = seen_wet + share * light, dry + share * light, top + _first(share) * surface
                continue
            top += _first(share) * one.surface
            for pot in one.pots:  # side by side, not stirred together
                k, s = _spread(one, pot, draws, optics)
                part = share * pot.share
                dry = dry + part * over((light, surface), one, pot, k * t, s * t, optics, loose)
                if self.wets:
                    seen_wet = seen_wet + part * wet((light, surface), one, pot, k * t, s * t, optics)
        for grit in one.grains:
            here = one.touched * min(grit.share, MOST_GRIT)
            seen_wet, dry = seen_wet + here * (grit.light - seen_wet), dry + here * (grit.light - dry)
        self.wet, self.dry, self.surface = seen_wet, dry, top

    def joined(self, other: "_Path", share: float) -> "_Path":
        """This one on the rest, the other on a share."""
        surface = (1 - share) * self.surface + share * other.surface
        made = _Path((1 - share) * self.dry + share * other.dry, surface, self.wets)
        made.wet = (1 - share) * self.wet + share * other.wet
        return made


def _steps(ground: Array, surface: float, films: Sequence[LayerFilm], optics: Optics, stand: Stand,
           draws: Array, wets: bool = True) -> Iterator[Step]:  # fmt: skip
    main = _Path(np.tile(ground, (len(draws), 1)), surface, wets)
    saved, save = main, 0.0
    for i, one in enumerate(films):
        mine = draws[:, i]
        if one.saves:
            rubbed = _Path(main.dry, main.surface, wets)
            rubbed.lay(one, ((1.0, 1.0),), mine, optics)
            more = (1 - save) * one.touched
            saved = saved.joined(rubbed, more / (save + more))
            save += more
        else:
            parts = spread_out(one, stand, _rate(one, mine, optics))
            main.lay(one, parts, mine, optics)
            if save and not one.runs_off:
                saved.lay(one, parts, mine, optics)
        stand = roughened(stand, one, optics)
        now = main.joined(saved, save) if save else main
        yield one, now.wet, now.dry


def column(ground: Array, surface: float, ground_hex: str, films: Sequence[LayerFilm], optics: Optics,
           stand: Stand = PLAIN) -> Column:  # fmt: skip
    """The stack on a ground that gives back `ground` at a surface share of `surface`. What covers only part counts for
    that part: the colour is what is seen from so far away that all of it runs together. Before any sanding; `stand` is
    what the ground has of pores, late wood and hollows."""
    made, light = [], np.tile(ground, (SAMPLES + 1, 1))
    for one, seen_wet, light in _steps(ground, surface, films, optics, stand, _draws(len(films))):
        layer = one.laid.layer.id
        wet_shade, dry_shade = shade(seen_wet), shade(light)
        dries = f"dries {steps_apart(wet_shade.lightness, dry_shade.lightness)}"
        mine = (layer, one.laid.name, one.hex, wet_shade, dry_shade, dries, one.clear, one.wiped, one.kept)
        made.append(StripFilm(*mine))
    return Column(ground_hex, tuple(made), shade(light))


def colours_up(ground: Array, surface: float, films: Sequence[LayerFilm], optics: Optics,
               stand: Stand = PLAIN) -> tuple[str, ...]:  # fmt: skip
    """The same without its ranges, at once: what is seen when each layer is dry."""
    steps = _steps(ground, surface, films, optics, stand, np.zeros((1, len(films), 5)), wets=False)
    return tuple(hex_of(dry[0]) for _, _, dry in steps)
