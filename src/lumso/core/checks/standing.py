"""How a job stands: how much of it will fail or can hurt somebody as it is planned, and the worst of it."""

from collections.abc import Iterable
from dataclasses import dataclass

from ..value import Value
from .findings import Finding

WORDS = (("can hurt", "can hurt somebody"), ("will fail", "will fail"))
"""What is said at the head of everything, the worst first."""


@dataclass(frozen=True)
class Standing(Value):
    """What speaks against a job as it is planned. What a painter accepted does not count."""

    hurts: int = 0
    fails: int = 0
    zone: str = ""
    """The id of the zone of the worst; "" where there is none."""
    rule: str = ""
    """The rule of the worst."""
    says: str = ""
    """Both numbers and the worst by name; "" where nothing speaks against it."""


def standing_of(found: Iterable[tuple[str, str, Finding]]) -> Standing:
    """How a job stands by its findings, each with the id and the name of its zone. What several zones have is one."""
    count = {grade: dict[tuple[str, str], tuple[str, str, Finding]]() for grade, _ in WORDS}
    for zone, name, one in found:
        if one.grade in count and one.accepted is None:
            count[one.grade].setdefault((one.rule, one.says), (zone, name, one))
    every = [first for grade, _ in WORDS for first in count[grade].values()]
    if not every:
        return Standing()
    zone, name, worst = every[0]
    many = ", ".join(f"{len(count[grade])} {words}" for grade, words in WORDS if count[grade])
    return Standing(len(count["can hurt"]), len(count["will fail"]), zone, worst.rule, f"{many}. {name}: {worst.says}")
