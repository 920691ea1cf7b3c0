"""One walk over every state of the interface: axe by day and in the evening, titles, focus, targets and overflow.

A group of states is one test. Each state is one visit, resized: nothing else in the browser tests asks axe.
"""

import json
import re
from contextlib import suppress
from pathlib import Path

import axe_playwright_python
import pytest
from playwright.sync_api import Error, Page, TimeoutError, expect

from tests.browser.lumso import ROOT, Running
from tests.browser.states import GROUPS, STATES, State, button

UI = ROOT / "ui" / "src"
AXE = (Path(axe_playwright_python.__file__).parent / "axe.min.js").read_text()
SMALLEST_PX = 24
HEIGHT = 800

SMALL = """least => [...document.querySelectorAll('a, button, select, input:not([type=file]), summary, [role=slider]')]
    .filter(e => !e.closest('p, li, dd, h2, h3') || e.matches('input, select'))
    .map(e => [e, (e.matches('[role=slider]') && e.querySelector('svg') || e).getBoundingClientRect()])
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

GO = "to => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')); }"
"""As a link would go there: the page stays, the place changes."""

LOOK = """async more => {
    const asked = {resultTypes: ['violations'], ...more};
    const {violations} = await axe.run(document, asked);
    return violations.flatMap(v => v.nodes.map(n => `${v.id}: ${n.html.slice(0, 120)}`));
}"""


CONTRAST: dict[str, object] = {"runOnly": {"type": "rule", "values": ["color-contrast"]}}
BUT_CONTRAST: dict[str, object] = {"rules": {"color-contrast": {"enabled": False}}}
"""Colours are the same on a phone, and dear to look at."""


def axe(page: Page, more: dict[str, object] | None = None) -> list[str]:
    """What axe finds on the page as it stands, of any impact."""
    if page.evaluate("typeof axe === 'undefined'"):
        page.evaluate(AXE)
    found: list[str] = page.evaluate(LOOK, more or {})
    return found


def overflows(page: Page, width: int) -> list[str]:
    """Whether it is wider than the screen at a width."""
    page.set_viewport_size({"width": width, "height": HEIGHT})
    return [f"{width} px are not enough"] if page.evaluate("document.documentElement.scrollWidth") > width else []


def looked_at(page: Page, phone: bool = True) -> list[str]:
    """What is wrong with the page as it stands, on every width, by day and in the evening. Without `phone` axe does not
    look at the narrow one: what lies beneath a dialog was looked at where it stands alone."""
    found = []
    for width in (1920, 768, 320, 390, 1280):
        found += overflows(page, width)
        if width in (390, 1280):
            found += [f"{width} px: small: {s}" for s in page.evaluate(SMALL, SMALLEST_PX)]
            if width == 1280 or phone:
                found += [f"{width} px: {broken}" for broken in axe(page, None if width == 1280 else BUT_CONTRAST)]
    page.emulate_media(color_scheme="dark")
    expect(page.locator("html[data-evening]")).to_have_count(1)
    found += [f"in the evening: {broken}" for broken in axe(page, CONTRAST)]
    page.emulate_media(color_scheme="light")
    expect(page.locator("html[data-evening]")).to_have_count(0)
    return found


def address(state: State, lumso: Running) -> str:
    """Where a state is, in the workshop as it stands."""
    known = {"job": lumso.job(state.of)} if "{job}" in state.address else {}
    if "{layer}" in state.address:
        zone = lumso.ask(f"jobs/{known['job']}")["job"]["zones"][1]
        known |= {"zone": zone["id"], "layer": zone["layers"][2]["id"]}
    if "{pot}" in state.address:
        known["pot"] = lumso.ask("log")["pots"][0]["pot"]
    if "{code}" in state.address:
        known["code"] = lumso.code_of(lumso.job("Costume wardrobe"))
    return state.address.format(**known)


def visited(page: Page, lumso: Running, state: State) -> list[str]:
    """Go to a state, and what is wrong there."""
    page.set_viewport_size({"width": 1280, "height": HEIGHT})
    to = address(state, lumso)
    page.evaluate(GO, to)
    if state.make:
        page.wait_for_load_state("networkidle")
        state.make(page, lumso)
    expect(page.get_by_role("heading", name=re.compile(state.there), include_hidden=True).first).to_be_attached()
    if state.title and not state.covers:
        expect(page).to_have_title(f"{state.title} · Lumso")
    page.wait_for_load_state("networkidle")
    found = looked_at(page, not state.covers)
    for width in state.press_at if state.press else ():
        page.set_viewport_size({"width": width, "height": HEIGHT})
        page.evaluate(GO, "/help")
        page.evaluate(GO, to)
        page.wait_for_load_state("networkidle")
        for name in state.press:
            button(page, name)
            with suppress(TimeoutError):  # it goes where it goes a moment after the press
                page.wait_for_function(f"() => ({FOCUSED})() === ''", timeout=3000)
            if wrong := page.evaluate(FOCUSED):
                found.append(f"after {name}, {width} px: {wrong}")
        found += [f"after {state.press[-1]}: {wrong}" for wrong in overflows(page, width)]
    return found


@pytest.mark.parametrize("group", GROUPS)
def test_every_state_is_named_in_reach_and_in_bounds(page: Page, lumso: Running, group: str) -> None:
    to = "empty" if group == "nothing" else "log"
    lumso.back(to)
    page.goto(f"{lumso.url}/help")
    found: list[str] = []
    for number, state in enumerate(s for s in STATES if s.group == group):
        at = f"{group} {number}, {state.address}"
        try:
            found += [f"{at}: {wrong}" for wrong in visited(page, lumso, state)]
        except (AssertionError, Error) as error:  # not come to: the others are looked at all the same
            found.append(f"{at}: {str(error)[:600]}")
        if state.make:  # what it made goes with the page
            page.goto("about:blank")
            lumso.back(to)
            page.goto(f"{lumso.url}/help")
    assert not found, "\n" + "\n".join(found)


def _pattern(address: str) -> str:
    """An address as a route would say it."""
    return re.sub(r"\{(\w+)\}", ":x", address.partition("?")[0])


def test_every_route_has_a_state() -> None:
    walked = {_pattern(s.route or s.address) for s in STATES}
    sides = re.findall(r'\{ slug: "(\w+)"', (UI / "job" / "JobView.tsx").read_text())
    missing = []
    for route in set(re.findall(r'path="([^"]+)"', (UI / "app.tsx").read_text())) - {"*"}:
        plain = re.sub(r":\w+\?", "[^/]+", route)
        plain = re.sub(r":\w+", "[^/]+", plain)
        plain = plain.replace("/[^/]+", "(/[^/]+)?") if "?" in route else plain
        if not any(re.fullmatch(plain, at) for at in walked):
            missing.append(route)
    missing += [f"side {s}" for s in sides if s != "board" and f"/jobs/:x/{s}" not in walked]
    assert missing == []


def test_every_dialog_has_a_state() -> None:
    opening = re.compile(r"(Dialog|Popover|DropdownMenu)\.Content|role=\"alertdialog\"|popover=\"auto\"")
    there = {str(file.relative_to(UI)) for file in UI.rglob("*.tsx") if opening.search(file.read_text())}
    covered = [name for state in STATES for name in state.covers]
    assert there == set(covered)
    assert all(state.make for state in STATES if state.covers)


def test_the_walk_says_what_is_wrong(page: Page, empty: Running) -> None:
    """What is broken by hand is found: the walk is no walk past."""
    page.goto(f"{empty.url}/kit")
    page.get_by_role("heading", name="Measuring kit").wait_for()
    page.evaluate(
        """() => document.querySelector('main').insertAdjacentHTML('beforeend',
        '<img src="data:,"><p style="color: #bbb; background: #fff">pale</p><a href="/" style="display: block; '
        + 'width: 9px; height: 9px">x</a><div style="width: 3000px">far</div>')"""
    )
    said = json.dumps(looked_at(page))
    for wrong in ("image-alt", "color-contrast", "small: <a", "1280 px are not enough"):
        assert wrong in said


def test_with_forced_colours_and_in_the_evening_paint_keeps_its_colour(page: Page, loft: Running) -> None:
    page.goto(f"{loft.url}/jobs/{loft.job('Costume wardrobe')}/mix")
    swatch = page.get_by_role("region", name="The pot").locator('[style*="background"]').first
    colour = "e => getComputedStyle(e).backgroundColor"
    day = swatch.evaluate(colour)
    ink = "getComputedStyle(document.documentElement).getPropertyValue('--color-ink')"
    by_day = page.evaluate(ink)
    page.emulate_media(color_scheme="dark")
    expect(page.locator("html[data-evening]")).to_have_count(1)
    assert page.evaluate(ink) != by_day
    assert swatch.evaluate(colour) == day
    page.emulate_media(color_scheme="light", forced_colors="active")
    assert swatch.evaluate(colour) == day
    chip = page.locator("img[alt*='an estimate']").first
    assert chip.evaluate("e => getComputedStyle(e).borderTopColor") == "rgb(139, 143, 144)"


def test_keys_go_to_places_never_in_fields_and_can_be_switched_off(page: Page, empty: Running) -> None:
    page.goto(empty.url)
    expect(page.get_by_role("heading", name="Nothing on the bench yet")).to_be_visible()
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
