"""The sheet that goes with a piece, as PDF; and the label of a jar."""

from reportlab.platypus import Flowable, KeepTogether, Spacer

from lumso.core.figure import millilitres
from lumso.core.log.piece_sheet import PieceSheet
from lumso.core.log.summary import PotSummary

from .benchsheet import BODY, HEAD, TITLE, bold, paged, text
from .page import MARGIN, MM, PAPERS, Paper, canvas, grams, qr, register, swatch, write


def piece_sheet(sheet: PieceSheet, days: dict[float, str], paper: Paper) -> bytes:
    """What was put on a piece, how to care for it, how to mend it. `days` are its instants in words."""
    register()
    story: list[Flowable] = [text(sheet.name, TITLE)]
    for zone in sheet.zones:
        lines: list[Flowable] = [text(zone.name, HEAD)]
        if not zone.put_on:
            lines.append(text("Nothing was written down of what was put on it.", BODY))
        for one in zone.put_on:
            code = f" (code {one.code}: {one.mix})" if one.code else ""
            lines.append(bold(days[one.at_min], f"{one.says}{code}", BODY))
        if zone.gently_min is not None:
            lines.append(bold("Use it gently until", f"{days[zone.gently_min]}, an estimate.", BODY))
        if zone.cured_min is not None:
            lines.append(bold("Cured about", f"{days[zone.cured_min]}: till then it marks sooner.", BODY))
        lines += [bold("Care.", line, BODY) for line in zone.care]
        lines += [bold("Mend.", line, BODY) for line in zone.mend]
        story.append(KeepTogether(lines[:6]))
        story += lines[6:]
    story.append(Spacer(1, 8))
    story += [text(line, BODY) for line in sheet.says]
    return paged(story, f"About: {sheet.name}", paper, sheet.name)


def jar_label(pot: PotSummary, address: str, on: str, keeps: str, paper: Paper) -> bytes:
    """The label of a jar as it stands: what is in it, since when, until when, under which code."""
    page, out = canvas(paper, "Jar label")
    width, height = (PAPERS[paper][0] - 2 * MARGIN) / 2, 55 * MM
    x, top = MARGIN, PAPERS[paper][1] - MARGIN
    page.setLineWidth(0.5)
    page.rect(x, top - height, width, height, stroke=1, fill=0)
    side = 28 * MM
    qr(page, address, x + width - side - 4, top - side - 4, side)
    write(page, x + width - side - 2, top - side - 15, pot.code, 14, bold=True)
    room = width - side - 18
    y = write(page, x + 7, top - 17, pot.name, 16, bold=True, width=room, most=2)
    if pot.colour:
        swatch(page, x + 7, y - 1, pot.hex or "#808080", 9)
        y = write(page, x + 20, y, pot.colour, 13, bold=True, width=room - 14, most=2)
    y = write(page, x + 7, y, pot.job_name, 11, width=room, most=2)
    shares = " + ".join(f"{p.share:.0%} {p.name.lower()}" for p in pot.parts)
    y = write(page, x + 7, y, f"{millilitres(pot.left_ml)}, {grams(pot.left_g)}: {shares}", 11, width=room, most=4)
    write(page, x + 7, top - height + 7, f"Left {on}. {keeps}", 11, width=width - 12, most=1)
    page.save()
    return out.getvalue()
