"""Nothing lost: backups and the way back, the whole workshop as a file, and what was set aside."""

import json
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import asdict
from pathlib import Path as FilePath
from tempfile import NamedTemporaryFile
from typing import Annotated, Any

from fastapi import APIRouter, Path, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse, StreamingResponse
from pydantic import BaseModel, ConfigDict

from lumso.services.context import Context
from lumso.store import aside, backup, copies, export
from lumso.store.aside import Aside, Kind
from lumso.store.identity import identity

from .context import Here

PIECE = 64 * 1024
"""What is sent at once of an export, characters."""
Number = Annotated[int, Path(ge=1, le=2**53)]

router = APIRouter(tags=["keeping"])


class BackupOut(BaseModel):
    """A backup that Lumso made."""

    name: str
    made_at: str
    bytes: int
    jobs: int
    says: str
    """Why it cannot be read; empty where it can."""


class CopyOut(BaseModel):
    """The workshop as it was before a restore."""

    name: str
    made_at: str
    bytes: int
    kept: bool
    """Whether it stays for good."""
    goes_on: str
    """The day it is let go of; empty where it stays."""
    soon: bool
    """Whether it goes within a week."""


class CopyIn(BaseModel):
    """Whether a copy stays."""

    model_config = ConfigDict(extra="forbid")
    kept: bool


class KeepingOut(BaseModel):
    """Where the workshop is kept, and the backups of it, the newest first."""

    data: str
    folder: str
    backups: list[BackupOut]
    copies: list[CopyOut]
    """What was there before a restore, the newest first."""
    overdue_days: int
    """For how many days no copy could be made; 0 as long as that is no matter."""


class RestoredOut(BaseModel):
    """How many jobs came back, and under which name what was there before is kept."""

    jobs: int
    before: str


class IdentityOut(BaseModel):
    """Which workshop this is: copies that a device keeps belong to one."""

    workshop: str
    trouble: str
    """What whoever uses it has to know, on every screen; empty where all is well."""


class AsideOut(BaseModel):
    """An entry of the workshop that was set aside."""

    id: int
    kind: Kind
    slug: str
    name: str
    why: str
    at: str
    returns: bool
    """Whether it can be put back in its place; a setting or a job is kept as a file only."""


@router.get("/identity")
def get_identity(here: Here, response: Response) -> IdentityOut:
    """Which workshop this is."""
    response.headers["Cache-Control"] = "no-store"
    return IdentityOut(workshop=identity(here.db), trouble=here.db.trouble)


@router.get("/backups")
def list_backups(here: Here, request: Request) -> KeepingOut:
    """Where the workshop is kept, and the backups of it."""
    path, keeper = here.db.path, request.app.state.keeper
    made = backup.every(path)
    # A workshop that was shut for days has an old copy, and no trouble: what is due is made soon after the start.
    overdue = backup.overdue_days(made) if keeper is not None and keeper.hindered else 0
    return KeepingOut(data=str(path), folder=str(backup.folder_of(path)), overdue_days=overdue,
                      backups=[BackupOut(**asdict(b)) for b in made],
                      copies=[CopyOut(**asdict(c)) for c in copies.every(path)])  # fmt: skip


@router.post("/backups", status_code=201)
def make_backup(here: Here) -> BackupOut:
    """Make a backup now. It is opened again to see that it is whole."""
    return BackupOut(**asdict(backup.make(here.db.path)))


FILE: dict[int | str, dict[str, Any]] = {200: {"content": {"application/zip": {}}}}


@router.get("/backups/{name}", response_class=FileResponse, responses=FILE)
def get_backup(name: str, here: Here) -> FileResponse:
    """A backup as a file, to be kept elsewhere."""
    return FileResponse(backup.named(here.db.path, name), media_type="application/zip", filename=f"lumso-{name}")


def _restored(here: Context, archive: FilePath, given: str = "") -> RestoredOut:
    said, before = backup.restore_running(here.db, archive, given)
    here.forget()
    return RestoredOut(jobs=said.jobs, before=before.name if before else "")


@router.post("/backups/{name}/restore")
def restore_backup(name: str, here: Here) -> RestoredOut:
    """Go back to a backup. What is there now is kept beside it under another name."""
    return _restored(here, backup.named(here.db.path, name))


@router.put("/copies/{name}", status_code=204)
def keep_copy(name: str, asked: CopyIn, here: Here) -> None:
    """Let a copy from before a restore stay for good, or go when its time is over."""
    copies.keep(here.db.path, name, asked.kept)


@router.post("/copies/{name}/restore")
def restore_copy(name: str, here: Here) -> RestoredOut:
    """Go back to the workshop as it was before a restore. What is there now is kept beside it under another name."""
    return _restored(here, copies.named(here.db.path, name))


BINARY = {"schema": {"type": "string", "format": "binary"}}
BODY = {"requestBody": {"required": True, "content": {"application/zip": BINARY}}}


@router.post("/restore", openapi_extra=BODY)
async def restore_file(request: Request, here: Here) -> RestoredOut:
    """Go back to a backup that was kept elsewhere, sent as it is. What is there now is kept under another name."""
    with NamedTemporaryFile(dir=here.db.path.parent, prefix=".lumso-", suffix=backup.SUFFIX) as sent:
        async for piece in request.stream():
            sent.write(piece)
        sent.flush()
        return await run_in_threadpool(_restored, here, FilePath(sent.name), "That file")


@router.get("/export/everything.json", response_class=StreamingResponse)
def export_everything(here: Here, revisions: bool = False) -> StreamingResponse:
    """All of the workshop as open JSON: settings, entries, jobs, printed batches; revisions on request."""

    def pieces() -> Iterator[bytes]:
        held, size = [], 0
        for piece in export.everything(here.db, revisions):
            held.append(piece)
            size += len(piece)
            if size > PIECE:
                yield "".join(held).encode()
                held, size = [], 0
        yield "".join(held).encode()

    headers = {"Content-Disposition": 'attachment; filename="lumso-everything.json"'}
    return StreamingResponse(pieces(), media_type="application/json", headers=headers)


def _name(kept: Aside) -> str:
    with suppress(ValueError, AttributeError, TypeError):
        held = json.loads(kept.document)
        return str((held.get("own") or {}).get("name") or held.get("name") or kept.slug)
    return kept.slug


@router.get("/aside")
def list_aside(here: Here) -> list[AsideOut]:
    """What was taken out of the workshop, or could not be read: the newest first."""
    return [
        AsideOut(
            id=kept.id,
            kind=kept.kind,
            slug=kept.slug,
            name=_name(kept),
            why=kept.why,
            at=kept.at,
            returns=kept.kind not in ("setting", "job"),
        )
        for kept in aside.every(here.db)
    ]


@router.get("/aside/{number}/file", response_class=Response, responses={200: {"content": {"application/json": {}}}})
def get_aside_file(number: Number, here: Here) -> Response:
    """The document as it was kept."""
    kept = aside.get(here.db, number)
    headers = {"Content-Disposition": f'attachment; filename="{kept.kind}.json"'}
    return Response(kept.document, media_type="application/json", headers=headers)


@router.post("/aside/{number}/back", status_code=204)
def bring_back(number: Number, here: Here) -> None:
    """Put an entry back in its place. 412 where another has taken it meanwhile."""
    aside.bring_back(here.db, number)


@router.delete("/aside/{number}", status_code=204)
def delete_aside(number: Number, here: Here) -> None:
    """Delete for good what was set aside."""
    aside.delete(here.db, number)
