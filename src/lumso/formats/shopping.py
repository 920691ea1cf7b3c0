"""The shopping list to take along: CSV, plain text, and a page to print and tick."""

import csv
import io
from collections.abc import Sequence
from itertools import groupby

from lumso.core.buying.lots import Unit
from lumso.core.buying.money import said
from lumso.core.buying.packs import PER_UNIT, Basket, Shop, over
from lumso.core.buying.shopping import ListLine, PackBought, ShoppingList
from lumso.core.figure import millilitres, tidy

from .workshop import safe

COLUMNS = ("aisle", "item", "colour", "buy", "packs", "price", "currency", "note")


def amount_said(amount: float, unit: Unit) -> str:
    """An amount as it is bought: 250 ml, 1.20 l, 180 g, 3 pieces, 12 m."""
    if unit == "ml":
        return millilitres(amount)
    if unit == "piece":
        return f"{tidy(amount)} {'piece' if amount == 1 else 'pieces'}"
    return f"{tidy(amount)} {unit}"


def packs_said(packs: Sequence[PackBought]) -> str:
    """Packs in words: 2 × 500 ml + 1 × 1 l."""
    return " + ".join(p.says for p in packs)


def left_over(shop: Shop, basket: Basket) -> float:
    """What a basket holds beyond what is wanted."""
    return sum(over(shop, basket.packs).values()) / PER_UNIT


def _note(line: ListLine) -> str:
    jobs = ", ".join(dict.fromkeys(u.job_name for u in line.uses))
    return " ".join([*line.notes, f"For {jobs}." if jobs else ""]).strip()


def to_csv(made: ShoppingList) -> str:
    """The list as a spreadsheet, a line each."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(COLUMNS)
    for line in made.lines:
        price = "" if line.minor is None else said(line.minor, made.currency).removesuffix(made.currency).strip()
        cells = (line.aisle, line.name, line.colour, amount_said(line.buys, line.unit), packs_said(line.packs), price,
                 made.currency, _note(line))  # fmt: skip
        rows.writerow([safe(cell) for cell in cells])
    return out.getvalue()


def _said(line: ListLine, currency: str) -> str:
    colour = f", {line.colour}" if line.colour else ""
    packs = packs_said(line.packs) or "no pack known"
    return f"{line.name}{colour}: {amount_said(line.buys, line.unit)}; {packs}; {said(line.minor, currency)}"


def _total(made: ShoppingList) -> str:
    without = f", without {', '.join(made.unpriced)}, of which no price is known" if made.unpriced else ""
    return f"Altogether {made.total}{without}."


def to_text(made: ShoppingList, jobs: Sequence[str]) -> str:
    """The list as plain text, with boxes to tick."""
    lines = [f"For {', '.join(jobs)}. Amounts are estimates, with the margin chosen for each job.", ""]
    for aisle, mine in groupby(made.lines, key=lambda line: line.aisle):
        lines += [aisle.upper(), *(f"[ ] {_said(line, made.currency)}" for line in mine), ""]
    return "\n".join([*lines, *made.bundles, _total(made), ""])
