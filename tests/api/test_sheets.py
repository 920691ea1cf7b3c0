"""The mix sheet over the API, and what is printed of it: read back, scanned, looked at."""

import io
import json
from typing import Any

import pypdfium2  # type: ignore[import-untyped]
import pytest
import zxingcpp
from fastapi.testclient import TestClient
from PIL.Image import Image
from pypdf import PdfReader

from lumso.demo import demo_jobs
from lumso.formats import batchfile
from lumso.formats.jobfile import to_json
from lumso.formats.pdf import cards
from lumso.store import batches
from lumso.store.database import Database
from tests.conftest import ROOT
from tests.counts import some

RACK = json.loads((ROOT / "examples" / "programme-rack.json").read_text())
JOBS = {job.name: json.loads(to_json(job)) for job in demo_jobs()}
A4, LETTER = (595.3, 841.9), (612, 792)


def made(client: TestClient, name: str) -> str:
    job_id: str = client.post("/api/jobs", json=JOBS[name]).json()["id"]
    return job_id


def printed(client: TestClient, job_id: str, **what: Any) -> bytes:
    reply = client.post(f"/api/jobs/{job_id}/print", json=what)
    assert reply.status_code == 200, reply.text
    assert reply.headers["content-type"] == "application/pdf"
    return reply.content


def pages(pdf: bytes) -> list[str]:
    return [page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages]


def size(pdf: bytes) -> tuple[float, float]:
    box = PdfReader(io.BytesIO(pdf)).pages[0].mediabox
    return float(box.width), float(box.height)


def picture(pdf: bytes, page: int = 0, grey: bool = False) -> Image:
    bitmap = pypdfium2.PdfDocument(pdf)[page].render(scale=2.5, grayscale=grey)
    image: Image = bitmap.to_pil()
    return image


def scanned(pdf: bytes, page: int = 0, grey: bool = False) -> set[str]:
    return {code.text for code in zxingcpp.read_barcodes(picture(pdf, page, grey))}


def test_the_sheet_is_worked_out_and_what_if_beside_it(client: TestClient) -> None:
    reply = client.post("/api/mix-sheet", json={"job": RACK, "sequence": 4, "what_if": {"margin": 0}}).json()
    assert reply["sequence"] == 4
    assert reply["now"]["batches"][0]["mix"]["volume"]["value"] == pytest.approx(46.1, abs=0.05)
    assert reply["then"]["mixed_ml"] == pytest.approx(reply["now"]["mixed_ml"] / 1.1)
    assert client.post("/api/mix-sheet", json={"job": RACK}).json()["then"] is None


@pytest.mark.parametrize(
    ("what_if", "at"),
    [({"vessel": "thimble"}, None), ({"margin": 3}, "/what_if/margin"), ({"pace": 0}, "/what_if/pace")],
)
def test_what_cannot_be_tried_is_refused(client: TestClient, what_if: dict[str, Any], at: str | None) -> None:
    reply = client.post("/api/mix-sheet", json={"job": RACK, "what_if": what_if})
    assert reply.status_code == 422
    if at:
        assert reply.json()["faults"][0]["at"] == at


def test_several_jobs_go_on_one_sheet(client: TestClient) -> None:
    wall, wardrobe = made(client, "Foyer wall"), made(client, "Costume wardrobe")
    sheet = client.post("/api/mix-sheet", json={"job": RACK, "with_jobs": [wall, wardrobe]}).json()["now"]
    assert {u["job"] for b in sheet["batches"] for u in b["uses"]} == {
        "Programme rack",
        "Foyer wall",
        "Costume wardrobe",
    }
    assert client.post("/api/mix-sheet", json={"job": RACK, "with_jobs": ["nope"]}).status_code == 404


def test_vessel_and_pace_are_the_workshops(client: TestClient) -> None:
    chosen = client.get("/api/workshop").json()
    assert client.put("/api/workshop", json={**chosen, "vessel": "thimble"}).status_code == 422
    client.put("/api/workshop", json={**chosen, "vessel": "jam-jar", "paces": {"": 2}})
    sheet = client.post("/api/mix-sheet", json={"job": JOBS["Foyer wall"]}).json()["now"]
    assert {b["vessel"] for b in sheet["batches"]} <= {"jam jar", "baby-food jar"}


@pytest.mark.parametrize(("paper", "points"), [("a4", A4), ("letter", LETTER)])
def test_cards_are_read_back_and_their_codes_open_the_batch(
    client: TestClient, paper: str, points: tuple[float, float]
) -> None:
    job_id = made(client, "Costume wardrobe")
    pdf = printed(client, job_id, what="cards", paper=paper)
    assert size(pdf) == pytest.approx(points, abs=0.5)
    (text,) = pages(pdf)
    for words in ("Milk paint", "Milk-paint powder", "stage-door green", "Clear coat", "Use within 8 h once ready"):
        assert words in text
    addresses = scanned(pdf, grey=True)  # and in black and white
    assert len(addresses) == 2
    for address in addresses:
        code = address.rsplit("/b/", 1)[1]
        assert code in text
        found = client.get(f"/api/batches/{code}").json()
        assert found["job_id"] == job_id
        assert found["file"]["batch"]["name"] in {"Milk paint", "Clear coat"}
        loud = client.get(f"/api/batches/{code.upper().replace('-', ' ')}").json()
        assert loud["code"] == code


def test_labels_have_a_code_each_and_go_on_to_a_second_page(client: TestClient) -> None:
    pdf = printed(client, made(client, "Foyer wall"), what="labels")
    texts = pages(pdf)
    assert len(texts) == 2  # eleven batches, ten to a page
    assert "Salt wash" in texts[0]
    assert "Mixed on" in texts[0]
    assert len(scanned(pdf, 0)) == 10
    assert len(scanned(pdf, 1)) == 1


def test_the_bench_sheet_has_the_steps_their_checks_and_cautions(client: TestClient) -> None:
    pdf = printed(client, made(client, "Costume wardrobe"), what="steps", paper="letter")
    assert size(pdf) == pytest.approx(LETTER, abs=0.5)
    text = " ".join("\n".join(pages(pdf)).split())
    for words in (
        "Lay out first",
        "Body: Tested for lead",
        "Take care.",
        "Right when:",
        "Then leave it",
        "Done ____",
        "Doors",
    ):
        assert words in text
    assert text.index("Tested for lead") < text.index("Mix milk paint") < text.index("Clean the 50 mm flat brush")


def test_a_frozen_batch_stays_as_it_was_when_the_job_changes(client: TestClient) -> None:
    job_id = made(client, "Costume wardrobe")
    first = scanned(printed(client, job_id, what="cards"))
    assert scanned(printed(client, job_id, what="cards")) == first  # printed again it is the same batch
    code = sorted(first)[0].rsplit("/b/", 1)[1]
    before = client.get(f"/api/batches/{code}").json()
    opened = client.get(f"/api/jobs/{job_id}").json()
    zones = [{**z, "layers": [{**x, "coats": 4} for x in z["layers"]]} for z in opened["job"]["zones"]]
    headers = {"If-Match": f'"{opened["revision"]}"'}
    assert client.put(f"/api/jobs/{job_id}", json={**opened["job"], "zones": zones}, headers=headers).status_code == 200
    assert client.get(f"/api/batches/{code}").json() == before
    assert not scanned(printed(client, job_id, what="cards")) & first
    file = client.get(f"/api/batches/{code}/file").json()
    assert (file["format"], file["version"], file["job"]) == ("lumso-batch", 4, "Costume wardrobe")


def without(document: Any, key: str) -> Any:
    """A document without a field, wherever it stands."""
    if isinstance(document, dict):
        return {k: without(v, key) for k, v in document.items() if k != key}
    return [without(v, key) for v in document] if isinstance(document, list) else document


@pytest.mark.parametrize("version", [1, 2])
def test_a_batch_frozen_by_an_earlier_lumso_opens_as_it_was(client: TestClient, db: Database, version: int) -> None:
    """Before version 2 a batch did not know its rest, before 3 not how far off it may be."""
    old = ROOT / "tests" / "formats" / "old" / "batches" / f"batch-{version}.json"
    then = json.loads(old.read_text())["batch"]
    (kept,) = batches.freeze(db, made(client, "Hat stand"), 1, [(then["id"], old.read_text())])
    now = client.get(f"/api/batches/{kept.code}").json()["file"]["batch"]
    if version == 1:
        then["mix"]["thickness"]["relative_solids"] = then["mix"]["thickness"].pop("crowding")  # its name since
        assert now.pop("rest_min") is None
    assert without(now, "spread") == then
    assert now["mix"]["volume"]["spread"] == 0
    paper = cards([(kept.code, "http://x/b/x", batchfile.from_json(old.read_bytes()))], "a4")
    (text,) = pages(paper)
    assert "Rest 10 min, stir again" in " ".join(text.split())  # ready at 2.063 h, mixed at 1.897 h


def test_nothing_to_print_is_said_in_words(client: TestClient) -> None:
    pot = client.post("/api/jobs/start", json={"recipe": "colour-wash", "ml": 100}).json()
    assert client.post(f"/api/jobs/{pot['id']}/print", json={"what": "cards"}).status_code == 200
    empty = {**pot["job"], "zones": [{**pot["job"]["zones"][0], "layers": []}]}
    nothing = client.post("/api/jobs", json=empty).json()["id"]
    reply = client.post(f"/api/jobs/{nothing}/print", json={"what": "cards"})
    assert reply.status_code == 422
    assert "nothing to mix" in reply.json()["detail"]
    assert client.post("/api/jobs/nope/print", json={"what": "steps"}).status_code == 404
    assert client.get("/api/batches/zuzu-99").status_code == 404


def test_no_sign_is_lost_in_print(client: TestClient) -> None:
    for name in some("jobs on paper", list(JOBS)):
        job_id = made(client, name)
        for what in ("cards", "labels", "steps"):
            for text in pages(printed(client, job_id, what=what)):
                assert "\x00" not in text
                assert "�" not in text


def test_a_wash_begun_from_the_last_says_so_on_its_card_and_label(client: TestClient) -> None:
    board = made(client, "Outdoor notice board")
    card = " ".join(" ".join(pages(printed(client, board, what="cards", step_down=True))).split())
    assert card.count("left of the last wash and 10 ml of rinse water; with this it makes") == 2
    label = " ".join(" ".join(pages(printed(client, board, what="labels", step_down=True))).split())
    assert label.count("70% water, begun from the last wash") == 2
    assert "last wash" not in " ".join(pages(printed(client, board, what="cards")))
