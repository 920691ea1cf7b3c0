"""Workshop files and the shelf as a table: what goes out comes back, and what cannot be used says where."""

import csv
import io
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.book.kit import Kit, KitMeasure
from lumso.core.workshop.shelf import BOUNDS, Overlay, Pack, ShelfItem
from lumso.core.workshop.workshop import Workshop
from lumso.formats.reading import UnfitDocument
from lumso.formats.workshop import WorkshopFile, arrivals, from_json, shelf_from_csv, shelf_to_csv, to_json

C = shipped()
TODAY = "2026-11-24"
TEXT = st.text(st.characters(exclude_categories=["Cs"], exclude_characters="\x00"), max_size=30)
OVERLAY = st.builds(
    Overlay,
    field=st.just("swelling"),
    value=st.floats(1, 5).map(lambda v: float(f"{v:g}")),
    source=st.sampled_from(["label", "measured"]),
    at=st.just(TODAY),
)
ITEM = st.builds(
    ShelfItem,
    slug=st.sampled_from(sorted(C.materials)),
    on_hand=st.floats(0, 9_000).map(lambda v: float(f"{v:g}")),
    unit=st.sampled_from(["ml", "g"]),
    opened_on=st.sampled_from(["", "2026-10-03"]),
    packs=st.lists(st.builds(Pack, st.floats(1, 900), st.just("ml"), st.floats(0, 90)), max_size=2).map(tuple),
    overlays=st.lists(OVERLAY, max_size=1).map(tuple),
    note=TEXT,
)
SHELF = st.lists(ITEM, max_size=6, unique_by=lambda item: item.slug).map(tuple)


@given(SHELF)
def test_a_file_comes_back_as_it_went_out(shelf: tuple[ShelfItem, ...]) -> None:
    kit = Kit("own-kit", "Drawer", (KitMeasure("blue cup", 183, 0, "cup"),), 1)
    recipe = replace(C.recipes["colour-wash"], slug="own-wash")
    file = WorkshopFile("lumso-workshop-file", 1, (recipe,), (kit,), shelf)
    assert from_json(to_json(file), C) == file


@given(SHELF)
def test_the_shelf_comes_back_from_its_table(shelf: tuple[ShelfItem, ...]) -> None:
    workshop = Workshop(shelf=shelf)
    back = shelf_from_csv(shelf_to_csv(workshop, C), workshop, C, TODAY, "shelf.csv").shelf
    assert [i.slug for i in back] == [i.slug for i in shelf]
    assert back == shelf


@pytest.mark.parametrize("note", ["=1+1", "'quoted'", "''", " spaced ", "+3", "-3", "@x", "\tx", "x\n", 'a,b;"c"', "é"])
def test_a_note_is_text_in_the_table_and_comes_back_to_the_letter(note: str) -> None:
    workshop = Workshop(shelf=(ShelfItem("chalk", 234567.891, note=note),))
    text = shelf_to_csv(workshop, C)
    (row,) = list(csv.DictReader(io.StringIO(text.removeprefix("\ufeff"), newline="")))
    assert row["note"] in (note, f"'{note}")
    assert not row["note"].startswith(("=", "+", "-", "@", "\t", " ", "\r"))
    assert float(row["on_hand"]) == 234567.891
    assert shelf_from_csv(text, workshop, C, TODAY, "s.csv").shelf == workshop.shelf
    assert shelf_from_csv(text, Workshop(), C, TODAY, "s.csv").shelf == workshop.shelf


@given(SHELF)
def test_a_table_opens_as_a_table(shelf: tuple[ShelfItem, ...]) -> None:
    text = shelf_to_csv(Workshop(shelf=shelf), C)
    assert text.startswith("\ufeff")
    rows = list(csv.reader(io.StringIO(text.removeprefix("\ufeff"))))
    assert {len(row) for row in rows} == {6 + len(BOUNDS)}
    assert not any(cell[:1] in ("=", "+", "@") for row in rows for cell in row)


def test_arrivals_tell_new_same_and_clash() -> None:
    chalk, water = ShelfItem("chalk", 5), ShelfItem("water", 5)
    file = WorkshopFile("lumso-workshop-file", 1, shelf=(chalk, water, ShelfItem("plaster")))
    found = arrivals(file, Workshop(shelf=(chalk, replace(water, on_hand=6))))
    assert [(a.slug, a.state) for a in found] == [("chalk", "same"), ("water", "clash"), ("plaster", "new")]


def test_a_value_edited_in_the_table_is_measured_and_an_emptied_one_put_back() -> None:
    item = ShelfItem("chalk", 5, overlays=(Overlay("bulk_density", 0.7, "label", "2025-01-01"),))
    workshop = Workshop(shelf=(item,))
    text = shelf_to_csv(workshop, C)
    edited = shelf_from_csv(text.replace("0.7 label", "0.75"), workshop, C, TODAY, "s.csv").shelf[0]
    assert edited.overlays == (Overlay("bulk_density", 0.75, "measured", TODAY),)
    emptied = shelf_from_csv(text.replace("0.7 label", ""), workshop, C, TODAY, "s.csv").shelf[0]
    assert emptied.overlays == ()


@pytest.mark.parametrize(
    ("row", "at"),
    [
        ("chalk,-5,g", "line 2, on_hand"),
        ("chalk,nan,g", "line 2, on_hand"),
        ("chalk,5,cups", "line 2, unit"),
        (",5,g", "/shelf/0/slug"),
    ],
)
def test_a_bad_row_is_named(row: str, at: str) -> None:
    with pytest.raises(UnfitDocument) as caught:
        shelf_from_csv(f"slug,on_hand,unit\n{row}", Workshop(), C, TODAY, "s.csv")
    assert caught.value.faults[0].at == at


@pytest.mark.parametrize("text", ["\r0", "a\rb", 'slug,"on_hand', "\x00", "slug,on_hand,unit\r\nchalk,5,g\r\n"])
def test_any_line_endings_are_read_or_refused(text: str) -> None:
    try:
        file = shelf_from_csv(text, Workshop(), C, TODAY, "s.csv")
    except UnfitDocument:
        return  # refused in the one way there is
    assert [item.slug for item in file.shelf] == ["chalk"]


def test_a_file_brings_the_materials_its_recipes_need() -> None:
    own = replace(C.materials["chalk"], slug="own-clay", name="clay")
    base = C.recipes["mineral-paint-chalk"]
    parts = tuple(replace(c, material="own-clay") if c.id == "chalk" else c for c in base.components)
    recipe = replace(base, slug="own-clay-paint", components=parts)
    whole = WorkshopFile("lumso-workshop-file", 1, (recipe,), (), (ShelfItem("own-clay", own=own),))
    assert from_json(to_json(whole), C) == whole
    with pytest.raises(UnfitDocument, match="own-clay"):
        from_json(to_json(replace(whole, shelf=())), C)
