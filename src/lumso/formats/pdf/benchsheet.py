"""The bench sheet: the steps of a job with boxes to tick, to pin up where it is done."""

import io
from collections.abc import Iterator
from xml.sax.saxutils import escape

from reportlab.lib.colors import black
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import BaseDocTemplate, Flowable, Frame, KeepTogether, PageTemplate, Paragraph, Spacer, Table

from lumso.core.figure import lasts, millilitres
from lumso.core.work.operations import Amounts
from lumso.core.work.steps import BenchStep, Procedure

from .page import BOLD, MARGIN, PAPERS, REGULAR, Paper, grams, printable, register

BODY = ParagraphStyle("body", fontName=REGULAR, fontSize=10.5, leading=12.6)
STEP = ParagraphStyle("step", parent=BODY, fontName=BOLD, fontSize=12, leading=14.5)
SMALL = ParagraphStyle("small", parent=BODY, fontSize=8.5, leading=14)
LEAST_PAGE = 600
"""No page is less tall inside, pt."""
NOTED = 78
"""How wide the column is where times are written down, pt."""
HEAD = ParagraphStyle("head", parent=BODY, fontName=BOLD, fontSize=16, leading=20, spaceBefore=12, spaceAfter=4)
TITLE = ParagraphStyle("title", parent=HEAD, fontSize=22, leading=26, spaceBefore=0)
CARE = ParagraphStyle(
    "care",
    parent=BODY,
    fontSize=10,
    leading=12,
    borderWidth=1,
    borderColor=black,
    borderPadding=4,
    leftIndent=5,
    rightIndent=5,
    spaceBefore=4,
    spaceAfter=5,
)


class TickBox(Flowable):
    """An empty square to tick."""

    def __init__(self, side: float = 13) -> None:
        super().__init__()
        self.width = self.height = side

    def draw(self) -> None:
        """Draw it where the layout puts it."""
        self.canv.setLineWidth(1.2)
        self.canv.rect(0, -2, self.width, self.height, stroke=1, fill=0)


def text(says: str, style: ParagraphStyle) -> Paragraph:
    """Words as a paragraph."""
    return Paragraph(escape(printable(says)), style)


def bold(lead: str, says: str, style: ParagraphStyle) -> Paragraph:
    """Words that begin boldly."""
    return Paragraph(f'<font name="{BOLD}">{escape(printable(lead))}</font> {escape(printable(says))}', style)


def amount_lines(amounts: Amounts) -> Iterator[str]:
    """What goes into a pot, a line for the whole and one for each part, its colours named."""
    yield f"{millilitres(amounts.mixed_ml)} altogether."
    if amounts.from_last_ml:
        rinse = millilitres(amounts.rinse_ml)
        yield f"Begin with {millilitres(amounts.from_last_ml)} left of the last wash and {rinse} of rinse water."
    for part in amounts.parts:
        colour = f", {part.colour}" if part.colour and not part.tints else ""
        tints = ", ".join(f"{millilitres(t.ml)} {t.name or 'paint'}" for t in part.tints)
        yield f"{millilitres(part.ml)} ({grams(part.g)}) {part.name.lower()}{colour}{f': {tints}' if tints else ''}"


def _step(step: BenchStep, number: int, width: float) -> Flowable:
    task = step.operation
    where = f"{task.zone_name}: " if task.zone_name and task.kind not in {"mix", "rest", "stir", "clean"} else ""
    lines: list[Flowable] = [text(f"{number}. {where}{task.says}", STEP)]
    lines += [bold("Take care.", care, CARE) for care in task.take_care]
    if task.remember:
        lines.append(bold("Remember:", ". ".join(task.remember), BODY))
    lines += [text(line, BODY) for line in (amount_lines(task.amounts) if task.amounts else ())]
    lines += [text(line, BODY) for line in step.how]
    if step.check:
        lines.append(bold("Right when:", step.check, BODY))
    if step.as_at:
        said = "And as" if step.how or step.check else "As"
        lines.append(text(f"{said} at step {' and '.join(map(str, step.as_at))}.", BODY))
    if step.wait_min is None:
        lines.append(bold("Then wait", f"as long as the label says. {step.wait_check}", BODY))
    elif step.wait_min > 0:
        until = "" if step.wait_told else step.wait_check
        lines.append(bold(f"Then leave it {lasts(step.wait_min)}.", until, BODY))
    if step.go_on_within_min is not None:
        lines.append(bold(f"Go on within {lasts(step.go_on_within_min)};", f"later: {step.else_do}.", BODY))
    noted = [text("Begun ________", SMALL), text("Done ________", SMALL)]
    table = Table([[TickBox(), lines, noted]], colWidths=[22, width - 22 - NOTED, NOTED])
    table.setStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
                    ("TOPPADDING", (0, 0), (-1, -1), 2), ("BOTTOMPADDING", (0, 0), (-1, -1), 4),
                    ("LINEBELOW", (0, 0), (-1, -1), 0.4, "black")])  # fmt: skip
    # On one page, but for what is taller than any.
    table.splitInRow = int(table.wrap(width, 0)[1] > LEAST_PAGE)
    return table


def paged(story: list[Flowable], title: str, paper: Paper, foot_name: str = "") -> bytes:
    """What is told, on pages with their numbers at the foot."""
    register()
    out = io.BytesIO()
    width, height = PAPERS[paper]
    frame = Frame(MARGIN, MARGIN, width - 2 * MARGIN, height - 2 * MARGIN - 10, 0, 0, 0, 0)

    def foot(page: Canvas, document: BaseDocTemplate) -> None:
        page.setFont(REGULAR, 9)
        page.drawString(MARGIN, MARGIN - 14, printable(f"{foot_name or title}, page {document.page}"))

    document = BaseDocTemplate(out, pagesize=(width, height), title=title, creator="Lumso", invariant=1)
    document.addPageTemplates(PageTemplate(frames=[frame], onPage=foot))
    document.build(story)
    return out.getvalue()


def bench_sheet(name: str, steps: Procedure, paper: Paper, against: str = "") -> bytes:
    """The steps as a PDF: what speaks `against` the job, what to lay out, then every step in order with a box, checks,
    waits and cautions."""
    register()
    inner = PAPERS[paper][0] - 2 * MARGIN
    story: list[Flowable] = [text(name, TITLE)]
    about = f"{lasts(steps.hands_on_min)} hands on, {lasts(steps.elapsed_h * 60)} from first to last step (estimates)."
    story.append(text(about, BODY))
    if against:
        story.append(bold("As it is planned:", against, CARE))
    if steps.not_measured:
        story.append(text(steps.not_measured, CARE))
    story += [bold("Before anything else.", care, CARE) for care in steps.first]
    story.append(text("Lay out first", HEAD))
    half = (len(steps.kit) + 1) // 2
    rows = []
    for k in range(half):
        right = steps.kit[half + k] if half + k < len(steps.kit) else ""
        rows.append([TickBox(10), text(steps.kit[k], BODY), TickBox(10) if right else "", text(right, BODY)])
    if rows:
        kit = Table(rows, colWidths=[18, inner / 2 - 18, 18, inner / 2 - 18])
        kit.setStyle([("VALIGN", (0, 0), (-1, -1), "MIDDLE"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
                      ("TOPPADDING", (0, 0), (-1, -1), 1), ("BOTTOMPADDING", (0, 0), (-1, -1), 1)])  # fmt: skip
        story.append(kit)
    session = 0
    for number, step in enumerate(steps.steps, 1):
        if step.operation.kind == "lay out":
            session += 1
            head = text(f"Session {session}", HEAD)
            story.append(KeepTogether([head, _step(step, number, inner)]))
        else:
            story.append(_step(step, number, inner))
    story.append(Spacer(1, 4))
    return paged(story, f"Steps: {name}", paper, name)
