"""Photographs: kept, shown, let go; and colours taken from them."""

from typing import Annotated

from fastapi import APIRouter, Depends, Query, Request, Response
from pydantic import BaseModel, ConfigDict

from lumso.core.job.board import SeenColour
from lumso.core.look.card import Box
from lumso.services import kept_files
from lumso.services.beside import Beside

from .context import Here
from .workers import beside

router = APIRouter(prefix="/photographs", tags=["photographs"])

JPEG = {"image/jpeg": {"schema": {"type": "string", "format": "binary"}}}


def _darkroom(request: Request) -> Beside:
    return beside(request.app.state.darkroom, request)


Darkroom = Annotated[Beside, Depends(_darkroom)]


class PhotographOut(BaseModel):
    """A photograph that is kept: its name is the hash of what it holds."""

    name: str
    width: int
    height: int
    taken: str


class ColourIn(BaseModel):
    """Where in a photograph the white card lies, and where the colour is."""

    model_config = ConfigDict(extra="forbid")
    card: Box | None = None
    spot: Box


@router.post("", status_code=201, openapi_extra={"requestBody": {"content": {"application/octet-stream": {}}}})
async def keep(
    request: Request, here: Here, darkroom: Darkroom, with_time: Annotated[bool, Query()] = False
) -> PhotographOut:
    """Keep a photograph, sent as its file: upright, in sRGB, without place or device; its time only if asked."""
    kept = await kept_files.keep_photograph(request.stream(), with_time, here, darkroom)
    return PhotographOut(name=kept.name, width=kept.width, height=kept.height, taken=kept.taken)


@router.get("/{name}", response_class=Response, responses={200: {"content": JPEG}})
def show(name: str, here: Here) -> Response:
    """A photograph as it is kept."""
    headers = {"Cache-Control": "private, max-age=31536000, immutable", "Content-Encoding": "identity"}
    return Response(kept_files.photograph(name, here), media_type="image/jpeg", headers=headers)


class LetGoOut(BaseModel):
    """What was let go, and what may still hold it."""

    says: str


@router.delete("/{name}")
def let_go(name: str, here: Here) -> LetGoOut:
    """Delete a photograph for good."""
    kept_files.let_go(name, here)
    return LetGoOut(says="The photograph is deleted. Backups that were made before may still hold it.")


@router.post("/{name}/colour")
def colour(name: str, asked: ColourIn, here: Here) -> SeenColour:
    """A colour from a photograph, balanced by the white card in it; never claimed closer than ±4 ΔE₀₀."""
    return kept_files.colour_of(name, asked.card, asked.spot, here)
