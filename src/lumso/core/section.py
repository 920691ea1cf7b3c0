"""The core sample: a stack in section, from the ground up, as geometry.

Heights are exaggerated but ordered truly: a thicker film is always drawn thicker, by the logarithm, so that a wash
of ten µm and a texture of two mm can be seen side by side. Waits are gaps, also by the logarithm.
"""

from dataclasses import dataclass
from math import log, pi, sin

from .drawing import Point
from .films import Film
from .findings import Finding, Grade
from .stack import Laid, Stack
from .value import Value

WIDTH = 120.0
GROUND_HEIGHT = 34.0
ROW = 56.0
"""The height of a layer's row: what a wet thumb can press."""


@dataclass(frozen=True)
class Band(Value):
    """A layer in section. `outline` is closed; `y` grows downwards from the top of the drawing.

    `row` is the top of the layer's row, which is as tall for every layer; the film sits on the row's floor.
    """

    layer: str
    name: str
    hex: str
    hatch: str
    row: float
    outline: tuple[Point, ...]
    dry_um: float
    """Mean thickness of all its coats when dry, where it touches: an estimate."""
    coats: int
    wait_h: float | None
    wait_height: float
    """The gap above it that stands for the wait, out of the row's height."""
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
    """The drawing, in points; the last layer is the first band."""

    width: float
    height: float
    row_height: float
    ground_y: float
    ground_hex: str
    ground_name: str
    bands: tuple[Band, ...]
    notches: tuple[Notch, ...]


HATCHES = {"wax": "wax", "oil": "wax", "clear": "clear", "primer": "primer", "blocker": "primer"}


def film_height(um: float) -> float:
    """Points for a film of `um` µm: 5 for the thinnest, 32 for two millimetres and more, by the logarithm."""
    return min(5 + 27 * log(1 + max(um, 0) / 5) / log(1 + 2000 / 5), 32.0)


def wait_height(hours: float | None) -> float:
    """Points for a wait: none for a minute, 14 for four weeks."""
    return 0.0 if hours is None else min(14 * log(1 + hours) / log(1 + 672), 14.0)


def _profile(one: Laid, floor: float, high: float) -> tuple[Point, ...]:
    """The film's outline on its floor: peaks for textures, patches for what touches only part of the surface."""
    steps = 48
    line = []
    share = one.layer.touched
    for k in range(steps + 1):
        x = WIDTH * k / steps
        top = high
        if one.acts("stands in peaks"):
            top = high * (0.55 + 0.45 * abs(sin(pi * k / 6)))
        elif one.technique.per_mm:
            top = high * (0.88 + 0.12 * sin(pi * k / 9))
        if share < 0.9:
            # Patches whose widths add up to the share that is touched.
            inside = (k * 5 / steps) % 1 < share
            top = top if inside else 0.0
        line.append(Point(x, floor - top))
    return (Point(0.0, floor), *line, Point(WIDTH, floor))


def _hatch(film: Film) -> str:
    return HATCHES.get(film.kind, "")


def cut(stack: Stack, findings: tuple[Finding, ...]) -> Section:
    """The stack in section, with a notch at each boundary where something was found."""
    count = len(stack.laid)
    height = count * ROW + GROUND_HEIGHT
    bands = []
    floors: dict[str, float] = {"": height - GROUND_HEIGHT}
    for i, one in enumerate(stack.laid):
        floor = height - GROUND_HEIGHT - i * ROW
        um = one.dry_um * one.layer.coats
        said = one.layer.wait_h
        waits = said if said is not None else stack.waits_h(i) if stack.minutes(i, "recoat_from") is not None else None
        bands.append(
            Band(
                one.layer.id,
                one.recipe.name,
                one.hex,
                _hatch(one.film),
                floor - ROW,
                _profile(one, floor, film_height(um)),
                um,
                one.layer.coats,
                waits,
                wait_height(waits),
                one.layer.sand_after.grit if one.layer.sand_after else 0,
            )
        )
        floors[one.layer.id] = floor - ROW
    notches: dict[tuple[str, str], Notch] = {}
    order: tuple[Grade, ...] = ("will fail", "risky", "know this")
    for f in findings:
        where = (f.below, f.above)
        been = notches.get(where)
        open_ = f.accepted is None
        better = been is None or (been.accepted and open_) or (
            been.accepted != open_ and order.index(f.grade) < order.index(been.grade)
        )  # fmt: skip
        number = 1 + (been.count if been else 0)
        if better:
            notches[where] = Notch(floors.get(f.below, 0.0), f.below, f.above, f.grade, not open_, number)
        elif been:
            notches[where] = Notch(been.y, been.below, been.above, been.grade, been.accepted, number)
    return Section(
        WIDTH,
        height,
        ROW,
        height - GROUND_HEIGHT,
        stack.ground.hex,
        stack.ground.name,
        tuple(reversed(bands)),
        tuple(notches.values()),
    )
