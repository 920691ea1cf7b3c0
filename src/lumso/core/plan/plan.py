"""The plan: a job's work as amounts, findings and pictures, layer by layer. Job in, Plan out."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import chain
from typing import Literal

from ..book.catalogue import Catalogue
from ..checks import check
from ..checks.findings import Finding
from ..checks.standing import Standing, standing_of
from ..errors import Problem
from ..figure import Figure, millilitres
from ..job.areas import SurfaceArea, partition
from ..job.entries import Kept
from ..job.job import Job, Layer
from ..layers.conditions import Room
from ..layers.drying import takes_min
from ..layers.laid import Laid
from ..layers.stack import Beneath
from ..look.look import Look
from ..measure.drawing import Drawing
from ..memory import Memo
from ..mixing.limits import DialLimit, dial_limits
from ..mixing.mix import Mix
from ..mixing.totals import Totals, total_up
from ..value import Value
from ..work.batch import Batch
from ..work.operations import Operation
from ..work.work import JobWork, Work, work
from ..work.zone import ZoneWork
from ..workshop.workshop import Workshop
from .patterns import Patterned, patterns_of
from .section import Section, cut


@dataclass(frozen=True)
class LayerPot(Value):
    """A pot that a layer is laid from: `times` equal batches of `mix`.

    `ml` is what of all of them is for this layer; `others` are what else comes from the same pot. `label` tells the
    layer's pots apart.
    """

    batch: str
    label: str
    times: int
    mix: Mix
    ml: float
    others: tuple[str, ...]


@dataclass(frozen=True)
class LayerPlan(Value):
    """The plan of one layer: the pots it is laid from, none where a problem stands in its way."""

    layer: str
    zone: str
    name: str
    pots: tuple[LayerPot, ...]
    limits: tuple[DialLimit, ...]
    findings: tuple[Finding, ...]
    film: str
    hex: str
    wait_h: float | None
    """Hours until the next layer, or until one more might follow; None where nobody knows: read the label."""
    wait_why: str
    """What of all that the next layer asks takes so long; "" where the wait was typed, or nothing is asked."""
    waits: str
    """What ready for the next coat looks like."""
    ways: tuple[str, ...]
    """Techniques that are done on what it lies on, those that are usual for its mix first."""
    dial: float | None
    """The share of the whole, as poured, of the component painters turn up and down; None where there is none."""


@dataclass(frozen=True)
class ZonePlan(Value):
    """A zone's area (None for a quick pot, or where its sizes cannot be used) and its layers."""

    zone: str
    name: str
    area: Figure | None
    layers: tuple[LayerPlan, ...]
    findings: tuple[Finding, ...]
    """What the checker found in the stack, accepted or not, the lowest boundary first."""
    section: Section | None
    """The stack in section, where all of it is known."""
    hex: str
    """What it looks like from afar once all is dry, before any sanding: an estimate."""


@dataclass(frozen=True)
class NextAction(Value):
    """What to do next, where in the job that is (a JSON pointer), and the side of the job where it is done."""

    says: str
    detail: str
    at: str
    side: Literal["finish", "mix", "steps"] = "finish"


@dataclass(frozen=True)
class Plan(Value):
    """Everything a job comes to, with its working attached."""

    name: str
    measures: str
    drawing: Drawing | None
    surfaces: tuple[SurfaceArea, ...]
    """Every surface of the piece, with the zone that coats it or why it is left out."""
    bands: tuple[float, ...]
    """m² of each of the piece's bands that stay bare, in their order."""
    patterns: tuple[Patterned, ...]
    """Where layers with a layout go, on the drawing."""
    rough: float
    """How far areas and amounts may be off because sizes were not measured: 0.25 is a quarter either way."""
    presumed: tuple[str, ...]
    """Names of the sizes that nobody measured: usual ones are counted with."""
    cautions: tuple[Finding, ...]
    """What can hurt a person, each once."""
    standing: Standing
    kept: tuple[Kept, ...]
    """Entries this job has otherwise than the book."""
    zones: tuple[ZonePlan, ...]
    problems: tuple[Problem, ...]
    totals: Totals
    next: NextAction


def _limit_findings(limits: tuple[DialLimit, ...], laid: Laid, at: str) -> tuple[Finding, ...]:
    names = {p.component.id: p.component.name for p in laid.pours}
    findings = []
    for limit in (x for x in limits if x.crossed):
        share, name = _shares(laid)[limit.component], names[limit.component]
        over = share > limit.most
        bound = f"at most {limit.most:.0%}" if over else f"at least {limit.least:.0%}"
        says = f"{name} is {share:.0%} of the whole; here {bound}."
        at_part = f"{at}/amounts/{limit.component}"
        findings.append(Finding("risky", at_part, says, limit.reason, limit.provenance, "limit"))
    return tuple(findings)


def _shares(laid: Laid) -> dict[str, float]:
    """The share of each component as its recipe is measured: by weight where that is weighed."""
    if laid.recipe.measured_by == "volume":
        return dict(laid.shares)
    whole = sum(p.mass_g for p in laid.pours)
    return {p.component.id: p.mass_g / whole for p in laid.pours}


def _misfit(laid: Laid, surface: str, at: str) -> tuple[Finding, ...]:
    recipe, technique = laid.recipe, laid.technique
    findings = []
    if recipe.surfaces and surface not in recipe.surfaces:
        says = f"{recipe.name} is meant for {' or '.join(recipe.surfaces)}; this ground is {surface}."
        reason = "Its water share and its wet rate were found on other grounds: make a test board first."
        findings.append(Finding("good to know", f"{at}/recipe", says, reason, "rule of the trade"))
    if technique.surfaces and surface not in technique.surfaces:
        says = f"“{technique.name}” is done on {' or '.join(technique.surfaces)}; this ground is {surface}."
        reason = "How much lies on the surface will differ from the estimate."
        findings.append(Finding("good to know", f"{at}/technique", says, reason, "rule of the trade"))
    return tuple(findings)


def can_hurt(zones: Sequence[ZonePlan]) -> tuple[Finding, ...]:
    """What can hurt a person in any of the zones, each once."""
    found: dict[str, Finding] = {}
    for zone in zones:
        for one in zone.findings:
            if one.grade == "can hurt":
                found.setdefault(one.rule, one)
    return tuple(found.values())


def _where(operation: Operation, job: Job) -> str:
    """The JSON pointer of what an operation is for."""
    for i, zone in enumerate(job.zones):
        if zone.id == operation.zone:
            return f"/zones/{i}/layers/{operation.number - 1}" if operation.number else f"/zones/{i}/prep"
    return "/zones/0"


QUESTIONS = {"lead-untested", "asbestos-untested"}
"""What is answered before anybody touches the piece."""


def next_action(made: Work, zones: tuple[ZonePlan, ...]) -> NextAction:
    """What is wrong first, what must be answered and what will fail next; else the first operation of all."""
    if made.problems:
        first = made.problems[0]
        return NextAction(first.says, f"Allowed: {first.allowed}.", first.at)
    every = [(zone.name, found) for zone in zones for found in zone.findings]
    asked = (one for one in every if one[1].rule in QUESTIONS)
    fails = (one for one in every if one[1].grade == "will fail" and one[1].accepted is None)
    if first_of := next(chain(asked, fails), None):
        name, found = first_of
        return NextAction(f"{name}: {found.says}", found.reason, found.at)
    job = made.jobs[0].job
    for i, bare in enumerate(job.zones):
        if not bare.layers:
            return NextAction(f"Choose a mix for {bare.name.lower()}", "Nothing is planned on it yet.", f"/zones/{i}")
    if made.first:
        return _begin_with(made.first, job)
    return NextAction("Choose a mix", "Nothing is planned yet.", "/zones/0")


def _begin_with(one: Operation, job: Job) -> NextAction:
    """The first operation of a job as what is to be done next."""
    if one.amounts is None:
        where = f"{one.zone_name}: " if one.zone_name and len(job.zones) > 1 else ""
        says = f"Prepare: {one.says[:1].lower()}{one.says[1:]}" if one.kind == "prepare" else one.says
        return NextAction(f"{where}{says}", " ".join(one.how), _where(one, job), "steps")
    verb, _, what = one.says.partition(" ")
    verb, what = (verb, what) if verb == "Mix" else ("Pour off", one.says.removeprefix("Pour off "))
    parts = ", ".join(f"{millilitres(p.ml)} {p.name.lower()}" for p in one.amounts.parts)
    says = f"{verb} {millilitres(sum_of(one))} of {what}"
    return NextAction(says, f"{parts}.", _where(one, job), "mix")


def sum_of(mixing: Operation) -> float:
    """What a mixing makes anew, in ml."""
    assert mixing.amounts
    return mixing.amounts.mixed_ml - mixing.amounts.from_last_ml - mixing.amounts.rinse_ml


Served = tuple[tuple[str, Batch, float, float], ...]
"""The coats of a zone: of which layer, from which batch, what it and its like lay, and what of that the coat is."""


def _served(zone: ZoneWork, made: Work, by_id: Mapping[str, Batch], films: Mapping[str, float]) -> Served:
    return tuple(
        (coat.need.layer, by_id[first], films[first], coat.need.film_ml)
        for coat in (*zone.coats, *zone.given)
        for first in made.served.get(coat.need.id, ())[:1]
    )


def _pots(zone: ZoneWork, layer: Layer, served: Served) -> tuple[LayerPot, ...]:
    """The pots a layer is laid from, in the order they are mixed."""
    found: dict[str, tuple[Batch, float, float]] = {}
    for mine, batch, whole, film in served:
        if mine == layer.id:
            _, _, laid = found.get(batch.id, (batch, whole, 0.0))
            found[batch.id] = (batch, whole, laid + film)
    pots = []
    for slug, (batch, whole, laid) in found.items():
        share = laid / whole if whole else 1.0
        of = [u for u in batch.uses if (u.zone, u.layer) != (zone.zone.id, layer.id)]
        own = next((u for u in batch.uses if (u.zone, u.layer) == (zone.zone.id, layer.id)), batch.uses[0])
        label = batch.mix.pot_name
        if not label and len(found) > 1:
            same = own.first_coat == own.last_coat
            label = f"coat {own.first_coat}" if same else f"coats {own.first_coat}–{own.last_coat}"
        others = tuple(dict.fromkeys(f"{u.zone_name}, layer {u.number}" for u in of))
        pots.append(LayerPot(slug, label, batch.of, batch.mix, batch.mix.volume.value * batch.of * share, others))
    return tuple(pots)


def _waited(zone: ZoneWork, index: int, laid: Laid | None, room: Room) -> tuple[float | None, str]:
    """How many hours a layer is left alone, and what takes so long. In a stack that is not wholly known, what it takes
    by itself."""
    if zone.stack is None or not zone.whole:
        minutes = takes_min(laid.left_alone, room) if laid else None
        return None if minutes is None else minutes / 60, ""
    hours, said = zone.stack.shown_h(index), zone.zone.layers[index].wait_h
    kept = said is not None and hours is not None and abs(hours - said) < 1e-6
    last = None if kept or index + 1 == len(zone.stack.laid) else zone.stack.binding(index + 1)
    return hours, last.why if last and last.asked != "recoat" else ""


def _layer_plan(layer: Layer, zone: str, at: str, laid: Laid | None, under: Beneath | None,
                wait: tuple[float | None, str], catalogue: Catalogue) -> LayerPlan:  # fmt: skip
    """All of a layer's plan but its pots."""
    if laid is None or under is None:
        known = catalogue.recipes.get(layer.recipe)
        name = known.name if known else layer.recipe
        return LayerPlan(layer.id, zone, name, (), (), (), "", "#ffffff", None, "", "", (), None)
    over = under.meets[0].film.kind if under.meets else ""
    limits = dial_limits(laid.recipe, under.surface, layer.technique, _shares(laid), over)
    found = (*_limit_findings(limits, laid, at), *_misfit(laid, under.surface, at))
    return LayerPlan(
        layer.id,
        zone,
        laid.base.name,
        (),
        limits,
        found,
        laid.film.name,
        laid.hex,
        *wait,
        laid.film.waits,
        _ways(laid, under, catalogue),
        laid.shares.get(laid.base.dial) if laid.base.dial else None,
    )


def _ways(laid: Laid, under: Beneath, catalogue: Catalogue) -> tuple[str, ...]:
    fits = [
        t.slug
        for t in catalogue.techniques.values()
        if not t.surfaces or under.surface in t.surfaces or t.slug == laid.technique.slug
    ]
    return tuple(sorted(fits, key=lambda slug: slug not in laid.base.techniques))


def _hex(zone: ZoneWork) -> str:
    """What it looks like from afar once all is dry, before any sanding, between what has a layout: an estimate."""
    if zone.stack is None:
        return "#cccccc"
    all_over = tuple(x for x in zone.stack.laid if x.layer.layout is None)
    stack = zone.stack if len(all_over) == len(zone.stack.laid) else replace(zone.stack, laid=all_over)
    return (stack.ground.hex, *Look(stack).colours)[-1]


def _checked(zone: ZoneWork, at: str, has_piece: bool) -> tuple[tuple[Finding, ...], Section | None]:
    if not zone.whole or not has_piece or zone.stack is None:
        return (), None
    findings = check(zone.stack, at)
    return findings, cut(zone.stack, findings)


def _zone_plan(job: JobWork, i: int, zone: ZoneWork, served: Served, room: Room, memo: Memo) -> ZonePlan:
    at, has_piece = f"/zones/{i}", job.job.piece is not None
    place = (job.scope, zone.zone.id)
    findings, section = memo.recall(
        ("checked", *place), (zone, at, has_piece), lambda: _checked(zone, at, has_piece)
    )  # fmt: skip

    def layers() -> tuple[LayerPlan, ...]:
        return tuple(
            _layer_plan(
                layer, zone.zone.id, f"{at}/layers/{j}", laid, under, _waited(zone, j, laid, room), job.catalogue
            )
            for j, (layer, laid, under) in enumerate(zip(zone.zone.layers, zone.laid, zone.under, strict=True))
        )

    seen = memo.recall(("seen", *place), (zone,), lambda: _hex(zone))
    plain = memo.recall(("layers", *place), (zone, at, room), layers)
    done = tuple(replace(x, pots=_pots(zone, layer, served)) for x, layer in zip(plain, zone.zone.layers, strict=True))
    return ZonePlan(zone.zone.id, zone.zone.name, zone.area, done, findings, section, seen)


def plan_of(made: Work, workshop: Workshop, room: Room, memo: Memo) -> Plan:
    """The plan of the first of the jobs that were worked."""
    job = made.jobs[0]
    by_id = {b.id: b for b in made.batches}
    films = {brew.id: sum(c.need.film_ml for c in brew.run.coats) for brew in made.made.brews}
    zones = []
    for i, zone in enumerate(job.zones):
        served = _served(zone, made, by_id, films)
        args = (i, job.job.piece is None, zone, served, job.catalogue, room)
        one = memo.recall(
            ("zone plan", job.scope, zone.zone.id), args, partial(_zone_plan, job, i, zone, served, room, memo)
        )
        zones.append(one)
    return Plan(
        job.job.name,
        workshop.measures,
        job.piece.drawing,
        partition(job.job, job.piece.surfaces),
        job.piece.bands,
        patterns_of(job),
        job.piece.rough,
        job.piece.presumed,
        can_hurt(zones),
        standing_of((z.zone, z.name, found) for z in zones for found in z.findings),
        job.kept,
        tuple(zones),
        made.problems,
        total_up([b.mix for b in made.batches]),
        next_action(made, tuple(zones)),
    )


def plan(job: Job, workshop: Workshop, catalogue: Catalogue, room: Room, memo: Memo | None = None) -> Plan:
    """What the job comes to.

    Never raises for what a person can enter: sizes and names that cannot be used become `problems`, each with
    the place in the job and what is allowed. `room` are the conditions over time, which drying depends on; what is
    remembered in `memo` is not worked out again.
    """
    memo = memo or Memo()
    return plan_of(work(job, workshop, catalogue, room, memo), workshop, room, memo)
