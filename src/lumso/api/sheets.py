"""The mix sheet, what is printed of it, and batches that were."""

from typing import Annotated, Literal

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, ConfigDict, Field, RootModel

from lumso.core.changes.what_if import WhatIf
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.work.batch_file import BatchFile
from lumso.core.work.sheet import MixSheet
from lumso.services import printing
from lumso.services.printing import OnSheet, Printing

from .bodies import JobBody
from .context import Here
from .replies import PDF, pdf_reply, reached
from .workers import BesideIt

router = APIRouter(tags=["sheets"])


class SheetAsk(BaseModel):
    """The job on the screen, others that go on the same sheet (by id), and what to try."""

    model_config = ConfigDict(extra="forbid")
    sequence: int = 0
    job: JobBody
    with_jobs: Annotated[list[str], Field(max_length=20)] = []
    what_if: WhatIf | None = None

    def on_sheet(self, what_if: WhatIf | None = None) -> OnSheet:
        """What is asked of the service, with something to try or without."""
        return OnSheet(self.job.root, tuple(self.with_jobs), what_if)


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


@router.post("/mix-sheet")
def get_sheet(asked: SheetAsk, here: Here) -> MixSheetOut:
    """Every batch of the job, in order; with something to try, as it would be too. Keeps nothing."""
    now = printing.sheet_of(asked.on_sheet(), here)
    then = printing.sheet_of(asked.on_sheet(asked.what_if), here) if asked.what_if else None
    return MixSheetOut(sequence=asked.sequence, now=now, then=then)


class BatchAsk(SheetAsk):
    """A batch of the sheet (by id), and the kit to measure it with: the one in use when it is left out."""

    batch: str
    kit: str | None = None


@router.post("/mix-sheet/measure")
async def measure_batch(asked: BatchAsk, here: Here, beside: BesideIt) -> KitAnswer:
    """How to measure a planned batch with a kit: the trade-offs, least waste first. Keeps nothing."""
    return await printing.measure_batch(asked.on_sheet(asked.what_if), asked.batch, asked.kit, here, beside)


@router.post("/jobs/{job_id}/print", response_class=Response, responses=PDF)
async def print_job(job_id: str, asked: PrintIn, request: Request, here: Here, beside: BesideIt) -> Response:
    """A PDF of the saved job. Printing cards or labels freezes its batches, each with a code."""
    what = Printing(asked.what, asked.paper, tuple(asked.with_jobs), asked.step_down)
    return pdf_reply(*await printing.printed(job_id, what, reached(request), here, beside))


@router.get("/batches/{code}")
def get_batch(code: str, here: Here) -> FrozenOut:
    """A frozen batch by its code, however it is written."""
    found, file = printing.batch_by_code(code, here)
    return FrozenOut(
        code=found.code, job_id=found.job_id, revision=found.revision, frozen_at=found.frozen_at, file=file
    )


@router.get("/batches/{code}/file")
def get_batch_file(code: str, here: Here, response: Response) -> BatchFileBody:
    """A frozen batch as a file."""
    response.headers["Content-Disposition"] = 'attachment; filename="batch.json"'
    return BatchFileBody(printing.batch_by_code(code, here)[1])
