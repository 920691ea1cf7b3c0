"""Lots: what was bought and stands in the workshop, and how much of each is left by what was poured since."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen, Predicate

from ..value import Name, NotNegative, Positive, Slug, Value
from .money import CurrencyCode, Minor

Unit = Literal["ml", "g", "piece", "m"]


def _is_day(text: str) -> bool:
    return bool(re.fullmatch(r"\d{4}-\d{2}-\d{2}|", text))


Day = Annotated[str, MaxLen(10), Predicate(_is_day)]
"""A day, as 2026-11-24; "" for none."""


@dataclass(frozen=True)
class Lot(Value):
    """Tins, jars or packets that were bought at once: so many of a size, and what is left in them altogether.

    `left` was so at `counted_min`, minutes since 1970 UTC: what was poured later is taken off it. `paid_minor` is for
    all of it, with tax where `with_tax`; None where nobody said.
    """

    slug: Slug
    item: Slug
    name: Name
    unit: Unit
    size: Positive
    left: NotNegative
    counted_min: float
    count: Annotated[int, Interval(ge=1, le=1000)] = 1
    colour: Annotated[str, MaxLen(60)] = ""
    hex: Annotated[str, MaxLen(7)] = ""
    paid_minor: Minor | None = None
    currency: CurrencyCode = ""
    with_tax: bool = True
    bought_on: Day = ""
    keeps_until: Day = ""
    at: Annotated[str, MaxLen(120)] = ""
    """The shop."""

    @property
    def whole(self) -> float:
        """What was bought altogether, in its unit."""
        return self.size * self.count


@dataclass(frozen=True)
class LotUse:
    """Something that was poured, or will be: `ml` and `g` say the same amount; of a thing that is counted, `count`."""

    at_min: float
    item: str
    colour: str = ""
    hex: str = ""
    ml: float = 0.0
    g: float = 0.0
    count: float = 0.0
    by: str = ""
    """Whose it is: a job."""

    def amount(self, unit: Unit) -> float:
        """How much in a unit."""
        return self.ml if unit == "ml" else self.g if unit == "g" else self.count

    @property
    def what(self) -> tuple[str, str, str]:
        """What tells it from all else: an item in a colour."""
        return self.item, self.colour, self.hex

    def alike(self, ml: float, g: float, count: float) -> "LotUse":
        """The same of another amount."""
        return LotUse(self.at_min, self.item, self.colour, self.hex, ml, g, count, self.by)


def use_of(at_min: float, item: str, role: str, colour: str, hex_: str, ml: float, g: float, by: str) -> LotUse:
    """A use of a material: of paint and pigment in a colour, of all else in none."""
    tinted = role in {"paint", "pigment"}
    return LotUse(at_min, item, colour if tinted else "", hex_ if tinted else "", ml, g, 0.0, by)


@dataclass(frozen=True)
class Drawn:
    """What a use took from a lot, as a share of the use, and in the lot's unit."""

    lot: str
    use: int
    share: float
    amount: float


def same_colour(colour: str, hex_: str, other: str, other_hex: str) -> bool:
    """Whether two paints are the same colour: by their names where both have one, else as they are drawn."""
    if colour and other:
        return colour.casefold() == other.casefold()
    return hex_.casefold() == other_hex.casefold()


def serves(lot: Lot, use: LotUse) -> bool:
    """Whether a lot is what a use takes."""
    return lot.item == use.item and same_colour(lot.colour, lot.hex, use.colour, use.hex)


def first_to_go(lot: Lot) -> tuple[bool, str, str, str]:
    """What is used first: what spoils soonest, then what was bought first."""
    return not lot.keeps_until, lot.keeps_until, lot.bought_on, lot.slug


def drawn(lots: Sequence[Lot], uses: Sequence[LotUse]) -> tuple[dict[str, float], tuple[Drawn, ...]]:
    """What is left of each lot once these were used, and what took how much of which.

    A use takes from lots that were counted before it, the first to spoil first, and never more than they hold.
    """
    left = {lot.slug: lot.left for lot in lots}
    ordered = sorted(lots, key=first_to_go)
    taken = []
    for n, use in sorted(enumerate(uses), key=lambda x: x[1].at_min):
        open_share = 1.0
        for lot in ordered:
            whole = use.amount(lot.unit)
            if open_share <= 0 or whole <= 0 or lot.counted_min > use.at_min or not serves(lot, use):
                continue
            takes = min(left[lot.slug], whole * open_share)
            if takes > 0:
                left[lot.slug] -= takes
                open_share -= takes / whole
                taken.append(Drawn(lot.slug, n, takes / whole, takes))
    return left, tuple(taken)
