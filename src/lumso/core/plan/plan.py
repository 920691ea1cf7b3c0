"""The plan: what a job comes to. Composes the other modules; Job in, Plan out."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ..book.catalogue import Catalogue, pick
from ..book.materials import Consistency, PotLoss, Vessel
from ..book.surfaces import Ground
from ..checks import check
from ..checks.findings import Finding
from ..errors import InvalidValue, Problem, UnknownEntry
from ..figure import Figure, tidy
from ..job.areas import SurfaceArea, measure, partition, zone_area
from ..job.job import FromArea, FromTotal, Job, Layer, Use, Zone
from ..layers.conditions import Conditions
from ..layers.coverage import film, label_rate, mix_needed
from ..layers.drying import takes_min
from ..layers.stack import Laid, Stack, lay
from ..measure.drawing import Drawing
from ..measure.measures import MeasureSystem
from ..memory import remembered
from ..mixing.limits import DialLimit, dial_limits
from ..mixing.mix import Bench, Mix, mix, pots_of, refuse_crumbs
from ..mixing.totals import Totals, total_up
from ..piece.kinds import Surface
from ..value import Value
from ..workshop.known import known_to
from ..workshop.workshop import Workshop
from .section import Section, cut


@dataclass(frozen=True)
class LayerPlan(Value):
    """The plan of one layer: a mix for each of its pots, none where a problem stands in its way."""

    layer: str
    zone: str
    name: str
    mixes: tuple[Mix, ...]
    limits: tuple[DialLimit, ...]
    findings: tuple[Finding, ...]
    film: str
    hex: str
    wait_h: float | None
    """Hours until the next coat; None where nobody knows: read the label."""
    waits: str
    """What ready for the next coat looks like."""


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


@dataclass(frozen=True)
class NextAction(Value):
    """What to do next, and where in the job that is (a JSON pointer)."""

    says: str
    detail: str
    at: str


@dataclass(frozen=True)
class Plan(Value):
    """Everything a job comes to, with its working attached."""

    name: str
    measures: str
    drawing: Drawing | None
    surfaces: tuple[SurfaceArea, ...]
    """Every surface of the piece, with the zone that coats it or why it is left out."""
    rough: float
    """How far areas and amounts may be off because sizes were not measured: 0.25 is a quarter either way."""
    cautions: tuple[Finding, ...]
    """What must be seen to before any work on the old finish."""
    zones: tuple[ZonePlan, ...]
    problems: tuple[Problem, ...]
    totals: Totals
    next: NextAction


def _limit_findings(layer: Layer, limits: tuple[DialLimit, ...], shares: Mapping[str, float], at: str,
                    names: Mapping[str, str]) -> tuple[Finding, ...]:  # fmt: skip
    findings = []
    for limit in (x for x in limits if x.crossed):
        share, name = shares[limit.component], names[limit.component]
        over = share > limit.most
        bound = f"at most {limit.most:.0%}" if over else f"at least {limit.least:.0%}"
        says = f"{name} is {share:.0%} of the whole; here {bound}."
        findings.append(Finding("risky", f"{at}/amounts/{limit.component}", says, limit.reason, limit.provenance))
    return tuple(findings)


def _misfit(layer: Layer, recipe_surfaces: tuple[str, ...], technique_surfaces: tuple[str, ...],
            surface: str, at: str, recipe: str, technique: str) -> tuple[Finding, ...]:  # fmt: skip
    findings = []
    if recipe_surfaces and surface not in recipe_surfaces:
        says = f"{recipe} is meant for {' or '.join(recipe_surfaces)}; this ground is {surface}."
        reason = "Its water share and its wet rate were found on other grounds: make a test board first."
        findings.append(Finding("know this", f"{at}/recipe", says, reason, "rule of the trade"))
    if technique_surfaces and surface not in technique_surfaces:
        says = f"“{technique}” is done on {' or '.join(technique_surfaces)}; this ground is {surface}."
        reason = "How much lies on the surface will differ from the estimate."
        findings.append(Finding("know this", f"{at}/technique", says, reason, "rule of the trade"))
    return tuple(findings)


@remembered(2000)
def _mixes(laid: Laid, area: Figure | None, ground: Ground, losses: Mapping[str, PotLoss], system: MeasureSystem,
           scale: tuple[Consistency, ...], vessels: tuple[Vessel, ...]) -> tuple[Mix, ...]:  # fmt: skip
    """A mix for each pot of the layer."""
    layer = laid.layer
    refuse_crumbs(laid.recipe, laid.flow)
    made = []
    for pot in pots_of(layer):
        needed: Figure | None = None
        if isinstance(layer.want, FromArea) and area is not None:
            touched = layer.touched * pot.share
            rate = label_rate(laid.pours, laid.technique)
            on_surface = film(area, laid.technique, ground, layer.coats, touched, layer.thickness_mm, rate)
            needed = mix_needed(on_surface, laid.flow.cling, losses, laid.tool, layer.coats, layer.margin)
        bench = Bench(system, scale, vessels, pot.colours, pot.tints, pot if layer.pots else None)
        want = layer.want
        if isinstance(want, FromTotal):
            want = FromTotal("total", want.ml * pot.share)
        made.append(mix(laid.recipe, laid.pours, want, needed, bench, laid.flow))
    return tuple(made)


@dataclass(frozen=True)
class _Planned:
    """A layer's plan and, where it could be composed, the layer as the checker reads it."""

    plan: LayerPlan
    laid: Laid | None


def _under(zone: Zone, below: Sequence[_Planned], catalogue: Catalogue) -> str:
    """The kind of surface the layers beneath make of the ground: a closed film, or the wood a wash has only tinted."""
    laid = [one.laid for one in below if one.laid]
    if any(one.closes for one in laid):
        return "sealed"
    ground = catalogue.grounds.get(zone.ground)
    tinted = all(one.film.kind in {"wash", "patina"} for one in laid)
    return ground.surface if ground and tinted and ground.surface == "raw wood" else "unsealed paint"


def _waiting(laid: Laid, conditions: Conditions) -> float | None:
    """Hours until the next coat, as said, else as soon as it may follow; None is unknown."""
    if laid.layer.wait_h is not None:
        return laid.layer.wait_h
    room = (conditions.temperature_c, conditions.humidity)
    minutes = takes_min(laid.film.times.recoat_from, laid.film, laid.wet_um, *room)
    return None if minutes is None else minutes / 60


def plan_layer(
    layer: Layer,
    zone: Zone,
    under: str | None,
    area: Figure | None,
    catalogue: Catalogue,
    measures: str,
    conditions: Conditions,
    at: str,
    problems: list[Problem],
) -> _Planned:
    """Plan one layer of a zone; what cannot be computed is added to `problems`.

    `under` is the kind of surface the layers beneath have made of the ground; None for the lowest, which is the
    only one the ground itself drinks from.
    """
    limits: tuple[DialLimit, ...] = ()
    findings: tuple[Finding, ...] = ()
    made: tuple[Mix, ...] = ()
    name = layer.recipe
    laid: Laid | None = None
    try:
        name = pick("recipe", catalogue.recipes, layer.recipe).name
        ground = pick("ground", catalogue.grounds, zone.ground)
        laid = lay(layer, catalogue)
        surface = ground.surface if under is None else under
        names = {p.component.id: p.component.name for p in laid.pours}
        limits = dial_limits(laid.recipe, surface, layer.technique, dict(laid.shares))
        findings = _limit_findings(layer, limits, laid.shares, at, names)
        recipe, technique = laid.recipe, laid.technique
        findings += _misfit(layer, recipe.surfaces, technique.surfaces, surface, at, recipe.name, technique.name)
        over = sum(pot.share for pot in layer.pots) - 1
        if over > 1e-6:
            says = f"The pots of {name} cover {1 + over:.0%} of the surface."
            problems.append(Problem(f"{at}/pots", says, "shares that come to at most 100 %"))
        elif area is not None or not isinstance(layer.want, FromArea):
            thirst = ground if under is None else replace(ground, first_coat_extra_ml_per_m2=0.0)
            system = catalogue.system(measures)
            made = _mixes((zone.id, layer.id), laid, area, thirst, catalogue.pot_losses, system,
                          catalogue.consistencies, catalogue.vessels)  # fmt: skip
    except InvalidValue as error:
        problems.append(Problem(f"{at}/{error.field}".rstrip("/"), error.says, error.allowed))
        laid = None
    except UnknownEntry as error:
        field = error.noun if error.noun in {"recipe", "technique", "tool"} else "recipe"
        where = f"{at.rsplit('/layers', 1)[0]}/ground" if error.noun == "ground" else f"{at}/{field}"
        problems.append(Problem(where, f"There is no {error.noun} called {error.slug!r}.", ", ".join(error.known)))
        laid = None
    return _Planned(
        LayerPlan(
            layer.id,
            zone.id,
            name,
            made,
            limits,
            findings,
            laid.film.name if laid else "",
            laid.hex if laid else "#ffffff",
            _waiting(laid, conditions) if laid else None,
            laid.film.waits if laid else "",
        ),
        laid,
    )


def stack_of(zone: Zone, use: Use, surfaces: tuple[Surface, ...], laid: tuple[Laid, ...], catalogue: Catalogue,
             conditions: Conditions) -> Stack | None:  # fmt: skip
    """The zone as the checker reads it; None for a ground nobody knows."""
    if zone.ground not in catalogue.grounds:
        return None
    return Stack(zone, catalogue.grounds[zone.ground], use, surfaces, conditions, laid, catalogue)


LEAD = (
    "No date clears it, untested is suspect: test for lead before any sanding, scraping or heat. Until then no dry "
    "abrasion, no torch, no household vacuum; children and pregnant people away. Follow local rules, and licensed "
    "help where they ask for it. Old textured coatings may hold asbestos: have them tested first too."
)
FLAKING = (
    "Flaking paint sheds dust by itself: damp it down, lay sheets, do not sweep dry. What holds today may lift under "
    "a new coat: scrape to a sound edge once the lead question is answered."
)


def old_finish_cautions(job: Job) -> tuple[Finding, ...]:
    """What must be seen to before an old finish is touched."""
    found = []
    if job.use.old_finish != "none":
        age = job.use.old_finish
        says = f"Old finish {age}: test for lead first."
        found.append(Finding("risky", "/use/old_finish", says, LEAD, "rule of the trade; local rules come first"))
    for i, zone in enumerate(job.zones):
        if zone.condition == "flaking":
            says = f"{zone.name} is flaking."
            found.append(Finding("risky", f"/zones/{i}/condition", says, FLAKING, "rule of the trade"))
    return tuple(found)


def _next(job: Job, zones: tuple[ZonePlan, ...], problems: list[Problem]) -> NextAction:
    if problems:
        return NextAction(problems[0].says, f"Allowed: {problems[0].allowed}.", problems[0].at)
    for zone in zones:
        for found in zone.findings:
            if found.grade == "will fail" and found.accepted is None:
                return NextAction(f"{zone.name}: {found.says}", found.reason, found.at)
    for i, zone in enumerate(zones):
        for j, layer in enumerate(zone.layers):
            if layer.mixes:
                first = layer.mixes[0]
                pot = f", {first.pot_name}" if first.pot_name else ""
                says = f"Mix {tidy(first.volume.value)} ml of {layer.name.removesuffix(', as bought').lower()}{pot}"
                parts = ", ".join(f"{tidy(p.poured.value)} ml {p.name.lower()}" for p in first.parts)
                return NextAction(says, f"{parts}.", f"/zones/{i}/layers/{j}")
        if not zone.layers:
            return NextAction(f"Choose a mix for {zone.name.lower()}", "Nothing is planned on it yet.", f"/zones/{i}")
    return NextAction("Choose a mix", "Nothing is planned yet.", "/zones/0")


@remembered(200)
def _plan_zone(
    zone: Zone,
    at: str,
    area: Figure | None,
    surfaces: tuple[Surface, ...] | None,
    use: Use,
    catalogue: Catalogue,
    measures: str,
    conditions: Conditions,
) -> tuple[ZonePlan, tuple[Problem, ...]]:
    """A zone's layers, what the checker finds and its section, with what cannot be computed.

    `surfaces` are those of the piece it coats, None for a quick pot, which has nothing to be checked on.
    """
    problems: list[Problem] = []
    layers: list[_Planned] = []
    for j, layer in enumerate(zone.layers):
        if surfaces is None and isinstance(layer.want, FromArea):
            says = "An amount by area needs a piece to take it from."
            problems.append(Problem(f"{at}/layers/{j}/want", says, "a total, a part or a vessel"))
        under = _under(zone, layers, catalogue) if j else None
        where = f"{at}/layers/{j}"
        layers.append(plan_layer(layer, zone, under, area, catalogue, measures, conditions, where, problems))
    laid = tuple(one.laid for one in layers if one.laid)
    findings: tuple[Finding, ...] = ()
    section: Section | None = None
    if surfaces is not None and len(laid) == len(layers):
        stack = stack_of(zone, use, surfaces, laid, catalogue, conditions)
        if stack:
            findings = check(stack, at)
            section = cut(stack, findings)
    made = ZonePlan(zone.id, zone.name, area, tuple(x.plan for x in layers), findings, section)
    return made, tuple(problems)


def stacks(job: Job, workshop: Workshop, catalogue: Catalogue, conditions: Conditions) -> tuple[Stack | None, ...]:
    """Each zone as the checker reads it; None where something in it cannot be looked up or composed."""
    known = known_to(workshop, catalogue, job.entries)
    surfaces = measure(job, []).surfaces
    found: list[Stack | None] = []
    for zone in job.zones:
        try:
            laid = tuple(lay(layer, known) for layer in zone.layers)
        except (InvalidValue, UnknownEntry):
            found.append(None)
            continue
        mine = tuple(surfaces[s] for s in zone.surfaces if s in surfaces)
        found.append(stack_of(zone, job.use, mine, laid, known, conditions))
    return tuple(found)


def plan(job: Job, workshop: Workshop, catalogue: Catalogue, conditions: Conditions) -> Plan:
    """What the job comes to.

    Never raises for what a person can enter: sizes and names that cannot be used become `problems`, each with
    the place in the job and what is allowed. `conditions` is the room, which drying depends on.
    """
    known = known_to(workshop, catalogue, job.entries)
    problems: list[Problem] = []
    piece = measure(job, problems)
    surfaces = partition(job, piece.surfaces, problems)
    zones = []
    for i, zone in enumerate(job.zones):
        at = f"/zones/{i}"
        area: Figure | None = None
        mine: tuple[Surface, ...] | None = None
        if job.piece is not None:
            mine = tuple(piece.surfaces[s] for s in zone.surfaces if s in piece.surfaces)
            if piece.surfaces:
                area = zone_area(zone, job.piece, piece.surfaces, known, at, problems)
        made, found = _plan_zone(zone.id, zone, at, area, mine, job.use, known, workshop.measures, conditions)
        problems += found
        zones.append(made)
    done = tuple(zones)
    return Plan(
        job.name,
        workshop.measures,
        piece.drawing,
        surfaces,
        piece.rough,
        old_finish_cautions(job),
        done,
        tuple(problems),
        total_up([mix for zone in done for layer in zone.layers for mix in layer.mixes]),
        _next(job, done, problems),
    )
