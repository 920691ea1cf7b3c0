"""Nothing lost: revisions and keys in what is asked, backups and the way back, what was set aside, jobs that break."""

import io
import json
import sqlite3
import zipfile
from pathlib import Path
from typing import Any

import pytest
from starlette.testclient import TestClient

from lumso.core.job.job import Job
from lumso.core.plan.plan import Plan
from lumso.services.context import Context
from lumso.store import batches, entries, jobs
from lumso.store.database import Database

from .test_jobs import begin, sized

KIT = {"slug": "loft-drawer", "name": "Loft drawer", "measures": [{"name": "scoop", "ml": 14}]}
PLACES: dict[str, dict[str, Any]] = {
    "kits/loft-drawer": KIT,
    "shelf/matt-paint": {"slug": "matt-paint", "on_hand": 300},
    "workshop": {"measures": "us"},
}


@pytest.mark.parametrize("place", PLACES)
def test_a_change_made_from_an_older_reading_is_refused_with_what_it_is_now(client: TestClient, place: str) -> None:
    first = client.put(f"/api/{place}", json=PLACES[place], headers={"If-Match": '"0"'})
    assert first.status_code == 200
    mine = first.headers["ETag"]
    theirs = client.put(f"/api/{place}", json=PLACES[place], headers={"If-Match": mine})
    assert theirs.status_code == 200
    late = client.put(f"/api/{place}", json=PLACES[place], headers={"If-Match": mine})
    assert (late.status_code, late.json()["title"]) == (412, "Changed elsewhere")
    assert f'"{late.json()["head"]}"' == theirs.headers["ETag"]
    if place != "workshop":
        assert client.delete(f"/api/{place}", headers={"If-Match": mine}).status_code == 412
        assert client.delete(f"/api/{place}", headers={"If-Match": theirs.headers["ETag"]}).status_code == 204


@pytest.mark.parametrize("place", PLACES)
def test_the_same_asked_again_under_its_key_comes_to_the_same(client: TestClient, place: str) -> None:
    said = {"If-Match": '"0"', "Idempotency-Key": "mine"}
    first = client.put(f"/api/{place}", json=PLACES[place], headers=said)
    again = client.put(f"/api/{place}", json=PLACES[place], headers=said)
    assert (again.status_code, again.headers["ETag"], again.json()) == (200, first.headers["ETag"], first.json())


def test_what_is_read_says_the_revision_it_has(client: TestClient) -> None:
    assert client.get("/api/workshop").headers["ETag"] == '"0"'
    made = {place: client.put(f"/api/{place}", json=body).headers["ETag"] for place, body in PLACES.items()}
    assert client.get("/api/workshop").headers["ETag"] == made["workshop"]
    assert client.get("/api/catalogue").json()["own_kits"] == {"loft-drawer": int(made["kits/loft-drawer"].strip('"'))}
    lines = {line["material"]["slug"]: line["revision"] for line in client.get("/api/shelf?most=200").json()["lines"]}
    assert lines["matt-paint"] == int(made["shelf/matt-paint"].strip('"'))
    assert lines["chalk"] == 0 if "chalk" in lines else True


def test_a_save_whose_answer_was_lost_is_not_met_by_itself(client: TestClient) -> None:
    made = begin(client)
    job, at = sized(made["job"]), f"/api/jobs/{made['id']}"
    said = {"If-Match": '"1"', "Idempotency-Key": "mine"}
    first = client.put(at, json=job, headers=said)
    again = client.put(at, json=job, headers=said)
    assert (again.status_code, again.json()) == (200, first.json())
    assert client.put(at, json={**job, "name": "On"}, headers={"If-Match": first.headers["ETag"]}).status_code == 200


def test_a_job_begun_again_under_its_key_is_begun_once(client: TestClient) -> None:
    ids = {begin_as(client, "mine"), begin_as(client, "mine"), begin_as(client, "another")}
    assert len(ids) == 2
    assert client.get("/api/jobs").json()["count"] == 2


def begin_as(client: TestClient, key: str) -> str:
    return str(client.post("/api/jobs/start", json={"ml": 200}, headers={"Idempotency-Key": key}).json()["id"])


def test_a_file_compared_with_what_was_changed_meanwhile_takes_nothing(
    client: TestClient, db: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    put, text = entries.put, json.dumps({"format": "lumso-workshop-file", "version": 1, "kits": [KIT]})

    def somebody_first(*asked: Any) -> None:
        monkeypatch.setattr(entries, "put", put)
        entries.save(db, "kit", "loft-drawer", 0, json.dumps({**KIT, "name": "Theirs"}))
        put(*asked)

    monkeypatch.setattr(entries, "put", somebody_first)
    assert client.post("/api/import", json={"name": "kits.json", "text": text}).status_code == 412
    kits = {k["slug"]: k["name"] for k in client.get("/api/catalogue").json()["kits"]}
    assert kits["loft-drawer"] == "Theirs"


def test_a_backup_is_made_listed_fetched_and_gone_back_to(client: TestClient, db: Database) -> None:
    kept = begin(client)
    client.put("/api/kits/loft-drawer", json=KIT)
    made = client.post("/api/backups")
    assert made.status_code == 201
    listed = client.get("/api/backups").json()
    assert [b["name"] for b in listed["backups"]] == [made.json()["name"]]
    assert (listed["data"], listed["backups"][0]["jobs"]) == (str(db.path), 1)
    file = client.get(f"/api/backups/{made.json()['name']}")
    assert sorted(zipfile.ZipFile(io.BytesIO(file.content)).namelist()) == ["manifest.json", "workshop.sqlite3"]

    since = begin(client)
    client.delete("/api/kits/loft-drawer")
    for way in (f"/api/backups/{made.json()['name']}/restore", "/api/restore"):
        back = client.post(way, content=file.content if way == "/api/restore" else b"")
        assert back.status_code == 200, back.text
        assert back.json()["jobs"] == 1
        assert (db.path.parent / back.json()["before"]).exists()
        assert [j["id"] for j in client.get("/api/jobs").json()["jobs"]] == [kept["id"]]
        assert "loft-drawer" in client.get("/api/catalogue").json()["own_kits"]
        assert client.get(f"/api/jobs/{since['id']}").status_code == 404
        begin(client)


@pytest.mark.parametrize("sent", [b"", b"PK not a zip", b"SQLite format 3\x00" + bytes(200)])
def test_what_is_no_backup_changes_nothing(client: TestClient, db: Database, sent: bytes) -> None:
    made = begin(client)
    refused = client.post("/api/restore", content=sent)
    assert refused.status_code == 422
    assert refused.headers["content-type"] == "application/problem+json"
    assert [j["id"] for j in client.get("/api/jobs").json()["jobs"]] == [made["id"]]
    assert not list(db.path.parent.glob(".lumso-*"))
    assert client.post("/api/backups/nope.zip/restore").status_code == 404


def test_everything_is_had_as_one_file(client: TestClient) -> None:
    made = begin(client)
    client.put("/api/kits/loft-drawer", json=KIT)
    said = client.get("/api/export/everything.json", params={"revisions": True}).json()
    assert [j["id"] for j in said["jobs"]] == [r["job_id"] for r in said["revisions"]] == [made["id"]]
    assert said["jobs"][0]["document"]["format"] == "lumso-job"
    assert [(e["kind"], e["document"]["name"]) for e in said["entries"]] == [("kit", "Loft drawer")]


def test_what_was_taken_out_is_listed_kept_as_a_file_and_brought_back(client: TestClient) -> None:
    client.put("/api/kits/loft-drawer", json=KIT)
    client.delete("/api/kits/loft-drawer")
    (out,) = client.get("/api/aside").json()
    assert (out["kind"], out["name"], out["why"], out["returns"]) == ("kit", "Loft drawer", "taken out", True)
    assert client.get(f"/api/aside/{out['id']}/file").json()["slug"] == "loft-drawer"
    client.put("/api/kits/loft-drawer", json={**KIT, "name": "Another"})
    refused = client.post(f"/api/aside/{out['id']}/back")
    assert (refused.status_code, refused.json()["title"]) == (409, "There is another by now")
    client.delete("/api/kits/loft-drawer")
    assert client.post(f"/api/aside/{out['id']}/back").status_code == 204
    kits = {k["slug"]: k["name"] for k in client.get("/api/catalogue").json()["kits"]}
    assert kits["loft-drawer"] == "Loft drawer"
    (left,) = client.get("/api/aside").json()
    assert client.delete(f"/api/aside/{left['id']}").status_code == 204
    assert client.get("/api/aside").json() == []


def test_a_job_is_deleted_for_good_only_from_where_it_was_put_away(client: TestClient, db: Database) -> None:
    made = begin(client)
    (batch,) = batches.freeze(db, made["id"], 1, [("a", "{}")])
    assert client.delete(f"/api/jobs/{made['id']}").status_code == 404
    client.put(f"/api/jobs/{made['id']}/away", json={"away": True})
    away = client.get("/api/jobs", params={"away": True}).json()
    assert ([j["id"] for j in away["jobs"]], away["last"]) == ([made["id"]], None)
    assert client.get(f"/api/jobs/{made['id']}/gone").json() == {"revisions": 1, "batches_kept": 1}
    assert client.delete(f"/api/jobs/{made['id']}").json() == {"revisions": 1, "batches_kept": 1}
    assert client.get(f"/api/jobs/{made['id']}").status_code == 404
    assert batches.by_code(db, batch.code)


def breaking(monkeypatch: pytest.MonkeyPatch, name: str) -> None:
    """A mistake of ours in every job of a name."""
    plan = Context.plan

    def breaks(self: Context, job: Job) -> Plan:
        if job.name == name:
            raise OverflowError("math range error")
        return plan(self, job)

    monkeypatch.setattr(Context, "plan", breaks)


def test_a_job_that_breaks_us_is_kept_and_the_last_that_works_is_one_press_away(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    made = begin(client)
    at, job = f"/api/jobs/{made['id']}", made["job"]
    client.put(at, json={**job, "name": "Sound"}, headers={"If-Match": '"1"'})
    breaking(monkeypatch, "Broken")
    for i, piece in enumerate((job["piece"], sized(job)["piece"])):
        saved = client.put(at, json={**job, "name": "Broken", "piece": piece}, headers={"If-Match": f'"{i + 2}"'})
        assert saved.status_code == 200, "what has the shape of a job is kept"
    opened = client.get(at)
    assert (opened.status_code, opened.json()["title"]) == (422, "It cannot be worked out")
    (line,) = client.get("/api/jobs").json()["jobs"]
    assert (line["name"], bool(line["fault"])) == ("Broken", True)
    assert client.get(f"{at}/file").json()["name"] == "Broken"
    mended = client.post(f"{at}/mend")
    assert (mended.status_code, mended.json()["job"]["name"], mended.json()["can_redo"]) == (200, "Sound", True)
    assert client.get(at).json()["revision"] == 2


def test_a_job_that_cannot_be_read_is_had_as_it_is_kept(client: TestClient, db: Database) -> None:
    made = jobs.create(db, "Torn", "{torn")
    assert client.get(f"/api/jobs/{made.id}").status_code == 422
    assert client.get(f"/api/jobs/{made.id}/file").text == "{torn"
    assert client.post(f"/api/jobs/{made.id}/mend").status_code == 404


def counting(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """The names of the jobs that are worked out from now on, as they are."""
    worked: list[str] = []
    plan = Context.plan

    def counted(self: Context, job: Job) -> Plan:
        worked.append(job.name)
        return plan(self, job)

    monkeypatch.setattr(Context, "plan", counted)
    return worked


def test_the_list_shows_what_was_kept_and_works_out_only_what_has_changed(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("lumso.services.jobs.PATIENCE_S", 600.0)  # however slow the machine, nothing is put off
    first, second = begin(client, ml=200), begin(client, ml=300)
    client.get("/api/jobs")
    worked = counting(monkeypatch)
    listed = client.get("/api/jobs").json()
    assert len(worked) == 1, "the last one, as it is now"
    client.put(f"/api/jobs/{first['id']}", json={**first["job"], "name": "Changed"}, headers={"If-Match": '"1"'})
    worked.clear()
    again = client.get("/api/jobs").json()
    assert [j["name"] for j in again["jobs"]] == ["Changed", second["job"]["name"]]
    assert set(worked) == {"Changed"}
    assert listed["jobs"][0] == again["jobs"][1]
    client.put("/api/workshop", json={"measures": "us"})
    worked.clear()
    client.get("/api/jobs")
    assert len(set(worked)) == 2, "the workshop is another: all is worked out again"


def test_a_list_of_many_is_worked_out_a_little_at_a_time(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    for ml in (200, 300, 400):
        begin(client, ml=ml)
    listed = client.get("/api/jobs").json()["jobs"]
    worked = counting(monkeypatch)
    monkeypatch.setattr("lumso.services.jobs.PATIENCE_S", 0.0)
    client.put("/api/workshop", json={"measures": "us"})
    assert client.get("/api/jobs").json()["jobs"] == listed, "as they were, rather than late"
    assert len(worked) == 1, "the last one, which is shown as it is now"


def test_pages_and_searches_of_the_list(client: TestClient) -> None:
    ids = [begin(client, name=f"Board {i}")["id"] for i in range(5)]
    seen, after = [], ""
    while True:
        page = client.get("/api/jobs", params={"most": 2, "after": after}).json()
        seen += [j["id"] for j in page["jobs"]]
        assert (page["count"], bool(page["last"])) == (5, not after)
        if not (after := page["more"]):
            break
    assert seen == ids[::-1]
    found = client.get("/api/jobs", params={"search": "BOARD 3"}).json()
    assert ([j["id"] for j in found["jobs"]], found["count"], found["last"]) == ([ids[3]], 1, None)
    for bad in ({"most": 0}, {"most": 900}, {"after": "x"}, {"search": "x" * 201}):
        assert client.get("/api/jobs", params=bad).status_code == 422


def test_a_database_written_to_by_another_hand_is_read_anew(client: TestClient, db: Database) -> None:
    client.get("/api/shelf")
    with sqlite3.connect(Path(db.path)) as other:
        other.execute(
            "INSERT INTO workshop_entry (kind, slug, document, saved_at, revision) SELECT 'kit', 'loft-drawer', ?, '', "
            "workshop + 1 FROM clock",
            (json.dumps(KIT),),
        )
        other.execute("UPDATE clock SET workshop = workshop + 1")
    other.close()
    assert "loft-drawer" in client.get("/api/catalogue").json()["own_kits"]
