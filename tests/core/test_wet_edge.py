"""Sections that end where the face or the pattern does, and those of two: by hand and by property."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.layers.conditions import Room
from lumso.core.layers.wet_edge import OVERLAP_MM, GlazePlan, breaks_of, glaze_plan, minutes_per_m2, section_area
from lumso.core.layout.flat import FlatFace, oval, polygon_area, rectangle
from lumso.core.layout.mask import lay_out
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.measure.drawing import Point, box
from lumso.core.work.sheet import mix_sheet
from lumso.core.workshop.workshop import Workshop
from tests.core.test_batches import JOBS, C
from tests.counts import examples

PANEL = rectangle(1200, 2400)


def opened(area_m2: float, *, two: bool = False) -> float:
    """Minutes open in which so much is laid and worked, at 20 m² and two passes of 30 m² an hour."""
    return area_m2 * minutes_per_m2(20, 2, 30, two) / 0.7


def planned(face: FlatFace, area_m2: float, tool: float = 100, **more: object) -> GlazePlan:
    return glaze_plan("z", "l", "Face", face, opened(area_m2), 20, 2, 30, tool, **more)  # type: ignore[arg-type]


def test_two_work_as_fast_as_the_slower_of_them() -> None:
    """One lays a m² in 3 min, two passes take 4: alone 7 a m², together 4."""
    assert section_area(10, 20, 2, 30) == pytest.approx(1.0)
    assert section_area(10, 20, 2, 30, two=True) == pytest.approx(1.75)
    alone = glaze_plan("z", "l", "Panel", PANEL, 10, 20, 2, 30, 100)
    together = glaze_plan("z", "l", "Panel", PANEL, 10, 20, 2, 30, 100, two=True)
    assert (len(alone.strips), len(together.strips)) == (3, 2)
    assert together.strips[0].minutes == pytest.approx(4 * together.strips[0].area_m2)
    none = glaze_plan("z", "l", "Panel", PANEL, 0.5, 20, 2, 30, 100, two=True)
    assert not [way for way in none.ways if "second pair" in way]


def test_a_wall_breaks_first_beside_its_window() -> None:
    """3 m × 2.4 m with a window of 800 × 1000 from 1 m on: strokes down, at most 1.5 m²."""
    wall = FlatFace("polygon", rectangle(3000, 2400).outline, (box(1000, 600, 800, 1000),))
    assert breaks_of(wall, 100) == (0, 1000, 1800, 3000)
    made = planned(wall, 1.5)
    assert made.breaks == "beside what is set into it"
    # Left of it 2.4 m² in two of (1000 + 25)/2; over and under it 0.8 × 1.4 = 1.12 m² and its lap; right of it 2.88 m²
    # and a lap in two of (1225 + 25)/2: 625 × 2400 is 1.5 m², just what is open.
    assert [s.start_mm for s in made.strips] == [0, 487.5, 975, 1775, 2375]
    assert [s.width_mm for s in made.strips] == [512.5, 512.5, 825, 625, 625]
    assert made.strips[2].area_m2 == pytest.approx(0.8 * 1.4 + 0.025 * 2.4)
    assert made.strips[2].stroke_mm == pytest.approx(2400)  # where it laps over the one before
    assert [s.over_mm for s in made.strips] == [0, *[OVERLAP_MM] * 4]
    whole = planned(FlatFace("polygon", rectangle(900, 700).outline, (box(300, 300, 100, 100),)), 1.5)
    assert len(whole.strips) == 1  # all of it is worked at once: nothing needs a break
    assert whole.breaks == ""


@examples("sections of a face")
@given(st.floats(0.15, 1.2), st.floats(200, 1500), st.floats(100, 900), st.sampled_from(["down", "across"]))
def test_no_section_is_larger_than_what_stays_open_and_together_they_are_the_face(
    area: float, x: float, wide: float, stroke: str
) -> None:
    window = box(min(x, 2900 - wide), 700, wide, 900)
    wall = FlatFace("polygon", rectangle(3000, 2400).outline, (window,))
    made = planned(wall, area, tool=60, stroke=stroke)
    if not made.strips:
        return
    assert all(s.area_m2 <= area + 1e-9 for s in made.strips)
    assert all(s.stroke_mm * 60 / 1e6 <= area + 1e-9 for s in made.strips)
    edges = sorted((s.start_mm, s.start_mm + s.width_mm, s.over_mm) for s in made.strips)
    assert edges[0][0] == 0
    assert edges[-1][1] == pytest.approx(3000 if stroke == "down" else 2400)
    for (_, end, _), (start, _, over) in zip(edges, edges[1:], strict=False):
        assert end - start == pytest.approx(over) == OVERLAP_MM
    for strip in made.strips:
        (outline,) = strip.outlines
        assert polygon_area(outline) / 1e6 >= strip.area_m2 - 1e-9


def test_on_stripes_sections_are_whole_stripes_and_end_under_the_tape() -> None:
    """Twelve stripes of 50 × 2400 are 0.12 m² each: with 0.5 m² open, four at once, three times."""
    layout = Layout("stripes", (Stripe(50, 50),), ends="with half a gap")
    laid = lay_out(layout, PANEL)
    regions = [FlatFace("polygon", r.outline, r.holes) for r in laid.regions]
    made = planned(PANEL, 0.5, regions=regions)
    assert made.breaks == "under the tape"
    assert [len(s.outlines) for s in made.strips] == [4, 4, 4]
    assert [s.area_m2 for s in made.strips] == pytest.approx([0.48] * 3)
    assert [(s.start_mm, s.width_mm) for s in made.strips[:2]] == [(25, 350), (425, 350)]
    assert all(s.over_mm == 0 for s in made.strips)
    wide = lay_out(Layout("stripes", (Stripe(400, 200),), ends="with half a gap"), PANEL)
    cut = planned(PANEL, 0.5, regions=[FlatFace("polygon", r.outline) for r in wide.regions])
    # Each of 0.96 m²: in two with a lap it would be 0.51, so in three, and a new one is begun in every stripe.
    assert [round(s.width_mm, 1) for s in cut.strips] == [150] * 6
    assert [s.over_mm for s in cut.strips] == [0, OVERLAP_MM, OVERLAP_MM] * 2


def test_stripes_worked_across_are_turned_back_to_where_they_lie() -> None:
    laid = lay_out(Layout("stripes", (Stripe(200, 200),), ends="with half a gap"), oval(1200, 800))
    regions = [FlatFace("polygon", r.outline) for r in laid.regions]
    made = planned(oval(1200, 800), 0.3, regions=regions, stroke="across")
    assert made.strips
    inside = {Point(round(p.x), round(p.y)) for r in laid.regions for p in r.outline}
    assert all(0 <= p.x <= 1200 and 0 <= p.y <= 800 for s in made.strips for o in s.outlines for p in o)
    assert any(Point(round(p.x), round(p.y)) in inside for p in made.strips[0].outlines[0])


def test_a_door_is_dragged_along_each_of_its_parts() -> None:
    """Stiles down, rails across, panels along their height; each member a section of its own where it is small."""
    job = JOBS["Proscenium panels"]
    zones = tuple(
        replace(z, surfaces=("frame", "panels"), layers=tuple(replace(x, stroke="along each part") for x in z.layers))
        for z in job.zones
    )
    sheet = mix_sheet([replace(job, zones=zones[-1:])], Workshop(), C, Room())
    strokes = {p.surface: p.stroke for p in sheet.sections}
    assert strokes["Left stile"] == "down"
    assert strokes["Top rail"] == "across"
    assert strokes["Panel 1.1"] == "down"
    stile = next(p for p in sheet.sections if p.surface == "Left stile")
    assert stile.like == 2 * 2  # both stiles of both doors
    assert len(stile.at) == 2
