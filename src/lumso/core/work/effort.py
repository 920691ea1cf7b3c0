"""About how much work a finish is, worked out from its own order of work on a square metre of its first ground."""

from dataclasses import dataclass
from itertools import count
from math import ceil

from ..advice import trial, with_finish
from ..book.catalogue import Catalogue
from ..book.finishes import Finish
from ..job.job import Zone, new_job
from ..layers.conditions import Room
from ..measure.lengths import Length
from ..piece.piece import Piece
from ..workshop.workshop import Workshop
from .work import work

DAY_MIN = 24 * 60


@dataclass(frozen=True)
class Effort:
    """Hours of work on a m², and days from the first operation to the last, waits included."""

    hours: float
    days: int


def effort(finish: Finish, catalogue: Catalogue) -> Effort:
    """What the finish takes on 1 m² at 20 °C and 50 %. An estimate."""
    size = Length(1000, "1 m")
    board = Piece("board", {"length": size, "width": size, "thickness": Length(1, "1 mm")})
    zone = Zone("zone", "Board", finish.grounds[0], ("top",), ())
    job = new_job(finish.name, (zone,), board)
    made, _ = with_finish(zone, finish, trial(job, 0, catalogue, Room()), (f"layer-{n}" for n in count(1)))
    done = work(new_job(finish.name, (made,), board), Workshop(), catalogue, Room())
    return Effort(done.hands_on_min / 60, max(1, ceil(done.elapsed_min / DAY_MIN)))
