"""Measuring out: the worked case, and exactness against brute force."""

from dataclasses import replace
from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.book.kit import Kit, KitMeasure
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.mixing.kit_search import EXTRA_FILLINGS
from lumso.core.mixing.measuring import measure_out, offers, worthwhile
from lumso.core.mixing.needs import Need
from tests.counts import examples

TSP, TBSP = 4.92892159375, 14.78676478125
US_SPOONS = Kit(
    "spoons",
    "US spoons",
    (KitMeasure("¼ tsp", TSP / 4), KitMeasure("½ tsp", TSP / 2), KitMeasure("tsp", TSP), KitMeasure("tbsp", TBSP)),
)


def out(kit: Kit, **needs: float) -> KitAnswer:
    return measure_out(tuple(Need(name, ml, ml) for name, ml in needs.items()), kit)


def test_the_wash_with_us_spoons() -> None:
    answer = out(US_SPOONS, paint=46.1333 / 4, water=46.1333 * 3 / 4)
    by = {o.label: o for o in answer.options}
    waste = answer.options[0]
    assert waste.label == "least waste"
    assert (round(waste.total_ml, 1), waste.count) == (48.1, 7)
    assert waste.parts[0].ml / waste.total_ml == pytest.approx(0.256, abs=0.0005)
    assert waste.surplus == pytest.approx(0.04, abs=0.005)
    exact = by["exact ratio, least waste"]
    assert (round(exact.total_ml, 1), exact.count) == (49.3, 7)
    assert exact.surplus == pytest.approx(0.07, abs=0.005)
    clean = by["fewest fillings"]
    assert (round(clean.total_ml, 1), clean.count) == (59.1, 4)
    assert clean.surplus == pytest.approx(0.28, abs=0.005)
    assert [(f.name, f.count) for f in clean.parts[1].fillings] == [("tbsp", 3)]
    assert answer.proved


def brute(kit: Kit, needs: list[float], fewest_first: bool, tolerance: float) -> tuple[float, float] | None:
    """The best (total, fillings) over every combination of level fillings, by trying them all."""
    sizes = [m.ml for m in kit.measures]
    total = sum(needs)
    per_need = []
    for need in needs:
        most = need * (1 + kit.surplus) * (1 + kit.tolerance) + 1e-9
        counts: dict[float, int] = {}
        for combo in product(*(range(int(most / s) + 1) for s in sizes)):
            ml = round(sum(n * s for n, s in zip(combo, sizes, strict=True)), 6)
            if need - 1e-6 <= ml <= most:
                counts[ml] = min(counts.get(ml, 10**9), sum(combo))
        fewest = min(counts.values(), default=0)
        per_need.append([(ml, n) for ml, n in counts.items() if n <= fewest + EXTRA_FILLINGS])
    best = None
    for picks in product(*per_need):
        whole = sum(ml for ml, _ in picks)
        if whole > total * (1 + kit.surplus) + 1e-6:
            continue
        if any(abs(ml / whole * total / n - 1) > tolerance + 1e-9 for (ml, _), n in zip(picks, needs, strict=True)):
            continue
        n = sum(k for _, k in picks)
        score = (n, round(whole, 4)) if fewest_first else (round(whole, 4), n)
        best = score if best is None else min(best, score)
    return best


@examples("kits against all fillings")
@given(
    st.lists(st.sampled_from([2.5, 5.0, 7.5, 12.0, 15.0, 20.0, 33.0]), min_size=2, max_size=3, unique=True),
    st.lists(st.floats(2.0, 40.0), min_size=2, max_size=3),
    st.sampled_from([0.02, 0.05, 0.1]),
)
def test_the_search_is_exact(sizes: list[float], needs: list[float], tolerance: float) -> None:
    kit = Kit("k", "kit", tuple(KitMeasure(f"{s} ml", s) for s in sizes), tolerance=tolerance)
    options, proved = offers([Need(f"c{i}", n, n) for i, n in enumerate(needs)], kit, kit.surplus)
    least, fewest = brute(kit, needs, False, tolerance), brute(kit, needs, True, tolerance)
    if least is None or fewest is None:
        assert options == []
        return
    assert proved
    assert (round(options[0].total_ml, 4), options[0].count) == pytest.approx(least)
    assert min((o.count, round(o.total_ml, 4)) for o in options) == pytest.approx(fewest)


def test_options_that_another_beats_are_not_offered() -> None:
    kit = Kit("k", "kit", tuple(KitMeasure(f"{s} ml", s) for s in (1.25, 5.0, 15.0, 183.0)))
    everything, _ = offers([Need("a", 210.1, 1), Need("b", 157.6, 1)], kit, 0.3)
    kept = worthwhile(everything)
    assert kept
    assert len(kept) <= len(everything)
    for a in kept:
        for b in kept:
            assert a is b or a.count < b.count or round(a.surplus, 2) < round(b.surplus, 2) or a.error < b.error


@examples("kits against all fillings")
@given(
    st.lists(st.floats(0.3, 400.0), min_size=1, max_size=5),
    st.floats(0.05, 0.5),
    st.floats(0.01, 0.1),
)
def test_amounts_never_fall_short_nor_exceed_the_surplus_nor_leave_the_tolerance(
    needs: list[float], surplus: float, tolerance: float
) -> None:
    marks = (KitMeasure("syringe", 10, 0.5, "syringe"), KitMeasure("jug", 500, 25, "jug"), KitMeasure("cup", 236.6))
    kit = Kit("k", "kit", (*US_SPOONS.measures, *marks), surplus=surplus, tolerance=tolerance)
    answer = out(kit, **{f"c{i}": n for i, n in enumerate(needs)})
    for option in answer.options:
        assert option.surplus <= surplus + 2e-3
        assert option.error <= tolerance + 2e-3
        for part in option.parts:
            assert part.ml >= part.need_ml * (1 - 2e-3) - 0.01
            assert part.ml == pytest.approx(sum(f.ml * f.count for f in part.fillings))
    if not answer.options:
        assert answer.says


def test_an_amount_below_the_smallest_measure_is_never_rounded_to_nothing() -> None:
    answer = out(US_SPOONS, paint=50, drop=0.05)
    assert answer.options == ()
    assert "drop needs 0.05 ml" in answer.says
    assert answer.smallest_batch is not None
    enough = out(US_SPOONS, paint=50 * answer.smallest_batch, drop=0.05 * answer.smallest_batch)
    assert enough.options


def test_a_scale_keeps_the_shares_as_spoons_do() -> None:
    # 96 + 5 g would make the pigment 4.95 % instead of 4.8, 3.1 % too much; 100 + 5 make it 4.76 %.
    kit = Kit("s", "scale only", (), scale_g=1)
    needs = (Need("wax", 112, 95.2), Need("pigment", 6.9, 4.8))
    answer = measure_out(needs, kit)
    assert [(w.component, w.g) for w in answer.weighed] == [("wax", 100), ("pigment", 5)]
    assert answer.says == ""
    loose = measure_out(needs, replace(kit, tolerance=0.04))
    assert [(w.component, w.g) for w in loose.weighed] == [("wax", 96), ("pigment", 5)]


def test_what_is_too_light_for_the_scale_says_so_and_how_much_could_be_weighed() -> None:
    # 0.3 g beside 30: a gram of it asks for 3.33 times as much, 100 + 1 g.
    kit = Kit("s", "scale only", (), scale_g=1)
    answer = measure_out((Need("wax", 30, 30), Need("tint", 0.3, 0.3)), kit)
    assert answer.weighed == ()
    assert "0.3 g" in answer.weigh_says
    assert answer.smallest_weighed == pytest.approx(101 / 30.3)
    finer = measure_out((Need("wax", 30, 30), Need("tint", 0.3, 0.3)), replace(kit, scale_g=0.1))
    assert [w.g for w in finer.weighed] == pytest.approx([30, 0.3])


@given(st.lists(st.floats(0.05, 400), min_size=1, max_size=5), st.sampled_from([0.01, 0.1, 1.0, 5.0]))
def test_whatever_is_weighed_covers_each_need_and_keeps_the_shares(grams: list[float], step: float) -> None:
    kit = Kit("s", "scale only", (), scale_g=step)
    needs = tuple(Need(f"c{i}", g, g) for i, g in enumerate(grams))
    answer = measure_out(needs, kit)
    assert bool(answer.weighed) != bool(answer.weigh_says)
    for weighed in answer.weighed:
        assert weighed.g >= weighed.need_g - 1e-6
        assert abs(weighed.error) <= kit.tolerance + 1e-6
    if answer.weighed:
        assert sum(w.g for w in answer.weighed) <= sum(grams) * (1 + kit.surplus) + 1e-6


def test_the_default_is_what_a_painter_would_do() -> None:
    # 210 and 90 ml with cups and spoons: not down to a quarter of a teaspoon for the last drop.
    first = measure_out((Need("paint", 210, 284), Need("water", 90, 90)), shipped().kits["metric-spoons"]).options[0]
    assert first.surplus <= 0.1
    assert first.count <= 5
    assert first.error <= 0.03


def test_an_empty_kit_says_so() -> None:
    assert out(Kit("none", "nothing", ()), paint=5).says == "This kit holds nothing to measure with."


DRAWER = Kit(
    "drawer",
    "drawer",
    (KitMeasure("tsp", 5), KitMeasure("syringe", 20, 1, "syringe"), KitMeasure("jug", 500, 50, "jug")),
)


def test_what_is_dry_is_struck_off_level_never_drawn_up_in_a_syringe_or_read_off_a_mark() -> None:
    answer = measure_out((Need("paint", 52, 70), Need("powder", 39, 23, dry=True)), DRAWER)
    paint, powder = answer.options[0].parts
    assert {f.name for f in powder.fillings} == {"tsp"}
    assert powder.ml == pytest.approx(40)
    assert "syringe" in {f.name for f in paint.fillings}


def test_a_kit_with_nothing_level_says_so_for_a_powder() -> None:
    wet = Kit("wet", "wet", DRAWER.measures[1:], scale_g=1)
    answer = measure_out((Need("paint", 52, 70), Need("powder", 39, 23, dry=True)), wet)
    assert answer.options == ()
    assert "powder is measured level" in answer.says
    assert [w.g for w in answer.weighed] == [70, 23]


def test_needs_of_nothing_are_left_out() -> None:
    assert len(out(US_SPOONS, paint=20, water=0).options[0].parts) == 1
    assert measure_out((), US_SPOONS) == KitAnswer((), ())


@pytest.mark.parametrize(
    ("sizes", "ml", "counted"),
    [((0.05,), 20_000, False), ((5.0,), 2_500, True), ((5.0,), 2_501, False), ((0.05, 1.13, 5_000.0), 60_000, False),
     ((0.05, 1.13, 100.0), 1_000, True)],
)  # fmt: skip
def test_what_is_beyond_counting_is_refused_before_it_is_searched(
    sizes: tuple[float, ...], ml: float, counted: bool
) -> None:
    kit = Kit("k", "kit", tuple(KitMeasure(f"{s} ml", s) for s in sizes))
    answer = measure_out((Need("paint", ml, ml),), kit)
    assert bool(answer.options) == counted
    assert ("too much for measures this small" in answer.says) != counted
