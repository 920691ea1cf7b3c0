"""The finish library: named stacks with what they look like, what they suit and what they do not."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from annotated_types import Interval, Len

from ..value import Name, Slug, Value
from .colours import Colour, Pot
from .films import UseWord
from .preparation import Sanding
from .recipes import Amount


@dataclass(frozen=True)
class FinishLayer(Value):
    """A layer of a finish. What is not said is as usual for the recipe and the technique."""

    recipe: Slug
    part: Name
    """What it does in the stack: base, texture, contrast, sealer."""
    technique: str = ""
    coats: Annotated[int, Interval(ge=1, le=12)] = 1
    touched: Annotated[float, Interval(gt=0, le=1)] | None = None
    thickness_mm: Annotated[float, Interval(gt=0, le=10)] | None = None
    wait_h: Annotated[float, Interval(ge=0, le=4000)] | None = None
    sandings: tuple[Sanding, ...] = ()
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
    shown_on: Slug = "flat"
    """The relief it is pictured on where no piece says otherwise."""
    ugly: str = ""
    """What the middle looks like when it looks wrong and is not."""
