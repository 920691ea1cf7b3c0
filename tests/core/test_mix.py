"""A mix from every end, its jar, and where a job starts from."""

from dataclasses import replace
from itertools import count

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.book.colours import Colour, Tint
from lumso.core.book.recipes import VolumeShare
from lumso.core.errors import ImpossibleRecipe, InvalidValue, UnknownEntry
from lumso.core.figure import Figure, Step, tidy
from lumso.core.job.entries import embed
from lumso.core.job.job import FromArea, FromPart, FromTotal, FromVessel, Job
from lumso.core.job.start import on_piece, start_layer, start_pot
from lumso.core.mixing.jar import HEADROOM, graduate, vessel_for
from lumso.core.mixing.limits import applying
from lumso.core.mixing.mix import Mix
from lumso.core.mixing.recipe_page import sheet
from lumso.core.workshop.workshop import Workshop
from tests.conftest import only_mix, planned, with_layer

C = shipped()


def made(slug: str, want: FromTotal | FromPart | FromVessel, measures: str = "metric") -> Mix:
    return sheet(C.recipes[slug], "", want, Workshop(measures=measures), C).mix


@given(st.sampled_from(sorted(C.recipes)), st.floats(1, 20_000))
def test_from_the_total_and_back_from_any_part(slug: str, ml: float) -> None:
    whole = made(slug, FromTotal("total", ml))
    for part in whole.parts:
        by_ml = made(slug, FromPart("part", part.component, "ml", part.poured.value))
        by_g = made(slug, FromPart("part", part.component, "g", part.mass.value))
        assert by_ml.volume.value == pytest.approx(ml)
        assert by_g.volume.value == pytest.approx(ml)


@given(st.floats(50, 20_000))
def test_a_vessel_keeps_room_to_stir(ml: float) -> None:
    mix = made("milk-paint", FromVessel("vessel", ml))
    assert mix.volume.value == pytest.approx(ml * (1 - HEADROOM))
    assert mix.volume.steps[0].name == "Fits the vessel"


def test_a_part_that_is_not_in_the_mix_names_those_that_are() -> None:
    with pytest.raises(ImpossibleRecipe) as caught:
        made("milk-paint", FromPart("part", "glitter", "ml", 5))
    assert caught.value.allowed == "powder, water"


def test_a_school_nobody_keeps_names_those_there_are() -> None:
    with pytest.raises(InvalidValue) as caught:
        sheet(C.recipes["milk-paint"], "cubist", FromTotal("total", 5), Workshop(), C)
    assert "buttermilk" in caught.value.allowed


@pytest.mark.parametrize("slug", sorted(C.recipes))
def test_strata_stand_on_each_other_in_pouring_order(slug: str) -> None:
    mix = made(slug, FromTotal("total", 300))
    level = 0.0
    for stratum, part in zip(mix.jar.strata, mix.parts, strict=True):
        assert stratum.component == part.component
        assert stratum.bottom_ml == pytest.approx(level)
        assert stratum.dry_top_ml - stratum.bottom_ml == pytest.approx(part.poured.value)
        assert stratum.dry_top_ml >= stratum.top_ml - 1e-9
        level = stratum.top_ml
    assert level == pytest.approx(mix.jar.fill_ml) == pytest.approx(300)


@pytest.mark.parametrize(
    ("ml", "vessel", "fits"),
    [(100, "baby-food jar", True), (107, "jam jar", True), (30_000, "builder’s mixing tub", True),
     (40_000, "builder’s mixing tub", False)],
)  # fmt: skip
def test_the_smallest_vessel_with_room_to_stir(ml: float, vessel: str, fits: bool) -> None:
    found, ok = vessel_for(ml, C.vessels)
    assert (found.name, ok) == (vessel, fits)


@given(st.sampled_from(sorted(C.systems)), st.floats(20, 40_000))
def test_graduations_rise_evenly_to_the_brim(system: str, capacity: float) -> None:
    marks = graduate(capacity, C.systems[system])
    heights = [m.ml for m in marks]
    assert heights == sorted(heights)
    assert all(0 < h <= capacity * (1 + 1e-9) for h in heights)
    labelled = [m.ml for m in marks if m.label]
    assert len(labelled) <= 8
    assert all(b - a == pytest.approx(labelled[0]) for a, b in zip(labelled, labelled[1:], strict=False))


def test_a_blend_is_drawn_as_pigments_mix_not_as_lights_do(rack: Job) -> None:
    tints = {"paint": (Tint("black", "#000000", 1), Tint("white", "#ffffff", 1))}
    part = only_mix(planned(with_layer(rack, tints=tints))).parts[0]
    assert "#181818" < part.hex < "#585858", "half black in white is nearly black, not middle grey"
    assert [p.ml for p in part.paints] == pytest.approx([part.poured.value / 2] * 2)


def test_a_colour_of_ones_own_goes_onto_the_jar(rack: Job) -> None:
    mix = only_mix(planned(with_layer(rack, colours={"paint": Colour("Footlight green", "#123456")})))
    assert (mix.parts[0].colour, mix.jar.strata[0].hex) == ("Footlight green", "#123456")


def test_a_thicker_textured_coat_takes_more(rack: Job) -> None:
    one = only_mix(planned(with_layer(rack, recipe="salt-wash", technique="stippled", thickness_mm=1.0)))
    two = only_mix(planned(with_layer(rack, recipe="salt-wash", technique="stippled", thickness_mm=2.0)))
    film = [next(s.value for s in m.volume.steps if s.name == "On the surface") for m in (one, two)]
    assert film[0] == pytest.approx(0.56 * (1000 + 20))
    assert film[1] == pytest.approx(0.56 * (2000 + 20))


@pytest.mark.parametrize(
    ("recipe", "surface", "technique", "most"),
    [
        ("paint-wash-raw-wood", "raw wood", "wash-rubbed", [0.8]),
        ("paint-wash-raw-wood", "unsealed paint", "wash-wiped", [0.6]),
        ("colour-wash", "sealed", "wash-wiped", [0.75]),
        ("whitewash-dry-wiped", "unsealed paint", "wash-dry-wiped", [0.75]),
        ("whitewash-dry-wiped", "unsealed paint", "wash-wiped", [0.6]),
        ("thinned-paint", "brick", "brushed-paint", [0.2308]),
    ],
)
def test_limits_belong_to_ground_and_method_together(
    recipe: str, surface: str, technique: str, most: list[float]
) -> None:
    assert [x.most for x in applying(C.recipes[recipe], surface, technique)] == most


def test_a_layer_starts_with_what_the_ground_asks_for() -> None:
    layer = start_layer("x", "colour-wash", "painted-sealed", C)
    assert (layer.technique, layer.tool, layer.want) == ("wash-wiped", "flat-brush-50", FromArea("area"))
    with pytest.raises(UnknownEntry):
        start_layer("x", "moonlight", "raw-pine", C)


@pytest.mark.parametrize("slug", sorted(C.recipes))
def test_every_recipe_makes_a_pot_and_goes_on_a_piece(slug: str) -> None:
    pot = start_pot("z", "l", slug, 120, C)
    assert only_mix(planned(pot)).volume.value == pytest.approx(120)
    ids = (f"id{n}" for n in count())
    job = on_piece(pot, "stool", ids)
    assert [z.name for z in job.zones] == ["Top", "Legs"]
    assert all(isinstance(layer.want, FromArea) for z in job.zones for layer in z.layers)


def test_a_job_keeps_the_entries_it_took_up_when_the_book_changes(rack: Job) -> None:
    carried = embed(rack, C)
    thinner = replace(C.recipes["paint-wash-raw-wood"], name="Changed since")
    changed = replace(C, recipes={**C.recipes, thinner.slug: thinner})
    assert embed(carried, changed).entries == carried.entries
    assert embed(rack, changed).entries.recipes[0].name == "Changed since"


def test_crossing_a_limit_is_told_and_still_planned(rack: Job) -> None:
    made_anyway = planned(with_layer(rack, amounts={"water": VolumeShare("volume-share", 0.9)}))
    layer = made_anyway.zones[0].layers[0]
    assert layer.pots
    assert layer.findings[0].says == "Water is 90% of the whole; here at most 80%."


def test_a_figure_grows_by_steps() -> None:
    start = Figure(2, "m²", (Step("Area", "given", 2, "m²", "geometry"),))
    after = start.then(Step("Film", "× 50", 100, "ml", "geometry"))
    assert (after.value, after.unit, len(after.steps), start.value) == (100, "ml", 2, 2)


@pytest.mark.parametrize(
    ("value", "said"), [(0.56, "0.56"), (33.9394, "33.9"), (8.0, "8"), (1234.5, "1234"), (0.05279, "0.0528")]
)
def test_numbers_are_said_to_three_figures(value: float, said: str) -> None:
    assert tidy(value) == said
