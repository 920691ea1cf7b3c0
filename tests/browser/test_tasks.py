"""Whole tasks from an empty workshop, as a newcomer does them, each with a ceiling of presses.

A press is a click, a tap, Enter, Space, an arrow or Tab; typing into one field is one. Pointer and keyboard are counted
apart; the end is on the screen, or in the text of what was printed.
"""

import re
from io import BytesIO
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, ViewportSize, expect
from pypdf import PdfReader

from tests.browser.lumso import Running

PHONE: ViewportSize = {"width": 390, "height": 800}
DESK: ViewportSize = {"width": 1280, "height": 800}


class Hands:
    """Somebody at a screen, whose presses are counted. With `keys` nothing is pressed but keys."""

    def __init__(self, page: Page, keys: bool = False) -> None:
        self.page, self.keys, self.presses = page, keys, 0

    def press(self, what: Locator) -> None:
        """Click it; or go there by Tab and press Enter."""
        expect(what).to_be_visible()
        if not self.keys:
            what.click()
            self.presses += 1
            return
        self.go(what)
        self.key("Space" if what.get_attribute("type") in {"checkbox", "radio"} else "Enter")

    def go(self, what: Locator) -> None:
        """To it by Tab, forwards or back, whichever is nearer."""
        here = "e => e === document.activeElement"
        for tab in ("Tab", "Shift+Tab"):
            for _ in range(25):
                if what.evaluate(here):
                    return
                self.key(tab)
            if tab == "Tab":
                for _ in range(25):
                    self.page.keyboard.press("Shift+Tab")
                self.presses -= 25
        raise AssertionError(f"{what} is not reached by Tab.")

    def key(self, name: str) -> None:
        self.page.keyboard.press(name)
        self.presses += 1

    def type(self, text: str, into: Locator | None = None) -> None:
        """Type where the focus is: it has to be in a field."""
        if into is not None:
            self.press(into) if not self.keys else self.go(into)
        expect(self.page.locator("input:focus, textarea:focus")).to_have_count(1)
        self.page.keyboard.type(text)
        self.presses += 1

    def choose(self, text: str, found: str) -> None:
        """A few letters and Enter, in the list that has the focus; `found` is what stands first then."""
        expect(self.page.get_by_role("combobox").last).to_be_focused()
        self.type(text)
        first = self.page.get_by_role("option").first
        expect(first).to_contain_text(re.compile(found, re.IGNORECASE))
        self.key("Enter")


def new_job(me: Hands) -> None:
    """By its link; by keyboard, by its key."""
    if me.keys:
        me.key("n")
    else:
        me.press(me.page.get_by_role("link", name="New job"))


def text_of(path: Path | str) -> str:
    return "\n".join(page.extract_text() for page in PdfReader(BytesIO(Path(path).read_bytes())).pages)


@pytest.fixture
def fresh(page: Page, empty: Running) -> Page:
    page.goto(empty.url)
    expect(page.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
    return page


def every_batch_has_its_fillings(page: Page) -> None:
    rows = page.get_by_role("list", name="Batches, the first to mix first").get_by_role("listitem")
    expect(rows.first).to_be_visible()
    for row in rows.all():
        expect(row).to_contain_text(re.compile(r": (\d+ × )?[\w¼½¾⅓]"))
        expect(row).not_to_contain_text("cannot measure")


WAYS = [
    pytest.param(PHONE, False, 1, id="phone"),
    pytest.param(DESK, True, 3, id="keys"),
]


@pytest.mark.parametrize(("size", "keys", "times"), WAYS)
def test_a_white_wash_on_one_s_own_board_with_two_spoons(
    fresh: Page, size: ViewportSize, keys: bool, times: int
) -> None:
    fresh.set_viewport_size(size)
    me = Hands(fresh, keys)
    new_job(me)
    me.choose("board", "^Board")
    me.type("1200 x 400 x 18")
    me.key("Enter")
    me.choose("raw pine", "raw pine")
    me.choose("white wash dry", "Whitewash, dry-wiped")
    me.press(fresh.get_by_role("button", name=re.compile("^Your measuring tools")))
    me.type("5 ml, 15 ml")
    me.key("Enter")
    over = fresh.get_by_role("button", name=re.compile(r"^Mix \d+ ml, \d+ % over"))
    fillings = fresh.get_by_role("region", name="The pot").get_by_text(re.compile(r"^\d+ × (5|15) ml"))
    expect(over.or_(fillings.first)).to_be_visible()
    if over.is_visible():
        me.press(over)
    expect(fillings).to_have_count(2)
    expect(fresh.get_by_text("too small")).to_have_count(0)
    assert me.presses <= 14 * times


@pytest.mark.parametrize(("size", "keys", "times"), WAYS)
def test_a_bedside_table_chippy(fresh: Page, size: ViewportSize, keys: bool, times: int) -> None:
    me = Hands(fresh, keys)
    new_job(me)
    me.choose("bedside", "^Bedside table")
    me.key("Enter")
    me.choose("varnish", "varnish")
    expect(fresh.get_by_role("heading", name="Lead in the old coat?")).to_be_visible()
    me.press(fresh.get_by_role("button", name="tested, none found"))
    me.choose("chippy", "^Chippy milk paint")
    expect(fresh.get_by_label("Name of the job")).to_have_value(re.compile("Bedside table, chippy"))
    me.press(fresh.get_by_role("link", name="Sheet", exact=True))
    every_batch_has_its_fillings(fresh)
    expect(fresh.get_by_text("Sizes not measured: width, height")).to_be_visible()
    assert me.presses <= 12 * times


def test_two_dragged_doors_to_cards(fresh: Page) -> None:
    fresh.set_viewport_size(PHONE)
    me = Hands(fresh)
    new_job(me)
    me.choose("cupboard door", "^Cupboard door")
    me.type("500 x 700 x 20")
    me.key("Enter")
    me.choose("painted", "painted")
    me.press(fresh.get_by_role("button", name="tested, none found"))
    me.choose("linen", "linen")
    expect(fresh.get_by_label("Name of the job")).to_be_visible()
    me.press(fresh.get_by_role("link", name="Piece", exact=True))
    me.press(fresh.get_by_role("button", name="How many the same: more"))
    me.press(fresh.get_by_role("link", name="Sheet", exact=True))
    every_batch_has_its_fillings(fresh)
    cards = fresh.get_by_role("button", name="Mixing cards")
    expect(cards).to_be_enabled()
    with fresh.expect_download() as got:
        me.press(cards)
    printed = text_of(got.value.path())
    assert "Cupboard door" in printed
    assert "ml" in printed
    assert me.presses <= 18


@pytest.mark.parametrize(("size", "keys", "times"), WAYS)
def test_a_candlestick(fresh: Page, size: ViewportSize, keys: bool, times: int) -> None:
    me = Hands(fresh, keys)
    new_job(me)
    me.choose("candle", "^Candlestick")
    me.key("Enter")
    me.choose("raw pine", "raw pine")
    me.choose("two colour", "^Two colours of milk paint")
    me.press(fresh.get_by_role("link", name="Sheet", exact=True))
    every_batch_has_its_fillings(fresh)
    assert me.presses <= 12 * times


def test_leftover_glaze(fresh: Page) -> None:
    me = Hands(fresh)
    me.press(fresh.get_by_role("link", name="Use up leftovers"))
    me.choose("glaze", "glaze")
    me.type("120 ml")
    expect(fresh.get_by_role("heading", name="120 ml goes so far, in one coat")).to_be_visible()
    expect(fresh.get_by_text(re.compile(r"between [\d.]+ m² and [\d.]+ m²")).first).to_be_visible()
    assert me.presses <= 6


def test_one_s_own_paint_from_its_label(fresh: Page) -> None:
    me = Hands(fresh)
    me.press(fresh.get_by_role("link", name="Shelf"))
    me.type("Barge green", fresh.get_by_label("What you call it"))
    me.key("Tab")
    me.type("12 m²/l")
    expect(fresh.get_by_text("That is 83.3 ml/m²")).to_be_visible()
    me.press(fresh.get_by_role("button", name="Put it on the shelf"))
    shelf = fresh.get_by_role("region", name="On the shelf")
    expect(shelf.get_by_text("label (12 m²/l)").first).to_be_visible()
    expect(shelf.get_by_text("83.3").first).to_be_visible()
    assert me.presses <= 10


def test_three_coats_a_margin_and_back(page: Page, empty: Running) -> None:
    start = {"form": "board", "ground": "raw-pine", "recipe": "paint-wash-raw-wood", "sizes": "1000 x 500 x 20"}
    job = page.request.post(f"{empty.url}/api/jobs/start", data=start).json()["id"]
    page.goto(f"{empty.url}/jobs/{job}/sheet")
    me = Hands(page)
    more = page.get_by_role("button", name=re.compile("^Coats: .*: more"))
    me.press(more)
    me.press(more)
    moved = page.get_by_role("table", name="The sheet as it is, and as it would be")
    expect(moved).to_be_visible()
    me.press(page.get_by_role("button", name="Margin: more"))
    expect(moved.get_by_role("row", name=re.compile("to mix 46 ml 1[34]"))).to_be_visible()
    me.press(page.get_by_role("button", name="As it was"))
    expect(moved).to_have_count(0)
    expect(page.get_by_role("region", name="The sheet").get_by_text("46", exact=True).first).to_be_visible()
    assert me.presses <= 4


def test_an_outdoor_sealer(fresh: Page) -> None:
    me = Hands(fresh)
    me.press(fresh.get_by_role("link", name="Ask about a finish"))
    me.press(fresh.get_by_role("button", name=re.compile("^What goes on it")))
    me.choose("wash on raw", "Paint wash on raw wood")
    me.press(fresh.get_by_role("checkbox", name="It stands outdoors"))
    best = fresh.get_by_role("listitem").filter(has_text="best here")
    expect(best).to_contain_text("Exterior clear coat")
    expect(best).to_contain_text("of drying")
    assert me.presses <= 8


def test_one_s_own_kit(fresh: Page) -> None:
    me = Hands(fresh)
    me.press(fresh.get_by_role("link", name="Kit"))
    me.type("5 ml, 15 ml, ½ cup, jug 500 ml", fresh.get_by_label("What I own"))
    me.key("Enter")
    mine = fresh.get_by_role("region", name="Kits").get_by_role("button", name="5 ml, 15 ml, ½ cup, jug 500 ml")
    expect(mine).to_contain_text("in use")
    assert me.presses <= 10


def test_tomorrow_s_steps_printed(page: Page, empty: Running) -> None:
    page.set_viewport_size(PHONE)
    start = {"form": "board", "ground": "raw-pine", "finish": "rubbed-wash", "sizes": "1000 x 500 x 20"}
    job = page.request.post(f"{empty.url}/api/jobs/start", data=start).json()
    chosen = page.request.get(f"{empty.url}/api/days/chosen").json()["chosen"]
    chosen["jobs"] = [{"job": job["id"]}]
    kept = page.request.put(f"{empty.url}/api/days/chosen", data=chosen, headers={"If-Match": '"0"'})
    assert kept.ok, kept.text()
    page.goto(empty.url)
    me = Hands(page)
    me.press(page.get_by_role("link", name="Days"))
    paper = page.get_by_role("link", name="On paper")
    expect(paper).to_be_visible()
    with page.expect_download() as got:
        me.press(paper)
    printed = text_of(got.value.path())
    assert "Rub in the paint wash on raw wood" in printed
    assert me.presses <= 4
