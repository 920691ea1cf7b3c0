"""Jobs: listed, opened, saved, undone. Saves carry the revision they read in If-Match."""

from contextlib import suppress
from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from lumso.core.errors import InvalidValue
from lumso.core.mixing.mix import Mix
from lumso.formats import jobfile, svg
from lumso.formats.names import with_names_cleaned
from lumso.formats.reading import UnfitDocument
from lumso.services import jobs as service
from lumso.services.context import Context
from lumso.services.jobs import Opened, Summary
from lumso.store import jobs
from lumso.store.jobs import Listed

from .bodies import EntriesBody, HeadOut, JobBody, PlanBody, head_of
from .context import Here, IfMatch, Key, read_revision

router = APIRouter(prefix="/jobs", tags=["jobs"])


class JobOut(HeadOut):
    """A job at its head, with its plan."""

    job: JobBody
    plan: PlanBody
    plan_id: str
    """What this plan is called: with it, `changes` answers with what differs."""


class SavedOut(HeadOut):
    """What was kept: the revision, and the entries the job carries now."""

    entries: EntriesBody


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


def out(opened: Opened, response: Response) -> JobOut:
    """A job as it is answered."""
    stored = opened.stored
    response.headers["ETag"] = f'"{stored.revision}"'
    return JobOut(
        **head_of(stored),
        job=JobBody(opened.job),
        plan=PlanBody(opened.plan),
        plan_id=opened.plan_id,
    )


def _last(listed: Listed, here: Context) -> LastJob:
    """The job last worked on, as it is now."""
    summary, pot = service.summed_up(jobs.get(here.db, listed.id), here)
    return LastJob(id=listed.id, name=listed.name, saved_at=listed.saved_at, pot=pot, **dict(summary))


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
    summed = service.summaries(page.jobs, here)
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
    return out(service.create(job.root, here, key), response)


class FileIn(BaseModel):
    """A job file's text, of this or an earlier version."""

    name: Annotated[str, Field(max_length=200)]
    text: Annotated[str, Field(max_length=5_000_000)]


@router.post("/file", status_code=201)
def take_job_file(file: FileIn, here: Here, response: Response, key: Key) -> JobOut:
    """A job from a file, as a new one. 422 with every fault's place where it is none."""
    job = jobfile.from_json(with_names_cleaned(file.text), file.name)
    return out(service.create(job, here, key), response)


@router.get("/{job_id}")
def get_job(job_id: str, here: Here, response: Response,
            looked_at: Annotated[str | None, Query(max_length=80)] = None) -> JobOut:  # fmt: skip
    """One job at its head. The working is left out but for one zone: "" for the first, none said for all."""
    return out(service.open_job(job_id, here, looked_at), response)


@router.get("/{job_id}/file", response_model=JobBody)
def get_job_file(job_id: str, here: Here) -> Response:
    """One job as a file, with the entries it uses: it opens anywhere. One that cannot be read, as it is kept."""
    stored = jobs.get(here.db, job_id)
    name, text = "job", stored.document
    with suppress(UnfitDocument):
        job = service.read(stored, here)
        name, text = job.name, JobBody(job).model_dump_json()
    plain = "".join(c if c.isalnum() and c.isascii() else "-" for c in name).lower()
    headers = {"Content-Disposition": f'attachment; filename="{plain}.json"'}
    return Response(text, media_type="application/json", headers=headers)


@router.get("/{job_id}/drawing.svg")
def get_drawing(job_id: str, here: Here) -> Response:
    """The piece drawn to scale, as an SVG file. 422 while its sizes cannot be used."""
    job = service.at_head(job_id, here)
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
    stored, whole = service.save(job_id, job.root, read_revision(if_match), here, key)
    response.headers["ETag"] = f'"{stored.revision}"'
    return SavedOut(**head_of(stored), entries=EntriesBody(whole.entries))


@router.post("/{job_id}/undo")
def undo_job(job_id: str, if_match: IfMatch, here: Here, response: Response, key: Key) -> JobOut:
    """One revision back."""
    return out(service.undo(job_id, read_revision(if_match), here, key), response)


@router.post("/{job_id}/redo")
def redo_job(job_id: str, if_match: IfMatch, here: Here, response: Response, key: Key) -> JobOut:
    """One revision forward again."""
    return out(service.redo(job_id, read_revision(if_match), here, key), response)


@router.put("/{job_id}/away", status_code=204)
def put_job_away(job_id: str, away: AwayIn, here: Here) -> None:
    """Take a job out of the list, or bring it back."""
    jobs.put_away(here.db, job_id, away.away)


@router.post("/{job_id}/mend")
def mend_job(job_id: str, here: Here, response: Response) -> JobOut:
    """Go back to the last revision that can be opened and worked out; what is left stays one redo away."""
    return out(service.mend(job_id, here), response)


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
