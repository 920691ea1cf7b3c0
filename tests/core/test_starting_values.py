"""The trade's starting values, row by row: a changed constant must be changed here too, and say why."""

from math import hypot, pi

import pytest

from lumso.catalogue import shipped

C = shipped()

# slug: g/ml as measured, g/ml without air
LIQUIDS = [
    ("water", 1.00),
    ("glaze-medium", 1.04),
    ("clear-coat", 1.03),
    ("matt-paint", 1.35),
    ("bonding-primer", 1.25),
    ("plaster-medium", 1.70),
    ("clear-wax", 0.85),
    ("dark-wax", 0.85),
    ("oil-wax", 0.90),
]
# slug: g/ml as measured, g/ml without air, swelling, packing limit
POWDERS = [
    ("milk-paint-powder", 0.75, 2.40, 1.6, 0.55),
    ("texture-powder", 0.60, 2.30, 2.7, 0.55),
    ("plaster", 0.95, 2.65, 1.2, 0.50),
    ("chalk", 0.80, 2.71, 1.5, 0.50),
    ("dry-pigment", 0.70, 3.50, 1.5, 0.50),
    ("baking-soda", 0.95, 2.20, 1.1, 0.55),
    ("fine-salt", 1.20, 2.165, 1.0, 0.60),
    ("play-sand", 1.55, 2.65, 1.0, 0.60),
    ("ground-pepper", 0.50, 1.30, 1.5, 0.50),
    ("sawdust", 0.20, 1.50, 3.5, 0.40),
    ("coffee-grounds", 0.35, 1.25, 2.0, 0.50),
]
# slug: ml/m², m²/h
TECHNIQUES = [
    ("brushed-paint", 75, 6),
    ("brushed-milk-paint", 75, 6),
    ("wash-wiped", 45, 5),
    ("wash-rubbed", 60, 5),
    ("glaze-dragged", 90, 5),
    ("stippled", 1000, 2.5),
    ("trowelled", 1000, 2),
    ("brushed-primer", 100, 6),
    ("brushed-clear", 90, 8),
    ("waxed", 40, 6),
    ("oil-waxed", 60, 6),
    ("dry-brushed", 25, 4),
]
GROUNDS = [
    ("painted-sealed", 0),
    ("slick", 0),
    ("painted-unsealed", 5),
    ("raw-pine", 20),
    ("raw-oak", 30),
    ("bare-plaster", 60),
    ("bare-brick", 120),
]
TOOLS = [
    ("chip-brush-25", 4, 4),
    ("flat-brush-50", 10, 10),
    ("sponge-applicator", 8, 8),
    ("sea-sponge", 15, 15),
    ("foam-roller-100", 25, 40),
    ("trowel", 5, 5),
    ("wax-brush", 5, 5),
]
POTS = [
    ("water-thin", 0.01, 0.1),
    ("cream", 0.02, 0.2),
    ("paint", 0.03, 0.5),
    ("batter", 0.06, 1),
    ("frosting", 0.10, 2),
]
WORDS = [
    ("water", 1, 0),
    ("milk", 4, 0),
    ("single-cream", 15, 0),
    ("double-cream", 60, 0.2),
    ("buttermilk", 150, 0.5),
    ("pancake-batter", 6_000, 10),
    ("cake-batter", 15_000, 30),
    ("brownie-batter", 35_000, 80),
    ("frosting", 120_000, 200),
]
RELIEFS = [("flat", 1.0), ("shallow-panel", 1.10), ("moulded", 1.25), ("reeded", pi / 2)]


@pytest.mark.parametrize(("slug", "density"), LIQUIDS)
def test_liquids_and_waxes_hold_no_air(slug: str, density: float) -> None:
    material = C.materials[slug]
    assert (material.bulk_density, material.true_density) == (density, density)
    assert not material.is_solid


@pytest.mark.parametrize(("slug", "bulk", "true", "swelling", "packing"), POWDERS)
def test_powders(slug: str, bulk: float, true: float, swelling: float, packing: float) -> None:
    m = C.materials[slug]
    assert (m.bulk_density, m.true_density, m.swelling, m.packing_limit) == (bulk, true, swelling, packing)
    assert m.is_solid


@pytest.mark.parametrize(("slug", "rate", "pace"), TECHNIQUES)
def test_wet_rates_and_paces(slug: str, rate: float, pace: float) -> None:
    technique = C.techniques[slug]
    assert (technique.wet_rate_ml_per_m2, technique.pace_m2_per_h) == (rate, pace)


@pytest.mark.parametrize(("slug", "extra"), GROUNDS)
def test_what_the_first_coat_loses_into_a_ground(slug: str, extra: float) -> None:
    assert C.grounds[slug].first_coat_extra_ml_per_m2 == extra


@pytest.mark.parametrize(("slug", "least", "most"), TOOLS)
def test_what_stays_in_a_tool(slug: str, least: float, most: float) -> None:
    assert least <= C.tools[slug].holds_ml <= most


@pytest.mark.parametrize(("cling", "share", "least"), POTS)
def test_what_clings_to_a_pot(cling: str, share: float, least: float) -> None:
    assert (C.pot_losses[cling].share, C.pot_losses[cling].least_ml) == (share, least)


@pytest.mark.parametrize(("slug", "viscosity", "yield_stress"), WORDS)
def test_food_words(slug: str, viscosity: float, yield_stress: float) -> None:
    word = next(c for c in C.consistencies if c.slug == slug)
    assert (word.viscosity_mpa_s, word.yield_stress_pa) == (viscosity, yield_stress)


@pytest.mark.parametrize(("slug", "factor"), RELIEFS)
def test_reliefs(slug: str, factor: float) -> None:
    assert C.reliefs[slug].factor == pytest.approx(factor, abs=1e-4)


@pytest.mark.parametrize("slug", sorted(C.reliefs))
def test_the_picture_of_a_relief_is_as_long_as_its_factor_says(slug: str) -> None:
    points = C.reliefs[slug].profile
    run = points[-1].x - points[0].x
    over = sum(hypot(b.x - a.x, b.y - a.y) for a, b in zip(points, points[1:], strict=False))
    assert over / run == pytest.approx(C.reliefs[slug].factor, rel=0.01)


def test_paint_from_the_tin_lies_in_its_range() -> None:
    tin = next(c for c in C.consistencies if c.slug == "paint")
    assert 1_500 <= tin.viscosity_mpa_s <= 3_000


def test_what_dissolves_and_what_sets() -> None:
    assert C.materials["fine-salt"].dissolves_g_per_g == 0.36
    assert C.materials["baking-soda"].dissolves_g_per_g == 0.096
    assert C.materials["plaster"].swells_on_setting == 1.355
    assert C.materials["matt-paint"].water_by_weight == 0.45


@pytest.mark.parametrize("kind", ["materials", "grounds", "techniques", "tools", "reliefs"])
def test_every_constant_says_where_it_comes_from(kind: str) -> None:
    for entry in getattr(C, kind).values():
        assert entry.provenance, entry.slug


def test_every_technique_names_tools_and_surfaces_that_are_there() -> None:
    kinds = {g.surface for g in C.grounds.values()}
    for technique in C.techniques.values():
        assert technique.tools
        assert set(technique.tools) <= set(C.tools)
        assert set(technique.surfaces) <= kinds
    for recipe in C.recipes.values():
        assert set(recipe.surfaces) <= kinds
