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


@dataclass(frozen=True)
class SightingRow:
    """What an event says of how long something takes."""

    event: str
    kind: str
    of: str
    job_id: str
    at_min: float
    planned: float
    seen: float
    dry: bool = True


@dataclass(frozen=True)
class Decided:
    """What a new event comes to: its document, the pots as they are with it, what it says of how long things take, and
    the event whose say is taken back."""

    document: str
    pots: Sequence[PotRow] = ()
    sighting: SightingRow | None = None
    gone: str = ""


Decide = Callable[[Around], StoredEvent | Decided]
"""What becomes of a new event: another that says the same already, or what it comes to. Raises what it refuses."""


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
        decided = decide(Around(_of_job(connection, new.job_id), of_pots)) if decide else Decided(new.document)
        if isinstance(decided, StoredEvent):
            return decided
        revision = tick(connection, "touched")
        connection.execute(
            "INSERT INTO event (id, job_id, at_min, noted_min, revision, document, pot, jar) "
            "VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
            (new.id, new.job_id, new.at_min, new.noted_min, revision, decided.document, new.pot, new.jar),
        )
        if _teaches(connection, decided):
            tick(connection, "workshop")  # what was learnt may be another: what was planned by it is, too
        put_pots(connection, decided.pots)
        return StoredEvent(new.id, new.job_id, decided.document, revision, new.noted_min)


def _teaches(connection: sqlite3.Connection, decided: Decided) -> bool:
    """Write what an event says of how long things take; whether anything that is learnt changes by it or its pots."""
    changed = any(p.rate_of for p in decided.pots)
    if decided.pots and not changed:
        marks = ", ".join("?" for _ in decided.pots)
        names = [p.id for p in decided.pots]
        rated = connection.execute(f"SELECT 1 FROM pot WHERE rate_of <> '' AND id IN ({marks})", names).fetchone()
        changed = rated is not None
    if decided.gone:
        gone = connection.execute("DELETE FROM sighting WHERE event = ?", (decided.gone,))
        changed = changed or gone.rowcount > 0
    if (s := decided.sighting) is not None:
        row = (s.event, s.kind, s.of, s.job_id, s.at_min, s.planned, s.seen, int(s.dry))
        connection.execute("INSERT OR REPLACE INTO sighting VALUES (?, ?, ?, ?, ?, ?, ?, ?)", row)
        changed = True
    return changed


def sightings(db: Database, kind: str) -> list[SightingRow]:
    """What was seen of how long things take, in order of time."""
    with db.read() as connection:
        rows = connection.execute("SELECT * FROM sighting WHERE kind = ? ORDER BY at_min, event", (kind,))
        return [
            SightingRow(r["event"], kind, r["of"], r["job_id"], r["at_min"], r["planned"], r["seen"], bool(r["dry"]))
            for r in rows
        ]


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


BY_POT = "SELECT * FROM event WHERE pot = ? AND pot <> '' UNION SELECT * FROM event WHERE jar = ? AND jar <> ''"
"""That a pot has a name is said for the index, which holds only those that have one."""


def _of_pots(connection: sqlite3.Connection, pots: Collection[str]) -> list[StoredEvent]:
    """The events of pots, and of all that something was carried to or from."""
    found: dict[str, sqlite3.Row] = {}
    known: set[str] = set()
    new = set(pots)
    while new:
        known |= new
        reached: set[str] = set()
        for pot in new:
            for row in connection.execute(BY_POT, (pot, pot)):
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


def of_acts(db: Database, act: str, since_min: float) -> list[StoredEvent]:
    """The events of an act from a minute on, and all that correct or take back any, in the order they were noted."""
    with db.read() as connection:
        rows = connection.execute(
            "SELECT * FROM event WHERE (json_extract(document, '$.act.act') = ? AND at_min >= ?) "
            "OR json_extract(document, '$.did') IN ('corrected', 'retracted') ORDER BY noted_min, id",
            (act, since_min),
        )
        return [_event(row) for row in rows]


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
