"""Lumso as a server: what it listens to, whom it asks for a code, what runs beside it, and how it ends."""

import gc
import signal
import socket
import subprocess
import sys
from dataclasses import dataclass, field
from pathlib import Path
from typing import TYPE_CHECKING, cast
from urllib.parse import urlsplit

from lumso.commands.parts import bind, fail, stopped
from lumso.core.errors import LumsoError

if TYPE_CHECKING:
    from fastapi import FastAPI

    from lumso.api.gate import Entry
    from lumso.devices.listener import Listener
    from lumso.devices.weighing import SocketScale
    from lumso.store.database import Database


@dataclass(frozen=True)
class Served:
    """How Lumso is served, as the command line says it."""

    host: str
    port: int
    data: Path
    demo: bool = False
    tls: "Tls" = field(default_factory=lambda: Tls())
    sensor: int = 0
    scale: Path | None = None
    proxy: frozenset[str] = frozenset()
    """The addresses of a proxy that Lumso stands behind."""
    known_as: str = ""
    """The address that others open it by, where it is not the machine's own: https://lumso.loft.example"""
    lines: int = 512
    lines_each: int = 64


def _names(how: Served) -> frozenset[str]:
    """What this machine may be called by whoever asks: beyond its own address, its name in the house."""
    known = {urlsplit(how.known_as).hostname or ""} - {""}
    if _is_loopback(how.host):
        return frozenset(known)
    own = socket.gethostname().lower()
    return frozenset({how.host.lower(), own, f"{own}.local"} | known)


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
class Tls:
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
        f"\nWorkshop mode. On another device open {entry.reach}/ and give the code:\n\n    {entry.code}\n\n"
        "It lets a device look; here, under Kept, or with `lumso devices` it is let work.\n",
        flush=True,
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


def _entry(how: Served, address: str, secure: bool, authority: bytes | None) -> "Entry | None":
    """What is asked of whoever comes over the network; None where only this machine reaches Lumso."""
    from lumso.api.gate import Entry

    if _is_loopback(how.host) and not how.proxy:
        return None
    reach = how.known_as or address
    entry = Entry(reach, secure=secure or reach.startswith("https:"), authority=authority, told=_say_the_new_code)
    _say_how_to_come_in(entry)
    return entry


def _begun_beside(how: Served) -> tuple[list[_Device], int, Path | None]:
    """The simulated devices of the demo, and where the room and the scale are heard."""
    devices, sensor, scale = [], how.sensor, how.scale
    if how.demo and not sensor:
        devices.append(_Device("room", "--port", "0", "--profile", "heated-room"))
        sensor = int(devices[-1].at or 0)
    if how.demo and scale is None:
        devices.append(_Device("scale"))
        scale = Path(devices[-1].at) if devices[-1].at else None
    return devices, sensor, scale


def _heed_signals() -> None:
    signal.signal(signal.SIGTERM, stopped)  # the server passes it on when it has answered what it was asked
    if hangup := getattr(signal, "SIGHUP", None):  # a closed terminal; not everywhere
        signal.signal(hangup, lambda number, frame: signal.raise_signal(signal.SIGTERM))


def run(how: Served) -> None:
    """Serve until it is told to stop."""
    gc.disable()  # until all is loaded: nothing of it is ever garbage
    import uvicorn

    from lumso.api.app import create_app
    from lumso.catalogue import shipped
    from lumso.demo import seed
    from lumso.serving.lines import Limits, Lines, WatchedServer, counted
    from lumso.store import backup, private
    from lumso.store.database import Database
    from lumso.store.keeper import Keeper

    private.ask_for_it()
    listener, data = bind(how.host, how.port), how.data
    try:
        for says in private.close_to_others(data):
            print(says, flush=True)
        if backup.pending(data):
            print(f"{data} is of an earlier Lumso. A backup is made before it is brought up to date.", flush=True)
            backup.make(data)
        db = Database(data)
        fresh = bool(how.demo and seed(db, shipped()))
    except LumsoError as error:
        listener.close()
        raise fail(str(error)) from None
    reached, number = _reachable(how.host), listener.getsockname()[1]
    names = {reached, socket.gethostname().lower(), f"{socket.gethostname().lower()}.local", "localhost", "127.0.0.1"}
    cert, key, authority = how.tls.files(data.parent / "tls", names)
    address = f"{'https' if cert else 'http'}://{reached}:{number}"
    if db.trouble:
        print(db.trouble, flush=True)
    print(f"Lumso is at {address}/  (data in {data}; stop with Ctrl+C)", flush=True)
    entry = _entry(how, address, cert is not None, authority)
    made = create_app(db, shipped(), names=_names(how), entry=entry, proxy=how.proxy)
    if fresh:
        from lumso.demo.log import write_log

        write_log(made.state.context, made.state.context.exact_now())
    devices, sensor, scale = _begun_beside(how)
    listeners = [x for x in (_listen(made, db, sensor), _weigh(made, scale)) if x is not None]
    lines = Lines(Limits(an_address=how.lines_each, in_all=how.lines), how.proxy)
    config = uvicorn.Config(
        made,
        http=lines.protocol(),
        ws="none",
        proxy_headers=False,  # whom a request is from is Lumso's own to say
        timeout_keep_alive=lines.limits.kept_s,
        log_level="warning",
        access_log=False,
        ssl_certfile=cert,
        ssl_keyfile=key,
    )
    gc.freeze()  # the catalogue and the models stay for good: to collect them again and again only makes edits wait
    gc.set_threshold(50_000, 20, 50)  # values hold no circles: to look for some in the midst of a plan makes it late
    gc.enable()
    _heed_signals()
    made.state.keeper = keeper = Keeper(db)
    keeper.start()

    try:
        server = WatchedServer(config, lines)
        made.state.leaving = lambda: server.should_exit  # what is told without end ends then
        server.run(sockets=[counted(listener, lines)])
    finally:
        keeper.stop()
        for listening in listeners:
            listening.stop()
        for device in devices:
            device.end()
        db.close()


def tls_of(own: bool, cert: Path | None, key: Path | None) -> Tls:
    """What the command line says of encryption. Ends the program where it cannot be."""
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
    return Tls(own, cert, key)
