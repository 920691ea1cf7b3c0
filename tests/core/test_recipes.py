"""Composition: parts, shares and doses as poured volumes, and the yield that is not their sum."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.book.materials import Material
from lumso.core.book.recipes import Amount, Component, Dose, Recipe, VolumeParts, VolumeShare, WeightParts, WeightShare
from lumso.core.errors import ImpossibleRecipe, InvalidValue
from lumso.core.mixing.compose import compose, with_amounts

C = shipped()
BASE = C.recipes["colour-wash"]
POWDER = Material("chalk", "chalk", "powder", "powder", 0.8, 2.71, "test", 1.5, 0.5)
MATERIALS = {**C.materials, "chalk": POWDER}


def recipe(**amounts: Amount) -> Recipe:
    kinds = {"paint": ("matt-paint", "paint"), "water": ("water", "water"), "chalk": ("chalk", "powder")}
    parts = tuple(
        Component(name, name, kinds[name][0], kinds[name][1], amount)  # type: ignore[arg-type]
        for name, amount in amounts.items()
    )
    return replace(BASE, components=parts, limits=(), dial=None)


def poured(r: Recipe) -> dict[str, float]:
    return {p.component.id: p.poured_ml for p in compose(r, MATERIALS)}


def vol(parts: float) -> VolumeParts:
    return VolumeParts("volume-parts", parts)


@pytest.mark.parametrize(
    ("amounts", "shares"),
    [
        ({"paint": vol(1), "water": VolumeShare("volume-share", 0.75)}, {"paint": 0.25, "water": 0.75}),
        ({"paint": vol(1), "water": vol(19)}, {"paint": 0.05, "water": 0.95}),
        ({"paint": vol(60), "water": Dose("dose", 2.5, 60, "paint")}, {"paint": 0.96, "water": 0.04}),
        ({"paint": WeightParts("weight-parts", 135), "water": WeightParts("weight-parts", 100)}, {"paint": 0.5}),
        (
            {"paint": VolumeShare("volume-share", 0.6), "water": VolumeShare("volume-share", 0.4)},
            {"paint": 0.6, "water": 0.4},
        ),
    ],
)
def test_shares_as_poured(amounts: dict[str, Amount], shares: dict[str, float]) -> None:
    got = poured(recipe(**amounts))
    assert {k: got[k] for k in shares} == pytest.approx(shares)


@given(st.floats(0.01, 100), st.floats(0.01, 100), st.floats(0, 0.9))
def test_shares_sum_to_one_whatever_the_amounts(a: float, b: float, share: float) -> None:
    got = poured(recipe(paint=vol(a), chalk=vol(b), water=VolumeShare("volume-share", share)))
    assert sum(got.values()) == pytest.approx(1)
    assert got["water"] == pytest.approx(share, abs=1e-9)


@given(st.floats(0.01, 0.9))
def test_a_share_by_weight_is_that_share_of_the_weight(share: float) -> None:
    pours = compose(recipe(paint=vol(1), chalk=WeightShare("weight-share", share)), MATERIALS)
    assert pours[1].mass_g / sum(p.mass_g for p in pours) == pytest.approx(share)


@given(st.permutations(["paint", "water", "chalk"]))
def test_mixing_order_does_not_change_composition(order: list[str]) -> None:
    amounts: dict[str, Amount] = {"paint": vol(3), "water": vol(1), "chalk": Dose("dose", 10, 60, "paint")}
    in_order = poured(recipe(**amounts))
    assert poured(recipe(**{k: amounts[k] for k in order})) == pytest.approx(in_order)


@given(st.floats(0.1, 50))
def test_scaling_all_parts_changes_nothing(k: float) -> None:
    assert poured(recipe(paint=vol(2 * k), water=vol(3 * k))) == pytest.approx(
        poured(recipe(paint=vol(2), water=vol(3)))
    )


@pytest.mark.parametrize(
    "amounts",
    [
        {"paint": vol(1), "water": WeightParts("weight-parts", 1)},
        {"paint": vol(1), "water": VolumeShare("volume-share", 0.6), "chalk": VolumeShare("volume-share", 0.5)},
        {"paint": VolumeShare("volume-share", 0.6), "water": VolumeShare("volume-share", 0.3)},
        {"paint": vol(0), "water": vol(0)},
    ],
    ids=["parts of two kinds", "shares above one", "shares below one", "nothing"],
)
def test_amounts_that_contradict_each_other_are_refused_with_what_is_allowed(amounts: dict[str, Amount]) -> None:
    with pytest.raises(ImpossibleRecipe) as caught:
        compose(recipe(**amounts), MATERIALS)
    assert caught.value.allowed


def test_an_amount_for_a_component_that_is_not_there_names_those_that_are() -> None:
    with pytest.raises(InvalidValue) as caught:
        with_amounts(BASE, {"glitter": vol(1)})
    assert caught.value.allowed == "one of paint, water"
