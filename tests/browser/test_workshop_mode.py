"""Another device in the workshop: with and without the code, over http and encrypted, at a name that is no loopback."""

import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserType, Page, expect

from lumso.tls import certificate
from tests.browser.lumso import Running
from tests.waiting import until

NAME = "loft.example"


@pytest.fixture(params=["http", "https"])
def house(request: pytest.FixtureRequest, tmp_path: Path) -> Iterator[Running]:
    """A Lumso in workshop mode, known in the house by a name."""
    tls = None
    if request.param == "https":
        tls = [str(file) for file in certificate(tmp_path / "tls", {NAME, "127.0.0.1"})[:2]]
    house = Running(tmp_path, names=[NAME], reach=f"{request.param}://{NAME}", tls=tls)
    house.back("loft")
    yield house
    house.end()


@pytest.fixture
def elsewhere(browser_type: BrowserType, browser_type_launch_args: dict[str, Any]) -> Iterator[Browser]:
    """A browser on another device: it finds the house by its name."""
    args = [
        *browser_type_launch_args["args"],
        f"--host-resolver-rules=MAP {NAME} 127.0.0.1",
        "--ignore-certificate-errors",
    ]  # as one that trusts the authority: what opens it while it is away, too
    browser = browser_type.launch(**{**browser_type_launch_args, "args": args})
    yield browser
    browser.close()


def device(browser: Browser) -> Page:
    """A device that trusts the authority of the house, and keeps what it keeps to itself."""
    page = browser.new_context(ignore_https_errors=True, viewport={"width": 390, "height": 844}).new_page()
    page.set_default_timeout(20_000)
    return page


def test_a_device_enters_with_the_code_works_and_is_turned_out(house: Running, elsewhere: Browser) -> None:
    tablet, phone = device(elsewhere), device(elsewhere)

    # Without the code there is nothing but the question.
    tablet.goto(house.reach)
    expect(tablet.get_by_role("heading", name="This workshop asks for its code")).to_be_visible()
    assert tablet.evaluate("fetch('/api/jobs').then((r) => r.status)") == 401
    tablet.get_by_label("The code").fill("mofa mofa mofa mofa")
    tablet.get_by_label("What this device is called").fill("Tablet at the bench")
    tablet.get_by_role("button", name="Enter").click()
    expect(tablet.get_by_role("alert")).to_contain_text("That is not the code")
    tablet.get_by_label("The code").fill(house.code.upper())
    tablet.get_by_role("button", name="Enter").click()
    expect(tablet.get_by_role("link", name="Go on with it")).to_be_visible()
    expect(tablet.get_by_text("This device looks only")).to_be_visible()
    tablet.goto(f"{house.reach}/kept")
    expect(tablet.get_by_text("are for one that keeps the workshop")).to_be_visible()

    # Scanned, the code is gone from the address at once. Raised by whoever keeps the workshop, it lets others in.
    phone.goto(f"{house.reach}/#code={house.code.replace(' ', '-')}")
    expect(phone.get_by_role("link", name="Go on with it")).to_be_visible()
    assert "#" not in phone.url
    assert phone.evaluate("document.cookie") == "", "no script reads the token"
    (mine,) = [d for d in house.ask("workshop-mode")["devices"] if d["name"] == "Computer"]
    house.ask(f"devices/{mine['id']}", {"kind": "keeps"}, "PUT")

    # Everything works there, also where the browser gives plain http less.
    phone.reload()
    phone.get_by_role("link", name="Go on with it").click()
    phone.get_by_label("Name of the job").fill("From the phone")
    expect(phone.get_by_text("Saved", exact=True)).to_be_visible()
    phone.goto(f"{house.reach}/kept")
    devices = phone.get_by_role("region", name="Other devices")
    expect(devices.get_by_role("button", name=re.compile("^Turn out"))).to_have_count(2)
    expect(devices.get_by_text("Wrong codes since Lumso was started: the last 1")).to_be_visible()
    expect(devices.get_by_text("Not encrypted")).to_have_count(0 if house.scheme == "https" else 1)
    expect(devices.get_by_text(re.compile("This device cannot"))).to_have_count(0 if house.scheme == "https" else 1)
    assert phone.evaluate("document.documentElement.scrollWidth") <= 390
    devices.get_by_label("What Tablet at the bench may do").select_option("works")
    expect(devices.get_by_label("What Tablet at the bench may do")).to_have_value("works")

    # Turned out while it has something unsaved: it is told so; what was never sent is sealed on it.
    tablet.goto(house.reach)
    tablet.get_by_role("link", name="Go on with it").click()
    tablet.get_by_label("Name of the job").wait_for()
    tablet.wait_for_load_state("networkidle")
    answers = "caches.keys().then((all) => all.some((k) => k.startsWith('lumso-answers')))"
    if house.scheme == "https":
        until(lambda: tablet.evaluate(answers))
    tablet.context.set_offline(True)  # or whatever it asks for next would tell it first
    phone.get_by_role("button", name="Turn out Tablet at the bench").click()
    expect(devices.get_by_role("button", name=re.compile("^Turn out"))).to_have_count(1)
    tablet.get_by_label("Name of the job").fill("Entered while it was out")
    expect(tablet.get_by_text("On this device only", exact=True)).to_be_visible()
    tablet.context.set_offline(False)
    expect(tablet.get_by_text("and what it kept is gone from it")).to_be_visible()
    expect(tablet.get_by_text("One thing that was entered here and never sent waits, sealed")).to_be_visible()
    kept = tablet.evaluate("'caches' in window ? caches.keys().then((k) => k.join()) : ''")
    assert kept == ("lumso-shell" if house.scheme == "https" else "")

    # Let in again with a code that lets it work, it sends what it kept.
    devices.get_by_role("button", name="Make one").click()
    one = devices.get_by_role("status").filter(has_text="For one device").locator(".numeral").inner_text()
    tablet.reload()
    tablet.get_by_label("The code").fill(one)
    tablet.get_by_role("button", name="Enter").click()
    until(lambda: any(j["name"] == "Entered while it was out" for j in house.ask("jobs")["jobs"]))


def test_the_machine_itself_is_never_asked_and_shows_the_code(page: Page, tmp_path: Path) -> None:
    house = Running(tmp_path, reach="http://192.168.1.20")
    house.back("loft")
    page.goto(f"{house.url}/kept")
    devices = page.get_by_role("region", name="Other devices")
    expect(devices.get_by_text(house.code)).to_be_visible()
    expect(devices.get_by_text(house.reach)).to_be_visible()
    page.goto("about:blank")
    house.end()
