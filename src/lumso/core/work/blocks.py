"""The operations of all zones and pots put together: what is done in one go, and what holds between."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import partial
from itertools import pairwise
from typing import Literal, Protocol

from ..book.catalogue import Catalogue
from ..book.habits import Habits
from ..figure import lasts, listed
from ..job.job import Job
from ..layers import cautions
from ..layers.conditions import Room
from ..layers.drying import Wait, takes_min
from ..layers.stack import Stack
from ..memory import Memo
from .batch import Brew
from .batches import sittings
from .coats import CoatWork, lay, patches_in
from .links import Link
from .operations import Constraint, Operation
from .order import Block, Tied, tied
from .pots import PotRun, life_wait
from .zone import ZoneWork

STICKY = {"clear", "oil"}
"""Kinds of film that dust sticks to while they are wet: varnish and oil."""
MASK = "dust mask, gloves, eye protection"
END_CHECK = "A thumbnail pressed in leaves no mark."


class Worked(Protocol):
    """What is asked of a job here."""

    @property
    def job(self) -> Job: ...
    @property
    def scope(self) -> str: ...
    @property
    def catalogue(self) -> Catalogue: ...
    @property
    def zones(self) -> tuple[ZoneWork, ...]: ...


@dataclass
class Made:
    """The order of work as it is put together."""

    blocks: list[Block] = field(default_factory=list)
    constraints: list[Constraint] = field(default_factory=list)
    brews: list[Brew] = field(default_factory=list)
    served: dict[str, tuple[str, ...]] = field(default_factory=dict)
    """The batches of each coat, by the coat's id."""
    coat_of: dict[str, str] = field(default_factory=dict)
    """The coat an operation lays, by the operation's id."""
    first: dict[str, str] = field(default_factory=dict)
    last: dict[str, str] = field(default_factory=dict)
    """The operation a coat begins with, and the one it ends with, by the coat's id."""
    cures: list[tuple[Operation, str]] = field(default_factory=list)
    """What passes by itself at the end, and the operation it follows."""
    parts: list[Tied] = field(default_factory=list)
    """The same as its order is found from it."""

    def take(self, part: "Made", tied_up: Tied) -> None:
        """Put what was made of a part to the rest."""
        self.parts.append(tied_up)
        self.blocks += part.blocks
        self.constraints += part.constraints
        self.brews += part.brews
        self.served.update(part.served)
        self.coat_of.update(part.coat_of)
        self.first.update(part.first)
        self.last.update(part.last)
        self.cures += part.cures


def _mixing(brew: Brew, habits: Habits) -> tuple[tuple[Operation, ...], tuple[Constraint, ...]]:
    """Mixing a batch, letting it rest, stirring it again; or pouring it off."""
    run = brew.run
    coat, laid, need = run.first, run.first.laid, run.first.need
    bought = run.life.as_bought
    names = tuple(dict.fromkeys(c.need.zone_name for c in run.coats))
    of = f", batch {brew.number} of {brew.of}" if brew.of > 1 else ""
    together = f", for {' and '.join(n.lower() for n in names)} together" if len(names) > 1 else ""
    aim = laid.recipe.target.replace("-", " ")
    powder = any(p.material.is_solid for p in laid.pours if p.poured_ml > 0)
    usual = laid.base.target.replace("-", " ")
    own = "" if usual == aim else f" By the amounts you set: the recipe as it stands comes to {usual}."
    right = f"As thick as {aim}; no lumps, no streak on the stick.{own}"
    base = Operation(
        f"{brew.id}:mix", "mix", f"{'Pour off' if bought else 'Mix'} {coat.named[:1].lower()}{coat.named[1:]}{of}"
        f"{together}", job=need.job, zone=need.zone, zone_name=need.zone_name, layer=need.layer, number=need.number,
        coat=need.coat, coats=need.coats, pot=coat.pot.id, batch=brew.id,
        hands_on_min=habits.pour_min if bought else habits.mix_min, amounts=brew.amounts,
        tools=(brew.mix.jar.vessel, "stirring stick", *((MASK,) if powder else ())), how=laid.base.steps,
        check="" if bought else right,
        take_care=cautions.when_mixing(laid, coat.use),
        makes_dust=powder,
    )  # fmt: skip
    if not run.life.rest_min:
        return (base,), ()
    rest = replace(
        base, id=f"{brew.id}:rest", kind="rest", says=f"Let {coat.named.lower()} rest", hands_on_min=0.0,
        lasts_min=run.life.rest_min, amounts=None, tools=(), how=("Covered, airtight.",), check="It has thickened.",
        take_care=(), makes_dust=False,
    )  # fmt: skip
    stir = replace(
        rest, id=f"{brew.id}:stir", kind="stir", says=f"Stir {coat.named.lower()} again", lasts_min=0.0,
        hands_on_min=habits.stir_min, how=("To the bottom, before it is judged.",), check=right,
    )  # fmt: skip
    rested = Constraint("at least", base.id, stir.id, Wait(run.life.rest_min), why="it thickens while it rests")
    return (base, rest, stir), (Constraint("after", base.id, rest.id), rested)


def _opening(brew: Brew, coat: CoatWork, habits: Habits) -> Operation:
    """Opening a pot that was kept, for a later sitting."""
    need = coat.need
    return Operation(
        f"{brew.id}:stir:{need.id}", "stir", f"Open and stir {coat.named[:1].lower()}{coat.named[1:]}", job=need.job,
        zone=need.zone, zone_name=need.zone_name, layer=need.layer, number=need.number, coat=need.coat,
        coats=need.coats, pot=coat.pot.id, batch=brew.id, hands_on_min=habits.stir_min,
        how=("To the bottom; what has settled or skinned is not paint.",), check="Even again; no skin, no smell.",
    )  # fmt: skip


def _cleaning(batch: str, coats: Sequence[CoatWork], habits: Habits) -> Operation:
    """Cleaning the tools of a sitting, before the mix stiffens."""
    last = coats[-1]
    need, tool = last.need, last.laid.tool.name
    waxy = last.laid.film.kind in {"wax", "oil"}
    apart = ", the wax brush apart from the others" if waxy else ""
    return Operation(
        f"{batch or need.id}:clean:{need.id}", "clean", f"Clean the {tool}", job=need.job, zone=need.zone,
        zone_name=need.zone_name, layer=need.layer, number=need.number, coat=need.coat, coats=need.coats,
        pot=last.pot.id, batch=batch, hands_on_min=habits.clean_min, tools=(tool,),
        how=(f"Tool and pot at once, before the mix stiffens{apart}.",),
        check="No wax comes off on a clean cloth." if waxy else "Water runs clear from the bristles.",
        take_care=(cautions.RAGS,) if waxy else ("No powder or wash water down the drain.",),
    )  # fmt: skip


def _lives(brew: Brew, ready: Operation, mixed: Operation, lays: Sequence[Operation], later: bool) -> list[Constraint]:
    """The life of a batch over what it lays in one sitting; `later` for one that it was kept for."""
    life, laid = brew.run.life, brew.run.first.laid
    if life.as_bought:
        return []
    why = f"{laid.name} stiffens" if not later else f"{laid.name} does not keep"
    if later or life.life_min is None:
        reach = max(life.keep_min, life.usable_min or 0.0)
        waits = Wait(reach) if reach else None
        since = ready
    else:
        waits, since = life_wait(laid), mixed if life.from_wetting else ready
    if waits is None:
        return []
    end: Literal["start", "end"] = "start" if since is mixed and life.from_wetting and not later else "end"
    kind: Literal["keeps", "within life"] = "keeps" if later else "within life"
    return [Constraint(kind, since.id, o.id, waits, end, "end", why) for o in lays]


def _sitting(made: Made, brew: Brew | None, coats: Sequence[tuple[CoatWork, range, int]], habits: Habits,
             begins: bool, ready: tuple[Operation, ...]) -> tuple[Operation, ...]:  # fmt: skip
    """One sitting as a block: the pot mixed, or opened again, its patches laid, the tools cleaned.

    `coats` says which patches of how many; `begins` whether the pot is mixed for it, `ready` the operations that make
    it. Returns what was laid.
    """
    early: tuple[Operation, ...] = ()
    done: list[Operation] = []
    if brew and begins:
        long = brew.run.life.rest_min > habits.short_rest_min
        early, done = (ready[:2], list(ready[2:])) if long else ((), list(ready))
    elif brew and not brew.run.life.as_bought:
        done.append(_opening(brew, coats[0][0], habits))
    lays: list[Operation] = []
    sticky = {}
    batch = brew.id if brew else ""
    for coat, patches, of in coats:
        for patch in patches:
            operations, ties = lay(coat, batch, patch, of)
            made.constraints += ties
            done += operations
            lays.append(operations[0])
            made.coat_of.update((o.id, coat.need.id) for o in operations)
            if patch == 1:
                made.first[coat.need.id] = operations[0].id
            made.last[coat.need.id] = operations[-1].id
            if coat.laid.film.kind in STICKY:
                sticky[operations[0].id] = coat.touch
    done.append(_cleaning(batch, [c for c, _, _ in coats], habits))
    if brew and not brew.run.life.as_bought:
        made.constraints += _lives(brew, ready[-1], ready[0], lays, not begins)
    made.constraints += [Constraint("after", a.id, b.id) for a, b in pairwise(done)]
    if early:
        made.constraints.append(Constraint("after", early[-1].id, done[0].id))
    made.blocks.append(Block(done[0].id, tuple(done), early, brew.run.life.rest_min if brew else 0.0, sticky))
    return tuple(lays)


def _lay_run(run: PotRun, brews: Sequence[Brew], habits: Habits) -> Made:
    """The sittings of a run of coats: each batch mixed when it is needed, kept for the sittings it serves."""
    made = Made(brews=list(brews))
    by_id = {c.need.id: c for c in run.coats}
    ready: tuple[Operation, ...]
    for coat in run.coats:
        made.served[coat.need.id] = tuple(b.id for b in brews)
    if len(brews) > 1:
        (coat,) = run.coats
        patches = patches_in(coat.need, len(brews))
        each = patches // len(brews)
        before = ""
        for one in brews:
            ready, ties = _mixing(one, habits)
            made.constraints += ties
            mine = range((one.number - 1) * each + 1, one.number * each + 1)
            lays = _sitting(made, one, [(coat, mine, patches)], habits, True, ready)
            if before:
                made.constraints.append(Constraint("after", before, lays[0].id))
            before = lays[-1].id
        return made
    brew = brews[0] if brews else None
    ready = ()
    if brew:
        ready, ties = _mixing(brew, habits)
        made.constraints += ties
    for number, sitting in enumerate(sittings([c.need for c in run.coats], habits.pause_min)):
        coats = [(by_id[n.id], range(1, n.patches + 1), n.patches) for n in sitting]
        _sitting(made, brew, coats, habits, number == 0, ready)
    return made


def _mix_only(brew: Brew, habits: Habits) -> Made:
    """A pot that is for no surface: mixed, and no more."""
    made = Made(brews=[brew], served={brew.run.first.need.id: (brew.id,)})
    ready, ties = _mixing(brew, habits)
    made.constraints += ties
    long = brew.run.life.rest_min > habits.short_rest_min
    early, done = (ready[:2], ready[2:]) if long else ((), ready)
    made.constraints += [Constraint("after", a.id, b.id) for a, b in pairwise(done)]
    made.blocks.append(Block(done[0].id, done, early, brew.run.life.rest_min))
    return made


@dataclass(frozen=True)
class Ends:
    """The operations that a link begins with, and those it ends with."""

    first: tuple[str, ...]
    last: tuple[str, ...]


Known = Mapping[str, str]
"""An operation of each coat, by the coat's id."""


def _ends(link: Link, first: Known, last: Known) -> Ends:
    if link.operations:
        return Ends((link.operations[0].id,), (link.operations[-1].id,))
    return Ends(tuple(first[c.need.id] for c in link.coats), tuple(last[c.need.id] for c in link.coats))


def _zone(zone: ZoneWork, firsts: Sequence[str], lasts: Sequence[str]) -> Made:
    """What is done to a zone beside laying, and what holds between the links of its order. `firsts` and `lasts` are the
    operations its coats begin and end with."""
    made = Made()
    begin, end = (dict(zip(zone.coat_ids, ids, strict=True)) for ids in (firsts, lasts))
    ends = [_ends(link, begin, end) for link in zone.links]
    for link in zone.links:
        if link.operations:
            made.blocks.append(Block(link.operations[0].id, link.operations))
            made.constraints += [Constraint("after", a.id, b.id) for a, b in pairwise(link.operations)]
    for tie in zone.ties:
        for first in ends[tie.first].last:
            for then in ends[tie.then].first:
                made.constraints.append(Constraint(tie.kind, first, then, tie.wait, why=tie.why, remedy=tie.remedy))
    return made


def _gently(stack: Stack, top: int) -> str:
    """From when a zone may be used gently, long before it has cured."""
    gentle = takes_min(stack.gentle(top), stack.room)
    when = f"From {lasts(gentle)} on" if gentle else "When its label allows,"
    return f"{when} it may be closed, stacked and used gently; it goes on curing."


def _end(worked: Worked, made_yet: Made, habits: Habits) -> Made:
    """Refitting once everything may be touched, and what cures after."""
    job, made = worked.job, Made()
    tops = [z for z in worked.zones if z.links and z.stack and z.stack.laid]
    if not tops:
        return made
    bare = listed([b.name.lower() for b in job.piece.bands]) if job.piece else ""
    refit = Operation(
        f"{worked.scope}refit", "refit", "Refit what came off, label leftovers, note it", job=job.name,
        hands_on_min=habits.refit_min,
        how=(
            "Hardware back on; jars labelled with mix and date; what was done written down.",
            *((f"Bare faces freed of tape before anything is glued: {bare}.",) if bare else ()),
        ),
        check="Doors and drawers do not stick.",
    )  # fmt: skip
    for zone in tops:
        stack = zone.stack
        assert stack
        top = len(stack.laid) - 1
        lasts = _ends(zone.links[-1], made_yet.first, made_yet.last).last
        for end in lasts:
            made.constraints.append(
                Constraint("at least", end, refit.id, stack.wait(top, "recoat_from"), why=stack.laid[top].film.waits)
            )
        cured = stack.wait(top, "cured")
        cure = Operation(
            f"{worked.scope}{zone.zone.id}:cure", "cure", f"Let {zone.zone.name.lower()} cure", job=job.name,
            zone=zone.zone.id, zone_name=zone.zone.name, layer=stack.laid[top].layer.id, number=len(zone.laid),
            lasts_min=takes_min(cured, stack.room) or 0.0, how=(_gently(stack, top),), check=END_CHECK,
            take_care=cautions.in_use(stack.use),
        )  # fmt: skip
        after = lasts[0]
        made.cures.append((cure, after))
        made.constraints.append(Constraint("after", after, cure.id, why="it hardens through"))
    made.blocks.append(Block(refit.id, (refit,)))
    return made


def dust(made: Made) -> list[Constraint]:
    """No dust beside what is wet and sticky, in other zones than its own."""
    dusty = [o for b in made.blocks for o in (*b.early, *b.operations) if o.makes_dust]
    found = []
    for block in made.blocks:
        for laid, wait in block.sticky.items():
            own = next(o for o in block.operations if o.id == laid)
            found += [
                Constraint("not beside", laid, o.id, wait, why="dust sticks to it")
                for o in dusty
                if (o.job, o.zone) != (own.job, own.zone)
            ]
    return found


def assemble(jobs: Sequence[Worked], runs: Sequence[tuple[PotRun, tuple[Brew, ...]]], habits: Habits, room: Room,
             memo: Memo) -> Made:  # fmt: skip
    """All that is done, in blocks, and what holds between but for dust. Each run comes with its batches."""
    made = Made()

    def tie_up(part: Made) -> tuple[Made, Tied]:
        return part, tied(part.blocks, part.constraints, room)

    def run_part(run: PotRun, brews: tuple[Brew, ...]) -> tuple[Made, Tied]:
        return tie_up(_lay_run(run, brews, habits) if run.first.need.area_m2 > 0 else _mix_only(brews[0], habits))

    def zone_part(zone: ZoneWork, firsts: tuple[str, ...], lasts: tuple[str, ...]) -> tuple[Made, Tied]:
        return tie_up(_zone(zone, firsts, lasts))

    for run, brews in runs:
        made.take(*memo.recall(("run", run.first.need.id), (run, brews, habits, room), partial(run_part, run, brews)))
    for job in jobs:
        for zone in job.zones:
            firsts = tuple(map(made.first.__getitem__, zone.coat_ids))
            lasts = tuple(map(made.last.__getitem__, zone.coat_ids))
            place = ("between", job.scope, zone.zone.id)
            made.take(*memo.recall(place, (zone, firsts, lasts, room), partial(zone_part, zone, firsts, lasts)))
        made.take(*tie_up(_end(job, made, habits)))
    return made
