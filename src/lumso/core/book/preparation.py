"""What is done to a ground before the first coat, and to a dry layer: preparations and sanding."""

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval

from ..value import Name, NotNegative, Positive, Slug, Value

Purpose = Literal["scuff", "soften", "bite", "reveal", "level", "between clear coats", "blend", "burnish", "polish"]
"""What a dry layer is sanded for. The last three rub it out: they are no sanding for rules of grit, but dust all the
same."""
RUBBED: tuple[Purpose, ...] = ("blend", "burnish", "polish")
BACK: tuple[Purpose, ...] = ("bite", "reveal")
"""Sanding back, to what is beneath."""


@dataclass(frozen=True)
class Abrasive(Value):
    """A grit for a purpose: from coarse to fine, and why no coarser."""

    purpose: Purpose | Literal["raw wood", "thin washes"]
    name: Name
    coarsest: Annotated[int, Interval(ge=24, le=2000)]
    finest: Annotated[int, Interval(ge=24, le=2000)]
    why: str
    provenance: str
    takes_um: NotNegative = 0.0
    """How much of a dry film it may take at most, in µm: what cautions go by."""
    usually_um: NotNegative = 0.0
    """How much it usually takes where the hand presses most; 0 where that is the same."""

    @property
    def slug(self) -> str:
        """What it is kept by."""
        return self.purpose


Does = Literal[
    "tests for lead", "scrapes", "drills", "fills", "washes soot off", "degreases", "takes wax off", "takes rust off",
    "masks", "sands", "scuffs", "raises grain", "dusts off", "tests a patch",
]  # fmt: skip
"""What a preparation does, as rules ask for it."""


@dataclass(frozen=True)
class Preparation(Value):
    """Something done to a ground before the first coat. `order` says what goes before what."""

    slug: Slug
    name: Name
    how: str
    check: str
    order: int
    provenance: str
    wait_min: NotNegative = 0.0
    pace_m2_per_h: Positive = 10.0
    abrades: bool = False
    grit: int = 0
    kit: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    does: tuple[Does, ...] = ()


Wool = Literal["0000", "000", "00", "0"]
GRIT_OF: dict[Wool, int] = {"0000": 800, "000": 400, "00": 320, "0": 240}
"""The paper that scratches about as fine as a grade of wool: rule of thumb of the trade."""


@dataclass(frozen=True)
class Sanding(Value):
    """Sanding or rubbing a dry layer: with what, what for, how and where.

    `grit` is that of the paper; of a pad or wool, the paper that scratches as fine.
    """

    grit: Annotated[int, Interval(ge=24, le=2000)]
    purpose: Purpose
    abrasive: Literal["paper", "synthetic pad", "bronze wool", "steel wool"] = "paper"
    by: Literal["hand", "machine"] = "hand"
    where: Literal["all", "edges", "spots"] = "all"

    @property
    def rubs(self) -> bool:
        """Whether it only rubs out."""
        return self.purpose in RUBBED

    @property
    def back(self) -> bool:
        """Whether it goes back to what is beneath."""
        return self.purpose in BACK

    @property
    def named(self) -> str:
        """With what, in words: "P320 paper", "0000 steel wool"."""
        if "wool" in self.abrasive:
            grade = min(GRIT_OF, key=lambda g: abs(GRIT_OF[g] - self.grit))
            return f"{grade} {self.abrasive}"
        return f"P{self.grit} {self.abrasive}"


@dataclass(frozen=True)
class SandedBack(Value):
    """How far a dry layer may be sanded back, in words, and with what; nothing where it is not."""

    name: str
    sandings: tuple[Sanding, ...]

    @property
    def grit(self) -> int:
        """Its paper; 0 for none."""
        return self.sandings[0].grit if self.sandings else 0


SANDED_BACK = (
    SandedBack("not sanded", ()),
    SandedBack("softened", (Sanding(220, "soften"),)),
    SandedBack("worn", (Sanding(120, "bite"),)),
    SandedBack("well worn", (Sanding(80, "reveal"),)),
)
"""Steps from no sanding to much, each by what abrasives are advised for. Untested starting points."""
