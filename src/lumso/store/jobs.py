"""Jobs as documents in append-only revisions."""

import sqlite3
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Literal

from . import keys
from .database import Database, now, tick
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
    put_away: bool
    gap: int
    """How many revisions were let go between this one and the one undo goes back to."""


@dataclass(frozen=True)
class Listed:
    """A job in a list. `summary` is what this revision came to, in the state `summed_at` of the workshop."""

    id: str
    revision: int
    name: str
    saved_at: str
    touched: int
    summary: str | None
    summed_at: int


@dataclass(frozen=True)
class Page:
    """Jobs of a list, and how many there are in all; `more` where it goes on."""

    jobs: tuple[Listed, ...]
    count: int
    more: bool


@dataclass(frozen=True)
class Gone:
    """What went with a job that was deleted for good, and what is kept of it."""

    revisions: int
    batches_kept: int


SELECT = """
SELECT job.id, job.put_away, r.gap, r.number AS revision, r.document, r.saved_at, r.parent IS NOT NULL AS can_undo,
       EXISTS (SELECT 1 FROM job_revision AS child
               WHERE child.job_id = job.id AND child.parent = r.number) AS can_redo
FROM job JOIN job_revision AS r ON r.job_id = job.id
"""


def _stored(row: sqlite3.Row) -> StoredJob:
    return StoredJob(
        row["id"],
        row["revision"],
        row["document"],
        row["saved_at"],
        bool(row["can_undo"]),
        bool(row["can_redo"]),
        bool(row["put_away"]),
        row["gap"],
    )


def _get(connection: sqlite3.Connection, job_id: str, number: int | None = None) -> StoredJob:
    """A job at one of its revisions: its head, where none is said."""
    row = connection.execute(
        f"{SELECT} WHERE job.id = ? AND r.number = coalesce(?, job.head)", (job_id, number)
    ).fetchone()
    if row is None:
        what = f"job {job_id!r}" if number is None else f"revision {number} of job {job_id!r}"
        raise NotFound(f"There is no {what}.")
    return _stored(row)


def get(db: Database, job_id: str) -> StoredJob:
    """The job at its head. Raises NotFound."""
    with db.read() as connection:
        return _get(connection, job_id)


def at(db: Database, job_id: str, number: int) -> StoredJob:
    """The job as one of its revisions has it. Raises NotFound."""
    with db.read() as connection:
        return _get(connection, job_id, number)


def has(db: Database, job_id: str, number: int) -> bool:
    """Whether a revision of a job is still there."""
    with db.read() as connection:
        asked = "SELECT 1 FROM job_revision WHERE job_id = ? AND number = ?"
        return connection.execute(asked, (job_id, number)).fetchone() is not None


def head(db: Database, job_id: str) -> int:
    """The revision a job is at; 0 where there is none such."""
    with db.read() as connection:
        row = connection.execute("SELECT head FROM job WHERE id = ?", (job_id,)).fetchone()
        return 0 if row is None else int(row["head"])


def told(db: Database, job_id: str, key: str) -> int | None:
    """The revision a job came to under a key; None where nothing was asked under it. Raises OtherKey."""
    with db.read() as connection:
        return keys.told(connection, key, f"job/{job_id}")


def back_from(db: Database, job_id: str) -> list[StoredJob]:
    """The revisions a job's head was made from, the nearest first, at most 50. Raises NotFound."""
    with db.read() as connection:
        numbers = connection.execute(
            "WITH RECURSIVE back (number, steps) AS (SELECT head, 0 FROM job WHERE id = ?1 UNION ALL "
            "SELECT r.parent, steps + 1 FROM back JOIN job_revision AS r ON r.job_id = ?1 AND r.number = back.number "
            "WHERE r.parent IS NOT NULL AND steps < 50) SELECT number FROM back WHERE steps > 0 ORDER BY steps",
            (job_id,),
        )
        return [_get(connection, job_id, row["number"]) for row in numbers.fetchall()]


Order = Literal["last", "name"]


def page(db: Database, most: int, before: int | None = None, search: str = "", away: bool = False,
         order: Order = "last") -> Page:  # fmt: skip
    """Jobs whose name holds `search`; put away, or not. The one last worked on first, from before `touched` on; or by
    name, from the place `before` on."""
    sought = "job.put_away = :away AND instr(folded(r.name), folded(:search)) > 0"
    join = "FROM job JOIN job_revision AS r ON r.job_id = job.id AND r.number = job.head"
    asked = {"away": int(away), "search": search.strip(), "before": before, "most": most + 1}
    asked |= {"by_name": order == "name", "skip": (before or 0) if order == "name" else 0}
    with db.read() as connection:
        count = connection.execute(f"SELECT count(*) {join} WHERE {sought}", asked).fetchone()[0]
        rows = connection.execute(
            "SELECT job.id, job.head, job.touched, r.name, r.saved_at, r.summary, r.summed_at "
            f"{join} WHERE {sought} AND (:before IS NULL OR :by_name OR job.touched < :before) ORDER BY "
            "CASE WHEN :by_name THEN folded(r.name) END, job.touched DESC LIMIT :most OFFSET :skip",
            asked,
        ).fetchall()
    found = tuple(
        Listed(r["id"], r["head"], r["name"], r["saved_at"], r["touched"], r["summary"], r["summed_at"])
        for r in rows[:most]
    )
    return Page(found, int(count), len(rows) > most)


def sum_up(db: Database, summaries: Iterable[tuple[str, int, str, int]]) -> None:
    """Keep what revisions come to in a list: (job, revision, summary, state of the workshop)."""
    with db.write() as connection:
        connection.executemany(
            "UPDATE job_revision SET summary = ?3, summed_at = ?4 WHERE job_id = ?1 AND number = ?2", list(summaries)
        )


def _touch(connection: sqlite3.Connection, job_id: str, head: int) -> None:
    """Move a job's head; it was worked on now."""
    connection.execute(
        "UPDATE job SET head = ?, opened_at = ?, touched = ? WHERE id = ?",
        (head, now(), tick(connection, "touched"), job_id),
    )


def _parent(connection: sqlite3.Connection, job_id: str, number: int) -> int | None:
    """The revision that one was made from; None for the first."""
    found: int | None = connection.execute(
        "SELECT parent FROM job_revision WHERE job_id = ? AND number = ?", (job_id, number)
    ).fetchone()["parent"]
    return found


def _append(connection: sqlite3.Connection, job_id: str, parent: int | None, name: str, document: str) -> int:
    latest = connection.execute("SELECT max(number) FROM job_revision WHERE job_id = ?", (job_id,)).fetchone()[0]
    number = int(latest or 0) + 1
    connection.execute(
        "INSERT INTO job_revision (job_id, number, parent, name, document, saved_at, turn) "
        "VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?2)",
        (job_id, number, parent, name, document, now()),
    )
    return number


def create(db: Database, name: str, document: str, key: str = "") -> StoredJob:
    """A new job with its first revision. The same again under the same key is the job it made."""
    with db.write() as connection:
        if before := keys.made(connection, key):
            return _get(connection, before.removeprefix("job/"))
        job_id = new_id()
        connection.execute(
            "INSERT INTO job (id, head, created_at, opened_at) VALUES (?, 1, ?, ?)", (job_id, now(), now())
        )
        _touch(connection, job_id, _append(connection, job_id, None, name, document))
        keys.tell(connection, key, f"job/{job_id}", 1)
        return _get(connection, job_id)


Change = Callable[[sqlite3.Connection, StoredJob], int | None]
"""What is done to a job at its head: the revision that becomes the head, None where nothing moves."""


def _changed(db: Database, job_id: str, read: int, key: str, change: Change) -> StoredJob:
    """A change of a job's head. Asked again under the same key: what it came to then, whatever was done since."""
    with db.write() as connection:
        what = f"job/{job_id}"
        done = keys.told(connection, key, what)
        if done is not None:
            return _get(connection, job_id, done)
        stored = _get(connection, job_id)
        if stored.revision != read:
            raise StaleRevision(read, stored.revision)
        head = change(connection, stored)
        if head is not None:
            _touch(connection, job_id, head)
        stored = _get(connection, job_id)
        keys.tell(connection, key, what, stored.revision)
        return stored


def _beside(connection: sqlite3.Connection, job_id: str, number: int, document: str) -> int | None:
    """The revision before this one, or else the newest made from it, when it says just the same."""
    row = connection.execute(
        "SELECT r.number FROM job_revision AS r JOIN job_revision AS now ON now.job_id = r.job_id AND now.number = ? "
        "WHERE r.job_id = ? AND r.document = ? AND (r.number = now.parent OR r.number = "
        "(SELECT number FROM job_revision WHERE job_id = now.job_id AND parent = now.number "
        "ORDER BY turn DESC, number DESC LIMIT 1)) "
        "ORDER BY r.number LIMIT 1",
        (number, job_id, document),
    ).fetchone()
    return None if row is None else int(row["number"])


TYPED_OVER_KEPT = timedelta(days=1)
"""For so long what was typed over is kept: another device may have it before it, and go on from there."""

LOOSE = """
job_id = :job AND number <> (SELECT head FROM job WHERE id = :job)
AND NOT EXISTS (SELECT 1 FROM job_revision AS child WHERE child.job_id = :job AND child.parent = job_revision.number)
AND NOT EXISTS (SELECT 1 FROM frozen_batch AS f WHERE f.job_id = :job AND f.revision = job_revision.number)
"""
"""A revision that nothing was made of, nor printed from."""


def _typed_over(connection: sqlite3.Connection, job_id: str, number: int, made: int) -> None:
    """A revision gives its place to another: redo never leads to it, and it goes after a while."""
    connection.execute("UPDATE job_revision SET turn = 0 WHERE job_id = ? AND number = ?", (job_id, number))
    keys.moved(connection, f"job/{job_id}", number, made)


def _let_go_typed_over(connection: sqlite3.Connection, job_id: str) -> None:
    before = (datetime.now(UTC) - TYPED_OVER_KEPT).isoformat()
    connection.execute(
        f"DELETE FROM job_revision WHERE turn = 0 AND saved_at < :before AND {LOOSE}", {"job": job_id, "before": before}
    )


def save(db: Database, job_id: str, read: int, name: str, document: str, key: str = "", goes_on: bool = False
         ) -> StoredJob:  # fmt: skip
    """Append a revision made from revision `read`; the same document again appends nothing.

    What `goes_on` (somebody is typing) takes the place of what `read` was: it is one step of undo.

    A document that says what the revision before said moves the head back to it, one that says what the newest
    revision made from this one says moves it on: undone and done again where nobody could ask the server.
    Asked again under the same key it comes to the same. Raises NotFound, and StaleRevision when the head has moved
    meanwhile.
    """

    def saved(connection: sqlite3.Connection, stored: StoredJob) -> int | None:
        if stored.document == document:
            return None
        beside = _beside(connection, job_id, read, document)
        if beside is not None:
            return beside
        _let_go_typed_over(connection, job_id)
        parent = _parent(connection, job_id, read) if goes_on else None
        made = _append(connection, job_id, parent or read, name, document)
        if parent is not None:
            _typed_over(connection, job_id, read, made)
        return made

    return _changed(db, job_id, read, key, saved)


def undo(db: Database, job_id: str, read: int, key: str = "") -> StoredJob:
    """Move the head to the revision it was made from; at the first one nothing moves. Raises as `save` does."""

    def back(connection: sqlite3.Connection, stored: StoredJob) -> int | None:
        return _parent(connection, job_id, stored.revision)

    return _changed(db, job_id, read, key, back)


def redo(db: Database, job_id: str, read: int, key: str = "") -> StoredJob:
    """Move the head to the newest revision made from it; where there is none nothing moves. Raises as `save` does."""

    def on(connection: sqlite3.Connection, stored: StoredJob) -> int | None:
        row = connection.execute(
            "SELECT number FROM job_revision WHERE job_id = ? AND parent = ? ORDER BY turn DESC, number DESC LIMIT 1",
            (job_id, stored.revision),
        ).fetchone()
        return None if row is None else int(row["number"])

    return _changed(db, job_id, read, key, on)


def go_back_to(db: Database, job_id: str, read: int, number: int, key: str = "") -> StoredJob:
    """Move the head to one of the revisions it was made from: as many undos at once. Raises as `save` does."""

    def back(connection: sqlite3.Connection, stored: StoredJob) -> int | None:
        return _get(connection, job_id, number).revision

    return _changed(db, job_id, read, key, back)


def put_away(db: Database, job_id: str, away: bool) -> None:
    """Take a job out of the list, or bring it back; its revisions stay. Raises NotFound."""
    with db.write() as connection:
        _get(connection, job_id)
        connection.execute("UPDATE job SET put_away = ? WHERE id = ?", (int(away), job_id))


def what_goes(db: Database, job_id: str) -> Gone:
    """What would go with a job, and what would be kept of it. Raises NotFound."""
    with db.read() as connection:
        _get(connection, job_id)
        return _gone(connection, job_id)


def _gone(connection: sqlite3.Connection, job_id: str) -> Gone:
    def count(table: str) -> int:
        return int(connection.execute(f"SELECT count(*) FROM {table} WHERE job_id = ?", (job_id,)).fetchone()[0])

    return Gone(count("job_revision"), count("frozen_batch"))


def delete(db: Database, job_id: str) -> Gone:
    """Delete a job that is put away, with all its revisions, for good. Batches printed from it are kept.

    Raises NotFound, also for one that is not put away.
    """
    with db.write() as connection:
        if not _get(connection, job_id).put_away:
            raise NotFound(f"Job {job_id!r} is not put away: put it away before it is deleted for good.")
        gone = _gone(connection, job_id)
        connection.execute("UPDATE job_revision SET parent = NULL WHERE job_id = ?", (job_id,))
        connection.execute("DELETE FROM job_revision WHERE job_id = ?", (job_id,))
        connection.execute("DELETE FROM job WHERE id = ?", (job_id,))
        return gone
