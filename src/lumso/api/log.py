"""The log: batches as they were poured, what is left of them, how to make one again, and what they teach."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.log.again import Again, Difference
from lumso.services import log
from lumso.services.context import Learning
from lumso.services.log import JarOut, LearnedOut, LogOut, PotLifeOut

from .context import Here, IfMatch, Key, read_revision
from .replies import PDF, pdf_reply, reached
from .workers import BesideIt

router = APIRouter(prefix="/log", tags=["log"])

PotName = Annotated[str, Field(max_length=80)]


@router.get("")
def get_log(here: Here, text: Annotated[str, Query(max_length=200)] = "",
            job: Annotated[str, Query(max_length=80)] = "", from_min: float = 0.0, until_min: float = 1e12,
            limit: Annotated[int, Query(ge=1, le=200)] = 40) -> LogOut:  # fmt: skip
    """Batches whose colour, mix, piece, place, date or notes hold every word of a text."""
    return log.found(text, job, from_min, until_min, limit, here)


@router.get("/jars")
def get_jars(here: Here) -> list[JarOut]:
    """What is left, and what it is good for among the coats that are still to be laid."""
    return log.jars(here)


@router.get("/learned")
def get_learned(here: Here, response: Response) -> LearnedOut:
    """What the log says of what mixes take, and by what."""
    made, revision = log.learned(here)
    response.headers["ETag"] = f'"{revision}"'
    return made


@router.put("/learned")
def put_learned(chosen: Learning, here: Here, response: Response, if_match: IfMatch, key: Key) -> Learning:
    """Choose what of the log counts: what is switched off, and what was confirmed."""
    response.headers["ETag"] = f'"{here.choose_learning(chosen, read_revision(if_match), key)}"'
    return chosen


@router.get("/pots/{pot}")
def get_pot_life(pot: PotName, here: Here) -> PotLifeOut:
    """A batch's whole life, by its id or its code."""
    return log.life_of(pot, here)


@router.get("/pots/{pot}/again")
def get_again(pot: PotName, here: Here, ml: Annotated[float, Query(gt=0, le=200_000)] = 100.0) -> Again:
    """What to pour to make a batch again as it really was."""
    return log.made_again(pot, ml, here)


@router.get("/pots/{pot}/changed")
def get_changed(pot: PotName, since: PotName, here: Here) -> list[Difference]:
    """What is different in a batch since another."""
    return log.changed(pot, since, here)


class AgainIn(BaseModel):
    """How much of a batch to make again."""

    model_config = ConfigDict(extra="forbid")
    ml: Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)]


class MadeOut(BaseModel):
    """The job that was made."""

    job: str


@router.post("/pots/{pot}/again", status_code=201)
def make_again(pot: PotName, asked: AgainIn, here: Here, key: Key) -> MadeOut:
    """A pot of its own to be mixed at the bench: as it was really poured, at another amount."""
    return MadeOut(job=log.make_again(pot, asked.ml, key, here))


@router.get("/jobs/{job_id}/sheet.pdf", response_class=Response, responses=PDF)
async def get_piece_sheet(job_id: str, here: Here, beside: BesideIt, paper: Literal["a4", "letter"] = "a4") -> Response:
    """What was put on a piece, when, how to care for it and how to mend it, to go with it."""
    return pdf_reply(*await log.print_piece(job_id, paper, here, beside))


@router.get("/pots/{pot}/label.pdf", response_class=Response, responses=PDF)
async def get_label(pot: PotName, request: Request, here: Here, beside: BesideIt,
                    paper: Literal["a4", "letter"] = "a4") -> Response:  # fmt: skip
    """The label of a jar, with its code."""
    return pdf_reply(*await log.print_label(pot, reached(request), paper, here, beside))
