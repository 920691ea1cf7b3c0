"""What a rule of the checker is: a small piece of knowledge over a stack, with its reason and its source."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from ..changes.change import Change, WayOut
from ..layers.stack import Stack
from .findings import Grade, Sure


@dataclass(frozen=True)
class Hit:
    """A place where a rule applies: at the boundary beneath the layer `above` (the number of layers is the top)."""

    above: int
    says: str
    ways: tuple[WayOut, ...] = ()
    grade: Grade | None = None
    """Where this case is worse or milder than the rule's usual grade."""


@dataclass(frozen=True)
class Rule:
    """A rule, and the function that looks for it in a stack."""

    slug: str
    grade: Grade
    sure: Sure
    reason: str
    provenance: str
    look: Callable[[Stack], Iterable[Hit]]


RULES: dict[str, Rule] = {}
"""Every rule by its slug, in the order they are written."""

Look = Callable[[Stack], Iterable[Hit]]


def rule(
    slug: str, grade: Grade, sure: Sure, reason: str, provenance: str = "rule of the trade"
) -> Callable[[Look], Look]:
    """Make a function over a stack a rule of the checker."""

    def keep(look: Look) -> Look:
        RULES[slug] = Rule(slug, grade, sure, reason, provenance, look)
        return look

    return keep


def way(says: str, *changes: Change) -> WayOut:
    """A way out."""
    return WayOut(says, changes)
