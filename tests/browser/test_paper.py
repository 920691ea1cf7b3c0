"""Any page on paper: what is read on the screen is read there, and what is only pressed is not."""

import io
import re

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.browser.lumso import Running

READ = """() => {
  const pressed = ".press:not([aria-pressed=true], [data-state=active], [data-said])";
  const skipped = `nav, header, footer, [role=tablist], .print\\\\:hidden, .sr-only, option, ${pressed}`;
  const walker = document.createTreeWalker(document.querySelector("main"), NodeFilter.SHOW_TEXT);
  const words = [];
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const of = node.parentElement;
    if (of.closest(skipped) || !of.checkVisibility({ visibilityProperty: true })) continue;
    words.push(node.textContent);
  }
  for (const field of document.querySelectorAll("main input:not([type=checkbox], [type=radio], [type=color])"))
    if (field.checkVisibility() && field.type !== "range") words.push(field.value);
  return words.join(" ");
}"""
DRAWN = """() => [...document.querySelectorAll("main svg")].filter(
  (s) => s.checkVisibility() && !s.closest("button, a, .press") && s.getBoundingClientRect().width > 60).length"""
PLACES = ("finish", "mix", "sheet", "steps", "cost", "look", "/days", "/buying", "/shelf", "/book/salt-wash", "/log")
LETTERS = re.compile(r"[^\W\d_]{4,}")


def words_of(text: str) -> set[str]:
    return {
        w.lower() for w in LETTERS.findall(text.replace("\u00ad", "").replace("\ufb01", "fi").replace("\ufb02", "fl"))
    }


def read(page: Page) -> set[str]:
    """The words of a page with what is folded open on paper."""
    page.evaluate("dispatchEvent(new Event('beforeprint'))")
    words = words_of(page.evaluate(READ))
    page.evaluate("dispatchEvent(new Event('afterprint'))")
    return words


@pytest.mark.parametrize("place", PLACES)
def test_a_page_on_paper_says_what_it_says_on_the_screen(page: Page, loft: Running, place: str) -> None:
    at = place if place.startswith("/") else f"/jobs/{loft.job('Costume wardrobe')}/{place}"
    page.goto(loft.url + at)
    expect(page.locator("main h1").first).to_be_visible()
    expect(page.locator("main").get_by_role("status").filter(has_text=re.compile("…$"))).to_have_count(0)
    before, drawn = read(page), page.evaluate(DRAWN)
    paper = PdfReader(io.BytesIO(page.pdf(format="A4")))
    seen = before & read(page)  # what came or went meanwhile is neither lost nor printed
    assert len(seen) > 20
    text = " ".join(p.extract_text() for p in paper.pages)
    lost = {w for w in seen - words_of(text) if w not in re.sub(r"\s+", "", text).lower()}
    assert lost == set()
    page.emulate_media(media="print")
    assert page.evaluate(DRAWN) >= drawn
    page.emulate_media(media="screen")


def test_what_is_folded_away_is_read_on_paper(page: Page, loft: Running) -> None:
    page.goto(f"{loft.url}/jobs/{loft.job('Costume wardrobe')}/mix")
    expect(page.get_by_text("Answer: lead?")).to_be_visible()
    expect(page.get_by_text("No date clears old paint")).to_be_hidden()
    text = " ".join(p.extract_text() for p in PdfReader(io.BytesIO(page.pdf(format="A4"))).pages)
    assert "No date clears old paint" in " ".join(text.split())
    assert "As it is planned: 1 can hurt somebody" in " ".join(text.split())
    expect(page.get_by_text("No date clears old paint")).to_be_hidden()
