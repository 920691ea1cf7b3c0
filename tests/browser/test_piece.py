"""The piece: chosen, measured, parted into zones, picked on its drawing, and refused where it cannot be."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import choose, side
from tests.browser.lumso import Running

CHEST = {
    "Width": "90 cm",
    "Height": "85 cm",
    "Depth": "45 cm",
    "Top, thickness": "20",
    "Rails between drawers": "20",
    "Plinth": "80",
}


def new_chest(page: Page, lumso: Running) -> None:
    begun(page, lumso, form="chest-of-drawers", ground="raw-pine", recipe="paint-wash-raw-wood")
    for label, typed in CHEST.items():
        page.get_by_role("textbox", name=label, exact=True).fill(typed)


def open_job(page: Page, loft: Running, name: str) -> None:
    page.goto(f"{loft.url}/jobs/{loft.job(name)}")
    expect(page.get_by_label("Name of the job")).to_have_value(name)


def begun(page: Page, lumso: Running, **start: str) -> None:
    """A new job, at its piece."""
    job = page.request.post(f"{lumso.url}/api/jobs/start", data=start).json()
    page.goto(f"{lumso.url}/jobs/{job['id']}/piece")
    expect(page.get_by_role("region", name="The piece")).to_be_visible()


def test_a_chest_is_measured_and_its_zones_follow_from_its_kind(page: Page, empty: Running) -> None:
    new_chest(page, empty)
    # top 0.9 × 0.45 and its edges 1.8 × 0.02
    expect(page.get_by_role("button", name="Area to coat: 0.44 m². Show why")).to_be_visible()
    page.get_by_role("tab", name="Zones (3)").click()
    zones = page.get_by_role("list", name="Zones")
    expect(zones.get_by_role("button")).to_have_text(
        [re.compile("^Top"), re.compile("^Body"), re.compile("^Drawer fronts")]
    )
    zones.get_by_role("button", name="Drawer fronts").click()
    expect(page.get_by_label("Name of the zone")).to_have_value("Drawer fronts")
    page.get_by_label("Relief").select_option("carved")
    expect(page.get_by_role("button", name=re.compile("Area to coat: .* m². Show why"))).to_be_visible()
    page.get_by_role("button", name=re.compile("Area to coat: ")).click()
    expect(page.get_by_role("dialog").get_by_text("With relief")).to_be_visible()


def test_a_drawer_wider_than_its_chest_is_refused_at_the_rail_and_nothing_is_lost(page: Page, empty: Running) -> None:
    new_chest(page, empty)
    rail = page.get_by_role("textbox", name="Rails between drawers")
    rail.fill("19 cm")
    expect(page.get_by_role("alert").filter(has_text="rails of at most")).to_be_visible()
    expect(rail).to_have_value("19 cm")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    expect(page.get_by_role("textbox", name="Rails between drawers")).to_have_value("19 cm")
    page.get_by_role("textbox", name="Rails between drawers").fill('3/4"')
    expect(page.get_by_role("button", name=re.compile("^Area to coat: "))).to_be_visible()


def test_a_zone_is_picked_on_the_drawing_and_has_its_own_stack(page: Page, loft: Running) -> None:
    open_job(page, loft, "Prop chest")
    stack = page.get_by_role("region", name="The stack")
    expect(stack.get_by_role("heading", name="Lid")).to_be_visible()
    drawing = page.locator("svg[aria-label^='The piece']:visible")
    drawing.locator("polygon").nth(1).click()
    expect(stack.get_by_role("heading", name="Body")).to_be_visible()


def test_a_size_is_edited_in_the_drawing_s_own_callout(page: Page, loft: Running) -> None:
    open_job(page, loft, "Prop chest")
    side(page, "Piece")
    page.get_by_role("button", name='Change width, 43 1/2"').click()
    field = page.locator("[data-callout]").get_by_role("textbox", name="Length")
    expect(field).to_be_focused()
    field.fill("1,2 m")
    page.keyboard.press("Enter")
    expect(field).to_be_hidden()
    callout = page.get_by_role("button", name="Change width, 1,2 m")
    expect(callout).to_be_visible()
    callout.focus()
    page.keyboard.press("Enter")
    expect(field).to_be_focused()
    page.keyboard.press("Escape")
    expect(field).to_be_hidden()


def test_a_piece_is_built_from_parts(page: Page, empty: Running) -> None:
    begun(page, empty, ground="raw-pine", recipe="paint-wash-raw-wood")
    choose(page, "Piece", "parts")
    expect(page.get_by_text("nothing to coat yet").first).to_be_visible()
    page.get_by_label("Another part").fill("Knob")
    page.get_by_label("Shape").select_option("ball")
    page.get_by_role("tabpanel", name="Sizes").get_by_role("button", name="Add", exact=True).click()
    page.get_by_role("textbox", name="Knob, diameter").fill("400 m")
    expect(page.get_by_role("alert").filter(has_text="1 mm to 30 m")).to_be_visible()
    page.get_by_role("textbox", name="Knob, diameter").fill("20 cm")
    expect(page.get_by_role("button", name="Area to coat: 0.13 m². Show why")).to_be_visible()
    page.get_by_role("button", name="How many: more").click()
    # two balls: 2 × π × 0.2² = 0.2513 m²
    expect(page.get_by_role("button", name="Area to coat: 0.25 m². Show why")).to_be_visible()
    page.get_by_role("button", name="Take out Knob").click()
    expect(page.get_by_text("nothing to coat yet").first).to_be_visible()


def test_a_surface_gets_a_zone_of_its_own_by_keyboard_and_is_merged_back(page: Page, loft: Running) -> None:
    open_job(page, loft, "Costume wardrobe")
    side(page, "Piece")
    page.get_by_role("tab", name="Zones (2)").focus()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Make Plinth a separate zone").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("tab", name="Zones (3)")).to_be_visible()
    expect(page.get_by_label("Name of the zone")).to_have_value("Plinth")
    page.get_by_role("button", name="Merge Plinth into Body").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("tab", name="Zones (2)")).to_be_visible()


def test_what_is_left_bare_says_why(page: Page, loft: Running) -> None:
    open_job(page, loft, "Costume wardrobe")
    side(page, "Piece", "Zones")
    surfaces = page.get_by_role("list", name="Surfaces")
    inside = surfaces.get_by_role("listitem").filter(has_text="Inside").first
    expect(inside.get_by_label("why")).to_have_value("inside left as it is")
    surfaces.get_by_label("Sides: zone").select_option("")
    sides = surfaces.get_by_role("listitem").filter(has_text="Sides").first
    sides.get_by_label("why").fill("stands in a niche")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    expect(sides.get_by_label("why")).to_have_value("stands in a niche")


def test_a_rough_piece_shows_its_range_and_an_old_finish_its_caution(page: Page, empty: Running) -> None:
    begun(page, empty, ground="raw-pine", recipe="paint-wash-raw-wood")
    choose(page, "Piece", "bookcase")
    page.get_by_label("Measured", exact=True).select_option("medium")
    side(page, "Mix")
    expect(page.get_by_text("Sizes are not all measured. It may turn out")).to_be_visible()
    side(page, "Piece")
    page.get_by_role("textbox", name="Width", exact=True).fill("1,2 m")
    expect(page.get_by_text("until all sizes are measured")).to_be_visible()
    side(page, "Piece", "Zones")
    choose(page, "Ground", "old-matt")
    side(page, "Mix")
    expect(page.get_by_role("note").filter(has_text="Old matt paint may hold lead")).to_have_count(1)
    page.get_by_text("Answer: lead?").click()
    caution = page.get_by_role("group").filter(has_text="No date clears old paint")
    expect(caution.first).to_be_visible()
    caution.first.get_by_label("Lead in what was there before").select_option("none found")
    expect(page.get_by_text("Old matt paint may hold lead")).to_have_count(0)


def test_hinges_are_taken_off_their_surface(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    side(page, "Piece", "Use")
    page.get_by_label("What", exact=True).fill("glue face")
    page.get_by_label("Bare, length").fill("50 cm")
    page.get_by_label("Bare, width").fill("12 cm")
    page.get_by_role("button", name="Keep it bare").click()
    expect(page.get_by_role("button", name="Area to coat: 0.5 m². Show why")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Area to coat: 0.56 m². Show why")).to_be_visible()


def test_the_drawing_is_saved_as_svg(page: Page, loft: Running, tmp_path: Path) -> None:
    open_job(page, loft, "Hat stand")
    side(page, "Piece")
    with page.expect_download() as download:
        page.get_by_role("link", name="Save the drawing").click()
    path = tmp_path / "piece.svg"
    download.value.save_as(path)
    text = path.read_text()
    assert text.startswith("<svg")
    assert text.count("<polygon") >= 14
    assert "1.78 m" in text
