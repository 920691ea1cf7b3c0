"""A pot with no piece: three presses, and it can become a job."""

from playwright.sync_api import Page, expect

from tests.browser.conftest import side
from tests.browser.lumso import Running


def test_three_presses_to_a_pot_and_on_to_a_piece(page: Page, empty: Running) -> None:
    page.goto(empty.url)
    page.get_by_role("button", name="Quick pot").click()
    page.get_by_role("option", name="Colour wash over paint").click()
    page.get_by_role("button", name="250 ml").click()
    expect(page.get_by_role("button", name="Mix: 250 ml. Show why")).to_be_visible()
    expect(page.get_by_role("button", name="Paint: 125 ml. Show why")).to_be_visible()

    page.get_by_role("button", name="Put it on a piece").click()
    side(page, "Piece")
    page.get_by_role("textbox", name="Length").fill("60 cm")
    page.get_by_role("textbox", name="Width").fill("60 cm")
    page.get_by_role("textbox", name="Thickness").fill("18")
    expect(page.get_by_role("button", name="Area to coat: 0.4 m². Show why")).to_be_visible()


def test_another_amount_can_be_typed(page: Page, empty: Running) -> None:
    page.goto(empty.url)
    page.get_by_role("button", name="Quick pot").click()
    page.get_by_role("option", name="Whitewash, dry-wiped brush").click()
    page.get_by_label("Another amount").fill("no idea")
    expect(page.get_by_role("alert")).to_contain_text("1 to 200000 ml")
    page.get_by_label("Another amount").fill("80")
    page.get_by_role("button", name="Mix 80 ml").click()
    expect(page.get_by_role("button", name="Mix: 80 ml. Show why")).to_be_visible()
