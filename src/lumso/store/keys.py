"""Keys of the asker's own: a change asked for again under the same key is not made twice."""

import sqlite3

from .database import Database, now
from .errors import OtherKey

KEPT_DAYS = 29
"""How long a key is remembered: less than every revision is kept, so that what it came to is still there."""


def told(connection: sqlite3.Connection, key: str, what: str) -> int | None:
    """The revision a document came to under a key; None where the key is new. Raises OtherKey."""
    if not key:
        return None
    row = connection.execute("SELECT what, revision FROM answered WHERE key = ?", (key,)).fetchone()
    if row is None:
        return None
    if row["what"] != what:
        raise OtherKey(f"This key was used for {row['what']} already.")
    return int(row["revision"])


def made(connection: sqlite3.Connection, key: str) -> str | None:
    """The document that was made under a key, such as "job/…"; None where the key is new."""
    row = connection.execute("SELECT what FROM answered WHERE key = ?", (key,)).fetchone() if key else None
    return None if row is None else str(row["what"])


def tell(connection: sqlite3.Connection, key: str, what: str, revision: int) -> None:
    """Remember what was come to under a key, where there is one."""
    if key:
        connection.execute("INSERT INTO answered VALUES (?, ?, ?, ?)", (key, what, revision, now()))


def forget_old(db: Database) -> None:
    """Let go of keys that nobody asks under any more."""
    with db.write() as connection:
        connection.execute("DELETE FROM answered WHERE julianday(at) < julianday('now') - ?", (KEPT_DAYS,))
