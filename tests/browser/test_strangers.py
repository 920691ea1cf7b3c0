"""A page from elsewhere, in a browser of its own that takes a foreign name for this machine."""

import json
import threading
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

import pytest
from playwright.sync_api import BrowserType, Page

from tests.browser.lumso import Running

TRY = """async (at) => {
  const go = (path, more) => fetch(at + path, more).then((r) => r.status, () => "not given");
  const json = { method: "POST", body: "{}", headers: { "Content-Type": "application/json" } };
  return {
    read: await go("/api/jobs"),
    write: await go("/api/jobs/start", json),
    blind: await go("/api/jobs/start", { method: "POST", mode: "no-cors", body: "{}" }),
  };
}"""


class Lure(BaseHTTPRequestHandler):
    """A page that would show the address after its ? in a frame."""

    def do_GET(self) -> None:
        self.send_response(200)
        self.send_header("Content-Type", "text/html")
        self.end_headers()
        self.wfile.write(f'<iframe src="http://{self.path.partition("?")[2]}/"></iframe>'.encode())

    def log_message(self, *_: object) -> None:
        """Nothing on the screen of the tests."""


@pytest.fixture
def elsewhere() -> Iterator[str]:
    server = ThreadingHTTPServer(("127.0.0.1", 0), Lure)
    thread = threading.Thread(target=server.serve_forever)
    thread.start()
    yield f"http://paint.example:{server.server_port}"
    server.shutdown()
    thread.join()
    server.server_close()


@pytest.fixture
def misled(browser_type: BrowserType, browser_type_launch_args: dict[str, Any]) -> Iterator[Page]:
    args = [*browser_type_launch_args["args"], "--host-resolver-rules=MAP paint.example 127.0.0.1"]
    browser = browser_type.launch(**{**browser_type_launch_args, "args": args})
    yield browser.new_page()
    browser.close()


def _jobs(page: Page, lumso: Running) -> int:
    page.goto(f"{lumso.url}/api/jobs")
    count: int = json.loads(page.locator("body").inner_text())["count"]
    return count


def test_a_foreign_name_for_this_machine_neither_reads_nor_writes(empty: Running, misled: Page) -> None:
    name = f"http://paint.example:{empty.port}"
    misled.goto(name)
    assert "not known as 'paint.example'" in misled.locator("body").inner_text()
    tried = misled.evaluate(TRY, name)
    assert tried == {"read": 421, "write": 421, "blind": 421}
    assert _jobs(misled, empty) == 0


def test_a_foreign_page_neither_reads_nor_writes_nor_frames(empty: Running, misled: Page, elsewhere: str) -> None:
    misled.goto(f"{elsewhere}/?127.0.0.1:{empty.port}")
    tried = misled.evaluate(TRY, empty.url)
    assert (tried["read"], tried["write"]) == ("not given", "not given")
    assert misled.frames[1].locator("#root").count() == 0
    assert _jobs(misled, empty) == 0
