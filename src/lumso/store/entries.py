"""What the workshop holds of its own: kits, recipes and the shelf, as documents by slug."""

import sqlite3
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from . import keys
from .database import Database, now, tick
from .errors import NotFound, StaleRevision

Kind = Literal["kit", "recipe", "shelf", "lot"]


@dataclass(frozen=True)
class Entry:
    """A document, and the revision it has: a number no other document of the workshop ever had."""

    document: str
    revision: int


def every(db: Database, after: int = 0) -> dict[tuple[Kind, str], Entry]:
    """All documents saved after a state of the workshop, by kind and slug."""
    with db.read() as connection:
        rows = connection.execute(
            "SELECT kind, slug, document, revision FROM workshop_entry WHERE revision > ? ORDER BY kind, slug", (after,)
        )
        return {(row["kind"], row["slug"]): Entry(row["document"], row["revision"]) for row in rows}


def names(db: Database) -> set[tuple[Kind, str]]:
    """What there is, by kind and slug."""
    with db.read() as connection:
        return {(row["kind"], row["slug"]) for row in connection.execute("SELECT kind, slug FROM workshop_entry")}


def _expect(connection: sqlite3.Connection, kind: Kind, slug: str, read: int) -> int:
    row = connection.execute("SELECT revision FROM workshop_entry WHERE (kind, slug) = (?, ?)", (kind, slug)).fetchone()
    head = 0 if row is None else int(row["revision"])
    if head != read:
        raise StaleRevision(read, head)
    return head


def _set(connection: sqlite3.Connection, kind: Kind, slug: str, document: str) -> int:
    revision = tick(connection, "workshop")
    connection.execute(
        "INSERT INTO workshop_entry (kind, slug, document, saved_at, revision) VALUES (?, ?, ?, ?, ?) "
        "ON CONFLICT (kind, slug) DO UPDATE SET document = excluded.document, saved_at = excluded.saved_at, "
        "revision = excluded.revision",
        (kind, slug, document, now(), revision),
    )
    return revision


def save(db: Database, kind: Kind, slug: str, read: int, document: str, key: str = "") -> int:
    """Set a document made from revision `read`, 0 where there was none; returns the revision it has now.

    The same again under the same key comes to the same. Raises StaleRevision when it was changed meanwhile.
    """
    with db.write() as connection:
        what = f"{kind}/{slug}"
        done = keys.told(connection, key, what)
        if done is None:
            _expect(connection, kind, slug, read)
            done = _set(connection, kind, slug, document)
            keys.tell(connection, key, what, done)
        return done


def put(
    db: Database, entries: Iterable[tuple[Kind, str, str]], seen: Mapping[tuple[Kind, str], int] | None = None
) -> None:
    """Set documents, all or none of them: (kind, slug, document).

    `seen` are the revisions they were compared with: raises StaleRevision when one of those was changed meanwhile.
    """
    with db.write() as connection:
        for kind, slug, document in entries:
            if seen is not None and (read := seen.get((kind, slug))) is not None:
                _expect(connection, kind, slug, read)
            _set(connection, kind, slug, document)


def delete(db: Database, kind: Kind, slug: str, read: int | None = None, key: str = "") -> None:
    """Take a document out; it is set aside, not gone. Raises NotFound, and StaleRevision as `save` does."""
    with db.write() as connection:
        what = f"{kind}/{slug}"
        if keys.told(connection, key, what) is not None:
            return
        row = connection.execute("SELECT * FROM workshop_entry WHERE (kind, slug) = (?, ?)", (kind, slug)).fetchone()
        if row is None:
            raise NotFound(f"There is no {kind} {slug!r} of your own.")
        if read is not None:
            _expect(connection, kind, slug, read)
        connection.execute(
            "INSERT INTO set_aside (kind, slug, document, why, at) VALUES (?, ?, ?, 'taken out', ?)",
            (kind, slug, row["document"], now()),
        )
        connection.execute("DELETE FROM workshop_entry WHERE (kind, slug) = (?, ?)", (kind, slug))
        keys.tell(connection, key, what, tick(connection, "workshop"))
