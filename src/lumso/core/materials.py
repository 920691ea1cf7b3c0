"""What goes into a pot, and what it goes onto and is put on with: the entries the computation reads."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from annotated_types import Interval, MinLen

from .drawing import Point
from .value import Fraction, Name, NotNegative, Positive, Slug, Value

Role = Literal["paint", "medium", "water", "powder", "pigment", "wax", "thinner", "sealer", "grit", "additive"]
Relative = Annotated[float, Interval(ge=1, le=6)]


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
    dissolves_g_per_g: NotNegative = 0.0
    """How much of a salt dissolves in a gram of water; what dissolves does not thicken."""
    swells_on_setting: Annotated[float, Interval(ge=1, le=2)] = 1.0
    """What setting does to the swollen share: plaster binds water as it sets."""
    viscosity_mpa_s: NotNegative = 0.0
    yield_stress_pa: NotNegative = 0.0
    holds_up_to_water: NotNegative = 0.0
    """Grunberg–Nissan interaction with water: 0 for most, about 6 for paints that stay paint at 20 % water."""
    liquid_trend: tuple[LiquidTrend, ...] = ()
    hex: str = "#e8e6e1"
    """The colour it is drawn in until the user says otherwise."""
    label_rate_ml_per_m2: NotNegative = 0.0
    """The spreading rate on its label, as ml for a m²; 0 when unknown."""
    hiding: Fraction = 0.0
    """Contrast ratio over black and white at its reference rate; 0 when unknown."""
    sources: dict[str, str] = field(default_factory=dict)
    """Values that are no longer starting values: field name to where the value now comes from."""
    notes: str = ""

    @property
    def is_solid(self) -> bool:
        """Whether it is measured with air between its grains."""
        return self.kind == "powder"


GroundTrait = Literal[
    "open grain", "close grain", "tannins", "knots", "blotches", "rusts", "oil-bound", "waxed", "soot", "old coating"
]
"""What a ground does to what is put on it."""


@dataclass(frozen=True)
class Ground(Value):
    """A surface as it is before the first coat."""

    slug: Slug
    name: Name
    surface: Literal["raw wood", "unsealed paint", "sealed", "plaster", "brick", "slick"]
    first_coat_extra_ml_per_m2: NotNegative
    """What the first coat loses into it, beyond the rate of the technique."""
    looks: str
    hex: str
    provenance: str
    traits: tuple[GroundTrait, ...] = ()


@dataclass(frozen=True)
class Relief(Value):
    """How far a surface departs from flat, and what that does to its area."""

    slug: Slug
    name: Name
    factor: Annotated[float, Interval(ge=1, le=3)]
    looks: str
    provenance: str
    profile: Annotated[tuple[Point, ...], MinLen(2)]
    """A section across it, x along the surface and y out of it, in mm: a picture that is as long as it says."""


@dataclass(frozen=True)
class Tool(Value):
    """What the mix is put on with, and what stays in it each time it is taken up dry."""

    slug: Slug
    name: Name
    holds_ml: NotNegative
    provenance: str


Act = Literal["lifts", "rubs in", "drags", "stands in peaks", "levels", "few strokes", "resists", "steers", "tapes",
              "stays in recesses", "stays on peaks", "patchy"]  # fmt: skip


@dataclass(frozen=True)
class PartDry(Value):
    """Work on a coat that is neither wet nor dry: it opens and it closes, in minutes after laying."""

    opens_min: NotNegative
    closes_min: Positive
    what: str
    check: str


@dataclass(frozen=True)
class Fault(Value):
    """What commonly goes wrong with a technique, and how it is rescued."""

    sign: str
    rescue: str


@dataclass(frozen=True)
class Technique(Value):
    """A way of putting a mix on."""

    slug: Slug
    name: Name
    wet_rate_ml_per_m2: Positive
    pace_m2_per_h: Positive
    surfaces: tuple[str, ...]
    """The kinds of surface it is for; empty for any."""
    tools: tuple[Slug, ...]
    """Usual tools, the best first."""
    rate_includes_ground: bool
    """True when the wet rate was taken on its own thirsty ground, so that nothing is added for thirst."""
    how: str
    provenance: str
    touched: Annotated[float, Interval(gt=0, le=1)] = 1.0
    """The share of the surface it usually touches."""
    touched_least: Annotated[float, Interval(gt=0, le=1)] = 1.0
    touched_most: Annotated[float, Interval(gt=0, le=1)] = 1.0
    acts: tuple[Act, ...] = ()
    """What it does beyond laying on."""
    direction: str = ""
    """Which way the strokes go, and in which order."""
    needs_open_min: NotNegative = 0.0
    """How long the mix must stay open for it."""
    lays_m2_per_h: NotNegative = 0.0
    """How fast a section is laid on before it is worked; 0 where it is not worked in sections."""
    passes: Annotated[int, Interval(ge=0, le=10)] = 0
    pass_m2_per_h: NotNegative = 0.0
    tool_width_mm: NotNegative = 0.0
    part_dry: PartDry | None = None
    right_when: str = ""
    faults: tuple[Fault, ...] = ()
    plain: bool = False
    """An even coat, so that a label's spreading rate may stand in for the wet rate."""
    per_mm: bool = False
    """True for textured and trowelled coats: the wet rate is for each mm of mean thickness."""


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
