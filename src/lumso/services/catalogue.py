"""Everything there is to choose from, as pages get it."""

from hashlib import sha256

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
from lumso.core.errors import LumsoError
from lumso.core.job.board import MOST_RUNGS, MOST_STRIPS, SEEN_WITHIN, SeenWithin
from lumso.core.job.job import MOST_COATS, MOST_LAYERS, MOST_POTS, MOST_VARIANTS, MOST_ZONES
from lumso.core.look.look import TILES_MM
from lumso.core.measure.measures import MeasureSystem
from lumso.core.mixing.compose import compose
from lumso.core.piece.kinds import KINDS, CountSpec, SizeSpec, free
from lumso.core.piece.piece import Shape

from .context import Context


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


def catalogue_text(here: Context) -> tuple[str, str]:
    """The catalogue as it is sent, and what tells it from another: remembered until something of it changes."""
    return here.memo.recall("catalogue", (here.db.version(),), lambda: _written(here))


def _written(here: Context) -> tuple[str, str]:
    """The catalogue as it is sent, and what tells it from another."""
    text = catalogue_of(here).model_dump_json()
    return text, f'W/"{sha256(text.encode()).hexdigest()[:16]}"'


def catalogue_of(here: Context) -> CatalogueOut:
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
