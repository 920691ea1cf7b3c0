"""Jars of what was mixed before, promised to batches that are still to be mixed."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..log.jars import Wanted, taken_g, uses_of
from ..log.pot import PotState
from .promises import CRUMB, Promise


@dataclass(frozen=True)
class JarLeft:
    """A jar: what it holds, until when it keeps (None where only its label knows), and how much of it makes all of
    each batch it is right for, in ml, by the batch."""

    pot: str
    ml: float
    keeps_until_min: float | None
    takes: Mapping[str, float]


def takes_of(state: PotState, wanted: Mapping[str, Wanted]) -> dict[str, float]:
    """How much of a jar makes all of each batch that is wanted, ml, by the batch; those it does not make are left out.
    Another colour begun with it would not be the colour that was asked for."""
    found = {}
    for key, want in wanted.items():
        whole = (u for u in uses_of(state, [want]) if u.covers >= 1 and u.how != "as the start of it")
        if (use := next(whole, None)) is not None:
            found[key] = taken_g(state, use, want.ml) / state.density
    return found


@dataclass(frozen=True)
class BatchWanted:
    """A batch that is still to be mixed, and when."""

    id: str
    job: str
    job_name: str
    says: str
    at_min: float


def from_jars(wanted: Sequence[BatchWanted], jars: Sequence[JarLeft]) -> tuple[Promise, ...]:
    """The batches that jars make whole, the earliest first, each from one jar that still keeps on its day: the one that
    spoils soonest. A batch is not made from two jars, nor partly from one: its colour would not be one."""
    free = {jar.pot: jar.ml for jar in jars}
    soonest = sorted(jars, key=lambda j: (j.keeps_until_min is None, j.keeps_until_min or 0.0, j.pot))
    found = []
    for batch in sorted(wanted, key=lambda b: (b.at_min, b.id)):
        for jar in soonest:
            takes = jar.takes.get(batch.id)
            keeps = jar.keeps_until_min is None or jar.keeps_until_min >= batch.at_min
            if takes is None or not keeps or takes > free[jar.pot] + CRUMB:
                continue
            amount = min(takes, free[jar.pot])
            free[jar.pot] -= amount
            found.append(Promise(batch.id, jar.pot, batch.job, batch.job_name, batch.says, batch.at_min, 1.0, amount,
                                 "ml"))  # fmt: skip
            break
    return tuple(found)
