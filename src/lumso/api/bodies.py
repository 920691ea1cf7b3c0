"""Documents as request and response bodies.

The core's types are plain dataclasses, whose validation would be built again for every route; a root model builds
it once. What is sent and received is the document itself.
"""

from pydantic import RootModel

from lumso.core.book.catalogue import Entries
from lumso.core.book.recipes import Recipe
from lumso.core.job.job import Job
from lumso.core.plan.plan import Plan
from lumso.core.work.steps import Procedure


class JobBody(RootModel[Job]):
    """A job file."""


class RecipeBody(RootModel[Recipe]):
    """A recipe as in a catalogue file."""


class EntriesBody(RootModel[Entries]):
    """The entries a job carries."""


class PlanBody(RootModel[Plan]):
    """What a job comes to."""


class ProcedureBody(RootModel[Procedure]):
    """A job as steps."""
