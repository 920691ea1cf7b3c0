"""Questions without a job: what can be done with what is left, and what the advisers say from a few answers."""

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.advice import Advice
from lumso.core.job.job import Place, Touch, Use
from lumso.core.plan.left import LeftOver
from lumso.services import asking
from lumso.services.asking import Thought

from .context import Here

router = APIRouter(prefix="/ask", tags=["asking"])


class LeftIn(BaseModel):
    """An amount of a mix that is left."""

    model_config = ConfigDict(extra="forbid")
    recipe: Annotated[str, Field(max_length=80)]
    ml: Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)]


class AskIn(BaseModel):
    """What is on it now, what goes on, and what it must stand."""

    model_config = ConfigDict(extra="forbid")
    ground: Annotated[str, Field(max_length=80)] = ""
    finish: Annotated[str, Field(max_length=80)] = ""
    recipe: Annotated[str, Field(max_length=80)] = ""
    touched_by: Annotated[list[Touch], Field(max_length=8)] = []
    place: Annotated[list[Place], Field(max_length=9)] = []
    form: Annotated[str, Field(max_length=80)] = "side-table"
    """The piece that is thought of; its first zone is asked about."""


@router.post("/left")
def what_is_left(asked: LeftIn, here: Here) -> LeftOver:
    """How far it goes, what it covers of open jobs, and what it can be thinned to. Keeps nothing."""
    return asking.what_is_left(asked.recipe, asked.ml, here)


@router.post("/advice")
def ask_without_a_job(asked: AskIn, here: Here) -> Advice:
    """What the advisers say of a piece of that kind. Keeps nothing."""
    use = Use(touched_by=tuple(asked.touched_by), place=tuple(asked.place))
    return asking.advice_without_job(Thought(asked.form, asked.ground, asked.finish, asked.recipe, use), here)
