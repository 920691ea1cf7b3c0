"""Small puzzles to be put into days, made by hand; and the same solved by trying everything."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import product
from typing import Any, cast

from lumso.catalogue import shipped
from lumso.core.days.check import broken
from lumso.core.days.greedy import greedy
from lumso.core.days.hours import Session, Timetable
from lumso.core.days.placed import Timed
from lumso.core.days.puzzle import FilmNeeds, JobIn, Puzzle
from lumso.core.days.stints import Stint
from lumso.core.layers.conditions import Room, steady
from lumso.core.layers.drying import Wait
from lumso.core.work.operations import Constraint, Kind, Operation

HABITS = replace(shipped().habits, lay_out_min=5.0, clear_away_min=5.0)
HOUR, DAY = 60.0, 24 * 60.0
NOW = 29_924_640.0
"""Tuesday 24 November 2026, 00:00 UTC, in minutes since 1970."""


def op(name: str, minutes: float, kind: Kind = "lay", **more: Any) -> Operation:
    return Operation(name, kind, name, hands_on_min=minutes, **more)


def stint(name: str, *minutes: float, kind: Kind = "lay", **more: Any) -> Stint:
    """A stint of one operation, or of several: a, a1, a2."""
    return Stint(tuple(op(name if not i else f"{name}{i}", m, kind, **more) for i, m in enumerate(minutes)))


def after(first: str, then: str, minutes: float = 0.0, by: str = "clock") -> Constraint:
    kind = "at least" if minutes else "after"
    return Constraint(cast(Any, kind), first, then, Wait(minutes, cast(Any, by)), why=f"{first} dries")


def within(first: str, then: str, minutes: float, remedy: str = "abrade it") -> Constraint:
    return Constraint("at most", first, then, Wait(minutes), why=f"{first} hardens", remedy=remedy)


def evenings(days: Sequence[int], opens: float = 18 * HOUR, closes: float = 21 * HOUR) -> tuple[Session, ...]:
    return tuple(Session(NOW + d * DAY + opens, NOW + d * DAY + closes) for d in days)


def puzzle(
    stints: Sequence[Stint],
    ties: Sequence[Constraint],
    sessions: Sequence[Session],
    *,
    room: Room | None = None,
    table: Timetable | None = None,
    jobs: Sequence[JobIn] = (),
    films: Mapping[str, FilmNeeds] | None = None,
    fixed: Mapping[str, tuple[float, float]] | None = None,
) -> Puzzle:
    """A puzzle of one job, "", where no jobs are given."""
    known = tuple(jobs) or (JobIn("", "Job", cast(Any, None)),)
    return Puzzle(
        tuple(stints), tuple(ties), (), films or {}, fixed or {}, known, {j.key: () for j in known}, tuple(sessions),
        room or steady(), table or Timetable(), NOW, HABITS,
    )  # fmt: skip


def found(made: Puzzle) -> Timed:
    """The days found at once, which keep everything."""
    timed = Timed(made, greedy(made))
    assert broken(timed) == []
    return timed


def begins(timed: Timed) -> dict[str, str]:
    """When each stint is begun: day and time, 1 being the first evening's date."""
    made = {}
    for n, one in enumerate(timed.puzzle.stints):
        minute = timed.placed.begins[n] - NOW
        clock = round(minute % DAY)
        made[one.id] = f"{int(minute // DAY)} {clock // 60:02d}:{clock % 60:02d}"
    return made


def best_of_all(made: Puzzle, step: int = 5) -> tuple[float, ...] | None:
    """The best score there is, by trying every start on a grid; None where nothing keeps everything.

    For two to four stints of one operation, waits by the clock, one job. It asks nothing of the core but what holds.
    """
    lengths = [s.operations[0].hands_on_min for s in made.stints]
    place = {s.id: n for n, s in enumerate(made.stints)}
    rooms = [(x.begins_min + HABITS.lay_out_min, x.ends_min - HABITS.clear_away_min) for x in made.sessions]
    starts = []
    for length in lengths:
        mine = []
        for k, (opens, closes) in enumerate(rooms):
            mine += [(opens + i * step, k) for i in range(int((closes - opens - length) // step) + 1)]
        starts.append(mine)
    (job,) = made.jobs
    best = None
    for chosen in product(*starts):
        at = [b for b, _ in chosen]
        ends = [b + length for b, length in zip(at, lengths, strict=True)]
        if not all(_holds(t, at, ends, place) for t in made.ties):
            continue
        if any(sum(b <= x < e for b, e in zip(at, ends, strict=True)) > made.table.painters for x in at):
            continue
        finish = max(ends)
        late = max(finish - job.due_min, 0.0) if job.due_min is not None else 0.0
        last, visits = float(max(k for _, k in chosen)), float(len({k for _, k in chosen}))
        middle = (visits, last) if made.table.goal == "visits" else (last, visits)
        score = (late, *middle, finish)
        best = score if best is None else min(best, score)
    return best


def _holds(tie: Constraint, at: Sequence[float], ends: Sequence[float], place: Mapping[str, int]) -> bool:
    first, then = place[tie.first], place[tie.then]
    wait = tie.wait.reference_min or 0.0
    if tie.kind == "at most":
        return at[then] <= ends[first] + wait
    wait = max(wait, 480.0) if tie.wait.by == "night" else wait
    later = at[then] >= ends[first] + wait
    return later or (tie.kind == "not beside" and ends[then] <= at[first])
