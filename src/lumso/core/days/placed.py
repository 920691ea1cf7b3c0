"""Stints put into days: when each is begun and by whom, and when each operation is."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from ..layers.drying import dry_at
from .puzzle import Puzzle


@dataclass(frozen=True)
class Placed:
    """When each stint of a puzzle is begun, in the order of its stints, and which painter does it, from 0."""

    begins: tuple[float, ...]
    painters: tuple[int, ...]


@dataclass(frozen=True)
class Timed:
    """A puzzle with its stints placed: when everything is done."""

    puzzle: Puzzle
    placed: Placed

    @cached_property
    def spans(self) -> Mapping[str, tuple[float, float]]:
        """From when to when each operation is done, what is done already included."""
        found = dict(self.puzzle.fixed)
        for n, begins in enumerate(self.placed.begins):
            for operation, span in zip(self.puzzle.stints[n].operations, self.puzzle.run(n, begins), strict=True):
                found[operation.id] = span
        return found

    def ends(self, n: int) -> float:
        """When a stint ends."""
        return self.puzzle.run(n, self.placed.begins[n])[-1][1]

    @cached_property
    def session_of(self) -> tuple[int, ...]:
        """The place of the session of each stint; -1 where it lies in none."""
        return tuple(self._session(n) for n in range(len(self.placed.begins)))

    def _session(self, n: int) -> int:
        begins, ends = self.placed.begins[n], self.ends(n)
        for k, (opens, closes) in enumerate(self.puzzle.usable):
            if begins >= opens - 1e-6 and ends <= closes + 1e-6:
                return k
        return -1

    @cached_property
    def visits(self) -> tuple[int, ...]:
        """The sessions that anything is done in, in order."""
        return tuple(sorted(set(self.session_of)))

    def finished(self, job: str) -> float:
        """When the last of a job is done, in minutes; when it was, where all of it is."""
        mine = [self.ends(n) for n, key in enumerate(self.puzzle.job_of) if key == job]
        if mine:
            return max(mine)
        prefix = f"{job}|" if job else ""
        return max((e for o, (_, e) in self.puzzle.fixed.items() if o.startswith(prefix)), default=self.puzzle.now_min)

    def gently(self, job: str) -> float | None:
        """From when a job may be used gently; None where only a label knows, or its films do not dry."""
        found = [self.finished(job)]
        for operation, wait in self.puzzle.ends.get(job, ()):
            if operation in self.spans:
                at = dry_at(self.spans[operation][1], wait, self.puzzle.room)
                if at is None:
                    return None
                found.append(at)
        return max(found)

    def late_min(self, job: str) -> float:
        """Minutes by which a job misses what was promised; 0 where nothing was, or it is kept."""
        one = next(j for j in self.puzzle.jobs if j.key == job)
        if one.due_min is None:
            return 0.0
        ready = self.gently(job) if one.due_for == "gently" else self.finished(job)
        return max((self.finished(job) if ready is None else ready) - one.due_min, 0.0)

    @cached_property
    def hands_on_min(self) -> float:
        """Minutes of work still to be done: the operations' own, and laying out and clearing away once a visit."""
        habits = self.puzzle.habits
        own = sum(o.hands_on_min for s in self.puzzle.stints for o in s.operations)
        return own + len(self.visits) * (habits.lay_out_min + habits.clear_away_min)

    @cached_property
    def score(self) -> tuple[float, ...]:
        """What is made least, in order: lateness; the finishing session of each job by its priority; visits; minutes.

        Where the fewest visits come first, they come before the finish.
        """
        puzzle = self.puzzle
        late = sum(self.late_min(j.key) for j in puzzle.jobs)
        by_rank: dict[int, int] = {}
        for job in puzzle.jobs:
            mine = [self.session_of[n] for n, key in enumerate(puzzle.job_of) if key == job.key]
            by_rank[job.priority] = by_rank.get(job.priority, 0) + max(mine, default=0)
        finish = tuple(float(by_rank[rank]) for rank in sorted(by_rank))
        visits = (float(len(self.visits)),)
        minutes = sum(self.finished(j.key) for j in puzzle.jobs)
        middle = (*visits, *finish) if puzzle.table.goal == "visits" else (*finish, *visits)
        return (late, *middle, minutes)
