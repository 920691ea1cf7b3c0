"""Numbers that carry their own working, so that each can be opened to see why."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import floor
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


@dataclass(frozen=True)
class Figure(Value):
    """A value in `unit` with the chain of steps that made it, first step first."""

    value: float
    unit: str
    steps: tuple[Step, ...]

    def then(self, step: Step) -> "Figure":
        """The figure that `step` makes of this one."""
        return Figure(step.value, step.unit, (*self.steps, step))


def tidy(value: float) -> str:
    """`value` to three significant figures, or whole above 1000, as a person would write it.

    >>> tidy(33.9394), tidy(0.56), tidy(1234.5), tidy(8.0)
    ('33.9', '0.56', '1234', '8')
    """
    if abs(value) >= 1000:
        return f"{value:.0f}"
    return f"{value:.3g}"


def _nearest(value: float, step: float) -> str:
    return f"{floor(value / step + 0.5) * step:g}"


def lasts(minutes: float) -> str:
    """A duration as people say it, to what it is good for: minutes, quarter hours, half days, weeks.

    The interface says it alike: tests of both read `tests/durations.json`.
    """
    if minutes < 90:
        return f"{max(1 if minutes > 0 else 0, floor(minutes + 0.5))} min"
    hours = minutes / 60
    if hours < 48:
        return f"{_nearest(hours, 0.25)} h"
    days = hours / 24
    return f"{_nearest(days, 0.5)} days" if days < 14 else f"{floor(days / 7 + 0.5)} weeks"


def listed(names: Sequence[str]) -> str:
    """Names as a person says them, each once.

    >>> listed(("lid", "doors", "lid")), listed(("top",))
    ('lid and doors', 'top')
    """
    once = list(dict.fromkeys(names))
    return once[0] if len(once) == 1 else f"{', '.join(once[:-1])} and {once[-1]}" if once else ""
