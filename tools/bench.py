"""Print how long things take on this machine: medians of repeated runs, in milliseconds unless said otherwise."""

import gzip
import json
import re
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from itertools import count, cycle
from pathlib import Path
from random import Random
from threading import Event, Thread
from urllib.request import Request, urlopen

from playwright.sync_api import sync_playwright

from large import edits, large_job
from lumso.catalogue import shipped
from lumso.core.advice import advise, trial, with_finish
from lumso.core.book.kit import Kit, KitMeasure
from lumso.core.buying.packs import Bundle, Offer, Shop, Wanted
from lumso.core.changes.what_if import WhatIf
from lumso.core.checks import RULES
from lumso.core.job.job import FromTotal
from lumso.core.layers.conditions import steady
from lumso.core.memory import Memo
from lumso.core.mixing.measuring import measure_out
from lumso.core.mixing.needs import Need
from lumso.core.mixing.recipe_page import sheet
from lumso.core.piece.kinds import KINDS
from lumso.core.plan.plan import plan
from lumso.core.solver.packs import best_basket
from lumso.core.work.sheet import mix_sheet
from lumso.core.workshop.workshop import Workshop
from lumso.formats import workshop
from lumso.formats.jobfile import from_json, to_json
from lumso.store import entries
from lumso.store.database import Database

OWN = {"kind": "powder", "role": "powder", "bulk_density": 0.8, "true_density": 2.6, "provenance": "bench"}
ROOT = Path(__file__).parent.parent
EXAMPLE = ROOT / "examples" / "programme-rack.json"
CHROMIUM = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]


def row(name: str, value: float, unit: str = "ms") -> None:
    print(f"{name:<56}{value:>10.1f} {unit}")


def median_ms(work: Callable[[], object], runs: int = 50) -> float:
    """Median wall time of `work` in ms after three warm-up runs."""
    times = []
    for i in range(runs + 3):
        start = time.perf_counter()
        work()
        if i >= 3:
            times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def once_ms(work: Callable[[], object]) -> float:
    """Wall time of `work` done once, in ms."""
    start = time.perf_counter()
    work()
    return (time.perf_counter() - start) * 1000


@contextmanager
def server(folder: Path) -> Iterator[tuple[str, float]]:
    """A demo server as a process of its own; gives its address and how long it took to answer, in ms."""
    start = time.perf_counter()
    command = [sys.executable, "-m", "lumso", "demo", "--port", "0", "--data", str(folder / "bench.sqlite3")]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    try:
        assert process.stdout
        found = re.search(r"http://[^/]+", process.stdout.readline())
        assert found
        url = found.group(0)
        urlopen(f"{url}/api/jobs").read()
        yield url, (time.perf_counter() - start) * 1000
    finally:
        process.terminate()
        process.wait()


SPOONS: tuple[tuple[float, str], ...] = (
    (1.25, "¼ tsp"),
    (2.5, "½ tsp"),
    (5, "tsp"),
    (15, "tbsp"),
    (62.5, "¼ cup"),
    (83.3, "⅓ cup"),
    (125, "½ cup"),
)
SPOONS += ((250, "cup"), (7.3, "lid"), (14, "scoop"), (42, "big scoop"), (183, "blue cup"))
MARKED = (("syringe", 10, 0.5), ("jug", 500, 25), ("big jug", 1000, 100))
SHARES = (0.4, 0.3, 0.2, 0.07, 0.03)


def core() -> None:
    job, catalogue, memo = from_json(EXAMPLE.read_bytes()), shipped(), Memo()
    row("plan of the example, core", median_ms(lambda: plan(job, Workshop(), catalogue, steady())))
    job, known = large_job(), catalogue
    row("first plan of 12 zones × 10 layers, core", once_ms(lambda: plan(job, Workshop(), known, steady(), memo)))
    changed = edits(job)
    times = [once_ms(partial(plan, next(changed), Workshop(), known, steady(), memo)) for _ in range(60)]
    row("re-planning it after an edit, core, median of 60", statistics.median(times))
    row("re-planning it after an edit, core, slowest of 60", max(times))
    bench = trial(job, 0, known.with_entries(job.entries), steady())
    ids = (f"new-{n}" for n in count())
    row(f"{len(RULES)} rules over a stack of 10 layers", median_ms(lambda: bench.findings(job.zones[0])))
    row("all advisers on a stack of 10 layers", median_ms(lambda: advise(job.zones[0], bench, ids), 10))
    here = Workshop(measures="metric")
    asked = partial(mix_sheet, [job], here, known, steady(), None, memo)
    row("mix sheet of 12 zones × 10 layers, core", median_ms(asked, 10))
    tries = cycle((WhatIf(margin=0.2), None, WhatIf(coats={"layer-1": 3})))
    row("what if, back and forth, core", median_ms(lambda: mix_sheet([job], here, known, steady(), next(tries), memo)))
    finish = known.finishes["trowelled-metal"]
    row("a finish put on a zone, prepared and sealed", median_ms(lambda: with_finish(job.zones[0], finish, bench, ids)))
    kind = KINDS["chest-of-drawers"]
    sizes = {**kind.usual(), "width": 2400.0, "height": 2000.0, "rows": 10.0, "columns": 8.0}
    row(
        "surfaces and drawing of a chest of 10 × 8 drawers, core",
        median_ms(lambda: (kind.surfaces(sizes), kind.draw(sizes))),
    )
    pages = list(catalogue.recipes.values())
    want = FromTotal("total", 500)
    row(
        f"whole book, {len(pages)} recipes worked out, core",
        median_ms(lambda: [sheet(r, "", want, Workshop(), catalogue) for r in pages], 10),
    )
    measures = tuple(KitMeasure(name, ml) for ml, name in SPOONS)
    kit = Kit("bench", "bench", measures + tuple(KitMeasure(n, ml, step) for n, ml, step in MARKED))
    for total in (50, 500, 5000):
        needs = tuple(Need(f"part {i}", total * share, total * share) for i, share in enumerate(SHARES))

        def search(needs: tuple[Need, ...] = needs) -> None:
            measure_out.cache_clear()
            measure_out(needs, kit)

        row(f"kit search, 15 measures, 5 parts, {total} ml", median_ms(search, 10))
    items = [
        {"slug": f"own-{i}", "own": {**OWN, "slug": f"own-{i}", "name": f"material {i}"}, "on_hand": i}
        for i in range(2000)
    ]
    text = json.dumps({"format": "lumso-workshop-file", "version": 1, "shelf": items})
    with tempfile.TemporaryDirectory() as folder:
        db = Database(Path(folder) / "bench.sqlite3")

        def take() -> None:
            file = workshop.from_json(text, catalogue)
            entries.put(db, [("shelf", item.slug, workshop.document("shelf", item)) for item in file.shelf])

        row("import of 2,000 materials, read, checked and kept", median_ms(take, 3))
        db.close()


def api(url: str) -> None:
    body = json.dumps({"sequence": 1, "job": json.loads(EXAMPLE.read_text())}).encode()
    request = Request(f"{url}/api/plan", body, {"content-type": "application/json"})
    row("plan of the example, API round trip", median_ms(lambda: urlopen(request).read()))
    changed = edits(large_job())
    times = []
    for number in range(20):
        body = f'{{"sequence": {number}, "job": {to_json(next(changed))}}}'.encode()
        request = Request(f"{url}/api/plan", body, {"content-type": "application/json"})
        times.append(once_ms(partial(ask, request)))
    row("re-planning 12 zones × 10 layers, API round trip", statistics.median(times))


@contextmanager
def busy(url: str) -> Iterator[None]:
    """While somebody else prints, and somebody asks how to measure, without a pause."""
    over = Event()
    first = json.loads(urlopen(f"{url}/api/jobs").read())["jobs"][0]["id"]
    prints = Request(f"{url}/api/jobs/{first}/print", b'{"what": "cards"}', {"content-type": "application/json"})

    def again(number: int) -> Request:
        want = {"by": "total", "ml": 300.0 + number / 10}  # another amount each time: nothing is remembered
        asked = {"sequence": 0, "recipe": "salt-wash", "school": "", "want": want}
        body = json.dumps(asked).encode()
        return Request(f"{url}/api/sheet/measure", body, {"content-type": "application/json"})

    def go(asked: Iterator[Request]) -> None:
        while not over.is_set():
            ask(next(asked))

    threads = [Thread(target=go, args=(cycle([prints]),)), Thread(target=go, args=(map(again, count()),))]
    for thread in threads:
        thread.start()
    time.sleep(2)
    yield
    over.set()
    for thread in threads:
        thread.join()


def ask(request: Request) -> bytes:
    """The answer to a request, read whole."""
    answer: bytes = urlopen(request).read()
    return answer


KEY_TO_AMOUNT = """async () => {
  const slider = document.querySelector('[role=slider]');
  const shown = () => document.querySelector('[aria-label^="Water, weighed: "]').ariaLabel;
  const times = [];
  slider.focus();
  for (let i = 0; i < 30; i++) {
    const before = shown(), start = performance.now();
    const key = i % 2 ? 'ArrowRight' : 'ArrowLeft';
    slider.dispatchEvent(new KeyboardEvent('keydown', {key, bubbles: true}));
    while (shown() === before) await new Promise(r => requestAnimationFrame(r));
    times.push(performance.now() - start);
    await new Promise(r => setTimeout(r, 600));
  }
  return times.sort((a, b) => a - b);
}"""


PRESS_TO_PLAN = """async () => {
  const button = sign => document.querySelector(`[aria-label="Coats: ${sign}"]`);
  const shown = () => [...document.querySelectorAll('a')].find(a => a.innerText.includes('to the pot')).innerText;
  const times = [];
  for (let i = 0; i < 16; i++) {
    const before = shown(), start = performance.now();
    button(i % 2 ? 'less' : 'more').click();
    while (shown() === before) await new Promise(r => requestAnimationFrame(r));
    times.push(performance.now() - start);
    await new Promise(r => setTimeout(r, 1200));
  }
  return times.sort((a, b) => a - b);
}"""


def screen(url: str) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(url)
        page.get_by_role("link", name="Programme rack").first.click()
        page.get_by_role("link", name="Mix", exact=True).click()
        page.get_by_role("slider").wait_for()
        times = page.evaluate(KEY_TO_AMOUNT)
        row("key press to new amounts on screen, median", statistics.median(times))
        row("key press to new amounts on screen, slowest of 30", times[-1])
        job = Request(f"{url}/api/jobs", to_json(large_job()).encode(), {"content-type": "application/json"})
        page.goto(f"{url}/jobs/{json.loads(ask(job))['id']}/finish")
        page.get_by_role("button", name="Coats: more").wait_for()
        times = page.evaluate(PRESS_TO_PLAN)
        row("press to new plan on screen, 12 × 10 layers, median", statistics.median(times))
        row("press to new plan on screen, 12 × 10, slowest of 16", times[-1])
        browser.close()


def interface() -> None:
    for kind in ("js", "css", "woff2"):
        files = list((ROOT / "src" / "lumso" / "web" / "assets").glob(f"*.{kind}"))
        size = sum(len(gzip.compress(f.read_bytes())) for f in files)
        row(f"interface, {kind} compressed", size / 1024, "KiB")


def packs() -> None:
    """60 materials in 6 packs each, and 10 bundles over a dozen of them."""
    dice = Random(1)
    sizes = (12_500, 5_000, 25_000, 50_000, 100_000, 17_000, 11_300, 250_000)
    wanted = tuple(Wanted(f"m{n}", dice.randint(500, 300_000), dice.random() < 0.5) for n in range(60))
    offers = []
    for want in wanted:
        for k in range(6):
            size = dice.choice(sizes)
            price = dice.randint(int(size * 0.02), int(size * 0.06))
            offers.append(Offer(f"{want.key}/{k}", want.key, size, price))
    bundles = []
    for n in range(10):
        inside, many = tuple(o.id for o in dice.sample(offers, 12)), dice.choice((2, 3))
        bundles.append(Bundle(str(n), many, many * 1500, inside))
    shop = Shop(wanted, tuple(offers), tuple(bundles))
    assert best_basket(shop).proven
    row("cheapest packs, proven: 60 materials, 10 bundles", median_ms(lambda: best_basket(shop), 5))


def main() -> None:
    core()
    packs()
    with tempfile.TemporaryDirectory() as folder, server(Path(folder)) as (url, start_ms):
        row("server start to first answer", start_ms)
        api(url)
        with busy(url):
            print("With a print and a kit search running:")
            api(url)
            screen(url)
    interface()


if __name__ == "__main__":
    main()
