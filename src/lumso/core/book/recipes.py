"""A recipe is more than a ratio: components with roles and limits, a target, a life, steps and cautions."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, Len

from ..errors import InvalidValue
from ..value import Fraction, Name, NotNegative, Positive, Slug, Value
from .materials import Role

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
    not_over: tuple[str, ...] = ()
    """Kinds of film over which it does not hold."""


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
    wet_rate_ml_per_m2: NotNegative = 0.0
    """What an even, brushed coat of it takes; 0 where that is as its technique says."""
    right_when: str = ""
    """What a good coat of it looks like, where that is not as its technique says."""
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
