"""What is done to a piece, and what holds between one thing done and another: the order of work as values."""

from dataclasses import dataclass, field
from typing import Literal

from ..layers.drying import Wait
from ..value import Value

Kind = Literal[
    "lay out", "prepare", "mask", "seal edges", "mix", "rest", "stir", "lay", "part-dry", "wipe back", "lift tape",
    "clean", "buff", "sand", "dust off", "dry", "clear away", "refit", "cure",
]  # fmt: skip
"""What an operation is. "rest" and "cure" pass by themselves; "dry" is holding warm air to it."""


LIVES = {"within life", "keeps"}
"""Kinds of constraint that end with a mix."""


@dataclass(frozen=True)
class TintPart(Value):
    """One of the paints a part's colour is mixed from."""

    name: str
    hex: str
    parts: float
    ml: float
    g: float


@dataclass(frozen=True)
class PartPoured(Value):
    """What is poured of one part of a mix, with its colour and the paints that is mixed from."""

    component: str
    name: str
    colour: str
    hex: str
    ml: float
    g: float
    tints: tuple[TintPart, ...] = ()


@dataclass(frozen=True)
class Amounts(Value):
    """What goes into a pot, and where it goes, in ml of the finished mix.

    mixed = laid + lost + margin + left. `from_last_ml` is what it begins from, left of an earlier pot; what is poured
    makes the rest. `short_ml` is what an amount that was given falls short of the surface.
    """

    mixed_ml: float
    laid_ml: float
    lost_ml: float
    margin_ml: float
    left_ml: float
    parts: tuple[PartPoured, ...]
    from_last_ml: float = 0.0
    rinse_ml: float = 0.0
    short_ml: float = 0.0


@dataclass(frozen=True)
class Operation(Value):
    """One thing that is done: what for, how, how long, with what, and what right looks like.

    `id` is made of zone, layer, coat, pot, batch, patch and kind, so that it stays when others come and go.
    """

    id: str
    kind: Kind
    says: str
    job: str = ""
    zone: str = ""
    zone_name: str = ""
    layer: str = ""
    number: int = 0
    """The layer's place in its stack, from 1; 0 where it is for no layer."""
    coat: int = 0
    coats: int = 0
    pot: str = ""
    batch: str = ""
    patch: int = 0
    patches: int = 0
    area_m2: float = 0.0
    film_ml: float = 0.0
    """What it lays on the surface, wet."""
    hands_on_min: float = 0.0
    lasts_min: float = 0.0
    """Minutes that pass by themselves, hands free."""
    tools: tuple[str, ...] = ()
    amounts: Amounts | None = None
    how: tuple[str, ...] = ()
    check: str = ""
    take_care: tuple[str, ...] = ()
    """Cautions in full, where they first matter."""
    remember: tuple[str, ...] = ()
    """Cautions already given in full, in few words."""
    rescues: tuple[str, ...] = ()
    makes_dust: bool = False
    judged: str = ""
    """What of it is judged by eye, by slug; "" for nothing."""
    sanded: int = 0
    """How many times its layer has been sanded once it is done."""
    tape_m: float = 0.0
    """The tape it takes by its layout, on all like pieces."""
    at_min: float = 0.0
    """When it begins at the earliest, for one painter: minutes after the job is begun, below zero before it."""

    @property
    def takes_min(self) -> float:
        """Minutes from its beginning to its end."""
        return self.hands_on_min + self.lasts_min

    @property
    def ends_min(self) -> float:
        """When it ends."""
        return self.at_min + self.takes_min


@dataclass(frozen=True)
class Constraint(Value):
    """What holds between two operations, named by their ids.

    "after": `then` begins when `first` has ended. "at least": a wait lies between. "at most": no more than a wait.
    "within life": `then` ends while the mix of `first` lives, which air may shorten and never lengthens; "keeps": the
    same of a mix that was kept for a later sitting. "not beside": `then` makes dust, and is not done while what `first`
    laid is wet.
    `since` and `until` say from which end of `first` to which end of `then` is counted.
    """

    kind: Literal["after", "at least", "at most", "within life", "keeps", "not beside"]
    first: str
    then: str
    wait: Wait = field(default=Wait(0.0))
    since: Literal["start", "end"] = "end"
    until: Literal["start", "end"] = "start"
    why: str = ""
    remedy: str = ""
    """What is done where it could not be kept."""
