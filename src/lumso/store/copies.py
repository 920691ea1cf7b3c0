"""What a restore keeps of the workshop that was there before: listed, let go of after a month, or kept.

A copy is a database beside the workshop's, with its -wal where it has one. Beside them stands a small file that says
when each was first listed and which are to stay; it goes with no backup, as the copies do not.
"""

import json
import os
from contextlib import suppress
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from . import file
from .database import at
from .errors import NotFound, Unwritable

STAYS_DAYS, SAID_DAYS = 30, 7
"""A copy goes so many days after it was first listed; so many before, it is said."""


@dataclass(frozen=True)
class Copy:
    """A copy of the workshop from before a restore. `goes_on` is the day it is let go of; "" where it stays."""

    name: str
    made_at: str
    bytes: int
    kept: bool
    goes_on: str
    soon: bool
    """Whether it goes within a week."""


def notes_of(path: Path) -> Path:
    """The small file beside the copies of a database."""
    return path.with_name(f"{path.stem}-copies.json")


def _said(path: Path) -> dict[str, dict[str, object]]:
    try:
        said = json.loads(notes_of(path).read_text(encoding="utf-8"))
    except (OSError, ValueError):
        return {}
    return {k: v for k, v in said.items() if isinstance(v, dict)} if isinstance(said, dict) else {}


def _say(path: Path, said: dict[str, dict[str, object]]) -> None:
    """Write what is known of copies, whole or not at all. Raises Unwritable."""
    to, part = notes_of(path), notes_of(path).with_suffix(".part")
    try:
        part.write_text(json.dumps(said, indent=1, sort_keys=True), encoding="utf-8")
        os.chmod(part, 0o600)
        part.replace(to)
    except OSError as error:
        raise Unwritable(f"{to} cannot be written: {error.strerror}.") from None


def _made(copy: Path) -> tuple[str, int]:
    """When a copy was made: by its name, the second, and which of that second."""
    day, _, rest = copy.stem.rpartition("-before-")[2].partition("-")
    second, _, number = rest.partition("-")
    return f"{day}-{second}", int(number) if number.isdecimal() else 0


def files_of(path: Path) -> list[Path]:
    """The copies of a database, the newest first: their names tell when they were made."""
    return sorted(path.parent.glob(f"{path.stem}-before-*{path.suffix}"), key=_made, reverse=True)


def _first_listed(said: dict[str, object], now: datetime) -> datetime:
    try:
        return datetime.fromisoformat(str(said.get("listed_at")))
    except ValueError:
        return now


def every(path: Path, now: datetime | None = None) -> list[Copy]:
    """The copies of a database, the newest first. One that is listed for the first time is noted so."""
    now = now or datetime.now(UTC)
    said, found = _said(path), files_of(path)
    fresh = {p.name: said.get(p.name) or {"listed_at": now.isoformat(timespec="seconds")} for p in found}
    if fresh != said:
        with suppress(Unwritable):  # a full disk: they are listed all the same, and noted another time
            _say(path, fresh)
    made = []
    for n, copy in enumerate(found):
        with suppress(OSError):
            stat = copy.stat()
            beside = file.wal_of(copy)
            size = stat.st_size + (beside.stat().st_size if beside.exists() else 0)
            kept = bool(fresh[copy.name].get("kept"))
            goes = _first_listed(fresh[copy.name], now) + timedelta(days=STAYS_DAYS)
            stays = kept or n == 0
            soon = not stays and goes - now < timedelta(days=SAID_DAYS)
            made.append(Copy(copy.name, at(stat.st_mtime), size, kept, "" if stays else goes.date().isoformat(), soon))
    return made


def named(path: Path, name: str) -> Path:
    """The file of a copy. Raises NotFound."""
    found = next((p for p in files_of(path) if p.name == name), None)
    if found is None:
        raise NotFound(f"There is no copy {name[:120]!r}.")
    return found


def keep(path: Path, name: str, kept: bool = True) -> None:
    """Let a copy stay, or go when its time is over. Raises NotFound, Unwritable."""
    named(path, name)
    every(path)
    said = _said(path)
    said[name] = {**said.get(name, {}), "kept": kept}
    _say(path, said)


def sweep(path: Path, now: datetime | None = None) -> int:
    """Let go of copies whose time is over, each with what stands beside it; how many. The newest stays."""
    now = now or datetime.now(UTC)
    gone = 0
    for copy in every(path, now):
        if copy.goes_on and copy.goes_on < now.date().isoformat():
            one = path.with_name(copy.name)
            with suppress(OSError):
                one.unlink()
                gone += 1
            for beside in ("-wal", "-shm"):
                with suppress(OSError):
                    one.with_name(f"{one.name}{beside}").unlink()
    return gone
