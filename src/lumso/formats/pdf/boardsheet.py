"""The layout of a test board at 1:1: to lie beneath the strips, or to cut out and glue beside them."""

from reportlab.pdfgen.canvas import Canvas

from lumso.core.job.board import Board, BoardStrip
from lumso.core.job.job import Job

from .page import MARGIN, MM, PAPERS, Paper, canvas, write

GAP, HEAD = 6 * MM, 16 * MM
RULE_MM = 50


def _rule(page: Canvas, x: float, y: float) -> None:
    """A bar of 50 mm, to see that it was printed at its size."""
    page.setLineWidth(0.6)
    page.line(x, y, x + RULE_MM * MM, y)
    for k in range(6):
        high = 2 * MM if k % 5 == 0 else 1.2 * MM
        page.line(x + k * 10 * MM, y, x + k * 10 * MM, y + high)
    write(page, x + RULE_MM * MM + 2 * MM, y, "50 mm: measure it. Printed at another size, it is not true.", 7.5)


def _strip(page: Canvas, job: Job, board: Board, strip: BoardStrip, x: float, y: float) -> None:
    """One strip, its lower left corner at (x, y)."""
    zone = next((z for z in job.zones if z.id == strip.zone), None)
    wide, long = board.width_mm * MM, board.length_mm * MM
    page.setLineWidth(0.8)
    page.rect(x, y, wide, long)
    for dx, dy in ((0, 0), (wide, 0), (0, long), (wide, long)):  # where to tape and where to cut
        page.line(x + dx - 3 * MM, y + dy, x + dx + 3 * MM, y + dy)
        page.line(x + dx, y + dy - 3 * MM, x + dx, y + dy + 3 * MM)
    write(page, x + 4 * MM, y + long - 12 * MM, strip.code, 30, bold=True)
    if zone is None:
        return
    at = write(
        page, x + 4 * MM, y + long - 20 * MM, zone.name.partition(": ")[2] or zone.name, 11, True, wide - 8 * MM, 4
    )
    for n, layer in enumerate(zone.layers, 1):
        recipe = next((r.name for r in job.entries.recipes if r.slug == layer.recipe), layer.recipe)
        coats = f", {layer.coats} coats" if layer.coats > 1 else ""
        at = write(page, x + 4 * MM, at - 2, f"{n}. {recipe}{coats}", 8.5, width=wide - 8 * MM, most=2)
    write(page, x + 4 * MM, y + 4 * MM, "too weak    as wanted    too strong", 8.5, width=wide - 8 * MM)


def board_sheet(job: Job, paper: Paper) -> bytes:
    """The layout of a board as a PDF at 1:1, with a bar to check the print by. The job must have a board."""
    board = job.board
    assert board is not None
    page, out = canvas(paper, f"{job.name}, layout")
    wide, high = PAPERS[paper]
    across = max(1, int((wide - 2 * MARGIN + GAP) // (board.width_mm * MM + GAP)))
    down = max(1, int((high - 2 * MARGIN - HEAD + GAP) // (board.length_mm * MM + GAP)))
    each = across * down
    for first in range(0, len(board.strips), each):
        write(page, MARGIN, high - MARGIN - 10, job.name, 12, bold=True, width=wide - 2 * MARGIN, most=1)
        _rule(page, MARGIN, high - MARGIN - HEAD + 3 * MM)
        for k, strip in enumerate(board.strips[first : first + each]):
            row, column = divmod(k, across)
            x = MARGIN + column * (board.width_mm * MM + GAP)
            y = high - MARGIN - HEAD - (row + 1) * (board.length_mm * MM + GAP) + GAP
            _strip(page, job, board, strip, x, y)
        page.showPage()
    page.save()
    return out.getvalue()
