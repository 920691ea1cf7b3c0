"""Names with what cannot be seen, over the API: said at the field; in a file, cleaned."""

import json

from .conftest import Painter


def test_over_the_api_it_is_said_at_the_field_and_a_file_is_taken_cleaned(client: Painter) -> None:
    start = {"recipe": "paint-wash-raw-wood", "ground": "raw-pine", "name": "Rack\u202e"}
    refused = client.post("/api/jobs/start", json=start)
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["at"] == "/name"
    made = client.post("/api/jobs/start", json={**start, "name": "Rack"}).json()
    put = client.put(f"/api/jobs/{made['id']}", json={**made["job"], "name": "R\x07"}, headers={"If-Match": '"1"'})
    assert put.json()["faults"][0]["allowed"] == "the same without it: R"
    file = json.dumps({**made["job"], "name": "Rack\u202e by the door"})
    taken = client.post("/api/jobs/file", json={"name": "rack.json", "text": file})
    assert taken.json()["job"]["name"] == "Rack by the door"
