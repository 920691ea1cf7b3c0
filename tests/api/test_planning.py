"""Planning over the API, and every refusal as problem details."""

import json
from typing import Any

import pytest
from starlette.testclient import TestClient

from lumso.store.database import Database
from lumso.store.errors import Busy
from tests.conftest import ROOT


@pytest.fixture
def rack_document() -> dict[str, Any]:
    found: dict[str, Any] = json.loads((ROOT / "examples" / "programme-rack.json").read_text())
    return found


def test_a_plan_comes_back_with_its_sequence_number(client: TestClient, rack_document: dict[str, Any]) -> None:
    reply = client.post("/api/plan", json={"sequence": 7, "job": rack_document}).json()
    assert reply["sequence"] == 7
    mix = reply["plan"]["zones"][0]["layers"][0]["pots"][0]["mix"]
    assert [round(p["poured"]["value"], 1) for p in mix["parts"]] == [11.5, 34.6]


def test_the_plan_follows_the_workshops_measures(client: TestClient, rack_document: dict[str, Any]) -> None:
    workshop = client.get("/api/workshop").json()
    client.put("/api/workshop", json={**workshop, "measures": "australian"})
    reply = client.post("/api/plan", json={"sequence": 1, "job": rack_document}).json()
    assert reply["plan"]["measures"] == "australian"
    refused = client.put("/api/workshop", json={**workshop, "measures": "troy"})
    assert refused.status_code == 422
    assert "australian" in refused.json()["detail"]


def test_a_typed_length_is_read_or_says_what_works(client: TestClient) -> None:
    assert client.post("/api/lengths", json={"typed": '29 1/2"'}).json()["mm"] == pytest.approx(749.3)
    asks = client.post("/api/lengths", json={"typed": "1,250"})
    assert asks.status_code == 422
    assert asks.json()["readings"] == ["1250", "1.25"]


def test_nan_and_unknown_fields_are_refused_at_their_place(client: TestClient, rack_document: dict[str, Any]) -> None:
    rack_document["zones"][0]["layers"][0]["margin"] = float("nan")
    body = json.dumps({"sequence": 1, "job": rack_document})
    reply = client.post("/api/plan", content=body, headers={"content-type": "application/json"})
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["at"] == "/job/zones/0/layers/0/margin"
    assert reply.json()["faults"][0]["allowed"] == "a finite number"
    rack_document["zones"][0]["layers"][0]["margin"] = 0.1
    unknown = client.post("/api/plan", json={"sequence": 1, "job": {**rack_document, "glitter": 1}})
    assert "/job/glitter" in [f["at"] for f in unknown.json()["faults"]]


@pytest.mark.parametrize("body", ["{", "", "[]", "null"])
def test_a_body_that_is_no_job_is_422_not_500(client: TestClient, body: str) -> None:
    reply = client.post("/api/plan", content=body, headers={"content-type": "application/json"})
    assert reply.status_code == 422
    assert reply.headers["content-type"] == "application/problem+json"


def test_a_busy_database_is_503_in_words(client: TestClient, db: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    def busy(*_: object, **__: object) -> None:
        raise Busy("in use by another program")

    monkeypatch.setattr("lumso.store.settings.change", busy)
    reply = client.put("/api/workshop", json=client.get("/api/workshop").json())
    assert (reply.status_code, reply.json()["title"]) == (503, "The database is in use")


def test_a_mistake_of_our_own_shows_no_traceback(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object) -> None:
        raise RuntimeError("secret detail")

    monkeypatch.setattr("lumso.store.jobs.page", broken)
    reply = client.get("/api/jobs")
    assert reply.status_code == 500
    assert "secret detail" not in reply.text


def test_unknown_api_addresses_are_404_and_pages_are_the_interface(client: TestClient) -> None:
    assert client.get("/api/nothing").status_code == 404
    assert client.get("/assets/nothing.js").status_code == 404
    for page in ("/", "/jobs/some-id"):
        assert "<!doctype html>" in client.get(page).text.lower()
