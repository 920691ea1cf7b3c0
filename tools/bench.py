"""Print how long things take on this machine, all of it: medians of repeated runs, beside the figures that are kept.

`--once` does one small round of everything, to see that each figure still appears; `--keep` keeps what was found.
"""

import gzip
import json
import re
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from functools import partial
from itertools import count, cycle
from pathlib import Path
from random import Random
from threading import Event, Thread
from typing import Any
from urllib.request import Request, urlopen

from playwright.sync_api import Browser, sync_playwright

import bench_days
import bench_look
import strain
from figures import LOOP, ONCE, ROOT, calibrate, keep, median_ms, once_ms, row
from large import edits, large_job
from lumso.catalogue import shipped
from lumso.core.advice import advise, trial, with_finish
from lumso.core.book.kit import Kit, KitMeasure
from lumso.core.buying.packs import Bundle, Offer, Shop, Wanted
from lumso.core.changes.what_if import WhatIf
from lumso.core.checks import RULES
from lumso.core.job.job import FromTotal, Job
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
EXAMPLE = ROOT / "examples" / "programme-rack.json"
EXECUTABLE = next(p for p in map(Path, ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium")) if p.exists())
CHROMIUM = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]


@contextmanager
def server(data: Path, command: str = "demo") -> Iterator[tuple[str, float]]:
    """A server as a process of its own; its address, and how long it took until it had answered for the list and a
    first job, ms."""
    start = time.perf_counter()
    line = [sys.executable, "-m", "lumso", command, "--port", "0", "--data", str(data)]
    process = subprocess.Popen(line, stdout=subprocess.PIPE, text=True)
    try:
        assert process.stdout
        found = re.search(r"http://[^/]+", process.stdout.readline())
        assert found
        url = found.group(0)
        first = json.loads(urlopen(f"{url}/api/jobs").read())["jobs"][:1]
        for job in first:
            urlopen(f"{url}/api/jobs/{job['id']}").read()
        yield url, (time.perf_counter() - start) * 1000
    finally:
        process.terminate()
        process.wait()


EMPTY = """
import socket, uvicorn
from fastapi import FastAPI
app = FastAPI()
@app.get("/")
def get() -> dict[str, int]:
    return {"a": 1}
listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
listener.bind(("127.0.0.1", 0))
listener.listen()
print(listener.getsockname()[1], flush=True)
uvicorn.Server(uvicorn.Config(app, log_level="error")).run(sockets=[listener])
"""


def empty_ms() -> float:
    """How long an empty app of the same framework takes until it answers one GET, ms."""
    start = time.perf_counter()
    process = subprocess.Popen([sys.executable, "-c", EMPTY], stdout=subprocess.PIPE, text=True)
    assert process.stdout
    urlopen(f"http://127.0.0.1:{process.stdout.readline().strip()}/").read()
    took = (time.perf_counter() - start) * 1000
    process.terminate()
    process.wait()
    return took


def starts(data: Path, first: float) -> None:
    """From nothing to the first answers, in turns with an empty app. `first` is what the demo took."""
    ours, empty = [first] if ONCE else [], [empty_ms()]
    for _ in range(0 if ONCE else 7):
        with server(data, "serve") as (_, took):
            ours.append(took)
        empty.append(empty_ms())
    row("start until the list and a first job are answered", statistics.median(ours))
    row("start of an empty app until it answers", statistics.median(empty))
    row("  the one as a multiple of the other", statistics.median(ours) / statistics.median(empty), "×")


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
    times = [once_ms(partial(plan, next(changed), Workshop(), known, steady(), memo)) for _ in range(1 if ONCE else 60)]
    row("re-planning it after an edit, core", statistics.median(times))
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
    for total in (50,) if ONCE else (50, 500, 5000):
        needs = tuple(Need(f"part {i}", total * share, total * share) for i, share in enumerate(SHARES))

        def search(needs: tuple[Need, ...] = needs) -> None:
            measure_out.cache_clear()
            measure_out(needs, kit)

        row(f"kit search, 15 measures, 5 parts, {total} ml", median_ms(search, 10))
    items = [
        {"slug": f"own-{i}", "own": {**OWN, "slug": f"own-{i}", "name": f"material {i}"}, "on_hand": i}
        for i in range(20 if ONCE else 2000)
    ]
    text = json.dumps({"format": "lumso-workshop-file", "version": 1, "shelf": items})
    with tempfile.TemporaryDirectory() as folder:
        db = Database(Path(folder) / "bench.sqlite3")

        def take() -> None:
            file = workshop.from_json(text, catalogue)
            entries.put(db, [("shelf", item.slug, workshop.document("shelf", item)) for item in file.shelf])

        row("import of 2,000 materials, read, checked and kept", median_ms(take, 3))
        db.close()


def trips(url: str, job: Job, name: str, when: str) -> None:
    """Edits as a page makes them: up goes what was done, down comes what differs."""
    made = Request(f"{url}/api/jobs", to_json(job).encode(), {"content-type": "application/json"})
    at = f"{url}/api/jobs/{json.loads(ask(made))['id']}"
    got = json.loads(urlopen(f"{at}?looked_at=").read())
    zone = got["job"]["zones"][0]
    place = ["zones", {"id": zone["id"]}, "layers", {"id": zone["layers"][-1]["id"]}, "coats"]
    times, up, down = [], [], []
    for n in range(1 if ONCE else 20):
        change = {"do": "set", "key": f"{when} {n}", "patch": [{"at": place, "value": 2 + n % 2}]}
        body = json.dumps({"read": got["revision"], "changes": [change]}).encode()
        headers = {"content-type": "application/json", "idempotency-key": f"{name} {when} {n}"}
        request = Request(f"{at}/changes?looked_at={zone['id']}&holds={got['plan_id']}", body, headers)
        answers: list[bytes] = []
        times.append(once_ms(lambda request=request, answers=answers: answers.append(ask(request))))  # type: ignore[misc]
        got = json.loads(answers[0])
        up.append(len(body))
        down.append(len(answers[0]))
    row(f"an edit of {name}, one trip, {when}", statistics.median(times))
    if when == "idle":
        row("  goes up", max(up) / 1024, "KiB")
        row(f"  comes down, {name}", max(down) / 1024, "KiB")


def api(url: str, when: str) -> None:
    trips(url, from_json(EXAMPLE.read_text(), "the example"), "the example", when)
    trips(url, large_job(), "12 zones × 10 layers", when)


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
    time.sleep(0.1 if ONCE else 2)
    yield
    over.set()
    for thread in threads:
        thread.join()


def ask(request: Request) -> bytes:
    """The answer to a request, read whole."""
    answer: bytes = urlopen(request).read()
    return answer


KEY_TO_AMOUNT = """async times_ => {
  const slider = document.querySelector('[role=slider]');
  const shown = () => document.querySelector('[aria-label^="Water, weighed: "]').ariaLabel;
  const times = [];
  slider.focus();
  for (let i = 0; i < times_; i++) {
    const before = shown(), start = performance.now();
    const key = i % 2 ? 'ArrowRight' : 'ArrowLeft';
    slider.dispatchEvent(new KeyboardEvent('keydown', {key, bubbles: true}));
    while (shown() === before) await new Promise(r => requestAnimationFrame(r));
    times.push(performance.now() - start);
    await new Promise(r => setTimeout(r, 600));
  }
  return times.sort((a, b) => a - b);
}"""


PRESS_TO_PLAN = """async times_ => {
  const button = sign => document.querySelector(`[aria-label="Coats: ${sign}"]`);
  const shown = () => [...document.querySelectorAll('a')].find(a => a.innerText.includes('see the mix')).innerText;
  const times = [];
  for (let i = 0; i < times_; i++) {
    const before = shown(), start = performance.now();
    button(i % 2 ? 'less' : 'more').click();
    while (shown() === before) await new Promise(r => requestAnimationFrame(r));
    times.push(performance.now() - start);
    await new Promise(r => setTimeout(r, 1200));
  }
  return times.sort((a, b) => a - b);
}"""


def first_page(browser: Browser, url: str) -> None:
    """The first page of somebody who was never here: until the names of the jobs can be read, and what that takes."""
    times, asked, sent = [], [], []
    for _ in range(1 if ONCE else 5):
        context = browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
        page = context.new_page()
        bytes_: list[int] = []
        answered: list[Any] = []
        session = context.new_cdp_session(page)
        session.send("Network.enable")
        session.on("Network.loadingFinished", lambda said, to=bytes_: to.append(said["encodedDataLength"]))
        page.on("requestfinished", partial(list.append, answered))
        start = time.perf_counter()
        page.goto(url)
        page.get_by_role("link", name="Programme rack").first.wait_for()
        times.append((time.perf_counter() - start) * 1000)
        asked.append(len(answered))
        sent.append(sum(bytes_) / 1024)
        context.close()
    row("cold first page until the jobs can be read", statistics.median(times))
    row("  requests until then", statistics.median(asked), "")
    row("  sent until then", statistics.median(sent), "KiB")


def screen(url: str) -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=str(EXECUTABLE), args=CHROMIUM)
        first_page(browser, url)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(url)
        page.get_by_role("link", name="Programme rack").first.click()
        page.get_by_role("link", name="Mix", exact=True).click()
        page.get_by_role("slider").wait_for()
        times = page.evaluate(KEY_TO_AMOUNT, 1 if ONCE else 30)
        row("key press to new amounts on screen, median", statistics.median(times))
        row("key press to new amounts on screen, slowest of 30", times[-1])
        job = Request(f"{url}/api/jobs", to_json(large_job()).encode(), {"content-type": "application/json"})
        page.goto(f"{url}/jobs/{json.loads(ask(job))['id']}/finish")
        page.get_by_role("button", name="Coats: more").wait_for()
        times = page.evaluate(PRESS_TO_PLAN, 1 if ONCE else 16)
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
    wanted = tuple(Wanted(f"m{n}", dice.randint(500, 300_000), dice.random() < 0.5) for n in range(6 if ONCE else 60))
    offers = []
    for want in wanted:
        for k in range(6):
            size = dice.choice(sizes)
            price = dice.randint(int(size * 0.02), int(size * 0.06))
            offers.append(Offer(f"{want.key}/{k}", want.key, size, price))
    bundles = []
    for n in range(1 if ONCE else 10):
        inside, many = tuple(o.id for o in dice.sample(offers, 4 if ONCE else 12)), dice.choice((2, 3))
        bundles.append(Bundle(str(n), many, many * 1500, inside))
    shop = Shop(wanted, tuple(offers), tuple(bundles))
    assert best_basket(shop).proven
    row("cheapest packs, proven: 60 materials, 10 bundles", median_ms(lambda: best_basket(shop), 5))


def main() -> None:
    row(LOOP, calibrate())
    core()
    packs()
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "bench.sqlite3"
        with server(data) as (url, first):
            row("shopping list of the demo, cold", once_ms(lambda: urlopen(f"{url}/api/buying/list").read()))
            row("shopping list of the demo, warm", median_ms(lambda: urlopen(f"{url}/api/buying/list").read(), 15))
            api(url, "idle")
            screen(url)
            with busy(url):
                api(url, "with a print and a kit search")
        starts(data, first)
    interface()
    bench_look.main()
    bench_days.main()
    strain.main()
    keep()


if __name__ == "__main__":
    main()
