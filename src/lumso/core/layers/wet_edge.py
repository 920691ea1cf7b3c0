"""Glaze in sections: what can be laid on and worked before it closes, laid out over a face.

A section is what can be laid and worked in 0.7 of the open time O: A = 0.7·O/(1/a + Σ n/p), with a laying rate a and
n passes at p (m² an hour); where one lays and another works, A = 0.7·O/max(1/a, Σ n/p). Sections run the length of the
stroke. They end first where the face does by itself, beside what is set into it; between such breaks they are of equal
width, o wide overlaps between them: the fewest of which none is larger than A, by the true shape of the face. An oval
is not its rectangle. On a pattern they end under its tape: whole stripes, as many as are worked at once.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import ceil
from typing import Literal

from ..layout.flat import FlatFace, chord, clipped, strip_area
from ..measure.drawing import Point
from ..value import Value

OVERLAP_MM = 25.0
USED = 0.7
"""The share of the open time that is planned with: the rest is for the phone."""


@dataclass(frozen=True)
class GlazeStrip(Value):
    """One section of a face, in the order it is done: from `start_mm` across the strokes, `width_mm` wide; its longest
    stroke, and its true area with what it laps over."""

    number: int
    start_mm: float
    width_mm: float
    area_m2: float
    minutes: float
    stroke_mm: float
    outlines: tuple[tuple[Point, ...], ...] = ()
    """Where it lies on the face, from the corner of that: several where it is of several stripes."""
    over_mm: float = 0.0
    """How far it laps over the one before it."""


@dataclass(frozen=True)
class GlazePlan(Value):
    """A face worked wet in wet. `strips` is empty where a wet edge cannot be kept; `says` then says so, with ways."""

    zone: str
    layer: str
    surface: str
    stroke: Literal["down", "across"]
    stroke_mm: float
    across_mm: float
    open_min: float
    section_m2: float
    overlap_mm: float
    strips: tuple[GlazeStrip, ...]
    says: str
    ways: tuple[str, ...]
    outline: tuple[Point, ...]
    """The face as it is drawn, from its corner."""
    holes: tuple[tuple[Point, ...], ...] = ()
    """What is set into it."""
    like: int = 1
    """How many faces are worked so: all like ones of all like pieces."""
    at: tuple[Point, ...] = ()
    """Where the corner of each of these faces is on the drawing of a piece."""
    breaks: Literal["", "beside what is set into it", "under the tape"] = ""
    """Where sections end before they are cut."""


SECOND = "a second pair of hands: one lays on, one drags"
WAYS = (
    "smaller sections along natural breaks: panels, rails, boards",
    "more medium, or the glaze with retarder",
    SECOND,
    "a cooler hour, and no sun on it",
)


Stroke = Literal["down", "across"]


def minutes_per_m2(lays_m2_per_h: float, passes: int, pass_m2_per_h: float, two: bool = False) -> float:
    """Minutes that a m² takes to lay and work: one after the other, or at the same time by `two`.

    >>> round(minutes_per_m2(20, 2, 30)), round(minutes_per_m2(20, 2, 30, two=True))
    (7, 4)
    """
    lays, works = 60 / lays_m2_per_h, 60 * passes / pass_m2_per_h
    return max(lays, works) if two else lays + works


def section_area(open_min: float, lays_m2_per_h: float, passes: int, pass_m2_per_h: float, two: bool = False) -> float:
    """m² that can be laid and worked in 0.7 of the open time.

    >>> section_area(15, 20, 2, 30)
    1.5
    """
    return round(USED * open_min / minutes_per_m2(lays_m2_per_h, passes, pass_m2_per_h, two), 9)


def _turn(points: Sequence[Point]) -> tuple[Point, ...]:
    return tuple(Point(p.y, p.x) for p in points)


def _turned(face: FlatFace, stroke: Stroke) -> FlatFace:
    """A face from its corner, with its strokes along y."""
    from_datum = face.from_datum()
    if stroke == "down":
        return from_datum
    return FlatFace(from_datum.shape, _turn(from_datum.outline), tuple(_turn(h) for h in from_datum.holes))


def _longest(face: FlatFace, low: float, high: float) -> float:
    """The longest stroke between two places across the strokes, mm."""
    left, wide = min(p.x for p in face.outline), face.width
    corners = (p for outline in (face.outline, *face.holes) for p in outline)
    places = [min(max(left + wide / 2, low), high), low, high, *(p.x for p in corners if low < p.x < high)]
    near = [at + aside for at in places for aside in (-1e-6, 1e-6)]
    return max(chord(face, "x", min(max(at, left + 1e-6), left + wide - 1e-6)) for at in near)


def _cut(face: FlatFace, low: float, high: float, count: int, per_m2: float, lapped: bool) -> tuple[GlazeStrip, ...]:
    """So many sections of equal width between two places, the first lapping over what came before where it does."""
    lap = OVERLAP_MM if lapped else 0.0
    from_mm = low - lap
    across = high - from_mm
    width = across if count == 1 else (across - OVERLAP_MM) / count + OVERLAP_MM
    made = []
    for k in range(count):
        start = from_mm + k * (width - OVERLAP_MM)
        end = min(start + width, high)
        area = strip_area(face, "x", start, end) / 1e6
        outline = clipped(face.outline, "x", start, end)
        over = OVERLAP_MM if k or lapped else 0.0
        made.append(GlazeStrip(k + 1, start, width, area, area * per_m2, _longest(face, start, end), (outline,), over))
    return tuple(made)


def _between(face: FlatFace, low: float, high: float, area_m2: float, tool_mm: float, per_m2: float,
             lapped: bool) -> tuple[GlazeStrip, ...]:  # fmt: skip
    """The fewest equal sections between two places; empty where there are none."""
    least = max(tool_mm, OVERLAP_MM * 1.01)
    whole = strip_area(face, "x", low, high) / 1e6
    most = max(1, int((high - low - OVERLAP_MM) / (least - OVERLAP_MM)))
    for count in range(max(1, ceil(whole / area_m2 - 1e-9)), most + 1):
        made = _cut(face, low, high, count, per_m2, lapped)
        if count > 1 and made[0].width_mm < least:
            return ()
        if all(s.area_m2 <= area_m2 * (1 + 1e-9) and s.stroke_mm * tool_mm / 1e6 <= area_m2 * (1 + 1e-9) for s in made):
            return made
    return ()


def breaks_of(face: FlatFace, tool_mm: float) -> tuple[float, ...]:
    """Where a face breaks by itself across its strokes: beside what is set into it, further apart than the tool."""
    left, right = min(p.x for p in face.outline), max(p.x for p in face.outline)
    sides = sorted({x for hole in face.holes for x in (min(p.x for p in hole), max(p.x for p in hole))})
    found = [left]
    for at in sides:
        if at - found[-1] >= tool_mm and right - at >= tool_mm:
            found.append(at)
    return (*found, right)


def strips(face: FlatFace, area_m2: float, tool_mm: float, per_m2: float) -> tuple[GlazeStrip, ...]:
    """The fewest sections over a face, strokes along y, first to last, none larger than `area_m2`: equal ones between
    its own breaks.

    Empty where a section would be narrower than the tool, or one stroke of it is more than can be worked.
    `per_m2` is the minutes it takes to lay and work a m².
    """
    found: list[GlazeStrip] = []
    whole = _between(
        face, min(p.x for p in face.outline), max(p.x for p in face.outline), area_m2, tool_mm, per_m2, False
    )
    if len(whole) == 1 or not face.holes:
        return whole
    for low, high in pairwise(breaks_of(face, tool_mm)):
        made = _between(face, low, high, area_m2, tool_mm, per_m2, bool(found))
        if not made:
            return ()
        found += made
    return tuple(replace(s, number=n) for n, s in enumerate(found, 1))


def on_pattern(regions: Sequence[FlatFace], area_m2: float, tool_mm: float, per_m2: float) -> tuple[GlazeStrip, ...]:
    """Sections that end under tape: as many whole stripes at once as can be worked, a stripe that is too large in
    sections of its own. Empty where one stroke is more than can be worked."""
    found: list[GlazeStrip] = []
    for one in regions:
        own = strips(one, area_m2, min(tool_mm, one.width), per_m2)
        if not own:
            return ()
        last = found[-1] if found else None
        if last and len(own) == 1 and last.area_m2 + own[0].area_m2 <= area_m2 * (1 + 1e-9):
            ends = own[0].start_mm + own[0].width_mm
            found[-1] = replace(
                last, width_mm=ends - last.start_mm, area_m2=last.area_m2 + own[0].area_m2,
                minutes=last.minutes + own[0].minutes, stroke_mm=max(last.stroke_mm, own[0].stroke_mm),
                outlines=(*last.outlines, *own[0].outlines),
            )  # fmt: skip
        else:
            found += own
    return tuple(replace(s, number=n) for n, s in enumerate(found, 1))


def glaze_plan(
    zone: str,
    layer: str,
    surface: str,
    face: FlatFace,
    open_min: float,
    lays_m2_per_h: float,
    passes: int,
    pass_m2_per_h: float,
    tool_mm: float,
    stroke: Stroke = "down",
    two: bool = False,
    regions: Sequence[FlatFace] = (),
) -> GlazePlan:
    """A face in sections; strokes run down it or across it, end to end. With `two` one lays and another works;
    `regions` are the parts of it that a pattern paints, from its corner, in order."""
    own, turned = face.from_datum(), _turned(face, stroke)
    area = section_area(open_min, lays_m2_per_h, passes, pass_m2_per_h, two)
    per_m2 = minutes_per_m2(lays_m2_per_h, passes, pass_m2_per_h, two)
    if regions:
        parts = [
            r if stroke == "down" else FlatFace(r.shape, _turn(r.outline), tuple(map(_turn, r.holes))) for r in regions
        ]
        made = on_pattern(parts, area, tool_mm, per_m2)
    else:
        made = strips(turned, area, tool_mm, per_m2)
    if stroke == "across":
        made = tuple(replace(s, outlines=tuple(_turn(o) for o in s.outlines)) for s in made)
    says = ""
    ways: tuple[str, ...] = ()
    if not made:
        long, fits = _longest(turned, 0, turned.width), area * 1e6 / tool_mm
        says = (
            f"A wet edge cannot be kept: one stroke of {long / 1000:.2g} m × {tool_mm:.0f} mm is more than the "
            f"{area:.2g} m² that stay open {open_min:.0f} min; strokes of {fits / 1000:.2g} m would do."
        )
        ways = tuple(way for way in WAYS if not (two and way == SECOND))
    breaks: Literal["", "beside what is set into it", "under the tape"] = (
        "under the tape" if regions else "beside what is set into it" if face.holes and len(made) > 1 else ""
    )
    return GlazePlan(zone, layer, surface, stroke, turned.height, turned.width, open_min, area, OVERLAP_MM, made, says,
                     ways, own.outline, own.holes, 1, (), breaks)  # fmt: skip
