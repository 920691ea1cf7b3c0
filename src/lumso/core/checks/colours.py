"""Rules about colour: what a film does to it."""

from collections.abc import Iterator

from ..changes.change import SetLayer
from ..colour.hiding import coats_range
from ..colour.srgb import lightness
from ..layers.stack import Stack
from ..look.films import hiding_of
from .rule import Hit, insert, remedy, rule, swap_for

PALE, DARK = 75.0, 35.0


@rule(
    "amber-over-pale",
    "risky",
    "likely",
    "Amber films yellow pale work, and go on yellowing: a water-clear coat keeps it.",
)
def amber_over_pale(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        under = stack.beneath(i).painted
        if one.film.ambers and one.film.kind in {"clear", "oil", "blocker"} and under and lightness(under.hex) > PALE:
            over = any(x.film.kind in {"paint", "texture"} for x in stack.laid[i + 1 :])
            if not over:
                yield Hit(
                    i,
                    f"{one.name} yellows the pale {under.name.lower()}.",
                    (remedy("Water-clear coat instead", swap_for(stack, one, "clear coat")),),
                )


@rule(
    "matt-over-dark",
    "risky",
    "likely",
    "Matting agents cloud dark colours: satin for the body, matt in the last coat only.",
)
def matt_over_dark(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        under = stack.beneath(i).painted
        if one.film.matting and one.layer.coats > 1 and under and lightness(under.hex) < DARK:
            first = insert(stack, one.layer.id, "clear coat")
            yield Hit(
                i,
                f"{one.layer.coats} coats of matt over a dark colour turn it grey.",
                (remedy("Satin beneath, one coat of matt", SetLayer("set", one.layer.id, coats=1), first),),
            )


@rule(
    "sealer-deepens",
    "good to know",
    "certain",
    "Paint dries lighter and sealing deepens it again: judge on a sealed test board, and sand less than looks right.",
)
def sealer_deepens(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        back = any(s.back for x in stack.laid[:i] for s in x.layer.sandings)
        if one.film.kind in {"clear", "wax", "oil"} and back:
            yield Hit(i, f"{one.name} will deepen what was sanded back: sand less than looks right.")
            return


@rule(
    "too-few-coats",
    "good to know",
    "a guess",
    "By its hiding power this colour does not cover what is beneath in so many coats; reds and some whites need more. "
    "Thin spots show longest.",
    "estimate from the class of the colour; make a test board",
)
def too_few_coats(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        full = one.film.kind == "paint" and one.water < 0.6 and one.technique.plain and one.layer.touched > 0.95
        if not full or any(sand.back for sand in one.layer.sandings):
            continue
        painted = stack.beneath(i).painted
        beneath = painted.hex if painted else stack.ground.hex
        optics = stack.catalogue.optics
        hiding, measured = hiding_of(one.pours)
        few, many = coats_range(one.hex, beneath, optics, hiding, one.wet_um / optics.full_film_um, measured)
        if many is not None and few is not None and one.layer.coats < many and few <= 6:
            says = f"{few} coats" if few == many else f"{few} to {many} coats"
            says = f"{one.name}: about {says} to cover what is beneath (an estimate), not {one.layer.coats}."
            yield Hit(i, says, (remedy(f"{many} coats", SetLayer("set", one.layer.id, coats=many)),))
