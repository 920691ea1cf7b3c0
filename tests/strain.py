"""Lumso under strain: its server killed while jobs are saved and acts are noted, and a log of many batches."""

import http.client
import json
import random
import signal
import subprocess
import sys
import time
import urllib.request
from contextlib import suppress
from pathlib import Path
from threading import Thread
from typing import Any

from lumso.demo import demo_jobs
from lumso.store import events
from lumso.store.database import Database
from lumso.store.events import PotRow
from lumso.store.file import thorough
from tests.waiting import until


def ask(port: int, method: str, path: str, body: object = None) -> Any:
    sent = json.dumps(body).encode() if body is not None else None
    headers = {"Content-Type": "application/json", "If-Match": '"0"'}
    request = urllib.request.Request(f"http://127.0.0.1:{port}{path}", sent, headers, method=method)
    with urllib.request.urlopen(request, timeout=20) as reply:
        return json.loads(reply.read() or b"null")


def started(data: Path) -> tuple["subprocess.Popen[str]", int]:
    command = [sys.executable, "-m", "lumso", "serve", "--port", "0", "--data", str(data)]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert process.stdout
    line = process.stdout.readline()
    port = int(line.split("/  (")[0].rsplit(":", 1)[1])
    ask(port, "GET", "/api/bench/scale")  # it listens already: what is asked now is answered as soon as it can be
    return process, port


class Lumso:
    """A server as a process of its own, on a data file."""

    def __init__(self, data: Path, command: str = "serve") -> None:
        line = [sys.executable, "-m", "lumso", command, "--port", "0", "--data", str(data)]
        self.process = subprocess.Popen(line, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)

    def port(self) -> int:
        """Where it listens; 0 where it was gone before it said so."""
        assert self.process.stdout
        found = self.process.stdout.readline().partition("http://127.0.0.1:")[2]
        return int(found.split("/")[0]) if found else 0

    def end(self, how: signal.Signals = signal.SIGTERM) -> None:
        self.process.send_signal(how)
        self.process.wait()
        assert self.process.stdout
        self.process.stdout.close()


class Client:
    """A connection that is kept, as a browser keeps one."""

    def __init__(self, port: int) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", port, timeout=60)

    def ask(self, method: str, path: str, body: bytes | None = None, **headers: str) -> tuple[int, bytes]:
        said = {"Content-Type": "application/json", **{k.replace("_", "-"): v for k, v in headers.items()}}
        self.connection.request(method, f"/api{path}", body, said)
        reply = self.connection.getresponse()
        return reply.status, reply.read()


def _writes(port: int, told: list[tuple[str, int, str]]) -> None:
    """Save a job of its own again and again, and note what was acknowledged, until the server is gone."""
    client = Client(port)
    try:
        made = json.loads(client.ask("POST", "/jobs/start", b'{"ml": 300}')[1])
        at, job, revision = made["id"], made["job"], made["revision"]
        for number in range(100_000):
            name = f"save {number}"
            body = json.dumps({**job, "name": name}).encode()
            status, answer = client.ask("PUT", f"/jobs/{at}", body, If_Match=f'"{revision}"')
            if status != 200:
                return
            revision = json.loads(answer)["revision"]
            told.append((at, revision, name))
    except (OSError, http.client.HTTPException, ValueError):
        return


def killed_while_saving(folder: Path, times: int, luck: random.Random) -> int:
    """SIGKILL under four writers, and during the first start; returns how many writes were acknowledged. All of them
    are there, every database opens and is whole, and no demo is seeded by half."""
    acknowledged = 0
    for turn in range(times):
        first = turn % 4 == 0
        data = folder / (f"first-{turn}.sqlite3" if first else f"{turn // 20}.sqlite3")
        lumso = Lumso(data, "demo")
        told: list[tuple[str, int, str]] = []
        if first:
            with suppress(subprocess.TimeoutExpired):
                lumso.process.wait(timeout=luck.uniform(0.3, 1.8))
            lumso.end(signal.SIGKILL)
        else:
            port = lumso.port()
            writers = [Thread(target=_writes, args=(port, told)) for _ in range(4)]
            for writer in writers:
                writer.start()
            most = luck.randrange(1, 25)
            until(lambda told=told, most=most: len(told) >= most)  # type: ignore[misc]
            lumso.end(signal.SIGKILL)
            for writer in writers:
                writer.join()
        db = Database(data)
        with db.read() as connection:
            for job, revision, name in told:
                found = connection.execute(
                    "SELECT name FROM job_revision WHERE job_id = ? AND number = ?", (job, revision)
                ).fetchone()
                assert found, f"{name} was acknowledged and is lost"
                assert found["name"] == name
            count = connection.execute("SELECT count(*) FROM job").fetchone()[0]
        assert not first or count in (0, len(demo_jobs())), "a demo seeded by half"
        db.close()
        assert thorough(data) == []
        acknowledged += len(told)
    return acknowledged


STUFF = {
    "component": "water", "material": "water", "name": "Water", "role": "water", "solid": False, "bulk_density": 1.0,
    "true_density": 1.0,
}  # fmt: skip


def killed_while_logging(data: Path, times: int, rng: random.Random) -> int:
    """Kill the server again and again while acts are noted; returns how many were acknowledged, all of them kept."""
    acknowledged: set[str] = set()
    process, port = started(data)
    job = ask(port, "POST", "/api/jobs/start", {"ml": 100})["id"]
    for turn in range(times):
        assert process.stdout
        ends = time.monotonic() + rng.uniform(0.02, 0.25)
        n = 0
        while time.monotonic() < ends:
            name = f"k{turn}-{n}"
            minute = time.time() / 60
            act = {"act": "poured", "pot": f"p{turn % 3}", "stuff": STUFF, "g": 1.0, "by": "scale"}
            body = {"job": job, "operation": "", "did": "noted", "at_min": minute, "noted_min": minute, "act": act}
            ask(port, "PUT", f"/api/events/{name}", body)
            acknowledged.add(name)
            n += 1
        process.send_signal(signal.SIGKILL)
        process.wait()
        process.stdout.close()
        process, port = started(data)
    there = {e["id"] for e in ask(port, "GET", f"/api/events?job={job}")}
    process.terminate()
    process.wait(timeout=10)
    assert process.stdout
    process.stdout.close()
    assert acknowledged <= there
    db = Database(data)
    with db.read() as connection:
        assert connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    db.close()
    return len(acknowledged)


def filled(db: Database, count: int) -> None:
    """A log of so many batches."""
    colours, mixes = ("footlight green", "old rope", "rain-barrel blue", "bone"), ("paint wash", "milk paint", "glaze")
    with db.write() as connection:
        events.put_pots(
            connection,
            [
                PotRow(
                    f"p{i}", f"j{i % 700}", "Costume wardrobe", f"mofa-{i}", 29_000_000 + i * 30, "empty", 0.0, "", 0.0,
                    f"mofa-{i} {mixes[i % 3]} {colours[i % 4]} Costume wardrobe doors 2026-11-{i % 28 + 1:02}", "{}",
                )
                for i in range(count)
            ],
        )  # fmt: skip
