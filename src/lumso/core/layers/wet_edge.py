"""Glaze in sections: what can be laid on and worked before it closes, laid out over a face.

A section is what can be laid and worked in 0.7 of the open time O: A = 0.7·O/(1/a + Σ n/p), with a laying rate a and
n passes at p (m² an hour). Sections run the length of the stroke, of equal width, o wide overlaps between them: the
fewest of which none is larger than A, by the true shape of the face. An oval is not its rectangle.
"""

from dataclasses import dataclass
from math import ceil
from typing import Literal

from ..layout.flat import Surface, chord, strip_area
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
    """The face, x across the strokes and y along them, from its corner."""
    like: int = 1
    """How many faces are worked so: all like ones of all like pieces."""


WAYS = (
    "smaller sections along natural breaks: panels, rails, boards",
    "more medium, or the glaze with retarder",
    "a second pair of hands: one lays on, one drags",
    "a cooler hour, and no sun on it",
)


def section_area(open_min: float, lays_m2_per_h: float, passes: int, pass_m2_per_h: float) -> float:
    """m² that can be laid and worked in 0.7 of the open time.

    >>> section_area(15, 20, 2, 30)
    1.5
    """
    each = 1 / lays_m2_per_h + passes / pass_m2_per_h
    return round(USED * open_min / 60 / each, 9)


def _turned(face: Surface, stroke: Literal["down", "across"]) -> Surface:
    """A face from its corner, with its strokes along y."""
    from_datum = face.from_datum()
    if stroke == "down":
        return from_datum
    return Surface(from_datum.shape, tuple(Point(p.y, p.x) for p in from_datum.outline))


def _longest(face: Surface, low: float, high: float) -> float:
    """The longest stroke between two places across the strokes, mm."""
    middle = face.width / 2
    places = [min(max(middle, low), high), low, high, *(p.x for p in face.outline if low < p.x < high)]
    inside = [min(max(at, 1e-6), face.width - 1e-6) for at in places]
    return max(chord(face, "x", at) for at in inside)


def _cut(face: Surface, count: int, minutes_per_m2: float) -> tuple[GlazeStrip, ...]:
    """So many sections of equal width."""
    across = face.width
    width = across if count == 1 else (across - OVERLAP_MM) / count + OVERLAP_MM
    made = []
    for k in range(count):
        start = k * (width - OVERLAP_MM)
        area = strip_area(face, "x", start, min(start + width, across)) / 1e6
        longest = _longest(face, start, min(start + width, across))
        made.append(GlazeStrip(k + 1, start, width, area, area * minutes_per_m2, longest))
    return tuple(made)


def strips(face: Surface, area_m2: float, tool_mm: float, minutes_per_m2: float) -> tuple[GlazeStrip, ...]:
    """The fewest equal sections over a face, strokes along y, first to last, none larger than `area_m2`.

    Empty where a section would be narrower than the tool, or one stroke of it is more than can be worked.
    `minutes_per_m2` is the time to lay and work a m².
    """
    least = max(tool_mm, OVERLAP_MM * 1.01)
    most = max(1, int((face.width - OVERLAP_MM) / (least - OVERLAP_MM)))
    for count in range(max(1, ceil(face.area / 1e6 / area_m2 - 1e-9)), most + 1):
        made = _cut(face, count, minutes_per_m2)
        if count > 1 and made[0].width_mm < least:
            return ()
        if all(s.area_m2 <= area_m2 * (1 + 1e-9) and s.stroke_mm * tool_mm / 1e6 <= area_m2 * (1 + 1e-9) for s in made):
            return made
    return ()


def glaze_plan(
    zone: str,
    layer: str,
    surface: str,
    face: Surface,
    open_min: float,
    lays_m2_per_h: float,
    passes: int,
    pass_m2_per_h: float,
    tool_mm: float,
    stroke: Literal["down", "across"] = "down",
) -> GlazePlan:
    """A face in sections; strokes run down it or across it, end to end."""
    turned = _turned(face, stroke)
    area = section_area(open_min, lays_m2_per_h, passes, pass_m2_per_h)
    per_m2 = 60 * (1 / lays_m2_per_h + passes / pass_m2_per_h)
    made = strips(turned, area, tool_mm, per_m2)
    says = ""
    ways: tuple[str, ...] = ()
    if not made:
        long, fits = _longest(turned, 0, turned.width), area * 1e6 / tool_mm
        says = (
            f"A wet edge cannot be kept: one stroke of {long / 1000:.2g} m × {tool_mm:.0f} mm is more than the "
            f"{area:.2g} m² that stay open {open_min:.0f} min; strokes of {fits / 1000:.2g} m would do."
        )
        ways = WAYS
    return GlazePlan(zone, layer, surface, stroke, turned.height, turned.width, open_min, area, OVERLAP_MM, made, says,
                     ways, turned.outline)  # fmt: skip
