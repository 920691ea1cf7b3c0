"""Everything the workshop holds, as one open JSON document, written as it is read."""

import json
import sqlite3
from collections.abc import Iterator

from .database import Database, now

FORMAT, VERSION = "lumso-everything", 1


def _value(document: str) -> str:
    """A document as JSON; one that is none as its text."""
    try:
        json.loads(document)
    except ValueError:
        return json.dumps(document, ensure_ascii=False)
    return document


def _object(**fields: str) -> str:
    return "{" + ", ".join(f"{json.dumps(name)}: {value}" for name, value in fields.items()) + "}"


def _text(value: object) -> str:
    return json.dumps(value, ensure_ascii=False)


def _document(row: sqlite3.Row) -> dict[str, str]:
    return {"document": _value(row["document"])} if "document" in row.keys() else {}  # noqa: SIM118


LONGEST_S = 3600.0
"""It is read as fast as it is taken: over a slow line that takes a while."""

PARTS = {
    "settings": "SELECT key, document, saved_at FROM setting ORDER BY key",
    "entries": "SELECT kind, slug, document, saved_at FROM workshop_entry ORDER BY kind, slug",
    "jobs": "SELECT job.id, job.put_away, job.created_at, r.number AS revision, r.saved_at, r.document "
    "FROM job JOIN job_revision AS r ON r.job_id = job.id AND r.number = job.head ORDER BY job.touched",
    "batches": "SELECT code, job_id, revision, batch, frozen_at, document FROM frozen_batch ORDER BY frozen_at, code",
    "events": "SELECT id, job_id, at_min, noted_min, document FROM event ORDER BY noted_min, id",
    "readings": "SELECT at_min, temperature_c, humidity FROM reading ORDER BY at_min",
    "pots": "SELECT id, job_id, code, begun_min, state, document FROM pot ORDER BY begun_min, id",
    "recordings": "SELECT name, kind, length(content) AS bytes, added_at FROM recording ORDER BY added_at, name",
    "photographs": "SELECT name, bytes, width, height, taken, added_at FROM photograph ORDER BY added_at, name",
    "set_aside": "SELECT kind, slug, why, at, document FROM set_aside ORDER BY id",
}
REVISIONS = "SELECT job_id, number, parent, name, saved_at, document FROM job_revision ORDER BY job_id, number"


def everything(db: Database, revisions: bool = False) -> Iterator[str]:
    """Settings, entries of one's own, jobs (those put away too), printed batches, what was done on jobs, what the room
    was like, and what was set aside, in pieces.

    With `revisions`, every revision of every job too. Documents stand in it as JSON, as their own formats say.
    """
    parts = {**PARTS, **({"revisions": REVISIONS} if revisions else {})}
    yield f'{{"format": {_text(FORMAT)}, "version": {VERSION}, "made_at": {_text(now())}'
    with db.read(LONGEST_S) as connection:
        connection.execute("BEGIN")  # all of it as it was at one moment
        try:
            for name, sql in parts.items():
                yield f',\n"{name}": ['
                for i, row in enumerate(connection.execute(sql)):
                    said = {key: _text(row[key]) for key in row.keys() if key != "document"}  # noqa: SIM118
                    yield (",\n " if i else "\n ") + _object(**said, **_document(row))
                yield "\n]"
        finally:
            connection.execute("ROLLBACK")
    yield "}\n"
