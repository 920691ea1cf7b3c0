"""What a pot really is, by the words it was judged by.

What is not known of a mix is how strongly its grains swell (1 to 5 times), how thick its liquid is (half to double) and
how fast it thickens. Every word that is seen weighs what could be: Bayes' rule on a grid. A painter is one word wrong
about one time in ten; so one look alone never settles it, and a look that fits nothing asks for another.
"""

from bisect import bisect
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import exp, log, sqrt

from ..book.materials import Consistency
from ..mixing.consistency import Flow
from ..value import Value

SWELLINGS = tuple(5 ** (i / 14) for i in range(15))
"""What grains may swell to: 1 to 5 times."""
LIQUIDS = tuple(2.0 ** (i / 3 - 1) for i in range(7))
"""How thick the liquid may be, as a multiple of what is known of it: half to double."""
SLOWNESS = (0.5, 1.0, 2.0)
SWELLS_OFF = 0.6
"""How far the logarithm of a swelling usually is off its record (one standard deviation). Untested."""
LIQUID_OFF = 0.4
LEAST = 1e-3
"""Guesses less likely than this are let go."""
RIGHT, NEXT, FURTHER = 0.9, 0.05, 0.002
"""How often a painter's word is the right one, the one beside it to either hand, another. Untested."""


@dataclass(frozen=True)
class Seen:
    """A word that was seen of a pot: what was in it then, and how many minutes after its powder was wetted."""

    flow: Flow
    word: str
    since_min: float


@dataclass(frozen=True)
class Guess:
    """One way a pot may be, and how likely that is."""

    swells: float
    liquid: float
    slow: float
    weight: float

    def viscosity(self, flow: Flow, since_min: float) -> float:
        """η in mPa·s of a mix so many minutes after it was wetted, if the pot is so."""
        ripe = 1.0 if not flow.thickens_min else 1 - exp(-since_min / (flow.thickens_min * self.slow))
        return flow.viscosity(self.swells, self.liquid, ripe)


@dataclass(frozen=True)
class Chance(Value):
    """How likely a mix is too thin, right, too thick: together 1."""

    thinner: float
    right: float
    thicker: float


class WordLadder:
    """The words painters judge by, the thinnest first."""

    def __init__(self, scale: Sequence[Consistency]) -> None:
        self.words = sorted(scale, key=lambda c: c.viscosity_mpa_s)
        self.place = {c.slug: i for i, c in enumerate(self.words)}
        self.between = [sqrt(a.viscosity_mpa_s * b.viscosity_mpa_s) for a, b in pairwise(self.words)]

    def place_of(self, viscosity_mpa_s: float) -> int:
        """Which word a viscosity is; past the last for what does not flow."""
        if viscosity_mpa_s == float("inf"):
            return len(self.words)
        return bisect(self.between, viscosity_mpa_s)


def believed(seen: Sequence[Seen], ladder: WordLadder) -> tuple[Guess, ...]:
    """What a pot may be, by all that was seen of it, each guess with its weight; weights come to 1."""
    main = max((g for s in seen for g in s.flow.grains), key=lambda g: g.share * g.swelling / g.packing_limit,
               default=None)  # fmt: skip
    guesses = []
    slowness = SLOWNESS if main is not None and main.thickens_min else (1.0,)
    for swelling in SWELLINGS if main is not None else (1.0,):
        off = log(swelling / main.swelling) if main is not None else 0.0
        for liquid in LIQUIDS:
            prior = exp(-((off / SWELLS_OFF) ** 2) / 2 - (log(liquid) / LIQUID_OFF) ** 2 / 2)
            for slow in slowness:
                guess = Guess(swelling / main.swelling if main is not None else 1.0, liquid, slow, prior)
                weight = prior
                for s in seen:
                    place = min(ladder.place_of(guess.viscosity(s.flow, s.since_min)), len(ladder.words) - 1)
                    far = abs(place - ladder.place[s.word])  # crumbs are said by the thickest word
                    weight *= RIGHT if far == 0 else NEXT if far == 1 else FURTHER
                guesses.append(Guess(guess.swells, liquid, slow, weight))
    if seen and not any(_fits(g, seen[-1], ladder) for g in guesses):
        alike = sum(s.word == seen[-1].word and _same(s.flow, seen[-1].flow) for s in seen)
        odds = NEXT if alike == 1 else RIGHT / (1 - RIGHT)  # once may be a slip of the eye, twice is none
        guesses += _as_seen(seen[-1], odds * sum(g.weight for g in guesses), ladder)
    whole = sum(g.weight for g in guesses)
    return tuple(Guess(g.swells, g.liquid, g.slow, g.weight / whole) for g in guesses if g.weight > whole * LEAST)


WIDER_SWELLS = tuple(0.15 * 40 ** (i / 30) for i in range(31))
WIDER_LIQUIDS = tuple(10 ** (i / 5) for i in range(-25, 31))
"""What a pot may be as a multiple of its records where nothing nearer fits what was seen: every word."""


def _fits(guess: Guess, seen: Seen, ladder: WordLadder) -> bool:
    place = min(ladder.place_of(guess.viscosity(seen.flow, seen.since_min)), len(ladder.words) - 1)
    return place == ladder.place[seen.word]


def _same(one: Flow, other: Flow) -> bool:
    return one.viscosity(1.0, 1.0, 1.0) == other.viscosity(1.0, 1.0, 1.0)


def _as_seen(seen: Seen, weight: float, ladder: WordLadder) -> list[Guess]:
    """The pot nearest to its records of those that fit what was seen: that is evidence, and never impossible."""
    tried = [
        Guess(swells, liquid, 1.0, weight)
        for swells in (WIDER_SWELLS if seen.flow.grains else (1.0,))
        for liquid in WIDER_LIQUIDS
    ]
    fit = [g for g in tried if _fits(g, seen, ladder)]
    off = min(fit, key=lambda g: abs(log(g.swells)) / SWELLS_OFF + abs(log(g.liquid)) / LIQUID_OFF, default=None)
    return [off] if off else []


@dataclass(frozen=True)
class Outcome:
    """What is believed of a mix: how likely it is what it should be, and the η in mPa·s that is as likely too
    high as too low, infinite for crumbs."""

    chance: Chance
    middle: float


def outcome(guesses: Sequence[Guess], flow: Flow, since_min: float, target: str, ladder: WordLadder) -> Outcome:
    """What is believed of a mix so many minutes after it was wetted."""
    at = ladder.place[target]
    found = sorted((g.viscosity(flow, since_min), g.weight) for g in guesses)
    whole = sum(w for _, w in found)
    parts = [0.0, 0.0, 0.0]
    middle, gone = found[-1][0], 0.0
    for eta, weight in found:
        place = ladder.place_of(eta)
        parts[(place > at) - (place < at) + 1] += weight / whole
        if gone < whole / 2 <= gone + weight:
            middle = eta
        gone += weight
    return Outcome(Chance(*parts), middle)
