"""Jobs over the API: begun, saved with their revision, undone, listed with what is next."""

from typing import Any
from xml.etree import ElementTree

import pytest
from starlette.testclient import TestClient

from lumso.store import jobs
from lumso.store.database import Database

from .conftest import edited


def begin(client: TestClient, **start: Any) -> dict[str, Any]:
    reply = client.post("/api/jobs/start", json={"recipe": "paint-wash-raw-wood", "ground": "raw-pine", **start})
    assert reply.status_code == 201, reply.text
    found: dict[str, Any] = reply.json()
    return found


def sized(job: dict[str, Any]) -> dict[str, Any]:
    sizes = {"length": {"mm": 1000, "typed": "1 m"}, "width": {"mm": 500, "typed": "50 cm"}}
    return {**job, "piece": {**job["piece"], "sizes": {**sizes, "thickness": {"mm": 20, "typed": "20"}}}}


def save(client: TestClient, made: dict[str, Any], job: dict[str, Any], revision: int) -> Any:
    return client.put(f"/api/jobs/{made['id']}", json=job, headers={"If-Match": f'"{revision}"'})


def test_a_new_job_is_measured_saved_and_undone(client: TestClient) -> None:
    made = begin(client, name="Rack")
    assert made["plan"]["presumed"] == ["Length", "Width", "Thickness"]
    saved = save(client, made, sized(made["job"]), 1)
    assert saved.headers["ETag"] == '"2"'
    assert "plan" not in saved.json(), "a save is answered in a few hundred bytes"
    kept = client.get(f"/api/jobs/{made['id']}").json()
    assert kept["plan"]["zones"][0]["area"]["value"] == pytest.approx(0.56)
    undone = client.post(f"/api/jobs/{made['id']}/undo", headers={"If-Match": '"2"'}).json()
    assert (undone["revision"], undone["can_undo"], undone["can_redo"]) == (1, False, True)
    assert {s["source"] for s in undone["job"]["piece"]["sizes"].values()} == {"usual"}
    redone = client.post(f"/api/jobs/{made['id']}/redo", headers={"If-Match": '"1"'}).json()
    assert redone["job"] == kept["job"]
    # What was undone where nobody could ask is saved as what it was: the head moves back, and on again.
    back = save(client, made, made["job"], 2)
    assert (back.json()["revision"], back.json()["can_redo"]) == (1, True)
    assert save(client, made, sized(made["job"]), 1).json()["revision"] == 2


def test_a_stale_save_gets_412_with_the_head_and_loses_nothing(client: TestClient) -> None:
    made = begin(client)
    save(client, made, sized(made["job"]), 1)
    stale = save(client, made, {**made["job"], "name": "Mine"}, 1)
    assert stale.status_code == 412
    assert stale.headers["content-type"] == "application/problem+json"
    assert stale.json()["head"] == 2
    assert client.get(f"/api/jobs/{made['id']}").json()["revision"] == 2


@pytest.mark.parametrize("headers", [{}, {"If-Match": "latest"}])
def test_a_save_without_its_revision_is_refused(client: TestClient, headers: dict[str, str]) -> None:
    made = begin(client)
    reply = client.put(f"/api/jobs/{made['id']}", json=made["job"], headers=headers)
    assert reply.status_code == 422


def test_the_saved_job_carries_its_entries(client: TestClient) -> None:
    entries = begin(client)["job"]["entries"]
    assert [r["slug"] for r in entries["recipes"]] == ["paint-wash-raw-wood"]
    assert {m["slug"] for m in entries["materials"]} == {"matt-paint", "water"}


def test_a_quick_pot_becomes_a_job(client: TestClient) -> None:
    pot = begin(client, ml=200)
    assert pot["job"]["piece"] is None
    assert pot["plan"]["zones"][0]["layers"][0]["pots"][0]["mix"]["volume"]["value"] == pytest.approx(200)
    save(client, pot, sized(edited(client, pot["job"], "piece", kind="board")["job"]), 1)
    saved = client.get(f"/api/jobs/{pot['id']}").json()
    assert saved["plan"]["problems"] == []
    assert saved["job"]["zones"][0]["layers"][0]["want"] == {"by": "area"}


@pytest.mark.parametrize("ml", [0, -5, 1e9])
def test_an_absurd_pot_is_refused_at_its_field(client: TestClient, ml: float) -> None:
    reply = client.post("/api/jobs/start", json={"recipe": "colour-wash", "ml": ml})
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["at"] == "/ml"


def test_the_list_says_what_is_next_and_jobs_can_be_put_away(client: TestClient) -> None:
    pot, board = begin(client, ml=200), begin(client, name="Board")
    got = client.get("/api/jobs").json()
    assert [line["id"] for line in got["jobs"]] == [board["id"], pot["id"]]
    assert got["jobs"][1]["next"]["says"] == "Mix 200 ml of paint wash on raw wood"
    assert (got["last"]["id"], got["last"]["pot"]["recipe"]) == (board["id"], "paint-wash-raw-wood")
    assert client.put(f"/api/jobs/{board['id']}/away", json={"away": True}).status_code == 204
    assert [line["id"] for line in client.get("/api/jobs").json()["jobs"]] == [pot["id"]]


def test_a_job_that_cannot_be_opened_does_not_hide_the_others(client: TestClient, db: Database) -> None:
    begin(client)
    jobs.create(db, "Broken", '{"format": "lumso-job", "version": 99}')
    lines = client.get("/api/jobs").json()["jobs"]
    assert [bool(line["fault"]) for line in lines] == [True, False]


def test_an_unknown_job_is_404(client: TestClient) -> None:
    assert client.get("/api/jobs/nowhere").status_code == 404


def on(client: TestClient, kind: str) -> dict[str, Any]:
    made = begin(client)
    return {**made, "job": edited(client, made["job"], "piece", kind=kind)["job"]}


@pytest.mark.parametrize(
    ("kind", "zones"),
    [
        ("chest-of-drawers", ["Top", "Body", "Drawer fronts"]),
        ("turned-stand", ["Post", "Base", "Arms"]),
        ("wall", ["Wall"]),
        ("column", ["Shaft", "Plinth", "Capital"]),
    ],
)
def test_another_kind_of_piece_brings_its_usual_zones_each_with_the_layers(
    client: TestClient, kind: str, zones: list[str]
) -> None:
    job = on(client, kind)["job"]
    assert [z["name"] for z in job["zones"]] == zones
    assert {z["layers"][0]["recipe"] for z in job["zones"]} == {"paint-wash-raw-wood"}
    ids = [z["id"] for z in job["zones"]] + [x["id"] for z in job["zones"] for x in z["layers"]]
    assert len(ids) == len(set(ids))
    assert job["piece"]["sizes"] == {}


def test_a_kind_nobody_knows_is_refused_with_those_that_are(client: TestClient) -> None:
    made = begin(client)
    edit = {"edit": "piece", "seed": "new", "kind": "spaceship"}
    reply = client.post("/api/edits", json={"job": made["job"], "edit": edit})
    assert reply.status_code == 422
    assert "chest-of-drawers" in reply.json()["detail"]


def test_the_drawing_as_svg_or_why_there_is_none(client: TestClient) -> None:
    made = begin(client)
    save(client, made, {**made["job"], "piece": {**made["job"]["piece"], "sizes": {}}}, 1)
    missing = client.get(f"/api/jobs/{made['id']}/drawing.svg")
    assert (missing.status_code, missing.json()["faults"][0]["at"]) == (422, "/piece/sizes/length")
    save(client, made, sized(made["job"]), 2)
    svg = client.get(f"/api/jobs/{made['id']}/drawing.svg")
    assert svg.headers["content-type"] == "image/svg+xml"
    root = ElementTree.fromstring(svg.text)
    assert len(root.findall("{http://www.w3.org/2000/svg}polygon")) == 5
    assert "50 cm" in svg.text
    pot = begin(client, ml=100)
    assert "no piece" in client.get(f"/api/jobs/{pot['id']}/drawing.svg").json()["detail"]


def test_words_in_a_drawing_cannot_break_out_of_it(client: TestClient) -> None:
    made = begin(client)
    job = sized(made["job"])
    job["piece"]["sizes"]["length"] = {"mm": 1000, "typed": "1 m"}
    job["zones"][0]["layers"][0]["colours"] = {"paint": {"name": "<script>", "hex": "#2f6f62"}}
    save(client, made, job, 1)
    text = client.get(f"/api/jobs/{made['id']}/drawing.svg").text
    assert "<script>" not in text
    ElementTree.fromstring(text)
