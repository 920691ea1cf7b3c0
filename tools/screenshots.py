"""Take the pictures in docs/screenshots from the demo data."""

import re
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench import CHROMIUM, EXECUTABLE, server

WIDE, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


def open_rack(page: Page) -> None:
    page.get_by_role("region", name="Jobs").get_by_role("link", name="Programme rack").click()
    page.get_by_role("link", name="Mix", exact=True).click()
    page.get_by_role("button", name="Mix: 46 ml. Show why").wait_for()


def at_the_bench(page: Page, url: str, folder: Path) -> None:
    """A wash that is being poured on the simulated scale."""
    job = next(j["id"] for j in page.request.get(f"{url}/api/jobs").json()["jobs"] if j["name"] == "Programme rack")

    def hand(**what: object) -> None:
        page.request.post(f"{url}/api/bench/scale", data=what, headers={"Origin": url})

    page.goto(f"{url}/jobs/{job}/bench")
    for name in ("Sanded to P180", "Grain raised"):
        page.get_by_role("heading", name=name).wait_for()
        page.get_by_role("button", name="Begin").click()
        page.get_by_role("button", name="Done", exact=True).click()
    page.get_by_role("button", name="Programme rack:").click()
    page.get_by_role("button", name="Mix paint wash on raw wood").click()
    page.get_by_role("button", name="Begin").click()
    hand(do="put", g=212)
    page.get_by_role("button", name="The empty pot is on").click()
    page.get_by_text("Still to pour").wait_for()
    hand(do="pour", g=15.2)
    page.get_by_role("button", name="Poured: 15.2 g").click()
    page.get_by_role("heading", name="Water").wait_for()
    hand(do="pour", g=21.3)
    page.get_by_role("img", name="21.3 g of").wait_for()
    page.screenshot(path=folder / "bench.png")


def rehearse(page: Page) -> None:
    """A board on time up to its glaze, which is wiped after it has set."""
    page.get_by_role("heading", name=re.compile("^Rehearsal")).wait_for()
    key, main = page.locator("main .press-strong").first, page.locator("main")
    for _ in range(60):
        key.wait_for()
        seen = main.get_by_role("status").first.inner_text()
        late = key.inner_text().startswith("Wiping")
        if late:
            main.get_by_role("button", name="1 h on").click()
            main.locator("[data-waits]").wait_for(state="detached")
        not_yet = re.match("Wet|Still|The shine|Matt|Paler", seen) and not late
        (main.get_by_role("button", name=re.compile("^Watch")) if not_yet else key).click()
        main.locator("[data-waits]").wait_for(state="detached")
        if late:
            break
    page.wait_for_timeout(2500)  # the fine picture


def take(url: str, folder: Path) -> None:
    """Every main view, one picture each."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=str(EXECUTABLE), args=CHROMIUM)
        page = browser.new_page(viewport=WIDE, locale="en-GB")  # type: ignore[arg-type]

        def shoot(name: str) -> None:
            page.wait_for_load_state("networkidle")
            page.screenshot(path=folder / f"{name}.png")

        page.goto(url)
        page.get_by_role("link", name="Go on with it").wait_for()
        shoot("jobs")
        page.goto(f"{url}/days")
        page.get_by_text(
            re.compile("Nothing better|Not proven")
        ).first.wait_for()  # the best, or that it is not known to be
        shoot("days")
        page.goto(url)
        open_rack(page)
        page.get_by_text("Measured with your kit").first.wait_for()
        shoot("job")
        page.goto(url)
        page.get_by_role("region", name="Jobs").get_by_role("link", name="Prop chest").click()
        page.get_by_role("link", name="Look", exact=True).click()
        page.locator("figure img").wait_for()
        page.wait_for_timeout(1500)  # the coarse picture first, then the fine one
        shoot("look")
        page.goto(url)
        page.get_by_role("region", name="Jobs").get_by_role("link", name="Programme rack").click()
        page.get_by_role("link", name="Look", exact=True).click()
        page.get_by_role("tab", name="Test board").click()
        page.get_by_role("button", name="Make a board of").click()
        page.get_by_role("region", name="Strips").get_by_role("button", name="B water").click()
        page.get_by_role("button", name="as wanted").click()
        page.get_by_role("button", name="chip 2 of 5").click()
        page.get_by_text("From 1 strip").wait_for()
        page.wait_for_timeout(1000)
        shoot("board")
        page.goto(url)
        page.get_by_role("region", name="Jobs").get_by_role("link", name="Costume wardrobe").click()
        page.get_by_role("link", name="Piece", exact=True).click()
        page.get_by_role("tab", name="Zones").click()
        shoot("piece")
        page.goto(f"{url}/new")
        for typed in ("bedside", "", "varnish"):
            page.locator("input:focus").fill(typed)
            page.keyboard.press("Enter")
            page.wait_for_timeout(300)
        page.get_by_role("button", name="tested, none found").click()
        page.locator("input:focus").fill("chip")
        page.wait_for_timeout(2500)  # their pictures
        shoot("new")
        page.goto(url)
        page.get_by_role("region", name="Jobs").get_by_role("link", name="Ticket counter").click()
        page.get_by_role("complementary").get_by_role("button", name="Doors").click()
        page.get_by_role("button", name="3. Trowelled plaster").click()
        shoot("finish")
        page.get_by_role("link", name="Sheet", exact=True).click()
        page.get_by_role("button", name="Trowelled plaster").first.click()
        page.get_by_text("Measured with your kit").first.wait_for()
        shoot("sheet")
        page.get_by_role("link", name="Rehearse").click()
        rehearse(page)
        shoot("rehearsal")
        page.get_by_role("link", name="Back to the job").click()
        page.get_by_role("link", name="Steps").click()
        wiping = page.get_by_role("button", name=re.compile("What it looks like: wiping back")).first
        wiping.click()
        page.get_by_role("img", name=re.compile("^Too far: .* An estimate")).wait_for()
        page.locator("li", has=wiping).evaluate("e => e.scrollIntoView()")
        shoot("steps")
        page.goto(url)
        page.get_by_role("region", name="Jobs").get_by_role("link", name="Picture frames").click()
        page.get_by_role("button", name="1. Paint").click()
        page.get_by_role("button", name="Mix: ").click()
        page.locator('[role="option"][data-slug="clear-wax-plain"]').click()
        page.get_by_role("tab", name="What goes wrong").click()
        page.get_by_role("article").first.wait_for()
        shoot("findings")
        page.goto(url)
        page.get_by_role("region", name="Jobs").get_by_role("link", name="Proscenium panels").click()
        page.get_by_role("complementary").get_by_role("button", name="Panels").click()
        page.get_by_role("button", name="3. Paint").click()
        page.get_by_role("tab", name="Where it goes").click()
        page.get_by_role("region", name="Panel 1.1").get_by_role("img").scroll_into_view_if_needed()
        shoot("layout")
        page.goto(url)
        page.get_by_role("region", name="Jobs").get_by_role("link", name="Costume wardrobe").click()
        page.get_by_role("link", name="Cost", exact=True).click()
        page.get_by_role("button", name="Work them out").click()
        page.get_by_role("table").wait_for()
        shoot("cost")
        for name, address, wait in (("book", "/book", "Salt wash"),):
            page.goto(url + address)
            page.get_by_text(wait).first.wait_for()
            shoot(name)
        page.goto(f"{url}/shelf")
        page.get_by_role("button", name="texture powder").click()
        shoot("shelf")
        page.goto(f"{url}/log/learned")
        page.get_by_text("from 2 jobs").first.wait_for()
        page.goto(f"{url}/log")
        page.get_by_text("Cloakroom mirror").first.wait_for()
        shoot("log")
        at_the_bench(page, url, folder)
        page.set_viewport_size(PHONE)  # type: ignore[arg-type]
        page.goto(f"{url}/buying")
        page.get_by_text("Still to pay").wait_for()
        shoot("phone")
        browser.close()


if __name__ == "__main__":
    target = Path(sys.argv[1])
    target.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, server(Path(data) / "demo.sqlite3") as (address, _):
        take(address, target)
