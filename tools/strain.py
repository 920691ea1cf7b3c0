"""Print what Lumso stands: killed in the midst of writing, fifty people at once, years of jobs and of batches."""

import argparse
import http.client
import json
import random
import signal
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from itertools import cycle
from pathlib import Path
from threading import Thread
from typing import Any

from lumso.catalogue import shipped
from lumso.core.job.entries import embed
from lumso.core.workshop.shelf import ShelfItem
from lumso.demo import demo_jobs
from lumso.formats import jobfile, workshop
from lumso.store import entries, jobs
from lumso.store.database import Database
from lumso.store.file import thorough


def row(name: str, value: float, unit: str = "ms") -> None:
    print(f"{name:<56}{value:>10.1f} {unit}", flush=True)


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


def kills(times: int) -> None:
    """SIGKILL under four writers, and during the first start; what was acknowledged must be there."""
    luck = random.Random(7)
    acknowledged = lost = unopened = half = 0
    with tempfile.TemporaryDirectory() as folder:
        for turn in range(times):
            data = Path(folder) / f"{turn // 20}.sqlite3"
            first = turn % 4 == 0
            if first:
                data = Path(folder) / f"first-{turn}.sqlite3"
            lumso = Lumso(data, "demo")
            told: list[tuple[str, int, str]] = []
            if first:
                time.sleep(luck.uniform(0.3, 1.8))
                lumso.end(signal.SIGKILL)
            else:
                port = lumso.port()
                writers = [Thread(target=_writes, args=(port, told)) for _ in range(4)]
                for writer in writers:
                    writer.start()
                time.sleep(luck.uniform(0.05, 0.6))
                lumso.end(signal.SIGKILL)
                for writer in writers:
                    writer.join()
            try:
                db = Database(data)
            except Exception as error:
                print(turn, error)
                unopened += 1
                continue
            with db.read() as connection:
                for job, revision, name in told:
                    acknowledged += 1
                    found = connection.execute(
                        "SELECT name FROM job_revision WHERE job_id = ? AND number = ?", (job, revision)
                    ).fetchone()
                    lost += found is None or found["name"] != name
                count = connection.execute("SELECT count(*) FROM job").fetchone()[0]
            half += first and count not in (0, len(demo_jobs()))
            db.close()
            unopened += bool(thorough(data))
    row(f"killed {times} times: writes acknowledged", acknowledged, "")
    row("  of these lost", lost, "")
    row("  databases that did not open, or were damaged", unopened, "")
    row("  demos seeded by half", half, "")


@contextmanager
def serving(data: Path, command: str = "serve") -> Iterator[int]:
    lumso = Lumso(data, command)
    try:
        yield lumso.port()
    finally:
        lumso.end()


def _timed(client: Client, times: list[float], errors: list[str], *asked: Any, **headers: str) -> bytes:
    start = time.perf_counter()
    method, path, body = (*asked, None)[:3]
    status, answer = client.ask(method, path, body, **headers)
    times.append((time.perf_counter() - start) * 1000)
    if status >= 400:
        errors.append(f"{asked[0]} {asked[1]}: {status} {answer[:100]!r}")
    return answer


def _paints(port: int, seconds: float, job: dict[str, Any]) -> tuple[list[float], list[str]]:
    """One person: an edit every 3 s, a save every 10 s, the list every 20 s, a sheet a minute."""
    luck = random.Random()
    client = Client(port)
    times: list[float] = []
    errors: list[str] = []
    made = json.loads(_timed(client, times, errors, "POST", "/jobs", json.dumps(job).encode()))
    at, revision, mine = made["id"], made["revision"], made["job"]
    zone = mine["zones"][0]["id"]
    due = {"edit": luck.uniform(0, 3), "save": luck.uniform(0, 10), "list": luck.uniform(0, 20),
           "sheet": luck.uniform(0, 60)}  # fmt: skip
    every = {"edit": 3.0, "save": 10.0, "list": 20.0, "sheet": 60.0}
    start = time.monotonic()
    sequence = 0
    while (now := time.monotonic() - start) < seconds:
        what = min(due, key=lambda k: due[k])
        if due[what] > now:
            time.sleep(min(due[what], seconds) - now)
            continue
        due[what] += every[what]
        sequence += 1
        mine["zones"][0]["layers"][0]["margin"] = round(0.05 + sequence % 20 / 100, 2)
        if what == "edit":
            body = {"sequence": sequence, "job": mine, "looked_at": zone}
            _timed(client, times, errors, "POST", "/plan", json.dumps(body).encode())
        elif what == "save":
            said = json.dumps(mine).encode()
            answer = _timed(client, times, errors, "PUT", f"/jobs/{at}", said, If_Match=f'"{revision}"')
            revision = json.loads(answer).get("revision", revision)
        elif what == "list":
            _timed(client, times, errors, "GET", "/jobs")
        else:
            _timed(client, times, errors, "POST", "/mix-sheet", json.dumps({"job": mine}).encode())
    return times, errors


def clients(count: int, seconds: float) -> None:
    largest = max(demo_jobs(), key=lambda j: len(jobfile.to_json(j)))
    job = json.loads(jobfile.to_json(embed(largest, shipped())))
    with tempfile.TemporaryDirectory() as folder, serving(Path(folder) / "x.sqlite3", "demo") as port:
        with ThreadPoolExecutor(count) as pool:
            done = list(pool.map(lambda _: _paints(port, seconds, job), range(count)))
        times = sorted(t for took, _ in done for t in took)
        errors = [e for _, failed in done for e in failed]
    row(f"{count} people for {seconds:g} s: answers a second", len(times) / seconds, "")
    row("  errors", len(errors), "")
    row("  median", statistics.median(times))
    row("  99th percentile", times[int(len(times) * 0.99)])
    row("  slowest", times[-1])
    for error in errors[:5]:
        print("  ", error)


def median_ms(work: Callable[[], object], runs: int = 7) -> float:
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def growth(counts: list[int], shelf: int) -> None:
    catalogue = shipped()
    demo = cycle([(job.name, jobfile.to_json(embed(job, catalogue))) for job in demo_jobs()])
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "x.sqlite3"
        there = 0
        for count in counts:
            db = Database(data)
            with db.write():
                for number in range(there, count):
                    name, document = next(demo)
                    jobs.create(db, f"{name} {number}", document)
            db.close()
            there = count
            start = time.perf_counter()
            with serving(data) as port:
                client = Client(port)
                client.ask("GET", "/workshop")
                row(f"{count} jobs: start to first answer", (time.perf_counter() - start) * 1000)
                first = time.perf_counter()
                _, page = client.ask("GET", "/jobs")
                row(f"{count} jobs: the list, first time", (time.perf_counter() - first) * 1000)
                row(f"{count} jobs: the list, a page", median_ms(lambda c=client: c.ask("GET", "/jobs")))  # type: ignore[misc]
                row(f"{count} jobs: a page", len(page) / 1024, "KiB")
                asked = f"/jobs?search=bench%20{count // 2}"
                client.ask("GET", asked)
                row(f"{count} jobs: search", median_ms(lambda c=client, a=asked: c.ask("GET", a)))  # type: ignore[misc]
        slugs = list(catalogue.materials)
        db = Database(data)
        own = [
            ShelfItem(f"own-{n}", float(n), own=_renamed(catalogue.materials[slugs[n % len(slugs)]], f"own-{n}"))
            for n in range(shelf)
        ]
        entries.put(db, [("shelf", item.slug, workshop.document("shelf", item)) for item in own])
        db.close()
        start = time.perf_counter()
        with serving(data) as port:
            client = Client(port)
            client.ask("GET", "/workshop")
            row(f"shelf of {shelf}: start to first answer", (time.perf_counter() - start) * 1000)
            for path in ("/shelf", "/catalogue", "/jobs"):
                client.ask("GET", path)
                row(f"shelf of {shelf}: {path}", median_ms(lambda c=client, p=path: c.ask("GET", p), 3))  # type: ignore[misc]
                row(f"shelf of {shelf}: {path}", len(client.ask("GET", path)[1]) / 1024, "KiB")


def log(times: int, batches: int) -> None:
    """A log that is written while the server is killed, and one that is long."""
    sys.path.insert(0, str(Path(__file__).parent.parent))  # what the tests do a few times
    from tests.log_strain import filled, killed_while_logging

    from lumso.store import pots

    with tempfile.TemporaryDirectory() as folder:
        kept = killed_while_logging(Path(folder) / "log.sqlite3", times, random.Random(times))
        row(f"log killed {times} times: acts acknowledged, all kept", kept, "")
    with tempfile.TemporaryDirectory() as folder:
        db = Database(Path(folder) / "log.sqlite3")
        filled(db, batches)
        for text in ("", "blue glaze", "nothing like it"):
            row(f"log of {batches}: found by {text!r}", median_ms(lambda t=text: pots.found(db, t)))  # type: ignore[misc]
        row(f"log of {batches}: jars and rates", median_ms(lambda: (pots.jars(db), pots.rates(db))))
        db.close()


def _renamed(material: Any, slug: str) -> Any:
    from dataclasses import replace

    return replace(material, slug=slug, name=f"{material.name} {slug}")


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--kills", type=int, default=200)
    asked.add_argument("--clients", type=int, default=50)
    asked.add_argument("--seconds", type=float, default=60)
    asked.add_argument("--jobs", type=int, nargs="*", default=[100, 1000, 5000])
    asked.add_argument("--shelf", type=int, default=20_000)
    asked.add_argument("--batches", type=int, default=20_000)
    said = asked.parse_args()
    if said.jobs:
        growth(said.jobs, said.shelf)
    if said.clients:
        clients(said.clients, said.seconds)
    if said.kills:
        kills(said.kills)
        log(said.kills, said.batches)


if __name__ == "__main__":
    main()
