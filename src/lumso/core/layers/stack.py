"""A zone's stack as the checker reads it: from the ground up, each layer with its film, its times and its mix."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from ..book.catalogue import Catalogue
from ..book.offers import Need
from ..book.preparation import Does, Preparation
from ..book.surfaces import Ground
from ..job.job import GroundFact, Use, Zone
from ..piece.kinds import FaceGroup
from ..value import Slug
from .awaited import RULES, Awaited, Reach, awaited, is_word
from .conditions import Room
from .drying import Moment, Wait, takes_min
from .laid import WHOLE, Laid


@dataclass(frozen=True)
class Beneath:
    """What a layer finds when it is laid: all that the ground and the layers beneath have come to."""

    surface: str
    """The kind of surface: the ground's own, "sealed" by a film that closes it, else unsealed paint."""
    bare: Ground | None
    """The ground that drinks of the first coat; None where a layer lies between."""
    floor: Laid | None
    """The nearest layer that covers the whole; None where that is the ground."""
    open: int | None
    """The nearest layer that water brings back, with nothing over it that closes it; None for none."""
    closed: bool
    """Whether something keeps water from the ground."""
    stops: frozenset[str]
    """What the films beneath keep from coming through."""
    painted: Laid | None
    """The last layer that gives the colour."""
    meets: tuple[Laid, ...]
    """Every layer it lies on, the nearest first: those that cover only part are looked through."""
    thirst: float = 1.0
    """The share of the ground that nothing has been laid on yet."""
    relief: float = 1.0
    """How many times the area of a flat surface the texture beneath makes it."""


RANKED = tuple(RULES)
SLACK_MIN = 1e-4
"""Minutes: what is missing less than this is the arithmetic's."""
MOSTLY = 0.5
"""A layer that touches less than this does not give what lies on it its colour."""
COLOURS = {"paint", "wash", "glaze", "texture"}
TINTS = {"wash", "patina"}
"""Kinds of film that only tint what they lie on."""


RELIEF_OF_MM, LEVELLED = 0.6, 0.25
"""What a mm of mean thickness of stippled texture adds to its area, and what sanding it level leaves of that: paint
over texture takes 1.3 times as much over half a millimetre, 1.6 times over one and more. Starting values of the
trade."""


def relief_of(one: Laid) -> float:
    """How many times its flat area a layer makes of the surface: what stands in peaks has more of it."""
    if not (one.technique.per_mm and one.acts("stands in peaks")):
        return 1.0
    left = LEVELLED if any(s.purpose == "level" for s in one.layer.sandings) else 1.0
    return 1 + RELIEF_OF_MM * min(one.layer.thickness_mm, 1.0) * left * one.layer.touched


def on_ground(ground: Ground) -> Beneath:
    """What the first layer finds."""
    closed = ground.surface in {"sealed", "slick"}
    return Beneath(ground.surface, ground, None, None, closed, frozenset(), None, ())


def beneath_each(ground: Ground, laid: Sequence[Laid]) -> tuple[Beneath, ...]:
    """What each layer finds, and at the end what lies beneath whatever comes on top."""
    found = [on_ground(ground)]
    tinted, sealed = True, False
    for index, one in enumerate(laid):
        under, whole = found[-1], one.layer.touched >= WHOLE
        tinted = tinted and one.film.kind in TINTS  # wood stays wood under a wash
        drinks = whole and one.film.kind in {"paint", "texture"}
        sealed = one.closes or (sealed and not drinks)
        wood = tinted and ground.surface == "raw wood"
        thirst = 0.0 if whole else under.thirst * (1 - one.layer.touched)
        made = Beneath(
            "sealed" if sealed else "raw wood" if wood else "unsealed paint",
            ground if thirst > 0 else None,
            one if whole else under.floor,
            None if one.closes else index if one.film.rewets else under.open,
            under.closed or one.closes,
            under.stops | frozenset(one.film.stops),
            one if one.film.kind in COLOURS and one.layer.touched >= MOSTLY else under.painted,
            (one,) if whole and not one.acts("resists") else (one, *under.meets),
            thirst,
            max(under.relief, relief_of(one)),
        )
        found.append(made)
    return tuple(found)


@dataclass(frozen=True)
class Stack:
    """A zone's layers over its ground. Index 0 is the first layer; -1 means the ground."""

    zone: Zone
    ground: Ground
    use: Use
    surfaces: tuple[FaceGroup, ...]
    room: Room
    laid: tuple[Laid, ...]
    catalogue: Catalogue

    @property
    def vertical(self) -> bool:
        """Whether any of it stands upright, edges aside."""
        return any(s.vertical and not s.narrow for s in self.surfaces)

    @property
    def level(self) -> bool:
        """Whether any of it lies flat."""
        return any(not s.vertical for s in self.surfaces)

    def each(self) -> Iterator[tuple[int, Laid]]:
        """The layers with their index, from the ground up."""
        return iter(enumerate(self.laid))

    def pairs(self) -> Iterator[tuple[int, Laid, Laid]]:
        """Each layer over another, with the upper one's index."""
        for i in range(1, len(self.laid)):
            yield i, self.laid[i - 1], self.laid[i]

    @cached_property
    def _beneath(self) -> tuple[Beneath, ...]:
        return beneath_each(self.ground, self.laid)

    def beneath(self, index: int) -> Beneath:
        """What the layer of that index lies on; the number of layers is the top."""
        return self._beneath[index]

    def meets(self) -> Iterator[tuple[int, Laid, Laid]]:
        """Each layer with every one it lies on: those that cover only part are looked through to the next whole one."""
        for i in range(1, len(self.laid)):
            for lower in self.beneath(i).meets:
                yield i, lower, self.laid[i]

    @property
    def asks_lead(self) -> bool:
        """Whether the ground asks the lead question, and it has not been closed."""
        return self.grounded("may hide lead") and not self.use.lead.settled

    @property
    def asks_asbestos(self) -> bool:
        """Whether the ground may hold asbestos, and nobody has closed the question."""
        patterned = self.faced("raised old pattern") and self.grounded("old coating")
        suspect = self.grounded("may hide asbestos") or self.faced("textured old coating") or patterned
        return suspect and not self.use.asbestos.settled

    def preparations(self) -> Iterator[Preparation]:
        """What is done to the ground first, as far as it is known."""
        known = self.catalogue.preparations
        return (known[p] for p in self.zone.prep if p in known)

    def prepared(self, *does: Does) -> bool:
        """Whether the ground was prepared in any of these ways."""
        return any(d in p.does for p in self.preparations() for d in does)

    def offer(self, need: Need) -> Slug:
        """The recipe that is offered for a need."""
        return self.catalogue.offer(need)

    def grounded(self, *traits: str) -> bool:
        """Whether the ground has any of these traits."""
        return any(t in self.ground.traits for t in traits)

    def wait(self, index: int, moment: Moment) -> Wait:
        """What one of a layer's times waits for."""
        return self._deep(index).wait(moment)

    def between_coats(self, index: int) -> Wait:
        """What is waited for between a layer's coats: as said, else until the next may follow."""
        said, recoat = self.laid[index].layer.coat_wait_h, self.wait(index, "recoat_from")
        if said is None:
            return recoat
        return self._longer(Wait(said * 60, "clock"), recoat) if is_word(said) else Wait(said * 60, "clock")

    def ready_to_sand(self, index: int, wait: Wait) -> Wait:
        """What is waited for before a coat is sanded, where it is left alone for `wait`."""
        return wait

    def gentle(self, index: int) -> Wait:
        """Until a layer may be closed, stacked and used gently: days, long before it has cured."""
        days = self.laid[index].film.gentle_days
        return Wait(None if days is None else days * 1440, "oil")

    def reach(self, index: int) -> Reach:
        """What the layer of an index meets beneath."""
        under = self.beneath(index)
        return Reach(None if under.floor is None else self.laid.index(under.floor), under.open)

    @cached_property
    def _awaited(self) -> tuple[tuple[Awaited, ...], ...]:
        return tuple(awaited(self, index) for index in range(len(self.laid)))

    def awaited(self, index: int) -> tuple[Awaited, ...]:
        """All that is waited for before the layer of an index, as far as it is known how long."""
        return tuple(a for a in self._awaited[index] if a.wait.reference_min is not None)

    def takes(self, one: Awaited) -> float:
        """Minutes that what is waited for takes in this room; 0 where no film forms, which is said elsewhere."""
        return takes_min(one.wait, self.room) or 0.0

    @cached_property
    def _gaps(self) -> tuple[float, ...]:
        """Minutes each layer is left alone before the next, in this room; 0 where nobody knows."""
        gaps: list[float] = []
        for index, one in enumerate(self.laid):
            last = index + 1 == len(self.laid)
            said = one.layer.wait_h
            if said is not None and (last or not (is_word(said) or self.laid[index + 1].layer.wet_into_wet)):
                gaps.append(said * 60)
            elif last:
                gaps.append(takes_min(self._deep(index).left_alone, self.room) or 0.0)
            else:
                asked = self.awaited(index + 1)
                least = 60 * said if said is not None and is_word(said) else 0.0
                gaps.append(max((self.takes(a) - sum(gaps[a.of : index]) for a in asked), default=0.0))
                gaps[-1] = max(gaps[-1], least)
            gaps[-1] = max(gaps[-1], 0.0)
        return tuple(gaps)

    def known(self, index: int) -> bool:
        """Whether anybody knows how long a layer is left alone before the next; of the top one, before one more."""
        if index + 1 < len(self.laid):
            asked = self._awaited[index + 1]
            return not asked or any(a.wait.reference_min is not None for a in asked)
        return self.laid[index].film.times.recoat_from is not None

    def shown_h(self, index: int) -> float | None:
        """Hours a layer is left alone before the next, to be said; None where nobody knows: read the label."""
        said = self.laid[index].layer.wait_h
        return self.waits_h(index) if said is not None or self.known(index) else None

    def closes_first(self, index: int) -> bool:
        """Whether a layer is too hard for the next to bite by the time that is laid on it."""
        if index + 1 >= len(self.laid):
            return False
        above, last = self.laid[index + 1], self.minutes(index, "recoat_until")
        bites = above.watery and not above.layer.wet_into_wet
        return bites and last is not None and 60 * self.waits_h(index) > last + SLACK_MIN

    def binding(self, index: int) -> Awaited | None:
        """Of all that is waited for before the layer of an index, what is over last; None where nothing is."""
        found = self.awaited(index)
        left = [self.takes(a) - sum(self._gaps[a.of : index - 1]) for a in found]
        return found[left.index(max(left))] if found and max(left) > 0 else None

    def short(self, index: int) -> tuple[Awaited, float] | None:
        """Of what the layer of an index should have waited for and does not, what misses most, and how many minutes;
        None where it has waited for all of it."""
        missing = [(a, self.takes(a) - 60 * self.hours_between(a.of, index)) for a in self.awaited(index) if a.judged]
        late = [(a, left) for a, left in missing if left > SLACK_MIN]
        return max(late, key=lambda pair: (pair[1], -RANKED.index(pair[0].asked)), default=None)

    def alone(self, index: int) -> Wait:
        """What a layer is left alone for before the next: nothing where that is laid into it while it is damp."""
        above = self.laid[index + 1] if index + 1 < len(self.laid) else None
        if above and above.layer.wet_into_wet:
            return Wait(0.0)
        said = self.laid[index].layer.wait_h
        if above is None or not (said is None or is_word(said)):
            return self._deep(index).left_alone
        last = self.binding(index + 1)
        if said is not None and (last is None or self._gaps[index] <= 60 * said):
            return self._deep(index).left_alone
        if last is None:
            unknown = any(a.wait.reference_min is None for a in self._awaited[index + 1])
            return self.wait(index, "recoat_from") if unknown else Wait(0.0)
        return last.wait if last.of == index else Wait(self._gaps[index], "clock")

    def tape_safe(self, index: int) -> Wait:
        """Until low-tack tape may be laid on a layer: never sooner than the next coat; unknown, as long as that."""
        return self._longer(self.wait(index, "recoat_from"), self.wait(index, "tape_safe"))

    def _longer(self, one: Wait, other: Wait) -> Wait:
        """The wait that is over later in this room; of one that is unknown, the other."""
        takes = [takes_min(w, self.room) if w.reference_min is not None else -1.0 for w in (one, other)]
        ends = [w.reference_min or 0.0 if t is None else t for w, t in zip((one, other), takes, strict=True)]
        return other if ends[1] > ends[0] else one

    def _deep(self, index: int) -> Laid:
        """A layer as thick as it dries: with what it was dragged into while that was damp."""
        one, k = self.laid[index], index
        while k > 0 and self.laid[k].layer.wet_into_wet:
            k -= 1
        return one if k == index else replace(one, wet_um=sum(x.wet_um for x in self.laid[k : index + 1]))

    def faced(self, *facts: GroundFact) -> bool:
        """Whether any of these can be seen on the ground."""
        return any(f in self.zone.facts for f in facts)

    def minutes(self, index: int, moment: Moment) -> float | None:
        """One of a layer's times in this room, in minutes; None is unknown, or no film forms here."""
        return takes_min(self.wait(index, moment), self.room)

    def waits_h(self, index: int) -> float:
        """Hours a layer is left alone before the next, in this room; 0 where nobody knows."""
        above = self.laid[index + 1] if index + 1 < len(self.laid) else None
        return 0.0 if above and above.layer.wet_into_wet else self._gaps[index] / 60

    def hours_between(self, lower: int, upper: int) -> float:
        """Hours from the last coat of one layer to the first of another above it."""
        return sum(self.waits_h(k) for k in range(lower, upper))
