"""The simulated bench scale on the command line."""

import signal
import tempfile
from contextlib import suppress
from pathlib import Path
from threading import Thread
from typing import Annotated

import typer

from .parts import fail, stopped, until_closed

At = Annotated[Path | None, typer.Option("--at", help="The path of its socket; one of its own when left out.")]
Most = Annotated[float, typer.Option(min=1, max=100_000, help="The most it weighs, in g.")]
Counts = Annotated[float, typer.Option("--step", min=0.01, max=100, help="What it counts by, in g.")]
Noise = Annotated[float, typer.Option(min=0, max=50, help="How far its readings spread, in g.")]
Drift = Annotated[float, typer.Option(min=-100, max=100, help="How its zero walks, in g an hour.")]
Settles = Annotated[float, typer.Option(min=0, max=10, help="The time constant in which it comes to rest, in s.")]
Seed = Annotated[int, typer.Option(help="What everything random comes from.")]
Tied = Annotated[bool, typer.Option("--tied", help="End when standard input is closed: with whoever began it.")]


def scale(
    at: At = None,
    most: Most = 3000.0,
    step: Counts = 0.1,
    noise: Noise = 0.03,
    drift: Drift = 0.2,
    settles: Settles = 0.25,
    seed: Seed = 1,
    tied: Tied = False,
) -> None:
    """Be a simulated bench scale: readings as lines on a socket only its owner may open, until stopped."""
    from lumso.devices.scale import Pan, listen_at, serve

    path = at or Path(tempfile.mkdtemp(prefix="lumso-")) / "scale.sock"
    if tied:
        Thread(target=until_closed, daemon=True).start()
    try:
        listener = listen_at(path)
    except OSError as error:
        raise fail(f"No socket can be made at {path}: {error.strerror}.", 2) from None
    signal.signal(signal.SIGTERM, stopped)
    print(f"A simulated scale sends at {path}", flush=True)
    with suppress(KeyboardInterrupt):
        serve(listener, Pan(most, step, noise, drift, settles, seed))
