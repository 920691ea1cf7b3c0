"""Days found at once: whatever can be begun first is begun first, and what would miss its window is begun later.

It is no search for the best. It comes to an order that keeps everything, or says which window it could not keep.
"""

from bisect import insort
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from math import inf

from ..layers.drying import dry_at
from ..work.operations import Constraint
from .placed import Placed
from .puzzle import EPS, Puzzle, over_at, until_of

TRIES = 80
"""How often it begins anew, with something begun later."""


class CannotKeep(Exception):
    """A window that no order could be found for. It is lost where `first` is done already."""

    def __init__(self, tie: Constraint) -> None:
        super().__init__(tie.why)
        self.tie = tie


class NoPlace(Exception):
    """A stint that there is no time for at all within the horizon; and why, where the air is what is wrong."""

    def __init__(self, stint: int, why: str) -> None:
        super().__init__(why)
        self.stint, self.why = stint, why


@dataclass
class _Ties:
    """What holds, by what it is asked for."""

    puzzle: Puzzle
    waits: dict[int, list[Constraint]] = field(default_factory=dict)
    """What must be over before a stint."""
    windows: dict[int, list[Constraint]] = field(default_factory=dict)
    """What a stint must come before the end of."""
    dust: dict[int, list[Constraint]] = field(default_factory=dict)
    """What is not beside what a stint does, either way."""

    def __post_init__(self) -> None:
        owner = self.puzzle.owner
        for tie in self.puzzle.ties:
            first, then = owner.get(tie.first), owner.get(tie.then)
            if then is None or first == then:
                continue
            if tie.kind in {"after", "at least"}:
                self.waits.setdefault(then, []).append(tie)
            elif tie.kind == "not beside":
                self.dust.setdefault(then, []).append(tie)
                if first is not None:
                    self.dust.setdefault(first, []).append(tie)
            else:
                self.windows.setdefault(then, []).append(tie)

    @cached_property
    def before(self) -> Mapping[int, set[int]]:
        """The stints that each stint comes after."""
        owner = self.puzzle.owner
        found: dict[int, set[int]] = {n: set() for n in range(len(self.puzzle.stints))}
        for n, ties in self.waits.items():
            found[n] = {owner[t.first] for t in ties if t.first in owner}
        return found


class _Try:
    """One go at it: stints placed one after the other, each as early as what is placed lets it."""

    def __init__(self, ties: _Ties, low: list[float]) -> None:
        self.ties, self.puzzle, self.low = ties, ties.puzzle, low
        self.begins: dict[int, float] = {}
        self.painter: dict[int, int] = {}
        self.spans = dict(self.puzzle.fixed)
        self.busy: list[list[tuple[float, float]]] = [[] for _ in range(self.puzzle.table.painters)]
        if self.puzzle.busy_until > self.puzzle.now_min:
            self.busy[0].append((self.puzzle.now_min, self.puzzle.busy_until))
        self.coats: dict[int, set[str]] = {}
        for coat, names in self.puzzle.flat.items():
            for name in names:
                if (n := self.puzzle.owner.get(name)) is not None:
                    self.coats.setdefault(n, set()).add(coat)

    def _times(self, n: int, begins: float) -> Mapping[str, tuple[float, float]]:
        stint = self.puzzle.stints[n]
        return {o.id: span for o, span in zip(stint.operations, self.puzzle.run(n, begins), strict=True)}

    def _after_waits(self, n: int, at: float) -> float:
        times, late = self._times(n, at), 0.0
        for tie in self.ties.waits.get(n, ()):
            if tie.first in self.spans:
                since = self.spans[tie.first][0 if tie.since == "start" else 1]
                then = times[tie.then][0 if tie.until == "start" else 1]
                late = max(late, over_at(tie, since, self.puzzle.room) - then)
        return at + late

    def _in_hours(self, n: int, at: float) -> float:
        takes = self.puzzle.stints[n].bare_min
        for opens, closes in self.puzzle.usable:
            begins = max(at, opens)
            if begins + takes > closes + EPS:
                continue
            if self.puzzle.run(n, begins)[-1][1] <= closes + EPS:
                return begins
        return inf

    def _not_beside(self, n: int, at: float) -> float:
        times, late = self._times(n, at), 0.0
        for tie in self.ties.dust.get(n, ()):
            mine, other = (tie.then, tie.first) if tie.then in times else (tie.first, tie.then)
            if other not in self.spans:
                continue
            laid = self.spans[other] if mine == tie.then else times[mine]
            dusty = times[mine] if mine == tie.then else self.spans[other]
            dry = dry_at(laid[1], tie.wait, self.puzzle.room)
            until = inf if dry is None else dry
            if dusty[1] > laid[0] + EPS and dusty[0] < until - EPS:
                late = max(late, until - dusty[0] if mine == tie.then else dusty[1] - laid[0])
        return at + late

    def _flat(self, n: int, at: float) -> float:
        """When there is room to lie flat for what a stint lays, all that lies already counted."""
        puzzle, mine = self.puzzle, self.coats.get(n)
        if not mine:
            return at
        with_it = {**self.spans, **self._times(n, at)}
        lying = {c: span for c in puzzle.flat if (span := puzzle.lies(c, with_it))}
        places = {c: puzzle.films[names[0]].places for c, names in puzzle.flat.items()}
        for coat in mine:
            begins, until = lying[coat]
            beside = {c: s for c, s in lying.items() if c != coat and s[0] < until - EPS and s[1] > begins + EPS}
            most = max(
                (sum(places[c] for c, s in beside.items() if s[0] <= x < s[1]) for x in
                 (begins, *(s[0] for s in beside.values() if s[0] > begins))), default=0,
            )  # fmt: skip
            others = {c: s for c, s in beside.items() if c not in mine}
            if places[coat] + most > puzzle.table.flat_places and others:
                return at + max(min(s[1] for s in others.values()) - begins, 1.0)
        return at

    def _painter(self, n: int, at: float) -> tuple[float, int]:
        takes = self.puzzle.run(n, at)[-1][1] - at
        found = (inf, 0)
        for who, busy in enumerate(self.busy):
            free = at
            for begins, ends in busy:
                if ends > free + EPS and begins < free + takes - EPS:
                    free = ends
            found = min(found, (free, who))
        return found

    def earliest(self, n: int) -> tuple[float, int]:
        """When a stint can be begun, and by whom."""
        at, who = self.low[n], 0
        for _ in range(4000):
            begins = self._in_hours(n, self._after_waits(n, at))
            if begins < inf:
                begins = self.puzzle.fits(n, begins)[0]
            if begins < inf:
                begins = self._flat(n, self._not_beside(n, begins))
            if begins < inf:
                begins, who = self._painter(n, begins)
            if begins <= at + EPS or begins == inf:
                return begins, who
            at = begins
        return inf, 0

    def place(self, n: int, at: float, who: int) -> Constraint | None:
        """Put a stint into the days; the window it misses there, if any."""
        self.begins[n], self.painter[n] = at, who
        times = self._times(n, at)
        self.spans.update(times)
        insort(self.busy[who], (at, max(e for _, e in times.values())))
        for tie in self.ties.windows.get(n, ()):
            if tie.first in self.spans and self.over(tie) > EPS:
                return tie
        return None

    def over(self, tie: Constraint) -> float:
        """Minutes by which a window is missed."""
        since = self.spans[tie.first][0 if tie.since == "start" else 1]
        then = self.spans[tie.then][0 if tie.until == "start" else 1]
        return then - until_of(tie, since, self.puzzle.room)


def greedy(puzzle: Puzzle) -> Placed:
    """Days that keep everything. Raises CannotKeep with the window it could not, and NoPlace for what fits nowhere."""
    ties = _Ties(puzzle)
    low = [begins for begins, _ in puzzle.bounds]
    urgent: set[int] = set()
    missed: Constraint | None = None
    for _ in range(TRIES):
        going = _Try(ties, list(low))
        try:
            missed = _go(going, urgent)
        except NoPlace:
            if missed is None:
                raise
            raise CannotKeep(missed) from None  # begun so late that nothing is left of the horizon
        if missed is None:
            order = range(len(puzzle.stints))
            return Placed(tuple(going.begins[n] for n in order), tuple(going.painter[n] for n in order))
        first, then = puzzle.owner.get(missed.first), puzzle.owner[missed.then]
        if first is None:
            raise CannotKeep(missed)
        if then not in urgent:
            urgent.add(then)
        else:
            low[first] = max(low[first], going.begins[first]) + max(going.over(missed), 1.0)
    assert missed
    raise CannotKeep(missed)


def _go(going: _Try, urgent: set[int]) -> Constraint | None:
    """Place everything, what can be begun first before the rest. Returns the window that was missed, if any.

    What is placed only ever makes the rest later: when a stint could be begun before is asked again only where it is
    the next.
    """
    puzzle, rank = going.puzzle, going.puzzle.priority
    left = {n: set(before) for n, before in going.ties.before.items()}
    known: dict[int, tuple[bool, float, int, int]] = {}

    def key(n: int, at: float) -> tuple[bool, float, int, int]:
        return n not in urgent, at, rank[puzzle.job_of[n]], n

    while left:
        for n in [n for n, before in left.items() if not before] or [min(left)]:
            known.setdefault(n, key(n, -inf))
        while True:
            n = min(known.values())[3]
            at, who = going.earliest(n)
            if at == inf:
                raise NoPlace(n, puzzle.fits(n, max(puzzle.now_min, going.low[n]))[1])
            if key(n, at) <= known[n]:
                break
            known[n] = key(n, at)
        if at > puzzle.bounds[n][1] + EPS:
            raise NoPlace(n, "pinned")
        if missed := going.place(n, at, who):
            return missed
        del left[n], known[n]
        for before in left.values():
            before.discard(n)
    return None
