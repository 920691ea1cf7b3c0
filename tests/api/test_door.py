"""Who may ask, how much may be sent, and what goes with every answer."""

from collections.abc import Iterator

import pytest
from fastapi import FastAPI
from starlette.testclient import TestClient

from lumso.api.app import create_app
from lumso.api.door import HEADERS, MOST_BYTES
from lumso.core.book.catalogue import Catalogue
from lumso.services.context import Context
from lumso.store.database import Database

START: dict[str, str] = {}
"""What begins an empty job."""


def _problem(client: TestClient, method: str, path: str, **sent: object) -> tuple[int, str]:
    reply = client.request(method, path, **sent)  # type: ignore[arg-type]
    assert reply.headers["content-type"] == "application/problem+json"
    return reply.status_code, reply.json()["title"]


@pytest.mark.parametrize(
    "host", ["paint.example", "paint.example:8321", "localhost.example", "", "127.0.0.1.example", "[", "house"]
)
def test_a_name_nobody_gave_this_machine_is_not_answered(client: TestClient, host: str) -> None:
    assert _problem(client, "GET", "/api/jobs", headers={"Host": host}) == (421, "Not known by that name")


@pytest.mark.parametrize("host", ["127.0.0.1:8321", "localhost", "LOCALHOST:80", "192.168.1.20:8321", "[::1]:8321"])
def test_an_address_cannot_be_borrowed_and_is_answered(client: TestClient, host: str) -> None:
    assert client.get("/api/jobs", headers={"Host": host}).status_code == 200


def test_a_machine_answers_to_the_names_it_was_given(db: Database, catalogue: Catalogue) -> None:
    here = TestClient(create_app(db, catalogue, names=frozenset({"loft.local"})), "http://loft.local")
    assert here.get("/api/jobs").status_code == 200
    assert here.get("/api/jobs", headers={"Host": "attic.local"}).status_code == 421


@pytest.mark.parametrize(
    "said",
    [
        {"Origin": "http://paint.example"},
        {"Origin": "null"},
        {"Origin": "http://127.0.0.1:9000"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
    ],
)
def test_a_page_from_elsewhere_writes_nothing(client: TestClient, said: dict[str, str]) -> None:
    assert _problem(client, "POST", "/api/jobs/start", headers=said, json=START) == (403, "Not from here")
    assert client.get("/api/jobs").json()["jobs"] == []


def test_lumsos_own_pages_write(client: TestClient) -> None:
    own = {"Origin": "http://127.0.0.1", "Sec-Fetch-Site": "same-origin"}
    assert client.post("/api/jobs/start", headers=own, json=START).status_code == 201


def test_a_link_from_elsewhere_opens_the_page_and_sets_nothing_going(client: TestClient) -> None:
    """A page elsewhere that asks for something heavy again and again would keep the painter waiting."""
    assert client.get("/b/mofa-12", headers={"Sec-Fetch-Site": "cross-site"}).status_code in (200, 503)
    for heavy in ("/api/jobs", "/api/export/everything.json", "/api/days/sheet.pdf"):
        assert _problem(client, "GET", heavy, headers={"Sec-Fetch-Site": "cross-site"}) == (403, "Not from here")
    assert client.get("/api/jobs", headers={"Sec-Fetch-Site": "same-origin"}).status_code == 200


def test_what_is_too_large_is_refused_by_its_head(client: TestClient) -> None:
    body = b" " * (MOST_BYTES + 1)
    assert _problem(client, "POST", "/api/jobs/start", content=body) == (413, "Too large")
    assert _problem(client, "POST", "/api/jobs/start", headers={"Content-Length": "9" * 400}) == (413, "Too large")


def test_what_is_too_large_is_refused_as_it_comes(client: TestClient) -> None:
    def bits() -> Iterator[bytes]:
        for _ in range(9):
            yield b" " * (MOST_BYTES // 8)

    assert _problem(client, "POST", "/api/jobs/start", content=bits())[0] == 413


def test_the_largest_that_may_be_sent_is_read(client: TestClient) -> None:
    body = b"{}" + b" " * (MOST_BYTES - 2)
    reply = client.post("/api/jobs/start", content=body, headers={"Content-Type": "application/json"})
    assert reply.status_code == 201


@pytest.mark.parametrize("path", ["/api/jobs", "/api/jobs/none", "/api/nowhere", "/"])
def test_every_answer_says_what_a_browser_may_do_with_it(client: TestClient, path: str) -> None:
    headers = client.get(path).headers
    assert {name: headers[name] for name in HEADERS} == HEADERS
    assert "script-src" not in HEADERS["Content-Security-Policy"]  # so that scripts are the default: Lumso's own files
    assert "unsafe" not in HEADERS["Content-Security-Policy"].replace("style-src 'self' 'unsafe-inline'", "")


def test_a_mistake_of_our_own_is_told_in_words_and_breaks_nothing(
    app: FastAPI, db: Database, catalogue: Catalogue, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fail(self: Context) -> None:
        raise RuntimeError("a secret")

    app.state.context = Context(db, catalogue)
    with TestClient(app, "http://127.0.0.1") as strict:  # raises whatever goes past the door
        with monkeypatch.context() as broken:
            broken.setattr(Context, "settings", fail)
            reply = strict.get("/api/workshop")
        assert reply.status_code == 500
        assert "secret" not in reply.text
        assert {name: reply.headers[name] for name in HEADERS} == HEADERS
        assert strict.get("/api/workshop").status_code == 200
