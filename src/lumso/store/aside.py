"""What was taken out of the workshop or could not be read: found, brought back, or deleted for good by choice."""

import sqlite3
from dataclasses import dataclass
from typing import Literal

from .database import Database, now, tick
from .errors import InPlace, NotFound

Kind = Literal["kit", "recipe", "shelf", "lot", "setting", "job"]


@dataclass(frozen=True)
class Aside:
    """A document set aside, and why."""

    id: int
    kind: Kind
    slug: str
    document: str
    why: str
    at: str


def _aside(row: sqlite3.Row) -> Aside:
    return Aside(row["id"], row["kind"], row["slug"], row["document"], row["why"], row["at"])


def every(db: Database) -> list[Aside]:
    """All that is set aside, the newest first."""
    with db.read() as connection:
        return [_aside(row) for row in connection.execute("SELECT * FROM set_aside ORDER BY id DESC")]


def get(db: Database, number: int) -> Aside:
    """One of them. Raises NotFound."""
    with db.read() as connection:
        row = connection.execute("SELECT * FROM set_aside WHERE id = ?", (number,)).fetchone()
    if row is None:
        raise NotFound("That is not set aside any more.")
    return _aside(row)


def delete(db: Database, number: int) -> None:
    """Delete one for good. Raises NotFound."""
    with db.write() as connection:
        if not connection.execute("DELETE FROM set_aside WHERE id = ?", (number,)).rowcount:
            raise NotFound("That is not set aside any more.")


def bring_back(db: Database, number: int) -> None:
    """Put an entry of the workshop back in its place.

    Raises NotFound, and InPlace where another has taken its place meanwhile.
    """
    with db.write() as connection:
        row = connection.execute("SELECT * FROM set_aside WHERE id = ?", (number,)).fetchone()
        if row is None:
            raise NotFound("That is not set aside any more.")
        kept = _aside(row)
        at = (kept.kind, kept.slug)
        taken = connection.execute("SELECT revision FROM workshop_entry WHERE (kind, slug) = (?, ?)", at).fetchone()
        if kept.kind in ("setting", "job"):
            raise InPlace(f"A {kept.kind} is kept as a file only.")
        if taken:
            raise InPlace(f"There is a {kept.kind} {kept.slug!r} by now. Take that out first, or keep this as a file.")
        connection.execute(
            "INSERT INTO workshop_entry (kind, slug, document, saved_at, revision) VALUES (?, ?, ?, ?, ?)",
            (*at, kept.document, now(), tick(connection, "workshop")),
        )
        connection.execute("DELETE FROM set_aside WHERE id = ?", (number,))
