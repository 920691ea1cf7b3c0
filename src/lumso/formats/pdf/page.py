"""Paper, type and small drawing helpers that everything printed shares."""

import io
from functools import cache
from importlib import resources

import segno
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from lumso.core.layout.template import PAPERS_MM
from lumso.core.layout.template import Paper as Paper

MM = 72 / 25.4
PAPERS: dict[Paper, tuple[float, float]] = {name: (w * MM, h * MM) for name, (w, h) in PAPERS_MM.items()}
REGULAR, BOLD = "LumsoBench", "LumsoBench-Bold"
MARGIN = 12 * MM
PLAIN = {"⅓": " 1/3", "⅔": " 2/3", "⅛": " 1/8", "⅜": " 3/8", "⅝": " 5/8", "⅞": " 7/8", "→": "to", "≤": "at most"}
"""Signs the printed type does not have, and what is written instead."""


@cache
def _register() -> None:
    folder = resources.files("lumso.formats") / "fonts"
    for name, file in ((REGULAR, "LumsoBench-Regular.ttf"), (BOLD, "LumsoBench-Bold.ttf")):
        pdfmetrics.registerFont(TTFont(name, io.BytesIO((folder / file).read_bytes())))
    pdfmetrics.registerFontFamily(REGULAR, normal=REGULAR, bold=BOLD, italic=REGULAR, boldItalic=BOLD)


def canvas(paper: Paper, title: str) -> tuple[Canvas, io.BytesIO]:
    """A blank document in Lumso's type, and what it is written to."""
    _register()
    out = io.BytesIO()
    made = Canvas(out, pagesize=PAPERS[paper], pageCompression=1, invariant=1)
    made.setTitle(title)
    made.setCreator("Lumso")
    return made, out


def register() -> None:
    """Make the type known to the layout engine."""
    _register()


def printable(text: str) -> str:
    """The text with signs the type does not have written out."""
    for sign, plain in PLAIN.items():
        text = text.replace(sign, plain)
    return text


def wrap(text: str, font: str, size: float, width: float) -> list[str]:
    """The text in lines no wider than `width` points; a word that is too long stands alone."""
    lines: list[str] = []
    for word in printable(text).split():
        longer = f"{lines[-1]} {word}" if lines else word
        if lines and pdfmetrics.stringWidth(longer, font, size) <= width:
            lines[-1] = longer
        else:
            lines.append(word)
    return lines


def write(
    page: Canvas, x: float, y: float, text: str, size: float, bold: bool = False, width: float = 1e9, most: int = 99
) -> float:
    """Lines of text from a baseline at `y` downwards; returns the next free baseline. At most `most` lines."""
    font = BOLD if bold else REGULAR
    page.setFont(font, size)
    lines = wrap(text, font, size, width)
    for number, line in enumerate(lines[:most]):
        cut = number == most - 1 and len(lines) > most
        page.drawString(x, y, f"{line} …" if cut else line)
        y -= size * 1.22
    return y


def qr(page: Canvas, text: str, x: float, y: float, side: float) -> None:
    """A QR code with its lower left corner at (x, y), drawn as squares: it stays sharp at any size."""
    code = segno.make(text, error="m", micro=False)
    rows = [list(row) for row in code.matrix_iter(border=2)]
    module = side / len(rows)
    page.setFillColorRGB(1, 1, 1)
    page.rect(x, y, side, side, stroke=0, fill=1)
    page.setFillColorRGB(0, 0, 0)
    for r, row in enumerate(rows):
        for c, dark in enumerate(row):
            if dark:
                page.rect(x + c * module, y + side - (r + 1) * module, module * 1.02, module * 1.02, stroke=0, fill=1)


def swatch(page: Canvas, x: float, y: float, colour: str, side: float) -> None:
    """The colour as a square with a black edge; its name beside it says what it is without colour."""
    page.setFillColor(colour)
    page.setStrokeColorRGB(0, 0, 0)
    page.rect(x, y, side, side, stroke=1, fill=1)
    page.setFillColorRGB(0, 0, 0)


def grams(value: float) -> str:
    """A weight in g, or kg from a thousand on."""
    if value >= 1000:
        return f"{value / 1000:.2f} kg"
    return f"{value:.0f} g" if value >= 100 else f"{value:.1f} g"
