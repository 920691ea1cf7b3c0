"""The best packs for one want that no bundle ties to others, by looking at all that could beat what was found so far.

Lumso needs no engine for these, which takes longer to load than the search: a handful of sizes, a few packs of each.
"""

from collections.abc import Sequence

from .packs import Basket, Offer, Shop, Wanted, apart, together, worth_asking

MOST_NODES = 20_000
"""So many choices are looked at for one want; what takes more is left to the engine."""


class _TooMany(Exception):
    """More choices than are looked at here."""


def _cheapest(amount: int, offers: Sequence[Offer]) -> tuple[int, int]:
    """The least that so much can cost by these packs, were parts of packs sold, and the fewest packs: lower bounds."""
    money = min(-(-amount * (o.price or 0) // o.holds) for o in offers)
    return money, -(-amount // max(o.holds for o in offers))


def _best(want: Wanted, offers: Sequence[Offer]) -> dict[str, int]:
    """How many of each pack. Raises _TooMany."""
    offers = sorted(offers, key=lambda o: ((o.price or 0) / o.holds, -o.holds))
    best: tuple[tuple[int, int, int], dict[str, int]] | None = None
    nodes = 0

    def look(at: int, left: int, money: int, taken: dict[str, int]) -> None:
        nonlocal best, nodes
        nodes += 1
        if nodes > MOST_NODES:
            raise _TooMany
        count = sum(taken.values())
        if left <= 0:
            rank = (money, -left if want.spoils else 0, count)
            if best is None or rank < best[0]:
                best = (rank, taken)
            return
        if at == len(offers):
            return
        least, packs = _cheapest(left, offers[at:])
        if best is not None and (money + least, 0, count + packs) >= best[0]:
            return
        offer = offers[at]
        for n in range(-(-left // offer.holds), -1, -1):
            more = {**taken, offer.id: n} if n else taken
            look(at + 1, left - n * offer.holds, money + n * (offer.price or 0), more)

    look(0, want.amount, 0, {})
    assert best is not None
    return best[1]


def covered(part: Shop) -> Basket | None:
    """The best packs for a part of a shop: least money, then least that spoils, then fewest packs, proven.

    None for one that is tied together by bundles, or where that is too much to look at.
    """
    if len(part.wanted) != 1 or part.bundles:
        return None
    (want,) = part.wanted
    try:
        packs = _best(want, part.offers)
    except _TooMany:
        return None
    prices = {o.id: o.price or 0 for o in part.offers}
    held = sum(o.holds * packs.get(o.id, 0) for o in part.offers)
    return Basket(
        packs,
        money=sum(prices[k] * n for k, n in packs.items()),
        spoils=held - want.amount if want.spoils else 0,
        count=sum(packs.values()),
    )


def basket_at_once(shop: Shop) -> Basket | None:
    """The best basket for all that is wanted and sold, where no part of it needs the engine; None where one does."""
    found = []
    for part in apart(worth_asking(shop)):
        basket = covered(part)
        if basket is None:
            return None
        found.append(basket)
    return together(found)
