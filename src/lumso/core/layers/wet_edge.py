"""Glaze in sections: what can be laid on and worked before it closes, laid out over a face.

A section is what can be laid and worked in 0.7 of the open time O: A = 0.7·O/(1/a + Σ n/p), with a laying rate a and
n passes at p (m² an hour). Sections run the length L of the stroke; there are n = ceil((W − o)/(A/L − o)) of equal
width, o wide overlaps between them.
"""

from dataclasses import dataclass
from math import ceil
from typing import Literal

from ..value import Value

OVERLAP_MM = 25.0
USED = 0.7
"""The share of the open time that is planned with: the rest is for the phone."""


@dataclass(frozen=True)
class GlazeStrip(Value):
    """One section of a face, in the order it is done: from `start_mm` across the strokes, `width_mm` wide."""

    number: int
    start_mm: float
    width_mm: float
    area_m2: float
    minutes: float


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


def strips(
    across_mm: float, stroke_mm: float, area_m2: float, tool_mm: float, minutes_per_m2: float
) -> tuple[GlazeStrip, ...]:
    """Equal sections over a face, first to last; empty when a section is narrower than one stroke of the tool.

    `area_m2` is what one section may hold; `minutes_per_m2` the time to lay and work a m².
    """
    widest = area_m2 * 1e6 / stroke_mm
    if widest < tool_mm or widest <= OVERLAP_MM:
        return ()
    count = 1 if across_mm <= widest else ceil((across_mm - OVERLAP_MM) / (widest - OVERLAP_MM) - 1e-9)
    width = across_mm if count == 1 else (across_mm - OVERLAP_MM) / count + OVERLAP_MM
    made = []
    for k in range(count):
        area = width * stroke_mm / 1e6
        made.append(GlazeStrip(k + 1, k * (width - OVERLAP_MM), width, area, area * minutes_per_m2))
    return tuple(made)


def glaze_plan(
    zone: str,
    layer: str,
    surface: str,
    width_mm: float,
    height_mm: float,
    open_min: float,
    lays_m2_per_h: float,
    passes: int,
    pass_m2_per_h: float,
    tool_mm: float,
    stroke: Literal["down", "across"] = "down",
) -> GlazePlan:
    """A face of `width_mm` by `height_mm` in sections; strokes run down it or across it, end to end."""
    long, across = (height_mm, width_mm) if stroke == "down" else (width_mm, height_mm)
    area = section_area(open_min, lays_m2_per_h, passes, pass_m2_per_h)
    per_m2 = 60 * (1 / lays_m2_per_h + passes / pass_m2_per_h)
    made = strips(across, long, area, tool_mm, per_m2)
    says = ""
    ways: tuple[str, ...] = ()
    if not made:
        fits = area * 1e6 / tool_mm
        says = (
            f"A wet edge cannot be kept: one stroke of {long / 1000:.2g} m × {tool_mm:.0f} mm is more than the "
            f"{area:.2g} m² that stay open {open_min:.0f} min; strokes of {fits / 1000:.2g} m would do."
        )
        ways = WAYS
    return GlazePlan(zone, layer, surface, stroke, long, across, open_min, area, OVERLAP_MM, made, says, ways)
