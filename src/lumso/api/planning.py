"""Planning without saving: what an edit comes to, and how a length reads."""

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict

from lumso.core.job.start import start_layer
from lumso.core.measure.lengths import Length, parse_length
from lumso.core.plan.slim import without_workings
from lumso.formats.jobfile import lengths_disagree
from lumso.formats.reading import UnfitDocument

from .bodies import JobBody, LayerBody, PlanBody
from .context import Here

router = APIRouter(tags=["planning"])


class PlanIn(BaseModel):
    """An edited job. `sequence` comes back with the answer, so that a late one can be told and dropped."""

    model_config = ConfigDict(extra="forbid")
    sequence: int
    job: JobBody
    looked_at: str | None = None
    """The zone on the screen: the working behind the amounts of the others is left out. None wants all of it."""


class PlanOut(BaseModel):
    sequence: int
    plan: PlanBody


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
    if faults := lengths_disagree(edit.job.root):
        raise UnfitDocument("The job", faults)
    made = here.plan(edit.job.root)
    if edit.looked_at is not None:
        made = without_workings(made, edit.looked_at)
    answer = PlanOut(sequence=edit.sequence, plan=PlanBody(made))
    return Response(answer.model_dump_json(), media_type="application/json")


@router.post("/layers")
def start(layer: LayerIn, here: Here) -> LayerBody:
    """A layer of a recipe on a ground, with the technique and tool that are usual for them. Keeps nothing."""
    return LayerBody(start_layer(layer.id, layer.recipe, layer.ground, here.known()))


@router.post("/lengths")
def read_length(length: LengthIn) -> Length:
    """A typed length in mm, or why it cannot be read."""
    return parse_length(length.typed)
