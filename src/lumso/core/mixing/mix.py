"""A mix: a recipe's components as amounts to pour and to weigh, and what they come to."""

from collections.abc import Sequence
from dataclasses import dataclass, field

from ..book.colours import Colour, Pot, Tint
from ..book.materials import Consistency, Vessel
from ..book.optics import Optics
from ..book.recipes import Recipe
from ..colour.blend import blended
from ..errors import ImpossibleRecipe
from ..figure import Figure, SourceKind, Step, tidy
from ..job.job import FromPart, FromTotal, FromVessel, Layer, Want
from ..measure.measures import MeasureSystem, Spoken, spoken
from ..value import Value
from .compose import Pour
from .consistency import Ingredient, Thickness, thickness
from .jar import HEADROOM, Jar, draw


@dataclass(frozen=True)
class Paint(Value):
    """One of the paints a component's colour is mixed from, as an amount."""

    name: str
    hex: str
    parts: float
    ml: float
    g: float
    spoken: Spoken


@dataclass(frozen=True)
class Part(Value):
    """One component of a mix. `share` is of the whole as poured; `per_paint` the same beside one part of paint."""

    component: str
    name: str
    role: str
    material: str
    stage: str
    hex: str
    colour: str
    solid: bool
    poured: Figure
    mass: Figure
    adds_ml: float
    share: float
    share_by_weight: float
    per_paint: float | None
    spoken: Spoken
    paints: tuple[Paint, ...]


@dataclass(frozen=True)
class Mix(Value):
    """A batch as planned. `volume` is what it yields; `naive_ml` what adding up the poured volumes would say."""

    pot: str
    pot_name: str
    recipe: str
    name: str
    measured_by: str
    volume: Figure
    naive_ml: float
    mass_g: float
    density: float
    thickness: Thickness
    target: str
    parts: tuple[Part, ...]
    jar: Jar


@dataclass(frozen=True)
class Pouring:
    """What a mix is said and drawn with."""

    system: MeasureSystem
    scale: Sequence[Consistency]
    vessels: Sequence[Vessel]
    optics: Optics
    colours: dict[str, Colour] = field(default_factory=dict)
    tints: dict[str, tuple[Tint, ...]] = field(default_factory=dict)
    pot: Pot | None = None


def ingredients(pours: Sequence[Pour], factor: float = 1.0) -> list[Ingredient]:
    """The pours as the consistency model wants them, `factor` ml as poured altogether."""
    return [Ingredient(p.material, p.poured_ml * factor, p.adds_ml * factor, p.mass_g * factor) for p in pours]


def refuse_crumbs(recipe: Recipe, flow: Thickness) -> None:
    """Raise ImpossibleRecipe for amounts that make crumbs: there is not liquid enough to wet the powder."""
    if flow.state == "crumbs":
        raise ImpossibleRecipe(
            f"These amounts of {recipe.name} make crumbs, not paint: the swollen powder fills "
            f"{flow.relative_solids:.0%} of the room it has.",
            value=round(flow.relative_solids, 3),
            allowed="less powder or more liquid, until the powder fills less than 100 %",
            field="amounts",
        )


def poured_for(want: Want, pours: Sequence[Pour]) -> float:
    """How many ml to pour altogether for `want`, which must not be by area.

    Raises ImpossibleRecipe for a part that is not in the mix.
    """
    yield_per_ml = sum(p.adds_ml for p in pours)
    match want:
        case FromTotal(ml=ml):
            return ml / yield_per_ml
        case FromVessel(ml=ml):
            return ml * (1 - HEADROOM) / yield_per_ml
        case FromPart(component=component, unit=unit, quantity=quantity):
            for pour in pours:
                one = pour.poured_ml if unit == "ml" else pour.mass_g
                if pour.component.id == component and one > 0:
                    return quantity / one
            raise ImpossibleRecipe(
                f"The mix holds no {component}, so it cannot be measured by it.",
                value=component,
                allowed=", ".join(p.component.id for p in pours if p.poured_ml > 0),
                field="want/component",
            )
        case _:
            raise ImpossibleRecipe(
                "An amount by area needs a piece to take it from.",
                value="area",
                allowed="a total, a part or a vessel",
                field="want",
            )


def _wanted_step(want: Want, volume: float) -> Step:
    match want:
        case FromVessel(ml=ml):
            how = f"{tidy(ml)} ml × {1 - HEADROOM:.0%}, room to stir"
            return Step("Fits the vessel", how, volume, "ml", "your choice")
        case FromPart(component=component, unit=unit, quantity=quantity):
            how = f"from {tidy(quantity)} {unit} of {component}"
            return Step("What that makes", how, volume, "ml", "your choice")
        case _:
            return Step("Amount wanted", "as given", volume, "ml", "your choice")


def _source(given: str) -> SourceKind:
    return "measured" if given == "measured" else "label" if given == "label" else "starting value"


def _part(pour: Pour, volume: Figure, poured_ml: float, per_paint: float | None, mass: float, bench: Pouring) -> Part:
    component, material = pour.component, pour.material
    amount = poured_ml * pour.poured_ml
    how = f"{tidy(poured_ml)} ml as poured × {pour.poured_ml:.3g}"
    poured = volume.then(Step(component.name, how, amount, "ml", "geometry", "its share of the whole, as poured"))
    grams = amount * material.bulk_density
    weigh = Step(
        f"{component.name}, weighed",
        f"{tidy(amount)} ml × {material.bulk_density:.3g} g/ml",
        grams,
        "g",
        _source(material.sources.get("bulk_density", "")),
        material.provenance,
    )
    tints = bench.tints.get(component.id, ())
    whole = sum(t.parts for t in tints)
    paints = tuple(
        Paint(t.name, t.hex, t.parts, amount * t.parts / whole, grams * t.parts / whole,
              spoken(amount * t.parts / whole, bench.system))
        for t in tints
    )  # fmt: skip
    colour = bench.colours.get(component.id, Colour("", material.hex))
    return Part(
        component.id,
        component.name,
        component.role,
        material.slug,
        component.stage,
        blended(tints, bench.optics) if tints else colour.hex,
        colour.name,
        material.is_solid,
        poured,
        poured.then(weigh),
        poured_ml * pour.adds_ml,
        pour.poured_ml,
        pour.mass_g / mass,
        per_paint,
        spoken(amount, bench.system),
        paints,
    )


def mix(recipe: Recipe, pours: Sequence[Pour], want: Want, needed: Figure | None, bench: Pouring,
        flow: Thickness | None = None) -> Mix:  # fmt: skip
    """The batch of a recipe: `needed` ml of finished mix when that comes from an area, else as `want` says.

    `flow` is how it flows, when that is known already.
    Raises ImpossibleRecipe for crumbs and for a part that is not in the mix.
    """
    if flow is None:
        flow = thickness(ingredients(pours), bench.scale)
    refuse_crumbs(recipe, flow)
    yield_per_ml = sum(p.adds_ml for p in pours)
    if needed is None:
        poured_ml = poured_for(want, pours)
        made = poured_ml * yield_per_ml
        volume = Figure(made, "ml", (_wanted_step(want, made),))
    else:
        poured_ml, volume = needed.value / yield_per_ml, needed
    chain = volume
    if yield_per_ml < 1 - 1e-9:
        how = f"{tidy(volume.value)} ml ÷ {yield_per_ml:.3g}: powder is mostly air"
        chain = volume.then(Step("To pour altogether", how, poured_ml, "ml", "starting value"))
    paint = sum(p.poured_ml for p in pours if p.component.role == "paint")
    one_mass = sum(p.mass_g for p in pours)
    parts = tuple(_part(p, chain, poured_ml, p.poured_ml / paint if paint else None, one_mass, bench) for p in pours)
    mass = poured_ml * one_mass
    strata = [(p.component, p.name, p.hex, p.solid, p.poured.value, p.adds_ml) for p in parts]
    return Mix(
        bench.pot.id if bench.pot else "",
        bench.pot.name if bench.pot else "",
        recipe.slug,
        recipe.name,
        recipe.measured_by,
        volume,
        poured_ml,
        mass,
        mass / volume.value,
        flow,
        recipe.target,
        parts,
        draw(strata, bench.vessels, bench.system),
    )


def pots_of(layer: Layer) -> tuple[Pot, ...]:
    """The layer's pots; a layer without any is one pot with the layer's own colours."""
    return layer.pots or (Pot("", "", 1.0, layer.colours, layer.tints),)
