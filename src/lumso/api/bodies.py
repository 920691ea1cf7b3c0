"""Documents as request and response bodies.

The core's types are plain dataclasses, whose validation would be built again for every route; a root model builds
it once. What is sent and received is the document itself.
"""

from pydantic import RootModel

from lumso.core.book.recipes import Recipe
from lumso.core.job.job import Job, Layer, Zone
from lumso.core.plan.plan import Plan
from lumso.core.work.steps import Procedure


class JobBody(RootModel[Job]):
    """A job file."""


class RecipeBody(RootModel[Recipe]):
    """A recipe as in a catalogue file."""


class ZoneBody(RootModel[Zone]):
    """A zone of a job."""


class LayerBody(RootModel[Layer]):
    """A layer of a zone."""


class PlanBody(RootModel[Plan]):
    """What a job comes to."""


class ProcedureBody(RootModel[Procedure]):
    """A job as steps."""
