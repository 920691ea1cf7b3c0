"""Nothing lost: backups and the way back, the whole workshop as a file, and what was set aside."""

import json
from collections.abc import AsyncIterator, Iterator
from contextlib import suppress
from dataclasses import asdict
from pathlib import Path
from tempfile import NamedTemporaryFile

from pydantic import BaseModel

from lumso.store import aside as set_aside
from lumso.store import backup, copies, export
from lumso.store.aside import Aside, Kind
from lumso.store.identity import identity

from .beside import aside
from .context import Context

PIECE = 64 * 1024
"""What is sent at once of an export, characters."""


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


def which(here: Context) -> IdentityOut:
    """Which workshop this is."""
    return IdentityOut(workshop=identity(here.db), trouble=here.db.trouble)


def kept(hindered: bool, here: Context) -> KeepingOut:
    """Where the workshop is kept, and the backups of it. `hindered` where no copy could be made when it was due."""
    path = here.db.path
    made = backup.every(path)
    # A workshop that was shut for days has an old copy, and no trouble: what is due is made soon after the start.
    overdue = backup.overdue_days(made) if hindered else 0
    return KeepingOut(data=str(path), folder=str(backup.folder_of(path)), overdue_days=overdue,
                      backups=[BackupOut(**asdict(b)) for b in made],
                      copies=[CopyOut(**asdict(c)) for c in copies.every(path)])  # fmt: skip


def back_up(here: Context) -> BackupOut:
    """Make a backup now. It is opened again to see that it is whole."""
    return BackupOut(**asdict(backup.make(here.db.path)))


def backup_file(name: str, here: Context) -> Path:
    """Where a backup is. Raises NotFound."""
    return backup.named(here.db.path, name)


def _restored(here: Context, archive: Path, given: str = "") -> RestoredOut:
    said, before = backup.restore_running(here.db, archive, given)
    here.forget()
    return RestoredOut(jobs=said.jobs, before=before.name if before else "")


def restore_backup(name: str, here: Context) -> RestoredOut:
    """Go back to a backup. What is there now is kept beside it under another name. Raises NotFound, NoBackup."""
    return _restored(here, backup.named(here.db.path, name))


def restore_copy(name: str, here: Context) -> RestoredOut:
    """Go back to the workshop as it was before a restore. What is there now is kept under another name. Raises
    NotFound, NoBackup."""
    return _restored(here, copies.named(here.db.path, name))


async def restore_file(sent: AsyncIterator[bytes], here: Context) -> RestoredOut:
    """Go back to a backup that was kept elsewhere, sent as it is. What is there now is kept under another name. Raises
    NoBackup."""
    with NamedTemporaryFile(dir=here.db.path.parent, prefix=".lumso-", suffix=backup.SUFFIX) as file:
        async for piece in sent:
            file.write(piece)
        file.flush()
        return await aside(_restored, here, Path(file.name), "That file")


def keep_copy(name: str, stays: bool, here: Context) -> None:
    """Let a copy from before a restore stay for good, or go when its time is over. Raises NotFound."""
    copies.keep(here.db.path, name, stays)


def everything(revisions: bool, here: Context) -> Iterator[bytes]:
    """All of the workshop as open JSON, piece by piece: settings, entries, jobs, printed batches; revisions too."""
    held, size = [], 0
    for piece in export.everything(here.db, revisions):
        held.append(piece)
        size += len(piece)
        if size > PIECE:
            yield "".join(held).encode()
            held, size = [], 0
    yield "".join(held).encode()


def _name(kept: Aside) -> str:
    with suppress(ValueError, AttributeError, TypeError):
        held = json.loads(kept.document)
        return str((held.get("own") or {}).get("name") or held.get("name") or kept.slug)
    return kept.slug


def aside_now(here: Context) -> list[AsideOut]:
    """What was taken out of the workshop, or could not be read: the newest first."""
    return [
        AsideOut(
            id=one.id,
            kind=one.kind,
            slug=one.slug,
            name=_name(one),
            why=one.why,
            at=one.at,
            returns=one.kind not in ("setting", "job"),
        )
        for one in set_aside.every(here.db)
    ]


def aside_file(number: int, here: Context) -> Aside:
    """What was set aside, with its document as it was kept. Raises NotFound."""
    return set_aside.get(here.db, number)


def bring_back(number: int, here: Context) -> None:
    """Put an entry back in its place. Raises NotFound, InPlace where another has taken it meanwhile."""
    set_aside.bring_back(here.db, number)


def delete_aside(number: int, here: Context) -> None:
    """Delete for good what was set aside. Raises NotFound."""
    set_aside.delete(here.db, number)
