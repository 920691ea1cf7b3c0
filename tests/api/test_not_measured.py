"""What is printed from sizes nobody measured says so at its head; what was measured says nothing."""

from io import BytesIO
from typing import Any

import pytest
from pypdf import PdfReader
from starlette.testclient import TestClient

TOLD = {"form": "board", "ground": "raw-pine", "recipe": "milk-paint"}


def words(content: bytes) -> str:
    return " ".join(" ".join(page.extract_text().split()) for page in PdfReader(BytesIO(content)).pages)


def printed(client: TestClient, what: str, **more: Any) -> str:
    job = client.post("/api/jobs/start", json={**TOLD, **more}).json()["id"]
    reply = client.post(f"/api/jobs/{job}/print", json={"what": what})
    assert reply.status_code == 200, reply.text
    return words(reply.content)


@pytest.mark.parametrize("what", ["cards", "labels", "steps"])
def test_usual_sizes_are_told_at_the_head_and_measured_ones_are_not(client: TestClient, what: str) -> None:
    usual = printed(client, what)
    assert "Sizes not measured: length, width, thickness." in usual
    partly = printed(client, what, sizes="1 m x 50 cm")
    assert "Sizes not measured: thickness." in partly
    whole = printed(client, what, sizes="1 m x 50 cm x 20 mm")
    assert "not measured" not in whole


def test_the_sheet_the_steps_and_the_days_say_it_too(client: TestClient) -> None:
    made = client.post("/api/jobs/start", json=TOLD).json()
    sheet = client.post("/api/mix-sheet", json={"sequence": 0, "job": made["job"]}).json()["now"]
    steps = client.post("/api/finish/steps", json=made["job"]).json()
    said = "Sizes not measured: length, width, thickness. Usual ones are taken."
    assert sheet["not_measured"] == steps["not_measured"] == said
    chosen = client.get("/api/days/chosen").json()["chosen"] | {"jobs": [{"job": made["id"]}]}
    client.put("/api/days/chosen", json=chosen, headers={"If-Match": '"0"'})
    assert "Sizes not measured: length" in words(client.get("/api/days/sheet.pdf").content)
