"""Who was let in, on the command line: for a machine without a screen."""

from time import time
from typing import TYPE_CHECKING, Annotated

import typer

from lumso.core.errors import LumsoError

from .parts import Data, data_path, fail

if TYPE_CHECKING:
    from lumso.store.devices import Device

Which = Annotated[str, typer.Argument(help="The device, by its name or its id; all are listed where none is named.")]
KindOf = Annotated[str, typer.Option("--let", help="What it may do from now on: looks, works or keeps.")]
StayOf = Annotated[str, typer.Option("--for", help="How long it is let in: day, month or always.")]
Out = Annotated[bool, typer.Option("--turn-out", help="Let it in no more; the code changes.")]


def devices(which: Which = "", let: KindOf = "", stay: StayOf = "", turn_out: Out = False, data: Data = None) -> None:
    """List the devices that were let in; let one do more or less, for how long, or turn it out. Lumso may run."""
    from lumso.store import devices as kept
    from lumso.store.database import Database

    path = data_path(data)
    if not path.exists():
        raise fail(f"there is no workshop at {path}.")
    for said, allowed, option in ((let, kept.KINDS, "--let"), (stay, tuple(kept.STAYS), "--for")):
        if said and said not in allowed:
            raise fail(f"{option} {said!r}: one of {', '.join(allowed)}.", 2)
    try:
        db = Database(path)
        try:
            inside = kept.every(db)
            if not which:
                for one in inside:
                    print(_line(one, time()))
                if not inside:
                    print("Nobody was let in.")
                return
            found = [d for d in inside if which in (d.id, d.name)]
            if len(found) != 1:
                ids = ", ".join(d.id for d in found)
                raise fail(f"several are called {which!r}: {ids}." if found else f"no device is called {which!r}.", 2)
            (one,) = found
            if turn_out:
                kept.turn_out(db, one.id)
                print(f"{one.name} is turned out. The code is another now: it stands where Lumso runs.")
                return
            kind = next(k for k in kept.KINDS if k == (let or one.kind))
            until = next((kept.end_of(s, time()) for s in kept.STAYS if s == stay), one.until)
            kept.change(db, one.id, kind, until)
            print(_line(next(d for d in kept.every(db) if d.id == one.id), time()))
        finally:
            db.close()
    except LumsoError as error:
        raise fail(str(error)) from None


def _line(one: "Device", now_s: float) -> str:
    over = " (over)" if one.lapsed(now_s) else ""
    until = f"until {one.until[:16].replace('T', ' ')} UTC{over}" if one.until else "until turned out"
    return f"{one.id}  {one.name}: {one.kind}, {until}; last here {one.seen_at[:16].replace('T', ' ')} UTC"
