"""The database file: opening, one writer, and migrations."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from importlib import resources
from pathlib import Path
from threading import Lock

from .errors import Busy, StoreError, Unwritable

BUSY_MS = 2000


def now() -> str:
    """The time for a row, UTC to the millisecond."""
    return datetime.now(UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z")


def _translated(error: sqlite3.Error, path: Path) -> StoreError:
    name = getattr(error, "sqlite_errorname", "") or ""
    if "BUSY" in name or "LOCKED" in name:
        return Busy(f"{path} is in use by another program. Close it there, then try again.")
    if "READONLY" in name:
        return Unwritable(
            f"{path} is read-only. Allow writing to the file and its folder, or name another with --data."
        )
    if "CANTOPEN" in name:
        return Unwritable(
            f"{path} cannot be opened. Its folder must exist and allow writing; name another with --data."
        )
    if "NOTADB" in name or "CORRUPT" in name:
        return Unwritable(f"{path} is not a Lumso database. Name another with --data, or restore a backup.")
    if "FULL" in name:
        return Unwritable(f"The disk that holds {path} is full. Nothing was lost; free some space and try again.")
    return StoreError(f"{path}: {error}.")


class Database:
    """One SQLite file in WAL mode with full synchronisation. Reads run beside each other, writes one at a time."""

    def __init__(self, path: Path) -> None:
        """Open `path`, making it when missing, and bring it up to date. Raises StoreError."""
        self.path = path
        self._writing = Lock()
        with self._translating():
            try:
                path.parent.mkdir(parents=True, exist_ok=True)
            except OSError as error:
                raise Unwritable(f"{path.parent} cannot be made: {error.strerror}.") from None
            self._writer = self._connect()
            self._writer.execute("PRAGMA journal_mode = WAL")
            self._writer.execute("PRAGMA synchronous = FULL")
            migrate(self._writer)
            self._reader = self._connect()
            self._reader.execute("PRAGMA query_only = ON")
        self._reading = Lock()

    def _connect(self) -> sqlite3.Connection:
        connection = sqlite3.connect(self.path, timeout=BUSY_MS / 1000, isolation_level=None, check_same_thread=False)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA foreign_keys = ON")
        return connection

    @contextmanager
    def _translating(self) -> Iterator[None]:
        try:
            yield
        except sqlite3.Error as error:
            raise _translated(error, self.path) from error

    @contextmanager
    def read(self) -> Iterator[sqlite3.Connection]:
        """A connection that can only read."""
        with self._reading, self._translating():
            yield self._reader

    @contextmanager
    def write(self) -> Iterator[sqlite3.Connection]:
        """A transaction: committed when the block ends, taken back when it raises."""
        with self._writing, self._translating():
            self._writer.execute("BEGIN IMMEDIATE")
            try:
                yield self._writer
            except BaseException:
                self._writer.execute("ROLLBACK")
                raise
            self._writer.execute("COMMIT")

    def version(self) -> int:
        """A number that changes whenever anybody has written: what was read at the same number is still true."""
        with self.read() as connection:
            return int(connection.execute("PRAGMA data_version").fetchone()[0])

    def close(self) -> None:
        """Let go of the file."""
        self._reader.close()
        self._writer.close()


def migrations() -> list[tuple[int, str, str]]:
    """The shipped migrations in order: (number, name, SQL)."""
    folder = resources.files("lumso.store") / "migrations"
    files = sorted((f for f in folder.iterdir() if f.name.endswith(".sql")), key=lambda f: f.name)
    return [(int(f.name[:4]), f.name, f.read_text(encoding="utf-8")) for f in files]


def applied(connection: sqlite3.Connection) -> list[int]:
    """The numbers of the migrations a database has had; asks without writing."""
    found = connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'migration'").fetchone()
    if not found:
        return []
    return [row[0] for row in connection.execute("SELECT number FROM migration ORDER BY number")]


def migrate(connection: sqlite3.Connection, up_to: int | None = None) -> list[int]:
    """Apply what is pending, each migration in one transaction with its own record; returns their numbers.

    Raises Unwritable for a file written by a newer Lumso.
    """
    had = set(applied(connection))
    known = migrations()
    if unknown := had - {number for number, _, _ in known}:
        raise Unwritable(
            f"This database was written by a newer Lumso (it has migration {max(unknown)}). Update Lumso to open it."
        )
    done = []
    for number, name, sql in known:
        if number in had or (up_to is not None and number > up_to):
            continue
        record = (
            "CREATE TABLE IF NOT EXISTS migration (number INTEGER PRIMARY KEY, name TEXT NOT NULL, "
            "applied_at TEXT NOT NULL) STRICT;\n"
            f"INSERT INTO migration VALUES ({number}, '{name}', '{now()}');\n"
        )
        try:
            connection.executescript(f"BEGIN IMMEDIATE;\n{record}{sql}\nCOMMIT;")
        except sqlite3.Error:
            if connection.in_transaction:
                connection.execute("ROLLBACK")
            raise
        done.append(number)
    return done
