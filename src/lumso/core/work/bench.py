"""What the zones of a job are worked with: the same for all of them."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from ..book.catalogue import Catalogue
from ..book.habits import Habits
from ..job.job import Use
from ..layers.conditions import Room
from ..piece.piece import Band
from ..workshop.workshop import Workshop


@dataclass(frozen=True)
class Bench:
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
    goes: Mapping[tuple[str, str], int] = field(default_factory=dict)
    """In how many goes a coat of a layer is painted, by zone and layer; once where nothing is said."""

    @property
    def habits(self) -> Habits:
        """How work goes at this bench."""
        return self.catalogue.habits
