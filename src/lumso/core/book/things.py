"""Things that are bought and used up beside what is mixed: paper, tape, cloths, gloves, masks, brushes, jars."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval

from ..value import Name, Positive, Slug, Value

Aisle = Literal[
    "paints and powders", "media, waxes and sealers", "abrasives", "tape and cover", "cloths and gloves", "masks",
    "brushes and tools", "cleaning and preparing", "jars",
]  # fmt: skip
"""Where in a shop it stands, in the order one goes round."""
AISLES: tuple[Aisle, ...] = Aisle.__args__  # type: ignore[attr-defined]
Per = Literal["m2", "edge", "session", "job", "clean", "kept"]
"""What it is counted by: a m² worked, a m of edge, each time the bench is laid out, each job, each cleaning of the
tool, each batch that is kept."""
Wants = Literal["mix", "lay", "wipe back", "part-dry", "clean", "dust", "lead dust", "solvent"]


@dataclass(frozen=True)
class Thing(Value):
    """Something that is used up: so many for each of what it is counted by, found by the tools of an operation, or by
    what is done (`kinds`). `worn` is how much of one each use takes where it lasts longer than one."""

    slug: Slug
    name: Name
    aisle: Aisle
    unit: Literal["piece", "m"]
    per: Per
    amount: Positive
    provenance: str
    found_by: tuple[str, ...] = ()
    kinds: tuple[Wants, ...] = ()
    worn: Annotated[float, Interval(gt=0, le=1)] = 1.0

    @property
    def lasts(self) -> bool:
        """Whether it survives a job: it is worn, not used up, and nobody buys one for each."""
        return self.worn <= LASTS


LASTS = 0.1
"""What is worn by no more than this at each use is kept and cleaned, not bought anew."""
CLOGS = {"prepare": 1.0, "sand": 1.6}
"""Paper clogs faster on paint and wax than on bare wood: so many times as many sheets. Rule of thumb, untested."""
