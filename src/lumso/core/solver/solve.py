"""The best days there are, proven where the time allows it, beginning from those that were found at once.

Days are searched for in a model that rounds towards what can be kept. That nothing is better is proven in another that
rounds towards what could be hoped for: where both come to the same, it is so to the minute.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from time import monotonic

from ortools.sat.python import cp_model

from ..days.alike import like_with_like
from ..days.check import broken
from ..days.days import Days, Proof
from ..days.placed import Placed, Timed
from ..days.puzzle import Puzzle
from ..days.settle import Ask, settle
from ..days.tighten import tighten
from ..days.view import days_of
from .goals import Goal, goals_of
from .model import Model

FINER = 5
"""What is hoped for is looked at so many times as closely: what it rounds away must not make a session."""
SLACK_FOR_VISITS = 12
"""So many where the fewest visits come first: they may be later than any finish."""
SLACK_SESSIONS = 3
"""So many sessions after the greedy finish are looked at too, where several jobs may change places."""


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
    grid_min: float = 1.0


def solve(puzzle: Puzzle, first: Placed, limits: Limits | None = None) -> Found:
    """The best days that are found within limits; never worse than `first`, which keeps everything."""
    limits = limits or Limits()
    if not puzzle.stints:
        return Found(first, (), False)
    until = monotonic() + limits.seconds
    before = Timed(puzzle, first)
    goals = goals_of(puzzle)
    begins = _searched(puzzle, before, goals, limits, monotonic() + limits.seconds * 0.7)
    placed, rejected = (first, "") if begins is None else _taken(puzzle, before, begins)
    proofs = _proven(Timed(puzzle, placed), goals, limits, until)
    return Found(placed, proofs, monotonic() >= until, rejected)


def _model(timed: Timed, limits: Limits, hopeful: bool) -> Model:
    puzzle = timed.puzzle
    slack = SLACK_SESSIONS if len(puzzle.jobs) > 1 else 0
    if puzzle.table.goal == "visits":
        slack = SLACK_FOR_VISITS
    last = min(max(timed.session_of) + slack, len(puzzle.sessions) - 1)
    return Model(puzzle, limits.grid_min / FINER if hopeful else limits.grid_min, last, hopeful)


def _hint(model: Model, begins: Sequence[int], sessions: Sequence[int]) -> None:
    model.cp.clear_hints()  # type: ignore[no-untyped-call]
    for n, start in enumerate(model.start):
        model.cp.add_hint(start, begins[n])
        for k, literal in model.inside[n].items():
            model.cp.add_hint(literal, k == sessions[n])


def _searched(puzzle: Puzzle, before: Timed, goals: Sequence[Goal], limits: Limits,
              until: float) -> list[float] | None:  # fmt: skip
    """When each stint begins in the best days that are found; None where none are found that keep everything."""
    try:
        model = _model(before, limits, False)
    except ValueError:
        return None  # rounded, something fits nowhere
    _hint(model, [model.up(b) for b in before.placed.begins], before.session_of)
    best: list[int] | None = None
    for goal in goals:
        objective = goal.objective(model)
        model.cp.minimize(objective)
        solver = _solver(limits, until)
        if solver.solve(model.cp) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            break
        best = [solver.value(s) for s in model.start]
        model.cp.add(objective <= round(solver.objective_value))
        inside = [next(k for k, x in mine.items() if solver.value(x)) for mine in model.inside]
        _hint(model, best, inside)
    return None if best is None else [model.minute(s) for s in best]


def _proven(timed: Timed, goals: Sequence[Goal], limits: Limits, until: float) -> tuple[Proof, ...]:
    """How good days are: for each thing that is asked for what nothing is better than, as far as all before is kept."""
    try:
        model = _model(timed, limits, True)
    except ValueError:
        return ()
    _hint(model, [model.down(b) for b in timed.placed.begins], timed.session_of)
    proofs = []
    for goal in goals:
        value = goal.comes_to(timed)
        objective = goal.objective(model)
        model.cp.minimize(objective)
        solver = _solver(limits, until)
        status = solver.solve(model.cp)
        known = status != cp_model.INFEASIBLE
        minute = model.grid_min if goal.close else 1.0
        bound = min(max(solver.best_objective_bound / goal.steps * minute, 0.0), value) if known else 0.0
        proven = value - bound <= goal.close + 1e-6
        proofs.append(Proof(goal.kind, value, value if proven else bound, proven))
        if not proven:
            break
        model.cp.add(objective <= model.most(value * goal.steps / minute))
    return tuple(proofs)


def _solver(limits: Limits, until: float) -> cp_model.CpSolver:
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.random_seed = 7
    solver.parameters.max_deterministic_time = limits.work
    solver.parameters.max_time_in_seconds = max(until - monotonic(), 0.05)
    return solver


def _taken(puzzle: Puzzle, before: Timed, begins: Sequence[float]) -> tuple[Placed, str]:
    """What was found, moved to the minute; what was there before, where that is better or the checker refuses it."""
    rough = Placed(tuple(begins), _by_whom(puzzle, begins))
    found = tighten(puzzle, rough)
    if found is None:
        found = rough
        if faults := broken(Timed(puzzle, rough)):
            return before.placed, faults[0]
    if Timed(puzzle, found).score > before.score:
        return before.placed, ""
    return like_with_like(puzzle, found), ""


def _by_whom(puzzle: Puzzle, begins: Sequence[float]) -> tuple[int, ...]:
    """A painter for each stint: the first that is free."""
    free = [puzzle.now_min] * puzzle.table.painters
    free[0] = max(free[0], puzzle.busy_until)
    who = [0] * len(begins)
    for n in sorted(range(len(begins)), key=lambda n: begins[n]):
        who[n] = next((p for p, at in enumerate(free) if at <= begins[n] + 1e-6), 0)
        free[who[n]] = puzzle.run(n, begins[n])[-1][1]
    return tuple(who)


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
