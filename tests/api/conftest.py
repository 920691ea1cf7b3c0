"""The real application over a real SQLite file."""

from collections.abc import Iterator

import pytest
from fastapi import FastAPI
from starlette.testclient import TestClient

from lumso.api.context import Context
from lumso.core.book.catalogue import Catalogue
from lumso.store.database import Database


@pytest.fixture
def client(app: FastAPI, db: Database, catalogue: Catalogue) -> Iterator[TestClient]:
    app.state.context = Context(db, catalogue)
    with TestClient(app, raise_server_exceptions=False) as test_client:
        yield test_client
