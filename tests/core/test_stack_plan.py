"""Planning a whole stack: waits, findings, totals, the section, and remembering what did not change."""

from dataclasses import replace
from itertools import count

import numpy as np
import pytest

from lumso.catalogue import shipped
from lumso.core.book.films import SIGNS, film_slug
from lumso.core.changes.change import (
    AddPrep,
    DropPrep,
    InsertLayer,
    MoveLayer,
    RemoveLayer,
    SetLayer,
    SetShare,
    SortPrep,
    SwapRecipe,
    apply,
)
from lumso.core.changes.what_if import WhatIf
from lumso.core.checks.findings import GRADES
from lumso.core.colour.hiding import class_of, coats_to_cover, per_coat, scattering_from_hiding
from lumso.core.colour.kubelka_munk import film
from lumso.core.colour.srgb import lightness
from lumso.core.errors import InvalidValue, UnknownEntry
from lumso.core.job.job import Acceptance, Job
from lumso.core.layers.conditions import steady
from lumso.core.memory import Memo
from lumso.core.plan.plan import plan
from lumso.core.plan.section import film_height, wait_height
from lumso.core.work import zone as one_zone
from lumso.core.work.sheet import mix_sheet
from lumso.core.workshop.shelf import Overlay, ShelfItem
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from tests.conftest import planned
from tests.core.checks.stacks import layer, stack

C = shipped()
JOBS = {job.name: job for job in demo_jobs()}


def with_stack(job: Job, *layers: object, **zone: object) -> Job:
    """The job with the first zone's layers replaced; they get ids of their own."""
    laid = tuple(replace(x if not isinstance(x, str) else layer(x), id=f"l{i}") for i, x in enumerate(layers, 1))  # type: ignore[type-var]
    return replace(job, zones=(replace(job.zones[0], layers=laid, **zone), *job.zones[1:]))  # type: ignore[arg-type]


def test_only_the_lowest_layer_is_drunk_by_the_ground(rack: Job) -> None:
    # 0.56 m² of raw pine: 0.56·(75+20) on the first coat of the lowest layer, 0.56·75 on the next layer.
    made = planned(with_stack(rack, "paint-plain", "paint-plain", accepted=()))
    # As bought it comes from one tin, whose working shows both.
    (low,), (high,) = (x.pots for x in made.zones[0].layers)
    assert low.batch == high.batch
    on = {s.name: s.value for s in low.mix.volume.steps if s.name.startswith("On rack board")}
    assert on == {
        "On rack board, layer 1": pytest.approx(0.56 * 95),
        "On rack board, layer 2": pytest.approx(0.56 * 75),
    }
    assert low.ml / high.ml == pytest.approx(95 / 75)


@pytest.mark.parametrize(
    ("beneath", "says"),
    [("clear-coat-plain", "sealed"), ("paint-plain", "unsealed paint")],
)
def test_limits_follow_what_the_layers_beneath_made_of_the_ground(rack: Job, beneath: str, says: str) -> None:
    made = planned(with_stack(rack, beneath, layer("colour-wash", share=("water", 0.65))))
    crossed = [x for x in made.zones[0].layers[1].limits if x.crossed]
    assert bool(crossed) == (says == "unsealed paint")


def test_waits_are_said_or_taken_from_the_film_in_this_room(rack: Job) -> None:
    job = with_stack(rack, layer("paint-plain", wait=None), layer("paint-plain", wait=36))
    warm = plan(job, Workshop(), C, steady(28, 0.35)).zones[0].layers
    cold = plan(job, Workshop(), C, steady(12, 0.75)).zones[0].layers
    assert warm[0].wait_h == pytest.approx(2 * 0.476, rel=0.003)
    assert cold[0].wait_h == pytest.approx(2 * 3.33, rel=0.003)
    assert warm[1].wait_h == cold[1].wait_h == 36


def test_a_labels_spreading_rate_counts_for_an_even_coat_of_that_paint(rack: Job) -> None:
    label = Overlay("label_rate_ml_per_m2", 100.0, "label", "2026-11-25")
    shelf = (ShelfItem("matt-paint", overlays=(label,)),)
    job = with_stack(rack, "paint-plain", layer("paint-plain", "dry-brushed"), "colour-wash")
    rates = [
        next(s for s in x.pots[0].mix.volume.steps if s.name == "Wet rate")
        for x in plan(job, Workshop(shelf=shelf), C, steady()).zones[0].layers
    ]
    assert [(r.value, r.source) for r in rates] == [
        (100, "label"),
        (25, "starting value"),
        (45, "starting value"),
    ]


def test_what_was_accepted_stays_in_the_list_with_its_reason(rack: Job) -> None:
    plain = with_stack(rack, layer("clear-wax-plain"), "colour-wash")
    (found,) = [f for f in planned(plain).zones[0].findings if f.rule == "water-over-wax"]
    assert (found.grade, found.below, found.above, found.accepted) == ("will fail", "l1", "l2", None)
    assert found.at == "/zones/0/layers/1"
    meant = with_stack(
        rack, layer("clear-wax-plain"), "colour-wash", accepted=(Acceptance("water-over-wax", "l2", "to peel it"),)
    )
    (again,) = [f for f in planned(meant).zones[0].findings if f.rule == "water-over-wax"]
    assert again.accepted == "to peel it"


def test_what_was_accepted_is_no_longer_the_next_thing_to_see_to(rack: Job) -> None:
    stack = (layer("clear-wax-plain"), "colour-wash")
    failing = [f for f in planned(with_stack(rack, *stack)).zones[0].findings if f.grade == "will fail"]
    assert planned(with_stack(rack, *stack)).next.says.endswith(failing[0].says)
    meant = with_stack(rack, *stack, accepted=tuple(Acceptance(f.rule, f.above, "meant") for f in failing))
    after = planned(meant)
    assert {f.accepted for f in after.zones[0].findings if f.grade == "will fail"} == {"meant"}
    assert not any(f.says in after.next.says for f in failing)
    assert after.next.side in {"mix", "steps"}


def test_a_quick_pot_is_not_checked(rack: Job) -> None:
    job = replace(rack, piece=None)
    assert planned(job).zones[0].findings == ()


@pytest.mark.parametrize("name", sorted(JOBS))
def test_planning_again_after_an_edit_comes_to_the_same_as_planning_afresh(name: str) -> None:
    job = JOBS[name]
    first = planned(job)
    zone = job.zones[0]
    edited = replace(job, zones=(replace(zone, layers=zone.layers[:-1]), *job.zones[1:]))
    planned(edited)
    assert planned(job) == first
    renamed = replace(job, zones=tuple(replace(z, id=f"{z.id}-x") for z in job.zones))
    fresh = planned(renamed)
    assert [f.says for z in fresh.zones for f in z.findings] == [f.says for z in first.zones for f in z.findings]
    assert [m.volume.value for z in fresh.zones for x in z.layers for m in (p.mix for p in x.pots)] == [
        m.volume.value for z in first.zones for x in z.layers for m in (p.mix for p in x.pots)
    ]


def test_remembering_goes_by_equality_and_forgets_what_was_least_lately_used() -> None:
    calls = []

    def double(memo: Memo, place: str, *values: int) -> list[int]:
        def make() -> list[int]:
            calls.append(values)
            return [2 * v for v in values]

        return memo.recall(place, (list(values),), make)

    memo = Memo(2)
    assert double(memo, "a", 1) == double(memo, "a", 1) == [2]
    assert double(memo, "a", 2) == [4]
    assert calls == [(1,), (2,)]
    assert double(memo, "a", 1) == [2]  # an edit and its undo are both remembered
    assert calls == [(1,), (2,)]
    for value in (3, 4, 5):
        double(memo, "a", value)
    double(memo, "a", 2)  # four are
    assert calls[-1] == (2,)
    double(memo, "b", 1)
    double(memo, "c", 1)
    double(memo, "a", 1)
    assert calls[-3:] == [(1,), (1,), (1,)]
    assert double(Memo(), "c", 1) == [2]
    assert len(calls) == 10


def test_what_is_and_what_if_do_not_push_each_other_out(rack: Job, monkeypatch: pytest.MonkeyPatch) -> None:
    memo, seen = Memo(), []
    worked = one_zone.work_zone

    def counted(*args: object) -> object:
        seen.append(1)
        return worked(*args)  # type: ignore[arg-type]

    monkeypatch.setattr(one_zone, "work_zone", counted)
    for _ in range(3):
        for tried in (None, WhatIf(margin=0.5)):
            mix_sheet([rack], Workshop(), C, steady(), tried, memo)
    assert len(seen) == 2


# Totals -----------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("name", sorted(JOBS))
def test_totals_are_the_sums_of_the_mixes_and_their_parts(name: str) -> None:
    made = planned(JOBS[name])
    pots = [p for z in made.zones for x in z.layers for p in x.pots]
    assert sum(t.ml for t in made.totals.mixes) == pytest.approx(sum(p.ml for p in pots))
    assert sum(t.pots for t in made.totals.mixes) == sum({p.batch: p.times for p in pots}.values())
    grams = {p.batch: p.mix.mass_g * p.times for p in pots}
    assert sum(t.g for t in made.totals.materials) == pytest.approx(sum(grams.values()))


def test_like_mixes_are_one_total_and_colours_are_kept_apart(rack: Job) -> None:
    job = with_stack(rack, layer("paint-plain", hex="#aa0000"), layer("paint-plain", hex="#aa0000"),
                     layer("paint-plain", hex="#00aa00"))  # fmt: skip
    totals = planned(job).totals
    assert [t.pots for t in totals.mixes] == [1, 1]  # one tin serves both red coats
    assert {t.hex for t in totals.materials} == {"#aa0000", "#00aa00"}


# The section ------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("name", sorted(JOBS))
def test_the_section_is_ordered_truly_and_fits_its_list(name: str) -> None:
    for zone in planned(JOBS[name]).zones:
        section = zone.section
        assert section is not None
        assert [b.layer for b in section.bands] == [x.layer for x in reversed(zone.layers)]
        by_film = sorted(section.bands, key=lambda b: b.dry_um)
        heights = [b.floor - b.top for b in by_film]
        assert heights == pytest.approx(sorted(heights))
        for upper, lower in zip(section.bands, section.bands[1:], strict=False):
            assert lower.top - upper.floor == pytest.approx(lower.wait_height)
        assert section.bands[0].top >= -1e-9
        assert section.bands[-1].floor == section.ground_y
        edges = {b.floor for b in section.bands} | {section.bands[0].top}
        assert {n.y for n in section.notches} <= edges
        assert all(n.grade in GRADES for n in section.notches)


def test_film_and_wait_heights_rise_with_what_they_stand_for() -> None:
    films = [film_height(um) for um in (0, 10, 30, 200, 2000, 9000)]
    assert films == sorted(films)
    assert films[0] == 5
    assert films[-1] == films[-2] == pytest.approx(32)
    waits = [wait_height(h) for h in (None, 0.5, 2, 12, 672, 2000)]
    assert waits == sorted(waits)
    assert waits[-1] == 12


# Changes ----------------------------------------------------------------------------------------------------------


def ids() -> object:
    return (f"n{i}" for i in count())


def test_each_change_does_what_it_says() -> None:
    zone = stack("raw-beech", layer("paint-plain", hex="#aa0000"), "clear-coat-plain", prep="dusted degreased").zone

    def made(*changes: object) -> list[str]:
        return [x.recipe for x in apply(zone, changes, C, ids()).layers]  # type: ignore[arg-type]

    assert made(InsertLayer("insert", "l1", "bonding-primer-plain")) == [
        "bonding-primer-plain",
        "paint-plain",
        "clear-coat-plain",
    ]
    assert made(InsertLayer("insert", "", "clear-wax-plain"))[-1] == "clear-wax-plain"
    assert made(RemoveLayer("remove", "l1")) == ["clear-coat-plain"]
    assert made(MoveLayer("move", "l1", "")) == ["clear-coat-plain", "paint-plain"]
    swapped = apply(zone, (SwapRecipe("swap", "l1", "thinned-paint"),), C, ids()).layers[0]  # type: ignore[arg-type]
    assert (swapped.recipe, swapped.id, swapped.wait_h, swapped.colours["paint"].hex) == (
        "thinned-paint",
        "l1",
        12,
        "#aa0000",
    )
    set_ = apply(zone, (SetLayer("set", "l1", wait_h=24, coats=3, technique="dry-brushed"),), C, ids()).layers[0]  # type: ignore[arg-type]
    assert (set_.wait_h, set_.coats, set_.technique, set_.touched) == (24, 3, "dry-brushed", 0.1)
    shared = apply(zone, (SwapRecipe("swap", "l1", "colour-wash"), SetShare("share", "l1", "water", 0.6)), C, ids())  # type: ignore[arg-type]
    assert shared.layers[0].amounts["water"].share == 0.6  # type: ignore[union-attr]
    assert apply(zone, (AddPrep("prep", "scuffed"),), C, ids()).prep == ("degreased", "scuffed", "dusted")  # type: ignore[arg-type]
    assert apply(zone, (DropPrep("drop prep", "dusted"),), C, ids()).prep == ("degreased",)  # type: ignore[arg-type]
    assert apply(zone, (SortPrep("sort prep"),), C, ids()).prep == ("degreased", "dusted")  # type: ignore[arg-type]


def test_a_change_to_what_is_not_there_is_refused_with_what_is() -> None:
    zone = stack("raw-beech", "paint-plain").zone
    with pytest.raises(InvalidValue) as caught:
        apply(zone, (RemoveLayer("remove", "l9"),), C, ids())  # type: ignore[arg-type]
    assert caught.value.allowed == "l1"
    with pytest.raises(UnknownEntry):
        apply(zone, (AddPrep("prep", "blessed"),), C, ids())  # type: ignore[arg-type]


# Films and hiding -------------------------------------------------------------------------------------------------


@pytest.mark.parametrize("slug", sorted(C.recipes))
def test_a_recipe_that_does_not_say_its_film_is_read_by_its_materials(slug: str) -> None:
    from lumso.core.mixing.compose import compose

    recipe = C.recipes[slug]
    shares = {p.component.id: p.poured_ml for p in compose(recipe, C.materials)}
    assert film_slug(recipe, shares) == recipe.film
    guessed = C.films[film_slug(replace(recipe, film=""), shares)]
    said = C.films[recipe.film]
    known = {m for m, _, _ in SIGNS} | {"matt-paint"}
    if {c.material for c in recipe.components} <= known:
        assert guessed.kind == said.kind or slug in {"glaze-brushed-out", "coffee-paint"}


def test_hiding_by_hand() -> None:
    # Kubelka–Munk over black for a white of R∞ 0.9: a = 1.00556, b = 0.10554; S·X 7.44 gives b·S·X = 0.7852,
    # coth = 1.5232, R₀ = 1/(1.00556 + 0.16076) = 0.8574.
    k = (1 - 0.9) ** 2 / (2 * 0.9) * 7.44
    assert float(film(np.array(k), np.array(7.44), np.array(0.0))) == pytest.approx(0.8574, abs=2e-4)
    assert scattering_from_hiding("#f4f1ea", 0.93) == pytest.approx(7.44, abs=0.01)
    assert round(lightness("#777777")) == 50


@pytest.mark.parametrize(
    ("colour", "kind", "sx"),
    [
        ("#f4f1ea", "white", 9.4),
        ("#d8cfe0", "pastel", 7.0),
        ("#7f8f8a", "mid", 4.0),
        ("#b07a3c", "ochre", 3.0),
        ("#e8c840", "yellow", 2.2),
        ("#1c1c1e", "black", 2.2),
        ("#c0281f", "red", 1.4),
        ("#123a6b", "deep", 1.0),
    ],
)
def test_each_class_of_colour(colour: str, kind: str, sx: float) -> None:
    assert class_of(colour) == kind
    assert per_coat(colour, C.optics) == sx


def test_reds_need_more_coats_than_whites_and_a_label_beats_the_class() -> None:
    o = C.optics
    red = coats_to_cover("#d8402c", "#26282c", per_coat("#d8402c", o), o)
    white = coats_to_cover("#f4f1ea", "#26282c", per_coat("#f4f1ea", o), o)
    assert red is not None
    assert white is not None
    assert red > white
    assert per_coat("#f4f1ea", o, hiding=0.8) < per_coat("#f4f1ea", o, hiding=0.95)
    assert per_coat("#1c1c1e", o, hiding=0.8) == 2.2  # too dark for its contrast ratio to tell
    assert per_coat("#f4f1ea", o, hiding=0.8, measured=5.0) == 5.0  # a tint board beats the label
    assert coats_to_cover("#d8402c", "#26282c", 1.4, o, most=1) is None
