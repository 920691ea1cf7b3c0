"""The job file: one job as JSON, with the catalogue entries it uses."""

import json
from typing import Any

from lumso.core.errors import LumsoError
from lumso.core.job.job import Job
from lumso.core.measure.lengths import parse_length
from lumso.formats.validators import adapter

from .reading import Fault, UnfitDocument, parse_json, read
from .versions import Upgrades, upgraded

ADAPTER = adapter(Job)
FORMAT = "lumso-job"


def _to_2(job: dict[str, Any]) -> dict[str, Any]:
    """Version 2 adds counts, roughness, bands, relief and use; what was there stays as it was."""
    return {**job, "version": 2}


def _to_3(job: dict[str, Any]) -> dict[str, Any]:
    """Version 3 adds stacks: waits, sanding, preparation and accepted findings; what was there stays as it was."""
    return {**job, "version": 3}


def _to_4(job: dict[str, Any]) -> dict[str, Any]:
    """Version 4 carries entries pure, and of every kind. Those of before may hold a workshop's values: the job keeps
    them as it had them until the book's are taken."""
    return {**job, "version": 4}


UPGRADES: Upgrades = {1: _to_2, 2: _to_3, 3: _to_4}
"""From version n to n + 1: one chain for files and for the database."""


def lengths_disagree(job: Job) -> list[Fault]:
    """Sizes whose typed words do not say the millimetres beside them."""
    faults = []
    for slug, length in job.piece.sizes.items() if job.piece else ():
        at = f"/piece/sizes/{slug}"
        try:
            said = parse_length(length.typed).mm
        except LumsoError as error:
            faults.append(Fault(f"{at}/typed", str(error), repr(length.typed), getattr(error, "allowed", "a length")))
            continue
        if abs(said - length.mm) > 1e-6 * max(said, 1):
            says = f"{length.typed!r} is {said:g} mm, but mm says {length.mm:g}."
            faults.append(Fault(at, says, repr(length.typed), "typed and mm that agree"))
    return faults


def from_document(document: object, source: str = "The job") -> Job:
    """A job from parsed JSON of this or an earlier version. Raises UnfitDocument."""
    job = read(ADAPTER, upgraded(document, source, FORMAT, "job", UPGRADES), source)
    if faults := lengths_disagree(job):
        raise UnfitDocument(source, faults)
    return job


def from_json(text: str | bytes, source: str = "The job") -> Job:
    """A job from JSON text. Raises UnfitDocument."""
    return from_document(parse_json(text, source), source)


def to_json(job: Job, indent: int | None = None) -> str:
    """The job as JSON text."""
    return json.dumps(ADAPTER.dump_python(job, mode="json"), ensure_ascii=False, indent=indent)
