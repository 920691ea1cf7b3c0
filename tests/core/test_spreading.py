"""Coverage as labels print it: read once, with its unit and which gallon."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.errors import AmbiguousValue, InvalidValue
from lumso.core.measure.spreading import FT2_M2, GALLON_ML, ml_per_m2, read_coverage


@pytest.mark.parametrize(
    ("typed", "measures", "unit", "ml"),
    [
        ("12 m²/l", "metric", "m²/l", 83.333),
        ("12 m2 per litre", "us", "m²/l", 83.333),
        ("12,5 m²/l", "metric", "m²/l", 80.0),
        ("10-12 m²/l", "metric", "m²/l", 100.0),
        ("90 ml/m²", "metric", "ml/m²", 90.0),
        ("80–100 ml per m2", "metric", "ml/m²", 100.0),
        ("400 sq ft per gallon", "us", "ft²/US gal", 101.862),
        ("400 ft²/gal", "imperial", "ft²/imp gal", 122.332),
        ("400 ft² per US gallon", "imperial", "ft²/US gal", 101.862),
        ("350 to 400 square feet per imperial gallon", "metric", "ft²/imp gal", 139.808),
    ],
)
def test_as_labels_say_it(typed: str, measures: str, unit: str, ml: float) -> None:
    read = read_coverage(typed, measures)
    assert read.unit == unit
    assert read.ml_per_m2 == pytest.approx(ml, rel=1e-4)


def test_a_gallon_nobody_named_and_a_bare_number_are_asked_about() -> None:
    for typed, first in (("400 ft² per gallon", "400 ft² per US gallon"), ("12", "12 m²/l")):
        with pytest.raises(AmbiguousValue) as asked:
            read_coverage(typed, "metric")
        assert asked.value.readings[0] == first
        assert read_coverage(first).number in {400, 12}


def test_it_is_said_the_other_ways_too() -> None:
    assert read_coverage("12 m²/l").also == "83.3 ml/m², 489 ft² per US gallon, 587 ft² per imperial gallon"


@pytest.mark.parametrize("typed", ["lots", "12 m²", "0.1 m²/l", "900 m²/l", "3 ml/m²", ""])
def test_what_is_none_or_beyond_belief_is_refused(typed: str) -> None:
    with pytest.raises(InvalidValue) as refused:
        read_coverage(typed)
    assert refused.value.field == "typed"


@given(st.floats(1, 150), st.sampled_from(["m²/l", "ft²/US gal", "ft²/imp gal"]))
def test_units_are_one_coverage_said_differently(number: float, unit: str) -> None:
    """n ft² to the gallon is n × 0.0929 m² to so many litres."""
    each = ml_per_m2(number, unit)  # type: ignore[arg-type]
    gallon = {"m²/l": 1000.0, "ft²/US gal": GALLON_ML["US"], "ft²/imp gal": GALLON_ML["imp"]}[unit]
    area = number if unit == "m²/l" else number * FT2_M2
    assert each * area == pytest.approx(gallon)
