"""What was done on jobs: events, only ever added; and the pots that follow from them."""

import sqlite3
from collections.abc import Callable, Collection, Iterable, Sequence
from dataclasses import dataclass

from .database import Database, tick
from .errors import NotFound, StaleRevision


@dataclass(frozen=True)
class StoredEvent:
    """An event as the database holds it."""

    id: str
    job_id: str
    document: str
    revision: int
    noted_min: float = 0.0


@dataclass(frozen=True)
class NewEvent:
    """An event to be added. `pot` and `jar` are the pots it is of; "" for none."""

    id: str
    job_id: str
    at_min: float
    noted_min: float
    document: str
    pot: str = ""
    jar: str = ""


@dataclass(frozen=True)
class PotRow:
    """A pot as it is listed."""

    id: str
    job_id: str
    job: str
    code: str
    begun_min: float
    state: str
    left_g: float
    rate_of: str
    rate: float
    words: str
    document: str


@dataclass(frozen=True)
class Around:
    """What an event is decided by: all events of its job, and all of the pots it has to do with, in order."""

    of_job: Sequence[StoredEvent]
    of_pots: Sequence[StoredEvent]


Decide = Callable[[Around], StoredEvent | tuple[str, Iterable[PotRow]]]
"""What becomes of a new event: another that says the same already; or its document and the pots as they are with it.
Raises what it refuses."""


def add(db: Database, new: NewEvent, decide: Decide | None = None) -> StoredEvent:
    """Add an event; returns it as it is kept, or the one that says the same already. It is added once however often.

    Decided and added in one transaction. Raises NotFound for a job that is not there, StaleRevision where the id is
    taken by another.
    """
    with db.write() as connection:
        row = connection.execute("SELECT * FROM event WHERE id = ?", (new.id,)).fetchone()
        if row is not None:
            if (row["job_id"], row["at_min"], row["noted_min"]) != (new.job_id, new.at_min, new.noted_min):
                raise StaleRevision(0, row["revision"])
            return _event(row)
        known = connection.execute("SELECT 1 FROM job WHERE id = ?", (new.job_id,)).fetchone()
        of_pots = _of_pots(connection, {new.pot, new.jar} - {""})
        if known is None and not of_pots:
            raise NotFound(f"There is no job {new.job_id!r}.")
        document, pots = new.document, list[PotRow]()
        if decide is not None:
            decided = decide(Around(_of_job(connection, new.job_id), of_pots))
            if isinstance(decided, StoredEvent):
                return decided
            document, pots = decided[0], list(decided[1])
        revision = tick(connection, "touched")
        connection.execute(
            "INSERT INTO event (id, job_id, at_min, noted_min, revision, document, pot, jar) "
            "VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
            (new.id, new.job_id, new.at_min, new.noted_min, revision, document, new.pot, new.jar),
        )
        taught = [p.id for p in pots if p.rate_of] or _taught(connection, [p.id for p in pots])
        put_pots(connection, pots)
        if taught:
            tick(connection, "workshop")  # what was learnt of rates may be another: what was planned by it is, too
        return StoredEvent(new.id, new.job_id, document, revision, new.noted_min)


def _taught(connection: sqlite3.Connection, pots: Sequence[str]) -> bool:
    """Whether rates were learnt of any of these pots."""
    marks = ", ".join("?" for _ in pots)
    row = connection.execute(f"SELECT 1 FROM pot WHERE rate_of <> '' AND id IN ({marks})", list(pots)).fetchone()
    return row is not None


def put_pots(connection: sqlite3.Connection, pots: Iterable[PotRow]) -> None:
    """Write pots as they follow from their events now."""
    connection.executemany(
        "INSERT OR REPLACE INTO pot (id, job_id, job, code, begun_min, state, left_g, rate_of, rate, words, document) "
        "VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, folded(?), ?)",
        [
            (p.id, p.job_id, p.job, p.code, p.begun_min, p.state, p.left_g, p.rate_of, p.rate, p.words, p.document)
            for p in pots
        ],
    )


def _event(row: sqlite3.Row) -> StoredEvent:
    return StoredEvent(row["id"], row["job_id"], row["document"], row["revision"], row["noted_min"])


def _of_job(connection: sqlite3.Connection, job: str) -> list[StoredEvent]:
    rows = connection.execute("SELECT * FROM event WHERE job_id = ? ORDER BY noted_min, id", (job,))
    return [_event(r) for r in rows]


def _of_pots(connection: sqlite3.Connection, pots: Collection[str]) -> list[StoredEvent]:
    """The events of pots, and of all that something was carried to or from."""
    found: dict[str, sqlite3.Row] = {}
    known: set[str] = set()
    new = set(pots)
    while new:
        known |= new
        reached: set[str] = set()
        for pot in new:
            for row in connection.execute("SELECT * FROM event WHERE pot = ? UNION SELECT * FROM event WHERE jar = ?",
                                          (pot, pot)):  # fmt: skip
                found[row["id"]] = row
                reached |= {row["pot"], row["jar"]}
        new = reached - known - {""}
    return [_event(r) for r in sorted(found.values(), key=lambda r: (r["noted_min"], r["id"]))]


def of_jobs(db: Database, jobs: Collection[str]) -> list[StoredEvent]:
    """The events of jobs, in the order they were noted."""
    with db.read() as connection:
        return [event for job in jobs for event in _of_job(connection, job)]


def of_pots(db: Database, pots: Collection[str]) -> list[StoredEvent]:
    """The events of pots, and of all pots that something was carried to or from, in the order they were noted."""
    with db.read() as connection:
        return _of_pots(connection, pots)


def by_id(db: Database, event_id: str) -> StoredEvent | None:
    """An event; None where there is none."""
    with db.read() as connection:
        row = connection.execute("SELECT * FROM event WHERE id = ?", (event_id,)).fetchone()
    return _event(row) if row else None


def pot_of(db: Database, event_id: str) -> tuple[str, str]:
    """The pot and the jar that an event is of."""
    with db.read() as connection:
        row = connection.execute("SELECT pot, jar FROM event WHERE id = ?", (event_id,)).fetchone()
    return (row["pot"], row["jar"]) if row else ("", "")
