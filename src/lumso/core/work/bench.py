"""What the zones of a job are worked with: the same for all of them."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from ..book.catalogue import Catalogue
from ..book.habits import Habits
from ..job.job import Use
from ..job.laying import Go
from ..layers.conditions import Room
from ..piece.piece import Band
from ..workshop.workshop import Workshop


@dataclass(frozen=True)
class WorkedWith:
    """What the zones of a job are worked with."""

    job: str
    scope: str
    """What ids begin with, where several jobs are worked together."""
    use: Use
    turned: bool
    catalogue: Catalogue
    workshop: Workshop
    room: Room
    bands: tuple[Band, ...] = ()
    """What stays bare on its surfaces."""
    like: int = 1
    """So many like pieces there are."""
    goes: Mapping[tuple[str, str], tuple[Go, ...]] = field(default_factory=dict)
    """What a coat of a layer with a layout paints at once, by zone and layer."""

    @property
    def habits(self) -> Habits:
        """How work goes at this bench."""
        return self.catalogue.habits
