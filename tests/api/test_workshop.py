"""Kits, shelf and recipes of one's own over the API, and files in and out."""

import csv
import io
import json
from typing import Any

import pytest
from starlette.testclient import TestClient

from lumso.catalogue import shipped
from lumso.core.book.preparation import Sanding
from lumso.core.workshop.shelf import ShelfItem
from lumso.formats.workshop import DOCUMENT
from lumso.store import entries
from lumso.store.database import Database

KIT = {"slug": "own-drawer", "name": "Drawer", "measures": [{"name": "blue cup", "ml": 183}], "scale_g": 1}
ITEM = {"slug": "chalk", "on_hand": 400, "unit": "g", "note": "screw-top tin"}
DENSITY = {"field": "bulk_density", "value": 0.7, "source": "measured", "at": "2026-11-24"}


def take(client: TestClient, text: str, name: str = "file.json", on_clash: str = "ask") -> Any:
    return client.post("/api/import", json={"name": name, "text": text, "on_clash": on_clash})


def own_recipe() -> dict[str, Any]:
    found: dict[str, Any] = DOCUMENT["recipe"].dump_python(shipped().recipes["colour-wash"], mode="json")
    return {**found, "slug": "own-wash", "name": "My wash"}


def test_a_kit_of_ones_own_measures_and_can_be_taken_out(client: TestClient) -> None:
    assert client.put("/api/kits/own-drawer", json=KIT).status_code == 200
    client.put("/api/workshop", json={"measures": "metric", "kit": "own-drawer"})
    paint = {"recipe": "paint-plain", "want": {"by": "total", "ml": 180}}
    answer = client.post("/api/sheet/measure", json=paint).json()
    assert answer["options"][0]["parts"][0]["component"] == "paint"
    assert answer["options"][0]["parts"][0]["fillings"] == [
        {"name": "blue cup", "ml": 183, "count": 1, "to_mark": False}
    ]
    assert answer["weighed"][0]["g"] == 243
    assert client.delete("/api/kits/own-drawer").status_code == 204
    assert client.get("/api/workshop").json()["kit"] != "own-drawer"


def test_a_shipped_kit_can_be_changed_and_put_back(client: TestClient) -> None:
    kit = next(k for k in client.get("/api/catalogue").json()["kits"] if k["slug"] == "metric-spoons")
    client.put("/api/kits/metric-spoons", json={**kit, "name": "Bent spoons"})
    assert "Bent spoons" in [k["name"] for k in client.get("/api/catalogue").json()["kits"]]
    client.delete("/api/kits/metric-spoons")
    assert kit in client.get("/api/catalogue").json()["kits"]


def shelf_line(client: TestClient, slug: str) -> dict[str, Any]:
    found: dict[str, Any] = next(
        x for x in client.get("/api/shelf?most=200").json()["lines"] if x["material"]["slug"] == slug
    )
    return found


def bulk(line: dict[str, Any]) -> dict[str, Any]:
    found: dict[str, Any] = next(v for v in line["values"] if v["field"] == "bulk_density")
    return found


def test_a_measured_value_counts_everywhere_and_can_be_put_back(client: TestClient) -> None:
    want = {"sequence": 1, "recipe": "mineral-paint-chalk", "want": {"by": "total", "ml": 500}}
    before = client.post("/api/sheet", json=want).json()["sheet"]["mix"]["mass_g"]
    client.put("/api/shelf/chalk", json={**ITEM, "overlays": [DENSITY]})
    now = bulk(shelf_line(client, "chalk"))
    assert (now["value"], now["starting"], now["source"]) == (0.7, 0.8, "measured, 2026-11-24")
    assert client.post("/api/sheet", json=want).json()["sheet"]["mix"]["mass_g"] < before
    client.put("/api/shelf/chalk", json=ITEM)
    assert bulk(shelf_line(client, "chalk"))["source"] == "starting value"
    assert client.post("/api/sheet", json=want).json()["sheet"]["mix"]["mass_g"] == pytest.approx(before)


@pytest.mark.parametrize(
    ("overlay", "allowed"), [({"value": 99}, "0.05 to 8 g/ml"), ({"field": "smell"}, "bulk_density")]
)
def test_a_value_beyond_belief_is_refused_and_nothing_changes(
    client: TestClient, overlay: dict[str, Any], allowed: str
) -> None:
    reply = client.put("/api/shelf/chalk", json={**ITEM, "overlays": [{**DENSITY, **overlay}]})
    assert reply.status_code == 422
    assert allowed in reply.json()["faults"][0]["allowed"]
    assert not shelf_line(client, "chalk")["on_shelf"]


def test_weighing_a_level_cup(client: TestClient) -> None:
    assert client.post("/api/shelf/density", json={"grams": 150, "ml": 250}).json()["density"] == pytest.approx(0.6)
    refused = client.post("/api/shelf/density", json={"grams": 0, "ml": 250})
    assert (refused.status_code, refused.json()["faults"][0]["at"]) == (422, "grams")


def test_a_recipe_of_ones_own_is_kept_when_it_is_sound(client: TestClient) -> None:
    assert client.put("/api/recipes/own-wash", json=own_recipe()).status_code == 200
    assert "own-wash" in client.get("/api/catalogue").json()["own_recipes"]
    pot = client.post("/api/jobs/start", json={"recipe": "own-wash", "ml": 100})
    assert pot.status_code == 201
    client.delete("/api/recipes/own-wash")
    kept = client.get(f"/api/jobs/{pot.json()['id']}").json()
    assert kept["plan"]["problems"] == [], "a job carries the recipe it uses"
    broken = own_recipe()
    broken["components"][0]["material"] = "moonlight"
    refused = client.put("/api/recipes/own-wash", json=broken)
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["at"] == "/recipes/0/components/0/material"


def test_a_recipe_of_ones_own_cannot_hide_a_shipped_one(client: TestClient) -> None:
    taken = {**own_recipe(), "slug": "colour-wash"}
    assert client.put("/api/recipes/colour-wash", json=taken).status_code == 422


def fill(client: TestClient) -> None:
    client.put("/api/kits/own-drawer", json=KIT)
    client.put("/api/shelf/chalk", json={**ITEM, "overlays": [DENSITY]})
    client.put("/api/recipes/own-wash", json=own_recipe())


def test_what_is_exported_is_imported_once_and_twice_changes_nothing(client: TestClient) -> None:
    fill(client)
    text = client.get("/api/export/workshop.json").text
    for address in ("/api/kits/own-drawer", "/api/shelf/chalk", "/api/recipes/own-wash"):
        client.delete(address)
    assert take(client, text).json()["taken"] == 3
    again = take(client, text).json()
    assert (again["taken"], {a["state"] for a in again["arrivals"]}) == (0, {"same"})
    assert client.get("/api/export/workshop.json").text == text


def test_a_clash_asks_and_does_what_is_said(client: TestClient) -> None:
    fill(client)
    theirs = json.loads(client.get("/api/export/kits.json").text)
    theirs["kits"][0]["name"] = "Their drawer"
    theirs["kits"].append({**KIT, "slug": "own-second", "name": "Second"})

    def names() -> list[str]:
        return [k["name"] for k in client.get("/api/catalogue").json()["kits"]]

    asked = take(client, json.dumps(theirs)).json()
    assert (asked["asks"], asked["taken"]) == (True, 0)
    assert "Second" not in names()
    assert take(client, json.dumps(theirs), on_clash="keep mine").json()["taken"] == 1
    assert "Drawer" in names()
    assert take(client, json.dumps(theirs), on_clash="take theirs").json()["taken"] == 1
    assert "Their drawer" in names()


def test_the_shelf_goes_through_a_spreadsheet(client: TestClient) -> None:
    fill(client)
    text = client.get("/api/export/shelf.csv").text
    rows = list(csv.DictReader(io.StringIO(text.removeprefix("\ufeff"))))
    assert [(r["slug"], r["on_hand"], r["bulk_density"]) for r in rows] == [("chalk", "400", "0.7 measured")]
    assert take(client, text, "shelf.csv").json()["taken"] == 0
    changed = text.replace(",400,", ',"350,5",')
    assert take(client, changed, "shelf.csv").json()["asks"] is True
    take(client, changed, "shelf.csv", "take theirs")
    assert shelf_line(client, "chalk")["item"]["on_hand"] == 350.5
    assert bulk(shelf_line(client, "chalk"))["value"] == 0.7


@pytest.mark.parametrize(
    ("name", "text", "at", "says"),
    [
        ("x.json", "{", "", "Line 1"),
        ("x.json", '{"format": "lumso-workshop-file", "version": 1, "hats": []}', "/hats", "hats"),
        ("x.csv", "nothing\n1", "line 1", "column names"),
        ("x.csv", "slug,on_hand,unit\nchalk,lots,g", "line 2, on_hand", "lots"),
        ("x.csv", "slug,on_hand,unit\nmoonlight,5,g", "/shelf/0/slug", "moonlight"),
        ("x.csv", "slug,on_hand,unit,bulk_density\nchalk,5,g,99", "/shelf/0/overlays", "99"),
    ],
)
def test_a_bad_file_is_refused_with_its_place_and_changes_nothing(
    client: TestClient, name: str, text: str, at: str, says: str
) -> None:
    fill(client)
    before = client.get("/api/export/workshop.json").text
    reply = take(client, text, name, "take theirs")
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["at"] == at
    assert says in reply.json()["faults"][0]["says"]
    assert client.get("/api/export/workshop.json").text == before


def test_strengthening_a_tin(client: TestClient) -> None:
    steps = client.post("/api/tint", json={"tin_g": 100, "share": 0.05, "target": 0.08}).json()
    assert len(steps) == 3
    assert steps[-1]["share"] == pytest.approx(0.08)
    weaker = client.post("/api/tint", json={"tin_g": 100, "share": 0.05, "target": 0.02})
    assert (weaker.status_code, weaker.json()["faults"][0]["at"]) == (422, "target")


def test_amounts_from_what_is_left_and_from_a_vessel(client: TestClient) -> None:
    def volume(want: dict[str, Any]) -> float:
        reply = client.post("/api/sheet", json={"sequence": 1, "recipe": "milk-paint", "want": want})
        return float(reply.json()["sheet"]["mix"]["volume"]["value"])

    assert volume({"by": "part", "component": "powder", "unit": "ml", "quantity": 120}) == pytest.approx(157.5)
    assert volume({"by": "part", "component": "powder", "unit": "g", "quantity": 90}) == pytest.approx(157.5)
    assert volume({"by": "vessel", "ml": 370}) == pytest.approx(314.5)


def test_crumbs_are_refused_with_the_reason(client: TestClient) -> None:
    draft: dict[str, Any] = DOCUMENT["recipe"].dump_python(shipped().recipes["salt-wash"], mode="json")
    draft["components"][1]["amount"]["parts"] = 2
    reply = client.post("/api/sheet", json={"sequence": 1, "recipe": draft, "want": {"by": "total", "ml": 100}})
    assert reply.status_code == 422
    assert "crumbs" in reply.json()["detail"]


def test_a_material_that_a_recipe_still_needs_stays_on_the_shelf(client: TestClient) -> None:
    clay = {**DOCUMENT["shelf"].dump_python(ShelfItem("own-clay"), mode="json")}
    material = next(m for m in client.get("/api/catalogue").json()["materials"] if m["slug"] == "chalk")
    clay["own"] = {**material, "slug": "own-clay", "name": "clay"}
    assert client.put("/api/shelf/own-clay", json=clay).status_code == 200
    recipe = own_recipe()
    recipe["components"][0]["material"] = "own-clay"
    recipe["components"][0]["amount"]["parts"] = 0.2
    assert client.put("/api/recipes/own-wash", json=recipe).status_code == 200
    kept = client.delete("/api/shelf/own-clay")
    assert (kept.status_code, kept.json()["detail"]) == (422, "My wash is mixed from it.")
    client.delete("/api/recipes/own-wash")
    assert client.delete("/api/shelf/own-clay").status_code == 204


def test_a_recipe_that_lost_its_material_does_not_hide_the_book(client: TestClient, db: Database) -> None:
    orphan = own_recipe()
    orphan["components"][0]["material"] = "gone"
    entries.put(db, [("recipe", "own-wash", json.dumps(orphan))])
    book = client.get("/api/catalogue")
    assert book.status_code == 200
    assert book.json()["strips"]["own-wash"] == []
    lost = client.post("/api/sheet", json={"sequence": 1, "recipe": "own-wash", "want": {"by": "total", "ml": 5}})
    assert lost.status_code == 422


def test_a_grade_of_wool_is_called_in_the_book_what_the_steps_call_it(client: TestClient) -> None:
    wools = client.get("/api/catalogue").json()["wools"]
    assert [w["grit"] for w in wools] == [240, 320, 400, 800]  # coarse to fine, as the steps of the stepper
    for wool in wools:
        assert Sanding(wool["grit"], "polish", "steel wool").named == f"{wool['grade']} steel wool"


def test_the_shelf_is_had_a_page_at_a_time_and_searched(client: TestClient) -> None:
    fill(client)
    seen: list[str] = []
    after = ""
    while True:
        page = client.get("/api/shelf", params={"on": False, "most": 30, "after": after}).json()
        assert not any(line["on_shelf"] for line in page["lines"])
        seen += [line["material"]["name"] for line in page["lines"]]
        if not (after := page["more"]):
            break
    assert seen == sorted(seen)
    assert len(seen) == page["count"] == len(set(seen)) > 30
    on = client.get("/api/shelf", params={"on": True}).json()
    assert [line["material"]["slug"] for line in on["lines"]] == ["chalk"]
    found = client.get("/api/shelf", params={"search": "CHALK"}).json()
    assert found["count"] == len(found["lines"]) >= 1
    assert all("chalk" in line["material"]["name"].lower() for line in found["lines"])
