"""Where the layers of a job with a layout go, on the drawing of its piece."""

from dataclasses import dataclass

from ..job.job import Layer
from ..layers.laid import Laid
from ..layers.stack import Stack
from ..layout.mask import Region
from ..measure.drawing import Point
from ..value import Value
from ..work.work import JobWork
from ..work.zone import sealed_with


@dataclass(frozen=True)
class Patterned(Value):
    """A layer with a layout on faces of the drawing that are alike: what it paints, from their corner, and where on the
    drawing their corners are. `hex` is the colour it is drawn in, `colour` its name, `sealed_with` the mix beneath that
    the edges of its tape are sealed with; "" where they are not."""

    zone: str
    layer: str
    hex: str
    colour: str
    sealed_with: str
    regions: tuple[Region, ...]
    at: tuple[Point, ...]


def patterns_of(job: JobWork) -> tuple[Patterned, ...]:
    """Where the layers of a job with a layout go, from the ground up."""
    return tuple(
        Patterned(zone.zone.id, one.layer.id, one.hex, _named(one.layer), _sealed(zone.stack, index, one),
                  face.laid.regions, face.at)
        for zone in job.zones
        if zone.stack is not None
        for index, one in zone.stack.each()
        for face in job.laying.faces.get((zone.zone.id, one.layer.id), ())
    )  # fmt: skip


def _named(layer: Layer) -> str:
    """What the painter calls a layer's colours."""
    mixed = (" + ".join(t.name for t in tints if t.name) for tints in layer.tints.values())
    return ", ".join(dict.fromkeys(x for x in (*(c.name for c in layer.colours.values()), *mixed) if x))


def _sealed(stack: Stack, index: int, one: Laid) -> str:
    """What the edges of a layer's tape are sealed with, by its name."""
    under = sealed_with(stack, index) if one.tapes else None
    return under.name if under else ""
