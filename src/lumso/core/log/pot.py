"""Pots as they follow from what was done: composition by weight, exact through any chain of pours and carry-overs.

Acts are replayed in the order they were noted, over all pots together, so that what one gives another has. Nothing is
stored that could be replayed; a correction is the same replay with another act in place.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from ..book.materials import Material
from ..value import Value
from .acts import (
    SPREAD,
    Begun,
    Closed,
    Discarded,
    FromJar,
    Left,
    Looked,
    LostWater,
    Noted,
    Poured,
    Settled,
    Stirred,
    Stuff,
    TakenOut,
    Tared,
)  # fmt: skip

CRUMB_G = 1e-6
"""Less than this is nothing: rounding."""


@dataclass(frozen=True)
class Fault(Value):
    """An act that cannot have been: more taken than there was. `field` is where, `allowed` what could be."""

    event: str
    field: str
    says: str
    allowed: str


@dataclass(frozen=True)
class PotHeld(Value):
    """So many grams of one thing in a pot, and how far off that may be (one standard deviation, g)."""

    stuff: Stuff
    g: float
    off_g: float = 0.0

    @property
    def adds_ml(self) -> float:
        """What it adds to the mix."""
        return self.g / self.stuff.true_density

    @property
    def poured_ml(self) -> float:
        """What it measures as it is poured, air and all."""
        return self.g / self.stuff.bulk_density


def traits_of(held: Sequence[PotHeld], materials: Mapping[str, Material]) -> set[str]:
    """The traits of all that is held, as far as the book has it."""
    known = (materials.get(h.stuff.material) for h in held)
    return {trait for m in known if m is not None for trait in m.traits}


@dataclass(frozen=True)
class Pour(Value):
    """One pour as it was made; `out_g` was taken out again."""

    event: str
    at_min: float
    stuff: Stuff
    g: float
    by: str
    said: str
    rescue: bool
    out_g: float = 0.0


@dataclass(frozen=True)
class Look(Value):
    """What a pot looked like, with what was in it then."""

    event: str
    at_min: float
    word: str
    test: str
    held: tuple[PotHeld, ...]
    wetted_min: float
    """When its powder was last wetted."""


@dataclass(frozen=True)
class CarriedOver(Value):
    """What came from another pot."""

    event: str
    at_min: float
    jar: str
    g: float
    held: tuple[PotHeld, ...]


State = Literal["pouring", "stirred", "kept", "empty", "discarded"]


@dataclass(frozen=True)
class PotState(Value):
    """A pot as it is."""

    pot: str
    begun: Begun | None = None
    """What it was begun as; None where nobody said."""
    begun_min: float = 0.0
    state: State = "pouring"
    held: tuple[PotHeld, ...] = ()
    pours: tuple[Pour, ...] = ()
    carried: tuple[CarriedOver, ...] = ()
    looks: tuple[Look, ...] = ()
    settled: float | None = None
    zero: Tared | None = None
    """The zero of the scale it was last put on."""
    stirred_min: float | None = None
    wetted_min: float | None = None
    """When powder and liquid last met: how far a mix has thickened goes by it."""
    sets_from_min: float | None = None
    """When they first met, in whatever pot: what sets goes by it, and is not younger for fresh powder."""
    mixed_g: float = 0.0
    """What went into it altogether."""
    mixed_ml: float = 0.0
    left_min: float | None = None
    closed: Closed = "lid"
    place: str = ""
    given_g: float = 0.0
    """What other pots took from it."""
    used_g: float = 0.0
    """What went onto the piece, and what pot and tools kept."""
    lost_water_g: float = 0.0
    water_min: float | None = None
    """When its water was last known."""

    @property
    def batch(self) -> str:
        """The batch it was begun as; "" where nobody said."""
        return self.begun.batch if self.begun else ""

    @property
    def g(self) -> float:
        """What it holds, in grams."""
        return sum(h.g for h in self.held)

    @property
    def ml(self) -> float:
        """What it holds, in ml of the mix."""
        return sum(h.adds_ml for h in self.held)

    @property
    def density_mixed(self) -> float:
        """g per ml of what went into it; 1 for an empty pot."""
        return self.mixed_g / self.mixed_ml if self.mixed_ml else 1.0

    @property
    def density(self) -> float:
        """g per ml of the mix; 1 for an empty pot."""
        return self.g / self.ml if self.held and self.ml else 1.0


Told = Begun | Poured | Tared | Settled | Stirred | Looked | Discarded
"""What is said of a pot and can always be: nothing of another pot, and no amount that is not there."""


@dataclass
class _Replay:
    pots: dict[str, PotState] = field(default_factory=dict)
    faults: list[Fault] = field(default_factory=list)

    def fault(self, note: Noted, field: str, says: str, allowed: str) -> None:
        self.faults.append(Fault(note.event, field, says, allowed))

    def add(self, note: Noted) -> None:
        act = note.act
        pot = self.pots.get(act.pot, PotState(act.pot))
        match act:
            case TakenOut():
                pot = self._taken_out(pot, note, act)
            case FromJar():
                pot = self._from_jar(pot, note, act)
            case LostWater():
                pot = self._lost_water(pot, note, act)
            case Left():
                pot = self._left(pot, note, act)
            case _:
                pot = _noted(pot, note, act)
        self.pots[act.pot] = pot

    def _taken_out(self, pot: PotState, note: Noted, act: TakenOut) -> PotState:
        last = pot.pours[-1] if pot.pours else None
        if pot.state != "pouring" or last is None or last.event != act.pour:
            self.fault(note, "/act/pour", "Only what was poured last can be taken out, and before it is stirred.",
                       last.event if last and pot.state == "pouring" else "nothing")  # fmt: skip
            return pot
        there = last.g - last.out_g
        if act.g > there + CRUMB_G:
            self.fault(note, "/act/g", f"Only {there:.1f} g of it are in the pot.", f"at most {there:.1f} g")
            return pot
        held = _added(pot.held, last.stuff, -act.g, 0.0)
        pours = (*pot.pours[:-1], replace(last, out_g=last.out_g + act.g))
        ml = act.g / last.stuff.true_density
        return replace(pot, held=held, pours=pours, mixed_g=pot.mixed_g - act.g, mixed_ml=pot.mixed_ml - ml)

    def _from_jar(self, pot: PotState, note: Noted, act: FromJar) -> PotState:
        jar = self.pots.get(act.jar)
        there = jar.g if jar else 0.0
        if jar is None or act.jar == act.pot:
            self.fault(note, "/act/jar", "There is no such jar.", "a jar that is kept")
            return pot
        if act.g > there * (1 + 1e-9) + CRUMB_G:
            self.fault(note, "/act/g", f"The jar holds {there:.1f} g.", f"at most {there:.1f} g")
            return pot
        share = min(act.g / there, 1.0) if there else 0.0
        came = tuple(replace(h, g=h.g * share, off_g=h.off_g * share) for h in jar.held)
        left = _scaled(jar, 1 - share)
        state: State = "empty" if left.g <= CRUMB_G else left.state
        self.pots[act.jar] = replace(left, given_g=jar.given_g + act.g, state=state)
        held = pot.held
        for h in came:
            held = _added(held, h.stuff, h.g, h.off_g)
        carried = (*pot.carried, CarriedOver(note.event, note.at_min, act.jar, act.g, came))
        ml = pot.mixed_ml + sum(h.adds_ml for h in came)
        wetted = [m for m in (pot.wetted_min, jar.wetted_min) if m is not None]
        sets = [m for m in (pot.sets_from_min, jar.sets_from_min) if m is not None]
        return replace(pot, held=held, carried=carried, mixed_g=pot.mixed_g + act.g, mixed_ml=ml,
                       wetted_min=max(wetted, default=None), sets_from_min=min(sets, default=None))  # fmt: skip

    def _lost_water(self, pot: PotState, note: Noted, act: LostWater) -> PotState:
        water = sum(h.g for h in pot.held if h.stuff.role == "water")
        if act.g > water + CRUMB_G:
            self.fault(note, "/act/g", f"It holds {water:.1f} g of added water; more cannot have left it.",
                       f"at most {water:.1f} g")  # fmt: skip
            return pot
        held, rest = pot.held, act.g
        for h in pot.held:
            if h.stuff.role == "water" and rest > 0:
                held, rest = _added(held, h.stuff, -min(h.g, rest), 0.0), rest - min(h.g, rest)
        return replace(pot, held=held, lost_water_g=pot.lost_water_g + act.g, water_min=note.at_min)

    def _left(self, pot: PotState, note: Noted, act: Left) -> PotState:
        there = pot.g
        most = there * (1 + 3 * SPREAD[act.by]) + max(1.0, 3 * sum(h.off_g for h in pot.held))
        if act.g > most:
            self.fault(note, "/act/g", f"No more than {there:.0f} g were in it.", f"at most {most:.0f} g")
            return pot
        share = act.g / there if there else 0.0
        state: State = "kept" if act.g > CRUMB_G else "empty"
        return replace(
            _scaled(pot, min(share, 1.0)), state=state, left_min=note.at_min, closed=act.closed, place=act.place,
            used_g=pot.used_g + there * (1 - min(share, 1.0)),
        )  # fmt: skip


def _noted(pot: PotState, note: Noted, act: Told) -> PotState:
    """A pot after an act that can always be."""
    match act:
        case Begun():  # two devices began it: it is one pot
            return pot if pot.begun else replace(pot, begun=act, begun_min=note.at_min)
        case Poured():
            return _poured(pot, note, act)
        case Tared():
            return replace(pot, zero=act)
        case Settled():
            return replace(pot, settled=act.times)
        case Stirred():
            return replace(pot, state="stirred", stirred_min=note.at_min)
        case Looked():
            look = Look(note.event, note.at_min, act.word, act.test, pot.held, pot.wetted_min or note.at_min)
            return replace(pot, looks=(*pot.looks, look))
        case Discarded():
            return replace(_scaled(pot, 0.0), state="discarded", left_min=note.at_min)


def _poured(pot: PotState, note: Noted, act: Poured) -> PotState:
    off = act.g * SPREAD[act.by]
    ml = pot.mixed_ml + act.g / act.stuff.true_density
    pour = Pour(note.event, note.at_min, act.stuff, act.g, act.by, act.said, act.rescue)
    held = _added(pot.held, act.stuff, act.g, off)
    solids = any(h.stuff.solid for h in held)
    wetted = note.at_min if act.stuff.solid or (solids and pot.wetted_min is None) else pot.wetted_min
    state: State = "pouring" if pot.state == "pouring" else "stirred"
    return replace(pot, held=held, pours=(*pot.pours, pour), mixed_g=pot.mixed_g + act.g, mixed_ml=ml,
                   wetted_min=wetted, sets_from_min=wetted if pot.sets_from_min is None else pot.sets_from_min,
                   state=state)  # fmt: skip


def _added(held: Sequence[PotHeld], stuff: Stuff, g: float, off_g: float) -> tuple[PotHeld, ...]:
    """What is held, with so many grams of something more, or less. What is all gone is gone."""
    made, found = [], False
    for h in held:
        if h.stuff.key == stuff.key and not found:
            found = True
            h = replace(h, g=h.g + g, off_g=(h.off_g**2 + off_g**2) ** 0.5)
            if h.g <= CRUMB_G:
                continue
        made.append(h)
    if not found and g > 0:
        made.append(PotHeld(stuff, g, off_g))
    return tuple(made)


def _scaled(pot: PotState, share: float) -> PotState:
    held = tuple(replace(h, g=h.g * share, off_g=h.off_g * share) for h in pot.held) if share > 0 else ()
    return replace(pot, held=tuple(h for h in held if h.g > CRUMB_G))


def replay(notes: Iterable[Noted]) -> tuple[dict[str, PotState], tuple[Fault, ...]]:
    """All pots as they follow from acts in the order they were noted, and acts that cannot have been.

    An act that cannot have been changes nothing.
    """
    done = _Replay()
    for note in notes:
        done.add(note)
    return done.pots, tuple(done.faults)
