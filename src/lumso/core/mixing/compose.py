"""What one ml of a recipe is made of: amounts as one small linear system."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ..book.materials import Material
from ..book.recipes import Amount, Component, Dose, Recipe, VolumeParts, VolumeShare, WeightParts, WeightShare
from ..errors import ImpossibleRecipe, InvalidValue, UnknownEntry


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


def _solved(rows: list[list[float]], sums: list[float]) -> list[float] | None:
    """The unknowns of a square system of linear equations, by elimination with pivots; None for no one answer.

    A recipe has a dozen components at most: to load a package for linear algebra takes longer than all recipes do.
    """
    left = [[*row, total] for row, total in zip(rows, sums, strict=True)]
    size = len(left)
    for column in range(size):
        pivot = max(range(column, size), key=lambda r: abs(left[r][column]))
        if abs(left[pivot][column]) < 1e-12:
            return None
        left[column], left[pivot] = left[pivot], left[column]
        head = left[column]
        for r in range(size):
            if r != column and left[r][column]:
                by = left[r][column] / head[column]
                left[r] = [a - by * b for a, b in zip(left[r], head, strict=True)]
    return [row[size] / row[k] for k, row in enumerate(left)]


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
    poured = _solved(rows, sums)
    if poured is None or min(poured) < -1e-9:
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
