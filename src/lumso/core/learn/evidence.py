"""What the log says of rates, with what it says it by: jobs, doubts, and what was switched off."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from math import exp, log

from ..value import Value
from .rates import LearnedRate, clipped, doubtful, interval, learned_rate


@dataclass(frozen=True)
class Ratio(Value):
    """What a surface took in one pot, as a multiple of what is planned without the log."""

    of: str
    pot: str
    job: str
    at_min: float
    ratio: float


@dataclass(frozen=True)
class Evidence(Value):
    """One ratio, whether it counts, and what is doubted of it."""

    ratio: Ratio
    counts: bool
    doubt: str


@dataclass(frozen=True)
class Lesson(Value):
    """What the log says of a mix put on one way, and by what. `low` and `high` hold nine of ten next jobs."""

    of: str
    learned: LearnedRate | None
    """None where nothing counts yet."""
    low: float
    high: float
    evidence: tuple[Evidence, ...]
    on: bool


def _doubt(ratio: float, confirmed: bool) -> str:
    if not doubtful(ratio):
        return ""
    way = "much more" if ratio > 1 else "much less"
    if confirmed:
        return f"{way} than planned; confirmed, it counts as {clipped(ratio):.2g} ×"
    return f"Really? It took {way} than planned: a spill, a wrong weight, a coat not noted?"


def lessons(ratios: Sequence[Ratio], confirmed: Collection[str], off: Collection[str]) -> tuple[Lesson, ...]:
    """What the log says, mix by mix, the most known first. Pots of one job count as one job: they are off alike."""
    by: dict[str, list[Ratio]] = {}
    for one in ratios:
        by.setdefault(one.of, []).append(one)
    found = []
    for of, mine in by.items():
        evidence = tuple(
            Evidence(r, not doubtful(r.ratio) or r.pot in confirmed, _doubt(r.ratio, r.pot in confirmed)) for r in mine
        )
        jobs: dict[str, list[float]] = {}
        for e in evidence:
            if e.counts:
                jobs.setdefault(e.ratio.job, []).append(log(clipped(e.ratio.ratio)))
        learned = learned_rate(of, [exp(sum(logs) / len(logs)) for logs in jobs.values()]) if jobs else None
        low, high = interval(learned.next_job) if learned else (0.0, 0.0)
        found.append(Lesson(of, learned, low, high, evidence, of not in off))
    return tuple(sorted(found, key=lambda x: (-(x.learned.jobs if x.learned else 0), x.of)))
