"""A personal factor on what a surface takes, from what jobs took, and how far the next job may be off.

A job's ratio is r = (mixed − left − predicted losses) / film planned, before margin. ln r is normal about ln f with the
spread of jobs σ; ln f about 0 with 0.25. With σ known the factor is
exp(Σ ln r / σ² / (n/σ² + 1/0.25²)); three jobs at 1.3 with σ = 0.20 give × 1.241. From four jobs on σ is estimated with
it, on a grid; fewer say nothing of it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import erf, exp, log, sqrt

from ..value import Value

PRIOR_OFF = 0.25
"""How far a painter's factor usually is off 1 (its logarithm)."""
JOB_SPREAD = 0.20
"""How far one job is off the painter's factor."""
FEWEST_FOR_SPREAD = 4
SPREADS = tuple(0.05 * 1.09**i for i in range(31))
"""0.05 to 0.66."""
SPREAD_OFF = 2.0
"""How far the logarithm of a painter's spread may be off that of 0.20: hardly anything is known of it before."""
LEAST, MOST = 0.45, 2.2
"""A ratio outside of these asks; confirmed, it counts as they do."""


@dataclass(frozen=True)
class Likely(Value):
    """One of several ways it may be: its weight, and the mean and spread of the logarithm."""

    weight: float
    mean: float
    off: float


@dataclass(frozen=True)
class LearnedRate(Value):
    """What the log says of a mix put on one way. `off` is how far the factor may be off, `spread` one job about it."""

    of: str
    factor: float
    off: float
    spread: float
    jobs: int
    next_job: tuple[Likely, ...]
    """What the next job may take, as a multiple of what is planned without the log."""


def doubtful(ratio: float) -> bool:
    """Whether a ratio asks: "really?"."""
    return not LEAST <= ratio <= MOST


def clipped(ratio: float) -> float:
    """A ratio as it counts once it was confirmed."""
    return min(max(ratio, LEAST), MOST)


def _spreads(logs: Sequence[float]) -> list[tuple[float, float]]:
    """How likely each spread of jobs is, by what was seen; weights come to 1."""
    n = len(logs)
    if n < FEWEST_FOR_SPREAD:
        return [(JOB_SPREAD, 1.0)]
    mean = sum(logs) / n
    squares = sum((x - mean) ** 2 for x in logs)
    found = []
    for s in SPREADS:
        whole = PRIOR_OFF**2 + s * s / n
        prior = -((log(s / JOB_SPREAD) / SPREAD_OFF) ** 2) / 2
        likely = -(n - 1) * log(s) - squares / (2 * s * s) - log(whole) / 2 - mean * mean / (2 * whole)
        found.append((s, prior + likely))
    most = max(w for _, w in found)
    weights = [(s, exp(w - most)) for s, w in found]
    total = sum(w for _, w in weights)
    return [(s, w / total) for s, w in weights]


def next_job(ratios: Sequence[float]) -> tuple[Likely, ...]:
    """What the next job may take, by what those before it took; without any, by what painters do."""
    logs = [log(r) for r in ratios]
    n, total = len(logs), sum(logs)
    made = []
    for s, weight in _spreads(logs):
        precision = n / (s * s) + 1 / PRIOR_OFF**2
        made.append(Likely(weight, total / (s * s) / precision, sqrt(1 / precision + s * s)))
    return tuple(w for w in made if w.weight > 1e-4)


def learned_rate(of: str, ratios: Sequence[float]) -> LearnedRate:
    """What the ratios of jobs say, at least one."""
    logs = [log(r) for r in ratios]
    n, total = len(logs), sum(logs)
    mean = square = spread = 0.0
    for s, weight in _spreads(logs):
        precision = n / (s * s) + 1 / PRIOR_OFF**2
        at = total / (s * s) / precision
        mean, spread = mean + weight * at, spread + weight * s
        square += weight * (1 / precision + at * at)
    return LearnedRate(of, exp(mean), sqrt(max(square - mean * mean, 0.0)), spread, n, next_job(ratios))


def about(weighed: Sequence[Likely], factor: float) -> tuple[Likely, ...]:
    """The same as a multiple of what is planned with a factor."""
    return tuple(Likely(w.weight, w.mean - log(factor), w.off) for w in weighed)


def below(weighed: Sequence[Likely], x: float) -> float:
    """How likely a job takes less than exp(x) times what is planned."""
    return sum(w.weight * (1 + erf((x - w.mean) / (w.off * sqrt(2)))) / 2 for w in weighed)


def interval(weighed: Sequence[Likely], holds: float = 0.9) -> tuple[float, float]:
    """The ratios between which a job lies with a chance of `holds`, as likely beyond either end."""
    tail = (1 - holds) / 2
    return exp(quantile(weighed, tail)), exp(quantile(weighed, 1 - tail))


def quantile(weighed: Sequence[Likely], share: float) -> float:
    """The logarithm of a ratio that jobs stay below with a chance of `share`."""
    low, high = -6.0, 6.0
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if below(weighed, middle) < share else (low, middle)
    return (low + high) / 2
