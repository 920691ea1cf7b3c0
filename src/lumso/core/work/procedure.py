"""The whole job as steps to tick off: what to lay out, what to do, what right looks like, what to take care of."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from ..book.catalogue import Catalogue
from ..book.preparation import Abrasive, Preparation
from ..figure import tidy
from ..job.job import Job, Zone
from ..layers import cautions
from ..layers.pace import SANDING_M2_PER_H, is_turned, pace_of
from ..layers.stack import Laid, Stack
from ..mixing.mix import Mix
from ..plan.plan import LayerPlan, Plan, ZonePlan
from ..value import Value
from ..workshop.workshop import Workshop

LEAST_MIN = 3.0
"""Nothing takes less: taking it up, putting it down."""
LESS = "Less than looks right: sealing wakes the darks."


@dataclass(frozen=True)
class Task(Value):
    """One step. `wait_min` is how long to leave it after; None is unknown: read the label."""

    id: str
    zone: str
    layer: str
    kind: Literal["prepare", "mix", "lay", "part-dry", "sand", "clean", "finish"]
    says: str
    how: tuple[str, ...]
    check: str
    take_care: tuple[str, ...]
    rescues: tuple[str, ...]
    hands_on_min: float
    wait_min: float | None
    wait_check: str


@dataclass(frozen=True)
class ZoneProcedure(Value):
    """A zone's steps in order, its hands-on minutes and the hours from start to end."""

    zone: str
    name: str
    tasks: tuple[Task, ...]
    hands_on_min: float
    elapsed_h: float
    unknown_waits: int


@dataclass(frozen=True)
class Procedure(Value):
    """The job: what to see to first, the kit to lay out, the steps, and about how long they take.

    `elapsed_h` is the longest zone; one painter works on the others while it dries.
    """

    first: tuple[str, ...]
    kit: tuple[str, ...]
    zones: tuple[ZoneProcedure, ...]
    hands_on_min: float
    elapsed_h: float


def minutes_for(area_m2: float, pace_m2_per_h: float) -> float:
    """Minutes of work on an area at a pace, never under LEAST_MIN."""
    return max(area_m2 / pace_m2_per_h * 60, LEAST_MIN)


def _prepare(zone: Zone, known: Preparation, area: float) -> Task:
    return Task(
        f"{zone.id}:{known.slug}",
        zone.id,
        "",
        "prepare",
        known.name[:1].upper() + known.name[1:],
        (known.how,),
        known.check,
        known.cautions,
        (),
        minutes_for(area, known.pace_m2_per_h),
        known.wait_min,
        "",
    )


def _amounts(mix: Mix) -> str:
    parts = ", ".join(f"{tidy(p.poured.value)} ml {p.name.lower()}" for p in mix.parts)
    pot = f"{mix.pot_name}: " if mix.pot_name else ""
    return f"{pot}{tidy(mix.volume.value)} ml, of {parts}."


def _mixing(zone: Zone, plan: LayerPlan, laid: Laid) -> Task:
    as_bought = len(laid.pours) == 1
    says = f"{'Pour off' if as_bought else 'Mix'} {laid.name.lower()}"
    how = (*(_amounts(mix) for mix in plan.mixes), *laid.base.steps)
    rest = laid.base.rest_min or 0.0
    aim = laid.base.target.replace("-", " ")
    check = "" if as_bought else f"As thick as {aim}; no lumps, no streak on the stick."
    if rest and not as_bought:
        check += f" Rest {tidy(rest)} min, then stir again before judging."
    care = cautions.when_mixing(laid)
    minutes = 2.0 if as_bought else 8.0 * max(1, len(plan.mixes))
    return Task(f"{plan.layer}:mix", zone.id, plan.layer, "mix", says, how, check, care, (), minutes, rest, "")


def _laying(zone: Zone, plan: LayerPlan, laid: Laid, area: float, pace: float) -> Iterable[Task]:
    layer, technique = laid.layer, laid.technique
    between = laid.film.times.recoat_from
    for coat in range(1, layer.coats + 1):
        last = coat == layer.coats
        which = f", coat {coat} of {layer.coats}" if layer.coats > 1 else ""
        share = "" if layer.touched > 0.95 else f", on about {layer.touched:.0%} of it"
        how = [technique.how]
        if technique.direction:
            how.append(technique.direction)
        rescues = tuple(f"{f.sign}: {f.rescue}" for f in technique.faults)
        wait = plan.wait_h * 60 if last and plan.wait_h is not None else between
        care = cautions.when_laying(laid) if coat == 1 else ()
        name = laid.name
        yield Task(
            f"{plan.layer}:lay:{coat}",
            zone.id,
            plan.layer,
            "lay",
            f"{name}: {technique.name}{which}{share}",
            tuple(how),
            technique.right_when,
            care,
            rescues,
            minutes_for(area * layer.touched, pace),
            0.0 if technique.part_dry else wait,
            laid.film.waits,
        )
        if technique.part_dry:
            work = technique.part_dry
            says = f"{name}: while it is part dry, {work.opens_min:g} to {work.closes_min:g} min after laying"
            again = minutes_for(area * layer.touched, pace * 2)
            task = f"{plan.layer}:part-dry:{coat}"
            yield Task(
                task,
                zone.id,
                plan.layer,
                "part-dry",
                says,
                (work.what,),
                work.check,
                (),
                (),
                again,
                wait,
                laid.film.waits,
            )


def _sanding(job: Job, zone: Zone, index: int, laid: tuple[Laid, ...], area: float,
             abrasives: dict[str, Abrasive]) -> Task | None:  # fmt: skip
    sand = laid[index].layer.sand_after
    if sand is None:
        return None
    why = abrasives[sand.purpose].why if sand.purpose in abrasives else ""
    name = laid[index].recipe.name.lower()
    return Task(
        f"{laid[index].layer.id}:sand",
        zone.id,
        laid[index].layer.id,
        "sand",
        f"Sand {name} with P{sand.grit} {sand.abrasive}",
        (why, "Edges, corners and where hands go first. Wipe the dust, stop, step back, look; repeat."),
        "Less than looks right: sealing wakes the darks."
        if sand.purpose in {"bite", "reveal"}
        else "Even and dull to the touch.",
        cautions.when_sanding(job, index, laid),
        ("through to the ground: base colour on the spot, dry, sand again",),
        minutes_for(area, SANDING_M2_PER_H),
        0.0,
        "",
    )


def _ending(job: Job, zone: Zone, laid: tuple[Laid, ...], stack: Stack) -> Iterable[Task]:
    wax = any(x.film.kind in {"wax", "oil"} for x in laid)
    how = "Brushes and tools at once, before the mix stiffens" + (
        ", wax brushes apart from the others." if wax else "."
    )
    care = (cautions.RAGS,) if wax else ("No powder or wash water down the drain.",)
    check = "Water runs clear from the bristles."
    yield Task(f"{zone.id}:clean", zone.id, "", "clean", "Clean the tools", (how,), check, care, (), 8.0, 0.0, "")
    cured = stack.minutes(len(laid) - 1, "cured")
    what = ("Refit hardware, label what is left with its mix and date, write down what was done.",)
    says = "Let it cure, refit, write it down"
    yield Task(f"{zone.id}:finish", zone.id, "", "finish", says, what, "A thumbnail pressed in leaves no mark.",
               cautions.in_use(job.use), (), 20.0, cured, "Use it gently until then.")  # fmt: skip


def zone_procedure(
    job: Job, zone: Zone, planned: ZonePlan, stack: Stack, catalogue: Catalogue, workshop: Workshop
) -> ZoneProcedure:
    """A zone's steps: preparation, then each layer mixed, laid, worked and sanded, then the end."""
    area = planned.area.value if planned.area else 0.0
    tasks = [_prepare(zone, catalogue.preparations[p], area) for p in zone.prep if p in catalogue.preparations]
    for i, one in enumerate(stack.laid):
        tasks.append(_mixing(zone, planned.layers[i], one))
        tasks += _laying(zone, planned.layers[i], one, area, pace_of(one.technique, workshop, is_turned(job)))
        sand = _sanding(job, zone, i, stack.laid, area, dict(catalogue.abrasives))
        if sand:
            tasks.append(sand)
    if stack.laid:
        tasks += _ending(job, zone, stack.laid, stack)
    working = [t for t in tasks if t.kind != "finish"]
    hands = sum(t.hands_on_min for t in tasks)
    waiting = sum(t.wait_min or 0.0 for t in working)
    unknown = sum(t.wait_min is None for t in working)
    return ZoneProcedure(zone.id, zone.name, tuple(tasks), hands, (hands + waiting) / 60, unknown)


def _kit(job: Job, stacks: Iterable[Stack], catalogue: Catalogue) -> tuple[str, ...]:
    """What to lay out before anything is mixed, each thing once."""
    things = ["drop cloth and apron", "kettle or jars, stirring stick", "two cloths, one damp", "mister, filled"]
    for stack in stacks:
        for prep in stack.zone.prep:
            things += catalogue.preparations[prep].kit if prep in catalogue.preparations else ()
        for one in stack.laid:
            things.append(one.tool.name)
            if one.layer.sand_after:
                things.append(f"P{one.layer.sand_after.grit} {one.layer.sand_after.abrasive}")
            if one.acts("lifts", "rubs in", "drags"):
                things.append("rags or sponge for lifting")
            if one.acts("tapes"):
                things.append("low-tack tape, steel rule")
            if one.film.kind in {"wax", "oil"}:
                things += ["lidded metal can with water, for rags", "buffing cloth"]
            if any(p.material.is_solid for p in one.pours):
                things.append("dust mask, gloves, eye protection")
    return tuple(dict.fromkeys(things))


def procedure(
    job: Job, made: Plan, stacks: tuple[Stack | None, ...], catalogue: Catalogue, workshop: Workshop
) -> Procedure:
    """The job as steps. `stacks` are its zones as the checker reads them, None for one that cannot be read."""
    zones = tuple(
        zone_procedure(job, zone, planned, stack, catalogue, workshop)
        for zone, planned, stack in zip(job.zones, made.zones, stacks, strict=True)
        if stack is not None
    )
    return Procedure(
        cautions.before_work(job),
        _kit(job, [s for s in stacks if s], catalogue),
        zones,
        sum(z.hands_on_min for z in zones),
        max((z.elapsed_h for z in zones), default=0.0),
    )
