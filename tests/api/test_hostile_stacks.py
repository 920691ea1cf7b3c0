"""Stacks, sheets and prints of anything a person or a file can hold: an answer or a refusal in words, never a break."""

import json
from copy import deepcopy
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from starlette.testclient import TestClient

from lumso.catalogue import shipped
from tests.api.test_hostile import NASTY, PATHS, RACK, changed
from tests.counts import examples

C = shipped()
ASKS = ("/api/finish/advice", "/api/finish/library", "/api/mix-sheet", "/api/finish/steps", "/api/edits")


def body(path: str, job: Any) -> Any:
    """What an endpoint is asked with, for a job."""
    if path.endswith("steps"):
        return job
    if path.endswith("mix-sheet"):
        return {"job": job, "what_if": {"pace": 0.5, "step_down": True}}
    if path.endswith("edits"):
        return {"job": job, "edit": {"edit": "finish", "seed": "s", "zone": "rack", "finish": "dragged-linen"}}
    return {"job": job, "zone": "rack"}


def well_answered(reply: Any) -> bool:
    if reply.status_code == 200:
        return True
    problem = reply.json()
    told = all(f["says"] and f["allowed"] for f in problem["faults"])
    return reply.status_code == 422 and bool(problem["detail"]) and told and "Traceback" not in reply.text


@examples("any stack over the API")
@given(path=st.sampled_from(PATHS), value=st.sampled_from(NASTY), ask=st.sampled_from(ASKS))
def test_any_field_of_the_job_may_hold_anything(client: TestClient, path: Any, value: Any, ask: str) -> None:
    reply = client.post(ask, json=body(ask, changed(path, value)))
    assert well_answered(reply), (ask, reply.text[:400])


@st.composite
def stacks(draw: st.DrawFn) -> dict[str, Any]:
    """The rack with any layers of the catalogue on any ground, for any use; some name what is not there."""
    job = deepcopy(RACK)
    zone = job["zones"][0]
    zone["ground"] = draw(st.sampled_from([*sorted(C.grounds), "moon"]))
    zone["prep"] = draw(st.lists(st.sampled_from([*sorted(C.preparations), "blessed"]), unique=True, max_size=4))
    zone["layers"] = [
        {
            "id": f"l{i}",
            "recipe": draw(st.sampled_from([*sorted(C.recipes), "magic"])),
            "technique": draw(st.sampled_from(["wash-stacked", *sorted(C.techniques)])),
            "tool": draw(st.sampled_from(sorted(C.tools))),
            "want": draw(st.sampled_from([{"by": "area"}, {"by": "total", "ml": 90}, {"by": "vessel", "ml": 370}])),
            "coats": draw(st.integers(1, 12)),
            "touched": draw(st.sampled_from([0.05, 0.4, 1.0])),
            "thickness_mm": draw(st.sampled_from([0.1, 1.0, 10.0])),
            "wait_h": draw(st.sampled_from([None, 0, 12, 4000])),
            "sandings": draw(st.sampled_from([[], [{"grit": 120, "purpose": "bite"}]])),
        }
        for i in range(draw(st.integers(0, 6)))
    ]
    uses = ["hands", "water", "heat", "food", "feet", "children", "weather"]
    job["use"] = {"touched_by": draw(st.lists(st.sampled_from(uses), unique=True, max_size=3))}
    return job


@examples("any stack over the API")
@given(job=stacks(), ask=st.sampled_from(("/api/plan", *ASKS)))
def test_any_stack_is_planned_checked_batched_and_written_as_steps(
    client: TestClient, job: dict[str, Any], ask: str
) -> None:
    sent = {"sequence": 1, "job": job} if ask == "/api/plan" else body(ask, job)
    reply = client.post(ask, json=sent)
    assert well_answered(reply), (ask, reply.text[:400])
    if ask == "/api/plan" and "magic" not in json.dumps(job) and job["zones"][0]["ground"] != "moon":
        zone = reply.json()["plan"]["zones"][0]
        assert len(zone["layers"]) == len(job["zones"][0]["layers"])


@examples("any stack over the API")
@given(job=stacks(), what=st.sampled_from(["cards", "labels", "steps"]), paper=st.sampled_from(["a4", "letter"]))
def test_any_stack_is_printed_or_refused_in_words(
    client: TestClient, job: dict[str, Any], what: str, paper: str
) -> None:
    made = client.post("/api/jobs", json=job)
    assert made.status_code == 201, made.text[:300]
    reply = client.post(f"/api/jobs/{made.json()['id']}/print", json={"what": what, "paper": paper})
    if reply.status_code == 200:
        assert reply.content.startswith(b"%PDF")
    else:
        assert well_answered(reply), reply.text[:400]


@examples("any stack over the API")
@given(
    what_if=st.fixed_dictionaries(
        {},
        optional={
            "coats": st.dictionaries(st.sampled_from(["wash", "nope"]), st.sampled_from([1, 3, 12])),
            "margin": st.floats(0, 1),
            "vessel": st.sampled_from([v.slug for v in C.vessels]),
            "pace": st.floats(0.01, 10),
            "temperature_c": st.floats(-10, 50),
            "humidity": st.floats(0.01, 1),
            "step_down": st.booleans(),
        },
    )
)
def test_anything_allowed_may_be_tried_on_the_sheet(client: TestClient, what_if: dict[str, Any]) -> None:
    reply = client.post("/api/mix-sheet", json={"job": RACK, "what_if": what_if})
    assert reply.status_code == 200, reply.text[:300]
    then = reply.json()["then"]
    assert then["batches"] or then["problems"]


@pytest.mark.parametrize("code", ["", " ", "%", "'; DROP TABLE job; --", "x" * 3000, "💧", "..%2F..%2Fetc"])
def test_any_text_may_be_taken_for_a_code(client: TestClient, code: str) -> None:
    reply = client.get(f"/api/batches/{code}")
    assert reply.status_code in (404, 405)
    assert "Traceback" not in reply.text
