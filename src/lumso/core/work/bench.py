"""What the zones of a job are worked with: the same for all of them."""

from dataclasses import dataclass

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
    goes: tuple[tuple[str, str, int], ...] = ()
    """Layers whose layout is painted in several goes: zone, layer, how many."""

    def goes_of(self, zone: str, layer: str) -> int:
        """In how many goes a coat of a layer is painted."""
        return next((n for z, x, n in self.goes if (z, x) == (zone, layer)), 1)

    @property
    def habits(self) -> Habits:
        """How work goes at this bench."""
        return self.catalogue.habits
