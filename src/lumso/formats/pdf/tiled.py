"""A template at 1:1, tiled over sheets that are laid edge over edge by their marks; two check rules on the first."""

from collections.abc import Sequence

from reportlab.pdfgen.canvas import Canvas

from lumso.core.layout.template import MARGIN_MM, OVERLAP_MM, Template, Tile, corners, tiles

from ..template import STROKES
from .page import BOLD, MM, PAPERS, REGULAR, Paper, canvas

CROSS_MM = 4.0
RULE_MM, RULE_INCH_MM = 100.0, 101.6
"""The check rules: 100 mm across, 4 inches down."""


def tiled(template: Template, paper: Paper, scale_x: float = 1.0, scale_y: float = 1.0) -> bytes:
    """The template as a PDF. `scale_x`, `scale_y` make up for a printer that is off.

    The first sheet holds the check rules and how the sheets lie; then come the sheets, row by row.
    """
    page_width, page_height = (side / MM for side in PAPERS[paper])
    every = tiles(template.width * scale_x, template.height * scale_y, page_width, page_height)
    page, out = canvas(paper, template.title)
    page.setViewerPreference("PrintScaling", "None")
    _first(page, template, every, page_width, page_height, scale_x, scale_y)
    page.showPage()
    marks = corners(every)
    for tile in every:
        _sheet(page, template, tile, every, page_height, scale_x, scale_y)
        for at in marks:
            _cross(page, tile, at.x, at.y, page_height)
        page.showPage()
    page.save()
    return out.getvalue()


def _first(page: Canvas, template: Template, every: Sequence[Tile], width: float, height: float, scale_x: float,
           scale_y: float) -> None:  # fmt: skip
    page.setFont(BOLD, 14)
    page.drawString(15 * MM, (height - 20) * MM, template.title[:70])
    page.setFont(REGULAR, 10)
    rows, columns = max(t.row for t in every), max(t.column for t in every)
    says = (
        f"{len(every)} sheets, {rows} rows of {columns}. Print at 100 %, no scaling.",
        "Measure both rules. If one is not true, type what it measures, and print again.",
        "Lay the sheets over each other by their crosses; tape them from behind.",
    )
    for n, line in enumerate(says):
        page.drawString(15 * MM, (height - 28 - 6 * n) * MM, line)
    x, y = 25.0, height - 70.0
    page.setLineWidth(0.2 * MM)
    page.line(x * MM, y * MM, (x + RULE_MM * scale_x) * MM, y * MM)
    for k in range(11):
        at = x + k * RULE_MM / 10 * scale_x
        page.line(at * MM, y * MM, at * MM, (y + (5 if k % 5 == 0 else 3)) * MM)
    page.drawString(x * MM, (y + 7) * MM, "100 mm across")
    page.line(x * MM, y * MM, x * MM, (y - RULE_INCH_MM * scale_y) * MM)
    for k in range(5):
        down = y - k * RULE_INCH_MM / 4 * scale_y
        page.line(x * MM, down * MM, (x - 5) * MM, down * MM)
    page.drawString((x + 3) * MM, (y - 20) * MM, "4 inches down (101.6 mm)")
    _key(page, every, x + 40, y - 30)


def _key(page: Canvas, every: Sequence[Tile], x: float, y: float) -> None:
    """How the sheets lie."""
    columns = max(t.column for t in every)
    cell = min(18.0, 110.0 / columns)
    for tile in every:
        left, top = x + (tile.column - 1) * cell, y - (tile.row - 1) * cell
        page.rect(left * MM, (top - cell) * MM, cell * MM, cell * MM)
        page.drawString((left + 1.5) * MM, (top - cell / 2 - 1) * MM, f"{tile.row}.{tile.column}")


def _sheet(page: Canvas, template: Template, tile: Tile, every: Sequence[Tile], page_height: float, scale_x: float,
           scale_y: float) -> None:  # fmt: skip
    def to(x: float, y: float) -> tuple[float, float]:
        return (MARGIN_MM + x * scale_x - tile.x) * MM, (page_height - MARGIN_MM - y * scale_y + tile.y) * MM

    page.saveState()
    window = page.beginPath()
    left, top = MARGIN_MM * MM, (page_height - MARGIN_MM) * MM
    window.rect(left, top - tile.height * MM, tile.width * MM, tile.height * MM)
    page.clipPath(window, stroke=0, fill=0)
    for path in template.paths:
        page.setLineWidth(STROKES[path.layer] * MM)
        drawn = page.beginPath()
        for n, p in enumerate(path.points):
            (drawn.moveTo if n == 0 else drawn.lineTo)(*to(p.x, p.y))
        if path.closed:
            drawn.close()
        page.drawPath(drawn, stroke=1, fill=0)
    for w in template.words:
        page.setFont(REGULAR, w.size_mm * MM)
        page.drawString(*to(w.at.x, w.at.y), w.text)
    page.restoreState()
    page.setFont(BOLD, 9)
    rows, columns = max(t.row for t in every), max(t.column for t in every)
    page.drawString((MARGIN_MM + OVERLAP_MM + 3) * MM, (MARGIN_MM + 2) * MM,
                    f"{template.title[:40]}: row {tile.row} of {rows}, column {tile.column} of {columns}")  # fmt: skip


def _cross(page: Canvas, tile: Tile, x: float, y: float, page_height: float) -> None:
    """A registration mark, where it lies on this sheet."""
    if not (tile.x - 1e-6 <= x <= tile.x + tile.width + 1e-6 and tile.y - 1e-6 <= y <= tile.y + tile.height + 1e-6):
        return
    at_x, at_y = (MARGIN_MM + x - tile.x) * MM, (page_height - MARGIN_MM - y + tile.y) * MM
    half = CROSS_MM / 2 * MM
    page.setLineWidth(0.15 * MM)
    page.line(at_x - half, at_y, at_x + half, at_y)
    page.line(at_x, at_y - half, at_x, at_y + half)
    page.circle(at_x, at_y, half / 2, stroke=1, fill=0)
