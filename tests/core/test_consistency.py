"""How thick a mix is: the model against cases worked by hand."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.mixing.consistency import Ingredient, thickness, viscosity, word_for

C = shipped()
PAINT, WATER = C.materials["matt-paint"], C.materials["water"]


def thinned(water: float) -> list[Ingredient]:
    return [Ingredient(PAINT, 1 - water, 1 - water, 1.35 * (1 - water)), Ingredient(WATER, water, water, water)]


@pytest.mark.parametrize(("water", "mpa_s"), [(0.3, 272), (0.4, 122), (0.5, 55), (0.6, 25), (0.75, 7.4)])
def test_paint_thinned_with_water(water: float, mpa_s: float) -> None:
    assert viscosity(thinned(water)) == pytest.approx(mpa_s, rel=0.02)


@pytest.mark.parametrize(
    ("mpa_s", "word"),
    [(1, "water"), (7, "milk"), (25, "single cream"), (55, "double cream"), (2500, "paint from the tin")],
)
def test_words(mpa_s: float, word: str) -> None:
    assert word_for(mpa_s, C.consistencies).name == word


@given(st.floats(0, 0.94), st.floats(0.01, 0.05))
def test_more_water_is_always_thinner(water: float, more: float) -> None:
    assert viscosity(thinned(water + more)) < viscosity(thinned(water))


def test_words_are_given_as_a_range() -> None:
    flow = thickness(thinned(0.75), C.consistencies)
    assert (flow.state, flow.thinnest_word, flow.word, flow.thickest_word) == ("flows", "milk", "milk", "single cream")
