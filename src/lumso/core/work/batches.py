"""From coats to pots: how many batches a mix is made in, how large each is, and which coats it serves.

With a working life of P minutes and t minutes of work for a coat of V ml, the largest batch is V·P/t; the vessel
caps it too; then the batches are made equal. A mix that keeps serves later coats from the same pot. What is mixed is
V_mix = (V_film / (1 − clings to the pot) + stays in the tool · loadings) · (1 + margin): the pot loses its share once
a batch, the tool is taken up dry once a sitting, the margin comes once, after losses.
"""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from math import ceil

from ..book.habits import Habits
from ..book.materials import PotLoss
from ..book.techniques import Tool
from ..errors import InvalidValue
from ..figure import Figure, Step, tidy
from ..learn.margin import Risk, margin_for
from ..mixing.jar import HEADROOM
from ..value import Value

MOST_BATCHES = 60


@dataclass(frozen=True)
class CoatNeed(Value):
    """One coat of a mix on one zone, or one of its pots: what it lays, how long that takes, and when it is due.

    `work_min` is hands on. Part-dry work divides a coat into at least `patches`, each with `idle_min` of waiting.
    """

    id: str
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
    at_min: float
    """Minutes after the job is begun, at the earliest."""
    margin: float
    patches: int = 1
    idle_min: float = 0.0
    go: int = 1
    goes: int = 1
    """Which of the goes it is painted in, one after the other with tape between."""
    risk: Risk | None = None
    """How its amount may be off and how often it may run short; None takes the margin."""

    @property
    def bench_min(self) -> float:
        """Minutes from its first stroke to its last, in one batch."""
        return self.work_min + self.patches * self.idle_min

    def bench_in(self, count: int) -> float:
        """Minutes at the bench for each of `count` equal batches: a batch is worked in whole patches."""
        return self.work_min / count + ceil(self.patches / count) * self.idle_min


@dataclass(frozen=True)
class MixLife:
    """How long a mix lives here: `life_min` from ready (None is unknown: not a limit), `keep_min` when sealed."""

    life_min: float | None
    keep_min: float
    rest_min: float
    from_wetting: bool
    as_bought: bool
    mixing_min: float = 0.0
    """Minutes that mixing takes: they count for a mix that lives from when it is wetted."""

    @property
    def usable_min(self) -> float | None:
        """Minutes in which it can be brushed once it is mixed and has rested."""
        if self.life_min is None:
            return None
        gone = self.mixing_min + self.rest_min if self.from_wetting else 0.0
        return max(self.life_min - gone, 0.0)

    @property
    def reach_min(self) -> float:
        """Minutes from ready in which a later sitting can still use it."""
        return float("inf") if self.as_bought else max(self.keep_min, self.usable_min or 0.0)


@dataclass(frozen=True)
class Losses:
    """What stays behind: in the pot, per batch, and in the tool, each time it is taken up dry."""

    pot: PotLoss
    tool: Tool
    once: bool = False
    """Kept wrapped between coats: the tool is taken up dry only once."""


@dataclass(frozen=True)
class PotContent:
    """One of `count` equal pots in ml: what reaches the surface, what pot and tool keep, and the margin."""

    film_ml: float
    pot_ml: float
    tool_ml: float
    margin: float
    """As a share, of all the rest."""
    loadings: int

    @property
    def lost_ml(self) -> float:
        """What never reaches the surface."""
        return self.pot_ml + self.tool_ml

    @property
    def margin_ml(self) -> float:
        """What is mixed to be safe."""
        return (self.film_ml + self.lost_ml) * self.margin

    @property
    def mix_ml(self) -> float:
        """What is mixed."""
        return self.film_ml + self.lost_ml + self.margin_ml


@dataclass(frozen=True)
class Split:
    """Coats served by `count` equal batches, `bench_min` minutes at the bench each."""

    coats: tuple[CoatNeed, ...]
    count: int
    pot: PotContent
    bench_min: float
    bound: str
    """What made it more than one: "life", "vessel", or "" for one."""

    @property
    def total_ml(self) -> float:
        """All batches together."""
        return self.pot.mix_ml * self.count


Sitting = tuple[CoatNeed, ...]
"""Coats that are laid one after the other with the tool in hand."""


def sittings(coats: Sequence[CoatNeed], pause_min: float) -> tuple[Sitting, ...]:
    """Coats in time order, parted where the painter puts the tool down: more than a pause with nothing to do."""
    made: list[list[CoatNeed]] = []
    free = 0.0
    for coat in sorted(coats, key=lambda c: (c.at_min, c.zone, c.coat)):
        if made and coat.at_min <= free + pause_min:
            made[-1].append(coat)
        else:
            made.append([coat])
            free = coat.at_min
        free = max(free, coat.at_min) + coat.bench_min
    return tuple(tuple(sitting) for sitting in made)


def _pot(film_ml: float, margin_of_film_ml: float, count: int, loadings: int, losses: Losses,
         risk: Risk | None = None) -> PotContent:  # fmt: skip
    each = film_ml / count
    pot = max(each * losses.pot.share / (1 - losses.pot.share), losses.pot.least_ml)
    loadings = 1 if losses.once else loadings
    tool = min(losses.tool.holds_ml * loadings, film_ml) / count
    margin = margin_of_film_ml / film_ml if film_ml else 0.0
    if risk is not None and film_ml:
        # All batches run short together: the rate is off alike in each.
        margin = margin_for(film_ml, (pot + tool) * count, risk)
    return PotContent(each, pot, tool, margin, loadings)


def _risk_of(coats: Sequence[CoatNeed]) -> Risk | None:
    """The risk a pot is mixed for: the smallest that any of its coats asks for."""
    return min((c.risk for c in coats if c.risk), key=lambda r: -r.one_in, default=None)


def pot_of(coats: Sequence[CoatNeed], count: int, losses: Losses, pause_min: float) -> PotContent:
    """One of `count` equal pots for these coats. The tool never keeps more than the film itself."""
    film = sum(c.film_ml for c in coats)
    margin = sum(c.margin * c.film_ml for c in coats)
    return _pot(film, margin, count, len(sittings(coats, pause_min)), losses, _risk_of(coats))


def split(coats: Sequence[CoatNeed], life: MixLife, losses: Losses, vessel_ml: float, habits: Habits) -> Split:
    """The fewest equal batches that none outlives its working life and none overfills its vessel.

    Raises InvalidValue where the life is shorter than the smallest batch that can be worked, with the numbers.
    """
    longest = max(sittings(coats, habits.pause_min), key=lambda s: sum(c.bench_min for c in s))
    film = sum(c.film_ml for c in coats)
    holds = vessel_ml * (1 - HEADROOM)
    usable = life.usable_min
    too_short = usable is not None and usable < habits.shortest_life_min
    for count in range(1, 1 if too_short else MOST_BATCHES + 1):
        made = pot_of(coats, count, losses, habits.pause_min)
        bench = sum(c.bench_in(count) for c in longest)
        if count > 1 and film / count < habits.smallest_batch_ml:
            break
        lives = usable is None or bench <= usable + 1e-9
        if lives and made.mix_ml <= holds + 1e-9:
            before = sum(c.bench_in(count - 1) for c in longest) if count > 1 else 0.0
            by_life = usable is not None and before > usable + 1e-9
            return Split(tuple(coats), count, made, bench, "" if count == 1 else "life" if by_life else "vessel")
    minutes = sum(c.bench_min for c in longest)
    lives_for = "no time" if not usable else f"{usable:.0f} min"
    raise InvalidValue(
        f"It cannot be batched: the mix can be worked for {lives_for}, the coat takes {minutes:.0f} min for "
        f"{film:.0f} ml, and less than {habits.smallest_batch_ml:.0f} ml cannot be mixed and brushed.",
        value=round(minutes, 1),
        allowed="a mix that lives longer, a quicker way of putting it on, a smaller surface at a time, a second pair "
        "of hands",
        field="batches",
    )


class _Filling:
    """A pot as coats are joined to it, in time order."""

    def __init__(self, coat: CoatNeed) -> None:
        self.coats = [coat]
        self.start, self.free = coat.at_min, coat.at_min + coat.bench_min
        self.sitting = self.longest = coat.bench_min
        self.loadings = 1
        self.film, self.margin = coat.film_ml, coat.margin * coat.film_ml

    def joins(self, coat: CoatNeed, life: MixLife, losses: Losses, vessel_ml: float, habits: Habits) -> str:
        """Join a later coat; or why it cannot come from the same pot."""
        later = coat.at_min > self.free + habits.pause_min
        sitting = coat.bench_min if later else self.sitting + coat.bench_min
        longest, usable = max(self.longest, sitting), life.usable_min
        if usable is not None and longest > usable + 1e-9:
            return f"It stiffens after {usable:.0f} min, and together they take {longest:.0f} min."
        free, loadings = max(self.free, coat.at_min) + coat.bench_min, self.loadings + later
        if loadings > 1 and free - self.start > life.reach_min + 1e-9:
            gap = (coat.at_min - self.start) / 60
            if usable is None and not life.keep_min:
                return f"How long it keeps is unknown; the next coat is {gap:.0f} h later: read the label."
            return f"It does not keep: it lives {life.reach_min / 60:.0f} h, the next coat is {gap:.0f} h later."
        film, margin = self.film + coat.film_ml, self.margin + coat.margin * coat.film_ml
        if _pot(film, margin, 1, loadings, losses, _risk_of((*self.coats, coat))).mix_ml > vessel_ml * (1 - HEADROOM):
            return f"Together they overfill a vessel of {vessel_ml:.0f} ml."
        self.coats.append(coat)
        self.free, self.sitting, self.longest, self.loadings = free, sitting, longest, loadings
        self.film, self.margin = film, margin
        return ""


Run = tuple[tuple[CoatNeed, ...], str]
"""Coats that share their pots, and why those before them could not be joined."""
LATE = "One painter cannot get to it while the pot before it lives."


def runs(coats: Sequence[CoatNeed], life: MixLife, losses: Losses, vessel_ml: float, habits: Habits,
         apart: Collection[str] = ()) -> tuple[Run, ...]:  # fmt: skip
    """The coats of one mix, in time order, grouped by the pots they can share; and why each group is on its own.

    A coat whose id is in `apart` begins a pot of its own: somebody at the bench could not get to it in time.
    """
    made: list[tuple[_Filling, str]] = []
    for coat in sorted(coats, key=lambda c: (c.at_min, c.zone, c.coat)):
        why = ""
        if made:
            why = LATE if coat.id in apart else made[-1][0].joins(coat, life, losses, vessel_ml, habits)
        if why or not made:
            made.append((_Filling(coat), why))
    return tuple((tuple(pot.coats), why) for pot, why in made)


def needed(on_surface: Figure, done: Split, losses: Losses) -> Figure:
    """What to mix for one of the batches, in ml, with its working; `on_surface` is what all of them lay."""
    pot = done.pot
    figure = on_surface
    if done.count > 1:
        how = f"{tidy(on_surface.value)} ml ÷ {done.count} equal batches"
        figure = figure.then(Step("In one batch", how, pot.film_ml, "ml", "geometry"))
    share, with_pot = losses.pot.share, pot.film_ml + pot.pot_ml
    by_share = pot.pot_ml > losses.pot.least_ml
    how = f"{tidy(pot.film_ml)} ml ÷ (1 − {share:.0%})" if by_share else f"at least {losses.pot.least_ml:g} ml a batch"
    note = f"{losses.pot.cling} mixes leave about {share:.0%} on the wall"
    figure = figure.then(Step("Clings to the pot", how, with_pot, "ml", "starting value", note))
    count = "" if pot.loadings == 1 else f", taken up dry {pot.loadings} times"
    shared = f", shared by {done.count} batches" if done.count > 1 else ""
    how = f"+ {tidy(pot.tool_ml)} ml in the {losses.tool.name}{count}{shared}"
    note = losses.tool.provenance
    figure = figure.then(Step("Stays in the tool", how, with_pot + pot.tool_ml, "ml", "starting value", note))
    how = f"{tidy(with_pot + pot.tool_ml)} ml × {1 + pot.margin:.4g}"
    risk = _risk_of(done.coats)
    if risk is None:
        return figure.then(Step("Margin", how, pot.mix_ml, "ml", "your choice"))
    often = f"so that it runs short one time in {risk.one_in:g}: rate, area and losses as far off as they may be"
    return figure.then(Step("Margin by risk", how, pot.mix_ml, "ml", "your choice", often))


def trial_batch(batch_ml: float, habits: Habits) -> float:
    """How much to mix first so that it can still be corrected with what is left; the whole when it is that small.

    A quarter: the three quarters left hold more than would double any one part of it. Never under 30 ml.
    """
    first = max(batch_ml * habits.trial_share, habits.trial_least_ml)
    return batch_ml if first > batch_ml / 2 else first
