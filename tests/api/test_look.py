"""What it will look like, over the API: pictures that can be opened, strips that can be read, refusals in words."""

import json
from io import BytesIO
from typing import Any

import pytest
from fastapi.testclient import TestClient
from PIL import Image

from tests.conftest import ROOT

RACK = json.loads((ROOT / "examples" / "programme-rack.json").read_text())
ASKED = {"job": RACK, "zone": "rack"}


def picture(client: TestClient, px: int = 160, **more: Any) -> Image.Image:
    reply = client.post(f"/api/look/chip?px={px}", json={**ASKED, **more})
    assert reply.status_code == 200, reply.text
    assert reply.headers["content-type"] == "image/png"
    return Image.open(BytesIO(reply.content))


@pytest.mark.parametrize("px", [160, 320, 640])
def test_a_chip_is_a_picture_of_its_size_to_scale(client: TestClient, px: int) -> None:
    made = picture(client, px)
    assert made.size == (px, px)
    assert made.info["dpi"][0] == pytest.approx(px / 120 * 25.4, rel=0.01)
    assert "estimate" in made.info["Description"]


def test_a_chip_of_fewer_layers_is_another_picture_and_an_edit_too(client: TestClient) -> None:
    whole = picture(client).tobytes()
    layers = RACK["zones"][0]["layers"]
    bare = {**RACK, "zones": [{**RACK["zones"][0], "layers": []}]}
    assert picture(client, job=bare).tobytes() != whole
    assert picture(client, upto=layers[-1]["id"]).tobytes() == whole
    kept = {**RACK, "zones": [{**RACK["zones"][0], "layers": [{**layers[0], "kept": 0.05}, *layers[1:]]}]}
    assert picture(client, job=kept).tobytes() != whole
    assert picture(client).tobytes() == whole, "remembered by what it shows, not by when it was asked"


def test_the_strip_goes_from_bare_to_last_with_ranges_and_words(client: TestClient) -> None:
    made = client.post("/api/look", json=ASKED).json()
    films = made["column"]["films"]
    assert [f["layer"] for f in films] == [x["id"] for x in RACK["zones"][0]["layers"]]
    for film in films:
        assert film["dry"]["within"] > 0
        assert film["dry"]["words"]
    assert made["column"]["ground"] == "#e3c792"
    assert made["afar"].startswith("#")
    assert films[0]["dries"].startswith("dries ")


@pytest.mark.parametrize("slug", ["dragged-linen", "chippy-milk-paint"])
def test_finishes_and_recipes_have_pictures(client: TestClient, slug: str) -> None:
    one = client.get(f"/api/look/finishes/{slug}")
    other = client.get(f"/api/look/finishes/{slug}?ground=raw-oak&relief=carved")
    assert one.status_code == other.status_code == 200
    assert one.content != other.content
    grown = [client.get(f"/api/look/finishes/{slug}?upto={n}").content for n in (0, 1, 20)]
    assert grown[0] != grown[1]
    assert grown[2] == one.content
    assert client.get(f"/api/look/finishes/{slug}/layers?ground=raw-oak").json()[0]
    assert client.get("/api/look/recipes/salt-wash").headers["content-type"] == "image/png"


@pytest.mark.parametrize(
    ("path", "status", "says"),
    [
        ("/api/look/finishes/none-such", 422, "none-such"),
        ("/api/look/finishes/dragged-linen?ground=moon", 422, "moon"),
        ("/api/look/recipes/none-such", 422, "none-such"),
        ("/api/look/finishes/dragged-linen?px=5000", 422, "px"),
    ],
)
def test_what_is_not_there_is_refused_in_words(client: TestClient, path: str, status: int, says: str) -> None:
    reply = client.get(path)
    assert reply.status_code == status
    assert says in reply.text


def test_a_layer_that_is_not_there_is_refused_with_those_there_are(client: TestClient) -> None:
    reply = client.post("/api/look/chip", json={**ASKED, "upto": "none"})
    assert reply.status_code == 422
    (fault,) = reply.json()["faults"]
    assert fault["allowed"] == ", ".join(x["id"] for x in RACK["zones"][0]["layers"])


@pytest.mark.parametrize("mm", [450, 1800])
def test_a_tile_has_no_edges_and_can_be_laid_side_by_side(client: TestClient, mm: int) -> None:
    import numpy as np

    tile = np.asarray(picture(client, tile_mm=mm), dtype=float)
    across = np.abs(tile[:, 0] - tile[:, -1]).mean()
    inner = np.abs(np.diff(tile, axis=1)).mean()
    assert across < 4 * inner + 4


def test_a_tile_that_there_is_not_is_refused_with_those_there_are(client: TestClient) -> None:
    reply = client.post("/api/look/chip", json={**ASKED, "tile_mm": 451})
    assert reply.status_code == 422
    assert "450, 900, 1800, 3600" in reply.json()["faults"][0]["allowed"]
    assert client.get("/api/look/jobs/x/rack/y?coats=-1").status_code == 422


def test_how_a_paint_hides_is_measured_and_counts_from_then_on(client: TestClient) -> None:
    drawn = {"hex": "#f4f1ea", "drawn": {"over_black": "#d9d6cf", "over_white": "#f4f1ea"}}
    measured = client.post("/api/look/hides", json=drawn).json()["scattering"]
    assert 2 < measured < 8
    dark = client.post("/api/look/hides", json={"hex": "#2f2e2d", "drawn": drawn["drawn"]})
    assert dark.status_code == 422
    assert "tint board" in dark.text
    assert client.post("/api/look/hides", json={"hex": "#2f2e2d"}).status_code == 422
    before = client.post("/api/look", json=ASKED).json()["column"]["films"][0]["dry"]
    overlay = {"field": "scattering", "value": 0.5, "source": "measured", "at": "2026-11-27"}
    kept = client.put("/api/shelf/matt-paint", json={"slug": "matt-paint", "overlays": [overlay]})
    assert kept.status_code == 200, kept.text
    after = client.post("/api/look", json=ASKED).json()["column"]["films"][0]["dry"]
    assert after["hex"] != before["hex"]
    assert after["within"] != before["within"]


def test_each_step_has_its_picture_of_the_job_as_it_stands_and_of_the_one_that_is_kept(client: TestClient) -> None:
    job = client.post("/api/jobs", json=RACK).json()["id"]
    wash = RACK["zones"][0]["layers"][0]["id"]
    shown = {h: picture(client, stage={"layer": wash, "hand": h}).tobytes() for h in ("not yet", "", "too far")}
    assert len(set(shown.values())) == 3
    assert picture(client, stage={"layer": wash, "wet": True}).tobytes() != shown[""]
    kept = client.get(f"/api/look/jobs/{job}/rack/{wash}?hand=too far&px=160")
    assert Image.open(BytesIO(kept.content)).tobytes() == shown["too far"]
    for path, says in ((f"{job}/rack/none", wash), (f"{job}/none/{wash}", "rack"), ("none/rack/wash", "none")):
        reply = client.get(f"/api/look/jobs/{path}")
        assert reply.status_code in {404, 422}
        assert says in reply.text
