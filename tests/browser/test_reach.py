"""Everything is in reach: by keyboard alone, on a phone, and for assistive technology."""

from playwright.sync_api import Page, expect

from tests.browser.lumso import Running


def open_rack(page: Page, loft: Running) -> None:
    page.goto(loft.url)
    page.get_by_role("link", name="Go on with it").click()
    page.get_by_role("link", name="Mix", exact=True).click()
    expect(page.get_by_role("button", name="Mix: 46 ml. Show why")).to_be_visible()


def test_water_is_set_and_its_limit_met_by_keyboard_alone(page: Page, loft: Running) -> None:
    open_rack(page, loft)
    for _ in range(40):
        page.keyboard.press("Tab")
        if page.evaluate("document.activeElement.getAttribute('role')") == "slider":
            break
    slider = page.get_by_role("slider", name="Water")
    expect(slider).to_be_focused()
    for _ in range(8):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_text("Over the line.")).to_be_visible()
    expect(slider).to_have_attribute("aria-valuenow", "83")
    page.keyboard.press("Home")
    expect(page.get_by_role("button", name="Water: 0 ml. Show why")).to_be_visible()


def test_the_working_opens_and_closes_by_keyboard(page: Page, loft: Running) -> None:
    open_rack(page, loft)
    page.get_by_role("button", name="Mix: 46 ml. Show why").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_be_hidden()
    expect(page.get_by_role("button", name="Mix: 46 ml. Show why")).to_be_focused()


def test_targets_are_big_enough_for_a_wet_thumb(page: Page, loft: Running) -> None:
    open_rack(page, loft)
    small = page.evaluate(
        """[...document.querySelectorAll('button, select, a, input:not([type=checkbox])')]
        .map(e => [e, e.getBoundingClientRect()])
        .filter(([e, r]) => r.width && (r.height < 43.5 || r.width < 43.5) && !e.closest('label'))
        .map(([e, r]) => `${e.outerHTML.slice(0, 80)} ${r.width}×${r.height}`)"""
    )
    assert [s for s in small if "Skip to the work" not in s] == []
