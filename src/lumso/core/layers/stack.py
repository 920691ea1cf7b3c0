"""A zone's stack as the checker reads it: from the ground up, each layer with its film, its times and its mix."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from ..book.catalogue import Catalogue, pick
from ..book.films import Film
from ..book.materials import Consistency, Material
from ..book.offers import Need
from ..book.preparation import Does, Preparation
from ..book.recipes import Amount, Recipe
from ..book.surfaces import Ground
from ..book.techniques import Technique, Tool
from ..colour.srgb import blend
from ..job.job import GroundFact, Layer, Use, Zone
from ..memory import Memo
from ..mixing.compose import Pour, compose, with_amounts, with_school
from ..mixing.consistency import Thickness, thickness, yield_stress
from ..mixing.mix import ingredients
from ..piece.kinds import Surface
from ..value import Slug
from .conditions import Room
from .drying import HURRIED_MOST_UM, Moment, Wait, takes_min, wait_for

NIGHT_H = 8.0
"""Hours: what is left for a night has had at least this."""
WHOLE = 0.9
"""From this share touched on, a layer counts as covering the whole."""
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

    def wait(self, moment: Moment) -> Wait:
        """What one of its times waits for."""
        whole = self.layer.touched >= WHOLE
        return wait_for(
            self.film, moment, self.wet_um, whole, self.thick, self.layer.dries_by if self.hurries else "air"
        )

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


def _mixed(base: Recipe, school: str, amounts: Mapping[str, Amount], materials: tuple[Material | None, ...],
           scale: tuple[Consistency, ...]) -> Mixed:  # fmt: skip
    """The recipe as this layer has it, one ml of it, how it flows and its yield stress in Pa."""
    recipe = with_amounts(with_school(base, school), amounts)
    pours = compose(recipe, {m.slug: m for m in materials if m})
    flow = thickness(ingredients(pours), scale)
    stress = yield_stress(flow.viscosity_mpa_s, scale)
    if recipe.rest_min >= LONG_REST_MIN:
        aim = next((c for c in scale if c.slug == recipe.target), None)
        if aim and aim.yield_stress_pa > stress:
            stress, flow = aim.yield_stress_pa, replace(flow, cling=aim.cling)
    return recipe, pours, flow, stress


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
    recipe, pours, flow, stress = memo.recall(("mixed", layer.id, layer.recipe), args, lambda: _mixed(*args))
    shares = {p.component.id: p.poured_ml for p in pours}
    wet = rate_of(recipe, technique) * (layer.thickness_mm if technique.per_mm else 1.0)
    adds, mass = sum(p.adds_ml for p in pours), sum(p.mass_g for p in pours)
    gone = (p.mass_g * min(p.material.water_by_weight + p.material.solvent_by_weight, 1.0) for p in pours)
    left = (adds - sum(gone)) / adds
    film = _film(recipe, layer, shares, catalogue)
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
        catalogue.films.get(film.thick),
    )


@dataclass(frozen=True)
class Beneath:
    """What a layer finds when it is laid: all that the ground and the layers beneath have come to."""

    surface: str
    """The kind of surface: the ground's own, "sealed" by a film that closes it, else unsealed paint."""
    bare: Ground | None
    """The ground that drinks of the first coat; None where a layer lies between."""
    floor: Laid | None
    """The nearest layer that covers the whole; None where that is the ground."""
    open: int | None
    """The nearest layer that water brings back, with nothing over it that closes it; None for none."""
    closed: bool
    """Whether something keeps water from the ground."""
    stops: frozenset[str]
    """What the films beneath keep from coming through."""
    painted: Laid | None
    """The last layer that gives the colour."""
    meets: tuple[Laid, ...]
    """Every layer it lies on, the nearest first: those that cover only part are looked through."""
    thirst: float = 1.0
    """The share of the ground that nothing has been laid on yet."""
    relief: float = 1.0
    """How many times the area of a flat surface the texture beneath makes it."""


MOSTLY = 0.5
"""A layer that touches less than this does not give what lies on it its colour."""
COLOURS = {"paint", "wash", "glaze", "texture"}
TINTS = {"wash", "patina"}
"""Kinds of film that only tint what they lie on."""


RELIEF_OF_MM, LEVELLED = 0.6, 0.25
"""What a mm of mean thickness of stippled texture adds to its area, and what sanding it level leaves of that: paint
over texture takes 1.3 times as much over half a millimetre, 1.6 times over one and more. Starting values of the
trade."""


def relief_of(one: Laid) -> float:
    """How many times its flat area a layer makes of the surface: what stands in peaks has more of it."""
    if not (one.technique.per_mm and one.acts("stands in peaks")):
        return 1.0
    left = LEVELLED if any(s.purpose == "level" for s in one.layer.sandings) else 1.0
    return 1 + RELIEF_OF_MM * min(one.layer.thickness_mm, 1.0) * left * one.layer.touched


def on_ground(ground: Ground) -> Beneath:
    """What the first layer finds."""
    closed = ground.surface in {"sealed", "slick"}
    return Beneath(ground.surface, ground, None, None, closed, frozenset(), None, ())


def beneath_each(ground: Ground, laid: Sequence[Laid]) -> tuple[Beneath, ...]:
    """What each layer finds, and at the end what lies beneath whatever comes on top."""
    found = [on_ground(ground)]
    tinted, sealed = True, False
    for index, one in enumerate(laid):
        under, whole = found[-1], one.layer.touched >= WHOLE
        tinted = tinted and one.film.kind in TINTS  # wood stays wood under a wash
        drinks = whole and one.film.kind in {"paint", "texture"}
        sealed = one.closes or (sealed and not drinks)
        wood = tinted and ground.surface == "raw wood"
        thirst = 0.0 if whole else under.thirst * (1 - one.layer.touched)
        made = Beneath(
            "sealed" if sealed else "raw wood" if wood else "unsealed paint",
            ground if thirst > 0 else None,
            one if whole else under.floor,
            None if one.closes else index if one.film.rewets else under.open,
            under.closed or one.closes,
            under.stops | frozenset(one.film.stops),
            one if one.film.kind in COLOURS and one.layer.touched >= MOSTLY else under.painted,
            (one,) if whole and not one.acts("resists") else (one, *under.meets),
            thirst,
            max(under.relief, relief_of(one)),
        )
        found.append(made)
    return tuple(found)


@dataclass(frozen=True)
class Stack:
    """A zone's layers over its ground. Index 0 is the first layer; -1 means the ground."""

    zone: Zone
    ground: Ground
    use: Use
    surfaces: tuple[Surface, ...]
    room: Room
    laid: tuple[Laid, ...]
    catalogue: Catalogue

    @property
    def vertical(self) -> bool:
        """Whether any of it stands upright, edges aside."""
        return any(s.vertical and not s.narrow for s in self.surfaces)

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

    @cached_property
    def _beneath(self) -> tuple[Beneath, ...]:
        return beneath_each(self.ground, self.laid)

    def beneath(self, index: int) -> Beneath:
        """What the layer of that index lies on; the number of layers is the top."""
        return self._beneath[index]

    def meets(self) -> Iterator[tuple[int, Laid, Laid]]:
        """Each layer with every one it lies on: those that cover only part are looked through to the next whole one."""
        for i in range(1, len(self.laid)):
            for lower in self.beneath(i).meets:
                yield i, lower, self.laid[i]

    @property
    def asks_lead(self) -> bool:
        """Whether the ground asks the lead question, and it has not been closed."""
        return self.grounded("may hide lead") and not self.use.lead.settled

    @property
    def asks_asbestos(self) -> bool:
        """Whether the ground may hold asbestos, and nobody has closed the question."""
        patterned = self.faced("raised old pattern") and self.grounded("old coating")
        suspect = self.grounded("may hide asbestos") or self.faced("textured old coating") or patterned
        return suspect and not self.use.asbestos.settled

    def preparations(self) -> Iterator[Preparation]:
        """What is done to the ground first, as far as it is known."""
        known = self.catalogue.preparations
        return (known[p] for p in self.zone.prep if p in known)

    def prepared(self, *does: Does) -> bool:
        """Whether the ground was prepared in any of these ways."""
        return any(d in p.does for p in self.preparations() for d in does)

    def offer(self, need: Need) -> Slug:
        """The recipe that is offered for a need."""
        return self.catalogue.offer(need)

    def grounded(self, *traits: str) -> bool:
        """Whether the ground has any of these traits."""
        return any(t in self.ground.traits for t in traits)

    def wait(self, index: int, moment: Moment) -> Wait:
        """What one of a layer's times waits for."""
        return self._deep(index).wait(moment)

    def between_coats(self, index: int) -> Wait:
        """What is waited for between a layer's coats: as said, else until the next may follow."""
        said = self.laid[index].layer.coat_wait_h
        return self.wait(index, "recoat_from") if said is None else Wait(said * 60, "clock")

    def ready_to_sand(self, index: int, wait: Wait) -> Wait:
        """What is waited for before a coat is sanded, where it is left alone for `wait`."""
        return wait

    def gentle(self, index: int) -> Wait:
        """Until a layer may be closed, stacked and used gently: days, long before it has cured."""
        days = self.laid[index].film.gentle_days
        return Wait(None if days is None else days * 1440, "oil")

    def alone(self, index: int) -> Wait:
        """What a layer is left alone for before the next: nothing where that is laid into it while it is damp."""
        if index + 1 < len(self.laid) and self.laid[index + 1].layer.wet_into_wet:
            return Wait(0.0)
        return self._deep(index).left_alone

    def _deep(self, index: int) -> Laid:
        """A layer as thick as it dries: with what it was dragged into while that was damp."""
        one, k = self.laid[index], index
        while k > 0 and self.laid[k].layer.wet_into_wet:
            k -= 1
        return one if k == index else replace(one, wet_um=sum(x.wet_um for x in self.laid[k : index + 1]))

    def faced(self, *facts: GroundFact) -> bool:
        """Whether any of these can be seen on the ground."""
        return any(f in self.zone.facts for f in facts)

    def minutes(self, index: int, moment: Moment) -> float | None:
        """One of a layer's times in this room, in minutes; None is unknown, or no film forms here."""
        return takes_min(self.wait(index, moment), self.room)

    def waits_h(self, index: int) -> float:
        """Hours a layer is left alone before the next, in this room; 0 where nobody knows."""
        return (takes_min(self.alone(index), self.room) or 0.0) / 60

    def hours_between(self, lower: int, upper: int) -> float:
        """Hours from the last coat of one layer to the first of another above it."""
        return sum(self.waits_h(k) for k in range(lower, upper))
