"""The finish: from the library onto a zone, warned, mended, accepted, reordered, copied, and read as steps."""

import re
from pathlib import Path

from playwright.sync_api import FloatRect, Locator, Page, Request, Route, expect

from tests.browser.conftest import choose, chosen, side
from tests.browser.lumso import Running
from tests.browser.states import CHANGES
from tests.browser.test_piece import open_job


def layers(page: Page) -> list[str]:
    """The names of the layers, the first coat first."""
    listed = page.get_by_role("list", name="Layers, the last coat first")
    listed.wait_for(state="attached")  # the side of a job is fetched when it is opened
    rows = listed.get_by_role("button")
    return [text.split("\n")[0].split(". ", 1)[1] for text in reversed(rows.all_inner_texts())]


def test_a_finish_goes_on_with_what_its_ground_needs_and_undo_takes_it_off(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    side(page, "Piece", "Zones")
    choose(page, "Ground", "slick")
    side(page, "Finish")
    expect(page.get_by_role("button", name=re.compile("1 will fail"))).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.get_by_role("button", name="Finish library").click()
    library = page.get_by_role("dialog", name="Finish library")
    expect(library.get_by_text("h of work a m²").first).to_be_visible()
    expect(library.get_by_role("button", name=re.compile("^Chippy milk paint"))).to_be_visible()
    library.get_by_role("button", name=re.compile("^Dragged linen")).click()
    expect(page.get_by_text("For this ground and use:")).to_be_visible()
    assert layers(page)[:3] == ["Bonding primer", "Paint", "Clear coat"]
    expect(page.get_by_role("button", name=re.compile("Nothing here will fail"))).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name=re.compile("1 will fail"))).to_be_visible()
    assert layers(page) == ["Paint wash on raw wood", "Clear coat"]


def test_a_wrong_neighbour_is_found_mended_with_one_press_or_meant(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    stack = page.get_by_role("region", name="The stack")
    for number, recipe in ((3, "clear-wax-plain"), (4, "paint-plain")):
        choose(page, "Another layer, on top", recipe)
        expect(stack.get_by_role("button", name=re.compile(f"^{number}. "))).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.get_by_role("tab", name=re.compile("What goes wrong")).click()
    wax = page.get_by_role("article", name="will fail: Paint over wax will not hold.")
    expect(wax).to_contain_text("Nothing with water in it holds on wax")
    wax.get_by_role("button", name="Move clear wax to the top").click()
    expect(wax).to_be_hidden()
    assert layers(page) == ["Paint wash on raw wood", "Clear coat", "Paint", "Clear wax"]
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(wax).to_be_visible()
    wax.get_by_role("button", name="Accept this").click()
    meant = page.get_by_role("article", name="accepted: Paint over wax will not hold.")
    meant.get_by_label("Accepted, because").fill("it is to peel, for the storm scene")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    page.get_by_role("tab", name=re.compile("What goes wrong")).click()
    expect(meant.get_by_label("Accepted, because")).to_have_value("it is to peel, for the storm scene")
    meant.get_by_role("button", name="No longer accept").click()
    expect(wax).to_be_visible()


def standing(page: Page, what: Locator) -> FloatRect:
    """Where something is, once all that was asked is answered and drawn."""
    page.wait_for_load_state("networkidle")
    page.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(0))))")
    found = what.bounding_box()
    assert found
    return found


def test_layers_are_moved_by_keyboard_and_by_dragging_duplicated_and_removed(page: Page, loft: Running) -> None:
    open_job(page, loft, "Hat stand")
    before = layers(page)
    assert before == ["Milk paint", "Milk paint", "Clear coat"]
    page.get_by_role("button", name=re.compile("^3. Clear coat")).focus()
    page.keyboard.press("Alt+ArrowDown")
    expect(page.get_by_role("button", name=re.compile("^2. Clear coat"))).to_be_visible()
    # What the move makes go wrong is said above the stack, and pushes it down: it is dragged once that stands.
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    handles = page.get_by_title("Drag to another place in the stack")
    box, top = standing(page, handles.nth(1)), standing(page, handles.nth(0))
    page.mouse.move(box["x"] + 8, box["y"] + 20)
    page.mouse.down()
    page.mouse.move(top["x"] + 8, top["y"] + 6, steps=4)
    page.mouse.up()
    expect(page.get_by_role("button", name=re.compile("^3. Clear coat"))).to_be_visible()
    assert layers(page) == before
    page.get_by_role("button", name="Duplicate").click()
    expect(page.get_by_role("heading", name="Layer 4 of 4")).to_be_visible()
    page.get_by_role("button", name="Remove").click()
    expect(page.get_by_role("heading", name="Layer 3 of 3")).to_be_visible()


def test_a_stack_is_copied_to_the_other_zones(page: Page, loft: Running) -> None:
    open_job(page, loft, "Ticket counter")
    assert len(layers(page)) == 4
    page.get_by_role("button", name="Copy stack to…").focus()
    page.keyboard.press("Enter")
    page.get_by_role("menuitem", name="Doors").focus()
    page.keyboard.press("Enter")
    page.get_by_role("complementary", name="The piece").get_by_role("button", name="Doors").click()
    expect(page.get_by_role("region", name="The stack").get_by_role("heading", name="Doors")).to_be_visible()
    # The copy is the server's answer: the rows are the doors' own until it is there.
    expect(page.get_by_role("button", name=re.compile("^3. Glaze, brushed out or sponged"))).to_be_visible()
    assert layers(page)[2] == "Glaze, brushed out or sponged"


def test_the_advisers_answer_and_their_sealer_can_be_taken(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    side(page, "Piece", "Use")
    page.get_by_label("water", exact=True).check()
    side(page, "Finish", "Ask")
    expect(page.get_by_role("heading", name="Which sealer?")).to_be_visible()
    page.get_by_role("button", name="Seal it with hard clear coat").click()
    expect(page.get_by_role("button", name=re.compile("^2. Hard clear coat"))).to_be_visible()
    expect(page.get_by_role("heading", name="Which grit?")).to_be_visible()
    assert layers(page) == ["Paint wash on raw wood", "Hard clear coat"]


def test_the_room_makes_waits_longer_and_too_cold_a_room_is_told(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    page.get_by_role("button", name=re.compile("^2. Clear coat")).click()
    expect(page.get_by_text(re.compile("^2 h. Sands to powder"))).to_be_visible()
    side(page, "Piece", "Use")
    page.get_by_label("The room, warm").fill("12")
    page.get_by_label("and humid").fill("75")
    side(page, "Finish")
    page.get_by_role("button", name=re.compile("^2. Clear coat")).click()
    expect(page.get_by_text(re.compile("^6¾ h. Sands to powder"))).to_be_visible()
    side(page, "Piece", "Use")
    page.get_by_label("The room, warm").fill("6")
    side(page, "Finish")
    expect(page.get_by_role("button", name=re.compile("1 will fail"))).to_be_visible()


def test_the_steps_tell_the_kit_the_order_the_checks_and_the_cautions(page: Page, loft: Running) -> None:
    open_job(page, loft, "Costume wardrobe")
    page.get_by_role("link", name="Steps").click()
    expect(page.get_by_text(re.compile("^All it takes"))).to_be_visible()
    expect(page.get_by_text("Before anything else.")).to_be_visible()
    steps = page.get_by_role("region", name="The steps")
    headings = steps.get_by_role("heading", level=3)
    expect(headings.nth(0)).to_have_text("Lay out")
    expect(headings.nth(1)).to_have_text("BodyDoorsTested for lead")
    # One pot for body and doors, its colour and its parts named; the caution in full once, then in short.
    mixing = steps.get_by_role("listitem").filter(has=page.get_by_role("heading", name=re.compile("^Mix milk paint")))
    expect(mixing).to_have_count(1)
    expect(mixing).to_contain_text("for body and doors together")
    expect(mixing).to_contain_text("milk-paint powder")
    expect(steps.get_by_text("Milk-paint powder is caustic: gloves")).to_have_count(1)
    expect(headings.filter(has_text="Doors").first).to_be_visible()
    before = headings.count()
    page.get_by_role("button", name="Only body").click()
    expect(headings.filter(has_text=re.compile("^Doors"))).to_have_count(0)
    assert headings.count() < before


def test_a_job_goes_out_as_a_file_and_comes_back_as_another(page: Page, loft: Running, tmp_path: Path) -> None:
    open_job(page, loft, "Foyer bench")
    side(page, "Piece")
    with page.expect_download() as download:
        page.get_by_role("link", name="Save the job as a file").click()
    path = tmp_path / "bench.json"
    download.value.save_as(path)
    page.get_by_role("link", name="Lumso").click()
    page.get_by_label("Job file to open").set_input_files(path)
    expect(page.get_by_label("Name of the job")).to_have_value("Foyer bench")
    assert layers(page) == ["Liming wax"]
    page.get_by_role("link", name="Lumso").click()
    expect(page.get_by_role("link", name=re.compile("^Foyer bench"))).to_have_count(2)
    path.write_text("{}")
    page.get_by_label("Job file to open").set_input_files(path)
    expect(page.get_by_role("alert")).to_contain_text("is not a job")


def test_what_will_fail_is_told_on_opening_and_leads_to_the_finish(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    side(page, "Piece", "Zones")
    choose(page, "Ground", "slick")
    side(page, "Finish")
    expect(page.get_by_role("button", name=re.compile("1 will fail"))).to_be_visible()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.get_by_role("link", name="Lumso").click()
    expect(page.get_by_role("heading", name=re.compile("it will not hold"))).to_be_visible()
    page.get_by_role("link", name="Go on with it").click()
    expect(page.get_by_role("region", name="The stack")).to_be_visible()


def test_edits_made_while_the_server_thinks_are_not_lost(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    held: list[Route] = []
    page.route(CHANGES, lambda route: held.append(route))
    choose(page, "Mix", "milk-paint-wash")
    page.get_by_role("button", name="Coats: more").click()
    for route in held:  # the answer comes only now, after the other edit
        route.continue_()
    page.unroute(CHANGES)
    expect(chosen(page, "Mix")).to_have_accessible_name(
        re.compile("Milk paint as a wash|Milk-paint wash|Milk paint wash")
    )
    expect(page.get_by_role("group", name="Coats").get_by_role("status")).to_have_text("2")


def test_an_edit_is_one_short_trip_and_seen_on_another_tablet(page: Page, loft: Running) -> None:
    open_job(page, loft, "Programme rack")
    tablet = page.context.new_page()
    open_job(tablet, loft, "Programme rack")
    note = tablet.get_by_label("Name of the job")
    sent: list[Request] = []
    page.on("request", lambda r: sent.append(r) if r.method != "GET" else None)
    page.get_by_role("button", name="Coats: more").click()
    coats = page.get_by_role("group", name="Coats").get_by_role("status")
    expect(coats).to_have_text("2")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    trips = [r for r in sent if "/api/jobs/" in r.url or r.url.endswith(("/api/edits", "/api/plan"))]
    assert [r.url.partition("?")[0].rpartition("/")[2] for r in trips] == ["changes"]
    assert len(trips[0].post_data_buffer or b"") < 2000
    # The other sees it by itself, and keeps what it is typing.
    expect(tablet.get_by_role("group", name="Coats").get_by_role("status")).to_have_text("2")
    note.fill("Rack by the door")
    expect(page.get_by_label("Name of the job")).to_have_value("Rack by the door")
    # What is undone here leaves what was done there.
    page.get_by_role("button", name=re.compile("^Undo")).click()
    expect(coats).to_have_text("1")
    expect(tablet.get_by_role("group", name="Coats").get_by_role("status")).to_have_text("1")
    expect(note).to_have_value("Rack by the door")
    tablet.close()
