"""Rehearsal over the API: what is done is replayed, what is hidden stays hidden, and nothing of it is kept."""

import json
import sqlite3
from io import BytesIO
from typing import Any

import pytest
from fastapi.testclient import TestClient
from PIL import Image

from lumso.catalogue import shipped
from lumso.store.database import Database
from tests.conftest import ROOT

RACK = json.loads((ROOT / "examples" / "programme-rack.json").read_text())
ASKED = {"job": RACK, "zone": "rack"}
GO, WATCH = {"act": "go"}, {"act": "watch"}


def rehearsed(client: TestClient, acts: list[dict[str, Any]], seed: int = 0) -> dict[str, Any]:
    reply = client.post("/api/rehearsal", json={**ASKED, "seed": seed, "acts": acts})
    assert reply.status_code == 200, reply.text
    made: dict[str, Any] = reply.json()
    return made


def hurried(client: TestClient, seed: int = 0) -> tuple[dict[str, Any], list[dict[str, Any]]]:
    """Everything at once, without any wait."""
    acts: list[dict[str, Any]] = []
    seen = rehearsed(client, acts, seed)
    while not seen["over"]:
        acts = [*acts, GO]
        seen = rehearsed(client, acts, seed)
        assert len(acts) < 60
    return seen, acts


def content(db: Database) -> list[str]:
    with sqlite3.connect(db.path) as connection:
        return list(connection.iterdump())


def test_hurried_it_shows_says_why_and_what_mends_it_and_nothing_is_kept(client: TestClient, db: Database) -> None:
    client.post("/api/jobs", json=RACK)
    before = content(db)
    seen, acts = hurried(client)
    assert {"cloudy"} <= {s["flaw"] for s in seen["spoilt"]}
    assert all(s["says"] and s["mends"] and not s["bad_luck"] for s in seen["spoilt"])
    for planned in ("false", "true"):
        reply = client.post(f"/api/rehearsal/picture?px=96&planned={planned}", json={**ASKED, "acts": acts})
        picture = Image.open(BytesIO(reply.content))
        assert picture.size == (96, 96)
        assert picture.info["Description"].startswith("Rehearsal")
    assert content(db) == before


def test_on_time_it_is_as_planned(client: TestClient) -> None:
    acts: list[dict[str, Any]] = []
    seen = rehearsed(client, acts)
    while not seen["over"]:
        opens = seen["span"]["opens"]
        if opens and opens["at_min"] > seen["minute"]:
            acts = [*acts, {"act": "pass", "minutes": opens["at_min"] - seen["minute"] + 0.001}]
        acts = [*acts, GO]
        seen = rehearsed(client, acts)
    assert seen["spoilt"] == []
    assert seen["compared"]["off"] < 0.2
    assert seen["compared"]["minutes"] == pytest.approx(seen["compared"]["planned_minutes"], abs=1)


def test_what_an_afternoon_truly_is_like_is_told_only_when_it_is_over(client: TestClient) -> None:
    acts: list[dict[str, Any]] = []
    seen = rehearsed(client, acts, 5)
    plan = rehearsed(client, acts, 0)
    while not seen["over"]:
        assert all(d["true_opens_min"] is None and d["true_closes_min"] is None for d in seen["decided"])
        assert seen["span"] == plan["span"]  # the window is the plan's, whatever is drawn
        acts = [*acts, GO]
        seen, plan = rehearsed(client, acts, 5), rehearsed(client, acts, 0)
    told = [d["true_opens_min"] for d in seen["decided"] if d["opens_min"] is not None]
    assert told
    assert told != [d["opens_min"] for d in seen["decided"] if d["opens_min"] is not None]


def test_what_cannot_be_rehearsed_is_refused_in_words(client: TestClient) -> None:
    reply = client.post("/api/rehearsal", json={**ASKED, "zone": "lid"})
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["allowed"] == "rack"
    bare = {**RACK, "zones": [{**RACK["zones"][0], "layers": []}]}
    reply = client.post("/api/rehearsal", json={"job": bare, "zone": "rack"})
    assert reply.status_code == 422
    assert "mix" in reply.json()["faults"][0]["allowed"]
    reply = client.post("/api/rehearsal", json={**ASKED, "acts": [{"act": "pass", "minutes": -5}]})
    assert reply.status_code == 422


def test_every_flaw_that_is_drawn_is_drawn_on_a_layer_of_a_saved_job_and_seen_there(client: TestClient) -> None:
    job = client.post("/api/jobs", json=RACK).json()
    zone = job["job"]["zones"][0]
    layer = zone["layers"][-1]["id"]
    asked = {"job": job["id"], "zone": zone["id"], "layer": layer, "px": 96}
    drawn = {
        flaw.slug: client.get(f"/api/rehearsal/flaws/{flaw.slug}", params=asked)
        for flaw in shipped().flaws.values()
        if flaw.shape != "none"
    }
    assert {slug: reply.status_code for slug, reply in drawn.items()} == dict.fromkeys(drawn, 200)
    sound = client.get("/api/rehearsal/flaws/closed-up", params=asked).content  # nothing that a clear coat shows
    same = {slug for slug, reply in drawn.items() if reply.content == sound}
    assert same == set()


def test_a_flaw_or_a_layer_that_is_not_there_is_said(client: TestClient) -> None:
    job = client.post("/api/jobs", json=RACK).json()
    zone = job["job"]["zones"][0]
    asked = {"job": job["id"], "zone": zone["id"], "layer": "nobody"}
    wrong = client.get("/api/rehearsal/flaws/lap-line", params=asked)
    assert wrong.status_code == 422
    assert wrong.json()["faults"][0]["at"].endswith("layer")
    asked["layer"] = zone["layers"][0]["id"]
    assert client.get("/api/rehearsal/flaws/dragon", params=asked).status_code in {404, 422}
