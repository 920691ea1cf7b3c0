"""Taping: which tape goes where, what is painted in one go, how much tape it takes, and the list of it all."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil, pi
from typing import Literal

from ..value import Value
from .fit import Fit
from .mask import LaidOut, Surface, chord, circumference
from .pattern import Layout
from .turned import LIES_MM

OVERHANG_MM = 30.0
"""Tape goes over the edge by so much at each end, to be pulled by: an untested starting point."""
LAP_MM = 20.0
"""Round a part tape laps over its own beginning by so much."""
ROLL_M = 50.0


@dataclass(frozen=True)
class Run(Value):
    """A tape along one edge of a stripe. `over` says what it covers: the gap beside the stripe."""

    stripe: int
    edge: Literal["first", "second", "outer", "inner"]
    at_mm: float
    """Where its edge lies, from the datum, exactly."""
    mark_mm: float
    """The same, to the tick."""
    tape_mm: float
    length_mm: float
    painted_in: int
    """The pass it is for, from 1."""


@dataclass(frozen=True)
class Listed(Value):
    """A line of the list: an element, where it lies from the datum, how wide, in which pass, what its edges take."""

    number: int
    runs: Literal["down", "across", "round"]
    name: str
    start_mm: float
    end_mm: float
    marks_mm: tuple[float, ...]
    """Both, in order."""
    width_mm: float
    length_mm: float
    painted_in: int
    cut: bool


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


def passes_of(fit: Fit, narrowest_mm: float) -> list[int]:
    """The pass each stripe is painted in: neighbours whose gap no tape fits between are not painted at once."""
    found: list[int] = []
    for n, band in enumerate(fit.bands):
        gap = band.start_mm - fit.bands[n - 1].end_mm if n else float("inf")
        found.append(3 - found[-1] if found and gap < narrowest_mm - 1e-9 else found[-1] if found else 1)
    return found


def widest_within(tapes: Sequence[float], room_mm: float) -> float:
    """The widest tape that fits a gap; the narrowest of all where none does."""
    fits = [t for t in tapes if t <= room_mm + 1e-9]
    return max(fits) if fits else min(tapes)


def _lines(layout: Layout, surface: Surface, fit: Fit, way: Literal["x", "y"]) -> tuple[list[Run], list[Listed]]:
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


def taping_of(layout: Layout, face: Surface, laid: LaidOut) -> Taping:
    """How a pattern is taped on a face."""
    surface = face.from_datum()
    runs: list[Run] = []
    elements: list[Listed] = []
    for fit, way in ((laid.down, "x"), (laid.across, "y")):
        if fit is not None:
            made, listed = _lines(layout, surface, fit, "x" if way == "x" else "y")
            later = max((r.painted_in for r in runs), default=0)
            # Stripes that cross are not painted at once: the second way waits for the first.
            runs += [_later(r, later) for r in made]
            elements += [_listed_later(e, later) for e in listed]
    if layout.kind == "border":
        runs, elements = _round(layout, surface)
    if layout.kind == "repeats":  # a stencil is held, not taped; its row stands in the datum
        runs, elements = [], [_once(e, layout.row_mm) for e in elements]
    by: dict[float, float] = {}
    for run in runs:
        by[run.tape_mm] = by.get(run.tape_mm, 0.0) + run.length_mm / 1000
    metres = sum(by.values())
    passes = max((r.painted_in for r in runs), default=1)
    worst = layout.tick_mm / 2 + (layout.tape_off_mm if runs else 0.0)
    rolls = ceil(metres / ROLL_M)
    widths = tuple(TapeLength(*x) for x in sorted(by.items()))
    steps = _steps(layout, passes, laid)
    return Taping(passes, tuple(runs), tuple(elements), metres, widths, rolls, worst, steps)


def _later(run: Run, passes: int) -> Run:
    return replace(run, painted_in=run.painted_in + passes)


def _listed_later(one: Listed, passes: int) -> Listed:
    return replace(one, painted_in=one.painted_in + passes)


def _once(one: Listed, row_mm: float) -> Listed:
    """A motif: as long as its row is high, all in one go."""
    return replace(one, length_mm=row_mm, painted_in=1)


def _round(layout: Layout, surface: Surface) -> tuple[list[Run], list[Listed]]:
    """A border is taped along both its edges, in pieces short enough to follow a bend."""
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
    element = Listed(1, "round", band.name or "border", band.gap_mm, band.gap_mm + band.width_mm, marks, band.width_mm,
                     runs[1].length_mm, 1, False)  # fmt: skip
    return runs, [element]


def _steps(layout: Layout, passes: int, laid: LaidOut) -> tuple[str, ...]:
    if layout.kind == "repeats":
        return (
            "Mark where each motif begins and ends, every mark from the one datum.",
            "Snap a line along the foot of the row, and hold the stencil to it.",
            "Tack it down lightly; pounce a nearly dry brush from the edges inwards; lift it straight up.",
            "Every other motif first where the stencil would touch wet paint.",
        )
    worst = max(laid.arcs, key=lambda a: a.misses_mm, default=None)
    cone = "" if worst is None or worst.misses_mm <= LIES_MM else worst.says
    wall = "Measure along the wall with a strip of paper, not along the axis." if laid.arcs else ""
    bend = "Round a bend: narrow tape that stretches, or short pieces." if layout.kind == "border" else ""
    again = f"Painted in {passes} goes: let each dry until it is safe to tape before the next." if passes > 1 else ""
    return tuple(s for s in (
        "Measure every mark from the one datum, never from the last mark.",
        "Tape where the stripe will be, butt its neighbours against it, then pull the middle.",
        "Seal the edges that will show with the colour beneath, and let that dry.",
        bend, wall, cone, again,
        "Pull the tape back on itself, low and slowly, while the coat is still damp; a thick coat, once it is dry.",
    ) if s)  # fmt: skip
