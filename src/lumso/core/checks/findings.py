"""What the painter should know about a job, where it arises, and the remedies."""

from dataclasses import dataclass
from typing import Literal

from ..changes.change import Remedy
from ..value import Value

Grade = Literal["can hurt", "will fail", "risky", "good to know"]
Sure = Literal["certain", "likely", "a guess"]
GRADES: tuple[Grade, ...] = ("can hurt", "will fail", "risky", "good to know")
"""The worst first. What can hurt a person is a class of its own: it is answered, never accepted away, and counts
neither as an alarm nor as quiet."""
ALARMS: tuple[Grade, ...] = ("will fail", "risky")


@dataclass(frozen=True)
class Finding(Value):
    """Something the painter should know. `at` is a JSON pointer into the job.

    In a stack it arises at the boundary between the layers `below` and `above`: "" below is the ground, ""
    above is what touches the finished piece. `accepted` says why a painter means it; None while nobody has.
    """

    grade: Grade
    at: str
    says: str
    reason: str
    provenance: str
    rule: str = ""
    sure: Sure = "likely"
    below: str = ""
    above: str = ""
    remedies: tuple[Remedy, ...] = ()
    accepted: str | None = None
