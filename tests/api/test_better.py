"""Values known better, over the API: kept, counted in plans, put back."""

from copy import deepcopy
from typing import Any

from fastapi.testclient import TestClient

from tests.api.test_finish import job

AT = "/api/better/films/mineral-paint/times.seal"


def wait(client: TestClient) -> float:
    document = deepcopy(job())
    layers = document["zones"][0]["layers"]
    layers[0] = {**layers[0], "recipe": "paint-plain", "technique": "brushed-paint", "wait_h": None, "amounts": {}}
    reply = client.post("/api/plan", json={"sequence": 1, "job": document})
    return float(reply.json()["plan"]["zones"][0]["layers"][0]["wait_h"])


def value(client: TestClient) -> dict[str, Any]:
    entries = client.get("/api/better").json()
    film = next(e for e in entries if (e["kind"], e["slug"]) == ("films", "mineral-paint"))
    return next(v for v in film["values"] if v["field"] == "times.seal")


def test_a_value_is_kept_counts_and_is_put_back(client: TestClient) -> None:
    assert (wait(client), value(client)["source"]) == (12, "starting value")
    said = {"value": 1500, "source": "label", "on": "2026-11-27"}
    assert client.put(AT, json=said).status_code == 204
    now = value(client)
    assert (now["value"], now["starting"], now["source"]) == (1500, 720, "label, 2026-11-27")
    assert wait(client) == 25
    assert client.delete(AT).status_code == 204
    assert (wait(client), value(client)["value"]) == (12, 720)


def test_what_cannot_be_is_refused_where_it_was_entered(client: TestClient) -> None:
    far = client.put(AT, json={"value": 1e9, "source": "label", "on": "2026-11-27"})
    assert far.status_code == 422
    assert "1 to 400000 min" in far.text
    assert client.put(f"{AT}x", json={"value": 3, "source": "label", "on": ""}).status_code == 422
    other = client.put("/api/better/films/moon/times.touch", json={"value": 3, "source": "label", "on": ""})
    assert other.status_code == 422
