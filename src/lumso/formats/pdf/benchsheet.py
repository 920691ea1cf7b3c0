"""The bench sheet: the steps of a job with boxes to tick, to pin up where it is done."""

import io
from xml.sax.saxutils import escape

from reportlab.lib.colors import black
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import BaseDocTemplate, Flowable, Frame, KeepTogether, PageTemplate, Paragraph, Spacer, Table

from lumso.core.work.procedure import Procedure, Task

from .page import BOLD, MARGIN, PAPERS, REGULAR, Paper, hours, printable, register

BODY = ParagraphStyle("body", fontName=REGULAR, fontSize=11.5, leading=14.5)
STEP = ParagraphStyle("step", parent=BODY, fontName=BOLD, fontSize=13, leading=16)
HEAD = ParagraphStyle("head", parent=BODY, fontName=BOLD, fontSize=16, leading=20, spaceBefore=12, spaceAfter=4)
TITLE = ParagraphStyle("title", parent=HEAD, fontSize=22, leading=26, spaceBefore=0)
CARE = ParagraphStyle(
    "care",
    parent=BODY,
    fontSize=10.5,
    leading=13,
    borderWidth=1,
    borderColor=black,
    borderPadding=4,
    leftIndent=5,
    rightIndent=5,
    spaceBefore=6,
    spaceAfter=7,
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


def _text(text: str, style: ParagraphStyle) -> Paragraph:
    return Paragraph(escape(printable(text)), style)


def _bold(lead: str, text: str, style: ParagraphStyle) -> Paragraph:
    return Paragraph(f'<font name="{BOLD}">{escape(printable(lead))}</font> {escape(printable(text))}', style)


def _step(task: Task, number: int, width: float) -> Flowable:
    lines: list[Flowable] = [_text(f"{number}. {task.says}", STEP)]
    lines += [_bold("Take care.", text, CARE) for text in task.take_care]
    lines += [_text(line, BODY) for line in task.how if line]
    if task.check:
        lines.append(_bold("Right when:", task.check, BODY))
    if task.wait_min is None:
        lines.append(_bold("Then wait", "as long as the label says.", BODY))
    elif task.wait_min > 0:
        lines.append(_bold(f"Then leave it {hours(task.wait_min / 60)}.", task.wait_check, BODY))
    lines.append(_text("Begun ____________   Done ____________", BODY))
    table = Table([[TickBox(), lines]], colWidths=[24, width - 24], splitInRow=1)
    table.setStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
                    ("BOTTOMPADDING", (0, 0), (-1, -1), 9), ("LINEBELOW", (0, 0), (-1, -1), 0.4, "black")])  # fmt: skip
    return table


def bench_sheet(name: str, steps: Procedure, paper: Paper) -> bytes:
    """The steps as a PDF: what to lay out, then each zone's steps with a box, checks, waits and cautions."""
    register()
    out = io.BytesIO()
    width, height = PAPERS[paper]
    frame = Frame(MARGIN, MARGIN, width - 2 * MARGIN, height - 2 * MARGIN - 10, 0, 0, 0, 0)

    def foot(page: Canvas, document: BaseDocTemplate) -> None:
        page.setFont(REGULAR, 9)
        page.drawString(MARGIN, MARGIN - 14, printable(f"{name}, page {document.page}"))

    document = BaseDocTemplate(out, pagesize=(width, height), title=f"Steps: {name}", creator="Lumso", invariant=1)
    document.addPageTemplates(PageTemplate(frames=[frame], onPage=foot))
    room = width - 2 * MARGIN
    story: list[Flowable] = [_text(name, TITLE)]
    about = f"{hours(steps.hands_on_min / 60)} hands on, {hours(steps.elapsed_h)} from first to last step (estimates)."
    story.append(_text(about, BODY))
    story += [_bold("Before anything else.", text, CARE) for text in steps.first]
    story.append(_text("Lay out first", HEAD))
    half = (len(steps.kit) + 1) // 2
    rows = []
    for k in range(half):
        right = steps.kit[half + k] if half + k < len(steps.kit) else ""
        rows.append([TickBox(10), _text(steps.kit[k], BODY), TickBox(10) if right else "", _text(right, BODY)])
    if rows:
        kit = Table(rows, colWidths=[18, room / 2 - 18, 18, room / 2 - 18])
        kit.setStyle([("VALIGN", (0, 0), (-1, -1), "MIDDLE"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
                      ("TOPPADDING", (0, 0), (-1, -1), 1), ("BOTTOMPADDING", (0, 0), (-1, -1), 1)])  # fmt: skip
        story.append(kit)
    for zone in steps.zones:
        made = [_step(task, number, room) for number, task in enumerate(zone.tasks, 1)]
        story.append(KeepTogether([_text(zone.name, HEAD), *made[:1]]))
        story += made[1:]
    story.append(Spacer(1, 4))
    document.build(story)
    return out.getvalue()
