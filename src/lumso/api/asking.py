"""Questions without a job: what can be done with what is left, and what the advisers say from a few answers."""

from contextlib import suppress
from dataclasses import replace
from itertools import count
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.advice import Advice, advise, trial
from lumso.core.edits.beginning import Beginning, begun
from lumso.core.errors import LumsoError
from lumso.core.job.job import Job, Place, Touch, Use
from lumso.core.plan.left import LeftOver, left_over
from lumso.core.plan.plan import Plan
from lumso.formats import jobfile
from lumso.services.context import Context
from lumso.store import jobs

from .context import Here

router = APIRouter(prefix="/ask", tags=["asking"])

MOST_JOBS = 60
"""So many open jobs, the last worked on first, are asked what they could use."""


class LeftIn(BaseModel):
    """An amount of a mix that is left."""

    model_config = ConfigDict(extra="forbid")
    recipe: Annotated[str, Field(max_length=80)]
    ml: Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)]


class AskIn(BaseModel):
    """What is on it now, what goes on, and what it must stand."""

    model_config = ConfigDict(extra="forbid")
    ground: Annotated[str, Field(max_length=80)] = ""
    finish: Annotated[str, Field(max_length=80)] = ""
    recipe: Annotated[str, Field(max_length=80)] = ""
    touched_by: Annotated[list[Touch], Field(max_length=8)] = []
    place: Annotated[list[Place], Field(max_length=9)] = []
    form: Annotated[str, Field(max_length=80)] = "side-table"
    """The piece that is thought of; its first zone is asked about."""


def _open_jobs(here: Context) -> list[tuple[str, Job, Plan]]:
    """Open jobs with their plans; those that cannot be worked out are left out."""
    found = []
    for listed in jobs.page(here.db, MOST_JOBS, None, "", False).jobs:
        with suppress(LumsoError):
            job = jobfile.from_json(jobs.get(here.db, listed.id).document, listed.name)
            found.append((listed.id, job, here.plan(job)))
    return found


@router.post("/left")
def what_is_left(asked: LeftIn, here: Here) -> LeftOver:
    """How far it goes, what it covers of open jobs, and what it can be thinned to. Keeps nothing."""
    return left_over(asked.recipe, asked.ml, _open_jobs(here), here.workshop(), here.catalogue, here.room())


@router.post("/advice")
def ask_without_a_job(asked: AskIn, here: Here) -> Advice:
    """What the advisers say of a piece of that kind. Keeps nothing."""
    book, room = here.known(), here.room()
    told = Beginning("asked", asked.form, (), asked.ground, finish=asked.finish, recipe=asked.recipe)
    job = begun(told, book, room).job
    job = replace(job, use=Use(touched_by=tuple(asked.touched_by), place=tuple(asked.place)))
    return advise(job.zones[0], trial(job, 0, book, room), (f"tried-{n}" for n in count()))
