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
MOST_SWELLING = 6.8
"""Six times, and what setting adds."""


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


def _undissolved(parts: Sequence[Ingredient]) -> list[tuple[Ingredient, float]]:
    """The grains, and the volume of each that water does not dissolve."""
    water_g = sum(p.mass_g * p.material.water_by_weight for p in parts)
    found = []
    for part in parts:
        m = part.material
        if m.is_solid and m.packing_limit:
            dissolved = min(part.mass_g, m.dissolves_g_per_g * water_g)
            found.append((part, part.adds_ml * (1 - dissolved / part.mass_g) if part.mass_g else 0.0))
    return found


def relative_solids(parts: Sequence[Ingredient]) -> float:
    """x = Σ(s·v/φ_m)/V: 0 without powder, 1 where the grains jam and the mix is crumbs, above for drier."""
    volume = sum(p.adds_ml for p in parts)
    if not volume:
        return 0.0
    swollen = (left * p.material.swelling * p.material.swells_on_setting / p.material.packing_limit
               for p, left in _undissolved(parts))  # fmt: skip
    return sum(swollen) / volume


@dataclass(frozen=True)
class Grains:
    """The grains of a mix that do not dissolve: their own volume over that of the mix, swelling, packing limit, and
    the minutes in which they swell to the better part of it."""

    share: float
    swelling: float
    packing_limit: float
    thickens_min: float


@dataclass(frozen=True)
class Flow:
    """A mix as the model sees it: its liquid and its grains. From it, η for any swelling is a few products."""

    liquid_mpa_s: float
    grains: tuple[Grains, ...]
    wet: bool
    """Whether there is any liquid."""

    def viscosity(self, swells: float = 1.0, liquid: float = 1.0, ripe: float = 1.0) -> float:
        """η in mPa·s, infinite from x = 1 on.

        With every swelling `swells` times as large, held within 1–6, the liquid `liquid` times as thick; `ripe` is how
        far log η has come from its value before anything swelled (0) to its last (1).
        """
        last = self._with(swells, liquid)
        if ripe >= 1 or last == float("inf"):
            return last
        first = self._with(0.0, liquid)
        return float(first * (last / first) ** ripe)

    def _with(self, swells: float, liquid: float) -> float:
        swollen = jammed = 0.0
        for g in self.grains:
            at = 1.0 if not swells and g.thickens_min else min(max(g.swelling * (swells or 1.0), 1.0), MOST_SWELLING)
            swollen, jammed = swollen + at * g.share, jammed + at * g.share / g.packing_limit
        if not self.wet or jammed >= CRUMBS:
            return float("inf")
        mean_packing = swollen / jammed if jammed else 0.0
        return float(self.liquid_mpa_s * liquid * (1 - jammed) ** (-2.5 * mean_packing))

    @property
    def thickens_min(self) -> float:
        """The longest any of its grains take to swell; 0 where nothing does."""
        return max((g.thickens_min for g in self.grains), default=0.0)


def flow_of(parts: Sequence[Ingredient]) -> Flow:
    """How a mix flows, apart from how far it has swollen."""
    volume = sum(p.adds_ml for p in parts)
    wet = any(not p.material.is_solid and p.adds_ml > 0 for p in parts)
    grains = tuple(
        Grains(left / volume, p.material.swelling * p.material.swells_on_setting, p.material.packing_limit,
               p.material.thickens_min)
        for p, left in _undissolved(parts)
    )  # fmt: skip
    return Flow(_liquid_viscosity(parts) if wet else float("inf"), grains, wet)


def viscosity(parts: Sequence[Ingredient]) -> float:
    """η in mPa·s of a mix that flows; infinite from x = 1 on."""
    return flow_of(parts).viscosity()


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
