"""The database file: opening, one writer, and migrations."""

import shutil
import sqlite3
import time
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import UTC, datetime
from importlib import resources
from pathlib import Path
from threading import Condition, RLock
from typing import Literal

from . import file
from .errors import Busy, StoreError, TooLong, Unwritable
from .functions import teach

NO_ROOM = {"SQLITE_FULL", "SQLITE_IOERR_WRITE", "SQLITE_IOERR_SHMSIZE", "SQLITE_IOERR_SHMOPEN", "SQLITE_IOERR_TRUNCATE"}
"""What opening fails with where the disk is full."""
BUSY_MS = 2000
LONGEST_READ_S = 10.0


def now() -> str:
    """The time for a row, UTC to the millisecond."""
    return datetime.now(UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z")


def at(seconds: float) -> str:
    """A point in time, in seconds since 1970, as it is kept and told: UTC to the second."""
    return datetime.fromtimestamp(seconds, UTC).isoformat(timespec="seconds").replace("+00:00", "Z")


def _translated(error: sqlite3.Error, path: Path) -> StoreError:
    name = getattr(error, "sqlite_errorname", "") or ""
    if "BUSY" in name or "LOCKED" in name:
        return Busy(f"{path} is in use by another program. Close it there, then try again.")
    if "INTERRUPT" in name:
        return TooLong("That took too long to look up. Ask for less at once.")
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
        """Open `path`, making it when missing, and bring it up to date. Raises StoreError.

        A file that is not ours, is newer or damaged is refused, and not touched. One that may lack what was written
        last is copied aside first; where the disk is full, all there is is read, and nothing written.
        """
        self.trouble = ""
        """What whoever uses the workshop has to know; empty where all is well."""
        self.frozen = False
        """Whether it can only be read, as there is no room to write."""
        self.path = path
        self._writing = RLock()
        self._nobody, self._reading = Condition(), 0
        self._idle: list[sqlite3.Connection] = []
        self._here: file.Here | None = None
        with self._translating():
            try:
                path.parent.mkdir(parents=True, exist_ok=True)
            except OSError as error:
                raise Unwritable(f"{path.parent} cannot be made: {error.strerror}.") from None
            state = file.look(path)
            if state != "new":
                with file.to_look(path) as looked:
                    refuse_newer(looked)
            before = _copied_aside(path) if state == "without its -wal" else None
            try:
                self._open_anew()
            except sqlite3.Error as error:
                if not _no_room(error) or state == "new":
                    raise
                self._freeze()
        self._here = file.here(path)
        if before:
            self._say_what_may_be_missing(before)

    def _open_anew(self) -> None:
        self._writer = self._connect()
        try:
            self._open()
        except BaseException:
            self._writer.close()
            raise

    def _freeze(self) -> None:
        """Open it to be read only: without room beside it for what readers share, one reads at a time."""
        self._writer = self._connect()
        self._writer.execute("PRAGMA locking_mode = EXCLUSIVE")
        self._writer.execute("PRAGMA query_only = ON")
        had = set(applied(self._writer))
        if had < {number for number, _, _ in migrations()}:
            self._writer.close()
            raise Unwritable(
                f"{self.path} is of an earlier Lumso, and the disk has no room to bring it up to date. Free some space."
            )
        self.frozen = True
        self.trouble = (
            "The disk is full. All that is kept can be read and exported, and nothing new is saved. Free some space, "
            "then start Lumso again."
        )

    def _say_what_may_be_missing(self, before: Path) -> None:
        """After a start without what stood beside the file: nothing can tell whether that was lost."""
        with self.read() as connection:
            (last,) = connection.execute(
                "SELECT max(at) FROM (SELECT max(saved_at) AS at FROM job_revision UNION ALL SELECT max(saved_at) "
                "FROM workshop_entry UNION ALL SELECT max(saved_at) FROM setting)"
            ).fetchone()
        since = datetime.fromisoformat(last).astimezone().strftime("%d.%m.%Y %H:%M") if last else "the beginning"
        self.trouble = (
            f"Lumso was not ended properly, and {file.wal_of(self.path).name}, which holds what was saved last, is not "
            f"there. If another program took it up, nothing is missing; else what was saved after {since} is. The file "
            f"as it was is kept as {before.name}."
        )

    def _open(self) -> None:
        self._writer.execute("PRAGMA journal_mode = WAL")
        self._writer.execute("PRAGMA synchronous = FULL")
        migrate(self._writer)
        self._writer.execute(f"PRAGMA user_version = {file.IN_USE}")
        # From here the file alone says what it is, and that more stands beside it.
        self._writer.execute("PRAGMA wal_checkpoint(TRUNCATE)")

    def _connect(self) -> sqlite3.Connection:
        connection = sqlite3.connect(self.path, timeout=BUSY_MS / 1000, isolation_level=None, check_same_thread=False)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA foreign_keys = ON")
        teach(connection)
        return connection

    @contextmanager
    def _reader(self) -> Iterator[sqlite3.Connection]:
        """A connection to read by, until it is given back."""
        if self.frozen:
            with self._writing:
                yield self._writer
            return
        reader = self._borrowed()
        try:
            yield reader
        finally:
            self._idle.append(reader)

    def _borrowed(self) -> sqlite3.Connection:
        """A connection nobody reads by, which can only read."""
        with suppress(IndexError):
            return self._idle.pop()
        reader = self._connect()
        reader.execute("PRAGMA query_only = ON")
        return reader

    @contextmanager
    def _translating(self) -> Iterator[None]:
        try:
            yield
        except sqlite3.Error as error:
            raise _translated(error, self.path) from error

    def _still_here(self) -> None:
        """Raises Unwritable where the file was deleted or another put in its place: what is written would be lost."""
        if file.here(self.path) != self._here:
            raise Unwritable(
                f"{self.path} was deleted, moved or replaced while Lumso ran. Nothing is read or saved until it is put "
                "back, or Lumso is started again."
            )

    @contextmanager
    def read(self, longest_s: float | None = None) -> Iterator[sqlite3.Connection]:
        """A connection that can only read, and gives up what nobody waits for: what takes longer than LONGEST_READ_S,
        where nothing else is said. Raises TooLong.
        """
        with self._translating(), self._counted():
            self._still_here()
            with self._reader() as reader:
                until = time.monotonic() + (LONGEST_READ_S if longest_s is None else longest_s)
                reader.set_progress_handler(lambda: time.monotonic() > until, 10_000)
                yield reader

    @contextmanager
    def write(self) -> Iterator[sqlite3.Connection]:
        """A transaction: committed when the block ends, taken back when it raises. One inside another is part of it."""
        with self._writing, self._translating():
            if self.frozen:
                raise Unwritable(f"{self.trouble} This was not saved.")
            if self._writer.in_transaction:
                yield self._writer
                return
            self._still_here()
            self._writer.execute("BEGIN IMMEDIATE")
            try:
                yield self._writer
            except BaseException:
                self._writer.execute("ROLLBACK")
                raise
            self._writer.execute("COMMIT")

    @contextmanager
    def _counted(self) -> Iterator[None]:
        """One more that reads, while nobody exchanges the file."""
        with self._nobody:
            self._reading += 1
        try:
            yield
        finally:
            with self._nobody:
                self._reading -= 1
                self._nobody.notify_all()

    def is_untouched(self) -> bool:
        """Whether nobody ever kept anything here."""
        tables = ("job", "workshop_entry", "setting", "set_aside", "answered")
        with self.read() as connection:
            return not any(connection.execute(f"SELECT 1 FROM {table} LIMIT 1").fetchone() for table in tables)

    def version(self) -> int:
        """A number that changes whenever the workshop does: what was read of it at the same number is still true."""
        with self.read() as connection:
            return int(connection.execute("SELECT workshop FROM clock").fetchone()[0])

    def state(self) -> tuple[int, int]:
        """What the workshop, and the work on jobs, are at: either rises whenever something of it changes."""
        with self.read() as connection:
            row = connection.execute("SELECT workshop, touched FROM clock").fetchone()
        return int(row["workshop"]), int(row["touched"])

    def stamp(self) -> tuple[int, int]:
        """What is another whenever anything at all was written here, by whomever."""
        with self._writing, self._translating():
            (others,) = self._writer.execute("PRAGMA data_version").fetchone()
            return int(others), self._writer.total_changes

    @contextmanager
    def exchanged(self) -> Iterator[None]:
        """While the block runs nobody reads or writes and the file is let go of, so that another can take its place.

        Whatever stands there afterwards is opened. Raises Busy where somebody reads for too long.
        """
        with self._writing, self._nobody:
            # Whoever still read the file would take away, when done, what stands beside the one in its place.
            if not self._nobody.wait_for(lambda: self._reading == 0, LONGEST_READ_S + 1):
                raise Busy("Somebody is still reading. Try again in a moment.")
            (state,) = self._writer.execute("SELECT workshop FROM clock").fetchone()
            self.close()
            try:
                yield
            finally:
                with self._translating():
                    self._writer = self._connect()
                    self._open()
                    # No number of before says anything of what stands here now.
                    self._writer.execute("UPDATE clock SET workshop = max(workshop, ?) + 1", (state,))
                    self._here = file.here(self.path)

    def close(self) -> None:
        """Let go of the file, whole in itself."""
        while self._idle:
            self._idle.pop().close()
        if file.here(self.path) == self._here:
            with suppress(sqlite3.Error):  # full, locked or read-only: what stands beside it still holds all
                self._writer.execute(f"PRAGMA user_version = {file.CLOSED}")
        self._writer.close()
        if file.wal_of(self.path).exists():  # another program goes on using it
            with suppress(sqlite3.Error), closing(sqlite3.connect(self.path, timeout=1, isolation_level=None)) as other:
                other.execute(f"PRAGMA user_version = {file.IN_USE}")


def _copied_aside(path: Path) -> Path:
    """The file as it is, beside it under a name of its own. Raises Unwritable."""
    before = file.aside_name(path)
    try:
        shutil.copyfile(path, before)
    except OSError as error:
        with suppress(OSError):
            before.unlink()
        raise Unwritable(
            f"{path} was not closed properly, and cannot be copied aside before it is opened: {error.strerror}."
        ) from None
    return before


def _no_room(error: sqlite3.Error) -> bool:
    """Whether it failed as nothing could be written."""
    name = getattr(error, "sqlite_errorname", "") or ""
    return name in NO_ROOM


def tick(connection: sqlite3.Connection, which: Literal["workshop", "touched"]) -> int:
    """The next number of a counter."""
    return int(connection.execute(f"UPDATE clock SET {which} = {which} + 1 RETURNING {which}").fetchone()[0])


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


def refuse_newer(connection: sqlite3.Connection) -> None:
    """Raises Unwritable for a database that a newer Lumso wrote."""
    if unknown := set(applied(connection)) - {number for number, _, _ in migrations()}:
        raise Unwritable(
            f"This database was written by a newer Lumso (it has migration {max(unknown)}). Update Lumso to open it."
        )


def migrate(connection: sqlite3.Connection, up_to: int | None = None) -> list[int]:
    """Apply what is pending, each migration in one transaction with its own record; returns their numbers.

    Raises Unwritable for a file written by a newer Lumso.
    """
    had, known = set(applied(connection)), migrations()
    teach(connection)
    refuse_newer(connection)
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
