"""What a piece costs, and what each finish would."""

from typing import Annotated

from fastapi import APIRouter, Query, Request
from fastapi.concurrency import run_in_threadpool

from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.buying.cost import Cost
from lumso.core.buying.poured import mixed
from lumso.core.buying.purse import Purse
from lumso.core.buying.worked import FinishCost, cost_of_work, finish_costs, logged_parts
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room
from lumso.core.workshop.workshop import Workshop
from lumso.formats import jobfile
from lumso.store import events, jobs

from .buying import purse_of
from .context import Here
from .lots import poured_since
from .noting import event_of
from .workers import run

router = APIRouter(tags=["costs"])


@router.get("/jobs/{job_id}/cost")
def get_cost(job_id: str, here: Here) -> Cost:
    """What a job costs: each line with its working, and together the least it can be sold for."""
    job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
    of = [event_of(e) for e in events.of_jobs(here.db, [job_id])]
    lots, book = here.lots(), here.known()
    poured = logged_parts(of, job_id, lots, poured_since(here, lots), book)
    return cost_of_work(here.work(job), job_id, purse_of(here), lots, book, poured, mixed(of, job_id))


@router.get("/jobs/{job_id}/cost/finishes")
async def get_finish_costs(job_id: str, request: Request, here: Here,
                           zone: Annotated[str, Query(max_length=80)]) -> list[FinishCost]:  # fmt: skip
    """What each finish that a zone's ground takes would cost on it, in money, hours and days."""

    def asked() -> tuple[Job, int, Purse, Workshop, Catalogue, Room]:
        job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
        meant = pick("zone", {z.id: z for z in job.zones}, zone)
        return job, job.zones.index(meant), purse_of(here), here.workshop(), here.catalogue, here.room()

    return await run(request, finish_costs, *await run_in_threadpool(asked))
