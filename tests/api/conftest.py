"""The real application over a real SQLite file."""

from collections.abc import Iterator
from datetime import UTC, datetime
from typing import Any, cast
from urllib.parse import unquote

import pytest
from fastapi import FastAPI
from starlette.testclient import TestClient

from lumso.core.book.catalogue import Catalogue
from lumso.core.days.hours import minute_of
from lumso.services.context import Context
from lumso.store.database import Database

NOON = minute_of(datetime(2026, 11, 24, 12, tzinfo=UTC))
"""What time it is in these tests unless they say otherwise, in minutes since 1970: a Tuesday."""


def turn(app: Any, minute: float) -> None:
    """Make it another time for the server."""
    app.state.context.clock = lambda: minute * 60


class Painter(TestClient):
    """Somebody who has just read what they write: changes of the workshop say so where the test does not."""

    def request(self, method: str, url: Any, **more: Any) -> Any:
        place = str(url).removeprefix("/api/").partition("/")
        kind = {"kits": "kit", "shelf": "shelf", "recipes": "recipe", "lots": "lot"}.get(place[0])
        if method in ("PUT", "DELETE") and (kind or place[0] == "workshop"):
            here = cast(FastAPI, self.app).state.context
            read = here.revision(kind, unquote(place[2])) if kind else here.settings_revision()
            more["headers"] = {"If-Match": f'"{read}"', **(more.get("headers") or {})}
        if place[0] == "events":
            more["headers"] = {"If-Match": '"0"', **(more.get("headers") or {})}
        return super().request(method, url, **more)


@pytest.fixture
def client(app: FastAPI, db: Database, catalogue: Catalogue) -> Iterator[TestClient]:
    app.state.context = Context(db, catalogue)
    turn(app, NOON)
    with Painter(app, "http://127.0.0.1", raise_server_exceptions=False) as test_client:
        yield test_client


def edited(client: TestClient, job: dict[str, Any], edit: str, **more: Any) -> dict[str, Any]:
    """The job after an edit that asks the rules, and what was done of itself."""
    reply = client.post("/api/edits", json={"job": job, "edit": {"edit": edit, "seed": "new", **more}})
    assert reply.status_code == 200, reply.text
    answer: dict[str, Any] = reply.json()
    return answer
