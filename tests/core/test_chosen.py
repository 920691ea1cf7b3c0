"""What the painter set is what is wanted: a ratio chosen, poured and seen as predicted is right, and left alone."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.layers.laid import Laid, lay
from lumso.core.log.acts import Stuff
from lumso.core.log.pot import PotHeld
from lumso.core.mixing.consistency import word_for
from lumso.core.rescue.agents import agents_for
from lumso.core.rescue.belief import WordLadder
from lumso.core.rescue.setting_right import Agent, Chosen, PotAdvice, PotNow, advise

from .checks.stacks import layer

C = shipped()
LADDER = WordLadder(C.consistencies)
ROOM_ML = 2500.0


def wash(share: float) -> Laid:
    return lay(layer("paint-wash-raw-wood", share=("water", share)), C)


def looked(laid: Laid, word: str) -> PotAdvice:
    """What is advised for 200 ml of a mix that was poured as planned, when it is seen as a word."""
    held = []
    for pour in (p for p in laid.pours if p.poured_ml > 0):
        m = pour.material
        stuff = Stuff(pour.component.id, m.slug, m.name, m.role, m.is_solid, m.bulk_density, m.true_density)
        held.append(PotHeld(stuff, 200 * pour.poured_ml * m.bulk_density))
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


def _pot(laid: Laid, word: str, looks: int = 1, ml: float = 200.0, **more: object) -> tuple[PotNow, PotAdvice]:
    held = []
    for pour in (p for p in laid.pours if p.poured_ml > 0):
        m = pour.material
        stuff = Stuff(pour.component.id, m.slug, m.name, m.role, m.is_solid, m.bulk_density, m.true_density)
        held.append(PotHeld(stuff, ml * pour.poured_ml * m.bulk_density))
    pot = PotNow(tuple(held), ((tuple(held), word, 60.0),) * looks, 0, 60.0, ROOM_ML, None, **more)  # type: ignore[arg-type]
    agents = agents_for(pot.held, (), {}, C.materials)
    agents += tuple(Agent(h.stuff, "") for h in held)
    return pot, advise(pot, laid.recipe.target, agents, C.materials, laid.recipe.limits, LADDER)


WORDS = [c.slug for c in LADDER.words]


@pytest.mark.parametrize("word", WORDS)
def test_a_chosen_ratio_outranks_the_word_whatever_is_seen(word: str) -> None:
    laid = wash(0.75)
    pot, advice = _pot(laid, word, chosen=(Chosen("water", "Water", 0.75),))
    assert pot.as_chosen
    if word == laid.recipe.target:
        assert advice.way == "right"
        return
    assert advice.way == "as chosen"
    assert "Your 75% of water stays" in advice.says
    for way in advice.ways:
        then = way.share_after if way.stuff.component == "water" else 1 - way.share_after
        changed = abs(then - 0.75) > 0.02
        assert way.changes == (f"This changes your 75% of water to {then:.0%}." if changed else "")


def test_a_ratio_that_was_missed_is_set_right_as_any_other() -> None:
    poured = wash(0.6)
    pot, advice = _pot(poured, "buttermilk", chosen=(Chosen("water", "Water", 0.75),))
    assert not pot.as_chosen
    assert advice.way != "as chosen"


@pytest.mark.parametrize("slug", sorted(C.recipes))
def test_what_is_predicted_is_right_when_it_is_seen(slug: str) -> None:
    """The word the records come to, seen at once: right as it is, without a second look."""
    laid = lay(layer(slug), C)
    if len([p for p in laid.pours if p.poured_ml > 0]) < 2 or laid.flow.state != "flows":
        return
    word = word_for(laid.flow.viscosity_mpa_s, C.consistencies).slug
    laid = replace(laid, recipe=replace(laid.recipe, target=word, rest_min=0.0))
    advice = _pot(laid, word)[1]
    assert advice.way in {"right", "wait"}, advice.says


@pytest.mark.parametrize("word", WORDS)
def test_what_is_seen_is_never_impossible(word: str) -> None:
    laid = wash(0.65)
    _, once = _pot(laid, word)
    _, twice = _pot(laid, word, looks=2)
    assert twice.way != "look again", "the same was seen of the same twice"
    place = WORDS.index(word) - WORDS.index(laid.recipe.target)
    if abs(place) > 1:
        assert (twice.now.thinner if place < 0 else twice.now.thicker) > 0.5
        assert (once.now.thinner if place < 0 else once.now.thicker) > 0


def test_an_addition_stays_in_its_vessel_or_says_which_to_take() -> None:
    laid = lay(layer("mineral-paint-chalk"), C)
    jars = (("370 ml jar", 315.0), ("1 l jar", 850.0))
    pot, advice = _pot(laid, "frosting", looks=2, ml=270.0, stands_ml=315.0, jars=jars)
    before = sum(h.adds_ml for h in pot.held)
    assert advice.ways
    for way in advice.ways:
        assert way.volume_ml - before <= 0.4 * before + 1e-6
        assert way.into == ("1 l jar" if way.volume_ml > 315 else "")
    if advice.ways[0].into:
        assert advice.says.startswith("First into the 1 l jar")
