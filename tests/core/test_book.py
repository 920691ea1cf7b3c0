"""The recipe book: every recipe mixes at every size, within its own limits; yields are not sums of parts."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.book.recipes import Recipe, VolumeParts, WeightParts
from lumso.core.errors import ImpossibleRecipe
from lumso.core.job.job import FromPart, FromTotal
from lumso.core.mixing.compose import compose
from lumso.core.mixing.measuring import measure_out
from lumso.core.mixing.needs import Need
from lumso.core.mixing.recipe_page import sheet
from lumso.core.workshop.workshop import Workshop

C = shipped()
PAGES = [(r, s) for r in C.recipes.values() for s in ("", *(x.slug for x in r.schools))]
NAMED = [f"{r.slug} {s}".strip() for r, s in PAGES]
KIT_OF = {"us": "us-spoons", "metric": "metric-spoons", "australian": "australian-spoons", "imperial": "metric-spoons"}


@pytest.mark.parametrize("measures", sorted(KIT_OF))
@pytest.mark.parametrize("ml", [50, 500, 5000])
@pytest.mark.parametrize(("recipe", "school"), PAGES, ids=NAMED)
def test_every_recipe_is_planned_at_every_size(recipe: Recipe, school: str, ml: float, measures: str) -> None:
    page = sheet(recipe, school, FromTotal("total", ml), Workshop(measures=measures), C)
    assert page.mix.volume.value == pytest.approx(ml)
    assert sum(p.adds_ml for p in page.mix.parts) == pytest.approx(ml)
    assert sum(p.share for p in page.mix.parts) == pytest.approx(1)
    assert sum(p.mass.value for p in page.mix.parts) == pytest.approx(page.mix.mass_g)
    assert page.mix.thickness.state == "flows"
    assert [limit.component for limit in page.limits if limit.crossed] == []
    assert page.contradictions == ()
    needs = tuple(Need(p.name, p.poured.value, p.mass.value, p.solid) for p in page.mix.parts)
    answer = measure_out(needs, C.kits[KIT_OF[measures]])
    assert answer.options or answer.smallest_batch


YIELDS = [
    ("milk-paint", {"powder": 120}, 157.5),
    ("mineral-paint-plaster", {"plaster-of-paris": 79}, 344.3),
    ("salt-wash", {"paint": 100}, 119.6),
    ("sand-paint", {"paint": 200}, 258.5),
]


@pytest.mark.parametrize(("slug", "have", "ml"), YIELDS)
def test_true_yields_worked_by_hand(slug: str, have: dict[str, float], ml: float) -> None:
    ((component, quantity),) = have.items()
    page = sheet(C.recipes[slug], "", FromPart("part", component, "ml", quantity), Workshop(), C)
    assert page.mix.volume.value == pytest.approx(ml, abs=0.06)
    assert page.mix.naive_ml > page.mix.volume.value


@pytest.mark.parametrize(
    ("slug", "have", "g"),
    [
        ("milk-paint", ("powder", 120), 210),
        ("salt-wash", ("paint", 100), 180),
        ("mineral-paint-plaster", ("paint", 237), 474),
        ("sand-paint", ("paint", 200), 425),
    ],
)
def test_weights_worked_by_hand(slug: str, have: tuple[str, float], g: float) -> None:
    page = sheet(C.recipes[slug], "", FromPart("part", have[0], "ml", have[1]), Workshop(), C)
    assert page.mix.mass_g == pytest.approx(g, abs=0.6)


@pytest.mark.parametrize(("powder", "mpa_s", "word"), [(0.5, 9470, "pancake batter"), (0.75, 28100, "brownie batter")])
def test_texture_powder_thickens_as_worked_by_hand(powder: float, mpa_s: float, word: str) -> None:
    page = sheet(with_powder(powder), "", FromTotal("total", 100), Workshop(), C)
    assert page.mix.thickness.viscosity_mpa_s == pytest.approx(mpa_s, rel=0.01)
    assert page.mix.thickness.word == word


def with_powder(parts: float) -> Recipe:
    salt = C.recipes["salt-wash"]
    components = tuple(
        replace(c, amount=VolumeParts("volume-parts", parts)) if c.id == "powder" else c for c in salt.components
    )
    return replace(salt, components=components)


def test_powder_goes_past_stiff_and_then_is_refused_as_crumbs_with_the_reason() -> None:
    assert sheet(with_powder(0.955), "", FromTotal("total", 100), Workshop(), C).mix.thickness.state == "past stiff"
    with pytest.raises(ImpossibleRecipe, match="crumbs") as caught:
        sheet(with_powder(1), "", FromTotal("total", 100), Workshop(), C)
    assert "less powder" in caught.value.allowed


@pytest.mark.parametrize(("slug", "mpa_s"), [("milk-paint", 61), ("milk-paint-wash", 8)])
def test_milk_paint_is_as_thick_as_worked_by_hand(slug: str, mpa_s: float) -> None:
    page = sheet(C.recipes[slug], "", FromTotal("total", 100), Workshop(), C)
    assert page.mix.thickness.viscosity_mpa_s == pytest.approx(mpa_s, rel=0.05)


@pytest.mark.parametrize(("recipe", "school"), PAGES, ids=NAMED)
def test_scaling_by_k_scales_every_part_by_k(recipe: Recipe, school: str) -> None:
    one = sheet(recipe, school, FromTotal("total", 60), Workshop(), C).mix
    three = sheet(recipe, school, FromTotal("total", 180), Workshop(), C).mix
    assert [p.poured.value for p in three.parts] == pytest.approx([3 * p.poured.value for p in one.parts])


@pytest.mark.parametrize("slug", sorted(C.recipes))
def test_by_weight_and_by_volume_describe_the_same_batch(slug: str) -> None:
    pours = compose(C.recipes[slug], C.materials)
    by_weight = replace(
        C.recipes[slug],
        components=tuple(
            replace(p.component, amount=WeightParts("weight-parts", p.mass_g)) for p in pours if p.poured_ml
        ),
    )
    again = compose(by_weight, C.materials)
    assert [p.poured_ml for p in again] == pytest.approx([p.poured_ml for p in pours])


def test_a_share_that_the_parts_do_not_make_is_pointed_out_with_both_readings() -> None:
    wash = C.recipes["colour-wash"]
    paint, water = wash.components
    two = replace(water, amount=VolumeParts("volume-parts", 2), stated_share=0.75)
    page = sheet(replace(wash, components=(paint, two)), "", FromTotal("total", 90), Workshop(), C)
    (found,) = page.contradictions
    assert (found.stated, round(found.from_parts, 3)) == (0.75, 0.667)
    assert "75%" in found.says
    assert "67%" in found.says
    assert found.parts_for_stated == pytest.approx(3)


def test_every_family_of_the_trade_is_in_the_book() -> None:
    families = {r.family for r in C.recipes.values()}
    assert families == {
        "Washes",
        "Glazes",
        "Textured paints",
        "Home-made paints",
        "Grit paints",
        "Milk paints",
        "Paints",
        "Sealers and primers",
        "Waxes",
    }


@pytest.mark.parametrize("slug", sorted(C.recipes))
def test_every_recipe_says_what_it_rests_on_and_what_to_do(slug: str) -> None:
    recipe = C.recipes[slug]
    assert recipe.provenance
    assert recipe.steps
    powders = any(C.materials[c.material].is_solid for c in recipe.components)
    waxes = any(c.role == "wax" for c in recipe.components)
    if powders or waxes:
        assert recipe.cautions, "powders and waxes carry their caution"
    for school in recipe.schools:
        assert school.reason
        assert recipe.default_school
