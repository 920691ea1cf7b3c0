"""The workshop: what was chosen for it, its kits and its shelf, and the catalogue it works from."""

from dataclasses import asdict
from hashlib import sha256
from typing import Annotated

from fastapi import APIRouter, Header, Response
from pydantic import BaseModel

from lumso.core.book.catalogue import Catalogue
from lumso.core.book.films import Film
from lumso.core.book.finishes import Finish
from lumso.core.book.forms import Synonym
from lumso.core.book.hands import Judged
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
from lumso.core.look.look import TILES_MM
from lumso.core.measure.measures import MeasureSystem
from lumso.core.mixing.compose import compose
from lumso.core.piece.kinds import KINDS, CountSpec, SizeSpec, free
from lumso.core.piece.piece import Shape
from lumso.formats.names import refuse_hidden
from lumso.formats.workshop import document
from lumso.services.context import Context, Settings, Unread
from lumso.store import entries, settings
from lumso.store.errors import NotFound

from .context import Here, IfMatch, Key, read_revision

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
    hands: list[Judged]
    """What a hand judges by eye."""
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
    tiles_mm: list[float]
    """How much of a surface the tile of a look shows."""
    caps: CapsOut


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
        hands=list(c.hands.values()),
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
        tiles_mm=list(TILES_MM),
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
def put_settings(chosen: Settings, here: Here, response: Response, if_match: IfMatch, key: Key) -> Settings:
    """Choose measures and kit."""
    response.headers["ETag"] = f'"{here.choose(chosen, read_revision(if_match), key)}"'
    return chosen


@router.put("/kits/{slug:path}")
def put_kit(slug: str, kit: Kit, here: Here, response: Response, if_match: IfMatch, key: Key) -> Kit:
    """Add a kit of one's own, or change one. A kit that ships can be changed too: put back by deleting it."""
    refuse_hidden(asdict(kit))
    if kit.slug != slug:
        raise InvalidValue("The kit and its address differ.", value=kit.slug, allowed=slug, field="slug")
    made = entries.save(here.db, "kit", slug, read_revision(if_match), document("kit", kit), key)
    response.headers["ETag"] = f'"{made}"'
    return kit


@router.delete("/kits/{slug:path}", status_code=204)
def delete_kit(slug: str, here: Here, if_match: IfMatch, key: Key) -> None:
    """Take a kit out, or put a shipped one back as it was. Without the one in use, the first there is is used."""
    entries.delete(here.db, "kit", slug, read_revision(if_match), key)
