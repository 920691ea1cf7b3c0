"""A Lumso in a process of its own, the built interface, real Chromium; no request leaves the machine.

Each worker has one server and one browser window for all its tests: what the browser fetched stays in its cache. Before
each test the server is put back, and the window has lost all that a page keeps.
"""

import re
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, TypeVar

import pytest
from playwright.sync_api import Browser, BrowserContext, Locator, Page, expect

from tests.browser.lumso import Running

expect.set_options(timeout=20_000)  # patience for a busy machine; tests do not assert times
CHROMIUM = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]
CHROMIUM += ["--disable-component-update", "--disable-sync", "--disable-dev-shm-usage"]
ALONE = "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1"
"""No name is found but this machine's own address: routing every request instead would switch the cache off."""

TUESDAY = datetime(2026, 11, 24, 18, 40, tzinfo=UTC)
"""What time it is when a test begins, for the server and the browser."""

WINDOW: dict[str, Any] = {
    "viewport": {"width": 1280, "height": 800},
    "locale": "en-GB",
    "timezone_id": "UTC",
    "service_workers": "block",
}
"""What opens Lumso while its server is away is tried in test_offline.py; elsewhere each page is on its own."""

KEEPS = "cookies,indexeddb,local_storage,cache_storage,service_workers"


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    found = next(p for p in ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium") if Path(p).exists())
    return {"executable_path": found, "args": [*CHROMIUM, ALONE]}


@pytest.fixture(scope="session")
def lumso(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Running]:
    """The one server of this worker."""
    running = Running(tmp_path_factory.mktemp("lumso"), clock=TUESDAY.timestamp())
    yield running
    running.end()


@pytest.fixture
def empty(lumso: Running) -> Running:
    """A Lumso with nothing in it."""
    lumso.back("empty")
    return lumso


@pytest.fixture
def loft(lumso: Running) -> Running:
    """A Lumso with the demo jobs."""
    lumso.back("loft")
    return lumso


@contextmanager
def nothing_leaves(window: BrowserContext) -> Iterator[None]:
    """Every request of a window is for this machine, and no page of it breaks."""
    away: list[str] = []
    broken: list[str] = []
    local = ("http://127.0.0.1:", "https://127.0.0.1:", "data:", "blob:")
    events: list[tuple[Any, Callable[[Any], None]]] = [
        ("request", lambda request: None if request.url.startswith(local) else away.append(request.url)),
        ("weberror", lambda said: broken.append(str(said.error))),
        ("console", lambda said: broken.append(said.text) if "Content Security Policy" in said.text else None),
    ]
    for name, heard in events:
        window.on(name, heard)
    yield
    for name, heard in events:
        window.remove_listener(name, heard)
    assert away == []
    assert broken == []


@pytest.fixture(scope="session")
def window(browser: Browser) -> Iterator[BrowserContext]:
    """The one window of this worker."""
    made = browser.new_context(**WINDOW)
    made.clock.install(time=TUESDAY)
    made.clock.resume()
    yield made
    made.close()


@pytest.fixture
def context(window: BrowserContext, lumso: Running) -> Iterator[BrowserContext]:
    """The window, without anything that a page kept in it."""
    blank = window.new_page()
    blank.context.new_cdp_session(blank).send(
        "Storage.clearDataForOrigin", {"origin": lumso.url, "storageTypes": KEEPS}
    )
    window.clock.set_system_time(TUESDAY)
    blank.close()
    with nothing_leaves(window):
        yield window
        for page in window.pages:
            page.close()


@pytest.fixture
def page(context: BrowserContext) -> Page:
    """A page in it."""
    page = context.new_page()
    page.set_default_timeout(20_000)
    return page


Opens = Callable[..., Page]
"""Opens a page in a window of its own, made with what is named."""


@pytest.fixture
def another(browser: Browser) -> Iterator[Opens]:
    """Pages in windows of their own: another device, or one with a service worker or a clock to be turned."""
    with_pages: list[Any] = []

    def opened(**more: Any) -> Page:
        made = browser.new_context(**{**WINDOW, **more})
        watch = nothing_leaves(made)
        watch.__enter__()
        with_pages.append((made, watch))
        page = made.new_page()
        page.set_default_timeout(20_000)
        return page

    yield opened
    for made, watch in with_pages:
        watch.__exit__(None, None, None)
        made.close()


T = TypeVar("T")


def until(page: Page, ask: Callable[[], T], holds: Callable[[T], bool]) -> T:
    """What is asked of the server, as soon as it is so. The page goes on meanwhile."""
    patience = time.monotonic() + 20
    while not holds(found := ask()):
        assert time.monotonic() < patience, f"It never came to be: {found!r}"
        page.evaluate("() => new Promise((done) => requestAnimationFrame(() => done(0)))")
    return found


def nothing_waits(page: Page) -> None:
    """All that was entered in this window is with the server."""
    page.wait_for_function(
        """() => new Promise((done) => {
            const asked = indexedDB.open("lumso");
            asked.onsuccess = () => {
                const got = asked.result.transaction("kept").objectStore("kept").get("edits");
                got.onsuccess = () => { asked.result.close(); done(!got.result?.length); };
            };
        })"""
    )


def choose(page: Page, label: str, slug: str) -> None:
    """Another one of a list that is opened where the chosen one stands."""
    page.get_by_role("button", name=re.compile(rf"^{re.escape(label)}: ")).last.click()
    page.locator(f'[role="option"][data-slug="{slug}"]').click()


def put_away(page: Page, name: str) -> None:
    """A job put away, by the menu of its line."""
    page.get_by_role("button", name=f"More with {name}").click()
    page.get_by_role("button", name="Put away", exact=True).click()


def chosen(page: Page, label: str) -> Locator:
    """Where the chosen one of a list stands."""
    return page.get_by_role("button", name=re.compile(rf"^{re.escape(label)}: ")).last


def side(page: Page, name: str, tab: str = "") -> None:
    """Another side of the job, and a tab on it."""
    page.get_by_role("link", name=name, exact=True).click()
    if tab:
        page.get_by_role("tab", name=re.compile(f"^{tab}")).click()
