"""Taping: which tape goes where, what is painted in one go, how much tape it takes, and the list of it all."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil, hypot, pi
from typing import Literal

from ..value import Value
from .cells import Cell
from .fit import Fit, passes_of
from .flat import FlatFace, chord, circumference
from .mask import LaidOut
from .pattern import Layout
from .turned import LIES_MM

OVERHANG_MM = 30.0
"""Tape goes over the edge by so much at each end, to be pulled by: an untested starting point."""
PAST_MM = 10.0
"""Short pieces of tape across a row reach past its edges by so much at both ends."""
LAP_MM = 20.0
"""Round a part tape laps over its own beginning by so much."""
ROLL_M = 50.0


@dataclass(frozen=True)
class Run(Value):
    """Tapes along an edge of an element, `count` of them alike."""

    stripe: int
    """The number of the element; of squares and lozenges that lie in a row, of its first."""
    edge: Literal["first", "second", "outer", "inner", "row", "ends"]
    at_mm: float
    """Where its edge lies, from the datum, exactly."""
    mark_mm: float
    """The same, to the tick."""
    tape_mm: float
    length_mm: float
    painted_in: int
    """The pass it is for, from 1."""
    count: int = 1


@dataclass(frozen=True)
class Listed(Value):
    """A line of the list: an element, where it lies from the datum, how wide, in which pass, what its edges take."""

    number: int
    runs: Literal["down", "across", "round", "box"]
    name: str
    start_mm: float
    end_mm: float
    marks_mm: tuple[float, ...]
    """Both, in order."""
    width_mm: float
    length_mm: float
    painted_in: int
    cut: bool
    area_m2: float = 0.0
    """What of it is painted in that pass."""
    down_marks_mm: tuple[float, ...] = ()
    """Of a box, its marks the other way."""


@dataclass(frozen=True)
class TapeLength(Value):
    """How much of a width of tape."""

    width_mm: float
    metres: float


@dataclass(frozen=True)
class Taping(Value):
    """How a face is taped: passes, runs, how much tape of each width, and what to know."""

    passes: int
    runs: tuple[Run, ...]
    elements: tuple[Listed, ...]
    metres: float
    by_width: tuple[TapeLength, ...]
    rolls: int
    worst_mm: float
    """How far an edge may be from where it should, at the most: half a tick and what a tape may be off."""
    steps: tuple[str, ...]

    def painted_m2(self, go: int) -> float:
        """What is painted in a pass."""
        return sum(e.area_m2 for e in self.elements if e.painted_in == go)

    def metres_in(self, go: int) -> float:
        """How much tape a pass takes."""
        return sum(r.length_mm * r.count for r in self.runs if r.painted_in == go) / 1000


def widest_within(tapes: Sequence[float], room_mm: float) -> float:
    """The widest tape that fits a gap; the narrowest of all where none does."""
    fits = [t for t in tapes if t <= room_mm + 1e-9]
    return max(fits) if fits else min(tapes)


def _lines(layout: Layout, surface: FlatFace, fit: Fit, way: Literal["x", "y"]) -> tuple[list[Run], list[Listed]]:
    tapes = layout.tapes_mm or (25.0,)
    turn = passes_of(fit, min(tapes))
    runs, elements = [], []
    down: Literal["down", "across"] = "down" if way == "x" else "across"
    for n, band in enumerate(fit.bands):
        mine = [m for m, p in enumerate(turn) if p == turn[n]]
        at = mine.index(n)
        before = band.start_mm - fit.bands[mine[at - 1]].end_mm if at else band.start_mm
        after = (fit.bands[mine[at + 1]].start_mm if at + 1 < len(mine) else fit.length_mm) - band.end_mm
        edges: tuple[tuple[Literal["first", "second"], float, float, float], ...] = (
            ("first", band.start_mm, band.marks_mm[0], before), ("second", band.end_mm, band.marks_mm[1], after),
        )  # fmt: skip
        for edge, place, mark, room in edges:
            long = chord(surface, way, min(max(place, 0.01), fit.length_mm - 0.01))
            if room > 1e-6 and long > 0:  # an edge of the surface needs no tape
                over = LAP_MM if surface.shape == "round" else 2 * OVERHANG_MM
                runs.append(Run(band.number, edge, place, mark, widest_within(tapes, room), long + over, turn[n]))
        middle = (band.start_mm + band.end_mm) / 2
        name = layout.repeat[band.index].name or f"stripe {band.index + 1}"
        elements.append(Listed(band.number, down, name, band.start_mm, band.end_mm, band.marks_mm, band.width_mm,
                               chord(surface, way, middle), turn[n], band.cut))  # fmt: skip
    return runs, elements


def taping_of(layout: Layout, face: FlatFace, laid: LaidOut) -> Taping:
    """How a pattern is taped on a face."""
    surface = face.from_datum()
    runs: list[Run] = []
    elements: list[Listed] = []
    if laid.cells:
        runs, elements = _boxes(layout, surface, laid)
    elif layout.kind == "border":
        runs, elements = _round(layout, surface, laid)
    else:
        for fit, way in ((laid.down, "x"), (laid.across, "y")):
            if fit is not None:
                made, listed = _lines(layout, surface, fit, "x" if way == "x" else "y")
                later, many = max((r.painted_in for r in runs), default=0), len(elements)
                # Stripes that cross are not painted at once: the second way waits for the first.
                runs += [replace(r, painted_in=r.painted_in + later, stripe=r.stripe + many) for r in made]
                elements += [replace(e, painted_in=e.painted_in + later, number=e.number + many) for e in listed]
    if layout.kind == "repeats" and not laid.cells:  # a stencil is held, not taped; its row stands in the datum
        runs, elements = [], [replace(e, length_mm=layout.row_mm, painted_in=1) for e in elements]
    if not laid.cells:
        elements = [replace(e, area_m2=r.area_m2) for e, r in zip(elements, laid.regions, strict=True)]
    by: dict[float, float] = {}
    for run in runs:
        by[run.tape_mm] = by.get(run.tape_mm, 0.0) + run.length_mm * run.count / 1000
    metres = sum(by.values())
    passes = max((e.painted_in for e in elements), default=1)
    worst = layout.tick_mm / 2 + (layout.tape_off_mm if runs else 0.0)
    rolls = ceil(metres / ROLL_M)
    widths = tuple(TapeLength(*x) for x in sorted(by.items()))
    steps = _steps(layout, passes, laid)
    return Taping(passes, tuple(runs), tuple(elements), metres, widths, rolls, worst, steps)


def _boxes(layout: Layout, surface: FlatFace, laid: LaidOut) -> tuple[list[Run], list[Listed]]:
    """What is painted in boxes: each box a line of the list; panels taped along their rows and columns, squares and
    lozenges along their rows, with short pieces across between them. Motifs and letters are not taped."""
    elements = [
        Listed(c.number, "box", c.name, c.start_mm, c.end_mm, c.marks_mm, c.end_mm - c.start_mm, c.foot_mm - c.top_mm,
               c.go, c.cut, r.area_m2, c.down_marks_mm)
        for c, r in zip(laid.cells, laid.regions, strict=True)
    ]  # fmt: skip
    if layout.kind == "panels":
        return _crossed(layout, surface, laid), elements
    if layout.kind not in ("chequers", "diamonds"):
        return [], elements
    rows: dict[int, list[Cell]] = {}
    for cell in laid.cells:
        rows.setdefault(cell.row if layout.kind == "chequers" else cell.row - cell.column, []).append(cell)
    runs: list[Run] = []
    for mine in rows.values():
        runs += _row(layout, surface, mine) if layout.kind == "chequers" else _slant(layout, mine)
    return runs, elements


def _row(layout: Layout, surface: FlatFace, row: Sequence[Cell]) -> list[Run]:
    """A row of squares: tape along both its edges, and across at every square; an edge of the face needs none."""
    one, tapes = row[0], layout.tapes_mm or (25.0,)
    high, wide = one.foot_mm - one.top_mm, one.end_mm - one.start_mm
    runs = []
    for place, mark in zip((one.top_mm, one.foot_mm), one.down_marks_mm, strict=True):
        if 1e-6 < place < surface.height - 1e-6:
            long = chord(surface, "y", place) + 2 * OVERHANG_MM
            runs.append(Run(one.number, "row", place, mark, widest_within(tapes, high), long, one.go))
    ends = sum(1e-6 < x < surface.width - 1e-6 for c in row for x in (c.start_mm, c.end_mm))
    if ends:
        tape, long = widest_within(tapes, wide), high + 2 * PAST_MM
        runs.append(Run(one.number, "ends", one.start_mm, one.marks_mm[0], tape, long, one.go, ends))
    return runs


def _slant(layout: Layout, row: Sequence[Cell]) -> list[Run]:
    """A slanting row of lozenges: tape along both its edges, and across at both other sides of each."""
    one, tapes = row[0], layout.tapes_mm or (25.0,)
    side = hypot(one.end_mm - one.start_mm, one.foot_mm - one.top_mm) / 2
    room = (one.end_mm - one.start_mm) * (one.foot_mm - one.top_mm) / (4 * side)
    tape = widest_within(tapes, room)
    long = (2 * len(row) - 1) * side + 2 * OVERHANG_MM
    return [
        Run(one.number, "row", one.start_mm, one.marks_mm[0], tape, long, one.go, 2),
        Run(one.number, "ends", one.start_mm, one.marks_mm[0], tape, side + 2 * PAST_MM, one.go, 2 * len(row)),
    ]


def _crossed(layout: Layout, surface: FlatFace, laid: LaidOut) -> list[Run]:
    """Panels: the tape of their columns and of their rows, in each go that paints any of them."""
    assert laid.down
    assert laid.across
    columns, _ = _lines(layout, surface, laid.down, "x")
    rows, _ = _lines(layout.other_way, surface, laid.across, "y")
    runs = []
    for go in sorted({c.go for c in laid.cells}):
        first = {c.row: c for c in reversed(laid.cells) if c.go == go}
        sides = {c.column: c for c in reversed(laid.cells) if c.go == go}
        runs += [replace(r, stripe=sides[r.stripe].number, painted_in=go) for r in columns if r.stripe in sides]
        runs += [replace(r, stripe=first[r.stripe].number, painted_in=go) for r in rows if r.stripe in first]
    return runs


def _round(layout: Layout, surface: FlatFace, laid: LaidOut) -> tuple[list[Run], list[Listed]]:
    """A border is taped along both its edges, in pieces short enough to follow a bend; where its corners are left out,
    across its ends too."""
    band = layout.stripes[0]
    tape = widest_within(layout.tapes_mm or (25.0,), band.gap_mm)
    runs = []
    edges: tuple[tuple[Literal["outer", "inner"], float], ...] = (
        ("outer", band.gap_mm), ("inner", band.gap_mm + band.width_mm)
    )  # fmt: skip
    for edge, inset in edges:
        long = circumference(surface) - (2 * pi if surface.shape == "oval" else 8) * inset
        runs.append(Run(1, edge, inset, round(inset / layout.tick_mm) * layout.tick_mm, tape, long, 1))
    marks = (runs[0].mark_mm, runs[1].mark_mm)
    whole = Listed(1, "round", band.name or "border", band.gap_mm, band.gap_mm + band.width_mm, marks, band.width_mm,
                   runs[1].length_mm, 1, False)  # fmt: skip
    sides = len(laid.regions)
    if sides > 1:
        runs.append(Run(1, "ends", runs[1].at_mm, runs[1].mark_mm, tape, band.width_mm + 2 * PAST_MM, 1, 2 * sides))
    return runs, [replace(whole, number=n, length_mm=whole.length_mm / sides) for n in range(1, sides + 1)]


def _steps(layout: Layout, passes: int, laid: LaidOut) -> tuple[str, ...]:
    if layout.kind == "repeats":
        corner = "Corner pieces first: the rows between them end whole." if layout.around else ""
        return tuple(s for s in (
            "Mark where each motif begins and ends, every mark from the one datum.",
            "Snap a line along the foot of the row, and hold the stencil to it.",
            corner,
            "Tack it down lightly; pounce a nearly dry brush from the edges inwards; lift it straight up.",
            "Every other motif first where the stencil would touch wet paint.",
        ) if s)  # fmt: skip
    if layout.kind == "lettering":
        return (
            "Draw head and foot line with chalk or a soft pencil, and mark each box on both, from the one datum.",
            "Sketch the letters into their boxes; step back: round ones a little over the lines, A and V closer.",
            "Paint with a flat brush and thinned paint, outline first; wipe the lines off once it is dry.",
        )
    worst = max(laid.arcs, key=lambda a: a.misses_mm, default=None)
    cone = "" if worst is None or worst.misses_mm <= LIES_MM else worst.says
    wall = "Measure along the wall with a strip of paper, not along the axis." if laid.arcs else ""
    bend = "Round a bend: narrow tape that stretches, or short pieces." if layout.kind == "border" else ""
    again = (f"Painted in {passes} goes: the tape of one comes off, and what it painted holds tape, before the next is "
             "taped.") if passes > 1 else ""  # fmt: skip
    boxed = layout.kind in ("chequers", "diamonds")
    lay = ("Tape a row along both its edges, then across it; cut the corners with a sharp blade." if boxed else
           "Tape where the stripe will be, butt its neighbours against it, then pull the middle.")  # fmt: skip
    knob = "Mask what stays free of it first." if layout.spared else ""
    return tuple(s for s in (
        "Measure every mark from the one datum, never from the last mark.",
        knob,
        lay,
        "Seal the edges that will show with the paint beneath, and let that dry. Over a glaze: a dry brush.",
        bend, wall, cone, again,
        "Pull the tape back on itself, at a low angle and slowly, while the coat is still damp; a thick coat, once it "
        "is dry. Not in the sun, and not after more days than its label says.",
    ) if s)  # fmt: skip
