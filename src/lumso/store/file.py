"""What a database file is, looked at before it is opened for writing: whose it is, and whether all of it is there."""

import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import ExitStack, closing, contextmanager, suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Literal

from .errors import Unwritable

APPLICATION_ID = 0x4C756D73
"""Whose file it is, in its head: "Lums"."""

MAGIC = b"SQLite format 3\x00"
CLOSED, IN_USE = 0, 1
"""The file's own version number says whether it was closed: what is in use has its newest pages in a file beside it."""

State = Literal["new", "whole", "without its -wal"]


@dataclass(frozen=True)
class Here:
    """Which file stands at a path now, so that another in its place can be told."""

    device: int
    number: int


def here(path: Path) -> Here | None:
    """The file at a path; None where there is none."""
    try:
        found = path.stat()
    except OSError:
        return None
    return Here(found.st_dev, found.st_ino)


def wal_of(path: Path) -> Path:
    """The file beside a database that holds what was written last."""
    return path.with_name(f"{path.name}-wal")


def aside_name(path: Path) -> Path:
    """A name beside a database that nothing has yet, for what was there before."""
    stamp = datetime.now().strftime("%Y%m%d-%H%M%S")
    names = (f"{path.stem}-before-{stamp}{f'-{i}' if i else ''}{path.suffix}" for i in range(1000))
    return next(p for p in (path.with_name(n) for n in names) if not p.exists())


def _foreign(path: Path) -> Unwritable:
    return Unwritable(f"{path} is not a Lumso database. Name another with --data, or restore a backup.")


def _damaged(path: Path, how: str) -> Unwritable:
    return Unwritable(
        f"{path} is damaged: {how}. Nothing of it was touched. Keep a copy of it, and restore the newest backup with "
        "`lumso restore`."
    )


def _bytes_short(head: bytes, size: int) -> int:
    """How many bytes the head speaks of that are not there."""
    page = int.from_bytes(head[16:18], "big")
    page = 65536 if page == 1 else page
    counted = head[24:28] == head[92:96]  # the page count is kept only where these agree
    return max(0, page * int.from_bytes(head[28:32], "big") - size) if counted else 0


def _head(path: Path) -> bytes:
    """The first 100 bytes of a database file. Raises Unwritable where it is none, or cannot be read."""
    try:
        with path.open("rb") as file:
            head = file.read(100)
    except OSError as error:
        raise Unwritable(f"{path} cannot be opened: {error.strerror}.") from None
    if head[:16] != MAGIC or len(head) < 100:
        raise _foreign(path)
    return head


def look(path: Path) -> State:
    """What stands at a path, without touching it. Raises Unwritable for a file that is not ours, or not whole.

    A file of a Lumso from before files said whose they are is known by its tables.
    """
    if not path.exists() or path.stat().st_size == 0:
        return "new"
    if not path.is_file():
        raise Unwritable(f"{path} cannot be opened: it is no file. Name another with --data.")
    head = _head(path)
    beside = wal_of(path).exists()
    if not beside and (short := _bytes_short(head, path.stat().st_size)):
        raise _damaged(path, f"its last {short:,} bytes are missing")
    said = int.from_bytes(head[68:72], "big")
    if said not in (0, APPLICATION_ID):
        raise _foreign(path)
    try:
        with to_look(path) as connection:
            names = {row[0] for row in connection.execute("SELECT name FROM sqlite_master")}
            if names and not {"migration", "job"} <= names:
                raise _foreign(path)
            (fault,) = connection.execute("PRAGMA quick_check(1)").fetchone()
            (mark,) = connection.execute("PRAGMA user_version").fetchone()
    except sqlite3.DatabaseError as error:
        name = getattr(error, "sqlite_errorname", "") or ""
        if "NOTADB" in name or "CORRUPT" in name:
            raise _damaged(path, str(error)) from None
        raise
    if fault != "ok":
        raise _damaged(path, str(fault).splitlines()[0])
    return "without its -wal" if mark == IN_USE and not beside else "whole"


@contextmanager
def to_look(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection that only looks, and leaves no trace: where nothing stands beside the file it is read as it is.

    What nobody has in use and was not closed is copied, with what stands beside it, and looked at there; so is what
    cannot be looked at where it is, as the disk is full.
    """
    wal, shared = wal_of(path), path.with_name(f"{path.name}-shm")
    if not wal.exists():
        with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro&immutable=1", uri=True)) as connection:
            yield connection
        return
    with ExitStack() as stack:
        where = path.absolute()
        if shared.exists():
            connection = sqlite3.connect(f"{where.as_uri()}?mode=ro", uri=True)
            stack.callback(connection.close)
            try:
                connection.execute("SELECT 1 FROM sqlite_master LIMIT 1")
            except sqlite3.OperationalError:
                connection.close()  # no room for what readers share
            else:
                yield connection
                return
        else:
            with suppress(OSError):
                copy = Path(stack.enter_context(TemporaryDirectory(prefix="lumso-look-"))) / path.name
                shutil.copyfile(path, copy)
                shutil.copyfile(wal, wal_of(copy))
                where = copy
        connection = stack.enter_context(closing(sqlite3.connect(f"{where.as_uri()}?mode=rw", uri=True)))
        connection.execute("PRAGMA locking_mode = EXCLUSIVE")  # nothing is made beside it
        connection.execute("PRAGMA query_only = ON")
        yield connection


def thorough(path: Path) -> list[str]:
    """Every fault of a database that is ours, page by page and row by row; reads all of it."""
    with to_look(path) as connection:
        faults = [str(row[0]) for row in connection.execute("PRAGMA integrity_check")]
        loose = [f"{row[0]}: row {row[1]} refers to nothing" for row in connection.execute("PRAGMA foreign_key_check")]
    return [fault for fault in faults if fault != "ok"] + loose
