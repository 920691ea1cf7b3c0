"""What goes into a pot, and what it goes onto and is put on with: the entries the computation reads."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from annotated_types import Interval

from ..value import Fraction, Name, NotNegative, Positive, Slug, Value
from .colours import Entered, Hex

Role = Literal["paint", "medium", "water", "powder", "pigment", "wax", "thinner", "sealer", "grit", "additive"]
Relative = Annotated[float, Interval(ge=1, le=6)]


MaterialTrait = Literal["caustic", "binds itself", "sets hard", "can mould", "retards", "silica"]
"""What a material does beside colouring and thickening: burns skin, holds with no binder added, sets to stone in a
drain, moulds where it is damp, keeps a mix open, may hold silica that is breathed in."""


@dataclass(frozen=True)
class LiquidTrend(Value):
    """How thick a powder makes its water on its own, before its grains are counted.

    At `water_per_powder` parts of water to one of powder (as poured) the liquid has `viscosity_mpa_s`.
    """

    water_per_powder: Positive
    viscosity_mpa_s: Positive


@dataclass(frozen=True)
class Material(Value):
    """One thing that is poured, spooned or weighed.

    `bulk_density` is g per ml as measured out, `true_density` g per ml of what it adds to a mix (for a liquid
    the same). `swelling` and `packing_limit` say how strongly grains thicken: the share of grains, times
    their swelling, at which a mix stops flowing is the packing limit.
    """

    slug: Slug
    name: Name
    kind: Literal["liquid", "powder", "paste"]
    role: Role
    bulk_density: Positive
    true_density: Positive
    provenance: str
    swelling: Relative = 1.0
    packing_limit: Fraction = 0.0
    water_by_weight: Fraction = 0.0
    """The share of a liquid's weight that is water: what salts can dissolve in."""
    solvent_by_weight: Fraction = 0.0
    """The share of its weight that is solvent or spirit, and leaves as it dries."""
    dissolves_g_per_g: NotNegative = 0.0
    """How much of a salt dissolves in a gram of water; what dissolves does not thicken."""
    swells_on_setting: Annotated[float, Interval(ge=1, le=2)] = 1.0
    """What setting does to the swollen share: plaster binds water as it sets."""
    thickens_min: NotNegative = 0.0
    """Minutes in which it swells to the better part (1 − 1/e) of what it will; 0 where that is at once."""
    viscosity_mpa_s: NotNegative = 0.0
    yield_stress_pa: NotNegative = 0.0
    holds_up_to_water: Annotated[float, Interval(ge=0, le=20)] = 0.0
    """Grunberg–Nissan interaction with water: 0 for most, about 6 for paints that stay paint at 20 % water."""
    liquid_trend: tuple[LiquidTrend, ...] = ()
    hex: Hex = "#e8e6e1"
    """The colour it is drawn in until the user says otherwise."""
    entered: Entered = "dry"
    """In which state that colour is."""
    label_rate_ml_per_m2: NotNegative = 0.0
    """The spreading rate on its label, as ml for a m²; 0 when unknown."""
    hiding: Fraction = 0.0
    """Contrast ratio over black and white at its reference rate; 0 when unknown."""
    scattering: NotNegative = 0.0
    """S·X of one full coat as measured on a tint board or a draw-down; 0 when unknown."""
    film: str = ""
    """The film it dries to where it is the paint of a recipe; "" where that is as the recipe says."""
    sources: dict[str, str] = field(default_factory=dict)
    """Values that are no longer starting values: field name to where the value now comes from."""
    notes: str = ""
    traits: tuple[MaterialTrait, ...] = ()

    @property
    def is_solid(self) -> bool:
        """Whether it is measured with air between its grains."""
        return self.kind == "powder"


@dataclass(frozen=True)
class Vessel(Value):
    """Something to mix in."""

    slug: Slug
    name: Name
    capacity_ml: Positive


Cling = Literal["water-thin", "cream", "paint", "batter", "frosting"]


@dataclass(frozen=True)
class Consistency(Value):
    """A food word painters judge by, and what the stick shows."""

    slug: Slug
    name: Name
    viscosity_mpa_s: Positive
    yield_stress_pa: NotNegative
    looks: str
    cling: Cling


@dataclass(frozen=True)
class PotLoss(Value):
    """What stays on the wall of a pot: a share of the mix, and never less than `least_ml` a batch."""

    cling: Cling
    share: Fraction
    least_ml: NotNegative

    @property
    def slug(self) -> str:
        """What it is kept by."""
        return self.cling

    @property
    def name(self) -> str:
        """What it is called in a sentence."""
        return f"what stays in the pot, {self.cling}"
