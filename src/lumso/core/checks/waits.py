"""Rules about time: too soon, too late, too cold."""

from collections.abc import Iterator

from ..book.preparation import Sanding
from ..changes.change import SetLayer
from ..figure import lasts
from ..layers.awaited import is_word
from ..layers.drying import no_film, takes_min
from ..layers.stack import Stack
from .hurried import LITTLE, hurried
from .rule import Hit, remedy, rule


@rule(
    "recoat-too-soon",
    "risky",
    "likely",
    "A coat over one that has not dried traps its water: it drags, wrinkles or stays soft.",
)
def recoat_too_soon(stack: Stack) -> Iterator[Hit]:
    for one in hurried(stack, "recoat"):
        says = f"{one.after}; here it takes {lasts(one.needs)}."
        yield Hit(one.index, says, (one.way,), one.grade("risky"))
    for i, coated in stack.each():
        needs, waits = stack.minutes(i, "recoat_from"), takes_min(stack.between_coats(i), stack.room)
        if coated.layer.coats < 2 or needs is None or waits is None or coated.film.kind == "wax":
            continue
        if waits < needs * (1 - LITTLE):
            add = SetLayer("set", coated.layer.id, coat_wait_h=needs / 60)
            says = f"Coats of {coated.name.lower()} {lasts(waits)} apart; here it takes {lasts(needs)}."
            yield Hit(i + 1, says, (remedy(f"Wait {lasts(needs)} between coats", add),))


BETWEEN = ("paint", "wash", "glaze", "texture")
"""Kinds of film that can be dragged into each other."""


@rule(
    "wet-into-wet",
    "will fail",
    "likely",
    "Layers are dragged into each other only while the lower one is open, and only where both are thinned with the "
    "same: anything else curdles, or lifts.",
)
def wet_into_wet(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in stack.pairs():
        if not upper.layer.wet_into_wet:
            continue
        fits = lower.film.carrier == upper.film.carrier and lower.film.kind in BETWEEN and upper.film.kind in BETWEEN
        apart = remedy("Let the lower one dry first", SetLayer("set", upper.layer.id, wet_into_wet=False))
        if not fits:
            yield Hit(i, f"{upper.name} dragged into wet {lower.name.lower()}.", (apart,))
        elif lower.film.open_most_min is None:
            yield Hit(i, f"Nobody knows how long {lower.name.lower()} stays open: read its label.", (), "good to know")


@rule(
    "forced-drying",
    "will fail",
    "certain",
    "Warm air dries thin water-borne coats; on thick ones it makes a skin that traps the water, on wax, oil and "
    "anything with solvent or spirit in it, or right beneath, it melts, boils or burns.",
)
def forced_drying(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.layer.dries_by not in {"hair dryer", "heat gun"}:
            continue
        air = remedy("Let it dry by itself", SetLayer("set", one.layer.id, dries_by="air"))
        over = next((x for x in stack.beneath(i).meets if x.film.carrier != "water"), None)
        if not one.hurries:
            what = "is too thick" if one.film.carrier == "water" else "is not water-borne"
            yield Hit(i + 1, f"{one.name} {what} for a {one.layer.dries_by}.", (air,))
        elif over or stack.grounded("waxed"):
            what = over.name.lower() if over else "old wax"
            yield Hit(i + 1, f"A {one.layer.dries_by} over {what}.", (air,))


@rule(
    "recoat-too-late",
    "risky",
    "likely",
    "After its time to be recoated a film is too hard for the next to bite: abrade it first.",
)
def recoat_too_late(stack: Stack) -> Iterator[Hit]:
    for i, lower, _ in stack.pairs():
        last, said = stack.minutes(i - 1, "recoat_until"), lower.layer.wait_h
        if said is None or is_word(said) or last is None:  # else it is kept, or the film is abraded in the work
            continue
        if stack.closes_first(i - 1) and not lower.layer.sandings:
            first = stack.minutes(i - 1, "recoat_from") or 0.0
            key = SetLayer("set", lower.layer.id, sandings=(Sanding(320, "between clear coats"),))
            remedies = [remedy("Abrade it with P320 first", key)]
            if first <= last:
                soon = SetLayer("set", lower.layer.id, wait_h=last / 60)
                remedies.append(remedy(f"Recoat within {lasts(last)}", soon))
            until = f"{lower.name} may be recoated until {lasts(last)}"
            says = f"{until}; here {lasts(stack.waits_h(i - 1) * 60)} pass."
            yield Hit(i, says, tuple(remedies))


@rule(
    "seal-too-soon",
    "risky",
    "likely",
    "A sealer over paint that is only touch dry mixes with it and clouds, or shuts its water in.",
)
def seal_too_soon(stack: Stack) -> Iterator[Hit]:
    for one in hurried(stack, "seal"):
        says = f"{one.after}, which may be sealed from {lasts(one.needs)}."
        yield Hit(one.index, says, (one.way,), one.grade("risky"))


@rule(
    "too-cold-or-damp",
    "will fail",
    "likely",
    "Water-based films need warmth and dry air to close up. Heat the room, not the paint, and wait.",
)
def too_cold_or_damp(stack: Stack) -> Iterator[Hit]:
    why = next((w for spell in stack.room.spells if (w := no_film(spell.conditions))), "")
    for i, one in stack.each():
        if why and one.watery:
            yield Hit(i, why)
            return


@rule(
    "time-unknown",
    "good to know",
    "certain",
    "An unknown time is not zero and not forever: read the label before the next coat.",
)
def time_unknown(stack: Stack) -> Iterator[Hit]:
    for i, lower, _ in stack.pairs():
        if lower.film.times.recoat_from is None and lower.layer.wait_h is None:
            yield Hit(i, f"When {lower.name.lower()} may be recoated is unknown: read the label.")
