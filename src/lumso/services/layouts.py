"""Layouts: where on a surface a layer goes, how it is taped, and that at its true size."""

from typing import Literal

from pydantic import BaseModel

from lumso.core.book.catalogue import pick
from lumso.core.errors import InvalidValue
from lumso.core.job.areas import measure
from lumso.core.job.job import Job, Layer, Zone
from lumso.core.job.laying import NOWHERE, FaceLaid, areas_of, laid_faces, left_out, metres_of, share_of
from lumso.core.job.offers import taped, ticked
from lumso.core.layout.pattern import Layout
from lumso.core.layout.template import Paper, Template, Way, corrected, sheets_of, stick_marks, story_stick, template_of
from lumso.formats.template import to_dxf, to_svg

from .beside import Beside
from .context import Context
from .jobs import at_head


class SheetsOut(BaseModel):
    """How the sheets of a face lie."""

    rows: int
    columns: int


class PaperOut(BaseModel):
    """How many sheets a face takes at its true size, and for which ways its marks are on a stick."""

    a4: SheetsOut
    letter: SheetsOut
    sticks: list[Way]


class TickOut(BaseModel):
    """The same pattern in whole ticks of the rule, on one face; what is left over is halved at its ends."""

    face: str
    layout: Layout
    over_mm: float


class ByTapeOut(BaseModel):
    """The same pattern with gaps as wide as a tape there is, on one face, by how much its stripes give."""

    face: str
    layout: Layout
    tape_mm: float
    changed: float


class SurfaceOut(BaseModel):
    """A surface that a layout may be laid on."""

    slug: str
    name: str


class LayoutOut(BaseModel):
    """A layout on each face it lies on. `says` is why it cannot be laid; "" where it can."""

    sequence: int
    faces: list[FaceLaid]
    papers: list[PaperOut]
    """Of each face, in their order."""
    share: float
    """Of the zone, that it paints."""
    metres: float
    """Of tape, all faces together."""
    to_tick: TickOut | None
    by_tape: list[ByTapeOut]
    on: list[SurfaceOut]
    """The surfaces of the zone that are drawn: where it may go."""
    left_out: list[str]
    """Names of drawn faces that it does not fit on."""
    says: str = ""
    allowed: str = ""


def _layer(job: Job, zone: str, layer: str) -> tuple[Zone, Layer]:
    held = pick("zone", {z.id: z for z in job.zones}, zone)
    return held, pick("layer", {x.id: x for x in held.layers}, layer)


def laid(job: Job, zone_id: str, layer_id: str, sequence: int) -> LayoutOut:
    """A layer's layout on the faces of its zone: stripes with their places, tape, passes. Raises UnknownEntry."""
    zone, layer = _layer(job, zone_id, layer_id)
    piece = measure(job)
    drawn = [f for f in piece.drawing.faces if f.surface in zone.surfaces] if piece.drawing else []
    on = [SurfaceOut(slug=s, name=piece.surfaces[s].name) for s in dict.fromkeys(f.surface for f in drawn)]
    none = LayoutOut(sequence=sequence, faces=[], papers=[], share=layer.touched, metres=0.0, to_tick=None,
                     by_tape=[], on=on, left_out=[])  # fmt: skip
    if layer.layout is None or piece.drawing is None:
        return none
    try:
        faces = laid_faces(layer.layout, zone, piece.drawing.faces)
    except InvalidValue as error:
        return none.model_copy(update={"says": error.says, "allowed": error.allowed})
    if not faces:
        return none.model_copy(update={"says": NOWHERE, "allowed": "a zone with a drawn face"})
    areas = areas_of(piece)
    return LayoutOut(
        sequence=sequence, on=on, faces=list(faces),
        left_out=left_out(layer.layout, zone, piece.drawing.faces, faces),
        papers=[_papers(f) for f in faces],
        share=share_of(faces, areas, zone), metres=metres_of(faces, areas, job.piece.like if job.piece else 1),
        to_tick=_ticked(layer.layout, faces[0]), by_tape=_by_tape(layer.layout, faces[0]),
    )  # fmt: skip


def _papers(one: FaceLaid) -> PaperOut:
    template = template_of(one.name, one.face, one.laid)
    sticks: list[Way] = [way for way in WAYS if stick_marks(one.taping, way)]
    return PaperOut(a4=_sheets(template, "a4"), letter=_sheets(template, "letter"), sticks=sticks)


def _sheets(template: Template, paper: Paper) -> SheetsOut:
    rows, columns = sheets_of(template, paper)
    return SheetsOut(rows=rows, columns=columns)


WAYS: tuple[Way, ...] = ("across", "down")


def _ticked(layout: Layout, face: FaceLaid) -> TickOut | None:
    found = ticked(layout, face)
    return None if found is None else TickOut(face=face.name, layout=found[0], over_mm=found[1])


def _by_tape(layout: Layout, face: FaceLaid) -> list[ByTapeOut]:
    offers = taped(layout, face)
    return [ByTapeOut(face=face.name, layout=o.layout, tape_mm=o.tape_mm, changed=o.changed) for o in offers]


def tiled_pdf(template: Template, paper: Literal["a4", "letter"], scale_x: float, scale_y: float) -> bytes:
    """A template as PDF."""
    from lumso.formats import pdf  # the layout engine takes a while to load

    return pdf.tiled(template, paper, scale_x, scale_y)


What = Literal["face", "stick across", "stick down"]


def _template(here: Context, job_id: str, zone: str, layer: str, face: int, what: What) -> Template:
    job = at_head(job_id, here)
    held, one_layer = _layer(job, zone, layer)
    piece = measure(job)
    if one_layer.layout is None or piece.drawing is None:
        raise InvalidValue("That layer has no layout.", value=layer, allowed="a layer with a layout", field="layer")
    faces = laid_faces(one_layer.layout, held, piece.drawing.faces)
    if not 0 <= face < len(faces):
        raise InvalidValue(f"There is no face {face}.", value=face, allowed=f"0 to {len(faces) - 1}", field="face")
    one = faces[face]
    title = f"{job.name}: {one.name}"
    if what != "face":
        way: Way = "down" if what == "stick down" else "across"
        return story_stick(
            f"{title}, story stick {way}", one.taping, way, one.face.extent("y" if way == "down" else "x")
        )
    return template_of(title, one.face, one.laid)


async def file_of(job_id: str, zone: str, layer: str, face: int, what: What, kind: Literal["pdf", "svg", "dxf"],
                  paper: Paper, measured: tuple[float | None, float | None], here: Context,
                  beside: Beside) -> tuple[bytes | str, str]:  # fmt: skip
    """A layout at its true size, and what it is called: tiled over sheets, or as a drawing.

    `measured` is what the check rules of a first print measured across and down, mm. Raises NotFound, InvalidValue.
    """
    template = _template(here, job_id, zone, layer, face, what)
    if kind == "pdf":
        scale_x = corrected(measured[0], 100.0, "across_mm")
        scale_y = corrected(measured[1], 101.6, "down_mm")
        return await beside(tiled_pdf, template, paper, scale_x, scale_y), template.title
    return (to_svg(template) if kind == "svg" else to_dxf(template)), template.title
