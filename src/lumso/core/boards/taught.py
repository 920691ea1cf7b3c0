"""What a board teaches: how strongly a layer hides, from the colours that were seen on its dry strips.

Seen against predicted corrects the product of hiding power, thickness and what wiping leaves: on one pair of paint and
technique these cannot be told apart. Where a strip that was not wiped stands beside wiped ones of the same pour they
can, and the share that is kept is found by itself. What a verdict says in words moves nothing: it only chooses a strip.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import exp, log

import numpy as np

from ..colour.difference import delta_e, lab_of
from ..colour.spectra import reflectance
from ..job.board import BoardStrip
from ..job.job import Job
from ..look.look import Look
from ..value import Value

PRIOR = 0.35
"""How far off hiding is expected to be before anything was seen: a standard deviation of its logarithm."""
TRIED = 81
NOT_SEEN = 2.0
"""ΔE₀₀ that nobody notices between two strips on different days."""
WIDEST = log(5)


@dataclass(frozen=True)
class Evidence(Value):
    """One strip: what was predicted, what was seen, and what the corrected model says."""

    code: str
    predicted: str
    seen: str
    off: float
    """ΔE₀₀ between what was predicted and what was seen."""
    after: float
    """The same once it is corrected."""


@dataclass(frozen=True)
class Taught(Value):
    """How many times as strongly the layer hides as was believed, and the share that wiping leaves where that could be
    told apart; from how many strips, and the range of the factor."""

    layer: str
    """Of the zone that the board was for."""
    hides: float
    least: float
    most: float
    kept: float | None
    strips: int
    fits: bool
    """Whether that explains what was seen; where it does not, the colour of the paint is another than was entered."""
    evidence: tuple[Evidence, ...]


@dataclass(frozen=True)
class _Seen:
    """A strip whose colour was seen: its look, and which of its layers was varied."""

    strip: BoardStrip
    look: Look
    layer: int

    @property
    def kept(self) -> float:
        """The share that wiping leaves, as it was planned."""
        return self.look.films[self.layer].kept

    def predicted(self, hides: float, wiping: float = 1.0) -> str:
        """What is seen when the layer hides so many times as strongly, and so many times as much is left of it."""
        return self.look.otherwise(self.layer, hides, min(1.0, self.kept * wiping))

    def off(self, hides: float, wiping: float = 1.0) -> float:
        """ΔE₀₀ of that from what was seen."""
        assert self.strip.seen
        return _apart(self.predicted(hides, wiping), self.strip.seen.hex)


def _apart(one: str, other: str) -> float:
    return float(delta_e(lab_of(reflectance(one)), lab_of(reflectance(other))))


def _cost(seen: Sequence[_Seen], hides: float, wiping: float = 1.0) -> float:
    """How unlikely that is: what it leaves of each difference, in units of how well the colour was seen, and how far it
    is from what was believed."""
    units = [max(s.strip.seen.within if s.strip.seen else 1.0, 1.0) for s in seen]
    left = sum((s.off(hides, wiping) / u) ** 2 for s, u in zip(seen, units, strict=True))
    return left + (log(hides) / PRIOR) ** 2 + (log(wiping) / PRIOR) ** 2


def _fits(seen: Sequence[_Seen], evidence: Sequence[Evidence]) -> bool:
    """Whether what is left of each difference is about what the eye, or the camera, may be off."""
    within = [max(s.strip.seen.within if s.strip.seen else 0.0, NOT_SEEN) for s in seen]
    return all(e.after <= 1.5 * w for e, w in zip(evidence, within, strict=True))


def taught(job: Job, look_of: Callable[[int], Look]) -> Taught | None:
    """What a board's job teaches; None where no colour was seen. `look_of` gives the look of one of its zones."""
    board = job.board
    if board is None:
        return None
    seen = []
    for strip in board.strips:
        at = next((i for i, z in enumerate(job.zones) if z.id == strip.zone), None)
        layer = (
            next((j for j, x in enumerate(job.zones[at].layers) if x.id == strip.layer), None)
            if at is not None
            else None
        )
        if strip.seen and at is not None and layer is not None:
            seen.append(_Seen(strip, look_of(at), layer))
    if not seen:
        return None
    unwiped, wiped = [s for s in seen if s.kept >= 1], [s for s in seen if s.kept < 1]
    apart = bool(unwiped and wiped)  # hiding and wiping can be told from each other
    factors = [exp(x) for x in np.linspace(-WIDEST, WIDEST, TRIED)]
    cost = np.array([_cost(unwiped if apart else seen, f) for f in factors])
    likely = np.cumsum(np.exp(-(cost - cost.min()) / 2))
    hides = factors[int(np.argmin(cost))]
    least, most = (factors[min(int(np.searchsorted(likely / likely[-1], q)), TRIED - 1)] for q in (0.05, 0.95))
    wiping = 1.0
    if apart:
        wiping = min(factors, key=lambda w: _cost(wiped, hides, w))
    evidence = tuple(
        Evidence(s.strip.code, s.predicted(1.0), s.strip.seen.hex if s.strip.seen else "", round(s.off(1.0), 1),
                 round(s.off(hides, wiping if s.kept < 1 else 1.0), 1))
        for s in seen
    )  # fmt: skip
    kept = round(min(1.0, wiped[0].kept * wiping), 3) if apart else None
    return Taught(
        board.ladders[0].layer,
        round(hides, 3),
        round(least, 3),
        round(most, 3),
        kept,
        len(seen),
        _fits(seen, evidence),
        evidence,
    )
