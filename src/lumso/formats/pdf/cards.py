"""Mixing cards: one batch each, two on a sheet, to stand on the bench while it is mixed."""

from collections.abc import Mapping, Sequence

from reportlab.pdfgen.canvas import Canvas

from lumso.core.figure import lasts, millilitres
from lumso.core.mixing.fillings import Filling
from lumso.core.mixing.mix import Part
from lumso.core.work.batch_file import BatchFile

from .page import MARGIN, MM, PAPERS, REGULAR, Paper, canvas, grams, qr, swatch, wrap, write

Coded = tuple[str, str, BatchFile]
"""A batch with its code and the address its QR code opens."""


def said(fillings: Sequence[Filling]) -> str:
    """Fillings of a kit as they are said: 2 × 1 tsp + syringe to 5 ml."""
    parts = []
    for f in fillings:
        mark = f" to {millilitres(f.ml)}" if f.to_mark else ""
        count = f"{f.count} × " if f.count > 1 or not f.to_mark else ""
        parts.append(f"{count}{f.name}{mark}")
    return " + ".join(parts)


def kit_words(file: BatchFile, part: Part) -> str:
    """How a part is measured with the kit it was printed for: fillings, a weight, or the nearest said measure."""
    measured = file.measured
    called = {part.component, part.name}  # batches frozen earlier know a part by its name
    if file.batch.mix.measured_by == "weight" or not measured.options:
        weighed = next((w for w in measured.weighed if w.component in called), None)
        if weighed:
            return f"{weighed.g:g} g"
    for option in (*measured.options[:1], *([measured.larger] if measured.larger and not measured.options else [])):
        for one in option.parts:
            if one.component in called and one.fillings:
                return said(one.fillings)
    return f"about {part.spoken.words}"


def _head(page: Canvas, coded: Coded, x: float, top: float, width: float) -> float:
    code, address, file = coded
    batch = file.batch
    side = 27 * MM
    qr(page, address, x + width - side, top - side, side)
    page.setFillColorRGB(0, 0, 0)
    y = write(page, x, top - 16, batch.name, 22, bold=True, width=width - side - 8, most=2)
    of = f"batch {batch.number} of {batch.of}, " if batch.of > 1 else ""
    y = write(page, x, y, f"{of}{millilitres(batch.mix.volume.value)}, {grams(batch.mix.mass_g)}", 18, bold=True)
    if batch.colour:
        swatch(page, x, y - 1, batch.hex, 10)
        y = write(page, x + 15, y, batch.colour, 13)
    uses = "; ".join(
        f"{u.zone_name}, layer {u.number}"
        + (f", coat {u.first_coat}" if u.first_coat == u.last_coat else f", coats {u.first_coat}–{u.last_coat}")
        for u in batch.uses
    )
    y = write(page, x, y, f"{file.job}: {uses}", 11.5, width=width - side - 8, most=3)
    if file.not_measured:
        y = write(page, x, y, file.not_measured, 11.5, bold=True, width=width - side - 8, most=3)
    write(page, x + width - side + 4, top - side - 13, code, 15, bold=True)
    return min(y, top - side - 20)


def _notes(file: BatchFile) -> list[str]:
    """What is to be known of a batch beside its parts, a sentence each."""
    batch = file.batch
    notes = []
    step = batch.step_down
    if step and step.from_last_ml > 0:
        rinse = f" and {millilitres(step.rinse_ml)} of rinse water" if step.rinse_ml else ""
        notes.append(
            f"Begin with {millilitres(step.from_last_ml)} left of the last wash{rinse}; "
            f"with this it makes {millilitres(step.ml)}."
        )
    if batch.first_ml and batch.first_ml < batch.mix.volume.value:
        notes.append(f"First {millilitres(batch.first_ml)} in these shares, look, correct; then the rest.")
    if larger := file.measured.larger:
        made = batch.mix.volume.value * (1 + larger.surplus)
        notes.append(f"These fillings make {millilitres(made)}, {larger.surplus:.0%} over.")
    if batch.rests_h > 0.01:
        notes.append(f"Rest {lasts(batch.rests_h * 60)}, stir again.")
    if batch.pot_test:
        notes.append(f"Right when like {batch.pot_test[:1].lower()}{batch.pot_test[1:]}")
    if batch.use_by_h is not None:
        notes.append(f"Use within {lasts((batch.use_by_h - batch.ready_h) * 60)} once ready.")
    notes.append(f"In a {batch.vessel}.")
    return notes


def _card(page: Canvas, coded: Coded, x: float, top: float, width: float, bottom: float) -> None:
    batch = coded[2].batch
    y = _head(page, coded, x, top, width)
    page.setLineWidth(1.5)
    page.line(x, y, x + width, y)
    y -= 19
    for number, part in enumerate(batch.mix.parts, 1):
        page.rect(x, y - 2, 13, 13, stroke=1, fill=0)
        name = part.name if not part.stage else f"{part.name}, into the {part.stage}"
        write(page, x + 22, y, f"{number}. {name}", 13.5, bold=True, width=width * 0.6, most=1)
        page.setFont(REGULAR, 13)
        page.drawRightString(x + width, y, f"{millilitres(part.poured.value)}   {grams(part.mass.value)}")
        y = write(page, x + 22, y - 21, kit_words(coded[2], part), 18, bold=True, width=width - 22, most=2) - 3
    page.line(x, y + 12, x + width, y + 12)
    y -= 5
    for text in (" ".join(_notes(coded[2])), batch.kept_for, batch.matching):
        if text and y > bottom + 20:
            y = write(page, x, y, text, 12.5, width=width, most=3) - 2
    lines = [f"Take care. {caution}" for caution in batch.cautions]
    for size in (10.0, 9.0, 8.0, 7.0):  # a caution is never cut: it is set smaller
        high = sum(len(wrap(line, REGULAR, size, width)) * size * 1.22 + 2 for line in lines)
        if high <= y - bottom or size == 7.0:
            break
    for line in lines:
        y = write(page, x, y, line, size, width=width) - 2


def cards(batches: Sequence[Coded], paper: Paper, against: Mapping[str, str] = {}) -> bytes:
    """The mixing cards, two on a page, as a PDF; each with what speaks `against` the jobs it serves, by their names."""
    page, out = canvas(paper, "Mixing cards")
    width, height = PAPERS[paper]
    half = height / 2
    for number, coded in enumerate(batches):
        if number and number % 2 == 0:
            page.showPage()
        top = height - MARGIN if number % 2 == 0 else half - MARGIN
        bottom = half + MARGIN / 2 if number % 2 == 0 else MARGIN
        served = dict.fromkeys(use.job for use in coded[2].batch.uses)
        if says := " ".join(against[name] for name in served if against.get(name)):
            page.setFillColorRGB(0, 0, 0)
            write(page, MARGIN, top + MARGIN / 2, says, 8.5, bold=True, width=width - 2 * MARGIN, most=2)
        _card(page, coded, MARGIN, top, width - 2 * MARGIN, bottom)
        if number % 2 == 0:
            page.setDash(4, 4)
            page.setLineWidth(0.5)
            page.line(0, half, width, half)
            page.setDash()
    page.save()
    return out.getvalue()
