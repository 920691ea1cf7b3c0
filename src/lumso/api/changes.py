"""An edit in one trip: what was done to a job goes up, what came of it comes down."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.advice import Taken
from lumso.core.edits.edit import Edit
from lumso.formats.patch import Patch, Step
from lumso.services import changes
from lumso.services.changes import Answer, Changed, Decide, SetValues, Trip

from .bodies import HeadOut, JobBody, PlanBody, head_of
from .context import Here, Key
from .errors import ProblemOut, problem_of

router = APIRouter(prefix="/jobs", tags=["jobs"])

OneKey = Annotated[str, Field(min_length=1, max_length=100)]


class SetIn(BaseModel):
    """Plain values, set where they were entered."""

    model_config = ConfigDict(extra="forbid")
    do: Literal["set"]
    key: OneKey
    patch: Annotated[Patch, Field(min_length=1)]


class DecideIn(BaseModel):
    """An edit that asks the rules."""

    model_config = ConfigDict(extra="forbid")
    do: Literal["decide"]
    key: OneKey
    edit: Annotated[Edit, Field(discriminator="edit")]


class ChangesIn(BaseModel):
    """What a page did to a job since it read a revision, in order; each change under a key of its own."""

    model_config = ConfigDict(extra="forbid")
    read: Annotated[int, Field(ge=0, le=2**53)]
    changes: Annotated[list[Annotated[SetIn | DecideIn, Field(discriminator="do")]], Field(min_length=1, max_length=60)]
    goes_on: bool = False
    """Somebody is typing: it is one step of undo with the revision that was read."""


class AnswerOut(BaseModel):
    """What one change made of the job as the one before it left it; or why it was refused."""

    key: str
    patch: list[Step]
    taken: tuple[Taken, ...]
    refused: ProblemOut | None


class ChangesOut(HeadOut):
    """What came of it: the job is what was read with `came` made to it, then every answer's patch, then `after`. The
    plan is the one the page holds with `plan` made to it; or `whole`, where that is not known here any more."""

    job: JobBody | None
    """The whole job, where what was read is no more."""
    came: list[Step]
    answers: list[AnswerOut]
    after: list[Step]
    plan_id: str
    plan: list[Step] | None
    whole: PlanBody | None
    trouble: str
    """Why there is no plan: a mistake of Lumso's own. What was entered is kept."""


LookedAt = Annotated[
    str | None,
    Query(max_length=80, description="The zone whose working comes too; empty for the first, not said for all."),
]
Holds = Annotated[str, Query(max_length=80, description="The name of the plan that the page has; empty for none.")]


def _trip(sent: ChangesIn, looked_at: str | None, holds: str) -> Trip:
    made = tuple(
        SetValues(c.key, tuple(c.patch)) if isinstance(c, SetIn) else Decide(c.key, c.edit) for c in sent.changes
    )
    return Trip(sent.read, made, sent.goes_on, looked_at, holds)


def _answer(answer: Answer) -> AnswerOut:
    refused = None if answer.refused is None else problem_of(answer.refused)
    return AnswerOut(key=answer.key, patch=answer.patch, taken=answer.taken, refused=refused)


def _out(came: Changed) -> ChangesOut:
    return ChangesOut(
        **head_of(came.stored),
        job=None if came.job is None else JobBody(came.job),
        came=came.came,
        answers=[_answer(a) for a in came.answers],
        after=came.after,
        plan_id=came.plan_id,
        plan=came.plan,
        whole=None if came.whole is None else PlanBody(came.whole),
        trouble=came.trouble,
    )


def _told(came: Changed) -> Response:
    """The answer, written straight and not checked once more: somebody is waiting for it."""
    answer = _out(came)
    headers = {"ETag": f'"{answer.revision}"', "Cache-Control": "no-store"}
    return Response(answer.model_dump_json(exclude_unset=True), media_type="application/json", headers=headers)


@router.get("/{job_id}/changes", response_model=ChangesOut)
def changes_since(job_id: str, here: Here, read: Annotated[int, Query(ge=0, le=2**53)], looked_at: LookedAt = None,
                  holds: Holds = "") -> Response:  # fmt: skip
    """What has come since a revision was read, for who only follows a job; and its plan as it is now."""
    return _told(changes.change(job_id, Trip(read, (), looked_at=looked_at, holds=holds), "", here))


@router.post("/{job_id}/changes", response_model=ChangesOut)
def change_job(job_id: str, sent: ChangesIn, here: Here, key: Key, looked_at: LookedAt = None,
               holds: Holds = "") -> Response:  # fmt: skip
    """Make what was done to a job, keep it, and say what came of it: 412 where the same was changed elsewhere."""
    return _told(changes.change(job_id, _trip(sent, looked_at, holds), key, here))
