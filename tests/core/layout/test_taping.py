"""Taping: neighbours too near for any tape are not painted at once; every inner edge is taped; tape is counted."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lumso.core.errors import InvalidValue
from lumso.core.layout.flat import chord, oval, rectangle
from lumso.core.layout.mask import lay_out
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.layout.taping import OVERHANG_MM, Taping, taping_of, widest_within

BOARD = rectangle(1000, 500)


def taped(layout: Layout) -> Taping:
    return taping_of(layout, BOARD, lay_out(layout, BOARD))


def test_tape_of_a_board_in_stripes_by_hand() -> None:
    made = taped(Layout("stripes", (Stripe(50, 50),), ends="with half a gap"))
    # Ten stripes, both edges, each as long as the board is wide and 30 mm over at both ends.
    assert len(made.runs) == 20
    assert made.metres == pytest.approx(20 * (500 + 2 * OVERHANG_MM) / 1000)
    assert made.passes == 1
    assert {r.tape_mm for r in made.runs} == {25.0, 50.0}  # half a gap at the edges has room for 25
    assert made.worst_mm == pytest.approx(0.5 + 0.2)
    assert sum(t.metres for t in made.by_width) == pytest.approx(made.metres)
    assert made.rolls == 1


def test_an_edge_of_the_surface_needs_no_tape() -> None:
    made = taped(Layout("stripes", (Stripe(50, 50),)))  # a stripe at both edges
    assert len(made.runs) == 2 * 11 - 2
    assert all(0 < r.at_mm < 1000 for r in made.runs)


def test_pins_no_tape_fits_between_are_painted_in_turn_and_taped_past_each_other() -> None:
    made = taped(Layout("stripes", (Stripe(40, 4),), ends="with half a gap", tapes_mm=(6.0, 25.0)))
    assert made.passes == 2
    assert [e.painted_in for e in made.elements[:4]] == [1, 2, 1, 2]
    assert all(r.tape_mm == 25 for r in made.runs if 100 < r.at_mm < 900)  # its neighbour is not wet: there is room
    assert any("2 goes" in s and "holds tape" in s for s in made.steps)


def test_stripes_that_cross_wait_for_each_other() -> None:
    made = taped(Layout("checks", (Stripe(50, 50),)))
    assert {e.runs: e.painted_in for e in made.elements} == {"down": 1, "across": 2}
    assert [e.number for e in made.elements] == list(range(1, len(made.elements) + 1))
    by_number = {e.number: e for e in made.elements}
    for run in made.runs:  # each tape lies at an edge of the element it names
        mine = by_number[run.stripe]
        assert run.painted_in == mine.painted_in
        assert run.at_mm in (mine.start_mm, mine.end_mm)
    assert made.passes == 2


@given(
    st.lists(st.builds(Stripe, st.floats(4, 90), st.floats(2, 60)), min_size=1, max_size=3).map(tuple),
    st.sampled_from(["with a stripe", "with half a gap", "cut"]), st.sampled_from([(6.0, 25.0), (19.0,)]),
)  # fmt: skip
def test_no_two_stripes_of_a_pass_lie_nearer_than_a_tape_and_all_inner_edges_are_taped(
    stripes: tuple[Stripe, ...], ends: str, tapes: tuple[float, ...]
) -> None:
    try:
        made = taped(Layout("stripes", stripes, ends=ends, tapes_mm=tapes))  # type: ignore[arg-type]
    except InvalidValue:
        assume(False)
    assert made.passes <= 2
    edges = {(r.stripe, r.edge) for r in made.runs}
    for one in made.elements:
        assert ((one.number, "first") in edges) == (one.start_mm > 1e-6)
        assert ((one.number, "second") in edges) == (one.end_mm < 1000 - 1e-6)
    for a, b in zip(made.elements, made.elements[1:], strict=False):
        if b.start_mm - a.end_mm < min(tapes) - 1e-9:
            assert a.painted_in != b.painted_in


def test_tape_on_an_oval_is_as_long_as_the_stripe_is_there() -> None:
    top = oval(1200, 800)
    layout = Layout("stripes", (Stripe(200, 200),), ends="with half a gap")
    made = taping_of(layout, top, lay_out(layout, top))
    by_place = {round(r.at_mm): r.length_mm - 2 * OVERHANG_MM for r in made.runs}
    assert by_place[500] == pytest.approx(chord(top, "x", 500))
    assert by_place[100] == pytest.approx(by_place[1100])
    assert by_place[100] < by_place[300] < by_place[500]


def test_a_border_is_taped_along_both_its_edges() -> None:
    made = taped(Layout("border", (Stripe(20, 50),)))
    assert [round(r.length_mm) for r in made.runs] == [2 * (900 + 400), 2 * (860 + 360)]
    assert [r.mark_mm for r in made.runs] == [50, 70]
    assert any("bend" in s for s in made.steps)


def test_the_widest_tape_that_has_room() -> None:
    assert widest_within((6.0, 12.0, 25.0), 20) == 12
    assert widest_within((6.0, 12.0), 3) == 6  # it runs over: there is nothing narrower
