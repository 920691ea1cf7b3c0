"""Questions without a job, over the API: they keep nothing."""

from starlette.testclient import TestClient


def test_what_is_left_says_how_far_it_goes_and_what_it_covers(client: TestClient) -> None:
    start = {"form": "board", "ground": "raw-pine", "recipe": "milk-paint", "sizes": "300 x 200 x 18"}
    job = client.post("/api/jobs/start", json=start).json()
    said = client.post("/api/ask/left", json={"recipe": "milk-paint", "ml": 120}).json()
    assert said["goes"][0]["area_m2"] > 0.5
    assert [(s["job"], s["share"]) for s in said["serves"]] == [(job["id"], 1.0)]
    client.put(f"/api/jobs/{job['id']}/away", json={"away": True})
    assert client.post("/api/ask/left", json={"recipe": "milk-paint", "ml": 120}).json()["serves"] == []


def test_an_amount_is_read_in_the_measures_of_the_workshop(client: TestClient) -> None:
    assert client.post("/api/amounts", json={"typed": "1,5 l"}).json() == {"ml": 1500}
    refused = client.post("/api/amounts", json={"typed": "2 fl oz"})
    assert (refused.status_code, refused.json()["faults"][0]["at"]) == (422, "typed")
    client.put("/api/workshop", json={"measures": "us"})
    assert client.post("/api/amounts", json={"typed": "2 fl oz"}).json() == {"ml": 59.147059}


def test_three_answers_are_enough_for_advice(client: TestClient) -> None:
    asked = {"ground": "raw-oak", "recipe": "paint-wash-raw-wood", "place": ["outdoors"], "form": "bench"}
    said = client.post("/api/ask/advice", json=asked).json()
    assert (said["sealers"][0]["recipe"], said["sealers"][0]["verdict"]) == ("exterior-clear-coat-plain", "best")
    assert [p["did"] for p in said["prep"]]
    assert client.get("/api/jobs").json()["count"] == 0


def test_what_is_not_there_is_refused_in_words(client: TestClient) -> None:
    assert client.post("/api/ask/left", json={"recipe": "soup", "ml": 5}).status_code == 422
    assert client.post("/api/ask/left", json={"recipe": "milk-paint", "ml": 0}).json()["faults"][0]["at"] == "/ml"
    assert client.post("/api/ask/advice", json={"ground": "moon"}).status_code == 422
