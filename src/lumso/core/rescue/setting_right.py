"""What to add so that a mix becomes the word it should be: carefully, within its limits, or why it cannot.

The first addition is six tenths of what the mix is believed to want, as painters do it; later ones all of it, as the
pot is known better then. Among what may be added the amount is the one most likely to end at the word, and no more.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from math import exp
from typing import Literal

from ..book.materials import Material
from ..book.recipes import Limit
from ..figure import tidy
from ..log.acts import Stuff
from ..log.pot import PotHeld
from ..mixing.consistency import Flow, Ingredient, flow_of
from ..value import Value
from .belief import Chance, Guess, Outcome, Seen, WordLadder, believed, outcome

FIRST = 0.6
"""The share of what is believed to be wanted that is added first."""
SURE, AS_PLANNED = 0.9, 0.7
"""With less than this a look does not say that a mix is right; less is asked where it is what the records expected."""
REACHES = 0.3
"""With less than this at best an addition does not come to the word."""
RIPE = 3.0
"""After so many of its time constants a mix has thickened as far as anybody can see."""
LEFT = 2.0
"""So many of its time constants powder is given before it is judged."""
EARLY = 1.5
"""Before so many of its time constants a mix that is too thin is left to thicken first."""
TRIED = 28
NEAR, LEAST_NEAR_G = 0.05, 0.05
"""This close, as a share of it, an addition is poured as far as anybody needs; and no scale or hand does better than
the other, in g: untested starting values."""
LIKELY = 0.8
"""From this on an addition is likely to be right at once. An untested starting point."""
AT_ONCE = 0.4
"""No more than this share of the pot is added at once: a rule of the trade, its size an untested starting point."""
MEASURED, SET = 0.03, 0.02
"""A share this close to what was chosen was poured as chosen; one that changes by more than the second is said: as
near as anybody measures. Untested starting points."""
Way = Literal["right", "as chosen", "look again", "wait", "add", "discard", "cannot"]


@dataclass(frozen=True)
class Agent:
    """Something that may be added: `why` is its school, `most_g` what there is of it."""

    stuff: Stuff
    why: str
    most_g: float = float("inf")


@dataclass(frozen=True)
class Chosen:
    """A share of the whole, as poured, that the painter set otherwise than the recipe."""

    component: str
    name: str
    share: float


@dataclass(frozen=True)
class PotNow:
    """A pot to be set right: what is in it, what was seen of it and of what it was then, and what it may hold.

    `since_min` is minutes since its powder was wetted; `sets_in_min` how long until it sets, None where it does not.
    `stands_ml` is the room of what it stands in, `jars` what else there is, each with its room, the smallest first.
    """

    held: tuple[PotHeld, ...]
    looks: tuple[tuple[tuple[PotHeld, ...], str, float], ...]
    """Each look: what was in it, the word, minutes since wetting then."""
    additions: int
    since_min: float
    room_ml: float
    sets_in_min: float | None = None
    stands_ml: float = float("inf")
    jars: tuple[tuple[str, float], ...] = ()
    chosen: tuple[Chosen, ...] = ()

    @property
    def as_chosen(self) -> bool:
        """Whether the painter set its ratio, and it is in the pot as it was set."""
        off = (abs(_share(self.held, c.component) - c.share) for c in self.chosen)
        return bool(self.chosen) and not self.additions and max(off) <= MEASURED

    @property
    def seen_twice(self) -> bool:
        """Whether the same was seen of the same twice: that is no slip of the eye."""
        return len(self.looks) > 1 and self.looks[-1][:2] == self.looks[-2][:2]


@dataclass(frozen=True)
class Addition(Value):
    """One way to set it right: add so much of this, and what that does."""

    stuff: Stuff
    g: float
    ml: float
    """As it is measured out."""
    near_g: float
    """This close to it, enough is added."""
    whole_g: float
    """What it is believed to want altogether."""
    why: str
    volume_ml: float
    share_before: float
    share_after: float
    """Its share of the whole as poured."""
    covers: float
    """How much of the paint there was a ml still holds."""
    right: float
    """How likely it is the word after."""
    crosses: str
    """The limit it goes past, in words; "" for none."""
    falls_short: str
    """The nearest word it comes to where it cannot come all the way; "" where it can."""
    into: str = ""
    """The vessel that holds it then, where the one it stands in does not; "" where it does."""
    changes: str = ""
    """Which shares that were chosen it changes, in words; "" for none."""


@dataclass(frozen=True)
class PotAdvice(Value):
    """What to do now with a pot that was looked at."""

    way: Way
    says: str
    why: tuple[str, ...]
    now: Chance
    ripe: Chance
    """The same once it has thickened."""
    wait_min: float
    """How long to leave it before the next look."""
    ways: tuple[Addition, ...] = ()
    """The likeliest to help first."""


def as_ingredients(held: Sequence[PotHeld], materials: Mapping[str, Material]) -> list[Ingredient]:
    """What is held, as the consistency model wants it. What the book no longer has counts by its role alone."""
    made = []
    for h in held:
        known = materials.get(h.stuff.material) or _unknown(h.stuff)
        made.append(Ingredient(known, h.poured_ml, h.adds_ml, h.g))
    return made


def _unknown(stuff: Stuff) -> Material:
    kind: Literal["powder", "liquid"] = "powder" if stuff.solid else "liquid"
    eta = 1.0 if stuff.role == "water" else 2000.0
    packs = 0.5 if stuff.solid else 0.0
    return Material(stuff.material, stuff.name, kind, stuff.role, stuff.bulk_density, stuff.true_density,
                    "not in the book any more", viscosity_mpa_s=eta, packing_limit=packs)  # fmt: skip


def advise(pot: PotNow, target: str, agents: Sequence[Agent], materials: Mapping[str, Material],
           limits: Sequence[Limit], ladder: WordLadder) -> PotAdvice:  # fmt: skip
    """What to do with a pot that should be `target`, by what was seen of it. At least one look must have been taken."""
    seen = [Seen(flow_of(as_ingredients(held, materials)), word, since) for held, word, since in pot.looks]
    guesses = believed(seen, ladder)
    flow = flow_of(as_ingredients(pot.held, materials))
    later = max(pot.since_min, RIPE * flow.thickens_min)
    at_once, at_last = (outcome(guesses, flow, at, target, ladder) for at in (pot.since_min, later))
    now, ripe = at_once.chance, at_last.chance

    def said(way: Way, says: str, *why: str, wait_min: float = 0.0, ways: tuple[Addition, ...] = ()) -> PotAdvice:
        return PotAdvice(way, says, tuple(w for w in why if w), now, ripe, wait_min, ways)

    wanted, last = ladder.words[ladder.place[target]], pot.looks[-1][1]
    if pot.sets_in_min is not None and pot.sets_in_min <= 0:
        return said("discard", "It is setting: throw it away, and mix afresh.",
                    "A mix that sets is never thinned past its set: it would crumble.")  # fmt: skip
    recorded = min(ladder.place_of(flow.viscosity(1.0, 1.0, _ripe(flow, pot.since_min))), len(ladder.words) - 1)
    foreseen = recorded == ladder.place[target] and not pot.additions
    sure = SURE if pot.additions or len(pot.looks) > 1 else AS_PLANNED
    if last == target and (now.right >= sure or foreseen or pot.seen_twice):
        after = "" if ripe.right >= SURE else "It still thickens: use it at once, and look again before each coat."
        return said("right", f"It is {wanted.name}: right as it is.", after)
    ways = partial(_ways, agents=agents, start=min(at_last.middle, 1e12))
    looks_thin = ladder.place[last] < ladder.place[target]
    told = last != target and (pot.as_chosen or pot.seen_twice)  # then the eye has the word
    thin = looks_thin if told else now.thinner > now.thicker
    if pot.as_chosen and last != target and not (thin and pot.since_min < EARLY * flow.thickens_min):
        asked = _Asked(pot, target, materials, limits, ladder, guesses, thin)
        than = "thinner" if looks_thin else "thicker"
        kept = " and ".join(f"{c.share:.0%} of {c.name.lower()}" for c in pot.chosen)
        return said("as chosen", f"It is {than} than its records say. Your {kept} stays: use it so.",
                    f"With these amounts {wanted.name} was expected; what you saw is noted in its log.",
                    ways=ways(asked))  # fmt: skip
    doubtful = now.right >= SURE or last == target or _contrary(pot, now, ladder, target)
    if doubtful and not pot.seen_twice:
        return said("look again", "Stir, and look again another way, to be sure.",
                    f"By all that is known it is {wanted.name} with a chance of {now.right:.0%}.")  # fmt: skip
    if thin and pot.since_min < EARLY * flow.thickens_min:
        left = LEFT * flow.thickens_min - pot.since_min
        return said("wait", f"Leave it {tidy(max(left, 1))} minutes, stir, look again: it is still thickening.",
                    "Too thin so soon after mixing is not yet a fact.", wait_min=left)  # fmt: skip
    found = ways(_Asked(pot, target, materials, limits, ladder, guesses, thin))
    if not found:
        return said("cannot", _nothing(thin), "")
    wait = LEFT * flow.thickens_min if found[0].stuff.solid else 0.0
    jar = f"First into the {found[0].into}: it does not fit where it is. " if found[0].into else ""
    add = f"{jar}Add {found[0].stuff.name.lower()}, stir, look again."
    if hardly := found[0].falls_short:
        comes = f"Within its limits, room and stock it becomes {hardly} at the most, not {wanted.name}. {add}"
        return said("cannot", comes, wait_min=wait, ways=found)
    first = "" if pot.additions else "Six tenths of what it is believed to want: more can be added, none taken out."
    return said("add", add, first, wait_min=wait, ways=found)


def _ripe(flow: Flow, since_min: float) -> float:
    """How far it has thickened by the records, 0–1."""
    return 1 - exp(-since_min / flow.thickens_min) if flow.thickens_min else 1.0


def _contrary(pot: PotNow, now: Chance, ladder: WordLadder, target: str) -> bool:
    """Whether the last word points one way, and all that was seen together the other."""
    at = ladder.place[pot.looks[-1][1]] - ladder.place[target]
    return (at < 0 and now.thinner < 0.3) or (at > 0 and now.thicker < 0.3)


def _nothing(thin: bool) -> str:
    if thin:
        return "There is nothing in this mix that makes it thicker: let some water leave it open, or mix afresh."
    return "There is nothing to thin it with."


@dataclass(frozen=True)
class _Asked:
    """What all ways to set a pot right have in common."""

    pot: PotNow
    target: str
    materials: Mapping[str, Material]
    limits: Sequence[Limit]
    ladder: WordLadder
    guesses: Sequence[Guess]
    thin: bool


def _ways(asked: _Asked, agents: Sequence[Agent], start: float) -> tuple[Addition, ...]:
    found = []
    for agent in agents:
        most = _within(asked, agent.stuff)
        free = _addition(asked, agent, start, float("inf"))
        if free is not None and free.g > most:
            # As far as the limit allows, and past it for whoever means it.
            found += [made for made in (_addition(asked, agent, start, most), free) if made is not None]
        elif free is not None:
            found.append(free)
    return tuple(sorted(found, key=_better))


def _better(one: Addition) -> tuple[bool, bool, bool, float, float]:
    """Within its limits, all the way, into what it stands in; the likeliest. Of these the least, where it is likely to
    be right at once; else the most, which is the easier to measure and to stop in time."""
    right = round(one.right, 1)
    return one.crosses != "", one.falls_short != "", one.into != "", -right, one.ml if right >= LIKELY else -one.g


def _with(held: Sequence[PotHeld], stuff: Stuff, g: float) -> tuple[PotHeld, ...]:
    return (*held, PotHeld(stuff, g))


def _within(asked: _Asked, stuff: Stuff) -> float:
    """How many g of something may be added before a limit is crossed that is not crossed yet."""
    most, whole = float("inf"), sum(h.poured_ml for h in asked.pot.held)
    for limit in asked.limits:
        has = sum(h.poured_ml for h in asked.pot.held if h.stuff.component == limit.component)
        own = limit.component == stuff.component
        bound = limit.most if own else limit.least
        if own and bound < 1:
            ml = (bound * whole - has) / (1 - bound)
        elif not own and bound > 0:
            ml = has / bound - whole
        else:
            continue
        if ml >= 0:
            most = min(most, ml * stuff.bulk_density)
    return most


def _addition(asked: _Asked, agent: Agent, start: float, most_g: float) -> Addition | None:
    """What adding one thing would do; None where it leads the other way. `start` is η as it would be without, ripe."""
    pot, target, materials, limits = asked.pot, asked.target, asked.materials, asked.limits
    ladder, guesses, thin = asked.ladder, asked.guesses, asked.thin
    volume = sum(h.adds_ml for h in pot.held)
    room_ml = min(max(pot.room_ml - volume, 0.0), AT_ONCE * volume)
    most = min(agent.most_g, most_g, max(pot.room_ml - volume, 0.0) * agent.stuff.true_density)
    if most <= 0 or volume <= 0:
        return None
    least = min(volume * agent.stuff.true_density * 0.003, most / 2)
    grows = (most / least) ** (1 / (TRIED - 1))
    at = _looked_at(agent.stuff, pot, materials)
    tried = []
    for i in range(TRIED):
        flow = flow_of(as_ingredients(_with(pot.held, agent.stuff, least * grows**i), materials))
        tried.append((least * grows**i, outcome(guesses, flow, at, target, ladder)))
    way = 1 if thin else -1
    helps = [t for t in tried if (t[1].middle - start) * way > start * 0.001 * (way > 0)]
    if not helps:
        return None
    reach = _reaching(helps, ladder.words[ladder.place[target]].viscosity_mpa_s, way)
    best = max(helps, key=lambda t: t[1].chance.right)
    end = ladder.place_of(helps[-1][1].middle)
    short = reach is None and best[1].chance.right < REACHES and (ladder.place[target] - end) * way > 0
    whole = reach if reach is not None else helps[-1][0] if short else best[0]
    g = best[0] if pot.additions and not short else whole * (1.0 if pot.additions else FIRST)
    g = min(g, room_ml * agent.stuff.true_density)
    after = _with(pot.held, agent.stuff, g)
    holds_ml = sum(h.adds_ml for h in after)
    flow = flow_of(as_ingredients(after, materials))
    return Addition(
        agent.stuff, g, g / agent.stuff.bulk_density, max(g * NEAR, LEAST_NEAR_G), whole, agent.why,
        holds_ml,
        _share(pot.held, agent.stuff.component), _share(after, agent.stuff.component),
        _paint(after) / (_paint(pot.held) or 1.0), outcome(guesses, flow, at, target, ladder).chance.right,
        _crosses(after, limits), ladder.words[min(end, len(ladder.words) - 1)].name if short else "",
        next((n for n, ml in pot.jars if ml >= holds_ml), "") if holds_ml > pot.stands_ml else "",
        _changes(pot, after),
    )  # fmt: skip


def _changes(pot: PotNow, after: Sequence[PotHeld]) -> str:
    """Which shares that were chosen become others, in words."""
    then = ((c, _share(after, c.component)) for c in pot.chosen)
    return " ".join(
        f"This changes your {c.share:.0%} of {c.name.lower()} to {share:.0%}."
        for c, share in then if abs(share - c.share) > SET
    )  # fmt: skip


def _looked_at(stuff: Stuff, pot: PotNow, materials: Mapping[str, Material]) -> float:
    """Minutes after wetting when it is looked at next: powder that is added is given its time, all else a stir."""
    takes = flow_of(as_ingredients(_with(pot.held, stuff, 1.0), materials)).thickens_min
    return LEFT * takes if stuff.solid and takes else pot.since_min + 1


def _reaching(tried: Sequence[tuple[float, Outcome]], centre: float, way: int) -> float | None:
    """The amount that brings the middle of what is believed to the middle of the word."""
    return next((g for g, then in tried if (then.middle - centre) * way >= 0), None)


def _share(held: Sequence[PotHeld], component: str) -> float:
    whole = sum(h.poured_ml for h in held)
    return sum(h.poured_ml for h in held if h.stuff.component == component) / whole if whole else 0.0


def _paint(held: Sequence[PotHeld]) -> float:
    whole = sum(h.adds_ml for h in held)
    paint = sum(h.adds_ml for h in held if h.stuff.role in {"paint", "pigment"})
    return paint / whole if whole else 0.0


def _crosses(held: Sequence[PotHeld], limits: Sequence[Limit]) -> str:
    found = []
    for limit in limits:
        share = _share(held, limit.component)
        if not limit.least - 1e-6 <= share <= limit.most + 1e-6:
            bound = f"at most {limit.most:.0%}" if share > limit.most else f"at least {limit.least:.0%}"
            found.append(f"{limit.component.capitalize()} {share:.0%}, {bound}: {limit.reason}")
    return " ".join(found)
