"""The real application over a real SQLite file."""

from collections.abc import Iterator
from typing import Any

import pytest
from fastapi import FastAPI
from starlette.testclient import TestClient

from lumso.api.context import Context
from lumso.core.book.catalogue import Catalogue
from lumso.store.database import Database


@pytest.fixture
def client(app: FastAPI, db: Database, catalogue: Catalogue) -> Iterator[TestClient]:
    app.state.context = Context(db, catalogue)
    with TestClient(app, "http://127.0.0.1", raise_server_exceptions=False) as test_client:
        yield test_client


def edited(client: TestClient, job: dict[str, Any], edit: str, **more: Any) -> dict[str, Any]:
    """The job after an edit that asks the rules, and what was done of itself."""
    reply = client.post("/api/edits", json={"job": job, "edit": {"edit": edit, "seed": "new", **more}})
    assert reply.status_code == 200, reply.text
    answer: dict[str, Any] = reply.json()
    return answer
