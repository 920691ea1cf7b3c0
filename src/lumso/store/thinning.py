"""Old revisions let go by age, so that years of work do not grow without end; nothing anybody would miss goes."""

import sqlite3
from collections.abc import Iterable
from datetime import UTC, datetime, timedelta

from .database import Database

WHOLE = timedelta(days=30)
"""For so long every revision is kept."""

DAILY = timedelta(days=365)
"""For so long one of each day is kept; after that one of each month."""

STEPS = 200
"""So many steps of undo and redo from the head are kept, however old."""


def thin(db: Database, now: datetime | None = None, steps: int = STEPS) -> int:
    """Let go of old revisions of all jobs; returns how many.

    Never of the head, of `steps` steps of undo and redo from it, of the first and the newest of a job, and of what a
    printed batch was made from. What was made from one that goes is joined to the nearest kept one it came from, in
    the same transaction, and knows how many are gone between.
    """
    at = now or datetime.now(UTC)
    oldest = (at - WHOLE).isoformat()
    with db.read() as connection:
        rows = connection.execute("SELECT DISTINCT job_id FROM job_revision WHERE saved_at < ?", (oldest,)).fetchall()
    return sum(_thin_job(db, row["job_id"], at, steps) for row in rows)


def _thin_job(db: Database, job_id: str, at: datetime, steps: int) -> int:
    with db.write() as connection:
        rows = connection.execute(
            "SELECT number, parent, saved_at, turn FROM job_revision WHERE job_id = ?", (job_id,)
        ).fetchall()
        found = connection.execute("SELECT head FROM job WHERE id = ?", (job_id,)).fetchone()
        if found is None:
            return 0
        kept = _path(rows, found["head"], steps) | _by_age(rows, at)
        kept |= {min(r["number"] for r in rows), max(r["number"] for r in rows)}
        batches = connection.execute("SELECT revision FROM frozen_batch WHERE job_id = ?", (job_id,))
        kept |= {row["revision"] for row in batches}
        gone = [r["number"] for r in rows if r["number"] not in kept]
        for number in gone:
            _let_go(connection, job_id, number)
        return len(gone)


def _let_go(connection: sqlite3.Connection, job_id: str, number: int) -> None:
    mine = connection.execute(
        "SELECT parent, gap, turn FROM job_revision WHERE job_id = ? AND number = ?", (job_id, number)
    ).fetchone()
    connection.execute(
        "UPDATE job_revision SET parent = ?, gap = gap + 1 + ?, turn = ? WHERE job_id = ? AND parent = ?",
        (mine["parent"], mine["gap"], mine["turn"], job_id, number),
    )
    connection.execute("DELETE FROM job_revision WHERE job_id = ? AND number = ?", (job_id, number))


def _path(rows: Iterable[sqlite3.Row], head: int, steps: int) -> set[int]:
    """The head, and the steps of undo and redo that lead away from it."""
    parent = {row["number"]: row["parent"] for row in rows}
    newest: dict[int, tuple[int, int]] = {}
    for row in rows:
        if row["parent"] is not None:
            newest[row["parent"]] = max(newest.get(row["parent"], (0, 0)), (row["turn"], row["number"]))
    path = {head}
    back: int | None = head
    on = head
    for _ in range(steps):
        back = parent.get(back) if back is not None else None
        if back is not None:
            path.add(back)
        if on in newest:
            on = newest[on][1]
            path.add(on)
    return path


def _by_age(rows: Iterable[sqlite3.Row], at: datetime) -> set[int]:
    """All of the last while, one of each day before that, one of each month before that: the newest of each."""
    kept: dict[str, int] = {}
    for row in sorted(rows, key=lambda r: int(r["number"])):
        saved = str(row["saved_at"])
        age = at - datetime.fromisoformat(saved)
        which = f"{row['number']}" if age < WHOLE else saved[:10] if age < DAILY else saved[:7]
        kept[which] = row["number"]
    return set(kept.values())
