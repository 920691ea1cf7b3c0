"""The log on disk: every acknowledged act is there, however the server ends; and it is found quickly enough."""

import json
import random
import signal
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from typing import Any

import pytest

from lumso.store import events, pots
from lumso.store.database import Database
from lumso.store.events import NewEvent, PotRow

TIMES = 3
"""How often the server is killed here; `tools/strain.py` does it two hundred times."""


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
    for _ in range(100):
        try:
            ask(port, "GET", "/api/bench/scale")
            break
        except OSError:
            time.sleep(0.1)
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


def test_every_acknowledged_act_outlives_a_kill(tmp_path: Path) -> None:
    assert killed_while_logging(tmp_path / "log.sqlite3", TIMES, random.Random(1)) > TIMES


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


def test_words_are_found_wherever_they_stand_the_newest_first(tmp_path: Path) -> None:
    db = Database(tmp_path / "log.sqlite3")
    filled(db, 300)
    found, more = pots.found(db, "BLUE glaze", limit=5)
    assert [p.id for p in found] == ["p290", "p278", "p266", "p254", "p242"]  # 2 of 4, 2 of 3: every twelfth
    assert more
    assert pots.found(db, "mofa-17 glaze")[0][-1].id == "p17"
    assert pots.found(db, "mofa-18 glaze boat")[0] == []
    assert [p.id for p in pots.found(db, "mofa-1 ", limit=400)[0]][-1] == "p1"
    within, _ = pots.found(db, from_min=29_000_000 + 30, until_min=29_000_000 + 90)
    assert [p.id for p in within] == ["p2", "p1"]
    assert pots.count(db) == 300
    db.close()


def test_an_event_is_added_once_and_refused_under_the_id_of_another(tmp_path: Path) -> None:
    from lumso.store import jobs
    from lumso.store.errors import NotFound, StaleRevision

    db = Database(tmp_path / "log.sqlite3")
    job = jobs.create(db, "A job", '{"format": "lumso-job"}').id
    first = events.add(db, NewEvent("e1", job, 1.0, 1.0, "{}", "p1"))
    assert events.add(db, NewEvent("e1", job, 1.0, 1.0, "{}", "p1")).revision == first.revision
    with pytest.raises(StaleRevision):
        events.add(db, NewEvent("e1", job, 2.0, 1.0, "{}"))
    with pytest.raises(NotFound):
        events.add(db, NewEvent("e2", "nobody", 1.0, 1.0, "{}"))
    events.add(db, NewEvent("e3", "nobody", 3.0, 3.0, "{}", "p2", "p1"))  # its job is gone, its jar is not
    events.add(db, NewEvent("e4", job, 4.0, 4.0, "{}", "p9"))
    assert [e.id for e in events.of_pots(db, ["p2"])] == ["e1", "e3"]
    assert [e.id for e in events.of_pots(db, ["p9"])] == ["e4"]
    db.close()
