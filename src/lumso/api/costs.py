"""What a piece costs, and what each finish would."""

from collections.abc import Collection, Sequence
from dataclasses import replace
from itertools import count
from math import ceil
from typing import Annotated

from fastapi import APIRouter, Query, Request
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from lumso.core.advice import trial, with_finish
from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.buying.cost import Basis, Cost, Part, cost_of
from lumso.core.buying.lots import Lot, Use, drawn
from lumso.core.buying.money import said
from lumso.core.buying.needs import counted, uses_of_mix
from lumso.core.buying.purse import Purse
from lumso.core.errors import LumsoError
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room
from lumso.core.log.event import Event
from lumso.core.work.work import Work, work
from lumso.core.workshop.workshop import Workshop
from lumso.formats import jobfile
from lumso.store import events, jobs

from .buying import mixed, with_shelf_packs
from .context import Context, Here
from .lots import poured_since, poured_uses
from .noting import event_of
from .workers import run

router = APIRouter(tags=["costs"])

DAY_MIN = 24 * 60


def planned_parts(made: Work, job: str, begun: Collection[str]) -> list[Part]:
    """What the batches that are not begun are poured from, as planned; the same item and colour once."""
    open_ = [b for b in made.batches if f"{b.id}:mix" not in begun]
    return _joined([(name, use) for b in open_ for name, use in uses_of_mix(b.mix, b.mix_at_h * 60, job)])


def _joined(uses: Sequence[tuple[str, Use]]) -> list[Part]:
    by: dict[tuple[str, str, str], tuple[str, Use]] = {}
    for name, use in uses:
        key = (use.item, use.colour, use.hex)
        had = by.get(key)
        ml, g = (had[1].ml, had[1].g) if had else (0.0, 0.0)
        by[key] = (name, use.alike(use.ml + ml, use.g + g, 0.0))
    return [Part("materials", u.item, n + (f", {u.colour}" if u.colour else ""), u) for n, u in by.values()]


def thing_parts(made: Work, job: str, catalogue: Catalogue) -> list[Part]:
    """The things a whole job uses up, and the wear of what lasts."""
    return [
        Part("wear" if thing.lasts else "things", thing.slug, thing.name, Use(0.0, thing.slug, count=amount, by=job))
        for thing, amount, _ in counted(made, (), catalogue.things)
    ]


def logged_parts(of: Sequence[Event], job: str, lots: Sequence[Lot], every: Sequence[Use],
                 names: Catalogue) -> list[Part]:  # fmt: skip
    """What was really poured, with what it was drawn from; paints of two tins apart by what was paid."""
    _, taken = drawn(lots, every)
    mine: dict[tuple[str, str, str], list[Use]] = {}
    for use in poured_uses(of):
        if use.item in names.materials and names.materials[use.item].role != "water":
            mine.setdefault((use.item, use.colour, use.hex), []).append(use)
    found = []
    for (item, colour, _), uses in mine.items():
        whole_g = sum(u.g for u in uses)
        shares = []
        for one in taken:
            use = every[one.use]
            if use.by == job and use in uses and whole_g > 0:
                shares.append(replace(one, share=one.share * use.g / whole_g))
        whole = uses[0].alike(sum(u.ml for u in uses), whole_g, 0.0)
        name = names.materials[item].name + (f", {colour}" if colour else "")
        found.append(Part("materials", item, name, whole, tuple(shares)))
    return found


def cost_of_work(made: Work, job: str, purse: Purse, lots: Sequence[Lot], catalogue: Catalogue,
                 poured: Sequence[Part] = (), begun: Collection[str] = ()) -> Cost:  # fmt: skip
    """What a job comes to: what was poured for the batches that were begun, and the rest as it is planned."""
    planned = planned_parts(made, job, begun if poured else ())
    basis: Basis = "planned" if not poured else "poured so far" if planned else "poured"
    parts = [*poured, *planned, *thing_parts(made, job, catalogue)]
    return cost_of(parts, lots, purse, made.hands_on_min, job, basis)


def _cost(job_id: str, here: Context) -> Cost:
    job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
    of = [event_of(e) for e in events.of_jobs(here.db, [job_id])]
    purse, lots, book = with_shelf_packs(here.purse()[0], here), here.lots(), here.known()
    poured = logged_parts(of, job_id, lots, poured_since(here, lots), book)
    return cost_of_work(here.work(job), job_id, purse, lots, book, poured, mixed(of, job_id))


@router.get("/jobs/{job_id}/cost")
def get_cost(job_id: str, here: Here) -> Cost:
    """What a job costs: each line with its working, and together the least it can be sold for."""
    return _cost(job_id, here)


class FinishCost(BaseModel):
    """A finish on a zone: what it would cost, and how long it takes. All of it is an estimate."""

    slug: str
    name: str
    money: str
    minor: int | None
    """None where the price of nothing in it is known."""
    unpriced: list[str]
    hours: float
    days: int
    now: bool
    """Whether it is what the zone has now, not a finish of the library."""


def compare(job: Job, at: int, purse: Purse, workshop: Workshop, catalogue: Catalogue, room: Room) -> list[FinishCost]:
    """The zone as it is, and with each finish that its ground takes: money, hours and days side by side."""
    zone = job.zones[at]
    found = [_compared("", "As it is now", replace(job, zones=(zone,)), purse, workshop, catalogue, room, True)]
    for finish in catalogue.finishes.values():
        if zone.ground not in finish.grounds:
            continue
        try:
            bench = trial(job, at, catalogue, room)
            made, _ = with_finish(replace(zone, layers=(), prep=()), finish, bench, (f"layer-{n}" for n in count(1)))
            one = replace(job, zones=(made,))
            found.append(_compared(finish.slug, finish.name, one, purse, workshop, catalogue, room, False))
        except LumsoError:
            continue
    return found


def _compared(slug: str, name: str, job: Job, purse: Purse, workshop: Workshop, catalogue: Catalogue, room: Room,
              now: bool) -> FinishCost:  # fmt: skip
    made = work(job, workshop, catalogue, room)
    cost = cost_of_work(made, "", purse, (), catalogue)
    priced = any(line.minor is not None for line in cost.lines)
    return FinishCost(
        slug=slug, name=name, money=said(cost.floor_minor if priced else None, purse.currency),
        minor=cost.floor_minor if priced else None, unpriced=list(cost.unpriced), hours=cost.hours,
        days=max(1, ceil(made.elapsed_min / DAY_MIN)), now=now,
    )  # fmt: skip


@router.get("/jobs/{job_id}/cost/finishes")
async def get_finish_costs(job_id: str, request: Request, here: Here,
                           zone: Annotated[str, Query(max_length=80)]) -> list[FinishCost]:  # fmt: skip
    """What each finish that a zone's ground takes would cost on it, in money, hours and days."""

    def asked() -> tuple[Job, int, Purse, Workshop, Catalogue, Room]:
        job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
        pick("zone", {z.id: z for z in job.zones}, zone)
        at = next(n for n, z in enumerate(job.zones) if z.id == zone)
        return job, at, with_shelf_packs(here.purse()[0], here), here.workshop(), here.catalogue, here.room()

    return await run(request, compare, *await run_in_threadpool(asked))
