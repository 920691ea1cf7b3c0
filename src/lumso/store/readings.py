"""What the thermo-hygrometer said."""

from collections.abc import Sequence

from .database import Database

KEPT_MIN = 60 * 24 * 60
"""How long readings are kept, in minutes: two months."""


def add(db: Database, at_min: float, temperature_c: float, humidity: float) -> None:
    """Keep a reading; one of the same minute is kept once."""
    with db.write() as connection:
        connection.execute("INSERT OR IGNORE INTO reading VALUES (?, ?, ?)", (at_min, temperature_c, humidity))


def since(db: Database, from_min: float) -> Sequence[tuple[float, float, float]]:
    """Readings from a minute on, in order: minute, °C, relative humidity."""
    with db.read() as connection:
        rows = connection.execute("SELECT * FROM reading WHERE at_min >= ? ORDER BY at_min", (from_min,))
        return [(r["at_min"], r["temperature_c"], r["humidity"]) for r in rows]


def forget_old(db: Database, now_min: float) -> None:
    """Let go of readings nobody draws any more."""
    with db.write() as connection:
        connection.execute("DELETE FROM reading WHERE at_min < ?", (now_min - KEPT_MIN,))
