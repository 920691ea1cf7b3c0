"""What is too much is refused before anybody works on it, in words, with what is allowed."""

import json
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import pytest
from starlette.testclient import TestClient

from lumso.formats.reading import MOST_OF_ANYTHING, UnfitDocument, refuse_crowds

from .test_jobs import begin

MANY = 400_000


@pytest.mark.parametrize("path", ["/api/plan", "/api/mix-sheet", "/api/edits", "/api/jobs"])
def test_four_hundred_thousand_zones_are_refused_before_the_first_is_looked_at(
    client: TestClient, path: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    job = {**begin(client)["job"], "zones": [{}] * MANY}
    reply = client.post(path, json=job if path == "/api/jobs" else {"sequence": 1, "job": job})
    assert reply.status_code == 422
    assert [(f["at"], f["says"], f["allowed"]) for f in reply.json()["faults"]] == [
        ("/zones", "There are 400,000 in this list.", "at most 60")
    ]


def test_a_file_of_them_is_refused_too(client: TestClient) -> None:
    text = json.dumps({**begin(client)["job"], "zones": [{}] * MANY})
    reply = client.post("/api/jobs/file", json={"name": "job.json", "text": text})
    assert (reply.status_code, reply.json()["faults"][0]["at"]) == (422, "/zones")
    kits = json.dumps({"format": "lumso-workshop-file", "version": 1, "kits": [{}] * MANY})
    reply = client.post("/api/import", json={"name": "kits.json", "text": kits})
    assert (reply.status_code, reply.json()["faults"][0]["at"]) == (422, "/kits")


@pytest.mark.parametrize(
    ("document", "at"),
    [
        ({"zones": [{"layers": [0] * 6}]}, "/zones/0/layers"),
        ([[], [0] * (MOST_OF_ANYTHING + 1)], "/1"),
        ({"a": {"b": [{"c": [0] * (MOST_OF_ANYTHING + 1)}]}}, "/a/b/0/c"),
    ],
)
def test_a_list_is_as_long_as_its_name_allows(document: Any, at: str) -> None:
    refuse_crowds({"zones": [{"layers": [0] * 5, "notes": [0] * MOST_OF_ANYTHING}]}, "It", {"layers": 5})
    with pytest.raises(UnfitDocument) as caught:
        refuse_crowds(document, "It", {"layers": 5})
    assert caught.value.faults[0].at == at


def test_a_job_kept_by_an_earlier_page_is_read_as_it_is_now(client: TestClient) -> None:
    made = begin(client)
    older = {**made["job"], "version": 4}
    assert client.post("/api/plan", json={"sequence": 1, "job": older}).status_code == 200
    saved = client.put(f"/api/jobs/{made['id']}", json={**older, "name": "From before"}, headers={"If-Match": '"1"'})
    assert saved.status_code == 200
    assert client.get(f"/api/jobs/{made['id']}").json()["job"]["version"] == made["job"]["version"]


@pytest.mark.parametrize("typed", ["9" * 400 + "/" + "9" * 400, "1.123" + " " * 20_000 + "x", "1e400 m", "9" * 5000])
def test_a_length_that_nobody_means_is_refused_at_once(client: TestClient, typed: str) -> None:
    reply = client.post("/api/lengths", json={"typed": typed})
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["allowed"]


@pytest.mark.parametrize("place", ["zone", "layer"])
def test_a_zone_or_layer_has_an_id(client: TestClient, place: str) -> None:
    job = begin(client)["job"]
    (job["zones"][0] if place == "zone" else job["zones"][0]["layers"][0])["id"] = ""
    reply = client.post("/api/jobs", json=job)
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["at"].endswith("/id")


def test_six_print_at_once(client: TestClient) -> None:
    made = begin(client, ml=500)
    board = client.post("/api/jobs/start", json={"recipe": "paint-wash-raw-wood", "ground": "raw-pine"}).json()
    job = {
        **board["job"],
        "piece": {
            **board["job"]["piece"],
            "sizes": {
                name: {"mm": mm, "typed": f"{mm} mm"}
                for name, mm in (("length", 900), ("width", 400), ("thickness", 20))
            },
        },
    }
    client.put(f"/api/jobs/{board['id']}", json=job, headers={"If-Match": '"1"'})
    alone = client.post(f"/api/jobs/{board['id']}/print", json={"what": "cards"})
    assert alone.status_code == 200, made

    def printed(i: int) -> int:
        what = ("cards", "labels", "steps")[i % 3]
        return client.post(f"/api/jobs/{board['id']}/print", json={"what": what}).status_code

    with ThreadPoolExecutor(6) as pool:
        assert set(pool.map(printed, range(18))) == {200}
