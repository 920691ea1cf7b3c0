"""What a rehearsal keeps to itself: how this room, these films and this pot differ from what is planned.

Nobody is told. It is drawn by a seed from the spread that the plan's times have, so that the same seed is the same
afternoon; with no seed nothing differs.
"""

from dataclasses import dataclass

import numpy as np

DRYING_SPREAD = 0.18
"""How far drying times lie from what is planned: the standard deviation of their logarithm. Untested starting value."""
LIKELY = 1.35
"""Nine in ten lie within so many times as long, or short: e^(1.645 · 0.18)."""
MIDDLE = 0.5


@dataclass(frozen=True)
class Truth:
    """How a seed's afternoon is: `0` is as planned."""

    seed: int = 0

    def dries(self, what: str) -> float:
        """How many times as long as planned something takes to dry, by what it is."""
        return float(np.exp(DRYING_SPREAD * self._draws(what).standard_normal())) if self.seed else 1.0

    def open(self, what: str) -> float:
        """Where between the least and the most a film stays open, 0–1."""
        return float(self._draws(f"{what} open").uniform()) if self.seed else MIDDLE

    def _draws(self, what: str) -> np.random.Generator:
        return np.random.Generator(np.random.PCG64((self.seed, *what.encode())))
