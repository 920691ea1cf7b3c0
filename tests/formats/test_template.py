"""Templates at 1:1: read back by other libraries; sheets laid together by their marks, on a printer that is off too."""

import io
import re
from itertools import pairwise
from math import hypot

import pytest
from ezdxf.filemanagement import read as read_dxf
from pypdf import PdfReader
from svgelements import SVG, Path

from lumso.core.errors import InvalidValue
from lumso.core.layout.flat import oval, rectangle
from lumso.core.layout.mask import lay_out
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.layout.taping import taping_of
from lumso.core.layout.template import (
    MARGIN_MM,
    OVERLAP_MM,
    Template,
    corners,
    corrected,
    sheets_of,
    stick_marks,
    story_stick,
    template_of,
    tiles,
)
from lumso.core.measure.drawing import Point
from lumso.formats.pdf import tiled
from lumso.formats.template import to_dxf, to_svg

MM = 72 / 25.4
LAYOUT = Layout("stripes", (Stripe(200, 200),), ends="with half a gap")
TOP = oval(1200, 800)


def top() -> Template:
    return template_of("Loft table: Top", TOP, lay_out(LAYOUT, TOP))


def far(points: list[tuple[float, float]], line: list[tuple[float, float]]) -> float:
    """How far the farthest of some points is from a closed line."""

    def near(p: tuple[float, float], a: tuple[float, float], b: tuple[float, float]) -> float:
        (x, y), (ax, ay), (bx, by) = p, a, b
        long = (bx - ax) ** 2 + (by - ay) ** 2
        t = 0.0 if not long else min(max(((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / long, 0.0), 1.0)
        return hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay))

    return max(min(near(p, a, b) for a, b in pairwise((*line, line[0]))) for p in points)


def test_a_drawing_program_reads_the_dxf_in_mm_as_it_was_drawn() -> None:
    made = top()
    read = read_dxf(io.StringIO(to_dxf(made)))
    assert read.header["$INSUNITS"] == 4
    lines = list(read.modelspace().query("POLYLINE"))
    assert [x.dxf.layer for x in lines] == ["EDGE", "PAINTED", "PAINTED", "PAINTED"]
    for line, path in zip(lines, made.paths, strict=True):
        assert line.is_closed
        got = [(v.dxf.location.x, made.height - v.dxf.location.y) for v in line.vertices]
        assert got == [pytest.approx((p.x, p.y), abs=1e-3) for p in path.points]
    assert [t.dxf.text for t in read.modelspace().query("TEXT")] == ["1", "2", "3"]
    assert not read.audit().has_errors


def test_an_svg_is_as_large_as_the_piece_and_its_lines_are_where_they_were() -> None:
    made = top()
    read = SVG.parse(io.StringIO(to_svg(made)), ppi=25.4)  # a user unit a mm
    assert (read.width, read.height) == pytest.approx((1200, 800))
    paths = [e for e in read.elements() if isinstance(e, Path)]
    assert len(paths) == len(made.paths)
    for path, drawn in zip(paths, made.paths, strict=True):
        points = [(p.x, p.y) for p in path.as_points()]
        assert far(points, [(p.x, p.y) for p in drawn.points]) < 0.01


def drawn(page: str) -> tuple[list[list[tuple[float, float]]], list[tuple[float, float]]]:
    """The lines of a sheet, and the middles of its registration marks, mm from its upper left corner; paths only."""
    lines: list[list[tuple[float, float]]] = []
    for line in page.splitlines():
        for x, y, op in re.findall(r"(-?[\d.]+) (-?[\d.]+) ([ml])(?= |$)", line):
            if op == "m":
                lines.append([])
            lines[-1].append((float(x), float(y)))
    level = [(a, b) for a, b in (x for x in lines if len(x) == 2) if abs(a[1] - b[1]) < 1e-6 and abs(b[0] - a[0]) < 12]
    marks = [((a[0] + b[0]) / 2, a[1]) for a, b in level]
    return [x for x in lines if len(x) > 2], marks


@pytest.mark.parametrize(("paper", "printer"), [("a4", (1.0, 1.0)), ("letter", (1.0, 1.0)), ("a4", (0.97, 1.02))])
def test_sheets_laid_together_by_their_marks_are_the_piece(paper: str, printer: tuple[float, float]) -> None:
    """`printer` is by how much it is off across and down; its check rules are measured, and the sheets made again."""
    off_x, off_y = printer
    scale_x, scale_y = corrected(100 * off_x, 100, "across"), corrected(101.6 * off_y, 101.6, "down")
    made = top()
    document = PdfReader(io.BytesIO(tiled(made, "a4" if paper == "a4" else "letter", scale_x, scale_y)))
    assert document.viewer_preferences is not None
    assert str(document.viewer_preferences.print_scaling) == "/None"
    width, height = (float(document.pages[0].mediabox[k]) / MM for k in (2, 3))
    every = tiles(1200 * scale_x, 800 * scale_y, width, height)
    assert len(document.pages) == 1 + len(every)
    found: list[tuple[float, float]] = []
    for page, tile in zip(document.pages[1:], every, strict=True):
        assert f"row {tile.row} of" in page.extract_text()
        contents = page.get_contents()
        assert contents is not None
        lines, marks = drawn(contents.get_data().decode("latin-1"))
        assert marks
        # A mark says where this sheet lies: the middle of what it shares with its neighbours, as printed.
        x, y = marks[0]
        here = ((x / MM) * off_x, (height - y / MM) * off_y)
        on = min(corners(every), key=lambda p: abs(p.x - tile.x + MARGIN_MM - x / MM)
                 + abs(p.y - tile.y + MARGIN_MM - (height - y / MM)))  # fmt: skip
        for line in lines:
            for px, py in line:
                at = ((px / MM) * off_x, (height - py / MM) * off_y)
                found.append((at[0] - here[0] + on.x * off_x, at[1] - here[1] + on.y * off_y))
    for path in made.paths:
        for p in path.points[::7]:
            assert min(hypot(p.x - a, p.y - b) for a, b in found) < 0.02


def test_every_mark_and_line_keeps_the_margin_and_marks_stand_on_every_sheet_they_join() -> None:
    every = tiles(1200, 800, 210, 297)
    assert {(t.row, t.column) for t in every} == {(r, c) for r in range(1, 4) for c in range(1, 8)}
    assert all(t.width <= 210 - 2 * MARGIN_MM + 1e-9 and t.height <= 297 - 2 * MARGIN_MM + 1e-9 for t in every)
    for mark in corners(every):
        on = [t for t in every if t.x <= mark.x <= t.x + t.width and t.y <= mark.y <= t.y + t.height]
        assert len(on) == 4
        assert all(min(mark.x - t.x, t.x + t.width - mark.x) == pytest.approx(OVERLAP_MM / 2) for t in on)
    for a, b in pairwise([t for t in every if t.row == 1]):
        assert a.x + a.width - b.x == pytest.approx(OVERLAP_MM)


def test_a_printer_that_is_off_by_more_than_a_twentieth_is_not_corrected() -> None:
    assert corrected(None, 100, "across_mm") == 1
    assert corrected(97, 100, "across_mm") == pytest.approx(100 / 97)
    assert corrected(105, 100, "across_mm") == pytest.approx(100 / 105)
    for measured in (94.9, 105.1, 0.0):
        with pytest.raises(InvalidValue) as error:
            corrected(measured, 100, "across_mm")
        assert error.value.field == "across_mm"
        assert error.value.allowed.startswith("95 to 105 mm")


def test_a_story_stick_has_every_mark_where_it_is_measured() -> None:
    board = rectangle(1000, 500)
    layout = Layout("stripes", (Stripe(33.3, 20),))
    taping = taping_of(layout, board, lay_out(layout, board))
    stick = story_stick("stick", taping, "across", 1000)
    marks = [p.points[0].x for p in stick.paths if p.layer == "marks"]
    assert marks == [m for e in taping.elements for m in e.marks_mm]
    assert stick.paths[0].points[1] == Point(1000, 0)
    pages = PdfReader(io.BytesIO(tiled(stick, "a4"))).pages
    assert len(pages) == 1 + 6  # 196 mm a sheet, 10 of them shared


def test_the_sticks_of_a_board_have_each_column_and_each_row_once() -> None:
    board = rectangle(480, 240)
    layout = Layout("chequers", (Stripe(60, 60),))
    taping = taping_of(layout, board, lay_out(layout, board))
    across, down = stick_marks(taping, "across"), stick_marks(taping, "down")
    assert sorted(across.values()) == [(60.0 * k, 60.0 * (k + 1)) for k in range(8)]
    assert sorted(down.values()) == [(60.0 * k, 60.0 * (k + 1)) for k in range(4)]
    checks = Layout("checks", (Stripe(60, 60),), ends="with half a gap")
    both = taping_of(checks, board, lay_out(checks, board))
    assert len(stick_marks(both, "across")) == 4
    assert list(stick_marks(both, "down").values()) == [(30, 90), (150, 210)]


def test_as_many_sheets_are_counted_as_are_printed() -> None:
    board = rectangle(900, 500)
    template = template_of("board", board, lay_out(Layout("stripes", (Stripe(50, 50),)), board))
    for paper in ("a4", "letter"):
        rows, columns = sheets_of(template, paper)
        pages = PdfReader(io.BytesIO(tiled(template, paper))).pages
        assert len(pages) == 1 + rows * columns
