"""The command line: serve, demo, plan."""

import gc
import os
import socket
import sys
from pathlib import Path
from typing import Annotated

import typer
from platformdirs import user_data_path

from lumso.core.errors import LumsoError

app = typer.Typer(help="Lumso, a bench companion for decorative furniture painters.", no_args_is_help=True,
                  add_completion=False, pretty_exceptions_enable=False)  # fmt: skip

Port = Annotated[int, typer.Option(min=0, max=65535, help="The port to listen on; 0 for any free one.")]
Host = Annotated[str, typer.Option(help="The address to listen on.")]
Data = Annotated[Path | None, typer.Option(help="The database file; made when missing.")]


def _fail(message: str, code: int = 1) -> typer.Exit:
    typer.echo(f"lumso: {message}", err=True)
    return typer.Exit(code)


def _bind(host: str, port: int) -> socket.socket:
    listener = socket.socket()
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((host, port))
        listener.listen(128)  # a browser that is quick off the mark waits in line
    except OSError as error:
        listener.close()
        raise _fail(
            f"port {port} on {host} cannot be used: {error.strerror}. Name another with --port, or 0 for any free one."
        ) from None
    return listener


def _serve(host: str, port: int, data: Path, demo: bool) -> None:
    import uvicorn

    from lumso.api.app import create_app
    from lumso.catalogue import shipped
    from lumso.demo import seed
    from lumso.store.database import Database

    listener = _bind(host, port)
    try:
        db = Database(data)
        if demo:
            seed(db, shipped())
    except LumsoError as error:
        listener.close()
        raise _fail(str(error)) from None
    print(f"Lumso is at http://{host}:{listener.getsockname()[1]}/  (data in {data}; stop with Ctrl+C)", flush=True)
    config = uvicorn.Config(create_app(db, shipped()), log_level="warning", access_log=False)
    gc.freeze()  # the catalogue and the models stay for good: to collect them again and again only makes edits wait
    try:
        uvicorn.Server(config).run(sockets=[listener])
    finally:
        db.close()


@app.command()
def serve(host: Host = "127.0.0.1", port: Port = 8321, data: Data = None) -> None:
    """Serve Lumso with your own workshop."""
    _serve(host, port, data or user_data_path("lumso") / "workshop.sqlite3", demo=False)


@app.command()
def demo(host: Host = "127.0.0.1", port: Port = 8321, data: Data = None) -> None:
    """Serve Lumso with the Lantern Loft, a made-up theatre, to look round and play with."""
    _serve(host, port, data or user_data_path("lumso") / "lantern-loft.sqlite3", demo=True)


@app.command()
def plan(
    file: Annotated[Path, typer.Argument(help="A job file; - for standard input.")],
    measures: Annotated[str, typer.Option(help="us, metric, australian or imperial.")] = "metric",
) -> None:
    """Print the plan of a job file as JSON. Exits with 1 when the job holds a problem, with 2 when it is no job."""
    from pydantic import TypeAdapter

    from lumso.catalogue import shipped
    from lumso.core.layers.conditions import Conditions
    from lumso.core.plan.plan import Plan
    from lumso.core.plan.plan import plan as plan_of
    from lumso.core.workshop.workshop import Workshop
    from lumso.formats.jobfile import from_json

    catalogue = shipped()
    if measures not in catalogue.systems:
        raise _fail(f"there are no measures called {measures!r}. Known: {', '.join(catalogue.systems)}.", 2)
    try:
        text = sys.stdin.buffer.read() if str(file) == "-" else file.read_bytes()
        made = plan_of(from_json(text, str(file)), Workshop(measures=measures), catalogue, Conditions())
    except OSError as error:
        raise _fail(f"{file} cannot be read: {error.strerror}.", 2) from None
    except LumsoError as error:
        raise _fail(str(error), 2) from None
    sys.stdout.buffer.write(TypeAdapter(Plan).dump_json(made, indent=2) + os.linesep.encode())
    for problem in made.problems:
        typer.echo(f"{problem.at}: {problem.says} Allowed: {problem.allowed}.", err=True)
    if made.problems:
        raise typer.Exit(1)
