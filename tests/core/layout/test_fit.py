"""Coming out even: whole repeats, exactly; the same from both edges; marks to the tick, each rounded once."""

from dataclasses import replace

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lumso.core.errors import InvalidValue
from lumso.core.layout.fit import by_tapes, fit, marks_of, shifted, symmetrical, to_the_tick
from lumso.core.layout.pattern import LEAST_MM, Layout, Stripe

widths = st.floats(3, 120)
stripes = st.lists(st.builds(Stripe, widths, widths), min_size=1, max_size=4).map(tuple)
ANY = {
    "stripes": stripes, "anchor": st.sampled_from(["centred on a stripe", "centred on a gap"]),
    "mirrored": st.booleans(), "even": st.booleans(), "gives": st.sampled_from(["gaps", "stripes", "all"]),
    "ends": st.sampled_from(["with a stripe", "with half a gap", "cut"]), "tick_mm": st.sampled_from([0.5, 1.0, 2.0]),
}  # fmt: skip


def some(**fixed: object) -> st.SearchStrategy[Layout]:
    """Layouts with something of them fixed."""
    return st.builds(Layout, kind=st.just("stripes"), **{**ANY, **{k: st.just(v) for k, v in fixed.items()}})


layouts = some()


@given(layouts, st.floats(300, 2400))
def test_stripes_come_in_order_inside_the_length_and_none_is_narrower_than_can_be_taped(
    layout: Layout, length: float
) -> None:
    try:
        made = fit(layout, length)
    except InvalidValue:
        assume(False)
    at = 0.0
    for band in made.bands:
        assert band.start_mm >= at - 1e-9
        assert band.width_mm >= LEAST_MM - 1e-6
        at = band.end_mm
    assert at <= length + 1e-6
    assert [b.number for b in made.bands] == list(range(1, len(made.bands) + 1))
    # Each mark is rounded once: never more than half a tick off, however many stripes there are.
    assert made.off_mm <= layout.tick_mm / 2 + 1e-9
    for band in made.bands:
        for mark in band.marks_mm:
            assert mark / layout.tick_mm == pytest.approx(round(mark / layout.tick_mm), abs=1e-6)
    if layout.ends != "cut":
        assert not any(b.cut for b in made.bands)


@given(some(even=True), st.floats(300, 2400))
def test_an_even_pattern_fills_its_length_in_whole_repeats_and_changes_only_what_gives(
    layout: Layout, length: float
) -> None:
    assume(layout.ends != "cut")
    try:
        made = fit(layout, length)
    except InvalidValue:
        assume(False)
    repeat = sum(s.width_mm + s.gap_mm for s in made.stripes)
    first = made.stripes[0]
    there_and_back = layout.mirrored and len(layout.stripes) > 1
    closing = first.width_mm if layout.ends == "with a stripe" or there_and_back else 0.0
    edges = first.gap_mm if there_and_back and layout.ends == "with half a gap" else 0.0
    assert made.repeats * repeat + closing + edges == pytest.approx(length)
    for asked, got in zip(layout.repeat, made.stripes, strict=True):
        wide, apart = got.width_mm / asked.width_mm - 1, got.gap_mm / asked.gap_mm - 1
        assert wide == pytest.approx(made.changed if layout.gives in ("stripes", "all") else 0, abs=1e-9)
        assert apart == pytest.approx(made.changed if layout.gives in ("gaps", "all") else 0, abs=1e-9)
    if layout.ends == "with a stripe":
        assert made.bands[0].start_mm == 0
        assert made.bands[-1].end_mm == pytest.approx(length)


@given(some(mirrored=True), st.floats(300, 2400))
def test_there_and_back_in_whole_repeats_it_is_the_same_from_both_edges(layout: Layout, length: float) -> None:
    assume(layout.ends != "cut")
    try:
        made = fit(layout, length)
    except InvalidValue:
        assume(False)
    assert made.symmetrical
    assert made.says.endswith("The same from both edges.")


@given(some(mirrored=False, even=True, ends="with a stripe"), st.floats(300, 2400))
def test_even_to_the_tick_all_is_whole_ticks_and_what_is_over_is_halved(layout: Layout, length: float) -> None:
    try:
        found = to_the_tick(layout, length)
        assume(found is not None)
        assert found is not None
        made = fit(found[0], length)
    except InvalidValue:
        assume(False)
    tick = layout.tick_mm
    for s in made.stripes:
        for mm in (s.width_mm, s.gap_mm):
            assert mm / tick == pytest.approx(round(mm / tick), abs=1e-6)
    assert made.bands[0].start_mm == pytest.approx(length - made.bands[-1].end_mm)


def test_a_top_of_1000_in_stripes_of_50_by_hand() -> None:
    fifty = (Stripe(50, 50),)
    ends = fit(Layout("stripes", fifty), 1000)
    # 10 stripes and 9 gaps leave 1000 − 550 = 450 for … 10 repeats: 11 stripes are 550, ten gaps share 450.
    assert (ends.repeats, len(ends.bands)) == (10, 11)
    assert ends.stripes[0].gap_mm == pytest.approx(45)
    assert ends.changed == pytest.approx(-0.1)
    assert [b.start_mm for b in ends.bands[:3]] == pytest.approx([0, 95, 190])
    half = fit(Layout("stripes", fifty, ends="with half a gap"), 1000)
    assert half.says == "10 repeats, 10 stripes, exactly as asked. The same from both edges."
    assert [b.start_mm for b in half.bands[:2]] == pytest.approx([25, 125])
    cut = fit(Layout("stripes", fifty, ends="cut", anchor="centred on a stripe"), 1000)
    assert cut.bands[0].cut
    assert cut.bands[0].end_mm == pytest.approx(25)
    assert (500 - 25) in [pytest.approx(b.start_mm) for b in cut.bands]
    edge = fit(Layout("stripes", fifty, ends="cut", anchor="from an edge"), 1000)
    assert [b.start_mm for b in edge.bands] == pytest.approx([100 * k for k in range(10)])


def test_marks_are_each_rounded_from_the_datum_and_errors_do_not_add_up() -> None:
    made = fit(Layout("stripes", (Stripe(33.3, 33.3),), ends="cut", anchor="from an edge"), 1000)
    tenth = made.bands[9]
    assert tenth.start_mm == pytest.approx(9 * 66.6)
    assert tenth.marks_mm[0] == 599  # 599.4; ten rounded widths would have said 9 × (33 + 33) = 594


def test_what_cannot_come_out_even_is_refused_with_what_could() -> None:
    with pytest.raises(InvalidValue) as error:
        fit(Layout("stripes", (Stripe(400, 3),), gives="gaps"), 500)
    assert error.value.field == "stripes"
    with pytest.raises(InvalidValue) as crowd:
        fit(Layout("stripes", (Stripe(2, 2),)), 5000)
    assert "more than 400" in crowd.value.says
    with pytest.raises(InvalidValue):
        fit(Layout("stripes", (Stripe(400, 300),), even=False), 500)


def test_there_and_back_runs_through_each_gap_twice() -> None:
    there = Layout("stripes", (Stripe(40, 90, "main"), Stripe(6, 12, "pin"), Stripe(20, 8, "band")), mirrored=True)
    assert [(s.name, s.width_mm, s.gap_mm) for s in there.repeat] == [
        ("main", 40, 90), ("pin", 6, 12), ("band", 20, 12), ("pin", 6, 90)
    ]  # fmt: skip
    assert Layout("stripes", (Stripe(40, 90),), mirrored=True).repeat == (Stripe(40, 90),)
    assert symmetrical(fit(there, 1200).bands, 1200)


def test_what_is_left_free_at_both_ends_is_free_and_marks_count_from_the_datum_all_the_same() -> None:
    made = fit(Layout("stripes", (Stripe(100, 100),), ends="with half a gap", remainder_mm=100), 1000)
    assert [b.start_mm for b in made.bands] == [150, 350, 550, 750]
    assert made.bands[0].marks_mm == (150, 250)
    assert (made.length_mm, made.symmetrical) == (1000, True)
    with pytest.raises(InvalidValue) as error:
        fit(Layout("stripes", (Stripe(10, 10),), remainder_mm=499), 1000)
    assert (error.value.field, error.value.allowed) == ("remainder_mm", "less than 498 mm")


@given(some(ends="cut", narrowest_mm=12.0), st.floats(300, 2400))
def test_cut_by_the_edge_nothing_is_narrower_than_is_painted_and_no_gap_than_its_tape(
    layout: Layout, length: float
) -> None:
    try:
        made = fit(layout, length)
    except InvalidValue:
        assume(False)
    assert all(b.width_mm >= 12 - 1e-6 for b in made.bands)
    assert all(a.end_mm < b.start_mm for a, b in zip(made.bands, made.bands[1:], strict=False))
    if made.bands:
        for free in (made.bands[0].start_mm, length - made.bands[-1].end_mm):
            assert free == 0 or free >= 6 - 1e-6


def test_only_the_outermost_stripe_is_painted_out_to_the_edge() -> None:
    """Gaps of 8 that no tape of 19 fits into, all along: the first stripe, 3 mm in, and the last go to the edges."""
    fine = Layout("stripes", (Stripe(20, 8),), ends="cut", anchor="from an edge", tapes_mm=(19.0,), centre_mm=None)
    made = fit(replace(fine, anchor="centred on a stripe"), 302)
    assert made.bands[0].start_mm == 0
    assert made.bands[-1].end_mm == 302
    assert [b.start_mm - a.end_mm for a, b in zip(made.bands, made.bands[1:], strict=False)] == pytest.approx([8] * 10)


def test_a_pattern_is_centred_on_a_handle_where_one_is_said() -> None:
    made = fit(Layout("stripes", (Stripe(50, 50),), ends="cut", centre_mm=320), 1000)
    assert [b for b in made.bands if b.start_mm == 295 and b.end_mm == 345]
    inside = fit(Layout("stripes", (Stripe(50, 50),), ends="cut", centre_mm=320, remainder_mm=30), 1000)
    assert [b for b in inside.bands if b.start_mm == 295 and b.end_mm == 345]
    assert not made.symmetrical


def test_marks_lie_half_a_pen_outside_what_is_painted_and_the_edge_needs_none() -> None:
    made = fit(Layout("stripes", (Stripe(50, 50),), ends="cut", anchor="from an edge", pen_mm=2), 1000)
    assert made.bands[0].marks_mm == (0, 51)
    assert made.bands[1].marks_mm == (99, 151)
    assert made.off_mm == 0


@given(some(ends="with half a gap", mirrored=False, tick_mm=0.5), st.floats(300, 2400),
       st.lists(st.floats(0.05, 0.95), min_size=1, max_size=4))  # fmt: skip
def test_a_pattern_cut_into_fronts_is_the_same_pattern(layout: Layout, length: float, cuts: list[float]) -> None:
    try:
        made = fit(layout, length)
    except InvalidValue:
        assume(False)
    places = [0.0, *sorted(length * c for c in cuts), length]
    painted = 0.0
    for low, high in zip(places, places[1:], strict=False):
        part = shifted(made, -low, high - low, layout)
        assert part.length_mm == high - low
        for band in part.bands:
            at = low + (band.start_mm + band.end_mm) / 2
            assert any(b.start_mm <= at <= b.end_mm and b.index == band.index for b in made.bands)
            assert abs(band.marks_mm[0] - band.start_mm) <= 0.25 + 1e-9
        painted += sum(b.width_mm for b in part.bands)
    whole = sum(b.width_mm for b in made.bands)
    assert whole - 2 * LEAST_MM * 2 * len(cuts) - 1e-6 <= painted <= whole + 1e-6


def test_gaps_as_wide_as_a_tape_there_is_are_offered_by_how_little_the_stripes_give() -> None:
    asked = Layout("stripes", (Stripe(50, 40),), ends="with half a gap")
    offers = by_tapes(asked, 1000)
    assert offers[0].tape_mm == 38
    # Eleven repeats of 50 and 38 are 968; eleven stripes of 1000/11 − 38 = 52.9 fill it.
    assert offers[0].changed == pytest.approx((1000 / 11 - 38) / 50 - 1)
    for offer in offers:
        made = fit(offer.layout, 1000)
        assert {round(s.gap_mm, 6) for s in made.stripes} == {offer.tape_mm}
        assert abs(offer.changed) <= 0.25
        assert made.changed == pytest.approx(offer.changed)
    assert [o.tape_mm for o in offers] == [38, 50]  # 25 would be another pattern
    woven = Layout("stripes", (Stripe(40, 90), Stripe(6, 12)), ends="with half a gap")
    assert by_tapes(woven, 1000) == ()  # no tape is near both of its gaps
    there_and_back = replace(woven, mirrored=True, stripes=(Stripe(40, 45), Stripe(6, 3)))
    assert [o.tape_mm for o in by_tapes(there_and_back, 1000)] == [50, 38]  # the last gap is left out


@given(layouts, st.floats(300, 2400), st.sampled_from([1.0, 2.0, 5.0, 10.0]))
def test_rounded_to_the_tick_nothing_is_under_what_can_be_painted_or_it_is_refused(
    layout: Layout, length: float, tick: float
) -> None:
    try:
        made = fit(replace(layout, tick_mm=tick), length)
    except InvalidValue:
        assume(False)
    for band in made.bands:
        assert band.cut or band.marks_mm[1] - band.marks_mm[0] >= LEAST_MM - 1e-6
    for a, b in zip(made.bands, made.bands[1:], strict=False):
        assert b.marks_mm[0] - a.marks_mm[1] >= LEAST_MM - 1e-6


def test_a_rule_too_coarse_for_its_stripes_is_named_and_a_finer_one_is_not() -> None:
    pins = Layout("stripes", (Stripe(4, 30),), ends="cut", anchor="from an edge")
    with pytest.raises(InvalidValue) as error:
        fit(replace(pins, tick_mm=10), 1000)
    assert (error.value.field, error.value.allowed) == ("tick_mm", "a rule with a tick of 2 mm")
    assert fit(replace(pins, tick_mm=2), 1000).bands
    with pytest.raises(InvalidValue):
        fit(replace(pins, tick_mm=10, remainder_mm=33), 1000)  # also where it is moved along
    assert fit(replace(pins, tick_mm=1), 1000).bands
    assert fit(replace(pins, tick_mm=1.5875), 1000).off_mm <= 1.5875 / 2 + 1e-9  # a sixteenth of an inch


def test_between_two_ticks_the_lower_is_marked_wherever_it_lies() -> None:
    """Half way between two ticks either is as near: the lower, so that two marks never change places."""
    layout = Layout("stripes", (Stripe(30, 30),), tick_mm=1.0)
    assert marks_of(10.5, 40.5, 500, layout) == (10, 40)
    assert marks_of(10.5001, 40.4999, 500, layout) == (11, 40)
    assert marks_of(0.0, 12.25, 500, replace(layout, tick_mm=0.5)) == (0, 12)


def test_cut_at_the_edges_a_pattern_may_be_centred_on_a_gap() -> None:
    """Stripes of 30 and gaps of 50 on 400: the middle of a gap lies at 200, so stripes stand at 145–175 and 225–255."""
    made = fit(Layout("stripes", (Stripe(30, 50),), ends="cut", anchor="centred on a gap"), 400)
    assert [(b.start_mm, b.end_mm) for b in made.bands] == [
        (0, 15), (65, 95), (145, 175), (225, 255), (305, 335), (385, 400),
    ]  # fmt: skip
    assert made.symmetrical
    off = fit(Layout("stripes", (Stripe(30, 50),), ends="cut", anchor="centred on a gap", centre_mm=100), 400)
    assert any(b.end_mm == 75 for b in off.bands)
    assert any(b.start_mm == 125 for b in off.bands)


def test_a_tape_is_offered_only_while_stripes_stay_within_a_quarter_of_what_was_asked() -> None:
    """On 400 with a stripe at both ends: tapes of 40 for gaps of 50 leave stripes 24 % wider, of 36 too far."""
    layout = Layout("stripes", (Stripe(50, 50),), ends="with a stripe", tapes_mm=(36.0, 40.0, 50.0, 60.0))
    offered = {o.tape_mm: o.changed for o in by_tapes(layout, 450, most=9)}
    assert all(abs(changed) <= 0.25 for changed in offered.values())
    for tape in layout.tapes_mm:
        # n stripes and n − 1 tapes: the nearest to 50 that a whole number makes.
        best = min(abs((450 - (n - 1) * tape) / n / 50 - 1) for n in range(2, 12))
        assert (tape in offered) == (best <= 0.25)
