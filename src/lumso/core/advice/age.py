"""Age in the hollows: dark wax that stays where hands do not reach, put on and taken off as one step."""

from dataclasses import dataclass

from ..changes.change import InsertLayer, Remedy, RemoveLayer
from ..job.job import Zone
from ..value import Value
from .bench import Trial


@dataclass(frozen=True)
class AgeAdvice(Value):
    """Whether dark wax is in a zone's hollows, and the changes that take it off or put it on."""

    on: bool
    remedy: Remedy


def age_advice(zone: Zone, bench: Trial) -> AgeAdvice:
    """The wax that answers "dark hollows" on this zone; what already colours its hollows counts as on."""
    there = [x for x in bench.stack(zone).laid if x.film.colours and x.acts("stays in recesses")]
    if there:
        off = tuple(RemoveLayer("remove", x.layer.id) for x in there)
        return AgeAdvice(True, Remedy("Take the dark wax off", off))
    slug = bench.catalogue.offer("dark hollows")
    on = InsertLayer("insert", "", slug, bench.catalogue.way_that(slug, "stays in recesses"))
    return AgeAdvice(False, Remedy("Put dark wax on", (on,)))
