"""A layout on a picture: at its true size, its edges where the tape is, its share what it paints."""

from dataclasses import replace

import numpy as np
import pytest

from lumso.core.layout.flat import rectangle
from lumso.core.layout.mask import lay_out
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.look.laid_out import painted
from lumso.core.look.noise import Sheet
from tests.core.look.making import laid, look

SHEET = Sheet(400, 400.0, 1)
FIFTY = (Stripe(50, 50),)


@pytest.mark.parametrize(
    "layout",
    [
        Layout("stripes", FIFTY, ends="with half a gap"),
        Layout("stripes", (Stripe(30, 20), Stripe(10, 40)), runs="across", ends="with half a gap"),
        Layout("checks", FIFTY, ends="with half a gap", down=(Stripe(20, 80),)),
        Layout("panels", FIFTY, ends="with half a gap", down=(Stripe(60, 40),)),
        Layout("chequers", FIFTY, down=(Stripe(40, 40),)),
        Layout("diamonds", FIFTY, down=(Stripe(100, 100),)),
    ],
    ids=lambda x: f"{x.kind} {x.runs}",
)
def test_a_picture_shows_as_much_of_a_pattern_as_it_paints(layout: Layout) -> None:
    """On 400 × 400 all of these come out even as they are: what is drawn is what is laid out there."""
    shown = painted(layout, SHEET)
    laid = lay_out(layout, rectangle(400, 400))
    assert laid.down is None or laid.down.changed == pytest.approx(0)
    assert shown.mean() == pytest.approx(laid.share, abs=0.006)
    wrong = 0
    for n in range(2000):
        x, y = 400 * (n * 0.7548776662466927 % 1), 400 * (n * 0.5698402909980532 % 1)
        inside = any(_inside(r.outline, x, y) for r in laid.regions)
        value = shown[int(y), int(x)]
        wrong += 0.01 < value < 0.99 or (value > 0.5) != inside
    assert wrong < 2000 * 0.06  # spots that an edge runs through


def _inside(outline: tuple, x: float, y: float) -> bool:  # type: ignore[type-arg]
    found = False
    for a, b in zip(outline, (*outline[1:], outline[0]), strict=True):
        if (a.y > y) != (b.y > y) and x < a.x + (y - a.y) / (b.y - a.y) * (b.x - a.x):
            found = not found
    return found


def test_a_border_runs_along_the_edges_of_the_piece_and_motifs_in_their_row() -> None:
    border = painted(Layout("border", (Stripe(20, 30),)), SHEET)
    assert (border[200, 10], border[200, 40], border[200, 60]) == (0, 1, 0)
    assert (border[40, 200], border[10, 200]) == (1, 0)
    row = painted(Layout("repeats", (Stripe(60, 40),), runs="across", row_mm=60, inset_mm=40, covers=0.5), SHEET)
    assert row[:39].max() == 0
    assert row[102:].max() == 0
    assert row[70, 50] == 1  # the middle of the first motif
    assert row[40:100, :100].sum() == pytest.approx(0.5 * 60 * 60, rel=0.03)
    assert np.array_equal(row[:, :100], row[:, 100:200])


def test_a_stripe_at_the_edge_begins_there_and_half_a_gap_before_it_does_not() -> None:
    edge = painted(Layout("stripes", FIFTY), SHEET)
    half = painted(Layout("stripes", FIFTY, ends="with half a gap"), SHEET)
    assert (edge[0, 10], edge[0, 60]) == (1, 0)
    assert (half[0, 10], half[0, 30]) == (0, 1)


def test_inside_its_stripes_a_layer_lies_all_over() -> None:
    """However little of the zone it touches: its stripes have no bare patches."""
    over = replace(laid("paint-plain", "#8c2f2f"), layout=Layout("stripes", FIFTY), touched=0.3)
    bare = replace(over, layout=None)
    stripes, patches = (look(x).films[-1] for x in (over, bare))
    assert (stripes.touched, patches.touched) == (1.0, 0.3)
    surface = look(over).surface(160)
    row = surface.coats[-1].where
    step = surface.sheet.mm_per_px
    assert np.all(row[:, int(5 / step) : int(45 / step)] == 1)  # type: ignore[index]
    assert np.all(row[:, int(55 / step) : int(95 / step)] == 0)  # type: ignore[index]
