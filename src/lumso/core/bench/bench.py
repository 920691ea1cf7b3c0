"""A job at the bench: its operations in order, how each stands, which is to be done now, and what is waited for."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..days.facts import Fact, facts_of
from ..layers import cautions
from ..layers.conditions import Room
from ..layers.drying import Wait, dry_at
from ..layers.laid import Laid
from ..log.acts import Went
from ..log.event import Event, standing
from ..log.pot import PotState
from ..value import Value
from ..work.operations import Operation
from ..work.work import Work
from .timers import OVER, Timer, running, shown

PASSES = {"rest", "cure"}
"""What passes by itself is a timer, not something to do."""
MIX = "mix"
"""The kind of rescue that is for what is still in the pot."""
AROUND = {"lay out", "clear away"}
"""What is done around a session is told with what comes after it."""

OpState = Literal["planned", "begun", "done", "skipped", "gone wrong"]


@dataclass(frozen=True)
class RescueNow(Value):
    """What is done when a coat goes wrong: while it is wet, which ends at `wet_until_min`, and once it is dry; what it
    costs, and how long it is left alone after. Instants are minutes since 1970 UTC; None where nobody knows."""

    sign: str
    wet: str
    dry: str
    costs: str
    wet_until_min: float | None
    dry_from_min: float | None
    flaw: str = ""
    """The flaw that is drawn of it (a slug); "" where none is."""


@dataclass(frozen=True)
class BenchOp(Value):
    """An operation as it stands. `ready_min` is when its waits are over; None where an operation before it is not done,
    or only a label knows."""

    operation: Operation
    state: OpState
    event: str
    at_min: float | None
    by: str
    begun_min: float | None
    ready_min: float | None
    waits_for: str
    """What is waited for, in words; "" where nothing is."""
    lay_out: tuple[str, ...]
    """What is laid out before it, where a session begins with it."""
    pot: str
    """The pot that was begun for it; "" for none."""
    went: Went | None
    rescues: tuple[RescueNow, ...] = ()


@dataclass(frozen=True)
class Bench(Value):
    """A job at the bench. `now` is the place of the operation to do now; -1 where all is done."""

    job: str
    name: str
    now_min: float
    operations: tuple[BenchOp, ...]
    now: int
    timers: tuple[Timer, ...]
    first: tuple[str, ...]
    """What is seen to before anything else."""


def bench_of(job: str, made: Work, events: Sequence[Event], pots: Mapping[str, PotState], air: Room,
             now_min: float) -> Bench:  # fmt: skip
    """The bench of a job that was worked out, by what was noted of it."""
    facts = facts_of(events, job)
    listed = _listed(made, facts)
    constraints = made.constraints
    timers = running([o for o, _ in listed], constraints, facts, events, air, now_min)
    waits: dict[str, list[Timer]] = {}
    for timer in timers:
        if timer.kind != "life":
            waits.setdefault(timer.then, []).append(timer)
    before: dict[str, list[str]] = {}
    names = {o.id: o for o, _ in listed}
    for tie in constraints:
        if tie.kind in {"after", "at least"} and tie.first in names:
            before.setdefault(tie.then, []).append(tie.first)
    mine = {p.batch: p.pot for p in pots.values() if p.batch and p.state != "discarded"}
    went = {e.operation: e.act for e in standing(events) if isinstance(e.act, Went)}
    coats = {(z.zone.id, x.layer.id): x for j in made.jobs for z in j.zones for x in z.laid if x is not None}
    found = []
    for operation, lay_out in listed:
        fact = facts.get(operation.id)
        undone = [f for f in before.get(operation.id, ()) if not _over(facts.get(f))]
        ready, why = _ready(waits.get(operation.id, ()), [names[f].says for f in undone], now_min)
        if operation.kind == "mix" and (serves := _serves(operation, names.values())) is not None:
            ready, why = _mixed_for(operation, serves, ready, why, before, waits, facts, names, now_min)
        begun = (fact.at_min if fact.did == "begun" else fact.begun_min) if fact else None
        found.append(
            BenchOp(
                operation, fact.did if fact else "planned", fact.event.id if fact else "",
                fact.at_min if fact else None, fact.event.by if fact else "", begun, ready, why, lay_out,
                mine.get(operation.batch, "") if operation.batch else "", went.get(operation.id),
                _rescues(operation, coats.get((operation.zone, operation.layer)), made, begun, fact, air, now_min),
            )
        )  # fmt: skip
    first = tuple(dict.fromkeys(c for j in made.jobs for c in cautions.before_work(j.job.use, j.asks_lead)))
    name = made.jobs[0].job.name if made.jobs else ""
    runs = shown(timers, now_min)
    return Bench(job, name, now_min, tuple(found), _now(found, now_min), runs, first)


def _rescues(operation: Operation, laid: Laid | None, made: Work, begun: float | None, fact: Fact | None, air: Room,
             now_min: float) -> tuple[RescueNow, ...]:  # fmt: skip
    """What is done when what is laid goes wrong, with the time there is for it; or what is mixed, while it is."""
    if operation.kind == "mix":
        mixed = made.jobs[0].catalogue.rescues.values() if made.jobs else ()
        return tuple(RescueNow(r.sign, r.wet, r.dry, r.costs, None, None) for r in mixed if MIX in r.kinds)
    if laid is None or operation.kind != "lay" or fact is None:
        return ()
    since = fact.at_min if fact.did == "done" else begun if begun is not None else now_min
    opened = laid.film.open_least_min
    wet_until = None if opened is None else dry_at(since, Wait(opened, "evaporation"), air)
    dry_from = dry_at(since, laid.wait("touch"), air)
    known = made.jobs[0].catalogue
    drawn = {f.sign: f.slug for f in reversed([*known.flaws.values()]) if f.shape != "none"}
    own = [
        RescueNow(f.sign, f.rescue, "", "", wet_until, dry_from, drawn.get(f.sign, "")) for f in laid.technique.faults
    ]
    others = (
        RescueNow(r.sign, r.wet, r.dry, r.costs, wet_until, dry_from, drawn.get(r.sign, ""))
        for r in known.rescues_for(laid.film.kind)
    )
    return (*own, *others)


def _listed(made: Work, facts: Mapping[str, Fact]) -> list[tuple[Operation, tuple[str, ...]]]:
    """What is shown one at a time, with what is laid out before it; what was begun is as it was planned then."""
    found: list[tuple[Operation, tuple[str, ...]]] = []
    lay_out: tuple[str, ...] = ()
    for operation in made.operations:
        if operation.kind == "lay out":
            lay_out = operation.tools
        elif operation.kind not in AROUND and operation.kind not in PASSES:
            fact = facts.get(operation.id)
            as_begun = fact.planned if fact and fact.planned and fact.did in {"begun", "done"} else operation
            found.append((as_begun, lay_out))
            lay_out = ()
    return found


def _over(fact: Fact | None) -> bool:
    return fact is not None and fact.did in OVER


def _ready(waits: Sequence[Timer], undone: Sequence[str], now_min: float) -> tuple[float | None, str]:
    if undone:
        return None, f"First: {undone[-1]}."
    unknown = next((t for t in waits if t.opens_min is None), None)
    if unknown is not None:
        return None, unknown.trouble
    opens = max((t.opens_min for t in waits if t.opens_min is not None), default=0.0)
    if opens <= now_min:
        return opens or now_min, ""
    last = next(t for t in waits if t.opens_min == opens)
    return opens, last.why


def _serves(mixes: Operation, operations: Iterable[Operation]) -> Operation | None:
    """The first coat a pot is mixed for."""
    return next((o for o in operations if o.kind == "lay" and o.batch == mixes.batch), None)


def _mixed_for(mixes: Operation, serves: Operation, ready: float | None, why: str, before: Mapping[str, Sequence[str]],
               waits: Mapping[str, Sequence[Timer]], facts: Mapping[str, Fact], names: Mapping[str, Operation],
               now_min: float) -> tuple[float | None, str]:  # fmt: skip
    """When a pot is mixed: not long before what it is for may be laid, however early it could be."""
    own = {o.id for o in names.values() if o.batch == mixes.batch and o.kind != "lay"}
    undone = [f for f in before.get(serves.id, ()) if f not in own and not _over(facts.get(f))]
    then, says = _ready(waits.get(serves.id, ()), [names[f].says for f in undone], now_min)
    if then is None or ready is None:
        return None, says or why
    return (then - mixes.takes_min, says) if then - mixes.takes_min > ready else (ready, why)


def _now(operations: Sequence[BenchOp], now_min: float) -> int:
    """What was begun; else what can be done now, in order; else what can be done first."""
    left = [i for i, o in enumerate(operations) if o.state not in OVER]
    if not left:
        return -1
    for i in left:
        if operations[i].state == "begun":
            return i
    for i in left:
        ready = operations[i].ready_min
        if ready is not None and ready <= now_min:
            return i
    timed = [(o.ready_min, i) for i in left if (o := operations[i]).ready_min is not None]
    return min(timed)[1] if timed else left[0]
