"""What is chosen for buying: the currency, what an hour is worth, prices of things, bundles, what is kept in stock."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen

from ..errors import InvalidValue
from ..value import Name, NotNegative, Positive, Slug, Value
from ..workshop.shelf import ShelfItem
from .lots import Day, Unit
from .money import CurrencyCode, Minor, exponent


@dataclass(frozen=True)
class Sold(Value):
    """A size that a thing, or a material, is sold in. `price_minor` None is unpriced."""

    size: Positive
    unit: Unit
    price_minor: Minor | None = None
    at: Annotated[str, MaxLen(60)] = ""


@dataclass(frozen=True)
class Stocked(Value):
    """What is known of buying a material or a thing: its packs, the one that is preferred, what is never run below."""

    item: Slug
    packs: Annotated[tuple[Sold, ...], MaxLen(20)] = ()
    prefers: Annotated[int, Interval(ge=0, le=20)] = 0
    """Which of its packs is always bought, from 1; 0 for the cheapest way."""
    least: NotNegative = 0.0
    """What is to be left on the shelf, in the unit of its first pack."""


@dataclass(frozen=True)
class Deal(Value):
    """So many packs of a size for a price, over the colours of an item or over several items."""

    name: Name
    count: Annotated[int, Interval(ge=2, le=20)]
    price_minor: Minor
    items: Annotated[tuple[Slug, ...], MaxLen(40)]
    size: NotNegative = 0.0
    """Of which size; 0 for any."""


@dataclass(frozen=True)
class PieceCost(Value):
    """What a job's piece cost itself."""

    job: Slug
    minor: Minor = 0


@dataclass(frozen=True)
class Purse(Value):
    """What was chosen for buying. Prices are in `currency`, with tax where `with_tax`.

    `jobs` are those to buy for; none of them: those in the days, or all that are open.
    """

    format: Literal["lumso-buying"] = "lumso-buying"
    version: Literal[1] = 1
    currency: CurrencyCode = ""
    with_tax: bool = True
    tax_percent: Annotated[float, Interval(ge=0, le=50)] = 0.0
    hour_minor: Minor = 0
    overhead_percent: Annotated[float, Interval(ge=0, le=300)] = 0.0
    prices_on: Day = ""
    """The day the prices were looked at."""
    stocked: Annotated[tuple[Stocked, ...], MaxLen(2000)] = ()
    deals: Annotated[tuple[Deal, ...], MaxLen(40)] = ()
    jobs: Annotated[tuple[Slug, ...], MaxLen(40)] = ()
    pieces: Annotated[tuple[PieceCost, ...], MaxLen(2000)] = ()
    may_split: Annotated[tuple[Slug, ...], MaxLen(200)] = ()
    """Items of which tins that may differ are used together."""

    def of(self, item: str) -> Stocked:
        """What is known of buying an item."""
        return next((s for s in self.stocked if s.item == item), Stocked(item))


def with_shelf_packs(purse: Purse, shelf: Sequence[ShelfItem]) -> Purse:
    """The purse, with the packs that a shelf was told of before prices were kept here; a price of nothing was none."""
    known = {s.item for s in purse.stocked if s.packs}
    units = 10 ** exponent(purse.currency)
    more = {}
    for item in shelf:
        if item.packs and item.slug not in known:
            packs = tuple(Sold(p.size, p.unit, round(p.price * units) if p.price else None) for p in item.packs)
            more[item.slug] = replace(purse.of(item.slug), packs=packs)
    if not more:
        return purse
    return replace(purse, stocked=(*(s for s in purse.stocked if s.item not in more), *more.values()))


def checked(purse: Purse) -> Purse:
    """The purse, when it can be used. Raises InvalidValue with the field."""
    seen = set()
    for n, one in enumerate(purse.stocked):
        if one.item in seen:
            raise InvalidValue(f"{one.item} stands in it twice.", value=one.item, allowed="each item once",
                               field=f"stocked/{n}/item")  # fmt: skip
        seen.add(one.item)
        if one.prefers > len(one.packs):
            raise InvalidValue(f"There is no pack {one.prefers}.", value=one.prefers, field=f"stocked/{n}/prefers",
                               allowed=f"0 to {len(one.packs)}")  # fmt: skip
    return purse
