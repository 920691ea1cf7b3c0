"""Bands on turned and tapering parts: along the wall, developed, and what straight tape does on a cone."""

from dataclasses import replace
from math import cos, hypot, pi, sin

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lumso.core.errors import InvalidValue
from lumso.core.job.areas import measure
from lumso.core.job.job import Job
from lumso.core.job.laying import areas_of, laid_faces, metres_of, share_of
from lumso.core.layout.flat import FlatFace, polygon_area
from lumso.core.layout.mask import lay_out
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.layout.taping import LAP_MM, taping_of
from lumso.core.layout.template import template_of
from lumso.core.layout.turned import arc_of, wall_of
from lumso.core.measure.drawing import outline
from lumso.core.measure.lengths import Length
from lumso.core.measure.shapes import frustum_wall, turned_profile
from lumso.core.piece.piece import Piece

LEG = FlatFace("round", outline(25, ((0, 30), (420, 50)), 420))
"""A leg from 50 down to 30 mm over 420 mm, the thick end up."""
BANDS = Layout("stripes", (Stripe(20, 60, "band"),), runs="across", ends="with half a gap")


def test_the_wall_of_a_tapering_leg_is_its_slant_and_its_area_the_frustum() -> None:
    wall = wall_of(LEG.outline)
    assert wall.length == pytest.approx(hypot(420, 10))
    assert wall.area(0, wall.length) / 1e6 == pytest.approx(0.05279, abs=5e-6)
    assert wall.area(0, wall.length) / 1e6 == pytest.approx(frustum_wall(50, 30, 420))
    assert wall.at(0) == pytest.approx((0, 50))
    assert wall.at(wall.length) == pytest.approx((420, 30))
    assert wall.girth(wall.length / 2) == pytest.approx(pi * 40)


def test_straight_tape_on_that_leg_misses_itself_by_12_mm_at_its_thick_end() -> None:
    """The flat sector has a radius of 25 ÷ (10/420.1) = 1,050 mm there and an angle of 0.1496 rad; a straight line
    leaves its arc by 1,050 × (1/cos 0.1496 − 1) = 11.9 mm."""
    arc = arc_of(wall_of(LEG.outline), 1, 0, 20)
    assert arc.outer_mm == pytest.approx(1050.3, abs=0.1)
    assert arc.angle_rad == pytest.approx(0.14956, abs=1e-5)
    assert arc.misses_mm == pytest.approx(11.86, abs=0.01)
    assert "12 mm" in arc.says
    assert arc.girths_mm[0] == pytest.approx(pi * 50)
    assert arc.outer_mm * arc.angle_rad == pytest.approx(pi * 50)
    rod = wall_of(outline(25, ((0, 50), (420, 50)), 420))
    assert (arc_of(rod, 1, 0, 20).misses_mm, arc_of(rod, 1, 0, 20).says) == (0, "Straight tape lies.")


def test_five_bands_on_the_leg_by_hand() -> None:
    """A repeat of 80 on 420.12: five, with gaps of 64.02, half of one above the first."""
    made = lay_out(BANDS, LEG)
    assert made.across is not None
    gap = (hypot(420, 10) - 5 * 20) / 5
    assert [b.start_mm for b in made.across.bands] == pytest.approx([gap / 2 + k * (20 + gap) for k in range(5)])
    # The painted share of the wall: bands where it is thick count for more; in the middle all is even.
    assert made.share == pytest.approx(100 / hypot(420, 10), rel=1e-9)
    girths = [pi * (50 - 20 * (b.start_mm + 10) / hypot(420, 10)) for b in made.across.bands]
    assert [r.area_m2 * 1e6 for r in made.regions] == pytest.approx([g * 20 for g in girths])
    taping = taping_of(BANDS, LEG, made)
    edges = [x for b in made.across.bands for x in (b.start_mm, b.end_mm)]
    around = sum(pi * (50 - 20 * x / hypot(420, 10)) + LAP_MM for x in edges)
    assert taping.metres == pytest.approx(around / 1000)
    assert any("misses itself by 12 mm" in s or "misses itself by 11 mm" in s for s in taping.steps)
    assert any("along the wall" in s for s in taping.steps)


def test_the_developed_template_has_the_area_and_the_girth_of_each_band() -> None:
    made = lay_out(BANDS, LEG)
    sheet = template_of("leg", LEG, made)
    assert len(sheet.paths) == 5
    for path, region in zip(sheet.paths, made.regions, strict=True):
        assert polygon_area(path.points) == pytest.approx(region.area_m2 * 1e6, rel=1e-3)
    steps = [hypot(a.x - b.x, a.y - b.y) for a, b in zip(sheet.paths[0].points[:60], sheet.paths[0].points[1:61],
                                                         strict=True)]  # fmt: skip
    assert sum(steps) == pytest.approx(made.arcs[0].girths_mm[0], rel=1e-3)
    arc = made.arcs[0]
    rise = arc.outer_mm * (1 - cos(arc.angle_rad / 2))
    ys = [p.y for p in sheet.paths[0].points[:61]]
    assert max(ys) - min(ys) == pytest.approx(rise)
    assert sheet.width == pytest.approx(max(max(a.girths_mm) for a in made.arcs))
    assert 2 * arc.outer_mm * sin(arc.angle_rad / 2) <= sheet.width


stations = st.lists(st.tuples(st.floats(20, 200), st.floats(15, 90)), min_size=2, max_size=6)


@given(stations, st.floats(0, 1), st.floats(0, 1))
def test_the_wall_of_any_turning_adds_up(parts: list[tuple[float, float]], a: float, b: float) -> None:
    at, made = 0.0, []
    for rise, diameter in parts:
        made.append((at, diameter))
        at += rise
    wall = wall_of(outline(50, made, at))
    assert wall.area(0, wall.length) / 1e6 == pytest.approx(turned_profile(made), rel=1e-9)
    low, high = sorted((a * wall.length, b * wall.length))
    whole = wall.area(0, low) + wall.area(low, high) + wall.area(high, wall.length)
    assert whole == pytest.approx(wall.area(0, wall.length))


@given(stations, st.floats(8, 40), st.floats(8, 60))
def test_bands_and_gaps_are_the_wall(parts: list[tuple[float, float]], width: float, gap: float) -> None:
    at, made = 0.0, []
    for rise, diameter in parts:
        made.append((at, diameter))
        at += rise
    face = FlatFace("round", outline(50, made, at))
    try:
        laid = lay_out(Layout("stripes", (Stripe(width, gap),), runs="across"), face)
    except InvalidValue:
        assume(False)
    assert laid.across is not None
    wall = face.wall
    edges = [0.0, *(x for b in laid.across.bands for x in (b.start_mm, b.end_mm)), wall.length]
    gaps = sum(wall.area(low, high) for low, high in zip(edges[::2], edges[1::2], strict=True))
    assert laid.painted_m2 * 1e6 + gaps == pytest.approx(wall.area(0, wall.length))


def test_stripes_down_a_round_part_and_patterns_on_balls_are_refused_in_words() -> None:
    with pytest.raises(InvalidValue) as down:
        lay_out(replace(BANDS, runs="down"), LEG)
    assert "bands" in down.value.says
    with pytest.raises(InvalidValue) as ball:
        lay_out(BANDS, FlatFace("solid", LEG.outline))
    assert ball.value.allowed


def test_a_hat_stand_is_banded_on_its_post_and_base_and_not_on_knobs_and_arms(rack: Job) -> None:
    sizes = {"height": 1750, "post": 55, "base": 420, "base_height": 40, "arm": 220, "arm_diameter": 26, "knob": 45}
    piece = Piece("turned-stand", {k: Length(v, f"{v}") for k, v in sizes.items()}, {"arms": 6})
    zone = replace(rack.zones[0], surfaces=("post", "arms", "knobs"))
    job = replace(rack, piece=piece, zones=(zone,))
    measured = measure(job)
    assert measured.drawing is not None
    (post,) = laid_faces(BANDS, zone, measured.drawing.faces)
    assert post.surface == "post"
    areas = areas_of(measured)
    assert post.laid.face_m2 == pytest.approx(areas["post"], rel=1e-6)
    assert share_of([post], areas, zone) == pytest.approx(
        post.laid.share * areas["post"] / (areas["post"] + areas["arms"] + areas["knobs"])
    )


def test_tape_is_counted_for_all_like_pieces(rack: Job) -> None:
    half = Layout("stripes", (Stripe(50, 50),), ends="with half a gap", surfaces=("top",))
    one, three = (replace(rack, piece=replace(rack.piece, like=n)) for n in (1, 3) if rack.piece)
    metres = []
    for job in (one, three):
        piece = measure(job)
        assert piece.drawing is not None
        metres.append(
            metres_of(
                laid_faces(half, job.zones[0], piece.drawing.faces), areas_of(piece), job.piece.like if job.piece else 0
            )
        )
    assert metres[1] == pytest.approx(3 * metres[0])
