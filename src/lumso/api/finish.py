"""The finish: library, remedies, advisers and steps. Everything here computes and keeps nothing."""

from functools import partial
from itertools import count

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict

from lumso.core.advice import Advice, Trial, advise, trial
from lumso.core.advice.library import Shelved, shelved
from lumso.core.errors import InvalidValue
from lumso.core.job.areas import measure
from lumso.core.job.job import Zone
from lumso.core.job.laying import laying_of, with_shares
from lumso.core.work.effort import effort
from lumso.core.work.steps import steps_of
from lumso.services.context import Context

from .bodies import JobBody, ProcedureBody
from .context import Here

router = APIRouter(prefix="/finish", tags=["finish"])


class ZoneIn(BaseModel):
    """A job, and the zone (by id) that is meant."""

    model_config = ConfigDict(extra="forbid")
    job: JobBody
    zone: str


def zone_of(asked: ZoneIn, here: Context) -> tuple[Zone, Trial]:
    """The zone that is meant, and where it is tried out. Raises InvalidValue."""
    job = asked.job.root
    index = next((i for i, z in enumerate(job.zones) if z.id == asked.zone), None)
    if index is None:
        known = ", ".join(z.id for z in job.zones)
        raise InvalidValue(f"The job has no zone {asked.zone!r}.", value=asked.zone, allowed=known, field="zone")
    job = with_shares(job, laying_of(job, measure(job)))
    return job.zones[index], trial(job, index, here.known_for(job), here.room())


def layer_at(zone: Zone, layer: str, field: str) -> int:
    """The position of the layer that is meant. Raises InvalidValue."""
    ids = [x.id for x in zone.layers]
    if layer not in ids:
        raise InvalidValue(f"There is no layer {layer!r}.", value=layer, allowed=", ".join(ids) or "none", field=field)
    return ids.index(layer)


class EffortOut(BaseModel):
    """About what a finish takes: hours of work on a m², and days from first to last step. An estimate."""

    hours: float
    days: int


@router.get("/efforts")
def efforts(here: Here) -> dict[str, EffortOut]:
    """What each finish of the library takes, on the first ground it is for."""
    every = here.catalogue.finishes.items()
    found = {
        slug: here.memo.recall(("effort", slug), (finish, here.catalogue), partial(effort, finish, here.catalogue))
        for slug, finish in every
    }
    return {slug: EffortOut(hours=x.hours, days=x.days) for slug, x in found.items()}


@router.post("/advice")
def ask(asked: ZoneIn, here: Here) -> Advice:
    """What the advisers say: preparation, sealers, grits, sag, coats."""
    zone, bench = zone_of(asked, here)
    return advise(zone, bench, (f"tried-{n}" for n in count()))


@router.post("/library")
def library(asked: ZoneIn, here: Here) -> list[Shelved]:
    """The finishes of the library for a zone, those that suit it first, with why the others do not."""
    zone, bench = zone_of(asked, here)
    return list(shelved(zone, bench.use, bench.catalogue))


@router.post("/steps")
def steps(job: JobBody, here: Here) -> ProcedureBody:
    """The whole job as ordered steps, with the kit to lay out first."""
    return ProcedureBody(steps_of(here.work(job.root), here.room()))
