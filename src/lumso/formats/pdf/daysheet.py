"""The day sheet: visits to the bench with boxes to tick, to pin up."""

from reportlab.platypus import Flowable, KeepTogether, Spacer, Table

from lumso.core.days.days import DayOperation, Days
from lumso.core.days.words import named

from .benchsheet import BODY, CARE, HEAD, STEP, TITLE, TickBox, amount_lines, bold, paged, text
from .page import MARGIN, PAPERS, Paper, register


def _line(one: DayOperation, width: float) -> Flowable:
    task = one.operation
    lines: list[Flowable] = [text(f"{one.at}  {named(task)}", STEP)]
    lines += [bold("Take care.", care, CARE) for care in task.take_care]
    lines += [bold("Remember:", care, BODY) for care in task.remember]
    lines += [text(line, BODY) for line in (amount_lines(task.amounts) if task.amounts else ())]
    if task.check:
        lines.append(bold("Right when:", task.check, BODY))
    if one.must_by:
        lines.append(bold(f"By {one.must_by};", f"later: {one.else_do}.", BODY))
    table = Table([[TickBox(), lines]], colWidths=[24, width - 24], splitInRow=1)
    table.setStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
                    ("BOTTOMPADDING", (0, 0), (-1, -1), 7), ("LINEBELOW", (0, 0), (-1, -1), 0.4, "black")])  # fmt: skip
    return table


def day_sheet(days: Days, paper: Paper) -> bytes:
    """The days as a PDF: for each visit what to lay out and what is done, each with its time and a box."""
    register()
    inner = PAPERS[paper][0] - 2 * MARGIN
    story: list[Flowable] = [text("Days", TITLE), text(f"{days.hands_on} hands on. {days.says}", BODY)]
    for job in days.jobs:
        late = f" {job.late} late." if job.late else ""
        due = f" Promised {job.due}.{late}" if job.due else ""
        story.append(text(f"{job.name}: finished {job.finished}; ready for light use from {job.gently}.{due}", BODY))
    story += [bold("Before anything else.", care, CARE) for care in days.first]
    story += [bold(given.says, given.instead, BODY) for given in days.given_up]
    story += [text(line, BODY) for line in days.assumed]
    for n, visit in enumerate(days.visits):
        mine = [o for o in days.operations if o.visit == n]
        head: list[Flowable] = [
            text(f"{visit.day}, {visit.at}", HEAD),
            text(f"{visit.hands_on} hands on. Lay out: {', '.join(visit.lay_out.tools)}.", BODY),
            Spacer(1, 4),
        ]
        story.append(KeepTogether([*head, *(_line(o, inner) for o in mine[:1])]))
        story += [_line(o, inner) for o in mine[1:]]
        story.append(text(" ".join(visit.clear_away.how), BODY))
        if visit.then_away:
            story.append(bold(f"Then nothing for {visit.then_away}.", "", BODY))
    return paged(story, "Days", paper)
