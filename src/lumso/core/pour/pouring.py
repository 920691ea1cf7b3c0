"""What is still to be poured. A pour too far makes the others larger, so that the shares hold, as far as that can be.

Let part i be planned with t_i g and hold p_i g. The pot becomes k times what was planned, with k = max(1, p_i/t_i) over
the parts that went over their mark, and each part is poured to k·t_i. Where vessel or shelf do not allow k, it is what
they allow, and what is then too much of the whole is said by name.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..book.materials import Vessel
from ..book.recipes import Limit
from ..figure import tidy
from ..log.acts import Stuff
from ..log.pot import CRUMB_G, PotState
from ..mixing.jar import HEADROOM, vessel_for
from ..mixing.mix import Mix
from ..value import Value

MARK = 0.01
"""A pour this close to its mark, as a share of it, is at the mark. Both ends of a share off by it stay within 3 %."""
TOLERANCE = 0.03
"""The largest relative change of a share that still is the same mix, where a recipe says nothing else."""


@dataclass(frozen=True)
class PourLine(Value):
    """One thing to pour, as planned: a part, or one of the paints its colour is mixed from."""

    stuff: Stuff
    planned_g: float

    @property
    def planned_ml(self) -> float:
        """The same as it measures."""
        return self.planned_g / self.stuff.bulk_density


def lines_of(mix: Mix) -> tuple[PourLine, ...]:
    """What is poured for a mix, in its order; a part mixed from several paints is poured paint by paint."""
    made = []
    for part in mix.parts:
        if part.mass.value <= 0:
            continue
        bulk, true = part.mass.value / part.poured.value, part.mass.value / part.adds_ml
        lots = [(p.name, p.hex, p.g) for p in part.paints] or [(part.colour, part.hex, part.mass.value)]
        for colour, shade, g in lots:
            stuff = Stuff(part.component, part.material, part.name, part.role, part.solid, bulk, true, colour, shade)  # type: ignore[arg-type]
            made.append(PourLine(stuff, g))
    return tuple(made)


LineState = Literal["to pour", "at the mark", "over"]


@dataclass(frozen=True)
class LineNow(Value):
    """A line as it stands: what is in the pot of it, the mark it is poured to, and what is left to pour.

    `share` is of the whole as poured if all is poured to the marks; `planned_share` as the recipe says.
    """

    stuff: Stuff
    planned_g: float
    poured_g: float
    mark_g: float
    left_g: float
    left_ml: float
    state: LineState
    share: float
    planned_share: float
    off: float
    """How far its share is off, relative to itself."""
    near_g: float
    """This close to its mark it is at the mark."""
    readable: bool
    """Whether the scale's step can tell the mark within the tolerance."""
    as_measured: bool
    """Whether it is still to be poured just as the batch was measured with the kit."""


@dataclass(frozen=True)
class PourPlan(Value):
    """What is still to be poured into a pot, and what comes of it."""

    lines: tuple[LineNow, ...]
    times: float
    """How large the pot becomes, as a multiple of what was planned."""
    wanted_times: float
    """How large it would have to become for all shares to hold."""
    too_far: bool
    """Whether a pour went too far, so that it would have to become larger."""
    grown: bool
    """Whether it becomes larger."""
    poured_g: float
    total_g: float
    total_ml: float
    planned_ml: float
    vessel: str
    fits: bool
    next: int
    """The line to pour now; -1 where nothing is left to pour."""
    out_g: float
    """What to take out of the last pour to be at its mark again; 0 where nothing can or need be."""
    cannot: tuple[str, ...]
    """What cannot be kept, in words."""
    says: tuple[str, ...]
    """What was changed, in words."""


@dataclass(frozen=True)
class Bounds:
    """What a pot may become: by the largest vessel there is, by what is on the shelf (g by material), by limits."""

    vessels: Sequence[Vessel]
    largest: Vessel
    on_shelf: Mapping[str, float]
    limits: Sequence[Limit] = ()
    tolerance: float = TOLERANCE
    step_g: float = 0.0
    """What the scale counts by; 0 for none."""


def _most_times(lines: Sequence[PourLine], held: Mapping[str, float], bounds: Bounds, room_ml: float) -> float:
    """How large the pot may become by vessel and shelf."""
    planned_ml = sum(line.planned_g / line.stuff.true_density for line in lines)
    most = room_ml / planned_ml if planned_ml else 1.0
    for line in lines:
        if line.stuff.material in bounds.on_shelf and line.planned_g > 0:
            there = bounds.on_shelf[line.stuff.material] + held.get(line.stuff.key, 0.0)
            most = min(most, there / line.planned_g)
    return most


def pour_plan(lines: Sequence[PourLine], pot: PotState, bounds: Bounds) -> PourPlan:
    """What is still to be poured of `lines`, given what is in the pot."""
    held: dict[str, float] = {}
    for h in pot.held:
        held[h.stuff.key] = held.get(h.stuff.key, 0.0) + h.g
    carried = {h.stuff.key for c in pot.carried for h in c.held}
    over = [held.get(x.stuff.key, 0.0) / x.planned_g for x in lines if _is_over(held.get(x.stuff.key, 0.0), x.planned_g,
            bounds.step_g)]  # fmt: skip
    wanted = max([1.0, *over])
    other_ml = sum(h.adds_ml for h in pot.held if h.stuff.key not in {x.stuff.key for x in lines})
    room_ml = bounds.largest.capacity_ml * (1 - HEADROOM) - other_ml
    most = max(_most_times(lines, held, bounds, room_ml), 0.0)
    chosen = wanted if pot.settled is None else pot.settled
    times = max(min(chosen, most), 1.0) if most >= 1.0 else min(chosen, 1.0)
    marks = [max(times * x.planned_g, held.get(x.stuff.key, 0.0)) for x in lines]
    poured_ml = [m / x.stuff.bulk_density for m, x in zip(marks, lines, strict=True)]
    whole_ml, planned_ml = sum(poured_ml), sum(x.planned_ml for x in lines)
    shown = []
    for line, mark, ml in zip(lines, marks, poured_ml, strict=True):
        g = held.get(line.stuff.key, 0.0)
        target = times * line.planned_g
        near = MARK * target + bounds.step_g / 2
        share, planned_share = ml / whole_ml, line.planned_ml / planned_ml
        state: LineState = "to pour"
        if _is_over(g, target, bounds.step_g):
            state = "over"
        elif g >= target - near:
            state = "at the mark"
        left = max(mark - g, 0.0) if state == "to pour" else 0.0
        lots = sum(x.stuff.component == line.stuff.component for x in lines)
        as_measured = times <= 1 + 1e-9 and g <= CRUMB_G and lots == 1
        readable = bounds.step_g == 0 or bounds.step_g / 2 <= bounds.tolerance * target
        shown.append(
            LineNow(line.stuff, line.planned_g, g, target, left, left / line.stuff.bulk_density, state, share,
                    planned_share, share / planned_share - 1, near, readable, as_measured)
        )  # fmt: skip
    total_ml = sum(m / x.stuff.true_density for m, x in zip(marks, lines, strict=True)) + other_ml
    vessel, fits = vessel_for(total_ml, bounds.vessels)
    first = next((i for i, x in enumerate(shown) if x.state == "to pour"), -1)
    return PourPlan(
        tuple(shown), times, wanted, wanted > 1, times > 1 + 1e-9, pot.g,
        sum(marks) + sum(h.g for h in pot.held if h.stuff.key not in {x.stuff.key for x in lines}), total_ml,
        sum(x.planned_g / x.stuff.true_density for x in lines), vessel.name, fits, first,
        _to_take_out(pot, lines, shown), tuple(_cannot(shown, bounds, times, wanted, most)),
        tuple(_changed(shown, pot, times, vessel.name, carried)),
    )  # fmt: skip


def _is_over(g: float, mark_g: float, step_g: float) -> bool:
    """Whether something went over its mark by more than a scale and a hand can help."""
    return g > mark_g * (1 + MARK) + step_g / 2 + CRUMB_G


def _to_take_out(pot: PotState, lines: Sequence[PourLine], shown: Sequence[LineNow]) -> float:
    """What of the last pour would have to come out for all to be as it was planned."""
    if pot.state != "pouring" or not pot.pours:
        return 0.0
    last = pot.pours[-1]
    for line, now in zip(lines, shown, strict=True):
        if line.stuff.key == last.stuff.key:
            others = max([1.0, *(x.poured_g / x.planned_g for x in shown if x.stuff.key != line.stuff.key)])
            return max(min(now.poured_g - others * line.planned_g, last.g - last.out_g), 0.0)
    return 0.0


def _cannot(shown: Sequence[LineNow], bounds: Bounds, times: float, wanted: float, most: float) -> list[str]:
    found = []
    if times < wanted - 1e-9:
        off = [x for x in shown if abs(x.off) > bounds.tolerance]
        if most < wanted - 1e-9:
            found.append(_why_not(shown, bounds, most))
        found += [f"{_named(x)}: {x.share:.1%} of the whole, planned {x.planned_share:.1%}." for x in off]
    shares: dict[str, float] = {}
    for x in shown:
        shares[x.stuff.component] = shares.get(x.stuff.component, 0.0) + x.share
    for limit in bounds.limits:
        share = shares.get(limit.component)
        if share is not None and not limit.least - 1e-6 <= share <= limit.most + 1e-6:
            way = "most" if share > limit.most else "least"
            bound = limit.most if share > limit.most else limit.least
            found.append(f"{limit.component.capitalize()} {share:.0%}, at {way} {bound:.0%}: {limit.reason}")
    found += [
        f"{_named(x)}: {tidy(x.mark_g)} g is too little for this scale, which counts by {tidy(bounds.step_g)} g. "
        "Measure it by spoon or syringe, or mix more."
        for x in shown
        if not x.readable and x.state == "to pour"
    ]
    return found


def _why_not(shown: Sequence[LineNow], bounds: Bounds, most: float) -> str:
    for x in shown:
        there = bounds.on_shelf.get(x.stuff.material)
        if there is not None and x.planned_g > 0 and (there + x.poured_g) / x.planned_g <= most + 1e-9:
            return f"On the shelf are {tidy(there)} g of {_named(x).lower()}: that is not enough to make up for it."
    return f"The {bounds.largest.name} is full before that: {tidy(bounds.largest.capacity_ml)} ml with room to stir."


def _named(line: LineNow) -> str:
    colour = f", {line.stuff.colour}" if line.stuff.colour else ""
    return f"{line.stuff.name}{colour}"


def _changed(shown: Sequence[LineNow], pot: PotState, times: float, vessel: str, carried: set[str]) -> list[str]:
    says = []
    if times > 1 + 1e-9:
        more = [x for x in shown if x.state == "to pour" and x.left_g > 0]
        says.append(f"All of it is {times:.3g} times what was planned now, so that the shares hold.")
        says += [f"{_named(x)}: {tidy(x.left_g)} g more, to {tidy(x.mark_g)} g." for x in more if x.poured_g > CRUMB_G]
        if pot.begun and pot.begun.vessel and vessel != pot.begun.vessel:
            says.append(f"It takes a larger pot: {vessel}.")
    if carried:
        says.append("What came from another jar counts in.")
    return says
