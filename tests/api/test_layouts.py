"""Layouts over the real application: laid on the faces there are, kept with the job, printed at their true size."""

import io
from typing import Any

import pytest
from PIL import Image
from pypdf import PdfReader
from starlette.testclient import TestClient

from lumso.demo import seed

LAYOUT = {"kind": "stripes", "stripes": [{"width_mm": 50, "gap_mm": 50}], "ends": "with half a gap"}


@pytest.fixture
def loft(client: TestClient) -> TestClient:
    here = client.app.state.context  # type: ignore[attr-defined]
    seed(here.db, here.catalogue)
    return client


def panels(client: TestClient) -> tuple[str, dict[str, Any]]:
    """The proscenium panels: their id, and the job."""
    job = next(j["id"] for j in client.get("/api/jobs").json()["jobs"] if j["name"] == "Proscenium panels")
    return job, client.get(f"/api/jobs/{job}").json()["job"]


def asked(job: dict[str, Any], **layout: Any) -> dict[str, Any]:
    zone = job["zones"][1]
    zone["layers"][2]["layout"] = {**LAYOUT, **layout} if layout != {"none": True} else None
    return {"sequence": 7, "job": job, "zone": zone["id"], "layer": zone["layers"][2]["id"]}


def test_a_layer_is_laid_on_the_panels_and_its_amount_is_that_share(loft: TestClient) -> None:
    id_, job = panels(loft)
    laid = loft.post("/api/layouts", json=asked(job)).json()
    assert laid["sequence"] == 7
    (face,) = laid["faces"]
    assert (face["surface"], face["like"]) == ("panels", 2)
    assert laid["share"] == pytest.approx(9 * 50 / 860)  # nine stripes: the gaps give
    assert [o["slug"] for o in laid["on"]] == ["panels"]
    assert len(face["taping"]["elements"]) == len(face["laid"]["regions"])
    saved = loft.get(f"/api/jobs/{id_}")
    kept = loft.put(f"/api/jobs/{id_}", json=job, headers={"If-Match": saved.headers["etag"]})
    assert kept.status_code == 200, kept.text
    again = loft.get(f"/api/jobs/{id_}").json()
    assert again["job"]["zones"][1]["layers"][2]["layout"]["stripes"] == [{"width_mm": 50, "gap_mm": 50, "name": ""}]
    half = again["plan"]["zones"][1]["layers"][2]["pots"][0]["ml"]
    narrow = asked(again["job"], stripes=[{"width_mm": 25, "gap_mm": 75}])
    quarter = loft.post("/api/plan", json={"sequence": 1, "job": narrow["job"]}).json()["plan"]["zones"][1]["layers"][
        2
    ]["pots"][0]
    assert quarter["ml"] < half


def test_without_a_layout_there_is_nothing_to_lay_and_an_unknown_layer_is_named(loft: TestClient) -> None:
    _, job = panels(loft)
    assert loft.post("/api/layouts", json=asked(job, none=True)).json()["faces"] == []
    refused = loft.post("/api/layouts", json={**asked(job), "layer": "none"})
    assert refused.status_code == 422


def test_what_does_not_come_out_is_said_with_what_could(loft: TestClient) -> None:
    _, job = panels(loft)
    laid = loft.post("/api/layouts", json=asked(job, kind="border", stripes=[{"width_mm": 20, "gap_mm": 500}])).json()
    assert laid["faces"] == []
    assert laid["says"]
    assert laid["allowed"].startswith("less than")
    zero = asked(job, stripes=[{"width_mm": 0, "gap_mm": 50}])
    assert loft.post("/api/layouts", json=zero).status_code == 422


def test_even_to_the_tick_is_offered_and_laid_as_offered(loft: TestClient) -> None:
    _, job = panels(loft)
    offer = loft.post("/api/layouts", json=asked(job, stripes=[{"width_mm": 33, "gap_mm": 41}])).json()["to_tick"]
    made = loft.post("/api/layouts", json=asked(job, **offer["layout"])).json()["faces"][0]
    down = made["laid"]["down"]
    assert down["bands"][0]["start_mm"] == pytest.approx((offer["over_mm"] + down["stripes"][0]["gap_mm"]) / 2)
    assert all(s["gap_mm"] == round(s["gap_mm"]) for s in down["stripes"])


def test_templates_come_as_sheets_as_svg_and_as_dxf_and_only_of_what_is_there(loft: TestClient) -> None:
    id_, job = panels(loft)
    zone = job["zones"][1]
    where = {"zone": zone["id"], "layer": zone["layers"][2]["id"]}
    pdf = loft.get(f"/api/jobs/{id_}/layout.pdf", params=where)
    sheets = len(PdfReader(io.BytesIO(pdf.content)).pages)
    assert sheets > 10
    off = loft.get(f"/api/jobs/{id_}/layout.pdf", params={**where, "across_mm": 97})
    assert off.content != pdf.content
    refused = loft.get(f"/api/jobs/{id_}/layout.pdf", params={**where, "down_mm": 90})
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["at"] == "down_mm"
    assert loft.get(f"/api/jobs/{id_}/layout.svg", params=where).text.startswith("<svg")
    assert loft.get(f"/api/jobs/{id_}/layout.dxf", params=where).text.startswith("0\nSECTION")
    stick = loft.get(f"/api/jobs/{id_}/layout.pdf", params={**where, "what": "stick across"})
    assert 1 < len(PdfReader(io.BytesIO(stick.content)).pages) < sheets
    assert loft.get(f"/api/jobs/{id_}/layout.svg", params={**where, "face": 9}).status_code == 422
    plain = {**where, "layer": zone["layers"][0]["id"]}
    assert loft.get(f"/api/jobs/{id_}/layout.svg", params=plain).status_code == 422


def test_the_pattern_is_on_the_drawing_of_the_piece_over_the_colour_between_it(loft: TestClient) -> None:
    id_, job = panels(loft)
    zone = job["zones"][1]
    made = loft.get(f"/api/jobs/{id_}").json()["plan"]
    (pattern,) = made["patterns"]
    assert (pattern["zone"], pattern["layer"]) == (zone["id"], zone["layers"][2]["id"])
    assert len(pattern["at"]) == 2  # both panels
    between = next(z["hex"] for z in made["zones"] if z["zone"] == zone["id"])
    assert between != pattern["hex"]
    text = loft.get(f"/api/jobs/{id_}/drawing.svg").text
    assert text.count(f'fill="{pattern["hex"]}" fill-rule="evenodd"') == 2
    at = pattern["at"][0]
    assert f"translate({at['x']:.1f} {at['y']:.1f})" in text
    plain = asked(job, none=True)["job"]
    assert loft.post("/api/plan", json={"sequence": 1, "job": plain}).json()["plan"]["patterns"] == []


def test_a_tile_is_what_lies_between_the_pattern_and_another_what_it_is_painted(loft: TestClient) -> None:
    _, job = panels(loft)
    zone = job["zones"][1]
    ask = {"job": job, "zone": zone["id"], "tile_mm": 450}

    def colour(**more: str) -> tuple[int, ...]:
        reply = loft.post("/api/look/chip?px=32", json={**ask, **more})
        assert reply.status_code == 200, reply.text
        return tuple(Image.open(io.BytesIO(reply.content)).convert("RGB").resize((1, 1)).getpixel((0, 0)))  # type: ignore[arg-type]

    between, painted = colour(), colour(pattern=zone["layers"][2]["id"])
    assert painted[0] > 1.5 * painted[1]  # curtain red
    assert between[1] > 0.7 * between[0]  # linen
    assert loft.post("/api/look/chip?px=32", json={**ask, "pattern": "none"}).status_code == 422


def test_the_kinds_there_are_each_begin_as_something_that_can_be_laid(loft: TestClient) -> None:
    kinds = loft.get("/api/layouts").json()
    assert len({k["kind"] for k in kinds}) == len(kinds) == 8
    _, job = panels(loft)
    for kind in kinds:
        body = asked(job)
        body["job"]["zones"][1]["layers"][2]["layout"] = kind["layout"]
        reply = loft.post("/api/layouts", json=body).json()
        assert reply["says"] == "", kind["kind"]
        assert 0 < reply["share"] < 1
        assert len(reply["papers"]) == len(reply["faces"]) == 1
        paper = reply["papers"][0]
        assert paper["a4"]["rows"] * paper["a4"]["columns"] > 1
        assert bool(paper["sticks"]) == (kind["kind"] != "border")


def test_gaps_of_tapes_there_are_and_sheets_are_offered_with_the_layout(loft: TestClient) -> None:
    _, job = panels(loft)
    reply = loft.post("/api/layouts", json=asked(job, ends="with a stripe", tapes_mm=[38, 50, 12])).json()
    assert [o["tape_mm"] for o in reply["by_tape"]] == [50, 38]
    taken = loft.post("/api/layouts", json=asked(job, **reply["by_tape"][1]["layout"])).json()
    assert {round(s["gap_mm"], 6) for s in taken["faces"][0]["laid"]["down"]["stripes"]} == {38}
    assert 38 not in [o["tape_mm"] for o in taken["by_tape"]]  # it is taken


def test_the_list_says_in_what_colour_it_is_and_what_its_edges_are_sealed_with(loft: TestClient) -> None:
    id_, job = panels(loft)
    zone = job["zones"][1]
    (pattern,) = loft.get(f"/api/jobs/{id_}").json()["plan"]["patterns"]
    assert pattern["colour"] == "curtain red"
    assert pattern["sealed_with"] == ""  # on a glaze nothing is sealed with it
    zone["layers"].pop(1)  # without the glaze it lies on paint
    body = {"sequence": 1, "job": job}
    (on_paint,) = loft.post("/api/plan", json=body).json()["plan"]["patterns"]
    assert on_paint["sealed_with"] == "Paint"
