"""Backups: made daily and opened again, let go of by age; and the way back, which keeps what was there."""

import os
import shutil
import sqlite3
import time
from collections.abc import Sequence
from contextlib import closing, suppress
from dataclasses import dataclass
from datetime import UTC, date, datetime
from pathlib import Path
from tempfile import TemporaryDirectory

from . import devices, file
from .archive import DATABASE, Archive, photographs_out, read, translating, unpack, write
from .database import Database, applied, migrations
from .errors import Busy, NotFound, StoreError

SUFFIX = ".lumso.zip"
DAYS, WEEKS = 7, 8
"""How many backups made of itself are kept: the newest of each of the last days and weeks there is one of."""


def _refuse_in_use(path: Path) -> None:
    """Raises Busy where another program has the database open."""
    if not path.exists():
        return
    with closing(sqlite3.connect(path, timeout=0, isolation_level=None)) as connection:
        try:
            connection.execute("PRAGMA locking_mode = EXCLUSIVE")
            connection.execute("BEGIN IMMEDIATE")
            connection.execute("ROLLBACK")
        except sqlite3.OperationalError as error:
            if "BUSY" in (getattr(error, "sqlite_errorname", "") or ""):
                raise Busy(f"{path} is in use. Stop Lumso first, or restore on its own screen.") from None
        except sqlite3.DatabaseError:
            pass  # damaged: all the more reason to put another in its place


def restore(archive: Path, path: Path) -> tuple[Archive, Path | None]:
    """Put the workshop of an archive in the place of the one at `path`, which is kept beside it under another name.

    Returns what the archive says, and where the workshop from before is now. Nobody may be using `path`.
    Raises NoBackup and Unwritable; then all is as it was.
    """
    with translating(path):
        path.parent.mkdir(parents=True, exist_ok=True)
        _refuse_in_use(path)
    return _exchange(archive, path)


def _exchange(archive: Path, path: Path, given: str = "") -> tuple[Archive, Path | None]:
    with translating(path), TemporaryDirectory(dir=path.parent, prefix=".lumso-") as folder:
        fresh = Path(folder) / DATABASE
        found = unpack(archive, fresh, given)
        with closing(sqlite3.connect(fresh, isolation_level=None)) as copy:
            devices.nobody(copy)
        with fresh.open("rb") as held:
            os.fsync(held.fileno())
        before = None
        if path.exists():
            before = file.aside_name(path)
            if file.wal_of(path).exists():
                file.wal_of(path).replace(file.wal_of(before))
            path.replace(before)
        with suppress(FileNotFoundError):
            path.with_name(f"{path.name}-shm").unlink()
        try:
            fresh.replace(path)
        except OSError:
            if before:
                before.replace(path)
            raise
        photographs_out(archive, path)
    return found, before


def restore_running(db: Database, archive: Path, given: str = "") -> tuple[Archive, Path | None]:
    """The same for a database that this Lumso has open. Raises NoBackup, Unwritable and Busy; then all is as it was.

    Who was let in, and who was turned out, is what it was here a moment ago, never what it was in the archive.
    """
    with TemporaryDirectory(dir=db.path.parent, prefix=".lumso-") as folder:
        fresh = Path(folder) / DATABASE
        found = unpack(archive, fresh, given)
        with db.exchanged():
            _, before = _exchange(fresh, db.path, given)
        if before:
            with file.to_look(before) as last:
                known = devices.rows_of(last)
            devices.put_back(db, known)
    with translating(db.path):
        photographs_out(archive, db.path)
    return found, before


@dataclass(frozen=True)
class Backup:
    """A backup that Lumso made of itself."""

    name: str
    made_at: str
    bytes: int
    jobs: int
    says: str = ""
    """Why it cannot be read; empty where it can. It is kept as it is then."""


def folder_of(path: Path) -> Path:
    """Where Lumso keeps the backups of a database."""
    return path.with_name(f"{path.stem}-backups")


def every(path: Path) -> list[Backup]:
    """The backups of a database, the newest first. One that cannot be read is among them, and says so."""
    found = []
    for archive in sorted(folder_of(path).glob(f"*{SUFFIX}"), reverse=True):
        with suppress(OSError):  # gone meanwhile
            size = archive.stat().st_size
            try:
                said = read(archive)
                found.append(Backup(archive.name, said.made_at, size, said.jobs))
            except StoreError as error:
                found.append(Backup(archive.name, "", size, 0, str(error)))
    return found


def named(path: Path, name: str) -> Path:
    """The file of a backup of a database, whether it can be read or not. Raises NotFound."""
    if name not in {archive.name for archive in folder_of(path).glob(f"*{SUFFIX}")}:
        raise NotFound(f"There is no backup {name!r}.")
    return folder_of(path) / name


def make(path: Path) -> Backup:
    """Make a backup now, and let go of old ones that can be read. Raises StoreError."""
    stamp = datetime.now(UTC).strftime("%Y%m%d-%H%M%S-%f")[:-3]
    to = folder_of(path) / f"{stamp}{SUFFIX}"
    said = write(path, to)
    for old in outdated([b.name for b in every(path) if not b.says]):
        with suppress(OSError):
            (folder_of(path) / old).unlink()
    return Backup(to.name, said.made_at, to.stat().st_size, said.jobs)


HALF_DONE_S = 24 * 3600.0
"""What is being made is not so old: a server was killed while it made it."""


def sweep_half_done(path: Path) -> int:
    """Let go of what a killed server was just receiving, unpacking or packing beside a database; how many."""
    gone = 0
    for folder in (path.parent, folder_of(path)):
        for left in folder.glob(".lumso-*"):
            with suppress(OSError):
                if time.time() - left.stat().st_mtime > HALF_DONE_S:
                    shutil.rmtree(left) if left.is_dir() else left.unlink()
                    gone += 1
    return gone


def _day(name: str) -> date | None:
    try:
        return datetime.strptime(name[:8], "%Y%m%d").date()
    except ValueError:
        return None


def outdated(names: Sequence[str]) -> list[str]:
    """Which backups to let go of, given all there are: a name begins with its day, 20261124.

    Kept are the three newest, and the newest of each of the last days and weeks there is one of.
    """
    dated = sorted(((name, day) for name in names if (day := _day(name))), reverse=True)
    days: dict[date, str] = {}
    weeks: dict[tuple[int, int], str] = {}
    for name, day in dated:
        days.setdefault(day, name)
        weeks.setdefault(day.isocalendar()[:2], name)
    keep = {name for name, _ in dated[:3]} | {*list(days.values())[:DAYS]} | {*list(weeks.values())[:WEEKS]}
    return [name for name, _ in dated if name not in keep]


def due(path: Path) -> bool:
    """Whether the newest backup that can be read is from before today, or there is none."""
    newest = next((_day(b.name) for b in every(path) if not b.says), None)
    return newest != datetime.now(UTC).date()


OVERDUE_DAYS = 2
"""So long without a copy is said on the first screen."""


def overdue_days(made: Sequence[Backup]) -> int:
    """How many days ago the newest of some backups that can be read was made; 0 as long as that is no matter."""
    newest = next((_day(b.name) for b in made if not b.says), None)
    if newest is None:
        return 0
    days = (datetime.now(UTC).date() - newest).days
    return days if days >= OVERDUE_DAYS else 0


def pending(path: Path) -> bool:
    """Whether opening a database would bring it up to date: it is of an earlier Lumso."""
    if not path.is_file():
        return False
    try:
        with file.to_look(path) as connection:
            had = set(applied(connection))
    except sqlite3.Error:
        return False  # opening it will say what it is
    return bool(had) and had < {number for number, _, _ in migrations()}
