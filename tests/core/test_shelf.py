"""The shelf: values that know where they come from, and can be put back."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.book.colours import Pot, Tint
from lumso.core.errors import InvalidValue
from lumso.core.job.job import FromTotal, Job
from lumso.core.mixing.recipe_page import sheet
from lumso.core.mixing.tinting import strengthen
from lumso.core.workshop.shelf import Overlay, ShelfItem, density_from_weighing, with_overlays
from lumso.core.workshop.workshop import Workshop
from tests.conftest import planned, with_layer

C = shipped()
MEASURED = Overlay("bulk_density", 0.9, "measured", "2026-11-24")
HEAVIER = replace(MEASURED, value=0.65)


def test_a_measured_density_changes_the_amounts_and_says_so() -> None:
    item = ShelfItem("texture-powder", overlays=(HEAVIER,))
    before = sheet(C.recipes["salt-wash"], "", FromTotal("total", 100), Workshop(), C)
    after = sheet(C.recipes["salt-wash"], "", FromTotal("total", 100), Workshop(shelf=(item,)), C)
    powder = after.mix.parts[1]
    assert powder.mass.value / powder.poured.value == pytest.approx(0.65)
    assert powder.mass.steps[-1].source == "measured"
    assert before.mix.parts[1].mass.steps[-1].source == "starting value"
    assert sheet(C.recipes["salt-wash"], "", FromTotal("total", 100), Workshop(shelf=()), C) == before


def test_a_liquid_has_one_density() -> None:
    paint = with_overlays(C.materials["matt-paint"], [replace(MEASURED, value=1.5)])
    assert (paint.bulk_density, paint.true_density) == (1.5, 1.5)


@pytest.mark.parametrize("value", [0.01, 9.0])
def test_values_beyond_belief_are_refused_with_what_is_allowed(value: float) -> None:
    with pytest.raises(InvalidValue) as caught:
        with_overlays(C.materials["chalk"], [replace(MEASURED, value=value)])
    assert caught.value.allowed == "0.05 to 8 g/ml"


def test_a_powder_cannot_weigh_more_with_air_than_without() -> None:
    with pytest.raises(InvalidValue, match="with air"):
        with_overlays(C.materials["chalk"], [replace(MEASURED, value=3.0)])


def test_weighing_one_level_cup_gives_the_density() -> None:
    assert density_from_weighing(150, 250) == pytest.approx(0.6)
    for grams, ml in ((0, 250), (150, 0), (9000, 250)):
        with pytest.raises(InvalidValue):
            density_from_weighing(grams, ml)


@given(st.floats(1, 1000), st.floats(0, 0.5), st.floats(0.01, 0.4), st.integers(1, 6))
def test_strengthening_in_steps_ends_at_the_target_and_keeps_the_tint(
    tin: float, share: float, more: float, steps: int
) -> None:
    made = strengthen(tin, share, share + more, steps)
    assert made[-1].share == pytest.approx(share + more)
    assert made[-1].tin_g == pytest.approx(tin + sum(s.add_g for s in made))
    tint = tin * share + sum(s.add_g for s in made)
    assert tint / made[-1].tin_g == pytest.approx(share + more)


@pytest.mark.parametrize(("tin", "share", "target"), [(0, 0, 0.1), (100, 1, 1), (100, 0.2, 0.1), (100, 0, 1)])
def test_a_tint_that_cannot_be_reached_is_refused(tin: float, share: float, target: float) -> None:
    with pytest.raises(InvalidValue):
        strengthen(tin, share, target)


def four_pots() -> tuple[Pot, ...]:
    mixed: dict[str, tuple[Tint, ...]] = {
        "paint": (Tint("Curtain red", "#8c2f2b", 3), Tint("Gaslight white", "#efe9da", 1))
    }
    return (Pot("a", "red", 0.4, tints=mixed), Pot("b", "ochre", 0.3), Pot("c", "grey", 0.2), Pot("d", "ink", 0.1))


def test_several_pots_share_the_surface_and_each_has_its_own_amounts(rack: Job) -> None:
    one = planned(with_layer(rack, margin=0.0)).zones[0].layers[0].pots
    many = planned(with_layer(rack, margin=0.0, pots=four_pots())).zones[0].layers[0].pots
    assert [p.mix.pot_name for p in many] == [p.label for p in many] == ["red", "ochre", "grey", "ink"]
    films = [next(s.value for s in p.mix.volume.steps if s.name == "On the surface") for p in many]
    assert sum(films) == pytest.approx(33.6)
    assert films[0] == pytest.approx(0.4 * 33.6)
    assert sum(p.ml for p in many) > one[0].ml, "each pot has losses of its own"


def test_a_colour_mixed_from_two_paints_is_given_in_amounts(rack: Job) -> None:
    paint = planned(with_layer(rack, pots=four_pots())).zones[0].layers[0].pots[0].mix.parts[0]
    assert [p.name for p in paint.paints] == ["Curtain red", "Gaslight white"]
    assert paint.paints[0].ml == pytest.approx(3 * paint.paints[1].ml)
    assert sum(p.ml for p in paint.paints) == pytest.approx(paint.poured.value)


def test_pots_that_cover_more_than_the_surface_are_a_problem(rack: Job) -> None:
    pots = (Pot("a", "one", 0.7), Pot("b", "two", 0.6))
    (problem,) = planned(with_layer(rack, pots=pots)).problems
    assert problem.at == "/zones/0/layers/0/pots"
    assert "130%" in problem.says
