"""Lumso under strain: its server killed while jobs are saved and acts are noted, and a log of many batches."""

import http.client
import json
import random
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from contextlib import suppress
from io import BytesIO
from pathlib import Path
from threading import Event, Thread, Timer
from typing import Any

from PIL import Image

from lumso.demo import demo_jobs
from lumso.store import events, photographs
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
        with self.connection.getresponse() as reply:
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
    finally:
        client.connection.close()


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


def picture(number: int) -> bytes:
    """A small photograph, another for each number."""
    out = BytesIO()
    Image.new("RGB", (40, 30), (number % 256, number // 256 % 256, 90)).save(out, "JPEG")
    return out.getvalue()


class Ledger:
    """What was acknowledged: in the workshop as it is, and as the backup has it. A restore that was under way when the
    server was killed may have been done or not."""

    def __init__(self) -> None:
        self.now: set[str] = set()
        self.kept: set[str] | None = None
        self.backup = ""
        self.going_back = False
        self.told = 0

    def act(self, client: Client, job: str, name: str, luck: random.Random) -> None:
        """One thing done, and noted once it was acknowledged."""
        match luck.choices(["pour", "buy", "photograph", "back up", "go back"], [10, 5, 3, 1, 1])[0]:
            case "pour":
                minute = time.time() / 60
                act = {"act": "poured", "pot": "p1", "stuff": STUFF, "g": 1.0, "by": "scale"}
                body = {"job": job, "operation": "", "did": "noted", "at_min": minute, "noted_min": minute, "act": act}
                sent = json.dumps(body).encode()
                self._ack(client.ask("PUT", f"/events/{name}", sent, If_Match='"0"'), f"event {name}")
            case "buy":
                lot = {"slug": name, "item": "pva-glue", "name": "Glue", "unit": "ml", "size": 500.0, "left": 500.0,
                       "counted_min": 1.0}  # fmt: skip
                sent = json.dumps(lot).encode()
                self._ack(client.ask("PUT", f"/lots/{name}", sent, If_Match='"0"'), f"lot {name}")
            case "photograph":
                status, answer = client.ask("POST", "/photographs", picture(luck.randrange(60_000)))
                assert status == 201, answer
                self.now.add(f"photograph {json.loads(answer)['name']}")
                self.told += 1
            case "back up":
                status, answer = client.ask("POST", "/backups")
                assert status == 201, answer
                self.backup, self.kept = json.loads(answer)["name"], set(self.now)
            case "go back" if self.kept is not None:
                self.going_back = True
                status, answer = client.ask("POST", f"/backups/{self.backup}/restore")
                assert status == 200, answer
                self.going_back, self.now = False, set(self.kept)
                self.told += 1

    def _ack(self, reply: tuple[int, bytes], what: str) -> None:
        assert reply[0] in (200, 201), reply
        self.now.add(what)
        self.told += 1

    def settle(self, there: set[str]) -> None:
        """After a kill: all that was acknowledged is there; which of two workshops it is where one was going back."""
        if self.going_back and self.kept is not None and not self.now <= there:
            self.now = set(self.kept)
        assert self.now <= there, sorted(self.now - there)[:5]
        self.going_back = False


def _there(data: Path) -> set[str]:
    db = Database(data)
    with db.read() as connection:
        found = {f"event {r[0]}" for r in connection.execute("SELECT id FROM event")}
        found |= {f"lot {r[0]}" for r in connection.execute("SELECT slug FROM workshop_entry WHERE kind = 'lot'")}
        rows = [r[0] for r in connection.execute("SELECT name FROM photograph")]
    found |= {f"photograph {name}" for name in rows if photographs.file_of(data, name).is_file()}
    db.close()
    assert thorough(data) == []
    return found


def killed_while_working(data: Path, times: int, luck: random.Random) -> int:
    """Kill the server while pours, purchases and photographs are noted, backups made and gone back to; returns how much
    was acknowledged, none of it lost."""
    ledger, job = Ledger(), ""
    for turn in range(times):
        lumso = Lumso(data)
        client = Client(lumso.port())
        if not job:
            job = json.loads(client.ask("POST", "/jobs/start", b'{"ml": 100}')[1])["id"]
        assert client.ask("GET", "/events?job=none")[0] == 200  # all of it is loaded
        killer = Timer(luck.uniform(0.05, 0.8), lumso.process.kill)
        killer.start()
        try:
            for n in range(10_000):
                ledger.act(client, job, f"k{turn}-{n}", luck)
        except (OSError, http.client.HTTPException):
            pass
        killer.join()
        lumso.end(signal.SIGKILL)
        client.connection.close()
        ledger.settle(_there(data))
    return ledger.told


def _mutated(request: bytes, luck: random.Random) -> bytes:
    made = bytearray(request)
    for _ in range(luck.randint(1, 6)):
        at = luck.randrange(len(made))
        match luck.randrange(4):
            case 0:
                made[at] = luck.randrange(256)
            case 1:
                del made[at : at + luck.randint(1, 20)]
            case 2:
                made[at:at] = luck.choice([b"\x00", b"\r\n", b"9" * 30, b"%00", b"../", b'{"', b"[" * 50, b"\xff\xfe"])
            case _:
                made[at:at] = made[at : at + luck.randint(1, 60)]
        if not made:
            return request
    return bytes(made)


def mutated_requests(data: Path, times: int, luck: random.Random) -> tuple[int, float]:
    """Requests with bytes changed, sent as they are; returns how many were answered, and the longest that another
    client waited meanwhile for the list of jobs, s. None is answered with 5xx."""
    lumso = Lumso(data, "demo")
    port = lumso.port()
    job = ask(port, "GET", "/api/jobs")["jobs"][0]["id"]
    document = json.dumps(ask(port, "GET", f"/api/jobs/{job}")["job"]).encode()
    event = json.dumps({"job": job, "operation": "", "did": "noted", "at_min": 1.0, "noted_min": 1.0}).encode()
    bodies = [("POST", "/api/plan", b'{"job": ' + document + b"}"), ("PUT", f"/api/jobs/{job}", document),
              ("PUT", "/api/events/m1", event), ("GET", f"/api/jobs/{job}", b""), ("GET", "/api/log?search=a", b""),
              ("POST", "/api/lengths", b'{"typed": "12 1/2 in"}'), ("GET", "/api/shelf", b"")]  # fmt: skip
    over, waits = Event(), [0.0]

    def other() -> None:
        client = Client(port)
        while not over.is_set():
            begun = time.monotonic()
            assert client.ask("GET", "/jobs")[0] == 200
            waits.append(time.monotonic() - begun)
        client.connection.close()

    beside = Thread(target=other)
    beside.start()
    answered = 0
    try:
        for _ in range(times):
            method, path, body = luck.choice(bodies)
            of_head = luck.randrange(3) == 0
            sent = body if of_head or not body else _mutated(body, luck)
            head = f"{method} {path} HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n"
            head += f'Content-Type: application/json\r\nIf-Match: "1"\r\nContent-Length: {len(sent)}\r\n\r\n'
            whole = (_mutated(head.encode(), luck) if of_head or not body else head.encode()) + sent
            with socket.create_connection(("127.0.0.1", port)) as line:
                line.settimeout(0.2 if of_head else 20)  # one whose length is another is never complete
                with suppress(ConnectionError, TimeoutError):
                    line.sendall(whole)
                    said = line.recv(64)
                    assert not said.startswith((b"HTTP/1.1 500", b"HTTP/1.1 502")), whole[:2000]
                    answered += said.startswith(b"HTTP/1.1 ")
    finally:
        over.set()
        beside.join()
        lumso.end()
    return answered, max(waits[1:])
