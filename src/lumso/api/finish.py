"""The finish: library, remedies, advisers and steps. Everything here computes and keeps nothing."""

from fastapi import APIRouter
from pydantic import BaseModel

from lumso.core.advice import Advice
from lumso.core.advice.library import Shelved
from lumso.services import zones

from .bodies import JobBody, ProcedureBody
from .context import Here
from .zones import ZoneIn

router = APIRouter(prefix="/finish", tags=["finish"])


class EffortOut(BaseModel):
    """About what a finish takes: hours of work on a m², and days from first to last step. An estimate."""

    hours: float
    days: int


@router.get("/efforts")
def efforts(here: Here) -> dict[str, EffortOut]:
    """What each finish of the library takes, on the first ground it is for."""
    return {slug: EffortOut(hours=x.hours, days=x.days) for slug, x in zones.efforts(here).items()}


@router.post("/advice")
def ask(asked: ZoneIn, here: Here) -> Advice:
    """What the advisers say: preparation, sealers, grits, sag, coats."""
    return zones.advice_on(asked.job.root, asked.zone, here)


@router.post("/library")
def library(asked: ZoneIn, here: Here) -> list[Shelved]:
    """The finishes of the library for a zone, those that suit it first, with why the others do not."""
    return zones.finishes_for(asked.job.root, asked.zone, here)


@router.post("/steps")
def steps(job: JobBody, here: Here) -> ProcedureBody:
    """The whole job as ordered steps, with the kit to lay out first."""
    return ProcedureBody(zones.steps(job.root, here))
