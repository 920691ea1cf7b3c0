"""Buying over the real application: the list follows jobs, log and shelf; what is ticked stands there; costs add up."""

import io
from typing import Any

import pytest
from pypdf import PdfReader
from starlette.testclient import TestClient

from lumso.demo import seed
from tests.api.conftest import NOON
from tests.api.test_bench import Bench


@pytest.fixture
def loft(client: TestClient) -> TestClient:
    here = client.app.state.context  # type: ignore[attr-defined]
    seed(here.db, here.catalogue)
    return client


def listed(client: TestClient) -> dict[str, Any]:
    reply = client.get("/api/buying/list")
    assert reply.status_code == 200, reply.text
    found: dict[str, Any] = reply.json()
    return found


def lines(client: TestClient) -> dict[str, Any]:
    return {line["key"]: line for line in listed(client)["shopping"]["lines"]}


def purse(client: TestClient, **changed: Any) -> Any:
    got = client.get("/api/buying/purse")
    body = {**got.json()["purse"], **changed}
    return client.put("/api/buying/purse", json=body, headers={"If-Match": got.headers["etag"]})


def lot(line: dict[str, Any], slug: str = "lot1", **more: Any) -> dict[str, Any]:
    (pack,) = line["packs"]
    whole = pack["size"] * pack["count"]
    return {"slug": slug, "item": line["item"], "name": line["name"], "unit": pack["unit"], "size": pack["size"],
            "count": pack["count"], "left": whole, "counted_min": NOON, "colour": line["colour"], "hex": line["hex"],
            "paid_minor": line["minor"], "currency": "EUR", "bought_on": "2026-11-27", **more}  # fmt: skip


GREEN = "milk-paint-powder|stage-door green"


def test_what_is_ticked_stands_there_and_is_short_no_more(loft: TestClient) -> None:
    before = listed(loft)["shopping"]
    (green,) = [x for x in before["lines"] if x["key"] == GREEN]
    assert loft.put("/api/lots/lot1", json=lot(green)).status_code == 200
    after = listed(loft)
    assert GREEN not in {x["key"] for x in after["shopping"]["lines"]}
    assert after["shopping"]["minor"] == before["minor"] - green["minor"]
    mine = [p for p in after["shopping"]["promises"] if p["lot"] == "lot1"]
    assert sum(p["amount"] for p in mine) == pytest.approx(green["buys"])
    (held,) = [x for x in after["lots"] if x["lot"]["slug"] == "lot1"]
    assert held["free"] == pytest.approx(held["left_now"] - green["buys"])
    assert held["paid"] == "33.00 EUR"
    assert loft.delete("/api/lots/lot1").status_code == 204
    assert lines(loft)[GREEN]["buys"] == pytest.approx(green["buys"])
    (aside,) = [a for a in loft.get("/api/aside").json() if a["kind"] == "lot"]
    assert loft.post(f"/api/aside/{aside['id']}/back").status_code == 204
    assert GREEN not in lines(loft)


def test_a_job_that_is_put_away_asks_for_nothing_and_frees_what_it_was_promised(loft: TestClient) -> None:
    jobs = {j["name"]: j["id"] for j in loft.get("/api/jobs").json()["jobs"]}
    before = listed(loft)["shopping"]
    assert any(p["job_name"] == "Programme rack" and p["lot"] == "loft-footlight" for p in before["promises"])
    assert loft.put(f"/api/jobs/{jobs['Programme rack']}/away", json={"away": True}).is_success
    after = listed(loft)
    assert all(p["job_name"] != "Programme rack" for p in after["shopping"]["promises"])
    (tin,) = [x for x in after["lots"] if x["lot"]["slug"] == "loft-footlight"]
    assert tin["free"] == tin["left_now"] == 320


def test_what_is_poured_is_taken_off_the_tin_and_what_is_mixed_is_needed_no_more(loft: TestClient) -> None:
    purse(loft, jobs=[next(j["id"] for j in loft.get("/api/jobs").json()["jobs"] if j["name"] == "Programme rack")])
    (before,) = [x for x in listed(loft)["lots"] if x["lot"]["slug"] == "loft-footlight"]
    bench = Bench(loft, "Programme rack")
    bench.begin("p1")
    pot = bench.pot("p1")
    line = next(i for i, x in enumerate(pot["plan"]["lines"]) if x["stuff"]["material"] == "matt-paint")
    stuff = pot["plan"]["lines"][line]["stuff"]
    assert bench.pour("p1", line, 39.6).status_code == 200
    (after,) = [x for x in listed(loft)["lots"] if x["lot"]["slug"] == "loft-footlight"]
    assert before["left_now"] - after["left_now"] == pytest.approx(39.6 / stuff["bulk_density"])
    assert before["left_now"] - before["free"] > 0
    assert after["left_now"] == after["free"]  # the pot is begun: its promise is free again
    cost = loft.get(f"/api/jobs/{bench.job}/cost").json()
    paint = next(x for x in cost["lines"] if x["says"].endswith("Footlight green"))
    assert cost["basis"] == "poured so far"  # the wash; the clear coat as it is planned
    materials = [x["says"].lower() for x in cost["lines"] if x["kind"] == "materials"]
    assert materials == ["matt paint, footlight green", "clear coat"]
    assert "13.90 EUR on 2026-10-17" in paint["working"][0]  # what the tin cost, not what one costs now
    stays = float(paint["working"][-1].removeprefix("less ").split("%")[0]) / 100
    assert 0 < stays < 0.5
    assert paint["minor"] == pytest.approx(39.6 / stuff["bulk_density"] * 1390 / 500 * (1 - stays), abs=1)
    waste = next(x for x in cost["lines"] if x["kind"] == "waste")
    assert any("Footlight green" in step for step in waste["working"])


def test_what_is_poured_is_taken_off_what_the_shelf_counted_and_a_recount_begins_anew(loft: TestClient) -> None:
    bench = Bench(loft, "Proscenium panels")
    mixes = [o["operation"]["says"] for o in bench.operations("mix")]
    bench.begin("p1", next(n for n, says in enumerate(mixes) if "scumble" in says.lower()))
    plan = bench.pot("p1")["plan"]["lines"]
    line = next(n for n, x in enumerate(plan) if x["stuff"]["material"] == "glaze-medium")
    density = plan[line]["stuff"]["bulk_density"]

    def shelf(**item: Any) -> dict[str, Any]:
        (held,) = [
            x for x in loft.get("/api/shelf?most=200").json()["lines"] if x["material"]["slug"] == "glaze-medium"
        ]
        if item:
            body = {**held["item"], **item}
            reply = loft.put("/api/shelf/glaze-medium", json=body, headers={"If-Match": f'"{held["revision"]}"'})
            assert reply.status_code == 200, reply.text
            return dict(reply.json())
        return dict(held)

    said = shelf(on_hand=800, unit="ml", counted_min=NOON - 60)
    assert said["left_now"] == 800
    assert bench.pour("p1", line, 100 * density).status_code == 200
    assert shelf()["left_now"] == pytest.approx(700)
    assert shelf()["item"]["on_hand"] == 800  # what was counted stays what was counted
    assert shelf(note="half a tin")["left_now"] == pytest.approx(700)
    assert shelf(on_hand=650, counted_min=NOON + 60)["left_now"] == 650
    assert shelf(counted_min=None)["left_now"] == 650  # never counted: as it is said


def test_shown_costs_add_up_and_say_what_they_leave_out(loft: TestClient) -> None:
    jobs = {j["name"]: j["id"] for j in loft.get("/api/jobs").json()["jobs"]}
    for id_ in jobs.values():
        cost = loft.get(f"/api/jobs/{id_}/cost").json()
        assert sum(x["minor"] or 0 for x in cost["lines"]) == cost["floor_minor"]
        assert {x["says"] for x in cost["lines"] if x["minor"] is None} == set(cost["unpriced"])
        assert all(x["working"] for x in cost["lines"])
    shopping = listed(loft)["shopping"]
    assert sum(x["minor"] or 0 for x in shopping["lines"]) == shopping["minor"]


def test_each_finish_of_a_ground_is_costed_beside_what_there_is(loft: TestClient) -> None:
    job = next(j["id"] for j in loft.get("/api/jobs").json()["jobs"] if j["name"] == "Foyer bench")
    zone = loft.get(f"/api/jobs/{job}").json()["job"]["zones"][0]["id"]
    found = loft.get(f"/api/jobs/{job}/cost/finishes", params={"zone": zone}).json()
    assert [f["now"] for f in found] == [True] + [False] * (len(found) - 1)
    assert len(found) >= 2
    assert all(f["hours"] > 0 and f["days"] >= 1 for f in found)
    assert len({f["minor"] for f in found}) > 1
    assert loft.get(f"/api/jobs/{job}/cost/finishes", params={"zone": "none"}).status_code == 422


def test_bad_values_name_their_field_and_are_not_stored(loft: TestClient) -> None:
    green = lines(loft)[GREEN]
    more = loft.put("/api/lots/lot1", json=lot(green, left=99_999))
    assert more.status_code == 422
    assert more.json()["faults"][0]["at"] == "left"
    assert loft.put("/api/lots/other", json=lot(green)).status_code == 422
    assert loft.put("/api/lots/lot1", json=lot(green, paid_minor=-1)).status_code == 422
    assert (
        loft.put("/api/lots/lot1", json=lot(green, keeps_until="soon"))
        .json()["faults"][0]["at"]
        .endswith("keeps_until")
    )
    assert purse(loft, currency="euros").status_code == 422
    assert purse(loft, prices_on="yesterday").json()["faults"][0]["at"].endswith("prices_on")
    assert "lot1" not in {x["lot"]["slug"] for x in listed(loft)["lots"]}
    twice = purse(loft, stocked=[{"item": "matt-paint"}, {"item": "matt-paint"}])
    assert twice.json()["faults"][0]["at"] == "stocked/1/item"
    prefers = purse(loft, stocked=[{"item": "matt-paint", "prefers": 1}])
    assert prefers.json()["faults"][0]["at"] == "stocked/0/prefers"
    old = loft.put("/api/buying/purse", json=loft.get("/api/buying/purse").json()["purse"],
                   headers={"If-Match": '"1"'})  # fmt: skip
    assert old.status_code == 412


def test_packs_the_shelf_was_told_of_before_are_known_until_prices_are_said_here(client: TestClient) -> None:
    item = {"slug": "matt-paint", "packs": [{"size": 500, "unit": "ml", "price": 14.5},
                                            {"size": 1000, "unit": "ml", "price": 0}]}  # fmt: skip
    assert client.put("/api/shelf/matt-paint", json=item).status_code == 200
    (stocked,) = client.get("/api/buying/purse").json()["purse"]["stocked"]
    assert [p["price_minor"] for p in stocked["packs"]] == [1450, None]
    assert purse(client, stocked=[{"item": "matt-paint", "packs": [{"size": 250, "unit": "ml"}]}]).is_success
    (said,) = client.get("/api/buying/purse").json()["purse"]["stocked"]
    assert [p["size"] for p in said["packs"]] == [250]


def test_the_list_is_taken_along_as_text_spreadsheet_and_paper(loft: TestClient) -> None:
    total = listed(loft)["shopping"]["total"]
    text = loft.get("/api/buying/list.txt")
    assert "milk-paint powder, stage-door green" in text.text
    assert total in text.text
    assert loft.get("/api/buying/list.csv").text.startswith("aisle,item,colour,buy,packs,price,currency,note")
    paper = loft.get("/api/buying/list.pdf", params={"paper": "letter"})
    pages = "".join(p.extract_text() for p in PdfReader(io.BytesIO(paper.content)).pages)
    assert total in pages
    assert "3 × 170 g" in pages


def test_ways_to_cover_a_line_that_none_of_the_others_beats(loft: TestClient) -> None:
    found = loft.get("/api/buying/choices", params={"key": "milk-paint-powder|rain-barrel blue"}).json()
    assert [f["money"] for f in found] == sorted((f["money"] for f in found), key=lambda m: float(m.split()[0]))
    assert len(found) >= 2
    assert loft.get("/api/buying/choices", params={"key": "none"}).status_code == 404
