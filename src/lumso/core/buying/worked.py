"""The cost of a job that is worked out, and of its zones with other finishes."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from itertools import count
from math import ceil

from ..advice import trial, with_finish
from ..book.catalogue import Catalogue
from ..errors import LumsoError
from ..job.job import Job
from ..layers.conditions import Room
from ..log.event import Event
from ..value import Value
from ..work.effort import DAY_MIN
from ..work.work import Work, work
from ..workshop.workshop import Workshop
from .cost import Basis, Cost, Part, cost_of
from .lots import Lot, LotUse, drawn
from .money import said
from .needs import counted, uses_of_mix
from .poured import poured_uses
from .purse import Purse


def _named(name: str, use: LotUse) -> str:
    return name + (f", {use.colour}" if use.colour else "")


def wasted(made: Work, job: str) -> dict[tuple[str, str, str], float]:
    """The share of each item and colour that stays in pots and tools, as planned."""
    whole: dict[tuple[str, str, str], float] = {}
    lost: dict[tuple[str, str, str], float] = {}
    for brew in made.made.brews:
        share = brew.amounts.lost_ml / brew.amounts.mixed_ml if brew.amounts.mixed_ml > 0 else 0.0
        for _, use in uses_of_mix(brew.mix, 0.0, job):
            whole[use.what] = whole.get(use.what, 0.0) + use.ml
            lost[use.what] = lost.get(use.what, 0.0) + use.ml * share
    return {what: lost[what] / ml for what, ml in whole.items() if ml > 0}


def planned_parts(made: Work, job: str, begun: Collection[str]) -> list[Part]:
    """What the batches that are not begun are poured from, as planned; the same item and colour once."""
    by: dict[tuple[str, str, str], tuple[str, LotUse]] = {}
    for batch in made.batches:
        if f"{batch.id}:mix" in begun:
            continue
        for name, use in uses_of_mix(batch.mix, batch.mix_at_h * 60, job):
            had = by.get(use.what)
            ml, g = (had[1].ml, had[1].g) if had else (0.0, 0.0)
            by[use.what] = (name, use.alike(use.ml + ml, use.g + g, 0.0))
    return [Part("materials", use.item, _named(name, use), use) for name, use in by.values()]


def logged_parts(of: Sequence[Event], job: str, lots: Sequence[Lot], every: Sequence[LotUse],
                 catalogue: Catalogue) -> list[Part]:  # fmt: skip
    """What was really poured for a job, the same item and colour once, with the lots it came from.

    `every` is all that was poured, for whatever job, since the first of the lots was counted.
    """
    _, taken = drawn(lots, every)
    mine: dict[tuple[str, str, str], list[LotUse]] = {}
    for use in poured_uses(of):
        material = catalogue.materials.get(use.item)
        if material is not None and material.role != "water":
            mine.setdefault(use.what, []).append(use)
    found = []
    for what, uses in mine.items():
        whole_g = sum(u.g for u in uses)
        whole = uses[0].alike(sum(u.ml for u in uses), whole_g, 0.0)
        came = [(t, every[t.use]) for t in taken if every[t.use].by == job and every[t.use].what == what]
        shares = tuple(replace(t, share=t.share * use.g / whole_g) for t, use in came if whole_g > 0)
        found.append(Part("materials", what[0], _named(catalogue.materials[what[0]].name, whole), whole, shares))
    return found


def thing_parts(made: Work, job: str, catalogue: Catalogue) -> list[Part]:
    """The things a whole job uses up, and the wear of what lasts."""
    return [
        Part("wear" if thing.lasts else "things", thing.slug, thing.name, LotUse(0.0, thing.slug, count=amount, by=job))
        for thing, amount, _ in counted(made, (), catalogue.things)
    ]


def cost_of_work(made: Work, job: str, purse: Purse, lots: Sequence[Lot], catalogue: Catalogue,
                 poured: Sequence[Part] = (), begun: Collection[str] = ()) -> Cost:  # fmt: skip
    """What a job comes to: what was poured for the batches that were begun, and the rest as it is planned."""
    planned = planned_parts(made, job, begun if poured else ())
    basis: Basis = "planned" if not poured else "poured so far" if planned else "poured"
    lost = wasted(made, job)
    mixed = [replace(p, wasted=lost.get(p.use.what, 0.0)) for p in (*poured, *planned)]
    parts = [*mixed, *thing_parts(made, job, catalogue)]
    return cost_of(parts, lots, purse, made.hands_on_min, job, basis)


@dataclass(frozen=True)
class FinishCost(Value):
    """A finish on a zone: what it would cost, and how long it takes. All of it is an estimate."""

    slug: str
    name: str
    money: str
    minor: int | None
    """None where the price of nothing in it is known."""
    unpriced: tuple[str, ...]
    hours: float
    days: int
    now: bool
    """Whether it is what the zone has now, not a finish of the library."""


def finish_costs(job: Job, at: int, purse: Purse, workshop: Workshop, catalogue: Catalogue,
                 room: Room) -> list[FinishCost]:  # fmt: skip
    """A zone as it is, and with each finish that its ground takes: money, hours and days side by side."""

    def one(slug: str, name: str, tried: Job) -> FinishCost:
        made = work(tried, workshop, catalogue, room)
        cost = cost_of_work(made, "", purse, (), catalogue)
        minor = cost.floor_minor if any(line.minor is not None for line in cost.lines) else None
        days = max(1, ceil(made.elapsed_min / DAY_MIN))
        return FinishCost(slug, name, said(minor, purse.currency), minor, cost.unpriced, cost.hours, days, not slug)

    zone = job.zones[at]
    bare = replace(zone, layers=(), prep=())
    found = [one("", "As it is now", replace(job, zones=(zone,)))]
    for finish in catalogue.finishes.values():
        if zone.ground not in finish.grounds:
            continue
        try:
            ids = (f"layer-{n}" for n in count(1))
            made, _ = with_finish(bare, finish, trial(job, at, catalogue, room), ids)
            found.append(one(finish.slug, finish.name, replace(job, zones=(made,))))
        except LumsoError:
            continue
    return found
