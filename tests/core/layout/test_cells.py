"""Patterns in boxes: boards of squares, diamonds, panels, stencils all around, letters. None touches one of its go."""

from dataclasses import replace
from itertools import combinations
from math import hypot

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lumso.core.errors import InvalidValue
from lumso.core.layout import cells
from lumso.core.layout.cells import letter_widths
from lumso.core.layout.flat import FlatFace, cut_to, oval, polygon_area, rectangle
from lumso.core.layout.mask import LaidOut, lay_out
from lumso.core.layout.pattern import Layout, Spared, Stripe
from lumso.core.layout.taping import OVERHANG_MM, PAST_MM, Taping, taping_of
from lumso.core.measure.drawing import Point
from tests.counts import examples

BOARD = rectangle(480, 480)


def taped(layout: Layout, face: FlatFace = BOARD) -> tuple[LaidOut, Taping]:
    laid = lay_out(layout, face)
    return laid, taping_of(layout, face, laid)


def test_a_games_board_by_hand() -> None:
    """Eight squares of 50 each way on 480, as wide as asked: 40 mm free all around, 32 squares of 2,500 mm²."""
    laid, taping = taped(Layout("chequers", (Stripe(50, 50),), even=False, remainder_mm=30))
    assert laid.down is not None
    assert (laid.down.repeats, len(laid.cells)) == (8, 32)
    assert laid.down.says == "8 squares across, as wide as asked, 40.0 mm free at both ends."
    assert laid.painted_m2 == pytest.approx(32 * 0.0025)
    first, second = laid.cells[:2]
    assert (first.start_mm, first.top_mm) == (40, 40)
    assert (second.row, second.column, second.start_mm) == (1, 3, 140)
    assert taping.passes == 2
    # A row: two edges as long as the board and 30 mm over at both ends, and eight short pieces across.
    row = [r for r in taping.runs if r.stripe == first.number]
    assert sum(r.length_mm * r.count for r in row) == 2 * (480 + 2 * OVERHANG_MM) + 8 * (50 + 2 * PAST_MM)
    assert taping.metres == pytest.approx(8 * sum(r.length_mm * r.count for r in row) / 1000)
    assert sum(taping.painted_m2(go) for go in (1, 2)) == pytest.approx(laid.painted_m2)


def test_squares_come_out_even_by_the_nearest_number() -> None:
    laid, taping = taped(Layout("chequers", (Stripe(50, 50),)))
    assert laid.down is not None
    assert laid.down.says == "10 squares across, 4.0% narrower than asked."
    assert laid.share == pytest.approx(0.5)
    at_edge = [r for r in taping.runs if r.edge == "row" and r.at_mm in (0, 480)]
    assert at_edge == []


def test_diamonds_by_hand() -> None:
    """Six across and four down of 80 × 120: each touches its neighbours at their tips, and half is painted."""
    laid, taping = taped(Layout("diamonds", (Stripe(80, 80),), down=(Stripe(120, 120),)))
    assert len(laid.cells) == 24
    assert laid.share == pytest.approx(0.5)
    assert laid.regions[0].area_m2 == pytest.approx(80 * 120 / 2 / 1e6)
    side = hypot(80, 120) / 2
    corner = [r for r in taping.runs if r.stripe == 1]  # the first stands on a slant of four
    assert corner[0].length_mm == pytest.approx((2 * 4 - 1) * side + 2 * OVERHANG_MM)
    assert corner[1].length_mm == pytest.approx(side + 2 * PAST_MM)
    assert corner[1].count == 8


@examples("boxes of a layout")
@given(
    st.sampled_from(["chequers", "diamonds", "panels"]), st.floats(20, 90), st.floats(20, 90), st.floats(2, 40),
    st.booleans(), st.sampled_from([BOARD, oval(480, 300)]),
)  # fmt: skip
def test_no_two_boxes_of_a_go_touch_and_what_is_painted_adds_up(
    kind: str, wide: float, high: float, gap: float, even: bool, face: FlatFace
) -> None:
    layout = Layout(kind, (Stripe(wide, gap),), even=even, down=(Stripe(high, gap),))  # type: ignore[arg-type]
    try:
        laid, taping = taped(layout, face)
    except InvalidValue:
        assume(False)
    for a, b in combinations(laid.cells, 2):
        apart = max(a.start_mm - b.end_mm, b.start_mm - a.end_mm, a.top_mm - b.foot_mm, b.top_mm - a.foot_mm)
        assert polygon_area(cut_to(a.outline, b.outline)) < 1e-3
        # At a corner or a tip the next is painted once this has dried.
        assert a.go != b.go or apart > 1e-6 or (kind == "diamonds" and (a.row - b.row, a.column - b.column) not in
                                                ((0, 1), (0, -1), (1, 0), (-1, 0)))  # fmt: skip
    assert sum(r.area_m2 for r in laid.regions) == pytest.approx(laid.painted_m2)
    assert sum(taping.painted_m2(go) for go in range(1, taping.passes + 1)) == pytest.approx(laid.painted_m2)
    assert 0 < laid.share < 1
    for line in taping.elements:
        assert len(line.marks_mm) == len(line.down_marks_mm) == 2
        for mark, place in zip(line.marks_mm, (line.start_mm, line.end_mm), strict=True):
            assert abs(mark - place) <= 0.5 + 1e-9


def test_panels_are_what_crosses_and_are_painted_in_turn_where_no_tape_fits_between() -> None:
    laid, taping = taped(Layout("panels", (Stripe(100, 20),), ends="with half a gap", down=(Stripe(60, 20),)))
    assert (len(laid.cells), taping.passes) == (4 * 6, 1)
    assert laid.painted_m2 == pytest.approx(24 * 0.1 * 0.06)
    assert taping.metres == pytest.approx((2 * 4 + 2 * 6) * (480 + 2 * OVERHANG_MM) / 1000)
    tight = Layout("panels", (Stripe(116, 4),), ends="with half a gap", down=(Stripe(60, 20),))
    laid, taping = taped(tight)
    assert [c.go for c in laid.cells[:4]] == [1, 2, 1, 2]
    assert taping.passes == 2
    both = Layout("panels", (Stripe(116, 4),), ends="with half a gap", down=(Stripe(76, 4),))
    assert taped(both)[1].passes == 4


def test_a_stencil_all_around_ends_whole_between_its_corners() -> None:
    """Motifs of 60 in a row of 40, 20 in, on 500 × 380: corners of 40, between them 380 and 260."""
    layout = Layout("repeats", (Stripe(60, 16),), around=True, row_mm=40, inset_mm=20, covers=0.5, even=True,
                    ends="with half a gap")  # fmt: skip
    laid, taping = taped(layout, rectangle(500, 380))
    assert laid.down is not None
    assert laid.across is not None
    assert (len(laid.down.bands), len(laid.across.bands)) == (5, 3)
    assert len(laid.cells) == 2 * 5 + 2 * 3 + 4
    assert laid.painted_m2 == pytest.approx((16 * 60 * 40 + 4 * 40 * 40) * 0.5 / 1e6)
    assert min(c.start_mm for c in laid.cells if c.name == "top") > 60
    assert max(c.end_mm for c in laid.cells if c.name == "top") < 440
    foot = [c for c in laid.cells if c.name == "foot"]
    assert {(c.top_mm, c.foot_mm) for c in foot} == {(320, 360)}
    assert (taping.metres, taping.passes) == (0, 1)
    without, _ = taped(Layout("repeats", (Stripe(60, 16),), around=True, row_mm=40, inset_mm=20, corners="left out"),
                       rectangle(500, 380))  # fmt: skip
    assert {c.name for c in without.cells} == {"top", "right", "foot", "left"}
    with pytest.raises(InvalidValue) as round_top:
        lay_out(layout, oval(500, 380))
    assert round_top.value.field == "around"


def test_a_border_with_its_corners_left_out_by_hand() -> None:
    laid, taping = taped(Layout("border", (Stripe(20, 50),), corners="left out"), rectangle(1000, 500))
    # Between inset corners of 20: 860 long above and below, 360 at the sides.
    assert laid.painted_m2 == pytest.approx(2 * (860 + 360) * 20 / 1e6)
    assert len(laid.regions) == len(taping.elements) == 4
    assert next(r for r in taping.runs if r.edge == "ends").count == 8
    with pytest.raises(InvalidValue):
        lay_out(Layout("border", (Stripe(20, 50),), corners="left out"), oval(1000, 500))


def test_letters_stand_in_boxes_as_wide_as_they_are_and_fill_the_line() -> None:
    assert [round(w, 3) for _, w in letter_widths("Mix", 100)] == [95, 35, 68]
    layout = Layout("lettering", (Stripe(50, 10),), words="tea room", row_mm=60, inset_mm=100, covers=0.3,
                    remainder_mm=40)  # fmt: skip
    laid, taping = taped(layout, rectangle(600, 300))
    assert [c.name for c in laid.cells] == list("tearoom")
    assert laid.cells[0].start_mm == pytest.approx(40)
    assert laid.cells[-1].end_mm == pytest.approx(560)
    widths = [c.end_mm - c.start_mm for c in laid.cells]
    assert widths == pytest.approx([0.68 * 60] * 6 + [0.95 * 60])
    gap = laid.cells[1].start_mm - laid.cells[0].end_mm
    assert laid.cells[3].start_mm - laid.cells[2].end_mm == pytest.approx(2 * gap + 0.5 * 60)
    assert laid.painted_m2 == pytest.approx(sum(widths) * 60 * 0.3 / 1e6)
    assert taping.runs == ()
    wider, _ = taped(replace(layout, gives="stripes"), rectangle(600, 300))
    # Spaces stay 10; seven letters and a space between words share 520 less seven gaps of 10.
    stretch = (520 - 7 * 10) / (6 * 0.68 * 60 + 0.95 * 60 + 0.5 * 60)
    assert wider.cells[0].end_mm - wider.cells[0].start_mm == pytest.approx(0.68 * 60 * stretch)
    assert wider.cells[1].start_mm - wider.cells[0].end_mm == pytest.approx(10)
    assert wider.cells[-1].end_mm == pytest.approx(560)
    own, _ = taped(Layout("lettering", (Stripe(50, 10),), words="tea", row_mm=60, even=False), rectangle(600, 300))
    assert own.cells[0].start_mm == pytest.approx((600 - 3 * 0.68 * 60 - 20) / 2)
    for words, field in (("", "words"), ("a very long name for so small a sign", "row_mm")):
        with pytest.raises(InvalidValue) as error:
            lay_out(Layout("lettering", (Stripe(50, 10),), words=words, row_mm=60), rectangle(600, 300))
        assert error.value.field == field


def test_a_knob_stays_free_and_what_crosses_there_is_not_taken_off_twice() -> None:
    knob = Spared(240, 240, 40)
    ring = polygon_area(oval(40, 40).outline)
    stripe = Layout("stripes", (Stripe(160, 160),), ends="with half a gap", spared=(Spared(160, 240, 40),))
    laid, _ = taped(stripe)
    # One stripe from 80 to 240: the knob stands in it whole.
    assert laid.down is not None
    before = lay_out(Layout("stripes", (Stripe(160, 160),), ends="with half a gap"), BOARD)
    assert before.painted_m2 - laid.painted_m2 == pytest.approx(ring / 1e6, rel=3e-3)
    assert len(laid.regions[0].holes) == 1
    checks = Layout("checks", (Stripe(480, 2),), even=False, ends="cut", anchor="from an edge")
    whole = lay_out(checks, BOARD)
    free = lay_out(Layout("checks", checks.stripes, even=False, ends="cut", anchor="from an edge", spared=(knob,)),
                   BOARD)  # fmt: skip
    assert whole.painted_m2 - free.painted_m2 == pytest.approx(ring / 1e6, rel=3e-3)


def test_what_is_set_into_a_face_is_no_part_of_it() -> None:
    window = (Point(100, 100), Point(300, 100), Point(300, 200), Point(100, 200))
    wall = FlatFace("polygon", BOARD.outline, (window,))
    assert wall.area == 480 * 480 - 200 * 100
    for layout in (
        Layout("stripes", (Stripe(48, 48),), ends="cut", anchor="from an edge"),
        Layout("checks", (Stripe(48, 48),), ends="cut", anchor="from an edge"),
        Layout("chequers", (Stripe(48, 48),)), Layout("border", (Stripe(60, 70),)),
    ):  # fmt: skip
        with_hole, without = lay_out(layout, wall), lay_out(layout, BOARD)
        inside = painted = 0
        for n in range(8000):
            x, y = 480 * (n * 0.7548776662466927 % 1), 480 * (n * 0.5698402909980532 % 1)
            if 100 < x < 300 and 100 < y < 200:
                inside += 1
                painted += _painted(layout, x, y)
        lost = without.painted_m2 - with_hole.painted_m2
        assert lost == pytest.approx(0.02 * painted / inside, abs=4e-4)
        assert with_hole.face_m2 == pytest.approx(0.2104)


def _painted(layout: Layout, x: float, y: float) -> bool:
    if layout.kind == "border":
        edge = min(x, y, 480 - x, 480 - y)
        return 70 <= edge < 130
    over, down = int(x // 48) % 2 == 0, int(y // 48) % 2 == 0
    return over if layout.kind == "stripes" else over or down if layout.kind == "checks" else over == down


@pytest.mark.parametrize("kind", ["chequers", "diamonds", "panels"])
def test_more_boxes_than_anybody_tapes_are_refused_before_they_are_made(
    kind: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    def none_made(*_: object) -> None:
        raise AssertionError("a box was made")

    monkeypatch.setattr(cells, "_cell", none_made)
    with pytest.raises(InvalidValue) as error:
        lay_out(Layout(kind, (Stripe(2.5, 2.5),)), rectangle(900, 900))  # type: ignore[arg-type]
    assert "boxes" in error.value.says
