"""One document that cannot be read takes nothing else with it, and nothing is lost of it."""

import json

import pytest
from starlette.testclient import TestClient

from lumso.store import aside, entries, settings
from lumso.store.database import Database

LISTS = ("/api/jobs", "/api/catalogue", "/api/shelf", "/api/better", "/api/workshop")
KIT = {"slug": "loft-drawer", "name": "Loft drawer", "measures": [{"name": "scoop", "ml": 14}]}


def _said(client: TestClient) -> list[tuple[str, str]]:
    return [(u["kind"], u["slug"]) for u in client.get("/api/unread").json()]


@pytest.mark.parametrize("document", ["{", "null", json.dumps({**KIT, "measures": 7}), json.dumps({**KIT, "new": 1})])
@pytest.mark.parametrize("kind", ["kit", "recipe", "shelf"])
def test_what_cannot_be_read_is_named_and_all_else_goes_on(
    client: TestClient, db: Database, kind: entries.Kind, document: str
) -> None:
    assert client.put("/api/kits/loft-drawer", json=KIT).status_code == 200
    assert client.put("/api/workshop", json={"kit": "loft-drawer"}).status_code == 200
    entries.put(db, [(kind, "odd/one", document)])
    for path in LISTS:
        assert client.get(path).status_code == 200, path
    assert "loft-drawer" in client.get("/api/catalogue").json()["own_kits"]
    assert client.get("/api/workshop").json()["kit"] == "loft-drawer"
    (unread,) = client.get("/api/unread").json()
    assert (unread["kind"], unread["slug"], unread["document"]) == (kind, "odd/one", document)
    assert unread["says"]
    assert client.delete(f"/api/unread/{kind}/odd/one").status_code == 204
    assert _said(client) == []
    assert set(entries.every(db)) == {("kit", "loft-drawer")}


def test_the_chosen_kit_may_be_the_one_that_cannot_be_read(client: TestClient, db: Database) -> None:
    client.put("/api/kits/loft-drawer", json=KIT)
    client.put("/api/workshop", json={"kit": "loft-drawer"})
    entries.put(db, [("kit", "loft-drawer", "{")])
    assert client.get("/api/workshop").json()["kit"] == "metric-spoons"
    asked = {"recipe": "paint-plain", "want": {"by": "total", "ml": 180}}
    reply = client.post("/api/sheet/measure", json=asked)
    assert reply.status_code == 200
    assert reply.json()["options"]


@pytest.mark.parametrize("key", ["workshop", "better"])
def test_a_setting_that_cannot_be_read_is_as_at_the_start_and_never_written_over(
    client: TestClient, db: Database, key: str
) -> None:
    settings.put(db, key, '{"measures": 7}')
    assert client.get("/api/workshop").json()["measures"] == "metric"
    assert _said(client) == [("setting", key)]
    assert client.put("/api/workshop", json={"measures": "us"}).status_code == 200
    assert client.get("/api/workshop").json()["measures"] == "us"
    assert client.delete(f"/api/unread/setting/{key}").status_code == (204 if key == "better" else 404)
    assert _said(client) == []
    assert [(a.kind, a.slug, a.document) for a in aside.every(db)] == [("setting", key, '{"measures": 7}')]


def test_what_can_be_read_is_not_taken_out_by_that_way(client: TestClient) -> None:
    client.put("/api/kits/loft-drawer", json=KIT)
    assert client.delete("/api/unread/kit/loft-drawer").status_code == 404
    assert "loft-drawer" in client.get("/api/catalogue").json()["own_kits"]


@pytest.mark.parametrize(
    ("change", "allowed"),
    [
        ({"measures": [{"name": "speck", "ml": 0.001}]}, "0.05 or more"),
        ({"measures": [{"name": "jug", "ml": 500, "step_ml": 1e-310}]}, "0 for none, or 0.01 to 20000 ml"),
        ({"scale_g": 5e-324}, "0 for none, or 0.001 to 1000 g"),
        ({"scale_g": 1e308}, "0 for none, or 0.001 to 1000 g"),
    ],
)
def test_a_kit_nobody_could_measure_with_is_refused_with_what_is_allowed(
    client: TestClient, change: dict[str, object], allowed: str
) -> None:
    reply = client.put("/api/kits/loft-drawer", json={**KIT, **change})
    assert reply.status_code == 422
    assert allowed in reply.json()["faults"][0]["allowed"]


@pytest.mark.parametrize("colour", ["#ffg", "red", "url(http://paint.example/x)", "#12345g", "#1234567", ""])
def test_a_colour_is_a_colour_wherever_it_enters(client: TestClient, colour: str) -> None:
    shelf = {line["material"]["slug"]: line["material"] for line in client.get("/api/shelf?most=200").json()["lines"]}
    material = {**shelf["matt-paint"], "hex": colour}
    reply = client.put("/api/shelf/matt-paint", json={"slug": "matt-paint", "own": material})
    assert reply.status_code == 422
    (fault,) = reply.json()["faults"]
    assert (fault["at"], fault["allowed"]) == ("/own/hex", "a colour written as #rrggbb")
    assert client.get("/api/shelf").status_code == 200


def test_a_colour_typed_short_is_written_out_wherever_it_comes_in(client: TestClient) -> None:
    own = {**client.get("/api/shelf?most=200").json()["lines"][0]["material"], "slug": "own-1", "hex": "#f0A"}
    kept = client.put("/api/shelf/own-1", json={"slug": "own-1", "own": own})
    assert (kept.status_code, kept.json()["material"]["hex"]) == (200, "#ff00AA")
    file = {
        "format": "lumso-workshop-file",
        "version": 1,
        "shelf": [{"slug": "own-2", "own": {**own, "slug": "own-2"}}],
    }
    taken = client.post("/api/import", json={"name": "shelf.json", "text": json.dumps(file)})
    assert taken.json()["taken"] == 1
    hexes = {m["slug"]: m["hex"] for m in client.get("/api/catalogue").json()["materials"]}
    assert (hexes["own-1"], hexes["own-2"]) == ("#ff00AA", "#ff00AA")
    job = client.post("/api/jobs/start", json={"ml": 200}).json()["job"]
    job["entries"]["materials"][0]["hex"] = "#09c"
    opened = client.post("/api/jobs/file", json={"name": "job.json", "text": json.dumps(job)})
    assert opened.json()["job"]["entries"]["materials"][0]["hex"] == "#0099cc"
