"""What can be edited, as the description names it: each with a revision, a key, and a place in the outbox's trials."""

import json
from typing import Any

import pytest
from fastapi import FastAPI

from tests.conftest import ROOT

CHANGES = ("put", "post", "delete", "patch")
NOT_DOCUMENTS = {
    # asked again, each comes to the same, whoever asked first
    "PUT /api/jobs/{job_id}/away",
    "POST /api/jobs/{job_id}/mend",
    "DELETE /api/jobs/{job_id}",
    "PUT /api/better/{kind}/{slug}/{field}",
    "DELETE /api/better/{kind}/{slug}/{field}",
    "DELETE /api/unread/{kind}/{slug}",
    "POST /api/aside/{number}/back",
    "DELETE /api/aside/{number}",
    "PUT /api/devices/{device_id}",
    "PUT /api/copies/{name}",
    "POST /api/copies/{name}/restore",
    "DELETE /api/recordings/{name}",
    # another code, and the one before is good no longer
    "POST /api/codes",
    # made anew, with a key of its own
    "POST /api/jobs",
    "POST /api/jobs/file",
    "POST /api/jobs/start",
    "POST /api/jobs/sample",
    "POST /api/jobs/{job_id}/copy",
    "POST /api/import",
    "POST /api/backups",
    "POST /api/backups/{name}/restore",
    "POST /api/restore",
    "POST /api/enter",
    "DELETE /api/devices/{device_id}",
    # what was done to a job: revision, keys and answers of its own (ui/src/job/session.test.ts tries it under faults)
    "POST /api/jobs/{job_id}/changes",
    # keep nothing
    "POST /api/days",
    "POST /api/days/backwards",
    "POST /api/edits",
    "POST /api/finish/advice",
    "POST /api/amounts",
    "POST /api/ask/left",
    "POST /api/ask/advice",
    "POST /api/forms/{slug}",
    "POST /api/measures",
    "POST /api/coverage",
    "POST /api/finish/library",
    "POST /api/finish/steps",
    "POST /api/look",
    "POST /api/look/chip",
    "POST /api/look/match",
    "POST /api/look/hides",
    "POST /api/boards/plan",
    "POST /api/boards/offers",
    "POST /api/boards/taught",
    "POST /api/boards/stepped",
    "POST /api/boards/sheet",
    "POST /api/log/pots/{pot}/again",
    # keep nothing
    "POST /api/bench/test",
    "POST /api/bench/scale",
    # named by what they hold: the same again is the same
    "POST /api/photographs",
    "POST /api/recordings",
    "DELETE /api/photographs/{name}",
    "POST /api/photographs/{name}/colour",
    "POST /api/jobs/{job_id}/print",
    "POST /api/layouts",
    "POST /api/rehearsal",
    "POST /api/rehearsal/picture",
    "POST /api/lengths",
    "POST /api/mix-sheet",
    "POST /api/mix-sheet/measure",
    "POST /api/plan",
    "POST /api/sheet",
    "POST /api/sheet/measure",
    "POST /api/shelf/density",
    "POST /api/tint",
}


@pytest.fixture(scope="module")
def operations(app: FastAPI) -> dict[str, dict[str, Any]]:
    paths = app.openapi()["paths"]
    return {f"{m.upper()} {path}": op for path, ops in paths.items() for m, op in ops.items() if m in CHANGES}


def _headers(operation: dict[str, Any]) -> set[str]:
    return {p["name"] for p in operation.get("parameters", []) if p["in"] == "header"}


def test_every_editable_document_is_tried_under_faults_in_the_interface(operations: dict[str, Any]) -> None:
    tried = set(json.loads((ROOT / "ui/src/keep/editable.json").read_text()))
    assert {name for name, op in operations.items() if "If-Match" in _headers(op)} == tried


def test_every_change_is_known_to_be_a_document_or_not(operations: dict[str, Any]) -> None:
    documents = {name for name, op in operations.items() if "If-Match" in _headers(op)}
    assert documents | NOT_DOCUMENTS == set(operations)
    assert not documents & NOT_DOCUMENTS


def test_what_carries_a_revision_carries_a_key(operations: dict[str, Any]) -> None:
    for name, op in operations.items():
        if "If-Match" in _headers(op) or name in {"POST /api/jobs", "POST /api/jobs/file", "POST /api/jobs/start"}:
            assert "Idempotency-Key" in _headers(op), name
