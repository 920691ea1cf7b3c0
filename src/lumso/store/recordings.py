"""Recorded notes: short sounds in the database itself, so that a backup holds them whole."""

from hashlib import sha256

from .database import Database, now
from .errors import NotFound

UNASKED_DAYS = 30
"""One that no event speaks of is let go after so many days."""


def keep(db: Database, kind: str, content: bytes) -> str:
    """Keep a recording; its name is what it holds. The same again is the same."""
    name = sha256(content).hexdigest()
    with db.write() as connection:
        connection.execute(
            "INSERT INTO recording (name, kind, content, added_at) VALUES (?, ?, ?, ?) "
            "ON CONFLICT (name) DO UPDATE SET added_at = excluded.added_at",
            (name, kind, content, now()),
        )
    return name


def get(db: Database, name: str) -> tuple[str, bytes]:
    """The kind and the content of a recording. Raises NotFound."""
    with db.read() as connection:
        row = connection.execute("SELECT kind, content FROM recording WHERE name = ?", (name,)).fetchone()
    if row is None:
        raise NotFound(f"There is no recording {name[:80]!r}.")
    return str(row["kind"]), bytes(row["content"])


def delete(db: Database, name: str) -> None:
    """Delete a recording for good. Raises NotFound."""
    with db.write() as connection:
        if not connection.execute("DELETE FROM recording WHERE name = ?", (name,)).rowcount:
            raise NotFound(f"There is no recording {name[:80]!r}.")


def sweep(db: Database) -> int:
    """Let go of old recordings that no event speaks of; how many."""
    with db.write() as connection:
        gone = connection.execute(
            "DELETE FROM recording WHERE julianday(added_at) < julianday('now') - ? "
            "AND NOT EXISTS (SELECT 1 FROM event WHERE instr(event.document, recording.name) > 0)",
            (UNASKED_DAYS,),
        )
        return gone.rowcount
