"""The days as a model of constraints for CP-SAT: when each stint begins, on a grid, and in which session.

Sessions carry the search: which session a stint is in is a literal of its own, and what is asked for first is asked of
sessions. Where the room stays as it is, a wait is a plain difference. Where it changes, waits are tabulated by when the
stint they follow begins: least waits are rounded up, most waits down, so that what is found keeps them in minutes.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from math import ceil, floor, inf

from ortools.sat.python import cp_model

from ..days.puzzle import Puzzle, over_at, until_of
from ..layers.drying import dry_at
from ..work.operations import LIVES, Constraint

STEP_MIN = 5
"""Waits are tabulated at starts so far apart where the room changes."""
STRETCH_MIN = 60
"""Over so long a stretch of starts a wait is taken as long as the longest of them."""


@dataclass
class Model:
    """The model of a puzzle. `grid_min` are the minutes of a step of its axis, which begins at `base_min`."""

    puzzle: Puzzle
    grid_min: float
    last: int
    """The place of the last session that is looked at."""
    hopeful: bool = False
    """Whether all is rounded the other way: what nothing can be better than, instead of what can be kept."""
    cp: cp_model.CpModel = field(default_factory=cp_model.CpModel)
    start: list[cp_model.IntVar] = field(default_factory=list)
    inside: list[dict[int, cp_model.IntVar]] = field(default_factory=list)
    """By the place of a session: whether a stint is in it."""
    takes: list[dict[int, int]] = field(default_factory=list)
    _samples: dict[tuple[int, int], tuple[float, ...]] = field(default_factory=dict)
    _reached: dict[tuple[int, int], cp_model.IntVar] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self.base_min = self.puzzle.now_min
        self.steady = len(self.puzzle.room.spells) == 1
        self.windows = {
            k: (opens, closes) for k, (opens, closes) in enumerate(self.puzzle.usable[: self.last + 1])
            if closes > opens
        }  # fmt: skip
        for n in range(len(self.puzzle.stints)):
            self._stint(n)
        self._hands()
        for tie in self.puzzle.ties:
            self._tie(tie)
        self._flat()
        self._loads()

    def up(self, minute: float) -> int:
        """The first step at or after a minute."""
        return self.least((minute - self.base_min) / self.grid_min)

    def down(self, minute: float) -> int:
        """The last step at or before a minute."""
        return self.most((minute - self.base_min) / self.grid_min)

    def least(self, steps: float) -> int:
        """What must at least be kept, in whole steps; where it is hoped for, not even all of that."""
        return floor(steps + 1e-9) if self.hopeful else ceil(steps - 1e-9)

    def most(self, steps: float) -> int:
        """What must at most be come to, in whole steps; where it is hoped for, a little more."""
        return ceil(steps - 1e-9) if self.hopeful else floor(steps + 1e-9)

    def minute(self, step: int) -> float:
        """The minute of a step."""
        return self.base_min + step * self.grid_min

    def _starts(self, n: int, k: int) -> list[tuple[int, int]]:
        """The stretches of steps at which a stint may begin in a session."""
        opens, closes = self.windows[k]
        low, high = self.puzzle.bounds[n]
        first = max(self.up(opens), self.up(low))
        if self.steady:
            takes = self._length(n, self.minute(first))
            last = min(self.down(closes - takes), self.down(high) if high < inf else first + 10**6)
            return [(first, last)] if first <= last and self.puzzle.fits(n, self.minute(first))[0] < inf else []
        found: list[tuple[int, int]] = []
        step = max(int(STEP_MIN / self.grid_min), 1)
        at, last = first, self.down(closes if high == inf else min(closes, high))
        while at <= last:
            end = min(at + step - 1, last)
            begins, ends = self._fit_at(n, at, closes), self._fit_at(n, end, closes)
            if begins and ends:
                found.append((at, end))
            elif begins or ends:
                turns = self._turn(n, at, end, closes)
                more = int(self.hopeful)
                found.append((at, turns + more) if begins else (turns + 1 - more, end))
            at += step
        return found

    def _turn(self, n: int, at: int, end: int, closes: float) -> int:
        """The last step of a chunk that is as its first: fit or not."""
        first = self._fit_at(n, at, closes)
        while end - at > 1:
            middle = (at + end) // 2
            if self._fit_at(n, middle, closes) == first:
                at = middle
            else:
                end = middle
        return at

    def _fit_at(self, n: int, step: int, closes: float) -> bool:
        at = self.minute(step)
        return self.puzzle.fits(n, at)[0] <= at + 1e-6 and at + self._length(n, at) <= closes + 1e-6

    def _length(self, n: int, begins: float) -> float:
        return self.puzzle.run(n, begins)[-1][1] - begins

    def _stint(self, n: int) -> None:
        spans: list[tuple[int, int]] = []
        inside, takes = {}, {}
        for k in self.windows:
            mine = self._starts(n, k)
            if not mine:
                continue
            literal = self.cp.new_bool_var(f"in {n} {k}")
            inside[k] = literal
            self._samples[n, k] = tuple(self.minute(s) for pair in mine for s in dict.fromkeys(pair))
            lengths = [self.least(self._length(n, s) / self.grid_min) for s in self._samples[n, k]]
            takes[k] = min(lengths) if self.hopeful else max(lengths)
            spans += mine
        if not inside:
            raise ValueError(f"no session takes stint {n}")
        start = self.cp.new_int_var_from_domain(cp_model.Domain.from_intervals(spans), f"start {n}")
        for k, literal in inside.items():
            self.cp.add(start >= self.up(self._samples[n, k][0])).only_enforce_if(literal)
            self.cp.add(start <= self.down(self._samples[n, k][-1])).only_enforce_if(literal)
        self.cp.add_exactly_one(inside.values())
        self.start.append(start)
        self.inside.append(inside)
        self.takes.append(takes)

    def _hands(self) -> None:
        intervals = []
        for n, start in enumerate(self.start):
            lengths = set(self.takes[n].values())
            if len(lengths) == 1:
                intervals.append(self.cp.new_fixed_size_interval_var(start, lengths.pop(), f"stint {n}"))
                continue
            size = self.cp.new_int_var(min(lengths), max(lengths), f"takes {n}")
            end = self.cp.new_int_var(0, 10**8, f"end {n}")
            self.cp.add(size == sum(self.takes[n][k] * x for k, x in self.inside[n].items()))
            intervals.append(self.cp.new_interval_var(start, size, end, f"stint {n}"))
        until = self.puzzle.busy_until
        if until > self.puzzle.now_min:
            intervals.append(self.cp.new_fixed_size_interval_var(0, self.up(until), "under way"))
        if self.puzzle.table.painters == 1:
            self.cp.add_no_overlap(intervals)
        else:
            self.cp.add_cumulative(intervals, [1] * len(intervals), self.puzzle.table.painters)

    def _loads(self) -> None:
        """What a session can hold at most: said once more, for the search."""
        for k, (opens, closes) in self.windows.items():
            whole = self.down(closes) - self.up(opens)
            mine = [(self.takes[n][k], inside[k]) for n, inside in enumerate(self.inside) if k in inside]
            if mine:
                self.cp.add(sum(t * x for t, x in mine) <= whole * self.puzzle.table.painters)

    def at(self, n: int, operation: str, begins: float, end: str) -> float:
        """When an operation of a stint begins or ends, when the stint begins at a minute."""
        for one, span in zip(self.puzzle.stints[n].operations, self.puzzle.run(n, begins), strict=True):
            if one.id == operation:
                return span[0 if end == "start" else 1]
        raise KeyError(operation)

    def _offset(self, n: int, operation: str, end: str) -> tuple[float, float]:
        """From the beginning of a stint to an operation of it: the least and the most there is."""
        if self.steady or not self.puzzle.stints[n].waits:
            at = self.at(n, operation, self.base_min, end) - self.base_min
            return at, at
        every = [self.at(n, operation, s, end) - s for k in self.inside[n] for s in self._samples[n, k]]
        return min(every), max(every)

    def samples(self, n: int, k: int) -> tuple[float, ...]:
        """The starts of a stint in a session that waits are tabulated at."""
        return self._samples[n, k]

    def reached(self, n: int, step: int) -> cp_model.IntVar:
        """Whether a stint begins at a step or later."""
        if (n, step) not in self._reached:
            literal = self.cp.new_bool_var(f"from {n} {step}")
            self.cp.add(self.start[n] >= step).only_enforce_if(literal)
            self.cp.add(self.start[n] < step).only_enforce_if(~literal)
            self._reached[n, step] = literal
        return self._reached[n, step]

    def _tie(self, tie: Constraint) -> None:
        owner = self.puzzle.owner
        first, then = owner.get(tie.first), owner.get(tie.then)
        if then is None or first == then:
            return
        if tie.kind == "not beside":
            self._not_beside(tie, first, then)
        elif tie.kind in {"after", "at least"}:
            self._at_least(tie, first, then)
        elif tie.kind == "at most" or tie.kind in LIVES:
            self._at_most(tie, first, then)

    def _at_least(self, tie: Constraint, first: int | None, then: int,
                  only: tuple[cp_model.LiteralT, ...] = ()) -> None:  # fmt: skip
        least = self._offset(then, tie.then, tie.until)[int(self.hopeful)]
        if first is None:
            self._after_fixed(tie, then, least, only)
            return
        if not only:
            self._sessions(tie, first, then)
        if self.steady or (tie.kind == "after" and not self.puzzle.stints[first].waits):
            at = self.base_min
            over = over_at(tie, self.at(first, tie.first, at, tie.since), self.puzzle.room) - at - least
            self._enforce(self.start[then] >= self.start[first] + self.least(over / self.grid_min), only)
            return
        for lits, samples in self._groups(first):
            ends = [over_at(tie, self.at(first, tie.first, s, tie.since), self.puzzle.room) - least for s in samples]
            opens = [self._opens(o) if o < inf else 10**7 for o in ends]
            if opens[0] == opens[-1]:
                self._enforce(self.start[then] >= opens[0], (*lits, *only))
            elif ends[-1] == inf:
                if not self.hopeful:
                    self._enforce(self.start[then] >= 10**7, (*lits, *only))
            else:

                def ends_at(begins: float) -> float:
                    return over_at(tie, self.at(first, tie.first, begins, tie.since), self.puzzle.room) - least

                lag = _between(samples, ends_at, later=not self.hopeful)
                self._enforce(self.start[then] >= self.start[first] + self.least(lag / self.grid_min), (*lits, *only))

    def _after_fixed(self, tie: Constraint, then: int, least: float, only: tuple[cp_model.LiteralT, ...]) -> None:
        """What waits for something that is done already."""
        if tie.first not in self.puzzle.fixed:
            return
        since = self.puzzle.fixed[tie.first][0 if tie.since == "start" else 1]
        over = over_at(tie, since, self.puzzle.room)
        if over < inf:
            self._enforce(self.start[then] >= self.up(over - least), only)

    def _groups(self, n: int) -> list[tuple[tuple[cp_model.LiteralT, ...], tuple[float, ...]]]:
        """The starts that are tabulated for a stint, a stretch of a session at a time, and what says it is that one."""
        found: list[tuple[tuple[cp_model.LiteralT, ...], tuple[float, ...]]] = []
        for k, literal in self.inside[n].items():
            groups: list[list[float]] = []
            for begins in self._samples[n, k]:
                if groups and begins - groups[-1][0] < STRETCH_MIN:
                    groups[-1].append(begins)
                else:
                    groups.append([begins])
            for i, group in enumerate(groups):
                lits: tuple[cp_model.LiteralT, ...] = (literal,)
                if i:
                    lits = (*lits, self.reached(n, self.up(group[0])))
                if i + 1 < len(groups):
                    lits = (*lits, ~self.reached(n, self.up(groups[i + 1][0])))
                found.append((lits, tuple(group)))
        return found

    def _opens(self, minute: float) -> int:
        """The first step at which anything can be begun, from a minute on."""
        for opens, closes in self.windows.values():
            if closes > minute:
                return max(self.up(minute), self.up(opens))
        return 10**7

    def _at_most(self, tie: Constraint, first: int | None, then: int) -> None:
        most = self._offset(then, tie.then, tie.until)[int(not self.hopeful)]
        if first is None:
            if tie.first in self.puzzle.fixed:
                since = self.puzzle.fixed[tie.first][0 if tie.since == "start" else 1]
                until = until_of(tie, since, self.puzzle.room)
                if until < inf:
                    self.cp.add(self.start[then] <= self.down(until - most))
            return
        if self.steady:
            at = self.base_min
            until = until_of(tie, self.at(first, tie.first, at, tie.since), self.puzzle.room) - at - most
            if until < inf:
                self.cp.add(self.start[then] <= self.start[first] + self.most(until / self.grid_min))
            return
        for lits, samples in self._groups(first):

            def ends_at(begins: float) -> float:
                return until_of(tie, self.at(first, tie.first, begins, tie.since), self.puzzle.room) - most

            lag = _between(samples, ends_at, later=self.hopeful)
            if lag < inf:
                self._enforce(self.start[then] <= self.start[first] + self.most(lag / self.grid_min), lits)

    def _sessions(self, tie: Constraint, first: int, then: int) -> None:
        """In which session `then` is at the earliest, by the session of `first`: said once more, for the search."""
        _, most = self._offset(then, tie.then, tie.until)
        terms = []
        for k, literal in self.inside[first].items():
            over = over_at(tie, self.at(first, tie.first, self._samples[first, k][0], tie.since), self.puzzle.room)
            soonest = next(
                (m for m in self.inside[then] if self._samples[then, m][-1] + most >= over - 1e-6), None
            )  # fmt: skip
            if soonest is None:
                self.cp.add(literal == 0)
            else:
                terms.append(soonest * literal)
        if terms:
            self.cp.add(sum(m * x for m, x in self.inside[then].items()) >= sum(terms))

    def _not_beside(self, tie: Constraint, first: int | None, then: int) -> None:
        if first is None:
            if tie.first in self.puzzle.fixed and tie.then in self.puzzle.owner:
                wet = Constraint("at least", tie.first, tie.then, tie.wait, "end", "start")
                self._at_least(wet, None, then)
            return
        before = self.cp.new_bool_var("dust first")
        ends = self._offset(then, tie.then, "end")[int(not self.hopeful)]
        begins = self._offset(first, tie.first, "start")[int(self.hopeful)]
        gap = self.least((ends - begins) / self.grid_min)
        self._enforce(self.start[first] >= self.start[then] + gap, (before,))
        wet = Constraint("at least", tie.first, tie.then, tie.wait, "end", "start")
        self._at_least(wet, first, then, (~before,))

    def _flat(self) -> None:
        places = self.puzzle.table.flat_places
        if not places:
            return
        intervals, demands = [], []
        for coat, names in self.puzzle.flat.items():
            demands.append(min(self.puzzle.films[names[0]].places, places))
            laid = [(n, name) for name in names if (n := self.puzzle.owner.get(name)) is not None]
            fixed = self.puzzle.lies(coat, self.puzzle.fixed)
            begins = self.cp.new_int_var(0, 10**8, f"lies {coat}")
            size = self.cp.new_int_var(0, 10**8, f"lies for {coat}")
            end = self.cp.new_int_var(0, 10**8, f"dry {coat}")
            if fixed:
                self.cp.add(begins == 0)
                self.cp.add(end >= max(self.up(fixed[1]), 0))
            for n, name in laid:
                least, _ = self._offset(n, name, "start")
                self.cp.add(begins <= self.start[n] + self.down(self.base_min + least) + int(self.hopeful))
                for k, literal in self.inside[n].items():
                    self._enforce(end >= self.start[n] + self._dries(n, name, k), (literal,))
            intervals.append(self.cp.new_interval_var(begins, size, end, f"lies {coat}"))
        self.cp.add_cumulative(intervals, demands, places)

    def _dries(self, n: int, name: str, k: int) -> int:
        """Steps from the beginning of a stint until something it lays in a session is touch dry, at the most."""
        touch = self.puzzle.films[name].touch
        lasts = []
        for begins in self._samples[n, k][:1] if self.steady else self._samples[n, k]:
            dry = dry_at(self.at(n, name, begins, "end"), touch, self.puzzle.room)
            lasts.append((begins if dry is None else dry) - begins)
        steps = self.least((min if self.hopeful else max)(lasts) / self.grid_min)
        return steps - 1 if self.hopeful else steps + 1

    def _enforce(self, what: cp_model.BoundedLinearExpression | bool, only: tuple[cp_model.LiteralT, ...]) -> None:
        one = self.cp.add(what)
        if only:
            one.only_enforce_if(*only)


def _between(samples: Sequence[float], ends_at: Callable[[float], float], later: bool) -> float:
    """How long after any start between two samples something ends: the longest there is, or the shortest.

    What is begun between two starts ends no earlier than what is begun at the first, no later than at the second. Where
    both take as long, so does what is begun between: conditions change by the hour, and samples lie closer. Where they
    do not, it is looked at more closely, to the minute.
    """
    lags = [ends_at(s) - s for s in samples]
    open_pairs = list(pairwise(samples))
    while open_pairs:
        first, then = open_pairs.pop()
        early, late = ends_at(first), ends_at(then)
        if early == late == inf or abs((late - then) - (early - first)) <= 1e-6:
            continue
        if then - first > 1:
            middle = (first + then) / 2
            open_pairs += [(first, middle), (middle, then)]
        else:
            lags.append(late - first if later else early - then)
    return (max if later else min)(lags)
