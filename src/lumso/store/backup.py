"""Backups: the whole workshop as one file that is checked by opening it, and the way back.

An archive is a zip of `manifest.json`, `workshop.sqlite3` and `photographs/`. docs/formats.md describes it.
"""

import json
import os
import shutil
import sqlite3
import zipfile
from collections.abc import Iterator, Sequence
from contextlib import closing, contextmanager, suppress
from dataclasses import dataclass
from datetime import UTC, date, datetime
from hashlib import file_digest, sha256
from pathlib import Path
from tempfile import TemporaryDirectory

from lumso import __version__

from . import file, photographs
from .database import Database, applied, migrations, now, refuse_newer
from .errors import Busy, NoBackup, NotFound, StoreError, Unwritable

FORMAT, VERSION = "lumso-archive", 1
MANIFEST, DATABASE, PHOTOGRAPHS = "manifest.json", "workshop.sqlite3", "photographs"
SUFFIX = ".lumso.zip"
MOST_BYTES = 8 * 1024**3
"""The largest database that is taken out of an archive."""

MOST_PHOTOGRAPH = 64 * 1024**2
COUNTED = ("job", "job_revision", "workshop_entry", "setting", "frozen_batch", "set_aside")
DAYS, WEEKS = 7, 8
"""How many backups made of itself are kept: the newest of each of the last days and weeks there is one of."""


@dataclass(frozen=True)
class Archive:
    """What an archive says of itself."""

    made_at: str
    jobs: int
    bytes: int


def _counts(connection: sqlite3.Connection) -> dict[str, int]:
    there = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    return {t: connection.execute(f"SELECT count(*) FROM {t}").fetchone()[0] for t in COUNTED if t in there}


def _copy(source: Path, to: Path) -> None:
    """The database as it is at this moment, whoever writes to it, whole in one file."""
    with closing(sqlite3.connect(f"{source.absolute().as_uri()}?mode=ro", uri=True)) as connection:
        connection.execute("VACUUM INTO ?", (str(to),))
    with closing(sqlite3.connect(to, isolation_level=None)) as copy:
        copy.execute(f"PRAGMA user_version = {file.CLOSED}")


def _looked(path: Path) -> None:
    """Raises NoBackup for a file that is no whole database."""
    try:
        state = file.look(path)
    except Unwritable as error:
        raise NoBackup(str(error)) from None
    if state == "new":
        raise NoBackup(f"{path.name} holds no workshop.")


def _checked(path: Path) -> dict[str, int]:
    """What a copy holds. Raises NoBackup for one that is no whole database of this Lumso or an earlier one."""
    _looked(path)
    with file.to_look(path) as connection:
        refuse_newer(connection)
        (fault,) = connection.execute("PRAGMA integrity_check(1)").fetchone()
        if fault != "ok":
            raise NoBackup(f"{path.name} is damaged: {fault}.")
        return _counts(connection)


@contextmanager
def _translating(path: Path) -> Iterator[None]:
    try:
        yield
    except OSError as error:
        raise Unwritable(f"{path} cannot be written: {error.strerror}.") from None
    except sqlite3.Error as error:
        raise Unwritable(f"{path} cannot be written: {error}.") from None


def write(source: Path, to: Path) -> Archive:
    """Write the archive of a database, which may be in use, and open it again to see that it is whole.

    It stands there complete or not at all. Raises Unwritable.
    """
    if file.look(source) == "new":
        raise NotFound(f"There is no workshop at {source}.")
    with _translating(to):
        to.parent.mkdir(parents=True, exist_ok=True)
        with TemporaryDirectory(dir=to.parent, prefix=".lumso-") as folder:
            copy = Path(folder) / DATABASE
            _copy(source, copy)
            counts = _checked(copy)
            with copy.open("rb") as held:
                digest = file_digest(held, "sha256").hexdigest()
            manifest = {
                "format": FORMAT,
                "version": VERSION,
                "made_at": now(),
                "lumso": __version__,
                "bytes": copy.stat().st_size,
                "sha256": digest,
                "rows": counts,
            }
            packed = Path(folder) / "packed"
            with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED, compresslevel=6) as archive:
                archive.writestr(MANIFEST, json.dumps(manifest, indent=2))
                archive.write(copy, DATABASE)
                for picture in _photographs(copy, source):
                    archive.write(picture, f"{PHOTOGRAPHS}/{picture.name}", zipfile.ZIP_STORED)
            with packed.open("rb") as held:
                os.fsync(held.fileno())
            found = read(packed)
            packed.replace(to)
    return found


def _photographs(copy: Path, source: Path) -> Iterator[Path]:
    """The files of the photographs that a copy of a database speaks of, as far as they are there."""
    with file.to_look(copy) as connection:
        tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        rows = connection.execute("SELECT name FROM photograph").fetchall() if "photograph" in tables else []
    for (name,) in rows:
        if (held := photographs.file_of(source, name)).is_file():
            yield held


def _photographs_out(archive: Path, path: Path) -> None:
    """The photographs of an archive put beside a database; those that are there already, and what is none, left be."""
    if not zipfile.is_zipfile(archive):
        return
    with zipfile.ZipFile(archive) as packed:
        for info in packed.infolist():
            name = info.filename.removeprefix(f"{PHOTOGRAPHS}/").removesuffix(".jpg")
            if not photographs.NAME.fullmatch(name) or info.file_size > MOST_PHOTOGRAPH:
                continue
            to = photographs.file_of(path, name)
            if not to.exists() and sha256(content := packed.read(info)).hexdigest() == name:
                to.parent.mkdir(parents=True, exist_ok=True)
                to.write_bytes(content)


def read(path: Path) -> Archive:
    """What an archive says of itself. Raises NoBackup for a file that is none."""
    try:
        with zipfile.ZipFile(path) as archive:
            info = archive.getinfo(MANIFEST)
            said = json.loads(archive.read(MANIFEST) if info.file_size < 100_000 else b"")
            held = archive.getinfo(DATABASE).file_size
        if said["format"] != FORMAT:
            raise ValueError
        if said["version"] > VERSION:
            raise NoBackup(f"{path.name} was made by a newer Lumso. Update Lumso to restore it.")
        return Archive(str(said["made_at"]), int(said["rows"].get("job", 0)), held)
    except OSError as error:
        raise NoBackup(f"{path} cannot be read: {error.strerror}.") from None
    except (zipfile.BadZipFile, KeyError, ValueError, TypeError):
        raise NoBackup(f"{path.name} is no backup of Lumso, or only part of one.") from None


def unpack(path: Path, to: Path) -> Archive:
    """The database of an archive, or of a database file, as a file of its own, checked. Raises NoBackup.

    A database that was copied while it was in use is taken as it is: what it lacks is lost already.
    """
    with _translating(to):
        if not zipfile.is_zipfile(path):
            _looked(path)
            shutil.copyfile(path, to)
            if file.wal_of(path).exists():
                shutil.copyfile(file.wal_of(path), file.wal_of(to))
            with closing(sqlite3.connect(to, isolation_level=None)) as copy:
                copy.execute("PRAGMA wal_checkpoint(TRUNCATE)")
                copy.execute(f"PRAGMA user_version = {file.CLOSED}")
            return Archive("", _checked(to).get("job", 0), to.stat().st_size)
        found = read(path)
        if found.bytes > MOST_BYTES:
            raise NoBackup(f"{path.name} is too large: at most {MOST_BYTES // 1024**3} GB can be restored.")
        try:
            with zipfile.ZipFile(path) as archive:
                said = json.loads(archive.read(MANIFEST))
                with archive.open(DATABASE) as packed, to.open("wb") as out:
                    shutil.copyfileobj(packed, out, 1024 * 1024)
        except zipfile.BadZipFile:
            raise NoBackup(f"{path.name} is damaged; nothing was restored.") from None
        with to.open("rb") as held:
            if file_digest(held, "sha256").hexdigest() != said.get("sha256"):
                raise NoBackup(f"{path.name} is damaged: what it holds is not what was put in. Nothing was restored.")
        _checked(to)
        return found


def _aside_name(path: Path) -> Path:
    """A name beside a database that nothing has yet, for what was there before."""
    stamp = datetime.now().strftime("%Y%m%d-%H%M%S")
    names = (f"{path.stem}-before-{stamp}{f'-{i}' if i else ''}{path.suffix}" for i in range(1000))
    return next(p for p in (path.with_name(n) for n in names) if not p.exists())


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
    with _translating(path):
        path.parent.mkdir(parents=True, exist_ok=True)
        _refuse_in_use(path)
    return _exchange(archive, path)


def _exchange(archive: Path, path: Path) -> tuple[Archive, Path | None]:
    with _translating(path), TemporaryDirectory(dir=path.parent, prefix=".lumso-") as folder:
        fresh = Path(folder) / DATABASE
        found = unpack(archive, fresh)
        with fresh.open("rb") as held:
            os.fsync(held.fileno())
        before = None
        if path.exists():
            before = _aside_name(path)
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
        _photographs_out(archive, path)
    return found, before


def restore_running(db: Database, archive: Path) -> tuple[Archive, Path | None]:
    """The same for a database that this Lumso has open. Raises NoBackup, Unwritable and Busy; then all is as it was."""
    with TemporaryDirectory(dir=db.path.parent, prefix=".lumso-") as folder:
        fresh = Path(folder) / DATABASE
        found = unpack(archive, fresh)
        with db.exchanged():
            _, before = _exchange(fresh, db.path)
    with _translating(db.path):
        _photographs_out(archive, db.path)
    return found, before


@dataclass(frozen=True)
class Backup:
    """A backup that Lumso made of itself."""

    name: str
    made_at: str
    bytes: int
    jobs: int


def folder_of(path: Path) -> Path:
    """Where Lumso keeps the backups of a database."""
    return path.with_name(f"{path.stem}-backups")


def every(path: Path) -> list[Backup]:
    """The backups of a database, the newest first; what is none, or only part of one, is not among them."""
    found = []
    for archive in sorted(folder_of(path).glob(f"*{SUFFIX}"), reverse=True):
        with suppress(StoreError):
            said = read(archive)
            found.append(Backup(archive.name, said.made_at, archive.stat().st_size, said.jobs))
    return found


def named(path: Path, name: str) -> Path:
    """The file of a backup of a database. Raises NotFound."""
    if not any(b.name == name for b in every(path)):
        raise NotFound(f"There is no backup {name!r}.")
    return folder_of(path) / name


def make(path: Path) -> Backup:
    """Make a backup now, and let go of old ones. Raises StoreError."""
    stamp = datetime.now(UTC).strftime("%Y%m%d-%H%M%S-%f")[:-3]
    to = folder_of(path) / f"{stamp}{SUFFIX}"
    said = write(path, to)
    for old in outdated([b.name for b in every(path)]):
        with suppress(OSError):
            (folder_of(path) / old).unlink()
    return Backup(to.name, said.made_at, to.stat().st_size, said.jobs)


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
    """Whether the newest backup is from before today, or there is none."""
    newest = next(iter(every(path)), None)
    return newest is None or _day(newest.name) != datetime.now(UTC).date()


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
