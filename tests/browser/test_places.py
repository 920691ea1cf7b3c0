"""One walk over every place: axe, titles, focus, targets and overflow in a single visit, on a desk and on a phone."""

import re
from dataclasses import dataclass

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Page, expect

from tests.browser.lumso import Running


@dataclass(frozen=True)
class Place:
    """Where it is, what its title says, what shows that it is there, and what is pressed there, one after the other."""

    address: str
    title: str
    there: str
    press: tuple[str, ...] = ()


JOB = "/jobs/{job}"
PLACES = (
    Place("/", "Today", "Jobs"),
    Place("/new", "New job", "New job"),
    Place("/left?mix=glaze-retarded", "What is left", "What is left", ("another mix",)),
    Place("/ask?on=recipe/paint-wash-raw-wood", "Ask", "Ask before you begin"),
    Place("/days", "Days", "Days"),
    Place("/book", "Recipe book", "Recipe book"),
    Place("/book/dark-wax", "Tinted wax, dark with clear", "Tinted wax, dark with clear"),
    Place("/shelf", "Shelf", "Shelf", ("texture powder",)),
    Place("/buying", "Buying", "Buying"),
    Place("/kit?kit=us-spoons", "Measuring kit", "Measuring kit", ("Measure with this kit", "Copy as another kit")),
    Place("/log", "Log", "Log"),
    Place("/kept", "Kept", "Kept"),
    Place("/help", "Help", "How this works"),
    Place(f"{JOB}/piece", "Ticket counter · Piece", "Ticket counter", ("How many the same: more", "Undo")),
    Place(f"{JOB}/piece?tab=zones", "Ticket counter · Piece", "Ticket counter"),
    Place(f"{JOB}/piece?tab=use", "Ticket counter · Piece", "Ticket counter"),
    Place(f"{JOB}/finish", "Ticket counter · Finish", "Ticket counter", ("Remove", "Undo")),
    Place(f"{JOB}/finish?tab=findings", "Ticket counter · Finish", "Ticket counter"),
    Place(f"{JOB}/finish?tab=advice", "Ticket counter · Finish", "Ticket counter"),
    Place(f"{JOB}/look", "Ticket counter · Look", "Ticket counter"),
    Place(f"{JOB}/mix", "Ticket counter · Mix", "Ticket counter", ("Coats: more", "Undo")),
    Place(f"{JOB}/sheet", "Ticket counter · Sheet", "Ticket counter"),
    Place(f"{JOB}/steps", "Ticket counter · Steps", "Ticket counter"),
    Place(f"{JOB}/cost", "Ticket counter · Cost", "Ticket counter"),
)
SMALLEST_PX = 24

SMALL = """least => [...document.querySelectorAll('a, button, select, input:not([type=file]), summary, [role=slider]')]
    .filter(e => !e.closest('p, li, dd, h3') || e.matches('input, select'))
    .map(e => [e, e.getBoundingClientRect()])
    .filter(([e, r]) => r.width && r.height && (r.width < least - 0.5 || r.height < least - 0.5))
    .filter(([e]) => !e.matches('.sr-only') && !e.closest('label'))
    .map(([e, r]) => `${e.outerHTML.slice(0, 90)} ${Math.round(r.width)}×${Math.round(r.height)}`)"""

FOCUSED = """() => {
    const e = document.activeElement;
    if (!e || e === document.body) return 'nothing has the focus';
    const r = e.getBoundingClientRect();
    const named = e.getAttribute('aria-label') || e.textContent.trim() || e.labels?.length || e.id || e.title;
    if (!named) return `nameless: ${e.outerHTML.slice(0, 90)}`;
    if (r.top > innerHeight || r.bottom < 0) return '';
    const [x, y] = [r.left + Math.min(r.width / 2, 20), Math.max(0, r.top) + Math.min(r.height / 2, 10)];
    const over = document.elementFromPoint(x, y);
    const covered = over && !e.contains(over) && !over.contains(e) && getComputedStyle(over).position === 'fixed';
    return covered ? `covered by ${over.outerHTML.slice(0, 60)}` : '';
}"""


def looked_at(page: Page, at: str, width: int, axe: bool = True) -> list[str]:
    """What is wrong with the page as it stands."""
    found = []
    if page.evaluate("document.documentElement.scrollWidth") > width:
        found.append(f"{at}: {width} px are not enough")
    found += [f"{at}: small: {s}" for s in page.evaluate(SMALL, SMALLEST_PX)]
    if axe:
        for broken in Axe().run(page).response["violations"]:
            found += [f"{at}: {broken['id']}: {node['html'][:120]}" for node in broken["nodes"]]
    return found


@pytest.mark.parametrize("width", [1280, 390])
def test_every_place_is_named_in_reach_and_in_bounds(page: Page, loft: Running, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 800})
    job = loft.job("Ticket counter")
    found: list[str] = []
    page.goto(loft.url)
    for place in PLACES:
        address = place.address.format(job=job)
        # As a link would go there: the page stays, the place changes.
        page.evaluate("to => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')); }", address)
        expect(page.get_by_role("heading", name=re.compile(place.there)).first).to_be_visible()
        expect(page).to_have_title(f"{place.title} · Lumso")
        page.wait_for_load_state("networkidle")
        found += looked_at(page, address, width)
        for name in place.press:
            page.get_by_role("button", name=re.compile(f"^{name}")).first.click()
            page.wait_for_timeout(120)
            if wrong := page.evaluate(FOCUSED):
                found.append(f"{address}, after {name}: {wrong}")
        if place.press:
            found += looked_at(page, f"{address} after {place.press[-1]}", width, axe=False)
    assert found == []


@pytest.mark.parametrize("width", [320, 1920])
def test_nothing_sticks_out_at_the_ends(page: Page, loft: Running, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 800})
    job = loft.job("Ticket counter")
    for place in PLACES:
        page.goto(loft.url + place.address.format(job=job))
        expect(page.get_by_role("heading", name=re.compile(place.there)).first).to_be_visible()
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= width, place.address


def test_keys_go_to_places_never_in_fields_and_can_be_switched_off(page: Page, empty: Running) -> None:
    page.goto(empty.url)
    expect(page.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("n")
    expect(page).to_have_title("New job · Lumso")
    expect(page.locator("input:focus")).to_have_count(1)
    page.keyboard.type("lamp")  # l would go to the log
    expect(page).to_have_title("New job · Lumso")
    page.goto(f"{empty.url}/help")
    page.get_by_label("Single keys go to places").uncheck()
    page.keyboard.press("k")
    page.keyboard.press("?")
    expect(page).to_have_title("Help · Lumso")
    expect(page.get_by_role("dialog")).to_have_count(0)


