"""Jobs: kept, opened, listed, undone, mended."""

import logging
import time
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass

from pydantic import BaseModel, ValidationError

from lumso.core.errors import InvalidValue, LumsoError
from lumso.core.job.entries import embed
from lumso.core.job.job import Job
from lumso.core.mixing.mix import Mix
from lumso.core.plan.plan import NextAction, Plan
from lumso.core.plan.slim import without_workings
from lumso.formats import jobfile, svg
from lumso.formats.names import with_names_cleaned
from lumso.formats.reading import UnfitDocument
from lumso.store import jobs
from lumso.store.errors import NotFound, StoreError
from lumso.store.jobs import Gone, Listed, Order, StoredJob

from .context import Context
from .errors import CannotWorkOut

log = logging.getLogger("lumso")

CANNOT = "Lumso made a mistake of its own in it. It is kept as it is; the log says more."

PATIENCE_S = 0.06
MOST_HEXES = 8


@dataclass(frozen=True)
class Opened:
    """A job as it is kept, read, and worked out."""

    stored: StoredJob
    job: Job
    plan: Plan
    plan_id: str
    """What the plan is called: who holds it is told later what differs."""


class Summary(BaseModel):
    """What a list shows of a job: kept with its revision, and worked out again when the workshop has changed."""

    has_piece: bool
    next: NextAction
    hexes: list[str]
    fault: str
    """Why it cannot be opened or worked out; its document is still in the database."""


def read(stored: StoredJob, here: Context) -> Job:
    """The job of a stored document, read once while it is remembered. Raises UnfitDocument."""

    def made() -> Job:
        return jobfile.from_json(stored.document, f"Job {stored.id}")

    return here.memo.recall(("job", stored.id), (stored.document,), made)


def head_revision(job_id: str, here: Context) -> int:
    """The revision a job is at; 0 where there is none."""
    return jobs.head(here.db, job_id)


def at_head(job_id: str, here: Context) -> Job:
    """A job as it is now. Raises NotFound, UnfitDocument."""
    return read(jobs.get(here.db, job_id), here)


def planned(job: Job, which: str, here: Context) -> Plan:
    """The plan of a job. Raises CannotWorkOut where a mistake of ours is in the way: what is kept is safe."""
    try:
        return here.plan(job)
    except LumsoError:
        raise
    except Exception as error:
        log.error("job %s", which, exc_info=error)
        raise CannotWorkOut(CANNOT) from None


def seen(job: Job, which: str, looked_at: str | None, here: Context) -> Plan:
    """A job's plan as a page gets it that looks at one zone, "" the first; None looks at all. Raises CannotWorkOut."""
    made = planned(job, which, here)
    return made if looked_at is None else without_workings(made, looked_at or job.zones[0].id, here.memo)


def opened(stored: StoredJob, here: Context, looked_at: str | None = None) -> Opened:
    """A job as it is kept, read and worked out. Raises UnfitDocument, CannotWorkOut."""
    job = read(stored, here)
    plan = seen(job, stored.id, looked_at, here)
    return Opened(stored, job, plan, here.plans.keep(plan))


def open_job(job_id: str, here: Context, looked_at: str | None = None) -> Opened:
    """One job at its head. Raises NotFound, UnfitDocument, CannotWorkOut."""
    return opened(jobs.get(here.db, job_id), here, looked_at)


def checked(job: Job, here: Context) -> tuple[Job, str]:
    """The job with all its entries, and its document. Raises UnfitDocument."""
    if faults := jobfile.lengths_disagree(job):
        raise UnfitDocument("The job", faults)
    whole = embed(job, here.book())
    return whole, jobfile.to_json(whole)


def create(job: Job, here: Context, key: str) -> Opened:
    """The job kept as a new one. Raises UnfitDocument for entries that cannot be."""
    whole, document = checked(job, here)
    if faults := jobfile.entry_faults(whole, here.catalogue):
        raise UnfitDocument("The job", faults)
    return opened(jobs.create(here.db, whole.name, document, key), here)


def save(job_id: str, job: Job, read_at: int, here: Context, key: str) -> tuple[StoredJob, Job]:
    """Save a new revision of a job, and what it carries now. Raises StaleRevision, UnfitDocument."""
    whole, document = checked(job, here)
    return jobs.save(here.db, job_id, read_at, whole.name, document, key), whole


def undo(job_id: str, read_at: int, here: Context, key: str) -> Opened:
    """One revision back. Raises StaleRevision."""
    return opened(jobs.undo(here.db, job_id, read_at, key), here)


def redo(job_id: str, read_at: int, here: Context, key: str) -> Opened:
    """One revision forward again. Raises StaleRevision."""
    return opened(jobs.redo(here.db, job_id, read_at, key), here)


def mend(job_id: str, here: Context) -> Opened:
    """Go back to the last revision that can be opened and worked out; what is left stays one redo away.

    Raises NotFound where there is none.
    """
    stored = jobs.get(here.db, job_id)
    for back in (stored, *jobs.back_from(here.db, job_id)):
        if not summed_up(back, here)[0].fault:
            return opened(jobs.go_back_to(here.db, job_id, stored.revision, back.revision), here)
    raise NotFound("No earlier version of this job can be worked out either. Save it as a file; it is kept as it is.")


def _faulty(says: str, why: str, fault: str) -> Summary:
    """The summary of a job that cannot be shown as others are, so that it takes none of them with it."""
    return Summary(has_piece=False, next=NextAction(says, why, ""), hexes=[], fault=fault)


def summed_up(stored: StoredJob, here: Context) -> tuple[Summary, Mix | None]:
    """What a list shows of a job, and the first of its mixes."""
    try:
        job = read(stored, here)
    except UnfitDocument as error:
        return _faulty("This job cannot be opened", error.faults[0].says, str(error)), None
    try:
        made = here.plan(job)
    except Exception as error:  # a mistake of ours in one job is no reason to hide the others
        log.error("job %s", stored.id, exc_info=error)
        return _faulty("This job cannot be worked out", CANNOT, CANNOT), None
    mixes = [pot.mix for zone in made.zones for layer in zone.layers for pot in layer.pots]
    hexes = [p.hex for m in mixes for p in m.parts if p.role == "paint"]
    summary = Summary(has_piece=job.piece is not None, next=made.next, hexes=hexes[:MOST_HEXES], fault="")
    return summary, mixes[0] if mixes and not made.problems else None


def _kept_summary(listed: Listed) -> Summary | None:
    """The summary kept with a revision; None where there is none, or an earlier Lumso wrote it."""
    with suppress(ValidationError):
        return Summary.model_validate_json(listed.summary) if listed.summary else None
    return None


def summaries(listed: Sequence[Listed], here: Context) -> dict[str, Summary]:
    """What a list shows of jobs: as it was kept, or worked out again where the workshop has changed since.

    Nobody waits for that longer than PATIENCE_S: the rest is shown as it was, until it is asked for again. What was
    never worked out is worked out in any case.
    """
    state, until = here.db.version(), time.monotonic() + PATIENCE_S
    found: dict[str, Summary] = {}
    anew: list[tuple[str, int, str, int]] = []
    for job in listed:
        kept = _kept_summary(job)
        if kept is None or (job.summed_at != state and time.monotonic() < until):
            kept, _ = summed_up(jobs.get(here.db, job.id), here)
            anew.append((job.id, job.revision, kept.model_dump_json(), state))
        found[job.id] = kept
    if anew:
        with suppress(StoreError):  # full or in use: it is worked out again next time
            jobs.sum_up(here.db, anew)
    return found


class JobLine(Summary):
    """A job in the list."""

    id: str
    name: str
    saved_at: str


class LastJob(JobLine):
    """The job last worked on, with the first mix of it, to show what is next."""

    pot: Mix | None


class JobsOut(BaseModel):
    """A page of the list, and how many jobs there are in all."""

    jobs: list[JobLine]
    count: int
    more: str
    """What to ask for the next page; empty on the last one."""
    last: LastJob | None
    """The job last worked on; only on the first page of all jobs that are not put away."""


def listed(search: str, away: bool, after: str, most: int, order: Order, here: Context) -> JobsOut:
    """Jobs, the one last worked on first or by name, each with what to do next: a page of them, whose name holds
    `search`. `after` is what the page before said; "" for the first."""
    page = jobs.page(here.db, most, int(after) if after else None, search, away, order)
    summed = summaries(page.jobs, here)
    lines = [JobLine(id=j.id, name=j.name, saved_at=j.saved_at, **dict(summed[j.id])) for j in page.jobs]
    first = page.jobs[0] if page.jobs and order == "last" and not (search.strip() or away or after) else None
    shown = int(after or 0) + len(page.jobs) if order == "name" else page.jobs[-1].touched if page.jobs else 0
    last = _last(first, here) if first else None
    return JobsOut(jobs=lines, count=page.count, more=str(shown) if page.more else "", last=last)


def _last(listed: Listed, here: Context) -> LastJob:
    """The job last worked on, as it is now."""
    summary, pot = summed_up(jobs.get(here.db, listed.id), here)
    return LastJob(id=listed.id, name=listed.name, saved_at=listed.saved_at, pot=pot, **dict(summary))


def take_file(name: str, text: str, here: Context, key: str) -> Opened:
    """A job from a file, as a new one. Raises UnfitDocument with every fault's place where it is none."""
    return create(jobfile.from_json(with_names_cleaned(text), name), here, key)


def as_file(job_id: str, here: Context) -> tuple[str, str]:
    """A job's name and its text as a file, with the entries it uses: it opens anywhere. One that cannot be read, as it
    is kept. Raises NotFound."""
    stored = jobs.get(here.db, job_id)
    with suppress(UnfitDocument):
        job = read(stored, here)
        return job.name, jobfile.to_json(job)
    return "job", stored.document


def drawing(job_id: str, here: Context) -> str:
    """The piece drawn to scale, as SVG. Raises InvalidValue while its sizes cannot be used."""
    job = at_head(job_id, here)
    made = here.plan(job)
    if made.drawing is None or job.piece is None:
        why = made.problems[0] if made.problems else None
        raise InvalidValue(
            why.says if why else "This job has no piece to draw.",
            value=job.name,
            allowed=why.allowed if why else "a piece with its sizes",
            field=why.at if why else "/piece",
        )
    fills = {zone.zone: zone.hex for zone in made.zones}
    words = {slug: length.typed for slug, length in job.piece.sizes.items()}
    return svg.to_svg(made.drawing, fills, words, made.patterns)


def put_away(job_id: str, away: bool, here: Context) -> None:
    """Take a job out of the list, or bring it back. Raises NotFound."""
    jobs.put_away(here.db, job_id, away)


def what_goes(job_id: str, here: Context) -> Gone:
    """What would go with a job if it were deleted for good, and what would be kept of it. Raises NotFound."""
    return jobs.what_goes(here.db, job_id)


def delete(job_id: str, here: Context) -> Gone:
    """Delete a job that is put away, with all its revisions, for good. Batches printed from it are kept. Raises
    NotFound."""
    return jobs.delete(here.db, job_id)
