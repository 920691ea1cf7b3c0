"""Acts at the bench, one value each: what was poured, seen, kept. They are only ever added; what is so is replayed.

Amounts are grams. What was measured by volume is weighed by the density it was planned with, which the act carries.
"""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Gt, Interval, MaxLen

from ..book.materials import Role
from ..value import Name, NotNegative, Positive, Slug, Value

PotId = Annotated[str, MaxLen(80)]
Grams = Annotated[float, Gt(0), Interval(le=1_000_000)]
Text = Annotated[str, MaxLen(500)]
Named = Annotated[str, MaxLen(64)]
PhotoName = Annotated[str, MaxLen(64)]

Closed = Literal["open", "wrapped", "lid"]
"""How a vessel is closed while it stands."""
By = Literal["scale", "weighed", "fillings", "feel"]
"""How an amount is known: from the scale as it was poured, read off another, counted fillings, or by feel."""
SPREAD: dict[By, float] = {"scale": 0.0, "weighed": 0.005, "fillings": 0.04, "feel": 0.25}
"""How far off an amount may be, as a share of it (one standard deviation), beside what the scale itself is off.
Untested starting values."""
Verdict = Literal["", "as wanted", "good enough", "not again"]


@dataclass(frozen=True)
class Stuff(Value):
    """Something that was poured, as it was then: what it is, its colour, and g per ml with and without its air."""

    component: Slug
    material: Slug
    name: Name
    role: Role
    solid: bool
    bulk_density: Positive
    true_density: Positive
    colour: Annotated[str, MaxLen(120)] = ""
    hex: Annotated[str, MaxLen(7)] = ""

    @property
    def key(self) -> str:
        """What tells it from all else: paints of two colours are two things."""
        tinted = self.role in {"paint", "pigment"}
        return f"{self.material}|{self.colour}|{self.hex}" if tinted else self.material


@dataclass(frozen=True)
class Begun(Value):
    """A pot is begun: the batch it is mixed as, by its id on the sheet and by the code it was frozen under.

    What is said of the batch is filled in by whoever keeps the log: as it was planned when it was begun.
    """

    act: Literal["begun"]
    pot: PotId
    batch: Annotated[str, MaxLen(400)]
    code: Annotated[str, MaxLen(20)] = ""
    name: Annotated[str, MaxLen(240)] = ""
    colour: Annotated[str, MaxLen(400)] = ""
    hex: Annotated[str, MaxLen(7)] = ""
    vessel: Annotated[str, MaxLen(120)] = ""
    recipe: Annotated[str, MaxLen(80)] = ""
    technique: Annotated[str, MaxLen(80)] = ""
    target: Annotated[str, MaxLen(80)] = ""
    zones: Annotated[tuple[Annotated[str, MaxLen(120)], ...], MaxLen(60)] = ()
    laid_ml: NotNegative = 0.0
    """What was planned for the surface."""
    lost_ml: NotNegative = 0.0
    """What was planned for pot and tool to keep."""
    rate_factor: Positive = 1.0
    """What the log had made of the rate by then."""


@dataclass(frozen=True)
class Poured(Value):
    """Something was poured into a pot. `said` is what was counted or read, in words."""

    act: Literal["poured"]
    pot: PotId
    stuff: Stuff
    g: Grams
    by: By
    said: Annotated[str, MaxLen(120)] = ""
    rescue: bool = False
    """Whether it was added to set the thickness right, not by the plan."""


@dataclass(frozen=True)
class Tared(Value):
    """A pot stands on the scale: from here it is weighed. `shown_g` is what the scale showed with `known_g` in the pot;
    `boot`, `tare` and `unit` tell that zero of the scale from any other."""

    act: Literal["tared"]
    pot: PotId
    boot: Annotated[str, MaxLen(16)]
    tare: Annotated[int, Interval(ge=0, le=1_000_000)]
    unit: Literal["g", "oz", "lb"]
    shown_g: Annotated[float, Interval(ge=-1_000_000, le=1_000_000)]
    known_g: Annotated[float, Interval(ge=0, le=1_000_000)]


@dataclass(frozen=True)
class TakenOut(Value):
    """Some of what was poured last is taken out again, before anything is stirred."""

    act: Literal["taken out"]
    pot: PotId
    pour: Named
    """The event it was poured with."""
    g: Grams


@dataclass(frozen=True)
class FromJar(Value):
    """A pot begins from what is left in another: so many grams of it, as it is mixed."""

    act: Literal["from jar"]
    pot: PotId
    jar: PotId
    g: Grams


@dataclass(frozen=True)
class Settled(Value):
    """How large the pot is to become, as a multiple of what was planned: the painter's choice after a pour too far."""

    act: Literal["settled"]
    pot: PotId
    times: Annotated[float, Interval(gt=0, le=100)] | None = None
    """None is as large as the shares want."""


@dataclass(frozen=True)
class Stirred(Value):
    """All of it is stirred together: from here on nothing is taken out by itself."""

    act: Literal["stirred"]
    pot: PotId


@dataclass(frozen=True)
class Looked(Value):
    """What the mix looked like: a word of the ladder, and how that was found."""

    act: Literal["looked"]
    pot: PotId
    word: Slug
    test: Literal["stick", "peak", "streak", "sag", "flow cup", "eye"] = "eye"
    said: Annotated[str, MaxLen(120)] = ""


@dataclass(frozen=True)
class LostWater(Value):
    """Water left a standing pot, as it was weighed, or as is estimated from how it stood."""

    act: Literal["lost water"]
    pot: PotId
    g: Grams
    by: Literal["weighed", "estimate"]


@dataclass(frozen=True)
class Left(Value):
    """What is left in a pot once work is over: so many grams, kept so. 0 is an empty pot."""

    act: Literal["left"]
    pot: PotId
    g: Annotated[float, Ge(0), Interval(le=1_000_000)]
    by: By
    closed: Closed = "lid"
    place: Annotated[str, MaxLen(120)] = ""


@dataclass(frozen=True)
class Discarded(Value):
    """What was left is thrown away."""

    act: Literal["discarded"]
    pot: PotId
    why: Text = ""


@dataclass(frozen=True)
class Went(Value):
    """How an operation went: how much of its surface was done, how it came out, what is to be remembered."""

    act: Literal["went"]
    share: Annotated[float, Interval(ge=0, le=2)] = 1.0
    """Of the surface it was planned for; above 1 where more was done."""
    verdict: Verdict = ""
    text: Annotated[str, MaxLen(2000)] = ""
    photographs: Annotated[tuple[PhotoName, ...], MaxLen(12)] = ()
    recording: Annotated[str, MaxLen(64)] = ""


@dataclass(frozen=True)
class SawDry(Value):
    """What was found of a film that dries: dry by now, or not yet, with how much longer it is left."""

    act: Literal["saw dry"]
    constraint: Annotated[str, MaxLen(1000)]
    dry: bool
    more_min: Annotated[float, Interval(ge=0, le=14 * 24 * 60)] = 0.0
    planned_min: NotNegative = 0.0
    """How long it was to take, as it was planned then without what was seen; filled in by whoever keeps the log."""
    after_min: NotNegative = 0.0
    """How long it had dried by then; filled in likewise."""
    recipe: Annotated[str, MaxLen(80)] = ""
    factor: Positive = 1.0
    """What the log had made of the wait by then."""


PotAct = Begun | Tared | Poured | TakenOut | FromJar | Settled | Stirred | Looked | LostWater | Left | Discarded
"""What is done to a pot."""
Act = PotAct | Went | SawDry
"""What is done at the bench beside beginning and ending an operation."""


@dataclass(frozen=True)
class Noted:
    """An act, with what it was noted as and when (minutes since 1970 UTC)."""

    event: str
    act: PotAct
    at_min: float
