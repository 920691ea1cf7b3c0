"""The workshop's own: its shelf, kits and recipes, and what it knows better than the book."""

from collections.abc import Mapping
from dataclasses import asdict

from pydantic import BaseModel

from lumso.core.book.catalogue import ORDERED, pick
from lumso.core.book.kit import Kit
from lumso.core.book.materials import Material
from lumso.core.errors import InvalidValue
from lumso.core.workshop.better import FIELDS, Better, Kind, checked, value_of
from lumso.core.workshop.shelf import BOUNDS, Overlay, ShelfItem, with_overlays
from lumso.formats.names import refuse_hidden
from lumso.formats.workshop import document
from lumso.store import entries, settings
from lumso.store.errors import NotFound

from .context import Context
from .lots import on_shelf_now


def same(slug: str, said: str, what: str) -> None:
    """Raises InvalidValue where an entry and its address differ."""
    if said != slug:
        raise InvalidValue(f"The {what} and its address differ.", value=said, allowed=slug, field="slug")


def take_out(kind: entries.Kind, slug: str, read: int, key: str, here: Context) -> None:
    """Take an entry of one's own out, having read a revision. Raises NotFound, StaleRevision."""
    entries.delete(here.db, kind, slug, read, key)


def keep_kit(slug: str, kit: Kit, read: int, key: str, here: Context) -> int:
    """Keep a kit as one's own; its revision. Raises InvalidValue, StaleRevision."""
    refuse_hidden(asdict(kit))
    same(slug, kit.slug, "kit")
    return entries.save(here.db, "kit", slug, read, document("kit", kit), key)


def take_out_unread(kind: str, slug: str, here: Context) -> None:
    """Take out for good what cannot be read. Raises NotFound."""
    unread = next((u for u in here.unread() if (u.kind, u.slug) == (kind, slug)), None)
    if unread is None:
        raise NotFound(f"There is no {kind} {slug!r} that cannot be read.")
    if unread.kind == "setting":
        settings.delete(here.db, unread.slug)
    else:
        entries.delete(here.db, unread.kind, unread.slug)


class FieldOut(BaseModel):
    """A value of a material: what it is now, what it would be without the user's own, and where it comes from."""

    field: str
    name: str
    unit: str
    least: float
    most: float
    value: float
    starting: float
    source: str


class ShelfLine(BaseModel):
    """A material with what the shelf knows of it. `revision` is 0 for what the shelf knows nothing of."""

    revision: int
    material: Material
    item: ShelfItem
    on_shelf: bool
    left_now: float
    """What is on hand now, by what was poured since it was counted, in its unit."""
    values: list[FieldOut]


def _line(material: Material, item: ShelfItem | None, revision: int, left: Mapping[str, float]) -> ShelfLine:
    kept = item or ShelfItem(material.slug)
    start = kept.own or material
    now = with_overlays(start, kept.overlays)
    known: dict[str, Overlay] = {o.field: o for o in kept.overlays}
    values = [
        FieldOut(
            field=field,
            name=name,
            unit=unit,
            least=least,
            most=most,
            value=getattr(now, field),
            starting=getattr(start, field),
            source=_source(known.get(field)),
        )
        for field, (name, least, most, unit) in BOUNDS.items()
    ]
    left_now = left.get(material.slug, kept.on_hand)
    return ShelfLine(material=now, item=kept, on_shelf=item is not None, left_now=left_now, values=values,
                     revision=revision)  # fmt: skip


def _source(overlay: Overlay | None) -> str:
    if overlay is None:
        return "starting value"
    said = f" ({overlay.said})" if overlay.said else ""
    return f"{overlay.source}{said}, {overlay.at}"


class ShelfOut(BaseModel):
    """A page of the shelf, and how many there are in all."""

    lines: list[ShelfLine]
    count: int
    more: str
    """What to ask for the next page; empty on the last one."""


def _in_order(here: Context) -> list[tuple[bool, str, str]]:
    """Every material: whether it is on the shelf, its name and its slug; by name."""
    items = here.on_shelf()
    names = {m.slug: m.name for m in here.catalogue.materials.values()}
    names |= {item.slug: item.own.name for item in items.values() if item.own}
    return sorted(((slug in items, name, slug) for slug, name in names.items()), key=lambda m: (m[1], m[2]))


def shelf(on: bool | None, search: str, start: int, most: int, here: Context) -> ShelfOut:
    """Materials by name, with what the shelf knows of them: those on it, those not, or all (None); `most` of them from
    the place `start` on."""
    held = here.memo.recall("shelf", (here.db.version(),), lambda: _in_order(here))
    sought = search.strip().casefold()
    found = [m for m in held if on in (None, m[0]) and sought in m[1].casefold()]
    items, left = here.on_shelf(), on_shelf_now(here)
    lines = []
    for _, _, slug in found[start : start + most]:
        item = items.get(slug)
        material = (item and item.own) or here.catalogue.materials[slug]
        lines.append(_line(material, item, here.revision("shelf", slug), left))
    more = str(start + most) if start + most < len(found) else ""
    return ShelfOut(lines=lines, count=len(found), more=more)


def keep_on_shelf(slug: str, item: ShelfItem, read: int, key: str, here: Context) -> ShelfLine:
    """Put a material on the shelf, or change what is known of it. Raises InvalidValue, UnknownEntry, StaleRevision."""
    same(slug, item.slug, "item")
    material = item.own or pick("material", here.catalogue.materials, slug)
    _line(material, item, 0, {})  # what of it cannot be is refused before anything is kept
    revision = entries.save(here.db, "shelf", slug, read, document("shelf", item), key)
    return _line(material, item, revision, on_shelf_now(here))


def take_off_shelf(slug: str, read: int, key: str, here: Context) -> None:
    """Take a material off the shelf: every value of its own is put back.

    One of the user's own that a recipe of theirs still needs stays: taking it would leave the recipe without. Raises
    InvalidValue, NotFound, StaleRevision.
    """
    users = [r.name for r in here.workshop().recipes if slug in {c.material for c in r.components}]
    if users and slug not in here.catalogue.materials:
        raise InvalidValue(
            f"{', '.join(users)} is mixed from it.", value=slug, allowed="take it out of the recipe first", field="slug"
        )
    entries.delete(here.db, "shelf", slug, read, key)


class BetterValue(BaseModel):
    """A value of an entry: as it is now, as the book starts with it (None is unknown), and where it comes from."""

    field: str
    name: str
    unit: str
    least: float
    most: float
    value: float | None
    starting: float | None
    source: str


class BetterEntry(BaseModel):
    """An entry of the book with what can be known better of it."""

    kind: Kind
    slug: str
    name: str
    values: list[BetterValue]


def better_entries(here: Context) -> list[BetterEntry]:
    book, known = here.book(), {(b.kind, b.slug, b.field): b for b in here.workshop().better}
    found = []
    for kind, bounds in FIELDS.items():
        held = getattr(book, kind)
        for entry in held if kind in ORDERED else held.values():
            values = []
            for field, bound in bounds.items():
                mine = known.get((kind, entry.slug, field))
                start = value_of(entry, field)
                values.append(
                    BetterValue(
                        field=field,
                        name=bound.name,
                        unit=bound.unit,
                        least=bound.least,
                        most=bound.most,
                        value=mine.value if mine else start,
                        starting=start,
                        source=f"{mine.source}, {mine.on}" if mine else "starting value",
                    )
                )
            found.append(BetterEntry(kind=kind, slug=entry.slug, name=entry.name, values=values))
    return found


def _but(known: tuple[Better, ...], kind: Kind, slug: str, field: str) -> list[Better]:
    """What is known better, but for one value."""
    return [b for b in known if (b.kind, b.slug, b.field) != (kind, slug, field)]


def know_better(mine: Better, here: Context) -> None:
    """Know a value better: it counts in every job from now on. Raises UnknownEntry, InvalidValue."""
    held = getattr(here.book(), mine.kind)
    pick(mine.kind, {e.slug: e for e in held} if mine.kind in ORDERED else held, mine.slug)
    given = checked(mine)
    here.know_better(lambda known: (*_but(known, mine.kind, mine.slug, mine.field), given))


def put_back(kind: Kind, slug: str, field: str, here: Context) -> None:
    """Put the starting value back."""
    here.know_better(lambda known: _but(known, kind, slug, field))
