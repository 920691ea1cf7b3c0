"""Planning without saving: what an edit comes to, and how a length reads."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.advice import Taken
from lumso.core.book.kit import KitMeasure, measures_said
from lumso.core.edits.edit import Edit
from lumso.core.measure.amounts import read_amount
from lumso.core.measure.lengths import Length, bare_unit, read_length
from lumso.core.measure.spreading import Coverage, read_coverage
from lumso.services import changes

from .bodies import JobBody, PlanBody
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


class LengthIn(BaseModel):
    """A length as it was typed; with the least and the most it can be, an unusual one is asked about."""

    model_config = ConfigDict(extra="forbid")
    typed: str
    least_mm: Annotated[float, Field(ge=0, allow_inf_nan=False)] = 0.0
    most_mm: Annotated[float, Field(gt=0, allow_inf_nan=False)] | None = None


class EditIn(BaseModel):
    """A job, and an edit of it that asks the rules."""

    model_config = ConfigDict(extra="forbid")
    job: JobBody
    edit: Annotated[Edit, Field(discriminator="edit")]


class EditOut(BaseModel):
    """The job after the edit, and what was done of itself and why."""

    job: JobBody
    taken: tuple[Taken, ...]


@router.post("/edits")
def edit_job(asked: EditIn, here: Here) -> EditOut:
    """What an edit makes of a job. Keeps nothing; the same edit of the same job comes to the same."""
    made = changes.tried(asked.job.root, asked.edit, here)
    return EditOut(job=JobBody(made.job), taken=made.taken)


@router.post("/plan", response_model=PlanOut)
def plan_job(edit: PlanIn, here: Here) -> Response:
    """What the job comes to. Keeps nothing.

    The answer is written straight from the plan, not checked against its own model once more: it is large, and
    somebody is waiting for it.
    """
    answer = PlanOut(sequence=edit.sequence, plan=PlanBody(changes.plan_unsaved(edit.job.root, edit.looked_at, here)))
    return Response(answer.model_dump_json(), media_type="application/json")


@router.post("/lengths")
def read_a_length(length: LengthIn, here: Here) -> Length:
    """A typed length in mm, its unit in its words; or why it cannot be read."""
    within = None if length.most_mm is None else (length.least_mm, length.most_mm)
    return read_length(length.typed, bare_unit(here.workshop().measures), within)


class SaidIn(BaseModel):
    """The measures of a drawer, as they are said."""

    model_config = ConfigDict(extra="forbid")
    typed: Annotated[str, Field(max_length=500)]


@router.post("/measures")
def read_measures(said: SaidIn, here: Here) -> list[KitMeasure]:
    """What measures are meant, each with what it holds; or which of them cannot be read."""
    system = here.known().system(here.workshop().measures)
    return list(measures_said(said.typed, system))


class AmountIn(BaseModel):
    """An amount as it is said."""

    model_config = ConfigDict(extra="forbid")
    typed: Annotated[str, Field(max_length=60)]


class AmountOut(BaseModel):
    """An amount, ml."""

    ml: float


@router.post("/amounts")
def read_an_amount(amount: AmountIn, here: Here) -> AmountOut:
    """A typed amount in ml, in the workshop's own measures; or why it cannot be read."""
    return AmountOut(ml=read_amount(amount.typed, here.known().system(here.workshop().measures)))


class CoverageIn(BaseModel):
    """A coverage as a label prints it."""

    model_config = ConfigDict(extra="forbid")
    typed: Annotated[str, Field(max_length=60)]


@router.post("/coverage")
def read_a_coverage(coverage: CoverageIn, here: Here) -> Coverage:
    """A coverage with its unit, and the same said the other ways; or why it cannot be read."""
    return read_coverage(coverage.typed, here.workshop().measures)
