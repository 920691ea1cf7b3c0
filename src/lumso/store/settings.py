"""The workshop's documents, one per key."""

import sqlite3
from collections.abc import Callable
from dataclasses import dataclass

from . import keys
from .database import Database, now, tick
from .errors import StaleRevision


@dataclass(frozen=True)
class Setting:
    """A document, and the revision it has; 0 where nothing was ever kept."""

    document: str | None
    revision: int


def _get(connection: sqlite3.Connection, key: str) -> Setting:
    row = connection.execute("SELECT document, revision FROM setting WHERE key = ?", (key,)).fetchone()
    return Setting(row["document"], row["revision"]) if row else Setting(None, 0)


def get(db: Database, key: str) -> Setting:
    """The document under `key`."""
    with db.read() as connection:
        return _get(connection, key)


def change(
    db: Database,
    key: str,
    changed: Callable[[str | None], str],
    read: int | None = None,
    asked_as: str = "",
    aside: Callable[[str], bool] = lambda before: False,
) -> int:
    """Make one document of another in one go; returns its revision.

    With `read`, the revision it was made from, raises StaleRevision when it was changed meanwhile. What `aside` says
    of is set aside, not written over. The same again under the same `asked_as` comes to the same.
    """
    with db.write() as connection:
        what = f"setting/{key}"
        done = keys.told(connection, asked_as, what)
        if done is not None:
            return done
        before = _get(connection, key)
        if read is not None and before.revision != read:
            raise StaleRevision(read, before.revision)
        document = changed(before.document)
        if before.document is not None and aside(before.document):
            _set_aside(connection, key, before.document, "could not be read")
        done = tick(connection, "workshop")
        connection.execute(
            "INSERT INTO setting (key, document, saved_at, revision) VALUES (?, ?, ?, ?) ON CONFLICT (key) DO UPDATE "
            "SET document = excluded.document, saved_at = excluded.saved_at, revision = excluded.revision",
            (key, document, now(), done),
        )
        keys.tell(connection, asked_as, what, done)
        return done


def put(db: Database, key: str, document: str) -> int:
    """Set the document under `key`, whatever was there."""
    return change(db, key, lambda before: document)


def _set_aside(connection: sqlite3.Connection, key: str, document: str, why: str) -> None:
    connection.execute(
        "INSERT INTO set_aside (kind, slug, document, why, at) VALUES ('setting', ?, ?, ?, ?)",
        (key, document, why, now()),
    )


def delete(db: Database, key: str) -> None:
    """Take the document under `key` out, if there is one; it is set aside, not gone."""
    with db.write() as connection:
        before = _get(connection, key)
        if before.document is not None:
            _set_aside(connection, key, before.document, "taken out")
            connection.execute("DELETE FROM setting WHERE key = ?", (key,))
            tick(connection, "workshop")
