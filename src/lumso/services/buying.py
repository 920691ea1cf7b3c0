"""Buying: what the chosen jobs take, what stands in the workshop for it, what to buy in which packs, and what a piece
costs."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from pydantic import BaseModel

from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.book.things import Aisle
from lumso.core.buying.cost import Cost
from lumso.core.buying.covering import basket_at_once
from lumso.core.buying.jars import BatchWanted, JarLeft, from_jars, takes_of
from lumso.core.buying.lots import Lot, Unit, drawn
from lumso.core.buying.money import exponent, said
from lumso.core.buying.needs import Asked, needs_of
from lumso.core.buying.packs import Basket, Shop
from lumso.core.buying.poured import mixed, shelf_lots
from lumso.core.buying.promises import Promise, Reserved, reserve
from lumso.core.buying.purse import Purse, checked, with_shelf_packs
from lumso.core.buying.shopping import AISLE_OF, ShoppingList, Sought, grouped, listed, shop_of, times
from lumso.core.buying.worked import FinishCost, cost_of_work, finish_costs, logged_parts
from lumso.core.days.days import Days
from lumso.core.days.settle import settle
from lumso.core.days.view import days_of
from lumso.core.days.words import on_day
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room
from lumso.core.log.event import Event
from lumso.core.log.jars import wanted_for
from lumso.core.workshop.workshop import Workshop
from lumso.formats import shopping
from lumso.formats.reading import UnfitDocument
from lumso.store import jobs
from lumso.store.errors import NotFound

from .beside import Beside, aside
from .context import Context
from .days import ask_of
from .jobs import at_head, read
from .log import jar_of, pots_kept
from .lots import poured_since
from .noting import of_jobs
from .printing import Paper

MOST_JOBS = 40


class LotOut(BaseModel):
    """What was bought, and what is left of it now by what was poured since it was counted."""

    lot: Lot
    revision: int
    left_now: float
    free: float
    """What is not promised."""
    paid: str


@dataclass(frozen=True)
class JobHeld:
    """A job that is open, and what was noted of it."""

    id: str
    job: Job
    events: tuple[Event, ...]

    @property
    def done(self) -> frozenset[str]:
        """The operations nothing is needed for any more."""
        return mixed(self.events, self.id)


def held(here: Context, job_id: str) -> JobHeld | None:
    """A job with what was noted of it; None where it is put away, gone or cannot be read."""
    try:
        stored = jobs.get(here.db, job_id)
        job = None if stored.put_away else read(stored, here)
    except (NotFound, UnfitDocument):
        return None
    if job is None:
        return None
    return JobHeld(job_id, job, tuple(of_jobs(here, job_id)))


class BuyingJob(BaseModel):
    """A job that may be bought for. `chosen` where it is."""

    id: str
    name: str
    chosen: bool


def _open_jobs(here: Context) -> list[tuple[str, str]]:
    return [(j.id, j.name) for j in jobs.page(here.db, MOST_JOBS).jobs]


def _chosen(here: Context, purse: Purse) -> list[str]:
    """The jobs that are bought for: those chosen, else those in the days, else all that are open."""
    known = [id_ for id_, _ in _open_jobs(here)]
    for chosen in (purse.jobs, tuple(j.job for j in here.days_chosen()[0].jobs)):
        if found := [id_ for id_ in chosen if id_ in known]:
            return found
    return known


class PurseOut(BaseModel):
    """What was chosen for buying, and what there is to choose from."""

    purse: Purse
    jobs: list[BuyingJob]
    items: list["ItemOut"]
    """All that can be bought: materials and things."""
    exponent: int
    """How many decimals the currency has."""


class ItemOut(BaseModel):
    """Something that can be bought."""

    slug: str
    name: str
    kind: Literal["material", "thing"]
    unit: Unit
    aisle: Aisle


def purse_of(here: Context) -> Purse:
    """What was chosen for buying."""
    return with_shelf_packs(here.purse()[0], here.workshop().shelf)


def purse_now(here: Context) -> tuple[PurseOut, int]:
    """What was chosen for buying, what there is to choose from, and the revision of it."""
    purse = purse_of(here)
    chosen = set(_chosen(here, purse))
    book = here.known()
    items = [ItemOut(slug=m.slug, name=m.name, kind="material", unit="ml" if m.kind == "liquid" else "g",
                     aisle=AISLE_OF[m.role])
             for m in book.materials.values() if m.role != "water"]  # fmt: skip
    items += [ItemOut(slug=t.slug, name=t.name, kind="thing", unit=t.unit, aisle=t.aisle) for t in book.things.values()]
    made = PurseOut(
        purse=purse, jobs=[BuyingJob(id=i, name=n, chosen=i in chosen) for i, n in _open_jobs(here)],
        items=sorted(items, key=lambda i: i.name), exponent=exponent(purse.currency),
    )  # fmt: skip
    return made, here.purse()[1]


def choose(purse: Purse, read_at: int, key: str, here: Context) -> int:
    """Choose the currency, rates, prices, bundles and jobs to buy for; the revision of it. Raises InvalidValue,
    StaleRevision."""
    return here.choose_purse(checked(purse), read_at, key)


@dataclass(frozen=True)
class Bought:
    """All that the list is made of."""

    purse: Purse
    jobs: tuple[JobHeld, ...]
    own: tuple[Lot, ...]
    """What was bought, without what the shelf says beside it."""
    left: dict[str, float]
    reserved: Reserved
    jars: tuple[Promise, ...]
    shop: Sought
    ready: tuple[str, ...]


def _days(here: Context, now: float) -> Days | None:
    chosen, _ = here.days_chosen()
    if not chosen.jobs:
        return None
    ask, _ = ask_of(chosen, here, now)
    return days_of(settle(ask, memo=here.memo)) if ask.jobs else None


def _asked(one: JobHeld, here: Context, days: Days | None, now: float) -> Asked:
    at = {o.operation.id: o.begins_min for o in days.operations if o.job == one.id} if days else {}
    return Asked(one.id, one.job.name, here.work(one.job), one.done,
                 lambda operation, after: at.get(operation, now + max(after, 0.0)))  # fmt: skip


def _jars(asked: Sequence[Asked], here: Context, now: float) -> tuple[Promise, ...]:
    """The batches that jars on the shelf make."""
    wanted, batches = {}, []
    for job in asked:
        for brew in job.work.made.brews:
            if f"{brew.id}:mix" not in job.done:
                want = wanted_for(job.key, job.name, brew)
                wanted[f"{job.key}|{brew.id}"] = want
                at = job.at(f"{brew.id}:mix", 0.0)
                batches.append(BatchWanted(f"{job.key}|{brew.id}", job.key, job.name, want.says, at))
    jars = []
    for state, summary in pots_kept(here):
        jar = jar_of(state, summary, here, now)
        if jar.past or state.ml <= 0:
            continue
        jars.append(JarLeft(summary.pot, state.ml, jar.keeps_until_min, takes_of(state, wanted)))
    return from_jars(batches, jars)


def bought(here: Context) -> Bought:
    """All that the list is made of, packs aside: remembered until anything is written, or a minute goes by."""
    now = here.now_min()
    return here.memo.recall("bought", (here.db.stamp(), now), lambda: _bought(here, now))


def _bought(here: Context, now: float) -> Bought:
    purse, book = purse_of(here), here.known()
    open_jobs = [one for id_ in _chosen(here, purse) if (one := held(here, id_))]
    days = _days(here, now)
    asked = [_asked(one, here, days, now) for one in open_jobs]
    jars = _jars(asked, here, now)
    made = {p.need for p in jars}
    taken = [needs_of(job, book) for job in asked]
    needs = [n for mine, _ in taken for n in mine if n.id.rsplit("|", 1)[0] not in made]
    own = here.lots()
    lots = (*own, *shelf_lots(here.workshop().shelf, book.materials))
    left, _ = drawn(lots, poured_since(here, lots))
    zone = here.days_chosen()[0].table.zone
    reserved = reserve(needs, lots, left, lambda minute: on_day(minute, zone)[:10], purse.may_split)
    groups = grouped(needs, reserved, purse, book)
    ready = tuple(dict.fromkeys(name for _, names in taken for name in names))
    return Bought(purse, tuple(open_jobs), own, left, reserved, jars,
                  shop_of(groups, purse, reserved.free, lots), ready)  # fmt: skip


def search(shop: Shop) -> Basket:
    """The best basket."""
    from lumso.core.solver.packs import best_basket  # the engine takes a while to load

    return best_basket(shop)


def search_choices(shop: Shop) -> tuple[Basket, ...]:
    """The baskets that none beats."""
    from lumso.core.solver.packs import choices

    return choices(shop)


class ListOut(BaseModel):
    """The list, the lots there are, and the jobs it is for."""

    shopping: ShoppingList
    lots: list[LotOut]
    jobs: list[BuyingJob]
    made_min: float
    """When it was made, minutes since 1970 UTC."""


async def _list(here: Context, beside: Beside) -> tuple[ShoppingList, Bought]:
    known = await aside(bought, here)
    shop, kept = known.shop.shop, here.baskets
    basket = kept.get(shop) or await aside(basket_at_once, shop)
    if basket is None:  # the workers beside the server, never those that search for days: they may be at it for long
        basket = await beside(search, shop)
    kept.clear()
    kept[shop] = basket
    return listed(known.shop, basket, known.reserved, known.purse, known.ready, known.jars), known


async def shopping_list(here: Context, beside: Beside) -> ListOut:
    """What to buy for the chosen jobs, in the cheapest packs, aisle by aisle; and what was bought."""
    made, known = await _list(here, beside)
    currency = known.purse.currency
    lots = [
        LotOut(lot=lot, revision=here.revision("lot", lot.slug), left_now=known.left[lot.slug],
               free=known.reserved.free[lot.slug], paid=said(lot.paid_minor, lot.currency or currency))
        for lot in known.own
    ]  # fmt: skip
    chosen = [BuyingJob(id=j.id, name=j.job.name, chosen=True) for j in known.jobs]
    return ListOut(shopping=made, lots=lots, jobs=chosen, made_min=here.now_min())


class ChoiceOut(BaseModel):
    """One way to cover a need: the packs in words, what that comes to, and what is over."""

    packs: str
    money: str
    over: str
    count: int


async def ways_to_cover(key: str, here: Context, beside: Beside) -> list[ChoiceOut]:
    """The ways to cover one line that none of the others beats in money, in what is over and in how many packs. Raises
    NotFound."""
    known = await aside(bought, here)
    shop = known.shop.shop
    group = next((g for g in known.shop.groups if g.key == key), None)
    if group is None:
        raise NotFound(f"There is no line {key!r} on the list.")
    mine = Shop(tuple(w for w in shop.wanted if w.key == key), tuple(o for o in shop.offers if o.of == key),
                shop.bundles)  # fmt: skip
    found = await beside(search_choices, mine)
    return [
        ChoiceOut(packs=shopping.packs_said([times(known.shop.sold[o][1], n) for o, n in b.packs.items()]),
                  money=said(b.money, known.purse.currency), count=b.count,
                  over=shopping.amount_said(shopping.left_over(mine, b), group.unit))
        for b in found
    ]  # fmt: skip


def list_pdf(made: ShoppingList, names: Sequence[str], paper: Paper) -> bytes:
    """The list as a PDF, for jobs of these names."""
    from lumso.formats import pdf  # the layout engine takes a while to load

    return pdf.shopping_sheet(made, names, paper)


async def list_file(kind: Literal["csv", "txt", "pdf"], paper: Paper, here: Context, beside: Beside) -> bytes | str:
    """The list to take along: as a spreadsheet, as plain text, or to print and tick."""
    made, known = await _list(here, beside)
    names = [j.job.name for j in known.jobs]
    if kind == "pdf":
        return await beside(list_pdf, made, names, paper)
    return shopping.to_csv(made) if kind == "csv" else shopping.to_text(made, names)


def cost_of(job_id: str, here: Context) -> Cost:
    """What a job costs: each line with its working, and together the least it can be sold for. Raises NotFound,
    UnfitDocument."""
    job, of = at_head(job_id, here), of_jobs(here, job_id)
    lots, book = here.lots(), here.known()
    poured = logged_parts(of, job_id, lots, poured_since(here, lots), book)
    return cost_of_work(here.work(job), job_id, purse_of(here), lots, book, poured, mixed(of, job_id))


async def costs_of_finishes(job_id: str, zone: str, here: Context, beside: Beside) -> list[FinishCost]:
    """What each finish that a zone's ground takes would cost on it, in money, hours and days. Raises NotFound,
    UnknownEntry."""

    def asked() -> tuple[Job, int, Purse, Workshop, Catalogue, Room]:
        job = at_head(job_id, here)
        meant = pick("zone", {z.id: z for z in job.zones}, zone)
        return job, job.zones.index(meant), purse_of(here), here.workshop(), here.catalogue, here.room()

    return await beside(finish_costs, *await aside(asked))
