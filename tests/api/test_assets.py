"""What crosses the wire: compressed, kept by the browser, and no more than can be used."""

import gzip
import re

from fastapi.testclient import TestClient

from lumso.api.app import WEB

FIRST_VIEW, ANOTHER_VIEW = 147_000, 40_000


def compressed(name: str) -> int:
    return len(gzip.compress((WEB / "assets" / name).read_bytes(), 6))


def imported(script: str) -> set[str]:
    """The scripts that a script needs before it runs, itself among them."""
    found, left = set(), [script]
    while left:
        name = left.pop()
        if name in found:
            continue
        found.add(name)
        text = (WEB / "assets" / name).read_text(encoding="utf-8")
        left += re.findall(r'(?:from|import)\s*"\./([\w.-]+\.js)"', text)
    return found


def test_the_first_view_and_every_further_one_stay_small() -> None:
    page = (WEB / "index.html").read_text(encoding="utf-8")
    (entry,) = re.findall(r'src="/assets/([\w.-]+\.js)"', page)
    first = imported(entry)
    assert sum(map(compressed, first)) <= FIRST_VIEW
    text = (WEB / "assets" / entry).read_text(encoding="utf-8")
    views = set(re.findall(r'import\(`?"?\./([\w.-]+\.js)', text))
    assert len(views) >= 8
    for view in views:
        assert sum(map(compressed, imported(view) - first)) <= ANOTHER_VIEW, view


def test_scripts_are_sent_compressed_and_kept_for_good(client: TestClient) -> None:
    (entry,) = re.findall(r'src="(/assets/[\w.-]+\.js)"', client.get("/").text)
    reply = client.get(entry)
    assert reply.headers["content-encoding"] == "gzip"
    assert "immutable" in reply.headers["cache-control"]
    assert client.get("/").headers["cache-control"] == "no-cache"
    assert "immutable" not in client.get("/assets/nothing.js").headers.get("cache-control", "")


def test_the_catalogue_is_answered_once_until_something_of_it_changes(client: TestClient) -> None:
    first = client.get("/api/catalogue")
    tag = first.headers["etag"]
    again = client.get("/api/catalogue", headers={"If-None-Match": tag})
    assert (again.status_code, again.content) == (304, b"")
    kit = next(k for k in first.json()["kits"] if k["slug"] == "metric-spoons")
    client.put("/api/kits/metric-spoons", json={**kit, "name": "Bent spoons"})
    changed = client.get("/api/catalogue", headers={"If-None-Match": tag})
    assert changed.status_code == 200
    assert changed.headers["etag"] != tag
