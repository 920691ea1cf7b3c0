"""A zone's stack as the checker reads it: from the ground up, each layer with its film, its times and its mix."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from ..book.catalogue import Catalogue, pick
from ..book.films import Film
from ..book.materials import Consistency, Material
from ..book.recipes import Amount, Recipe
from ..book.surfaces import Ground
from ..book.techniques import Technique, Tool
from ..colour.srgb import blend
from ..job.job import Layer, Use, Zone
from ..memory import remembered
from ..mixing.compose import Pour, compose, with_amounts, with_school
from ..mixing.consistency import Thickness, thickness, yield_stress
from ..mixing.mix import ingredients
from ..piece.kinds import Surface
from .conditions import Conditions
from .drying import takes_min

NIGHT_H = 8.0
"""Hours: what is left for a night has had at least this."""
WHOLE = 0.9
"""From this share touched on, a layer counts as covering the whole."""
LONG_REST_MIN = 60.0
"""A mix that must rest longer than this thickens meanwhile: it is taken as stiff as its target then."""
Moment = Literal["touch", "recoat_from", "recoat_until", "wet_rub", "seal", "cured"]


@dataclass(frozen=True)
class Laid:
    """A layer with everything that is known of it before its area is."""

    layer: Layer
    base: Recipe
    recipe: Recipe
    technique: Technique
    tool: Tool
    film: Film
    pours: tuple[Pour, ...]
    flow: Thickness
    shares: Mapping[str, float]
    water: float
    """Added water, as a share of the whole as poured."""
    hex: str
    """The colour it is drawn in: its first paint's."""
    wet_um: float
    """Mean wet thickness of a coat, in µm, where it touches."""
    dry_um: float
    density: float
    stress_pa: float

    def acts(self, *words: str) -> bool:
        """Whether the technique does any of these."""
        return any(word in self.technique.acts for word in words)

    @property
    def name(self) -> str:
        """What it is called in a sentence."""
        return self.recipe.name.removesuffix(", as bought")

    @cached_property
    def closes(self) -> bool:
        """Whether it closes what is beneath, all over."""
        return self.film.closes and self.layer.touched >= WHOLE and not self.acts("resists")

    @property
    def watery(self) -> bool:
        """Whether it wets what is beneath with water."""
        return self.film.carrier == "water"


def _colour(layer: Layer, pours: tuple[Pour, ...]) -> str:
    """The hex of its first paint in its first pot, else of what most of it is."""
    pot = layer.pots[0] if layer.pots else None
    colours, tints = (pot.colours, pot.tints) if pot else (layer.colours, layer.tints)
    paints = [p for p in pours if p.component.role in {"paint", "pigment"}] or sorted(pours, key=lambda p: -p.adds_ml)
    first = paints[0]
    if tints.get(first.component.id):
        return blend(tints[first.component.id])
    return colours[first.component.id].hex if first.component.id in colours else first.material.hex


Mixed = tuple[Recipe, tuple[Pour, ...], Thickness, float]


@remembered(2000)
def _mixed(base: Recipe, school: str, amounts: Mapping[str, Amount], materials: tuple[Material | None, ...],
           scale: tuple[Consistency, ...]) -> Mixed:  # fmt: skip
    """The recipe as this layer has it, one ml of it, how it flows and its yield stress in Pa."""
    recipe = with_amounts(with_school(base, school), amounts)
    pours = compose(recipe, {m.slug: m for m in materials if m})
    flow = thickness(ingredients(pours), scale)
    stress = yield_stress(flow.viscosity_mpa_s, scale)
    if recipe.rest_min >= LONG_REST_MIN:
        stress = max(stress, *(c.yield_stress_pa for c in scale if c.slug == recipe.target), 0.0)
    return recipe, pours, flow, stress


def lay(layer: Layer, catalogue: Catalogue) -> Laid:
    """A layer looked up and composed. Raises UnknownEntry, InvalidValue or ImpossibleRecipe."""
    base = pick("recipe", catalogue.recipes, layer.recipe)
    technique = pick("technique", catalogue.techniques, layer.technique)
    tool = pick("tool", catalogue.tools, layer.tool)
    materials = tuple(catalogue.materials.get(c.material) for c in base.components)
    recipe, pours, flow, stress = _mixed(
        (layer.id, layer.recipe), base, layer.school, layer.amounts, materials, catalogue.consistencies
    )
    shares = {p.component.id: p.poured_ml for p in pours}
    wet = technique.wet_rate_ml_per_m2 * (layer.thickness_mm if technique.per_mm else 1.0)
    adds, mass = sum(p.adds_ml for p in pours), sum(p.mass_g for p in pours)
    left = sum(p.adds_ml - p.mass_g * p.material.water_by_weight for p in pours) / adds
    film = catalogue.film_of(recipe, shares)
    if technique.rate_includes_ground:
        wet = min(wet, film.usual_um)  # the rest has gone into the ground
    return Laid(
        layer,
        base,
        recipe,
        technique,
        tool,
        film,
        pours,
        flow,
        shares,
        sum(p.poured_ml for p in pours if p.material.role == "water"),
        _colour(layer, pours),
        wet,
        wet * max(left, 0.05),
        mass / adds,
        stress,
    )


@dataclass(frozen=True)
class Stack:
    """A zone's layers over its ground. Index 0 is the first layer; -1 means the ground."""

    zone: Zone
    ground: Ground
    use: Use
    surfaces: tuple[Surface, ...]
    conditions: Conditions
    laid: tuple[Laid, ...]
    catalogue: Catalogue

    @property
    def vertical(self) -> bool:
        """Whether any of it stands upright."""
        return any(s.vertical for s in self.surfaces)

    @property
    def level(self) -> bool:
        """Whether any of it lies flat."""
        return any(not s.vertical for s in self.surfaces)

    def each(self) -> Iterator[tuple[int, Laid]]:
        """The layers with their index, from the ground up."""
        return iter(enumerate(self.laid))

    def pairs(self) -> Iterator[tuple[int, Laid, Laid]]:
        """Each layer over another, with the upper one's index."""
        for i in range(1, len(self.laid)):
            yield i, self.laid[i - 1], self.laid[i]

    def meets(self) -> Iterator[tuple[int, Laid, Laid]]:
        """Each layer with every one it lies on: those that cover only part are looked through to the next whole one."""
        for i in range(1, len(self.laid)):
            for lower in reversed(self.laid[:i]):
                yield i, lower, self.laid[i]
                if lower.layer.touched >= WHOLE and not lower.acts("resists"):
                    break

    def floor_of(self, index: int) -> Laid | None:
        """The nearest layer beneath that covers the whole; None where that is the ground."""
        return next((x for x in reversed(self.laid[:index]) if x.layer.touched >= WHOLE), None)

    def has(self, *prep: str) -> bool:
        """Whether any of these was done to the ground."""
        return any(p in self.zone.prep for p in prep)

    def grounded(self, *traits: str) -> bool:
        """Whether the ground has any of these traits."""
        return any(t in self.ground.traits for t in traits)

    def minutes(self, index: int, moment: Moment) -> float | None:
        """One of a layer's times in this room, in minutes; None is unknown."""
        one, room = self.laid[index], self.conditions
        nominal = getattr(one.film.times, moment)
        return takes_min(nominal, one.film, one.wet_um, room.temperature_c, room.humidity, moment == "cured")

    def waits_h(self, index: int) -> float:
        """Hours a layer is left alone before the next: as said, else as soon as the next coat may follow."""
        said = self.laid[index].layer.wait_h
        return said if said is not None else (self.minutes(index, "recoat_from") or 0.0) / 60

    def hours_between(self, lower: int, upper: int) -> float:
        """Hours from the last coat of one layer to the first of another above it."""
        return sum(self.waits_h(k) for k in range(lower, upper))

    def open_under(self, index: int) -> int | None:
        """The nearest layer beneath that water brings back, with nothing over it that closes it; None for none."""
        for k in range(index - 1, -1, -1):
            if self.laid[k].closes:
                return None
            if self.laid[k].film.rewets:
                return k
        return None

    def closed_under(self, index: int) -> bool:
        """Whether something beneath keeps water from the ground."""
        return any(one.closes for one in self.laid[:index]) or self.ground.surface in {"sealed", "slick"}

    def stopped_under(self, index: int, what: str) -> bool:
        """Whether a film beneath keeps `what` from coming through."""
        return any(what in one.film.stops for one in self.laid[:index])
