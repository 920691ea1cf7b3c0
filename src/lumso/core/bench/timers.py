"""What runs at the bench: waits, windows, the lives of pots. Each is a deadline that follows from what was done.

A timer is no clock of its own: it is a constraint of the order of work whose first operation was done, so it is the
same on every device and after every restart. What is seen moves it: dry sooner ends it, not dry yet adds to it.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ..days.facts import Fact
from ..days.puzzle import over_at, until_of
from ..layers.conditions import Room
from ..layers.drying import no_film
from ..log.acts import SawDry
from ..log.event import Event, standing
from ..value import Value
from ..work.operations import LIVES, Constraint, Operation

TimerKind = Literal["wait", "window", "life"]
OVER = {"done", "skipped"}
"""What went wrong is to be done again."""
KEPT_MIN = 24 * 60.0
"""A window or a life that is over is still said for so long."""


@dataclass(frozen=True)
class Timer(Value):
    """Something that runs. Instants are minutes since 1970 UTC.

    A wait opens; a window opens and closes; a life ends. `opens_min` is None where only a label knows.
    """

    id: str
    kind: TimerKind
    says: str
    """What may be done then, or what ends."""
    zone: str
    since_min: float
    opens_min: float | None
    closes_min: float | None
    first: str
    then: str
    why: str
    remedy: str
    moved: str
    """What was seen that moved it, in words; "" where nothing was."""
    trouble: str
    """Why no time is promised; "" where one is."""
    dries: bool = False
    """Whether it waits for a film to dry, not for a time that was chosen."""


def timer_id(first: str, then: str) -> str:
    """What a timer is called: between which two operations it runs."""
    return f"{first}>{then}"


def _began(fact: Fact | None, tie: Constraint) -> float | None:
    """From when a constraint runs, once its first operation was done (or begun, where it counts from that)."""
    if fact is None or fact.did not in {"begun", "done"}:
        return None
    if tie.since == "end":
        return fact.at_min if fact.did == "done" else None
    return fact.at_min if fact.did == "begun" else fact.begun_min


def _name(then: Operation, tie: Constraint) -> str:
    return then.says if tie.kind not in LIVES else f"The pot for “{then.says}” is good until then"


def running(operations: Sequence[Operation], constraints: Iterable[Constraint], facts: Mapping[str, Fact],
              events: Iterable[Event], air: Room, now_min: float) -> tuple[Timer, ...]:  # fmt: skip
    """All that runs, each constraint by itself, in the order of work."""
    known = {o.id: o for o in operations}
    place = {o.id: i for i, o in enumerate(operations)}
    found: dict[str, Timer] = {}
    for tie in constraints:
        fact = facts.get(tie.first)
        since = _began(fact, tie)
        then = known.get(tie.then)
        later = facts.get(tie.then)
        if since is None or then is None or tie.kind in {"after", "not beside"} or (later and later.did in OVER):
            continue
        if tie.kind != "at least" and later is not None and later.did == "begun" and tie.until == "start":
            continue
        kind: TimerKind = "life" if tie.kind in LIVES else "window" if tie.kind == "at most" else "wait"
        slot = timer_id(tie.first, tie.then) + (":life" if kind == "life" else "")
        had = found.get(slot)
        opens, closes = (had.opens_min, had.closes_min) if had else (since, None)
        trouble = had.trouble if had else ""
        dries = (had.dries if had else False) or (tie.kind == "at least" and tie.wait.by != "clock")
        if kind == "wait":
            over = over_at(tie, since, air)
            if over == float("inf"):
                opens = None
                trouble = no_film(air.first) or "Only its label says how long."
            elif opens is not None:
                opens = max(opens, over)
        else:
            until = until_of(tie, since, air)
            if until < float("inf"):
                closes = until if closes is None else min(closes, until)
        made = Timer(slot, kind, _name(then, tie), then.zone_name, since, opens, closes, tie.first, tie.then, tie.why,
                     tie.remedy, "", trouble, dries)  # fmt: skip
        if had is not None:
            kinds = {had.kind, kind}
            made = replace(made, kind="window" if "window" in kinds else kind, why=had.why or tie.why,
                           remedy=had.remedy or tie.remedy)  # fmt: skip
        found[slot] = made
    moved = [_moved(t, events) for t in found.values()]
    current = [t for t in moved if not (t.closes_min is not None and t.closes_min < now_min - KEPT_MIN)]
    return tuple(sorted(current, key=lambda t: (place[t.then], t.id)))


def shown(timers: Sequence[Timer], now_min: float) -> tuple[Timer, ...]:
    """What runs as it is shown, the soonest first: of timers from one operation to the same minute only that for what
    comes first in the order of work."""
    seen: dict[tuple[str, TimerKind, int, int], Timer] = {}
    for timer in timers:
        ends = (round(timer.opens_min or -1), round(timer.closes_min or -1))
        seen.setdefault((timer.first, timer.kind, *ends), timer)
    return tuple(sorted(seen.values(), key=lambda t: (_due(t, now_min), t.id)))


def _moved(timer: Timer, events: Iterable[Event]) -> Timer:
    """The timer as what was seen moved it."""
    for event in standing(events):
        act = event.act
        if not isinstance(act, SawDry) or act.constraint != timer.id or event.at_min < timer.since_min:
            continue
        if act.dry:
            opens = event.at_min if timer.opens_min is None else min(timer.opens_min, event.at_min)
            timer = replace(timer, opens_min=opens, moved="found dry", trouble="")
        else:
            later = event.at_min + act.more_min
            opens = later if timer.opens_min is None else max(timer.opens_min, later)
            shift = opens - (timer.opens_min if timer.opens_min is not None else opens)
            closes = None if timer.closes_min is None else timer.closes_min + shift
            timer = replace(timer, opens_min=opens, closes_min=closes, moved="not dry yet", trouble="")
    return timer


def _due(timer: Timer, now_min: float) -> float:
    """When something happens with it next; what has happened comes last."""
    ahead = [m for m in (timer.opens_min, timer.closes_min) if m is not None and m >= now_min]
    return min(ahead, default=float("inf"))
