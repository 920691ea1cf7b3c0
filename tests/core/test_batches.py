"""From coats to pots, by hand and by the laws that must hold."""

from dataclasses import replace
from math import ceil

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.changes.what_if import WhatIf
from lumso.core.edits.beginning import Beginning, begun
from lumso.core.errors import InvalidValue
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room, steady
from lumso.core.layers.wet_edge import OVERLAP_MM, glaze_plan, section_area
from lumso.core.layout.flat import chord, oval, rectangle, strip_area
from lumso.core.measure.lengths import Length
from lumso.core.mixing.jar import HEADROOM
from lumso.core.work.batches import CoatNeed, Losses, MixLife, pot_of, runs, sittings, split, trial_batch
from lumso.core.work.sheet import MixSheet, mix_sheet
from lumso.core.work.step_down import WashStep, chain
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from tests.conftest import planned
from tests.core.checks.stacks import layer
from tests.core.test_stack_plan import with_stack

C = shipped()
JOBS = {job.name: job for job in demo_jobs()}
H = C.habits
BATTER = Losses(C.pot_losses["batter"], C.tools["flat-brush-50"])


def coat(film: float, work: float, at: float = 0.0, margin: float = 0.1, zone: str = "z", number: int = 1) -> CoatNeed:
    return CoatNeed(f"{zone}{number}{at}", "Job", zone, zone.upper(), f"{zone}-l", 1, number, 9, 1.0, film, work,
                    at * 60, margin)  # fmt: skip


def sheet(*jobs: Job, room: Room | None = None, workshop: Workshop | None = None, **tried: object) -> MixSheet:
    return mix_sheet(jobs, workshop or Workshop(), C, room or steady(), WhatIf(**tried))  # type: ignore[arg-type]


def board(job: Job, length: str, width: str, mm: tuple[float, float], *layers: object, **zone: object) -> Job:
    """The job on the top of a board of that size, with these layers."""
    assert job.piece
    sizes = {"length": Length(mm[0], length), "width": Length(mm[1], width), "thickness": Length(18, "18 mm")}
    made = with_stack(job, *layers, surfaces=("top",), prep=(), ground="painted-unsealed", **zone)
    return replace(made, piece=replace(job.piece, sizes=sizes))


# By hand ----------------------------------------------------------------------------------------------------------


def test_fast_stiffening_grit_paint_on_a_large_panel(rack: Job) -> None:
    # 4 m × 1 m, salt-and-pepper paint brushed on: 4·(200 + 5) = 820 ml of film, 4 ÷ 6 m²/h = 40 min; it stiffens
    # after 30, so the largest batch is 820·30/40 = 615 ml and there are two. Each: 410 film; pancake batter leaves
    # 6 %: 410·0.06/0.94 = 26.17; the brush keeps 10, half of it: 5; (410 + 26.17 + 5)·1.1 = 485.3 ml.
    job = board(rack, "4 m", "1 m", (4000, 1000), layer("salt-and-pepper-paint", "brushed-paint"))
    made = sheet(job)
    assert [(b.number, b.of, round(b.mix.volume.value, 1)) for b in made.batches] == [(1, 2, 485.3), (2, 2, 485.3)]
    first, second = made.batches
    # The second is mixed when it is needed: 20 min of laying, 5 of cleaning, 8 of mixing after the first.
    assert [first.work_min, second.ready_h - first.ready_h] == pytest.approx([20, 33 / 60])
    assert second.mix_at_h >= first.ready_h + first.work_min / 60
    assert first.use_by_h == pytest.approx(first.ready_h + 0.5)
    assert "intermix" in first.matching


def test_milk_paint_for_a_wardrobe_over_a_day() -> None:
    # Two coats on body and doors, an hour apart, within the day it lives: one pot. Mixed ten minutes early.
    made = sheet(JOBS["Costume wardrobe"])
    paint, clear = made.batches
    assert (paint.name, paint.of, clear.name) == ("Milk paint", 1, "Clear coat")
    assert [(u.zone_name, u.first_coat, u.last_coat) for u in paint.uses] == [("Body", 1, 2), ("Doors", 1, 2)]
    assert paint.rest_min == 10
    assert paint.ready_h - paint.mix_at_h == pytest.approx((8 + 10 + 1) / 60)
    assert paint.use_by_h == pytest.approx(paint.ready_h + 8)
    assert paint.kept_for.startswith("Keep about")
    assert clear.first_ml == 0
    # The next day's coat is another pot, and the sheet says why.
    job = JOBS["Costume wardrobe"]
    zones = tuple(
        replace(z, layers=(replace(z.layers[0], coats=1, wait_h=24), replace(z.layers[0], id=f"{z.id}-b", coats=1)))
        for z in job.zones
    )
    days = sheet(replace(job, zones=zones))
    assert [b.of for b in days.batches if b.name == "Milk paint"] == [1, 1]
    (apart,) = days.apart
    assert "lives 8 h" in apart.why


def test_thickener_rests_overnight(rack: Job) -> None:
    made = sheet(board(rack, "1 m", "1 m", (1000, 1000), layer("paste-thickened", "trowelled", thickness_mm=0.5)))
    (batch,) = made.batches
    # 8 h of rest between 8 min of mixing and a minute of stirring: it is mixed that much before the work begins.
    assert batch.rest_min == 480
    assert batch.mix_at_h == pytest.approx(batch.ready_h - 8 - 9 / 60)
    assert batch.mix_at_h < 0
    assert "Frosting" in batch.pot_test


def test_four_colours_of_salt_wash_on_a_chest() -> None:
    made = sheet(JOBS["Prop chest"])
    lid = [b for b in made.batches if b.name == "Salt wash" and b.uses[0].zone_name == "Lid"]
    film = sum(b.mix.volume.value for b in lid)
    zone = next(z for z in planned(JOBS["Prop chest"]).zones if z.name == "Lid")
    pots = [p.mix for p in zone.layers[0].pots]
    assert len(lid) == len(pots) == 4
    assert sorted(b.mix.volume.value for b in lid) == pytest.approx(sorted(m.volume.value for m in pots))
    assert film == pytest.approx(sum(m.volume.value for m in pots))
    assert all(b.use_by_h == pytest.approx(b.ready_h + 1) for b in lid)


@pytest.mark.parametrize(
    ("open_min", "section", "strips"),
    # laying 20, two passes at 30 m² an hour: 0.1167 h a m². 2.4 m strokes, 1.2 m across:
    # 15 min → 1.5 m², 0.625 m wide, (1.2 − 0.025)/(0.625 − 0.025) = 1.96 → 2
    # 10 min → 1.0 m², 0.4167 m wide, 1.175/0.3917 = 3.0 → 3
    # 5 min → 0.5 m², 0.2083 m wide, 1.175/0.1833 = 6.41 → 7
    [(15, 1.5, 2), (10, 1.0, 3), (5, 0.5, 7)],
)
def test_a_dragged_glaze_on_a_panel_of_2_4_m(open_min: float, section: float, strips: int) -> None:
    made = glaze_plan("z", "l", "Panel", rectangle(1200, 2400), open_min, 20, 2, 30, 100)
    assert made.section_m2 == pytest.approx(section)
    assert len(made.strips) == strips
    widths = {round(s.width_mm, 6) for s in made.strips}
    assert len(widths) == 1
    assert made.strips[-1].start_mm + made.strips[-1].width_mm == pytest.approx(1200)
    assert all(s.minutes <= 0.7 * open_min + 1e-9 for s in made.strips)


def test_a_wet_edge_that_cannot_be_kept_is_said_with_its_ways_out() -> None:
    # 1 min → 0.1 m²; one stroke of 2.4 m × 100 mm is 0.24 m²
    made = glaze_plan("z", "l", "Panel", rectangle(1200, 2400), 1, 20, 2, 30, 100)
    assert made.strips == ()
    assert "wet edge cannot be kept" in made.says
    assert len(made.ways) == 4
    across = glaze_plan("z", "l", "Panel", rectangle(1200, 2400), 2, 20, 2, 30, 100, "across")
    assert across.stroke_mm == 1200
    assert across.strips


def test_an_oval_of_1200_by_800_in_sections_of_0_3_square_metres_along_each_axis() -> None:
    """It is 0.754 m²; the rectangle round it 0.96."""
    open_min = 0.3 * (1 / 20 + 2 / 30) * 60 / 0.7  # so that A = 0.3 m²
    top = oval(1200, 800)
    down = glaze_plan("z", "l", "Top", top, open_min, 20, 2, 30, 100)
    assert down.section_m2 == pytest.approx(0.3)
    # Three of 1200: (1200 − 25)/3 + 25 = 416.7 wide. The middle one, 391.7 to 808.3, is u to ±0.3472 of the half axis:
    # 2·600·400·(u√(1−u²) + asin u) = 0.327 m², too large. So four, of 318.75.
    assert strip_area(top, "x", 391.67, 808.33) / 1e6 == pytest.approx(0.3266, abs=2e-4)
    assert [round(s.width_mm, 2) for s in down.strips] == [318.75] * 4
    assert sum(s.area_m2 for s in down.strips) - 0.7540 == pytest.approx(
        sum(25 * chord(top, "x", at) for at in (306.25, 600, 893.75)) / 1e6, abs=2e-4
    )
    across = glaze_plan("z", "l", "Top", top, open_min, 20, 2, 30, 100, "across")
    assert across.stroke_mm == 1200
    assert len(across.strips) == 4  # three of 283.3 hold 0.331 in the middle
    assert [s.stroke_mm for s in across.strips[1:3]] == pytest.approx([1200, 1200], rel=1e-3)
    assert across.strips[0].area_m2 < across.strips[1].area_m2 <= 0.3
    as_rectangle = glaze_plan("z", "l", "Top", rectangle(1200, 800), open_min, 20, 2, 30, 100)
    assert len(as_rectangle.strips) == 4
    smaller = glaze_plan("z", "l", "Top", oval(1000, 600), open_min, 20, 2, 30, 100)
    boxed = glaze_plan("z", "l", "Top", rectangle(1000, 600), open_min, 20, 2, 30, 100)
    assert (len(smaller.strips), len(boxed.strips)) == (2, 3)  # an oval is not its rectangle


def test_a_panelled_door_is_worked_panel_by_panel_and_each_panel_in_equal_cuts() -> None:
    """Two panels of 860 × 1020: nothing runs over a rail. With 0.3 m² four cuts of 233.75 down, and four across."""
    open_min = 0.3 * (1 / 20 + 2 / 30) * 60 / 0.7
    panel = rectangle(860, 1020)
    down = glaze_plan("z", "l", "Panel", panel, open_min, 20, 2, 30, 100)
    assert [round(s.width_mm, 2) for s in down.strips] == [233.75] * 4  # (860 − 25)/4 + 25
    assert [round(s.area_m2, 4) for s in down.strips] == [0.2384] * 4
    across = glaze_plan("z", "l", "Panel", panel, open_min, 20, 2, 30, 100, "across")
    assert [round(s.width_mm, 2) for s in across.strips] == [273.75] * 4  # (1020 − 25)/4 + 25; three hold 0.307 m²
    job = JOBS["Proscenium panels"]
    sheet = mix_sheet([job], Workshop(), C, Room())
    panels = [p for p in sheet.sections if p.surface.startswith("Panel")]
    assert panels
    assert all((round(p.across_mm), round(p.stroke_mm)) == (860, 1020) for p in panels)
    assert {p.like for p in panels} == {4}  # two on each of two


def test_strokes_of_an_oval_too_long_for_what_stays_open_are_refused_and_shorter_ones_are_not() -> None:
    """A = 0.1 m² and a tool of 100 mm: strokes of 1 m would do. Along its length an oval of 1200 has longer ones;
    across it none is over 800."""
    open_min = 0.1 * (1 / 20 + 2 / 30) * 60 / 0.7
    long = glaze_plan("z", "l", "Top", oval(1200, 800), open_min, 20, 2, 30, 100, "across")
    assert long.strips == ()
    assert "strokes of 1 m would do" in long.says
    short = glaze_plan("z", "l", "Top", oval(1200, 800), open_min, 20, 2, 30, 100)
    assert short.strips
    assert max(s.stroke_mm for s in short.strips) == pytest.approx(800, rel=1e-3)
    assert all(s.area_m2 <= 0.1 + 1e-9 for s in short.strips)


def test_a_chain_of_three_washes_with_leftovers() -> None:
    # 100 ml at 70 % water, 80 used: 20 left (6 paint, 14 water); 10 ml rinse.
    # Second, 100 ml at 75 %: water 75 − 14 − 10 = 51, paint 25 − 6 = 19; carries 6/25 = 24 % of the first.
    # 20 left: paint 5 (1.2 first, 3.8 second), water 15. Third, 100 ml at 80 %: water 80 − 15 − 10 = 55,
    # paint 20 − 5 = 15; carries 1.2/20 = 6 % and 3.8/20 = 19 %.
    steps = [WashStep("dark", "#111111", 100, 0.70, 80), WashStep("middle", "#777777", 100, 0.75, 80)]
    steps.append(WashStep("light", "#dddddd", 100, 0.80, 80))
    dark, middle, light = chain(steps, 10)
    assert [dark.add_paint_ml, dark.add_water_ml, dark.rinse_ml] == pytest.approx([30, 70, 0])
    assert dark.carried == ()
    assert [middle.add_paint_ml, middle.add_water_ml, middle.from_last_ml] == pytest.approx([19, 51, 20])
    assert [(c.name, round(c.share, 4)) for c in middle.carried] == [("dark", 0.24)]
    assert [light.add_paint_ml, light.add_water_ml] == pytest.approx([15, 55])
    assert [(c.name, round(c.share, 4)) for c in light.carried] == [("dark", 0.06), ("middle", 0.19)]
    assert middle.saved_paint_ml == pytest.approx(6)


def test_what_is_left_and_too_much_is_poured_off() -> None:
    # 100 ml left of 90 % used never; 50 ml at 20 % paint left, the next pot wants only 5 ml of paint: half is taken.
    first, second = chain([WashStep("a", "#000000", 100, 0.8, 50), WashStep("b", "#ffffff", 50, 0.9, 50)], 0)
    assert first.left_ml == 50
    assert second.from_last_ml == pytest.approx(25)
    assert second.poured_off_ml == pytest.approx(25)
    assert second.add_paint_ml == pytest.approx(0)
    assert second.carried[0].share == pytest.approx(1)


def test_a_life_too_short_for_any_batch_says_so_with_the_numbers_and_the_ways(rack: Job) -> None:
    short = MixLife(8, 0, 0, False, False)
    with pytest.raises(InvalidValue) as caught:
        split([coat(100, 60)], short, BATTER, 2500, H)
    assert "8 min" in caught.value.says
    assert "60 min for 100 ml" in caught.value.says
    assert "second pair of hands" in caught.value.allowed
    job = board(rack, "4 m", "1 m", (4000, 1000), layer("mineral-paint-plaster"))
    slow = sheet(job, pace=0.05)
    (problem,) = slow.problems
    assert "cannot be batched" in problem.says


def test_like_mixes_on_several_zones_are_pooled_and_the_saving_is_shown() -> None:
    made = sheet(JOBS["Ticket counter"])
    primer = next(p for p in made.pooled if p.name == "Bonding primer")
    batch = next(b for b in made.batches if b.id == primer.batch)
    assert primer.zones == ("Body", "Doors")
    assert batch.mix.volume.value == pytest.approx(primer.together_ml)
    assert primer.saved_ml == pytest.approx(primer.alone_ml - primer.together_ml)
    # One sitting, one brush: what the second brush would have kept, 10 ml and a tenth, is saved.
    assert primer.saved_ml == pytest.approx(11, abs=0.2)


def test_two_jobs_on_one_sheet_pool_across_pieces(rack: Job) -> None:
    other = replace(rack, name="Second rack")
    made = sheet(rack, other)
    (batch,) = made.batches
    assert {u.job for u in batch.uses} == {"Programme rack", "Second rack"}
    alone = sheet(rack).mixed_ml
    assert alone < batch.mix.volume.value < 2 * alone


def test_what_if_moves_the_sheet_and_leaves_the_job(rack: Job) -> None:
    job = board(rack, "4 m", "1 m", (4000, 1000), layer("salt-and-pepper-paint", "brushed-paint"))
    now = sheet(job)
    assert [b.of for b in sheet(job, pace=2.0).batches] == [1]
    assert sheet(job, coats={"l1": 2}).mixed_ml > now.mixed_ml
    assert sheet(job, margin=0.0).mixed_ml == pytest.approx(now.mixed_ml / 1.1)
    assert len(sheet(job, vessel="preserving-jar").batches) == 2
    assert len(sheet(job, vessel="jam-jar").batches) > 2
    cold = sheet(with_stack(rack, layer("paint-plain", wait=None), "paint-plain"), temperature_c=12.0, humidity=0.75)
    assert cold.elapsed_h > sheet(with_stack(rack, layer("paint-plain", wait=None), "paint-plain")).elapsed_h


def test_stacked_washes_step_down_when_asked() -> None:
    job = JOBS["Outdoor notice board"]
    fresh, stepped = sheet(job), sheet(job, step_down=True)
    chained = [b.step_down for b in stepped.batches if b.step_down]
    assert [c.name for c in chained] == ["soot", "moss", "plaster dust"]
    assert chained[0].from_last_ml == 0
    assert chained[1].carried[0].name == "soot"
    assert all(b.step_down is None for b in fresh.batches)
    moss = next(b for b in stepped.batches if b.colour == "moss")
    paint, water = moss.mix.parts
    assert [paint.poured.value, water.poured.value] == pytest.approx([chained[1].add_paint_ml, chained[1].add_water_ml])
    assert stepped.mixed_ml < fresh.mixed_ml
    assert chained[1].add_paint_ml < next(b for b in fresh.batches if b.colour == "moss").mix.parts[0].poured.value


def test_a_chain_ends_where_what_is_left_does_not_keep_or_another_layer_lies_between() -> None:
    job = JOBS["Outdoor notice board"]
    (zone,) = job.zones
    base, dark, middle, light, seal = zone.layers

    def chained(*laid: object) -> list[str]:
        made = sheet(replace(job, zones=(replace(zone, layers=laid),)), step_down=True)  # type: ignore[arg-type]
        return [b.step_down.name for b in made.batches if b.step_down]

    assert chained(base, dark, middle, light, seal) == ["soot", "moss", "plaster dust"]
    assert chained(base, replace(dark, wait_h=72), middle, light) == ["moss", "plaster dust"]
    assert chained(base, dark, seal, middle) == []
    assert chained(base, dark) == []
    plain = replace(middle, recipe="paint-plain", colours={})  # no water in it: nothing to step down
    assert chained(base, dark, plain, light) == []
    nameless = (replace(dark, colours={}), replace(middle, colours={}))
    assert chained(base, *nameless) == ["layer 2", "layer 3"]


def test_the_painters_own_pace_with_a_technique_stays_when_another_is_tried(rack: Job) -> None:
    job = board(rack, "4 m", "1 m", (4000, 1000), layer("salt-and-pepper-paint", "brushed-paint"))
    slow = Workshop(paces={"brushed-paint": 0.5})
    assert [b.of for b in sheet(job, workshop=slow).batches] == [3, 3, 3]
    assert [b.of for b in sheet(job, workshop=slow, pace=4.0).batches] == [3, 3, 3]


def test_the_first_small_batch_can_still_be_corrected() -> None:
    assert trial_batch(400, H) == 100
    assert trial_batch(80, H) == 30
    assert trial_batch(50, H) == 50


# Laws -------------------------------------------------------------------------------------------------------------

needs = st.lists(
    st.builds(
        coat,
        film=st.floats(25, 4000),
        work=st.floats(1, 200),
        at=st.floats(0, 80),
        margin=st.just(0.1),
        zone=st.sampled_from(["a", "b", "c"]),
    ),
    min_size=1,
    max_size=6,
)
lives = st.builds(
    MixLife,
    life_min=st.one_of(st.none(), st.floats(20, 600)),
    keep_min=st.sampled_from([0.0, 24.0 * 60, 336.0 * 60]),
    rest_min=st.just(0.0),
    from_wetting=st.booleans(),
    as_bought=st.booleans(),
)
vessels = st.sampled_from([370.0, 750.0, 2500.0, 10000.0])


@given(needs, lives, vessels)
def test_batches_sum_to_the_need_fit_their_vessel_and_none_outlives_its_life(
    coats: list[CoatNeed], life: MixLife, vessel: float
) -> None:
    served: list[CoatNeed] = []
    for run, _ in runs(coats, life, BATTER, vessel, H):
        served += run
        try:
            made = split(run, life, BATTER, vessel, H)
        except InvalidValue:
            usable = life.usable_min
            assert usable is not None or sum(c.film_ml for c in run) / 60 > vessel * (1 - HEADROOM) / 1.5
            continue
        film = sum(c.film_ml for c in run)
        pot = made.pot
        assert made.total_ml == pytest.approx(film + (pot.lost_ml + pot.margin_ml) * made.count)
        assert pot.mix_ml <= vessel * (1 - HEADROOM) + 1e-6
        if life.usable_min is not None:
            assert made.bench_min <= life.usable_min + 1e-6
        assert made.count == 1 or film / made.count >= H.smallest_batch_ml
        if made.bound == "life":
            longest = max(sum(c.work_min for c in s) for s in sittings(run, H.pause_min))
            assert made.count == ceil(longest / (life.usable_min or 1) - 1e-9)
    assert sorted(c.film_ml for c in served) == sorted(c.film_ml for c in coats)


@given(needs)
def test_pooling_never_takes_more_than_each_alone(coats: list[CoatNeed]) -> None:
    together = pot_of(coats, 1, BATTER, H.pause_min).mix_ml
    alone = sum(pot_of([c], 1, BATTER, H.pause_min).mix_ml for c in coats)
    assert together <= alone + 1e-6


@given(needs, lives, vessels)
def test_coats_that_share_a_pot_lie_within_what_it_lives(coats: list[CoatNeed], life: MixLife, vessel: float) -> None:
    made = runs(coats, life, BATTER, vessel, H)
    assert made[0][1] == ""
    assert all(why for _, why in made[1:])
    for run, _ in made:
        if len(run) > 1 and len(sittings(run, H.pause_min)) > 1 and not life.as_bought:
            reach = max(life.keep_min, life.usable_min or 0)
            assert run[-1].at_min - run[0].at_min <= reach + 1e-6


@given(
    st.floats(1, 40), st.floats(5, 40), st.integers(0, 4), st.floats(10, 60), st.floats(200, 3000), st.floats(200, 3000)
)
def test_sections_cover_the_face_with_their_overlap(
    open_min: float, lays: float, passes: int, pace: float, width: float, height: float
) -> None:
    made = glaze_plan("z", "l", "Panel", rectangle(width, height), open_min, lays, passes, pace, 100)
    area = section_area(open_min, lays, passes, pace)
    if not made.strips:
        assert area * 1e6 / height < 100
        return
    assert made.strips[0].start_mm == 0
    assert made.strips[-1].start_mm + made.strips[-1].width_mm == pytest.approx(width)
    for left, right in zip(made.strips, made.strips[1:], strict=False):
        assert left.start_mm + left.width_mm - right.start_mm == pytest.approx(OVERLAP_MM)
    assert all(s.area_m2 <= area * 1.0001 for s in made.strips)


wash_steps = st.lists(
    st.tuples(st.floats(30, 500), st.floats(0.4, 0.9), st.floats(0, 1)), min_size=1, max_size=5
)  # fmt: skip


@given(wash_steps, st.floats(0, 30))
def test_a_chain_reaches_every_pot_wanted_and_loses_nothing(
    steps: list[tuple[float, float, float]], rinse: float
) -> None:
    wanted = [WashStep(f"c{i}", "#000000", ml, water, ml * used) for i, (ml, water, used) in enumerate(steps)]
    for step, made in zip(wanted, chain(wanted, rinse), strict=True):
        assert made.add_paint_ml >= -1e-6
        assert made.add_water_ml >= -1e-6
        assert made.from_last_ml + made.rinse_ml + made.add_paint_ml + made.add_water_ml == pytest.approx(step.ml)
        assert sum(c.share for c in made.carried) <= 1 + 1e-6
        assert made.left_ml == pytest.approx(step.ml - step.used_ml)


@pytest.mark.parametrize("name", sorted(JOBS))
def test_a_sheet_serves_every_coat_of_the_job_once(name: str) -> None:
    job = JOBS[name]
    made = sheet(job)
    assert made.problems == ()
    coats = {
        (u.zone, u.layer, k) for b in made.batches for u in b.uses for k in range(u.first_coat, u.last_coat + 1)
    }  # fmt: skip
    assert coats == {(z.id, x.id, k) for z in job.zones for x in z.layers for k in range(1, x.coats + 1)}
    assert [b.mix_at_h for b in made.batches] == sorted(b.mix_at_h for b in made.batches)
    assert made.mixed_ml == pytest.approx(sum(p.ml for z in planned(job).zones for x in z.layers for p in x.pots))
    assert len({b.id for b in made.batches}) == len(made.batches)


def test_like_faces_are_told_once_with_how_many_they_are() -> None:
    """A wardrobe of two doors, two of it: its doors are one section plan, for four."""
    job = begun(Beginning("s", "wardrobe", (), "painted-unsealed", recipe="glaze-dragged"), C, Room()).job
    assert job.piece
    two = replace(job, piece=replace(job.piece, like=2))
    for one, times in ((job, 1), (two, 2)):
        doors = [s for s in mix_sheet([one], Workshop(), C, Room()).sections if s.surface.startswith("Door")]
        assert [d.like for d in doors] == [2 * times]
