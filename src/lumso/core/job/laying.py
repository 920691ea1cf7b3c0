"""Layers with a layout: which share of their zone they touch, face by face, and how much tape that takes."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from math import hypot
from typing import Literal

from ..errors import InvalidValue, Problem
from ..layout.fit import Fit, fit, shifted
from ..layout.flat import FlatFace, cut_to, oval_outline, polygon_area
from ..layout.mask import LaidOut, lay_out
from ..layout.pattern import Layout
from ..layout.taping import Taping, taping_of
from ..measure.drawing import Face, Point
from ..value import Value
from .areas import MeasuredPiece
from .job import Job, Zone

NOWHERE = "No face of this zone is drawn that a layout could lie on."
MOST_OFF_SQUARE = 0.03
"""Sides and diagonals that disagree by more than this, as a share of their squares, were not measured on one face."""
LEAST_SHARE = 0.001
"""A layer touches something."""


Size = tuple[str, int, int]
"""A surface, and the width and height of a face of it: like faces have the same."""


def size_of(face: Face) -> Size:
    """The surface a face is of, its width and its height, to a mm."""
    box = FlatFace(face.shape, face.outline)
    return face.surface, round(box.width), round(box.height)


@dataclass(frozen=True)
class Go(Value):
    """What a coat paints at once: the share of its zone, and the tape that takes, m on one piece."""

    share: float
    metres: float


@dataclass(frozen=True)
class FaceLaid(Value):
    """A face with its layout: what is painted, how it is taped.

    `like` are faces of the same surface and size, this one among them.
    """

    surface: str
    name: str
    width_mm: float
    height_mm: float
    outline: tuple[Point, ...]
    """From its own corner."""
    holes: tuple[tuple[Point, ...], ...]
    """What is set into it, which is not of this surface."""
    laid: LaidOut
    taping: Taping
    like: int = 1
    shape: Literal["polygon", "oval", "round", "solid"] = "polygon"
    at: tuple[Point, ...] = ()
    """Where the datum of each of the like faces is on the drawing of the piece."""
    square: str = ""
    """How far it is out of square, by its diagonals; "" where they were not measured."""

    @property
    def size(self) -> Size:
        """Its surface and size, as like ones have them."""
        return self.surface, round(self.width_mm), round(self.height_mm)

    @property
    def face(self) -> FlatFace:
        """The face, from its datum."""
        return FlatFace(self.shape, self.outline, self.holes)


def surface_of(face: Face, faces: Sequence[Face]) -> FlatFace:
    """A face of a drawing to lay something on: less what is set into it, which is drawn over it; an oval with as many
    corners as it takes."""
    if face.shape != "oval":
        over = faces[faces.index(face) + 1 :] if face.shape == "polygon" else ()
        cut = (cut_to(f.outline, face.outline) for f in over if f.surface != face.surface and f.shape != "round")
        return FlatFace(face.shape, face.outline, tuple(h for h in cut if polygon_area(h) > 1.0))
    box = FlatFace("oval", face.outline)
    x, y = min(p.x for p in face.outline), min(p.y for p in face.outline)
    return FlatFace("oval", tuple(Point(x + p.x, y + p.y) for p in oval_outline(box.width, box.height)))


def faces_of(layout: Layout, zone: Zone, faces: Sequence[Face]) -> list[Face]:
    """The faces a layout is on: those of the zone that it names, or all of the zone that are drawn."""
    mine = [f for f in faces if f.surface in zone.surfaces]
    return [f for f in mine if not layout.surfaces or f.surface in layout.surfaces]


def out_of_square(layout: Layout, face: FlatFace) -> str:
    """How far a rectangular face is out of square, by its sides and both diagonals. Raises InvalidValue for diagonals
    that cannot be those of a face this large."""
    if len(layout.diagonals_mm) < 2 or not face.upright:
        return ""
    first, second = layout.diagonals_mm
    w, h = face.width, face.height
    whole = hypot(w, h)
    off = abs(first * first + second * second - 2 * (w * w + h * h)) / (2 * (w * w + h * h))
    lean = (first * first - second * second) / (4 * w)
    if off > MOST_OFF_SQUARE or abs(lean) >= h:
        raise InvalidValue(f"Those are no diagonals of {w:.0f} × {h:.0f} mm.", value=first, field="diagonals_mm",
                           allowed=f"about {whole:.0f} mm each")  # fmt: skip
    if abs(lean) < 0.5:
        return "Square, as far as its diagonals say."
    return (
        f"Out of square: over its {h:.0f} mm it leans {abs(lean):.1f} mm. Measure each mark along both opposite edges "
        "from the datum and join the two: stripes then follow the sides, and nothing tapers."
    )


def _in_a_row(layout: Layout, faces: Sequence[Face]) -> dict[int, Fit]:
    """Fronts that a pattern runs on over, by their place among the faces, each with its part of it: fronts of one
    surface that line up, in the order they are met."""
    if layout.fronts == "each by itself" or layout.kind != "stripes":
        return {}
    along: Literal["x", "y"] = "x" if layout.runs == "down" else "y"
    rows: dict[tuple[str, int, int], list[tuple[float, int, float]]] = {}
    for n, face in enumerate(faces):
        if face.shape not in ("polygon", "oval"):
            continue
        xs, ys = [p.x for p in face.outline], [p.y for p in face.outline]
        low, high, side, other = (min(xs), max(xs), min(ys), max(ys)) if along == "x" else (
            min(ys), max(ys), min(xs), max(xs))  # fmt: skip
        rows.setdefault((face.surface, round(side), round(other)), []).append((low, n, high - low))
    gap = layout.front_gap_mm if layout.fronts == "over the gaps" else 0.0
    found: dict[int, Fit] = {}
    for row in rows.values():
        row.sort()
        made = fit(layout, sum(long for _, _, long in row) + gap * (len(row) - 1))
        at = 0.0
        for k, (_, n, long) in enumerate(row, 1):
            part = shifted(made, -at, long, layout)
            found[n] = replace(part, says=f"{made.says} Front {k} of {len(row)}, over {made.length_mm:.0f} mm.")
            at += long + gap
    return found


def laid_faces(layout: Layout, zone: Zone, faces: Sequence[Face]) -> tuple[FaceLaid, ...]:
    """Each face with the layout on it, like ones once; where no surfaces are named, those it fits on.

    Raises InvalidValue for a named face it cannot be laid on, and where it fits on none.
    """
    found: dict[tuple[Size, int], FaceLaid] = {}
    misfit: InvalidValue | None = None
    mine = faces_of(layout, zone, faces)
    parts = _in_a_row(layout, mine)
    along: Literal["x", "y"] = "x" if layout.runs == "down" else "y"
    for n, face in enumerate(mine):
        surface = surface_of(face, faces)
        datum = Point(min(p.x for p in surface.outline), min(p.y for p in surface.outline))
        size = (size_of(face), n if n in parts else -1)
        if size in found:
            found[size] = replace(found[size], like=found[size].like + 1, at=(*found[size].at, datum))
            continue
        try:
            laid = lay_out(layout, surface, {along: parts[n]} if n in parts else None)
            square = out_of_square(layout, surface)
        except InvalidValue as error:
            if layout.surfaces:
                raise
            misfit = misfit or error
            continue
        taping = taping_of(layout, surface, laid)
        own = surface.from_datum()
        found[size] = FaceLaid(face.surface, face.name, surface.width, surface.height, own.outline, own.holes, laid,
                                taping, 1, face.shape, (datum,), square)  # fmt: skip
    if misfit and not found:
        raise misfit
    return tuple(found.values())


def left_out(layout: Layout, zone: Zone, faces: Sequence[Face], laid: Sequence[FaceLaid]) -> list[str]:
    """Names of the faces a layout was to go on and does not fit on, each once."""
    fits = {f.size for f in laid}
    return list(dict.fromkeys(f.name for f in faces_of(layout, zone, faces) if size_of(f) not in fits))


def share_of(faces: Sequence[FaceLaid], areas: Mapping[str, float], zone: Zone) -> float:
    """The share of a zone that a layout paints: what it paints of each surface's drawn faces, by the surfaces' areas.
    Surfaces that are not drawn, or not named, are not touched."""
    whole = sum(areas.get(s, 0.0) for s in zone.surfaces)
    painted = _over(faces, areas, lambda f: f.laid.painted_m2)
    return min(max(painted / whole, LEAST_SHARE), 1.0) if whole > 0 else 1.0


def goes_of(faces: Sequence[FaceLaid], areas: Mapping[str, float], zone: Zone) -> tuple[Go, ...]:
    """The goes a layout is painted in. Where stripes cross, what is painted twice is in both."""
    whole = sum(areas.get(s, 0.0) for s in zone.surfaces)
    found = []
    for go in range(1, max(f.taping.passes for f in faces) + 1):
        found.append(_go(faces, areas, whole, go))
    return tuple(found)


def _go(faces: Sequence[FaceLaid], areas: Mapping[str, float], whole: float, go: int) -> Go:
    painted = _over(faces, areas, lambda f: f.taping.painted_m2(go))
    share = min(max(painted / whole, LEAST_SHARE), 1.0) if whole > 0 else 1.0
    return Go(share, _over(faces, areas, lambda f: f.taping.metres_in(go)))


def metres_of(faces: Sequence[FaceLaid], areas: Mapping[str, float], like: int) -> float:
    """How much tape a coat takes on so many like pieces, m."""
    return _over(faces, areas, lambda f: f.taping.metres) * like


def _over(faces: Sequence[FaceLaid], areas: Mapping[str, float], of: Callable[[FaceLaid], float]) -> float:
    """Something of all faces together: of each surface that of its drawn faces, by how much more of it there is."""
    found = 0.0
    for surface in {f.surface for f in faces}:
        mine = [f for f in faces if f.surface == surface]
        drawn = sum(f.laid.face_m2 * f.like for f in mine)
        if drawn > 0:
            found += areas.get(surface, 0.0) / drawn * sum(of(f) * f.like for f in mine)
    return found


def areas_of(piece: MeasuredPiece) -> dict[str, float]:
    """The area of each surface of one piece, m²."""
    return {slug: s.area_m2 for slug, s in piece.surfaces.items()}


@dataclass(frozen=True)
class Laying:
    """What the layouts of a job come to: the share each layer touches and the goes it is painted in, by zone and layer;
    and the problem of each that cannot be laid."""

    shares: Mapping[tuple[str, str], float]
    goes: Mapping[tuple[str, str], tuple[Go, ...]]
    problems: tuple[Problem, ...]
    faces: Mapping[tuple[str, str], tuple[FaceLaid, ...]]
    """Each layout on its faces."""


def laying_of(job: Job, piece: MeasuredPiece) -> Laying:
    """The layouts of a job, laid on the faces of its piece."""
    shares, goes, problems, laid = {}, {}, [], {}
    for i, zone in enumerate(job.zones):
        for k, layer in enumerate(zone.layers):
            if layer.layout is None or piece.drawing is None:
                continue
            at = f"/zones/{i}/layers/{k}/layout"
            try:
                faces = laid_faces(layer.layout, zone, piece.drawing.faces)
            except InvalidValue as error:
                problems.append(Problem(f"{at}/{error.field}", error.says, error.allowed))
                continue
            if not faces:
                problems.append(Problem(f"{at}/surfaces", NOWHERE, "a zone with a drawn face"))
                continue
            shares[zone.id, layer.id] = share_of(faces, areas_of(piece), zone)
            goes[zone.id, layer.id] = goes_of(faces, areas_of(piece), zone)
            laid[zone.id, layer.id] = faces
    return Laying(shares, goes, tuple(problems), laid)


def with_shares(job: Job, laying: Laying) -> Job:
    """The job with the share that each layer with a layout touches."""
    if not laying.shares:
        return job
    zones = []
    for zone in job.zones:
        shares = [laying.shares.get((zone.id, x.id), x.touched) for x in zone.layers]
        layers = tuple(x if x.touched == s else replace(x, touched=s) for x, s in zip(zone.layers, shares, strict=True))
        zones.append(replace(zone, layers=layers))
    return replace(job, zones=tuple(zones))
