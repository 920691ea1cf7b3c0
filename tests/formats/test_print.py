"""What is printed, piece by piece: nothing runs off the paper, nothing is cut that matters."""

import io
import re
from dataclasses import replace
from typing import Any

import pytest
from pypdf import PdfReader
from reportlab.pdfbase import pdfmetrics

from lumso.catalogue import shipped
from lumso.core.layers.conditions import steady
from lumso.core.mixing.fillings import Filling
from lumso.core.mixing.measuring import measure_out
from lumso.core.mixing.needs import Need
from lumso.core.work.batch import Batch
from lumso.core.work.batch_file import BatchFile
from lumso.core.work.sheet import mix_sheet
from lumso.core.work.steps import steps_of
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from lumso.formats.pdf import PAPERS, Paper, bench_sheet, cards, labels
from lumso.formats.pdf.cards import said
from lumso.formats.pdf.page import BOLD, REGULAR, grams, printable, register, wrap

C = shipped()
JOBS = {job.name: job for job in demo_jobs()}
LONG = "Home-made mineral paint with everything that was left of the old stage floor and then some " * 2


def files(name: str, kit: str = "metric-spoons") -> list[BatchFile]:
    sheet = mix_sheet([JOBS[name]], Workshop(), C, steady())
    return [in_kit(name, batch, kit) for batch in sheet.batches]


def in_kit(name: str, batch: Batch, kit: str = "metric-spoons") -> BatchFile:
    needs = tuple(Need(p.name, p.poured.value, p.mass.value, p.solid) for p in batch.mix.parts)
    return BatchFile("lumso-batch", 4, name, kit, batch, measure_out(needs, C.kits[kit]))


def coded(made: list[BatchFile]) -> list[tuple[str, str, BatchFile]]:
    return [(f"mofa-{i + 10}", f"http://127.0.0.1/b/mofa-{i + 10}", f) for i, f in enumerate(made)]


def off_paper(pdf: bytes) -> list[str]:
    """Texts that begin or end outside the paper, by their own widths in their own type."""
    outside = []
    for page in PdfReader(io.BytesIO(pdf)).pages:
        width, height = float(page.mediabox.width), float(page.mediabox.height)

        def visit(
            text: str, cm: Any, tm: Any, font: Any, size: float, width: float = width, height: float = height
        ) -> None:
            if not text.strip() or not font:
                return
            name = BOLD if "Bold" in str(font.get("/BaseFont")) else REGULAR
            x, y = tm[4] * cm[0] + cm[4], tm[5] * cm[3] + cm[5]
            for line in text.splitlines():
                end = x + pdfmetrics.stringWidth(line, name, size)
                if x < 0 or end > width + 1 or not 0 <= y <= height:
                    outside.append(f"{line!r} at {x:.0f}–{end:.0f}, {y:.0f}")

        page.extract_text(visitor_text=visit)
    return outside


@pytest.mark.parametrize("paper", ["a4", "letter"])
@pytest.mark.parametrize("name", sorted(JOBS))
def test_nothing_runs_off_the_paper(name: str, paper: Paper) -> None:
    made = coded(files(name))
    assert off_paper(cards(made, paper)) == []
    assert off_paper(labels(made, paper)) == []


def test_long_names_are_wrapped_or_shortened_and_stay_on_the_paper() -> None:
    (first, *_) = files("Costume wardrobe")
    batch = replace(first.batch, name=LONG, colour=LONG[:80], vessel=LONG)
    uses = tuple(replace(u, zone_name=LONG[:100]) for u in batch.uses)
    long = replace(first, job=LONG[:110], batch=replace(batch, uses=uses))
    for paper in PAPERS:
        assert off_paper(cards(coded([long]), paper)) == []
        assert off_paper(labels(coded([long]), paper)) == []


def test_a_caution_is_never_cut_on_a_card() -> None:
    for name in JOBS:
        for file in files(name):
            text = PdfReader(io.BytesIO(cards(coded([file]), "a4"))).pages[0].extract_text()
            flat = " ".join(text.split())
            for caution in file.batch.cautions:
                assert " ".join(printable(caution).split()) in flat


def test_cards_stand_two_on_a_page_and_labels_ten() -> None:
    made = coded(files("Foyer wall"))
    assert len(made) == 11
    assert len(PdfReader(io.BytesIO(cards(made, "a4"))).pages) == 6
    assert len(PdfReader(io.BytesIO(labels(made, "a4"))).pages) == 2
    assert len(PdfReader(io.BytesIO(cards(made[:1], "a4"))).pages) == 1


def test_printing_twice_gives_the_same_bytes() -> None:
    made = coded(files("Programme rack"))
    assert cards(made, "a4") == cards(made, "a4")
    assert labels(made, "letter") == labels(made, "letter")


@pytest.mark.parametrize("name", ["Costume wardrobe", "Ticket counter"])
def test_every_step_is_on_the_bench_sheet_with_its_box(name: str) -> None:
    job = JOBS[name]
    steps = steps_of(work(job, Workshop(), C, steady()), steady())
    pdf = bench_sheet(job.name, steps, "a4")
    text = " ".join(" ".join(p.extract_text() for p in PdfReader(io.BytesIO(pdf)).pages).split())
    tasks = [step.operation for step in steps.steps]
    assert text.count("Begun ________") == len(tasks)
    for task in tasks:
        assert " ".join(printable(task.says).split()) in text
    for thing in steps.kit:
        assert printable(thing) in text
    for care in {c for t in tasks for c in t.take_care}:
        assert " ".join(printable(care).split()) in text


def test_the_kit_is_said_as_it_is_filled() -> None:
    fillings = [Filling("1 tsp", 5, 2, False), Filling("syringe", 7, 1, True), Filling("jug", 250, 2, True)]
    assert said(fillings) == "2 × 1 tsp + syringe to 7.0 ml + 2 × jug to 250 ml"


@pytest.mark.parametrize(
    ("made", "expected"),
    [
        (grams(12.34), "12.3 g"),
        (grams(1500), "1.50 kg"),
        (printable("2 ⅔ cup → jar"), "2  2/3 cup to jar"),
    ],
)
def test_amounts_and_times_in_print(made: str, expected: str) -> None:
    assert made == expected


def test_lines_break_between_words_and_fit() -> None:
    register()
    lines = wrap(LONG, REGULAR, 11, 120)
    assert " ".join(lines) == " ".join(LONG.split())
    assert all(pdfmetrics.stringWidth(line, REGULAR, 11) <= 120 for line in lines)
    assert wrap("incomprehensibilities", REGULAR, 40, 50) == ["incomprehensibilities"]


def test_the_type_has_every_sign_the_catalogue_uses() -> None:
    register()
    font: Any = pdfmetrics.getFont(REGULAR)
    texts = [x for r in C.recipes.values() for x in (r.name, *r.steps, *r.cautions)]
    texts += [x for t in C.techniques.values() for x in (t.name, t.how, t.direction, t.right_when)]
    texts += [x for p in C.preparations.values() for x in (p.name, p.how, p.check, *p.cautions)]
    texts += [f.waits for f in C.films.values()] + [c.looks for c in C.consistencies]
    missing = {sign for text in texts for sign in printable(text) if ord(sign) not in font.face.charToGlyph}
    assert missing == set()


def test_what_speaks_against_a_job_stands_on_every_card_and_on_the_bench_sheet() -> None:
    against = "1 can hurt somebody. Body: old gloss paint may hold lead."
    made = coded(files("Costume wardrobe"))
    for paper in PAPERS:
        pdf = cards(made, paper, {"Costume wardrobe": against, "Foyer wall": "Another thing."})
        assert off_paper(pdf) == []
        text = " ".join(p.extract_text() for p in PdfReader(io.BytesIO(pdf)).pages)
        assert text.count(against) == len(made)
        assert "Another thing." not in text
    job = JOBS["Costume wardrobe"]
    sheet = bench_sheet(job.name, steps_of(work(job, Workshop(), C, steady()), steady()), "a4", against)
    assert against in " ".join(PdfReader(io.BytesIO(sheet)).pages[0].extract_text().split())


def test_a_step_that_is_taller_than_a_page_is_split_and_others_are_not() -> None:
    job = JOBS["Picture frames"]
    steps = steps_of(work(job, Workshop(), C, steady()), steady())
    long = replace(steps.steps[1], how=tuple(f"{n}. {'A long line of words. ' * 12}" for n in range(60)))
    made = PdfReader(io.BytesIO(bench_sheet("Frames", replace(steps, steps=(long,)), "letter")))
    assert len(made.pages) >= 2
    sheet = PdfReader(io.BytesIO(bench_sheet(job.name, steps, "letter")))
    for page in sheet.pages[1:]:
        first = page.extract_text().splitlines()[1]  # the foot is told first
        assert re.match(r"\d+\. |Session ", first.strip()), first
