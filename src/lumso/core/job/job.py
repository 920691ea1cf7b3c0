"""The job: a piece, its zones, and the layers each zone gets. The one thing everything else is about."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from annotated_types import Interval, Len, MaxLen

from ..book.catalogue import Entries
from ..book.colours import Colour, Pot, Tint
from ..book.preparation import Sanding
from ..book.recipes import Amount
from ..piece.piece import Piece
from ..value import Name, Slug, Value

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
    sand_after: Sanding | None = None


@dataclass(frozen=True)
class Acceptance(Value):
    """A finding that a painter means: the rule, the layer above its boundary ("" for the top), and the reason."""

    rule: Slug
    layer: str
    reason: Annotated[str, MaxLen(200)] = ""


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
    finish: str = ""
    """The finish of the library its stack began as; "" for none."""
    prep: Annotated[tuple[Slug, ...], MaxLen(30)] = ()
    """What is done to the ground first, in order."""
    accepted: Annotated[tuple[Acceptance, ...], MaxLen(60)] = ()


@dataclass(frozen=True)
class Use(Value):
    """What the piece must stand, and what lies under the new finish."""

    touched_by: tuple[
        Literal["hands", "water", "heat", "food", "feet", "children", "weather", "an unknown buyer"], ...
    ] = ()
    old_finish: Literal["none", "of known age", "of unknown age"] = "none"


@dataclass(frozen=True)
class Job(Value):
    """A job file. `piece` is None for a quick pot: a mix with nothing to put it on yet."""

    format: Literal["lumso-job"]
    version: Literal[4]
    name: Name
    zones: Annotated[tuple[Zone, ...], Len(1, MOST_ZONES)]
    piece: Piece | None = None
    use: Use = field(default_factory=Use)
    entries: Entries = field(default_factory=Entries)
