"""Planning without saving: what an edit comes to, and how a length reads."""

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict

from lumso.core.job import Job, Layer
from lumso.core.lengths import Length, parse_length
from lumso.core.plan import Plan
from lumso.core.starting import start_layer
from lumso.formats.jobfile import lengths_disagree
from lumso.formats.reading import UnfitDocument

from .context import Here

router = APIRouter(tags=["planning"])


class PlanIn(BaseModel):
    """An edited job. `sequence` comes back with the answer, so that a late one can be told and dropped."""

    model_config = ConfigDict(extra="forbid")
    sequence: int
    job: Job


class PlanOut(BaseModel):
    sequence: int
    plan: Plan


class LayerIn(BaseModel):
    """A layer to start: `id` is the caller's, never used before in the job."""

    model_config = ConfigDict(extra="forbid")
    id: str
    recipe: str
    ground: str


class LengthIn(BaseModel):
    model_config = ConfigDict(extra="forbid")
    typed: str


@router.post("/plan", response_model=PlanOut)
def plan_job(edit: PlanIn, here: Here) -> Response:
    """What the job comes to. Keeps nothing.

    The answer is written straight from the plan, not checked against its own model once more: it is large, and
    somebody is waiting for it.
    """
    if faults := lengths_disagree(edit.job):
        raise UnfitDocument("The job", faults)
    answer = PlanOut(sequence=edit.sequence, plan=here.plan(edit.job))
    return Response(answer.model_dump_json(), media_type="application/json")


@router.post("/layers")
def start(layer: LayerIn, here: Here) -> Layer:
    """A layer of a recipe on a ground, with the technique and tool that are usual for them. Keeps nothing."""
    return start_layer(layer.id, layer.recipe, layer.ground, here.known())


@router.post("/lengths")
def read_length(length: LengthIn) -> Length:
    """A typed length in mm, or why it cannot be read."""
    return parse_length(length.typed)
