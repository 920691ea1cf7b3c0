"""Who may do what: three kinds of devices, one table, and every call of the API looked up in it."""

import asyncio
import re
from collections.abc import MutableMapping
from pathlib import Path
from typing import Any

import pytest

from lumso.api import rights
from lumso.store import devices
from lumso.store.database import Database
from lumso.store.devices import KINDS

from .test_gate import House, house

__all__ = ["house"]
DOCS = Path(__file__).parents[2] / "docs" / "running.md"
STAY = {"day": 86_400, "month": 30 * 86_400}


def calls(house: House) -> list[tuple[str, str]]:
    paths = house.app.openapi()["paths"]
    open_to_all = {"/api/door", "/api/enter", "/api/trust/authority.pem"}
    return [(m.upper(), p) for p, ops in paths.items() for m in ops if p not in open_to_all]


def test_every_call_is_refused_to_devices_of_too_little_a_kind_and_to_no_other(house: House) -> None:
    """The gate is asked over the wire, for every route and every kind."""
    tablet = house.device()
    house.enters(tablet)
    every = calls(house)
    assert len(every) > 90
    assert {rights.needed(m, p) for m, p in every} == set(KINDS)
    for kind in KINDS:
        house.lets("Tablet", kind)
        for method, path in every:
            wanted = rights.needed(method, path)
            refused = KINDS.index(kind) < KINDS.index(wanted)
            if not refused and method != "GET":
                continue  # let through it would do it: seen below for one of each
            reply = tablet.request(method, re.sub(r"\{\w+\}", "1", path))
            assert (reply.status_code == 403) is refused, (kind, method, path, reply.text[:200])
            if refused:
                assert reply.json()["detail"] == rights.SAYS[wanted]


def test_the_table_names_no_call_that_is_not_there(house: House) -> None:
    there = set(calls(house))
    assert {("POST", path) for path in rights.ASKS} <= there
    assert there >= rights.KEEPS


def test_the_table_in_the_documents_is_the_one_that_counts(house: House) -> None:
    text = DOCS.read_text(encoding="utf-8")
    rows = dict(re.findall(r"^\| (.+?) \| (looks|works|keeps) \|$", text, re.MULTILINE))
    named = {(m, p): kind for calls_, kind in rows.items() for m, p in re.findall(r"`([A-Z]+) (/api/[^`]*)`", calls_)}
    for method, path in calls(house):
        kind = named.get((method, path)) or ("looks" if method == "GET" else None)
        if (method, path) in rights.KEEPS or (method == "POST" and path in rights.ASKS):
            assert (method, path) in named, f"{method} {path} is not in the table"
        assert (kind or "works") == rights.needed(method, path), (method, path)


def test_what_only_asks_keeps_nothing(house: House) -> None:
    """What a device that looks may post leaves every table as it was; what it may not, such as a print that freezes
    its batches, is refused."""
    tablet, own = house.device(), house.own()
    house.enters(tablet)
    made = own.post("/api/jobs/start", json={"recipe": "paint-wash-raw-wood", "ground": "raw-pine"}).json()
    job = {"job": made["job"]}
    zone = {**job, "zone": made["job"]["zones"][0]["id"]}
    sent = {"/api/plan": {"sequence": 1, **job}, "/api/mix-sheet": job, "/api/finish/steps": made["job"],
            "/api/look": zone, "/api/days": {"chosen": {}}}  # fmt: skip
    before, answered = _counts(house.db), set()
    for path in sorted(rights.ASKS):
        asked = path.replace("{slug}", "chest-of-drawers").replace("{name}", "x")
        if tablet.post(asked, json=sent.get(path, {})).status_code == 200:
            answered.add(path)
    assert {"/api/plan", "/api/look", "/api/days", "/api/finish/steps"} <= answered, "it was really worked out"
    assert _counts(house.db) == before
    assert tablet.get(f"/api/jobs/{made['id']}/changes", params={"read": 1}).status_code == 200, "it follows a job"
    assert tablet.post(f"/api/jobs/{made['id']}/print", json={"what": "cards"}).status_code == 403
    assert _counts(house.db) == before


def _counts(db: Database) -> dict[str, int]:
    """How many rows every table has, but for who was here when."""
    with db.read() as connection:
        tables = [r[0] for r in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")]
        return {t: connection.execute(f"SELECT count(*) FROM {t}").fetchone()[0] for t in tables}


def test_the_code_lets_look_and_one_press_lets_work(house: House) -> None:
    tablet = house.device()
    house.enters(tablet)
    assert tablet.get("/api/door").json()["kind"] == "looks"
    assert tablet.get("/api/jobs").status_code == 200
    start = {"recipe": "paint-wash-raw-wood", "ground": "raw-pine"}
    refused = tablet.post("/api/jobs/start", json=start)
    assert refused.status_code == 403
    assert "looks only" in refused.json()["detail"]
    house.lets("Tablet", "works")
    assert tablet.get("/api/door").json()["kind"] == "works"
    assert tablet.post("/api/jobs/start", json=start).status_code == 201
    assert tablet.post("/api/backups").status_code == 403
    house.lets("Tablet", "keeps")
    assert tablet.post("/api/backups").status_code == 201


def test_a_code_for_one_device_lets_it_work_once_and_for_an_hour(house: House) -> None:
    own = house.own()
    made = own.post("/api/codes", json={"kind": "works", "stay": "always"}).json()
    assert made["code"] != house.entry.code
    assert own.get("/api/workshop-mode").json()["one"]["code"] == made["code"]
    tablet = house.device()
    assert house.enters(tablet, made["code"]).status_code == 204
    assert tablet.get("/api/door").json()["kind"] == "works"
    assert house.enters(house.device(), made["code"]).status_code == 403, "it was for one"
    late = own.post("/api/codes", json={}).json()
    house.time += 3601
    assert own.get("/api/workshop-mode").json()["one"] is None
    assert house.enters(house.device("192.168.1.9"), late["code"]).status_code == 403
    assert own.post("/api/codes", json={"kind": "keeps"}).status_code == 422, "who keeps is raised by hand"
    assert tablet.post("/api/codes", json={}).status_code == 403


@pytest.mark.parametrize("stay", ["day", "month"])
def test_a_device_is_let_in_for_a_while_and_then_asked_again(house: House, stay: str) -> None:
    code = house.own().post("/api/codes", json={"stay": stay}).json()["code"]
    tablet = house.device()
    house.enters(tablet, code)
    house.time += STAY[stay] - 2
    assert tablet.get("/api/jobs").status_code == 200
    house.time += 3
    over = tablet.get("/api/jobs")
    assert (over.status_code, over.json()["type"]) == (401, "/problems/Lapsed")
    door = tablet.get("/api/door").json()
    assert (door["asks"], door["turned_out"], bool(door["lapsed"])) == (True, False, True)
    assert house.own().get("/api/workshop-mode").json()["devices"][0]["lapsed"] is True
    house.lets("Tablet", "works", "always")
    assert tablet.get("/api/jobs").status_code == 200, "one press lets it go on"


def test_failed_tries_are_listed(house: House) -> None:
    house.time = 86_400.0
    for n in range(3):
        house.enters(house.device(f"192.168.1.{n}"), "mofa mofa mofa mofa")
    failed = house.own().get("/api/workshop-mode").json()["failed"]
    assert [f["whose"] for f in failed] == ["192.168.1.2", "192.168.1.1", "192.168.1.0"]
    assert failed[0]["at"] == "1970-01-02T00:00:00Z"


def test_many_addresses_that_try_are_not_remembered_for_ever(house: House) -> None:
    for n in range(3000):
        with pytest.raises(Exception, match="not the code"):
            house.entry.check("wrong", f"10.0.{n // 250}.{n % 250}")
    assert len(house.entry._wrong) <= 2000
    assert len(house.entry.failed) <= 20


def test_turned_out_from_the_command_line_the_code_is_another_too(house: House) -> None:
    tablet, before = house.device(), house.entry.code
    house.enters(tablet)
    (one,) = devices.every(house.db)
    devices.turn_out(house.db, one.id)
    assert tablet.get("/api/jobs").status_code == 401
    assert house.enters(house.device("192.168.1.99"), before).status_code == 403
    assert house.entry.code != before


def test_a_device_that_is_turned_out_hears_nothing_more(house: House) -> None:
    """A stream that is open ends at once, and says so."""
    tablet = house.device()
    house.enters(tablet)
    token = tablet.cookies["lumso"]
    (one,) = devices.every(house.db)
    told: list[str] = []

    async def listen() -> None:
        async def receive() -> dict[str, object]:
            await asyncio.Event().wait()
            return {}

        async def send(message: MutableMapping[str, Any]) -> None:
            told.append(message.get("body", b"").decode())
            if len(told) == 2:
                devices.turn_out(house.db, one.id)

        headers = [(b"host", b"loft.local"), (b"cookie", f"lumso={token}".encode())]
        scope = {"type": "http", "method": "GET", "path": "/api/bench/live", "raw_path": b"/api/bench/live",
                 "query_string": b"", "headers": headers, "client": ("192.168.1.50", 4000), "scheme": "http",
                 "server": ("loft.local", 80), "root_path": "", "http_version": "1.1"}  # fmt: skip
        await asyncio.wait_for(house.app(scope, receive, send), timeout=60)

    asyncio.run(listen())
    assert any("event: changed" in said for said in told)
    assert "event: out" in told[-2] or "event: out" in told[-1]
