"""The recipe book, the kit and the shelf: whole tasks."""

import json
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.lumso import Running


def test_a_recipe_is_found_scaled_from_what_is_left_and_mixed(page: Page, empty: Running) -> None:
    page.goto(f"{empty.url}/book")
    page.get_by_label("Look for").fill("milk")
    page.get_by_role("link", name=re.compile("^Milk paint Milk-paint powder")).click()
    expect(page.get_by_role("heading", name="Milk paint", exact=True)).to_be_visible()
    expect(page.get_by_text("Milk-paint powder is caustic")).to_be_visible()
    page.get_by_role("button", name="what is left of a part").click()
    page.get_by_label("left", exact=True).fill("120")
    expect(page.get_by_role("button", name="Mix: 158 ml. Show why")).to_be_visible()
    expect(page.get_by_text("The powder closes up when wet")).to_be_visible()
    page.get_by_role("button", name="Mix this pot").click()
    expect(page.get_by_label("Name of the job")).to_have_value("Pot of milk paint")


def test_a_copy_is_changed_refused_as_crumbs_and_mended(page: Page, empty: Running) -> None:
    page.goto(f"{empty.url}/book/salt-wash")
    page.get_by_role("button", name="Copy as my own").click()
    name = page.get_by_label("Name", exact=True)
    expect(name).to_have_value("My salt wash")
    name.fill("Loft salt wash")
    amount = page.get_by_label("Amount").nth(1)
    amount.fill("2")
    expect(page.get_by_role("alert")).to_contain_text("crumbs, not paint")
    expect(amount).to_have_value("2")
    amount.fill("0.5")
    expect(page.get_by_role("alert")).to_be_hidden()
    page.get_by_label("also written as").nth(1).fill("50")
    expect(page.get_by_text("written as 50% of the whole")).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.goto(f"{empty.url}/book")
    expect(page.get_by_role("region", name="Your own").get_by_text("Loft salt wash")).to_be_visible()


def test_a_scoop_of_ones_own_is_measured_with(page: Page, empty: Running) -> None:
    page.goto(f"{empty.url}/kit")
    page.get_by_role("button", name="Copy as another kit").click()
    expect(page.get_by_label("Name of the kit")).to_have_value("Metric spoons and cup, mine")
    page.get_by_label("What you call it").fill("blue cup")
    page.get_by_role("region", name="mine").get_by_label("holds").last.fill("125,5")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_role("button", name="Take out blue cup")).to_be_visible()
    page.get_by_role("button", name="Measure with this kit").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.goto(f"{empty.url}/book/colour-wash")
    page.get_by_label("Finished mix").fill("251")
    expect(page.get_by_text("1 × blue cup")).to_have_count(2)


def test_weighing_a_level_cup_changes_the_amounts_and_is_put_back(page: Page, empty: Running) -> None:
    page.goto(f"{empty.url}/shelf")
    page.get_by_role("button", name="texture powder").click()
    page.get_by_label("weighs").fill("9000")
    page.get_by_role("button", name="Use it").click()
    expect(page.get_by_role("alert")).to_contain_text("cannot be right")
    page.get_by_label("weighs").fill("162.5")
    page.get_by_role("button", name="Use it").click()
    put_back = page.get_by_role("button", name="Use the starting value again: 0.6")
    expect(put_back).to_be_visible()
    expect(page.get_by_text(re.compile("^measured, 2"))).to_be_visible()
    put_back.click()
    expect(put_back).to_be_hidden()


def test_a_file_is_taken_up_once_and_a_clash_asks(page: Page, loft: Running, tmp_path: Path) -> None:
    page.goto(f"{loft.url}/kit")
    with page.expect_download() as download:
        page.get_by_role("link", name="Save as a file").click()
    path = tmp_path / "kits.json"
    download.value.save_as(path)
    page.get_by_label("File to take up").set_input_files(path)
    expect(page.get_by_text("nothing to change")).to_be_visible()
    theirs = json.loads(path.read_text())
    theirs["kits"][0]["name"] = "Their drawer"
    path.write_text(json.dumps(theirs))
    page.get_by_label("File to take up").set_input_files(path)
    page.get_by_role("button", name="Take the file’s").click()
    expect(page.get_by_label("Name of the kit")).to_have_value("Their drawer")
    path.write_text('{"format": "shopping list"}')
    page.get_by_label("File to take up").set_input_files(path)
    expect(page.get_by_role("alert")).to_contain_text("/format")


def test_four_pots_of_salt_wash_each_with_its_colours(page: Page, loft: Running) -> None:
    page.goto(loft.url)
    page.get_by_role("link", name="Prop chest").click()
    page.get_by_role("link", name="Mix", exact=True).click()
    page.get_by_role("tab", name="Sea").click()
    pot = page.get_by_role("tabpanel")
    expect(pot.get_by_text("Footlight green")).to_be_visible()
    expect(pot.get_by_text("Gaslight white")).to_be_visible()
    page.get_by_role("button", name="Another pot").click()
    expect(page.get_by_role("tablist", name="Pots").get_by_role("tab")).to_have_count(5)
    page.get_by_role("textbox", name="Share").first.fill("90")
    expect(page.get_by_role("alert")).to_contain_text("of the surface")


def test_a_material_of_ones_own_goes_on_the_shelf_and_into_a_recipe(page: Page, empty: Running) -> None:
    page.goto(f"{empty.url}/shelf")
    own = page.get_by_role("form", name="A paint or material of your own")
    own.get_by_label("What you call it").fill("Stage-door grey")
    own.get_by_role("button", name="Put it on the shelf").click()
    shelf = page.get_by_role("region", name="On the shelf", exact=True)
    expect(shelf.get_by_role("button", name="Stage-door grey")).to_be_visible()
    shelf.get_by_label("On hand").fill("300")
    expect(shelf.get_by_role("button", name=re.compile("Stage-door grey.*300 ml"))).to_be_visible()
    page.goto(f"{empty.url}/book/colour-wash")
    page.get_by_role("button", name="Copy as my own").click()
    page.get_by_label("Add a part").select_option(label="Stage-door grey")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("Stage-door grey"))).to_be_visible()
    page.goto(f"{empty.url}/shelf")
    shelf.get_by_role("button", name="Stage-door grey").click()
    page.get_by_role("button", name="Take off the shelf").click()
    expect(page.get_by_role("alert")).to_contain_text("My colour wash over paint is mixed from it")


def open_rack(page: Page, loft: Running) -> None:
    page.goto(loft.url)
    page.get_by_role("link", name=re.compile("^Programme rack")).click()
    expect(page.get_by_label("Name of the job")).to_have_value("Programme rack")


def test_what_a_label_says_of_a_coat_counts_in_jobs_and_can_be_put_back(page: Page, loft: Running) -> None:
    page.goto(f"{loft.url}/shelf")
    labels = page.get_by_role("region", name="What labels say")
    labels.get_by_label("Which").select_option("clear-coat")
    labels.get_by_role("button", name="Known better: Next coat from").click()
    labels.get_by_label("Next coat from is").fill("1")
    labels.get_by_label("Next coat from is").fill("240")
    labels.get_by_role("button", name="Keep").click()
    known = labels.get_by_role("list", name="Known better")
    expect(known).to_contain_text("indoor clear coat, next coat from: 4 h")
    open_rack(page, loft)
    expect(page.get_by_role("button", name=re.compile("^2. Clear coat.*wait 4 h"))).to_be_visible()
    page.goto(f"{loft.url}/shelf")
    known.get_by_role("button").first.click()
    labels.get_by_role("button", name="Use the starting value again: Next coat from").click()
    expect(known).to_have_count(0)
    open_rack(page, loft)
    expect(page.get_by_role("button", name=re.compile(r"^2. Clear coat.*wait\s2\sh"))).to_be_visible()


def test_what_cannot_be_read_is_kept_as_a_file_and_taken_out(page: Page, loft: Running) -> None:
    loft.order("keep", kind="kit", slug="old-drawer", document='{"slug": "old-drawer"}')
    page.goto(loft.url)
    notice = page.get_by_role("alert").filter(has_text="The kit old-drawer cannot be read")
    expect(notice).to_contain_text("'name' is missing")
    expect(page.get_by_role("link", name="Go on with it")).to_be_visible()
    with page.expect_download() as saving:
        notice.get_by_role("button", name="Keep kit old-drawer as a file").press("Enter")
    assert saving.value.path().read_text() == '{"slug": "old-drawer"}'
    notice.get_by_role("button", name="Take kit old-drawer out").press("Enter")
    expect(notice).to_be_hidden()
    page.reload()
    expect(page.get_by_role("link", name="Go on with it")).to_be_visible()
    expect(notice).to_be_hidden()
