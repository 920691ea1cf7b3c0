"""Layouts: where on a surface a layer goes, how it is taped, and that at its true size."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.layout.begin import BEGINS
from lumso.core.layout.pattern import Kind, Layout
from lumso.services import layouts
from lumso.services.layouts import LayoutOut, What

from .bodies import JobBody
from .context import Here
from .replies import file_reply, pdf_reply
from .workers import BesideIt

router = APIRouter(tags=["layouts"])


class LayoutIn(BaseModel):
    """The job on the screen, and which layer of it is laid out."""

    model_config = ConfigDict(extra="forbid")
    sequence: int = 0
    job: JobBody
    zone: Annotated[str, Field(max_length=80)]
    layer: Annotated[str, Field(max_length=80)]


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
    return layouts.laid(asked.job.root, asked.zone, asked.layer, asked.sequence)


FILES: dict[int | str, dict[str, object]] = {
    200: {"content": {"application/pdf": {}, "image/svg+xml": {}, "image/vnd.dxf": {}}}
}


@router.get("/jobs/{job_id}/layout.{kind}", response_class=Response, responses=FILES)
async def get_template(job_id: str, kind: Literal["pdf", "svg", "dxf"], here: Here, beside: BesideIt,
                       zone: Annotated[str, Query(max_length=80)], layer: Annotated[str, Query(max_length=80)],
                       face: Annotated[int, Query(ge=0, le=200)] = 0, what: What = "face",
                       paper: Literal["a4", "letter"] = "a4", across_mm: float | None = None,
                       down_mm: float | None = None) -> Response:  # fmt: skip
    """A layout at its true size: tiled over sheets, or as a drawing. `across_mm` and `down_mm` are what the check rules
    of a first print measured."""
    content, title = await layouts.file_of(job_id, zone, layer, face, what, kind, paper, (across_mm, down_mm), here,
                                           beside)  # fmt: skip
    if isinstance(content, bytes):
        return pdf_reply(content, title)
    return file_reply(content, "image/svg+xml" if kind == "svg" else "image/vnd.dxf", f"lumso-layout.{kind}")
