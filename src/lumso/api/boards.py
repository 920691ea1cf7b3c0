"""Test boards: planned from a zone, printed to scale, and what they teach. Keeps nothing: a board is kept as a job."""

from itertools import chain, count
from typing import Annotated, Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.advice import trial
from lumso.core.boards.board import plan_board
from lumso.core.boards.offers import Offered, ladders_for, reasons
from lumso.core.boards.stepping import Stepped, one_pot
from lumso.core.boards.taught import Taught, taught
from lumso.core.errors import InvalidValue
from lumso.core.job.board import Ladder
from lumso.core.job.entries import embed
from lumso.core.look.look import Look
from lumso.core.value import Slug

from .bodies import JobBody
from .context import Here
from .finish import ZoneIn, layer_at, zone_of
from .sheets import pdf_reply

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
    job = asked.job.root
    kit = here.known().kits[here.workshop().kit]
    ids = chain((asked.seed,), (f"{asked.seed}-{n}" for n in count(2)))
    made = plan_board(job, asked.job_id, asked.zone, asked.ladders, kit, here.known_for(job), ids)
    return BoardOut(job=JobBody(embed(made, here.book())))


class OffersOut(BaseModel):
    """Why a board is worth making, and the ladders that are worth painting for one layer."""

    reasons: tuple[str, ...]
    ladders: tuple[Offered, ...]


class OffersIn(ZoneIn):
    """A layer of a zone."""

    layer: str


@router.post("/offers")
def offers(asked: OffersIn, here: Here) -> OffersOut:
    """What can be tried on a board for a layer, and why one is worth painting."""
    zone, bench = zone_of(asked, here)
    look = Look(bench.stack(zone))
    return OffersOut(reasons=reasons(look), ladders=ladders_for(look, layer_at(zone, asked.layer, "layer")))


@router.post("/taught")
def learn(asked: BoardJobIn, here: Here) -> Taught | None:
    """What the colours seen on a board's dry strips say of how strongly its layer hides; null where none was seen."""
    job = asked.job.root
    known, room = here.known_for(job), here.room()
    return taught(job, lambda i: Look(trial(job, i, known, room).stack(job.zones[i])))


@router.post("/stepped")
def stepped(asked: BoardJobIn, here: Here) -> Stepped | None:
    """One pot stepped down through the strips of a board's ladder of water; null where that saves nothing."""
    job = asked.job.root
    known, room = here.known_for(job), here.room()
    return one_pot(job, lambda i: trial(job, i, known, room).stack(job.zones[i]), known.kits[here.workshop().kit])


@router.post("/sheet", response_class=Response, responses={200: {"content": {"application/pdf": {}}}})
def sheet(asked: BoardJobIn, here: Here, paper: Literal["a4", "letter"] = "a4") -> Response:
    """The layout of a board at 1:1, with the codes of its strips, as a PDF."""
    from lumso.formats import pdf

    job = asked.job.root
    if job.board is None:
        raise InvalidValue("This job is no test board.", value=job.name, allowed="the job of a board", field="job")
    return pdf_reply(pdf.board_sheet(job, paper), f"{job.name} layout")
