"""New jobs: on a piece from a few answers, a quick pot, a sample, or one that is there once more."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.services import beginning
from lumso.services.beginning import Lead, Start

from .context import Here, Key
from .opened import JobOut, out

router = APIRouter(prefix="/jobs", tags=["jobs"])


class StartIn(BaseModel):
    """What a new job starts from: with `ml` it is a quick pot of a recipe, without it a piece.

    Of a piece each answer may be left out: sizes are usual ones then, the ground is not known, nothing goes on it yet.
    """

    model_config = ConfigDict(extra="forbid")
    ml: Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)] | None = None
    recipe: Annotated[str, Field(max_length=80)] = ""
    form: Annotated[str, Field(max_length=80)] = "board"
    sizes: Annotated[str, Field(max_length=200)] = ""
    """As they are said, in the order the piece asks for them: 1200 × 400 × 18."""
    ground: Annotated[str, Field(max_length=80)] = ""
    lead: Lead = "not tested"
    finish: Annotated[str, Field(max_length=80)] = ""
    name: Annotated[str, Field(max_length=120)] = ""
    """"" for the name it has of itself."""


@router.post("/start", status_code=201)
def begin_job(start: StartIn, here: Here, response: Response, key: Key) -> JobOut:
    """A new job on a piece, or a quick pot."""
    return out(beginning.begin(Start(**dict(start)), key, here), response)


@router.post("/sample", status_code=201)
def take_sample(here: Here, response: Response, key: Key) -> JobOut:
    """A made-up job to look at, and to throw away: an ordinary one from then on."""
    return out(beginning.sample(key, here), response)


@router.post("/{job_id}/copy", status_code=201)
def copy_job(job_id: str, here: Here, response: Response, key: Key) -> JobOut:
    """The job once more, as a new one of its own: what was mixed and noted stays with the first."""
    return out(beginning.copy(job_id, key, here), response)
