"""Stripes on a panel, from the first press to the marks: seen, listed, kept, undone."""

from playwright.sync_api import Page, expect

from tests.browser.conftest import Running, serious


def test_stripes_are_laid_out_even_seen_listed_and_their_amount_follows(page: Page, loft: Running) -> None:
    jobs = page.request.get(f"{loft.url}/api/jobs").json()["jobs"]
    job = next(j["id"] for j in jobs if j["name"] == "Proscenium panels")
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
    assert serious(page) == []
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
    jobs = page.request.get(f"{loft.url}/api/jobs").json()["jobs"]
    job = next(j["id"] for j in jobs if j["name"] == "Proscenium panels")
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
    assert serious(page) == []
