"""The command line: serve, demo, plan, work, days, chip, room, scale; backup, restore, check, export."""

import gc
import signal
import socket
import subprocess
import sys
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, cast

import typer
from platformdirs import user_data_path

from lumso.commands import keep, room, scale, work
from lumso.commands.parts import Data, Port, bind, data_path, fail, stopped
from lumso.core.errors import LumsoError

if TYPE_CHECKING:
    from fastapi import FastAPI

    from lumso.api.gate import Entry
    from lumso.devices.listener import Listener
    from lumso.devices.weighing import SocketScale
    from lumso.store.database import Database

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


def _names(host: str) -> frozenset[str]:
    """What this machine may be called by whoever asks: beyond its own address, its name in the house."""
    if _is_loopback(host):
        return frozenset()
    own = socket.gethostname().lower()
    return frozenset({host.lower(), own, f"{own}.local"})


class _Device:
    """A simulated device that was begun here, as a process of its own, and ends with us."""

    def __init__(self, *command: str) -> None:
        self.process = subprocess.Popen(
            [sys.executable, "-m", "lumso", *command, "--tied"],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
        )
        assert self.process.stdout
        self.at = (self.process.stdout.readline().split() or [""])[-1]

    def end(self) -> None:
        self.process.terminate()
        self.process.wait(timeout=5)
        for pipe in (self.process.stdin, self.process.stdout):
            assert pipe
            pipe.close()


def _listen(made: "FastAPI", db: "Database", port: int) -> "Listener | None":
    """Listen to a thermo-hygrometer, and keep what it says."""
    if not port:
        return None
    from functools import partial

    from lumso.devices.listener import Listener
    from lumso.store import readings

    made.state.room = Listener(port, partial(readings.add, db))
    made.state.room.start()
    return cast("Listener", made.state.room)


def _weigh(made: "FastAPI", path: Path | None) -> "SocketScale | None":
    """Listen to a bench scale."""
    if path is None:
        return None
    from lumso.devices.weighing import SocketScale

    made.state.scale = SocketScale(path)
    made.state.scale.start()
    return cast("SocketScale", made.state.scale)


def _is_loopback(host: str) -> bool:
    return host == "localhost" or host.startswith("127.")


def _reachable(host: str) -> str:
    """What others call this machine: its address in the house where it listens on all of them."""
    if host not in ("0.0.0.0", ""):
        return host
    try:
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as asked:
            asked.connect(("192.0.2.1", 9))  # nothing is sent: only the way out is asked for
            return str(asked.getsockname()[0])
    except OSError:
        return socket.gethostname()


@dataclass(frozen=True)
class _Tls:
    """Whether what goes over the network is encrypted, and by what."""

    own: bool = False
    cert: Path | None = None
    key: Path | None = None

    def files(self, folder: Path, names: set[str]) -> tuple[Path | None, Path | None, bytes | None]:
        """The certificate, its key, and the authority to be trusted where it is one of ours."""
        if self.cert and self.key:
            return self.cert, self.key, None
        if not self.own:
            return None, None, None
        from lumso.tls import certificate

        return certificate(folder, names)


def _say_how_to_come_in(entry: "Entry") -> None:
    """What stands in the terminal in workshop mode: the address, the code, the same to be scanned, and what to know."""
    import segno

    print(
        f"\nWorkshop mode. On another device open {entry.reach}/ and give the code:\n\n    {entry.code}\n", flush=True
    )
    segno.make(entry.address(), error="m").terminal(compact=True)
    if entry.authority:
        from lumso.tls import fingerprint

        print(f"Devices trust it once they hold {entry.reach}/api/trust/authority.pem; its fingerprint (SHA-256) is\n"
              f"{fingerprint(entry.authority)}", flush=True)  # fmt: skip
    elif not entry.secure:
        print("Over plain http the code and your work cross the network unencrypted: only where you trust everybody\n"
              "on it. --tls encrypts them.", flush=True)  # fmt: skip


def _say_the_new_code(code: str) -> None:
    print(f"\nA device was turned out. The code is another now:\n\n    {code}\n", flush=True)


def _serve(host: str, port: int, data: Path, demo: bool, tls: _Tls, sends_on: int, weighs_at: Path | None) -> None:
    gc.disable()  # until all is loaded: nothing of it is ever garbage
    import uvicorn

    from lumso.api.app import create_app
    from lumso.api.gate import Entry
    from lumso.catalogue import shipped
    from lumso.demo import seed
    from lumso.store import backup
    from lumso.store.database import Database
    from lumso.store.keeper import Keeper

    listener = bind(host, port)
    try:
        if backup.pending(data):
            print(f"{data} is of an earlier Lumso. A backup is made before it is brought up to date.", flush=True)
            backup.make(data)
        db = Database(data)
        fresh = bool(demo and seed(db, shipped()))
    except LumsoError as error:
        listener.close()
        raise fail(str(error)) from None
    reached, number = _reachable(host), listener.getsockname()[1]
    names = {reached, socket.gethostname().lower(), f"{socket.gethostname().lower()}.local", "localhost", "127.0.0.1"}
    cert, key, authority = tls.files(data.parent / "tls", names)
    scheme = "https" if cert else "http"
    print(f"Lumso is at {scheme}://{reached}:{number}/  (data in {data}; stop with Ctrl+C)", flush=True)
    entry = None
    if not _is_loopback(host):
        entry = Entry(f"{scheme}://{reached}:{number}", secure=cert is not None, authority=authority)
        entry.told = _say_the_new_code
        _say_how_to_come_in(entry)
    made = create_app(db, shipped(), names=_names(host), entry=entry)
    if fresh:
        from lumso.demo.log import write_log

        write_log(made.state.context, made.state.clock() / 60)
    devices = []
    if demo and not sends_on:
        devices.append(_Device("room", "--port", "0", "--profile", "heated-room"))
        sends_on = int(devices[-1].at or 0)
    if demo and weighs_at is None:
        devices.append(_Device("scale"))
        weighs_at = Path(devices[-1].at) if devices[-1].at else None
    listeners = [x for x in (_listen(made, db, sends_on), _weigh(made, weighs_at)) if x is not None]
    config = uvicorn.Config(
        made,
        log_level="warning",
        access_log=False,
        ssl_certfile=cert,
        ssl_keyfile=key,
    )
    gc.freeze()  # the catalogue and the models stay for good: to collect them again and again only makes edits wait
    gc.set_threshold(50_000, 20, 50)  # values hold no circles: to look for some in the midst of a plan makes it late
    gc.enable()
    signal.signal(signal.SIGTERM, stopped)  # the server passes it on when it has answered what it was asked
    if hangup := getattr(signal, "SIGHUP", None):  # a closed terminal; not everywhere
        signal.signal(hangup, lambda number, frame: signal.raise_signal(signal.SIGTERM))
    made.state.keeper = keeper = Keeper(db)
    keeper.start()
    try:
        server = uvicorn.Server(config)
        made.state.leaving = lambda: server.should_exit  # what is told without end ends then
        server.run(sockets=[listener])
    finally:
        keeper.stop()
        for listening in listeners:
            listening.stop()
        for device in devices:
            device.end()
        db.close()


@app.command()
def serve(host: Host = "127.0.0.1", port: Port = 8321, data: Data = None, tls: OwnTls = False, cert: Cert = None,
          key: CertKey = None, sensor: RoomPort = 0, scale_at: ScalePath = None) -> None:  # fmt: skip
    """Serve Lumso with your own workshop; with --host 0.0.0.0 to the devices of the house, who give a code."""
    _serve(host, port, data_path(data), False, _tls(tls, cert, key), sensor, scale_at)


@app.command()
def demo(host: Host = "127.0.0.1", port: Port = 8321, data: Data = None, tls: OwnTls = False, cert: Cert = None,
         key: CertKey = None, sensor: RoomPort = 0, scale_at: ScalePath = None) -> None:  # fmt: skip
    """Serve Lumso with the Lantern Loft, a made-up theatre, to look round and play with."""
    _serve(
        host,
        port,
        data or user_data_path("lumso") / "lantern-loft.sqlite3",
        True,
        _tls(tls, cert, key),
        sensor,
        scale_at,
    )


def _tls(own: bool, cert: Path | None, key: Path | None) -> _Tls:
    if (cert is None) != (key is None):
        raise fail("--cert and --key belong together: give both.", 2)
    for file in (cert, key):
        if file and not file.is_file():
            raise fail(f"{file} cannot be read.", 2)
    if cert and key:
        import ssl

        try:
            ssl.create_default_context(ssl.Purpose.CLIENT_AUTH).load_cert_chain(cert, key)
        except (ssl.SSLError, OSError) as error:
            raise fail(f"{cert} and {key} cannot be used together: {error}.", 2) from None
    return _Tls(own, cert, key)


for command in (
    keep.backup,
    keep.restore,
    keep.check,
    keep.export,
    work.plan,
    work.work,
    work.days,
    work.chip,
    room.room,
    scale.scale,
):
    app.command()(command)
