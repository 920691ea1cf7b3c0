"""The book's recipes worked by hand: what 100 ml as poured is made of, what it makes and what it weighs."""

import pytest

from lumso.catalogue import shipped
from lumso.core.mixing.compose import compose, with_school

C = shipped()

# recipe, school: ml of each component in 100 ml as poured; ml that makes; g that weighs
BY_HAND: list[tuple[str, str, dict[str, float], float, float]] = [
    ("paint-wash-raw-wood", "", {"paint": 25, "water": 75}, 100, 25 * 1.35 + 75),
    ("colour-wash", "", {"paint": 50, "water": 50}, 100, 117.5),
    ("whitewash-dry-wiped", "", {"paint": 40, "water": 60}, 100, 114),
    ("stacked-wash", "", {"paint": 30, "water": 70}, 100, 110.5),
    ("stacked-wash", "three-waters", {"paint": 25, "water": 75}, 100, 108.75),
    ("glaze-dragged", "", {"medium": 83.333, "paint": 16.667}, 100, 83.333 * 1.04 + 16.667 * 1.35),
    ("glaze-dragged", "strong", {"medium": 75, "paint": 25}, 100, 75 * 1.04 + 25 * 1.35),
    ("glaze-cross-hatched", "", {"medium": 66.667, "paint": 33.333}, 100, 66.667 * 1.04 + 33.333 * 1.35),
    ("glaze-brushed-out", "", {"medium": 33.333, "paint": 33.333, "water": 33.333}, 100, 113),
    # ¾ part of texture powder: 42.857 ml dry adds 42.857 × 0.6/2.3 = 11.180 ml
    ("salt-wash", "", {"paint": 57.143, "powder": 42.857}, 68.323, 57.143 * 1.35 + 42.857 * 0.6),
    ("salt-wash", "half", {"paint": 66.667, "powder": 33.333}, 75.362, 66.667 * 1.35 + 33.333 * 0.6),
    # one scoop of 15 ml in 120 ml of paint
    ("brushed-texture", "", {"paint": 88.889, "powder": 11.111}, 88.889 + 2.899, 120 + 6.667),
    ("paste-thickened", "", {"paint": 96.154, "paste-thickener": 3.846}, 100, 96.154 * 1.35 + 3.846 * 1.05),
    ("trowelled-plaster", "", {"medium": 66.667, "paint": 33.333}, 100, 66.667 * 1.7 + 45),
    # 1 plaster, 1 water, 3 paint: 20 ml of plaster adds 20 × 0.95/2.65 = 7.170 ml
    ("mineral-paint-plaster", "", {"plaster-of-paris": 20, "water": 20, "paint": 60}, 87.170, 19 + 20 + 81),
    ("mineral-paint-chalk", "", {"chalk": 20, "water": 20, "paint": 60}, 80 + 20 * 0.8 / 2.71, 16 + 20 + 81),
    ("baking-soda-paint", "", {"paint": 66.667, "baking-soda": 33.333}, 66.667 + 14.394, 90 + 31.667),
    ("baking-soda-paint", "equal", {"paint": 50, "baking-soda": 50}, 50 + 21.591, 67.5 + 47.5),
    ("sand-paint", "", {"paint": 66.667, "sand": 33.333}, 66.667 + 19.497, 90 + 51.667),
    ("sawdust-paint", "", {"paint": 66.667, "sawdust": 33.333}, 66.667 + 4.444, 90 + 6.667),
    ("coffee-paint", "", {"paint": 66.667, "grounds": 33.333}, 66.667 + 9.333, 90 + 11.667),
    # pepper is 1.5 % of the whole, the rest is paint and salt 1 : 0.33
    (
        "salt-and-pepper-paint",
        "",
        {"paint": 74.060, "salt": 24.440, "pepper": 1.5},
        74.060 + 24.440 * 1.2 / 2.165 + 1.5 * 0.5 / 1.3,
        74.060 * 1.35 + 24.440 * 1.2 + 0.75,
    ),
    ("milk-paint", "", {"powder": 50, "water": 50}, 65.625, 87.5),
    ("milk-paint", "buttermilk", {"powder": 44.444, "water": 55.556}, 44.444 * 0.3125 + 55.556, 88.889),
    ("milk-paint-wash", "", {"powder": 33.333, "water": 66.667}, 77.083, 91.667),
    # as much additive as mixed paint: 1 + 1 parts make 1.3125 parts
    (
        "milk-paint-bonding",
        "",
        {"powder": 30.189, "water": 30.189, "additive": 39.623},
        30.189 * 1.3125 + 39.623,
        30.189 * 1.75 + 39.623 * 1.03,
    ),
    ("self-sealing-paint", "", {"paint": 88, "sealer": 12}, 100, 88 * 1.35 + 12 * 1.03),
    ("thinned-paint", "", {"paint": 86.957, "water": 13.043}, 100, 86.957 * 1.35 + 13.043),
    # by weight 4 : 1, and both waxes weigh the same
    ("dark-wax", "", {"clear-wax": 80, "dark-wax": 20}, 100, 85),
    ("dark-wax", "equal", {"clear-wax": 50, "dark-wax": 50}, 100, 85),
    ("oil-wax-plain", "", {"oil-wax": 100}, 100, 90),
    ("bonding-primer-plain", "", {"bonding-primer": 100}, 100, 125),
    ("clear-coat-plain", "", {"clear-coat": 100}, 100, 103),
    ("patina-plain", "", {"liquid-patina": 100}, 100, 105),
    ("metallic-plain", "", {"metallic-paint": 100}, 100, 115),
    ("paint-plain", "", {"paint": 100}, 100, 135),
    ("clear-wax-plain", "", {"clear-wax": 100}, 100, 85),
    ("dark-wax-plain", "", {"dark-wax": 100}, 100, 85),
    ("liming-wax-plain", "", {"liming-wax": 100}, 100, 105),
    ("metallic-wax-plain", "", {"metallic-wax": 100}, 100, 105),
    ("spray-wax-plain", "", {"spray-wax": 100}, 100, 80),
    ("water-wax-plain", "", {"water-wax": 100}, 100, 100),
    ("sealing-patina-plain", "", {"patina": 100}, 100, 105),
    ("sealed-paint-plain", "", {"paint": 100}, 100, 130),
    # 0.06 part of gelling powder: 5.660 ml dry adds 5.660 × 0.6/1.5 = 2.264 ml
    ("gelled-paint", "", {"paint": 94.340, "powder": 5.660}, 94.340 + 2.264, 94.340 * 1.35 + 5.660 * 0.6),
    ("hard-clear-coat-plain", "", {"clear-coat": 100}, 100, 104),
    ("matt-clear-coat-plain", "", {"clear-coat": 100}, 100, 104),
    ("exterior-clear-coat-plain", "", {"clear-coat": 100}, 100, 104),
    ("sanding-sealer-plain", "", {"clear-coat": 100}, 100, 103),
    ("dewaxed-shellac-plain", "", {"shellac": 100}, 100, 90),
    ("stain-blocker-plain", "", {"stain-blocker": 100}, 100, 130),
    ("metal-primer-plain", "", {"metal-primer": 100}, 100, 130),
    ("gilding", "", {"size": 100}, 100, 102),
    # 5 of the whole are retarder; the other 95 are 5 : 1
    (
        "glaze-retarded",
        "",
        {"medium": 79.167, "paint": 15.833, "retarder": 5},
        100,
        79.167 * 1.04 + 15.833 * 1.35 + 5 * 1.03,
    ),
]
BY_WEIGHT = [
    ("pigment-wax", "", "pigment", 0.05),
    ("pigment-wax", "sheer", "pigment", 0.02),
    ("pigment-wax", "strong", "pigment", 0.10),
    ("liming-wax", "", "pigment", 0.18),
    ("liquid-tinted-wax", "", "tint", 0.015),
    ("dark-wax", "", "dark-wax", 0.20),
]


@pytest.mark.parametrize(
    ("slug", "school", "parts", "makes", "weighs"), BY_HAND, ids=[f"{r[0]} {r[1]}" for r in BY_HAND]
)
def test_a_hundred_ml_as_poured(slug: str, school: str, parts: dict[str, float], makes: float, weighs: float) -> None:
    pours = compose(with_school(C.recipes[slug], school), C.materials)
    assert {p.component.id: p.poured_ml * 100 for p in pours} == pytest.approx(parts, abs=0.02)
    assert sum(p.adds_ml for p in pours) * 100 == pytest.approx(makes, abs=0.02)
    assert sum(p.mass_g for p in pours) * 100 == pytest.approx(weighs, abs=0.05)


@pytest.mark.parametrize(("slug", "school", "component", "share"), BY_WEIGHT)
def test_tints_by_weight(slug: str, school: str, component: str, share: float) -> None:
    pours = compose(with_school(C.recipes[slug], school), C.materials)
    mass = {p.component.id: p.mass_g for p in pours}
    assert mass[component] / sum(mass.values()) == pytest.approx(share)


def test_every_recipe_is_worked_by_hand() -> None:
    worked = {row[0] for row in BY_HAND} | {row[0] for row in BY_WEIGHT}
    assert worked == set(C.recipes)
