"""What a hand does on a board, and what a rehearsal is at one moment: values."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Literal

from annotated_types import Interval

from ..book.flaws import Cause, Shape, Shows
from ..value import Value


@dataclass(frozen=True)
class Go(Value):
    """Do what is next, now."""

    act: Literal["go"]


@dataclass(frozen=True)
class Leave(Value):
    """Leave out what is next."""

    act: Literal["leave"]


@dataclass(frozen=True)
class Pass(Value):
    """Let so many minutes pass."""

    act: Literal["pass"]
    minutes: Annotated[float, Interval(gt=0, le=40_320)]


@dataclass(frozen=True)
class Watch(Value):
    """Wait until what is seen of the film changes."""

    act: Literal["watch"]


Hand = Go | Leave | Pass | Watch


@dataclass(frozen=True)
class Spoilt(Value):
    """Something that went wrong: what, how badly (0–1), on which layer, why, and what mends it."""

    flaw: str
    name: str
    layer: str
    cause: Cause
    how: float
    says: str
    mends: str
    shape: Shape
    shows: Shows
    bad_luck: bool
    """What was done was within what the plan says; this room, film or pot was otherwise."""


@dataclass(frozen=True)
class Decided(Value):
    """Something that was done, or left out: when, and when it should have been by the plan and in truth. Minutes of the
    rehearsal; None where there is no such limit."""

    operation: str
    says: str
    at_min: float
    left_out: bool
    opens_min: float | None
    closes_min: float | None
    true_opens_min: float | None
    true_closes_min: float | None
    came: tuple[str, ...]
    """What came of it: names of flaws."""
    before: int
    """How many acts there were before it: to go on from there again."""


@dataclass(frozen=True)
class Rehearsal:
    """A rehearsal at one moment."""

    minute: float = 0.0
    begun: Mapping[str, float] = field(default_factory=dict)
    ended: Mapping[str, float] = field(default_factory=dict)
    left_out: frozenset[str] = frozenset()
    at: int = 0
    """The place of the next step."""
    spoilt: tuple[Spoilt, ...] = ()
    decided: tuple[Decided, ...] = ()
    stopped: str = ""
    """Why the last act was not done: it can hurt somebody."""
