"""A layer with everything that is known of it before its area is: its film, its times, its mix."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from ..book.catalogue import Catalogue, pick
from ..book.films import Film
from ..book.materials import Consistency, Material
from ..book.optics import Optics
from ..book.recipes import Amount, Recipe
from ..book.techniques import Technique, Tool
from ..colour.blend import blended
from ..job.job import Layer
from ..learn.rates import LearnedRate
from ..memory import Memo
from ..mixing.compose import Pour, compose, with_amounts, with_school
from ..mixing.consistency import Thickness, thickness, word_for, yield_stress
from ..mixing.mix import ingredients
from ..value import Slug
from .drying import HURRIED_MOST_UM, Moment, Wait, wait_for

WHOLE = 0.9
"""From this share touched on, a layer counts as covering the whole."""
SET_OTHERWISE = 0.02
"""A share that differs by more than this of the whole was set so."""
LONG_REST_MIN = 60.0
"""A mix that must rest longer than this thickens meanwhile: it is taken as stiff as its target then."""


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
    thick: Film | None = None
    """The film whose times hold where it is laid thick."""
    learned: LearnedRate | None = None
    """What the painter's log says it takes."""
    slower: float = 1.0
    """How many times as long as usual it dries, by the painter's log."""
    chosen: frozenset[str] = frozenset()
    """The parts whose share of the mix was set otherwise than the recipe's."""

    @property
    def tapes(self) -> bool:
        """Whether it is laid between tape: by its layout where it has one, else by its way of being put on."""
        layout = self.layer.layout
        return self.acts("tapes") if layout is None else layout.taped

    def wait(self, moment: Moment) -> Wait:
        """What one of its times waits for."""
        whole = self.layer.touched >= WHOLE
        wait = wait_for(
            self.film, moment, self.wet_um, whole, self.thick, self.layer.dries_by if self.hurries else "air"
        )
        if self.slower == 1 or wait.reference_min is None or moment in {"recoat_until", "cured"}:
            return wait
        if self.slower < 1 and moment in self.film.labelled:
            return wait  # what a label says is never undercut
        return replace(wait, reference_min=wait.reference_min * self.slower)

    @property
    def hurries(self) -> bool:
        """Whether forced drying does it any good: a thin, water-borne film, or a room that is warmed."""
        thin = self.film.carrier == "water" and self.wet_um <= HURRIED_MOST_UM
        return self.layer.dries_by == "warm room" or (thin and self.film.kind not in {"wax", "oil"})

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
    def left_alone(self) -> Wait:
        """What it is left alone for before the next layer: as said, else until the next coat may follow."""
        if self.layer.wait_h is not None:
            return Wait(self.layer.wait_h * 60, "clock")
        return self.wait("recoat_from")

    @property
    def watery(self) -> bool:
        """Whether it wets what is beneath with water."""
        return self.film.carrier == "water"


def _colour(layer: Layer, pours: tuple[Pour, ...], optics: Optics) -> str:
    """The hex of its first paint in its first pot, else of what most of it is."""
    pot = layer.pots[0] if layer.pots else None
    colours, tints = (pot.colours, pot.tints) if pot else (layer.colours, layer.tints)
    paints = [p for p in pours if p.component.role in {"paint", "pigment"}] or sorted(pours, key=lambda p: -p.adds_ml)
    first = paints[0]
    if tints.get(first.component.id):
        return blended(tints[first.component.id], optics)
    return colours[first.component.id].hex if first.component.id in colours else first.material.hex


Mixed = tuple[Recipe, tuple[Pour, ...], Thickness, float, frozenset[str]]


def _mixed(base: Recipe, school: str, amounts: Mapping[str, Amount], materials: tuple[Material | None, ...],
           scale: tuple[Consistency, ...]) -> Mixed:  # fmt: skip
    """The recipe as this layer has it, one ml of it, how it flows, its yield stress in Pa, and the parts that were set.

    What the painter set is what is wanted: where its shares are others than the recipe's, the word it aims at is the
    one these come to. A mix that thickens for hours aims at the recipe's: nothing else says what it will come to.
    """
    usual, known = with_school(base, school), {m.slug: m for m in materials if m}
    recipe = with_amounts(usual, amounts)
    pours = compose(recipe, known)
    flow = thickness(ingredients(pours), scale)
    chosen = _set_otherwise(pours, compose(usual, known)) if recipe is not usual else frozenset()
    if chosen and flow.state == "flows" and recipe.rest_min < LONG_REST_MIN:
        recipe = replace(recipe, target=word_for(flow.viscosity_mpa_s, scale).slug)
    stress = yield_stress(flow.viscosity_mpa_s, scale)
    if recipe.rest_min >= LONG_REST_MIN:
        aim = next((c for c in scale if c.slug == recipe.target), None)
        if aim and aim.yield_stress_pa > stress:
            stress, flow = aim.yield_stress_pa, replace(flow, cling=aim.cling)
    return recipe, pours, flow, stress, chosen


def _set_otherwise(pours: Sequence[Pour], usual: Sequence[Pour]) -> frozenset[str]:
    """The parts whose share of the whole is otherwise than usual, by more than anybody measures."""
    whole, before = sum(p.poured_ml for p in pours), sum(p.poured_ml for p in usual)
    pairs = zip(pours, usual, strict=True)
    return frozenset(
        p.component.id for p, u in pairs if abs(p.poured_ml / whole - u.poured_ml / before) > SET_OTHERWISE
    )


def rate_of(recipe: Recipe, technique: Technique) -> float:
    """ml a coat takes of a m² where it touches, for each mm where it is laid thick: the technique's, or the recipe's
    own where it is brushed on as an even coat."""
    own = recipe.wet_rate_ml_per_m2 if technique.plain else 0.0
    return own or technique.wet_rate_ml_per_m2


def _tool(layer: Layer, catalogue: Catalogue) -> Tool:
    """What a layer is laid with: two tools as one that holds what both hold, taken up damp nothing."""
    tool = pick("tool", catalogue.tools, layer.tool)
    if layer.second_tool:
        other = pick("tool", catalogue.tools, layer.second_tool)
        name, holds = f"{tool.name}, then the {other.name}", tool.holds_ml + other.holds_ml
        tool = replace(tool, slug=f"{tool.slug}+{other.slug}", name=name, holds_ml=holds)
    if layer.damp_tool:
        tool = replace(tool, slug=f"{tool.slug}:damp", name=f"{tool.name}, damp", holds_ml=0.0)
    return tool


def _with_materials(recipe: Recipe, materials: Mapping[str, Slug]) -> Recipe:
    """The recipe with other materials in place of its own, by component."""
    if not materials:
        return recipe
    parts = tuple(replace(c, material=materials.get(c.id, c.material)) for c in recipe.components)
    return replace(recipe, components=parts)


def _film(recipe: Recipe, layer: Layer, shares: Mapping[str, float], catalogue: Catalogue) -> Film:
    """The film a layer dries to: that of the paint used in place of the recipe's, where that has one of its own."""
    film = catalogue.film_of(recipe, shares)
    for component in recipe.components:
        own = catalogue.materials[component.material].film
        if component.id in layer.materials and own and film.kind == "paint":
            return catalogue.films.get(own, film)
    return film


def lay(layer: Layer, catalogue: Catalogue, memo: Memo | None = None) -> Laid:
    """A layer looked up and composed. Raises UnknownEntry, InvalidValue or ImpossibleRecipe."""
    base = _with_materials(pick("recipe", catalogue.recipes, layer.recipe), layer.materials)
    technique = pick("technique", catalogue.techniques, layer.technique)
    tool = _tool(layer, catalogue)
    materials = tuple(catalogue.materials.get(c.material) for c in base.components)
    args = (base, layer.school, layer.amounts, materials, catalogue.consistencies)
    memo = memo or Memo()
    recipe, pours, flow, stress, chosen = memo.recall(("mixed", layer.id, layer.recipe), args, lambda: _mixed(*args))
    shares = {p.component.id: p.poured_ml for p in pours}
    wet = rate_of(recipe, technique) * (layer.thickness_mm if technique.per_mm else 1.0)
    adds, mass = sum(p.adds_ml for p in pours), sum(p.mass_g for p in pours)
    gone = (p.mass_g * min(p.material.water_by_weight + p.material.solvent_by_weight, 1.0) for p in pours)
    left = (adds - sum(gone)) / adds
    film = _film(recipe, layer, shares, catalogue)
    if technique.rate_includes_ground:
        wet = min(wet, film.usual_um)  # the rest has gone into the ground
    learned = catalogue.learned.get(f"{base.slug}|{technique.slug}")
    wet *= learned.factor if learned else 1.0
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
        _colour(layer, pours, catalogue.optics),
        wet,
        wet * max(left, 0.05),
        mass / adds,
        stress,
        catalogue.films.get(film.thick),
        learned,
        catalogue.waits.get(base.slug, 1.0),
        chosen,
    )
