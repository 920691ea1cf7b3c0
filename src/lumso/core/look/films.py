"""A layer as light sees it: what each of its pots absorbs and scatters as it is laid."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np

from ..book.colours import Colour, Entered, Tint
from ..book.marks import Mark
from ..book.optics import DryingLook, Optics
from ..colour.hiding import per_coat, spread_of
from ..colour.spectra import BANDS, Array, hex_of, reflectance
from ..colour.strength import spread_of_absorption, thick, told
from ..colour.surfaces import as_dry
from ..job.job import Layer
from ..layers.laid import Laid
from ..layers.stack import Beneath
from ..mixing.compose import Pour
from ..mixing.mix import pots_of

LEAF_HIDES = 40.0
"""S·X of leaf: nothing shines through it."""
MOST_GRIT = 0.9
"""Grit never takes more of a surface than this."""
SEEN = 0.6
"""The share of its grit that is not under the paint. An untested starting point."""


@dataclass(frozen=True)
class Dye:
    """A colour in a mix: what a full coat of it absorbs and scatters, how much of it a ml of the mix holds, and how
    far off both may be (standard deviations of logarithms)."""

    k: Array
    s: Array
    held: float
    k_spread: float
    s_spread: float
    lack: Array
    """What a full film of it is darker by than its absorption tells."""


@dataclass(frozen=True)
class PotFilm:
    """All coats of one pot of a layer where it is laid, at their mean thickness, before anything is wiped off."""

    name: str
    share: float
    """Of what the layer touches."""
    dyes: tuple[Dye, ...]
    thickness: float
    """As full coats."""
    own_k: Array
    own_s: Array
    """What its binder absorbs and scatters by itself, in all its coats."""

    @cached_property
    def k(self) -> Array:
        """K·X of its pigment."""
        return self.thickness * sum((d.held * d.k for d in self.dyes), np.zeros(BANDS))

    @cached_property
    def s(self) -> Array:
        """S·X of its pigment."""
        return self.thickness * sum((d.held * d.s for d in self.dyes), np.zeros(BANDS))

    @cached_property
    def lack(self) -> Array:
        """What it is darker by, where it hides, than its absorption tells."""
        whole = sum(d.held * float(d.s.mean()) for d in self.dyes)
        parts = (d.held * float(d.s.mean()) * d.lack for d in self.dyes)
        return sum(parts, np.zeros(BANDS)) / max(whole, 1e-9)

    @property
    def hex(self) -> str:
        """The colour of the film alone, as thick as one likes; "" where it has none of its own."""
        s = self.s
        return hex_of(thick(self.k, s, self.lack)) if self.dyes and s.min() > 1e-6 else ""


@dataclass(frozen=True)
class Grains:
    """Grit that can be seen by itself: its colour, and the share of the surface it takes."""

    light: Array
    share: float


@dataclass(frozen=True)
class LayerFilm:
    """A layer as light sees it."""

    laid: Laid
    pots: tuple[PotFilm, ...]
    drying: DryingLook
    surface: float
    """The share of its surface reflection that is scattered, once dry."""
    clear: bool
    touched: float
    kept: float
    """The share of what was laid that wiping leaves on the flats."""
    hollows: float
    """The same in hollows and pores."""
    covers: float
    """p₀: how much pigment covers, as full coats, where it is rubbed in or wiped off; 0 where it lies as a film."""
    late: float
    """How much less of it late wood takes."""
    saves: bool
    """Whether watery coats on top do not stay on it."""
    wiped: bool
    mark: Mark
    milk: float
    """S·X of its binder while it is wet."""
    chips: bool
    """Whether it comes off in flakes as it pleases, on what is closed and does not hold it."""
    grains: tuple[Grains, ...] = ()
    sands: float = 1.0
    """How deep it is sanded, as a multiple of what is usual."""

    @property
    def pigment(self) -> float:
        """What it lays where it touches, as full coats of paint."""
        return sum(p.share * p.thickness * sum(d.held for d in p.dyes) for p in self.pots)

    def covered(self, thick: Any) -> Any:
        """The share of rough ground, or of early wood, that its pigment covers where it lies `thick`, as a multiple of
        what was laid."""
        return 1 - np.exp(-thick * self.pigment / self.covers)

    @property
    def runs_off(self) -> bool:
        """Whether it does not stay on wax that was rubbed on to save what is beneath."""
        return self.laid.watery and not self.clear

    @property
    def hex(self) -> str:
        """The colour of its film alone; of several pots that of the largest."""
        return max(self.pots, key=lambda p: p.share).hex


def hiding_of(pours: Sequence[Pour]) -> tuple[float, float]:
    """The contrast ratio on the label of the paint in a mix, and its scattering as measured; 0 for what nobody has
    entered."""
    paints = [p.material for p in pours if p.component.role == "paint"]
    return next((m.hiding for m in paints if m.hiding), 0.0), next((m.scattering for m in paints if m.scattering), 0.0)


def _dye(hex_: str, held: float, optics: Optics, hiding: float, measured: float, entered: Entered = "dry",
         wet_scatters: float = 1.0) -> Dye:  # fmt: skip
    own = as_dry(reflectance(hex_), entered, wet_scatters, optics)
    s = np.full(BANDS, per_coat(hex_, optics, hiding, measured))
    spread = spread_of(hex_, optics, hiding, measured)
    ratio, lack = told(own, hex_, optics)
    return Dye(ratio * s, s, held, spread_of_absorption(own, hex_, optics), spread, lack)


def _dyes(pours: Sequence[Pour], colours: Mapping[str, Colour], tints: Mapping[str, Sequence[Tint]],
          optics: Optics, wet_scatters: float) -> tuple[Dye, ...]:  # fmt: skip
    whole = sum(p.adds_ml for p in pours)
    made = []
    for pour in pours:
        material, part = pour.material, pour.component.id
        held = optics.pigment_in(material) * pour.adds_ml / whole
        if held <= 0:
            continue
        if blended := tints.get(part):
            parts = sum(t.parts for t in blended)
            made += [_dye(t.hex, held * t.parts / parts, optics, 0.0, 0.0) for t in blended]
        else:
            of = colours.get(part, material)
            made.append(_dye(of.hex, held, optics, material.hiding, material.scattering, of.entered, wet_scatters))
    return tuple(made)


def _kept(layer: Layer, mark: Mark, under: Beneath) -> tuple[float, float]:
    """The shares that wiping leaves on the flats and in the hollows. What the painter says is said of the flats."""
    drinks = under.surface not in {"sealed", "slick"}
    usual = mark.thirsty if drinks and mark.thirsty else mark.kept
    kept = usual if layer.kept is None else layer.kept
    return kept, max(kept, mark.hollows)


def layer_film(one: Laid, under: Beneath, optics: Optics, mark: Mark) -> LayerFilm:
    """A layer as light sees it, over what lies beneath it."""
    layer, drying = one.layer, optics.drying_of(one.film)
    coats = layer.coats * one.wet_um / optics.full_film_um
    kept, hollows = _kept(layer, mark, under)
    haze = optics.haze_of(one.film.gloss) * coats * kept if drying.clear else 0.0
    films = one.dry_um * layer.coats * kept / optics.amber_um
    amber = -0.5 * np.log(reflectance(optics.amber) / 0.985) * films if one.film.ambers else np.zeros(BANDS)
    soaked = one.film.kind == "wash" and under.surface == "raw wood"
    pots = []
    for pot in pots_of(layer):
        dyes = _dyes(one.pours, pot.colours, pot.tints, optics, drying.wet_scatters)
        if not dyes and one.film.kind == "leaf":
            dyes = (_dye(optics.leaf, 1.0, optics, 0.0, LEAF_HIDES),)
        name = next((c.name for c in pot.colours.values() if c.name), "") or pot.name
        pots.append(PotFilm(name, pot.share, dyes, coats * (layer.hides or 1.0), amber, np.full(BANDS, haze)))
    closed = under.surface in {"sealed", "slick"}
    grips = one.film.grips or (under.floor is not None and under.floor.film.grips)
    whole = sum(p.share for p in pots)
    pots = [replace(p, share=p.share / whole) for p in pots]
    clear = drying.clear or not any(p.dyes for p in pots)  # what holds no pigment is clear, whatever it is for
    return LayerFilm(
        one,
        tuple(pots),
        drying,
        optics.surface_of(one.film.gloss),
        clear,
        1.0 if layer.layout else layer.touched,  # where it goes, it goes all over
        kept,
        hollows,
        optics.covers if soaked or (not clear and kept < 1) else 0.0,
        optics.late_wood if soaked else 0.0,
        one.acts("resists"),
        mark.wiped(layer.kept),
        mark,
        drying.milky * coats,
        one.film.chips and closed and not grips,
        tuple(
            Grains(reflectance(p.material.hex), p.adds_ml / sum(x.adds_ml for x in one.pours) * SEEN)
            for p in one.pours
            if p.component.role == "grit" and p.adds_ml > 0
        ),
    )
