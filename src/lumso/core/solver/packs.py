"""The best basket of packs, proven: least money, then least that spoils, then fewest packs; and what none beats.

Packs that no bundle ties together are looked for apart, and without the engine where that is soon done. What the engine
finds is added up again in whole numbers.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from ortools.linear_solver import pywraplp  # type: ignore[import-untyped]

from ..buying.covering import covered
from ..buying.packs import Basket, Shop, apart, over, together, worth_asking

MOST_CHOICES = 6
"""So many choices that none beats are shown."""
SECONDS = 5.0
"""No longer is any part of a basket looked for; what was found by then is marked as not proven."""
MONEY, SPOILS, COUNT, OVER = range(4)
"""What can be asked for: the last is what is over altogether, whether it spoils or not."""


@dataclass
class _Model:
    shop: Shop
    mip: pywraplp.Solver
    packs: dict[str, pywraplp.Variable]
    inside: dict[tuple[str, str], pywraplp.Variable]
    goals: tuple[pywraplp.LinearExpr, ...]


def _most_packs(shop: Shop) -> dict[str, int]:
    """How many of each pack can be worth buying: what covers the want alone, and what fills up bundles beside it."""
    wanted = {w.key: w.amount for w in shop.wanted}
    alone = {o.id: -(-wanted[o.of] // o.holds) for o in shop.offers}
    most = dict(alone)
    for bundle in shop.bundles:
        mine = [k for k in bundle.offers if k in alone]
        for k in mine:
            most[k] = max(most[k], bundle.count * sum(alone[m] for m in mine))
    return most


def _modelled(shop: Shop) -> _Model:
    mip = pywraplp.Solver.CreateSolver("SCIP")
    most = _most_packs(shop)
    packs = {o.id: mip.IntVar(0, most[o.id], "") for o in shop.offers}
    total = mip.Sum
    for want in shop.wanted:
        mip.Add(total(o.holds * packs[o.id] for o in shop.offers if o.of == want.key) >= want.amount)
    prices = {o.id: o.price or 0 for o in shop.offers}
    inside: dict[tuple[str, str], pywraplp.Variable] = {}
    money = [prices[k] * packs[k] for k in packs]
    for bundle in shop.bundles:
        mine = [k for k in bundle.offers if k in packs]
        times = mip.IntVar(0, sum(most[k] for k in mine), "")
        for k in mine:
            inside[bundle.id, k] = mip.IntVar(0, most[k], "")
            money.append(-prices[k] * inside[bundle.id, k])
        mip.Add(total(inside[bundle.id, k] for k in mine) == bundle.count * times)
        money.append(bundle.price * times)
    for k in packs:
        taken = [v for (_, pack), v in inside.items() if pack == k]
        if taken:
            mip.Add(total(taken) <= packs[k])
    spoil = {w.key for w in shop.wanted if w.spoils}
    held = [(o, o.holds * packs[o.id]) for o in shop.offers]
    spoils = total(h for o, h in held if o.of in spoil) - sum(w.amount for w in shop.wanted if w.spoils)
    left = total(h for _, h in held) - sum(w.amount for w in shop.wanted)
    return _Model(shop, mip, packs, inside, (total(money), spoils, total(packs.values()), left))


def _value(variable: pywraplp.Variable) -> int:
    whole: int = round(variable.solution_value())
    return whole


def _solve(model: _Model, order: Iterable[int], seconds: float) -> Basket | None:
    """The best by these goals, one after the other; None where there is none."""
    proven = True
    found: Basket | None = None
    for goal in order:
        model.mip.SetTimeLimit(round(seconds * 1000))
        model.mip.Minimize(model.goals[goal])
        status = model.mip.Solve()
        if status not in (pywraplp.Solver.OPTIMAL, pywraplp.Solver.FEASIBLE):
            return None if found is None else replace(found, proven=False)
        proven = proven and status == pywraplp.Solver.OPTIMAL
        found = _basket(model, proven)
        model.mip.Add(model.goals[goal] <= _reached(model.shop, found)[goal])
    return found


def _basket(model: _Model, proven: bool) -> Basket:
    """What the engine found, added up in whole numbers. Raises AssertionError should that not be enough."""
    shop = model.shop
    packs = {k: n for k, v in model.packs.items() if (n := _value(v))}
    bundled: dict[str, dict[str, int]] = {}
    for (slug, k), v in model.inside.items():
        if n := _value(v):
            bundled.setdefault(slug, {})[k] = n
    prices = {o.id: o.price or 0 for o in shop.offers}
    money = sum(prices[k] * n for k, n in packs.items())
    for bundle in shop.bundles:
        inside = bundled.get(bundle.id, {})
        times, odd = divmod(sum(inside.values()), bundle.count)
        assert not odd
        assert all(n <= packs.get(k, 0) for k, n in inside.items())
        money += times * bundle.price - sum(prices[k] * n for k, n in inside.items())
    left = over(shop, packs)
    assert min(left.values()) >= 0
    spoils = sum(left[w.key] for w in shop.wanted if w.spoils)
    return Basket(packs, bundled, money, spoils, sum(packs.values()), proven)


def _reached(shop: Shop, basket: Basket) -> tuple[int, int, int, int]:
    """What a basket comes to, by goal."""
    return *basket.rank, sum(over(shop, basket.packs).values())


def best_basket(shop: Shop, seconds: float = SECONDS) -> Basket:
    """The best basket for all that is wanted and sold. What nobody sells is left out."""
    found = []
    for part in apart(worth_asking(shop)):
        basket = covered(part) or _solve(_modelled(part), (MONEY, SPOILS, COUNT), seconds)
        found.append(basket or Basket(proven=False))
    return together(found)


def choices(shop: Shop, seconds: float = SECONDS) -> tuple[Basket, ...]:
    """Baskets that none of the others beats in money, in what is over and in the number of packs at once, the cheapest
    first: the cheapest, and the cheapest with ever less over, and with ever fewer packs."""
    shop = worth_asking(shop)
    found: dict[tuple[int, int, int], Basket] = {}
    for second, third in ((OVER, COUNT), (COUNT, OVER)):
        bound: int | None = None
        while shop.wanted and len(found) < 2 * MOST_CHOICES:
            model = _modelled(shop)
            if bound is not None:
                model.mip.Add(model.goals[second] <= bound)
            one = _solve(model, (MONEY, second, third), seconds)
            if one is None:
                break
            reached = _reached(shop, one)
            found[reached[MONEY], reached[OVER], reached[COUNT]] = one
            bound = reached[second] - 1
    front = [b for k, b in found.items()
             if not any(o != k and all(x <= y for x, y in zip(o, k, strict=True)) for o in found)]  # fmt: skip
    return tuple(sorted(front, key=lambda b: b.rank)[:MOST_CHOICES])
