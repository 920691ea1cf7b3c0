"""Backwards from a promise: the last moment to begin, and what would have to give where it cannot be kept. And what
warm air would save, and cost.

All of it is found by trying, with days found at once: a search may do better, and never worse.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ..figure import lasts
from ..job.job import DriesBy, Job
from ..value import Value
from .hours import EVENING, WEEKDAYS, sessions
from .settle import Ask, JobAsk, settle
from .words import when

MOST_TRIED = 60
DRYER: DriesBy = "hair dryer"
WORTH_MIN = 6 * 60.0
"""Less is not worth standing there for."""


@dataclass(frozen=True)
class Gives(Value):
    """Something that would have to give, and how late a job is then; 0 where the promise is kept."""

    says: str
    late_min: float
    late: str


@dataclass(frozen=True)
class LastStart(Value):
    """For one job: when it is begun at the latest (None where it cannot be kept), and what would have to give."""

    job: str
    name: str
    due: str
    begin_by_min: float | None
    begin_by: str
    kept_from: str
    """The first date that could be promised as things are."""
    gives: tuple[Gives, ...]


@dataclass(frozen=True)
class Hurry(Value):
    """A layer that warm air would bring on: what that saves, and the minutes somebody stands there for it."""

    job: str
    zone: str
    layer: str
    says: str
    sooner_min: float
    sooner: str
    visits_less: int
    hands_on_min: float
    hands_on: str


@dataclass(frozen=True)
class Backwards(Value):
    """The same for every job that was promised; and the layers of all jobs that warm air would bring on."""

    jobs: tuple[LastStart, ...]
    hurries: tuple[Hurry, ...]


def _late(ask: Ask, key: str) -> float:
    settled = settle(ask)
    fits = not any(p.at.startswith(f"/jobs/{key}") for p in settled.problems)
    return settled.timed.late_min(key) if fits else float("inf")


def _with_job(ask: Ask, key: str, **more: object) -> Ask:
    return replace(ask, jobs=tuple(replace(j, **more) if j.key == key else j for j in ask.jobs))  # type: ignore[arg-type]


def _eased(ask: Ask, job: JobAsk) -> Iterator[tuple[str, Ask]]:
    """What could be done about it, the least first."""
    for n, name in enumerate(WEEKDAYS):
        if not ask.table.week[n]:
            week = (*ask.table.week[:n], (EVENING,), *ask.table.week[n + 1 :])
            yield f"{name} evenings at the bench too", replace(ask, table=replace(ask.table, week=week))
    longer = tuple(
        (*day[:-1], replace(day[-1], until_min=min(day[-1].until_min + 60, 24 * 60))) if day else day
        for day in ask.table.week
    )
    yield "An hour more at the end of each day", replace(ask, table=replace(ask.table, week=longer))
    if ask.table.days_off:
        yield "No days off", replace(ask, table=replace(ask.table, days_off=()))
    yield "A second pair of hands", replace(ask, table=replace(ask.table, painters=ask.table.painters + 1))
    if job.due_for == "gently":
        yield "Handed over finished, not yet fit for use", _with_job(ask, job.key, due_for="finished")
    if len(ask.jobs) > 1:
        yield "The other jobs after it", replace(ask, jobs=tuple(j for j in ask.jobs if j.key == job.key))
    if job.pins:
        yield "Nothing pinned", _with_job(ask, job.key, pins=())


def _last_start(ask: Ask, job: JobAsk) -> float | None:
    """The beginning of the last session in which it can be begun, by halving: later never helps."""
    assert job.due_min is not None
    days = max(int((job.due_min - ask.now_min) // (24 * 60)) + 2, 1)
    starts = [s.begins_min for s in sessions(ask.table, ask.now_min, days) if s.begins_min < job.due_min][:MOST_TRIED]
    low, high = 0, len(starts) - 1
    if high < 0 or _late(_with_job(ask, job.key, from_min=starts[0]), job.key) > 0:
        return None
    while low < high:
        middle = (low + high + 1) // 2
        if _late(_with_job(ask, job.key, from_min=starts[middle]), job.key) > 0:
            high = middle - 1
        else:
            low = middle
    return starts[low]


def _hurried(job: Job, zone: str, layer: str) -> Job:
    """The job with one layer dried by a hair dryer."""
    return replace(
        job,
        zones=tuple(
            replace(z, layers=tuple(replace(x, dries_by=DRYER) if x.id == layer else x for x in z.layers))
            if z.id == zone
            else z
            for z in job.zones
        ),
    )


def hurries(ask: Ask) -> tuple[Hurry, ...]:
    """The layers that dry by themselves, are thin and water-borne, and would bring a job on if they were hurried.

    Never on a ground that the lead question is open for: warm air over old paint is not offered.
    """
    before = settle(ask).timed
    found = []
    for job in ask.jobs:
        worked = next(j for j in before.puzzle.jobs if j.key == job.key).work.jobs[0]
        for zone in worked.zones:
            if zone.stack is None or zone.stack.asks_lead:
                continue
            for laid in zone.stack.laid:
                like = replace(laid, layer=replace(laid.layer, dries_by=DRYER))
                if laid.layer.dries_by != "air" or not like.hurries:
                    continue
                made = _hurried(job.job, zone.zone.id, laid.layer.id)
                after = settle(_with_job(ask, job.key, job=made)).timed
                sooner = before.finished(job.key) - after.finished(job.key)
                fewer = len(before.visits) - len(after.visits)
                if sooner < WORTH_MIN and not (fewer > 0 and sooner >= 0):
                    continue
                more = after.hands_on_min - before.hands_on_min
                says = f"A hair dryer to {laid.name.lower()} ({zone.zone.name.lower()})"
                found.append(
                    Hurry(job.key, zone.zone.id, laid.layer.id, says, sooner, lasts(sooner) if sooner >= 1 else "",
                          max(fewer, 0), more, lasts(max(more, 0.0)))
                )  # fmt: skip
    return tuple(sorted(found, key=lambda h: -h.sooner_min))


def backwards(ask: Ask) -> Backwards:
    """For every job that was promised: when it is begun at the latest, or what would have to give."""
    found = []
    zone = ask.table.zone
    for job in ask.jobs:
        if job.due_min is None:
            continue
        begin = _last_start(ask, job)
        gives: list[Gives] = []
        kept = ""
        if begin is None:
            timed = settle(ask).timed
            ready = timed.gently(job.key) if job.due_for == "gently" else timed.finished(job.key)
            kept = when(ready if ready is not None else timed.finished(job.key), zone)
            now = timed.late_min(job.key)
            for says, eased in _eased(ask, job):
                late = _late(eased, job.key)
                if late < now - 1:
                    gives.append(Gives(says, late, lasts(late) if late else ""))
            gives.sort(key=lambda g: g.late_min)
        found.append(
            LastStart(job.key, job.job.name, when(job.due_min, zone), begin, "" if begin is None else when(begin, zone),
                      kept, tuple(gives))
        )  # fmt: skip
    return Backwards(tuple(found), hurries(ask))
