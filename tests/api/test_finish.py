"""The finish over the API: put on, mended, asked about, written as steps; refused in words."""

import json
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.conftest import ROOT

from .conftest import edited

RACK = json.loads((ROOT / "examples" / "programme-rack.json").read_text())


def job(**zone: Any) -> dict[str, Any]:
    return {**RACK, "zones": [{**RACK["zones"][0], **zone}]}


def test_a_finish_is_put_on_a_zone_with_what_its_ground_needs(client: TestClient) -> None:
    made = edited(client, job(ground="slick"), "finish", zone="rack", finish="dragged-linen")
    (zone,) = made["job"]["zones"]
    assert zone["layers"][0]["recipe"] == "bonding-primer-plain"
    assert zone["finish"] == "dragged-linen"
    assert "Put a bonding primer beneath, and leave it a night" in [m["did"] for m in made["taken"]]
    ids = [x["id"] for x in zone["layers"]]
    assert len(set(ids)) == len(ids)
    assert not set(ids) & {x["id"] for x in RACK["zones"][0]["layers"]}


def test_a_way_out_of_a_finding_is_taken(client: TestClient) -> None:
    planned = client.post("/api/plan", json={"sequence": 1, "job": job(ground="slick")}).json()["plan"]
    (found,) = [f for f in planned["zones"][0]["findings"] if f["rule"] == "slick-unprimed"]
    made = edited(client, job(ground="slick"), "stack", zone="rack", changes=found["remedies"][0]["changes"])
    again = client.post("/api/plan", json={"sequence": 2, "job": made["job"]}).json()["plan"]
    assert "slick-unprimed" not in [f["rule"] for f in again["zones"][0]["findings"]]


def test_everything_that_can_be_mended_is(client: TestClient) -> None:
    made = edited(client, job(ground="old-gloss", prep=[]), "remedy", zone="rack")
    assert made["taken"]
    planned = client.post("/api/plan", json={"sequence": 1, "job": made["job"]}).json()["plan"]
    assert {f["grade"] for f in planned["zones"][0]["findings"]} <= {"good to know"}


def test_the_advisers_answer(client: TestClient) -> None:
    wet = {**job(), "use": {"touched_by": ["water"]}}
    advice = client.post("/api/finish/advice", json={"job": wet, "zone": "rack"}).json()
    assert {s["verdict"] for s in advice["sealers"]} >= {"best", "not here"}
    assert [g["purpose"] for g in advice["grits"]]


def test_the_steps_and_the_efforts(client: TestClient) -> None:
    steps = client.post("/api/finish/steps", json=job()).json()
    assert [s["operation"]["kind"] for s in steps["steps"]][:4] == ["lay out", "prepare", "prepare", "clear away"]
    efforts = client.get("/api/finish/efforts").json()
    finishes = client.get("/api/catalogue").json()["finishes"]
    assert set(efforts) == {f["slug"] for f in finishes}
    assert all(e["hours"] > 0 and e["days"] >= 1 for e in efforts.values())


@pytest.mark.parametrize(
    ("path", "more", "at"),
    [
        ("edits", {"edit": {"edit": "finish", "seed": "s", "zone": "attic", "finish": "dragged-linen"}}, "zone"),
        ("edits", {"edit": {"edit": "finish", "seed": "s", "zone": "rack", "finish": "gold-leaf"}}, None),
        ("edits", {"edit": {"edit": "stack", "seed": "s", "zone": "rack",
                            "changes": [{"do": "remove", "layer": "nope"}]}}, "layer"),
        ("edits", {"edit": {"edit": "stack", "seed": "s", "zone": "rack", "changes": [{"do": "burn"}]}}, None),
        ("edits", {"edit": {"edit": "burn", "seed": "s"}}, None),
        ("finish/advice", {"zone": "attic"}, "zone"),
        ("finish/library", {"zone": "attic"}, "zone"),
    ],
)  # fmt: skip
def test_what_is_not_there_is_refused_in_words(
    client: TestClient, path: str, more: dict[str, Any], at: str | None
) -> None:
    reply = client.post(f"/api/{path}", json={"job": job(), **more})
    assert reply.status_code == 422
    problem = reply.json()
    assert problem["detail"]
    if at:
        assert problem["faults"][0]["at"] == at


def test_stack_acceptance_and_preparation_survive_saving_undo_and_the_file(client: TestClient, tmp_path: Path) -> None:
    zone = {
        **RACK["zones"][0],
        "accepted": [{"rule": "knots-bleed", "layer": "wash", "reason": "the knots are part of it"}],
    }
    made = client.post("/api/jobs", json={**RACK, "zones": [zone]}).json()
    bare = {**made["job"], "zones": [{**made["job"]["zones"][0], "accepted": [], "prep": []}]}
    saved = client.put(f"/api/jobs/{made['id']}", json=bare, headers={"If-Match": f'"{made["revision"]}"'}).json()
    assert client.get(f"/api/jobs/{made['id']}").json()["job"]["zones"][0]["accepted"] == []
    undone = client.post(f"/api/jobs/{made['id']}/undo", headers={"If-Match": f'"{saved["revision"]}"'}).json()
    back = undone["job"]["zones"][0]
    assert back["accepted"][0]["reason"] == "the knots are part of it"
    assert back["prep"] == ["sanded-180", "grain-raised", "dusted"]
    (known,) = [f for f in undone["plan"]["zones"][0]["findings"] if f["rule"] == "knots-bleed"]
    assert known["accepted"] == "the knots are part of it"
    entries = undone["job"]["entries"]
    assert {f["slug"] for f in entries["films"]} == {"wash", "clear-coat"}
    assert {p["slug"] for p in entries["preparations"]} == set(back["prep"])


def test_the_room_is_the_workshops_and_drying_follows_it(client: TestClient) -> None:
    def waits() -> float:
        body = {"sequence": 1, "job": job(layers=[{**RACK["zones"][0]["layers"][0], "wait_h": None}])}
        hours: float = client.post("/api/plan", json=body).json()["plan"]["zones"][0]["layers"][0]["wait_h"]
        return hours

    assert waits() == pytest.approx(2)
    chosen = {**client.get("/api/workshop").json(), "temperature_c": 12, "humidity": 0.75}
    assert client.put("/api/workshop", json=chosen).status_code == 200
    assert waits() == pytest.approx(2 * 3.33, rel=0.003)
    bad = client.put("/api/workshop", json={**chosen, "humidity": 75})
    assert bad.status_code == 422
    assert "humidity" in bad.json()["faults"][0]["at"]


def test_only_the_zone_looked_at_comes_with_its_working(client: TestClient) -> None:
    two = [RACK["zones"][0], {**RACK["zones"][0], "id": "other", "surfaces": ["underside"]}]
    body = {"sequence": 1, "job": {**RACK, "zones": two}}
    whole = client.post("/api/plan", json=body).json()["plan"]
    slim = client.post("/api/plan", json={**body, "looked_at": "rack"}).json()["plan"]
    assert slim["zones"][0] == whole["zones"][0]
    mixes = [
        (a["pots"][0]["mix"], b["pots"][0]["mix"])
        for a, b in zip(slim["zones"][1]["layers"], whole["zones"][1]["layers"], strict=True)
    ]
    for bare, full in mixes:
        assert bare["volume"]["steps"] == []
        assert full["volume"]["steps"]
        assert bare["volume"]["value"] == full["volume"]["value"]
    assert slim["zones"][1]["findings"] == whole["zones"][1]["findings"]


def test_a_job_is_saved_as_a_file_and_opened_again_with_its_stack(client: TestClient) -> None:
    accepted = [{"rule": "knots-bleed", "layer": "wash", "reason": "the knots are part of it"}]
    made = client.post("/api/jobs", json=job(accepted=accepted)).json()
    reply = client.get(f"/api/jobs/{made['id']}/file")
    assert "programme-rack.json" in reply.headers["content-disposition"]
    again = client.post("/api/jobs/file", json={"name": "rack.json", "text": reply.text})
    assert again.status_code == 201
    assert again.json()["id"] != made["id"]
    assert again.json()["job"] == made["job"]


@pytest.mark.parametrize(
    ("text", "at"),
    [("not json", ""), ('{"format": "recipe"}', "/format"), ('{"format": "lumso-job", "version": 99}', "/version")],
)
def test_a_file_that_is_no_job_is_refused_with_its_place(client: TestClient, text: str, at: str) -> None:
    reply = client.post("/api/jobs/file", json={"name": "x.json", "text": text})
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["at"] == at


def test_an_old_job_file_is_opened(client: TestClient) -> None:
    for path in (ROOT / "tests" / "formats" / "old").glob("*.json"):
        reply = client.post("/api/jobs/file", json={"name": path.name, "text": path.read_text()})
        assert reply.status_code == 201, path.name
        assert reply.json()["job"]["version"] == 11


def test_what_will_fail_is_the_next_thing_to_see_to(client: TestClient) -> None:
    made = client.post("/api/jobs", json=job(ground="slick", prep=[])).json()
    assert made["plan"]["next"]["says"].startswith("Rack board: Paint wash on raw wood straight on")
    (line,) = client.get("/api/jobs").json()["jobs"]
    assert line["next"] == made["plan"]["next"]
