"""Numbers that carry their own working, so that each can be opened to see why."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from math import floor, hypot, log10
from typing import Literal

from .value import Value

SourceKind = Literal["definition", "geometry", "starting value", "label", "measured", "your choice", "your log"]
"""Where a number comes from, weakest first after the first two: a label beats a starting value, a log both."""


@dataclass(frozen=True)
class Step(Value):
    """One line of working: what it is, how it was reached, the result and where its constant came from."""

    name: str
    how: str
    value: float
    unit: str
    source: SourceKind
    note: str = ""
    """The source in words: who says so, and how sure that is."""
    spread: float = 0.0
    """How far off the constant of this step may be, as a share of it: 0.2 is a fifth either way."""


@dataclass(frozen=True)
class Figure(Value):
    """A value in `unit` with the chain of steps that made it, first step first."""

    value: float
    unit: str
    steps: tuple[Step, ...]
    spread: float = 0.0
    """How far off it may be, as a share of it: what its steps may be off, independent of each other."""

    def then(self, step: Step) -> "Figure":
        """The figure that `step` makes of this one."""
        return Figure(step.value, step.unit, (*self.steps, step), hypot(self.spread, step.spread))


def tidy(value: float) -> str:
    """`value` to three significant figures, or whole above 1000, as a person would write it.

    >>> tidy(33.9394), tidy(0.56), tidy(1234.5), tidy(8.0)
    ('33.9', '0.56', '1234', '8')
    """
    if abs(value) >= 1000:
        return f"{value:.0f}"
    return f"{value:.3g}"


def rounded(value: float, decimals: int) -> str:
    """A number to so many decimals, halves away from zero as everybody rounds who does it by hand.

    >>> rounded(12.5, 0), rounded(1.25, 1), rounded(0.3, 2)
    ('13', '1.3', '0.30')
    """
    return str(Decimal(value).quantize(Decimal(1).scaleb(-decimals), ROUND_HALF_UP))


def millilitres(value: float) -> str:
    """An amount as it can be measured out: litres from a thousand on, whole ml from ten, tenths below.

    The interface says it alike: tests of both read `tests/amounts.json`.
    """
    if value >= 1000:
        large = value / 1000
        return f"{rounded(large, 0 if large >= 100 else 1 if large >= 10 else 2)} l"
    if value >= 0.95:
        return f"{rounded(value, 0 if value >= 9.95 else 1)} ml"
    finest = 1 - floor(log10(value)) if value > 0 else 0
    return f"{float(rounded(value, finest)):g} ml"


QUARTERS = ("", "¼", "½", "¾")


def _quarters(value: float, step: float) -> str:
    """A number to the nearest quarter or half, as people write it: 1½."""
    near = floor(value / step + 0.5) * step
    whole, rest = divmod(near, 1)
    return f"{whole:.0f}{QUARTERS[round(rest * 4)]}" if whole or not rest else QUARTERS[round(rest * 4)]


def lasts(minutes: float) -> str:
    """A duration as people say it, to what it is good for: minutes, quarter hours, half days, weeks.

    The interface says it alike: tests of both read `tests/durations.json`.
    """
    whole = floor(minutes + 0.5)
    if whole == 30:
        return "half an hour"
    if minutes < 90:
        return "1 h" if whole == 60 else f"{max(1 if minutes > 0 else 0, whole)} min"
    hours = minutes / 60
    if hours < 48:
        return f"{_quarters(hours, 0.25)} h"
    days = hours / 24
    return f"{_quarters(days, 0.5)} days" if days < 14 else f"{floor(days / 7 + 0.5)} weeks"


def listed(names: Sequence[str]) -> str:
    """Names as a person says them, each once.

    >>> listed(("lid", "doors", "lid")), listed(("top",))
    ('lid and doors', 'top')
    """
    once = list(dict.fromkeys(names))
    return once[0] if len(once) == 1 else f"{', '.join(once[:-1])} and {once[-1]}" if once else ""
