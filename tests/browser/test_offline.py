"""Opened while the server is away: the last plan, today's steps, and what is older than what is shown says so."""

import re

from playwright.sync_api import expect

from tests.browser.conftest import Opens
from tests.browser.lumso import Running


def test_lumso_opens_with_what_it_last_showed_while_its_server_is_away(another: Opens, loft: Running) -> None:
    page = another(service_workers="allow", viewport={"width": 390, "height": 800})
    page.goto(loft.url)
    page.evaluate("navigator.serviceWorker.ready")
    page.reload()  # from here on what is asked is kept
    page.get_by_role("link", name="Programme rack").first.click()
    expect(page.get_by_label("Name of the job")).to_have_value("Programme rack")
    job = page.url
    page.get_by_role("link", name="Steps", exact=True).click()
    step = page.get_by_text("Rub in the paint wash on raw wood").first
    expect(step).to_be_visible()
    page.get_by_role("link", name="Mix", exact=True).click()
    expect(page.get_by_role("button", name="Mix: 46 ml. Show why")).to_be_visible()
    page.wait_for_function("caches.keys().then((names) => names.some((n) => n.startsWith('lumso-answers-')))")

    loft.stop()
    page.goto(job)
    expect(page.get_by_label("Name of the job")).to_have_value("Programme rack")
    expect(page.get_by_text(re.compile("You see what it said on"))).to_be_visible()
    page.get_by_role("link", name="Steps", exact=True).click()
    expect(step).to_be_visible()
    page.goto(f"{loft.url}/")
    expect(page.get_by_text("Programme rack").first).to_be_visible()

    loft.start()
    expect(page.get_by_text(re.compile("You see what it said on"))).to_have_count(0, timeout=10_000)


def test_the_shopping_list_opens_in_the_shop_and_what_is_ticked_there_stands_in_the_workshop_after(
    another: Opens, loft: Running
) -> None:
    page = another(service_workers="allow", viewport={"width": 390, "height": 800})
    page.goto(loft.url)
    page.evaluate("navigator.serviceWorker.ready")
    page.reload()
    page.goto(f"{loft.url}/buying")
    expect(page.get_by_text("Still to pay")).to_be_visible(timeout=30_000)
    page.wait_for_load_state("networkidle")
    page.wait_for_function("caches.keys().then((names) => names.some((n) => n.startsWith('lumso-answers-')))")

    loft.stop()
    page.goto(f"{loft.url}/buying")
    tick = page.get_by_role("button", name=re.compile("^Bought: clear coat", re.IGNORECASE))
    tick.click()
    expect(page.get_by_text("bought, kept here until the workshop answers")).to_be_visible()
    page.goto(f"{loft.url}/buying")  # the phone was put away, and taken out again
    expect(page.get_by_role("button", name=re.compile("^Not bought: clear coat", re.IGNORECASE))).to_be_visible()
    expect(tick).to_have_count(0)

    loft.start()
    expect(page.get_by_text("kept here until the workshop answers")).to_have_count(0, timeout=20_000)
    lots = page.request.get(f"{loft.url}/api/buying/list").json()["lots"]
    assert [x["lot"]["size"] for x in lots if x["lot"]["item"] == "clear-coat"] == [750]


def test_copies_of_one_workshop_are_not_shown_in_another(another: Opens, loft: Running) -> None:
    page = another(service_workers="allow")
    page.goto(loft.url)
    page.evaluate("navigator.serviceWorker.ready")
    page.reload()
    expect(page.get_by_role("heading", name="Jobs")).to_be_visible()
    page.wait_for_function("caches.keys().then((names) => names.some((n) => n.startsWith('lumso-answers-')))")
    kept = "caches.keys().then((names) => names.filter((n) => n.startsWith('lumso-answers-')))"
    first = page.evaluate(kept)

    loft.stop()
    loft.back("empty")
    page.goto(loft.url)
    expect(page.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
    page.wait_for_function(f"{kept}.then((names) => !names.includes({first[0]!r}))")
