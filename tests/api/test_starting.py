"""New jobs over the API: from answers, from a sample, once more; pieces by their words; lengths of a US workshop."""

from typing import Any

import pytest
from starlette.testclient import TestClient

from lumso.catalogue import shipped
from lumso.store.database import Database
from lumso.store.identity import identity

C = shipped()


def start(client: TestClient, **told: Any) -> dict[str, Any]:
    reply = client.post("/api/jobs/start", json=told)
    assert reply.status_code == 201, reply.text
    made: dict[str, Any] = reply.json()
    return made


def american(client: TestClient) -> None:
    chosen = client.get("/api/workshop").json() | {"measures": "us"}
    assert client.put("/api/workshop", json=chosen, headers={"If-Match": '"0"'}).status_code == 200


def test_nothing_said_is_a_board_of_usual_sizes_on_a_ground_nobody_knows(client: TestClient) -> None:
    made = start(client)
    piece = made["job"]["piece"]
    assert (made["job"]["name"], piece["form"], piece["kind"]) == ("Board", "board", "board")
    assert {s["source"] for s in piece["sizes"].values()} == {"usual"}
    assert made["job"]["zones"][0]["ground"] == "not-known"
    assert made["job"]["zones"][0]["layers"] == []
    assert made["job"]["use"]["lead"]["answer"] == "not tested"


def test_answers_become_the_job_and_the_name_can_be_said(client: TestClient) -> None:
    made = start(client, form="candlestick", sizes="30 cm", ground="raw-pine", finish="two-colour-milk-paint")
    assert made["job"]["piece"]["sizes"]["height"] == {"mm": 300.0, "typed": "30 cm", "source": "typed"}
    assert made["plan"]["presumed"] == ["Post, diameter", "Base, diameter", "Base, height"]
    assert made["job"]["name"].startswith("Candlestick, ")
    assert start(client, form="tray", name="For Juna")["job"]["name"] == "For Juna"


@pytest.mark.parametrize(
    ("told", "field"),
    [
        ({"form": "board", "sizes": "wide"}, "sizes"),
        ({"form": "board", "sizes": "1 m x 1 m x 1 m x 1 m"}, "sizes"),
        ({"form": "board", "sizes": "900 m"}, "sizes"),
        ({"lead": "perhaps"}, "/lead"),
        ({"spoons": 3}, "/spoons"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(client: TestClient, told: dict[str, Any], field: str) -> None:
    reply = client.post("/api/jobs/start", json=told)
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["at"] == field
    assert client.get("/api/jobs").json()["count"] == 0


def test_an_unusual_size_is_asked_about_with_its_readings(client: TestClient) -> None:
    reply = client.post("/api/jobs/start", json={"form": "bedside-table", "sizes": "45 x 60 x 40"})
    assert reply.status_code == 422
    assert reply.json()["readings"] == ["45 x 60 x 40 cm"]


def test_every_form_is_drawn_and_with_sizes_again(client: TestClient) -> None:
    forms = client.get("/api/forms").json()
    assert {f["form"]["slug"] for f in forms} == set(C.forms)
    usual = next(f for f in forms if f["form"]["slug"] == "side-table")
    wider = client.post("/api/forms/side-table", json={"typed": "100 cm"}).json()
    assert wider["area_m2"] > usual["area_m2"]
    assert [s["length"]["source"] for s in wider["sizes"]][:2] == ["typed", "usual"]
    assert client.post("/api/forms/side-table", json={"typed": "far"}).status_code == 422
    assert client.post("/api/forms/spaceship", json={}).status_code == 422


def test_in_a_us_workshop_a_bare_number_is_inches_from_then_on(client: TestClient) -> None:
    american(client)
    assert client.post("/api/lengths", json={"typed": "30"}).json() == {
        "mm": 762.0,
        "typed": "30 in",
        "source": "typed",
    }
    made = start(client, form="board", sizes="48 x 16")
    assert made["job"]["piece"]["sizes"]["length"]["mm"] == pytest.approx(1219.2)
    assert made["job"]["piece"]["sizes"]["thickness"]["typed"] == "3/4 in"
    asked = client.post("/api/lengths", json={"typed": "750", "least_mm": 200, "most_mm": 2500})
    assert asked.status_code == 422
    assert asked.json()["readings"] == ["750 mm"]
    chosen = client.get("/api/workshop")
    metric = chosen.json() | {"measures": "metric"}
    client.put("/api/workshop", json=metric, headers={"If-Match": chosen.headers["ETag"]})
    again = client.get(f"/api/jobs/{made['id']}").json()["job"]["piece"]["sizes"]["length"]
    assert (again["typed"], again["mm"]) == ("48 in", pytest.approx(1219.2))


def test_a_sample_is_an_ordinary_job_to_be_thrown_away(client: TestClient) -> None:
    sample = client.post("/api/jobs/sample", headers={"Idempotency-Key": "once"}).json()
    assert client.post("/api/jobs/sample", headers={"Idempotency-Key": "once"}).json()["id"] == sample["id"]
    assert sample["job"]["name"] == "A sample: rack"
    client.put(f"/api/jobs/{sample['id']}/away", json={"away": True})
    assert client.delete(f"/api/jobs/{sample['id']}").status_code == 200
    assert client.get("/api/jobs").json()["count"] == 0


def test_a_job_once_more_is_another_that_goes_its_own_way(client: TestClient) -> None:
    first = start(client, form="tray", ground="raw-oak", recipe="stacked-wash")
    noted = {**first["job"], "note": "the lip was thirsty"}
    client.put(f"/api/jobs/{first['id']}", json=noted, headers={"If-Match": '"1"'})
    again = client.post(f"/api/jobs/{first['id']}/copy").json()
    assert again["id"] != first["id"]
    assert again["job"]["name"] == f"{first['job']['name']}, again"
    assert again["job"]["note"] == "the lip was thirsty"
    assert again["job"]["zones"] == first["job"]["zones"]
    assert client.post("/api/jobs/nowhere/copy").status_code == 404


def test_jobs_are_listed_by_name_page_after_page_or_the_last_first(client: TestClient) -> None:
    for name in ("Émile’s box", "bench", "Apron shelf", "zinc tray", "Cupboard"):
        start(client, name=name)
    found, after = [], ""
    while True:
        page = client.get("/api/jobs", params={"order": "name", "most": 2, "after": after}).json()
        found += [j["name"] for j in page["jobs"]]
        after = page["more"]
        if not after:
            break
    assert found == ["Apron shelf", "bench", "Cupboard", "Émile’s box", "zinc tray"]
    assert client.get("/api/jobs", params={"search": "emile"}).json()["count"] == 1
    assert client.get("/api/jobs").json()["jobs"][0]["name"] == "Cupboard"


def test_a_kit_as_it_is_said_and_what_cannot_be_read_of_it(client: TestClient) -> None:
    said = client.post("/api/measures", json={"typed": "5 ml, ½ cup"}).json()
    assert [m["ml"] for m in said] == [5, 125]
    american(client)
    assert client.post("/api/measures", json={"typed": "½ cup"}).json()[0]["ml"] == pytest.approx(118.294118)
    refused = client.post("/api/measures", json={"typed": "a thimble"})
    assert refused.json()["faults"][0]["at"] == "typed"


def test_a_coverage_is_read_with_its_gallon_and_kept_as_its_label_says(client: TestClient) -> None:
    read = client.post("/api/coverage", json={"typed": "400 sq ft per gallon"})
    assert read.json()["readings"] == ["400 ft² per US gallon", "400 ft² per imperial gallon"]
    known = client.post("/api/coverage", json={"typed": "400 ft² per US gallon"}).json()
    overlay = {"field": "label_rate_ml_per_m2", "value": known["ml_per_m2"], "source": "label", "at": "2026-11-27",
               "said": known["said"]}  # fmt: skip
    item = {"slug": "matt-paint", "overlays": [overlay]}
    line = client.put("/api/shelf/matt-paint", json=item, headers={"If-Match": '"0"'}).json()
    value = next(v for v in line["values"] if v["field"] == "label_rate_ml_per_m2")
    assert value["source"] == "label (400 ft² per US gallon), 2026-11-27"


def test_a_workshop_has_one_identity_for_good(client: TestClient, db: Database) -> None:
    first = client.get("/api/identity")
    assert first.headers["Cache-Control"] == "no-store"
    assert first.json()["workshop"] == identity(db) == client.get("/api/identity").json()["workshop"]
    assert len(first.json()["workshop"]) == 36
