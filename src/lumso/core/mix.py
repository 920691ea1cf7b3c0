"""A mix: a recipe's components as amounts to pour and to weigh, and what they come to."""

from collections.abc import Sequence
from dataclasses import dataclass

from .consistency import Ingredient, Thickness, thickness
from .errors import ImpossibleRecipe
from .jar import Jar, draw
from .job import Colour, FromPart, FromTotal, FromVessel, Layer, Want
from .materials import Consistency, Vessel
from .measures import MeasureSystem, Spoken, spoken
from .recipes import Pour, Recipe
from .value import Value
from .working import Figure, Step, tidy


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
    per_paint: float | None
    spoken: Spoken


@dataclass(frozen=True)
class Mix(Value):
    """A batch as planned. `volume` is what it yields; `naive_ml` what adding up the poured volumes would say."""

    recipe: str
    name: str
    volume: Figure
    naive_ml: float
    mass_g: float
    density: float
    thickness: Thickness
    target: str
    parts: tuple[Part, ...]
    jar: Jar


def ingredients(pours: Sequence[Pour], factor: float = 1.0) -> list[Ingredient]:
    """The pours as the consistency model wants them, `factor` ml as poured altogether."""
    return [Ingredient(p.material, p.poured_ml * factor, p.adds_ml * factor, p.mass_g * factor) for p in pours]


def refuse_crumbs(recipe: Recipe, flow: Thickness) -> None:
    """Raise ImpossibleRecipe for amounts that make crumbs: there is not liquid enough to wet the powder."""
    if flow.state == "crumbs":
        raise ImpossibleRecipe(
            f"These amounts of {recipe.name} make crumbs, not paint: the swollen powder fills "
            f"{flow.crowding:.0%} of the room it has.",
            value=round(flow.crowding, 3),
            allowed="less powder or more liquid, until the powder fills less than 100 %",
            field="amounts",
        )


def poured_for(want: Want, pours: Sequence[Pour]) -> float:
    """How many ml to pour altogether for `want` (not by area). Raises ImpossibleRecipe for a part that is not in it."""
    yield_per_ml = sum(p.adds_ml for p in pours)
    match want:
        case FromTotal(ml=ml):
            return ml / yield_per_ml
        case FromVessel(ml=ml):
            return ml * 0.85 / yield_per_ml
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
            raise ValueError("an amount by area needs an area")


def _wanted_step(want: Want, volume: float) -> Step:
    match want:
        case FromVessel(ml=ml):
            return Step("Fits the vessel", f"{tidy(ml)} ml × 85 %, room to stir", volume, "ml", "your choice")
        case FromPart(component=component, unit=unit, quantity=quantity):
            how = f"from {tidy(quantity)} {unit} of {component}"
            return Step("What that makes", how, volume, "ml", "your choice")
        case _:
            return Step("Amount wanted", "as given", volume, "ml", "your choice")


def _part(pour: Pour, volume: Figure, poured_ml: float, per_paint: float | None, layer: Layer,
          system: MeasureSystem) -> Part:  # fmt: skip
    component, material = pour.component, pour.material
    amount = poured_ml * pour.poured_ml
    how = f"{tidy(poured_ml)} ml as poured × {pour.poured_ml:.3g}"
    poured = volume.then(Step(component.name, how, amount, "ml", "geometry", "its share of the whole, as poured"))
    grams = amount * material.bulk_density
    source = material.sources.get("bulk_density", "starting value")
    weigh = Step(
        f"{component.name}, weighed",
        f"{tidy(amount)} ml × {material.bulk_density:g} g/ml",
        grams,
        "g",
        "measured" if source == "measured" else "label" if source == "label" else "starting value",
        material.provenance,
    )
    colour = layer.colours.get(component.id, Colour("", material.hex))
    return Part(
        component.id,
        component.name,
        component.role,
        material.slug,
        component.stage,
        colour.hex,
        colour.name,
        material.is_solid,
        poured,
        poured.then(weigh),
        amount * pour.adds_ml / pour.poured_ml if pour.poured_ml else 0.0,
        pour.poured_ml,
        per_paint,
        spoken(amount, system),
    )


def mix(
    recipe: Recipe,
    pours: Sequence[Pour],
    layer: Layer,
    needed: Figure | None,
    system: MeasureSystem,
    scale: Sequence[Consistency],
    vessels: Sequence[Vessel],
) -> Mix:
    """The batch for a layer: `needed` ml of finished mix when that comes from an area, else as the layer wants.

    Raises ImpossibleRecipe for crumbs and for a part that is not in the mix.
    """
    flow = thickness(ingredients(pours), scale)
    refuse_crumbs(recipe, flow)
    yield_per_ml = sum(p.adds_ml for p in pours)
    if needed is None:
        poured_ml = poured_for(layer.want, pours)
        made = poured_ml * yield_per_ml
        volume = Figure(made, "ml", (_wanted_step(layer.want, made),))
    else:
        poured_ml, volume = needed.value / yield_per_ml, needed
    chain = volume
    if yield_per_ml < 1 - 1e-9:
        how = f"{tidy(volume.value)} ml ÷ {yield_per_ml:.3g}: powder is mostly air"
        chain = volume.then(Step("To pour altogether", how, poured_ml, "ml", "starting value"))
    paint = sum(p.poured_ml for p in pours if p.component.role == "paint")
    parts = tuple(_part(p, chain, poured_ml, p.poured_ml / paint if paint else None, layer, system) for p in pours)
    mass = sum(p.mass.value for p in parts)
    strata = [(p.component, p.name, p.hex, p.solid, p.poured.value, p.adds_ml) for p in parts]
    return Mix(
        recipe.slug,
        recipe.name,
        volume,
        poured_ml,
        mass,
        mass / volume.value,
        flow,
        recipe.target,
        parts,
        draw(strata, vessels, system),
    )
