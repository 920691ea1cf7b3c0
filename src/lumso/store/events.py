"""What was done on jobs: events, only ever added."""

from collections.abc import Collection
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


def add(db: Database, event_id: str, job_id: str, at_min: float, noted_min: float, document: str) -> int:
    """Add an event; returns its revision. The same again is not added twice; another under its id is refused.

    Raises NotFound for a job that is not there, StaleRevision where the id is taken.
    """
    with db.write() as connection:
        known = connection.execute("SELECT document, revision FROM event WHERE id = ?", (event_id,)).fetchone()
        if known is not None:
            if known["document"] != document:
                raise StaleRevision(0, known["revision"])
            return int(known["revision"])
        if connection.execute("SELECT 1 FROM job WHERE id = ?", (job_id,)).fetchone() is None:
            raise NotFound(f"There is no job {job_id!r}.")
        revision = tick(connection, "touched")
        connection.execute(
            "INSERT INTO event VALUES (?, ?, ?, ?, ?, ?)", (event_id, job_id, at_min, noted_min, revision, document)
        )
        return revision


def of_jobs(db: Database, jobs: Collection[str]) -> list[StoredEvent]:
    """The events of jobs, in the order they were noted."""
    found = []
    with db.read() as connection:
        for job in jobs:
            rows = connection.execute("SELECT * FROM event WHERE job_id = ? ORDER BY noted_min, id", (job,))
            found += [StoredEvent(r["id"], r["job_id"], r["document"], r["revision"]) for r in rows]
    return found
