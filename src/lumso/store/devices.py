"""Devices that were let in over the network."""

import secrets
import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass
from hashlib import sha256

from .database import Database, now
from .errors import NotFound
from .ids import new_id


@dataclass(frozen=True)
class Device:
    """A device as the database holds it."""

    id: str
    name: str
    entered_at: str
    seen_at: str
    turned_out: bool


def _hash(token: str) -> str:
    return sha256(token.encode()).hexdigest()


def _device(row: sqlite3.Row) -> Device:
    return Device(row["id"], row["name"], row["entered_at"], row["seen_at"], bool(row["turned_out"]))


Row = tuple[object, ...]
COLUMNS = "id, name, token_hash, entered_at, seen_at, turned_out"


def rows_of(connection: sqlite3.Connection) -> list[Row]:
    """All that is known of devices, turned out or not, to be put into another database."""
    there = connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'device'").fetchone()
    return [tuple(row) for row in connection.execute(f"SELECT {COLUMNS} FROM device")] if there else []


def nobody(connection: sqlite3.Connection) -> None:
    """Forget all devices: who was let in is never carried by a copy."""
    if connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'device'").fetchone():
        connection.execute("DELETE FROM device")


def put_back(db: Database, rows: Iterable[Row]) -> None:
    """The devices of the workshop that ran, in the place of any others."""
    with db.write() as connection:
        connection.execute("DELETE FROM device")
        connection.executemany(f"INSERT INTO device ({COLUMNS}) VALUES (?, ?, ?, ?, ?, ?)", rows)


def let_in(db: Database, name: str) -> tuple[Device, str]:
    """A new device, and the token it shows from now on: 256 bits that are kept nowhere else."""
    token = secrets.token_urlsafe(32)
    device = Device(new_id(), name, now(), now(), False)
    with db.write() as connection:
        connection.execute(
            "INSERT INTO device (id, name, token_hash, entered_at, seen_at) VALUES (?, ?, ?, ?, ?)",
            (device.id, name, _hash(token), device.entered_at, device.seen_at),
        )
    return device, token


def by_token(db: Database, token: str) -> Device | None:
    """The device that shows a token; None where nobody was given it."""
    with db.read() as connection:
        row = connection.execute("SELECT * FROM device WHERE token_hash = ?", (_hash(token),)).fetchone()
    return None if row is None else _device(row)


def seen(db: Database, device: Device) -> None:
    """The device was here now."""
    with db.write() as connection:
        connection.execute("UPDATE device SET seen_at = ? WHERE id = ?", (now(), device.id))


def every(db: Database) -> list[Device]:
    """The devices that may come in, the one seen last first."""
    with db.read() as connection:
        rows = connection.execute("SELECT * FROM device WHERE NOT turned_out ORDER BY seen_at DESC, id DESC")
        return [_device(row) for row in rows]


def turn_out(db: Database, device_id: str) -> None:
    """Let a device in no more. Raises NotFound."""
    with db.write() as connection:
        if not connection.execute("UPDATE device SET turned_out = 1 WHERE id = ?", (device_id,)).rowcount:
            raise NotFound("There is no such device.")
