"""Rules about order: preparation, tape, closing parts."""

from collections.abc import Iterator

from ..book.preparation import Sanding
from ..changes.change import SetLayer, SortPrep
from ..figure import lasts, listed
from ..layers.drying import takes_min
from ..layers.stack import Stack
from .hurried import hurried
from .rule import Hit, insert, prep, remedy, rule


@rule(
    "prep-out-of-order",
    "risky",
    "certain",
    "Grease before sanding is rubbed in, filler after sanding stands proud, holes drilled after paint chip it.",
)
def prep_out_of_order(stack: Stack) -> Iterator[Hit]:
    known = stack.catalogue.preparations
    for first, second in zip(stack.zone.prep, stack.zone.prep[1:], strict=False):
        if first in known and second in known and known[first].order > known[second].order:
            yield Hit(
                0,
                f"“{known[second].name}” comes before “{known[first].name}”, not after.",
                (remedy("Put the preparation in order", SortPrep("sort prep")),),
            )
            return


@rule(
    "not-dusted",
    "good to know",
    "certain",
    "Sanding dust under a coat is grit for good: dust off as the last thing before paint.",
)
def not_dusted(stack: Stack) -> Iterator[Hit]:
    if stack.laid and any(p.abrades for p in stack.preparations()) and not stack.prepared("dusts off"):
        yield Hit(0, "Sanded and not dusted off.", (remedy("Dust off last", prep(stack, "dusts off")),))


@rule(
    "tape-lifts",
    "risky",
    "likely",
    "Tape over a fresh coat lifts it: leave that coat until it holds tape, as a rule a day; pull it at once.",
)
def tape_lifts(stack: Stack) -> Iterator[Hit]:
    for one in hurried(stack, "tape"):
        says = f"Tape on {one.of.name.lower()} after {lasts(one.waited)}; here it holds tape after {lasts(one.needs)}."
        yield Hit(one.index, says, (one.way,), one.grade("risky"))


@rule(
    "tape-has-no-hold",
    "risky",
    "likely",
    "Tape does not stick to wax, and pulls leaf and chipping paint off with it, however long they were left. Draw the "
    "edge by hand, or lay a closed coat first; a strip of tape on a hidden spot tells.",
)
def tape_has_no_hold(stack: Stack) -> Iterator[Hit]:
    for i, upper in stack.each():
        lower = stack.laid[i - 1] if i else None
        if upper.tapes and lower is not None and (lower.film.kind in {"wax", "oil", "leaf"} or lower.film.chips):
            yield Hit(i, f"Tape on {lower.name.lower()}.")


@rule(
    "closing-parts-stick",
    "good to know",
    "certain",
    "Doors, drawers and shelves stick together while a coat is young: leave them apart for some days, or slips of "
    "baking paper between. Gently used is not yet cured.",
)
def closing_parts_stick(stack: Stack) -> Iterator[Hit]:
    shut = tuple(dict.fromkeys(s.name.split(",")[0].lower() for s in stack.surfaces if s.does))
    if stack.laid and shut:
        gentle = takes_min(stack.gentle(len(stack.laid) - 1), stack.room)
        when = f"about {lasts(gentle)}" if gentle else "the label's time"
        yield Hit(len(stack.laid), f"Leave {listed(shut)} apart for {when}, then close gently.")


@rule(
    "primer-last",
    "will fail",
    "certain",
    "A primer or blocker is something for paint to hold on to, not something to be looked at or washed.",
)
def primer_last(stack: Stack) -> Iterator[Hit]:
    if stack.laid and (stack.laid[-1].film.kind == "primer" or stack.laid[-1].film.tells_overnight):
        yield Hit(
            len(stack.laid),
            f"{stack.laid[-1].name} is the last coat.",
            (remedy("Paint over it", insert(stack, "", "plain paint")),),
        )


@rule(
    "sealer-in-the-middle",
    "good to know",
    "likely",
    "Paint over a clear coat holds on a film, not in the paint beneath: scuff it first.",
)
def sealer_in_the_middle(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in stack.pairs():
        if lower.film.kind == "clear" and upper.film.kind in {"paint", "texture"} and not lower.layer.sandings:
            key = SetLayer("set", lower.layer.id, sandings=(Sanding(320, "between clear coats"),))
            yield Hit(
                i,
                f"{upper.name} over {lower.name.lower()} that was not scuffed.",
                (remedy("P320 first", key),),
            )
