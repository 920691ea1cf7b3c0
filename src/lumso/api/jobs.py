"""Jobs: listed, opened, saved, undone. Saves carry the revision they read in If-Match."""

from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from lumso.services import jobs as service
from lumso.services.jobs import JobsOut
from lumso.store.jobs import Order

from .bodies import EntriesBody, HeadOut, JobBody, head_of
from .context import Here, IfMatch, Key, read_revision
from .opened import JobOut, out
from .replies import file_reply, plain_name

router = APIRouter(prefix="/jobs", tags=["jobs"])


class SavedOut(HeadOut):
    """What was kept: the revision, and the entries the job carries now."""

    entries: EntriesBody


class GoneOut(BaseModel):
    """What goes with a job that is deleted for good, and what is kept."""

    revisions: int
    batches_kept: int


class AwayIn(BaseModel):
    away: bool


@router.get("")
def list_jobs(
    here: Here,
    search: Annotated[str, Query(max_length=200)] = "",
    away: bool = False,
    after: Annotated[str, Query(max_length=15, pattern="^[0-9]*$")] = "",
    most: Annotated[int, Query(ge=1, le=200)] = 50,
    order: Order = "last",
) -> JobsOut:
    """Jobs, the one last worked on first or by name, each with what to do next: a page of them, whose name holds
    `search`."""
    return service.listed(search, away, after, most, order, here)


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
    return out(service.take_file(file.name, file.text, here, key), response)


@router.get("/{job_id}")
def get_job(job_id: str, here: Here, response: Response,
            looked_at: Annotated[str | None, Query(max_length=80)] = None) -> JobOut:  # fmt: skip
    """One job at its head. The working is left out but for one zone: "" for the first, none said for all."""
    return out(service.open_job(job_id, here, looked_at), response)


@router.get("/{job_id}/file", response_model=JobBody)
def get_job_file(job_id: str, here: Here) -> Response:
    """One job as a file, with the entries it uses: it opens anywhere. One that cannot be read, as it is kept."""
    name, text = service.as_file(job_id, here)
    return file_reply(text, "application/json", f"{plain_name(name).lower()}.json")


@router.get("/{job_id}/drawing.svg")
def get_drawing(job_id: str, here: Here) -> Response:
    """The piece drawn to scale, as an SVG file. 422 while its sizes cannot be used."""
    return file_reply(service.drawing(job_id, here), "image/svg+xml", "piece.svg")


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
    service.put_away(job_id, away.away, here)


@router.post("/{job_id}/mend")
def mend_job(job_id: str, here: Here, response: Response) -> JobOut:
    """Go back to the last revision that can be opened and worked out; what is left stays one redo away."""
    return out(service.mend(job_id, here), response)


@router.get("/{job_id}/gone")
def what_goes(job_id: str, here: Here) -> GoneOut:
    """What would go with a job if it were deleted for good, and what would be kept of it."""
    gone = service.what_goes(job_id, here)
    return GoneOut(revisions=gone.revisions, batches_kept=gone.batches_kept)


@router.delete("/{job_id}")
def delete_job(job_id: str, here: Here) -> GoneOut:
    """Delete a job that is put away, with all its revisions, for good. Batches printed from it are kept."""
    gone = service.delete(job_id, here)
    return GoneOut(revisions=gone.revisions, batches_kept=gone.batches_kept)
