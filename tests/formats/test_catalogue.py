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
    ],
)
def test_one_bad_file_is_refused_with_its_place_and_does_not_hide_the_others(
    folder: Path, changes: dict[str, Any], place: str
) -> None:
    whole = load(folder).catalogue
    change(folder, WASH, **changes)
    loaded = load(folder)
    (refused,) = loaded.refused
    assert refused.source == WASH
    assert refused.faults[0].at == place
    assert refused.faults[0].allowed
    assert set(loaded.catalogue.recipes) == set(whole.recipes) - {"colour-wash"}


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
