"""What a hand judges by eye while it works a film: not yet, right, too far."""

from collections.abc import Iterable
from dataclasses import dataclass

from ..value import Fraction, Name, NotNegative, Positive, Slug, Value
from .marks import Mark, MarkKind
from .preparation import Purpose, Sanding


@dataclass(frozen=True)
class Swing(Value):
    """How a film lies otherwise than right: as multiples of what is right, and no less than `between_least` and
    `kept_least`."""

    kept: Positive = 1.0
    kept_least: Fraction = 0.0
    touched: Positive = 1.0
    between: NotNegative = 1.0
    between_least: Fraction = 0.0
    sands: Positive = 1.0
    """How deep it is sanded."""


@dataclass(frozen=True)
class Judged(Value):
    """Something that is judged by eye: how it looks before and beyond what is right, and what is done then."""

    slug: Slug
    name: Name
    """What is judged: "wiping"."""
    marks: tuple[MarkKind, ...]
    """The marks it is judged of; of sanding none."""
    purposes: tuple[Purpose, ...]
    """What sanding is for; empty where it is judged of a film as it is laid."""
    wiped: bool
    """Whether it is only of films that are wiped."""
    soon: Swing
    far: Swing
    soon_says: str
    soon_does: str
    """What is done where it is not yet right."""
    far_says: str
    far_does: str
    """What is done where it went too far."""
    provenance: str


def judged_laid(mark: Mark, kept: float | None, hands: Iterable[Judged]) -> Judged | None:
    """What is judged by eye where a film is laid with this mark; `kept` is what wiping leaves where that was said."""
    return next((j for j in hands if mark.kind in j.marks and (mark.wiped(kept) or not j.wiped)), None)


def judged_sanded(sand: Sanding, hands: Iterable[Judged]) -> Judged | None:
    """What is judged by eye where a film is sanded; None for nothing."""
    return next((j for j in hands if sand.purpose in j.purposes), None)
