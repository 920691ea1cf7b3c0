"""One trip an edit: what was done to a job is made to what it is now, kept, and answered with what came of it.

The page says the revision it read and what was done since. Where the job has moved on meanwhile, and nothing that is
touched was touched there, the same is done to the job as it is now; otherwise both versions are to be looked at. What
is worked out is worked out first; one short transaction then keeps edit, revision and key.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cache

from pydantic import TypeAdapter
from pydantic_core import to_jsonable_python

from lumso.core.advice import Taken
from lumso.core.edits.edit import Edit, Edited, edited, touches
from lumso.core.errors import LumsoError
from lumso.core.job.entries import embed
from lumso.core.job.job import Job, Layer
from lumso.core.plan.plan import Plan
from lumso.core.plan.slim import without_workings
from lumso.formats import jobfile, patch, reading
from lumso.formats.names import refuse_hidden
from lumso.formats.patch import ById, Step
from lumso.formats.reading import UnfitDocument
from lumso.store import jobs
from lumso.store.errors import NotFound, StaleRevision
from lumso.store.jobs import StoredJob

from .context import Context
from .errors import CannotWorkOut
from .jobs import read, seen

TRIES = 3
"""How often a change is made anew because somebody else's came between."""


@dataclass(frozen=True)
class SetValues:
    """Plain values set where they were entered."""

    key: str
    patch: tuple[Step, ...]


@dataclass(frozen=True)
class Decide:
    """An edit that asks the rules."""

    key: str
    edit: Edit


Doing = SetValues | Decide


@dataclass(frozen=True)
class Answer:
    """What one change made of the job as it was before it; or why it was refused, and then nothing was changed."""

    key: str
    patch: list[Step]
    taken: tuple[Taken, ...] = ()
    refused: LumsoError | None = None


@dataclass(frozen=True)
class Trip:
    """What a page did since it read a revision.

    `goes_on`: somebody is typing, it is one step of undo with what was read. `holds` names the plan the page has.
    """

    read: int
    changes: tuple[Doing, ...]
    goes_on: bool = False
    looked_at: str | None = None
    holds: str = ""


@dataclass(frozen=True)
class Changed:
    """What came of it. The job is what was read with `came` made to it (what others changed), then each answer's own,
    then what came after (`after`). The plan: what differs from the one the page holds (`plan`), or all of it (`whole`),
    or why there is none (`trouble`)."""

    stored: StoredJob
    job: Job | None
    """The whole job, where what was read is no more: nothing else says what it is now."""
    came: list[Step]
    answers: tuple[Answer, ...]
    after: list[Step]
    plan_id: str
    plan: list[Step] | None
    whole: Plan | None
    trouble: str = ""


def _seen(job: Job, which: str, looked_at: str | None, here: Context) -> Plan | str:
    """A job's plan as a page gets it, or why there is none."""
    try:
        return seen(job, which, looked_at, here)
    except CannotWorkOut as error:
        return str(error)


@cache
def _layers() -> TypeAdapter[Layer]:
    return TypeAdapter(Layer)


def _layer_of(step: Step) -> tuple[str, str] | None:
    """The zone and the layer that a step stays within; None where it goes beyond one."""
    match step.at:
        case ["zones", ById(id=zone), "layers", ById(id=layer), _, *_]:
            return zone, layer
    return None


def with_values(job: Job, steps: Sequence[Step]) -> Job:
    """The job with values set. Raises UnfitDocument where it would not be one any more.

    What stays within one layer is read anew there only: a large job takes its time.
    """
    refuse_hidden([to_jsonable_python(s) for s in steps])
    places = {_layer_of(s) for s in steps}
    place = places.pop() if len(places) == 1 else None
    if place is None:
        return jobfile.from_document(patch.patched(to_jsonable_python(job), steps))
    zone, layer = place

    def read_anew(index: int, i: int, one: Layer) -> Layer:
        inner = [s.model_copy(update={"at": s.at[4:]}) for s in steps]
        made = patch.patched(to_jsonable_python(one), inner)
        try:
            return reading.read(_layers(), reading.widened(made), "The job")
        except UnfitDocument as error:
            at = f"/zones/{index}/layers/{i}"
            raise UnfitDocument("The job", [replace(f, at=at + f.at) for f in error.faults]) from None

    zones = tuple(
        z if z.id != zone
        else replace(z, layers=tuple(read_anew(n, i, x) if x.id == layer else x for i, x in enumerate(z.layers)))
        for n, z in enumerate(job.zones)
    )  # fmt: skip
    return replace(job, zones=zones)


def _made(job: Job, change: Doing, here: Context) -> tuple[Job, tuple[Taken, ...]]:
    """The job after one change, with its entries. Raises LumsoError."""
    if isinstance(change, SetValues):
        patch.refuse_root(change.patch)
        made, taken = with_values(job, change.patch), tuple[Taken, ...]()
    else:
        done = edited(job, change.edit, here.known_for(job), here.room())
        made, taken = done.job, done.taken
    if faults := jobfile.lengths_disagree(made):
        raise UnfitDocument("The job", faults)
    return embed(made, here.book()), taken


def _answered(job: Job, changes: Sequence[Doing], here: Context) -> tuple[Job, tuple[Answer, ...]]:
    """The job after all changes, and each one's answer. What is refused changes nothing, and the rest goes on."""
    answers = []
    for change in changes:
        try:
            made, taken = _made(job, change, here)
        except LumsoError as error:
            answers.append(Answer(change.key, [], (), error))
            continue
        answers.append(Answer(change.key, patch.diff(job, made), taken))
        job = made
    return job, tuple(answers)


def tried(job: Job, edit: Edit, here: Context) -> Edited:
    """What an edit makes of a job that is kept nowhere, with its entries, and what was done of itself. Raises
    InvalidValue, UnknownEntry."""
    made = edited(job, edit, here.known_for(job), here.room())
    return replace(made, job=embed(made.job, here.book()))


def plan_unsaved(job: Job, looked_at: str | None, here: Context) -> Plan:
    """What a job that is kept nowhere comes to, with the working of the zone that is looked at; of all for None.
    Raises UnfitDocument."""
    if faults := jobfile.lengths_disagree(job):
        raise UnfitDocument("The job", faults)
    made = here.plan(job)
    return made if looked_at is None else without_workings(made, looked_at, here.memo)


Where = tuple[str | int, ...]


def places_of(change: Doing) -> tuple[Where, ...]:
    """What a change touches, as keys and ids on the way to it; the whole job is the empty way."""
    return patch.touched(change.patch) if isinstance(change, SetValues) else touches(change.edit)


def _came(since: StoredJob, head: StoredJob, trip: Trip, here: Context) -> list[Step]:
    """What others changed since a revision was read. Raises StaleRevision where something of it is touched here too."""
    steps = patch.diff(read(since, here), read(head, here))
    theirs = [p for p in patch.touched(steps) if p[0] != "entries"]
    if patch.meets((p for change in trip.changes for p in places_of(change)), theirs):
        raise StaleRevision(since.revision, head.revision)
    return steps


def _since(job_id: str, head: StoredJob, read_at: int, here: Context) -> StoredJob:
    """The job as it was read. Raises StaleRevision where that version is no more."""
    if head.revision == read_at:
        return head
    try:
        return jobs.at(here.db, job_id, read_at)
    except NotFound:
        raise StaleRevision(read_at, head.revision) from None


def change(job_id: str, trip: Trip, key: str, here: Context) -> Changed:
    """Make what was done to a job, and keep it. Without changes: what has come since.

    Trip again under the same key it is not made again, and answered anew. Raises NotFound, StaleRevision (412: both
    versions are to be looked at), OtherKey.
    """
    head = jobs.get(here.db, job_id)
    done = jobs.told(here.db, job_id, key) if key else None
    if done is not None:
        since = _since(job_id, head, trip.read, here)
        job, answers = _answered(read(since, here), trip.changes, here)
        return _told(head, [], answers, patch.diff(job, read(head, here)), trip, here)
    if not trip.changes and not jobs.has(here.db, job_id, trip.read):
        return replace(_told(head, [], (), [], trip, here), job=read(head, here))
    for left in reversed(range(TRIES)):
        came = _came(_since(job_id, head, trip.read, here), head, trip, here)
        job, answers = _answered(read(head, here), trip.changes, here)
        document = jobfile.to_json(job)
        if document == head.document or all(a.refused for a in answers):
            return _told(head, came, answers, [], trip, here)
        here.memo.recall(("job", job_id), (document,), lambda job=job: job)  # type: ignore[misc]
        made = _seen(job, job_id, trip.looked_at, here)  # before anybody else has to wait for the database
        goes_on = trip.goes_on and head.revision == trip.read
        try:
            head = jobs.save(here.db, job_id, head.revision, job.name, document, key, goes_on)
        except StaleRevision:
            if not left:
                raise
            head = jobs.get(here.db, job_id)
            continue
        return _told(head, came, answers, [], trip, here, made)
    raise AssertionError


def _told(head: StoredJob, came: list[Step], answers: tuple[Answer, ...], after: list[Step], trip: Trip,
          here: Context, made: Plan | str | None = None) -> Changed:  # fmt: skip
    """What a page is told: the job by what changed in it, the plan by what differs from the one it holds."""
    if made is None:
        made = _seen(read(head, here), head.id, trip.looked_at, here)
    if isinstance(made, str):
        return Changed(head, None, came, answers, after, "", None, None, made)
    held = here.plans.get(trip.holds)
    name = here.plans.keep(made)
    steps = patch.diff(held, made, numbered=True) if held is not None else None
    return Changed(head, None, came, answers, after, name, steps, None if steps is not None else made)
