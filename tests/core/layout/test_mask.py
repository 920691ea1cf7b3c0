"""Where a pattern lies: areas by hand and by counting points, borders as true parallels."""

from math import hypot, pi, sqrt

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lumso.core.errors import InvalidValue
from lumso.core.layout.flat import (
    FlatFace,
    chord,
    circumference,
    clipped,
    least_radius,
    oval,
    parallel,
    polygon_area,
    rectangle,
    strip_area,
)
from lumso.core.layout.mask import lay_out
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.layout.taping import taping_of
from lumso.core.measure.drawing import Point
from tests.counts import examples

OVAL = oval(1200, 800)
FIFTY = (Stripe(50, 50),)


def test_an_oval_is_its_formula_and_half_of_it_is_half() -> None:
    assert OVAL.area == pytest.approx(pi * 600 * 400)
    assert strip_area(OVAL, "x", 0, 600) == pytest.approx(OVAL.area / 2)
    assert strip_area(OVAL, "y", 0, 400) == pytest.approx(OVAL.area / 2)
    assert chord(OVAL, "x", 600) == pytest.approx(800)
    assert chord(OVAL, "x", 240) == pytest.approx(800 * 0.8)  # 3-4-5: 360 of 600 from the middle
    assert chord(OVAL, "x", 0) == 0


@given(st.floats(0, 1200), st.floats(0, 1200))
def test_a_strip_of_an_oval_is_as_large_as_its_polygon(a: float, b: float) -> None:
    low, high = sorted((a, b))
    assert strip_area(OVAL, "x", low, high) == pytest.approx(
        polygon_area(clipped(oval(1200, 800).outline, "x", low, high)), abs=OVAL.area * 3e-4
    )


def test_a_striped_oval_by_hand() -> None:
    """Three stripes of 200 with gaps of 200 and half gaps at the ends: 100–300, 500–700, 900–1100."""
    made = lay_out(Layout("stripes", (Stripe(200, 200),), ends="with half a gap"), OVAL)
    assert made.down is not None
    assert [(b.start_mm, b.end_mm) for b in made.down.bands] == [(100, 300), (500, 700), (900, 1100)]
    outer, middle = strip_area(OVAL, "x", 100, 300), strip_area(OVAL, "x", 500, 700)
    # A strip of an ellipse is 2ab∫√(1−u²)du: of the middle, u to ±1/6; of the outer, from −5/6 to −1/2.
    assert middle == pytest.approx(2 * 600 * 400 * 0.331780, rel=1e-4)
    assert outer == pytest.approx(600 * 400 * (_half(5 / 6) - _half(1 / 2)), rel=1e-9)
    assert made.painted_m2 == pytest.approx((2 * outer + middle) / 1e6)
    assert made.share == pytest.approx((2 * outer + middle) / OVAL.area)


def _half(u: float) -> float:
    """2∫₀ᵘ√(1−t²)dt by the midpoint rule."""
    n = 20_000
    total = sum(sqrt(1 - ((k + 0.5) * u / n) ** 2) for k in range(n))
    return 2 * total * u / n


def test_checks_count_their_crossings_once() -> None:
    made = lay_out(Layout("checks", FIFTY, ends="with half a gap"), rectangle(1000, 500))
    assert made.share == pytest.approx(1 - 0.5 * 0.5)
    assert len(made.regions) == 10 + 5
    assert sum(r.area_m2 for r in made.regions) == pytest.approx(0.25 + 0.25)
    assert made.painted_m2 == pytest.approx(0.375)


@examples("points counted on a layout")
@given(
    st.lists(st.builds(Stripe, st.floats(10, 90), st.floats(10, 90)), min_size=1, max_size=3).map(tuple),
    st.sampled_from(["stripes", "checks"]), st.sampled_from(["with a stripe", "with half a gap", "cut"]),
)  # fmt: skip
def test_what_is_painted_is_what_points_counted_on_it_say(stripes: tuple[Stripe, ...], kind: str, ends: str) -> None:
    layout = Layout(kind, stripes, ends=ends)  # type: ignore[arg-type]
    try:
        made = lay_out(layout, OVAL)
    except InvalidValue:
        assume(False)
    inside = painted = 0
    for n in range(6000):  # spread evenly, and in step with no stripe
        x, y = 1200 * (n * 0.7548776662466927 % 1), 800 * (n * 0.5698402909980532 % 1)
        if ((x - 600) / 600) ** 2 + ((y - 400) / 400) ** 2 > 1:
            continue
        inside += 1
        over_x = made.down is not None and any(b.start_mm <= x < b.end_mm for b in made.down.bands)
        over_y = made.across is not None and any(b.start_mm <= y < b.end_mm for b in made.across.bands)
        painted += over_x or over_y
    assert painted / inside == pytest.approx(made.share, abs=0.02)
    assert 0 < made.share <= 1


def test_the_regions_and_what_is_left_are_the_face() -> None:
    layout = Layout("stripes", (Stripe(40, 60), Stripe(10, 30)), runs="across")
    made = lay_out(layout, OVAL)
    assert made.across is not None
    edges = [0.0, *(x for b in made.across.bands for x in (b.start_mm, b.end_mm)), 800.0]
    gaps = sum(strip_area(OVAL, "y", low, high) for low, high in zip(edges[::2], edges[1::2], strict=True))
    assert made.painted_m2 * 1e6 + gaps == pytest.approx(OVAL.area)


def test_a_border_on_a_rectangle_by_hand() -> None:
    made = lay_out(Layout("border", (Stripe(20, 50),)), rectangle(1000, 500))
    assert made.painted_m2 == pytest.approx((900 * 400 - 860 * 360) / 1e6)
    (region,) = made.regions
    assert (min(p.x for p in region.outline), min(p.y for p in region.holes[0])) == pytest.approx((50, 70))


def test_a_border_on_an_oval_is_a_parallel_and_no_smaller_oval() -> None:
    """Each point of it is 50 mm from the edge; the oval 1100 × 700 comes more than a millimetre nearer."""
    fine = oval(1200, 800).outline
    line = parallel(OVAL, 50)
    for p in line[::9]:
        nearest = min(_from_segment(p, a, b) for a, b in zip(fine, (*fine[1:], fine[0]), strict=True))
        assert nearest == pytest.approx(50, abs=0.15)  # a chord of the drawn oval lies so far inside it
    smaller = oval(1100, 700).outline
    off = [min(_from_segment(Point(p.x + 50, p.y + 50), a, b)
               for a, b in zip(fine, (*fine[1:], fine[0]), strict=True)) for p in smaller[::9]]  # fmt: skip
    assert min(off) < 49
    made = lay_out(Layout("border", (Stripe(20, 50),)), OVAL)
    drawn = polygon_area(parallel(OVAL, 50)) - polygon_area(parallel(OVAL, 70))
    assert made.painted_m2 * 1e6 == pytest.approx(drawn, rel=2e-3)


def _from_segment(p: Point, a: Point, b: Point) -> float:
    along = ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / ((b.x - a.x) ** 2 + (b.y - a.y) ** 2)
    t = min(max(along, 0.0), 1.0)
    return hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y))


def test_an_inset_beyond_the_least_radius_is_refused_in_words() -> None:
    assert least_radius(OVAL) == pytest.approx(400**2 / 600)
    parallel(OVAL, 266)
    with pytest.raises(InvalidValue) as error:
        parallel(OVAL, 267)
    assert "bend too sharply" in error.value.says
    assert error.value.allowed == "less than 267 mm"
    with pytest.raises(InvalidValue):
        lay_out(Layout("border", (Stripe(20, 240),)), rectangle(1000, 500))


def test_a_circle_is_as_long_as_its_formula_and_a_taper_keeps_its_corners() -> None:
    assert circumference(oval(1000, 1000)) == pytest.approx(pi * 1000, rel=1e-6)
    taper = FlatFace("polygon", (Point(0, 0), Point(100, 0), Point(80, 400), Point(20, 400)))
    inside = parallel(taper, 10)
    assert len(inside) == 4
    assert all(abs(_from_segment(p, taper.outline[3], taper.outline[0]) - 10) < 1e-6 for p in (inside[0], inside[3]))
    assert chord(taper, "y", 200) == pytest.approx(80)


def test_checks_too_fine_to_tape_are_refused_and_stripes_as_fine_are_not() -> None:
    fine = Layout("checks", (Stripe(5, 5),))
    with pytest.raises(InvalidValue) as error:
        lay_out(fine, rectangle(1000, 500))
    assert "crossings" in error.value.says
    assert len(lay_out(Layout("stripes", (Stripe(5, 5),)), rectangle(1000, 500)).regions) == 101


def test_a_face_is_measured_from_the_corner_of_its_own_box() -> None:
    moved = FlatFace("polygon", tuple(Point(p.x + 300, p.y + 70) for p in rectangle(400, 200).outline))
    assert lay_out(Layout("stripes", FIFTY), moved).down == lay_out(Layout("stripes", FIFTY), rectangle(400, 200)).down


def test_a_stencil_frieze_ends_whole_by_hand() -> None:
    """Motifs of 120 with gaps of 30 along 1000: seven, with gaps of 22.9, nearer to 30 than the 46.7 of six."""
    frieze = Layout("repeats", (Stripe(120, 30),), runs="across", ends="with half a gap", row_mm=80, inset_mm=40,
                    covers=0.6)  # fmt: skip
    made = lay_out(frieze, rectangle(1000, 500))
    assert made.down is not None
    assert made.down.repeats == 7
    gap = 1000 / 7 - 120
    assert [b.start_mm for b in made.down.bands] == pytest.approx([gap / 2 + k * (120 + gap) for k in range(7)])
    assert made.painted_m2 == pytest.approx(7 * 120 * 80 * 0.6 / 1e6)
    for region in made.regions:
        assert (min(p.y for p in region.outline), max(p.y for p in region.outline)) == (40, 120)
    taping = taping_of(frieze, rectangle(1000, 500), made)
    assert (taping.runs, taping.metres, taping.rolls) == ((), 0, 0)
    assert taping.worst_mm == 0.5  # half a tick: there is no tape
    assert made.down.says.startswith("7 repeats, 7 motifs; the gaps are ")
    assert [e.length_mm for e in taping.elements] == [80] * 7
    with pytest.raises(InvalidValue) as high:
        lay_out(frieze, rectangle(1000, 110))
    assert (high.value.field, high.value.allowed) == ("row_mm", "at most 70 mm")


def test_a_tartan_top_by_hand() -> None:
    """A set of 60, 10, 10 with gaps of 30, 10, 80 each way on 1000 × 600: five sets and three, as wide as asked."""
    tartan = Layout("checks", (Stripe(60, 30), Stripe(10, 10), Stripe(10, 80)), ends="with half a gap")
    made = lay_out(tartan, rectangle(1000, 600))
    assert made.down is not None
    assert made.across is not None
    assert (made.down.repeats, len(made.down.bands)) == (5, 15)
    assert (made.across.repeats, len(made.across.bands)) == (3, 9)
    assert made.down.changed == made.across.changed == pytest.approx(0)
    assert [b.start_mm for b in made.down.bands[:4]] == pytest.approx([40, 130, 150, 240])
    # 80 of each 200 are painted each way: what is bare is what neither is, 0.6 × 0.6.
    assert made.share == pytest.approx(1 - 0.6 * 0.6)
