"""Test boards: planned from a zone, printed to scale, and what they teach. Keeps nothing: a board is kept as a job."""

from typing import Annotated, Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.boards.offers import Offered
from lumso.core.boards.stepping import Stepped
from lumso.core.boards.taught import Taught
from lumso.core.job.board import Ladder
from lumso.core.value import Slug
from lumso.services import zones

from .bodies import JobBody
from .context import Here
from .replies import PDF, pdf_reply
from .zones import OffersIn, ZoneIn

router = APIRouter(prefix="/boards", tags=["boards"])


class BoardIn(ZoneIn):
    """A job, the zone a board is for, and what is varied on it: one thing, or two as a grid.

    `seed` is a name no id was ever made of; `job_id` is where the job is kept.
    """

    job_id: Annotated[str, Field(max_length=80)] = ""
    seed: Slug
    ladders: Annotated[tuple[Ladder, ...], Field(min_length=1, max_length=2)]


class BoardOut(BaseModel):
    """The board as a job of its own, to be kept as one."""

    job: JobBody


class BoardJobIn(BaseModel):
    """The job of a board."""

    model_config = ConfigDict(extra="forbid")
    job: JobBody


@router.post("/plan")
def plan(asked: BoardIn, here: Here) -> BoardOut:
    """A test board for a zone: the same ground, prepared, laid, dried and sealed as the piece will be."""
    made = zones.board_for(asked.job.root, asked.job_id, asked.zone, asked.ladders, asked.seed, here)
    return BoardOut(job=JobBody(made))


class OffersOut(BaseModel):
    """Why a board is worth making, and the ladders that are worth painting for one layer."""

    reasons: tuple[str, ...]
    ladders: tuple[Offered, ...]


@router.post("/offers")
def offers(asked: OffersIn, here: Here) -> OffersOut:
    """What can be tried on a board for a layer, and why one is worth painting."""
    reasons, ladders = zones.board_offers(asked.job.root, asked.zone, asked.layer, here)
    return OffersOut(reasons=reasons, ladders=ladders)


@router.post("/taught")
def learn(asked: BoardJobIn, here: Here) -> Taught | None:
    """What the colours seen on a board's dry strips say of how strongly its layer hides; null where none was seen."""
    return zones.board_taught(asked.job.root, here)


@router.post("/stepped")
def stepped(asked: BoardJobIn, here: Here) -> Stepped | None:
    """One pot stepped down through the strips of a board's ladder of water; null where that saves nothing."""
    return zones.board_stepped(asked.job.root, here)


@router.post("/sheet", response_class=Response, responses=PDF)
def sheet(asked: BoardJobIn, paper: Literal["a4", "letter"] = "a4") -> Response:
    """The layout of a board at 1:1, with the codes of its strips, as a PDF."""
    job = asked.job.root
    return pdf_reply(zones.board_sheet(job, paper), f"{job.name} layout")
