"""What has been done, as it was noted: events are only ever added, and what is so follows from them."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import cast, get_args

from ..log.event import Event, OpDid
from ..work.operations import Operation

OF_AN_OPERATION = get_args(OpDid)


@dataclass(frozen=True)
class Fact:
    """How it stands with an operation, and since when. `begun_min` is None where only its end was noted."""

    did: OpDid
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
        if event.did not in OF_AN_OPERATION or event.id in gone:
            continue
        before = found.get(event.operation)
        begun = before.at_min if before and before.did == "begun" else None
        found[event.operation] = Fact(cast(OpDid, event.did), event.at_min, begun, event)
    return found
