"""How much a coat takes: the worked case, and the laws losses keep."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.figure import Figure
from lumso.core.layers.coverage import film
from lumso.core.layers.laid import Laid, lay
from lumso.core.layers.stack import Beneath, beneath_each
from lumso.core.work.batches import CoatNeed, Losses, Split, needed, pot_of
from tests.core.checks.stacks import layer

C = shipped()
PINE, PAINTED, BRICK = C.grounds["raw-pine"], C.grounds["painted-unsealed"], C.grounds["bare-brick"]
SPONGE = C.tools["sponge-applicator"]


def area(m2: float) -> Figure:
    return Figure(m2, "m²", ())


def laid(technique: str, recipe: str = "colour-wash", **more: object) -> Laid:
    return lay(layer(recipe, technique, **more), C)  # type: ignore[arg-type]


def on(ground: object) -> Beneath:
    return beneath_each(ground, ())[0]  # type: ignore[arg-type]


RUBBED, WIPED = laid("wash-rubbed"), laid("wash-wiped")


def pot(film_ml: float, cling: str, sittings: int, margin: float) -> tuple[Split, Losses]:
    losses = Losses(C.pot_losses[cling], SPONGE)
    each = film_ml / sittings
    coats = [CoatNeed(str(k), "j", "z", "Z", "l", 1, k, 9, 1, each, 5, 600 * k, margin) for k in range(sittings)]
    return Split(tuple(coats), 1, pot_of(coats, 1, losses, C.habits.pause_min), 5, ""), losses


def test_one_rubbed_in_wash_on_the_board() -> None:
    covers = film(area(0.56), RUBBED, on(PINE), 1, 1)
    assert covers.value == pytest.approx(33.6)
    mix = needed(covers, *pot(covers.value, "water-thin", 1, 0.1))
    assert [round(s.value, 2) for s in mix.steps[-3:]] == [33.94, 41.94, 46.13]


@pytest.mark.parametrize(
    ("ground", "coats", "ml"),
    [(PAINTED, 1, 50.0), (PAINTED, 2, 95.0), (BRICK, 1, 165.0), (BRICK, 3, 255.0)],
)
def test_a_thirsty_ground_drinks_of_the_first_coat_only(ground: object, coats: int, ml: float) -> None:
    assert film(area(1), WIPED, on(ground), 1, coats).value == pytest.approx(ml)
    apart = sum(film(area(1), WIPED, on(ground), k, k).value for k in range(1, coats + 1))
    assert apart == pytest.approx(ml)


def test_a_rate_that_names_its_ground_adds_nothing_for_thirst() -> None:
    assert film(area(1), RUBBED, on(BRICK), 1, 1).value == pytest.approx(60)


def test_oil_wax_drinks_less_over_its_own_coat() -> None:
    # 60 ml/m², with nothing more for the ground: it hardly sinks; 35 for every coat over oil wax, in this layer or the
    # next.
    wax = laid("oil-waxed", "oil-wax-plain")
    assert film(area(2), wax, on(PAINTED), 1, 1).value == pytest.approx(2 * 60)
    assert film(area(2), wax, on(PAINTED), 1, 3).value == pytest.approx(2 * (60 + 35 + 35))
    assert film(area(2), wax, on(PAINTED), 2, 2).value == pytest.approx(2 * 35)
    assert film(area(2), wax, beneath_each(PAINTED, (wax,))[1], 1, 1).value == pytest.approx(2 * 35)


@given(st.floats(0.001, 100), st.floats(0.05, 1), st.integers(1, 12))
def test_twice_the_area_doubles_the_applied_film(m2: float, touched: float, coats: int) -> None:
    patchy = replace(WIPED, layer=replace(WIPED.layer, touched=touched))
    once = film(area(m2), patchy, on(PAINTED), 1, coats).value
    assert film(area(2 * m2), patchy, on(PAINTED), 1, coats).value == pytest.approx(2 * once)
    assert once == pytest.approx(m2 * touched * (45 * coats + 5))


@given(st.floats(0.0001, 10), st.sampled_from(sorted(C.pot_losses)), st.integers(1, 6), st.floats(0, 1))
def test_losses_only_add_and_the_tool_never_keeps_more_than_the_film(
    m2: float, cling: str, loadings: int, margin: float
) -> None:
    covers = film(area(m2), WIPED, on(PAINTED), 1, 1)
    mix = needed(covers, *pot(covers.value, cling, loadings, margin))
    with_pot, with_tool, total = (s.value for s in mix.steps[-3:])
    known = C.pot_losses[cling]
    assert with_pot - covers.value == pytest.approx(max(covers.value * known.share / (1 - known.share), known.least_ml))
    assert with_tool - with_pot == pytest.approx(min(covers.value, SPONGE.holds_ml * loadings))
    assert total == pytest.approx(with_tool * (1 + margin))


def test_a_small_pot_loses_at_least_the_least() -> None:
    covers = film(area(0.001), WIPED, on(replace(PAINTED, first_coat_extra_ml_per_m2=0)), 1, 1)
    mix = needed(covers, *pot(covers.value, "frosting", 1, 0))
    assert mix.steps[-3].value == pytest.approx(0.045 + 2)
    assert mix.steps[-3].how == "at least 2 ml a batch"
