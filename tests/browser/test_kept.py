"""Nothing lost: documents edited while the server is away, two pages at one, backups, and what is put away."""

import json
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import put_away
from tests.browser.lumso import Running


def go(page: Page, place: str) -> None:
    page.get_by_role("navigation", name="Places").get_by_role("link", name=place).click()
    page.wait_for_load_state("networkidle")


def test_every_kind_of_document_edited_while_the_server_is_away_is_saved_by_another_page(
    page: Page, loft: Running
) -> None:
    page.goto(f"{loft.url}/book/colour-wash")
    page.get_by_role("button", name="Copy as my own").click()
    page.get_by_label("Name", exact=True).fill("Loft veil")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    # Each place seen once, so that the page holds it.
    go(page, "Kit")
    expect(page.get_by_label("Name of the kit")).to_be_visible()
    go(page, "Shelf")
    expect(page.get_by_role("region", name="On the shelf", exact=True)).to_be_visible()
    expect(page.get_by_role("region", name="Known, not on the shelf")).to_be_visible()
    go(page, "Today")
    page.get_by_role("link", name="Go on with it").click()
    page.get_by_label("Name of the job").wait_for()
    page.wait_for_load_state("networkidle")
    loft.stop()

    page.get_by_label("Name of the job").fill("Rack, renamed away")
    expect(page.get_by_text("On this device only", exact=True)).to_be_visible()
    page.get_by_role("link", name="Recipes").click()
    page.get_by_role("link", name=re.compile("^Loft veil")).click()
    page.get_by_role("link", name="Change it").click()
    page.get_by_label("Name", exact=True).fill("Loft veil, renamed away")
    expect(page.get_by_text("On this device only", exact=True)).to_be_visible()
    page.get_by_role("link", name="Kit", exact=True).click()
    page.get_by_role("button", name="Kitchen scale").click()
    page.get_by_role("button", name="Measure with this kit").click()
    page.get_by_label("Name of the kit").fill("Scale, renamed away")
    expect(page.get_by_text("On this device only", exact=True)).to_be_visible()
    page.get_by_role("link", name="Shelf", exact=True).click()
    page.get_by_role("region", name="On the shelf", exact=True).get_by_role("button").first.click()
    page.get_by_label("On hand").fill("1234")
    expect(page.get_by_text("On this device only", exact=True)).to_be_visible()
    # Five documents: the job, the recipe, the kit, that it is in use, the shelf.
    page.get_by_role("link", name="5 kept here").click()
    waiting = page.get_by_role("region", name="Waiting to be saved")
    expect(waiting.get_by_role("listitem")).to_have_count(5)
    page.goto("about:blank")  # closed

    loft.start()
    page.goto(f"{loft.url}/kept")
    expect(page.get_by_text("Nothing: all that was entered here is saved.")).to_be_visible(timeout=30_000)
    assert loft.ask("jobs")["jobs"][0]["name"] == "Rack, renamed away"
    catalogue = loft.ask("catalogue")
    assert "Loft veil, renamed away" in {r["name"] for r in catalogue["recipes"]}
    assert {k["slug"]: k["name"] for k in catalogue["kits"]}[loft.ask("workshop")["kit"]] == "Scale, renamed away"
    assert 1234 in {line["item"]["on_hand"] for line in loft.ask("shelf?on=true")["lines"]}


def test_two_pages_at_one_kit_lose_neither_and_the_painter_says_which_goes_on(page: Page, loft: Running) -> None:
    page.goto(f"{loft.url}/kit")
    name = page.get_by_label("Name of the kit")
    name.wait_for()
    page.wait_for_load_state("networkidle")
    slug = loft.ask("workshop")["kit"]
    catalogue = loft.ask("catalogue")
    kit = next(k for k in catalogue["kits"] if k["slug"] == slug)
    head = f'"{catalogue["own_kits"].get(slug, 0)}"'
    loft.ask(f"kits/{slug}", {**kit, "name": "Theirs"}, "PUT", If_Match=head)
    name.fill("Mine")
    expect(page.get_by_text("Refused: This was changed elsewhere", exact=False)).to_be_visible()
    expect(name).to_have_value("Mine")
    page.set_viewport_size({"width": 390, "height": 844})
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    page.get_by_role("link", name="1 refused").click()
    expect(page.get_by_text("Refused: it was changed elsewhere since you read it.")).to_be_visible()
    page.reload()  # it is on the list as long as nobody has said
    page.get_by_role("button", name="Mine goes on").click()
    expect(page.get_by_text("Nothing: all that was entered here is saved.")).to_be_visible()
    kits = {k["slug"]: k["name"] for k in loft.ask("catalogue")["kits"]}
    assert kits[slug] == "Mine"


def test_a_job_larger_than_a_closing_page_may_send_saves_itself(page: Page, loft: Running) -> None:
    counter = loft.job("Ticket counter")
    job = loft.ask(f"jobs/{counter}/file")
    (first, *_) = job["zones"]
    zones = [{**first, "id": f"z{i}", "name": f"Zone {i}", "surfaces": first["surfaces"] if not i else []}
             for i in range(24)]  # fmt: skip
    made = loft.ask("jobs", {**job, "name": "Many zones", "zones": zones}, "POST")
    assert len(json.dumps(made["job"])) > 64 * 1024
    page.goto(f"{loft.url}/jobs/{made['id']}")
    page.get_by_label("Name of the job").fill("All zones")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    assert loft.ask(f"jobs/{made['id']}")["job"]["name"] == "All zones"


def test_a_job_put_away_is_found_and_deleted_for_good_only_at_a_second_press(page: Page, loft: Running) -> None:
    page.goto(loft.url)
    for name in ("Prop chest", "Hat stand"):
        put_away(page, name)
        expect(page.get_by_text(f"{name} is put away.")).to_be_visible()
    page.get_by_role("link", name="Backups and deleted jobs, and what waits to be saved").click()
    away = page.get_by_role("region", name="Put away")
    expect(away.get_by_role("listitem")).to_have_count(2)
    page.get_by_label("Find by name").fill("chest")
    expect(away.get_by_role("listitem")).to_have_count(1)
    page.get_by_role("button", name="Delete Prop chest for good").click()
    expect(away.get_by_text("Prop chest goes, with one saved version. Nothing was printed from it.")).to_be_visible()
    page.get_by_role("button", name="Delete it for good").click()
    expect(away.get_by_text("Nothing of that name.")).to_be_visible()
    page.get_by_label("Find by name").fill("")
    page.get_by_role("button", name="Bring Hat stand back").click()
    expect(away.get_by_text("Nothing is put away.")).to_be_visible()
    names = {j["name"] for j in loft.ask("jobs")["jobs"]}
    assert "Hat stand" in names
    assert "Prop chest" not in names


def test_a_backup_is_made_kept_as_a_file_and_gone_back_to(page: Page, loft: Running, tmp_path: Path) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{loft.url}/kept")
    page.get_by_role("button", name="Back up now").click()
    backups = page.get_by_role("region", name="Backups")
    expect(backups.get_by_role("listitem")).to_have_count(1)
    with page.expect_download() as got:
        backups.get_by_role("link", name=re.compile("^Save the backup")).click()
    got.value.save_as(tmp_path / "kept.lumso.zip")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    job = loft.ask("jobs")["jobs"][0]["id"]
    loft.ask(f"jobs/{job}/undo", {}, "POST", If_Match='"1"')
    for way in ("listed", "file"):
        page.goto(loft.url)
        put_away(page, "Picture frames")
        expect(page.get_by_text("Picture frames is put away.")).to_be_visible()
        page.goto(f"{loft.url}/kept")
        if way == "listed":
            backups.get_by_role("button", name=re.compile("^Go back to the backup")).first.click()
        else:
            page.get_by_label("Backup to go back to").set_input_files(tmp_path / "kept.lumso.zip")
        page.get_by_role("alertdialog").get_by_role("button", name="Go back to it").click()
        expect(page.get_by_text("The workshop is as it was in the backup, with 11 jobs.")).to_be_visible()
        expect(page.get_by_text("Nothing is put away.")).to_be_visible()
        assert "Picture frames" in {j["name"] for j in loft.ask("jobs")["jobs"]}
    bad = tmp_path / "note.zip"
    bad.write_text("milk, eggs, chalk")
    page.get_by_label("Backup to go back to").set_input_files(bad)
    page.get_by_role("alertdialog").get_by_role("button", name="Go back to it").click()
    expect(page.get_by_role("alert")).to_contain_text("not a Lumso database")


def test_a_job_that_cannot_be_opened_says_so_and_goes_back(page: Page, loft: Running) -> None:
    job = loft.job("Hat stand")
    loft.order("spoil", job=job)
    page.goto(f"{loft.url}/jobs/{job}")
    expect(page.get_by_role("heading", name="This job cannot be opened")).to_be_visible()
    page.get_by_role("button", name="Go back to the last version that opens").click()
    expect(page.get_by_label("Name of the job")).to_have_value("Hat stand")


def test_a_list_of_many_is_searched(page: Page, loft: Running) -> None:
    for i in range(60):
        loft.ask("jobs/start", {"ml": 200 + i}, "POST")
    rack = next(j for j in loft.ask("jobs?search=programme")["jobs"])
    page.goto(loft.url)
    expect(page.get_by_role("button", name="50 of 71 are shown. Show more")).to_be_visible()
    page.get_by_role("button", name="Show more").click()
    expect(page.get_by_role("link", name=re.compile("^Programme rack"))).to_be_visible()
    page.get_by_label("Find a job by its name").fill("PROGRAMME")
    expect(page.get_by_text("One job with “PROGRAMME” in the name.")).to_be_visible()
    page.get_by_role("link", name=re.compile("^Programme rack")).click()
    page.wait_for_url(f"**/jobs/{rack['id']}")
