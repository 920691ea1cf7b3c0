"""Packs: the cheapest basket, against trying everything; and what none of the others beats."""

from collections.abc import Mapping
from fractions import Fraction
from itertools import product
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.buying.covering import basket_at_once
from lumso.core.buying.packs import (
    Basket,
    Bundle,
    Offer,
    Shop,
    Wanted,
    holds,
    hundredths,
    over,
    paid_for,
)
from lumso.core.solver.packs import best_basket, choices
from tests.counts import examples


def by_brute_force(shop: Shop, most: int) -> Basket | None:
    """The best basket of at most `most` of each pack by trying every one, with every way to take the bundles.

    For small cases: what the search is measured against.
    """
    best: Basket | None = None
    ids = [o.id for o in shop.offers]
    for counts in product(range(most + 1), repeat=len(ids)):
        packs = dict(zip(ids, counts, strict=True))
        left = over(shop, packs)
        if min(left.values(), default=0) < 0:
            continue
        money, bundled = cheapest_bundling(shop, packs)
        spoils = sum(left[w.key] for w in shop.wanted if w.spoils)
        basket = Basket({k: n for k, n in packs.items() if n}, bundled, money, spoils, sum(counts))
        if best is None or basket.rank < best.rank:
            best = basket
    return best


def cheapest_bundling(shop: Shop, packs: Mapping[str, int]) -> tuple[int, dict[str, dict[str, int]]]:
    """The least that given packs cost, and what is bundled for it, by trying every way."""
    prices = {o.id: o.price or 0 for o in shop.offers}

    def rest(left: dict[str, int], at: int) -> tuple[int, dict[str, dict[str, int]]]:
        if at == len(shop.bundles):
            return sum(prices[k] * n for k, n in left.items()), {}
        best = rest(left, at + 1)
        bundle = shop.bundles[at]
        mine = [k for k in bundle.offers if left.get(k)]
        for counts in product(*(range(left[k] + 1) for k in mine)):
            times, odd = divmod(sum(counts), bundle.count)
            if not times or odd:
                continue
            inside = {k: n for k, n in zip(mine, counts, strict=True) if n}
            money, taken = rest({k: n - inside.get(k, 0) for k, n in left.items()}, at + 1)
            if money + times * bundle.price < best[0]:
                best = money + times * bundle.price, {bundle.id: inside, **taken}
        return best

    return rest({k: n for k, n in packs.items() if n}, 0)


@st.composite
def shops(draw: st.DrawFn) -> Shop:
    keys = ["ochre", "blue"][: draw(st.integers(1, 2))]
    wanted = tuple(Wanted(k, draw(st.integers(1, 60)), draw(st.booleans())) for k in keys)
    offers = tuple(
        Offer(f"{k}{n}", k, draw(st.integers(10, 45)), draw(st.integers(3, 40)))
        for k in keys
        for n in range(draw(st.integers(1, 2)))
    )
    ids = [o.id for o in offers]
    bundles = tuple(
        Bundle(str(n), draw(st.integers(2, 3)), draw(st.integers(5, 60)),
               tuple(draw(st.lists(st.sampled_from(ids), min_size=1, max_size=2, unique=True))))
        for n in range(draw(st.integers(0, 2)))
    )  # fmt: skip
    return Shop(wanted, offers, bundles)


@examples("packs against all baskets")
@given(shops())
def test_the_basket_is_as_good_as_the_best_of_all_and_its_money_is_shared_out_exactly(shop: Shop) -> None:
    found, best = best_basket(shop), by_brute_force(shop, 7)
    assert best is not None
    assert found.proven
    assert found.rank == best.rank
    assert min(over(shop, found.packs).values()) >= 0
    assert sum(paid_for(shop, found).values(), Fraction()) == found.money


def shop(*packs: tuple[int, int], amount: int = 500, spoils: bool = False) -> Shop:
    """A want, and packs of a size at a price."""
    return Shop((Wanted("red", amount, spoils),), tuple(Offer(str(n), "red", h, p) for n, (h, p) in enumerate(packs)))


def test_money_comes_first_then_what_spoils_then_how_many_packs() -> None:
    assert best_basket(shop((250, 10), (500, 21))).packs == {"0": 2}
    # As dear: one large pack is fewer, and leaves as much.
    assert best_basket(shop((250, 10), (500, 20))).packs == {"1": 1}
    # As dear, and what is over spoils: the one that leaves none.
    assert best_basket(shop((600, 20), (250, 10), spoils=True)).packs == {"1": 2}
    assert best_basket(shop((600, 20), (250, 10))).packs == {"0": 1}


def test_a_bundle_over_colours_is_taken_where_it_is_cheaper_and_only_then() -> None:
    wanted = (Wanted("red", 400), Wanted("blue", 300))
    offers = (Offer("r", "red", 500, 1450), Offer("b", "blue", 500, 1450))
    two = Shop(wanted, offers, (Bundle("two", 2, 2600, ("r", "b")),))
    found = best_basket(two)
    assert (found.money, found.bundled) == (2600, {"two": {"r": 1, "b": 1}})
    dear = Shop(wanted, offers, (Bundle("two", 2, 2900, ("r", "b")),))
    assert best_basket(dear).money == 2900
    # A bundle that is bought for what it gives away: three for less than one.
    gift = Shop(wanted[:1], offers[:1], (Bundle("three", 3, 1000, ("r",)),))
    assert (best_basket(gift).packs, best_basket(gift).money) == ({"r": 3}, 1000)


def test_what_has_no_price_is_bought_only_where_nothing_else_is_and_what_nobody_sells_is_left_out() -> None:
    some = Shop(
        (Wanted("red", 500), Wanted("tape", 100), Wanted("wax", 100)),
        (Offer("r", "red", 500, 900), Offer("free", "red", 500, None), Offer("t", "tape", 100, None)),
    )
    found = best_basket(some)
    assert found.packs == {"r": 1, "t": 1}
    assert found.money == 900
    assert best_basket(Shop((), ())) == Basket()


def test_a_need_is_never_rounded_down_nor_a_pack_up() -> None:
    assert (hundredths(100.001), hundredths(100.0), holds(33.339)) == (10001, 10000, 3333)


def test_choices_that_none_beats_cheapest_first() -> None:
    found = choices(shop((200, 8), (500, 24), (600, 23)))
    said = [(b.packs, b.money) for b in found]
    assert said == [({"2": 1}, 23), ({"1": 1}, 24)]  # three of 200 leave as much as one of 600, dearer


@pytest.mark.parametrize("seed", range(3))
def test_no_choice_beats_another(seed: int) -> None:
    made = shop((170 + seed, 9), (230, 11), (410, 17), (35, 3), amount=777)
    found = choices(made)
    ranks = [(b.money, sum(over(made, b.packs).values()), b.count) for b in found]
    assert ranks == sorted(ranks)
    for a in ranks:
        assert not any(b != a and all(x <= y for x, y in zip(b, a, strict=True)) for b in ranks)
    assert found[0].rank == best_basket(made).rank


def test_one_want_is_covered_without_the_engine_as_well_as_with_it() -> None:
    """Twenty random wants of up to six sizes: by looking at all that could beat the best so far, and by the engine."""
    from lumso.core.solver.packs import COUNT, MONEY, SPOILS, _modelled, _solve

    dice = Random(7)
    for _ in range(20):
        packs = [(size := dice.randint(30, 900), dice.randint(size // 8, size // 3)) for _ in range(dice.randint(1, 6))]
        asked = shop(*packs, amount=dice.randint(1, 4000), spoils=dice.random() < 0.5)
        alone, engine = basket_at_once(asked), _solve(_modelled(asked), (MONEY, SPOILS, COUNT), 5)
        assert alone is not None
        assert engine is not None
        assert alone.proven
        assert alone.rank == engine.rank


def test_what_is_tied_by_a_bundle_is_left_to_the_engine() -> None:
    asked = shop((250, 10), (500, 21))
    assert basket_at_once(asked) is not None
    assert basket_at_once(Shop(asked.wanted, asked.offers, (Bundle("two", 2, 15, ("0", "1")),))) is None
