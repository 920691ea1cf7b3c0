"""How much to mix so as to run short only one time in so many.

What is needed is film·e^u + losses·(1 + v): u holds the rate, the same for all zones of a job, and the area of this
one; v what pot and tool really keep. The amount is the quantile of that, found by bisection.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import exp, log, sqrt

from ..value import Value
from .rates import Likely, below

AREA_OFF = 0.03
"""How far a measured area may be off. An untested starting value."""
LOSSES_OFF = 0.3
"""How far what pot and tool keep may be off. An untested starting value."""
NODES = ((-1.7320508, 1 / 6), (0.0, 2 / 3), (1.7320508, 1 / 6))
"""Three points that stand for a normal distribution (Gauss and Hermite)."""


@dataclass(frozen=True)
class Risk(Value):
    """How a coat's amount may be off, and how often it may run short: one time in `one_in`."""

    one_in: float
    rate: tuple[Likely, ...]
    area_off: float


def _wider(rate: Sequence[Likely], off: float) -> tuple[Likely, ...]:
    return tuple(Likely(w.weight, w.mean, sqrt(w.off**2 + off**2)) for w in rate)


@lru_cache(maxsize=512)
def amount_for(film_ml: float, lost_ml: float, risk: Risk) -> float:
    """ml to mix for a film and losses as planned, so that it runs short one time in so many."""
    if film_ml <= 0:
        return lost_ml
    rate, wanted = _wider(risk.rate, risk.area_off), 1 - 1 / risk.one_in

    def enough(ml: float) -> float:
        chance = 0.0
        for node, weight in NODES:
            for_film = ml - lost_ml * (1 + LOSSES_OFF * node)
            if for_film > 0:
                chance += weight * below(rate, log(for_film / film_ml))
        return chance

    low, high = lost_ml * 0.5, lost_ml * 2 + film_ml * exp(6)
    for _ in range(70):
        middle = (low + high) / 2
        low, high = (middle, high) if enough(middle) < wanted else (low, middle)
    return (low + high) / 2


def margin_for(film_ml: float, lost_ml: float, risk: Risk) -> float:
    """The same as a margin on film and losses together; never below nothing."""
    whole = film_ml + lost_ml
    return max(amount_for(film_ml, lost_ml, risk) / whole - 1, 0.0) if whole > 0 else 0.0
