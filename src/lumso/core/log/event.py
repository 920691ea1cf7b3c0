"""An event: something noted, once and for all. What was noted wrong is taken back, or corrected, by another."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import MaxLen

from ..value import Value
from ..work.operations import Operation
from .acts import Act, Noted, SawDry, Went

OpDid = Literal["begun", "done", "skipped", "gone wrong"]
"""What is noted of an operation."""
Did = Literal["begun", "done", "skipped", "gone wrong", "retracted", "noted", "corrected"]
"""What was noted. The first four are of an operation; "noted" is an act, "corrected" another in place of one noted
before; "retracted" takes back either."""


@dataclass(frozen=True)
class Event(Value):
    """Something noted of a job. `retracts` names the event that was a mis-tap, or that is corrected.

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
    by: Annotated[str, MaxLen(80)] = ""
    """The device it was noted on."""
    act: Act | None = None


def standing(events: Iterable[Event]) -> list[Event]:
    """The events that stand, each as it was last corrected, in the order they were first noted."""
    found: dict[str, Event] = {}
    root: dict[str, str] = {}
    for event in events:
        if event.did == "retracted":
            at = root.get(event.retracts, event.retracts)
            found.pop(at, None)
        elif event.did == "corrected":
            at = root.get(event.retracts, event.retracts)
            if (before := found.get(at)) is not None:
                root[event.id] = at
                found[at] = Event(before.id, before.job, before.operation, "noted", event.at_min, event.note, "",
                                  before.planned, event.by, event.act)  # fmt: skip
        else:
            found[event.id] = event
    return list(found.values())


def notes_of(events: Iterable[Event]) -> list[Noted]:
    """The acts on pots that stand, to be replayed."""
    return [
        Noted(e.id, e.act, e.at_min)
        for e in standing(events)
        if e.act is not None and not isinstance(e.act, Went | SawDry)
    ]
