"""The cost of a piece: by hand, adding up to the unit, with what was really paid, and never a price nobody knows."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.book.catalogue import Catalogue
from lumso.core.buying.cost import Cost, Part, cost_of
from lumso.core.buying.lots import Drawn, Lot, LotUse
from lumso.core.buying.purse import PieceCost, Purse, Sold, Stocked
from lumso.core.buying.worked import wasted
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop

PAINT = Stocked("paint", (Sold(500, "ml", 1450), Sold(1000, "ml", 2400)))


def part(ml: float, *drawn: Drawn, item: str = "paint") -> Part:
    return Part("materials", item, "Paint", LotUse(0, item, ml=ml, g=ml * 1.3), drawn)


def costed(parts: list[Part], purse: Purse, lots: tuple[Lot, ...] = (), minutes: float = 0.0) -> Cost:
    return cost_of(parts, lots, purse, minutes, "rack", "planned")


def test_a_part_costs_its_share_of_the_pack_that_comes_cheapest_for_so_much() -> None:
    purse = Purse(stocked=(PAINT,))
    assert [line.minor for line in costed([part(100)], purse).lines] == [290]  # 100 of 500 at 14.50
    assert [line.minor for line in costed([part(800)], purse).lines] == [1920]  # 800 of 1000 at 24.00


def test_what_came_from_a_tin_costs_what_was_paid_for_it_and_the_rest_what_it_costs_now() -> None:
    old = Lot("old", "paint", "paint", "ml", 500, 0, 0.0, paid_minor=1000, bought_on="2026-10-02")
    purse = Purse(stocked=(PAINT,))
    whole = costed([part(100, Drawn("old", 0, 1.0, 100))], purse, (old,))
    assert whole.floor_minor == 200
    assert "2026-10-02" in whole.lines[0].working[0]
    half = costed([part(100, Drawn("old", 0, 0.5, 50))], purse, (old,))
    assert half.floor_minor == 100 + 145
    assert len(half.lines[0].working) == 2


def test_money_paid_in_another_currency_is_never_added() -> None:
    old = Lot("old", "paint", "paint", "ml", 500, 0, 0.0, paid_minor=1000, currency="USD")
    purse = Purse(currency="EUR", stocked=(PAINT,))
    assert costed([part(100, Drawn("old", 0, 1.0, 100))], purse, (old,)).floor == "2.90 EUR"


def test_what_was_paid_with_tax_is_counted_as_the_other_prices_are() -> None:
    """600 for 500 ml with a fifth of tax: 500 without; 100 ml are 100, and 120 with it."""
    old = Lot("old", "paint", "paint", "ml", 500, 0, 0.0, paid_minor=600)
    drawn = [part(100, Drawn("old", 0, 1.0, 100))]
    without = costed(drawn, Purse(stocked=(PAINT,), with_tax=False, tax_percent=20), (old,))
    assert [(line.kind, line.minor) for line in without.lines] == [("materials", 100), ("tax", 20)]
    net = Lot("old", "paint", "paint", "ml", 500, 0, 0.0, paid_minor=500, with_tax=False)
    with_tax = costed(drawn, Purse(stocked=(PAINT,), with_tax=True, tax_percent=20), (net,))
    assert [(line.kind, line.minor) for line in with_tax.lines] == [("materials", 120)]


def test_what_nobody_knows_the_price_of_is_unpriced_and_named_and_not_nothing() -> None:
    purse = Purse(stocked=(Stocked("wax", (Sold(150, "g", None),)), PAINT))
    made = costed([part(100, item="wax"), part(100)], purse)
    assert [(line.minor, line.shown) for line in made.lines] == [(None, "unpriced"), (290, "2.90")]
    assert made.unpriced == ("Paint",)
    assert made.floor_minor == 290


def test_hours_the_piece_overhead_and_tax_by_hand() -> None:
    purse = Purse(
        currency="EUR", hour_minor=1800, overhead_percent=10, tax_percent=20, with_tax=False, stocked=(PAINT,),
        pieces=(PieceCost("rack", 2500), PieceCost("other", 9900)),
    )  # fmt: skip
    made = costed([part(100)], purse, minutes=90)
    # 2.90 + 27.00 + 25.00 = 54.90; a tenth on it 5.49; a fifth on 60.39 is 12.078
    assert [line.minor for line in made.lines] == [290, 2700, 2500, 549, 1208]
    assert made.floor == "72.47 EUR"
    assert made.hours == 1.5
    with_tax = costed([part(100)], Purse(currency="EUR", tax_percent=20, stocked=(PAINT,)))
    assert [line.kind for line in with_tax.lines] == ["materials"]


@given(
    st.lists(st.floats(0.1, 900), min_size=1, max_size=25), st.integers(1, 9999), st.floats(0, 3000),
    st.floats(0, 60), st.floats(0, 30),
)  # fmt: skip
def test_the_shown_lines_add_up_to_the_floor_to_the_minor_unit(
    amounts: list[float], price: int, minutes: float, overhead: float, tax: float
) -> None:
    purse = Purse(
        hour_minor=1733, overhead_percent=overhead, tax_percent=tax, with_tax=False,
        stocked=(Stocked("paint", (Sold(333, "ml", price),)),),
    )  # fmt: skip
    made = costed([part(ml) for ml in amounts], purse, minutes=minutes)
    assert sum(line.minor or 0 for line in made.lines) == made.floor_minor
    exact = sum(round(ml, 3) * price / 333 for ml in amounts) + minutes / 60 * 1733
    assert made.floor_minor == pytest.approx(exact * (1 + overhead / 100) * (1 + tax / 100), abs=1.5 + exact / 1e4)
    assert all(line.working for line in made.lines)


def test_what_stays_in_pots_and_tools_is_a_line_of_its_own_and_changes_nothing_of_the_whole() -> None:
    """A tenth of 100 ml at 2.90 is 0.29, and a fifth of 500 ml at 14.50 is 2.90: 3.19 of 17.40 is waste."""
    purse = Purse(stocked=(PAINT,))
    made = costed([replace(part(100), wasted=0.1), replace(part(500), wasted=0.2)], purse)
    assert [(line.kind, line.minor) for line in made.lines] == [
        ("materials", 261), ("materials", 1160), ("waste", 319)
    ]  # fmt: skip
    assert made.floor_minor == costed([part(100), part(500)], purse).floor_minor == 1740
    assert made.lines[-1].working == ("10.0% of Paint", "20.0% of Paint")
    assert made.lines[0].working[-1] == "less 10.0% that stays in pots and tools"
    unpriced = costed([replace(part(100, item="wax"), wasted=0.5)], purse)
    assert [line.kind for line in unpriced.lines] == ["materials"]


@given(st.lists(st.tuples(st.floats(1, 900), st.floats(0, 1)), min_size=1, max_size=12))
def test_however_much_is_wasted_the_lines_add_up(parts: list[tuple[float, float]]) -> None:
    purse = Purse(stocked=(PAINT,))
    made = costed([replace(part(ml), wasted=w) for ml, w in parts], purse)
    assert sum(line.minor or 0 for line in made.lines) == made.floor_minor
    assert abs(made.floor_minor - costed([part(ml) for ml, _ in parts], purse).floor_minor) <= 1


def test_what_a_job_wastes_is_what_its_pots_and_tools_keep(rack: Job, catalogue: Catalogue) -> None:
    made = work(rack, Workshop(), catalogue, Room())
    (brew,) = made.made.brews
    shares = list(wasted(made, "rack").values())
    assert shares == pytest.approx([brew.amounts.lost_ml / brew.amounts.mixed_ml] * len(shares))
    assert shares
    assert all(0 < s < 0.5 for s in shares)
