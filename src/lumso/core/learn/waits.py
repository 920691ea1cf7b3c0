"""How long films dry here, by what was seen of them; and how fast a painter is.

"Found dry" says that it was dry by then, "not dry yet" that it will be later: neither says when. With t the true wait
as a multiple of what was planned, ln t normal about ln f with 0.2 and ln f about 0 with 0.3, each sighting is
P(t ≤ seen) or P(t > seen); f is what a grid of it comes to. The time between a sighting and the truth is never learnt.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import erf, exp, log, sqrt

from ..value import Value
from .rates import learned_rate

WAIT_OFF, SIGHT_OFF = 0.3, 0.2
GRID = tuple(-1.2 + 0.02 * i for i in range(121))
LEAST, MOST = 0.6, 2.0
"""Whatever was seen, no wait is planned shorter or longer than these times as long: a hand is not a gauge."""
MOST_SURE = 0.04
"""However much was seen, rooms and hands differ by this."""


@dataclass(frozen=True)
class Sighting(Value):
    """What was seen of a film: so many minutes after it was laid it was dry, or not yet; `planned_min` were planned."""

    of: str
    job: str
    at_min: float
    planned_min: float
    after_min: float
    dry: bool


@dataclass(frozen=True)
class Factor(Value):
    """A factor by what was seen, how far it may be off, and from how many sightings."""

    of: str
    factor: float
    off: float
    count: int


def learned_wait(of: str, seen: Sequence[Sighting]) -> Factor:
    """How many times as long as planned a film takes, by sightings of it."""
    weights = []
    for x in GRID:
        chance = exp(-((x / WAIT_OFF) ** 2) / 2)
        for s in seen:
            by_then = (1 + erf((log(max(s.after_min, 0.1) / s.planned_min) - x) / (SIGHT_OFF * sqrt(2)))) / 2
            chance *= max(by_then if s.dry else 1 - by_then, 1e-6)
        weights.append(chance)
    whole = sum(weights)
    mean = sum(w * x for w, x in zip(weights, GRID, strict=True)) / whole
    var = sum(w * (x - mean) ** 2 for w, x in zip(weights, GRID, strict=True)) / whole
    return Factor(of, min(max(exp(mean), LEAST), MOST), max(sqrt(var), MOST_SURE), len(seen))


def learned_pace(of: str, ratios: Sequence[float]) -> Factor:
    """How many times as fast as planned a painter is, by jobs: `ratios` are minutes taken over minutes planned."""
    rate = learned_rate(of, ratios)
    return Factor(of, 1 / rate.factor, rate.off, rate.jobs)
