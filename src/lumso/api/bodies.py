"""Documents as request and response bodies.

The core's types are plain dataclasses, whose validation would be built again for every route; a root model builds
it once. What is sent and received is the document itself.
"""

from pydantic import RootModel

from lumso.core.job import Job
from lumso.core.recipes import Recipe


class JobBody(RootModel[Job]):
    """A job file."""


class RecipeBody(RootModel[Recipe]):
    """A recipe as in a catalogue file."""
