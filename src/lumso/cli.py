"""The command line: serve, demo, plan, work; backup, restore, check, export."""

import gc
import os
import signal
import socket
import sys
from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer
from platformdirs import user_data_path

from lumso.core.errors import LumsoError, Problem

if TYPE_CHECKING:
    from lumso.api.gate import Entry
    from lumso.core.layers.conditions import Room
    from lumso.core.work.work import Work
    from lumso.core.workshop.workshop import Workshop

app = typer.Typer(help="Lumso, a bench companion for decorative furniture painters.", no_args_is_help=True,
                  add_completion=False, pretty_exceptions_enable=False)  # fmt: skip

Port = Annotated[int, typer.Option(min=0, max=65535, help="The port to listen on; 0 for any free one.")]
Host = Annotated[str, typer.Option(help="The address to listen on.")]
OwnTls = Annotated[bool, typer.Option("--tls", help="Encrypt, with a certificate of one's own.")]
Cert = Annotated[Path | None, typer.Option(help="Encrypt with this certificate (PEM).")]
CertKey = Annotated[Path | None, typer.Option(help="The key of the certificate (PEM).")]
Data = Annotated[Path | None, typer.Option(help="The database file; made when missing.")]


def _fail(message: str, code: int = 1) -> typer.Exit:
    typer.echo(f"lumso: {message}", err=True)
    return typer.Exit(code)


def _bind(host: str, port: int) -> socket.socket:
    # Named as TCP, or what is accepted waits for company before it sends: 40 ms on every request kept alive.
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
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


def _names(host: str) -> frozenset[str]:
    """What this machine may be called by whoever asks: beyond its own address, its name in the house."""
    if _is_loopback(host):
        return frozenset()
    own = socket.gethostname().lower()
    return frozenset({host.lower(), own, f"{own}.local"})


def _stopped(number: int, frame: object) -> None:
    """Asked to stop: through the same door as any end, so that the database is closed."""
    raise SystemExit(0)


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


def _serve(host: str, port: int, data: Path, demo: bool, tls: _Tls) -> None:
    gc.disable()  # until all is loaded: nothing of it is ever garbage
    import uvicorn

    from lumso.api.app import create_app
    from lumso.api.gate import Entry
    from lumso.catalogue import shipped
    from lumso.demo import seed
    from lumso.store import backup
    from lumso.store.database import Database
    from lumso.store.keeper import Keeper

    listener = _bind(host, port)
    try:
        if backup.pending(data):
            print(f"{data} is of an earlier Lumso. A backup is made before it is brought up to date.", flush=True)
            backup.make(data)
        db = Database(data)
        if demo:
            seed(db, shipped())
    except LumsoError as error:
        listener.close()
        raise _fail(str(error)) from None
    reached, number = _reachable(host), listener.getsockname()[1]
    names = {reached, socket.gethostname().lower(), f"{socket.gethostname().lower()}.local", "localhost", "127.0.0.1"}
    cert, key, authority = tls.files(data.parent / "tls", names)
    scheme = "https" if cert else "http"
    print(f"Lumso is at {scheme}://{reached}:{number}/  (data in {data}; stop with Ctrl+C)", flush=True)
    entry = None
    if not _is_loopback(host):
        entry = Entry(f"{scheme}://{reached}:{number}", secure=cert is not None, authority=authority)
        _say_how_to_come_in(entry)
    config = uvicorn.Config(
        create_app(db, shipped(), names=_names(host), entry=entry),
        log_level="warning",
        access_log=False,
        ssl_certfile=cert,
        ssl_keyfile=key,
    )
    gc.freeze()  # the catalogue and the models stay for good: to collect them again and again only makes edits wait
    gc.set_threshold(50_000, 20, 50)  # values hold no circles: to look for some in the midst of a plan makes it late
    gc.enable()
    signal.signal(signal.SIGTERM, _stopped)  # the server passes it on when it has answered what it was asked
    if hangup := getattr(signal, "SIGHUP", None):  # a closed terminal; not everywhere
        signal.signal(hangup, lambda number, frame: signal.raise_signal(signal.SIGTERM))
    keeper = Keeper(db)
    keeper.start()
    try:
        uvicorn.Server(config).run(sockets=[listener])
    finally:
        keeper.stop()
        db.close()


@app.command()
def serve(host: Host = "127.0.0.1", port: Port = 8321, data: Data = None, tls: OwnTls = False, cert: Cert = None,
          key: CertKey = None) -> None:  # fmt: skip
    """Serve Lumso with your own workshop; with --host 0.0.0.0 to the devices of the house, who give a code."""
    _serve(host, port, _data(data), False, _tls(tls, cert, key))


@app.command()
def demo(host: Host = "127.0.0.1", port: Port = 8321, data: Data = None, tls: OwnTls = False, cert: Cert = None,
         key: CertKey = None) -> None:  # fmt: skip
    """Serve Lumso with the Lantern Loft, a made-up theatre, to look round and play with."""
    _serve(host, port, data or user_data_path("lumso") / "lantern-loft.sqlite3", True, _tls(tls, cert, key))


def _tls(own: bool, cert: Path | None, key: Path | None) -> _Tls:
    if (cert is None) != (key is None):
        raise _fail("--cert and --key belong together: give both.", 2)
    for file in (cert, key):
        if file and not file.is_file():
            raise _fail(f"{file} cannot be read.", 2)
    if cert and key:
        import ssl

        try:
            ssl.create_default_context(ssl.Purpose.CLIENT_AUTH).load_cert_chain(cert, key)
        except (ssl.SSLError, OSError) as error:
            raise _fail(f"{cert} and {key} cannot be used together: {error}.", 2) from None
    return _Tls(own, cert, key)


Kept = Annotated[Path, typer.Argument(help="The file it is, or will be.")]
Revisions = Annotated[bool, typer.Option(help="Every revision of every job too.")]


def _data(data: Path | None) -> Path:
    return data or user_data_path("lumso") / "workshop.sqlite3"


@app.command()
def backup(file: Kept, data: Data = None) -> None:
    """Write the whole workshop to one file, also while Lumso runs, and open it again to see that it is whole."""
    from lumso.store.backup import write

    try:
        made = write(_data(data), file)
    except LumsoError as error:
        raise _fail(str(error)) from None
    print(f"{file}: {made.jobs} jobs, {file.stat().st_size:,} bytes, opened and found whole.")


@app.command()
def restore(file: Kept, data: Data = None) -> None:
    """Put a backup, or a copy of a database, in the place of the workshop. What was there is kept beside it."""
    from lumso.store.backup import restore as put_back

    path = _data(data)
    try:
        found, before = put_back(file, path)
    except LumsoError as error:
        raise _fail(str(error)) from None
    print(f"{path}: {found.jobs} jobs" + (f", made {found.made_at}" if found.made_at else "") + ".")
    if before:
        print(f"What was there before is kept as {before}.")


@app.command()
def check(data: Data = None) -> None:
    """Look through the whole database for damage."""
    from lumso.store.file import look, thorough

    path = _data(data)
    try:
        state = look(path)
        faults = [] if state == "new" else thorough(path)
    except LumsoError as error:
        raise _fail(str(error)) from None
    if state == "new":
        raise _fail(f"there is no workshop at {path}.")
    for fault in faults:
        typer.echo(fault, err=True)
    if faults:
        raise typer.Exit(1)
    print(f"{path}: {'whole' if state == 'whole' else f'sound in itself, but {state}'}.")


@app.command()
def export(file: Kept, data: Data = None, revisions: Revisions = False) -> None:
    """Write everything the workshop holds as one open JSON file."""
    from lumso.store.database import Database
    from lumso.store.export import everything

    try:
        db = Database(_data(data))
        try:
            with file.open("w", encoding="utf-8") as out:
                out.writelines(everything(db, revisions))
        finally:
            db.close()
    except OSError as error:
        raise _fail(f"{file} cannot be written: {error.strerror}.") from None
    except LumsoError as error:
        raise _fail(str(error)) from None


JobFile = Annotated[Path, typer.Argument(help="A job file; - for standard input.")]
Measures = Annotated[str, typer.Option(help="us, metric, australian or imperial.")]
Temperature = Annotated[float, typer.Option(min=-10, max=50, help="°C in the room.")]
Humidity = Annotated[float, typer.Option(min=1, max=100, help="Relative humidity in the room, per cent.")]


def _worked(file: Path, measures: str, temperature: float, humidity: float) -> "tuple[Work, Workshop, Room]":
    """A job file, worked out. Exits with 2 when it is none."""
    gc.disable()  # over before anything is garbage
    from lumso.catalogue import shipped
    from lumso.core.layers.conditions import steady
    from lumso.core.work.work import work as worked
    from lumso.core.workshop.workshop import Workshop
    from lumso.formats.jobfile import from_json

    catalogue = shipped()
    if measures not in catalogue.systems:
        raise _fail(f"there are no measures called {measures!r}. Known: {', '.join(catalogue.systems)}.", 2)
    workshop, room = Workshop(measures=measures), steady(temperature, humidity / 100)
    try:
        text = sys.stdin.buffer.read() if str(file) == "-" else file.read_bytes()
        return worked(from_json(text, str(file)), workshop, catalogue, room), workshop, room
    except OSError as error:
        raise _fail(f"{file} cannot be read: {error.strerror}.", 2) from None
    except LumsoError as error:
        raise _fail(str(error), 2) from None


def _say(answer: bytes, problems: Iterable[Problem]) -> None:
    """Print an answer, and what stands in its way to the error output. Exits with 1 when something does."""
    sys.stdout.buffer.write(answer + os.linesep.encode())
    found = list(problems)
    for problem in found:
        typer.echo(f"{problem.at}: {problem.says} Allowed: {problem.allowed}.", err=True)
    if found:
        raise typer.Exit(1)


@app.command()
def plan(file: JobFile, measures: Measures = "metric", temperature: Temperature = 20.0,
         humidity: Humidity = 50.0) -> None:  # fmt: skip
    """Print the plan of a job file as JSON. Exits with 1 when the job holds a problem, with 2 when it is no job."""
    from lumso.core.memory import Memo
    from lumso.core.plan.plan import Plan, plan_of
    from lumso.formats.validators import adapter

    made, workshop, room = _worked(file, measures, temperature, humidity)
    planned = plan_of(made, workshop, room, Memo())
    _say(adapter(Plan).dump_json(planned, indent=2), planned.problems)


@app.command()
def work(file: JobFile, measures: Measures = "metric", temperature: Temperature = 20.0,
         humidity: Humidity = 50.0) -> None:  # fmt: skip
    """Print the order of work of a job file as JSON: operations, batches, what holds between. Exits as plan does."""
    from lumso.core.work.order_file import OrderFile, order_file
    from lumso.formats.validators import adapter

    made, _, _ = _worked(file, measures, temperature, humidity)
    _say(adapter(OrderFile).dump_json(order_file(made), indent=2), made.problems)
