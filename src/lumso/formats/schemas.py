"""The JSON Schemas of what Lumso reads and writes, exported from the types themselves."""

from typing import Any, Literal

from pydantic import TypeAdapter

from lumso.catalogue.file import CatalogueFile
from lumso.core.days.chosen import Chosen
from lumso.core.days.days import Days
from lumso.core.job.job import Job
from lumso.core.log.event import Event
from lumso.core.plan.plan import Plan
from lumso.core.work.batch_file import BatchFile
from lumso.core.work.order_file import OrderFile
from lumso.formats.validators import adapter
from lumso.formats.workshop import WorkshopFile

DOCUMENTS: dict[str, TypeAdapter[Any]] = {
    "job": adapter(Job),
    "plan": adapter(Plan),
    "catalogue": adapter(CatalogueFile),
    "workshop-file": adapter(WorkshopFile),
    "batch": adapter(BatchFile),
    "work": adapter(OrderFile),
    "days": adapter(Days),
    "days-chosen": adapter(Chosen),
    "event": adapter(Event),
}


def schema(name: str) -> dict[str, Any]:
    """The JSON Schema (2020-12) of the document called `name`."""
    mode: Literal["serialization", "validation"] = "serialization" if name in {"plan", "work", "days"} else "validation"
    body = DOCUMENTS[name].json_schema(mode=mode)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **body}
