"""The eye: what it will look like, moved and watched, compared, matched, tried on a board and learned from."""

import re
from pathlib import Path

from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import until
from tests.browser.lumso import Running
from tests.browser.test_piece import open_job
from tests.test_photographs import scene, sent


def look_at(page: Page, loft: Running, job: str) -> Locator:
    """The side of the look of a job, once its picture is there."""
    open_job(page, loft, job)
    page.get_by_role("link", name="Look", exact=True).click()
    picture = page.get_by_role("region", name="What it will look like").get_by_role("img").first
    expect(picture).to_have_attribute("src", re.compile("^blob:"))
    return picture


def drawn(picture: Locator) -> str:
    """What a picture shows, as its own pixels say."""
    expect(picture).not_to_have_class(re.compile("opacity"))
    text: str = picture.evaluate(
        """async (img) => {
            await img.decode();
            const c = new OffscreenCanvas(24, 24).getContext('2d');
            c.drawImage(img, 0, 0, 24, 24);
            return [...c.getImageData(0, 0, 24, 24).data].map((v) => v >> 3).join();
        }"""
    )
    return text


def test_what_is_moved_is_seen_kept_and_compared(page: Page, loft: Running) -> None:
    picture = look_at(page, loft, "Programme rack")
    before = drawn(picture)
    page.get_by_role("tab", name="Compare").click()
    page.get_by_label("Keep what is planned now as").fill("Strong")
    page.get_by_role("button", name="Keep it").click()
    looks = page.get_by_role("list").filter(has_text="Planned now")
    expect(looks.get_by_text("Strong", exact=True)).to_be_visible()
    page.get_by_role("tab", name="Move").click()
    page.get_by_role("button", name="Left after wiping: less").click()
    page.get_by_role("button", name="Left after wiping: less").click()
    expect(page.get_by_text("60 %", exact=True).first).to_be_visible()
    page.wait_for_function(
        "(old) => document.querySelector('figure img')?.src !== old", arg=picture.get_attribute("src")
    )
    page.get_by_role("button", name="put dark wax on").click()
    expect(page.get_by_role("button", name="dark wax, on")).to_be_visible()
    expect(page.get_by_role("list", name="From bare ground to last layer").get_by_text("Tinted wax")).to_be_visible()
    until(page, lambda: drawn(picture), lambda now: now != before)
    page.get_by_role("tab", name="Compare").click()
    looks.get_by_role("button", name="Take this one").click()
    expect(looks.get_by_text("The one before")).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    expect(page.get_by_role("list", name="From bare ground to last layer").get_by_text("Tinted wax")).to_be_hidden()


def test_a_colour_is_matched_from_the_shelf_and_the_layer_mixed_of_it(page: Page, loft: Running) -> None:
    look_at(page, loft, "Programme rack")
    page.get_by_role("tab", name="Match a colour").click()
    field = page.get_by_label("or typed")
    field.fill("#8aa0")
    expect(page.get_by_text("is no colour.")).to_be_visible()
    expect(field).to_have_value("#8aa0")
    field.fill("#8aa09a")
    expect(page.get_by_text("Wanted: light blue green grey.")).to_be_visible()
    first = page.get_by_role("listitem").filter(has_text="Mix layer 1 of these").first
    expect(first).to_contain_text("No difference to be seen")
    expect(first).to_contain_text("In your spoons")
    first.get_by_role("button", name="Mix layer 1 of these").click()
    page.get_by_role("link", name="Mix", exact=True).click()
    expect(page.get_by_role("region", name="The pot").get_by_text("trapdoor teal")).to_be_visible()


def test_a_board_is_made_judged_photographed_and_its_winner_taken(page: Page, loft: Running, tmp_path: Path) -> None:
    look_at(page, loft, "Programme rack")
    page.get_by_role("tab", name="Test board").click()
    expect(page.get_by_text("Raw wood takes colour as it likes.")).to_be_visible()
    page.get_by_role("button", name="water 80 %").click()
    page.get_by_role("button", name=re.compile("Make a board of 4 strips")).click()
    strips = page.get_by_role("region", name="Strips")
    expect(strips.get_by_role("button", name=re.compile("A water"))).to_be_visible()
    expect(page.get_by_text("One pot for all strips")).to_be_visible()
    strips.get_by_role("button", name=re.compile("^.*C water")).click()
    page.get_by_role("button", name="as wanted").click()
    page.get_by_role("button", name=re.compile("chip 2 of 5")).click()
    expect(page.get_by_text("nearest chip, within ΔE 3")).to_be_visible()
    expect(page.get_by_text("From 1 strip: this layer hides")).to_be_visible()
    picture = tmp_path / "strip.jpg"
    picture.write_bytes(sent(scene()))
    page.get_by_role("button", name="From a photograph").click()
    page.get_by_label(re.compile("A photograph, with a white card")).set_input_files(picture)
    expect(page.get_by_role("img", name="The strip, photographed")).to_be_visible()
    page.get_by_role("button", name="Take the colour").click()
    expect(page.get_by_text("photograph, within ΔE 4")).to_be_visible()
    (tmp_path / "none.jpg").write_bytes(b"no picture")
    page.get_by_label("Another photograph").set_input_files(tmp_path / "none.jpg")
    expect(page.get_by_role("alert")).to_contain_text("no photograph that can be read")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.get_by_role("button", name=re.compile("^Take strip C into Programme rack")).click()
    expect(page.get_by_text("Strip C is planned on rack board now")).to_be_visible()
    with page.expect_download() as printed:
        page.get_by_role("button", name="Layout at 1:1, A4").click()
    assert printed.value.suggested_filename.endswith("layout.pdf")
    page.get_by_role("link", name="To Programme rack").click()
    page.get_by_role("tab", name="Compare").click()
    expect(page.get_by_text("Before the board", exact=True)).to_be_visible()
