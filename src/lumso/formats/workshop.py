"""Recipes, kits and the shelf as files: one documented JSON format, and the shelf as a spreadsheet too.

Reading a file never changes the workshop: it comes back as what is new, what is there already as it is, and what
clashes, so that the user can be asked.
"""

import csv
import io
import json
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from itertools import zip_longest
from typing import Any, Literal

from pydantic import TypeAdapter

from lumso.catalogue.load import faults_in
from lumso.core.book.catalogue import Catalogue
from lumso.core.book.kit import Kit
from lumso.core.book.recipes import Recipe
from lumso.core.buying.lots import Lot
from lumso.core.errors import InvalidValue
from lumso.core.value import Value
from lumso.core.workshop.shelf import BOUNDS, Overlay, ShelfItem, with_overlays
from lumso.core.workshop.workshop import Workshop
from lumso.formats.validators import adapter

from .reading import Fault, UnfitDocument, parse_json, read, read_json, refuse_crowds, widened

FORMAT = "lumso-workshop-file"
MOST = {"shelf": 20_000}


@dataclass(frozen=True)
class WorkshopFile(Value):
    """What people exchange: any of recipes, kits and shelf."""

    format: Literal["lumso-workshop-file"]
    version: Literal[1]
    recipes: tuple[Recipe, ...] = ()
    kits: tuple[Kit, ...] = ()
    shelf: tuple[ShelfItem, ...] = ()


@dataclass(frozen=True)
class Arrival(Value):
    """One entry of a file beside the workshop: new, the same, or a clash with what is there."""

    kind: Literal["recipe", "kit", "shelf"]
    slug: str
    name: str
    state: Literal["new", "same", "clash"]


FILE = adapter(WorkshopFile)
DOCUMENT: Mapping[str, TypeAdapter[Any]] = {
    "recipe": adapter(Recipe),
    "kit": adapter(Kit),
    "shelf": adapter(ShelfItem),
    "lot": adapter(Lot),
}


def document(kind: str, entry: Any) -> str:
    """An entry as the JSON text it is kept as."""
    return json.dumps(DOCUMENT[kind].dump_python(entry, mode="json"), ensure_ascii=False)


def to_json(file: WorkshopFile) -> str:
    """The file as JSON text."""
    return json.dumps(FILE.dump_python(file, mode="json"), ensure_ascii=False, indent=2) + "\n"


def _shelf_faults(item: ShelfItem, at: str, catalogue: Catalogue) -> list[Fault]:
    material = item.own or catalogue.materials.get(item.slug)
    if material is None:
        known = ", ".join(sorted(catalogue.materials))
        return [Fault(f"{at}/slug", f"There is no material {item.slug!r}, and it brings none.", item.slug, known)]
    try:
        with_overlays(material, item.overlays)
    except InvalidValue as error:
        return [Fault(f"{at}/overlays", error.says, repr(error.value), error.allowed)]
    return []


def check(file: WorkshopFile, catalogue: Catalogue, source: str) -> WorkshopFile:
    """The file, when all it refers to is in the catalogue or in itself. Raises UnfitDocument with every fault."""
    own = {item.slug: item.own for item in file.shelf if item.own}
    whole = replace(catalogue, materials={**catalogue.materials, **own})
    faults = [
        Fault(f"/recipes/{i}/{at}", says, recipe.slug, allowed)
        for i, recipe in enumerate(file.recipes)
        for at, says, allowed in faults_in(recipe, whole)
    ]
    faults += [
        Fault(f"/recipes/{i}/slug", f"{r.slug!r} is a recipe of the shipped book.", r.slug, "a slug of its own")
        for i, r in enumerate(file.recipes)
        if r.slug in catalogue.recipes
    ]
    for i, item in enumerate(file.shelf):
        faults += _shelf_faults(item, f"/shelf/{i}", catalogue)
    if faults:
        raise UnfitDocument(source, faults[:20])
    return file


def from_json(text: str | bytes, catalogue: Catalogue, source: str = "The file") -> WorkshopFile:
    """A workshop file from JSON text. Raises UnfitDocument."""
    document = parse_json(text, source)
    refuse_crowds(document, source, MOST)
    return check(read(FILE, widened(document), source), catalogue, source)


def arrivals(file: WorkshopFile, workshop: Workshop) -> tuple[Arrival, ...]:
    """Each entry of the file beside what the workshop has."""
    kinds: tuple[tuple[Literal["recipe", "kit", "shelf"], Any, Any, Callable[[Any], str]], ...] = (
        ("recipe", file.recipes, {r.slug: r for r in workshop.recipes}, lambda r: str(r.name)),
        ("kit", file.kits, {k.slug: k for k in workshop.kits}, lambda k: str(k.name)),
        ("shelf", file.shelf, {s.slug: s for s in workshop.shelf}, lambda s: str(s.own.name if s.own else s.slug)),
    )
    return tuple(
        Arrival(
            kind,
            e.slug,
            name(e),
            "new" if e.slug not in have else "same" if have[e.slug] == e else "clash",
        )
        for kind, entries, have, name in kinds
        for e in entries
    )


COLUMNS = ("slug", "name", "on_hand", "unit", "opened_on", "note", *BOUNDS)


def shelf_to_csv(workshop: Workshop, catalogue: Catalogue) -> str:
    """The shelf as a table: a row a material, a column for each value that can be known better.

    Opens in a spreadsheet: a byte order mark, CRLF, commas. Values that are still starting values are empty.
    """
    out = io.StringIO()
    out.write("\ufeff")
    rows = csv.writer(out)
    rows.writerow(COLUMNS)
    for item in workshop.shelf:
        known = {o.field: o for o in item.overlays}
        material = item.own or catalogue.materials.get(item.slug)
        values = [f"{_written(known[f].value)} {known[f].source}" if f in known else "" for f in BOUNDS]
        texts = (item.slug, material.name if material else item.slug)
        more = (item.unit, safe(item.opened_on), safe(item.note))
        rows.writerow([*map(safe, texts), _written(item.on_hand), *more, *values])
    return out.getvalue()


FORMULA = ("=", "+", "-", "@", "'")
"""What a spreadsheet takes for the beginning of a formula, and the sign that keeps it from that."""


def safe(text: str) -> str:
    """Text that a spreadsheet takes for text, with one apostrophe before it where it would not, or would be trimmed."""
    return f"'{text}" if text.startswith(FORMULA) or text != text.strip() else text


def _written(number: float) -> str:
    """A number to all its digits, and no more."""
    return str(int(number)) if number == int(number) else repr(number)


def _plain(cell: str) -> str:
    """The text that was made safe."""
    return cell.removeprefix("'") if cell.startswith("'") else cell.strip()


def shelf_from_csv(text: str, workshop: Workshop, catalogue: Catalogue, today: str, source: str) -> WorkshopFile:
    """The shelf from such a table. What the table has no column for is kept as it is on the shelf.

    Raises UnfitDocument naming line and column.
    """
    try:
        lines = list(csv.reader(io.StringIO(text.removeprefix("\ufeff"), newline="")))
    except csv.Error as error:
        raise UnfitDocument(source, [Fault("", f"No table can be read from it: {error}.", "", "CSV")]) from None
    if not lines or not {"slug", "on_hand", "unit"} <= set(lines[0]):
        allowed = "a first line with " + ", ".join(COLUMNS)
        raise UnfitDocument(source, [Fault("line 1", "The column names are missing.", "", allowed)])
    have = {item.slug: item for item in workshop.shelf}
    items: list[ShelfItem] = []
    faults: list[Fault] = []
    for number, cells in enumerate(lines[1:], 2):
        row = dict(zip_longest(lines[0], map(_plain, cells[: len(lines[0])]), fillvalue=""))
        if not any(row.values()):
            continue
        try:
            items.append(_item(row, have, today))
        except InvalidValue as error:
            faults.append(Fault(f"line {number}, {error.field}", error.says, repr(error.value), error.allowed))
    if faults:
        raise UnfitDocument(source, faults[:20])
    shelf = read_json(FILE, to_json(WorkshopFile("lumso-workshop-file", 1, shelf=tuple(items))), source)
    return check(shelf, catalogue, source)


def _item(row: Mapping[str, str], have: Mapping[str, ShelfItem], today: str) -> ShelfItem:
    item = have.get(row["slug"], ShelfItem(row["slug"]))
    if row["unit"] not in ("ml", "g"):
        raise InvalidValue(f"{row['unit']!r} is no unit.", value=row["unit"], allowed="ml or g", field="unit")
    unit: Literal["ml", "g"] = "g" if row["unit"] == "g" else "ml"
    known = {o.field: o for o in item.overlays}
    for field in BOUNDS:
        if field not in row:
            continue
        if not row[field]:
            known.pop(field, None)  # type: ignore[call-overload]
            continue
        value, _, said = row[field].partition(" ")
        number = _number(value, field)
        before = known.get(field)  # type: ignore[call-overload]
        if before is None or before.value != number:
            source = "label" if said == "label" else "measured"
            known[field] = Overlay(field, number, source, today)  # type: ignore[index, arg-type]
    return replace(
        item,
        on_hand=_number(row["on_hand"] or "0", "on_hand"),
        unit=unit,
        opened_on=row.get("opened_on", item.opened_on),
        note=row.get("note", item.note),
        overlays=tuple(known.values()),
    )


def _number(text: str, field: str) -> float:
    try:
        number = float(text.replace(",", "."))
    except ValueError:
        number = float("nan")
    if not 0 <= number < 1e9:
        raise InvalidValue(f"{text!r} is no amount.", value=text, allowed="a number of zero or more", field=field)
    return number
