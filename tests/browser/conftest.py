"""A real server on a real database file, the built interface, real Chromium; no request leaves the machine."""

import re
import socket
import threading
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
import uvicorn
from axe_playwright_python.sync_playwright import Axe
from fastapi import FastAPI
from fastapi.concurrency import run_in_threadpool
from playwright.sync_api import Locator, Page, Route, expect

from lumso.api.context import Context
from lumso.catalogue import shipped
from lumso.core.days.settle import Ask, settle
from lumso.core.days.view import days_of
from lumso.demo import seed
from lumso.store.database import Database

expect.set_options(timeout=15_000)  # patience for a busy machine; tests do not assert times
CHROMIUM = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]
CHROMIUM += ["--disable-component-update", "--disable-sync"]


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    return {"executable_path": "/usr/bin/chromium", "args": CHROMIUM}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    # What opens Lumso while its server is away is tried in test_offline.py; elsewhere each page is on its own.
    return {"viewport": {"width": 1280, "height": 800}, "locale": "en-GB", "service_workers": "block"}


@dataclass
class Running:
    """A Lumso that can be stopped and started again on the same file, on the same port."""

    data: Path
    with_demo: bool
    app: FastAPI
    port: int = 0
    cert: Path | None = None
    key: Path | None = None

    def start(self) -> None:
        self.db = Database(self.data)
        if self.with_demo:
            seed(self.db, shipped())
        self.app.state.context = Context(self.db, shipped())
        listener = socket.socket()
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        listener.bind(("127.0.0.1", self.port))
        listener.listen(64)
        self.port = listener.getsockname()[1]
        self.server = uvicorn.Server(
            uvicorn.Config(self.app, log_level="error", ssl_certfile=self.cert, ssl_keyfile=self.key)
        )
        self.app.state.leaving = lambda: self.server.should_exit
        self.thread = threading.Thread(target=self.server.run, kwargs={"sockets": [listener]})
        self.thread.start()

    def stop(self) -> None:
        self.server.should_exit = True
        self.thread.join()
        self.db.close()

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"


def _running(data: Path, with_demo: bool, app: FastAPI) -> Iterator[Running]:
    lumso = Running(data, with_demo, app)
    lumso.start()
    yield lumso
    lumso.stop()


@pytest.fixture
def empty(tmp_path: Path, app: FastAPI) -> Iterator[Running]:
    """A fresh Lumso with nothing in it."""
    yield from _running(tmp_path / "empty.sqlite3", with_demo=False, app=app)


@pytest.fixture
def loft(tmp_path: Path, app: FastAPI) -> Iterator[Running]:
    """A Lumso with the demo jobs."""
    yield from _running(tmp_path / "loft.sqlite3", with_demo=True, app=app)


class AtOnce:
    """In place of the search for the best days, which takes a core for seconds whenever Today is opened: the days found
    at once. What is searched for is tried in `test_days.py`, with the search itself."""

    async def run(self, request: object, work: Callable[[Any], Any], ask: Any) -> Any:
        if isinstance(ask, Ask):
            return await run_in_threadpool(lambda: days_of(settle(ask)))
        return await run_in_threadpool(work, ask)


@pytest.fixture(autouse=True)
def days_at_once(request: pytest.FixtureRequest, app: FastAPI) -> Iterator[None]:
    solver = app.state.solver
    if not request.module.__name__.endswith("test_days"):
        app.state.solver = AtOnce()
    yield
    app.state.solver = solver


@pytest.fixture(autouse=True)
def nothing_leaves_the_machine(page: Page) -> Iterator[None]:
    away: list[str] = []
    broken: list[str] = []

    def only_local(route: Route) -> None:
        if route.request.url.startswith(("http://127.0.0.1:", "data:", "blob:")):
            route.continue_()
        else:
            away.append(route.request.url)
            route.abort()

    page.set_default_timeout(20_000)
    page.route("**/*", only_local)
    page.on("pageerror", lambda error: broken.append(str(error)))
    page.on("console", lambda said: broken.append(said.text) if "Content Security Policy" in said.text else None)
    yield
    assert away == []
    assert broken == []


def serious(page: Page) -> list[str]:
    """What axe finds serious or critical on the page as it stands."""
    found = Axe().run(page).response["violations"]
    return [
        f"{v['id']}: {node['html'][:120]}"
        for v in found
        if v["impact"] in {"serious", "critical"}
        for node in v["nodes"]
    ]


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
