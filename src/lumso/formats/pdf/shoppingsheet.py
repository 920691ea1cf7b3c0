"""The shopping list on paper: aisle by aisle, with boxes to tick and room for what was paid."""

from collections.abc import Sequence
from itertools import groupby

from reportlab.platypus import Flowable, KeepTogether, Table

from lumso.core.buying.money import said
from lumso.core.buying.shopping import ListLine, ShoppingList

from ..shopping import amount_said, packs_said
from .benchsheet import BODY, HEAD, STEP, TITLE, TickBox, paged, text
from .page import MARGIN, PAPERS, Paper, register

PAID = 90
"""Points kept free for what was paid."""


def _row(line: ListLine, currency: str, width: float) -> Flowable:
    colour = f", {line.colour}" if line.colour else ""
    lines = [
        text(f"{line.name}{colour}", STEP),
        text(f"{packs_said(line.packs) or 'no pack known'}, for {amount_said(line.buys, line.unit)}", BODY),
    ]
    lines += [text(note, BODY) for note in line.notes]
    table = Table([[TickBox(), lines, text(said(line.minor, currency), BODY)]],
                  colWidths=[24, width - 24 - PAID, PAID])  # fmt: skip
    table.setStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
                    ("BOTTOMPADDING", (0, 0), (-1, -1), 6), ("LINEBELOW", (0, 0), (-1, -1), 0.4, "black")])  # fmt: skip
    return table


def shopping_sheet(made: ShoppingList, jobs: Sequence[str], paper: Paper) -> bytes:
    """The list as a PDF."""
    register()
    inner = PAPERS[paper][0] - 2 * MARGIN
    story: list[Flowable] = [
        text("Shopping list", TITLE),
        text(f"For {', '.join(jobs)}. Amounts are estimates, with the margin chosen for each job.", BODY),
    ]
    for aisle, group in groupby(made.lines, key=lambda line: line.aisle):
        rows = [_row(line, made.currency, inner) for line in group]
        story += [KeepTogether([text(aisle[:1].upper() + aisle[1:], HEAD), rows[0]]), *rows[1:]]
    story += [text(line, BODY) for line in made.bundles]
    without = f", without {', '.join(made.unpriced)}: no price is known" if made.unpriced else ""
    story.append(text(f"Altogether {made.total}{without}.", HEAD))
    if made.ready:
        story.append(text(f"Have ready: {', '.join(made.ready)}.", BODY))
    return paged(story, "Shopping list", paper)
