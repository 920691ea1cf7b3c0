"""Photographs: files in a folder beside the database, each named by its hash, and a row for each."""

import os
import re
import time
from contextlib import suppress
from dataclasses import dataclass
from hashlib import sha256
from pathlib import Path

from .database import Database, now
from .errors import NotFound, Unwritable

NAME = re.compile(r"[0-9a-f]{64}")
ORPHAN_S = 3600.0
"""A file that no row speaks of is let go once it is so old: a younger one may just be being kept."""
UNASKED_DAYS = 30
"""A photograph that no job speaks of is let go after so many days: what was entered on a device that was away till then
may still name it."""


@dataclass(frozen=True)
class Photograph:
    """A photograph that is kept."""

    name: str
    bytes: int
    width: int
    height: int
    taken: str


def folder_of(path: Path) -> Path:
    """Where the photographs of a database are."""
    return path.with_name(f"{path.stem}-photographs")


def file_of(path: Path, name: str) -> Path:
    """The file of a photograph. Raises NotFound for a name that is none."""
    if not NAME.fullmatch(name):
        raise NotFound(f"There is no photograph {name[:80]!r}.")
    return folder_of(path) / f"{name}.jpg"


def _written(to: Path, content: bytes) -> None:
    """The file, whole and on the disk, or not at all."""
    part = to.with_name(f".{to.name}.{os.getpid()}.{time.monotonic_ns()}")
    try:
        to.parent.mkdir(parents=True, exist_ok=True)
        with part.open("wb") as out:
            out.write(content)
            out.flush()
            os.fsync(out.fileno())
        part.replace(to)
        if os.name == "posix":
            folder = os.open(to.parent, os.O_RDONLY)
            try:
                os.fsync(folder)
            finally:
                os.close(folder)
    except OSError as error:
        with suppress(OSError):
            part.unlink()
        raise Unwritable(f"The photograph cannot be kept in {to.parent}: {error.strerror}.") from None


def keep(db: Database, content: bytes, width: int, height: int, taken: str = "") -> Photograph:
    """Keep a photograph: its file first, then its row. The same again is the same. Raises Unwritable."""
    name = sha256(content).hexdigest()
    to = file_of(db.path, name)
    if not to.exists():
        _written(to, content)
    with db.write() as connection:
        connection.execute(
            "INSERT INTO photograph (name, bytes, width, height, taken, added_at) VALUES (?, ?, ?, ?, ?, ?) "
            "ON CONFLICT (name) DO UPDATE SET taken = excluded.taken, added_at = excluded.added_at",
            (name, len(content), width, height, taken, now()),
        )
    return Photograph(name, len(content), width, height, taken)


def get(db: Database, name: str) -> Photograph:
    """A photograph that is kept. Raises NotFound."""
    with db.read() as connection:
        row = connection.execute("SELECT * FROM photograph WHERE name = ?", (name,)).fetchone()
    if row is None:
        raise NotFound(f"There is no photograph {name[:80]!r}.")
    return Photograph(row["name"], row["bytes"], row["width"], row["height"], row["taken"])


def content(db: Database, name: str) -> bytes:
    """What is in the file of a photograph. Raises NotFound, also where its file is gone."""
    get(db, name)
    try:
        return file_of(db.path, name).read_bytes()
    except OSError:
        raise NotFound("The file of this photograph is gone; a backup may still hold it.") from None


def delete(db: Database, name: str) -> None:
    """Take a photograph out: its row, then its file. Raises NotFound."""
    get(db, name)
    with db.write() as connection:
        connection.execute("DELETE FROM photograph WHERE name = ?", (name,))
    with suppress(OSError):
        file_of(db.path, name).unlink()


def _forget_unasked(db: Database) -> None:
    """Take out the rows that are old and that no revision of a job, nothing set aside and no event speaks of."""
    with db.write() as connection:
        every = connection.execute(
            "SELECT name FROM photograph WHERE julianday(added_at) < julianday('now') - ?", (UNASKED_DAYS,)
        )
        old = {row["name"] for row in every}
        if not old:
            return
        said = connection.execute(
            "SELECT document FROM job_revision UNION ALL SELECT document FROM set_aside "
            "UNION ALL SELECT document FROM event"
        )
        for row in said:
            old.difference_update(NAME.findall(row["document"]))
        connection.executemany("DELETE FROM photograph WHERE name = ?", [(name,) for name in old])


def sweep(db: Database) -> int:
    """Let go of photographs that no job speaks of any more, and of files that no row speaks of; how many files."""
    _forget_unasked(db)
    folder = folder_of(db.path)
    if not folder.is_dir():
        return 0
    with db.read() as connection:
        known = {row["name"] for row in connection.execute("SELECT name FROM photograph")}
    gone = 0
    for found in folder.iterdir():
        ours = found.name.startswith(".") or (found.suffix == ".jpg" and NAME.fullmatch(found.stem))
        if ours and found.stem not in known:
            with suppress(OSError):
                if time.time() - found.stat().st_mtime > ORPHAN_S:
                    found.unlink()
                    gone += 1
    return gone
