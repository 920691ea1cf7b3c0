"""What a mix is put on with, and how."""

import re
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval

from ..value import Name, NotNegative, Positive, Slug, Value


@dataclass(frozen=True)
class Tool(Value):
    """What the mix is put on with, and what stays in it each time it is taken up dry."""

    slug: Slug
    name: Name
    holds_ml: NotNegative
    provenance: str


Act = Literal["lifts", "rubs in", "drags", "stands in peaks", "levels", "few strokes", "resists", "steers", "tapes",
              "stays in recesses", "stays on peaks", "patchy", "fills pores", "stacks", "follows texture"]  # fmt: skip


@dataclass(frozen=True)
class Thickness(Value):
    """A word painters say for how thick a textured coat lies, and what it is in mm of mean thickness."""

    slug: Slug
    name: Name
    mm: Positive
    looks: str
    provenance: str


@dataclass(frozen=True)
class PartDry(Value):
    """Work on a coat that is neither wet nor dry: it opens and it closes, in minutes after laying."""

    opens_min: NotNegative
    closes_min: Positive
    what: str
    check: str
    kind: Literal["part-dry", "wipe back"] = "part-dry"

    @property
    def briefly(self) -> str:
        """What is done, without how: its first clause."""
        return re.split(r"[,:;.]| with ", self.what)[0]


Sign = Literal[
    "too white", "too dark", "lap line", "run", "sag", "lifted", "finger mark", "over-sanded",
    "chip where none was wanted", "tape lifted it", "powder specks", "too thick", "too thin",
    "lumps", "wrong colour", "too much poured", "skin or smell",
]  # fmt: skip
"""What a painter sees that is wrong, whatever it was put on with."""


@dataclass(frozen=True)
class Rescue(Value):
    """What is done about a sign, now and once it is dry, and what that costs. It holds for these kinds of film, "mix"
    for what is still in the pot; empty for any film."""

    slug: Slug
    sign: Sign
    kinds: tuple[str, ...]
    wet: str
    dry: str
    costs: str
    provenance: str


@dataclass(frozen=True)
class Fault(Value):
    """What commonly goes wrong with a technique, and how it is rescued."""

    sign: str
    rescue: str


@dataclass(frozen=True)
class Technique(Value):
    """A way of putting a mix on."""

    slug: Slug
    name: Name
    wet_rate_ml_per_m2: Positive
    pace_m2_per_h: Positive
    surfaces: tuple[str, ...]
    """The kinds of surface it is for; empty for any."""
    tools: tuple[Slug, ...]
    """Usual tools, the best first."""
    rate_includes_ground: bool
    """True when the wet rate was taken on its own thirsty ground, so that nothing is added for thirst."""
    how: str
    provenance: str
    touched: Annotated[float, Interval(gt=0, le=1)] = 1.0
    """The share of the surface it usually touches."""
    touched_least: Annotated[float, Interval(gt=0, le=1)] = 1.0
    touched_most: Annotated[float, Interval(gt=0, le=1)] = 1.0
    acts: tuple[Act, ...] = ()
    """What it does beyond laying on."""
    direction: str = ""
    """Which way the strokes go, and in which order."""
    needs_open_min: NotNegative = 0.0
    """How long the mix must stay open for it."""
    lays_m2_per_h: NotNegative = 0.0
    """How fast a section is laid on before it is worked; 0 where it is not worked in sections."""
    passes: Annotated[int, Interval(ge=0, le=10)] = 0
    pass_m2_per_h: NotNegative = 0.0
    tool_width_mm: NotNegative = 0.0
    part_dry: PartDry | None = None
    right_when: str = ""
    faults: tuple[Fault, ...] = ()
    plain: bool = False
    """An even coat, so that a label's spreading rate may stand in for the wet rate."""
    next_wet_rate_ml_per_m2: NotNegative = 0.0
    """The wet rate over a coat of the same film, which drinks less; 0 where it is the same."""
    usual_mm: Annotated[float, Interval(gt=0, le=10)] = 1.0
    """How thick it is laid where nobody has said, in mm; only where it is laid thick."""
    lost_to_cloth: Annotated[float, Interval(ge=0, lt=1)] = 0.0
    """The share of what is put on that runs off or is wiped into the cloth, above its wet rate."""
    per_mm: bool = False
    """True for textured and trowelled coats: the wet rate is for each mm of mean thickness."""
