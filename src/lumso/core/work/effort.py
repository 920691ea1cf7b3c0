"""About how much work a finish is, worked out from its own steps on a square metre of its first ground."""

from dataclasses import dataclass
from itertools import count
from math import ceil

from ..advice import trial, with_finish
from ..book.catalogue import Catalogue
from ..book.finishes import Finish
from ..job.job import Job, Zone
from ..layers.conditions import Conditions
from ..measure.lengths import Length
from ..memory import remembered
from ..piece.piece import Piece
from ..plan.plan import plan, stacks
from ..workshop.workshop import Workshop
from .procedure import procedure

DAY_H = 24.0


@dataclass(frozen=True)
class Effort:
    """Hours of work on a m², and days from the first step to the last, waits included."""

    hours: float
    days: int


@remembered(200)
def _effort(finish: Finish, catalogue: Catalogue) -> Effort:
    size = Length(1000, "1 m")
    board = Piece("board", {"length": size, "width": size, "thickness": Length(1, "1 mm")})
    zone = Zone("zone", "Board", finish.grounds[0], ("top",), ())
    job = Job("lumso-job", 3, finish.name, (zone,), board)
    made, _ = with_finish(zone, finish, trial(job, 0, catalogue, Conditions()), (f"layer-{n}" for n in count(1)))
    job = Job("lumso-job", 3, finish.name, (made,), board)
    here = (job, Workshop(), catalogue, Conditions())
    steps = procedure(job, plan(*here), stacks(*here), catalogue, Workshop())
    return Effort(steps.hands_on_min / 60, max(1, ceil(steps.elapsed_h / DAY_H)))


def effort(finish: Finish, catalogue: Catalogue) -> Effort:
    """What the finish takes on 1 m² at 20 °C and 50 %. An estimate."""
    return _effort(finish.slug, finish, catalogue)
