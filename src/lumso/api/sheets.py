"""The mix sheet, what is printed of it, and batches that were."""

from typing import Annotated, Literal

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, ConfigDict, Field, RootModel

from lumso.core.book.catalogue import pick
from lumso.core.book.kit import Kit
from lumso.core.changes.what_if import WhatIf
from lumso.core.errors import InvalidValue
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.work.batch import Batch
from lumso.core.work.batch_file import BatchFile
from lumso.core.work.sheet import MixSheet, mix_sheet
from lumso.core.work.steps import steps_of
from lumso.formats import batchfile, jobfile
from lumso.store import batches, jobs

from .bodies import JobBody
from .context import Context, Here
from .gate import Entry

router = APIRouter(tags=["sheets"])


class SheetAsk(BaseModel):
    """The job on the screen, others that go on the same sheet (by id), and what to try."""

    model_config = ConfigDict(extra="forbid")
    sequence: int = 0
    job: JobBody
    with_jobs: Annotated[list[str], Field(max_length=20)] = []
    what_if: WhatIf | None = None


class MixSheetOut(BaseModel):
    """The sheet as it is now, and as it would be."""

    sequence: int
    now: MixSheet
    then: MixSheet | None = None


class PrintIn(BaseModel):
    """What to print of a saved job, on which paper, with which other jobs."""

    model_config = ConfigDict(extra="forbid")
    what: Literal["cards", "labels", "steps"]
    paper: Literal["a4", "letter"] = "a4"
    with_jobs: Annotated[list[str], Field(max_length=20)] = []
    step_down: bool = False


class FrozenOut(BaseModel):
    """A batch as it was frozen."""

    code: str
    job_id: str
    revision: int
    frozen_at: str
    file: BatchFile


class BatchFileBody(RootModel[BatchFile]):
    """A frozen batch as a file."""


def _others(ids: list[str], here: Context) -> list[JobBody]:
    return [JobBody(jobfile.from_json(jobs.get(here.db, i).document, f"Job {i}")) for i in ids]


def _sheet(first: JobBody, others: list[JobBody], what_if: WhatIf | None, here: Context) -> MixSheet:
    every = [first.root, *(o.root for o in others)]
    return mix_sheet(every, here.workshop(), here.catalogue, here.room(), what_if, here.memo)


@router.post("/mix-sheet")
def get_sheet(asked: SheetAsk, here: Here) -> MixSheetOut:
    """Every batch of the job, in order; with something to try, as it would be too. Keeps nothing."""
    others = _others(asked.with_jobs, here)
    now = _sheet(asked.job, others, None, here)
    then = _sheet(asked.job, others, asked.what_if, here) if asked.what_if else None
    return MixSheetOut(sequence=asked.sequence, now=now, then=then)


def _measured(batch: Batch, kit: Kit) -> KitAnswer:
    from lumso.core.mixing.measuring import measure_out, needs_of  # numpy takes a while to load

    return measure_out(needs_of(batch.mix), kit)


def _file(job: str, batch: Batch, here: Context) -> BatchFile:
    kit = pick("kit", here.known().kits, here.workshop().kit)
    return BatchFile("lumso-batch", 3, job, kit.name, batch, _measured(batch, kit))


class BatchAsk(SheetAsk):
    """A batch of the sheet (by id), and the kit to measure it with: the one in use when it is left out."""

    batch: str
    kit: str | None = None


@router.post("/mix-sheet/measure")
def measure_batch(asked: BatchAsk, here: Here) -> KitAnswer:
    """How to measure a planned batch with a kit: the trade-offs, least waste first. Keeps nothing."""
    kit = pick("kit", here.known().kits, asked.kit or here.workshop().kit)
    sheet = _sheet(asked.job, _others(asked.with_jobs, here), asked.what_if, here)
    batch = pick("batch", {b.id: b for b in sheet.batches}, asked.batch)
    return _measured(batch, kit)


@router.post("/jobs/{job_id}/print", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
def print_job(job_id: str, asked: PrintIn, request: Request, here: Here) -> Response:
    """A PDF of the saved job. Printing cards or labels freezes its batches, each with a code."""
    from lumso.formats import pdf  # the layout engine takes a while to load, and few sheets are printed

    stored = jobs.get(here.db, job_id)
    job = jobfile.from_json(stored.document, f"Job {job_id}")
    if asked.what == "steps":
        steps = steps_of(here.work(job), here.room())
        return _pdf(pdf.bench_sheet(job.name, steps, asked.paper), f"{job.name} steps")
    tried = WhatIf(step_down=True) if asked.step_down else None
    sheet = _sheet(JobBody(job), _others(asked.with_jobs, here), tried, here)
    if not sheet.batches:
        why = sheet.problems[0] if sheet.problems else None
        raise InvalidValue(
            why.says if why else f"{job.name} has nothing to mix.",
            value=job.name,
            allowed=why.allowed if why else "a layer whose amount comes from an area",
            field=why.at if why else "/zones",
        )
    files = [_file(job.name, batch, here) for batch in sheet.batches]
    documents = [(f.batch.id, batchfile.to_json(f)) for f in files]
    frozen = batches.freeze(here.db, job_id, stored.revision, documents)
    entry: Entry | None = request.app.state.entry
    base = entry.reach if entry else str(request.base_url).rstrip("/")  # what a phone can reach, where one can
    coded = [(f.code, f"{base}/b/{f.code}", file) for f, file in zip(frozen, files, strict=True)]
    made = pdf.cards(coded, asked.paper) if asked.what == "cards" else pdf.labels(coded, asked.paper)
    return _pdf(made, f"{job.name} {asked.what}")


def _pdf(content: bytes, name: str) -> Response:
    plain = "".join(c if c.isalnum() and c.isascii() else "-" for c in name)
    headers = {"Content-Disposition": f'attachment; filename="{plain}.pdf"'}
    return Response(content, media_type="application/pdf", headers=headers)


@router.get("/batches/{code}")
def get_batch(code: str, here: Here) -> FrozenOut:
    """A frozen batch by its code, however it is written."""
    found = batches.by_code(here.db, code)
    file = batchfile.from_json(found.document, f"Batch {found.code}")
    return FrozenOut(
        code=found.code, job_id=found.job_id, revision=found.revision, frozen_at=found.frozen_at, file=file
    )


@router.get("/batches/{code}/file")
def get_batch_file(code: str, here: Here, response: Response) -> BatchFileBody:
    """A frozen batch as a file."""
    response.headers["Content-Disposition"] = 'attachment; filename="batch.json"'
    return BatchFileBody(get_batch(code, here).file)
