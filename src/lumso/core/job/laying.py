"""Layers with a layout: which share of their zone they touch, face by face, and how much tape that takes."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ..errors import InvalidValue, Problem
from ..layout.mask import LaidOut, Surface, lay_out
from ..layout.pattern import Layout
from ..layout.taping import Taping, taping_of
from ..measure.drawing import Face, Point
from ..value import Value
from .areas import MeasuredPiece
from .job import Job, Layer, Zone

NOWHERE = "No face of this zone is drawn that a layout could lie on."
LEAST_SHARE = 0.001
"""A layer touches something."""


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
    laid: LaidOut
    taping: Taping
    like: int = 1


def _surface(face: Face) -> Surface:
    return Surface(face.shape, face.outline)


def faces_of(layout: Layout, zone: Zone, faces: Sequence[Face]) -> list[Face]:
    """The faces a layout is on: those of the zone that it names, or all of the zone that are drawn."""
    mine = [f for f in faces if f.surface in zone.surfaces]
    return [f for f in mine if not layout.surfaces or f.surface in layout.surfaces]


def laid_faces(layout: Layout, zone: Zone, faces: Sequence[Face]) -> tuple[FaceLaid, ...]:
    """Each face with the layout on it, like ones once; where no surfaces are named, those it fits on.

    Raises InvalidValue for a named face it cannot be laid on, and where it fits on none.
    """
    found: dict[tuple[str, int, int], FaceLaid] = {}
    misfit: InvalidValue | None = None
    for face in faces_of(layout, zone, faces):
        surface = _surface(face)
        size = (face.surface, round(surface.width), round(surface.height))
        if size in found:
            found[size] = replace(found[size], like=found[size].like + 1)
            continue
        try:
            laid = lay_out(layout, surface)
        except InvalidValue as error:
            if layout.surfaces:
                raise
            misfit = misfit or error
            continue
        taping = taping_of(layout, surface, laid)
        found[size] = FaceLaid(face.surface, face.name, surface.width, surface.height,
                               surface.from_datum().outline, laid, taping)  # fmt: skip
    if misfit and not found:
        raise misfit
    return tuple(found.values())


def share_of(faces: Sequence[FaceLaid], areas: Mapping[str, float], zone: Zone) -> float:
    """The share of a zone that a layout paints: what it paints of each surface's drawn faces, by the surfaces' areas.
    Surfaces that are not drawn, or not named, are not touched."""
    whole = sum(areas.get(s, 0.0) for s in zone.surfaces)
    painted = 0.0
    for surface in {f.surface for f in faces}:
        mine = [f for f in faces if f.surface == surface]
        drawn = sum(f.laid.face_m2 * f.like for f in mine)
        if drawn > 0:
            painted += areas.get(surface, 0.0) * sum(f.laid.painted_m2 * f.like for f in mine) / drawn
    return min(max(painted / whole, LEAST_SHARE), 1.0) if whole > 0 else 1.0


def metres_of(faces: Sequence[FaceLaid], areas: Mapping[str, float], like: int) -> float:
    """How much tape a coat takes on so many like pieces, m: of each surface that of its drawn faces, by how much more
    of it there is."""
    found = 0.0
    for surface in {f.surface for f in faces}:
        mine = [f for f in faces if f.surface == surface]
        drawn = sum(f.laid.face_m2 * f.like for f in mine)
        if drawn > 0:
            found += areas.get(surface, drawn) / drawn * sum(f.taping.metres * f.like for f in mine)
    return found * like


def areas_of(piece: MeasuredPiece) -> dict[str, float]:
    """The area of each surface of one piece, m²."""
    return {slug: s.area_m2 for slug, s in piece.surfaces.items()}


@dataclass(frozen=True)
class Laying:
    """What the layouts of a job come to: the share each layer touches and in how many goes it is painted, by zone and
    layer; and the problem of each that cannot be laid."""

    shares: Mapping[tuple[str, str], float]
    goes: Mapping[tuple[str, str], int]
    problems: tuple[Problem, ...]


def laying_of(job: Job, piece: MeasuredPiece) -> Laying:
    """The layouts of a job, laid on the faces of its piece."""
    shares, goes, problems = {}, {}, []
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
            goes[zone.id, layer.id] = max(f.taping.passes for f in faces)
    return Laying(shares, goes, tuple(problems))


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


def tape_metres(layer: Layer, zone: Zone, piece: MeasuredPiece, like: int = 1) -> float | None:
    """How much tape a coat of a layer takes on so many like pieces, by its layout; None where it has none, or it cannot
    be laid."""
    if layer.layout is None or piece.drawing is None:
        return None
    try:
        faces = laid_faces(layer.layout, zone, piece.drawing.faces)
    except InvalidValue:
        return None
    return metres_of(faces, areas_of(piece), like) if faces else None
