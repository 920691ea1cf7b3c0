"""Whether all is well with a workshop and the machine it lies on, in words."""

import os
import shutil
import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from lumso.core.errors import LumsoError

from . import backup, copies, devices, file, private
from .archive import KEPT_FREE

LEAST_FILES = 1024
"""Open files: 512 lines, and what Lumso has open itself."""
AHEAD = timedelta(minutes=5)


@dataclass(frozen=True)
class Said:
    """One thing looked at: what was found, and whether it is trouble."""

    says: str
    trouble: bool = False


def _megabytes(count: float) -> str:
    return f"{count / 1024**2:,.0f} MB"


def _database(path: Path) -> Iterator[Said]:
    state = file.look(path)
    if state == "new":
        yield Said(f"There is no workshop at {path}.", True)
        return
    for fault in file.thorough(path):
        yield Said(f"The workshop is damaged: {fault}.", True)
    beside = file.wal_of(path).exists()
    how = "sound in itself, and was not closed properly: what was saved last may be missing"
    if state == "whole":
        how = "whole, and in use or not closed" if beside else "whole"
    yield Said(f"{path} is {how} ({_megabytes(path.stat().st_size)}).", state != "whole")


def _disk(path: Path) -> Iterator[Said]:
    free = shutil.disk_usage(path.parent).free
    yield Said(f"The disk has {_megabytes(free)} free; {_megabytes(KEPT_FREE)} are kept so.", free < KEPT_FREE)
    if not os.access(path.parent, os.W_OK):
        yield Said(f"{path.parent} does not allow writing.", True)
    for one in private.open_to_others(path):
        yield Said(f"{one} can be read by others on this machine. Lumso closes it when it is started next.", True)


def _kept(path: Path, now: datetime) -> Iterator[Said]:
    made = backup.every(path)
    for one in (b for b in made if b.says):
        yield Said(f"A backup cannot be read: {one.says}", True)
    newest = next((b for b in made if not b.says), None)
    if newest is None:
        yield Said("There is no backup. One is made soon after Lumso is started.", True)
    else:
        age = (now - datetime.fromisoformat(newest.made_at)).days
        late = age >= backup.OVERDUE_DAYS
        old = f", {age} days ago" if late else ""
        yield Said(f"{len(made)} backups; the newest is {newest.name}{old}. Keep one elsewhere too.", late)
    for copy in copies.every(path, now):
        if copy.soon:
            yield Said(f"{copy.name}, from before a restore, goes on {copy.goes_on}. Under Kept it can be kept.")


def _last_saved(connection: sqlite3.Connection) -> datetime | None:
    (at,) = connection.execute("SELECT max(saved_at) FROM job_revision").fetchone()
    return datetime.fromisoformat(at) if at else None


def _inside(path: Path, now: datetime) -> Iterator[Said]:
    with file.to_look(path) as connection:
        last = _last_saved(connection)
        rows = devices.rows_of(connection)
    if last and last > now + AHEAD:
        yield Said(f"This machine's clock is behind: something was saved at {last:%Y-%m-%d %H:%M} UTC.", True)
    inside = [dict(zip(devices.COLUMNS.split(", "), row, strict=True)) for row in rows]
    kinds = [str(d["kind"]) for d in inside if not d["turned_out"]]
    told = ", ".join(f"{kinds.count(k)} {k}" for k in devices.KINDS if k in kinds) or "none"
    yield Said(f"Devices let in: {told}. `lumso devices` lists them.")


def _machine() -> Iterator[Said]:
    yield Said(f"SQLite {sqlite3.sqlite_version}.", sqlite3.sqlite_version_info < (3, 37))
    try:
        import resource
    except ImportError:
        return
    files = resource.getrlimit(resource.RLIMIT_NOFILE)[0]
    few = files != resource.RLIM_INFINITY and files < LEAST_FILES
    yield Said(f"{files} files may be open at once; {LEAST_FILES} are needed.", few)


def health(path: Path, now: datetime | None = None) -> Iterator[Said]:
    """All that is looked at, one after the other. What cannot be looked at is trouble, and said."""
    now = now or datetime.now(UTC)
    yield from _machine()
    try:
        found = list(_database(path))
        yield from found
        if any(said.trouble for said in found) and file.look(path) == "new":
            return
        yield from _disk(path)
        yield from _kept(path, now)
        yield from _inside(path, now)
    except (LumsoError, OSError, sqlite3.Error) as error:
        yield Said(str(error), True)
