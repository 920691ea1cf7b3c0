"""What pieces are made of: flat faces, round legs, profiles. Each gives a surface with its working in words."""

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise
from math import hypot, pi, sqrt

from ...figure import tidy
from ...measure.drawing import Face, box
from ...measure.shapes import MM2_PER_M2, disc, frustum_wall, oval, rectangle
from .kind import Does, FaceGroup, SizeSpec

NARROW_MM = 60.0
"""A strip narrower than this is an edge."""


def size(slug: str, name: str, usual: float, least: float, most: float, of: str = "") -> SizeSpec:
    """A size spec, in mm."""
    return SizeSpec(slug, name, least, most, usual, of)


def metres(mm: float) -> str:
    """mm as metres in words: 0.75."""
    return tidy(mm / 1000)


def flat(slug: str, name: str, group: str, length: float, width: float, count: float = 1, *,
         vertical: bool = True, bare: str = "", does: tuple[Does, ...] = ()) -> FaceGroup:  # fmt: skip
    """`count` like rectangles."""
    how = f"{metres(length)} × {metres(width)} m"
    if count != 1:
        how = f"{count:g} × {how}"
    return FaceGroup(slug, name, rectangle(length, width) * count, how, group, vertical, bare, frozenset(does))


def band(slug: str, name: str, group: str, length: float, width: float, *, bare: str = "",
         does: tuple[Does, ...] = ()) -> FaceGroup:  # fmt: skip
    """A long strip: edges, a plinth, an apron."""
    how = f"{metres(length)} m run × {metres(width)} m"
    return FaceGroup(slug, name, rectangle(length, width), how, group, True, bare, frozenset(does), width < NARROW_MM)


def round_flat(slug: str, name: str, group: str, diameter: float, *, bare: str = "") -> FaceGroup:
    """One face of a round."""
    return FaceGroup(slug, name, disc(diameter), f"π × {metres(diameter)}² ÷ 4 m", group, False, bare)


def oval_flat(slug: str, name: str, group: str, length: float, width: float, *, bare: str = "") -> FaceGroup:
    """One face of an oval."""
    how = f"π × {metres(length)} × {metres(width)} ÷ 4 m"
    return FaceGroup(slug, name, oval(length, width), how, group, False, bare)


def oval_round(length: float, width: float) -> float:
    """The way round an oval, mm, by Ramanujan's second formula (1914): off by less than 1 in 10 000 here."""
    a, b = length / 2, width / 2
    h = ((a - b) / (a + b)) ** 2
    return pi * (a + b) * (1 + 3 * h / (10 + sqrt(4 - 3 * h)))


def round_legs(count: float, top: float, bottom: float, height: float) -> FaceGroup:
    """Tapering round legs, without their ends."""
    how = f"{count:g} frusta, ø {metres(top)} to {metres(bottom)} m, {metres(height)} m tall"
    return FaceGroup("legs", "Legs", count * frustum_wall(top, bottom, height), how, "Legs")


def square_legs(count: float, top: float, bottom: float, height: float) -> FaceGroup:
    """Square legs, straight or tapering on all four sides: four trapezia each, without their ends."""
    slant = hypot(height, (top - bottom) / 2)
    area = count * 4 * (top + bottom) / 2 * slant / MM2_PER_M2
    how = f"{count:g} × 4 faces, {metres(top)} to {metres(bottom)} m wide, {metres(height)} m tall"
    return FaceGroup("legs", "Legs", area, how, "Legs")


def open_area(surface: FaceGroup, holes: Sequence[FaceGroup], slug: str, name: str) -> FaceGroup:
    """A surface less what is cut out of it or laid over it."""
    less = " − ".join(tidy(h.area_m2) for h in holes)
    area = surface.area_m2 - sum(h.area_m2 for h in holes)
    how = f"{tidy(surface.area_m2)} − {less} m²"
    return replace(surface, slug=slug, name=name, area_m2=area, how=how)


def pane(surface: str, name: str, x: float, y: float, width: float, height: float) -> Face:
    """A rectangular face on a drawing."""
    return Face(surface, name, box(x, y, width, height))


Between = tuple[float, float]
"""From where to where an opening reaches."""


def framework(surface: str, outer: tuple[float, float, float, float], columns: Sequence[Between],
              rows: Sequence[Between]) -> list[Face]:  # fmt: skip
    """A frame as it is joined: stiles from top to bottom, rails between them, and mullions between the openings.
    `outer` is its x, y, width and height, openings by the columns and rows they make."""
    x, y, width, height = outer
    left, right = columns[0][0], columns[-1][1]
    tops = [y, *(foot for _, foot in rows)]
    feet = [*(top for top, _ in rows), y + height]
    named = {0: "Top rail", len(rows): "Bottom rail"}
    stiles = [pane(surface, "Left stile", x, y, left - x, height),
              pane(surface, "Right stile", right, y, x + width - right, height)]  # fmt: skip
    rails = [
        pane(surface, named.get(n, f"Rail {n + 1}"), left, top, right - left, foot - top)
        for n, (top, foot) in enumerate(zip(tops, feet, strict=True))
    ]
    mullions = [
        pane(surface, f"Mullion {r}.{c}", a, top, b - a, foot - top)
        for r, (top, foot) in enumerate(rows, 1)
        for c, ((_, a), (b, _)) in enumerate(pairwise(columns), 1)
    ]
    return [*stiles, *rails, *mullions]


def openings(start: float, size: float, between: float, count: float) -> list[Between]:
    """So many openings of a size, one after the other."""
    return [(start + k * (size + between), start + k * (size + between) + size) for k in range(int(count))]
