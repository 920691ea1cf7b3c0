"""The workshop, and the catalogue it works from."""

import json

from fastapi import APIRouter
from pydantic import BaseModel

from lumso.core.materials import Consistency, Ground, Material, Technique, Tool, Vessel
from lumso.core.measures import MeasureSystem
from lumso.core.pieces import KINDS, SizeSpec
from lumso.core.recipes import Recipe
from lumso.core.workshop import Workshop, pick
from lumso.store import settings

from .context import WORKSHOP, Here

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
    surfaces: list[SurfaceOut]


class CatalogueOut(BaseModel):
    """What there is to choose from."""

    systems: list[MeasureSystem]
    materials: list[Material]
    grounds: list[Ground]
    techniques: list[Technique]
    tools: list[Tool]
    recipes: list[Recipe]
    consistencies: list[Consistency]
    vessels: list[Vessel]
    pieces: list[PieceKindOut]


def _kinds() -> list[PieceKindOut]:
    kinds = []
    for kind in KINDS.values():
        usual = {spec.slug: spec.usual_mm for spec in kind.sizes}
        surfaces = [SurfaceOut(slug=s.slug, name=s.name, usually_bare=s.usually_bare) for s in kind.surfaces(usual)]
        kinds.append(PieceKindOut(slug=kind.slug, name=kind.name, sizes=list(kind.sizes), surfaces=surfaces))
    return kinds


@router.get("/catalogue")
def get_catalogue(here: Here) -> CatalogueOut:
    """Everything there is to choose from."""
    c = here.catalogue
    return CatalogueOut(
        systems=list(c.systems.values()),
        materials=list(c.materials.values()),
        grounds=list(c.grounds.values()),
        techniques=list(c.techniques.values()),
        tools=list(c.tools.values()),
        recipes=list(c.recipes.values()),
        consistencies=list(c.consistencies),
        vessels=list(c.vessels),
        pieces=_kinds(),
    )


@router.get("/workshop")
def get_workshop(here: Here) -> Workshop:
    """The workshop as it is now."""
    return here.workshop()


@router.put("/workshop")
def put_workshop(workshop: Workshop, here: Here) -> Workshop:
    """Change the workshop."""
    pick("measure system", here.catalogue.systems, workshop.measures)
    settings.put(here.db, "workshop", json.dumps(WORKSHOP.dump_python(workshop, mode="json")))
    return workshop
