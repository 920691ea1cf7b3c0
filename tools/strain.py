"""Print what Lumso stands: fifty people at once, years of jobs and of batches. Part of `bench.py`."""

import json
import random
import statistics
import sys
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from functools import partial
from itertools import cycle
from pathlib import Path
from typing import Any

from figures import ONCE, ROOT, median_ms, row
from lumso.catalogue import shipped
from lumso.core.job.entries import embed
from lumso.core.workshop.shelf import ShelfItem
from lumso.demo import demo_jobs
from lumso.formats import jobfile, workshop
from lumso.store import entries, jobs, pots
from lumso.store.database import Database

sys.path.insert(0, str(ROOT))  # what the tests do a few times
from tests.strain import Client, Lumso, filled


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


def clients(port: int, count: int, seconds: float) -> None:
    largest = max(demo_jobs(), key=lambda j: len(jobfile.to_json(j)))
    job = json.loads(jobfile.to_json(embed(largest, shipped())))
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


def _shelf(port: int, count: int) -> None:
    client = Client(port)
    for path in ("/shelf", "/catalogue", "/jobs"):
        row(f"shelf of {count}: {path}", median_ms(partial(client.ask, "GET", path), 3))
        row(f"shelf of {count}: {path}, size", len(client.ask("GET", path)[1]) / 1024, "KiB")


def _jobs(data: Path, count: int, seconds: float) -> None:
    """The list of so many jobs, and people at it."""
    start = time.perf_counter()
    with serving(data) as port:
        client = Client(port)
        client.ask("GET", "/workshop")
        row(f"{count} jobs: start to first answer", (time.perf_counter() - start) * 1000)
        first = time.perf_counter()
        _, page = client.ask("GET", "/jobs")
        row(f"{count} jobs: the list, first time", (time.perf_counter() - first) * 1000)
        row(f"{count} jobs: the list, a page", median_ms(lambda: client.ask("GET", "/jobs"), 7))
        row(f"{count} jobs: a page, size", len(page) / 1024, "KiB")
        asked = f"/jobs?search=bench%20{count // 2}"
        row(f"{count} jobs: search", median_ms(lambda: client.ask("GET", asked), 7))
        if seconds:
            clients(port, 2 if ONCE else 50, seconds)
        if ONCE:
            _shelf(port, count)


def growth(counts: list[int], shelf: int) -> None:
    """A workshop that grows: more jobs, then a long shelf."""
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
            if not ONCE:
                _jobs(data, count, 60 if count == counts[0] else 0)
        slugs = list(catalogue.materials)
        db = Database(data)
        own = [
            ShelfItem(f"own-{n}", float(n), own=_renamed(catalogue.materials[slugs[n % len(slugs)]], f"own-{n}"))
            for n in range(shelf)
        ]
        entries.put(db, [("shelf", item.slug, workshop.document("shelf", item)) for item in own])
        db.close()
        if ONCE:  # all of it with one server
            _jobs(data, counts[0], 0.5)
            return
        with serving(data) as port:
            _shelf(port, shelf)


def log(batches: int) -> None:
    """A log that is long."""
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
    """How it does with many: jobs, batches on the shelf and in the log, people at once."""
    growth([20] if ONCE else [100, 1000, 5000], 50 if ONCE else 20_000)
    log(100 if ONCE else 20_000)


if __name__ == "__main__":
    main()
