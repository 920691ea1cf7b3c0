"""What the workshop holds of its own: kits, recipes and the shelf, as documents by slug."""

from collections.abc import Iterable
from typing import Literal

from .database import Database, now
from .errors import NotFound

Kind = Literal["kit", "recipe", "shelf"]


def every(db: Database) -> dict[tuple[Kind, str], str]:
    """All documents, by kind and slug."""
    with db.read() as connection:
        rows = connection.execute("SELECT kind, slug, document FROM workshop_entry ORDER BY kind, slug")
        return {(row["kind"], row["slug"]): row["document"] for row in rows}


def put(db: Database, entries: Iterable[tuple[Kind, str, str]]) -> None:
    """Set documents, all or none of them: (kind, slug, document)."""
    at = now()
    with db.write() as connection:
        connection.executemany(
            "INSERT INTO workshop_entry (kind, slug, document, saved_at) VALUES (?, ?, ?, ?) "
            "ON CONFLICT (kind, slug) DO UPDATE SET document = excluded.document, saved_at = excluded.saved_at",
            [(kind, slug, document, at) for kind, slug, document in entries],
        )


def delete(db: Database, kind: Kind, slug: str) -> None:
    """Take a document out. Raises NotFound."""
    with db.write() as connection:
        gone = connection.execute("DELETE FROM workshop_entry WHERE kind = ? AND slug = ?", (kind, slug))
        if not gone.rowcount:
            raise NotFound(f"There is no {kind} {slug!r} of your own.")
