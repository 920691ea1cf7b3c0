"""The plan: what a job comes to. Composes the other modules; Job in, Plan out."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from .areas import Problem, SurfaceArea, measure, partition, zone_area
from .consistency import thickness
from .coverage import film, mix_needed
from .drawing import Drawing
from .errors import InvalidValue, UnknownEntry
from .job import FromArea, FromTotal, Job, Layer, Zone
from .limits import DialLimit, dial_limits
from .materials import Ground, Technique, Tool
from .mix import Bench, Mix, ingredients, mix, pots_of, refuse_crumbs
from .recipes import Pour, Recipe, compose, with_amounts, with_school
from .value import Value
from .working import Figure, tidy
from .workshop import Catalogue, Conditions, Workshop, pick


@dataclass(frozen=True)
class Finding(Value):
    """Something the painter should know about a layer. `at` is a JSON pointer into the job."""

    grade: Literal["will fail", "risky", "know this"]
    at: str
    says: str
    reason: str
    provenance: str


@dataclass(frozen=True)
class LayerPlan(Value):
    """The plan of one layer: a mix for each of its pots, none where a problem stands in its way."""

    layer: str
    zone: str
    name: str
    mixes: tuple[Mix, ...]
    limits: tuple[DialLimit, ...]
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class ZonePlan(Value):
    """A zone's area (None for a quick pot, or where its sizes cannot be used) and its layers."""

    zone: str
    name: str
    area: Figure | None
    layers: tuple[LayerPlan, ...]


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


def _mixes(layer: Layer, recipe: Recipe, pours: tuple[Pour, ...], area: Figure | None, ground: Ground,
           technique: Technique, tool: Tool, catalogue: Catalogue, measures: str) -> tuple[Mix, ...]:  # fmt: skip
    """A mix for each pot of the layer."""
    flow = thickness(ingredients(pours), catalogue.consistencies)
    refuse_crumbs(recipe, flow)
    made = []
    for pot in pots_of(layer):
        needed: Figure | None = None
        if isinstance(layer.want, FromArea) and area is not None:
            touched = layer.touched * pot.share
            on_surface = film(area, technique, ground, layer.coats, touched, layer.thickness_mm)
            needed = mix_needed(on_surface, flow.cling, catalogue.pot_losses, tool, layer.coats, layer.margin)
        bench = Bench(
            catalogue.system(measures),
            catalogue.consistencies,
            catalogue.vessels,
            pot.colours,
            pot.tints,
            pot if layer.pots else None,
        )
        want = layer.want
        if isinstance(want, FromTotal):
            want = FromTotal("total", want.ml * pot.share)
        made.append(mix(recipe, pours, want, needed, bench))
    return tuple(made)


def plan_layer(
    layer: Layer,
    zone: Zone,
    area: Figure | None,
    catalogue: Catalogue,
    measures: str,
    at: str,
    problems: list[Problem],
) -> LayerPlan:
    """Plan one layer of a zone; what cannot be computed is added to `problems`."""
    limits: tuple[DialLimit, ...] = ()
    findings: tuple[Finding, ...] = ()
    made: tuple[Mix, ...] = ()
    name = layer.recipe
    try:
        base = pick("recipe", catalogue.recipes, layer.recipe)
        name = base.name
        recipe = with_amounts(with_school(base, layer.school), layer.amounts)
        ground = pick("ground", catalogue.grounds, zone.ground)
        technique = pick("technique", catalogue.techniques, layer.technique)
        tool = pick("tool", catalogue.tools, layer.tool)
        pours = compose(recipe, catalogue.materials)
        shares = {p.component.id: p.poured_ml for p in pours}
        names = {p.component.id: p.component.name for p in pours}
        limits = dial_limits(recipe, ground.surface, layer.technique, shares)
        findings = _limit_findings(layer, limits, shares, at, names)
        findings += _misfit(layer, recipe.surfaces, technique.surfaces, ground.surface, at, recipe.name, technique.name)
        over = sum(pot.share for pot in layer.pots) - 1
        if over > 1e-6:
            says = f"The pots of {name} cover {1 + over:.0%} of the surface."
            problems.append(Problem(f"{at}/pots", says, "shares that come to at most 100 %"))
        elif area is not None or not isinstance(layer.want, FromArea):
            made = _mixes(layer, recipe, pours, area, ground, technique, tool, catalogue, measures)
    except InvalidValue as error:
        problems.append(Problem(f"{at}/{error.field}".rstrip("/"), error.says, error.allowed))
    except UnknownEntry as error:
        field = error.noun if error.noun in {"recipe", "technique", "tool"} else "recipe"
        where = f"{at.rsplit('/layers', 1)[0]}/ground" if error.noun == "ground" else f"{at}/{field}"
        problems.append(Problem(where, f"There is no {error.noun} called {error.slug!r}.", ", ".join(error.known)))
    return LayerPlan(layer.id, zone.id, name, made, limits, findings)


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
    for i, zone in enumerate(zones):
        for j, layer in enumerate(zone.layers):
            if layer.mixes:
                first = layer.mixes[0]
                pot = f", {first.pot_name}" if first.pot_name else ""
                says = f"Mix {tidy(first.volume.value)} ml of {layer.name.lower()}{pot}"
                parts = ", ".join(f"{tidy(p.poured.value)} ml {p.name.lower()}" for p in first.parts)
                return NextAction(says, f"{parts}.", f"/zones/{i}/layers/{j}")
        if not zone.layers:
            return NextAction(f"Choose a mix for {zone.name.lower()}", "Nothing is planned on it yet.", f"/zones/{i}")
    return NextAction("Choose a mix", "Nothing is planned yet.", "/zones/0")


def plan(job: Job, workshop: Workshop, catalogue: Catalogue, conditions: Conditions) -> Plan:
    """What the job comes to.

    Never raises for what a person can enter: sizes and names that cannot be used become `problems`, each with
    the place in the job and what is allowed. `conditions` is the room; this version's numbers do not depend
    on it yet.
    """
    known = catalogue.with_entries(job.entries).with_workshop(workshop)
    problems: list[Problem] = []
    piece = measure(job, problems)
    surfaces = partition(job, piece.surfaces, problems)
    zones = []
    for i, zone in enumerate(job.zones):
        at = f"/zones/{i}"
        area: Figure | None = None
        if job.piece is not None and piece.surfaces:
            area = zone_area(zone, job.piece, piece.surfaces, known, at, problems)
        if job.piece is None:
            for j, layer in enumerate(zone.layers):
                if isinstance(layer.want, FromArea):
                    says = "An amount by area needs a piece to take it from."
                    problems.append(Problem(f"{at}/layers/{j}/want", says, "a total, a part or a vessel"))
        layers = tuple(
            plan_layer(layer, zone, area, known, workshop.measures, f"{at}/layers/{j}", problems)
            for j, layer in enumerate(zone.layers)
        )
        zones.append(ZonePlan(zone.id, zone.name, area, layers))
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
        _next(job, done, problems),
    )
