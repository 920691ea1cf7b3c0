"""Archives: a whole workshop as one file, written so that it is whole, and read whatever is wrong with it.

An archive is a zip of `manifest.json`, `workshop.sqlite3` and `photographs/`. docs/formats.md describes it.
"""

import json
import os
import re
import shutil
import sqlite3
import zipfile
from collections.abc import Collection, Iterator, Mapping
from contextlib import closing, contextmanager
from dataclasses import dataclass
from hashlib import file_digest, sha256
from pathlib import Path
from tempfile import TemporaryDirectory

from lumso import __version__

from . import file, photographs
from .database import applied, migrations, now, refuse_newer
from .errors import NoBackup, NotFound, Unwritable

FORMAT, VERSION = "lumso-archive", 1
MANIFEST, DATABASE, PHOTOGRAPHS = "manifest.json", "workshop.sqlite3", "photographs"
MOST_BYTES = 8 * 1024**3
"""The largest database that is taken out of an archive."""

KEPT_FREE = 500 * 1024**2
"""So much of the disk is never filled by what is unpacked, bytes."""

MOST_MANIFEST = 100_000
MOST_PHOTOGRAPH = 64 * 1024**2
COUNTED = ("job", "job_revision", "workshop_entry", "setting", "frozen_batch", "set_aside")


@dataclass(frozen=True)
class Archive:
    """What an archive says of itself."""

    made_at: str
    jobs: int
    bytes: int
    sha256: str = ""
    """Of the database, as it was put in; empty for a bare database."""


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
def translating(path: Path) -> Iterator[None]:
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
    with translating(to):
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


def photographs_out(archive: Path, path: Path) -> None:
    """The photographs of an archive put beside a database; those that are there already, and what is none, left be."""
    if not zipfile.is_zipfile(archive):
        return
    with zipfile.ZipFile(archive) as packed:
        for info in packed.infolist():
            name = info.filename.removeprefix(f"{PHOTOGRAPHS}/").removesuffix(".jpg")
            if not photographs.NAME.fullmatch(name) or info.file_size > MOST_PHOTOGRAPH:
                continue
            to = photographs.file_of(path, name)
            if to.exists():
                continue
            try:
                content = packed.read(info)
            except Exception:  # a rotten picture breaks its reader in many ways, and takes nothing else with it
                continue
            if sha256(content).hexdigest() == name:
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
        digest = said.get("sha256")
        if not isinstance(rows, dict) or not isinstance(made_at, str) or not isinstance(digest, str):
            raise ValueError
        return Archive(made_at[:40], _whole(rows.get("job", 0)), _whole(said.get("bytes")), digest)
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
        with zipfile.ZipFile(path) as archive, archive.open(DATABASE) as packed, to.open("wb") as out:
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
    if digest.hexdigest() != found.sha256:
        raise damaged


def unpack(path: Path, to: Path, given: str = "") -> Archive:
    """The database of an archive, or of a database file, as a file of its own, checked. Raises NoBackup.

    A database that was copied while it was in use is taken as it is: what it lacks is lost already. `given` is what
    whoever asked calls the file.
    """
    given = given or path.name
    with translating(to):
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
