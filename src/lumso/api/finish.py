"""The finish: library, ways out, advisers and steps. Everything here computes and keeps nothing."""

from collections.abc import Iterator
from functools import partial

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict

from lumso.core.advice import Advice, Mend, Trial, advise, mended, trial, with_finish
from lumso.core.book.catalogue import pick
from lumso.core.changes.change import Change, apply
from lumso.core.errors import InvalidValue
from lumso.core.job.job import Zone
from lumso.core.work.effort import effort
from lumso.core.work.steps import steps_of
from lumso.store.ids import new_id

from .bodies import JobBody, ProcedureBody, ZoneBody
from .context import Context, Here

router = APIRouter(prefix="/finish", tags=["finish"])


class ZoneIn(BaseModel):
    """A job, and the zone (by id) that is meant."""

    model_config = ConfigDict(extra="forbid")
    job: JobBody
    zone: str


class FinishIn(ZoneIn):
    """A finish of the library to put on the zone."""

    finish: str


class ChangesIn(ZoneIn):
    """Changes to the zone, as a finding's way out gives them."""

    changes: tuple[Change, ...]


class Mended(BaseModel):
    """The zone as it would be, and what was done to it and why."""

    zone: ZoneBody
    mends: tuple[Mend, ...]


def _ids() -> Iterator[str]:
    return iter(new_id, "")


def _zone(asked: ZoneIn, here: Context) -> tuple[Zone, Trial]:
    job = asked.job.root
    index = next((i for i, z in enumerate(job.zones) if z.id == asked.zone), None)
    if index is None:
        known = ", ".join(z.id for z in job.zones)
        raise InvalidValue(f"The job has no zone {asked.zone!r}.", value=asked.zone, allowed=known, field="zone")
    return job.zones[index], trial(job, index, here.known_for(job), here.room())


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


@router.post("/put")
def put_finish(asked: FinishIn, here: Here) -> Mended:
    """The zone with a finish of the library on it, prepared, primed and sealed as its ground and its use ask."""
    zone, bench = _zone(asked, here)
    made, mends = with_finish(zone, pick("finish", here.catalogue.finishes, asked.finish), bench, _ids())
    return Mended(zone=ZoneBody(made), mends=mends)


@router.post("/change")
def change_zone(asked: ChangesIn, here: Here) -> ZoneBody:
    """The zone with changes made to it: a way out taken."""
    zone, bench = _zone(asked, here)
    return ZoneBody(apply(zone, asked.changes, bench.catalogue, _ids()))


@router.post("/mend")
def mend_zone(asked: ZoneIn, here: Here) -> Mended:
    """The zone with the first way out taken of everything worse than a note that has one."""
    zone, bench = _zone(asked, here)
    made, mends = mended(zone, bench, _ids(), seal=False)
    return Mended(zone=ZoneBody(made), mends=mends)


@router.post("/advice")
def ask(asked: ZoneIn, here: Here) -> Advice:
    """What the advisers say: preparation, sealers, grits, sag, coats."""
    zone, bench = _zone(asked, here)
    return advise(zone, bench, _ids())


@router.post("/steps")
def steps(job: JobBody, here: Here) -> ProcedureBody:
    """The whole job as ordered steps, with the kit to lay out first."""
    return ProcedureBody(steps_of(here.work(job.root), here.room()))
