"""The order of work as a document: what the command line prints and other programs read."""

from dataclasses import dataclass
from typing import Literal

from ..errors import Problem
from ..figure import Figure
from ..value import Value
from .batch import Batch
from .operations import Constraint, Operation
from .work import Work


@dataclass(frozen=True)
class ZoneArea(Value):
    """A zone's area, relief and deductions counted; None where its sizes cannot be used."""

    zone: str
    name: str
    area: Figure | None


@dataclass(frozen=True)
class OrderFile(Value):
    """The order of work of a job: operations in order, what holds between them, and the batches they use.

    `unknown` are waits only a label knows, `missed` windows and lives one painter cannot keep in this order.
    """

    format: Literal["lumso-work"]
    version: Literal[1]
    name: str
    zones: tuple[ZoneArea, ...]
    operations: tuple[Operation, ...]
    constraints: tuple[Constraint, ...]
    batches: tuple[Batch, ...]
    unknown: tuple[Constraint, ...]
    missed: tuple[Constraint, ...]
    problems: tuple[Problem, ...]
    hands_on_min: float
    elapsed_min: float


def order_file(made: Work) -> OrderFile:
    """The work of one job as a document."""
    job = made.jobs[0]
    return OrderFile(
        "lumso-work",
        1,
        job.job.name,
        tuple(ZoneArea(z.zone.id, z.zone.name, z.area) for z in job.zones),
        made.operations,
        made.constraints,
        made.batches,
        made.unknown,
        made.missed,
        made.problems,
        made.hands_on_min,
        made.elapsed_min,
    )
