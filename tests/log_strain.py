"""A log under strain: the server killed while acts are noted, and a log of many batches; also for `tools/strain.py`."""

import json
import random
import signal
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from typing import Any

from lumso.store import events
from lumso.store.database import Database
from lumso.store.events import PotRow


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
