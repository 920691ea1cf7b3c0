"""Documents as request and response bodies.

The core's types are plain dataclasses, whose validation would be built again for every route; a root model builds
it once. What is sent and received is the document itself.
"""

from typing import Any

from pydantic import BaseModel, RootModel, model_validator

from lumso.core.book.catalogue import Entries
from lumso.core.book.recipes import Recipe
from lumso.core.job.job import Job
from lumso.core.plan.plan import Plan
from lumso.core.work.steps import Procedure
from lumso.core.workshop.shelf import ShelfItem
from lumso.formats import jobfile
from lumso.formats.names import refuse_hidden
from lumso.formats.reading import widened
from lumso.store.jobs import StoredJob


class JobBody(RootModel[Job]):
    """A job file. One of an earlier version, as a browser may have kept it, is read as this version has it."""

    @model_validator(mode="before")
    @classmethod
    def _current(cls, sent: object) -> object:
        refuse_hidden(sent)
        return sent if isinstance(sent, Job) else jobfile.current(sent)


class RecipeBody(RootModel[Recipe]):
    """A recipe as in a catalogue file."""

    @model_validator(mode="before")
    @classmethod
    def _seen(cls, sent: object) -> object:
        refuse_hidden(sent)
        return sent


class ShelfBody(RootModel[ShelfItem]):
    """A material on the shelf. A colour typed short, #f0a, is written out."""

    @model_validator(mode="before")
    @classmethod
    def _widened(cls, sent: object) -> object:
        refuse_hidden(sent)
        return sent if isinstance(sent, ShelfItem) else widened(sent)


class EntriesBody(RootModel[Entries]):
    """The entries a job carries."""


class PlanBody(RootModel[Plan]):
    """What a job comes to."""


class ProcedureBody(RootModel[Procedure]):
    """A job as steps."""


class HeadOut(BaseModel):
    """A job at its head: the revision, and whether undo and redo lead anywhere."""

    id: str
    revision: int
    saved_at: str
    can_undo: bool
    can_redo: bool
    gap: int
    """How many versions were let go, by their age, between this one and the one undo goes back to."""


def head_of(stored: StoredJob) -> dict[str, Any]:
    """What a stored job says of its head."""
    return {name: getattr(stored, name) for name in HeadOut.model_fields}
