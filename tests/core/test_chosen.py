"""What the painter set is what is wanted: a ratio chosen, poured and seen as predicted is right, and left alone."""

import pytest

from lumso.catalogue import shipped
from lumso.core.layers.laid import Laid, lay
from lumso.core.log.acts import Stuff
from lumso.core.log.pot import Held
from lumso.core.mixing.consistency import word_for
from lumso.core.rescue.agents import agents_for
from lumso.core.rescue.belief import Ladder
from lumso.core.rescue.setting_right import PotAdvice, PotNow, advise

from .checks.stacks import layer

C = shipped()
LADDER = Ladder(C.consistencies)
ROOM_ML = 2500.0


def wash(share: float) -> Laid:
    return lay(layer("paint-wash-raw-wood", share=("water", share)), C)


def looked(laid: Laid, word: str) -> PotAdvice:
    """What is advised for 200 ml of a mix that was poured as planned, when it is seen as a word."""
    held = []
    for pour in (p for p in laid.pours if p.poured_ml > 0):
        m = pour.material
        stuff = Stuff(pour.component.id, m.slug, m.name, m.role, m.is_solid, m.bulk_density, m.true_density)
        held.append(Held(stuff, 200 * pour.poured_ml * m.bulk_density))
    pot = PotNow(tuple(held), ((tuple(held), word, 60.0),), 0, 60.0, ROOM_ML, None)
    agents = agents_for(pot.held, (), {p.material.slug: 1e6 for p in laid.pours}, C.materials)
    return advise(pot, laid.recipe.target, agents, C.materials, laid.recipe.limits, LADDER)


def test_as_the_recipe_has_it_the_word_is_the_recipes() -> None:
    for slug, recipe in C.recipes.items():
        assert lay(layer(slug), C).recipe.target == recipe.target


@pytest.mark.parametrize("share", [0.45, 0.55, 0.65, 0.7, 0.75, 0.8])
def test_a_ratio_that_was_chosen_aims_at_what_it_comes_to(share: float) -> None:
    laid = wash(share)
    assert laid.recipe.target == word_for(laid.flow.viscosity_mpa_s, C.consistencies).slug
    advice = looked(laid, laid.recipe.target)
    assert advice.way == "right", (share, laid.recipe.target, advice.says)
    assert not advice.ways


def test_75_percent_of_water_for_a_thin_whitewash_is_not_corrected_back() -> None:
    """Poured exactly, seen as milk: paint was to be added until it is cream, a visibly heavier wash."""
    laid = wash(0.75)
    usual = C.recipes["paint-wash-raw-wood"].target
    places = [c.slug for c in sorted(C.consistencies, key=lambda c: c.viscosity_mpa_s)]
    assert places.index(laid.recipe.target) <= places.index(usual)
    assert looked(laid, laid.recipe.target).way == "right"


def test_a_share_that_is_only_measured_otherwise_changes_no_word() -> None:
    base = lay(layer("paint-wash-raw-wood"), C)
    water = next(v for k, v in base.shares.items() if k == "water")
    assert wash(water + 0.015).recipe.target == base.recipe.target
