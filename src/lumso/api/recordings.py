"""Recorded notes: kept and played back. Nothing is recognised in them, and nothing is sent anywhere."""

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from lumso.core.errors import InvalidValue
from lumso.formats.sound import kind_of, sound_alone
from lumso.store import recordings

from .context import Here

router = APIRouter(prefix="/recordings", tags=["recordings"])

MOST_BYTES = 1_500_000
"""Two minutes of speech, and more than that as browsers record it."""


class RecordingOut(BaseModel):
    """A recording that is kept: its name is the hash of what it holds."""

    name: str
    kind: str


@router.post("", status_code=201, openapi_extra={"requestBody": {"content": {"application/octet-stream": {}}}})
async def keep(request: Request, here: Here) -> RecordingOut:
    """Keep a recorded note, sent as its file."""
    content = await request.body()
    if len(content) > MOST_BYTES:
        raise InvalidValue(
            f"The recording has {len(content) / 1e6:.1f} MB.", value=len(content), field="",
            allowed=f"at most {MOST_BYTES / 1e6:.1f} MB: about two minutes",
        )  # fmt: skip
    kind = kind_of(content)
    if not kind:
        raise InvalidValue("That is no sound that can be played back.", value="", field="",
                           allowed="WebM, Ogg, MP4 or WAV")  # fmt: skip
    name = await run_in_threadpool(lambda: recordings.keep(here.db, kind, sound_alone(kind, content)))
    return RecordingOut(name=name, kind=kind)


@router.get("/{name}", response_class=Response, responses={200: {"content": {"audio/webm": {}}}})
def play(name: str, here: Here) -> Response:
    """A recorded note as it is kept."""
    kind, content = recordings.get(here.db, name)
    headers = {"Cache-Control": "private, max-age=31536000, immutable", "Content-Encoding": "identity"}
    return Response(content, media_type=kind, headers=headers)


@router.delete("/{name}", status_code=204)
def delete(name: str, here: Here) -> None:
    """Delete a recorded note for good. What was written beside it stays."""
    recordings.delete(here.db, name)
