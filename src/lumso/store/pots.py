"""Pots as they are listed: found by what is said of them, by day, by what is left."""

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass

from .database import Database
from .errors import NotFound

PAGE = 40


@dataclass(frozen=True)
class StoredPot:
    """A pot as the database holds it."""

    id: str
    job_id: str
    begun_min: float
    document: str


@dataclass(frozen=True)
class StoredRate:
    """What the surface took in one pot, as a multiple of what is planned without the log."""

    rate_of: str
    pot: str
    job_id: str
    begun_min: float
    rate: float


def _pot(row: sqlite3.Row) -> StoredPot:
    return StoredPot(row["id"], row["job_id"], row["begun_min"], row["document"])


def _like(word: str) -> str:
    for sign in ("\\", "%", "_"):
        word = word.replace(sign, f"\\{sign}")
    return f"%{word}%"


def found(db: Database, text: str = "", job: str = "", from_min: float = 0.0, until_min: float = 1e12,
          limit: int = PAGE) -> tuple[list[StoredPot], bool]:  # fmt: skip
    """Pots whose words hold every word of a text, the newest first; and whether there are more."""
    words = text.casefold().split()[:12]
    where = "".join(r" AND words LIKE ? ESCAPE '\'" for _ in words) + (" AND job_id = ?" if job else "")
    args: list[object] = [from_min, until_min, *map(_like, words), *([job] if job else []), limit + 1]
    with db.read() as connection:
        rows = connection.execute(
            f"SELECT id, job_id, begun_min, document FROM pot WHERE begun_min >= ? AND begun_min < ?{where} "
            "ORDER BY begun_min DESC, id LIMIT ?",
            args,
        ).fetchall()
    return [_pot(r) for r in rows[:limit]], len(rows) > limit


def count(db: Database) -> int:
    """How many pots there are."""
    with db.read() as connection:
        return int(connection.execute("SELECT count(*) FROM pot").fetchone()[0])


def get(db: Database, pot: str) -> StoredPot:
    """A pot by its id, or by the code it was begun under. Raises NotFound."""
    plain = "".join(c for c in pot.lower() if c.isalnum())
    with db.read() as connection:
        row = connection.execute("SELECT * FROM pot WHERE id = ?", (pot,)).fetchone()
        if row is None and plain:
            row = connection.execute(
                "SELECT * FROM pot WHERE code = ? ORDER BY begun_min DESC LIMIT 1", (f"{plain[:4]}-{plain[4:]}",)
            ).fetchone()
    if row is None:
        raise NotFound(f"There is no batch {pot[:80]!r} in the log.")
    return _pot(row)


def jars(db: Database) -> list[StoredPot]:
    """The pots that something is kept of."""
    with db.read() as connection:
        rows = connection.execute("SELECT * FROM pot WHERE state = 'kept' AND left_g > 0 ORDER BY begun_min DESC")
        return [_pot(r) for r in rows]


def rates(db: Database) -> Sequence[StoredRate]:
    """What surfaces took, pot by pot, in order of time."""
    with db.read() as connection:
        rows = connection.execute(
            "SELECT rate_of, id, job_id, begun_min, rate FROM pot WHERE rate_of <> '' ORDER BY begun_min, id"
        )
        return [StoredRate(r["rate_of"], r["id"], r["job_id"], r["begun_min"], r["rate"]) for r in rows]
