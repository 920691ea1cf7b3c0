"""The core sample: a stack in section, from the ground up, as geometry.

Heights are exaggerated but ordered truly: a thicker film is always drawn thicker, by the logarithm, so that a wash
of ten µm and a texture of two mm can be seen side by side. Waits are gaps, also by the logarithm.
"""

from dataclasses import dataclass
from math import log, pi, sin

from ..checks.findings import GRADES, Finding, Grade
from ..layers.laid import WHOLE, Laid
from ..layers.stack import Stack
from ..look.look import Look
from ..measure.drawing import Point
from ..value import Value

WIDTH = 104.0
GROUND_HEIGHT = 40.0
ROW = 64.0
"""The height of a layer's row in the list beside it: what a wet thumb can press."""
STEPS, PATCHES = 48, 5
"""Points along a rough film, and how many patches a broken one is drawn in."""
LARGEST = 2.6
"""How far a thin stack is stretched to stand beside its list."""


@dataclass(frozen=True)
class FilmBand(Value):
    """A layer in section, all its coats. `outline` is closed; `y` grows downwards from the top of the drawing."""

    layer: str
    name: str
    hex: str
    """Its film alone, as thick as one likes; of a clear one how it is drawn."""
    hatch: str
    outline: tuple[Point, ...]
    top: float
    floor: float
    dry_um: float
    """Mean thickness of all its coats when dry, where it touches: an estimate."""
    coats: int
    wait_h: float | None
    wait_height: float
    """The gap above it that stands for the wait."""
    sanded: int
    """The grit it is sanded back with; 0 for none."""


@dataclass(frozen=True)
class Notch(Value):
    """Where findings arise: the height of their boundary, the worst grade, and how many there are."""

    y: float
    below: str
    above: str
    grade: Grade
    accepted: bool
    count: int


@dataclass(frozen=True)
class Section(Value):
    """The drawing, in points, as tall as its list of rows; the last layer is the first band."""

    width: float
    height: float
    row_height: float
    ground_y: float
    ground_hex: str
    ground_name: str
    bands: tuple[FilmBand, ...]
    notches: tuple[Notch, ...]


HATCHES = {"wax": "wax", "oil": "wax", "clear": "clear", "primer": "primer", "blocker": "primer"}


def film_height(um: float) -> float:
    """Points for a film of `um` µm: 5 for the thinnest, 32 for two millimetres and more, by the logarithm."""
    return min(5 + 27 * log(1 + max(um, 0) / 5) / log(1 + 2000 / 5), 32.0)


def wait_height(hours: float | None) -> float:
    """Points for a wait: none for a minute, 12 for four weeks."""
    return 0.0 if hours is None else min(12 * log(1 + hours) / log(1 + 672), 12.0)


def _top(one: Laid, x: float, high: float) -> float:
    """How high the film stands at `x`: textures in peaks, trowelled ones in soft ridges, others level."""
    if one.acts("stands in peaks"):
        return high * (0.55 + 0.45 * abs(sin(8 * pi * x / WIDTH)))
    return high * (0.88 + 0.12 * sin(5.3 * pi * x / WIDTH)) if one.technique.per_mm else high


def _profile(one: Laid, floor: float, high: float) -> tuple[Point, ...]:
    """The film's outline on its floor, in patches where it touches only part: their widths add up to that share."""
    share = one.layer.touched
    patches = [(0.0, WIDTH)]
    if share < WHOLE:
        pitch = WIDTH / PATCHES
        patches = [(k * pitch + pitch * (1 - share) / 2, pitch * share) for k in range(PATCHES)]
    rough = one.technique.per_mm or one.acts("stands in peaks")
    steps = max(1, round(STEPS / len(patches))) if rough else 1
    line = [Point(0.0, round(floor, 2))]
    for start, width in patches:
        line.append(Point(round(start, 2), round(floor, 2)))
        for k in range(steps + 1):
            x = start + width * k / steps
            line.append(Point(round(x, 2), round(floor - _top(one, x, high), 2)))
        line.append(Point(round(start + width, 2), round(floor, 2)))
    return (*line, Point(WIDTH, round(floor, 2)))


def _notches(findings: tuple[Finding, ...], floors: dict[str, float]) -> tuple[Notch, ...]:
    """One notch a boundary: what is open before what is accepted, the worst grade first."""
    boundaries: dict[tuple[str, str], list[Finding]] = {}
    for finding in findings:
        boundaries.setdefault((finding.below, finding.above), []).append(finding)
    made = []
    for (below, above), found in boundaries.items():
        first = min(found, key=lambda f: (f.accepted is not None, GRADES.index(f.grade)))
        made.append(Notch(floors[above], below, above, first.grade, first.accepted is not None, len(found)))
    return tuple(made)


def cut(stack: Stack, findings: tuple[Finding, ...]) -> Section:
    """The stack in section, with a notch at each boundary where something was found."""
    waits = [stack.shown_h(i) for i in range(len(stack.laid))]
    films = [film_height(one.dry_um * one.layer.coats) for one in stack.laid]
    raw = sum(films) + sum(wait_height(w) for w in waits[:-1])
    room = len(stack.laid) * ROW
    stretch = min(LARGEST, (room - 8) / raw) if raw else 1.0
    height = room + GROUND_HEIGHT
    y = height - GROUND_HEIGHT
    bands = []
    floors: dict[str, float] = {}
    owns = [film.hex for film in Look(stack).films]
    for i, (one, own) in enumerate(zip(stack.laid, owns, strict=True)):
        floors[one.layer.id] = y
        high = films[i] * stretch
        gap = wait_height(waits[i]) * stretch if i < len(stack.laid) - 1 else 0.0
        bands.append(
            FilmBand(
                one.layer.id,
                one.name,
                own or one.hex,
                HATCHES.get(one.film.kind, ""),
                _profile(one, y, high),
                y - high,
                y,
                one.dry_um * one.layer.coats,
                one.layer.coats,
                waits[i],
                gap,
                one.layer.sandings[-1].grit if one.layer.sandings else 0,
            )
        )
        y -= high + gap
    floors[""] = bands[-1].top if bands else y
    return Section(
        WIDTH,
        height,
        ROW,
        height - GROUND_HEIGHT,
        stack.ground.hex,
        stack.ground.name,
        tuple(reversed(bands)),
        _notches(findings, floors),
    )
