"""Packs: what is sold, in which sizes, at which price, and what a basket of them comes to."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction
from math import ceil, floor

from ..value import Value

PER_UNIT = 100
"""Sizes and needs are counted in hundredths of a ml, a g, a piece or a m: finer than anybody measures."""


@dataclass(frozen=True)
class Offer:
    """A pack that can be bought. `holds` hundredths of what is wanted; `price` in minor units, None unpriced."""

    id: str
    of: str
    """The key of what it holds."""
    holds: int
    price: int | None


@dataclass(frozen=True)
class Bundle:
    """So many of these packs for a price, in any mixture: two tins of whatever colour for 20."""

    id: str
    count: int
    price: int
    offers: tuple[str, ...]


@dataclass(frozen=True)
class Wanted:
    """How much is wanted, hundredths; `spoils` where what is over will not keep."""

    key: str
    amount: int
    spoils: bool = False


@dataclass(frozen=True)
class Shop:
    """What is wanted, and what is sold."""

    wanted: tuple[Wanted, ...]
    offers: tuple[Offer, ...]
    bundles: tuple[Bundle, ...] = ()


@dataclass(frozen=True)
class Basket(Value):
    """What to buy: so many of each pack, and which of them are paid for as bundles.

    `money` in minor units, `spoils` the hundredths that are over and will not keep, `count` how many packs there are.
    """

    packs: Mapping[str, int] = field(default_factory=dict)
    bundled: Mapping[str, Mapping[str, int]] = field(default_factory=dict)
    """By bundle: how many of each pack are in it, over all the times it is taken."""
    money: int = 0
    spoils: int = 0
    count: int = 0
    proven: bool = True

    @property
    def rank(self) -> tuple[int, int, int]:
        """What is asked for first: money, then what will spoil, then how many packs."""
        return self.money, self.spoils, self.count


def holds(size: float) -> int:
    """The size of a pack in hundredths, never more than it is."""
    return floor(size * PER_UNIT + 1e-6)


def hundredths(amount: float) -> int:
    """A need in hundredths, never less than it is."""
    return max(ceil(amount * PER_UNIT - 1e-6), 0)


def over(shop: Shop, packs: Mapping[str, int]) -> dict[str, int]:
    """What a choice of packs holds beyond what is wanted, by key; below zero where it is not enough."""
    held = {w.key: -w.amount for w in shop.wanted}
    for offer in shop.offers:
        if offer.of in held:
            held[offer.of] += offer.holds * packs.get(offer.id, 0)
    return held


def paid_for(shop: Shop, basket: Basket) -> dict[str, Fraction]:
    """What each key comes to of the basket's money, exactly. A bundle is shared by what its packs would cost alone."""
    prices = {o.id: o.price or 0 for o in shop.offers}
    of = {o.id: o.of for o in shop.offers}
    paid = {w.key: Fraction() for w in shop.wanted}
    left = dict(basket.packs)
    bundles = {b.id: b for b in shop.bundles}
    for slug, inside in basket.bundled.items():
        count, alone = sum(inside.values()), sum(prices[k] * n for k, n in inside.items())
        price = bundles[slug].price * (count // bundles[slug].count)
        for k, n in inside.items():
            left[k] -= n
            paid[of[k]] += price * (Fraction(prices[k] * n, alone) if alone else Fraction(n, count))
    for k, n in left.items():
        paid[of[k]] += prices[k] * n
    return paid


def worth_asking(shop: Shop) -> Shop:
    """Without packs nobody knows the price of, where there are others of the same; and without wants that nothing
    holds."""
    wanted = {w.key for w in shop.wanted if w.amount > 0}
    priced = {o.of for o in shop.offers if o.price is not None}
    offers = tuple(o for o in shop.offers
                   if o.of in wanted and o.holds > 0 and (o.price is not None or o.of not in priced))  # fmt: skip
    sold = {o.of for o in offers}
    return replace(shop, wanted=tuple(w for w in shop.wanted if w.key in sold & wanted), offers=offers)


def apart(shop: Shop) -> list[Shop]:
    """The wants that no bundle ties together, each with its packs."""
    of = {o.id: o.of for o in shop.offers}
    group = {w.key: {w.key} for w in shop.wanted}
    for bundle in shop.bundles:
        tied: set[str] = set()
        for k in bundle.offers:
            tied |= group.get(of.get(k, ""), set())
        for key in tied:
            group[key] = tied
    found = []
    for keys in {id(g): g for g in group.values()}.values():
        offers = tuple(o for o in shop.offers if o.of in keys)
        ids = {o.id for o in offers}
        bundles = tuple(b for b in shop.bundles if ids.intersection(b.offers))
        found.append(Shop(tuple(w for w in shop.wanted if w.key in keys), offers, bundles))
    return found


def together(baskets: Sequence[Basket]) -> Basket:
    """The baskets of parts as one."""
    return Basket(
        {k: n for b in baskets for k, n in b.packs.items()}, {k: n for b in baskets for k, n in b.bundled.items()},
        sum(b.money for b in baskets), sum(b.spoils for b in baskets), sum(b.count for b in baskets),
        all(b.proven for b in baskets),
    )  # fmt: skip
