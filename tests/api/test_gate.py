"""Workshop mode: who comes over the network shows that they were let in; the machine itself is never asked."""

import sqlite3
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

import pytest
from starlette.testclient import TestClient

from lumso.api.app import create_app
from lumso.api.gate import OPEN, TRIES, WITHIN_S, Entry, new_code
from lumso.api.workers import Workers
from lumso.core.book.catalogue import Catalogue
from lumso.services import printing
from lumso.store import backup, devices
from lumso.store.database import Database
from lumso.store.keeper import Keeper

LAN = "http://loft.local"
OWN = "http://127.0.0.1"


@dataclass
class House:
    """A Lumso in workshop mode, and the devices of the house."""

    db: Database
    catalogue: Catalogue
    time: float = 0.0
    entry: Entry = field(init=False)

    def __post_init__(self) -> None:
        self.entry = Entry("http://192.168.1.20:8321", clock=lambda: self.time)
        self.app = create_app(self.db, self.catalogue, names=frozenset({"loft.local"}), entry=self.entry)

    def device(self, address: str = "192.168.1.50", url: str = LAN) -> TestClient:
        return TestClient(self.app, url, client=(address, 40_000), raise_server_exceptions=False)

    def own(self) -> TestClient:
        return self.device("127.0.0.1", OWN)

    def lets(self, name: str, kind: str, stay: str | None = None) -> None:
        """The machine Lumso runs on says what a device may do."""
        own = self.own()
        (one,) = [d for d in own.get("/api/workshop-mode").json()["devices"] if d["name"] == name]
        assert own.put(f"/api/devices/{one['id']}", json={"kind": kind, "stay": stay}).status_code == 204

    def enters(self, client: TestClient, code: str | None = None, name: str = "Tablet") -> Any:
        return client.post("/api/enter", json={"code": self.entry.code if code is None else code, "name": name})


@pytest.fixture
def house(db: Database, catalogue: Catalogue) -> House:
    return House(db, catalogue)


def test_a_code_is_four_made_up_words_that_nobody_guesses() -> None:
    codes = {new_code() for _ in range(200)}
    assert len(codes) == 200
    assert all([len(word) for word in code.split()] == [4, 4, 4, 4] for code in codes)


def test_every_call_asks_whoever_was_not_let_in(house: House) -> None:
    stranger = house.device()
    calls = [(m, path) for path, ops in house.app.openapi()["paths"].items() for m in ops if path not in OPEN]
    assert len(calls) > 50
    for method, path in [*calls, ("get", "/api/openapi.json"), ("get", "/api/nowhere")]:
        reply = stranger.request(method.upper(), path)
        assert (reply.status_code, reply.json()["type"]) == (401, "/problems/Entry"), path
    assert stranger.get("/").status_code in (200, 503), "the interface is open: it asks for the code"
    assert stranger.get("/api/door").json() == {
        "asks": True, "turned_out": False, "workshop": True, "encrypted": False, "kind": "looks",
        "lapsed": ""}  # fmt: skip


@pytest.mark.parametrize(
    ("address", "url", "asked"),
    [
        ("127.0.0.1", "http://127.0.0.1", False),
        ("127.0.0.1", "http://localhost", False),
        ("::1", "http://[::1]", False),
        ("127.0.0.1", LAN, True),  # by another name it may be anybody's page
        ("192.168.1.50", "http://localhost", True),
        ("192.168.1.50", "http://127.0.0.1", True),
        ("10.0.0.1", LAN, True),
        ("not an address", "http://localhost", True),
    ],
)
def test_only_the_machine_itself_by_its_own_name_is_not_asked(
    house: House, address: str, url: str, asked: bool
) -> None:
    reply = house.device(address, url).get("/api/jobs")
    assert reply.status_code == (401 if asked else 200)


@pytest.mark.parametrize("written", [str, str.upper, lambda c: c.replace(" ", "-"), lambda c: f"  {c}. "])
def test_with_the_code_a_device_is_let_in_and_stays_so(house: House, written: Callable[[str], str]) -> None:
    device = house.device()
    entered = house.enters(device, written(house.entry.code))
    assert entered.status_code == 204
    cookie = entered.headers["set-cookie"].lower()
    assert "httponly" in cookie
    assert "samesite=strict" in cookie
    assert "secure" not in cookie
    assert device.get("/api/jobs").status_code == 200
    assert device.get("/api/door").json()["asks"] is False
    assert house.device().get("/api/jobs").status_code == 401, "another at the same address is not"


def test_over_an_encrypted_line_the_token_goes_over_no_other(house: House) -> None:
    house.entry.secure = True
    assert "; secure" in house.enters(house.device()).headers["set-cookie"].lower()


def test_what_is_kept_of_a_token_lets_nobody_in(house: House) -> None:
    device = house.device()
    house.enters(device)
    token = device.cookies["lumso"]
    with sqlite3.connect(house.db.path) as connection:
        kept = "".join(connection.iterdump())
        (stored,) = connection.execute("SELECT token_hash FROM device").fetchone()
    connection.close()
    assert token not in kept
    for shown in (stored, "", "x", token[:-1]):
        thief = house.device()
        thief.cookies["lumso"] = shown
        assert thief.get("/api/jobs").status_code == 401


def test_too_many_wrong_codes_lock_out_that_device_alone_and_for_a_while(house: House) -> None:
    guesser, own = house.device("192.168.1.66"), house.own()
    for _ in range(TRIES):
        assert house.enters(guesser, "mofa mofa mofa mofa").status_code == 403
    locked = house.enters(guesser)
    assert (locked.status_code, locked.json()["title"]) == (429, "Too many tries")
    assert "10 min" in locked.json()["detail"]
    assert house.enters(house.device("192.168.1.67")).status_code == 204
    assert own.get("/api/jobs").status_code == 200
    house.time += WITHIN_S - 1
    assert house.enters(guesser).status_code == 429
    house.time += 2
    assert house.enters(guesser).status_code == 204


def test_a_right_code_forgets_the_wrong_ones(house: House) -> None:
    device = house.device()
    for _ in range(3):
        for _ in range(TRIES - 1):
            assert house.enters(device, "wrong").status_code == 403
        assert house.enters(device).status_code == 204


def test_a_device_is_turned_out_and_told_so_and_the_others_stay(house: House) -> None:
    tablet, phone = house.device("192.168.1.50"), house.device("192.168.1.51")
    house.enters(tablet, name="Tablet at the bench")
    house.enters(phone, name="Phone")
    own = house.own()
    listed = {d["name"]: d for d in own.get("/api/workshop-mode").json()["devices"]}
    assert set(listed) == {"Tablet at the bench", "Phone"}
    assert own.delete(f"/api/devices/{listed['Phone']['id']}").status_code == 204
    out = phone.get("/api/jobs")
    assert (out.status_code, out.json()["type"]) == (401, "/problems/TurnedOut")
    assert phone.get("/api/door").json()["turned_out"] is True
    assert tablet.get("/api/jobs").status_code == 200
    assert [d["name"] for d in own.get("/api/workshop-mode").json()["devices"]] == ["Tablet at the bench"]
    assert house.enters(phone).status_code == 204, "with the code it comes in again"
    assert own.delete("/api/devices/nobody").status_code == 404


def test_codes_and_devices_are_shown_only_to_who_keeps(house: House) -> None:
    tablet, own = house.device(), house.own()
    house.enters(tablet)
    mine = own.get("/api/workshop-mode").json()
    assert (mine["code"], mine["reach"], mine["one"]) == (house.entry.code, "http://192.168.1.20:8321", None)
    assert mine["picture"].startswith("data:image/svg+xml")
    refused = tablet.get("/api/workshop-mode")
    assert (refused.status_code, refused.json()["type"]) == (403, "/problems/NotAllowed")
    house.lets("Tablet", "keeps")
    theirs = tablet.get("/api/workshop-mode").json()
    assert theirs["code"] == house.entry.code
    assert [d["name"] for d in theirs["devices"] if d["this"]] == ["Tablet"]


def test_what_is_printed_carries_the_address_that_a_phone_reaches(
    house: House, monkeypatch: pytest.MonkeyPatch
) -> None:
    codes: list[str] = []

    async def printed(workers: object, request: object, work: Callable[..., Any], *args: Any) -> Any:
        if work is printing.pdf_of:
            codes.extend(address for _, address, _ in args[2])
        return work(*args)

    monkeypatch.setattr(Workers, "run", printed)
    own = house.device("127.0.0.1", "http://127.0.0.1:8321")
    made = own.post("/api/jobs/start", json={"recipe": "paint-wash-raw-wood", "ground": "raw-pine"}).json()
    job = made["job"]
    sizes = {n: {"mm": mm, "typed": f"{mm} mm"} for n, mm in (("length", 900), ("width", 400), ("thickness", 20))}
    own.put(f"/api/jobs/{made['id']}", json={**job, "piece": {**job["piece"], "sizes": sizes}},
            headers={"If-Match": '"1"'})  # fmt: skip
    assert own.post(f"/api/jobs/{made['id']}/print", json={"what": "cards"}).status_code == 200
    assert codes
    assert all(address.startswith("http://192.168.1.20:8321/b/") for address in codes)


def test_nobody_is_asked_where_only_the_machine_itself_comes_in(client: TestClient) -> None:
    assert client.get("/api/door").json() == {
        "asks": False, "turned_out": False, "workshop": False, "encrypted": False, "kind": "keeps",
        "lapsed": ""}  # fmt: skip
    assert client.post("/api/enter", json={"code": "x", "name": "y"}).status_code == 404
    assert client.get("/api/workshop-mode").json()["open"] is False


def test_a_restore_lets_nobody_back_in_and_nobody_else_out(house: House) -> None:
    """The list of those let in is the running workshop's: it does not travel with a backup."""
    tablet, phone, own = house.device("192.168.1.50"), house.device("192.168.1.51"), house.own()
    house.enters(tablet, name="Tablet")
    assert own.post("/api/backups").status_code == 201
    (kept,) = own.get("/api/backups").json()["backups"]
    (listed,) = own.get("/api/workshop-mode").json()["devices"]
    own.delete(f"/api/devices/{listed['id']}")
    house.enters(phone, name="Phone")
    assert (tablet.get("/api/jobs").status_code, phone.get("/api/jobs").status_code) == (401, 200)
    assert own.post(f"/api/backups/{kept['name']}/restore").status_code == 200
    assert (tablet.get("/api/jobs").status_code, phone.get("/api/jobs").status_code) == (401, 200)
    assert [d["name"] for d in own.get("/api/workshop-mode").json()["devices"]] == ["Phone"]
    # Carried to another machine, where none runs, nobody is in.
    archive = backup.folder_of(house.db.path) / kept["name"]
    fresh = house.db.path.with_name("fresh.sqlite3")
    backup.restore(archive, fresh)
    there = Database(fresh)
    assert devices.every(there) == []
    there.close()


def test_turning_one_out_changes_the_code_and_tells_it_where_lumso_runs(house: House) -> None:
    told: list[str] = []
    house.entry.told = told.append
    tablet, own = house.device(), house.own()
    house.enters(tablet)
    before = house.entry.code
    (listed,) = own.get("/api/workshop-mode").json()["devices"]
    own.delete(f"/api/devices/{listed['id']}")
    assert house.entry.code != before
    assert told == [house.entry.code]
    assert own.get("/api/workshop-mode").json()["code"] == house.entry.code
    assert house.enters(house.device("192.168.1.77"), before).status_code == 403
    assert house.enters(house.device("192.168.1.78")).status_code == 204


def test_whoever_does_not_know_the_code_costs_little(house: House) -> None:
    """A body of 3 KiB is not read on; a wrong code is told when to try again."""
    stranger = house.device("192.168.1.90")
    long = stranger.post("/api/enter", json={"code": "mofa", "name": "x", **{f"k{n}": n for n in range(600)}})
    assert long.status_code == 413
    assert len(long.content) < 1000
    for _ in range(TRIES):
        house.enters(stranger, "mofa mofa mofa mofa")
    locked = house.enters(stranger)
    assert locked.status_code == 429
    assert 0 < int(locked.headers["retry-after"]) <= WITHIN_S


def test_an_error_names_at_most_twenty_faults(client: TestClient) -> None:
    many = {"chosen": {f"nothing{n}": n for n in range(500)}}
    reply = client.post("/api/days", json=many)
    assert reply.status_code == 422
    assert len(reply.json()["faults"]) == 20


def test_an_old_copy_is_no_trouble_unless_none_could_be_made(house: House) -> None:
    """Shut for a holiday, then opened: nothing is said. Only where the keeper came to no copy it is."""
    own = house.own()
    made = backup.folder_of(house.db.path) / own.post("/api/backups").json()["name"]
    made.rename(made.with_name(f"20200101{made.name[8:]}"))
    assert own.get("/api/backups").json()["overdue_days"] == 0
    house.app.state.keeper = keeper = Keeper(house.db)
    assert own.get("/api/backups").json()["overdue_days"] == 0
    keeper.hindered = True
    assert own.get("/api/backups").json()["overdue_days"] > 1000


def test_behind_a_proxy_nobody_is_the_machine_itself_and_tries_go_by_whom_it_names(
    db: Database, catalogue: Catalogue
) -> None:
    """A usual proxy asks from loopback, by a loopback name: without more that is the machine's own user."""
    entry = Entry("https://lumso.loft.example", secure=True, clock=lambda: 0.0)
    app = create_app(
        db, catalogue, names=frozenset({"lumso.loft.example"}), entry=entry, proxy=frozenset({"127.0.0.1"})
    )

    def asker(address: str, host: str = "https://lumso.loft.example") -> TestClient:
        headers = {"X-Forwarded-For": address, "X-Forwarded-Proto": "https", "X-Forwarded-Host": "lumso.loft.example"}
        return TestClient(app, host, client=("127.0.0.1", 4000), headers=headers, raise_server_exceptions=False)

    for host in ("https://lumso.loft.example", "http://127.0.0.1:8321", "http://localhost"):
        assert asker("203.0.113.9", host).get("/api/jobs").status_code == 401
        bare = TestClient(app, host, client=("127.0.0.1", 4000), raise_server_exceptions=False)
        assert bare.get("/api/jobs").status_code == 401, "a proxy that says nothing of whom it asks for"
    guesser, other = asker("203.0.113.66"), asker("203.0.113.67")
    for _ in range(TRIES):
        assert guesser.post("/api/enter", json={"code": "mofa", "name": "x"}).status_code == 403
    assert guesser.post("/api/enter", json={"code": entry.code, "name": "x"}).status_code == 429
    entered = other.post("/api/enter", json={"code": entry.code, "name": "Tablet"})
    assert entered.status_code == 204
    assert "secure" in entered.headers["set-cookie"].lower()
    assert other.get("/api/jobs").status_code == 200
    assert [t.whose for t in entry.failed] == ["203.0.113.66"] * TRIES


def test_a_proxy_that_nobody_told_of_lets_in_nobody(house: House) -> None:
    own = house.own()
    assert own.get("/api/jobs").status_code == 200
    for header in ("X-Forwarded-For", "Forwarded", "Via", "X-Real-IP", "X-Forwarded-Host"):
        assert own.get("/api/jobs", headers={header: "127.0.0.1"}).status_code == 401, header
