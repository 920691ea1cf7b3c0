"""A day at the bench, from end to end: what to do now, what was done, what comes late; and the puzzle moved by hand."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.lumso import Running


@pytest.fixture
def evening(loft: Running) -> Running:
    """The loft on a Tuesday evening, where the best days are searched for."""
    loft.order("search", on=True)
    return loft


def later(evening: Running, page: Page, minutes: float) -> None:
    """So many minutes pass for the server and the browser."""
    evening.order("turn", minutes=minutes)
    page.clock.fast_forward(int(minutes * 60_000))


def only(loft: Running, name: str) -> None:
    """Leave one job in the days."""
    body = loft.ask("days/chosen")
    (job,) = [j["id"] for j in body["jobs"] if j["name"] == name]
    chosen = {**body["chosen"], "profile": "", "jobs": [j for j in body["chosen"]["jobs"] if j["job"] == job]}
    loft.ask("days/chosen", chosen, "PUT", If_Match=loft.tag("days/chosen"))


def now(page: Page) -> str:
    return page.get_by_role("article").get_by_role("heading").inner_text()


def press_done(page: Page) -> None:
    """Press Done on what is to be done now, and wait until the next thing is there."""
    says = now(page)
    page.get_by_role("article").get_by_role("button", name=re.compile("^Done: ")).click()
    expect(page.get_by_role("article").get_by_role("heading", name=says, exact=True)).to_have_count(0)


def done(page: Page) -> None:
    """Press Done on what is to be done now, and wait until that is saved and the next thing is there."""
    with page.expect_response(lambda reply: "/api/events/" in reply.url and reply.ok):
        press_done(page)


def test_a_day_is_lived_done_late_and_solved_again(page: Page, evening: Running) -> None:
    only(evening, "Programme rack")
    page.goto(evening.url)
    expect(page.get_by_role("heading", name="At the bench")).to_be_visible()
    assert now(page) == "Sanded to P180"
    expect(page.get_by_role("article").get_by_text("Dust mask", exact=False)).to_be_visible()
    done(page)
    assert now(page) == "Grain raised and cut off"
    page.get_by_role("article").get_by_role("button", name=re.compile("^Begun: ")).click()
    expect(page.get_by_role("article").get_by_role("button", name=re.compile("^Take back: "))).to_be_visible()
    done(page)
    # Two hours until it may be dusted: nobody need stand there.
    later(evening, page, 125)
    page.reload()
    assert now(page) == "Dusted off"
    done(page)
    assert now(page).startswith("Mix paint wash on raw wood")
    expect(page.get_by_role("article").get_by_text("altogether", exact=False)).to_be_visible()
    done(page)
    # A mis-tap is taken back, and is to be done again.
    page.get_by_role("button", name=re.compile("^Take back: Mix")).click()
    expect(page.get_by_role("article").get_by_role("heading", name=re.compile("^Mix paint wash"))).to_be_visible()
    done(page)
    # The phone, and three days: what was mixed lives four hours.
    later(evening, page, 3 * 24 * 60)
    page.reload()
    expect(page.get_by_text(re.compile("Too late for “Rub in the paint wash on raw wood"))).to_be_visible()
    expect(page.get_by_text(re.compile("Planned instead: Mix it again"))).to_be_visible()
    expect(page.get_by_role("article").get_by_role("heading", name=re.compile("again$"))).to_be_visible()


def test_what_is_done_while_the_server_is_away_is_kept_and_counts_when_it_is_back(page: Page, evening: Running) -> None:
    only(evening, "Programme rack")
    page.goto(evening.url)
    expect(page.get_by_role("article")).to_be_visible()
    page.wait_for_load_state("networkidle")
    evening.stop()
    press_done(page)
    assert now(page) == "Grain raised and cut off"
    press_done(page)
    expect(page.get_by_role("link", name="2 kept here")).to_be_visible()
    evening.start()
    expect(page.get_by_role("link", name="2 kept here")).to_have_count(0)
    page.reload()
    assert now(page) == "Dusted off"


def test_the_puzzle_is_moved_by_keyboard_and_solved_round_it(page: Page, evening: Running) -> None:
    only(evening, "Programme rack")
    page.goto(f"{evening.url}/days")
    expect(page.get_by_text(re.compile("Nothing better for what you asked"))).to_be_visible()
    mixing = page.get_by_role("button", name=re.compile("Mix paint wash on raw wood"))
    mixing.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Why then:")).to_be_visible()
    choice = page.get_by_label("Only in")
    choice.focus()
    saturday = choice.get_by_role("option").filter(has_text="Sat 28 Nov, 14:00–17:00")
    choice.select_option(value=saturday.get_attribute("value"))
    visit = page.get_by_role("region", name=re.compile("^Sat 28 Nov"))
    expect(visit.get_by_role("button", name=re.compile("Mix paint wash on raw wood.*pinned"))).to_be_visible()
    expect(page.get_by_text(re.compile("Nothing better for what you asked"))).to_be_visible()
    # The fewest visits: all that comes before it is done on Saturday, too.
    expect(visit.get_by_role("button", name=re.compile("^16:22.*Mix paint wash"))).to_be_visible()
    page.get_by_role("button", name="15 min earlier").focus()
    page.keyboard.press("Enter")
    expect(visit.get_by_role("button", name=re.compile("^16:07.*Mix paint wash.*pinned"))).to_be_visible()
    page.reload()
    mixing = page.get_by_role("button", name=re.compile("^16:07.*Mix paint wash.*pinned"))
    mixing.click()
    page.get_by_role("button", name="Let it go").click()
    expect(page.get_by_role("button", name=re.compile("Mix paint wash.*pinned"))).to_have_count(0)


def test_a_promise_says_when_to_begin_and_what_would_have_to_give(page: Page, evening: Running) -> None:
    only(evening, "Programme rack")
    page.goto(f"{evening.url}/days")
    page.get_by_text("Dates and order").click()
    page.get_by_label("Programme rack is promised for").fill("2026-12-12T18:00")
    expect(page.get_by_text(re.compile("Begin by .* at the latest"))).to_be_visible()
    page.get_by_label("Programme rack is promised for").fill("2026-11-27T08:00")
    expect(page.get_by_text(re.compile("later than promised"))).to_be_visible()
    expect(page.get_by_text(re.compile("Handed over finished, not yet fit for use"))).to_be_visible()


def test_hours_that_cannot_be_are_refused_at_their_place_and_stay(page: Page, evening: Running) -> None:
    page.goto(f"{evening.url}/days")
    until = page.get_by_label("Monday, until")
    until.fill("17:00")
    expect(page.get_by_role("alert").filter(has_text="On Monday it closes before it opens")).to_be_visible()
    expect(until).to_have_value("17:00")
    until.fill("22:00")
    expect(page.get_by_role("alert").filter(has_text="On Monday")).to_have_count(0)
