"""The mix sheet, what is printed of it, and batches that were."""

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field, RootModel

from lumso.core.book.catalogue import pick
from lumso.core.book.kit import Kit
from lumso.core.changes.what_if import WhatIf
from lumso.core.errors import InvalidValue
from lumso.core.job.job import Job
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.mixing.larger import with_what_speaks_against
from lumso.core.mixing.mix import Mix
from lumso.core.mixing.needs import Needs, needs_of
from lumso.core.work.batch_file import BatchFile
from lumso.core.work.sheet import MixSheet, mix_sheet
from lumso.core.work.steps import steps_of
from lumso.formats import batchfile, jobfile
from lumso.services.context import Context
from lumso.store import batches, jobs
from lumso.store.batches import FrozenBatch
from lumso.store.jobs import StoredJob

from .bodies import JobBody
from .context import Here
from .gate import Entry
from .workers import run

MOST_MEASURED = 500
"""How many answers of the kit search are remembered."""

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


async def measured(mixes: Sequence[Mix], kit: Kit, request: Request, here: Context) -> list[KitAnswer]:
    """How to measure mixes with a kit, in the order they are given: remembered, or looked for beside all else."""
    asked = [needs_of(mix) for mix in mixes]
    known = {needs: here.measured.get((needs, kit)) for needs in asked}
    if fresh := [needs for needs, answer in known.items() if answer is None]:
        found = await run(request, measure_all, fresh, kit)
        known |= zip(fresh, found, strict=True)
        here.measured.update(((needs, kit), answer) for needs, answer in zip(fresh, found, strict=True))
        while len(here.measured) > MOST_MEASURED:
            here.measured.pop(next(iter(here.measured)), None)
    book, workshop = here.known(), here.workshop()
    return [
        with_what_speaks_against(answer, mix, workshop, book)
        for mix, needs in zip(mixes, asked, strict=True)
        if (answer := known[needs])
    ]


def measure_all(needs: Sequence[Needs], kit: Kit) -> list[KitAnswer]:
    """How to measure mixes with a kit."""
    from lumso.core.mixing.measuring import measure_out  # numpy takes a while to load

    return [measure_out(each, kit) for each in needs]


def in_use(here: Context, kit: str | None = None) -> Kit:
    """A kit, or the one in use."""
    return pick("kit", here.known().kits, kit or here.workshop().kit)


class BatchAsk(SheetAsk):
    """A batch of the sheet (by id), and the kit to measure it with: the one in use when it is left out."""

    batch: str
    kit: str | None = None


def _planned(asked: BatchAsk, here: Context) -> tuple[Mix, Kit]:
    sheet = _sheet(asked.job, _others(asked.with_jobs, here), asked.what_if, here)
    return pick("batch", {b.id: b for b in sheet.batches}, asked.batch).mix, in_use(here, asked.kit)


@router.post("/mix-sheet/measure")
async def measure_batch(asked: BatchAsk, request: Request, here: Here) -> KitAnswer:
    """How to measure a planned batch with a kit: the trade-offs, least waste first. Keeps nothing."""
    mix, kit = await run_in_threadpool(_planned, asked, here)
    return (await measured([mix], kit, request, here))[0]


@router.post("/jobs/{job_id}/print", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
async def print_job(job_id: str, asked: PrintIn, request: Request, here: Here) -> Response:
    """A PDF of the saved job. Printing cards or labels freezes its batches, each with a code."""
    aside = run_in_threadpool
    stored, job = await aside(_saved, job_id, here)
    if asked.what == "steps":
        steps = await aside(lambda: steps_of(here.work(job), here.room()))
        return pdf_reply(await run(request, pdf_of, "steps", job.name, steps, asked.paper), f"{job.name} steps")
    sheet = await aside(_printed, job, asked, here)
    kit = in_use(here)
    answers = await measured([b.mix for b in sheet.batches], kit, request, here)
    files = [
        BatchFile("lumso-batch", 4, job.name, kit.name, batch, answer, sheet.not_measured)
        for batch, answer in zip(sheet.batches, answers, strict=True)
    ]
    frozen = await aside(_frozen, stored, files, here)
    base = reached(request)
    coded = [(f.code, f"{base}/b/{f.code}", file) for f, file in zip(frozen, files, strict=True)]
    return pdf_reply(await run(request, pdf_of, asked.what, job.name, coded, asked.paper), f"{job.name} {asked.what}")


def reached(request: Request) -> str:
    """Where a phone of the house reaches this Lumso, where one can."""
    entry: Entry | None = request.app.state.entry
    return entry.reach if entry else str(request.base_url).rstrip("/")


def _saved(job_id: str, here: Context) -> tuple[StoredJob, Job]:
    stored = jobs.get(here.db, job_id)
    return stored, jobfile.from_json(stored.document, f"Job {job_id}")


def _printed(job: Job, asked: PrintIn, here: Context) -> MixSheet:
    """The sheet of a job as it is printed; refused where there is nothing on it."""
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
    return sheet


def _frozen(stored: StoredJob, files: Sequence[BatchFile], here: Context) -> list[FrozenBatch]:
    documents = [(f.batch.id, batchfile.to_json(f)) for f in files]
    return batches.freeze(here.db, stored.id, stored.revision, documents)


def pdf_of(what: str, name: str, content: Any, paper: Literal["a4", "letter"]) -> bytes:
    """What is printed, as PDF: cards and labels of coded batches, or a job's steps."""
    from lumso.formats import pdf  # the layout engine takes a while to load, and few sheets are printed

    if what == "steps":
        return pdf.bench_sheet(name, content, paper)
    if what == "days":
        return pdf.day_sheet(content, paper)
    return pdf.cards(content, paper) if what == "cards" else pdf.labels(content, paper)


def pdf_reply(content: bytes, name: str) -> Response:
    """A PDF to be saved under a name."""
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
