"""The finish library: named stacks with what they look like, what they suit and what they do not."""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import TYPE_CHECKING, Annotated, Literal

from annotated_types import Interval, Len

from .films import Sanding, UseWord
from .job import Acceptance, Colour, FromArea, Layer, Pot
from .recipes import Amount
from .value import Name, Slug, Value

if TYPE_CHECKING:
    from .workshop import Catalogue


@dataclass(frozen=True)
class FinishLayer(Value):
    """A layer of a finish. What is not said is as usual for the recipe and the technique."""

    recipe: Slug
    part: Name
    """What it does in the stack: base, texture, contrast, sealer."""
    technique: str = ""
    coats: Annotated[int, Interval(ge=1, le=12)] = 1
    touched: Annotated[float, Interval(gt=0, le=1)] | None = None
    thickness_mm: Annotated[float, Interval(gt=0, le=10)] = 1.0
    wait_h: Annotated[float, Interval(ge=0, le=4000)] | None = None
    sand_after: Sanding | None = None
    school: str = ""
    amounts: dict[str, Amount] = field(default_factory=dict)
    colours: dict[str, Colour] = field(default_factory=dict)
    pots: tuple[Pot, ...] = ()


@dataclass(frozen=True)
class Unfit(Value):
    """A ground or a use the finish is not for, and the rule that says so."""

    rule: Slug
    why: str
    ground: str = ""
    use: UseWord | Literal[""] = ""


@dataclass(frozen=True)
class Meant(Value):
    """A finding this finish means: the rule, the number of the layer above its boundary, and the reason."""

    rule: Slug
    layer: int
    reason: str


@dataclass(frozen=True)
class Finish(Value):
    """A finish of the library."""

    slug: Slug
    name: Name
    looks: str
    hard: Literal["a first piece", "some practice", "practised hands"]
    grounds: Annotated[tuple[Slug, ...], Len(1, 20)]
    """The grounds it is recommended on."""
    uses: tuple[UseWord, ...]
    """What it can be made to stand."""
    layers: Annotated[tuple[FinishLayer, ...], Len(1, 20)]
    provenance: str
    sealed: Literal["by use", "as it is"] = "by use"
    """Whether a sealer is added where the use asks for one."""
    unfit: tuple[Unfit, ...] = ()
    meant: tuple[Meant, ...] = ()
    ugly: str = ""
    """What the middle looks like when it looks wrong and is not."""


def layers_of(finish: Finish, surface: str, catalogue: "Catalogue", ids: Iterator[str]) -> tuple[Layer, ...]:
    """The finish's layers for a kind of surface, with ids from `ids`. Raises UnknownEntry."""
    from .starting import technique_for
    from .workshop import pick

    made = []
    for i, one in enumerate(finish.layers):
        recipe = pick("recipe", catalogue.recipes, one.recipe)
        usual = technique_for(recipe, surface if i == 0 else "unsealed paint", catalogue)
        technique = pick("technique", catalogue.techniques, one.technique or usual.slug)
        touched = technique.touched if one.touched is None else one.touched
        layer = Layer(next(ids), recipe.slug, technique.slug, technique.tools[0], FromArea("area"), one.coats)
        made.append(
            replace(
                layer,
                touched=touched,
                thickness_mm=one.thickness_mm,
                wait_h=one.wait_h,
                sand_after=one.sand_after,
                school=one.school,
                amounts=one.amounts,
                colours=one.colours,
                pots=tuple(replace(pot, id=next(ids)) for pot in one.pots),
            )
        )
    return tuple(made)


def acceptances(finish: Finish, layers: tuple[Layer, ...]) -> tuple[Acceptance, ...]:
    """What the finish means, as acceptances of the layers it was made into."""
    above = [layer.id for layer in layers] + [""]
    return tuple(Acceptance(m.rule, above[min(m.layer, len(layers))], m.reason) for m in finish.meant)
