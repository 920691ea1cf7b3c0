"""Drawings as geometry: shapes have their sizes, views do not overlap, files can be read."""

from math import pi
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.measure.drawing import Drawing, Face, Point, box, callout, ellipse, lay_out, outline, view
from lumso.core.piece.kinds import KINDS
from lumso.formats.svg import to_svg

SVG = "{http://www.w3.org/2000/svg}"


def area(points: tuple[Point, ...]) -> float:
    pairs = zip(points, (*points[1:], points[0]), strict=True)
    return abs(sum(a.x * b.y - b.x * a.y for a, b in pairs)) / 2


def test_a_box_has_its_area() -> None:
    assert area(box(5, 7, 30, 20)) == pytest.approx(600)


@given(st.floats(1, 3000), st.floats(1, 3000))
def test_an_ellipse_of_many_corners_has_nearly_its_area(width: float, height: float) -> None:
    assert area(ellipse(0, 0, width, height, 360)) == pytest.approx(pi * width * height / 4, rel=1e-3)


def test_an_outline_stands_on_its_foot_and_is_mirrored() -> None:
    points = outline(100, ((0, 40), (300, 20)), 500)
    assert {p.y for p in points} == {500, 200}
    assert sum(p.x - 100 for p in points) == pytest.approx(0)


def rectangle(width: float, height: float) -> Drawing:
    return view(
        "v", width, height, [Face("f", "f", box(0, 0, width, height))], [callout("w", "below", 0, height, width)]
    )


@given(st.lists(st.tuples(st.floats(10, 4000), st.floats(10, 4000)), min_size=1, max_size=4))
def test_views_laid_out_never_overlap_and_stay_inside(sizes: list[tuple[float, float]]) -> None:
    sheet = lay_out(*(rectangle(w, h) for w, h in sizes))
    boxes = []
    for face in sheet.faces:
        xs, ys = [p.x for p in face.outline], [p.y for p in face.outline]
        boxes.append((min(xs), min(ys), max(xs), max(ys)))
        assert -1e-6 <= min(xs) <= max(xs) <= sheet.width + 1e-6
        assert -1e-6 <= min(ys) <= max(ys) <= sheet.height + 1e-6
    for i, a in enumerate(boxes):
        for b in boxes[i + 1 :]:
            assert a[2] <= b[0] + 1e-6 or b[2] <= a[0] + 1e-6 or a[3] <= b[1] + 1e-6 or b[3] <= a[1] + 1e-6


def test_views_keep_one_scale() -> None:
    sheet = lay_out(rectangle(900, 800), rectangle(450, 800))
    widths = [max(p.x for p in f.outline) - min(p.x for p in f.outline) for f in sheet.faces]
    assert widths == pytest.approx([900, 450])


@pytest.mark.parametrize("slug", sorted(KINDS.keys() - {"parts"}))
def test_every_kind_becomes_an_svg_that_can_be_read(slug: str) -> None:
    kind = KINDS[slug]
    drawing = kind.draw(kind.usual())
    words = {s.slug: f"{s.usual_mm:g} mm & <more>" for s in kind.sizes}
    root = ElementTree.fromstring(to_svg(drawing, {}, words))
    assert len(root.findall(f"{SVG}polygon")) == len(drawing.faces)
    assert [t.text for t in root.findall(f"{SVG}text")] == [words[c.size] for c in drawing.callouts]


def test_bare_faces_are_hatched_and_coated_ones_filled() -> None:
    faces = (Face("a", "A", box(0, 0, 10, 10), "zone"), Face("b", "B", box(10, 0, 10, 10)))
    root = ElementTree.fromstring(to_svg(Drawing(20, 10, faces, ()), {"zone": "#123456"}, {}))
    assert [p.get("fill") for p in root.findall(f"{SVG}polygon")] == ["#123456", "url(#bare)"]
