"""Rules about sanding a layer: the grit, what it is for, and when."""

from collections.abc import Iterator
from dataclasses import replace

from ..book.preparation import Sanding
from ..changes.change import RemoveLayer, SetLayer
from ..colour.srgb import lightness
from ..figure import lasts
from ..layers.awaited import is_word
from ..layers.laid import Laid
from ..layers.stack import Stack
from .rule import Hit, remedy, rule


def _with(one: Laid, old: Sanding, new: Sanding) -> SetLayer:
    """One of a layer's sandings done otherwise."""
    return SetLayer("set", one.layer.id, sandings=tuple(new if s is old else s for s in one.layer.sandings))


def _sandings(stack: Stack) -> Iterator[tuple[int, Laid, Sanding]]:
    """Every sanding of every layer, with the layer's index."""
    for i, one in stack.each():
        for sand in one.layer.sandings:
            yield i, one, sand


WASH_FROM = 320
"""The coarsest grit for a thin wash."""


@rule(
    "too-coarse-for-wash",
    "risky",
    "certain",
    "Thin washes are thinner than the scratch of a coarse grit: P320 or finer to smooth, coarser goes through. To "
    "blend one on purpose a fine pad will do.",
)
def too_coarse_for_wash(stack: Stack) -> Iterator[Hit]:
    for i, one, sand in _sandings(stack):
        if one.film.kind == "wash" and sand.grit < WASH_FROM and not sand.back and not sand.rubs:
            fine = _with(one, sand, replace(sand, grit=WASH_FROM))
            yield Hit(i + 1, f"P{sand.grit} on {one.name.lower()} goes through it.", (remedy("P320", fine),))


@rule(
    "wrong-grit",
    "risky",
    "likely",
    "P180–220 softens paint, P100–120 bites, coarser only to reach wood; between clear coats P240 or finer. Finer than "
    "asked is never a danger, only slower.",
)
def wrong_grit(stack: Stack) -> Iterator[Hit]:
    for i, one, sand in _sandings(stack):
        advised = stack.catalogue.abrasives.get(sand.purpose)
        if advised and sand.grit < advised.coarsest and one.film.kind != "wash":
            right = _with(one, sand, replace(sand, grit=advised.coarsest))
            says = f"P{sand.grit} is too coarse for {advised.name}: P{advised.coarsest} or finer does that."
            yield Hit(i + 1, says, (remedy(f"P{advised.coarsest}", right),))


@rule(
    "sanded-wet",
    "risky",
    "likely",
    "Paint that is not dry through rolls up under the paper. Half an hour or bone dry is a matter of school for "
    "mineral paint; texture and paint with sealer in it have their own moment.",
)
def sanded_wet(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if not one.layer.sandings or one.layer.wait_h is None:
            continue
        needs = stack.minutes(i, "touch")
        if needs is not None and one.film.sands_soft_min is not None:
            needs = min(needs, one.film.sands_soft_min)
        waited = 60 * (stack.waits_h(i) if is_word(one.layer.wait_h) else one.layer.wait_h)
        if needs is not None and waited < needs - 1e-6:
            add = SetLayer("set", one.layer.id, wait_h=max(needs, stack.minutes(i, "recoat_from") or 0) / 60)
            yield Hit(
                i + 1,
                f"Sanded {lasts(waited)} after it was laid; that takes {lasts(needs)}.",
                (remedy("Let it dry first", add),),
            )


@rule(
    "steel-wool",
    "risky",
    "certain",
    "Steel wool leaves splinters that rust in the next water-borne coat and turn tannin woods blue-black, under wax "
    "too. Synthetic or bronze instead; never steel near sparks.",
)
def steel_wool(stack: Stack) -> Iterator[Hit]:
    for i, one, sand in _sandings(stack):
        if sand.abrasive != "steel wool":
            continue
        pad = remedy("A synthetic pad", _with(one, sand, replace(sand, abrasive="synthetic pad")))
        above = stack.laid[i + 1] if i + 1 < len(stack.laid) else None
        if above and above.watery:
            yield Hit(i + 1, f"Steel wool before {above.name.lower()}: rust spots.", (pad,))
        elif stack.grounded("tannins") and not stack.beneath(i + 1).closed:
            yield Hit(i + 1, f"Steel wool on {stack.ground.name}: it turns blue-black.", (pad,))


@rule(
    "nothing-to-reveal",
    "good to know",
    "likely",
    "Sanding back shows what is beneath only where it differs: the same colour twice shows nothing.",
)
def nothing_to_reveal(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in stack.pairs():
        back = any(sand.back for sand in upper.layer.sandings)
        alike = lower.hex.lower() == upper.hex.lower() and abs(lightness(lower.hex) - lightness(upper.hex)) < 1
        if back and alike and lower.film.kind == upper.film.kind == "paint":
            yield Hit(i, f"Sanding {upper.name.lower()} back shows the same colour beneath.")


@rule(
    "sanding-wax",
    "will fail",
    "certain",
    "Wax clogs the paper and smears into the scratches: sand before it, never after.",
)
def sanding_wax(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if any(not sand.rubs for sand in one.layer.sandings) and one.film.kind == "wax":
            yield Hit(
                i + 1,
                f"Sanding {one.name.lower()}.",
                (remedy(f"Leave {one.name.lower()} out", RemoveLayer("remove", one.layer.id)),),
            )


@rule(
    "clear-not-keyed",
    "good to know",
    "likely",
    "Between clear coats a light pass with P320 takes nibs off and gives the next something to hold.",
)
def clear_not_keyed(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.film.kind == "clear" and one.layer.coats > 2 and not one.layer.sandings:
            key = SetLayer("set", one.layer.id, sandings=(Sanding(320, "between clear coats"),))
            yield Hit(
                i + 1,
                f"{one.layer.coats} coats of {one.name.lower()} with nothing between them.",
                (remedy("P320 between them", key),),
            )


@rule(
    "sands-last-clear",
    "risky",
    "likely",
    "Sanding the last clear coat takes off what was to protect, and leaves it dull and open: rub it out with a fine "
    "pad, or leave it.",
)
def sands_last_clear(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or stack.laid[-1].film.kind != "clear":
        return
    one = stack.laid[-1]
    wrong = [s for s in one.layer.sandings if not s.rubs and s.purpose != "between clear coats"]
    if wrong:
        left = SetLayer("set", one.layer.id, sandings=tuple(s for s in one.layer.sandings if s not in wrong))
        yield Hit(
            len(stack.laid), f"{one.name} is last, and sanded with {wrong[0].named}.", (remedy("Leave it", left),)
        )
