"""What every router needs: the database, the catalogue and the workshop as it is now."""

from typing import Annotated

from fastapi import Depends, Request
from pydantic import TypeAdapter

from lumso.core.job import Job
from lumso.core.plan import Plan, plan
from lumso.core.workshop import Catalogue, Conditions, Workshop
from lumso.formats.reading import read_json
from lumso.store import settings
from lumso.store.database import Database

WORKSHOP = TypeAdapter(Workshop)


class Context:
    """One running Lumso."""

    def __init__(self, db: Database, catalogue: Catalogue) -> None:
        self.db, self.catalogue = db, catalogue

    def workshop(self) -> Workshop:
        """The user's workshop as it is saved, or the one everybody starts with."""
        document = settings.get(self.db, "workshop")
        return read_json(WORKSHOP, document, "The saved workshop") if document else Workshop()

    def plan(self, job: Job) -> Plan:
        """The plan of a job in this workshop."""
        return plan(job, self.workshop(), self.catalogue, Conditions())


def _context(request: Request) -> Context:
    context = request.app.state.context
    assert isinstance(context, Context)
    return context


Here = Annotated[Context, Depends(_context)]
