"""Test boards over the API: offered, planned, kept as a job, printed to scale, and read."""

import json
from io import BytesIO
from typing import Any

import pypdfium2  # type: ignore[import-untyped]
import pytest
from fastapi.testclient import TestClient
from pypdf import PdfReader

from tests.conftest import ROOT

from .conftest import edited

RACK = json.loads((ROOT / "examples" / "programme-rack.json").read_text())
WASH = RACK["zones"][0]["layers"][0]["id"]


def planned(client: TestClient, *values: float, **more: Any) -> dict[str, Any]:
    ladder = {"what": "share", "layer": WASH, "component": "water", "rungs": [{"value": v} for v in values]}
    body = {"job": RACK, "job_id": "j1", "zone": "rack", "seed": "board", "ladders": [ladder], **more}
    reply = client.post("/api/boards/plan", json=body)
    assert reply.status_code == 200, reply.text
    made: dict[str, Any] = reply.json()
    return made


def test_what_is_worth_trying_is_offered_with_reasons(client: TestClient) -> None:
    made = client.post("/api/boards/offers", json={"job": RACK, "zone": "rack", "layer": WASH}).json()
    assert any("Raw wood" in r for r in made["reasons"])
    water = made["ladders"][0]
    assert water["ladder"]["what"] == "share"
    values = [r["value"] for r in water["ladder"]["rungs"]]
    assert values == sorted(values)
    assert len(values) >= 3
    assert water["steps"][0].startswith("water ")


def test_a_board_is_kept_and_planned_as_a_job(client: TestClient) -> None:
    board = planned(client, 0.5, 0.6, 0.7)
    assert client.post("/api/boards/stepped", json={"job": board["job"]}).json()["saved_ml"] > 0
    kept = client.post("/api/jobs", json=board["job"], headers={"Idempotency-Key": "k1"})
    assert kept.status_code in (200, 201), kept.text
    job = kept.json()["job"]
    assert [s["code"] for s in job["board"]["strips"]] == ["A", "B", "C"]
    assert not [p for p in kept.json()["plan"]["problems"] if p["at"].startswith("/zones")]
    steps = client.post("/api/finish/steps", json=job).json()["steps"]
    washes = [
        s
        for s in steps
        if s["operation"]["kind"] == "lay" and s["operation"]["layer"] in {x["layer"] for x in job["board"]["strips"]}
    ]
    assert len(washes) == 3
    assert client.post("/api/look/chip?px=160", json={"job": job, "zone": job["zones"][0]["id"]}).status_code == 200


def test_its_layout_is_printed_at_its_size(client: TestClient) -> None:
    board = planned(client, 0.5, 0.6, 0.7, 0.75)["job"]
    reply = client.post("/api/boards/sheet", json={"job": board})
    assert reply.headers["content-type"] == "application/pdf"
    reader = PdfReader(BytesIO(reply.content))
    words = "".join(page.extract_text() for page in reader.pages)
    assert all(f"water {n} %" in words for n in (50, 60, 70, 75))
    assert "50 mm" in words
    page = pypdfium2.PdfDocument(reply.content)[0]
    scale = 4.0
    dark = page.render(scale=scale).to_numpy().min(axis=2) < 128
    columns = dark.mean(axis=0)
    edges = [i for i in range(1, len(columns)) if columns[i] > 0.5 and columns[i - 1] <= 0.5]
    assert (edges[1] - edges[0]) / scale / 72 * 25.4 == pytest.approx(board["board"]["width_mm"], abs=0.6)


def test_colours_that_were_seen_teach(client: TestClient) -> None:
    job = planned(client, 0.5, 0.6, 0.7)["job"]
    assert client.post("/api/boards/taught", json={"job": job}).json() is None
    for strip, zone in zip(job["board"]["strips"], job["zones"], strict=True):
        said = client.post("/api/look", json={"job": job, "zone": zone["id"]}).json()
        strip["seen"] = {"hex": said["column"]["top"]["palest"], "how": "typed", "within": 1}
    made = client.post("/api/boards/taught", json={"job": job}).json()
    assert made["strips"] == 3
    assert made["least"] <= made["hides"] <= made["most"]
    assert made["evidence"][0]["after"] <= made["evidence"][0]["off"]


def test_a_strip_is_taken_into_the_job_it_was_for(client: TestClient) -> None:
    board = planned(client, 0.5, 0.7)["job"]
    made = edited(client, RACK, "take strip", zone="rack", name="Before the board", strip=board["zones"][1])
    zone = made["job"]["zones"][0]
    assert zone["layers"][0]["amounts"]["water"] == {"by": "volume-share", "share": 0.7}
    assert zone["layers"][0]["id"] == WASH
    assert zone["variants"][0]["name"] == "Before the board"


@pytest.mark.parametrize(
    ("change", "says"),
    [({"zone": "none"}, "zone"), ({"ladders": []}, "ladders"),
     ({"ladders": [{"what": "coats", "layer": "none", "rungs": [{"value": 1}]}]}, "no layer"),
     ({"ladders": [{"what": "share", "layer": WASH, "component": "water", "rungs": [{"value": 3}]}]}, "no share")],
)  # fmt: skip
def test_what_cannot_be_tried_is_refused_in_words(client: TestClient, change: dict[str, Any], says: str) -> None:
    body = {"job": RACK, "job_id": "", "zone": "rack", "seed": "b",
            "ladders": [{"what": "coats", "layer": WASH, "rungs": [{"value": 1}]}], **change}  # fmt: skip
    reply = client.post("/api/boards/plan", json=body)
    assert reply.status_code == 422
    assert says in reply.text


def test_a_colour_is_matched_from_the_shelf(client: TestClient) -> None:
    none = client.post("/api/look/match", json={"wanted": "#8aa09a"}).json()
    assert none["matches"] == []
    assert "shelf" in none["closer"]
    paints = [
        {"slug": n, "name": n, "hex": h} for n, h in (("cream", "#ece3cc"), ("teal", "#3f7a78"), ("soot", "#2f2e2d"))
    ]
    made = client.post("/api/look/match", json={"wanted": "#8aa09a", "paints": paints, "ml": 60}).json()
    assert made["near"]
    assert made["matches"][0]["off"] < 3
    assert len(made["spoons"]) == min(3, len(made["matches"]))
    onto = {"job": RACK, "zone": "rack", "layer": WASH}
    laid = client.post("/api/look/match", json={"wanted": "#8aa09a", "paints": paints, "onto": onto}).json()
    assert laid["matches"][0]["shade"] != made["matches"][0]["shade"]
    wrong = client.post("/api/look/match", json={"wanted": "green", "paints": paints})
    assert wrong.status_code == 422
