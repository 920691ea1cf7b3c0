"""Drawings as plain geometry in mm, x to the right and y down; the interface only has to put them in ink."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import cos, pi, sin
from typing import Literal

from ..value import Value


@dataclass(frozen=True)
class Point(Value):
    x: float
    y: float


@dataclass(frozen=True)
class Face(Value):
    """A surface as a polygon. `zone` is the zone that coats it, "" where it is left bare; `shape` says what
    the polygon stands for: an oval in its box, the side of something round (one side's points, then the other's), or a
    solid that no pattern is laid on."""

    surface: str
    name: str
    outline: tuple[Point, ...]
    zone: str = ""
    shape: Literal["polygon", "oval", "round", "solid"] = "polygon"


@dataclass(frozen=True)
class Callout(Value):
    """A dimension line from one point to another that carries the size called `size`."""

    size: str
    start: Point
    end: Point
    side: Literal["above", "below", "left", "right"]


@dataclass(frozen=True)
class Label(Value):
    """Words on a drawing, centred at a point."""

    text: str
    at: Point


@dataclass(frozen=True)
class Drawing(Value):
    """Faces, callouts and labels inside a box of `width` × `height` mm."""

    width: float
    height: float
    faces: tuple[Face, ...]
    callouts: tuple[Callout, ...]
    labels: tuple[Label, ...] = ()


def box(x: float, y: float, width: float, height: float) -> tuple[Point, ...]:
    """The corners of an upright rectangle."""
    return (Point(x, y), Point(x + width, y), Point(x + width, y + height), Point(x, y + height))


def ellipse(x: float, y: float, width: float, height: float, corners: int = 48) -> tuple[Point, ...]:
    """An ellipse inside the box at (x, y), as a polygon."""
    return tuple(
        Point(x + width / 2 * (1 + cos(2 * pi * k / corners)), y + height / 2 * (1 + sin(2 * pi * k / corners)))
        for k in range(corners)
    )


def outline(middle: float, stations: Sequence[Sequence[float]], foot: float) -> tuple[Point, ...]:
    """A turning seen from the side: (height, diameter) stations about a middle line, `foot` the y of height 0."""
    right = [Point(middle + d / 2, foot - h) for h, d in stations]
    left = [Point(middle - d / 2, foot - h) for h, d in reversed(stations)]
    return tuple(right + left)


def callout(size: str, side: Literal["above", "below", "left", "right"], x: float, y: float, length: float) -> Callout:
    """A dimension line that starts at (x, y) and runs right (above, below) or down (left, right)."""
    across = side in ("above", "below")
    return Callout(size, Point(x, y), Point(x + length, y) if across else Point(x, y + length), side)


def view(name: str, width: float, height: float, faces: Sequence[Face], callouts: Sequence[Callout] = ()) -> Drawing:
    """One view of a piece, with its name under it."""
    label = (Label(name, Point(width / 2, height)),) if name else ()
    return Drawing(width, height, tuple(faces), tuple(callouts), label)


def _moved(drawing: Drawing, dx: float, dy: float) -> Drawing:
    def to(p: Point) -> Point:
        return Point(p.x + dx, p.y + dy)

    return Drawing(
        drawing.width,
        drawing.height,
        tuple(replace(f, outline=tuple(to(p) for p in f.outline)) for f in drawing.faces),
        tuple(replace(c, start=to(c.start), end=to(c.end)) for c in drawing.callouts),
        tuple(replace(label, at=to(label.at)) for label in drawing.labels),
    )


def lay_out(*views: Drawing) -> Drawing:
    """Views to one scale, beside each other on a floor line; what would make the sheet too wide starts a new row."""
    tallest, widest = max(v.height for v in views), max(v.width for v in views)
    gap, limit = max(tallest, widest) * 0.22, max(1.8 * widest, 2.2 * tallest)
    rows: list[list[Drawing]] = [[]]
    for v in views:
        if rows[-1] and sum(u.width + gap for u in rows[-1]) + v.width > limit:
            rows.append([])
        rows[-1].append(v)
    placed: list[Drawing] = []
    floor = width = 0.0
    for row in rows:
        floor += max(v.height for v in row) + (gap if floor else 0.0)
        x = 0.0
        for v in row:
            placed.append(_moved(v, x, floor - v.height))
            x += v.width + gap
        width = max(width, x - gap)
    return Drawing(
        width,
        floor,
        tuple(f for v in placed for f in v.faces),
        tuple(c for v in placed for c in v.callouts),
        tuple(label for v in placed for label in v.labels),
    )
