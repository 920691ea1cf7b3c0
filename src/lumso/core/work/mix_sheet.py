"""The mix sheet: every batch of a job, or of several, in the order they are needed."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated

from annotated_types import Interval

from ..book.catalogue import Catalogue, pick
from ..book.colours import Pot
from ..book.materials import Vessel
from ..book.recipes import VolumeShare
from ..errors import InvalidValue, Problem
from ..job.job import FromTotal, Job
from ..layers.cautions import when_mixing
from ..layers.conditions import Conditions
from ..layers.drying import factor
from ..layers.stack import Laid, Stack
from ..layers.wet_edge import GlazePlan, glaze_plan
from ..mixing.compose import compose, with_amounts
from ..mixing.mix import Bench, Mix, mix
from ..mixing.totals import Totals, total_up
from ..plan.plan import Plan, plan, stacks
from ..value import Slug, Value
from ..workshop.known import known_to
from ..workshop.workshop import Workshop
from .batches import CoatNeed, Losses, MixLife, Split, first_small, runs, sittings, split
from .chains import chains
from .coats import Coat, coats_of, life_of, mix_key
from .step_down import StepDown

ALL_BUT = 0.9999
"""A share of the whole is always less than all of it."""


@dataclass(frozen=True)
class WhatIf(Value):
    """Changes to try on the sheet before keeping them; what is None or missing stays."""

    coats: dict[str, Annotated[int, Interval(ge=1, le=12)]] = field(default_factory=dict)
    margin: Annotated[float, Interval(ge=0, le=1)] | None = None
    vessel: Slug | None = None
    pace: Annotated[float, Interval(gt=0, le=10)] | None = None
    temperature_c: Annotated[float, Interval(ge=-10, le=50)] | None = None
    humidity: Annotated[float, Interval(gt=0, le=1)] | None = None
    step_down: bool = False
    """Start each of a run of stacked washes from what is left of the last."""


@dataclass(frozen=True)
class ForCoats(Value):
    """What a batch is for: coats of a layer on a zone."""

    job: str
    zone: str
    zone_name: str
    layer: str
    number: int
    first_coat: int
    last_coat: int
    coats: int


@dataclass(frozen=True)
class Batch(Value):
    """One pot to mix. Times are hours after the job is begun; before it when below zero.

    `use_by_h` is None where nobody knows how long it lives: read the label. `first_ml` is how much to mix first so
    that it can still be corrected; 0 for what is poured as bought.
    """

    id: str
    number: int
    of: int
    name: str
    recipe: str
    colour: str
    hex: str
    uses: tuple[ForCoats, ...]
    mix: Mix
    vessel: str
    mix_at_h: float
    ready_h: float
    use_by_h: float | None
    work_min: float
    first_ml: float
    kept_for: str
    """What is kept sealed for a later coat, in words; "" for nothing."""
    pot_test: str
    steps: tuple[str, ...]
    cautions: tuple[str, ...]
    matching: str
    """What to do so that colours match across several batches of a coat; "" for one batch."""
    step_down: StepDown | None
    """How it begins from what is left of the last wash; `mix` is then only what is added."""


@dataclass(frozen=True)
class Pooled(Value):
    """Batches that serve several zones or layers: what that saves beside mixing for each alone, in ml."""

    batch: str
    name: str
    zones: tuple[str, ...]
    alone_ml: float
    together_ml: float
    saved_ml: float


@dataclass(frozen=True)
class Apart(Value):
    """Coats of the same mix that need a pot of their own, and why."""

    name: str
    zones: tuple[str, ...]
    why: str


@dataclass(frozen=True)
class MixSheet(Value):
    """The sheet: batches in the order they are mixed, what is pooled and what not, sections, and what cannot be."""

    batches: tuple[Batch, ...]
    pooled: tuple[Pooled, ...]
    apart: tuple[Apart, ...]
    sections: tuple[GlazePlan, ...]
    totals: Totals
    problems: tuple[Problem, ...]
    mixed_ml: float
    elapsed_h: float


def _uses(coats: Sequence[CoatNeed]) -> tuple[ForCoats, ...]:
    by_layer: dict[tuple[str, str], list[CoatNeed]] = {}
    for coat in coats:
        by_layer.setdefault((coat.job, coat.layer), []).append(coat)
    return tuple(
        ForCoats(
            c[0].job,
            c[0].zone,
            c[0].zone_name,
            c[0].layer,
            c[0].number,
            min(x.coat for x in c),
            max(x.coat for x in c),
            c[0].coats,
        )
        for c in by_layer.values()
    )


MATCH = (
    "Divide the dry and the tinted parts into so many equal lots first, mix each the same way, and intermix the jars "
    "before the second is begun: then a top stays one colour."
)


def _kept(done: Split, life: MixLife) -> str:
    first, *later = sittings(done.coats)
    if not later or life.as_bought:
        return ""
    coats = [c for sitting in later for c in sitting]
    ml = sum(c.film_ml for c in coats)
    names = ", ".join(dict.fromkeys(f"{c.zone_name.lower()}, coat {c.coat}" for c in coats))
    return f"Keep about {ml:.0f} ml sealed, for {names}, {coats[0].at_h - first[0].at_h:.0f} h later."


@dataclass
class _Making:
    """The sheet as it is made."""

    catalogue: Catalogue
    workshop: Workshop
    vessel: Vessel
    batches: list[Batch] = field(default_factory=list)
    pooled: list[Pooled] = field(default_factory=list)
    apart: list[Apart] = field(default_factory=list)
    problems: list[Problem] = field(default_factory=list)

    def bench(self, pot: Pot, named: bool) -> Bench:
        known = self.catalogue
        small = tuple(v for v in known.vessels if v.capacity_ml <= self.vessel.capacity_ml)
        system = known.system(self.workshop.measures)
        return Bench(system, known.consistencies, small, pot.colours, pot.tints, pot if named else None)

    def add(self, done: Split, first: Coat, life: MixLife, step: StepDown | None) -> None:
        """The batches of a run, one after the other as the coat is worked."""
        laid, recipe = first.laid, first.laid.recipe
        word = next((c for c in self.catalogue.consistencies if c.slug == recipe.target), None)
        test = "" if life.as_bought or word is None else f"{word.name[:1].upper()}{word.name[1:]}: {word.looks}."
        bench = self.bench(first.pot, bool(laid.layer.pots))
        made = mix(recipe, laid.pours, FromTotal("total", done.batch_ml), None, bench, laid.flow)
        begun_from_rest = step is not None and step.from_last_ml > 0
        if step and begun_from_rest and step.add_paint_ml + step.add_water_ml > 0:
            made = self.added(laid, step, bench)
        paint = next((p for p in made.parts if p.role in {"paint", "pigment"}), made.parts[0])
        for number in range(1, done.count + 1):
            ready = done.coats[0].at_h + (number - 1) * done.work_min / 60
            begun = ready - life.rest_min / 60
            usable = life.usable_min
            lasts = max(usable / 60 if usable is not None else 0.0, life.keep_h)
            unknown = usable is None and not life.keep_h
            self.batches.append(
                Batch(
                    f"{done.coats[0].layer}-{first.pot.id or 'pot'}-{done.coats[0].coat}-{number}",
                    number,
                    done.count,
                    laid.name,
                    recipe.slug,
                    paint.colour,
                    paint.hex,
                    _uses(done.coats),
                    made,
                    made.jar.vessel,
                    begun,
                    ready,
                    None if unknown else ready + lasts,
                    done.work_min,
                    0.0 if life.as_bought or begun_from_rest else first_small(done.batch_ml),
                    _kept(done, life),
                    test,
                    recipe.steps,
                    when_mixing(laid),
                    MATCH if done.count > 1 else "",
                    step,
                )
            )

    def added(self, laid: Laid, step: StepDown, bench: Bench) -> Mix:
        """What goes into the pot beside what is left of the last wash: the new paint and the new water."""
        new = step.add_paint_ml + step.add_water_ml
        water = next(p.component.id for p in laid.pours if p.material.role == "water")
        share = min(max(step.add_water_ml / new, 0.0), ALL_BUT)
        recipe = with_amounts(laid.recipe, {water: VolumeShare("volume-share", share)})
        pours = compose(recipe, {p.material.slug: p.material for p in laid.pours})
        return mix(recipe, pours, FromTotal("total", new), None, bench)

    def pool(self, done: Split, life: MixLife, losses: Losses) -> None:
        """Note what a run over several layers saves beside mixing for each alone."""
        by_layer: dict[tuple[str, str], list[CoatNeed]] = {}
        for coat in done.coats:
            by_layer.setdefault((coat.job, coat.layer), []).append(coat)
        if len(by_layer) < 2:
            return
        try:
            alone = sum(split(c, life, losses, self.vessel.capacity_ml).total_ml for c in by_layer.values())
        except InvalidValue:
            return  # some could not be mixed alone at all: there is nothing to compare with
        last = self.batches[-1]
        zones = tuple(dict.fromkeys(c.zone_name for c in done.coats))
        self.pooled.append(Pooled(last.id, last.name, zones, alone, done.total_ml, alone - done.total_ml))


def _sections(job: Job, made: Plan, stacked: tuple[Stack | None, ...], conditions: Conditions) -> list[GlazePlan]:
    """Every face that is glazed wet in wet, in sections; like faces of a surface once."""
    found: list[GlazePlan] = []
    faces = made.drawing.faces if made.drawing else ()
    room = factor(conditions.temperature_c, conditions.humidity)
    for zone, stack in zip(job.zones, stacked, strict=True):
        for one in stack.laid if stack else ():
            technique, film = one.technique, one.film
            if not technique.lays_m2_per_h or film.open_least_min is None:
                continue
            seen = set()
            for face in faces:
                if face.surface not in zone.surfaces:
                    continue
                xs, ys = [p.x for p in face.outline], [p.y for p in face.outline]
                size = (face.surface, round(max(xs) - min(xs)), round(max(ys) - min(ys)))
                if size in seen or min(size[1:]) < technique.tool_width_mm / 2:
                    continue
                seen.add(size)
                found.append(
                    glaze_plan(
                        zone.id,
                        one.layer.id,
                        face.name,
                        size[1],
                        size[2],
                        film.open_least_min * room,
                        technique.lays_m2_per_h,
                        technique.passes,
                        technique.pass_m2_per_h,
                        technique.tool_width_mm,
                    )
                )
    return found


def _changed(job: Job, what_if: WhatIf) -> Job:
    zones = tuple(
        replace(
            zone,
            layers=tuple(
                replace(
                    layer,
                    coats=what_if.coats.get(layer.id, layer.coats),
                    margin=layer.margin if what_if.margin is None else what_if.margin,
                )
                for layer in zone.layers
            ),
        )
        for zone in job.zones
    )
    return replace(job, zones=zones)


def mix_sheet(jobs: Sequence[Job], workshop: Workshop, catalogue: Catalogue, conditions: Conditions,
              what_if: WhatIf | None = None) -> MixSheet:  # fmt: skip
    """The sheet of one job or several. What cannot be planned or batched is in `problems`, with the numbers.

    Amounts given as a total, a part or a vessel are not batched: they say themselves how much is mixed.
    Raises UnknownEntry for a vessel that is not there.
    """
    tried = what_if or WhatIf()
    if tried.pace is not None:
        workshop = replace(workshop, paces={**workshop.paces, "": tried.pace})
    room = Conditions(
        conditions.temperature_c if tried.temperature_c is None else tried.temperature_c,
        conditions.humidity if tried.humidity is None else tried.humidity,
    )
    vessel = pick("vessel", {v.slug: v for v in catalogue.vessels}, tried.vessel or workshop.vessel)
    making = _Making(known_to(workshop, catalogue), workshop, vessel)
    coats: list[Coat] = []
    sections: list[GlazePlan] = []
    elapsed = 0.0
    for number, job in enumerate(jobs):
        job = _changed(job, tried)
        planned = plan(job, workshop, catalogue, room)
        stacked = stacks(job, workshop, catalogue, room)
        making.problems += [replace(p, at=f"/jobs/{number}{p.at}") for p in planned.problems]
        sections += _sections(job, planned, stacked, room)
        for zone, stack in zip(planned.zones, stacked, strict=True):
            if stack is None or zone.area is None:
                continue
            mine, hours = coats_of(job, zone, stack, workshop)
            coats += [c for c in mine if c.laid.layer.want.by == "area"]
            elapsed = max(elapsed, hours)
    chained = chains(coats, making.catalogue.pot_losses, vessel.capacity_ml) if tried.step_down else {}
    groups: dict[tuple[object, ...], list[Coat]] = {}
    for one in coats:
        apart = (one.need.layer,) if one.need.layer in chained else ()
        groups.setdefault((*mix_key(one), *apart), []).append(one)
    for alike in groups.values():
        _batch(alike, making, chained)
    batches = tuple(sorted(making.batches, key=lambda b: (b.mix_at_h, b.id)))
    return MixSheet(
        batches,
        tuple(making.pooled),
        tuple(making.apart),
        tuple(sections),
        total_up([b.mix for b in batches]),
        tuple(making.problems),
        sum(b.mix.volume.value for b in batches),
        elapsed,
    )


def _batch(alike: Sequence[Coat], making: _Making, chained: dict[str, StepDown]) -> None:
    """The coats of one mix as batches, added to the sheet."""
    first = alike[0]
    life = life_of(first.laid)
    losses = Losses(making.catalogue.pot_losses[first.laid.flow.cling], first.laid.tool.holds_ml)
    by_need = {id(c.need): c for c in alike}
    for served, why in runs([c.need for c in alike], life, losses, making.vessel.capacity_ml):
        zones = tuple(dict.fromkeys(n.zone_name for n in served))
        if why:
            making.apart.append(Apart(first.laid.name, zones, why))
        try:
            done = split(served, life, losses, making.vessel.capacity_ml)
        except InvalidValue as error:
            says = f"{first.laid.name} on {zones[0].lower()}: {error.says}"
            making.problems.append(Problem(f"/layers/{served[0].layer}", says, error.allowed))
            continue
        own = by_need[id(served[0])]
        making.add(done, own, life, chained.get(served[0].layer))
        making.pool(done, life, losses)
