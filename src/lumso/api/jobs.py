"""Jobs: listed, opened, saved, undone. Saves carry the revision they read in If-Match."""

import logging
import time
from collections.abc import Sequence
from contextlib import suppress
from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field, ValidationError

from lumso.core.errors import InvalidValue, LumsoError
from lumso.core.job.entries import embed
from lumso.core.job.job import Job
from lumso.core.mixing.mix import Mix
from lumso.core.plan.plan import NextAction
from lumso.formats import jobfile, svg
from lumso.formats.names import with_names_cleaned
from lumso.formats.reading import UnfitDocument
from lumso.services.context import Context
from lumso.store import jobs
from lumso.store.errors import NotFound, StoreError
from lumso.store.jobs import Listed, StoredJob

from .bodies import EntriesBody, JobBody, PlanBody
from .context import Here, IfMatch, Key, read_revision
from .errors import CannotWorkOut

log = logging.getLogger("lumso")

CANNOT = "Lumso made a mistake of its own in it. It is kept as it is; the log says more."

PATIENCE_S = 0.06
MOST_HEXES = 8

router = APIRouter(prefix="/jobs", tags=["jobs"])


class JobOut(BaseModel):
    """A job at its head, with its plan."""

    id: str
    revision: int
    saved_at: str
    can_undo: bool
    can_redo: bool
    gap: int
    """How many versions were let go, by their age, between this one and the one undo goes back to."""
    job: JobBody
    plan: PlanBody


class SavedOut(BaseModel):
    """What was kept: the revision, and the entries the job carries now."""

    id: str
    revision: int
    saved_at: str
    can_undo: bool
    can_redo: bool
    entries: EntriesBody


class Summary(BaseModel):
    """What a list shows of a job: kept with its revision, and worked out again when the workshop has changed."""

    has_piece: bool
    next: NextAction
    hexes: list[str]
    fault: str
    """Why it cannot be opened or worked out; its document is still in the database."""


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


class GoneOut(BaseModel):
    """What goes with a job that is deleted for good, and what is kept."""

    revisions: int
    batches_kept: int


class AwayIn(BaseModel):
    away: bool


def opened(stored: StoredJob) -> Job:
    """The job of a stored document. Raises UnfitDocument."""
    return jobfile.from_json(stored.document, f"Job {stored.id}")


def _out(stored: StoredJob, here: Context, response: Response) -> JobOut:
    job = opened(stored)
    try:
        made = here.plan(job)
    except LumsoError:
        raise
    except Exception as error:  # a mistake of ours: what is kept is safe, and one of its revisions will open
        log.error("job %s", stored.id, exc_info=error)
        raise CannotWorkOut(CANNOT) from None
    response.headers["ETag"] = f'"{stored.revision}"'
    return JobOut(
        id=stored.id,
        revision=stored.revision,
        saved_at=stored.saved_at,
        can_undo=stored.can_undo,
        can_redo=stored.can_redo,
        gap=stored.gap,
        job=JobBody(job),
        plan=PlanBody(made),
    )


def _checked(job: Job, here: Context) -> tuple[Job, str]:
    """The job with all its entries, and its document."""
    if faults := jobfile.lengths_disagree(job):
        raise UnfitDocument("The job", faults)
    whole = embed(job, here.book())
    return whole, jobfile.to_json(whole)


def _faulty(says: str, why: str, fault: str) -> Summary:
    """The summary of a job that cannot be shown as others are, so that it takes none of them with it."""
    return Summary(has_piece=False, next=NextAction(says, why, ""), hexes=[], fault=fault)


def _worked(stored: StoredJob, here: Context) -> tuple[Summary, Mix | None]:
    """What a list shows of a job, and the first of its mixes."""
    try:
        job = opened(stored)
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


def _summed(listed: Sequence[Listed], here: Context) -> dict[str, Summary]:
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
            kept, _ = _worked(jobs.get(here.db, job.id), here)
            anew.append((job.id, job.revision, kept.model_dump_json(), state))
        found[job.id] = kept
    if anew:
        with suppress(StoreError):  # full or in use: it is worked out again next time
            jobs.sum_up(here.db, anew)
    return found


def _last(listed: Listed, here: Context) -> LastJob:
    """The job last worked on, as it is now."""
    summary, pot = _worked(jobs.get(here.db, listed.id), here)
    return LastJob(id=listed.id, name=listed.name, saved_at=listed.saved_at, pot=pot, **dict(summary))


def created(job: Job, here: Context, response: Response, key: str) -> JobOut:
    """The job kept as a new one. Raises UnfitDocument for entries that cannot be."""
    whole, document = _checked(job, here)
    if faults := jobfile.entry_faults(whole, here.catalogue):
        raise UnfitDocument("The job", faults)
    return _out(jobs.create(here.db, whole.name, document, key), here, response)


@router.get("")
def list_jobs(
    here: Here,
    search: Annotated[str, Query(max_length=200)] = "",
    away: bool = False,
    after: Annotated[str, Query(max_length=15, pattern="^[0-9]*$")] = "",
    most: Annotated[int, Query(ge=1, le=200)] = 50,
    order: jobs.Order = "last",
) -> JobsOut:
    """Jobs, the one last worked on first or by name, each with what to do next: a page of them, whose name holds
    `search`."""
    page = jobs.page(here.db, most, int(after) if after else None, search, away, order)
    summed = _summed(page.jobs, here)
    lines = [JobLine(id=j.id, name=j.name, saved_at=j.saved_at, **dict(summed[j.id])) for j in page.jobs]
    first = page.jobs[0] if page.jobs and order == "last" and not (search.strip() or away or after) else None
    shown = int(after or 0) + len(page.jobs) if order == "name" else page.jobs[-1].touched if page.jobs else 0
    return JobsOut(
        jobs=lines,
        count=page.count,
        more=str(shown) if page.more else "",
        last=_last(first, here) if first else None,
    )


@router.post("", status_code=201)
def create_job(job: JobBody, here: Here, response: Response, key: Key) -> JobOut:
    """A new job."""
    return created(job.root, here, response, key)


class FileIn(BaseModel):
    """A job file's text, of this or an earlier version."""

    name: Annotated[str, Field(max_length=200)]
    text: Annotated[str, Field(max_length=5_000_000)]


@router.post("/file", status_code=201)
def take_job_file(file: FileIn, here: Here, response: Response, key: Key) -> JobOut:
    """A job from a file, as a new one. 422 with every fault's place where it is none."""
    return created(jobfile.from_json(with_names_cleaned(file.text), file.name), here, response, key)


@router.get("/{job_id}")
def get_job(job_id: str, here: Here, response: Response) -> JobOut:
    """One job at its head."""
    return _out(jobs.get(here.db, job_id), here, response)


@router.get("/{job_id}/file", response_model=JobBody)
def get_job_file(job_id: str, here: Here) -> Response:
    """One job as a file, with the entries it uses: it opens anywhere. One that cannot be read, as it is kept."""
    stored = jobs.get(here.db, job_id)
    name, text = "job", stored.document
    with suppress(UnfitDocument):
        job = opened(stored)
        name, text = job.name, JobBody(job).model_dump_json()
    plain = "".join(c if c.isalnum() and c.isascii() else "-" for c in name).lower()
    headers = {"Content-Disposition": f'attachment; filename="{plain}.json"'}
    return Response(text, media_type="application/json", headers=headers)


@router.get("/{job_id}/drawing.svg")
def get_drawing(job_id: str, here: Here) -> Response:
    """The piece drawn to scale, as an SVG file. 422 while its sizes cannot be used."""
    job = opened(jobs.get(here.db, job_id))
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
    text = svg.to_svg(made.drawing, fills, words, made.patterns)
    headers = {"Content-Disposition": 'attachment; filename="piece.svg"'}
    return Response(text, media_type="image/svg+xml", headers=headers)


@router.put("/{job_id}")
def save_job(job_id: str, job: JobBody, if_match: IfMatch, here: Here, response: Response, key: Key) -> SavedOut:
    """Save a new revision; 412 when the job was changed elsewhere meanwhile. What has the shape of a job is kept.

    A save that says what the revision before said moves back to it, one that says what was undone moves on to it.
    """
    whole, document = _checked(job.root, here)
    stored = jobs.save(here.db, job_id, read_revision(if_match), whole.name, document, key)
    response.headers["ETag"] = f'"{stored.revision}"'
    return SavedOut(
        id=stored.id,
        revision=stored.revision,
        saved_at=stored.saved_at,
        can_undo=stored.can_undo,
        can_redo=stored.can_redo,
        entries=EntriesBody(whole.entries),
    )


@router.post("/{job_id}/undo")
def undo_job(job_id: str, if_match: IfMatch, here: Here, response: Response, key: Key) -> JobOut:
    """One revision back."""
    return _out(jobs.undo(here.db, job_id, read_revision(if_match), key), here, response)


@router.post("/{job_id}/redo")
def redo_job(job_id: str, if_match: IfMatch, here: Here, response: Response, key: Key) -> JobOut:
    """One revision forward again."""
    return _out(jobs.redo(here.db, job_id, read_revision(if_match), key), here, response)


@router.put("/{job_id}/away", status_code=204)
def put_job_away(job_id: str, away: AwayIn, here: Here) -> None:
    """Take a job out of the list, or bring it back."""
    jobs.put_away(here.db, job_id, away.away)


@router.post("/{job_id}/mend")
def mend_job(job_id: str, here: Here, response: Response) -> JobOut:
    """Go back to the last revision that can be opened and worked out; what is left stays one redo away."""
    stored = jobs.get(here.db, job_id)
    for back in (stored, *jobs.back_from(here.db, job_id)):
        if not _worked(back, here)[0].fault:
            moved = jobs.go_back_to(here.db, job_id, stored.revision, back.revision)
            return _out(moved, here, response)
    raise NotFound("No earlier version of this job can be worked out either. Save it as a file; it is kept as it is.")


@router.get("/{job_id}/gone")
def what_goes(job_id: str, here: Here) -> GoneOut:
    """What would go with a job if it were deleted for good, and what would be kept of it."""
    gone = jobs.what_goes(here.db, job_id)
    return GoneOut(revisions=gone.revisions, batches_kept=gone.batches_kept)


@router.delete("/{job_id}")
def delete_job(job_id: str, here: Here) -> GoneOut:
    """Delete a job that is put away, with all its revisions, for good. Batches printed from it are kept."""
    gone = jobs.delete(here.db, job_id)
    return GoneOut(revisions=gone.revisions, batches_kept=gone.batches_kept)
