"""Layouts: where on a surface a layer goes, how it is taped, and that at its true size."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.book.catalogue import pick
from lumso.core.errors import InvalidValue
from lumso.core.job.areas import measure
from lumso.core.job.job import Job, Layer, Zone
from lumso.core.job.laying import NOWHERE, FaceLaid, areas_of, laid_faces, left_out, metres_of, share_of
from lumso.core.job.offers import taped, ticked
from lumso.core.layout.begin import BEGINS
from lumso.core.layout.pattern import Kind, Layout
from lumso.core.layout.template import Paper, Template, Way, corrected, sheets_of, stick_marks, story_stick, template_of
from lumso.formats import jobfile
from lumso.formats.template import to_dxf, to_svg
from lumso.services.context import Context
from lumso.store import jobs

from .bodies import JobBody
from .context import Here
from .sheets import pdf_reply
from .workers import run

router = APIRouter(tags=["layouts"])


class LayoutIn(BaseModel):
    """The job on the screen, and which layer of it is laid out."""

    model_config = ConfigDict(extra="forbid")
    sequence: int = 0
    job: JobBody
    zone: Annotated[str, Field(max_length=80)]
    layer: Annotated[str, Field(max_length=80)]


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


class BeginOut(BaseModel):
    """A kind of layout as it is offered, and what it begins as."""

    kind: Kind
    says: str
    layout: Layout


@router.get("/layouts")
def kinds() -> list[BeginOut]:
    """The kinds of layout there are, and what each begins as."""
    return [BeginOut(kind=b.layout.kind, says=b.says, layout=b.layout) for b in BEGINS]


@router.post("/layouts")
def lay(asked: LayoutIn) -> LayoutOut:
    """A layer's layout on the faces of its zone: stripes with their places, tape, passes. Keeps nothing."""
    job = asked.job.root
    zone, layer = _layer(job, asked.zone, asked.layer)
    piece = measure(job)
    drawn = [f for f in piece.drawing.faces if f.surface in zone.surfaces] if piece.drawing else []
    on = [SurfaceOut(slug=s, name=piece.surfaces[s].name) for s in dict.fromkeys(f.surface for f in drawn)]
    none = LayoutOut(sequence=asked.sequence, faces=[], papers=[], share=layer.touched, metres=0.0, to_tick=None,
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
        sequence=asked.sequence, on=on, faces=list(faces),
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
    job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
    held, laid = _layer(job, zone, layer)
    piece = measure(job)
    if laid.layout is None or piece.drawing is None:
        raise InvalidValue("That layer has no layout.", value=layer, allowed="a layer with a layout", field="layer")
    faces = laid_faces(laid.layout, held, piece.drawing.faces)
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


FILES: dict[int | str, dict[str, object]] = {
    200: {"content": {"application/pdf": {}, "image/svg+xml": {}, "image/vnd.dxf": {}}}
}


@router.get("/jobs/{job_id}/layout.{kind}", response_class=Response, responses=FILES)
async def get_template(job_id: str, kind: Literal["pdf", "svg", "dxf"], here: Here, request: Request,
                       zone: Annotated[str, Query(max_length=80)], layer: Annotated[str, Query(max_length=80)],
                       face: Annotated[int, Query(ge=0, le=200)] = 0, what: What = "face",
                       paper: Literal["a4", "letter"] = "a4", across_mm: float | None = None,
                       down_mm: float | None = None) -> Response:  # fmt: skip
    """A layout at its true size: tiled over sheets, or as a drawing. `across_mm` and `down_mm` are what the check rules
    of a first print measured."""
    template = _template(here, job_id, zone, layer, face, what)
    if kind == "pdf":
        scale_x = corrected(across_mm, 100.0, "across_mm")
        scale_y = corrected(down_mm, 101.6, "down_mm")
        return pdf_reply(await run(request, tiled_pdf, template, paper, scale_x, scale_y), template.title)
    text, media = (to_svg(template), "image/svg+xml") if kind == "svg" else (to_dxf(template), "image/vnd.dxf")
    headers = {"Content-Disposition": f'attachment; filename="lumso-layout.{kind}"'}
    return Response(text, media_type=media, headers=headers)
