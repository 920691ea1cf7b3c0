"""The checker on practised work: it is quiet about what good painters do, and speaks where one fact makes it wrong."""

from collections.abc import Callable
from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.book.colours import Colour
from lumso.core.book.preparation import Sanding
from lumso.core.checks.findings import Finding
from lumso.core.job.entries import embed
from lumso.core.job.job import Answered, Job, Layer, Place
from lumso.core.layers.conditions import steady
from lumso.core.plan.plan import Plan, plan
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop

from .core.checks.stacks import layer
from .practised import PRACTICE, Practice

C, W, ROOM = shipped(), Workshop(), steady()
QUIET = {"good to know", "can hurt"}

each = pytest.mark.parametrize("practice", PRACTICE, ids=lambda p: p.slug)


def planned(job: Job) -> Plan:
    made = plan(embed(job, C), W, C, ROOM)
    assert made.problems == ()
    return made


def findings(made: Plan) -> list[Finding]:
    return [*made.cautions, *(f for z in made.zones for f in (*z.findings, *(x for y in z.layers for x in y.findings)))]


def rules(made: Plan) -> set[str]:
    return {f.rule for f in findings(made)}


def alarms(made: Plan) -> set[str]:
    return {f"{f.rule}: {f.says}" for f in findings(made) if f.grade not in QUIET and f.accepted is None}


@each
def test_a_practised_job_raises_no_alarm(practice: Practice) -> None:
    made = planned(practice.sound)
    assert alarms(made) == set()
    assert not {f.rule for f in findings(made) if f.grade == "can hurt"}
    assert set(practice.says) <= rules(made)
    assert not set(practice.does_not_say) & {f.rule for f in findings(made) if f.accepted is None}


@each
def test_one_fact_makes_it_dangerous_and_that_is_said(practice: Practice) -> None:
    assert set(practice.warns) <= rules(planned(practice.danger))


@each
def test_nothing_that_does_not_matter_silences_a_danger(practice: Practice) -> None:
    job = practice.danger
    first = job.zones[0]
    other = replace(first, id="other", name="Other", surfaces=(), layers=())
    renamed = tuple(
        replace(x, colours={k: Colour("called otherwise", c.hex) for k, c in x.colours.items()}) for x in first.layers
    )
    harmless = replace(first, layers=(*first.layers, layer("paint-plain", "dry-brushed", wait=48, id="harmless")))
    top = {"one-thin-sealer", "wet-cups", "sands-last-clear", "feet"}  # what is judged by what lies on top
    kept = set(practice.warns) - top
    made = plan(embed(replace(job, zones=(harmless, *job.zones[1:])), C), W, C, ROOM)
    assert kept <= rules(made)
    for changed in (
        replace(job, zones=(replace(first, layers=renamed), *job.zones[1:])),
        replace(job, name="Called otherwise"),
        replace(job, zones=(replace(first, name="Called otherwise"), *job.zones[1:])),
        replace(job, zones=(*job.zones, other)),
        replace(job, zones=(other, *job.zones)),
    ):
        made = plan(embed(changed, C), W, C, ROOM)
        assert set(practice.warns) <= rules(made)


def with_layers(job: Job, *layers: Layer, first: bool = False) -> Job:
    """The job with layers beneath all others of its first zone, or on top."""
    zone = job.zones[0]
    stack = (*layers, *zone.layers) if first else (*zone.layers, *layers)
    return replace(job, zones=(replace(zone, layers=stack), *job.zones[1:]))


def at(job: Job, *places: Place) -> Job:
    return replace(job, use=replace(job.use, place=places))


def sanded(job: Job, sand: Sanding) -> Job:
    zone = job.zones[0]
    first = replace(zone.layers[0], sandings=(*zone.layers[0].sandings, sand))
    painted = layer("paint-plain", id="above")
    return replace(job, zones=(replace(zone, layers=(first, painted, *zone.layers[1:])), *job.zones[1:]))


DANGERS: dict[str, Callable[[Job], Job]] = {
    "lead-untested": lambda job: replace(
        job,
        zones=tuple(replace(z, ground="old-matt") for z in job.zones),
        use=replace(job.use, lead=Answered("test planned")),
    ),
    "asbestos-untested": lambda job: replace(
        job,
        zones=tuple(replace(z, facts=("textured old coating",)) for z in job.zones),
        use=replace(job.use, asbestos=Answered("not tested")),
    ),
    "water-over-wax": lambda job: with_layers(
        job, layer("clear-wax-plain", id="wax"), layer("colour-wash", "wash-wiped", id="wash")
    ),
    "recoat-too-soon": lambda job: with_layers(
        job, layer("paint-plain", wait=0.1, id="under"), layer("paint-plain", id="over")
    ),
    "forced-drying": lambda job: with_layers(job, layer("oil-wax-plain", dries_by="heat gun", id="oil")),
    "cracks-thick": lambda job: with_layers(job, layer("salt-wash", "stippled", thickness_mm=6.0, id="thick")),
    "steel-wool": lambda job: sanded(job, Sanding(800, "polish", "steel wool")),
    "rotating-work": lambda job: at(job, "turned on a lathe"),
    "kitchen-tools": lambda job: at(job, "kitchen tools in use"),
    "ladder": lambda job: at(job, "reached by ladder"),
    "food": lambda job: replace(job, use=replace(job.use, touched_by=("food",))),
}


@pytest.mark.parametrize("danger", sorted(DANGERS))
@each
def test_any_danger_is_seen_in_any_sound_work(practice: Practice, danger: str) -> None:
    assert danger in rules(plan(embed(DANGERS[danger](practice.sound), C), W, C, ROOM))


@pytest.mark.parametrize("practice", [p for p in PRACTICE if p.at_step], ids=lambda p: p.slug)
def test_the_danger_is_named_at_its_step(practice: Practice) -> None:
    assert practice.at_step
    kind, word = practice.at_step
    operations = work(embed(practice.danger, C), W, C, ROOM).operations
    told = [" ".join((*o.take_care, *o.remember)).lower() for o in operations if o.kind == kind]
    assert any(word in text for text in told)
    calm = work(embed(practice.sound, C), W, C, ROOM).operations
    assert not any(word in " ".join((*o.take_care, *o.remember)).lower() for o in calm if o.kind == kind)


@pytest.mark.parametrize("practice", [p for p in PRACTICE if p.wait_h], ids=lambda p: p.slug)
def test_it_waits_as_long_as_painters_do(practice: Practice) -> None:
    waits = {x.layer: x.wait_h for z in planned(practice.sound).zones for x in z.layers}
    for slug, (least, most) in practice.wait_h.items():
        assert least <= (waits[slug] or 0.0) <= most


@pytest.mark.parametrize("practice", [p for p in PRACTICE if p.amount_ml], ids=lambda p: p.slug)
def test_it_takes_what_painters_take(practice: Practice) -> None:
    films: dict[str, float] = {}
    for operation in work(embed(practice.sound, C), W, C, ROOM).operations:
        if operation.kind == "lay":
            films[operation.layer] = films.get(operation.layer, 0.0) + operation.film_ml
    for slug, (least, most) in practice.amount_ml.items():
        assert least <= films[slug] <= most
