"""The command line: serve, demo, plan, work, days, chip, room, scale; backup, restore, check, export, devices."""

import ipaddress
from pathlib import Path
from typing import Annotated
from urllib.parse import urlsplit

import typer
from platformdirs import user_data_path

from lumso.commands import inside, keep, room, scale, work
from lumso.commands.parts import Data, Port, data_path, fail

app = typer.Typer(help="Lumso, a bench companion for decorative furniture painters.", no_args_is_help=True,
                  add_completion=False, pretty_exceptions_enable=False)  # fmt: skip

Host = Annotated[str, typer.Option(help="The address to listen on.")]
OwnTls = Annotated[bool, typer.Option("--tls", help="Encrypt, with a certificate of one's own.")]
Cert = Annotated[Path | None, typer.Option(help="Encrypt with this certificate (PEM).")]
CertKey = Annotated[Path | None, typer.Option(help="The key of the certificate (PEM).")]
RoomPort = Annotated[
    int,
    typer.Option("--room", min=0, max=65535, help="The local port of a thermo-hygrometer; 0 for none."),
]
ScalePath = Annotated[Path | None, typer.Option("--scale", help="The socket of a bench scale of this machine.")]
BehindProxy = Annotated[
    list[str] | None,
    typer.Option("--behind-proxy", help="The address a reverse proxy asks from; everybody gives a code then."),
]
KnownAs = Annotated[
    str, typer.Option("--known-as", help="The address others open, such as https://lumso.loft.example.")
]
Lines = Annotated[int, typer.Option(min=16, max=100_000, help="How many connections are held in all.")]
LinesEach = Annotated[int, typer.Option("--lines-each", min=4, max=100_000, help="How many for one address.")]


def _proxies(said: list[str] | None) -> frozenset[str]:
    found = set()
    for one in said or ():
        try:
            found.add(str(ipaddress.ip_address(one)))
        except ValueError:
            raise fail(f"--behind-proxy {one!r} is no address, such as 127.0.0.1.", 2) from None
    return frozenset(found)


def _known(said: str) -> str:
    if said and not (urlsplit(said).scheme in ("http", "https") and urlsplit(said).hostname):
        raise fail(f"--known-as {said!r} is no address, such as https://lumso.loft.example.", 2)
    return said.rstrip("/")


@app.command()
def serve(host: Host = "127.0.0.1", port: Port = 8321, data: Data = None, tls: OwnTls = False, cert: Cert = None,
          key: CertKey = None, sensor: RoomPort = 0, scale_at: ScalePath = None, behind_proxy: BehindProxy = None,
          known_as: KnownAs = "", lines: Lines = 512, lines_each: LinesEach = 64) -> None:  # fmt: skip
    """Serve Lumso with your own workshop; with --host 0.0.0.0 to the devices of the house, who give a code."""
    from lumso.serving.serve import Served, run, tls_of

    run(Served(host, port, data_path(data), False, tls_of(tls, cert, key), sensor, scale_at, _proxies(behind_proxy),
               _known(known_as), lines, lines_each))  # fmt: skip


@app.command()
def demo(host: Host = "127.0.0.1", port: Port = 8321, data: Data = None, tls: OwnTls = False, cert: Cert = None,
         key: CertKey = None, sensor: RoomPort = 0, scale_at: ScalePath = None) -> None:  # fmt: skip
    """Serve Lumso with the Lantern Loft, a made-up theatre, to look round and play with."""
    from lumso.serving.serve import Served, run, tls_of

    loft = data or user_data_path("lumso") / "lantern-loft.sqlite3"
    run(Served(host, port, loft, True, tls_of(tls, cert, key), sensor, scale_at))


for command in (
    keep.backup,
    keep.restore,
    keep.check,
    keep.export,
    inside.devices,
    work.plan,
    work.work,
    work.days,
    work.chip,
    room.room,
    scale.scale,
):
    app.command()(command)
