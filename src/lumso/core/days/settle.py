"""Jobs put into days: worked, placed, and worked again where what is kept of a pot would not live until it is used."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Protocol

from ..book.catalogue import Catalogue
from ..errors import Problem
from ..figure import lasts
from ..job.job import Job
from ..layers.conditions import Room
from ..memory import Memo
from ..work.operations import Constraint
from ..work.work import Work, work
from ..workshop.workshop import Workshop
from .facts import Fact
from .greedy import CannotKeep, NoPlace, greedy
from .hours import Timetable, sessions
from .placed import Placed, Timed
from .puzzle import JobIn, Pin, Puzzle, until_of
from .setting_up import lose, puzzle_of, too_warm

ROUNDS = 3
MOST_STINTS = 250
"""More are not put into days: about 2 s on a small machine. A theatre's foyer has fifty."""
HORIZONS = (42, 126, 366)
"""Days that are looked ahead; the next where something fits nowhere."""


@dataclass(frozen=True)
class JobAsk:
    """A job to be put into days, with what was promised, what was pinned and what was done."""

    key: str
    job: Job
    due_min: float | None = None
    due_for: str = "gently"
    priority: int = 1
    from_min: float = 0.0
    flat: Mapping[str, int] = field(default_factory=dict)
    pins: tuple[Pin, ...] = ()
    facts: Mapping[str, Fact] = field(default_factory=dict)


@dataclass(frozen=True)
class Ask:
    """All that days are found from. `room` is what jobs are worked with, `air` what they dry in by the hour."""

    jobs: tuple[JobAsk, ...]
    workshop: Workshop
    catalogue: Catalogue
    room: Room
    air: Room
    table: Timetable
    now_min: float


class Search(Protocol):
    """A search for better days than those it is given."""

    def __call__(self, puzzle: Puzzle, first: Placed, /) -> Placed: ...


@dataclass(frozen=True)
class Settled:
    """The days, what stands in their way, and windows of kept pots that nothing could be done about."""

    timed: Timed
    problems: tuple[Problem, ...]
    outlived: tuple[Constraint, ...]


def _worked(ask: Ask, own_pots: Mapping[str, set[str]], memo: Memo) -> list[tuple[JobAsk, Work]]:
    return [
        (one, work(one.job, ask.workshop, ask.catalogue, ask.room, memo, frozenset(own_pots.get(one.key, ()))))
        for one in ask.jobs
    ]


def _puzzle(ask: Ask, worked: Sequence[tuple[JobAsk, Work]], days: int) -> Puzzle:
    jobs = [
        JobIn(j.key, j.job.name, made, j.due_min, j.due_for, j.priority, j.from_min, j.flat, j.pins, j.facts)
        for j, made in worked
    ]
    habits = jobs[0].work.jobs[0].catalogue.habits if jobs else ask.catalogue.habits
    open_hours = sessions(ask.table, ask.now_min, days)
    return puzzle_of(jobs, open_hours, ask.air, ask.table, ask.now_min, habits)


def _without(puzzle: Puzzle, stint: int) -> Puzzle:
    """The puzzle less a stint that fits nowhere: what holds for it is held by nothing."""
    gone = {o.id for o in puzzle.stints[stint].operations}
    ties = tuple(t for t in puzzle.ties if t.first not in gone and t.then not in gone)
    stints = (*puzzle.stints[:stint], *puzzle.stints[stint + 1 :])
    return replace(puzzle, stints=stints, ties=ties)


def _nothing(puzzle: Puzzle) -> Puzzle:
    return replace(puzzle, stints=(), ties=(), soft=())


def _too_many(count: int) -> Problem:
    says = f"{count} things to do are more than can be put into days together."
    return Problem("/jobs", says, f"at most {MOST_STINTS}: fewer jobs at once, or a piece as several jobs")


def _unpinned(puzzle: Puzzle, stint: int) -> Puzzle:
    """The puzzle with a stint pinned no more."""
    gone = set(puzzle.pinned[stint])
    return replace(puzzle, jobs=tuple(replace(j, pins=tuple(p for p in j.pins if p not in gone)) for j in puzzle.jobs))


def _why(puzzle: Puzzle, error: NoPlace) -> Problem:
    """Why something fits nowhere, and what would do."""
    stint = puzzle.stints[error.stint]
    says = stint.operations[-1 if len(stint.operations) == 1 else 0].says
    at = f"/jobs/{puzzle.job_of[error.stint]}"
    takes = puzzle.run(error.stint, puzzle.now_min)[-1][1] - puzzle.now_min
    if takes > puzzle.longest_min:
        return Problem(
            at, f"“{says}” takes {lasts(takes)} in one go; nobody is at the bench for longer than "
            f"{lasts(puzzle.longest_min)}.", "a longer stretch of open hours, or smaller patches",
        )  # fmt: skip
    if error.why == "pinned":
        return Problem(
            at, f"“{says}” cannot be begun when it is pinned to; it is planned without.", "another time, or no pin"
        )
    if error.why:
        return Problem(
            at, f"There is no fit hour for “{says}” within {HORIZONS[-1]} days. {error.why}",
            "another room, a warm room for this layer, or hours in the warmth of the day",
        )  # fmt: skip
    return Problem(at, f"There is no time for “{says}” within {HORIZONS[-1]} days.", "more open hours, or a pin less")


def _at_once(puzzle: Puzzle, last: bool) -> tuple[Puzzle, Placed, list[Problem]]:
    """Days found at once; windows that cannot be kept are given up for their remedy. What fits nowhere is left out
    where this is the `last` try, and raises NoPlace otherwise."""
    problems: list[Problem] = []
    while True:
        try:
            return puzzle, greedy(puzzle), problems
        except CannotKeep as error:
            puzzle = lose(puzzle, error.tie)
        except NoPlace as error:
            takes = puzzle.run(error.stint, puzzle.now_min)[-1][1] - puzzle.now_min
            if not last and takes <= puzzle.longest_min and error.why != "pinned":
                raise
            if error.why.startswith("In this air") and (spoilt := puzzle.inner.get(error.stint)):
                puzzle = too_warm(puzzle, error.stint, spoilt)
                continue
            problems.append(_why(puzzle, error))
            give_up = _unpinned if error.why == "pinned" else _without
            puzzle = give_up(puzzle, error.stint)


def _outlived(timed: Timed) -> list[Constraint]:
    """Lives of kept pots that end before they are used."""
    found = []
    for tie in timed.puzzle.soft:
        if tie.first in timed.spans and tie.then in timed.spans:
            since = timed.spans[tie.first][0 if tie.since == "start" else 1]
            if timed.spans[tie.then][1] > until_of(tie, since, timed.puzzle.room) + 1e-6:
                found.append(tie)
    return found


def _own_pot(tie: Constraint, worked: Sequence[tuple[JobAsk, Work]]) -> tuple[str, str] | None:
    """The job and the coat that needs a pot of its own."""
    for one, made in worked:
        prefix = f"{one.key}|" if one.key else ""
        name = tie.then.removeprefix(prefix)
        if tie.then.startswith(prefix) and name in made.made.coat_of:
            return one.key, made.made.coat_of[name]
    return None


def settle(ask: Ask, search: Search | None = None, memo: Memo | None = None,
           hurry: Callable[[], bool] = lambda: False) -> Settled:  # fmt: skip
    """The days of jobs: at once, or the best that `search` finds.

    Where they outlive what is kept of a pot, its coat gets a pot of its own and all is worked again, three times at
    most; not when `hurry` says that nobody waits any more.
    """
    memo = memo or Memo()
    own_pots: dict[str, set[str]] = {}
    outlived: list[Constraint] = []
    for _ in range(ROUNDS + 1):
        worked = _worked(ask, own_pots, memo)
        for days in HORIZONS:
            puzzle = _puzzle(ask, worked, days)
            if (count := len(puzzle.stints)) > MOST_STINTS:
                return Settled(Timed(_nothing(puzzle), Placed((), ())), (_too_many(count),), ())
            try:
                puzzle, placed, problems = _at_once(puzzle, days == HORIZONS[-1])
                break
            except NoPlace:
                continue
        if search and puzzle.stints:
            placed = search(puzzle, placed)
        timed = Timed(puzzle, placed)
        outlived = _outlived(timed)
        more = [pot for tie in outlived if (pot := _own_pot(tie, worked)) and pot[1] not in own_pots.get(pot[0], ())]
        if not more or hurry():
            break
        for job, coat in more:
            own_pots.setdefault(job, set()).add(coat)
    stuck = [p for one, made in worked for p in _of_job(one, made)]
    return Settled(timed, (*stuck, *problems), tuple(outlived))


def _of_job(one: JobAsk, made: Work) -> list[Problem]:
    return [replace(p, at=f"/jobs/{one.key}{p.at}") for p in made.problems]
