"""What a piece costs: materials, things, wear, hours, the piece itself, overhead and tax; each figure opens to its
working, and shown lines add up to the total."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import ceil
from typing import Literal

from ..figure import tidy
from ..value import Value
from .lots import Drawn, Lot, LotUse, Unit
from .money import apportioned, half_even, said
from .purse import Purse

Basis = Literal["planned", "poured so far", "poured"]
CostKind = Literal["materials", "waste", "things", "wear", "hours", "the piece", "overhead", "tax"]
PER_HOUR = 60


@dataclass(frozen=True)
class CostLine(Value):
    """A line of the cost. `minor` None is unpriced: it is not in the total, and the total says so."""

    kind: CostKind
    says: str
    minor: int | None
    shown: str
    working: tuple[str, ...]


@dataclass(frozen=True)
class Cost(Value):
    """What a piece costs. `floor_minor` is the least it can be sold for and lose nothing."""

    lines: tuple[CostLine, ...]
    floor_minor: int
    floor: str
    currency: str
    basis: Basis
    """Whether materials are what was really poured, what is planned, or the one so far and the other for the rest."""
    hours: float
    unpriced: tuple[str, ...]
    with_tax: bool
    prices_on: str


@dataclass(frozen=True)
class Part:
    """Something of an item that goes into the piece, exactly: `amount` in `unit`."""

    kind: CostKind
    item: str
    name: str
    use: LotUse
    drawn: tuple[Drawn, ...] = ()
    wasted: float = 0.0
    """The share of it that never reaches the surface: it stays in pots and tools."""


@dataclass(frozen=True)
class Rate:
    """What a unit costs, exactly, and where that is from. `unit` is the unit it is for."""

    per_unit: Fraction
    unit: Unit
    says: str


def exactly(amount: float) -> Fraction:
    """An amount as a fraction, to a thousandth of its unit: what a float holds beyond that nobody measured."""
    return Fraction(round(amount * 1000), 1000)


def price_of(use: LotUse, purse: Purse) -> Rate | None:
    """The price of a unit of what is used: by the pack of one size that comes cheapest for so much, as somebody would
    buy it for this alone. None where no pack of it has a price."""
    best: tuple[int, Rate] | None = None
    for pack in purse.of(use.item).packs:
        amount = use.amount(pack.unit)
        if pack.price_minor is None or amount <= 0:
            continue
        comes_to = ceil(amount / pack.size - 1e-9) * pack.price_minor
        if best is None or comes_to < best[0]:
            at = f"{tidy(pack.size)} {pack.unit} at {said(pack.price_minor, purse.currency)}"
            on = f", prices of {purse.prices_on}" if purse.prices_on else ""
            best = comes_to, Rate(Fraction(pack.price_minor) / exactly(pack.size), pack.unit, at + on)
    return best[1] if best else None


def paid_rate(lot: Lot, purse: Purse) -> Rate | None:
    """What was paid for a unit of a lot, with tax or without as the purse counts; None where nobody said, or in another
    currency, which is never added."""
    if lot.paid_minor is None or lot.currency != purse.currency:
        return None
    tax = 1 + exactly(purse.tax_percent) / 100
    paid, less = Fraction(lot.paid_minor), ""
    if lot.with_tax and not purse.with_tax:
        paid, less = paid / tax, " with tax, which comes off"
    elif purse.with_tax and not lot.with_tax:
        paid, less = paid * tax, " without tax, which comes on"
    on = f" on {lot.bought_on}" if lot.bought_on else ""
    says = f"{tidy(lot.whole)} {lot.unit} for {said(lot.paid_minor, lot.currency)}{less}{on}"
    return Rate(paid / exactly(lot.whole), lot.unit, says)


def _priced(part: Part, lots: dict[str, Lot], purse: Purse) -> tuple[Fraction | None, list[str]]:
    """What a part costs: what came from a lot costs what was paid, the rest what it costs now. With its working."""
    cost, open_, working = Fraction(), Fraction(1), []

    def add(share: Fraction, rate: Rate) -> None:
        nonlocal cost
        amount = exactly(part.use.amount(rate.unit)) * share
        cost += amount * rate.per_unit
        digits = tidy(float(amount))
        working.append(f"{digits} {rate.unit} × {float(rate.per_unit):.3f} a {rate.unit} ({rate.says})")

    for one in part.drawn:
        rate = paid_rate(lots[one.lot], purse) if one.lot in lots else None
        if rate is not None:
            share = min(exactly(one.share), open_)
            open_ -= share
            add(share, rate)
    if open_ > Fraction(1, 1000):
        now = price_of(part.use, purse)
        if now is None:
            return None, [*working, "No price is known: under Buying, say what a pack costs."]
        add(open_, now)
    return cost, working


def cost_of(parts: Sequence[Part], lots: Sequence[Lot], purse: Purse, hands_on_min: float, job: str,
            basis: Basis) -> Cost:  # fmt: skip
    """What a job comes to. Unit costs stay exact; each line is rounded once, so that all add up to the floor."""
    held = {lot.slug: lot for lot in lots}
    exact: list[tuple[CostKind, str, Fraction | None, list[str]]] = []
    waste, lost = Fraction(), []
    for part in parts:
        cost, working = _priced(part, held, purse)
        share = exactly(part.wasted)
        if cost is not None and share:
            waste += cost * share
            lost.append(f"{float(share):.1%} of {part.name}")
            working.append(f"less {float(share):.1%} that stays in pots and tools")
            cost *= 1 - share
        exact.append((part.kind, part.name, cost, working))
    if waste:
        after = sum(kind == "materials" for kind, _, _, _ in exact)
        exact.insert(after, ("waste", "What stays in pots and tools", waste, lost))
    hours = exactly(hands_on_min) / PER_HOUR
    if purse.hour_minor:
        how = f"{float(hours):.2f} h hands on × {said(purse.hour_minor, purse.currency)}"
        exact.append(("hours", "Hours hands on", hours * purse.hour_minor, [how]))
    piece = next((p.minor for p in purse.pieces if p.job == job), 0)
    if piece:
        exact.append(("the piece", "The piece itself", Fraction(piece), ["as you said"]))
    known = sum((c for _, _, c, _ in exact if c is not None), Fraction())
    if purse.overhead_percent:
        share = exactly(purse.overhead_percent) / 100
        how = f"{tidy(purse.overhead_percent)} % of {said(half_even(known), purse.currency)}"
        exact.append(("overhead", "Overhead", known * share, [how]))
        known += known * share
    if purse.tax_percent and not purse.with_tax:
        share = exactly(purse.tax_percent) / 100
        how = f"{tidy(purse.tax_percent)} % of {said(half_even(known), purse.currency)}"
        exact.append(("tax", "Tax", known * share, [how]))
    shown = iter(apportioned([c for _, _, c, _ in exact if c is not None]))
    lines = []
    for kind, name, cost, working in exact:
        minor = None if cost is None else next(shown)
        lines.append(CostLine(kind, name, minor, said(minor, purse.currency), tuple(working)))
    floor = sum(line.minor for line in lines if line.minor is not None)
    none = tuple(line.says for line in lines if line.minor is None)
    return Cost(tuple(lines), floor, said(floor, purse.currency), purse.currency, basis, float(hours), none,
                purse.with_tax, purse.prices_on)  # fmt: skip
