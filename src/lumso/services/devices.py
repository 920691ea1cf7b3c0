"""The devices that were let into the workshop: what each may do, and how long."""

from lumso.formats.names import refuse_hidden
from lumso.store import devices
from lumso.store.database import at
from lumso.store.devices import Device, Kind, Stay
from lumso.store.errors import NotFound

from .context import Context


def when(now_s: float) -> str:
    """An instant, seconds since 1970 UTC, as it is told: ISO 8601, UTC."""
    return at(now_s)


def seemly(name: str) -> None:
    """Raises InvalidValue for a name with signs that nobody sees."""
    refuse_hidden({"name": name})


def let_in(name: str, kind: Kind, stay: Stay, now_s: float, here: Context) -> str:
    """Let a device in from now (seconds since 1970 UTC) on; the token it shows from then on."""
    return devices.let_in(here.db, name, kind, devices.end_of(stay, now_s))[1]


def every(here: Context) -> list[Device]:
    """All that were let in and not turned out."""
    return devices.every(here.db)


def change(device_id: str, kind: Kind, stay: Stay | None, now_s: float, here: Context) -> None:
    """What a device may do from now on, and how long; None leaves how long as it is. Raises NotFound."""
    found = next((d for d in devices.every(here.db) if d.id == device_id), None)
    if found is None:
        raise NotFound("There is no such device.")
    devices.change(here.db, device_id, kind, found.until if stay is None else devices.end_of(stay, now_s))


def turn_out(device_id: str, here: Context) -> None:
    """Let a device in no more. At its next visit it lets go of what it kept. Raises NotFound."""
    devices.turn_out(here.db, device_id)


def turned_out(here: Context) -> int:
    """How many were turned out so far: with each of them the code of the workshop is another."""
    return devices.turned_out(here.db)
