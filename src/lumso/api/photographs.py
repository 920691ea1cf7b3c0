"""Photographs: kept, shown, let go; and colours taken from them."""

from tempfile import NamedTemporaryFile
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict

from lumso.core.job.board import SeenColour
from lumso.core.look.card import Box, balanced
from lumso.store import photographs

from .context import Here
from .workers import Workers

router = APIRouter(prefix="/photographs", tags=["photographs"])

JPEG = {"image/jpeg": {"schema": {"type": "string", "format": "binary"}}}


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
async def keep(request: Request, here: Here, with_time: Annotated[bool, Query()] = False) -> PhotographOut:
    """Keep a photograph, sent as its file: upright, in sRGB, without place or device; its time only if asked."""
    from lumso.formats.photo import file_to_keep

    darkroom: Workers = request.app.state.darkroom
    with NamedTemporaryFile(dir=here.db.path.parent, prefix=".lumso-", suffix=".photo") as sent:
        async for piece in request.stream():
            await run_in_threadpool(sent.write, piece)
        await run_in_threadpool(sent.flush)
        made = await darkroom.run(request, file_to_keep, sent.name, with_time)
    kept = await run_in_threadpool(photographs.keep, here.db, made.jpeg, made.width, made.height, made.taken)
    return PhotographOut(name=kept.name, width=kept.width, height=kept.height, taken=kept.taken)


@router.get("/{name}", response_class=Response, responses={200: {"content": JPEG}})
def show(name: str, here: Here) -> Response:
    """A photograph as it is kept."""
    headers = {"Cache-Control": "private, max-age=31536000, immutable", "Content-Encoding": "identity"}
    return Response(photographs.content(here.db, name), media_type="image/jpeg", headers=headers)


class LetGoOut(BaseModel):
    """What was let go, and what may still hold it."""

    says: str


@router.delete("/{name}")
def let_go(name: str, here: Here) -> LetGoOut:
    """Delete a photograph for good."""
    photographs.delete(here.db, name)
    return LetGoOut(says="The photograph is deleted. Backups that were made before may still hold it.")


@router.post("/{name}/colour")
def colour(name: str, asked: ColourIn, here: Here) -> SeenColour:
    """A colour from a photograph, balanced by the white card in it; never claimed closer than ±4 ΔE₀₀."""
    from lumso.formats import photo

    return balanced(photo.pixels(photographs.content(here.db, name)), asked.card, asked.spot)
