"""The workshop: what was chosen for it, its kits and its shelf, and the catalogue it works from."""

from collections.abc import Mapping
from hashlib import sha256
from typing import Annotated

from fastapi import APIRouter, Header, Query, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.book.films import Film
from lumso.core.book.finishes import Finish
from lumso.core.book.forms import Synonym
from lumso.core.book.kit import Kit
from lumso.core.book.materials import Consistency, Material, Vessel
from lumso.core.book.preparation import GRIT_OF, SANDED_BACK, Abrasive, Preparation, SandedBack, Wool
from lumso.core.book.recipes import Recipe
from lumso.core.book.surfaces import Ground, Relief
from lumso.core.book.techniques import Technique, Thickness, Tool
from lumso.core.book.words import Term
from lumso.core.errors import InvalidValue, LumsoError
from lumso.core.job.board import MOST_RUNGS, MOST_STRIPS, SEEN_WITHIN, SeenWithin
from lumso.core.job.job import MOST_COATS, MOST_LAYERS, MOST_POTS, MOST_VARIANTS, MOST_ZONES
from lumso.core.look.look import TILE_MM
from lumso.core.measure.measures import MeasureSystem
from lumso.core.mixing.compose import compose
from lumso.core.piece.kinds import KINDS, CountSpec, SizeSpec, free
from lumso.core.piece.piece import Shape
from lumso.core.workshop.shelf import BOUNDS, Overlay, ShelfItem, density_from_weighing, with_overlays
from lumso.formats.workshop import document
from lumso.store import entries, settings
from lumso.store.errors import NotFound

from .bodies import ShelfBody
from .context import Context, Here, IfMatch, Key, Settings, Unread, read_revision
from .lots import on_shelf_now

router = APIRouter(tags=["workshop"])


class SurfaceOut(BaseModel):
    slug: str
    name: str
    usually_bare: str


class PieceKindOut(BaseModel):
    """A kind of piece: the sizes it asks for and the surfaces it has."""

    slug: str
    name: str
    sizes: list[SizeSpec]
    counts: list[CountSpec]
    surfaces: list[SurfaceOut]


class ShapeOut(BaseModel):
    """A plain shape a part can have, and the sizes it asks for."""

    slug: Shape
    sizes: list[str]


class Slice(BaseModel):
    """A component's share of a recipe, as poured."""

    component: str
    name: str
    hex: str
    share: float


class WoolOut(BaseModel):
    """A grade of wool, and the paper that scratches about as fine."""

    grade: Wool
    grit: int


class CapsOut(BaseModel):
    """How much a job may hold."""

    zones: int
    layers: int
    pots: int
    coats: int
    variants: int
    """Looks kept beside a zone."""
    rungs: int
    """Steps of a ladder of a test board, and strips of a board."""
    strips: int


class CatalogueOut(BaseModel):
    """What there is to choose from, the workshop's own included."""

    systems: list[MeasureSystem]
    materials: list[Material]
    grounds: list[Ground]
    reliefs: list[Relief]
    techniques: list[Technique]
    tools: list[Tool]
    recipes: list[Recipe]
    own_recipes: dict[str, int]
    """The recipes of one's own, with their revisions."""
    strips: dict[str, list[Slice]]
    """Each recipe's composition, to be drawn small."""
    kits: list[Kit]
    own_kits: dict[str, int]
    """The kits of one's own, with their revisions."""
    consistencies: list[Consistency]
    thicknesses: list[Thickness]
    vessels: list[Vessel]
    films: list[Film]
    preparations: list[Preparation]
    abrasives: list[Abrasive]
    wools: list[WoolOut]
    finishes: list[Finish]
    terms: list[Term]
    """Words of the trade, in plain words."""
    synonyms: list[Synonym]
    """Words that all this is looked for by, beside its names."""
    pieces: list[PieceKindOut]
    shapes: list[ShapeOut]
    sanded_back: list[SandedBack]
    seen_within: SeenWithin
    """How far off a colour is at least that was seen so, ΔE₀₀."""
    tile_mm: float
    """How much of a surface the tile of a look shows."""
    caps: CapsOut


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


def _kinds() -> list[PieceKindOut]:
    kinds = []
    for kind in KINDS.values():
        surfaces = [
            SurfaceOut(slug=s.slug, name=s.name, usually_bare=s.usually_bare) for s in kind.surfaces(kind.usual())
        ]
        kinds.append(
            PieceKindOut(
                slug=kind.slug,
                name=kind.name,
                sizes=list(kind.sizes),
                counts=list(kind.counts),
                surfaces=surfaces,
            )
        )
    return kinds


def _strip(recipe: Recipe, catalogue: Catalogue) -> list[Slice]:
    """The recipe's composition; none of a recipe that cannot be worked out, so that it does not hide the others."""
    try:
        pours = compose(recipe, catalogue.materials)
    except LumsoError:
        return []
    return [
        Slice(component=p.component.id, name=p.component.name, hex=p.material.hex, share=p.poured_ml) for p in pours
    ]


@router.get("/catalogue", response_model=CatalogueOut)
def get_catalogue(here: Here, if_none_match: Annotated[str, Header()] = "") -> Response:
    """Everything there is to choose from. Answered anew only where something of it has changed."""
    text, tag = here.memo.recall("catalogue", (here.db.version(),), lambda: _written(here))
    headers = {"ETag": tag, "Cache-Control": "no-cache"}
    if tag in if_none_match:
        return Response(status_code=304, headers=headers)
    return Response(text, media_type="application/json", headers=headers)


def _written(here: Context) -> tuple[str, str]:
    """The catalogue as it is sent, and what tells it from another."""
    text = _catalogue(here).model_dump_json()
    return text, f'W/"{sha256(text.encode()).hexdigest()[:16]}"'


def _catalogue(here: Context) -> CatalogueOut:
    c, workshop = here.known(), here.workshop()
    return CatalogueOut(
        systems=list(c.systems.values()),
        materials=list(c.materials.values()),
        grounds=list(c.grounds.values()),
        reliefs=list(c.reliefs.values()),
        techniques=list(c.techniques.values()),
        tools=list(c.tools.values()),
        recipes=list(c.recipes.values()),
        own_recipes={r.slug: here.revision("recipe", r.slug) for r in workshop.recipes},
        strips={r.slug: _strip(r, c) for r in c.recipes.values()},
        kits=list(c.kits.values()),
        own_kits={k.slug: here.revision("kit", k.slug) for k in workshop.kits},
        consistencies=list(c.consistencies),
        thicknesses=list(c.thicknesses),
        vessels=list(c.vessels),
        films=list(c.films.values()),
        preparations=list(c.preparations.values()),
        abrasives=list(c.abrasives.values()),
        wools=[WoolOut(grade=grade, grit=grit) for grade, grit in sorted(GRIT_OF.items(), key=lambda g: g[1])],
        finishes=list(c.finishes.values()),
        terms=list(c.terms.values()),
        synonyms=list(c.synonyms.values()),
        pieces=_kinds(),
        shapes=[ShapeOut(slug=slug, sizes=list(shape.sizes)) for slug, shape in free.SHAPES.items()],
        sanded_back=list(SANDED_BACK),
        seen_within=SEEN_WITHIN,
        tile_mm=TILE_MM,
        caps=CapsOut(
            zones=MOST_ZONES,
            layers=MOST_LAYERS,
            pots=MOST_POTS,
            coats=MOST_COATS,
            variants=MOST_VARIANTS,
            rungs=MOST_RUNGS,
            strips=MOST_STRIPS,
        ),
    )


@router.get("/workshop")
def get_settings(here: Here, response: Response) -> Settings:
    """What was chosen for the workshop; in place of a kit that cannot be read, the one everybody starts with."""
    response.headers["ETag"] = f'"{here.settings_revision()}"'
    return here.settings().model_copy(update={"kit": here.workshop().kit})


@router.get("/unread")
def get_unread(here: Here) -> list[Unread]:
    """What is kept in the workshop and cannot be read. All else goes on without it."""
    return list(here.unread())


@router.delete("/unread/{kind}/{slug:path}", status_code=204)
def delete_unread(kind: str, slug: str, here: Here) -> None:
    """Take out for good what cannot be read."""
    unread = next((u for u in here.unread() if (u.kind, u.slug) == (kind, slug)), None)
    if unread is None:
        raise NotFound(f"There is no {kind} {slug!r} that cannot be read.")
    if unread.kind == "setting":
        settings.delete(here.db, unread.slug)
    else:
        entries.delete(here.db, unread.kind, unread.slug)


@router.put("/workshop")
def put_settings(chosen: Settings, here: Here, response: Response, if_match: IfMatch, key: Key = "") -> Settings:
    """Choose measures and kit."""
    response.headers["ETag"] = f'"{here.choose(chosen, read_revision(if_match), key)}"'
    return chosen


@router.put("/kits/{slug:path}")
def put_kit(slug: str, kit: Kit, here: Here, response: Response, if_match: IfMatch, key: Key = "") -> Kit:
    """Add a kit of one's own, or change one. A kit that ships can be changed too: put back by deleting it."""
    if kit.slug != slug:
        raise InvalidValue("The kit and its address differ.", value=kit.slug, allowed=slug, field="slug")
    made = entries.save(here.db, "kit", slug, read_revision(if_match), document("kit", kit), key)
    response.headers["ETag"] = f'"{made}"'
    return kit


@router.delete("/kits/{slug:path}", status_code=204)
def delete_kit(slug: str, here: Here, if_match: IfMatch, key: Key = "") -> None:
    """Take a kit out, or put a shipped one back as it was. Without the one in use, the first there is is used."""
    entries.delete(here.db, "kit", slug, read_revision(if_match), key)


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
                   key: Key = "") -> ShelfLine:  # fmt: skip
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
def delete_shelf_item(slug: str, here: Here, if_match: IfMatch, key: Key = "") -> None:
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
