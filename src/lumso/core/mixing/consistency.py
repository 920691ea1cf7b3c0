"""How thick a mix is as stirred, in mPa·s, and which food word that is.

Liquids blend by ln η = Σ x ln η + G·x_paint·x_water (Grunberg and Nissan 1949), powders thicken them by
η = η_liq·(1 − x)^(−2.5·φ̄) (Krieger and Dougherty 1959), with x the relative solids of the grains: their swollen
share of the mix over the share at which they jam. Every value is an estimate; words are given as a range.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log
from typing import Literal

from ..book.materials import Consistency, LiquidTrend, Material
from ..value import Value

CRUMBS, PAST_STIFF = 1.0, 0.97


@dataclass(frozen=True)
class Ingredient:
    """An amount of a material: `poured_ml` as measured, `adds_ml` what it adds to the mix."""

    material: Material
    poured_ml: float
    adds_ml: float
    mass_g: float


@dataclass(frozen=True)
class Thickness(Value):
    """How a mix flows. `state` is "crumbs" when there is not liquid enough to wet the grains."""

    state: Literal["flows", "past stiff", "crumbs"]
    relative_solids: float
    """x: 1 is jammed. Above 0.97 the mix is past stiff."""
    viscosity_mpa_s: float
    word: str
    thinnest_word: str
    thickest_word: str
    """The words for 10 % less and 10 % more powder, or half and double the thickness where there is none."""
    cling: str


def _liquid_viscosity(parts: Sequence[Ingredient]) -> float:
    liquids = [p for p in parts if not p.material.is_solid and p.adds_ml > 0]
    powders = [p for p in parts if p.material.is_solid]
    volume = sum(p.adds_ml for p in liquids)
    water = sum(p.poured_ml for p in liquids if p.material.role == "water")
    trends = [p for p in powders if p.material.liquid_trend and p.poured_ml > 0]
    total = 0.0
    for part in liquids:
        viscosity = part.material.viscosity_mpa_s
        if part.material.role == "water" and trends:
            viscosity = max(_trend(p.material.liquid_trend, water / p.poured_ml) for p in trends)
        total += part.adds_ml / volume * log(viscosity)
        total += part.material.holds_up_to_water * part.adds_ml / volume * water / volume
    return exp(total)


def _trend(points: Sequence[LiquidTrend], ratio: float) -> float:
    """Between the points log–log, held at the ends."""
    ordered = sorted(points, key=lambda p: p.water_per_powder)
    if ratio <= ordered[0].water_per_powder:
        return ordered[0].viscosity_mpa_s
    for low, high in zip(ordered, ordered[1:], strict=False):
        if ratio <= high.water_per_powder:
            t = log(ratio / low.water_per_powder) / log(high.water_per_powder / low.water_per_powder)
            return float(low.viscosity_mpa_s ** (1 - t) * high.viscosity_mpa_s**t)
    return ordered[-1].viscosity_mpa_s


def _swollen(parts: Sequence[Ingredient]) -> tuple[float, float]:
    """Σ s·v and Σ s·v/φ_m over the grains that do not dissolve."""
    water_g = sum(p.mass_g * p.material.water_by_weight for p in parts)
    swollen = jammed = 0.0
    for part in parts:
        m = part.material
        if not m.is_solid or not m.packing_limit:
            continue
        dissolved = min(part.mass_g, m.dissolves_g_per_g * water_g)
        left = part.adds_ml * (1 - dissolved / part.mass_g) if part.mass_g else 0.0
        size = m.swelling * m.swells_on_setting * left
        swollen, jammed = swollen + size, jammed + size / m.packing_limit
    return swollen, jammed


def relative_solids(parts: Sequence[Ingredient]) -> float:
    """x = Σ(s·v/φ_m)/V: 0 without powder, 1 where the grains jam and the mix is crumbs, above for drier."""
    volume = sum(p.adds_ml for p in parts)
    return _swollen(parts)[1] / volume if volume else 0.0


def viscosity(parts: Sequence[Ingredient]) -> float:
    """η in mPa·s of a mix that flows; infinite from x = 1 on."""
    swollen, jammed = _swollen(parts)
    if not any(not p.material.is_solid and p.adds_ml > 0 for p in parts):
        return float("inf")
    x = relative_solids(parts)
    if x >= CRUMBS:
        return float("inf")
    mean_packing = swollen / jammed if jammed else 0.0
    return float(_liquid_viscosity(parts) * (1 - x) ** (-2.5 * mean_packing))


def word_for(viscosity_mpa_s: float, scale: Sequence[Consistency]) -> Consistency:
    """The entry of the scale that is nearest by the logarithm."""
    if viscosity_mpa_s == float("inf"):
        return max(scale, key=lambda c: c.viscosity_mpa_s)
    return min(scale, key=lambda c: abs(log(c.viscosity_mpa_s) - log(viscosity_mpa_s)))


def yield_stress(viscosity_mpa_s: float, scale: Sequence[Consistency]) -> float:
    """τ_y in Pa, read off the scale at a viscosity: log–log between its words, straight where one of them has none."""
    points = sorted((c.viscosity_mpa_s, c.yield_stress_pa) for c in scale)
    if viscosity_mpa_s <= points[0][0]:
        return points[0][1]
    for (low, low_pa), (high, high_pa) in zip(points, points[1:], strict=False):
        if viscosity_mpa_s <= high:
            t = log(viscosity_mpa_s / low) / log(high / low)
            return float(low_pa ** (1 - t) * high_pa**t) if low_pa and high_pa else low_pa + t * (high_pa - low_pa)
    return points[-1][1]


def _powder_changed(parts: Sequence[Ingredient], by: float) -> list[Ingredient]:
    return [
        Ingredient(p.material, p.poured_ml * by, p.adds_ml * by, p.mass_g * by) if p.material.is_solid else p
        for p in parts
    ]


def thickness(parts: Sequence[Ingredient], scale: Sequence[Consistency]) -> Thickness:
    """How the mix flows, in mPa·s and in words, with the words a tenth of powder either way would earn."""
    x = relative_solids(parts)
    middle = viscosity(parts)
    if any(p.material.is_solid and p.poured_ml for p in parts):
        low, high = viscosity(_powder_changed(parts, 0.9)), viscosity(_powder_changed(parts, 1.1))
    else:
        low, high = middle / 2, middle * 2
    state: Literal["flows", "past stiff", "crumbs"] = "flows"
    if x >= CRUMBS or middle == float("inf"):
        state = "crumbs"
    elif x >= PAST_STIFF:
        state = "past stiff"
    word = word_for(middle, scale)
    shown = min(middle, 1e9)
    return Thickness(state, x, shown, word.name, word_for(low, scale).name, word_for(high, scale).name, word.cling)
