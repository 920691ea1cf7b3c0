"""How much a coat takes: the worked case, and the laws losses keep."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.figure import Figure
from lumso.core.layers.coverage import film, mix_needed

C = shipped()
RUBBED, WIPED = C.techniques["wash-rubbed"], C.techniques["wash-wiped"]
PINE, PAINTED, BRICK = C.grounds["raw-pine"], C.grounds["painted-unsealed"], C.grounds["bare-brick"]
SPONGE = C.tools["sponge-applicator"]


def area(m2: float) -> Figure:
    return Figure(m2, "m²", ())


def test_one_rubbed_in_wash_on_the_board() -> None:
    on = film(area(0.56), RUBBED, PINE, coats=1, touched=1)
    assert on.value == pytest.approx(33.6)
    mix = mix_needed(on, "water-thin", C.pot_losses, SPONGE, loadings=1, margin=0.1)
    assert [round(s.value, 2) for s in mix.steps[-3:]] == [33.94, 41.94, 46.13]


@pytest.mark.parametrize(
    ("ground", "coats", "ml"),
    [(PAINTED, 1, 50.0), (PAINTED, 2, 95.0), (BRICK, 1, 165.0), (BRICK, 3, 255.0)],
)
def test_a_thirsty_ground_drinks_of_the_first_coat_only(ground: object, coats: int, ml: float) -> None:
    assert film(area(1), WIPED, ground, coats, 1).value == pytest.approx(ml)  # type: ignore[arg-type]


def test_a_rate_that_names_its_ground_adds_nothing_for_thirst() -> None:
    assert film(area(1), RUBBED, BRICK, 1, 1).value == pytest.approx(60)


@given(st.floats(0.001, 100), st.floats(0.05, 1), st.integers(1, 12))
def test_twice_the_area_doubles_the_applied_film(m2: float, touched: float, coats: int) -> None:
    once = film(area(m2), WIPED, PAINTED, coats, touched).value
    assert film(area(2 * m2), WIPED, PAINTED, coats, touched).value == pytest.approx(2 * once)


@given(st.floats(0.0001, 10), st.sampled_from(sorted(C.pot_losses)), st.integers(1, 6), st.floats(0, 1))
def test_losses_only_add_and_the_tool_never_keeps_more_than_the_film(
    m2: float, cling: str, loadings: int, margin: float
) -> None:
    on = film(area(m2), WIPED, PAINTED, 1, 1)
    mix = mix_needed(on, cling, C.pot_losses, SPONGE, loadings, margin)
    pot, tool, total = (s.value for s in mix.steps[-3:])
    assert pot - on.value >= C.pot_losses[cling].least_ml - 1e-9
    assert 0 <= tool - pot <= min(on.value, SPONGE.holds_ml * loadings) + 1e-9
    assert total == pytest.approx(tool * (1 + margin))


def test_a_small_pot_loses_at_least_the_least() -> None:
    on = film(area(0.001), WIPED, replace(PAINTED, first_coat_extra_ml_per_m2=0), 1, 1)
    mix = mix_needed(on, "frosting", C.pot_losses, SPONGE, 1, 0)
    assert mix.steps[-3].value == pytest.approx(0.045 + 2)
    assert mix.steps[-3].how == "at least 2 ml a batch"
