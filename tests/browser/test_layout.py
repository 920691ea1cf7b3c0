"""Stripes on a panel, from the first press to the marks: seen, listed, kept, undone."""

from playwright.sync_api import Page, expect

from tests.browser.lumso import Running


def test_stripes_are_laid_out_even_seen_listed_and_their_amount_follows(page: Page, loft: Running) -> None:
    job = loft.job("Proscenium panels")
    held = page.request.get(f"{loft.url}/api/jobs/{job}").json()
    zone = held["job"]["zones"][1]
    address = f"{loft.url}/jobs/{job}/finish?zone={zone['id']}&layer={zone['layers'][2]['id']}&tab=layout"
    page.goto(address)
    panel = page.get_by_role("region", name="Panel 1.1")
    expect(panel).to_contain_text("asked. The same from both edges.")
    page.get_by_label("there and back: the same from both edges").uncheck()
    expect(panel).to_contain_text("Not the same from both edges.")
    page.get_by_role("button", name="Take out stripe 2").click()
    page.get_by_label("It ends").select_option(label="with half a gap at both edges")
    page.get_by_label("Stripe 1 is").fill("43")
    page.get_by_label("then a gap of").fill("43")
    expect(panel).to_contain_text("10 repeats, 10 stripes, exactly as asked. The same from both edges.")
    expect(page.get_by_role("status").filter(has_text="of the zone")).to_contain_text("50 %")
    panel.get_by_text("All 10 with their marks").click()
    first = panel.get_by_role("row").nth(1)
    expect(first).to_contain_text("21.5–64.5")  # half a gap of 43, and one of 43 after it
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    expect(page.get_by_label("Stripe 1 is")).to_have_value("43")
    # A border too far in is refused in words, and what was typed stays.
    page.get_by_label("Layer 3 goes").select_option(label="as a border along the edge")
    page.get_by_label("in from the edge").fill("600")
    expect(page.get_by_role("alert").filter(has_text="600 mm in")).to_contain_text("Allowed: less than")
    expect(page.get_by_label("in from the edge")).to_have_value("600")
    page.get_by_label("in from the edge").fill("60")
    expect(panel).to_contain_text("roll")
    page.get_by_label("Layer 3 goes").select_option(label="all over, or as it is put on")
    expect(panel).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(panel).to_be_visible()


def test_on_a_phone_the_sheets_are_a_press_away_and_the_rules_that_were_measured_go_along(
    page: Page, loft: Running
) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    job = loft.job("Proscenium panels")
    zone = page.request.get(f"{loft.url}/api/jobs/{job}").json()["job"]["zones"][1]
    page.goto(f"{loft.url}/jobs/{job}/finish?zone={zone['id']}&layer={zone['layers'][2]['id']}&tab=layout")
    panel = page.get_by_role("region", name="Panel 1.1")
    panel.get_by_text("At its true size, to print or cut").click()
    panel.get_by_label("The 100 mm rule measures").fill("97")
    with page.expect_download() as loaded:
        panel.get_by_role("link", name="Sheets to tape together").click()
    assert "across_mm=97" in loaded.value.url
    assert loaded.value.suggested_filename.endswith(".pdf")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def at_layout(page: Page, loft: Running) -> str:
    """Open where the third layer of the panels goes; the job's id."""
    job = loft.job("Proscenium panels")
    zone = page.request.get(f"{loft.url}/api/jobs/{job}").json()["job"]["zones"][1]
    page.goto(f"{loft.url}/jobs/{job}/finish?zone={zone['id']}&layer={zone['layers'][2]['id']}&tab=layout")
    return str(job)


def test_a_board_of_squares_goes_from_the_layout_to_the_steps(page: Page, loft: Running) -> None:
    job = at_layout(page, loft)
    panel = page.get_by_role("region", name="Panel 1.1")
    page.get_by_label("Layer 3 goes").select_option(label="as a board of squares")
    page.get_by_label("Each is wide").fill("60")
    page.get_by_label("and high").fill("60")
    expect(panel).to_contain_text("14 squares across, 2.4% wider than asked.")
    expect(panel).to_contain_text("17 squares down, as wide as asked.")
    paints = page.get_by_role("status").filter(has_text="of the zone")
    expect(paints).to_contain_text("50 %")
    page.get_by_text("Tapes, rule, knobs").click()
    page.get_by_role("button", name="A knob or keyhole stays free").click()
    page.get_by_label("Knob 1, from the left").fill("90")
    page.get_by_label("across", exact=True).fill("200")
    expect(paints).not_to_contain_text("50 %")
    # A measure may be typed in any unit; it is mm once the field is left.
    across = page.get_by_label("across", exact=True)
    across.fill('2 1/2"')
    across.blur()
    expect(across).to_have_value("63.5")
    across.fill("2 fathoms")
    expect(page.get_by_role("alert").filter(has_text="fathoms")).to_be_visible()
    across.fill("40")
    page.get_by_role("button", name="Is it square?").click()
    page.get_by_label("One diagonal").fill("1338")
    page.get_by_label("the other").fill("1330")
    expect(panel).to_contain_text("Out of square: over its 1020 mm it leans 6.2 mm")
    panel.get_by_text("with their marks").click()
    expect(panel.get_by_role("columnheader", name="down from")).to_be_visible()
    panel.get_by_text("At its true size, to print or cut").click()
    expect(panel).to_contain_text("sheets,")
    for stick in ("across", "down"):
        expect(panel.get_by_role("link", name=f"Story stick {stick}")).to_be_visible()
    panel.get_by_label("Paper").select_option(label="Letter")
    with page.expect_download() as loaded:
        panel.get_by_role("link", name="Story stick down").click()
    assert "paper=letter" in loaded.value.url
    # The steps tape it, paint it and free it twice.
    page.goto(f"{loft.url}/jobs/{job}/steps")
    for go in (1, 2):
        expect(page.get_by_text(f"Tape for paint, go {go} of 2").first).to_be_visible()


def test_gaps_of_a_tape_there_is_are_a_press_away_by_keyboard_and_on_a_phone(page: Page, loft: Running) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    at_layout(page, loft)
    panel = page.get_by_role("region", name="Panel 1.1")
    page.get_by_label("Layer 3 goes").select_option(label="in checks, both ways")
    expect(panel).to_contain_text("Down: ")
    page.get_by_label("Layer 3 goes").select_option(label="in stripes")
    offer = page.get_by_role("button", name="Gaps of one 38 mm tape")
    offer.focus()
    page.keyboard.press("Enter")
    expect(panel).to_contain_text("The same from both edges.")
    expect(page.get_by_label("then a gap of")).to_have_value("38")
    # 860 less the tapes: ten stripes and nine gaps of 38 leave stripes of 51.8 mm.
    panel.get_by_text("with their marks").click()
    expect(panel.get_by_role("row").nth(1)).to_contain_text("51.8 mm")
    page.get_by_label("Layer 3 goes").select_option(label="as lettering")
    page.get_by_label("The words").fill("")
    expect(page.get_by_role("alert")).to_contain_text("There are no words to letter.")
    page.get_by_label("The words").fill("Stalls")
    expect(panel).to_contain_text("6 letters")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
