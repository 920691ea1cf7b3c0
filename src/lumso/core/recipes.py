"""A recipe is more than a ratio: components with roles and limits, a target, a life, steps and cautions."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

import numpy as np
from annotated_types import Interval, Len

from .errors import ImpossibleRecipe, InvalidValue, UnknownEntry
from .materials import Material, Role
from .value import Fraction, Name, NotNegative, Positive, Slug, Value

OpenShare = Annotated[float, Interval(ge=0, lt=1)]


@dataclass(frozen=True)
class VolumeParts(Value):
    """Parts by volume, as poured: the 1 and the ¾ of "1 : ¾"."""

    by: Literal["volume-parts"]
    parts: NotNegative


@dataclass(frozen=True)
class WeightParts(Value):
    """Parts by weight."""

    by: Literal["weight-parts"]
    parts: NotNegative


@dataclass(frozen=True)
class VolumeShare(Value):
    """A share of the whole by volume as poured: 0.75 for "75 % water"."""

    by: Literal["volume-share"]
    share: OpenShare


@dataclass(frozen=True)
class WeightShare(Value):
    """A share of the whole by weight: 0.05 for "5 % pigment in wax"."""

    by: Literal["weight-share"]
    share: OpenShare


@dataclass(frozen=True)
class Dose(Value):
    """So many ml for so many ml of another component: 2.5 ml per 60 ml of paint."""

    by: Literal["dose"]
    ml: NotNegative
    per_ml: Positive
    of: Slug


Amount = VolumeParts | WeightParts | VolumeShare | WeightShare | Dose


@dataclass(frozen=True)
class Component(Value):
    """One thing in a recipe, in the order it goes into the pot."""

    id: Slug
    name: Name
    material: Slug
    role: Role
    amount: Amount
    stage: str = ""
    """What is made with it first, when it does not go straight into the pot: "paste", "first mix"."""
    stated_share: OpenShare | None = None
    """What the recipe's author says its share of the whole is, when that is written beside the parts."""
    note: str = ""


@dataclass(frozen=True)
class Limit(Value):
    """How much of a component a mix may hold, by ground and method, and why. Shares of the whole, as poured."""

    component: Slug
    least: Fraction
    most: Fraction
    reason: str
    provenance: str
    surfaces: tuple[str, ...] = ()
    """Kinds of surface it holds for; empty for any."""
    techniques: tuple[Slug, ...] = ()
    """Techniques it holds for; empty for any."""


@dataclass(frozen=True)
class School(Value):
    """A way some painters do it differently: its reason, and the amounts it changes."""

    slug: Slug
    name: Name
    reason: str
    amounts: dict[str, Amount]


@dataclass(frozen=True)
class Recipe(Value):
    """A mix as the recipe book holds it. Lives are minutes; an unknown one is None: read the label."""

    slug: Slug
    name: Name
    family: Name
    looks: str
    components: Annotated[tuple[Component, ...], Len(1, 12)]
    target: Slug
    """The consistency aimed at."""
    techniques: tuple[Slug, ...]
    surfaces: tuple[str, ...]
    steps: tuple[str, ...]
    provenance: str
    dial: Slug | None = None
    """The component painters turn up and down: water in a wash."""
    limits: tuple[Limit, ...] = ()
    schools: tuple[School, ...] = ()
    default_school: str = ""
    """Why the amounts given here are the default."""
    rest_min: NotNegative = 0.0
    working_life_min: NotNegative | None = None
    life_starts: Literal["when ready", "when wetted"] = "when ready"
    keeping_life_days: NotNegative | None = None
    measured_by: Literal["volume", "weight"] = "volume"
    film: str = ""
    """The film it dries to; "" when nobody has said, and then its materials tell."""
    cautions: tuple[str, ...] = ()

    def component(self, slug: str) -> Component:
        """The component with that id. Raises InvalidValue naming the ones there are."""
        for component in self.components:
            if component.id == slug:
                return component
        known = ", ".join(c.id for c in self.components)
        raise InvalidValue(
            f"{self.name} has no component {slug!r}.",
            value=slug,
            allowed=f"one of {known}",
            field="component",
        )


@dataclass(frozen=True)
class Pour:
    """A component's place in one ml of a recipe as poured: how much is measured out, what it weighs and adds."""

    component: Component
    material: Material
    poured_ml: float
    mass_g: float
    adds_ml: float


def with_amounts(recipe: Recipe, amounts: Mapping[str, Amount]) -> Recipe:
    """The recipe with some components' amounts changed. Raises InvalidValue for an unknown component."""
    for slug in amounts:
        recipe.component(slug)
    changed = tuple(replace(c, amount=amounts.get(c.id, c.amount)) for c in recipe.components)
    return replace(recipe, components=changed)


def with_school(recipe: Recipe, slug: str) -> Recipe:
    """The recipe as one of its schools mixes it; "" is the default. Raises InvalidValue for an unknown one."""
    if not slug:
        return recipe
    for school in recipe.schools:
        if school.slug == slug:
            return with_amounts(recipe, school.amounts)
    known = ", ".join(s.slug for s in recipe.schools) or "none"
    raise InvalidValue(f"{recipe.name} has no school {slug!r}.", value=slug, allowed=known, field="school")


def _equation(row: int, recipe: Recipe, density: Sequence[float], first: int | None) -> list[float]:
    """One linear equation in the poured volumes: coefficients that must sum to zero."""
    amount, n = recipe.components[row].amount, len(recipe.components)
    line = [0.0] * n
    match amount:
        case VolumeParts() | WeightParts():
            assert first is not None
            base = recipe.components[first].amount
            assert isinstance(base, VolumeParts | WeightParts)
            weighed = isinstance(amount, WeightParts)
            line[row] = base.parts * (density[row] if weighed else 1.0)
            line[first] -= amount.parts * (density[first] if weighed else 1.0)
        case VolumeShare(share=share):
            line = [-share] * n
            line[row] += 1.0
        case WeightShare(share=share):
            line = [-share * d for d in density]
            line[row] += density[row]
        case Dose(ml=ml, per_ml=per_ml, of=of):
            line[row] = per_ml
            line[[c.id for c in recipe.components].index(recipe.component(of).id)] -= ml
    return line


def _check_parts(recipe: Recipe) -> None:
    kinds = {c.amount.by for c in recipe.components} & {"volume-parts", "weight-parts"}
    if len(kinds) > 1:
        raise ImpossibleRecipe(
            f"{recipe.name} gives some parts by volume and some by weight.",
            value="parts by volume and by weight",
            allowed="parts of one kind; give the others as a share or a dose",
            field="components",
        )
    shares = [c.amount.share for c in recipe.components if isinstance(c.amount, VolumeShare | WeightShare)]
    if kinds and sum(shares) >= 1:
        raise ImpossibleRecipe(
            f"The shares in {recipe.name} come to {sum(shares):.0%}, which leaves nothing for the parts.",
            value=round(sum(shares), 4),
            allowed="shares that sum to less than 100 %",
            field="components",
        )
    if not kinds and abs(sum(shares) - 1) > 1e-6:
        raise ImpossibleRecipe(
            f"The shares in {recipe.name} come to {sum(shares):.1%}.",
            value=round(sum(shares), 4),
            allowed="shares that sum to 100 %, or one component in parts to make up the rest",
            field="components",
        )


def compose(recipe: Recipe, materials: Mapping[str, Material]) -> tuple[Pour, ...]:
    """What one ml as poured is made of, in the recipe's order; poured volumes sum to 1.

    A component measured as V weighs V·ρ_bulk and adds V·ρ_bulk/ρ_true to the mix: a powder is mostly air.
    Raises ImpossibleRecipe where the amounts contradict each other, UnknownEntry for a material not there.
    """
    _check_parts(recipe)
    for component in recipe.components:
        if component.material not in materials:
            raise UnknownEntry("material", component.material, materials)
    used = [materials[c.material] for c in recipe.components]
    density = [m.bulk_density for m in used]
    parts = [
        i for i, c in enumerate(recipe.components) if isinstance(c.amount, VolumeParts | WeightParts) and c.amount.parts
    ]
    if not parts and not any(isinstance(c.amount, VolumeShare | WeightShare) for c in recipe.components):
        raise ImpossibleRecipe(
            f"{recipe.name} has no amount to start from.",
            value="no parts and no shares",
            allowed="at least one component in parts of more than zero",
            field="components",
        )
    n = len(recipe.components)
    first = parts[0] if parts else None
    skip = first if first is not None else n - 1  # replaced by: the poured volumes sum to one
    rows = [[1.0] * n if i == skip else _equation(i, recipe, density, first) for i in range(n)]
    sums = [1.0 if i == skip else 0.0 for i in range(n)]
    try:
        poured = np.linalg.solve(np.array(rows), np.array(sums)).tolist()
    except np.linalg.LinAlgError:
        poured = [-1.0]
    if min(poured) < -1e-9:
        raise ImpossibleRecipe(
            f"The amounts in {recipe.name} contradict each other.",
            value="amounts",
            allowed="amounts that leave every component at zero or more",
            field="components",
        )
    return tuple(
        Pour(c, m, max(v, 0.0), max(v, 0.0) * m.bulk_density, max(v, 0.0) * m.bulk_density / m.true_density)
        for c, m, v in zip(recipe.components, used, poured, strict=True)
    )
