"""An edit in one trip: kept, worked out, and answered with what differs; made to what others did, or held beside it."""

import json
from typing import Any

import pytest
from starlette.testclient import TestClient

from lumso.formats.patch import patched
from lumso.store import jobs
from lumso.store.database import Database
from tests.formats.test_patch import STEPS, exactly

from .test_jobs import begin


def coats(job: dict[str, Any], n: int, layer: int = 0) -> dict[str, Any]:
    """A change of one layer's coats."""
    zone = job["zones"][0]
    at = ["zones", {"id": zone["id"]}, "layers", {"id": zone["layers"][layer]["id"]}, "coats"]
    return {"do": "set", "key": f"coats {n}", "patch": [{"at": at, "value": n}]}


def named(name: str) -> dict[str, Any]:
    return {"do": "set", "key": f"name {name}", "patch": [{"at": ["name"], "value": name}]}


def laid(job: dict[str, Any], recipe: str, seed: str) -> dict[str, Any]:
    change = {"do": "insert", "above": "", "recipe": recipe, "technique": "", "wait_h": None}
    edit = {"edit": "stack", "seed": seed, "zone": job["zones"][0]["id"], "changes": [change]}
    return {"do": "decide", "key": f"edit {seed}", "edit": edit}


class Page:
    """What a page does: it holds a job and a plan, sends what was done, and makes of its own what comes back."""

    def __init__(self, client: TestClient, job_id: str) -> None:
        self.client, self.id, self.keys = client, job_id, 0
        got = client.get(f"/api/jobs/{job_id}", params={"looked_at": ""}).json()
        self.job, self.plan, self.revision, self.holds = got["job"], got["plan"], got["revision"], got["plan_id"]

    def send(self, *changes: dict[str, Any], key: str = "", read: int | None = None, **more: Any) -> Any:
        self.keys += 1
        body = {"read": self.revision if read is None else read, "changes": changes, **more}
        params: dict[str, Any] = {"looked_at": self.job["zones"][0]["id"], "holds": self.holds}
        if not changes:
            return self.client.get(f"/api/jobs/{self.id}/changes", params={**params, "read": body["read"]})
        headers = {"Idempotency-Key": key or f"{id(self)} {self.keys}"}
        return self.client.post(f"/api/jobs/{self.id}/changes", json=body, params=params, headers=headers)

    def does(self, *changes: dict[str, Any], **more: Any) -> dict[str, Any]:
        reply = self.send(*changes, **more)
        assert reply.status_code == 200, reply.text
        got: dict[str, Any] = reply.json()
        for steps in (got["came"], *(a["patch"] for a in got["answers"]), got["after"]):
            self.job = patched(self.job, STEPS.validate_python(steps))
        self.plan = got.get("whole") or patched(self.plan, STEPS.validate_python(got["plan"]))
        self.revision, self.holds = got["revision"], got["plan_id"]
        return got

    def is_as_kept(self) -> bool:
        """Whether what it holds is what the server has."""
        where = {"looked_at": self.job["zones"][0]["id"]}
        got = self.client.get(f"/api/jobs/{self.id}", params=where).json()
        return bool([self.job, self.plan, self.revision] == [got["job"], got["plan"], got["revision"]])


@pytest.fixture
def desk(client: TestClient) -> Page:
    return Page(client, begin(client, sizes="1000 x 500 x 20")["id"])


def test_an_edit_is_kept_worked_out_and_answered_in_little(desk: Page) -> None:
    reply = Page(desk.client, desk.id).send(coats(desk.job, 3))
    assert len(reply.request.content) < 2000
    assert len(reply.content) < 15_000
    desk.does()
    got = desk.does(coats(desk.job, 2))
    assert (got["answers"][0].get("refused"), got["can_undo"]) == (None, True)
    assert "whole" not in got or got["whole"] is None, "the plan it holds is known"
    assert desk.job["zones"][0]["layers"][0]["coats"] == 2
    assert desk.is_as_kept()


def test_several_go_up_together_in_order_each_with_its_answer(desk: Page) -> None:
    lost = {**laid(desk.job, "moonlight", "n0"), "key": "lost"}
    added = laid(desk.job, "colour-wash", "n1")
    got = desk.does(lost, added, named("Shelf"), coats(desk.job, 2))
    says = [a["refused"]["detail"] if a.get("refused") else "" for a in got["answers"]]
    assert [a["key"] for a in got["answers"]] == ["lost", "edit n1", "name Shelf", "coats 2"]
    assert "moonlight" in says[0]
    assert says[1:] == ["", "", ""]
    assert [x["id"] for x in desk.job["zones"][0]["layers"]][-1] == "n1"
    assert (desk.job["name"], desk.job["zones"][0]["layers"][0]["coats"]) == ("Shelf", 2)
    assert desk.is_as_kept()


def test_what_cannot_be_is_refused_at_its_place_and_the_rest_goes_on(desk: Page) -> None:
    got = desk.does({**coats(desk.job, 2), "key": "many", "patch": coats(desk.job, 99)["patch"]}, named("Shelf"))
    (fault,) = got["answers"][0]["refused"]["faults"]
    assert (fault["at"], fault["allowed"]) == ("/zones/0/layers/0/coats", "12 or less")
    assert desk.job["name"] == "Shelf"
    whole = desk.send({"do": "set", "key": "k", "patch": [{"at": [], "value": {}}]}).json()
    assert whole["answers"][0]["refused"]["faults"][0]["allowed"] == "a place that is not the whole"
    unknown = desk.send({"do": "set", "key": "k", "patch": [{"at": ["glitter"], "value": 1}]}).json()
    assert unknown["answers"][0]["refused"]["status"] == 422


def test_a_colour_is_read_as_people_type_it(desk: Page) -> None:
    zone = desk.job["zones"][0]
    at = ["zones", {"id": zone["id"]}, "layers", {"id": zone["layers"][0]["id"]}, "colours", "paint"]
    desk.does({"do": "set", "key": "c", "patch": [{"at": at, "value": {"name": "Footlight", "hex": "#0af"}}]})
    assert desk.job["zones"][0]["layers"][0]["colours"]["paint"]["hex"] == "#00aaff"
    assert desk.is_as_kept()


def test_asked_again_it_is_made_once_and_answered_again(desk: Page, db: Database) -> None:
    twin = Page(desk.client, desk.id)
    first = desk.does(laid(desk.job, "colour-wash", "n1"), key="once")
    revision = desk.revision
    twin.does(laid(twin.job, "colour-wash", "n1"), key="once", read=twin.revision)
    assert (twin.revision, jobs.get(db, desk.id).revision) == (revision, revision)
    assert exactly(twin.job, desk.job)
    # Somebody went on meanwhile: it is not made again, and what came after comes too.
    other = Page(desk.client, desk.id)
    other.does(named("Later"))
    late = Page(desk.client, desk.id)
    late.job, late.revision = json.loads(jobs.at(db, desk.id, 1).document), 1
    got = late.does(laid(late.job, "colour-wash", "n1"), key="once")
    assert got["answers"][0]["patch"] == first["answers"][0]["patch"]
    assert late.job["name"] == "Later"
    assert late.is_as_kept()
    otherwise = desk.send(named("Else"), key="once", read=1)
    assert otherwise.status_code == 422
    assert "under this key" in otherwise.json()["detail"]


def test_what_others_did_stays_and_the_same_touched_twice_is_to_be_looked_at(desk: Page) -> None:
    twin = Page(desk.client, desk.id)
    twin.does(named("Theirs"))
    got = desk.does(coats(desk.job, 3))
    assert got["came"] == [{"at": ["name"], "value": "Theirs"}]
    assert desk.is_as_kept()
    refused = twin.send(coats(twin.job, 2))
    assert refused.status_code == 412
    assert refused.json()["head"] == desk.revision
    asked = twin.does()
    assert (asked["answers"], twin.job["zones"][0]["layers"][0]["coats"]) == ([], 3)
    assert twin.is_as_kept()
    # An edit asks the rules of its zone: where that was changed meanwhile, it may mean something else.
    stale = desk.revision
    desk.does(coats(desk.job, 2))
    assert twin.send(laid(twin.job, "colour-wash", "n9"), read=stale).status_code == 412
    assert twin.send(named("x"), read=999).status_code == 412, "a version that never was"
    assert twin.send(read=999).json()["job"] == desk.job, "who only follows gets it whole"


def test_typing_is_one_step_of_undo(desk: Page) -> None:
    desk.does(coats(desk.job, 2))
    desk.does(named("R"))
    desk.does(named("Ra"), goes_on=True)
    desk.does(named("Rack"), goes_on=True)
    undone = desk.client.post(f"/api/jobs/{desk.id}/undo", headers={"If-Match": f'"{desk.revision}"'}).json()
    assert undone["job"]["name"] not in {"R", "Ra", "Rack"}
    assert undone["job"]["zones"][0]["layers"][0]["coats"] == 2
    redone = desk.client.post(f"/api/jobs/{desk.id}/redo", headers={"If-Match": f'"{undone["revision"]}"'}).json()
    assert redone["job"]["name"] == "Rack"


def test_a_page_whose_plan_is_forgotten_gets_it_whole(desk: Page) -> None:
    desk.holds = "a plan of another day"
    assert desk.does(coats(desk.job, 2))["whole"] is not None
    assert desk.is_as_kept()


def test_a_large_step_of_many_trips_keeps_page_and_server_alike(desk: Page) -> None:
    """Whatever is done, in whatever order: the page's job and plan are the server's."""
    twin = Page(desk.client, desk.id)
    ground = {"edit": "ground", "seed": "g", "zone": desk.job["zones"][0]["id"], "ground": "old-gloss"}
    finish = {"edit": "finish", "seed": "f", "zone": desk.job["zones"][0]["id"], "finish": "two-colours-milk-paint"}
    turns: list[tuple[Page, dict[str, Any]]] = [
        (desk, {"do": "decide", "key": "1", "edit": ground}),
        (twin, named("A")),
        (desk, {"do": "decide", "key": "2", "edit": finish}),
        (desk, coats(desk.job, 2)),
        (twin, {"do": "set", "key": "3", "patch": [{"at": ["note"], "value": "the back stays raw"}]}),
        (desk, laid(desk.job, "colour-wash", "n4")),
        (desk, {"do": "decide", "key": "5", "edit": {**finish, "seed": "f2"}}),
    ]
    for one, change in turns:
        if one is twin:
            twin.does()
        one.does(change)
        assert one.is_as_kept(), change
