"""Devices that were let in over the network: what each may do, and how long."""

import secrets
import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from hashlib import sha256
from typing import Literal, get_args

from .database import Database, at, now
from .errors import NotFound
from .ids import new_id

Kind = Literal["looks", "works", "keeps"]
"""What a device may do: read, and ask what keeps nothing; all of the work; also let others in, and go back."""
KINDS: tuple[Kind, ...] = get_args(Kind)
Stay = Literal["day", "month", "always"]
"""How long a device is let in: `always` is until it is turned out."""
STAYS: dict[Stay, timedelta | None] = {"day": timedelta(days=1), "month": timedelta(days=30), "always": None}


@dataclass(frozen=True)
class Device:
    """A device as the database holds it. `until` is when it lapses, UTC; "" where it does not."""

    id: str
    name: str
    entered_at: str
    seen_at: str
    turned_out: bool
    kind: Kind = "works"
    until: str = ""

    def is_in(self, now_s: float) -> bool:
        """Whether it may come in."""
        return not self.turned_out and not self.lapsed(now_s)

    def lapsed(self, now_s: float) -> bool:
        """Whether it was let in for a while that is over; `now_s` are seconds since 1970."""
        return bool(self.until) and datetime.fromisoformat(self.until).timestamp() <= now_s


def _hash(token: str) -> str:
    return sha256(token.encode()).hexdigest()


def _device(row: sqlite3.Row) -> Device:
    return Device(row["id"], row["name"], row["entered_at"], row["seen_at"], bool(row["turned_out"]), row["kind"],
                  row["until"] or "")  # fmt: skip


def end_of(stay: Stay, now_s: float) -> str:
    """When a stay that begins now is over, UTC; "" for one that is not."""
    lasts = STAYS[stay]
    if lasts is None:
        return ""
    return at(now_s + lasts.total_seconds())


Row = tuple[object, ...]
COLUMNS = "id, name, token_hash, entered_at, seen_at, turned_out, kind, until"
PLACES = ", ".join("?" * len(COLUMNS.split(",")))


def rows_of(connection: sqlite3.Connection) -> list[Row]:
    """All that is known of devices, turned out or not, to be put into another database."""
    if not connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'device'").fetchone():
        return []
    there = {row[1] for row in connection.execute("PRAGMA table_info(device)")}
    usual = {"kind": "'works'"}  # a database from before devices were of kinds
    wanted = ", ".join(c if c in there else usual.get(c, "NULL") for c in COLUMNS.split(", "))
    return [tuple(row) for row in connection.execute(f"SELECT {wanted} FROM device")]


def nobody(connection: sqlite3.Connection) -> None:
    """Forget all devices: who was let in is never carried by a copy."""
    if connection.execute("SELECT 1 FROM sqlite_master WHERE name = 'device'").fetchone():
        connection.execute("DELETE FROM device")


def put_back(db: Database, rows: Iterable[Row]) -> None:
    """The devices of the workshop that ran, in the place of any others."""
    with db.write() as connection:
        connection.execute("DELETE FROM device")
        connection.executemany(f"INSERT INTO device ({COLUMNS}) VALUES ({PLACES})", rows)


def let_in(db: Database, name: str, kind: Kind = "looks", until: str = "") -> tuple[Device, str]:
    """A new device, and the token it shows from now on: 256 bits that are kept nowhere else."""
    token = secrets.token_urlsafe(32)
    device = Device(new_id(), name, now(), now(), False, kind, until)
    with db.write() as connection:
        connection.execute(
            "INSERT INTO device (id, name, token_hash, entered_at, seen_at, kind, until) VALUES (?, ?, ?, ?, ?, ?, ?)",
            (device.id, name, _hash(token), device.entered_at, device.seen_at, kind, until or None),
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
    """The devices that were not turned out, the one seen last first; those whose time is over among them."""
    with db.read() as connection:
        rows = connection.execute("SELECT * FROM device WHERE NOT turned_out ORDER BY seen_at DESC, id DESC")
        return [_device(row) for row in rows]


def change(db: Database, device_id: str, kind: Kind, until: str) -> None:
    """What a device may do from now on, and how long. Raises NotFound, also for one that was turned out."""
    with db.write() as connection:
        done = connection.execute(
            "UPDATE device SET kind = ?, until = ? WHERE id = ? AND NOT turned_out", (kind, until or None, device_id)
        )
        if not done.rowcount:
            raise NotFound("There is no such device.")


def turn_out(db: Database, device_id: str) -> None:
    """Let a device in no more. Raises NotFound."""
    with db.write() as connection:
        if not connection.execute("UPDATE device SET turned_out = 1 WHERE id = ?", (device_id,)).rowcount:
            raise NotFound("There is no such device.")


def turned_out(db: Database) -> int:
    """How many were ever turned out: whoever was knows the code there was, so that another number asks for another."""
    with db.read() as connection:
        return int(connection.execute("SELECT count(*) FROM device WHERE turned_out").fetchone()[0])
