"""The mix sheet, how its batches are measured, what is printed of it, and batches that were."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

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
from lumso.formats import batchfile
from lumso.store import batches, jobs
from lumso.store.batches import FrozenBatch
from lumso.store.errors import NotFound
from lumso.store.jobs import StoredJob

from .beside import Beside, aside
from .context import Context
from .jobs import at_head, read

MOST_MEASURED = 500
"""How many answers of the kit search are remembered."""

Paper = Literal["a4", "letter"]


@dataclass(frozen=True)
class OnSheet:
    """A job, others (by id) that go on the same sheet, and what to try."""

    job: Job
    with_jobs: tuple[str, ...] = ()
    what_if: WhatIf | None = None


def sheet_of(asked: OnSheet, here: Context) -> MixSheet:
    """Every batch of the jobs, in order. Raises NotFound, UnfitDocument."""
    every = [asked.job, *(at_head(i, here) for i in asked.with_jobs)]
    return mix_sheet(every, here.workshop(), here.catalogue, here.room(), asked.what_if, here.memo)


async def measured(mixes: Sequence[Mix], kit: Kit, here: Context, beside: Beside) -> list[KitAnswer]:
    """How to measure mixes with a kit, in the order they are given: remembered, or looked for beside all else."""
    asked = [needs_of(mix) for mix in mixes]
    known = {needs: here.measured.get((needs, kit)) for needs in asked}
    if fresh := [needs for needs, answer in known.items() if answer is None]:
        found = await beside(measure_all, fresh, kit)
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
    """A kit, or the one in use. Raises UnknownEntry."""
    return pick("kit", here.known().kits, kit or here.workshop().kit)


async def measure_batch(asked: OnSheet, batch: str, kit: str | None, here: Context, beside: Beside) -> KitAnswer:
    """How to measure a planned batch with a kit, the one in use for None: the trade-offs, least waste first."""

    def planned() -> tuple[Mix, Kit]:
        sheet = sheet_of(asked, here)
        return pick("batch", {b.id: b for b in sheet.batches}, batch).mix, in_use(here, kit)

    mix, chosen = await aside(planned)
    return (await measured([mix], chosen, here, beside))[0]


@dataclass(frozen=True)
class Printing:
    """What to print of a saved job, on which paper, with which other jobs."""

    what: Literal["cards", "labels", "steps"]
    paper: Paper
    with_jobs: tuple[str, ...]
    step_down: bool


async def printed(job_id: str, asked: Printing, reached: str, here: Context, beside: Beside) -> tuple[bytes, str]:
    """A PDF of the saved job, and what it is called. Cards and labels freeze its batches, each with a code, at the
    address `reached`. Raises InvalidValue where there is nothing to mix."""

    def saved() -> tuple[StoredJob, Job]:
        stored = jobs.get(here.db, job_id)
        return stored, read(stored, here)

    stored, job = await aside(saved)
    against = await aside(_against, job, asked.with_jobs, here)
    if asked.what == "steps":
        steps = await aside(lambda: steps_of(here.work(job), here.room()))
        return await beside(pdf_of, "steps", job.name, steps, asked.paper, against), f"{job.name} steps"
    sheet = await aside(_to_print, job, asked, here)
    kit = in_use(here)
    answers = await measured([b.mix for b in sheet.batches], kit, here, beside)
    files = [
        BatchFile("lumso-batch", 4, job.name, kit.name, batch, answer, sheet.not_measured)
        for batch, answer in zip(sheet.batches, answers, strict=True)
    ]
    frozen = await aside(_frozen, stored, files, here)
    coded = [(f.code, f"{reached}/b/{f.code}", file) for f, file in zip(frozen, files, strict=True)]
    return await beside(pdf_of, asked.what, job.name, coded, asked.paper, against), f"{job.name} {asked.what}"


def _against(job: Job, with_jobs: Sequence[str], here: Context) -> dict[str, str]:
    """What speaks against each of the jobs that are printed, by their names."""
    return {one.name: here.plan(one).standing.says for one in (job, *(at_head(i, here) for i in with_jobs))}


def _to_print(job: Job, asked: Printing, here: Context) -> MixSheet:
    """The sheet of a job as it is printed; refused where there is nothing on it."""
    sheet = sheet_of(OnSheet(job, asked.with_jobs, WhatIf(step_down=True) if asked.step_down else None), here)
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


def pdf_of(what: str, name: str, content: Any, paper: Paper, against: Mapping[str, str] = {}) -> bytes:
    """What is printed, as PDF: cards and labels of coded batches, a job's steps, or the days; with what speaks
    `against` the jobs, by their names."""
    from lumso.formats import pdf  # the layout engine takes a while to load, and few sheets are printed

    if what == "steps":
        return pdf.bench_sheet(name, content, paper, against.get(name, ""))
    if what == "days":
        return pdf.day_sheet(content, paper)
    return pdf.cards(content, paper, against) if what == "cards" else pdf.labels(content, paper)


def batch_by_code(code: str, here: Context) -> tuple[FrozenBatch, BatchFile]:
    """A frozen batch by its code, however it is written. Raises NotFound, UnfitDocument."""
    found = batches.by_code(here.db, code)
    return found, batchfile.from_json(found.document, f"Batch {found.code}")


def frozen_as(code: str, here: Context) -> BatchFile | None:
    """The batch a pot was begun as, as it was frozen; None where it is not there any more."""
    try:
        return batch_by_code(code, here)[1]
    except NotFound:
        return None
