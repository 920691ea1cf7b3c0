"""What is asked of days, in order: as something to make least in the model, and as what days come to."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from ortools.sat.python import cp_model

from ..days.hours import is_daylight
from ..days.placed import Timed
from ..days.puzzle import Puzzle
from ..layers.drying import Wait, dry_at
from .model import Model

HORIZON_STEPS = 10**7
CLOSE_MIN = 30.0
"""Minutes are proven to within half an hour: days are found on whole minutes, and waits rounded."""
Kind = Literal["lateness", "finish", "visits", "minutes", "daylight"]


@dataclass(frozen=True)
class Goal:
    """One thing that is made least: in the model, and what days come to. `steps` are how many of the model make one."""

    kind: Kind
    objective: Callable[[Model], cp_model.LinearExprT]
    comes_to: Callable[[Timed], float]
    steps: float = 1.0
    close: float = 0.0
    """What it may be off by and still be called proven."""


def goals_of(puzzle: Puzzle) -> list[Goal]:
    """What is asked for, in order."""
    goals = []
    if any(j.due_min is not None for j in puzzle.jobs):
        goals.append(Goal("lateness", _lateness, _late, close=CLOSE_MIN))
    finish = [_finish_of(puzzle, rank) for rank in sorted({j.priority for j in puzzle.jobs})]
    visits = Goal("visits", _visits, lambda t: float(len(t.visits)))
    goals += [visits, *finish] if puzzle.table.goal == "visits" else [*finish, visits]
    weight = _weight(puzzle)
    goals.append(Goal("minutes", _minutes, _minutes_of, steps=weight, close=CLOSE_MIN))
    if puzzle.table.by_daylight:
        goals.append(Goal("daylight", _in_the_dark, _dark))
    return goals


def _finish_of(puzzle: Puzzle, rank: int) -> Goal:
    keys = [j.key for j in puzzle.jobs if j.priority == rank]

    def objective(model: Model) -> cp_model.LinearExprT:
        return cp_model.LinearExpr.sum([_last_session(model, key) for key in keys])

    def comes_to(timed: Timed) -> float:
        every = list(zip(timed.session_of, timed.puzzle.job_of, strict=True))
        return float(sum(max((k for k, j in every if j == key), default=0) for key in keys))

    return Goal("finish", objective, comes_to)


def _of(model: Model, job: str) -> list[int]:
    return [n for n, key in enumerate(model.puzzle.job_of) if key == job]


def _last_session(model: Model, job: str) -> cp_model.IntVar:
    last = model.cp.new_int_var(0, len(model.puzzle.sessions), f"last session {job}")
    for n in _of(model, job):
        model.cp.add(last >= sum(k * x for k, x in model.inside[n].items()))
    return last


def _visits(model: Model) -> cp_model.LinearExprT:
    used = []
    for k in model.windows:
        mine = [inside[k] for inside in model.inside if k in inside]
        if mine:
            one = model.cp.new_bool_var(f"used {k}")
            for literal in mine:
                model.cp.add_implication(literal, one)
            used.append(one)
    return cp_model.LinearExpr.sum(used)


def _finish(model: Model, job: str) -> cp_model.IntVar:
    end = model.cp.new_int_var(0, HORIZON_STEPS, f"finish {job}")
    for n in _of(model, job):
        model.cp.add(end >= model.start[n] + min(model.takes[n].values()))
    return end


def _weight(puzzle: Puzzle) -> int:
    """How many steps a pot may be mixed later are worth one step of the finish."""
    return 100 * (sum(1 for s in puzzle.stints if s.passing) + 1)


def _minutes(model: Model) -> cp_model.LinearExprT:
    """The finish of each job; and, much less, what is mixed long ahead as late as it may be."""
    ends = [_finish(model, j.key) for j in model.puzzle.jobs]
    early = [model.start[n] for n, s in enumerate(model.puzzle.stints) if s.passing]
    return _weight(model.puzzle) * cp_model.LinearExpr.sum(ends) - cp_model.LinearExpr.sum(early)


def _minutes_of(timed: Timed) -> float:
    puzzle = timed.puzzle
    return sum(timed.finished(j.key) - puzzle.now_min for j in puzzle.jobs if j.key in set(puzzle.job_of))


def _late(timed: Timed) -> float:
    return sum(timed.late_min(j.key) for j in timed.puzzle.jobs)


def _lateness(model: Model) -> cp_model.LinearExprT:
    """Steps by which each job misses what was promised."""
    found = []
    for job in model.puzzle.jobs:
        if job.due_min is None:
            continue
        late = model.cp.new_int_var(0, HORIZON_STEPS, f"late {job.key}")
        due = model.down(job.due_min)
        model.cp.add(late >= _finish(model, job.key) - due)
        if job.due_for == "gently":
            for operation, wait in model.puzzle.ends.get(job.key, ()):
                _usable(model, late, due, operation, wait)
        found.append(late)
    return cp_model.LinearExpr.sum(found)


def _usable(model: Model, late: cp_model.IntVar, due: int, operation: str, wait: Wait) -> None:
    """A job is late, too, while what was laid last may not be used gently."""
    n = model.puzzle.owner.get(operation)
    if n is None:
        return
    for k, literal in model.inside[n].items():
        lags = [
            ready - begins
            for begins in model.samples(n, k)
            if (ready := dry_at(model.at(n, operation, begins, "end"), wait, model.puzzle.room)) is not None
        ]
        if lags:
            lag = (min if model.hopeful else max)(lags)
            model.cp.add(late >= model.start[n] + model.up(model.base_min + lag) - due).only_enforce_if(literal)


def _in_the_dark(model: Model) -> cp_model.LinearExprT:
    """For each stint that lays a colour, whether its session is not in daylight."""
    found = []
    for n, stint in enumerate(model.puzzle.stints):
        if any(o.kind == "lay" for o in stint.operations):
            found += [x for k, x in model.inside[n].items() if _is_dark(model.puzzle, k)]
    return cp_model.LinearExpr.sum(found)


def _is_dark(puzzle: Puzzle, session: int) -> bool:
    return not is_daylight(sum(puzzle.usable[session]) / 2, puzzle.table)


def _dark(timed: Timed) -> float:
    every = zip(timed.puzzle.stints, timed.session_of, strict=True)
    return float(sum(any(o.kind == "lay" for o in s.operations) and _is_dark(timed.puzzle, k) for s, k in every))
