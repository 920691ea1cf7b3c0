"""What is still to pour: by plan, after a pour too far, within vessel and shelf; and when a scale is believed."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.book.materials import Vessel
from lumso.core.book.recipes import Limit
from lumso.core.log.acts import Begun, Noted, PotAct, Poured, Settled, Stirred, Stuff
from lumso.core.log.pot import PotState, replay
from lumso.core.pour.pouring import Bounds, PourLine, PourPlan, lines_of, pour_plan
from lumso.core.pour.scale import ScaleReading, believed, zero_at
from tests import pour_cases

PAINT = Stuff("paint", "matt-paint", "Paint", "paint", False, 1.35, 1.35, "bone", "#efe8d8")
WATER = Stuff("water", "water", "Water", "water", False, 1.0, 1.0)
POWDER = Stuff("powder", "texture-powder", "Texture powder", "powder", True, 0.6, 2.3)
JAR, KETTLE = Vessel("jar", "jam jar", 370), Vessel("kettle", "paint kettle", 2500)
BOUNDS = Bounds((JAR, KETTLE), KETTLE, {})
WASH = (PourLine(PAINT, 54.0), PourLine(WATER, 120.0))  # 40 ml of paint, 120 ml of water: 75 % water


def pot_of(*acts: PotAct, state: str = "") -> PotState:
    begun = Begun("begun", "a", "b", vessel="jam jar")
    pots, faults = replay([Noted(f"e{i}", act, float(i)) for i, act in enumerate((begun, *acts))])
    assert faults == ()
    return pots["a"]


def poured(stuff: Stuff, g: float) -> Poured:
    return Poured("poured", "a", stuff, g, "scale")


def plan(*acts: PotAct, bounds: Bounds = BOUNDS, lines: tuple[PourLine, ...] = WASH) -> PourPlan:
    return pour_plan(lines, pot_of(*acts), bounds)


def test_poured_by_the_plan_each_part_goes_to_its_mark() -> None:
    start = plan()
    assert [(x.mark_g, x.left_g, x.state) for x in start.lines] == [(54, 54, "to pour"), (120, 120, "to pour")]
    assert (start.next, start.times, start.total_ml, start.vessel, start.fits) == (0, 1, 160, "jam jar", True)
    assert plan(poured(PAINT, 30)).lines[0].left_g == pytest.approx(24)
    half = plan(poured(PAINT, 53.8))  # within a hundredth of its mark
    assert (half.lines[0].state, half.next) == ("at the mark", 1)
    done = plan(poured(PAINT, 54), poured(WATER, 120))
    assert (done.next, done.cannot, done.says) == (-1, (), ())
    assert [x.left_ml for x in start.lines] == pytest.approx([40, 120])


def test_a_pour_too_far_makes_the_others_larger() -> None:
    over = plan(poured(PAINT, 81))  # half as much again
    assert over.times == pytest.approx(1.5)
    assert over.lines[1].mark_g == pytest.approx(180)
    assert over.total_ml == pytest.approx(240)
    assert over.out_g == pytest.approx(27)
    assert over.cannot == ()
    assert over.says[0].startswith("All of it is 1.5 times")
    last = plan(poured(PAINT, 54), poured(WATER, 150))  # 1.25 times: paint is topped up
    assert last.lines[0].left_g == pytest.approx(0.25 * 54)
    assert last.next == 0
    assert "Paint, bone: 13.5 g more, to 67.5 g." in last.says
    assert last.out_g == pytest.approx(30)


def test_once_stirred_nothing_is_taken_out() -> None:
    assert plan(poured(PAINT, 81), Stirred("stirred", "a")).out_g == 0
    assert plan(poured(PAINT, 81), poured(WATER, 180)).out_g == 0  # the water is right for the paint there is
    assert plan(poured(PAINT, 81), poured(WATER, 200)).out_g == pytest.approx(20)  # and 20 g too much here


def test_the_painter_may_leave_it_as_it_is() -> None:
    kept = plan(poured(PAINT, 81), Settled("settled", "a", 1.0))
    assert kept.times == 1
    assert kept.lines[0].state == "over"
    assert kept.lines[1].left_g == 120
    assert kept.lines[0].off == pytest.approx((60 / 180) / 0.25 - 1)
    assert kept.cannot == (
        "Paint, bone: 33.3% of the whole, planned 25.0%.",
        "Water: 66.7% of the whole, planned 75.0%.",
    )


def test_the_vessel_and_the_shelf_bound_what_can_be_made_up_for() -> None:
    small = replace(BOUNDS, vessels=(JAR,), largest=JAR)
    full = plan(poured(PAINT, 162), bounds=small)  # three times: 480 ml, the jar holds 314.5
    assert full.times == pytest.approx(314.5 / 160)
    assert full.wanted_times == 3
    assert full.cannot[0] == "The jam jar is full before that: 370 ml with room to stir."
    assert any(c.startswith("Paint, bone: ") for c in full.cannot)
    short = plan(poured(WATER, 240), bounds=replace(BOUNDS, on_shelf={"matt-paint": 81.0}))  # wants 108 g of paint
    assert short.times == pytest.approx(1.5)
    assert short.cannot[0] == "On the shelf are 81 g of paint, bone: that is not enough to make up for it."


def test_limits_that_are_crossed_are_said() -> None:
    limit = Limit("water", 0.5, 0.75, "it re-wets what is beneath.", "rule of the trade")
    within = replace(BOUNDS, limits=(limit,))
    assert plan(poured(PAINT, 54), bounds=within).cannot == ()
    crossed = plan(poured(PAINT, 54), poured(WATER, 150), Settled("settled", "a", 1.0), bounds=within)
    assert "Water 79%, at most 75%: it re-wets what is beneath." in crossed.cannot


def test_a_scale_too_coarse_for_a_part_says_so() -> None:
    lines = (PourLine(PAINT, 54.0), PourLine(WATER, 2.0))
    coarse = plan(bounds=replace(BOUNDS, step_g=1.0), lines=lines)
    assert [x.readable for x in coarse.lines] == [True, False]
    assert "2 g is too little for this scale, which counts by 1 g" in coarse.cannot[0]
    assert plan(bounds=replace(BOUNDS, step_g=0.1), lines=lines).cannot == ()


@given(st.lists(st.floats(0.2, 2.5), min_size=3, max_size=3), st.permutations([0, 1, 2]))
def test_poured_on_to_the_new_marks_every_share_holds(times: list[float], turn: list[int]) -> None:
    lines = (PourLine(PAINT, 135.0), PourLine(POWDER, 45.0), PourLine(WATER, 20.0))
    large = Vessel("tub", "tub", 40_000)
    bounds = Bounds((JAR, large), large, {})
    acts: list[PotAct] = [poured(lines[i].stuff, lines[i].planned_g * times[i]) for i in turn]
    for _ in range(4):
        now = plan(*acts, bounds=bounds, lines=lines)
        if now.next < 0:
            break
        acts.append(poured(now.lines[now.next].stuff, now.lines[now.next].left_g))
    assert now.next == -1
    assert now.cannot == ()
    assert max(abs(x.off) for x in now.lines) <= 0.03
    assert now.times >= max(1.0, *times) / 1.0101  # what was poured is never too much of it


@given(st.floats(0.5, 6), st.floats(0.5, 6))
def test_what_cannot_hold_is_named(paint: float, water: float) -> None:
    small = Bounds((JAR,), JAR, {"water": 200.0})
    acts: list[PotAct] = [poured(PAINT, 54 * paint), poured(WATER, min(120 * water, 200))]
    for _ in range(3):
        now = plan(*acts, bounds=small)
        if now.next < 0:
            break
        acts.append(poured(now.lines[now.next].stuff, now.lines[now.next].left_g))
    for x in now.lines:
        if abs(x.off) > 0.03:
            assert any(c.startswith(x.stuff.name) for c in now.cannot)


def test_a_mix_is_poured_paint_by_paint() -> None:
    from lumso.catalogue import shipped
    from lumso.core.book.colours import Tint
    from lumso.core.job.job import FromTotal
    from lumso.core.mixing.compose import compose
    from lumso.core.mixing.mix import Pouring, mix

    book = shipped()
    recipe = book.recipes["wash"] if "wash" in book.recipes else next(iter(book.recipes.values()))
    pours = compose(recipe, book.materials)
    paint = next(p.component.id for p in pours if p.component.role == "paint")
    tints: dict[str, tuple[Tint, ...]] = {paint: (Tint("bone", "#efe8d8", 3), Tint("soot", "#2a2a2a", 1))}
    system = book.system("metric")
    made = mix(recipe, pours, FromTotal("total", 200), None,
               Pouring(system, book.consistencies, book.vessels, book.optics, {}, tints))  # fmt: skip
    lines = lines_of(made)
    assert [x.stuff.colour for x in lines if x.stuff.component == paint] == ["bone", "soot"]
    assert sum(x.planned_g for x in lines) == pytest.approx(made.mass_g)
    assert sum(x.planned_g / x.stuff.true_density for x in lines) == pytest.approx(200)


SHOWN = ScaleReading("b1", 1, "g", 12.0, True, False, 0.1, 3000)


def test_a_scale_counts_from_the_zero_of_its_pot() -> None:
    zero = zero_at(SHOWN, "a", 0.0)
    assert believed(replace(SHOWN, g=66.0), zero).g == 54
    assert believed(replace(SHOWN, g=74.0), zero_at(replace(SHOWN, g=20.0), "a", 0.0)).g == 54
    assert pot_of(zero).zero == zero


@pytest.mark.parametrize(
    ("reading", "why"),
    [
        (None, "gone"),
        (replace(SHOWN, boot="b2"), "begun anew"),
        (replace(SHOWN, tare=2), "tared again"),
        (replace(SHOWN, unit="oz"), "another unit"),
        (replace(SHOWN, over=True, g=None), "overload"),
    ],
)
def test_a_scale_that_may_have_another_zero_is_not_believed(reading: ScaleReading | None, why: str) -> None:
    zero = zero_at(SHOWN, "a", 0.0)
    found = believed(reading, zero)
    assert (found.g, found.why) == (None, why)
    assert found.says
    assert believed(SHOWN, None).why == "not tared"
    if reading is not None and reading.g is not None:
        assert believed(reading, zero_at(reading, "a", 54.0)).g == 54  # once the painter says what stands on it


def test_the_kits_measures_hold_for_what_is_untouched_and_not_for_a_larger_pot_or_a_mixed_colour() -> None:
    assert [x.as_measured for x in plan().lines] == [True, True]
    assert [x.as_measured for x in plan(poured(PAINT, 20)).lines] == [False, True]
    grown = plan(poured(PAINT, 108))
    assert (grown.too_far, grown.grown) == (True, True)
    assert [x.as_measured for x in grown.lines] == [False, False]
    kept = plan(poured(PAINT, 108), Settled("settled", "a", 1.0))
    assert (kept.too_far, kept.grown) == (True, False)
    assert (plan().too_far, plan().grown) == (False, False)
    two = (PourLine(PAINT, 27.0), PourLine(replace(PAINT, colour="moss"), 27.0), PourLine(WATER, 120.0))
    assert [x.as_measured for x in plan(lines=two).lines] == [False, False, True]


def test_the_table_the_page_foresees_pours_by_is_not_stale() -> None:
    assert pour_cases.FILE.read_text(encoding="utf-8") == pour_cases.text()
