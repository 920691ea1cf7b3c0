"""What the commands share: how they refuse, bind and stop."""

import os
import socket
from pathlib import Path
from typing import Annotated

import typer
from platformdirs import user_data_path

Port = Annotated[int, typer.Option(min=0, max=65535, help="The port to listen on; 0 for any free one.")]
Data = Annotated[Path | None, typer.Option(help="The database file; made when missing.")]


def fail(message: str, code: int = 1) -> typer.Exit:
    typer.echo(f"lumso: {message}", err=True)
    return typer.Exit(code)


def bind(host: str, port: int) -> socket.socket:
    # Named as TCP, or what is accepted waits for company before it sends: 40 ms on every request kept alive.
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((host, port))
        listener.listen(128)  # a browser that is quick off the mark waits in line
    except OSError as error:
        listener.close()
        raise fail(
            f"port {port} on {host} cannot be used: {error.strerror}. Name another with --port, or 0 for any free one."
        ) from None
    return listener


def stopped(number: int, frame: object) -> None:
    """Asked to stop: through the same door as any end, so that the database is closed."""
    raise SystemExit(0)


def until_closed() -> None:
    """Wait until standard input is closed, which is when whoever began this is gone, and go too."""
    while os.read(0, 4096):
        pass
    os._exit(0)


def data_path(data: Path | None) -> Path:
    """The database file that was named, or the usual one."""
    return data or user_data_path("lumso") / "workshop.sqlite3"
