"""What has been done, as it was noted: events are only ever added, and what is so follows from them."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import MaxLen

from ..value import Value
from ..work.operations import Operation

Did = Literal["begun", "done", "skipped", "gone wrong", "retracted"]


@dataclass(frozen=True)
class Event(Value):
    """Something noted of an operation of a job. `retracts` names the event that was a mis-tap.

    `planned` is the operation as it was planned when it was noted: what was begun is never worked out anew.
    """

    id: str
    job: str
    operation: str
    did: Did
    at_min: float
    """When it happened, in minutes since 1970 UTC."""
    note: Annotated[str, MaxLen(500)] = ""
    retracts: str = ""
    planned: Operation | None = None


@dataclass(frozen=True)
class Fact:
    """How it stands with an operation, and since when. `begun_min` is None where only its end was noted."""

    did: Did
    at_min: float
    begun_min: float | None
    event: Event

    @property
    def planned(self) -> Operation | None:
        """The operation as it was when it was begun or done."""
        return self.event.planned

    def spans(self, takes_min: float, now_min: float) -> tuple[float, float]:
        """From when to when it was done; what is begun and not done lasts as long as it was to, and until now."""
        if self.did == "begun":
            return self.at_min, max(self.at_min + takes_min, now_min)
        begun = self.at_min - takes_min if self.begun_min is None else self.begun_min
        return min(begun, self.at_min), self.at_min


def facts_of(events: Iterable[Event], job: str) -> dict[str, Fact]:
    """How it stands with each operation of a job that anything was noted of and not taken back."""
    mine = [e for e in events if e.job == job]
    gone = {e.retracts for e in mine if e.did == "retracted"}
    found: dict[str, Fact] = {}
    for event in mine:
        if event.did == "retracted" or event.id in gone:
            continue
        before = found.get(event.operation)
        begun = before.at_min if before and before.did == "begun" else None
        found[event.operation] = Fact(event.did, event.at_min, begun, event)
    return found
