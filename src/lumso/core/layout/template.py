"""A layout at its true size: what is drawn to be printed, cut or marked from. All in mm, x to the right, y down."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil, cos, sin
from typing import Literal

from ..errors import InvalidValue
from ..measure.drawing import Point
from ..value import Value
from .flat import FlatFace
from .mask import LaidOut
from .taping import Taping
from .turned import Arc

Layer = Literal["edge", "painted", "marks", "words"]
STICK_MM = 30.0
MARGIN_MM, OVERLAP_MM = 7.0, 10.0
"""What no printer reaches, and what two sheets share."""
BETWEEN_MM = 10.0
ARC_STEPS = 60
MOST_OFF = 0.05
"""A printer that is off by more than this is not corrected: something else is wrong."""


@dataclass(frozen=True)
class Path(Value):
    """A line through points; `closed` where it comes back to its first."""

    layer: Layer
    points: tuple[Point, ...]
    closed: bool = False


@dataclass(frozen=True)
class Words(Value):
    """Words, their baseline beginning at a point."""

    text: str
    at: Point
    size_mm: float = 4.0


@dataclass(frozen=True)
class Template(Value):
    """Something to be drawn at 1:1, inside a box from (0, 0)."""

    title: str
    width: float
    height: float
    paths: tuple[Path, ...]
    words: tuple[Words, ...] = ()


@dataclass(frozen=True)
class Tile(Value):
    """One sheet of a template: its row and column from 1, and the part of the template its window shows."""

    row: int
    column: int
    x: float
    y: float
    width: float
    height: float


def template_of(title: str, face: FlatFace, laid: LaidOut) -> Template:
    """A face with its pattern: its edge, and every painted part with its number."""
    surface = face.from_datum()
    if laid.arcs and laid.across is not None:
        return _developed(title, laid)
    paths = [Path("edge", surface.outline, True)]
    words = []
    for region in laid.regions:
        paths.append(Path("painted", region.outline, True))
        paths += [Path("painted", hole, True) for hole in region.holes]
        xs, ys = [p.x for p in region.outline], [p.y for p in region.outline]
        at = Point((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2)
        if region.holes:
            at = Point(min(xs) + 2, at.y)
        words.append(Words(str(region.number), at))
    return Template(title, surface.width, surface.height, tuple(paths), tuple(words))


def _developed(title: str, laid: LaidOut) -> Template:
    """The bands of a round part, developed flat, one below the other, each with its number."""
    widths = {b.number: b.width_mm for b in laid.across.bands} if laid.across else {}
    paths, words, y, wide = [], [], 0.0, 0.0
    for arc in laid.arcs:
        width = widths[arc.band]
        long = max(arc.girths_mm)
        if arc.angle_rad == 0:
            points = [Point(0, y), Point(long, y), Point(long, y + width), Point(0, y + width)]
        else:
            points = _sector(arc, y)
        paths.append(Path("painted", tuple(points), True))
        words.append(Words(str(arc.band), Point(2, y + width / 2)))
        y = max(p.y for p in points) + BETWEEN_MM
        wide = max(wide, long)
    return Template(f"{title}, developed", wide, y, tuple(paths), tuple(words))


def _sector(arc: Arc, y: float) -> list[Point]:
    """A sector lying on its wide edge's middle: that edge below, bending up at both ends."""
    half = arc.angle_rad / 2
    middle = max(arc.girths_mm) / 2
    turns = [half * (k / ARC_STEPS * 2 - 1) for k in range(ARC_STEPS + 1)]
    low = arc.inner_mm * cos(half)
    outer = [Point(middle + arc.outer_mm * sin(t), y + arc.outer_mm * cos(t) - low) for t in turns]
    inner = [Point(middle + arc.inner_mm * sin(t), y + arc.inner_mm * cos(t) - low) for t in reversed(turns)]
    return [*outer, *inner]


Way = Literal["across", "down"]


def stick_marks(taping: Taping, way: Way) -> dict[str, tuple[float, ...]]:
    """What is marked on a stick that is laid across a face or down it: the marks of each element by its number; of
    boxes that lie in a row or a column the same marks once."""
    found: dict[str, tuple[float, ...]] = {}
    seen: set[tuple[float, ...]] = set()
    for one in taping.elements:
        if one.runs == "box":
            marks = one.marks_mm if way == "across" else one.down_marks_mm
            if marks in seen:
                continue
            seen.add(marks)
        elif one.runs == ("down" if way == "across" else "across"):
            marks = one.marks_mm
        else:
            continue
        found[str(one.number)] = marks
    return found


def story_stick(title: str, taping: Taping, way: Way, length: float) -> Template:
    """A strip with every mark from the datum, as it is marked on a stick and carried to the piece."""
    paths = [Path("edge", (Point(0, 0), Point(length, 0), Point(length, STICK_MM), Point(0, STICK_MM)), True)]
    words = [Words("0 datum", Point(1, STICK_MM - 2), 3.0)]
    for number, marks in stick_marks(taping, way).items():
        paths += [Path("marks", (Point(mark, 0), Point(mark, STICK_MM * 0.6))) for mark in marks]
        words.append(Words(f"{number}: {marks[0]:g}–{marks[1]:g}", Point(marks[0] + 1, 8), 3.0))
    return Template(title, length, STICK_MM, tuple(paths), tuple(words))


def corrected(measured_mm: float | None, drawn_mm: float, field: str) -> float:
    """By how much a template is drawn larger along an axis so that it comes out true, by what its check rule measures.

    Raises InvalidValue where the printer is off by more than a twentieth.
    """
    if measured_mm is None:
        return 1.0
    if not (1 - MOST_OFF) * drawn_mm <= measured_mm <= (1 + MOST_OFF) * drawn_mm:
        raise InvalidValue(
            f"A rule of {drawn_mm:g} mm that measures {measured_mm:g} mm is no small error of a printer.",
            value=measured_mm, field=field,
            allowed=f"{(1 - MOST_OFF) * drawn_mm:g} to {(1 + MOST_OFF) * drawn_mm:g} mm; else print with no scaling",
        )  # fmt: skip
    return drawn_mm / measured_mm


def tiles(width: float, height: float, page_width: float, page_height: float) -> tuple[Tile, ...]:
    """The sheets that a template of a size takes, row by row, each sharing `OVERLAP_MM` with its neighbours.

    Sizes are on paper, in mm; what a sheet shows keeps `MARGIN_MM` from its edges.
    """
    shows_x, shows_y = page_width - 2 * MARGIN_MM, page_height - 2 * MARGIN_MM
    columns = _count(width, shows_x)
    rows = _count(height, shows_y)
    found = []
    for row in range(rows):
        for column in range(columns):
            x, y = column * (shows_x - OVERLAP_MM), row * (shows_y - OVERLAP_MM)
            found.append(Tile(row + 1, column + 1, x, y, min(shows_x, width - x), min(shows_y, height - y)))
    return tuple(found)


Paper = Literal["a4", "letter"]
PAPERS_MM: dict[Paper, tuple[float, float]] = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}


def sheets_of(template: Template, paper: Paper) -> tuple[int, int]:
    """How many rows and columns of sheets a template takes, printed true."""
    last = tiles(template.width, template.height, *PAPERS_MM[paper])[-1]
    return last.row, last.column


def _count(size: float, shows: float) -> int:
    return 1 if size <= shows else ceil((size - OVERLAP_MM) / (shows - OVERLAP_MM) - 1e-9)


def corners(every: Sequence[Tile]) -> tuple[Point, ...]:
    """Where registration marks stand: in the middle of what sheets share, so that each is on every sheet beside it."""
    xs = sorted({t.x + OVERLAP_MM / 2 for t in every if t.column > 1})
    ys = sorted({t.y + OVERLAP_MM / 2 for t in every if t.row > 1})
    last = max(every, key=lambda t: (t.row, t.column))
    wide, high = last.x + last.width, last.y + last.height
    across, down = xs or [min(OVERLAP_MM / 2, wide), wide - min(OVERLAP_MM / 2, wide)], ys or [
        min(OVERLAP_MM / 2, high), high - min(OVERLAP_MM / 2, high)]  # fmt: skip
    return tuple(Point(x, y) for y in down for x in across)
