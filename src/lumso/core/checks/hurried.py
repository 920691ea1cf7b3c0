"""What is laid sooner than what it lies on allows: found by the one function that also proposes the wait."""

from collections.abc import Iterator
from dataclasses import dataclass

from ..changes.change import Remedy, SetLayer
from ..figure import lasts
from ..layers.awaited import Asked, Awaited
from ..layers.laid import Laid
from ..layers.stack import Stack
from .findings import Grade
from .rule import remedy

LITTLE, MUCH = 0.2, 0.5
"""Of an estimated time: less than a fifth missing is no matter, more than half is a great one. Untested so far."""


@dataclass(frozen=True)
class Hurried:
    """A layer that does not wait for something: what, how long that takes and is waited, in minutes in this room."""

    index: int
    upper: Laid
    of: Laid
    awaited: Awaited
    needs: float
    waited: float
    way: Remedy

    def grade(self, most: Grade) -> Grade | None:
        """How bad it is, by how much is missing; `most` where that is more than half. None: as the rule says."""
        missing = 1 - self.waited / self.needs
        return "good to know" if missing <= LITTLE else most if missing > MUCH else None

    @property
    def after(self) -> str:
        """What comes how soon after what."""
        return f"{self.upper.name} {lasts(self.waited)} after {self.of.name.lower()}"


def hurried(stack: Stack, *asked: Asked) -> Iterator[Hurried]:
    """The layers whose wait misses most of one of these. One finding a place: the rest is over by then, too."""
    for index in range(1, len(stack.laid)):
        found = stack.short(index)
        if found is None or found[0].asked not in asked:
            continue
        one, missing = found
        waited, last = 60 * stack.hours_between(one.of, index), stack.laid[index - 1]
        wait = stack.waits_h(index - 1) + missing / 60
        way = remedy(f"Wait {lasts(60 * wait)}", SetLayer("set", last.layer.id, wait_h=wait))
        yield Hurried(index, stack.laid[index], stack.laid[one.of], one, waited + missing, waited, way)
