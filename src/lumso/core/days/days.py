"""The days as they are shown, printed and exported: visits to the bench, what is done in them, what dries between."""

from dataclasses import dataclass
from typing import Literal

from ..errors import Problem
from ..layers.conditions import Spell
from ..log.event import OpDid
from ..value import Value
from ..work.operations import Operation

LAST_CALL_MIN = 30.0
"""So long before a window closes somebody is called."""


@dataclass(frozen=True)
class DayOperation(Value):
    """An operation with its time. `operation` is its id in its job; `stint` names what is done in one go with it.

    `must_by_min` is when the window it stands in closes; None where it may be left.
    """

    job: str
    operation: Operation
    begins_min: float
    ends_min: float
    at: str
    """When, on the clock: 18:35–19:10."""
    day: str
    stint: str
    painter: int
    visit: int
    """The place of its visit among the visits; -1 for what is done."""
    state: Literal["planned", "begun", "done"] = "planned"
    event: str = ""
    """The event that says so."""
    extra: bool = False
    """Whether it is done only because of how the days fall, or of what happened."""
    pinned: bool = False
    critical: bool = False
    waits_for: str = ""
    must_by_min: float | None = None
    must_by: str = ""
    else_do: str = ""


@dataclass(frozen=True)
class Drying(Value):
    """A film that dries: touch dry, and ready for what comes next; None where only a label knows."""

    job: str
    operation: str
    zone: str
    says: str
    from_min: float
    touch_min: float | None
    ready_min: float | None
    critical: bool


@dataclass(frozen=True)
class Visit(Value):
    """A visit to the bench: laying out, what is done, clearing away; and how long nobody is needed after it."""

    begins_min: float
    ends_min: float
    opens_min: float
    closes_min: float
    day: str
    at: str
    hands_on_min: float
    hands_on: str
    then_away: str
    """How long until the next visit; "" after the last."""
    lay_out: Operation
    clear_away: Operation


@dataclass(frozen=True)
class JobDay(Value):
    """When a job is finished, from when it may be used gently (None: only a label knows), and what was promised."""

    job: str
    name: str
    finished_min: float
    finished: str
    gently_min: float | None
    gently: str
    due_min: float | None
    due: str
    late_min: float
    late: str
    left: int
    """Operations still to be done."""


@dataclass(frozen=True)
class Outside(Value):
    """What was noted of an operation that is not among those of the days."""

    job: str
    operation: str
    event: str
    says: str
    did: OpDid
    at: str


@dataclass(frozen=True)
class Given(Value):
    """A window that is given up, and what is done instead."""

    says: str
    instead: str


@dataclass(frozen=True)
class Proof(Value):
    """How good one thing that is asked for came out: nothing is better than `bound`."""

    goal: Literal["lateness", "finish", "visits", "minutes", "daylight"]
    value: float
    bound: float
    proven: bool


@dataclass(frozen=True)
class Days(Value):
    """The days of one job or several. Times are minutes since 1970 UTC; words are in the workshop's zone.

    `how` is "at once" for days no search was made for, "best" where they are proven, "so far" where a gap is left.
    """

    format: Literal["lumso-days"]
    version: Literal[1]
    now_min: float
    zone: str
    how: Literal["at once", "best", "so far"]
    proofs: tuple[Proof, ...]
    says: str
    first: tuple[str, ...]
    """What is seen to before anything else."""
    jobs: tuple[JobDay, ...]
    visits: tuple[Visit, ...]
    operations: tuple[DayOperation, ...]
    drying: tuple[Drying, ...]
    given_up: tuple[Given, ...]
    outside: tuple[Outside, ...]
    """What was done, and is planned no more."""
    left_out: tuple[Outside, ...]
    """What is left out, as it was said to be."""
    problems: tuple[Problem, ...]
    assumed: tuple[str, ...]
    chain: tuple[str, ...]
    """What the finish hangs on, in words."""
    air: tuple[Spell, ...]
    hands_on_min: float
    hands_on: str
