"""The shelf: materials with what is known of them here, what is on hand, and what was weighed."""

from collections.abc import Mapping
from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.book.catalogue import pick
from lumso.core.book.materials import Material
from lumso.core.errors import InvalidValue
from lumso.core.workshop.shelf import BOUNDS, Overlay, ShelfItem, density_from_weighing, with_overlays
from lumso.formats.workshop import document
from lumso.services.context import Context
from lumso.store import entries

from .bodies import ShelfBody
from .context import Here, IfMatch, Key, read_revision
from .lots import on_shelf_now

router = APIRouter(tags=["workshop"])


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


class WeighingIn(BaseModel):
    """A level measure of `ml` that weighs `grams`."""

    model_config = ConfigDict(extra="forbid")
    grams: Annotated[float, Field(allow_inf_nan=False)]
    ml: Annotated[float, Field(allow_inf_nan=False)]


class DensityOut(BaseModel):
    density: float


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


@router.get("/shelf")
def get_shelf(
    here: Here,
    on: bool | None = None,
    search: Annotated[str, Query(max_length=200)] = "",
    after: Annotated[str, Query(max_length=15, pattern="^[0-9]*$")] = "",
    most: Annotated[int, Query(ge=1, le=200)] = 40,
) -> ShelfOut:
    """Materials by name, with what the shelf knows of them: those on it, those not, or all; a page of them."""
    held = here.memo.recall("shelf", (here.db.version(),), lambda: _in_order(here))
    sought = search.strip().casefold()
    found = [m for m in held if on in (None, m[0]) and sought in m[1].casefold()]
    start = int(after or 0)
    items, left = here.on_shelf(), on_shelf_now(here)
    lines = []
    for _, _, slug in found[start : start + most]:
        item = items.get(slug)
        material = (item and item.own) or here.catalogue.materials[slug]
        lines.append(_line(material, item, here.revision("shelf", slug), left))
    more = str(start + most) if start + most < len(found) else ""
    return ShelfOut(lines=lines, count=len(found), more=more)


@router.put("/shelf/{slug:path}")
def put_shelf_item(slug: str, body: ShelfBody, here: Here, response: Response, if_match: IfMatch,
                   key: Key) -> ShelfLine:  # fmt: skip
    """Put a material on the shelf, or change what is known of it."""
    item = body.root
    if item.slug != slug:
        raise InvalidValue("The item and its address differ.", value=item.slug, allowed=slug, field="slug")
    material = item.own or pick("material", here.catalogue.materials, slug)
    _line(material, item, 0, {})  # what of it cannot be is refused before anything is kept
    revision = entries.save(here.db, "shelf", slug, read_revision(if_match), document("shelf", item), key)
    response.headers["ETag"] = f'"{revision}"'
    return _line(material, item, revision, on_shelf_now(here))


@router.delete("/shelf/{slug:path}", status_code=204)
def delete_shelf_item(slug: str, here: Here, if_match: IfMatch, key: Key) -> None:
    """Take a material off the shelf: every value of its own is put back.

    One of the user's own that a recipe of theirs still needs stays: taking it would leave the recipe without.
    """
    users = [r.name for r in here.workshop().recipes if slug in {c.material for c in r.components}]
    if users and slug not in here.catalogue.materials:
        raise InvalidValue(
            f"{', '.join(users)} is mixed from it.", value=slug, allowed="take it out of the recipe first", field="slug"
        )
    entries.delete(here.db, "shelf", slug, read_revision(if_match), key)


@router.post("/shelf/density")
def weigh_level_cup(weighing: WeighingIn) -> DensityOut:
    """The density that weighing a level measure gives, or why that cannot be right."""
    return DensityOut(density=density_from_weighing(weighing.grams, weighing.ml))
