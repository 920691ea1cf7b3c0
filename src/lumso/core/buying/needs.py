"""What a job still takes, from its order of work: materials by colour, and things that are used up."""

from collections.abc import Callable, Collection, Iterator, Mapping
from dataclasses import dataclass
from math import ceil, sqrt

from ..book.catalogue import Catalogue
from ..book.things import CLOGS, Thing, Wants
from ..layers import cautions
from ..mixing.mix import Mix
from ..mixing.totals import lots_of
from ..work.operations import Operation
from ..work.work import Work
from .lots import LotUse, use_of
from .promises import LotNeed

WET: tuple[Wants, ...] = ("mix", "lay", "wipe back", "part-dry", "clean")
FINE_DUST = {cautions.OLD_DUST, cautions.LEAD_FOUND, cautions.SILICA}
"""Cautions that ask for the finer filter."""


@dataclass(frozen=True)
class Asked:
    """A job whose needs are asked for: `done` are operations nothing is needed for any more, `at` says the minute an
    operation is planned for."""

    key: str
    name: str
    work: Work
    done: Collection[str]
    at: Callable[[str, float], float]


def uses_of_mix(mix: Mix, at_min: float, by: str) -> Iterator[tuple[str, LotUse]]:
    """What a mix is poured from, water aside, each with its name."""
    for part in mix.parts:
        if part.role == "water":
            continue
        for colour, hex_, ml, g in lots_of(part):
            yield part.name, use_of(at_min, part.material, part.role, colour, hex_, ml, g, by)


def _materials(asked: Asked) -> Iterator[LotNeed]:
    for batch in asked.work.batches:
        if f"{batch.id}:mix" in asked.done:
            continue
        at_min = asked.at(f"{batch.id}:mix", batch.mix_at_h * 60)
        where = ", ".join(dict.fromkeys(u.zone_name.lower() for u in batch.uses))
        for n, (name, use) in enumerate(uses_of_mix(batch.mix, at_min, asked.key)):
            number = f", batch {batch.number} of {batch.of}" if batch.of > 1 else ""
            says = f"{name} for {batch.name.lower()} on {where}{number}"
            yield LotNeed(f"{asked.key}|{batch.id}|{n}", use, asked.name, says, "material", bool(use.hex))


def _edge_m(area_m2: float) -> float:
    """The edge of a square as large as an area."""
    return 4 * sqrt(area_m2)


def _found(thing: Thing, one: Operation) -> bool:
    """Whether an operation's tools name a thing: by itself, or among several grits, "P80, P120 and P180 paper"."""
    for tool in one.tools:
        words = tool.replace(" and ", ", ").removesuffix(" paper").split(", ") if tool.endswith(" paper") else []
        named = {tool, *tool.split(", "), *(f"{w} paper" for w in words)}
        if named.intersection(thing.found_by):
            return True
    return False


def _wants(one: Operation, care: Collection[str]) -> set[Wants]:
    """What an operation asks to be worn for it."""
    found: set[Wants] = {kind for kind in WET if kind == one.kind}
    if one.makes_dust and cautions.ASBESTOS not in care:
        found.add("lead dust" if FINE_DUST.intersection(care) else "dust")
    if cautions.VAPOUR in care:
        found.add("solvent")
    return found


def _sessions(work: Work) -> list[list[Operation]]:
    """The operations of each time the bench is laid out."""
    found: list[list[Operation]] = []
    for one in work.operations:
        if one.kind == "lay out" or not found:
            found.append([])
        if one.kind not in ("lay out", "clear away"):
            found[-1].append(one)
    return found


def counted(work: Work, done: Collection[str], things: Mapping[str, Thing]) -> list[tuple[Thing, float, str]]:
    """How much of each thing is used up by what is not done, and from which operation on it is wanted.

    A thing that lasts comes as the share of it that is worn.
    """
    cares = {o.id: o.take_care for b in work.made.blocks for o in (*b.early, *b.operations)}
    open_ = [o for o in work.operations if o.id not in done]
    found = []
    for thing in things.values():
        amount, first = 0.0, ""
        if thing.per == "session":
            for session in _sessions(work):
                mine = [o for o in session if o.id not in done
                        and _wants(o, cares.get(o.id, ())).intersection(thing.kinds)]  # fmt: skip
                if mine:
                    amount, first = amount + thing.amount, first or mine[0].id
        elif thing.per == "kept":
            kept = [b for b in work.batches if b.kept_for and f"{b.id}:mix" not in done]
            amount, first = thing.amount * len(kept), f"{kept[0].id}:mix" if kept else ""
        else:
            mine = [o for o in open_ if _found(thing, o)
                    or _wants(o, cares.get(o.id, ())).intersection(thing.kinds)]  # fmt: skip
            if thing.per == "clean":
                mine = [o for o in mine if o.kind == "clean"]
            first = mine[0].id if mine else ""
            amount = sum(_each(thing, o) for o in mine) if thing.per != "job" else thing.amount * bool(mine)
        if amount > 0:
            found.append((thing, amount * thing.worn, first))
    return found


def _each(thing: Thing, one: Operation) -> float:
    """What one operation uses up of a thing."""
    if thing.per == "m2":
        return thing.amount * one.area_m2 * (CLOGS.get(one.kind, 1.0) if thing.aisle == "abrasives" else 1.0)
    if thing.per == "edge":
        return thing.amount * (one.tape_m or _edge_m(one.area_m2))
    return thing.amount


def needs_of(asked: Asked, catalogue: Catalogue) -> tuple[list[LotNeed], list[str]]:
    """All that a job still takes, at the risk its margins were chosen for: an estimate, as its amounts are. And the
    names of what lasts: nobody buys it for a job, but it must be there."""
    starts = {o.id: o.at_min for o in asked.work.operations}
    needs, ready = list(_materials(asked)), []
    for thing, amount, first in counted(asked.work, asked.done, catalogue.things):
        if thing.lasts:
            ready.append(thing.name)
            continue
        at_min = asked.at(first, starts.get(first, 0.0))
        use = LotUse(at_min, thing.slug, count=float(ceil(amount - 1e-9)), by=asked.key)
        needs.append(LotNeed(f"{asked.key}|{thing.slug}", use, asked.name, thing.name, "thing"))
    return needs, ready
