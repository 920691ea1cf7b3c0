"""From coats to pots: how many batches a mix is made in, how large each is, and when it is mixed.

With a working life of P minutes and t minutes of work for a coat of V ml, the largest batch is V·P/t; the vessel
caps it too; then the batches are made equal. A mix that keeps serves later coats from the same pot.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

from ..book.materials import PotLoss
from ..errors import InvalidValue
from ..mixing.jar import HEADROOM
from ..value import Value

SMALLEST_ML = 20.0
"""Less than this cannot be mixed and brushed: an untested starting point."""
SITTING_MIN = 5.0
"""What taking up tools and pot costs at least, so that a life shorter than this is none."""
FIRST_SHARE, FIRST_LEAST_ML = 0.25, 30.0
MOST_BATCHES = 60
PAUSE_H = 0.5
"""With less than this to wait the painter keeps the tool in hand."""


@dataclass(frozen=True)
class CoatNeed(Value):
    """One coat of a mix on one zone: what lies on the surface when it is done, and how long that takes."""

    job: str
    zone: str
    zone_name: str
    layer: str
    number: int
    """The layer's place in its stack, from 1."""
    coat: int
    coats: int
    area_m2: float
    film_ml: float
    work_min: float
    at_h: float
    """Hours after the job is begun, at the earliest."""
    margin: float


@dataclass(frozen=True)
class MixLife:
    """How long a mix lives: `life_min` from ready (None is unknown: not a limit), `keep_h` when sealed."""

    life_min: float | None
    keep_h: float
    rest_min: float
    from_wetting: bool
    as_bought: bool

    @property
    def usable_min(self) -> float | None:
        """Minutes in which it can be brushed once it has rested."""
        if self.life_min is None:
            return None
        return max(self.life_min - (self.rest_min if self.from_wetting else 0.0), 0.0)


@dataclass(frozen=True)
class Losses:
    """What stays behind: in the pot, per batch, and in the tool, each time it is taken up dry."""

    pot: PotLoss
    tool_ml: float


@dataclass(frozen=True)
class Split:
    """Coats served by `count` equal batches of `batch_ml` each, `work_min` minutes of work a batch."""

    coats: tuple[CoatNeed, ...]
    count: int
    batch_ml: float
    work_min: float
    film_ml: float
    lost_ml: float
    margin_ml: float
    bound: str
    """What made it more than one: "life", "vessel", or "" for one."""

    @property
    def total_ml(self) -> float:
        """All batches together."""
        return self.batch_ml * self.count


def sittings(coats: Sequence[CoatNeed]) -> list[list[CoatNeed]]:
    """Coats in time order, parted where the painter puts the tool down: more than half an hour with nothing to do."""
    made: list[list[CoatNeed]] = []
    free_h = 0.0
    for coat in sorted(coats, key=lambda c: (c.at_h, c.zone, c.coat)):
        if made and coat.at_h <= free_h + PAUSE_H:
            made[-1].append(coat)
        else:
            made.append([coat])
            free_h = coat.at_h
        free_h = max(free_h, coat.at_h) + coat.work_min / 60
    return made


def volume(coats: Sequence[CoatNeed], count: int, losses: Losses) -> tuple[float, float, float]:
    """ml of one of `count` equal batches, ml lost in all of them, and ml of margin in all of them.

    The tool is taken up dry once a sitting, the pot loses its share once a batch.
    """
    film = sum(c.film_ml for c in coats)
    each = film / count
    pot = max(each * losses.pot.share / (1 - losses.pot.share), losses.pot.least_ml)
    tool = min(losses.tool_ml * len(sittings(coats)), film) / count
    margin = sum(c.margin * c.film_ml for c in coats) / film if film else 0.0
    net = each + pot + tool
    return net * (1 + margin), (pot + tool) * count, net * margin * count


def split(coats: Sequence[CoatNeed], life: MixLife, losses: Losses, vessel_ml: float) -> Split:
    """The fewest equal batches that none outlives its working life and none overfills its vessel.

    Raises InvalidValue where the life is shorter than the smallest batch that can be worked, with the numbers.
    """
    longest = max(sum(c.work_min for c in sitting) for sitting in sittings(coats))
    film = sum(c.film_ml for c in coats)
    room = vessel_ml * (1 - HEADROOM)
    usable = life.usable_min
    by_life = 1 if usable is None else ceil(longest / usable - 1e-9) if usable > 0 else MOST_BATCHES + 1
    for count in range(max(by_life, 1), MOST_BATCHES + 1):
        batch, lost, margin = volume(coats, count, losses)
        too_small = count > 1 and film / count < SMALLEST_ML
        if too_small or (usable is not None and usable < SITTING_MIN):
            break
        if batch <= room + 1e-9:
            bound = "" if count == 1 else "life" if count == by_life else "vessel"
            return Split(tuple(coats), count, batch, longest / count, film, lost, margin, bound)
    lives = "no time" if not usable else f"{usable:.0f} min"
    raise InvalidValue(
        f"It cannot be batched: the mix can be worked for {lives}, the coat takes {longest:.0f} min for {film:.0f} ml, "
        f"and less than {SMALLEST_ML:.0f} ml cannot be mixed and brushed.",
        value=round(longest, 1),
        allowed="a mix that lives longer, a quicker way of putting it on, a smaller surface at a time, a second pair "
        "of hands",
        field="batches",
    )


def _joins(run: Sequence[CoatNeed], coat: CoatNeed, life: MixLife, losses: Losses, vessel_ml: float) -> str:
    """Why a later coat cannot come from the same pot as the run; "" when it can."""
    usable, start = life.usable_min, run[0].at_h
    end = start
    for one in (*run, coat):
        end = max(end, one.at_h) + one.work_min / 60
    at_once = len(sittings([*run, coat])) == 1
    longest = max(sum(c.work_min for c in sitting) for sitting in sittings([*run, coat]))
    if usable is not None and longest > usable + 1e-9:
        return f"It stiffens after {usable:.0f} min, and together they take {longest:.0f} min."
    lives = float("inf") if life.as_bought else max(life.keep_h, (usable or 0.0) / 60)
    if not at_once and end - start > lives:
        gap = coat.at_h - start
        if usable is None and not life.keep_h:
            return f"How long it keeps is unknown; the next coat is {gap:.0f} h later: read the label."
        return f"It does not keep: it lives {lives:.0f} h, the next coat is {gap:.0f} h later."
    if volume([*run, coat], 1, losses)[0] > vessel_ml * (1 - HEADROOM):
        return f"Together they overfill a vessel of {vessel_ml:.0f} ml."
    return ""


Run = tuple[list[CoatNeed], str]
"""Coats that share their pots, and why those before them could not be joined."""


def runs(coats: Sequence[CoatNeed], life: MixLife, losses: Losses, vessel_ml: float) -> list[Run]:
    """The coats of one mix, in time order, grouped by the pots they can share; and why each group is on its own."""
    made: list[Run] = []
    for coat in sorted(coats, key=lambda c: (c.at_h, c.zone, c.coat)):
        why = _joins(made[-1][0], coat, life, losses, vessel_ml) if made else ""
        if made and not why:
            made[-1][0].append(coat)
        else:
            made.append(([coat], why))
    return made


def first_small(batch_ml: float) -> float:
    """How much to mix first so that it can still be corrected with what is left; the whole when it is that small.

    A quarter: the three quarters left hold more than would double any one part of it. Never under 30 ml.
    """
    first = max(batch_ml * FIRST_SHARE, FIRST_LEAST_ML)
    return batch_ml if first > batch_ml / 2 else first
