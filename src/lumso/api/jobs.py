"""Jobs: listed, opened, saved, undone. Saves carry the revision they read in If-Match."""

import logging
from typing import Annotated

from fastapi import APIRouter, Header, Response
from pydantic import BaseModel, Field

from lumso.core.errors import InvalidValue
from lumso.core.job.entries import embed
from lumso.core.job.job import Job
from lumso.core.job.start import start_job, start_pot
from lumso.core.mixing.mix import Mix
from lumso.core.plan.plan import NextAction
from lumso.formats import jobfile, svg
from lumso.formats.reading import UnfitDocument
from lumso.store import jobs
from lumso.store.ids import new_id
from lumso.store.jobs import StoredJob

from .bodies import EntriesBody, JobBody, PlanBody
from .context import Context, Here

log = logging.getLogger("lumso")

CANNOT = "Lumso made a mistake of its own in it. It is kept as it is; the log says more."

router = APIRouter(prefix="/jobs", tags=["jobs"])


class JobOut(BaseModel):
    """A job at its head, with its plan."""

    id: str
    revision: int
    saved_at: str
    can_undo: bool
    can_redo: bool
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


class JobLine(BaseModel):
    """A job in the list. `fault` says why one cannot be opened; its document is still in the database."""

    id: str
    name: str
    saved_at: str
    has_piece: bool
    next: NextAction
    hexes: list[str]
    pot: Mix | None
    """The first mix of the job, to show what is next."""
    fault: str


class AwayIn(BaseModel):
    away: bool


class StartIn(BaseModel):
    """What a new job starts from: with `ml` it is a quick pot, without it a board to be measured."""

    name: str = "New job"
    recipe: str = "paint-wash-raw-wood"
    ground: str = "raw-pine"
    ml: Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)] | None = None


IfMatch = Annotated[str, Header(alias="If-Match", description='The revision that was read, as "7".')]


def _read_revision(if_match: str) -> int:
    text = if_match.strip().removeprefix("W/").strip('"')
    if not (text.isdecimal() and len(text) < 16):
        raise InvalidValue(
            f"If-Match {if_match[:40]!r} is no revision.",
            value=if_match[:40],
            allowed='a revision such as "7"',
            field="If-Match",
        )
    return int(text)


def _out(stored: StoredJob, here: Context, response: Response) -> JobOut:
    job = jobfile.from_json(stored.document, f"Job {stored.id}")
    response.headers["ETag"] = f'"{stored.revision}"'
    return JobOut(
        id=stored.id,
        revision=stored.revision,
        saved_at=stored.saved_at,
        can_undo=stored.can_undo,
        can_redo=stored.can_redo,
        job=JobBody(job),
        plan=PlanBody(here.plan(job)),
    )


def _checked(job: Job, here: Context) -> tuple[Job, str]:
    """The job with all its entries, and its document."""
    if faults := jobfile.lengths_disagree(job):
        raise UnfitDocument("The job", faults)
    whole = embed(job, here.book())
    return whole, jobfile.to_json(whole)


def _faulty(stored: StoredJob, name: str, says: str, why: str, fault: str) -> JobLine:
    """The line of a job that cannot be shown as others are, so that it takes none of them with it."""
    return JobLine(
        id=stored.id,
        name=name,
        saved_at=stored.saved_at,
        has_piece=False,
        next=NextAction(says, why, ""),
        hexes=[],
        pot=None,
        fault=fault,
    )


def _line(stored: StoredJob, here: Context) -> JobLine:
    try:
        job = jobfile.from_json(stored.document, f"Job {stored.id}")
    except UnfitDocument as error:
        return _faulty(stored, "?", "This job cannot be opened", error.faults[0].says, str(error))
    try:
        made = here.plan(job)
    except Exception as error:  # a mistake of ours in one job is no reason to hide the others
        log.error("job %s", stored.id, exc_info=error)
        return _faulty(stored, job.name, "This job cannot be worked out", CANNOT, CANNOT)
    mixes = [pot.mix for zone in made.zones for layer in zone.layers for pot in layer.pots]
    return JobLine(
        id=stored.id,
        name=job.name,
        saved_at=stored.saved_at,
        has_piece=job.piece is not None,
        next=made.next,
        hexes=[p.hex for m in mixes for p in m.parts if p.role == "paint"],
        pot=mixes[0] if mixes and not made.problems else None,
        fault="",
    )


def _created(job: Job, here: Context, response: Response) -> JobOut:
    whole, document = _checked(job, here)
    return _out(jobs.create(here.db, whole.name, document), here, response)


@router.get("")
def list_jobs(here: Here) -> list[JobLine]:
    """All jobs, the one last worked on first, each with what to do next."""
    return [_line(stored, here) for stored in jobs.every(here.db)]


@router.post("", status_code=201)
def create_job(job: JobBody, here: Here, response: Response) -> JobOut:
    """A new job."""
    return _created(job.root, here, response)


class FileIn(BaseModel):
    """A job file's text, of this or an earlier version."""

    name: Annotated[str, Field(max_length=200)]
    text: Annotated[str, Field(max_length=5_000_000)]


@router.post("/file", status_code=201)
def take_job_file(file: FileIn, here: Here, response: Response) -> JobOut:
    """A job from a file, as a new one. 422 with every fault's place where it is none."""
    return _created(jobfile.from_json(file.text, file.name), here, response)


@router.post("/start", status_code=201)
def begin_job(start: StartIn, here: Here, response: Response) -> JobOut:
    """A new job with a board to be measured, or a quick pot."""
    zone, layer = new_id(), new_id()
    if start.ml is None:
        job = start_job(start.name, zone, layer, start.recipe, start.ground, here.known())
    else:
        job = start_pot(zone, layer, start.recipe, start.ml, here.known())
    return _created(job, here, response)


@router.get("/{job_id}")
def get_job(job_id: str, here: Here, response: Response) -> JobOut:
    """One job at its head."""
    return _out(jobs.get(here.db, job_id), here, response)


@router.get("/{job_id}/file")
def get_job_file(job_id: str, here: Here, response: Response) -> JobBody:
    """One job as a file, with the entries it uses: it opens anywhere."""
    job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
    plain = "".join(c if c.isalnum() and c.isascii() else "-" for c in job.name).lower()
    response.headers["Content-Disposition"] = f'attachment; filename="{plain}.json"'
    return JobBody(job)


@router.get("/{job_id}/drawing.svg")
def get_drawing(job_id: str, here: Here) -> Response:
    """The piece drawn to scale, as an SVG file. 422 while its sizes cannot be used."""
    job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
    made = here.plan(job)
    if made.drawing is None or job.piece is None:
        why = made.problems[0] if made.problems else None
        raise InvalidValue(
            why.says if why else "This job has no piece to draw.",
            value=job.name,
            allowed=why.allowed if why else "a piece with its sizes",
            field=why.at if why else "/piece",
        )
    fills = {
        zone.zone: part.hex
        for zone in made.zones
        for layer in zone.layers
        for pot in layer.pots[:1]
        for part in pot.mix.parts
        if part.role == "paint"
    }
    words = {slug: length.typed for slug, length in job.piece.sizes.items()}
    text = svg.to_svg(made.drawing, fills, words)
    headers = {"Content-Disposition": 'attachment; filename="piece.svg"'}
    return Response(text, media_type="image/svg+xml", headers=headers)


@router.put("/{job_id}")
def save_job(job_id: str, job: JobBody, if_match: IfMatch, here: Here, response: Response) -> SavedOut:
    """Save a new revision; 412 when the job was changed elsewhere meanwhile.

    A save that says what the revision before said moves back to it, one that says what was undone moves on to it.
    """
    whole, document = _checked(job.root, here)
    stored = jobs.save(here.db, job_id, _read_revision(if_match), whole.name, document)
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
def undo_job(job_id: str, if_match: IfMatch, here: Here, response: Response) -> JobOut:
    """One revision back."""
    return _out(jobs.undo(here.db, job_id, _read_revision(if_match)), here, response)


@router.post("/{job_id}/redo")
def redo_job(job_id: str, if_match: IfMatch, here: Here, response: Response) -> JobOut:
    """One revision forward again."""
    return _out(jobs.redo(here.db, job_id, _read_revision(if_match)), here, response)


@router.put("/{job_id}/away", status_code=204)
def put_job_away(job_id: str, away: AwayIn, here: Here) -> None:
    """Take a job out of the list, or bring it back."""
    jobs.put_away(here.db, job_id, away.away)
