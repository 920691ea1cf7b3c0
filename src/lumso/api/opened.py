"""A job at its head as it is answered, with its plan."""

from fastapi import Response

from lumso.services.jobs import Opened

from .bodies import HeadOut, JobBody, PlanBody, head_of


class JobOut(HeadOut):
    """A job at its head, with its plan."""

    job: JobBody
    plan: PlanBody
    plan_id: str
    """What this plan is called: with it, `changes` answers with what differs."""


def out(opened: Opened, response: Response) -> JobOut:
    """A job as it is answered."""
    stored = opened.stored
    response.headers["ETag"] = f'"{stored.revision}"'
    return JobOut(
        **head_of(stored),
        job=JobBody(opened.job),
        plan=PlanBody(opened.plan),
        plan_id=opened.plan_id,
    )
