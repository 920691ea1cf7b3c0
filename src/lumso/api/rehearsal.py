"""Rehearsal: a job's zone gone through on a board, before the brush is wet. Computes and keeps nothing."""

from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.rehearse.rehearsal import MOST_ACTS
from lumso.core.rehearse.values import Hand
from lumso.services import rehearsing
from lumso.services.rehearsing import RehearsedOut, Rehearsing

from .bodies import JobBody
from .context import Here

router = APIRouter(prefix="/rehearsal", tags=["rehearsal"])

Px = Annotated[int, Query(ge=32, le=640, multiple_of=32, description="How many pixels wide and high.")]
Slot = Annotated[str, Query(max_length=80)]
PNG = {"image/png": {"schema": {"type": "string", "format": "binary"}}}


class RehearseIn(BaseModel):
    """A zone of a job, the afternoon it is rehearsed on (0: all as planned), and what was done so far, in order."""

    model_config = ConfigDict(extra="forbid")
    job: JobBody
    zone: Annotated[str, Field(max_length=80)]
    seed: Annotated[int, Field(ge=0, le=2**31)] = 0
    acts: Annotated[list[Annotated[Hand, Field(discriminator="act")]], Field(max_length=MOST_ACTS)] = []

    def asked(self) -> Rehearsing:
        """What is asked of the service."""
        return Rehearsing(self.job.root, self.zone, self.seed, tuple(self.acts))


@router.post("")
def rehearse(asked: RehearseIn, here: Here) -> RehearsedOut:
    """What is seen after all that was done, what is next, and what went wrong. The same again is the same."""
    return rehearsing.rehearse(asked.asked(), here)


@router.post("/picture", response_class=Response, responses={200: {"content": PNG}})
def picture(asked: RehearseIn, here: Here, px: Px = 320, planned: bool = False) -> Response:
    """The board as it is seen then; or, with `planned`, as it was to come out."""
    headers = {"Cache-Control": "no-store", "Content-Encoding": "identity"}
    return Response(rehearsing.picture(asked.asked(), planned, px, here), media_type="image/png", headers=headers)


@router.get("/flaws/{slug}", response_class=Response, responses={200: {"content": PNG}})
def flaw(slug: str, job: Slot, zone: Slot, layer: Slot, here: Here, px: Px = 160) -> Response:
    """How a flaw looks on a layer of a saved job: in its own colours, at its worst."""
    headers = {"Cache-Control": "no-store", "Content-Encoding": "identity"}
    return Response(rehearsing.flaw_picture(job, zone, layer, slug, px, here), media_type="image/png", headers=headers)
