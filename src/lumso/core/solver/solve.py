"""The best days there are, proven where the time allows it, beginning from those that were found at once."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from time import monotonic
from typing import Literal

from ortools.sat.python import cp_model

from ..days.alike import like_with_like
from ..days.check import broken
from ..days.days import Days, Proof, days_of
from ..days.hours import is_daylight
from ..days.placed import Placed, Timed
from ..days.puzzle import Puzzle
from ..days.settle import Ask, settle
from ..days.tighten import tighten
from ..layers.drying import dry_at
from .model import Model

SLACK_SESSIONS = 3
"""So many sessions after the greedy finish are looked at too, where several jobs may change places."""
HORIZON_STEPS = 10**7
Goal = Literal["lateness", "finish", "visits", "minutes", "daylight"]


@dataclass(frozen=True)
class Found:
    """The days that were found, and how good they are. `stopped` says that the clock ended the search, not its work."""

    placed: Placed
    proofs: tuple[Proof, ...]
    stopped: bool
    rejected: str = ""
    """Why what the search came to was not taken: the checker found something."""


@dataclass(frozen=True)
class Limits:
    """How long is searched: work that repeats exactly, for each thing asked for, and seconds of the clock for all."""

    work: float = 4.0
    seconds: float = 20.0
    grid_min: int = 1


def solve(puzzle: Puzzle, first: Placed, limits: Limits | None = None) -> Found:
    """The best days that are found within limits; never worse than `first`, which keeps everything."""
    limits = limits or Limits()
    before = Timed(puzzle, first)
    if not puzzle.stints:
        return Found(first, (), False)
    slack = SLACK_SESSIONS if len(puzzle.jobs) > 1 else 0
    last = min(max(before.session_of) + slack, len(puzzle.sessions) - 1)
    model = Model(puzzle, limits.grid_min, last)
    hint = [model.up(b) for b in first.begins]
    sessions = list(before.session_of)
    until = monotonic() + limits.seconds
    proofs: list[Proof] = []
    stopped, best = False, None
    for goal, objective in _goals(model):
        for n, start in enumerate(model.start):
            if best is None:
                model.cp.add_hint(start, hint[n])
                for k, literal in model.inside[n].items():
                    model.cp.add_hint(literal, k == sessions[n])
        model.cp.minimize(objective)
        solver = _solver(limits, until)
        status = solver.solve(model.cp)
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            stopped = stopped or monotonic() >= until
            break
        proven = status == cp_model.OPTIMAL
        stopped = stopped or (not proven and monotonic() >= until)
        value = round(solver.objective_value)
        best = [solver.value(s) for s in model.start]
        scale = limits.grid_min if goal in {"lateness", "minutes"} else 1
        proofs.append(Proof(goal, value * scale, solver.best_objective_bound * scale, proven))
        model.cp.add(objective <= value)
        model.cp.clear_hints()  # type: ignore[no-untyped-call]
        for n, start in enumerate(model.start):
            model.cp.add_hint(start, best[n])
            for literal in model.inside[n].values():
                model.cp.add_hint(literal, bool(solver.value(literal)))
    if best is None:
        return Found(first, (), stopped)
    return _taken(puzzle, before, [model.minute(s) for s in best], tuple(proofs), stopped)


def _solver(limits: Limits, until: float) -> cp_model.CpSolver:
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 7
    solver.parameters.max_deterministic_time = limits.work
    solver.parameters.max_time_in_seconds = max(until - monotonic(), 0.05)
    return solver


def _taken(puzzle: Puzzle, before: Timed, begins: Sequence[float], proofs: tuple[Proof, ...],
           stopped: bool) -> Found:  # fmt: skip
    """What was found, moved to the minute; what was there before, where that is better or the checker refuses it."""
    rough = Placed(tuple(begins), _by_whom(puzzle, begins))
    found = tighten(puzzle, rough)
    faults: list[str] = []
    if found is None:
        found, faults = rough, broken(Timed(puzzle, rough))
    if faults or Timed(puzzle, found).score > before.score:
        return Found(before.placed, proofs, stopped, faults[0] if faults else "")
    return Found(like_with_like(puzzle, found), proofs, stopped)


def _by_whom(puzzle: Puzzle, begins: Sequence[float]) -> tuple[int, ...]:
    """A painter for each stint: the first that is free."""
    free = [puzzle.now_min] * puzzle.table.painters
    free[0] = max(free[0], puzzle.busy_until)
    who = [0] * len(begins)
    for n in sorted(range(len(begins)), key=lambda n: begins[n]):
        who[n] = next((p for p, at in enumerate(free) if at <= begins[n] + 1e-6), 0)
        free[who[n]] = puzzle.run(n, begins[n])[-1][1]
    return tuple(who)


def _goals(model: Model) -> list[tuple[Goal, cp_model.LinearExpr]]:
    """What is asked for, in order."""
    goals: list[tuple[Goal, cp_model.LinearExpr]] = []
    late = _lateness(model)
    if late:
        goals.append(("lateness", cp_model.LinearExpr.sum(late)))
    middle: list[tuple[Goal, cp_model.LinearExpr]] = []
    for rank in sorted({j.priority for j in model.puzzle.jobs}):
        ends = [_last_session(model, j.key) for j in model.puzzle.jobs if j.priority == rank]
        middle.append(("finish", cp_model.LinearExpr.sum(ends)))
    visits = ("visits", cp_model.LinearExpr.sum(_visits(model)))
    first: Callable[[], list[tuple[Goal, cp_model.LinearExpr]]] = lambda: (  # noqa: E731
        [visits, *middle] if model.puzzle.table.goal == "visits" else [*middle, visits]  # type: ignore[list-item]
    )
    goals += first()
    goals.append(("minutes", _minutes(model)))
    if model.puzzle.table.by_daylight and (dark := _in_the_dark(model)):
        goals.append(("daylight", cp_model.LinearExpr.sum(dark)))
    return goals


def _of(model: Model, job: str) -> list[int]:
    return [n for n, key in enumerate(model.puzzle.job_of) if key == job]


def _last_session(model: Model, job: str) -> cp_model.IntVar:
    last = model.cp.new_int_var(0, len(model.puzzle.sessions), f"last session {job}")
    for n in _of(model, job):
        model.cp.add(last >= sum(k * x for k, x in model.inside[n].items()))
    return last


def _visits(model: Model) -> list[cp_model.IntVar]:
    used = []
    for k in model.windows:
        mine = [inside[k] for inside in model.inside if k in inside]
        if mine:
            one = model.cp.new_bool_var(f"used {k}")
            for literal in mine:
                model.cp.add_implication(literal, one)
            used.append(one)
    return used


def _finish(model: Model, job: str) -> cp_model.IntVar:
    end = model.cp.new_int_var(0, HORIZON_STEPS, f"finish {job}")
    for n in _of(model, job):
        model.cp.add(end >= model.start[n] + min(model.takes[n].values()))
    return end


def _minutes(model: Model) -> cp_model.LinearExpr:
    """The finish of each job; and, much less, what is mixed long ahead as late as it may be."""
    ends = [_finish(model, j.key) for j in model.puzzle.jobs]
    early = [model.start[n] for n, s in enumerate(model.puzzle.stints) if s.passing]
    weight = 100 * (len(early) + 1)
    return weight * cp_model.LinearExpr.sum(ends) - cp_model.LinearExpr.sum(early)


def _lateness(model: Model) -> list[cp_model.IntVar]:
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
    return found


def _usable(model: Model, late: cp_model.IntVar, due: int, operation: str, wait: object) -> None:
    """A job is late, too, while what was laid last may not be used gently: by the session it was laid in."""
    from ..layers.drying import Wait

    assert isinstance(wait, Wait)
    n = model.puzzle.owner.get(operation)
    if n is None:
        return
    room = model.puzzle.room
    for k, literal in model.inside[n].items():
        starts = model._samples[n, k]
        ready = dry_at(model._at(n, operation, starts[0], "end"), wait, room)
        if ready is None:
            continue
        gap = ready - starts[0]
        model.cp.add(late >= model.start[n] + model.up(model.base_min + gap) - due).only_enforce_if(literal)


def _in_the_dark(model: Model) -> list[cp_model.IntVar]:
    """For each stint that lays a colour, whether its session is not in daylight."""
    found = []
    for n, stint in enumerate(model.puzzle.stints):
        if any(o.kind == "lay" for o in stint.operations):
            found += [
                x for k, x in model.inside[n].items()
                if not is_daylight(sum(model.windows[k]) / 2, model.puzzle.table)
            ]  # fmt: skip
    return found


def best_days(ask: Ask, limits: Limits | None = None) -> Days:
    """The best days of jobs that are found within limits."""
    limits = limits or Limits()
    until = monotonic() + limits.seconds
    last: list[Found] = []

    def search(puzzle: Puzzle, first: Placed) -> Placed:
        found = solve(puzzle, first, replace(limits, seconds=max(until - monotonic(), 0.05)))
        last[:] = [found]
        return found.placed

    settled = settle(ask, search, hurry=lambda: monotonic() >= until)
    found = last[0] if last else Found(settled.timed.placed, (), False)
    return days_of(settled, found.proofs, True, found.stopped, found.rejected)
