"""Any job, worked out, satisfies an independent checker; and its views print what its operations say."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.book.colours import Colour, Pot, Tint
from lumso.core.book.preparation import Sanding
from lumso.core.job.entries import embed
from lumso.core.job.job import FromTotal, Job, Layer, Zone, new_job
from lumso.core.job.start import start_layer
from lumso.core.layers.conditions import steady
from lumso.core.measure.lengths import Length
from lumso.core.memory import Memo
from lumso.core.piece.piece import Piece
from lumso.core.plan.plan import plan_of
from lumso.core.work.order_file import OrderFile, order_file
from lumso.core.work.sheet import sheet_of
from lumso.core.work.steps import steps_of
from lumso.core.work.work import Work, work
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from lumso.formats.jobfile import to_json
from lumso.formats.validators import adapter
from tests.counts import examples

from .checker import Checker

C = shipped()
ORDER = adapter(OrderFile)
JOBS = {job.name: job for job in demo_jobs()}


def by_slug(entries: Any) -> dict[str, Any]:
    return {slug: json.loads(adapter(type(e)).dump_json(e)) for slug, e in entries.items()}


DATA = {kind: by_slug(getattr(C, kind)) for kind in
        ("techniques", "grounds", "recipes", "materials", "tools", "pot_losses", "films")}  # fmt: skip


def order_of(made: Work) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(ORDER.dump_json(order_file(made)))
    return document


def faults(job: Job, made: Work, room: tuple[float, float]) -> list[str]:
    return Checker(json.loads(to_json(job)), DATA, order_of(made), room).faults()


RECIPES = sorted(s for s, r in C.recipes.items() if r.film)
ROOMS = st.sampled_from([(20.0, 0.5), (28.0, 0.35), (12.0, 0.75), (16.0, 0.6)])
GRITS = st.lists(
    st.sampled_from([Sanding(220, "soften"), Sanding(120, "bite"), Sanding(320, "between clear coats")]), max_size=2
).map(tuple)
PAINTS = (Tint("soot", "#222222", 1), Tint("lime", "#eeeeee", 3))


@st.composite
def layers(draw: st.DrawFn, ground: str) -> Layer:
    recipe = C.recipes[draw(st.sampled_from(RECIPES))]
    made = start_layer("?", recipe.slug, ground, C)
    technique = C.techniques[draw(st.sampled_from(recipe.techniques))]
    paint = next((c.id for c in recipe.components if c.role in {"paint", "pigment"}), recipe.components[0].id)
    pots: tuple[Pot, ...] = ()
    if draw(st.integers(0, 4)) == 0:
        pots = (Pot("a", "dark", 0.5, {paint: Colour("soot", "#222222")}), Pot("b", "pale", 0.4, {}, {paint: PAINTS}))
    want = FromTotal("total", draw(st.floats(5, 900))) if draw(st.integers(0, 9)) == 0 else made.want
    return Layer(
        "?", recipe.slug, technique.slug, draw(st.sampled_from(technique.tools)), want,
        coats=draw(st.integers(1, 3)), margin=draw(st.sampled_from([0.0, 0.1, 0.25])),
        touched=draw(st.sampled_from([technique.touched, 1.0, 0.3])),
        thickness_mm=draw(st.sampled_from([0.3, 1.0, 2.0])), pots=pots,
        wait_h=draw(st.sampled_from([None, None, 0.0, 0.5, 12.0, 48.0])), sandings=draw(GRITS),
    )  # fmt: skip


@st.composite
def jobs(draw: st.DrawFn) -> Job:
    """A chest of drawers in up to four zones of up to four layers, on any ground."""
    zones = []
    surfaces = ("top", "sides", "fronts", "plinth")
    sizes = {"width": 900.0, "height": 1000.0, "depth": 450.0}
    scale = draw(st.sampled_from([1.0, 1.0, 2.0]))
    for n in range(draw(st.integers(1, 4))):
        ground = draw(st.sampled_from(sorted(C.grounds)))
        prep = draw(st.lists(st.sampled_from(["sanded-180", "grain-raised", "dusted", "holes-filled"]), unique=True))
        stack = [draw(layers(ground)) for _ in range(draw(st.integers(0, 4)))]
        named = tuple(
            Layer(**{**{f: getattr(x, f) for f in x.__dataclass_fields__}, "id": f"l{n}{k}"})
            for k, x in enumerate(stack)
        )
        zones.append(Zone(f"z{n}", f"Zone {n}", ground, (surfaces[n],), named, prep=tuple(prep)))
    lengths = {slug: Length(mm * scale, f"{mm * scale:g} mm") for slug, mm in sizes.items()}
    return new_job("Any job", tuple(zones), Piece("chest-of-drawers", lengths, rough="medium"))


@examples("any work")
@given(jobs(), ROOMS)
def test_any_job_satisfies_the_checker(job: Job, room: tuple[float, float]) -> None:
    made = work(job, Workshop(), C, steady(*room))
    unbatched = any("cannot be batched" in p.says for p in made.problems)
    found = faults(job, made, room)
    assert [f for f in found if not (unbatched and "laid" in f)] == []


@pytest.mark.parametrize("room", [(20.0, 0.5), (12.0, 0.75)])
@pytest.mark.parametrize("name", sorted(JOBS))
def test_the_jobs_of_the_loft_satisfy_the_checker(name: str, room: tuple[float, float]) -> None:
    job = embed(JOBS[name], C)
    made = work(job, Workshop(), C, steady(*room))
    assert made.problems == ()
    assert made.missed == ()
    assert faults(made.jobs[0].job, made, room) == []  # with the shares of its layouts


@examples("any work")
@given(jobs())
def test_what_each_view_prints_is_in_the_operations(job: Job) -> None:
    room = steady()
    made = work(job, Workshop(), C, room)
    mixed = {o.batch: o.amounts for o in made.operations if o.kind == "mix" and o.amounts}
    steps = steps_of(made, room)
    assert [s.operation for s in steps.steps] == list(made.operations)
    sheet = sheet_of(made, room, 2500)
    assert {b.id: b.mix.volume.value for b in sheet.batches} == pytest.approx({b: a.mixed_ml for b, a in mixed.items()})
    planned = plan_of(made, Workshop(), room, Memo())
    pots = [p for z in planned.zones for x in z.layers for p in x.pots]
    assert sum(p.ml for p in pots) == pytest.approx(sum(a.mixed_ml for a in mixed.values()))
    assert sum(t.ml for t in planned.totals.mixes) == pytest.approx(sum(a.mixed_ml for a in mixed.values()))
    for pot in pots:
        assert [(p.component, p.ml) for p in mixed[pot.batch].parts] == [
            (p.component, p.poured.value) for p in pot.mix.parts
        ]


@examples("any work")
@given(jobs(), st.integers(0, 3))
def test_ids_come_from_what_an_operation_is_for_and_stay_when_others_go(job: Job, number: int) -> None:
    def lays(of: Job) -> set[str]:
        return {o.id for o in work(of, Workshop(), C, steady()).operations if o.kind in {"prepare", "sand", "refit"}}

    zone = job.zones[min(number, len(job.zones) - 1)]
    fewer = Job(job.format, job.version, job.name, tuple(z for z in job.zones if z is not zone) or (zone,), job.piece)
    kept = {i for i in lays(job) if not i.startswith(f"{zone.id}:")} if len(job.zones) > 1 else lays(job)
    assert kept - {"refit"} <= lays(fewer)
