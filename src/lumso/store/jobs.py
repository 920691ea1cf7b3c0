"""Jobs as documents in append-only revisions."""

import sqlite3
from dataclasses import dataclass

from .database import Database, now
from .errors import NotFound, StaleRevision
from .ids import new_id


@dataclass(frozen=True)
class StoredJob:
    """A job as the database holds it: the document at its head, and whether undo and redo lead anywhere."""

    id: str
    revision: int
    document: str
    saved_at: str
    can_undo: bool
    can_redo: bool


SELECT = """
SELECT job.id, r.number AS revision, r.document, r.saved_at, r.parent IS NOT NULL AS can_undo,
       EXISTS (SELECT 1 FROM job_revision AS child
               WHERE child.job_id = job.id AND child.parent = r.number) AS can_redo
FROM job JOIN job_revision AS r ON r.job_id = job.id AND r.number = job.head
"""


def _stored(row: sqlite3.Row) -> StoredJob:
    return StoredJob(
        row["id"],
        row["revision"],
        row["document"],
        row["saved_at"],
        bool(row["can_undo"]),
        bool(row["can_redo"]),
    )


def _get(connection: sqlite3.Connection, job_id: str) -> StoredJob:
    row = connection.execute(f"{SELECT} WHERE job.id = ?", (job_id,)).fetchone()
    if row is None:
        raise NotFound(f"There is no job {job_id!r}.")
    return _stored(row)


def get(db: Database, job_id: str) -> StoredJob:
    """The job at its head. Raises NotFound."""
    with db.read() as connection:
        return _get(connection, job_id)


def every(db: Database) -> list[StoredJob]:
    """All jobs that are not put away, the one last worked on first."""
    with db.read() as connection:
        rows = connection.execute(f"{SELECT} WHERE NOT job.put_away ORDER BY job.opened_at DESC, job.id DESC")
        return [_stored(row) for row in rows]


def _append(connection: sqlite3.Connection, job_id: str, parent: int | None, name: str, document: str) -> None:
    latest = connection.execute("SELECT max(number) FROM job_revision WHERE job_id = ?", (job_id,)).fetchone()[0]
    number = (latest or 0) + 1
    connection.execute(
        "INSERT INTO job_revision (job_id, number, parent, name, document, saved_at) VALUES (?, ?, ?, ?, ?, ?)",
        (job_id, number, parent, name, document, now()),
    )
    connection.execute("UPDATE job SET head = ?, opened_at = ? WHERE id = ?", (number, now(), job_id))


def create(db: Database, name: str, document: str) -> StoredJob:
    """A new job with its first revision."""
    job_id = new_id()
    with db.write() as connection:
        connection.execute(
            "INSERT INTO job (id, head, created_at, opened_at) VALUES (?, 1, ?, ?)", (job_id, now(), now())
        )
        _append(connection, job_id, None, name, document)
        return _get(connection, job_id)


def _expect(connection: sqlite3.Connection, job_id: str, read: int) -> StoredJob:
    stored = _get(connection, job_id)
    if stored.revision != read:
        raise StaleRevision(read, stored.revision)
    return stored


def _beside(connection: sqlite3.Connection, job_id: str, number: int, document: str) -> int | None:
    """The revision before this one, or else the newest made from it, when it says just the same."""
    row = connection.execute(
        "SELECT r.number FROM job_revision AS r JOIN job_revision AS now ON now.job_id = r.job_id AND now.number = ? "
        "WHERE r.job_id = ? AND r.document = ? AND (r.number = now.parent OR r.number = "
        "(SELECT max(number) FROM job_revision WHERE job_id = now.job_id AND parent = now.number)) "
        "ORDER BY r.number LIMIT 1",
        (number, job_id, document),
    ).fetchone()
    return None if row is None else int(row["number"])


def save(db: Database, job_id: str, read: int, name: str, document: str) -> StoredJob:
    """Append a revision made from revision `read`; the same document again appends nothing.

    A document that says what the revision before said moves the head back to it, one that says what the newest
    revision made from this one says moves it on: undone and done again where nobody could ask the server.
    Raises NotFound, and StaleRevision when the head has moved meanwhile.
    """
    with db.write() as connection:
        if _expect(connection, job_id, read).document != document:
            beside = _beside(connection, job_id, read, document)
            if beside is None:
                _append(connection, job_id, read, name, document)
            else:
                connection.execute("UPDATE job SET head = ?, opened_at = ? WHERE id = ?", (beside, now(), job_id))
        return _get(connection, job_id)


def undo(db: Database, job_id: str, read: int) -> StoredJob:
    """Move the head to the revision it was made from; at the first one nothing moves. Raises as `save` does."""
    with db.write() as connection:
        _expect(connection, job_id, read)
        connection.execute(
            "UPDATE job SET opened_at = ?, head = coalesce((SELECT parent FROM job_revision "
            "WHERE job_id = job.id AND number = job.head), head) WHERE id = ?",
            (now(), job_id),
        )
        return _get(connection, job_id)


def redo(db: Database, job_id: str, read: int) -> StoredJob:
    """Move the head to the newest revision made from it; where there is none nothing moves. Raises as `save` does."""
    with db.write() as connection:
        _expect(connection, job_id, read)
        connection.execute(
            "UPDATE job SET opened_at = ?, head = coalesce((SELECT max(number) FROM job_revision "
            "WHERE job_id = job.id AND parent = job.head), head) WHERE id = ?",
            (now(), job_id),
        )
        return _get(connection, job_id)


def put_away(db: Database, job_id: str, away: bool) -> None:
    """Take a job out of the list, or bring it back; its revisions stay. Raises NotFound."""
    with db.write() as connection:
        _get(connection, job_id)
        connection.execute("UPDATE job SET put_away = ? WHERE id = ?", (int(away), job_id))
