"""Backups: the whole workshop as one file that is checked by opening it, and the way back.

An archive is a zip of `manifest.json`, `workshop.sqlite3` and `photographs/`. docs/formats.md describes it.
"""

import json
import os
import re
import shutil
import sqlite3
import zipfile
from collections.abc import Collection, Iterator, Mapping, Sequence
from contextlib import closing, contextmanager, suppress
from dataclasses import dataclass
from datetime import UTC, date, datetime
from hashlib import file_digest, sha256
from pathlib import Path
from tempfile import TemporaryDirectory

from lumso import __version__

from . import devices, file, photographs
from .database import Database, applied, migrations, now, refuse_newer
from .errors import Busy, NoBackup, NotFound, StoreError, Unwritable

FORMAT, VERSION = "lumso-archive", 1
MANIFEST, DATABASE, PHOTOGRAPHS = "manifest.json", "workshop.sqlite3", "photographs"
SUFFIX = ".lumso.zip"
MOST_BYTES = 8 * 1024**3
"""The largest database that is taken out of an archive."""

KEPT_FREE = 500 * 1024**2
"""So much of the disk is never filled by what is unpacked, bytes."""

MOST_MANIFEST = 100_000
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


def _looked(path: Path, given: str) -> None:
    """Raises NoBackup for a file that is no whole database. `given` is what whoever asked calls it."""
    try:
        state = file.look(path)
    except Unwritable as error:
        raise NoBackup(str(error).replace(str(path), given)) from None
    if state == "new":
        raise NoBackup(f"{given} holds no workshop.")


CREATES = re.compile(r"^CREATE (?:VIRTUAL )?TABLE (?:IF NOT EXISTS )?(\w+)", re.MULTILINE)
DROPS = re.compile(r"^DROP TABLE (?:IF EXISTS )?(\w+)", re.MULTILINE)
RENAMES = re.compile(r"^ALTER TABLE (\w+) RENAME TO (\w+)", re.MULTILINE)


def _must_have(had: Collection[int]) -> set[str]:
    """The tables that a database with these migrations has."""
    tables: set[str] = set()
    for number, _, sql in migrations():
        if number in had:
            tables |= set(CREATES.findall(sql))
            tables -= set(DROPS.findall(sql))
            for old, new in RENAMES.findall(sql):
                tables = (tables - {old}) | {new}
    return tables


def _checked(path: Path, given: str) -> dict[str, int]:
    """What a copy holds. Raises NoBackup for one that is no whole database of this Lumso or an earlier one."""
    _looked(path, given)
    with file.to_look(path) as connection:
        refuse_newer(connection)
        (fault,) = connection.execute("PRAGMA integrity_check(1)").fetchone()
        if fault != "ok":
            raise NoBackup(f"{given} is damaged: {fault}.")
        there = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        if lacks := _must_have(applied(connection)) - there:
            raise NoBackup(f"{given} is damaged: it lacks the table {min(lacks)}. Nothing was restored.")
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
            counts = _checked(copy, copy.name)
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


def _manifest(archive: zipfile.ZipFile) -> Mapping[str, object]:
    """What an archive says of itself. Raises ValueError for what is no manifest."""
    if archive.getinfo(MANIFEST).file_size > MOST_MANIFEST:
        raise ValueError
    with archive.open(MANIFEST) as packed:
        said = json.loads(packed.read(MOST_MANIFEST + 1))
    if not isinstance(said, dict) or said.get("format") != FORMAT:
        raise ValueError
    return said


def _whole(value: object) -> int:
    """A whole number that is one. Raises ValueError."""
    if not isinstance(value, int) or isinstance(value, bool) or value < 0:
        raise ValueError
    return value


def read(path: Path, given: str = "") -> Archive:
    """What an archive says of itself. Raises NoBackup for a file that is none; whatever is wrong with it, nothing else.

    `given` is what whoever asked calls the file, where that is not its name.
    """
    given = given or path.name
    try:
        with zipfile.ZipFile(path) as archive:
            said = _manifest(archive)
            archive.getinfo(DATABASE)
        version, rows, made_at = said.get("version"), said.get("rows"), said.get("made_at")
        if _whole(version) > VERSION:
            raise NoBackup(f"{given} was made by a newer Lumso. Update Lumso to restore it.")
        if not isinstance(rows, dict) or not isinstance(made_at, str) or not isinstance(said.get("sha256"), str):
            raise ValueError
        return Archive(made_at[:40], _whole(rows.get("job", 0)), _whole(said.get("bytes")))
    except NoBackup:
        raise
    except OSError as error:
        raise NoBackup(f"{given} cannot be read: {error.strerror or 'it is no archive'}.") from None
    except Exception:  # a rotten archive breaks its reader in a dozen ways: whichever it is, it is no backup
        raise NoBackup(f"{given} is no backup of Lumso, or only part of one.") from None


def free_bytes(folder: Path) -> int:
    """How much of the disk is free."""
    return shutil.disk_usage(folder).free


def _taken_out(path: Path, given: str, found: Archive, to: Path) -> None:
    """The database of an archive as a file, no larger than the archive says, and what was put in. Raises NoBackup."""
    if found.bytes > MOST_BYTES:
        raise NoBackup(f"{given} is too large: at most {MOST_BYTES // 1024**3} GB can be restored.")
    if found.bytes > free_bytes(to.parent) - KEPT_FREE:
        takes = found.bytes // 1024**2 + 1
        says = f"The disk has no room for {given}: it takes {takes} MB, and some is kept free. Free some space first."
        raise Unwritable(says)
    damaged = NoBackup(f"{given} is damaged: what it holds is not what was put in. Nothing was restored.")
    digest, so_far = sha256(), 0
    try:
        with zipfile.ZipFile(path) as archive:
            said = _manifest(archive)
            with archive.open(DATABASE) as packed, to.open("wb") as out:
                while piece := packed.read(1024 * 1024):
                    so_far += len(piece)
                    if so_far > found.bytes:
                        raise damaged
                    digest.update(piece)
                    out.write(piece)
    except (NoBackup, OSError):
        raise
    except Exception:
        raise damaged from None
    if digest.hexdigest() != said.get("sha256"):
        raise damaged


def unpack(path: Path, to: Path, given: str = "") -> Archive:
    """The database of an archive, or of a database file, as a file of its own, checked. Raises NoBackup.

    A database that was copied while it was in use is taken as it is: what it lacks is lost already. `given` is what
    whoever asked calls the file.
    """
    given = given or path.name
    with _translating(to):
        if not zipfile.is_zipfile(path):
            _looked(path, given)
            shutil.copyfile(path, to)
            if file.wal_of(path).exists():
                shutil.copyfile(file.wal_of(path), file.wal_of(to))
            with closing(sqlite3.connect(to, isolation_level=None)) as copy:
                copy.execute("PRAGMA wal_checkpoint(TRUNCATE)")
                copy.execute(f"PRAGMA user_version = {file.CLOSED}")
            return Archive("", _checked(to, given).get("job", 0), to.stat().st_size)
        found = read(path, given)
        _taken_out(path, given, found, to)
        _checked(to, given)
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


def _exchange(archive: Path, path: Path, given: str = "") -> tuple[Archive, Path | None]:
    with _translating(path), TemporaryDirectory(dir=path.parent, prefix=".lumso-") as folder:
        fresh = Path(folder) / DATABASE
        found = unpack(archive, fresh, given)
        with closing(sqlite3.connect(fresh, isolation_level=None)) as copy:
            devices.nobody(copy)
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


def _newest(path: Path) -> date | None:
    """The day of the newest backup that can be read; None where there is none."""
    return next((_day(b.name) for b in every(path) if not b.says), None)


def due(path: Path) -> bool:
    """Whether the newest backup is from before today, or there is none."""
    return _newest(path) != datetime.now(UTC).date()


OVERDUE_DAYS = 2
"""So long without a copy is said on the first screen."""


def overdue_days(path: Path) -> int:
    """For how many days no copy could be made; 0 as long as that is no matter, or nothing was ever to be kept."""
    if not (newest := _newest(path)):
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
