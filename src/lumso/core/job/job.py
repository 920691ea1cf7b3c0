"""The job: a piece, its zones, and the layers each zone gets. The one thing everything else is about."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from annotated_types import Interval, Len, MaxLen

from ..book.catalogue import Entries
from ..book.colours import Colour, Pot, Tint
from ..book.preparation import Sanding
from ..book.recipes import Amount
from ..layout.pattern import Layout
from ..piece.piece import Piece
from ..value import Name, Slug, Value
from .board import Board

MOST_ZONES, MOST_LAYERS, MOST_POTS, MOST_COATS = 60, 40, 12, 12
"""How much a job may hold."""


@dataclass(frozen=True)
class FromArea(Value):
    """As much as the zone's surfaces take."""

    by: Literal["area"]


@dataclass(frozen=True)
class FromTotal(Value):
    """So much of the finished mix."""

    by: Literal["total"]
    ml: Annotated[float, Interval(gt=0, le=200_000)]


@dataclass(frozen=True)
class FromPart(Value):
    """As much as what is left of one component allows."""

    by: Literal["part"]
    component: Slug
    unit: Literal["ml", "g"]
    quantity: Annotated[float, Interval(gt=0, le=400_000)]


@dataclass(frozen=True)
class FromVessel(Value):
    """As much as a vessel of `ml` holds with room to stir."""

    by: Literal["vessel"]
    ml: Annotated[float, Interval(gt=0, le=200_000)]


Want = FromArea | FromTotal | FromPart | FromVessel


DriesBy = Literal["air", "hair dryer", "heat gun", "warm room"]


@dataclass(frozen=True)
class Layer(Value):
    """The coats of one mix on a zone. `amounts` are the recipe's amounts as changed for this layer.

    With `pots` the mix is made several times over, each pot with its share and its own colours; without, once,
    with the layer's `colours` and `tints`.
    """

    id: Slug
    recipe: Slug
    technique: Slug
    tool: Slug
    want: Want
    coats: Annotated[int, Interval(ge=1, le=MOST_COATS)] = 1
    margin: Annotated[float, Interval(ge=0, le=1)] = 0.10
    short_one_in: Annotated[float, Interval(ge=3, le=100)] | None = None
    """It may run short one time in so many, by how much its rate, its area and its losses may be off; None is the flat
    margin."""
    touched: Annotated[float, Interval(gt=0, le=1)] = 1.0
    thickness_mm: Annotated[float, Interval(gt=0, le=10)] = 1.0
    """Mean thickness of a textured or trowelled coat; other coats do not have one."""
    school: str = ""
    amounts: dict[str, Amount] = field(default_factory=dict)
    colours: dict[str, Colour] = field(default_factory=dict)
    tints: dict[str, tuple[Tint, ...]] = field(default_factory=dict)
    pots: Annotated[tuple[Pot, ...], MaxLen(MOST_POTS)] = ()
    wait_h: Annotated[float, Interval(ge=0, le=4000)] | None = None
    """Hours left alone after its last coat; None is as soon as the next coat may follow."""
    coat_wait_h: Annotated[float, Interval(ge=0, le=4000)] | None = None
    """Hours between its coats; None is as soon as the next may follow."""
    sandings: Annotated[tuple[Sanding, ...], MaxLen(6)] = ()
    """What it is sanded and rubbed with once it is dry, in order."""
    dries_by: DriesBy = "air"
    wet_into_wet: bool = False
    """Laid while the layer beneath is damp, and dragged into it, on purpose."""
    second_tool: str = ""
    """What works over what the first tool lays; "" for none."""
    damp_tool: bool = False
    """Taken up damp: it drinks nothing of the mix."""
    wrapped_tool: bool = False
    """Kept wrapped between coats: what stays in it is lost once."""
    kept: Annotated[float, Interval(gt=0, le=1)] | None = None
    """The share of it that wiping leaves; None is as usual for its technique."""
    hides: Annotated[float, Interval(ge=0.1, le=10)] | None = None
    """How many times as strongly it hides as its paint is known to: from a test board; None is as known."""
    materials: dict[str, Slug] = field(default_factory=dict)
    """Materials used in place of the recipe's, by component."""
    stroke: Literal["down", "across", "along each part"] = "down"
    """Which way it is dragged, where it is worked in sections: along each part is with its longer side."""
    second_pair: bool = False
    """A second pair of hands: one lays it on, another works it."""
    layout: Layout | None = None
    """Where on its surfaces it goes; None is wherever its technique touches. With one, `touched` is its share."""


@dataclass(frozen=True)
class Acceptance(Value):
    """A finding that a painter means: the rule, the layer above its boundary ("" for the top), and the reason."""

    rule: Slug
    layer: str
    reason: Annotated[str, MaxLen(200)] = ""


GroundFact = Literal[
    "raised old pattern", "textured old coating", "filler or glue spots", "wallpaper or its paste", "kitchen grease",
    "silicone polish", "resinous knots", "holes to fill", "holes to drill",
]  # fmt: skip
"""What can be seen on a ground before anything is done to it."""

Touch = Literal["hands", "water", "heat", "food", "feet", "children", "weather", "an unknown buyer"]
"""What a finish must stand."""


MOST_VARIANTS = 4
"""How many looks are kept beside the one that is planned."""


@dataclass(frozen=True)
class Variant(Value):
    """Another look of a zone, kept beside the one that is planned, to be compared and chosen."""

    id: Slug
    name: Name
    layers: Annotated[tuple[Layer, ...], MaxLen(MOST_LAYERS)]
    finish: str = ""
    prep: Annotated[tuple[Slug, ...], MaxLen(30)] = ()
    accepted: Annotated[tuple[Acceptance, ...], MaxLen(60)] = ()


@dataclass(frozen=True)
class Zone(Value):
    """A group of surfaces that get one treatment."""

    id: Slug
    name: Name
    ground: Slug
    surfaces: Annotated[tuple[Slug, ...], MaxLen(60)]
    layers: Annotated[tuple[Layer, ...], MaxLen(MOST_LAYERS)]
    relief: Slug = "flat"
    sheen: Literal["unknown", "dead matt", "matt", "eggshell", "satin", "gloss"] = "unknown"
    condition: Literal["sound", "worn", "flaking"] = "sound"
    facts: tuple[GroundFact, ...] = ()
    touched_by: tuple[Touch, ...] | None = None
    """What this zone must stand; None is what the job must."""
    finish: str = ""
    """The finish of the library its stack began as; "" for none."""
    prep: Annotated[tuple[Slug, ...], MaxLen(30)] = ()
    """What is done to the ground first, in order."""
    accepted: Annotated[tuple[Acceptance, ...], MaxLen(60)] = ()
    variants: Annotated[tuple[Variant, ...], MaxLen(MOST_VARIANTS)] = ()


@dataclass(frozen=True)
class Answered(Value):
    """What is known of lead or asbestos in what was there before. Only "none found" and "never coated" close the
    question."""

    answer: Literal["not tested", "test planned", "none found", "found", "never coated"] = "not tested"
    how: Annotated[str, MaxLen(200)] = ""
    on: Annotated[str, MaxLen(40)] = ""
    """When it was tested, as written down."""

    @property
    def settled(self) -> bool:
        """Whether the question is closed."""
        return self.answer in {"none found", "never coated"}


Place = Literal[
    "public room", "outdoors", "reached by ladder", "may freeze", "candles or a fire near it", "children in the house",
    "someone pregnant in the house", "turned on a lathe", "kitchen tools in use",
]  # fmt: skip
"""Facts of where the work is done and where the piece will stand."""


@dataclass(frozen=True)
class Use(Value):
    """What the piece must stand, where, and what is known of what lies under the new finish."""

    touched_by: tuple[Touch, ...] = ()
    lead: Answered = field(default_factory=Answered)
    asbestos: Answered = field(default_factory=Answered)
    place: tuple[Place, ...] = ()

    def there(self, *places: Place) -> bool:
        """Whether any of these is so."""
        return any(p in self.place for p in places)


@dataclass(frozen=True)
class Job(Value):
    """A job file. `piece` is None for a quick pot: a mix with nothing to put it on yet."""

    format: Literal["lumso-job"]
    version: Literal[11]
    name: Name
    zones: Annotated[tuple[Zone, ...], Len(1, MOST_ZONES)]
    piece: Piece | None = None
    use: Use = field(default_factory=Use)
    entries: Entries = field(default_factory=Entries)
    board: Board | None = None
    """What makes it a test board; None for a job of its own."""
    note: Annotated[str, MaxLen(4000)] = ""
    """What the painter wrote down of it."""
    photographs: Annotated[tuple[Annotated[str, MaxLen(64)], ...], MaxLen(40)] = ()
    """Photographs of it, by name, in the order they were taken up."""


def new_job(name: str, zones: Sequence[Zone], piece: Piece | None = None, use: Use | None = None,
            entries: Entries | None = None, board: Board | None = None) -> Job:  # fmt: skip
    """A job of this version."""
    return Job("lumso-job", 11, name, tuple(zones), piece, use or Use(), entries or Entries(), board)


def use_of(zone: Zone, use: Use) -> Use:
    """What a zone must stand: its own, else the job's. What stands outdoors meets weather."""
    touched = use.touched_by if zone.touched_by is None else zone.touched_by
    if use.there("outdoors") and "weather" not in touched:
        touched = (*touched, "weather")
    return replace(use, touched_by=touched)
