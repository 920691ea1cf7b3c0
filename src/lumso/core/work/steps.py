"""The order of work to read and to tick off: each operation with how long to leave it, and what to lay out first."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ..layers import cautions
from ..layers.conditions import Room
from ..layers.drying import takes_min
from ..value import Value
from .operations import Constraint, Operation
from .work import Work

PASSING = {"rest", "cure"}
"""Kinds of operation that pass by themselves."""


@dataclass(frozen=True)
class BenchStep(Value):
    """An operation, and the wait after it: None where only the label knows it, or where no film forms in this room.

    `zones` are all that it is for: a pot may serve several.
    """

    operation: Operation
    zones: tuple[str, ...]
    wait_min: float | None
    wait_check: str
    go_on_within_min: float | None
    """The next coat must follow by then; None where it may be left."""
    else_do: str
    """What is done when it is left longer."""
    how: tuple[str, ...] = ()
    """How it is done, but for what an earlier step says already."""
    check: str = ""
    """What right looks like; "" where an earlier step says it."""
    as_at: tuple[int, ...] = ()
    """The numbers, from 1, of earlier steps that say the rest of how it is done."""
    wait_told: bool = False
    """What tells that the wait is over is said by one of them, too."""


@dataclass(frozen=True)
class ZoneTime(Value):
    """What a zone takes: hands-on minutes, hours from its first operation to its last, waits only labels know."""

    zone: str
    name: str
    hands_on_min: float
    elapsed_h: float
    unknown_waits: int


@dataclass(frozen=True)
class Procedure(Value):
    """The job in order: what to see to first, the kit to lay out, every step, and about how long it takes.

    `elapsed_h` is from the first step to the last, one painter, curing aside; `sessions` how often the bench is laid
    out.
    """

    first: tuple[str, ...]
    kit: tuple[str, ...]
    steps: tuple[BenchStep, ...]
    zones: tuple[ZoneTime, ...]
    hands_on_min: float
    elapsed_h: float
    sessions: int
    missed: tuple[str, ...]
    """Windows and lives that one painter cannot keep in this order, in words."""
    not_measured: str
    """Which sizes are usual ones, in words; "" where all are measured."""


def _wait(operation: Operation, ties: Sequence[Constraint], room: Room) -> tuple[float | None, str]:
    """How long an operation is left after it, and what tells that it is over."""
    found: list[tuple[float | None, str]] = []
    for tie in ties:
        if tie.kind == "at least" and tie.since == "end" and tie.until == "start":
            found.append((takes_min(tie.wait, room, operation.ends_min), tie.why))
    if not found:
        return 0.0, ""
    unknown = next((why for minutes, why in found if minutes is None), None)
    if unknown is not None:
        return None, unknown
    return max(found, key=lambda pair: pair[0] or 0.0)


def _uses(made: Work) -> Mapping[str, tuple[str, ...]]:
    return {b.id: tuple(dict.fromkeys(u.zone for u in b.uses)) for b in made.batches}


SHORT = 40
"""So many letters are sooner said again than looked up."""


def _once(step: BenchStep, number: int, told: dict[str, int]) -> BenchStep:
    """A step without what earlier ones say already, and with their numbers."""
    task = step.operation
    lines = tuple(dict.fromkeys(line for line in task.how if line))
    long = [line for line in (*lines, task.check, step.wait_check) if len(line) > SHORT]
    as_at = tuple(sorted({told[line] for line in long if line in told}))

    def fresh(line: str) -> bool:
        return line not in told or not (as_at or len(line) > SHORT)

    made = replace(step, how=tuple(line for line in lines if fresh(line)), as_at=as_at,
                   check=task.check if fresh(task.check) else "",
                   wait_told=not fresh(step.wait_check))  # fmt: skip
    for line in (*lines, task.check, step.wait_check):
        told.setdefault(line, number)
    return made


def steps_of(made: Work, room: Room) -> Procedure:
    """The work as steps."""
    by_first: dict[str, list[Constraint]] = {}
    for tie in made.constraints:
        by_first.setdefault(tie.first, []).append(tie)
    uses = _uses(made)
    steps, told = list[BenchStep](), dict[str, int]()
    for operation in made.operations:
        ties = by_first.get(operation.id, [])
        wait, check = (0.0, "") if operation.kind in PASSING else _wait(operation, ties, room)
        window = next((t for t in ties if t.kind == "at most" and t.remedy), None)
        within = takes_min(window.wait, room, operation.ends_min) if window else None
        shared = uses.get(operation.batch, ()) if operation.kind in {"mix", "rest", "stir", "clean"} else ()
        zones = shared or ((operation.zone,) if operation.zone else ())
        step = BenchStep(operation, zones, wait, check, within, window.remedy if window else "")
        steps.append(_once(step, len(steps) + 1, told))
    kit = [tool for o in made.operations for tool in o.tools]
    return Procedure(
        tuple(dict.fromkeys(c for job in made.jobs for c in cautions.before_work(job.job.use, job.asks_lead))),
        tuple(dict.fromkeys(kit)),
        tuple(steps),
        _times(made, steps),
        made.hands_on_min,
        made.elapsed_min / 60,
        sum(o.kind == "lay out" for o in made.operations),
        tuple(_missed(made)),
        made.not_measured,
    )


def _times(made: Work, steps: Sequence[BenchStep]) -> tuple[ZoneTime, ...]:
    unknown = {c.first for c in made.unknown}
    found = []
    for job in made.jobs:
        for zone in job.zones:
            mine = [s.operation for s in steps if s.operation.zone == zone.zone.id and s.operation.job == job.job.name]
            done = [o for o in mine if o.kind != "cure"]
            elapsed = max((o.ends_min for o in done), default=0.0) - min((o.at_min for o in done), default=0.0)
            found.append(
                ZoneTime(
                    zone.zone.id,
                    zone.zone.name,
                    sum(o.hands_on_min for o in mine),
                    elapsed / 60,
                    sum(o.id in unknown for o in mine),
                )
            )
    return tuple(found)


def _missed(made: Work) -> list[str]:
    names = {o.id: o for o in made.operations}
    found = []
    for tie in made.missed:
        first, then = names[tie.first], names[tie.then]
        remedy = f" If it comes to that: {tie.remedy}." if tie.remedy else ""
        found.append(f"One painter does not get from “{first.says}” to “{then.says}” in time: {tie.why}.{remedy}")
    return list(dict.fromkeys(found))
