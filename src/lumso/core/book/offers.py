"""What the rules offer where something is missing: which recipe answers a need."""

from dataclasses import dataclass
from typing import Literal

from ..value import Slug, Value

Need = Literal[
    "bonding primer", "insulating coat", "stain blocker", "rust primer", "milk paint that grips", "rubbed-in wash",
    "thinned first coat", "plain paint", "clear coat", "dead-matt clear coat", "hard clear coat",
    "exterior clear coat", "clear wax", "oil wax", "dark hollows", "slow glaze", "lasting grit",
]  # fmt: skip
"""What a stack may want, by what it must do."""

SEALERS: tuple[Need, ...] = (
    "clear coat", "dead-matt clear coat", "hard clear coat", "exterior clear coat", "clear wax", "oil wax",
    "insulating coat",
)  # fmt: skip
"""What can be the last film."""


@dataclass(frozen=True)
class Offer(Value):
    """The recipe that is offered for a need. That it has what the need asks for is checked when it is loaded."""

    need: Need
    recipe: Slug

    @property
    def slug(self) -> str:
        """What it is kept by."""
        return self.need
