"""Patterns in boxes: squares and lozenges, panels, motifs all around, letters; each by its places from the datum."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from math import floor
from typing import Literal

from ..errors import InvalidValue
from ..measure.drawing import Point, box
from ..value import Value
from .fit import Band, Fit, fit, marks_of, off_of, passes_of, shifted, symmetrical
from .flat import FlatFace
from .pattern import Layout, Stripe

MOST_CELLS = 1_000
"""More boxes than that are no pattern that anybody tapes."""
NARROW, WIDE, USUAL, BETWEEN_WORDS = 0.35, 0.95, 0.68, 0.5
"""How wide letters and the space between words are, as a share of their height: untested starting points."""
NARROW_LETTERS, WIDE_LETTERS = frozenset("IJ1'.,:;!|"), frozenset("MW@&%")


@dataclass(frozen=True)
class Cell(Value):
    """A box that is painted by itself, in mm from the datum: across from `start_mm` to `end_mm`, down from `top_mm` to
    `foot_mm`, with their marks. `go` is the go it is painted in, `row` and `column` its place from 1."""

    number: int
    go: int
    row: int
    column: int
    name: str
    start_mm: float
    end_mm: float
    marks_mm: tuple[float, ...]
    top_mm: float
    foot_mm: float
    down_marks_mm: tuple[float, ...]
    outline: tuple[Point, ...]
    """As it is where no edge cuts it."""
    cut: bool = False


Cells = tuple[Fit | None, Fit | None, tuple[Cell, ...]]
"""The columns by their places across, the rows by their places down, and the boxes that are painted."""


def cells_of(layout: Layout, surface: FlatFace) -> Cells:
    """A pattern in boxes on a face from its datum. Raises InvalidValue for what cannot be laid on it."""
    match layout.kind:
        case "panels":
            found = _panels(layout, surface)
        case "lettering":
            found = _lettering(layout, surface)
        case "repeats":
            found = _around(layout, surface)
        case _:
            found = _squares(layout, surface)
    _refuse_crowd(len(found[2]), layout)
    return found


def _refuse_crowd(boxes: int, layout: Layout) -> None:
    """Raises InvalidValue for more boxes than anybody tapes: before they are made, where that can be known."""
    if boxes > MOST_CELLS:
        raise InvalidValue(f"That would be {boxes:,} boxes.", value=layout.repeat_mm, field="stripes",
                           allowed=f"at most {MOST_CELLS:,}: wider ones")  # fmt: skip


def _cell(number: int, across: Band, down: Band, go: int, name: str, outline: Sequence[Point] = ()) -> Cell:
    drawn = outline or box(across.start_mm, down.start_mm, across.width_mm, down.width_mm)
    return Cell(number, go, down.number, across.number, name, across.start_mm, across.end_mm, across.marks_mm,
                down.start_mm, down.end_mm, down.marks_mm, tuple(drawn))  # fmt: skip


def whole(layout: Layout, wide_mm: float, length_mm: float, noun: str) -> Fit:
    """A length in boxes that touch: as many whole ones as come nearest to what was asked; or as wide as asked, and what
    is over halved at both ends. Raises InvalidValue where there is no room for one, and for too many."""
    free = layout.remainder_mm
    room = length_mm - 2 * free
    many = max(round(room / wide_mm), 1) if layout.even else floor(room / wide_mm + 1e-9)
    made = room / many if layout.even and room > 0 else wide_mm
    if many < 1 or room <= 0 or made < layout.narrowest_mm:
        raise InvalidValue(f"On {length_mm:.0f} mm there is no room for {noun} of {wide_mm:.0f} mm.", value=wide_mm,
                           field="stripes", allowed=f"at most {max(room, 0):.0f} mm")  # fmt: skip
    if many > MOST_CELLS:
        raise InvalidValue(f"That would be {many:,} {noun}.", value=wide_mm, field="stripes",
                           allowed=f"at least {room / MOST_CELLS:.1f} mm wide")  # fmt: skip
    begins = free + (room - many * made) / 2
    bands = []
    for k in range(many):
        low, high = begins + k * made, begins + (k + 1) * made
        bands.append(Band(k + 1, k % 2, low, high, marks_of(low, high, length_mm, layout)))
    changed = made / wide_mm - 1
    how = "as wide as asked" if abs(changed) < 5e-4 else (
        f"{abs(changed):.1%} {'wider' if changed > 0 else 'narrower'} than asked")  # fmt: skip
    over = f", {begins:.1f} mm free at both ends" if begins > 1e-6 else ""
    says = f"{many} {noun}, {how}{over}."
    return Fit(length_mm, tuple(bands), (Stripe(made, made),), many, changed, off_of(bands, length_mm, layout),
               symmetrical(bands, length_mm), says)  # fmt: skip


def _squares(layout: Layout, surface: FlatFace) -> Cells:
    """Every other square of a board, or lozenges that touch at their tips: no two that touch are painted in one go."""
    wide = layout.stripes[0].width_mm
    high = layout.other_way.stripes[0].width_mm
    noun = "squares" if layout.kind == "chequers" else "diamonds"
    columns = whole(layout, wide, surface.width, f"{noun} across")
    rows = whole(layout, high, surface.height, f"{noun} down")
    _refuse_crowd(columns.repeats * rows.repeats // (2 if layout.kind == "chequers" else 1), layout)
    found: list[Cell] = []
    for row in rows.bands:
        for column in columns.bands:
            if layout.kind == "chequers":
                if (row.number + column.number) % 2 == 0:
                    found.append(_cell(len(found) + 1, column, row, 1 + (row.number - 1) % 2, "square"))
                continue
            x, y = (column.start_mm + column.end_mm) / 2, (row.start_mm + row.end_mm) / 2
            tips = (Point(x, row.start_mm), Point(column.end_mm, y), Point(x, row.end_mm), Point(column.start_mm, y))
            found.append(_cell(len(found) + 1, column, row, 1 + (row.number + column.number) % 2, "diamond", tips))
    return columns, rows, tuple(found)


def _panels(layout: Layout, surface: FlatFace) -> Cells:
    """What of stripes both ways is crossed. Where no tape fits between two, they are painted in turn."""
    columns, rows = fit(layout, surface.width), fit(layout.other_way, surface.height)
    _refuse_crowd(len(columns.bands) * len(rows.bands), layout)
    least = min(layout.tapes_mm, default=0.0)
    turns, row_turns = passes_of(columns, least), passes_of(rows, least)
    each = max(turns, default=1)
    found: list[Cell] = []
    for row, later in zip(rows.bands, row_turns, strict=True):
        for column, turn in zip(columns.bands, turns, strict=True):
            name = layout.repeat[column.index].name or "panel"
            found.append(_cell(len(found) + 1, column, row, turn + (later - 1) * each, name))
    said = both_ways(columns, rows)
    return said["x"], said["y"], tuple(found)


def both_ways(across: Fit, down: Fit) -> dict[Literal["x", "y"], Fit]:
    """Two fits that say which way each is."""
    return {"x": replace(across, says=f"Across: {across.says}"), "y": replace(down, says=f"Down: {down.says}")}


def _along(layout: Layout, length: float, corner: float) -> Fit:
    """A row of motifs between two corner pieces."""
    if length - 2 * corner < layout.stripes[0].width_mm:
        raise InvalidValue(f"Between corners of {corner:.0f} mm nothing is left of {length:.0f} mm.",
                           value=layout.row_mm, field="row_mm",
                           allowed=f"a row and its inset of less than {length / 2:.0f} mm")  # fmt: skip
    return shifted(fit(layout, length - 2 * corner), corner, length, layout)


def _around(layout: Layout, surface: FlatFace) -> Cells:
    """Motifs along all four edges, a corner piece in each corner. Raises InvalidValue on what is no rectangle."""
    if not surface.upright:
        raise InvalidValue("A stencil runs all around rectangles only.", value=True, field="around",
                           allowed="one edge, or a border")  # fmt: skip
    inset, high = layout.inset_mm, layout.row_mm
    w, h = surface.width, surface.height
    top, side = (_along(layout, length, inset + high) for length in (w, h))

    def row(low: float, length: float) -> Band:
        return Band(1, 0, low, low + high, marks_of(low, low + high, length, layout))

    near, far = row(inset, h), row(h - inset - high, h)
    left, right = row(inset, w), row(w - inset - high, w)
    placed = [(b, near, "top") for b in top.bands]
    placed += [(right, b, "right") for b in side.bands]
    placed += [(b, far, "foot") for b in reversed(top.bands)]
    placed += [(left, b, "left") for b in reversed(side.bands)]
    if layout.corners == "painted":
        placed += [(x, y, "corner") for y in (near, far) for x in (left, right)]
    found = [_cell(n, x, y, 1, name) for n, (x, y, name) in enumerate(placed, 1)]
    said = both_ways(top, side)
    return said["x"], said["y"], tuple(found)


def letter_widths(words: str, height_mm: float) -> tuple[tuple[str, float], ...]:
    """Each letter with how wide its box is, mm; a space between words has a width and no box."""
    shares = []
    for letter in words:
        if letter == " ":
            shares.append((letter, BETWEEN_WORDS))
        else:
            wide = letter.upper()
            share = NARROW if wide in NARROW_LETTERS else WIDE if wide in WIDE_LETTERS else USUAL
            shares.append((letter, share))
    return tuple((letter, share * height_mm) for letter, share in shares)


def _lettering(layout: Layout, surface: FlatFace) -> Cells:
    """A box for each letter, in one line centred on the face, or as wide as there is room where it is to come out
    even."""
    words = " ".join(layout.words.split())
    letters = letter_widths(words, layout.row_mm)
    if not letters:
        raise InvalidValue("There are no words to letter.", value=layout.words, field="words", allowed="some letters")
    if layout.inset_mm + layout.row_mm > surface.height + 1e-9:
        raise InvalidValue(f"Letters of {layout.row_mm:.0f} mm do not fit on {surface.height:.0f} mm.",
                           value=layout.row_mm, field="row_mm",
                           allowed=f"at most {max(surface.height - layout.inset_mm, 0):.0f} mm")  # fmt: skip
    room = surface.width - 2 * layout.remainder_mm
    wide, gaps = sum(w for _, w in letters), layout.stripes[0].gap_mm * (len(letters) - 1)
    stretch, spread = _given(layout, wide, gaps, room)
    if wide * stretch + gaps * spread > room + 1e-6 or min(stretch, spread) <= 0:
        raise InvalidValue(f"“{words}” is {wide + gaps:.0f} mm long; there is room for {max(room, 0):.0f} mm.",
                           value=layout.row_mm, field="row_mm", allowed="lower letters, or less between")  # fmt: skip
    return _line(layout, surface, letters, (stretch, spread))


def _given(layout: Layout, wide: float, gaps: float, room: float) -> tuple[float, float]:
    """How many times as wide letters and what is between them become."""
    if not layout.even:
        return 1.0, 1.0
    match layout.gives:
        case "gaps":
            return 1.0, (room - wide) / gaps if gaps else 1.0
        case "stripes":
            return (room - gaps) / wide, 1.0
        case _:
            return room / (wide + gaps), room / (wide + gaps)


def _line(layout: Layout, surface: FlatFace, letters: Iterable[tuple[str, float]], given: tuple[float, float]) -> Cells:
    stretch, spread = given
    gap = layout.stripes[0].gap_mm * spread
    bands, names, at = [], [], 0.0
    for letter, width in letters:
        if letter != " ":
            bands.append((at, at + width * stretch))
            names.append(letter)
        at += width * stretch + gap
    begins = (surface.width - bands[-1][1]) / 2
    low = layout.inset_mm
    row = Band(1, 0, low, low + layout.row_mm, marks_of(low, low + layout.row_mm, surface.height, layout))
    made = tuple(
        Band(n, 0, begins + a, begins + b, marks_of(begins + a, begins + b, surface.width, layout))
        for n, (a, b) in enumerate(bands, 1)
    )
    what = "spaces" if layout.gives == "gaps" else "letters" if layout.gives == "stripes" else "letters and spaces"
    factor = spread if layout.gives == "gaps" else stretch
    how = "as wide as asked" if abs(factor - 1) < 5e-4 else (
        f"{what} {abs(factor - 1):.1%} {'wider' if factor > 1 else 'narrower'} than asked")  # fmt: skip
    says = (
        f"{len(made)} letters, {how}, {begins:.1f} mm free at both ends. Boxes, not letters: judge the spaces by eye."
    )
    found = Fit(surface.width, made, (Stripe(made[0].width_mm, max(gap, 0.1)),), 1, factor - 1,
                off_of(made, surface.width, layout), symmetrical(made, surface.width), says)  # fmt: skip
    cells = tuple(_cell(b.number, b, row, 1, name) for b, name in zip(made, names, strict=True))
    return found, None, cells
