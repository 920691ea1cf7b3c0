"""Whole tasks with the keyboard alone."""

from playwright.sync_api import Page, expect

from tests.browser.lumso import Running


def tab_to(page: Page, name: str, most: int = 60) -> None:
    """Press Tab until what has the focus is called `name`."""
    for _ in range(most):
        page.keyboard.press("Tab")
        label = page.evaluate(
            "(e => e.getAttribute('aria-label') || (/^(A|BUTTON)$/.test(e.tagName) && e.innerText)"
            " || (e.labels && e.labels[0] && e.labels[0].innerText)"
            " || '')(document.activeElement)"
        )
        if label.strip().startswith(name):
            return
    raise AssertionError(f"{name!r} cannot be reached by keyboard")


def test_a_quick_pot_takes_three_presses_by_keyboard_and_escape_leaves(page: Page, empty: Running) -> None:
    page.goto(empty.url)
    expect(page.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
    tab_to(page, "Quick pot")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog", name="Quick pot")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog", name="Quick pot")).to_be_hidden()
    expect(page.get_by_role("button", name="Quick pot")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("combobox", name="Which mix?")).to_be_focused()
    page.keyboard.type("colour wash over")
    page.keyboard.press("Enter")
    tab_to(page, "100")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Mix: 100 ml. Show why")).to_be_visible()


def test_the_skip_link_leads_to_the_work(page: Page, empty: Running) -> None:
    page.goto(empty.url)
    expect(page.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
    page.keyboard.press("Tab")
    expect(page.get_by_role("link", name="Skip to the work")).to_be_focused()
    page.keyboard.press("Enter")
    assert page.url.endswith("#main")


def test_two_recipes_are_compared_by_keyboard(page: Page, empty: Running) -> None:
    page.goto(f"{empty.url}/book")
    expect(page.get_by_label("Compare Colour wash over paint")).to_be_visible()
    for recipe in ("Compare Colour wash over paint", "Compare Stacked wash"):
        tab_to(page, recipe)
        page.keyboard.press("Space")
    page.get_by_role("button", name="Lay the two side by side").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Side by side")).to_be_visible()


def test_a_name_can_be_emptied_and_typed_anew(page: Page, loft: Running) -> None:
    page.goto(loft.url)
    page.get_by_role("link", name="Go on with it").click()
    name = page.get_by_label("Name of the job")
    name.fill("")
    expect(page.get_by_role("alert")).to_contain_text("It needs a name")
    name.fill("Rack by the stage door")
    expect(page.get_by_role("alert")).to_be_hidden()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    expect(name).to_have_value("Rack by the stage door")
