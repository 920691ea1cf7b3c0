"""Drawings as plain geometry in mm, x to the right and y down; the interface only has to put them in ink."""

from dataclasses import dataclass
from typing import Literal

from .value import Value


@dataclass(frozen=True)
class Point(Value):
    x: float
    y: float


@dataclass(frozen=True)
class Face(Value):
    """A surface as a polygon. `shown_as` is "bare" where it gets no coat."""

    surface: str
    name: str
    outline: tuple[Point, ...]
    shown_as: Literal["coated", "bare"]


@dataclass(frozen=True)
class Callout(Value):
    """A dimension line from one point to another that carries the size called `size`."""

    size: str
    start: Point
    end: Point
    side: Literal["above", "below", "left", "right"]


@dataclass(frozen=True)
class Drawing(Value):
    """Faces and callouts inside a box of `width` × `height` mm."""

    width: float
    height: float
    faces: tuple[Face, ...]
    callouts: tuple[Callout, ...]


def box(x: float, y: float, width: float, height: float) -> tuple[Point, ...]:
    """The corners of an upright rectangle."""
    return (Point(x, y), Point(x + width, y), Point(x + width, y + height), Point(x, y + height))
