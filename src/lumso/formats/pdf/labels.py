"""Jar labels: what is in it, for what, until when; a code to read aloud and one to scan."""

from collections.abc import Sequence

from reportlab.pdfgen.canvas import Canvas

from lumso.core.figure import lasts, millilitres

from .cards import Coded
from .page import MARGIN, MM, PAPERS, Paper, canvas, qr, swatch, write

COLUMNS, ROWS = 2, 5


def _label(page: Canvas, coded: Coded, x: float, top: float, width: float, height: float) -> None:
    code, address, file = coded
    batch = file.batch
    page.setLineWidth(0.5)
    page.rect(x, top - height, width, height, stroke=1, fill=0)
    side = min(26 * MM, height - 22 * 1.0)
    qr(page, address, x + width - side - 4, top - side - 4, side)
    write(page, x + width - side - 2, top - side - 15, code, 14, bold=True)
    room = width - side - 18
    y = write(page, x + 7, top - 16, batch.name, 16, bold=True, width=room, most=2)
    if batch.colour:
        swatch(page, x + 7, y - 1, batch.hex, 9)
        y = write(page, x + 20, y, batch.colour, 13, bold=True, width=room - 14, most=1)
    zones = ", ".join(dict.fromkeys(u.zone_name for u in batch.uses))
    y = write(page, x + 7, y, f"{file.job}: {zones}", 11, width=room, most=2)
    shares = " + ".join(f"{p.share:.0%} {p.name.lower()}" for p in batch.mix.parts)
    volume = batch.mix.volume.value
    if batch.step_down and batch.step_down.from_last_ml > 0:
        volume = batch.step_down.ml
        shares = f"{batch.step_down.water:.0%} water, begun from the last wash"
    of = f" ({batch.number} of {batch.of})" if batch.of > 1 else ""
    y = write(page, x + 7, y, f"{millilitres(volume)}{of}: {shares}", 11, width=room, most=4)
    if file.not_measured:
        write(page, x + 7, y, file.not_measured, 9, width=room, most=2)
    lives = "life: read the label"
    if batch.use_by_h is not None:
        lives = f"use within {lasts((batch.use_by_h - batch.ready_h) * 60)}"
    write(page, x + 7, top - height + 7, f"Mixed on ___________   {lives}", 11, width=width - 12, most=1)


def labels(batches: Sequence[Coded], paper: Paper) -> bytes:
    """The labels, ten on a page with lines to cut along, as a PDF."""
    page, out = canvas(paper, "Jar labels")
    width, height = PAPERS[paper]
    wide, high = (width - 2 * MARGIN) / COLUMNS, (height - 2 * MARGIN) / ROWS
    for number, coded in enumerate(batches):
        place = number % (COLUMNS * ROWS)
        if number and place == 0:
            page.showPage()
        x = MARGIN + (place % COLUMNS) * wide
        _label(page, coded, x, height - MARGIN - (place // COLUMNS) * high, wide, high)
    page.save()
    return out.getvalue()
