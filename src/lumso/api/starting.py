"""New jobs: on a piece from a few answers, a quick pot, a sample, or one that is there once more."""

from dataclasses import replace
from pathlib import Path
from typing import Annotated, Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.edits.beginning import Beginning, begun, sizes_said
from lumso.core.job.job import Answered
from lumso.core.job.start import start_pot
from lumso.core.measure.lengths import bare_unit
from lumso.formats import jobfile
from lumso.formats.names import refuse_hidden
from lumso.services import jobs as service
from lumso.store.ids import new_id

from .context import Here, Key
from .jobs import JobOut, out

router = APIRouter(prefix="/jobs", tags=["jobs"])

SAMPLE = Path(__file__).parents[1] / "demo" / "jobs" / "programme-rack.json"
MOST_NAME = 100
QUICK = "paint-wash-raw-wood"
"""The mix of a quick pot that nobody chose one for."""


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
    lead: Literal["not tested", "test planned", "none found", "found", "never coated"] = "not tested"
    finish: Annotated[str, Field(max_length=80)] = ""
    name: Annotated[str, Field(max_length=120)] = ""
    """"" for the name it has of itself."""


@router.post("/start", status_code=201)
def begin_job(start: StartIn, here: Here, response: Response, key: Key) -> JobOut:
    """A new job on a piece, or a quick pot."""
    refuse_hidden({"name": start.name})
    book = here.known()
    if start.ml is not None:
        job = start_pot(new_id(), new_id(), start.recipe or QUICK, start.ml, book)
    else:
        bare = bare_unit(here.workshop().measures)
        sizes = sizes_said(start.form, start.sizes, bare, book)
        told = Beginning(new_id(), start.form, sizes, start.ground, Answered(start.lead), start.finish, start.recipe)
        job = begun(told, book, here.room(), bare).job
    return out(service.create(replace(job, name=start.name or job.name), here, key), response)


@router.post("/sample", status_code=201)
def take_sample(here: Here, response: Response, key: Key) -> JobOut:
    """A made-up job to look at, and to throw away: an ordinary one from then on."""
    sample = jobfile.from_json(SAMPLE.read_text(encoding="utf-8"), "The sample")
    return out(service.create(replace(sample, name="A sample: rack"), here, key), response)


@router.post("/{job_id}/copy", status_code=201)
def copy_job(job_id: str, here: Here, response: Response, key: Key) -> JobOut:
    """The job once more, as a new one of its own: what was mixed and noted stays with the first."""
    job = service.at_head(job_id, here)
    return out(service.create(replace(job, name=f"{job.name[:MOST_NAME]}, again"), here, key), response)
