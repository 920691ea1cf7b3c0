"""Questions without a job: what can be done with what is left, and what the advisers say from a few answers."""

from contextlib import suppress
from dataclasses import dataclass, replace
from itertools import count

from lumso.core.advice import Advice, advise, trial
from lumso.core.edits.beginning import Beginning, begun
from lumso.core.errors import LumsoError
from lumso.core.job.job import Job, Use
from lumso.core.plan.left import LeftOver, left_over
from lumso.core.plan.plan import Plan
from lumso.store import jobs

from .context import Context
from .jobs import at_head

MOST_JOBS = 60
"""So many open jobs, the last worked on first, are asked what they could use."""


def _open_jobs(here: Context) -> list[tuple[str, Job, Plan]]:
    """Open jobs with their plans; those that cannot be worked out are left out."""
    found = []
    for listed in jobs.page(here.db, MOST_JOBS, None, "", False).jobs:
        with suppress(LumsoError):
            job = at_head(listed.id, here)
            found.append((listed.id, job, here.plan(job)))
    return found


def what_is_left(recipe: str, ml: float, here: Context) -> LeftOver:
    """How far an amount of a mix goes, what it covers of open jobs, and what it can be thinned to. Raises
    UnknownEntry."""
    return left_over(recipe, ml, _open_jobs(here), here.workshop(), here.catalogue, here.room())


@dataclass(frozen=True)
class Thought:
    """A piece that is thought of (by its form): what is on it now, what goes on, and what it must stand."""

    form: str
    ground: str
    finish: str
    recipe: str
    use: Use


def advice_without_job(asked: Thought, here: Context) -> Advice:
    """What the advisers say of a piece of that kind; its first zone is asked about. Raises UnknownEntry."""
    book, room = here.known(), here.room()
    told = Beginning("asked", asked.form, (), asked.ground, finish=asked.finish, recipe=asked.recipe)
    job = replace(begun(told, book, room).job, use=asked.use)
    return advise(job.zones[0], trial(job, 0, book, room), (f"tried-{n}" for n in count()))
