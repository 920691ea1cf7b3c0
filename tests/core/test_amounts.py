"""Amounts as people say them, read once."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.errors import AmbiguousValue, InvalidValue
from lumso.core.measure.amounts import read_amount
from lumso.core.measure.spreading import GALLON_ML

C = shipped()


@pytest.mark.parametrize(
    ("typed", "system", "ml"),
    [("120", "us", 120), ("1,5 l", "metric", 1500), ("½ cup", "metric", 125), ("½ cup", "us", 118.294118),
     (" 2 Fluid Ounces ", "us", 59.147059), ("1 1/2 tbsp", "australian", 30), ("200 l", "metric", 200_000)],
)  # fmt: skip
def test_amounts_are_read_in_the_workshop_s_own_measures(typed: str, system: str, ml: float) -> None:
    assert read_amount(typed, C.system(system)) == pytest.approx(ml)


@given(st.floats(0.05, 200_000).map(lambda x: round(x, 2)), st.sampled_from(["", " ml", "ml"]))
def test_a_number_of_millilitres_is_that_number(ml: float, unit: str) -> None:
    assert read_amount(f"{ml:.2f}{unit}", C.system("imperial")) == ml


@pytest.mark.parametrize(
    "typed", ["soup", "", "-3", "0", "201 l", "120 ml of it", "5 ml 3", "1/0 l", "2 fl oz", "3 pots", "1e3"]
)
def test_what_is_no_amount_is_told_what_is(typed: str) -> None:
    with pytest.raises(InvalidValue) as refused:
        read_amount(typed, C.system("metric"))
    assert "120 ml" in refused.value.allowed
    assert refused.value.field == "typed"


@pytest.mark.parametrize("typed", ["1,250 ml", "1,250", "12,500 cc", " 1,250ML "])
def test_a_comma_before_three_digits_is_asked_about_where_both_can_be_mixed(typed: str) -> None:
    with pytest.raises(AmbiguousValue) as asked:
        read_amount(typed, C.system("metric"))
    whole, decimal = (read_amount(r, C.system("metric")) for r in asked.value.readings)
    assert whole == 1000 * decimal


@pytest.mark.parametrize(("typed", "ml"), [("1,250 l", 1250), ("1,25 ml", 1.25), ("0,125 l", 125), ("1,2500 ml", 1.25)])
def test_a_comma_that_can_only_be_a_decimal_one_is_that(typed: str, ml: float) -> None:
    assert read_amount(typed, C.system("metric")) == pytest.approx(ml)


def test_a_gallon_of_coverage_is_the_gallon_of_the_measures() -> None:
    for system, which in (("us", "US"), ("imperial", "imp")):
        assert C.system(system).measure("gallon").ml == GALLON_ML[which]
