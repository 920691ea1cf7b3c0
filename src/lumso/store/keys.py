"""Keys of the asker's own: a change asked for again under the same key is not made twice."""

import sqlite3
from hashlib import sha256

from .database import Database, now
from .errors import OtherKey

KEPT_DAYS = 29
"""How long a key is remembered: less than every revision is kept, so that what it came to is still there."""


class Asked(str):
    """A key, with a hash of what was sent under it; "" where that is not known."""

    sent: str = ""

    @classmethod
    def of(cls, key: str, body: bytes) -> "Asked":
        """A key and the body that came with it."""
        made = cls(key)
        made.sent = sha256(body).hexdigest() if key else ""
        return made


def _sent(key: str) -> str:
    return key.sent if isinstance(key, Asked) else ""


def _same(row: sqlite3.Row, key: str) -> None:
    """Raises OtherKey where something else was sent under the key. Keys from before carry no hash, and pass."""
    sent = _sent(key)
    if sent and row["sent"] and row["sent"] != sent:
        raise OtherKey("Something else was sent under this key already. Send this under a key of its own.")


def told(connection: sqlite3.Connection, key: str, what: str) -> int | None:
    """The revision a document came to under a key; None where the key is new. Raises OtherKey."""
    if not key:
        return None
    row = connection.execute("SELECT what, revision, sent FROM answered WHERE key = ?", (key,)).fetchone()
    if row is None:
        return None
    _same(row, key)
    if row["what"] != what:
        raise OtherKey(f"This key was used for {row['what']} already.")
    return int(row["revision"])


def made(connection: sqlite3.Connection, key: str) -> str | None:
    """The document that was made under a key, such as "job/…"; None where the key is new."""
    row = connection.execute("SELECT what, sent FROM answered WHERE key = ?", (key,)).fetchone() if key else None
    if row is None:
        return None
    _same(row, key)
    return str(row["what"])


def tell(connection: sqlite3.Connection, key: str, what: str, revision: int) -> None:
    """Remember what was come to under a key, where there is one."""
    if key:
        connection.execute(
            "INSERT INTO answered (key, what, revision, at, sent) VALUES (?, ?, ?, ?, ?)",
            (str(key), what, revision, now(), _sent(key) or None),
        )


def moved(connection: sqlite3.Connection, what: str, revision: int, to: int) -> None:
    """What came to a revision came to another, which took its place."""
    connection.execute("UPDATE answered SET revision = ? WHERE what = ? AND revision = ?", (to, what, revision))


def forget_old(db: Database) -> None:
    """Let go of keys that nobody asks under any more."""
    with db.write() as connection:
        connection.execute("DELETE FROM answered WHERE julianday(at) < julianday('now') - ?", (KEPT_DAYS,))
