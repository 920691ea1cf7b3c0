"""A batch at the bench, from the empty pot to what is left of it: on the simulated scale, by hand, on two devices."""

import re
import threading
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Locator, Page, expect

from lumso.devices.scale import Pan, listen_at, serve
from tests.browser.conftest import TUESDAY, nothing_waits, until
from tests.browser.lumso import Running


@dataclass
class OnTheBench:
    """A simulated scale, and the job it stands beside."""

    loft: Running
    pan: Pan
    job: str
    plug: Callable[[bool], None]

    @property
    def url(self) -> str:
        return f"{self.loft.url}/jobs/{self.job}/bench"

    def api(self) -> Any:
        return self.loft.ask(f"bench/jobs/{self.job}")

    def held(self) -> list[float]:
        """What the one pot holds, part by part, in g, as the server has it."""
        return [h["g"] for p in self.api()["pots"] for h in p["pot"]["held"]]


def prepared(loft: Running, job: str, *done: tuple[str, float]) -> None:
    """So much of the rack is prepared, each so many minutes ago."""
    for kind, ago in done:
        minute = TUESDAY.timestamp() / 60 - ago
        body = {"job": job, "operation": f"rack:prepare:{kind}", "did": "done", "at_min": minute, "noted_min": minute}
        loft.ask(f"events/{kind}", body, "PUT", If_Match='"0"')


@pytest.fixture
def bench(loft: Running, tmp_path: Path) -> Iterator[OnTheBench]:
    path = tmp_path / "scale.sock"
    pan = Pan(noise_g=0.0, drift_g_per_h=0.0, settles_s=0.05)
    running: list[tuple[threading.Thread, threading.Event, Any]] = []

    def plug(on: bool) -> None:
        while running:
            thread, over, listener = running.pop()
            over.set()
            thread.join()
            listener.close()
        if on:
            listener, over = listen_at(path), threading.Event()
            thread = threading.Thread(target=serve, args=(listener, pan, over.is_set))
            thread.start()
            running.append((thread, over, listener))

    plug(True)
    loft.order("scale", path=str(path))
    job = loft.job("Programme rack")
    prepared(loft, job, ("sanded-180", 300), ("grain-raised", 300), ("dusted", 300))
    yield OnTheBench(loft, pan, job, plug)
    loft.order("scale", path=None)
    plug(False)


def key(page: Page, says: str | re.Pattern[str]) -> None:
    """Press the foot pedal once the large key says so."""
    expect(page.locator("footer").get_by_role("button", name=says)).to_be_enabled()
    page.keyboard.press("PageDown")


def tap(page: Page, says: str) -> None:
    """Touch the large key: on a page that is not in front, keys do not always arrive."""
    page.locator("footer").get_by_role("button", name=says).click()


def to_the_pot(page: Page, bench: OnTheBench) -> None:
    """Begin the wash, with its empty pot on the scale."""
    page.goto(bench.url)
    expect(page.get_by_role("heading", name="Mix paint wash on raw wood")).to_be_visible()
    key(page, "Begin")
    bench.pan.do("PUT 212")
    key(page, "The empty pot is on")
    expect(page.get_by_text("Still to pour")).to_be_visible()


def pour(page: Page, bench: OnTheBench, g: float) -> None:
    bench.pan.do(f"POUR {g}")
    key(page, re.compile(rf"^Poured: {g:.1f} g$"))


def holds(page: Page, bench: OnTheBench, wanted: list[float]) -> None:
    """The server has come to hold so much of each part in the pot: no more, no less."""
    until(page, bench.held, lambda held: held == pytest.approx(wanted, abs=0.06))


def now(page: Page) -> Locator:
    """What is done now, to be seen."""
    return page.get_by_role("region", name="Now")


def hears(page: Page, says: str) -> None:
    """What a screen reader says at the bench: one place, there from the start."""
    expect(page.locator("main > p[role=status]")).to_have_text(says)


def test_a_whole_batch_by_the_foot_pedal_and_by_ear(page: Page, bench: OnTheBench) -> None:
    to_the_pot(page, bench)
    hears(page, "Pour 15.2 g of paint.")
    bench.pan.do("POUR 10")
    expect(page.get_by_role("img", name="10.0 g of 15.2 g")).to_be_visible()
    hears(page, "Pour 15.2 g of paint.")
    bench.pan.do("POUR 5.2")
    hears(page, "At the mark: stop.")
    key(page, "Poured: 15.2 g")
    expect(page.get_by_role("heading", name="Water")).to_be_visible()
    hears(page, "Pour 34.6 g of water.")
    pour(page, bench, 34.6)
    hears(page, "All is in. Stir until no streak is left.")
    key(page, "It is stirred")
    expect(page.get_by_role("heading", name="milk", exact=True)).to_be_visible()
    hears(page, "Say what it looks like. It should be like milk.")
    page.get_by_role("button", name=re.compile("as it should be")).click()
    hears(page, "It is milk: right as it is.")
    page.locator("body").click(position={"x": 5, "y": 300})
    key(page, "Done")
    expect(page.get_by_role("heading", name=re.compile("^Rub in the paint wash"))).to_be_visible()
    expect(page.get_by_role("region", name="What runs").get_by_text("good for")).to_be_visible()
    key(page, "Begin")
    page.keyboard.press("PageDown")  # a foot that bounces begins, and is not done
    key(page, "Done")
    expect(page.get_by_role("heading", name="Clean the sponge applicator")).to_be_visible()
    page.get_by_role("button", name="as wanted").click()
    bench.pan.do("POUR -42")
    page.get_by_role("button", name="7.8 g by the scale").click()
    expect(page.get_by_text("Water runs clear from the bristles.")).to_be_visible()
    key(page, "Begin")
    key(page, "Done")
    page.get_by_role("link", name="Leave").click()
    page.get_by_role("navigation", name="Places").get_by_role("link", name="Log").click()
    page.get_by_role("link", name=re.compile("Paint wash on raw wood")).click()
    expect(page.get_by_text("Poured: 15.2 g of paint, Footlight green")).to_be_visible()
    expect(page.get_by_text("as wanted")).to_be_visible()
    expect(page.get_by_text("Left: 7.8 g")).to_be_visible()
    # What was noted wrong is put right, and what follows from it follows.
    page.get_by_role("button", name="Correct: Poured: 34.6 g of water").click()
    page.get_by_label("It was").fill("30.4")
    page.get_by_role("button", name="Put it right").click()
    expect(page.get_by_text(re.compile("72.5 % of the whole"))).to_be_visible()  # 30.4 of 41.9 ml
    page.get_by_label("How much").fill("200")
    page.get_by_role("button", name="To the bench with it").click()
    expect(page.get_by_role("heading", name=re.compile("Mix paint wash on raw wood"))).to_be_visible()


def test_a_pour_too_far_plans_the_rest_again_or_is_taken_out(page: Page, bench: OnTheBench) -> None:
    to_the_pot(page, bench)
    pour(page, bench, 22.8)  # half as much again
    expect(page.get_by_text("All of it is 1.5 times what was planned now")).to_be_visible()
    expect(page.get_by_role("img", name="0.0 g of 51.8 g")).to_be_visible()
    bench.pan.do("POUR -7.6")
    key(page, re.compile("7.6 g taken out"))
    expect(page.get_by_role("img", name="0.0 g of 34.6 g")).to_be_visible()
    holds(page, bench, [15.2])
    pour(page, bench, 40.0)
    expect(page.get_by_text(re.compile(r"2\.\d g more, to 17\.6 g"))).to_be_visible()
    page.get_by_role("button", name="Leave it as it is").click()
    expect(page.get_by_text(re.compile("Water: 77.6% of the whole, planned 75.0%"))).to_be_visible()
    key(page, "It is stirred")
    holds(page, bench, [15.2, 40.0])


def test_unplugged_restarted_and_loaded_anew_in_the_midst_of_a_pour(page: Page, bench: OnTheBench) -> None:
    to_the_pot(page, bench)
    bench.pan.do("POUR 6")
    expect(page.get_by_role("img", name="6.0 g of 15.2 g")).to_be_visible()
    bench.plug(False)
    expect(page.get_by_text("The scale does not answer.", exact=False).first).to_be_visible()
    bench.pan.do("POUR 3")  # poured blind
    bench.plug(True)
    expect(page.get_by_role("img", name="9.0 g of 15.2 g")).to_be_visible()  # the same scale, the same zero
    page.reload()
    expect(page.get_by_role("img", name="9.0 g of 15.2 g")).to_be_visible()
    key(page, "Poured: 9.0 g")
    expect(page.get_by_role("img", name="9.0 g of 15.2 g")).to_be_visible()
    bench.pan.do("RESTART")
    expect(now(page).get_by_text("The scale was switched off and on", exact=False)).to_be_visible()
    key(page, "That is the pot")
    expect(page.get_by_role("img", name="9.0 g of 15.2 g")).to_be_visible()
    pour(page, bench, 6.2)
    bench.pan.do("UNIT oz")
    expect(now(page).get_by_text("The scale was set to another unit", exact=False)).to_be_visible()
    key(page, "That is the pot")
    expect(page.get_by_role("img", name="0.0 g of 34.6 g")).to_be_visible()
    bench.pan.do("UNIT g")
    expect(now(page).get_by_text("The scale was set to another unit", exact=False)).to_be_visible()
    key(page, "That is the pot")
    expect(page.get_by_role("img", name="0.0 g of 34.6 g")).to_be_visible()
    pour(page, bench, 34.6)
    holds(page, bench, [15.2, 34.6])
    entries = bench.loft.ask(f"events?job={bench.job}")
    poured = [e["act"]["g"] for e in entries if e["act"] and e["act"]["act"] == "poured"]
    assert poured == pytest.approx([9.0, 6.2, 34.6], abs=0.06)


def test_a_second_device_follows_and_counts_nothing_twice(
    page: Page, context: BrowserContext, bench: OnTheBench
) -> None:
    to_the_pot(page, bench)
    tablet = context.new_page()
    tablet.goto(bench.url)
    expect(tablet.get_by_text("Still to pour")).to_be_visible()
    bench.pan.do("POUR 15.2")
    for one in (page, tablet):
        expect(one.locator("footer").get_by_role("button", name="Poured: 15.2 g")).to_be_enabled()
    key(page, "Poured: 15.2 g")
    expect(tablet.get_by_role("heading", name="Water")).to_be_visible()
    holds(page, bench, [15.2])
    bench.pan.do("POUR 34.6")
    tap(tablet, "Poured: 34.6 g")
    key(page, "It is stirred")
    expect(tablet.get_by_role("heading", name="milk", exact=True)).to_be_visible()
    tap(tablet, "Use it as it is")
    for one in (page, tablet):
        one.locator("footer").get_by_role("button", name=re.compile("Use it as it is|Done")).wait_for()
    tap(tablet, "Done")
    expect(page.get_by_role("heading", name=re.compile("^Rub in the paint wash"))).to_be_visible()
    # Two pages of one browser share what is kept: the first shows it as soon as it is kept, the server a little later.
    until(page, bench.api, lambda api: any(
        o["state"] == "done" and o["operation"]["kind"] == "mix" for o in api["bench"]["operations"]))  # fmt: skip
    for one in (page, tablet):
        nothing_waits(one)
    events = bench.loft.ask(f"events?job={bench.job}")
    assert sum(e["did"] == "done" and e["operation"].endswith(":mix") for e in events) == 1
    holds(page, bench, [15.2, 34.6])
    tablet.close()


def test_by_hand_on_a_phone_while_the_server_is_away(page: Page, bench: OnTheBench) -> None:
    """Nothing is lost and nothing counted twice: what was poured meanwhile is sent when it is back."""
    bench.loft.order("scale", path=None)
    page.set_viewport_size({"width": 390, "height": 800})
    page.goto(bench.url)
    key(page, "Begin")
    expect(page.get_by_role("button", name=re.compile("syringe|tsp|ml"))).not_to_have_count(0)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    bench.loft.stop()
    expect(page.get_by_text("Lumso is not answering.", exact=False)).to_be_visible()
    key(page, "All in")
    expect(page.get_by_role("heading", name="Water")).to_be_visible()
    page.get_by_role("button", name="About this much").click()
    page.get_by_label("About").fill("40")
    page.locator("body").click(position={"x": 5, "y": 300})
    key(page, "Poured")
    # That is more water than planned: as the server will, the page asks for paint, so that the share holds.
    expect(page.get_by_role("heading", name="Paint Footlight green")).to_be_visible()
    key(page, "Poured")
    key(page, "It is stirred")
    expect(page.get_by_text("kept here", exact=False).first).to_be_visible()
    bench.loft.start()
    expect(page.get_by_text("Lumso is not answering.", exact=False)).to_be_hidden(timeout=20_000)
    expect(page.get_by_role("heading", name="milk", exact=True)).to_be_visible()
    holds(page, bench, [15.224 * 40 / 34.6, 40.0])
    pours = bench.api()["pots"][0]["pot"]["pours"]
    assert [p["by"] for p in pours] == ["fillings", "feel", "feel"]


def test_the_bench_locks_for_wiping_and_says_what_the_device_cannot(page: Page, bench: OnTheBench) -> None:
    page.add_init_script("delete Navigator.prototype.wakeLock; delete window.AudioContext;")
    page.goto(bench.url)
    expect(page.get_by_text("This browser lets the screen go dark.", exact=False)).to_be_visible()
    expect(page.get_by_text("Touch the screen once, then timers ring.", exact=False)).to_be_visible()
    page.get_by_role("button", name="Lock to wipe").click()
    lock = page.get_by_role("button", name="Locked for wiping")
    expect(lock).to_be_focused()
    page.keyboard.press("PageDown")
    expect(page.locator("footer").get_by_role("button", name="Begin")).to_be_visible()
    assert bench.api()["pots"] == []
    page.keyboard.press("Escape")
    expect(lock).to_be_hidden()
    for target in page.locator("footer button, header button").all():
        box = target.bounding_box()
        assert box
        assert min(box["width"], box["height"]) >= 71


def test_a_timer_rings_is_moved_by_what_is_seen_and_outlives_a_reload(page: Page, loft: Running) -> None:
    job = loft.job("Programme rack")
    prepared(loft, job, ("sanded-180", 200), ("grain-raised", 0))
    page.goto(f"{loft.url}/jobs/{job}/bench")
    runs = page.get_by_role("region", name="What runs")
    expect(runs.get_by_text("leave it")).to_be_visible()
    expect(page.get_by_role("timer")).to_be_visible()
    page.reload()
    expect(runs.get_by_text(re.compile(r"^\d:\d\d:\d\d$"))).to_be_visible()
    runs.get_by_role("button", name="It looks otherwise").click()
    runs.get_by_role("button", name="Dry by now").click()
    expect(runs.get_by_text("ready", exact=True)).to_be_visible()
    expect(runs.get_by_text("As you saw it: found dry.")).to_be_visible()
    expect(page.locator("[data-flash]")).to_have_count(1)  # no sound was unlocked by a pedal: the bench flashes
    page.keyboard.press("PageDown")
    expect(page.locator("[data-flash]")).to_have_count(0)
    expect(page.locator("footer").get_by_role("button", name="Begin")).to_be_visible()
