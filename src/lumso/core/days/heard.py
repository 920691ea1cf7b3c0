"""What an event says beside what was said already: nothing new; or how long a film or a hand really took."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..log.acts import Begun, Poured, SawDry, Stirred
from ..log.event import Event, notes_of, standing
from ..log.pot import replay
from .facts import OF_AN_OPERATION, facts_of

SHORTEST_MIN = 2.0
"""Work that took less was marked afterwards: it says nothing of a painter's pace."""


@dataclass(frozen=True)
class Took:
    """How long something took beside what was planned, in minutes; a film was `dry` by then, or not yet.

    `of` is the recipe of a wait, the technique of a pace.
    """

    kind: Literal["wait", "pace"]
    of: str
    planned_min: float
    took_min: float
    dry: bool = True


def begun_as(batch: str, of_job: Sequence[Event]) -> Begun | None:
    """What a batch was begun as, last."""
    begun = [e.act for e in standing(of_job) if isinstance(e.act, Begun) and e.act.batch == batch]
    return begun[-1] if begun else None


def took(event: Event, of_job: Sequence[Event]) -> Took | None:
    """What an event says of how long something takes; None where it says nothing."""
    act = event.act
    if isinstance(act, SawDry):
        if not act.recipe or act.planned_min <= 0:
            return None
        return Took("wait", act.recipe, act.planned_min / act.factor, act.after_min, act.dry)
    one = event.planned
    if event.did != "done" or one is None or one.kind != "lay" or one.hands_on_min <= 0:
        return None
    before = facts_of(of_job, event.job).get(event.operation)
    begun = begun_as(one.batch, of_job)
    if before is None or before.did != "begun" or begun is None:
        return None
    lasted = event.at_min - before.at_min
    return None if lasted < SHORTEST_MIN else Took("pace", begun.technique, one.hands_on_min, lasted)


def said_already(event: Event, of_job: Sequence[Event]) -> Event | None:
    """What says the same as an event already: two devices pressed it, or the second came later."""
    if event.did in OF_AN_OPERATION:
        fact = facts_of(of_job, event.job).get(event.operation)
        if fact is not None and fact.did == event.did:
            return fact.event
    if isinstance(event.act, Begun):
        for one in _open_pots(of_job):
            if isinstance(one.act, Begun) and one.act.batch == event.act.batch:
                return one
    if isinstance(event.act, Stirred):  # stirred again after a pour is news
        stirred = [e for e in standing(of_job) if isinstance(e.act, Stirred) and e.act.pot == event.act.pot]
        poured = [e for e in standing(of_job) if isinstance(e.act, Poured) and e.act.pot == event.act.pot]
        if stirred and all(p.at_min <= stirred[-1].at_min for p in poured):
            return stirred[-1]
    if event.did == "retracted":
        return next((e for e in of_job if e.did == "retracted" and e.retracts == event.retracts), None)
    return None


def _open_pots(of_job: Sequence[Event]) -> list[Event]:
    """The events that began pots which are still mixed or used."""
    pots, _ = replay(notes_of(of_job))
    return [
        e for e in standing(of_job)
        if isinstance(e.act, Begun) and pots[e.act.pot].state in {"pouring", "stirred"}
    ]  # fmt: skip
