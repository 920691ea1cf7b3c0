"""Catalogue files: sound data is taken up, unsound data refused with file, place and what is allowed."""

import json
from pathlib import Path
from shutil import copytree
from typing import Any

import pytest

from lumso.catalogue.load import DATA, load


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    return Path(copytree(DATA, tmp_path / "data"))


def change(folder: Path, file: str, **changes: Any) -> None:
    path = folder / file
    doc = json.loads(path.read_text())
    doc["recipes"][0].update(changes)
    path.write_text(json.dumps(doc))


WASH = "recipes/colour-wash.json"
LIMIT = {"component": "water", "least": 0, "most": 0.9, "reason": "thin", "provenance": "rule of the trade"}


def test_the_shipped_catalogue_is_sound() -> None:
    loaded = load(DATA)
    assert loaded.refused == ()
    assert loaded.catalogue.recipes


@pytest.mark.parametrize(
    ("changes", "place"),
    [
        ({"colour": "blue"}, "/recipes/0/colour"),
        ({"working_life_min": -1}, "/recipes/0/working_life_min"),
        ({"target": "gravy"}, "/recipes/colour-wash/target"),
        ({"techniques": ["flung"]}, "/recipes/colour-wash/techniques/0"),
        ({"dial": "milk"}, "/recipes/colour-wash/dial"),
        ({"surfaces": ["wallpaper"]}, "/recipes/colour-wash/surfaces/0"),
        ({"limits": [{**LIMIT, "techniques": ["flung"]}]}, "/recipes/colour-wash/limits/0/techniques/0"),
        ({"limits": [{**LIMIT, "surfaces": ["wallpaper"]}]}, "/recipes/colour-wash/limits/0/surfaces/0"),
    ],
)
def test_one_bad_file_is_refused_with_its_place_and_does_not_hide_the_others(
    folder: Path, changes: dict[str, Any], place: str
) -> None:
    whole = load(folder).catalogue
    change(folder, WASH, **changes)
    loaded = load(folder)
    (refused,) = [r for r in loaded.refused if r.source == WASH]
    assert refused.faults[0].at == place
    assert refused.faults[0].allowed
    assert set(loaded.catalogue.recipes) == set(whole.recipes) - {"colour-wash"}
    # Finishes that need it are refused too, each with the reason; the others stand.
    gone = {slug for slug, f in whole.finishes.items() if "colour-wash" in {x.recipe for x in f.layers}}
    assert gone
    assert set(loaded.catalogue.finishes) == set(whole.finishes) - gone
    others = [r for r in loaded.refused if r.source != WASH]
    assert len(others) == len(gone)
    assert all("colour-wash" in r.faults[0].says for r in others)


def test_a_slug_used_twice_is_refused(folder: Path) -> None:
    copy = folder / "recipes" / "zz-copy.json"
    copy.write_text((folder / WASH).read_text())
    (refused,) = load(folder).refused
    assert "already in recipes/colour-wash.json" in refused.faults[0].says


def test_adding_a_recipe_is_adding_a_file(folder: Path) -> None:
    doc = json.loads((folder / WASH).read_text())
    doc["recipes"][0].update(slug="my-wash", name="My wash")
    (folder / "recipes" / "my-wash.json").write_text(json.dumps(doc))
    assert "my-wash" in load(folder).catalogue.recipes


LINEN = "finishes/dragged-linen.json"


def change_finish(folder: Path, **changes: Any) -> None:
    path = folder / LINEN
    doc = json.loads(path.read_text())
    doc["finishes"][0].update(changes)
    path.write_text(json.dumps(doc))


def one_layer(**changes: Any) -> list[dict[str, Any]]:
    return [{"recipe": "paint-plain", "part": "base", **changes}]


@pytest.mark.parametrize(
    ("changes", "place"),
    [
        ({"layers": one_layer(recipe="magic")}, "layers/0/recipe"),
        ({"layers": one_layer(technique="flung")}, "layers/0/technique"),
        ({"layers": one_layer(colours={"milk": {"name": "x", "hex": "#ffffff"}})}, "layers/0/colours"),
        ({"grounds": ["moon"]}, "grounds/0"),
        ({"unfit": [{"rule": "slick-unprimed", "ground": "moon", "why": "no air"}]}, "unfit/0/ground"),
        ({"unfit": [{"rule": "bad-luck", "use": "weather", "why": "rain"}]}, "unfit/0/rule"),
        ({"meant": [{"rule": "bad-luck", "layer": 0, "reason": "fate"}]}, "meant/0/rule"),
    ],
)
def test_a_finish_that_names_what_is_not_there_is_refused_with_its_place(
    folder: Path, changes: dict[str, Any], place: str
) -> None:
    change_finish(folder, **changes)
    loaded = load(folder)
    (refused,) = loaded.refused
    assert refused.source == LINEN
    assert refused.faults[0].at == f"/finishes/dragged-linen/{place}"
    assert refused.faults[0].allowed
    assert "dragged-linen" not in loaded.catalogue.finishes


@pytest.mark.parametrize(
    ("changes", "place"),
    [
        ({"layers": []}, "/finishes/0/layers"),
        ({"hard": "impossible"}, "/finishes/0/hard"),
        ({"uses": ["swimming"]}, "/finishes/0/uses/0"),
        ({"layers": one_layer(coats=0)}, "/finishes/0/layers/0/coats"),
        ({"layers": one_layer(sandings=[{"grit": 5, "purpose": "bite"}])}, "/finishes/0/layers/0/sandings/0/grit"),
        ({"brand": "none"}, "/finishes/0/brand"),
    ],
)
def test_a_finish_of_the_wrong_shape_is_refused_with_its_place(
    folder: Path, changes: dict[str, Any], place: str
) -> None:
    change_finish(folder, **changes)
    (refused,) = load(folder).refused
    assert refused.faults[0].at == place
    assert refused.faults[0].allowed


def test_every_technique_says_how_it_goes_on_when_it_is_right_and_what_goes_wrong() -> None:
    for technique in load(DATA).catalogue.techniques.values():
        assert technique.how
        assert technique.direction
        assert technique.right_when
        assert technique.faults
        assert technique.touched_least <= technique.touched <= technique.touched_most
        if technique.part_dry:
            assert technique.part_dry.opens_min < technique.part_dry.closes_min


def test_every_preparation_has_its_check_and_those_that_abrade_their_caution() -> None:
    for prep in load(DATA).catalogue.preparations.values():
        assert prep.how
        assert prep.check
        if prep.abrades:
            assert any("mask" in caution for caution in prep.cautions), prep.slug


def test_every_recipe_has_a_film_of_the_catalogue() -> None:
    catalogue = load(DATA).catalogue
    for recipe in catalogue.recipes.values():
        assert recipe.film in catalogue.films
