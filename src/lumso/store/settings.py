"""The workshop's documents, one per key."""

from .database import Database, now


def get(db: Database, key: str) -> str | None:
    """The document under `key`, or None."""
    with db.read() as connection:
        row = connection.execute("SELECT document FROM setting WHERE key = ?", (key,)).fetchone()
        return row["document"] if row else None


def put(db: Database, key: str, document: str) -> None:
    """Set the document under `key`."""
    with db.write() as connection:
        connection.execute(
            "INSERT INTO setting (key, document, saved_at) VALUES (?, ?, ?) "
            "ON CONFLICT (key) DO UPDATE SET document = excluded.document, saved_at = excluded.saved_at",
            (key, document, now()),
        )


def delete(db: Database, key: str) -> None:
    """Take the document under `key` out, if there is one."""
    with db.write() as connection:
        connection.execute("DELETE FROM setting WHERE key = ?", (key,))
