"""A Lumso for the browser tests, as a process of its own: built once, and put back for every test.

It is told what to do line by line on its stdin, as JSON, and answers each with a line: what it came to, or why not. It
never ships, and knows nothing of browsers; `tests/browser/lumso.py` is its other end.
"""

import gc
import json
import shutil
import socket
import sys
import threading
import time
from pathlib import Path
from typing import Any

import uvicorn

from lumso.api.app import create_app
from lumso.api.gate import Entry
from lumso.catalogue import shipped
from lumso.demo import seed
from lumso.demo.log import write_log
from lumso.devices.weighing import SocketScale
from lumso.services.context import Context
from lumso.store import backup, entries, photographs
from lumso.store.database import Database
from lumso.store.file import wal_of
from lumso.store.keeper import Keeper
from tests.at_once import AtOnce


class Launcher:
    """The application, its server, and what the tests turn on it."""

    def __init__(self, folder: Path, asked: dict[str, Any]) -> None:
        """`asked` may name a `clock` (seconds since 1970 at the start), `names` and `reach` of workshop mode, and `tls`
        as its certificate and key."""
        self.folder, self.data, self.port = folder, folder / "lumso.sqlite3", 0
        self.cert: str | None
        self.key: str | None
        self.cert, self.key = asked.get("tls") or (None, None)
        self.began = float(asked.get("clock") or time.time())
        self.ahead = self.began - time.time()
        self.seeds: dict[str, Path] = {}
        shutil.copyfile(self._seed("empty"), self.data)
        self.db = Database(self.data)
        reach = asked.get("reach")
        self.entry = Entry(reach, secure=self.cert is not None) if reach else None
        names = frozenset(asked.get("names") or ())
        self.app = create_app(self.db, shipped(), names=names, entry=self.entry, clock=self._clock)
        self.searches = self.app.state.solver
        gc.collect()
        gc.freeze()
        self.start()

    def _clock(self) -> float:
        return time.time() + self.ahead

    def _seed(self, name: str) -> Path:
        """The file of a workshop as it is at first: empty, with the jobs of the loft, or with its log too."""
        if name not in self.seeds:
            path = self.folder / f"{name}.sqlite3"
            db = Database(path)
            if name != "empty":
                seed(db, shipped())
            if name == "log":
                write_log(Context(db, shipped()), self.began / 60)
            db.close()
            self.seeds[name] = path
        return self.seeds[name]

    def start(self) -> dict[str, Any]:
        """Serve, on the same port as before."""
        listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        listener.bind(("127.0.0.1", self.port))
        listener.listen(64)
        self.port = listener.getsockname()[1]
        config = uvicorn.Config(self.app, log_level="error", ssl_certfile=self.cert, ssl_keyfile=self.key)
        self.server = uvicorn.Server(config)
        self.app.state.leaving = lambda: self.server.should_exit
        self.thread = threading.Thread(target=self.server.run, kwargs={"sockets": [listener]})
        self.thread.start()
        if self.entry:
            self.entry.reach = f"{self.entry.reach.rstrip('0123456789').rstrip(':')}:{self.port}"
        return self.told()

    def stop(self) -> dict[str, Any]:
        """Serve no more: whoever asks is refused by the machine itself."""
        self.server.should_exit = True
        self.thread.join()
        return {}

    def told(self) -> dict[str, Any]:
        """Where it is and what opens it."""
        entry = {"reach": self.entry.reach, "code": self.entry.code} if self.entry else {}
        return {"port": self.port, "data": str(self.data), **entry}

    def back(self, to: str) -> dict[str, Any]:
        """As it was before anybody came: the database by the store's own exchange, and nothing remembered."""
        self.scale(None)
        self.app.state.keeper = None
        self.ahead = self.began - time.time()
        self.app.state.solver = AtOnce()
        seed = self._seed(to)
        with self.db.exchanged():
            wal_of(self.data).unlink(missing_ok=True)
            shutil.copyfile(seed, self.data)
        for folder in (photographs.folder_of(self.data), backup.folder_of(self.data)):
            shutil.rmtree(folder, ignore_errors=True)
        for before in self.folder.glob(f"{self.data.stem}-before-*"):
            before.unlink()
        self.app.state.context = Context(self.db, shipped(), self._clock)
        if self.entry:
            self.entry._wrong.clear()
        if not self.thread.is_alive():
            self.start()
        return self.told()

    def turn(self, minutes: float) -> dict[str, Any]:
        """So many minutes pass at once."""
        self.ahead += minutes * 60
        return {}

    def search(self, on: bool) -> dict[str, Any]:
        """Whether the best days are searched for, or found at once."""
        self.app.state.solver = self.searches if on else AtOnce()
        return {}

    def scale(self, path: str | None) -> dict[str, Any]:
        """Listen to a scale on a socket, or to none."""
        if self.app.state.scale is not None:
            self.app.state.scale.stop()
        self.app.state.scale = None
        if path:
            self.app.state.scale = SocketScale(Path(path))
            self.app.state.scale.start()
        return {}

    def keep(self, kind: entries.Kind, slug: str, document: str) -> dict[str, Any]:
        """An entry of the workshop, as it stands, whether it can be read or not."""
        entries.put(self.db, [(kind, slug, document)])
        return {}

    def spoil(self, job: str) -> dict[str, Any]:
        """The newest version of a job is one that cannot be read."""
        with self.db.write() as connection:
            connection.execute(
                "INSERT INTO job_revision (job_id, number, parent, name, document, saved_at) "
                "VALUES (?, 2, 1, '', '{', '')",
                (job,),
            )
            connection.execute("UPDATE job SET head = 2 WHERE id = ?", (job,))
        return {}

    def rot(self, day: str = "") -> dict[str, Any]:
        """A backup that cannot be read; or, of a `day` such as "20200101", one that is old."""
        folder = backup.folder_of(self.data)
        if day:
            made = folder / backup.make(self.data).name
            made.rename(folder / f"{day}{made.name[8:]}")
            self.app.state.keeper = keeper = Keeper(self.db)
            keeper.hindered = True
        else:
            folder.mkdir(exist_ok=True)
            (folder / f"20261101-120000-000{backup.SUFFIX}").write_bytes(b"PK rotten")
        return {}

    def end(self) -> None:
        """Let go of everything."""
        self.scale(None)
        if self.thread.is_alive():
            self.stop()
        self.searches.close()
        self.app.state.workers.close()
        self.db.close()


ORDERS = frozenset({"start", "stop", "told", "back", "turn", "search", "scale", "keep", "spoil", "rot"})


def main() -> None:
    """Obey until nobody orders any more."""
    launcher = Launcher(Path(sys.argv[1]), json.loads(sys.argv[2]))
    try:
        print(json.dumps(launcher.told()), flush=True)
        for line in sys.stdin:
            order = json.loads(line)
            name = order.pop("do")
            assert name in ORDERS, name
            try:
                said = getattr(launcher, name)(**order)
            except Exception as error:
                said = {"failed": f"{type(error).__name__}: {error}"}
            print(json.dumps(said), flush=True)
    finally:
        launcher.end()


if __name__ == "__main__":
    main()
