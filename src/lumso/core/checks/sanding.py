"""Rules about sanding a layer: the grit, what it is for, and when."""

from collections.abc import Iterator
from dataclasses import replace

from ..book.preparation import Sanding
from ..changes.change import RemoveLayer, SetLayer
from ..colour.srgb import lightness
from ..figure import lasts
from ..layers.stack import Stack
from .rule import Hit, rule, way


@rule(
    "too-coarse-for-wash",
    "risky",
    "certain",
    "Thin washes are thinner than the scratch of a coarse grit: P320 or finer, coarser goes through.",
)
def too_coarse_for_wash(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        sand = next(iter(one.layer.sandings), None)
        if sand and one.film.kind == "wash" and sand.grit < 320 and sand.purpose not in {"bite", "reveal"}:
            fine = SetLayer("set", one.layer.id, sand=replace(sand, grit=320))
            yield Hit(i + 1, f"P{sand.grit} on {one.name.lower()} goes through it.", (way("P320", fine),))


@rule(
    "wrong-grit",
    "risky",
    "likely",
    "P180–220 softens paint, P100–120 bites, coarser only to reach wood; between clear coats P240 or finer.",
)
def wrong_grit(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        sand = next(iter(one.layer.sandings), None)
        advised = stack.catalogue.abrasives.get(sand.purpose) if sand else None
        if not sand or not advised or advised.coarsest <= sand.grit <= advised.finest:
            continue
        if one.film.kind == "wash" and sand.grit >= 320:
            continue
        grit = advised.coarsest if sand.grit < advised.coarsest else advised.finest
        right = SetLayer("set", one.layer.id, sand=replace(sand, grit=grit))
        says = f"P{sand.grit} for {advised.name}: P{advised.coarsest} to P{advised.finest} does that."
        yield Hit(i + 1, says, (way(f"P{grit}", right),))


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
        if needs is not None and one.layer.wait_h * 60 < needs - 1e-6:
            add = SetLayer("set", one.layer.id, wait_h=max(needs, stack.minutes(i, "recoat_from") or 0) / 60)
            yield Hit(
                i + 1,
                f"Sanded {lasts(one.layer.wait_h * 60)} after it was laid; touch dry takes {lasts(needs)}.",
                (way("Let it dry first", add),),
            )


@rule(
    "steel-wool",
    "risky",
    "certain",
    "Steel wool leaves splinters that rust in the next water-borne coat and turn tannin woods blue-black. Synthetic "
    "or bronze instead; never steel near sparks.",
)
def steel_wool(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in stack.pairs():
        sand = next(iter(lower.layer.sandings), None)
        if sand and sand.abrasive == "steel wool" and upper.watery:
            pad = SetLayer("set", lower.layer.id, sand=replace(sand, abrasive="synthetic pad"))
            yield Hit(i, f"Steel wool before {upper.name.lower()}: rust spots.", (way("A synthetic pad", pad),))


@rule(
    "nothing-to-reveal",
    "know this",
    "likely",
    "Sanding back shows what is beneath only where it differs: the same colour twice shows nothing.",
)
def nothing_to_reveal(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in stack.pairs():
        sand = next(iter(upper.layer.sandings), None)
        alike = lower.hex.lower() == upper.hex.lower() and abs(lightness(lower.hex) - lightness(upper.hex)) < 1
        if sand and sand.purpose in {"bite", "reveal"} and alike and lower.film.kind == upper.film.kind == "paint":
            yield Hit(i, f"Sanding {upper.name.lower()} back shows the same colour beneath.")


@rule(
    "sanding-wax",
    "will fail",
    "certain",
    "Wax clogs the paper and smears into the scratches: sand before it, never after.",
)
def sanding_wax(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.layer.sandings and one.film.kind == "wax":
            yield Hit(
                i + 1,
                f"Sanding {one.name.lower()}.",
                (way(f"Leave {one.name.lower()} out", RemoveLayer("remove", one.layer.id)),),
            )


@rule(
    "clear-not-keyed",
    "know this",
    "likely",
    "Between clear coats a light pass with P320 takes nibs off and gives the next something to hold.",
)
def clear_not_keyed(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.film.kind == "clear" and one.layer.coats > 2 and not one.layer.sandings:
            key = SetLayer("set", one.layer.id, sand=Sanding(320, "between clear coats"))
            yield Hit(
                i + 1,
                f"{one.layer.coats} coats of {one.name.lower()} with nothing between them.",
                (way("P320 between them", key),),
            )
