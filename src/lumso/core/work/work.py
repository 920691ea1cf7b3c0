"""The job worked out once: what is done to it, in which order, with how much of what, and what holds between.

Plan, mix sheet, steps, prints and the next thing to do are views of this; nothing else computes a coat, a wait, a loss
or an order.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, partial

from ..book.catalogue import Catalogue, pick
from ..book.materials import Vessel
from ..errors import Problem
from ..figure import Figure
from ..job.areas import MeasuredPiece, in_two_zones, measure, not_measured, zone_area
from ..job.entries import Kept, kept_apart
from ..job.job import FromArea, Job
from ..job.laying import Laying, laying_of, with_shares
from ..layers import cautions
from ..layers.conditions import Room
from ..layers.pace import is_turned
from ..memory import Memo
from ..workshop.known import book_of, known_to
from ..workshop.workshop import Workshop
from .batch import Batch, Brew, brew_as_given, brews_of, timed
from .bench import WorkedWith
from .blocks import Made, assemble, dust
from .coats import CoatWork
from .operations import LIVES, Constraint, Operation
from .order import Placed, in_order, with_sessions
from .pots import Brewing, PotRun, life_of, mixes_of, pot_runs
from .zone import ZoneWork, zone_work

TRIES = 24
"""How often pots are divided anew where one painter cannot get to a coat while its mix lives."""


@dataclass(frozen=True)
class JobWork:
    """One of the jobs worked together."""

    job: Job
    scope: str
    piece: MeasuredPiece
    catalogue: Catalogue
    kept: tuple[Kept, ...]
    """Entries the job has otherwise than the book."""
    zones: tuple[ZoneWork, ...]
    laying: Laying
    """Its layouts on their faces."""

    @property
    def not_measured(self) -> str:
        """Which sizes are usual ones that nobody measured, in words; "" where all are measured."""
        return not_measured(self.piece.presumed)

    @property
    def asks_lead(self) -> bool:
        """Whether any of its grounds asks the lead question, and it is open."""
        return any(z.stack is not None and z.stack.asks_lead for z in self.zones)


@dataclass(frozen=True)
class Work:
    """Jobs worked out: their zones with surfaces and stacks, the operations in order, and what holds between them.

    `missed` are windows and lives that one painter cannot keep in this order, the first first. What is printed of it is
    put together when it is asked for.
    """

    jobs: tuple[JobWork, ...]
    runs: tuple[PotRun, ...]
    batches: tuple[Batch, ...]
    missed: tuple[Constraint, ...]
    problems: tuple[Problem, ...]
    made: Made
    placed: Placed

    @cached_property
    def operations(self) -> tuple[Operation, ...]:
        """All that is done, in order of time, sessions and cautions told once."""
        made, placed = self.made, self.placed
        done = [replace(o, at_min=placed.begins[o.id]) for b in made.blocks for o in (*b.early, *b.operations)]
        done += [replace(o, at_min=placed.ends.get(after, 0.0)) for o, after in made.cures]
        habits = self.jobs[0].catalogue.habits
        return told_once(with_sessions(done, habits)) if done else ()

    @cached_property
    def constraints(self) -> tuple[Constraint, ...]:
        """All that holds between operations."""
        return (*self.made.constraints, *dust(self.made))

    @property
    def not_measured(self) -> str:
        """Which sizes are usual ones that nobody measured, in words, each job's once; "" for none."""
        several = len(self.jobs) > 1
        return " ".join((f"{j.job.name}: " if several else "") + j.not_measured for j in self.jobs if j.not_measured)

    @property
    def served(self) -> Mapping[str, tuple[str, ...]]:
        """The batches of each coat, by the coat's id."""
        return self.made.served

    @property
    def unknown(self) -> tuple[Constraint, ...]:
        """Waits that only a label knows."""
        ties = self.made.constraints
        return tuple(c for c in ties if c.kind == "at least" and c.wait.reference_min is None)

    @property
    def first(self) -> Operation | None:
        """What is done first of all, laying out aside."""
        begins = self.placed.begins
        done = [o for b in self.made.blocks for o in (*b.early, *b.operations)]
        return min(done, key=lambda o: begins[o.id], default=None)

    @property
    def hands_on_min(self) -> float:
        """Minutes of work altogether."""
        return sum(o.hands_on_min for o in self.operations)

    @property
    def elapsed_min(self) -> float:
        """Minutes from the first operation to the last, curing aside."""
        done = [o for o in self.operations if o.kind != "cure"]
        return max((o.ends_min for o in done), default=0.0) - min((o.at_min for o in done), default=0.0)


def _unlike(job: Job) -> Job:
    """The job with no two zones, and no two layers of a zone, of the same id: a file may hold anything."""
    zones, seen = [], set()
    for zone in job.zones:
        layers, known = [], set()
        for layer in zone.layers:
            while layer.id in known:
                layer = replace(layer, id=f"{layer.id}~")
            known.add(layer.id)
            layers.append(layer)
        while zone.id in seen:
            zone = replace(zone, id=f"{zone.id}~")
        seen.add(zone.id)
        same = all(a is b for a, b in zip(layers, zone.layers, strict=True))
        zones.append(zone if same else replace(zone, layers=tuple(layers)))
    if all(a is b for a, b in zip(zones, job.zones, strict=True)):
        return job
    return replace(job, zones=tuple(zones))


MOST_COATS_TOGETHER = 2_000
"""How many coats one order of work is found for: about 3 s on a small machine. A theatre's foyer has a hundred."""


def _coats(jobs: Sequence[Job]) -> int:
    """How many coats jobs have."""
    return sum(layer.coats for job in jobs for zone in job.zones for layer in zone.layers)


def _too_many(jobs: Sequence[Job]) -> Problem | None:
    """Why nothing is mixed or put in order, where it is more than can be."""
    coats = _coats(jobs)
    if coats <= MOST_COATS_TOGETHER:
        return None
    says = f"{coats:,} coats are more than can be put in one order. Their amounts are left out."
    several = "fewer jobs at once" if len(jobs) > 1 else "the piece as several jobs, or fewer coats"
    return Problem("/zones", says, f"at most {MOST_COATS_TOGETHER:,} coats: {several}")


def _work_job(job: Job, scope: str, at: str, workshop: Workshop, catalogue: Catalogue, room: Room,
              memo: Memo, measured: bool) -> tuple[JobWork, list[Problem]]:  # fmt: skip
    """A job's zones, each worked apart. `at` is what its JSON pointers begin with; where it is not `measured`, nothing
    is said of how much there is to coat."""
    job = _unlike(job)
    args = (workshop, catalogue, job.entries)
    known = memo.recall(("known", scope), args, lambda: known_to(*args))
    kept = memo.recall(("kept", scope), args, lambda: kept_apart(job, book_of(workshop, catalogue)))
    shape = (job.piece, tuple((z.id, z.surfaces) for z in job.zones))
    piece = memo.recall(("piece", scope), shape, lambda: measure(job))
    layouts = tuple((z.id, z.surfaces, tuple((x.id, x.layout) for x in z.layers)) for z in job.zones)
    laying = memo.recall(("laying", scope), (piece, layouts), partial(laying_of, job, piece))
    job = with_shares(job, laying)
    problems = [*piece.problems, *in_two_zones(job), *laying.problems]
    bench = WorkedWith(job.name, scope, job.use, is_turned(job), known, workshop, room,
                  job.piece.bands if job.piece else (), job.piece.like if job.piece else 1, laying.goes)  # fmt: skip
    zones = []
    for i, zone in enumerate(job.zones):
        area: Figure | None = None
        mine = None
        if job.piece is not None:
            mine = tuple(piece.surfaces[s] for s in zone.surfaces if s in piece.surfaces)
            if piece.surfaces:
                found = zone_area(zone, job.piece, piece.surfaces, known, f"/zones/{i}", piece.rough)
                if isinstance(found, Problem):
                    problems.append(found)
                elif measured:
                    area = found
        made = zone_work(zone, f"/zones/{i}", area, mine, bench, memo)
        problems += made.problems
        zones.append(made)
    return JobWork(job, scope, piece, known, kept, tuple(zones), laying), [
        replace(p, at=f"{at}{p.at}") for p in problems
    ]


def _named(coats: Sequence[CoatWork], given: Sequence[CoatWork]) -> dict[tuple[str, str, str], list[CoatWork]]:
    """Coats whose amount was given, by layer and pot: each is one batch."""
    found: dict[tuple[str, str, str], list[CoatWork]] = {}
    for coat in (*coats, *given):
        if not isinstance(coat.laid.layer.want, FromArea):
            found.setdefault((coat.scope, coat.need.zone, f"{coat.need.layer}:{coat.pot.id}"), []).append(coat)
    return found


def _given(jobs: Sequence[JobWork], brewing: Brewing, workshop: Workshop) -> tuple[list[Brew], list[Problem]]:
    """The batches whose amount was given."""
    brews, problems = [], []
    for job in jobs:
        for i, zone in enumerate(job.zones):
            for coats in _named(zone.coats, zone.given).values():
                laid = coats[0].laid
                life = life_of(laid, brewing.room, brewing.habits)
                run = PotRun(tuple(coats), None, life, brewing.losses(laid), "")
                at = f"/zones/{i}/layers/{coats[0].need.number - 1}"
                made = brew_as_given(coats, run, job.catalogue, workshop, at)
                if isinstance(made, Problem):
                    problems.append(made)
                else:
                    brews.append(made)
    return brews, problems


def _untied(blocks_stuck: Sequence[str], made: Made, broken: Sequence[Constraint]) -> set[str]:
    """Coats that must begin a pot of their own: what one painter cannot get to in time, or only in a circle."""
    found = {made.coat_of[c.then] for c in broken if c.then in made.coat_of}
    for block in made.blocks:
        if block.id in blocks_stuck:
            coats = list(dict.fromkeys(made.coat_of[o.id] for o in block.operations if o.id in made.coat_of))
            found |= set(coats[1:])
    return found


def told_once(operations: Sequence[Operation]) -> tuple[Operation, ...]:
    """Cautions in full where they first matter, a short reminder after."""
    seen: dict[str, set[str]] = {}
    made = []
    for operation in operations:
        known = seen.setdefault(operation.job, set())
        fresh = tuple(dict.fromkeys(c for c in operation.take_care if c not in known))
        again = tuple(dict.fromkeys(cautions.in_short(c) for c in operation.take_care if c in known))
        known |= set(fresh)
        same = len(fresh) == len(operation.take_care)
        made.append(operation if same else replace(operation, take_care=fresh, remember=again))
    return tuple(made)


def _times(brew: Brew, placed: Placed) -> tuple[float, float]:
    """When a batch is begun, and when it is ready."""
    mixed = f"{brew.id}:mix"
    stirred = f"{brew.id}:stir"
    return placed.begins[mixed], placed.ends[stirred if stirred in placed.ends else mixed]


def work_together(jobs: Sequence[Job], workshop: Workshop, catalogue: Catalogue, room: Room, *, stepped: bool = False,
                  memo: Memo | None = None, own_pots: Collection[str] = ()) -> Work:  # fmt: skip
    """Several jobs worked out together: like mixes come from the same pots.

    With `stepped`, each of a run of stacked washes begins from what is left of the last. Coats in `own_pots`, by id,
    begin a pot of their own: what was kept would not live until they are laid. What is remembered in `memo`
    is not worked out again. Never raises for what a person can enter: what cannot be used is in `problems`, each with
    its place (in a job; below /jobs/n where there are several). Raises UnknownEntry for a vessel that is not there.
    """
    memo = memo or Memo()
    vessel: Vessel = pick("vessel", {v.slug: v for v in catalogue.vessels}, workshop.vessel)
    worked: list[JobWork] = []
    problems: list[Problem] = []
    if too_many := _too_many(jobs):
        problems.append(too_many)
    for n, job in enumerate(jobs):
        scope, at = (f"{n}/" if n else ""), (f"/jobs/{n}" if len(jobs) > 1 else "")
        made_job, found = _work_job(job, scope, at, workshop, catalogue, room, memo, not too_many)
        worked.append(made_job)
        problems += found
    known = worked[0].catalogue if worked else catalogue
    brewing = Brewing(known.pot_losses, vessel.capacity_ml, known.habits, room)
    coats = [c for job in worked for zone in job.zones for c in zone.coats]
    by_area = [c for c in coats if isinstance(c.laid.layer.want, FromArea)]
    given, wrong = _given(worked, brewing, workshop)
    problems += wrong
    mixes = mixes_of(by_area, brewing, stepped, memo)
    apart: set[str] = set(own_pots)
    for _ in range(TRIES):
        runs, unbatched = pot_runs(mixes, brewing, memo, apart)
        with_brews = [(run, brews_of(run, known, workshop, vessel, memo)) for run in runs]
        made = assemble(worked, [*with_brews, *((b.run, (b,)) for b in given)], known.habits, room, memo)
        parts = tuple(made.parts)
        order = memo.recall(("order", frozenset(apart)), (parts, room), partial(in_order, parts, room))
        late = _untied(order.stuck, made, [c for c in order.missed if c.kind in LIVES])
        if late <= apart:
            break
        apart |= late
    batches = []
    for brew in made.brews:
        args = (brew, *_times(brew, order.placed), known)
        batches.append(memo.recall(("timed", brew.id), args, partial(timed, *args)))
    in_time = tuple(sorted(batches, key=lambda b: (b.mix_at_h, b.id)))
    return Work(tuple(worked), runs, in_time, order.missed, (*problems, *unbatched), made, order.placed)


def work(job: Job, workshop: Workshop, book: Catalogue, room: Room, memo: Memo | None = None,
         own_pots: Collection[str] = ()) -> Work:  # fmt: skip
    """The job worked out once. Never raises for what a person can enter: see `work_together`."""
    return work_together((job,), workshop, book, room, memo=memo, own_pots=own_pots)
