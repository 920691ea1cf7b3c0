"""Nothing lost: backups and the way back, the whole workshop as a file, and what was set aside."""

from typing import Annotated, Any

from fastapi import APIRouter, Path, Request, Response
from fastapi.responses import FileResponse, StreamingResponse
from pydantic import BaseModel, ConfigDict

from lumso.services import keeping
from lumso.services.keeping import AsideOut, BackupOut, IdentityOut, KeepingOut, RestoredOut

from .context import Here
from .replies import file_reply

Number = Annotated[int, Path(ge=1, le=2**53)]

router = APIRouter(tags=["keeping"])


class CopyIn(BaseModel):
    """Whether a copy stays."""

    model_config = ConfigDict(extra="forbid")
    kept: bool


@router.get("/identity")
def get_identity(here: Here, response: Response) -> IdentityOut:
    """Which workshop this is."""
    response.headers["Cache-Control"] = "no-store"
    return keeping.which(here)


@router.get("/backups")
def list_backups(here: Here, request: Request) -> KeepingOut:
    """Where the workshop is kept, and the backups of it."""
    keeper = request.app.state.keeper
    return keeping.kept(keeper is not None and keeper.hindered, here)


@router.post("/backups", status_code=201)
def make_backup(here: Here) -> BackupOut:
    """Make a backup now. It is opened again to see that it is whole."""
    return keeping.back_up(here)


FILE: dict[int | str, dict[str, Any]] = {200: {"content": {"application/zip": {}}}}


@router.get("/backups/{name}", response_class=FileResponse, responses=FILE)
def get_backup(name: str, here: Here) -> FileResponse:
    """A backup as a file, to be kept elsewhere."""
    return FileResponse(keeping.backup_file(name, here), media_type="application/zip", filename=f"lumso-{name}")


@router.post("/backups/{name}/restore")
def restore_backup(name: str, here: Here) -> RestoredOut:
    """Go back to a backup. What is there now is kept beside it under another name."""
    return keeping.restore_backup(name, here)


@router.put("/copies/{name}", status_code=204)
def keep_copy(name: str, asked: CopyIn, here: Here) -> None:
    """Let a copy from before a restore stay for good, or go when its time is over."""
    keeping.keep_copy(name, asked.kept, here)


@router.post("/copies/{name}/restore")
def restore_copy(name: str, here: Here) -> RestoredOut:
    """Go back to the workshop as it was before a restore. What is there now is kept beside it under another name."""
    return keeping.restore_copy(name, here)


BINARY = {"schema": {"type": "string", "format": "binary"}}
BODY = {"requestBody": {"required": True, "content": {"application/zip": BINARY}}}


@router.post("/restore", openapi_extra=BODY)
async def restore_file(request: Request, here: Here) -> RestoredOut:
    """Go back to a backup that was kept elsewhere, sent as it is. What is there now is kept under another name."""
    return await keeping.restore_file(request.stream(), here)


@router.get("/export/everything.json", response_class=StreamingResponse)
def export_everything(here: Here, revisions: bool = False) -> StreamingResponse:
    """All of the workshop as open JSON: settings, entries, jobs, printed batches; revisions on request."""
    headers = {"Content-Disposition": 'attachment; filename="lumso-everything.json"'}
    return StreamingResponse(keeping.everything(revisions, here), media_type="application/json", headers=headers)


@router.get("/aside")
def list_aside(here: Here) -> list[AsideOut]:
    """What was taken out of the workshop, or could not be read: the newest first."""
    return keeping.aside_now(here)


@router.get("/aside/{number}/file", response_class=Response, responses={200: {"content": {"application/json": {}}}})
def get_aside_file(number: Number, here: Here) -> Response:
    """The document as it was kept."""
    kept = keeping.aside_file(number, here)
    return file_reply(kept.document, "application/json", f"{kept.kind}.json")


@router.post("/aside/{number}/back", status_code=204)
def bring_back(number: Number, here: Here) -> None:
    """Put an entry back in its place. 412 where another has taken it meanwhile."""
    keeping.bring_back(number, here)


@router.delete("/aside/{number}", status_code=204)
def delete_aside(number: Number, here: Here) -> None:
    """Delete for good what was set aside."""
    keeping.delete_aside(number, here)
