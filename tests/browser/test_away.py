"""The server stopped while somebody works: everything that was entered is there when it is back."""

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import choose, chosen, side
from tests.browser.lumso import Running
from tests.browser.states import CHANGES
from tests.browser.test_finish import layers
from tests.browser.test_piece import open_job


def row(page: Page, name: str) -> None:
    """Press the row of a layer."""
    rows = page.get_by_role("list", name="Layers, the last coat first").get_by_role("button")
    rows.filter(has_text=re.compile(rf"^\d+\. {name}")).first.click()


def add(page: Page, recipe: str) -> None:
    choose(page, "Another layer, on top", recipe)


def test_layers_added_swapped_moved_and_taken_out_while_the_server_is_away(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    assert layers(page) == ["Paint wash on raw wood", "Clear coat"]
    expect(page.get_by_role("region", name="The stack")).to_be_visible()
    page.wait_for_load_state("networkidle")
    loft.stop()

    add(page, "milk-paint")
    expect(
        page.get_by_text(re.compile("On this device only, not yet with the workshop: a layer added"))
    ).to_be_visible()
    assert layers(page) == ["Paint wash on raw wood", "Clear coat", "Milk paint"]
    row(page, "Milk paint")
    choose(page, "Mix", "paint-plain")
    page.get_by_role("button", name="Down", exact=True).click()
    assert layers(page) == ["Paint wash on raw wood", "Paint", "Clear coat"]
    page.get_by_role("button", name="Coats: more").click()
    add(page, "clear-wax-plain")
    row(page, "Clear coat")
    page.get_by_role("button", name="Remove", exact=True).click()
    side(page, "Piece", "Zones")
    choose(page, "Ground", "painted-unsealed")
    side(page, "Finish")
    add(page, "dark-wax")
    page.get_by_role("button", name="Undo").click()
    assert layers(page) == ["Paint wash on raw wood", "Paint", "Clear wax"]
    expect(page.get_by_text(re.compile("amounts are from before your last change"))).to_be_visible()
    # Its other sides are there all the same: they were fetched with the job.
    page.get_by_role("link", name="Mix", exact=True).click()
    expect(page.get_by_role("region", name="The mix")).to_be_visible()

    loft.start()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible(timeout=20_000)
    page.reload()
    page.get_by_role("link", name="Finish", exact=True).click()
    expect(page.get_by_role("button", name=re.compile("^2. Paint"))).to_be_visible()
    assert layers(page) == ["Paint wash on raw wood", "Paint", "Clear wax"]
    row(page, "Paint")
    expect(chosen(page, "Put on")).to_have_accessible_name("Put on: brushed on")
    expect(page.get_by_role("group", name="Coats")).to_contain_text("2")
    side(page, "Piece", "Zones")
    expect(chosen(page, "Ground")).to_have_accessible_name("Ground: painted, not sealed")
    # Undo goes on from there.
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_a_closed_tab_loses_nothing_that_was_entered_while_the_server_was_away(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    address = page.url
    page.wait_for_load_state("networkidle")
    loft.stop()
    add(page, "milk-paint")
    expect(page.get_by_text(re.compile("not yet with the workshop"))).to_be_visible()
    page.goto("about:blank")
    loft.start()
    page.goto(address)
    expect(page.get_by_role("button", name=re.compile("^3. Milk paint"))).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible(timeout=20_000)
    assert layers(page) == ["Paint wash on raw wood", "Clear coat", "Milk paint"]


def test_an_edit_that_lumso_refuses_stands_beside_the_job_with_what_was_entered(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    refusal = '{"type":"about:blank","title":"Unfit","status":422,"detail":"No such mix.","faults":[]}'
    page.route(CHANGES, lambda route: route.fulfill(status=422, body=refusal, content_type="application/json"))
    add(page, "milk-paint")
    alert = page.get_by_role("alert").filter(has_text="Not done: a layer added.")
    expect(alert).to_contain_text("No such mix.")
    assert layers(page) == ["Paint wash on raw wood", "Clear coat"]
    page.unroute(CHANGES)
    page.get_by_role("button", name="Try it again").click()
    expect(page.get_by_role("button", name=re.compile("^3. Milk paint"))).to_be_visible()
    expect(alert).to_be_hidden()


def test_a_length_typed_while_the_server_is_away_is_read_when_it_is_back(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    side(page, "Piece")
    width = page.get_by_role("textbox", name="Width", exact=True)
    expect(width).to_be_visible()
    page.wait_for_load_state("networkidle")
    address = page.url
    loft.stop()
    width.fill("62 cm")
    expect(page.get_by_text("it is read when Lumso answers")).to_be_visible()
    width.blur()
    expect(page.get_by_text(re.compile("On this device only, not yet with the workshop: width 62 cm"))).to_be_visible()
    page.goto("about:blank")
    loft.start()
    page.goto(address)
    expect(page.get_by_text("Saved", exact=True)).to_be_visible(timeout=20_000)
    expect(width).to_have_value("62 cm")
