"""Take the pictures in docs/screenshots from the demo data."""

import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bench import CHROMIUM, server

WIDE, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}


def open_rack(page: Page) -> None:
    page.get_by_role("link", name="Programme rack").click()
    page.get_by_role("button", name="Mix: 46.1 ml. Show why").wait_for()


def take(url: str, folder: Path) -> None:
    """Every main view, one picture each."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        page = browser.new_page(viewport=WIDE, locale="en-GB")  # type: ignore[arg-type]

        def shoot(name: str) -> None:
            page.wait_for_load_state("networkidle")
            page.screenshot(path=folder / f"{name}.png")

        page.goto(url)
        page.get_by_role("link", name="Go on with it").wait_for()
        shoot("jobs")
        open_rack(page)
        page.get_by_role("radio", name="US", exact=True).click()
        page.get_by_text("2 tbsp + 1 tsp").wait_for()
        shoot("job")
        browser.close()


if __name__ == "__main__":
    target = Path(sys.argv[1])
    target.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, server(Path(data)) as (address, _):
        take(address, target)
