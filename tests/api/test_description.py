"""The interface's types come from the API's own description."""

import json

from starlette.testclient import TestClient

from tests.conftest import ROOT


def test_the_description_the_interface_was_typed_from_is_up_to_date(client: TestClient) -> None:
    kept = json.loads((ROOT / "ui" / "api.json").read_text())
    assert kept == client.get("/api/openapi.json").json(), "run `make api-types`"
