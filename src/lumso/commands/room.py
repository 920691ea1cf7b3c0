"""The simulated thermo-hygrometer on the command line."""

import signal
from contextlib import suppress
from threading import Thread
from typing import Annotated

import typer

from lumso.core.errors import LumsoError

from .parts import Port, bind, fail, stopped, until_closed

Profiles = Annotated[str, typer.Option(help="Whose air it has: heated-room, unheated-shed, porch.")]
Every = Annotated[float, typer.Option(min=0.05, max=3600, help="Seconds between readings.")]
Drift = Annotated[float, typer.Option(min=-10, max=10, help="°C it is off after a day.")]
Noise = Annotated[float, typer.Option(min=0, max=5, help="°C its readings spread.")]
Share = Annotated[float, typer.Option(min=0, max=1, help="The share of readings lost; of lines damaged.")]
Seed = Annotated[int, typer.Option(help="What everything random comes from.")]
Tied = Annotated[bool, typer.Option("--tied", help="End when standard input is closed: with whoever began it.")]
Clock = Annotated[str, typer.Option("--at", help="The time of day it begins with, 14:30; the real one when left out.")]


def room(
    port: Port = 8390,
    profile: Profiles = "heated-room",
    every: Every = 60.0,
    drift: Drift = 0.3,
    noise: Noise = 0.1,
    drops: Share = 0.0,
    garbles: Share = 0.0,
    seed: Seed = 1,
    at: Clock = "",
    tied: Tied = False,
) -> None:
    """Be a simulated thermo-hygrometer: readings as lines on a socket of this machine, until stopped."""
    import time
    from datetime import datetime

    from lumso.catalogue import shipped
    from lumso.core.book.catalogue import pick
    from lumso.devices.room import Sensor
    from lumso.devices.room import serve as send

    try:
        known = pick("profile", shipped().profiles, profile)
        hour, _, minute = at.partition(":") if at else ("", "", "")
        begun = int(hour) * 60 + int(minute or 0) if at else None
    except LumsoError as error:
        raise fail(str(error), 2) from None
    except ValueError:
        raise fail(f"{at!r} is no time of day; such as 14:30.", 2) from None
    since = time.monotonic()

    def minute_of_day() -> float:
        now = datetime.now()
        start = now.hour * 60 + now.minute if begun is None else begun + (time.monotonic() - since) / 60
        return start % 1440

    if tied:
        Thread(target=until_closed, daemon=True).start()
    listener = bind("127.0.0.1", port)
    signal.signal(signal.SIGTERM, stopped)
    print(f"A simulated thermo-hygrometer ({known.name.lower()}) sends on port {listener.getsockname()[1]}", flush=True)
    with suppress(KeyboardInterrupt):
        send(listener, Sensor(known, drift, noise, drops, garbles, seed), every, minute_of_day)
