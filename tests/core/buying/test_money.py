"""Money: whole minor units, written and read alike, added up exactly, never mixed."""

import json
from fractions import Fraction
from typing import cast

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.buying.money import (
    apportioned,
    exponent,
    half_even,
    said,
)
from tests.conftest import ROOT
from tests.counts import examples

WRITTEN = cast("list[tuple[int | None, int, str, str]]", json.loads((ROOT / "tests" / "money.json").read_text()))


@pytest.mark.parametrize(("minor", "digits", "currency", "text"), WRITTEN)
def test_money_is_written_with_the_decimals_of_its_currency(
    minor: int | None, digits: int, currency: str, text: str
) -> None:
    assert exponent(currency) == digits
    assert said(minor, currency) == text


def test_halves_go_to_the_even_neighbour() -> None:
    assert [half_even(Fraction(n, 2)) for n in (1, 3, 5, -1)] == [0, 2, 2, 0]


@examples("shares of a sum")
@given(st.lists(st.fractions(0, 10_000, max_denominator=997), max_size=40))
def test_shown_parts_add_up_to_the_sum_rounded_once_and_none_is_off_by_a_unit(parts: list[Fraction]) -> None:
    shown = apportioned(parts)
    assert sum(shown) == half_even(sum(parts, Fraction()))
    assert all(abs(Fraction(s) - p) < 1 for s, p in zip(shown, parts, strict=True))


def test_the_unit_that_is_missing_goes_to_the_part_that_lost_the_most() -> None:
    assert apportioned([Fraction("1.4"), Fraction("1.9"), Fraction("0.7")]) == (1, 2, 1)
    assert apportioned([Fraction("0.5"), Fraction("0.5")]) == (1, 0)
