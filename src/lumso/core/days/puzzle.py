"""What is to be put into days: stints, what holds between them, what is done already, and the hours there are."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from ..book.habits import Habits
from ..layers.conditions import Room
from ..layers.drying import Wait, dry_at, unfit
from ..value import Value
from ..work.operations import LIVES, Constraint
from ..work.work import Work
from .facts import Fact
from .hours import Session, Timetable
from .stints import Stint, run

EPS = 1e-6


@dataclass(frozen=True)
class Pin(Value):
    """An operation that begins between two minutes, and at no other time."""

    operation: str
    from_min: float
    until_min: float


@dataclass(frozen=True)
class JobIn:
    """A job to be put into days. Its operations are known by `key|id`, or by their own ids where the key is "".

    `flat` says how many places its zones take while they lie flat to dry; `due_for` what is promised by `due_min`.
    """

    key: str
    name: str
    work: Work
    due_min: float | None = None
    due_for: str = "gently"
    priority: int = 1
    """1 comes before 2."""
    from_min: float = 0.0
    flat: Mapping[str, int] = field(default_factory=dict)
    pins: tuple[Pin, ...] = ()
    facts: Mapping[str, Fact] = field(default_factory=dict)

    def scoped(self, operation: str) -> str:
        """What an operation is known by among all jobs."""
        return f"{self.key}|{operation}" if self.key else operation


@dataclass(frozen=True)
class Lost:
    """A window that had closed before anything could be done, and what is done instead."""

    tie: Constraint
    says: str
    instead: str


@dataclass(frozen=True)
class FilmNeeds:
    """What a laid film needs: until it is touch dry, whether the air must let it form; of which coat it is, and on how
    many places that lies flat."""

    touch: Wait
    watery: bool
    coat: str = ""
    places: int = 0


@dataclass(frozen=True)
class Puzzle:
    """All of it. Times are minutes since 1970 UTC.

    `fixed` is done or under way; `soft` are lives of what is kept for a later go, which get another pot where the days
    outlive them. `ends` are, for each job, operations and how long after them it may be used gently.
    """

    stints: tuple[Stint, ...]
    ties: tuple[Constraint, ...]
    soft: tuple[Constraint, ...]
    films: Mapping[str, FilmNeeds]
    fixed: Mapping[str, tuple[float, float]]
    jobs: tuple[JobIn, ...]
    ends: Mapping[str, tuple[tuple[str, Wait], ...]]
    sessions: tuple[Session, ...]
    room: Room
    table: Timetable
    now_min: float
    habits: Habits
    lost: tuple[Lost, ...] = ()
    outside: tuple[Fact, ...] = ()
    """Facts whose operation is planned no more."""
    assumed: tuple[Constraint, ...] = ()
    """Waits only a label knows."""

    @cached_property
    def owner(self) -> Mapping[str, int]:
        """The place of the stint of each operation."""
        return {o.id: n for n, s in enumerate(self.stints) for o in s.operations}

    @cached_property
    def flat(self) -> Mapping[str, tuple[str, ...]]:
        """What is laid of each coat that lies flat to dry, by the coat."""
        found: dict[str, tuple[str, ...]] = {}
        for name, film in self.films.items():
            if film.places and self.table.flat_places:
                found[film.coat] = (*found.get(film.coat, ()), name)
        return found

    def lies(self, coat: str, spans: Mapping[str, tuple[float, float]]) -> tuple[float, float] | None:
        """From when to when a coat lies flat: from its first stroke until all of it is touch dry."""
        mine = [(spans[name], self.films[name]) for name in self.flat[coat] if name in spans]
        if not mine:
            return None
        dry = [dry_at(ends, film.touch, self.room) for (_, ends), film in mine]
        return min(b for (b, _), _ in mine), max(float("inf") if d is None else d for d in dry)

    @cached_property
    def priority(self) -> Mapping[str, int]:
        """The priority of each job, by its key."""
        return {j.key: j.priority for j in self.jobs}

    @cached_property
    def job_of(self) -> tuple[str, ...]:
        """The key of each stint's job."""
        return tuple(s.id.split("|", 1)[0] if "|" in s.id else "" for s in self.stints)

    @cached_property
    def pinned(self) -> Mapping[int, tuple[Pin, ...]]:
        """The pins of each stint, by its place."""
        found: dict[int, tuple[Pin, ...]] = {}
        for job in self.jobs:
            for pin in job.pins:
                n = self.owner.get(job.scoped(pin.operation))
                if n is not None:
                    found[n] = (*found.get(n, ()), pin)
        return found

    @cached_property
    def busy_until(self) -> float:
        """Until when a painter is at what was begun."""
        under_way = [ends for job in self.jobs for o, f in job.facts.items()
                     if f.did == "begun" and (ends := self.fixed.get(job.scoped(o), (0.0, 0.0))[1])]  # fmt: skip
        return max(under_way, default=self.now_min)

    @cached_property
    def usable(self) -> tuple[tuple[float, float], ...]:
        """The open stretches less laying out before and clearing away after."""
        out, away = self.habits.lay_out_min, self.habits.clear_away_min
        return tuple((s.begins_min + out, s.ends_min - away) for s in self.sessions)

    @cached_property
    def longest_min(self) -> float:
        """The longest that anybody is at the bench in one go."""
        return max((ends - begins for begins, ends in self.usable), default=0.0)

    @cached_property
    def _runs(self) -> dict[tuple[int, float], tuple[tuple[float, float], ...]]:
        return {}

    def run(self, n: int, begins: float) -> tuple[tuple[float, float], ...]:
        """When the operations of a stint begin and end when it begins at a minute."""
        stint = self.stints[n]
        if not stint.waits:
            made, at = [], begins
            for o in stint.operations:
                made.append((at, at + o.takes_min))
                at += o.takes_min
            return tuple(made)
        known = self._runs.get((n, begins))
        if known is None:
            known = self._runs[n, begins] = run(stint, begins, self.room)
        return known

    @cached_property
    def inner(self) -> Mapping[int, tuple[Constraint, ...]]:
        """The windows and lives between operations of the same stint."""
        found: dict[int, tuple[Constraint, ...]] = {}
        for tie in self.ties:
            n = self.owner.get(tie.then)
            if n is not None and n == self.owner.get(tie.first) and (tie.kind == "at most" or tie.kind in LIVES):
                found[n] = (*found.get(n, ()), tie)
        return found

    @cached_property
    def _fits(self) -> dict[tuple[int, float], tuple[float, str]]:
        return {}

    def fits(self, n: int, begins: float) -> tuple[float, str]:
        """When a stint can begin at the earliest, from a minute on, for the air: its films form until they are touch
        dry, and its pot lives until it is laid. And why not before. inf where it never can."""
        known = self._fits.get((n, begins))
        if known is None:
            known = self._fits[n, begins] = self._fit(n, begins)
        return known

    def _fit(self, n: int, begins: float) -> tuple[float, str]:
        why = ""
        while begins < float("inf"):
            times = self.run(n, begins)
            late, says = self._unformed(n, times)
            if late <= 0 and (spoilt := self._spoilt(n, times)):
                place = self.room.place_at(begins) + 1
                after = self.room.spells[place].from_min if place < len(self.room.spells) else float("inf")
                late, says = after - begins, f"In this air it does not last: {spoilt.why}."
            if late <= 0:
                return begins, why
            begins, why = begins + late, says
        return begins, why

    def _unformed(self, n: int, times: Sequence[tuple[float, float]]) -> tuple[float, str]:
        """By how much later a stint begins so that its films form; and why they do not."""
        late, why = 0.0, ""
        for operation, (at, ends) in zip(self.stints[n].operations, times, strict=True):
            film = self.films.get(operation.id)
            if film is None or not film.watery:
                continue
            dry = dry_at(ends, film.touch, self.room)
            bad = unfit(at, ends + 1 if dry is None else dry, self.room)
            if bad or dry is None:
                until, why = bad or (float("inf"), "No film forms.")
                late = max(late, until - at)
        return late, why

    def _spoilt(self, n: int, times: Sequence[tuple[float, float]]) -> Constraint | None:
        """A window or a life inside a stint that is not kept at these times."""
        if n not in self.inner:
            return None
        spans = {o.id: t for o, t in zip(self.stints[n].operations, times, strict=True)}
        for tie in self.inner[n]:
            since = spans[tie.first][0 if tie.since == "start" else 1]
            if spans[tie.then][0 if tie.until == "start" else 1] > until_of(tie, since, self.room) + EPS:
                return tie
        return None

    @cached_property
    def bounds(self) -> tuple[tuple[float, float], ...]:
        """From when to when each stint may begin, for what is done already, its pins and its job."""
        low = [max(self.now_min, self.busy_until if self.table.painters == 1 else self.now_min)] * len(self.stints)
        high = [float("inf")] * len(self.stints)
        start = {j.key: j.from_min for j in self.jobs}
        for n, key in enumerate(self.job_of):
            low[n] = max(low[n], start[key])
        for n, pins in self.pinned.items():
            for pin in pins:
                before = self.run(n, low[n])
                at = next(b for o, (b, _) in zip(self.stints[n].operations, before, strict=True)
                          if o.id.split("|", 1)[-1] == pin.operation) - before[0][0]  # fmt: skip
                low[n], high[n] = max(low[n], pin.from_min - at), min(high[n], pin.until_min - at)
        return tuple(zip(low, high, strict=True))


def until_of(tie: Constraint, since: float, room: Room) -> float:
    """The last minute that a window or a life lets `then` come to. Air may shorten a life, and never lengthens it."""
    ends = dry_at(since, tie.wait, room)
    if tie.kind in LIVES and tie.wait.reference_min is not None:
        latest = since + tie.wait.reference_min
        return latest if ends is None else min(ends, latest)
    return float("inf") if ends is None else ends


def over_at(tie: Constraint, since: float, room: Room) -> float:
    """The minute from which a wait lets `then` come; inf where it never ends in this room."""
    if tie.kind == "after":
        return since
    ends = dry_at(since, tie.wait, room)
    return float("inf") if ends is None else ends
