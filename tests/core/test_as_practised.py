"""What a job can say since painters said it, by hand: tools, papers, facts of zone and place, and what they come to."""

import json
from dataclasses import replace
from pathlib import Path

import pytest

from lumso.catalogue import shipped
from lumso.core.book.preparation import Sanding
from lumso.core.book.recipes import WeightShare
from lumso.core.checks.findings import Finding
from lumso.core.colour.hiding import coats_range, coats_to_cover, per_coat
from lumso.core.figure import Figure
from lumso.core.job.areas import measure
from lumso.core.job.job import Acceptance, Answered, Job, Zone, new_job
from lumso.core.layers.abrasion import reaches, takes_um
from lumso.core.layers.conditions import steady
from lumso.core.layers.coverage import film
from lumso.core.layers.laid import lay
from lumso.core.layers.stack import beneath_each
from lumso.core.measure.lengths import Length
from lumso.core.mixing.measuring import measure_out
from lumso.core.mixing.needs import Need
from lumso.core.piece.kinds import kind_of
from lumso.core.piece.piece import Band, Piece
from lumso.core.plan.plan import Plan, plan
from lumso.core.work.operations import Operation
from lumso.core.work.work import Work, work
from lumso.core.workshop.workshop import Workshop
from lumso.formats.jobfile import from_document
from tests.core.checks.stacks import layer, stack
from tests.core.test_batches import board
from tests.core.test_stack_plan import with_stack

C = shipped()
SQUARE = (1000.0, 1000.0)
PAINTED = C.grounds["painted-unsealed"]
M2 = Figure(1.0, "m²", ())


def planned(job: Job) -> Plan:
    return plan(job, Workshop(), C, steady())


def worked(job: Job) -> Work:
    made = work(job, Workshop(), C, steady())
    assert made.problems == ()
    return made


def square(job: Job, *layers: object, **zone: object) -> Job:
    return board(job, "1 m", "1 m", SQUARE, *layers, **zone)


def of_kind(made: Work, kind: str) -> list[Operation]:
    return [o for o in made.operations if o.kind == kind]


def lost(job: Job) -> float:
    """ml of the first pot that never reach the surface."""
    amounts = next(o.amounts for o in worked(job).operations if o.amounts)
    assert amounts
    return amounts.lost_ml


# Amounts ----------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("under", "times"),
    [
        ({"thickness_mm": 0.5}, 1.3),
        ({"thickness_mm": 1.0}, 1.6),
        ({"thickness_mm": 3.0}, 1.6),
        ({"thickness_mm": 0.5, "touched": 0.5}, 1.15),
        ({"thickness_mm": 0.8, "sand": (120, "level")}, 1.12),
    ],
)
def test_paint_over_peaks_follows_their_relief(under: dict[str, object], times: float) -> None:
    # 1 + 0.6 for each mm of mean thickness, at most one, of which sanding level leaves a quarter.
    texture = lay(layer("salt-wash", "stippled", **under), C)  # type: ignore[arg-type]
    paint = lay(layer("paint-plain"), C)
    over = beneath_each(PAINTED, (texture,))[1]
    thirst = 5 * over.thirst
    assert film(M2, paint, over, 1, 1).value == pytest.approx((75 + thirst) * times)
    flat = beneath_each(PAINTED, (lay(layer("trowelled-plaster"), C),))[1]
    assert film(M2, paint, flat, 1, 1).value == pytest.approx(75)


def test_a_patchy_first_layer_leaves_thirst_for_the_next() -> None:
    # 20 ml/m² of pine: half of it was touched, so that half is still to be drunk; the third coat finds none.
    paint, patchy = lay(layer("paint-plain"), C), lay(layer("paint-plain", "patchy", touched=0.5), C)
    pine = C.grounds["raw-pine"]
    found = beneath_each(pine, (patchy, paint, paint))
    assert [film(M2, paint, under, 1, 1).value for under in found[1:]] == pytest.approx([85, 75, 75])


def test_what_runs_into_the_cloth_is_mixed_too() -> None:
    # 70 ml/m² flooded on, a third lost: 105; and 5 the paint beneath drinks, of which a third is lost as well.
    flooded = lay(layer("colour-wash", "flooded"), C)
    assert film(M2, flooded, beneath_each(PAINTED, ())[0], 1, 1).value == pytest.approx(75 / 0.67)


def test_tools_hold_what_they_are_and_as_they_are_taken_up(rack: Job) -> None:
    # Two coats two hours apart: 50 mm flat brush 10 ml each time; damp nothing; wrapped once; with a roller 25 more.
    two = layer("paint-plain", coats=2, wait=None, tool="flat-brush-50")
    plain = lost(square(rack, two))
    assert plain - lost(square(rack, replace(two, damp_tool=True))) == pytest.approx(20)
    assert plain - lost(square(rack, replace(two, wrapped_tool=True))) == pytest.approx(10)
    roller = C.tools["foam-roller-100"].holds_ml
    assert lost(square(rack, replace(two, second_tool="foam-roller-100"))) - plain == pytest.approx(2 * roller)
    names = of_kind(worked(square(rack, replace(two, second_tool="foam-roller-100"))), "lay")[0].tools
    assert "50 mm flat brush, then the 100 mm foam roller and tray" in names


def test_what_is_kept_counts_the_tool_s_load(rack: Job) -> None:
    # The second coat lays 75 ml and its brush takes up 10.
    made = worked(square(rack, layer("thinned-paint", coats=2, wait=None)))
    assert "Keep about 85 ml sealed" in made.batches[0].kept_for


def test_another_paint_in_a_mix_brings_its_own_weight_and_film(rack: Job) -> None:
    job = square(rack, layer("paint-plain", materials={"paint": "metal-paint"}))
    (zone,) = planned(job).zones
    assert zone.layers[0].film == C.films["metallic"].name
    mix = zone.layers[0].pots[0].mix
    assert mix.mass_g / mix.volume.value == pytest.approx(C.materials["metal-paint"].bulk_density)
    wrong = planned(square(rack, layer("paint-plain", materials={"paint": "moonshine"})))
    assert [p.at for p in wrong.problems] == ["/zones/0/layers/0/materials"]


def test_limits_of_a_weighed_recipe_are_of_weights(rack: Job) -> None:
    limit = next(x for x in C.recipes["pigment-wax"].limits if x.component == "pigment")

    def crossed(share: float) -> bool:
        tinted = layer("pigment-wax", amounts={"pigment": WeightShare("weight-share", share)})
        return any(f.rule == "limit" for f in planned(square(rack, tinted)).zones[0].layers[0].findings)

    assert crossed(limit.most * 1.05)
    # By volume, as poured, this much dry pigment would be well beyond it: it is half air.
    assert not crossed(limit.most * 0.95)


def test_the_default_is_the_fewest_fillings_within_a_tenth() -> None:
    needs = (Need("paint", 107, 144), Need("water", 321, 321))
    answer = measure_out(needs, C.kits["metric-spoons"])
    near = [o for o in answer.options if o.surplus <= 0.1]
    assert answer.options[0].count == min(o.count for o in near)
    assert len(answer.options) > 1


# Time -------------------------------------------------------------------------------------------------------------


def test_a_layer_s_coats_are_left_alone_as_it_says(rack: Job) -> None:
    lays = of_kind(worked(square(rack, layer("paint-plain", coats=2, coat_wait_h=6.0))), "lay")
    assert lays[1].at_min == pytest.approx(lays[0].ends_min + 360)


def test_gently_used_is_days_before_it_has_cured(rack: Job) -> None:
    (cure,) = of_kind(worked(square(rack, "paint-plain")), "cure")
    assert cure.lasts_min == 40320
    assert cure.how == ("From 3 days on it may be closed, stacked and used gently; it goes on curing.",)


# Paper ------------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("coats", "sand", "reached"),
    [
        # Paint dries to 29.4 µm a coat, 17.7 in thin spots. Biting takes 60, softening 20, revealing 150.
        (3, Sanding(100, "bite"), -1),
        (4, Sanding(100, "bite"), 0),
        (1, Sanding(220, "soften"), -1),
        (2, Sanding(220, "soften"), 0),
        (8, Sanding(60, "reveal"), -1),
        (9, Sanding(60, "reveal"), 0),
        (2, Sanding(220, "soften", by="machine"), -1),  # twice as much
        (2, Sanding(90, "soften"), -1),  # half as fine as P180 takes twice as much
        (1, Sanding(220, "blend"), 0),
    ],
)
def test_how_deep_sanding_goes(coats: int, sand: Sanding, reached: int) -> None:
    case = stack("old-matt", layer("paint-plain", coats=coats))
    made = case.bench.stack(case.zone)
    assert reaches(made, 0, sand) == reached


def test_no_paper_takes_less_for_being_coarser() -> None:
    case = stack("raw-beech", "paint-plain")
    made = case.bench.stack(case.zone)
    takes = [takes_um(made, Sanding(grit, "soften")) for grit in (60, 80, 120, 180, 220, 320)]
    assert takes == sorted(takes, reverse=True)
    assert takes[-1] == takes[-3] == 20


# Facts ------------------------------------------------------------------------------------------------------------


def test_cups_on_the_top_are_not_on_the_legs() -> None:
    sizes = {s.slug: Length(s.usual_mm, f"{s.usual_mm:g} mm") for s in kind_of("table").sizes}
    paint = replace(layer("paint-plain", coats=2), id="p1")
    top = Zone("top", "Top", "raw-beech", ("top",), (paint,), touched_by=("water",))
    legs = Zone("legs", "Legs", "raw-beech", ("legs",), (replace(paint, id="p2"),))
    job = new_job("Table", (top, legs), Piece("table", sizes))

    def found(made: Plan) -> list[bool]:
        return ["wet-cups" in {f.rule for f in z.findings} for z in made.zones]

    assert found(planned(job)) == [True, False]
    all_wet = replace(job, use=replace(job.use, touched_by=("water",)))
    assert found(planned(all_wet)) == [True, True]
    dry_top = replace(all_wet, zones=(replace(top, touched_by=()), legs))
    assert found(planned(dry_top)) == [False, True]


def test_what_can_hurt_somebody_is_answered_and_never_accepted(rack: Job) -> None:
    meant = (Acceptance("lead-untested", "l1", "I am careful"),)
    job = square(rack, "paint-plain", accepted=meant)
    job = replace(job, use=replace(job.use, lead=Answered("not tested")))

    def lead(made: Plan) -> list[Finding]:
        return [f for f in made.zones[0].findings if f.rule == "lead-untested"]

    (found,) = lead(planned(job))
    assert found.accepted is None
    assert planned(job).cautions == (found,)
    answered = replace(job, use=replace(job.use, lead=Answered("none found")))
    assert lead(planned(answered)) == []


def test_what_stays_bare_is_masked_once_and_named_at_the_end(rack: Job) -> None:
    job = square(rack, "paint-plain", "paint-plain")
    assert job.piece
    bands = tuple(
        Band("top", name, Length(100, "10 cm"), Length(20, "2 cm"), count)
        for name, count in (("Tenons", 4), ("Hinges", 2))
    )
    made = worked(replace(job, piece=replace(job.piece, bands=bands)))
    (mask,) = of_kind(made, "mask")
    assert mask.says == "Mask tenons and hinges"
    assert mask.hands_on_min == pytest.approx(6 * C.habits.least_min)
    assert mask.ends_min <= of_kind(made, "lay")[0].at_min
    (refit,) = of_kind(made, "refit")
    assert any("tenons and hinges" in line for line in refit.how)
    assert of_kind(worked(job), "mask") == []


def test_no_size_is_asked_for_of_what_is_not_there() -> None:
    sizes = {s.slug: Length(s.usual_mm, f"{s.usual_mm:g} mm") for s in kind_of("wall").sizes}
    left = {k: v for k, v in sizes.items() if not k.startswith(("window", "door"))}
    zone = Zone("z", "Wall", "bare-plaster", ("wall",), ())
    job = new_job("Wall", (zone,), Piece("wall", left, {"windows": 0, "doors": 0}))
    bare = measure(job)
    assert bare.problems == ()
    assert bare.surfaces["wall"].area_m2 == pytest.approx(4.0 * 2.5 - 4.0 * 0.12)
    none = replace(job, piece=Piece("wall", {**left, "skirting": Length(0, "0")}, {"windows": 0, "doors": 0}))
    assert measure(none).surfaces["wall"].area_m2 == pytest.approx(10)
    asked = measure(replace(job, piece=Piece("wall", left, {"windows": 1, "doors": 0})))
    assert {p.at for p in asked.problems} == {"/piece/sizes/window_width", "/piece/sizes/window_height"}


def test_leaves_have_joints_that_stay_clear() -> None:
    kind = kind_of("table")
    closed = {s.slug for s in kind.surfaces(kind.usual()) if s.area_m2 > 0}
    opened = {s.slug: s for s in kind.surfaces({**kind.usual(), "leaves": 2.0}) if s.area_m2 > 0}
    assert set(opened) - closed == {"leaf-joints"}
    assert opened["leaf-joints"].usually_bare
    assert "slides" in opened["top"].does
    assert opened["leaf-joints"].area_m2 == pytest.approx(2 * 2 * 0.8 * 0.025)


def test_coats_to_cover_are_said_as_a_range_and_judged_in_thin_spots() -> None:
    optics = C.optics
    few, many = coats_range("#b02a24", "#26282c", optics)
    assert (few, many) == (2, 2)
    thin, sx = optics.thin_spots, per_coat("#b02a24", optics)
    even = replace(optics, thin_spots=1.0)
    assert coats_to_cover("#b02a24", "#26282c", sx, optics) == coats_to_cover("#b02a24", "#26282c", sx * thin, even)


@pytest.mark.parametrize(
    ("colour", "ground", "coats"),
    [("#f4f1ea", "#5a2f20", (2, 3)), ("#c0281f", "#f4f1ea", (2, 4)), ("#2a6fa0", "#f4f1ea", (2, 3))],
)
def test_coats_as_painters_know_them(colour: str, ground: str, coats: tuple[int, int]) -> None:
    assert coats_range(colour, ground, C.optics) == coats


@pytest.mark.parametrize(
    ("ground", "old", "prep", "answer"),
    [
        ("old-matt", "none", [], "not tested"),
        ("raw-pine", "none", [], "never coated"),
        ("raw-pine", "of unknown age", [], "not tested"),
        ("old-gloss", "of known age", ["lead-tested"], "test planned"),
    ],
)
def test_an_old_file_s_old_finish_becomes_an_answer(ground: str, old: str, prep: list[str], answer: str) -> None:
    document = json.loads((Path(__file__).parents[1] / "formats" / "old" / "job-4.json").read_text())
    document["use"] = {"touched_by": [], "old_finish": old}
    for zone in document["zones"]:
        zone.update(ground=ground, prep=prep)
    assert from_document(document).use.lead == Answered(answer)  # type: ignore[arg-type]


def test_a_test_among_the_preparations_answers_nothing(rack: Job) -> None:
    job = with_stack(rack, "paint-plain", ground="old-matt", prep=("lead-tested",))
    job = replace(job, use=replace(job.use, lead=Answered("not tested")))
    assert [c.rule for c in planned(job).cautions] == ["lead-untested"]
