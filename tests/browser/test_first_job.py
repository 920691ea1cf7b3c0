"""From an empty database to amounts on the screen, and back again by undo, also after a restart."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import choose, side
from tests.browser.lumso import Running
from tests.browser.states import CHANGES


def amount(page: Page, name: str) -> str:
    label = page.get_by_role("button", name=re.compile(rf"^{name}: .* ml")).get_attribute("aria-label")
    assert label
    return label.split(": ")[1].split(" ml")[0]


def test_from_nothing_to_amounts_reload_restart_undo(page: Page, empty: Running) -> None:
    page.goto(empty.url)
    expect(page.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
    page.get_by_role("link", name="New job").click()
    page.get_by_role("combobox", name="What is it?").fill("board")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Take the usual sizes").click()
    page.get_by_role("combobox").fill("raw pine")
    page.keyboard.press("Enter")
    page.get_by_role("combobox").fill("paint wash on raw wood")
    page.keyboard.press("Enter")
    side(page, "Piece")
    page.get_by_role("textbox", name="Length").fill("1 m")
    page.get_by_role("textbox", name="Width").fill("0,5 m")
    page.get_by_role("textbox", name="Thickness").fill("20")
    expect(page.get_by_role("button", name="Area to coat: 0.56 m². Show why")).to_be_visible()
    page.get_by_role("link", name="Mix", exact=True).click()
    expect(page.get_by_role("button", name="Mix: 46 ml. Show why")).to_be_visible()
    assert (amount(page, "Paint"), amount(page, "Water")) == ("12", "35")

    choose(page, "Your measuring tools", "us-spoons")
    expect(page.get_by_text("2 × 1 tsp")).to_be_visible()
    page.get_by_role("button", name=re.compile("28 % over")).click()
    expect(page.get_by_text("3 × 1 tbsp")).to_be_visible()
    page.get_by_label("Units").select_option("us")
    expect(page.get_by_role("img", name="baby-food jar").get_by_text("2 tbsp")).to_be_visible()
    page.get_by_role("button", name="Water: 35 ml. Show why").click()
    why = page.get_by_role("dialog")
    expect(why.get_by_text("Clings to the pot")).to_be_visible()
    expect(why.get_by_text("0.56 m² × 60 ml/m²")).to_be_visible()
    page.keyboard.press("Escape")

    page.get_by_role("button", name="Coats: more").click()
    expect(page.get_by_role("button", name="Mix: 92 ml. Show why")).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    expect(page.get_by_role("button", name="Mix: 92 ml. Show why")).to_be_visible()
    side(page, "Piece")
    expect(page.get_by_role("textbox", name="Width")).to_have_value("0,5 m")
    side(page, "Mix")

    empty.stop()
    empty.start()
    page.reload()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Mix: 46 ml. Show why")).to_be_visible()
    page.get_by_role("button", name="Redo").click()
    expect(page.get_by_role("button", name="Mix: 92 ml. Show why")).to_be_visible()

    page.get_by_role("link", name="Lumso").click()
    expect(page.get_by_role("heading", name="Mix 92 ml of paint wash on raw wood")).to_be_visible()


def test_bad_lengths_stay_in_their_field_with_what_is_allowed(page: Page, loft: Running) -> None:
    page.goto(loft.url)
    page.get_by_role("link", name="Go on with it").click()
    side(page, "Piece")
    length = page.get_by_role("textbox", name="Length")
    for typed, says in [
        ("wide", "for example 750, 75 cm"),
        ("0", "is 0 mm"),
        ("-4", "below zero"),
        ("400 m", "10 mm to 6 m"),
    ]:
        length.fill(typed)
        expect(page.get_by_role("alert").filter(has_text=says)).to_be_visible()
        expect(length).to_have_value(typed)
        expect(length).to_have_attribute("aria-invalid", "true")
    length.fill("1,250")
    page.get_by_role("button", name="1250", exact=True).click()
    expect(page.get_by_role("button", name="Area to coat: 0.7 m². Show why")).to_be_visible()
    length.blur()
    expect(length).to_have_value("1250 mm")


def test_an_edit_made_while_the_server_is_away_is_saved_when_it_is_back(page: Page, loft: Running) -> None:
    page.goto(loft.url)
    page.get_by_role("link", name="Go on with it").click()
    page.get_by_role("link", name="Mix", exact=True).click()
    expect(page.get_by_role("button", name="Mix: 46 ml. Show why")).to_be_visible()
    loft.stop()
    page.get_by_role("button", name="Coats: more").click()
    expect(page.get_by_text("On this device only", exact=True)).to_be_visible()
    loft.start()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible(timeout=10_000)
    page.reload()
    expect(page.get_by_role("button", name="Mix: 92 ml. Show why")).to_be_visible()


def test_two_windows_on_one_job_lose_neither_version(page: Page, loft: Running) -> None:
    page.goto(loft.url)
    page.get_by_role("link", name="Go on with it").click()
    expect(page.get_by_label("Name of the job")).to_have_value("Programme rack")
    other = page.context.new_page()
    other.goto(page.url)
    # What is done here does not get through until the other is saved: else each would see the other's.
    page.route(CHANGES, lambda route: route.abort())
    page.get_by_label("Name of the job").fill("Mine")
    other.get_by_label("Name of the job").fill("Theirs")
    expect(other.get_by_text("Saved", exact=True)).to_be_visible()
    page.unroute(CHANGES)
    expect(page.get_by_role("dialog", name="This job was changed elsewhere")).to_be_visible()
    page.get_by_role("button", name="Keep mine").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_label("Name of the job")).to_have_value("Theirs")


def test_an_old_job_keeps_what_was_weighed_for_it_until_the_book_s_is_taken(page: Page, loft: Running) -> None:
    old = Path(__file__).parents[1] / "formats" / "old" / "job-3.json"
    page.goto(loft.url)
    page.locator('input[type="file"]').first.set_input_files(old)
    side(page, "Piece")
    kept = page.get_by_text("3 entries as this job had them")
    kept.click()
    expect(page.get_by_text("bulk density: 0.66 here, 0.75 in the book")).to_be_visible()
    page.get_by_role("button", name="Take milk-paint powder from the book").click()
    expect(kept).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(kept).to_be_visible()
