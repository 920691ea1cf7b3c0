"""What pieces are made of: flat faces, round legs, profiles. Each gives a surface with its working in words."""

from collections.abc import Sequence
from dataclasses import replace
from math import hypot, pi, sqrt

from ...figure import tidy
from ...measure.drawing import Face, box
from ...measure.shapes import MM2_PER_M2, disc, frustum_wall, oval, rectangle
from .kind import Does, SizeSpec, Surface

NARROW_MM = 60.0
"""A strip narrower than this is an edge."""


def size(slug: str, name: str, usual: float, least: float, most: float, of: str = "") -> SizeSpec:
    """A size spec, in mm."""
    return SizeSpec(slug, name, least, most, usual, of)


def metres(mm: float) -> str:
    """mm as metres in words: 0.75."""
    return tidy(mm / 1000)


def flat(slug: str, name: str, group: str, length: float, width: float, count: float = 1, *,
         vertical: bool = True, bare: str = "", does: tuple[Does, ...] = ()) -> Surface:  # fmt: skip
    """`count` like rectangles."""
    how = f"{metres(length)} × {metres(width)} m"
    if count != 1:
        how = f"{count:g} × {how}"
    return Surface(slug, name, rectangle(length, width) * count, how, group, vertical, bare, frozenset(does))


def band(slug: str, name: str, group: str, length: float, width: float, *, bare: str = "",
         does: tuple[Does, ...] = ()) -> Surface:  # fmt: skip
    """A long strip: edges, a plinth, an apron."""
    how = f"{metres(length)} m run × {metres(width)} m"
    return Surface(slug, name, rectangle(length, width), how, group, True, bare, frozenset(does), width < NARROW_MM)


def round_flat(slug: str, name: str, group: str, diameter: float, *, bare: str = "") -> Surface:
    """One face of a round."""
    return Surface(slug, name, disc(diameter), f"π × {metres(diameter)}² ÷ 4 m", group, False, bare)


def oval_flat(slug: str, name: str, group: str, length: float, width: float, *, bare: str = "") -> Surface:
    """One face of an oval."""
    how = f"π × {metres(length)} × {metres(width)} ÷ 4 m"
    return Surface(slug, name, oval(length, width), how, group, False, bare)


def oval_round(length: float, width: float) -> float:
    """The way round an oval, mm, by Ramanujan's second formula (1914): off by less than 1 in 10 000 here."""
    a, b = length / 2, width / 2
    h = ((a - b) / (a + b)) ** 2
    return pi * (a + b) * (1 + 3 * h / (10 + sqrt(4 - 3 * h)))


def round_legs(count: float, top: float, bottom: float, height: float) -> Surface:
    """Tapering round legs, without their ends."""
    how = f"{count:g} frusta, ø {metres(top)} to {metres(bottom)} m, {metres(height)} m tall"
    return Surface("legs", "Legs", count * frustum_wall(top, bottom, height), how, "Legs")


def square_legs(count: float, top: float, bottom: float, height: float) -> Surface:
    """Square legs, straight or tapering on all four sides: four trapezia each, without their ends."""
    slant = hypot(height, (top - bottom) / 2)
    area = count * 4 * (top + bottom) / 2 * slant / MM2_PER_M2
    how = f"{count:g} × 4 faces, {metres(top)} to {metres(bottom)} m wide, {metres(height)} m tall"
    return Surface("legs", "Legs", area, how, "Legs")


def open_area(surface: Surface, holes: Sequence[Surface], slug: str, name: str) -> Surface:
    """A surface less what is cut out of it or laid over it."""
    less = " − ".join(tidy(h.area_m2) for h in holes)
    area = surface.area_m2 - sum(h.area_m2 for h in holes)
    how = f"{tidy(surface.area_m2)} − {less} m²"
    return replace(surface, slug=slug, name=name, area_m2=area, how=how)


def pane(surface: str, name: str, x: float, y: float, width: float, height: float) -> Face:
    """A rectangular face on a drawing."""
    return Face(surface, name, box(x, y, width, height))
