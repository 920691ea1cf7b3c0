"""The mix sheet: batches in order, pooled, tried otherwise, printed, and found again by their code."""

import io
import re
from pathlib import Path

from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.browser.lumso import Running
from tests.browser.test_piece import open_job


def open_sheet(page: Page, loft: Running, name: str) -> None:
    open_job(page, loft, name)
    page.get_by_role("link", name="Sheet", exact=True).click()
    expect(page.get_by_role("list", name="Batches, the first to mix first")).to_be_visible()


def test_batches_stand_in_order_and_open_with_their_pot(page: Page, loft: Running) -> None:
    open_sheet(page, loft, "Costume wardrobe")
    batches = page.get_by_role("list", name="Batches, the first to mix first").get_by_role("button")
    expect(batches).to_have_count(2)
    expect(batches.first).to_contain_text("Milk paint")
    batch = page.get_by_role("region", name="The batch")
    expect(batch.get_by_text("10 min, then stir again")).to_be_visible()
    expect(batch.get_by_text("Keep about")).to_be_visible()
    expect(batch.get_by_role("button", name=re.compile("^Milk-paint powder: .* ml. Show why"))).to_be_visible()
    batches.nth(1).focus()
    page.keyboard.press("Enter")
    expect(batch.get_by_role("heading", name="Clear coat")).to_be_visible()
    page.get_by_text("What it all takes").click()
    expect(page.get_by_role("row", name=re.compile("^Milk-paint powder stage-door green"))).to_be_visible()
    page.get_by_text("Pooled: 2").click()
    expect(page.get_by_text(re.compile("ml less than each alone")).first).to_be_visible()


def test_other_jobs_join_the_sheet(page: Page, loft: Running) -> None:
    open_sheet(page, loft, "Programme rack")
    page.get_by_text("other jobs", exact=True).click()
    page.get_by_label("Hat stand").check()
    expect(
        page.get_by_role("list", name="Batches, the first to mix first").get_by_text(re.compile("Hat stand: Post"))
    ).not_to_have_count(0)


def test_what_if_is_tried_before_it_is_kept(page: Page, loft: Running) -> None:
    open_sheet(page, loft, "Programme rack")
    page.get_by_role("button", name=re.compile("^Coats: Rack board, Paint wash on raw wood: more")).click()
    table = page.get_by_role("table", name="The sheet as it is, and as it would be")
    expect(table.get_by_role("row", name=re.compile("^to mix"))).to_contain_text("114 ml")
    expect(table.get_by_role("row", name=re.compile("^to mix"))).to_contain_text("160 ml")
    page.get_by_role("button", name="As it was").click()
    expect(table).to_be_hidden()
    page.get_by_label("Another kit").select_option("us-spoons")
    batch = page.get_by_role("region", name="The batch")
    expect(batch.get_by_text(re.compile("tsp")).first).to_be_visible()
    page.get_by_role("button", name="As it was").click()
    expect(page.get_by_label("Another kit")).not_to_have_value("us-spoons")
    page.get_by_role("button", name="Margin: less").click()
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.get_by_role("link", name="Mix", exact=True).click()
    expect(page.get_by_role("button", name="Mix: 44 ml. Show why")).to_be_visible()


def test_cards_are_printed_and_a_batch_is_found_by_its_code(page: Page, loft: Running, tmp_path: Path) -> None:
    open_sheet(page, loft, "Costume wardrobe")
    page.get_by_label("Paper").select_option("letter")
    with page.expect_download() as download:
        page.get_by_role("button", name="Mixing cards").click()
    path = tmp_path / "cards.pdf"
    download.value.save_as(path)
    text = PdfReader(io.BytesIO(path.read_bytes())).pages[0].extract_text()
    code = re.findall(r"\b[a-z]{4}-\d\d\b", text)[0]
    expect(page.get_by_text("The batches are kept as printed")).to_be_visible()
    page.goto(f"{loft.url}/b/{code}")
    expect(page.get_by_text(code)).to_be_visible()
    expect(page.get_by_role("heading", name="Milk paint")).to_be_visible()
    expect(page.get_by_text("in the kit “Drawer in the paint loft”")).to_be_visible()
    expect(page.get_by_text("blue cup").first).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Mix: ")).first).to_be_visible()
    page.get_by_role("link", name="To the job as it is now").click()
    expect(page.get_by_label("Name of the job")).to_have_value("Costume wardrobe")
    page.goto(f"{loft.url}/b/zuzu-99")
    expect(page.get_by_text("There is no batch 'zuzu-99'.")).to_be_visible()


def test_a_dragged_panel_shows_its_sections(page: Page, loft: Running) -> None:
    open_sheet(page, loft, "Proscenium panels")
    batches = page.get_by_role("list", name="Batches, the first to mix first")
    batches.get_by_role("button", name=re.compile("Scumble glaze, dragged")).click()
    expect(page.get_by_role("heading", name="Keeping a wet edge")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("in 1 sections, strokes down"))).to_be_visible()
