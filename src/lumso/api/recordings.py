"""Recorded notes: kept and played back. Nothing is recognised in them, and nothing is sent anywhere."""

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from lumso.services import kept_files

from .context import Here

router = APIRouter(prefix="/recordings", tags=["recordings"])


class RecordingOut(BaseModel):
    """A recording that is kept: its name is the hash of what it holds."""

    name: str
    kind: str


@router.post("", status_code=201, openapi_extra={"requestBody": {"content": {"application/octet-stream": {}}}})
async def keep(request: Request, here: Here) -> RecordingOut:
    """Keep a recorded note, sent as its file."""
    name, kind = await run_in_threadpool(kept_files.keep_recording, await request.body(), here)
    return RecordingOut(name=name, kind=kind)


@router.get("/{name}", response_class=Response, responses={200: {"content": {"audio/webm": {}}}})
def play(name: str, here: Here) -> Response:
    """A recorded note as it is kept."""
    kind, content = kept_files.recording(name, here)
    headers = {"Cache-Control": "private, max-age=31536000, immutable", "Content-Encoding": "identity"}
    return Response(content, media_type=kind, headers=headers)


@router.delete("/{name}", status_code=204)
def delete(name: str, here: Here) -> None:
    """Delete a recorded note for good. What was written beside it stays."""
    kept_files.delete_recording(name, here)
