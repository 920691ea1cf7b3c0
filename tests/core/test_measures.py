"""Spoons, cups and jugs: their sizes, their round trips, and how an amount is said in them."""

from typing import Any

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.errors import UnknownEntry
from lumso.core.measure.measures import from_ml, spoken, to_ml

SYSTEMS = shipped().systems
SIZES = [
    ("us", "tsp", 4.92892),
    ("us", "tbsp", 14.78676),
    ("us", "cup", 236.58824),
    ("us", "fl-oz", 29.57353),
    ("us", "pint", 473.17647),
    ("us", "quart", 946.35295),
    ("us", "gallon", 3785.41178),
    ("metric", "tsp", 5),
    ("metric", "tbsp", 15),
    ("metric", "cup", 250),
    ("australian", "tsp", 5),
    ("australian", "tbsp", 20),
    ("australian", "cup", 250),
    ("imperial", "tsp", 5.91939),
    ("imperial", "tbsp", 17.75816),
    ("imperial", "cup", 284.13063),
    ("imperial", "fl-oz", 28.41306),
    ("imperial", "pint", 568.26125),
    ("imperial", "quart", 1136.5225),
    ("imperial", "gallon", 4546.09),
]


@pytest.mark.parametrize(("system", "measure", "ml"), SIZES)
def test_sizes(system: str, measure: str, ml: float) -> None:
    assert to_ml(1, SYSTEMS[system], measure) == pytest.approx(ml, abs=5e-6 * max(ml, 1))


@pytest.fixture(scope="module")
def units() -> Any:
    return pint.UnitRegistry()


PINT_NAMES = {"us": "{}", "imperial": "imperial_{}"}
PINT_UNITS = {"tsp": "teaspoon", "tbsp": "tablespoon", "fl-oz": "fluid_ounce"}


@pytest.mark.parametrize(("system", "measure"), [(s, m) for s, m, _ in SIZES if s == "us"])
def test_us_sizes_agree_with_an_independent_library(system: str, measure: str, units: Any) -> None:
    theirs = units(PINT_UNITS.get(measure, measure)).to("ml").magnitude
    assert to_ml(1, SYSTEMS[system], measure) == pytest.approx(theirs, rel=1e-9)


@pytest.mark.parametrize("measure", ["cup", "fl-oz", "pint", "quart", "gallon"])
def test_imperial_sizes_agree_with_an_independent_library(measure: str, units: Any) -> None:
    theirs = units(f"imperial_{PINT_UNITS.get(measure, measure)}").to("ml").magnitude
    assert to_ml(1, SYSTEMS["imperial"], measure) == pytest.approx(theirs, rel=1e-9)


@given(st.sampled_from([(s, m.slug) for s in SYSTEMS for m in SYSTEMS[s].measures]), st.floats(1e-3, 1e5))
def test_every_measure_round_trips(which: tuple[str, str], ml: float) -> None:
    system, measure = SYSTEMS[which[0]], which[1]
    assert to_ml(from_ml(ml, system, measure), system, measure) == pytest.approx(ml)


@given(st.sampled_from(sorted(SYSTEMS)), st.floats(0.05, 20_000))
def test_what_is_said_is_what_is_added_up_and_close(system: str, ml: float) -> None:
    said = spoken(ml, SYSTEMS[system])
    finest = SYSTEMS[system].measure("tsp").ml / 4
    assert said.ml == pytest.approx(sum(s.ml for s in said.spoonfuls))
    assert abs(said.ml - ml) <= max(finest / 2, 0.02 * ml) + 1e-6 or said.words.startswith("less than")


@pytest.mark.parametrize(
    ("ml", "system", "words"),
    [
        (34.6, "us", "2 tbsp + 1 tsp"),
        (11.53, "us", "2¼ tsp"),
        (236.588, "us", "1 cup"),
        (60, "australian", "3 tbsp"),
        (210, "metric", "¾ cup + 1 tbsp + 1½ tsp"),
        (245, "us", "1 cup + 1¾ tsp"),
        (246, "metric", "1 cup"),
        (166, "metric", "⅔ cup"),
        (60, "metric", "4 tbsp"),
        (1.25, "metric", "¼ tsp"),
        (0.3, "metric", "less than ¼ tsp"),
    ],
)
def test_amounts_as_people_say_them(ml: float, system: str, words: str) -> None:
    assert spoken(ml, SYSTEMS[system]).words == words


def test_an_unknown_measure_names_the_known_ones() -> None:
    with pytest.raises(UnknownEntry, match="pint"):
        to_ml(1, SYSTEMS["us"], "bucketful")
