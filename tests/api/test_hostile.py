"""Whatever is sent, the answer is a plan or problem details: never a traceback, never a half-saved job."""

import json
from copy import deepcopy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from starlette.testclient import TestClient

from lumso.core.job.job import Job
from lumso.core.plan.plan import Plan
from lumso.services.context import Context
from lumso.store import jobs
from lumso.store.database import Database
from tests.conftest import ROOT
from tests.counts import examples

RACK: dict[str, Any] = json.loads((ROOT / "examples" / "programme-rack.json").read_text())
NASTY: list[Any] = [None, True, -1, 0, 1e308, -1e308, "", "💧", "../../etc", "<script>", [], {}, [None], {"by": "area"}]
NASTY += ["x" * 5000, 10**30, {"mm": 5, "typed": "5"}, {"mm": -5, "typed": "-5"}, {"mm": 5, "typed": "wide"}]


def paths(value: Any, at: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    found = [at] if at else []
    children = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, child in children:
        found += paths(child, (*at, key))
    return found


PATHS = paths(RACK)


def changed(path: tuple[Any, ...], value: Any) -> dict[str, Any]:
    job = deepcopy(RACK)
    here: Any = job
    for step in path[:-1]:
        here = here[step]
    here[path[-1]] = value
    return job


def is_well_answered(reply: Any) -> bool:
    if reply.status_code == 200:
        return "plan" in reply.json()
    problem = reply.json()
    told = all(f["says"] and f["allowed"] for f in problem["faults"])
    return reply.status_code == 422 and bool(problem["detail"]) and told and "Traceback" not in reply.text


@examples("any answer over the API")
@given(path=st.sampled_from(PATHS), value=st.sampled_from(NASTY))
def test_any_field_may_hold_anything(client: TestClient, path: tuple[Any, ...], value: Any) -> None:
    reply = client.post("/api/plan", json={"sequence": 1, "job": changed(path, value)})
    assert is_well_answered(reply), reply.text[:500]


@examples("any answer over the API")
@given(path=st.sampled_from(PATHS))
def test_any_field_may_be_missing(client: TestClient, path: tuple[Any, ...]) -> None:
    job = deepcopy(RACK)
    here: Any = job
    for step in path[:-1]:
        here = here[step]
    del here[path[-1]]
    assert is_well_answered(client.post("/api/plan", json={"sequence": 1, "job": job}))


@examples("any answer over the API")
@given(typed=st.text(max_size=60))
def test_any_text_may_be_typed_as_a_length(client: TestClient, typed: str) -> None:
    reply = client.post("/api/lengths", json={"typed": typed})
    if reply.status_code == 200:
        assert reply.json()["mm"] > 0
    else:
        assert reply.status_code == 422
        assert reply.json()["faults"][0]["allowed"]


@examples("any answer over the API")
@given(name=st.sampled_from(["x.json", "x.csv", "x"]), text=st.text(max_size=300))
def test_any_file_may_be_taken_up(client: TestClient, name: str, text: str) -> None:
    reply = client.post("/api/import", json={"name": name, "text": text, "on_clash": "take theirs"})
    assert reply.status_code in (200, 422)
    if reply.status_code == 422:
        assert reply.json()["faults"]
    assert json.loads(client.get("/api/export/workshop.json").text)["shelf"] == []


SHARES = st.floats(0, 0.95)


@examples("any answer over the API")
@given(share=SHARES, coats=st.integers(1, 12), margin=st.floats(0, 1), touched=st.floats(0.01, 1))
def test_any_allowed_setting_is_planned(
    client: TestClient, share: float, coats: int, margin: float, touched: float
) -> None:
    job = deepcopy(RACK)
    layer = job["zones"][0]["layers"][0]
    layer.update(coats=coats, margin=margin, touched=touched)
    layer["amounts"] = {"water": {"by": "volume-share", "share": share}}
    made = client.post("/api/plan", json={"sequence": 1, "job": job}).json()["plan"]
    mix = made["zones"][0]["layers"][0]["pots"][0]["mix"]
    assert made["problems"] == []
    assert mix["volume"]["value"] > 0
    assert sum(p["share"] for p in mix["parts"]) == pytest.approx(1)


def test_a_body_far_too_large_for_a_name_is_refused(client: TestClient) -> None:
    reply = client.post("/api/plan", json={"sequence": 1, "job": {**RACK, "name": "x" * 121}})
    assert reply.json()["faults"][0] == {
        "at": "/job/name",
        "says": reply.json()["faults"][0]["says"],
        "allowed": "at most 120 characters",
    }


DIGITS = "1" * 5000


def _job(client: TestClient) -> dict[str, Any]:
    begun = client.post("/api/jobs/start", json={"recipe": "paint-wash-raw-wood"}).json()
    job: dict[str, Any] = client.get(f"/api/jobs/{begun['id']}/file").json()
    return {"id": begun["id"], "job": job}


def test_numbers_of_thousands_of_digits_are_refused_in_words(client: TestClient) -> None:
    begun = _job(client)
    matched = client.put(f"/api/jobs/{begun['id']}", json=begun["job"], headers={"If-Match": f'"{DIGITS}"'})
    assert matched.status_code == 422
    assert len(matched.text) < 1000
    text = '{"version": ' + DIGITS + "}"
    for path in ("/api/jobs/file", "/api/import"):
        reply = client.post(path, json={"name": "digits.json", "text": text})
        assert (reply.status_code, reply.json()["detail"]) == (422, "A number has too many digits.")


def test_a_table_with_a_row_cut_short_is_refused_where_it_is(client: TestClient) -> None:
    reply = client.post("/api/import", json={"name": "shelf.csv", "text": "slug,on_hand,unit\nwater\n,,\n"})
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["at"].startswith("line 2, ")


def test_a_limit_of_a_component_that_is_not_there_limits_nothing(client: TestClient, db: Database) -> None:
    recipes = client.get("/api/catalogue").json()["recipes"]
    draft = next(r for r in recipes if r["limits"] and not r["limits"][0]["surfaces"])
    draft["slug"], draft["limits"][0]["component"] = "draft", "ghost"
    want = {"by": "total", "ml": 300}
    reply = client.post("/api/sheet", json={"sequence": 1, "recipe": draft, "school": "", "want": want})
    assert reply.status_code == 200
    assert client.put("/api/recipes/draft", json=draft).status_code == 422

    carried = _job(client)["job"]
    carried["entries"]["recipes"][0]["limits"] = [draft["limits"][0]]
    refused = client.post("/api/jobs/file", json={"name": "job.json", "text": json.dumps(carried)})
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["at"] == "/entries/recipes/0/limits/0/component"
    jobs.create(db, "From before", json.dumps({**carried, "name": "From before"}))  # kept when nobody looked
    assert [line["fault"] for line in client.get("/api/jobs").json()["jobs"]] == ["", ""]


def test_a_material_out_of_all_bounds_is_refused_at_its_field(client: TestClient) -> None:
    carried = _job(client)["job"]
    carried["entries"]["materials"][0]["holds_up_to_water"] = 1e5
    reply = client.post("/api/plan", json={"sequence": 1, "job": carried})
    assert reply.status_code == 422
    assert reply.json()["faults"][0]["at"] == "/job/entries/materials/0/holds_up_to_water"


def test_a_job_that_breaks_us_hides_no_other(client: TestClient, monkeypatch: pytest.MonkeyPatch) -> None:
    sound, broken = _job(client), _job(client)
    renamed = {**broken["job"], "name": "Broken one"}
    made = client.post("/api/jobs", json=renamed).json()["id"]
    plan = Context.plan

    def breaks(self: Context, job: Job) -> Plan:
        if job.name == "Broken one":
            raise OverflowError("math range error")
        return plan(self, job)

    monkeypatch.setattr(Context, "plan", breaks)
    lines = {line["id"]: line for line in client.get("/api/jobs").json()["jobs"]}
    assert set(lines) == {sound["id"], broken["id"], made}
    assert lines[made]["name"] == "Broken one"
    assert lines[made]["next"]["says"] == "This job cannot be worked out"
    assert lines[made]["fault"]
    assert lines[sound["id"]]["fault"] == ""


def test_a_kit_of_any_name_can_be_taken_out(client: TestClient) -> None:
    kit = {"slug": "a/b", "name": "Odd", "measures": [{"name": "scoop", "ml": 14}]}
    file = {"format": "lumso-workshop-file", "version": 1, "kits": [kit]}
    assert client.post("/api/import", json={"name": "kits.json", "text": json.dumps(file)}).json()["taken"] == 1
    assert client.put("/api/kits/a%2Fb", json=kit).status_code == 200
    assert client.delete("/api/kits/a%2Fb").status_code == 204
    assert "a/b" not in client.get("/api/catalogue").json()["own_kits"]
