"""A whole rehearsal: at a desk, on a phone, by keyboard alone; what is waited for comes out, what is hurried shows."""

import re

import pytest
from playwright.sync_api import Page, ViewportSize, expect

from tests.browser.lumso import Running
from tests.browser.test_tasks import DESK, PHONE, Hands

NOT_YET = re.compile(r"^(Wet|Still|The shine|Matt|Paler)")


def settled(page: Page, before: str) -> None:
    """What came of a press is there."""
    expect(page.locator("main [data-waits]")).to_have_count(0)
    expect(page.locator("main")).not_to_have_text(before, use_inner_text=True)


@pytest.mark.parametrize(("size", "keys"), [(DESK, False), (PHONE, False), (DESK, True)])
def test_a_rack_is_rehearsed_by_the_sign_then_hurried_from_the_clear_coat_on(
    page: Page, loft: Running, size: ViewportSize, keys: bool
) -> None:
    page.set_viewport_size(size)
    hands = Hands(page, keys)
    page.goto(f"{loft.url}/jobs/{loft.job('Programme rack')}")
    hands.press(page.get_by_role("link", name="Rehearse"))
    status, key = page.locator("main").get_by_role("status").first, page.locator("main .press-strong")
    expect(page.get_by_role("heading", name="Rehearsal Programme rack")).to_be_visible()
    for _ in range(60):
        expect(page.locator("main img").first).to_be_visible()
        if page.get_by_role("heading", name="It came out as planned").count():
            break
        before = page.locator("main").inner_text()
        if NOT_YET.match(status.inner_text()):
            hands.press(page.get_by_role("button", name=re.compile("^Watch")))
        else:
            hands.press(key.first)
        settled(page, before)
    expect(page.get_by_role("heading", name="It came out as planned")).to_be_visible()
    expect(page.get_by_role("img", name="The board as planned")).to_be_visible()
    row = page.get_by_role("row").filter(has_text="Pour off clear coat")
    hands.press(row.get_by_role("button", name="Again from here"))
    page.get_by_role("button", name=re.compile("^One back")).wait_for()
    hands.press(page.get_by_role("button", name=re.compile("^One back")))
    expect(status).to_have_text(NOT_YET)
    for _ in range(2):
        before = page.locator("main").inner_text()
        hands.press(key.first)
        settled(page, before)
    wrong = page.get_by_role("region", name="Went wrong")
    expect(wrong).to_contain_text("shut water into")
    expect(wrong).to_contain_text("What mends it")
    page.reload()
    expect(wrong).to_contain_text("shut water into")
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
