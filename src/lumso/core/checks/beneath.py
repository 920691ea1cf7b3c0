"""Rules about the ground: what is beneath the first coat, and what was done to it."""

from collections.abc import Iterator

from ..changes.change import DropPrep, InsertLayer
from ..layers.stack import Stack
from .hurried import hurried
from .rule import Hit, insert, prep, remedy, rule, swap_for
from .stains import shellac

WASH_FINEST = 220
"""The finest grit a wash still takes on."""


def _first_id(stack: Stack) -> str:
    return stack.laid[0].layer.id


def _chips(stack: Stack) -> bool:
    """Whether the finish is meant to chip: what is done for hold would work against it."""
    return bool(stack.laid) and stack.laid[0].film.chips


def _greasy(stack: Stack) -> bool:
    """Whether wax or oil goes straight on the ground, which asks for no hold."""
    return bool(stack.laid) and stack.laid[0].film.kind in {"wax", "oil"}


def _primer(stack: Stack) -> InsertLayer:
    return insert(stack, _first_id(stack), "bonding primer", wait_h=12)


@rule(
    "slick-unprimed",
    "will fail",
    "likely",
    "On gloss, laminate and glass nothing soaks in: a coat without a bonding primer peels with the first knock.",
)
def slick_unprimed(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or stack.ground.surface != "slick" or "rusts" in stack.ground.traits:
        return
    first = stack.laid[0]
    if first.film.grips or first.film.chips or _greasy(stack):
        return
    says = f"{first.name} straight on {stack.ground.name}: it will not hold."
    yield Hit(0, says, (remedy("Put a bonding primer beneath, and leave it a night", _primer(stack)),))


@rule(
    "milk-paint-on-gloss",
    "risky",
    "likely",
    "Milk paint on a closed ground chips as it pleases, in large pieces or not at all. Wanted? Leave it, and make a "
    "test board first. Not wanted? Bonding additive in the first coat, or a primer.",
)
def milk_paint_on_gloss(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if not one.film.chips:
            continue
        under = stack.beneath(i)
        floor = under.floor
        if floor is None:
            closed, name = stack.ground.surface in {"slick", "sealed"}, stack.ground.name
        else:
            closed, name = floor.closes and floor.film.kind != "paint", floor.name.lower()
        if closed:
            yield Hit(
                i,
                f"{one.name} on {name} will chip as it pleases.",
                (
                    remedy("Bonding additive in this coat", swap_for(stack, one, "milk paint that grips")),
                    remedy(
                        "A bonding primer beneath, left a night",
                        insert(stack, one.layer.id, "bonding primer", wait_h=12),
                    ),
                ),
            )
            return


@rule(
    "slick-not-scuffed",
    "risky",
    "likely",
    "A shine is a surface without a key: even a bonding primer holds better on one that was dulled all over.",
)
def slick_not_scuffed(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or stack.ground.surface != "slick" or stack.prepared("scuffs", "sands", "takes rust off"):
        return
    if _chips(stack) or _greasy(stack) or stack.grounded("cannot be scuffed"):
        return
    yield Hit(
        0,
        f"{stack.ground.name.capitalize()} has not been scuffed.",
        (remedy("Scuff it dull all over first", prep(stack, "scuffs")),),
    )


@rule(
    "glossy-not-scuffed",
    "risky",
    "likely",
    "A glossy or satin old finish is hard and closed: dull it all over, or the first coat scratches off with a nail.",
)
def glossy_not_scuffed(stack: Stack) -> Iterator[Hit]:
    sheen, surface = stack.zone.sheen, stack.ground.surface
    shines = sheen in {"satin", "gloss"} and surface in {"unsealed paint", "sealed"}
    unsure = sheen == "unknown" and surface == "sealed"
    if not stack.laid or not (shines or unsure) or stack.prepared("scuffs", "sands"):
        return
    if _chips(stack) or _greasy(stack):
        return
    scuff = remedy("Scuff it dull all over first", prep(stack, "scuffs"))
    what = f"a {sheen} finish" if shines else "a sealed finish of unknown sheen"
    yield Hit(0, f"{stack.zone.name} has {what} that has not been scuffed.", (scuff,))


@rule(
    "not-cleaned",
    "risky",
    "likely",
    "Hands, kitchens and polish leave grease that sanding only rubs in: clean and rinse before any sanding.",
)
def not_cleaned(stack: Stack) -> Iterator[Hit]:
    used = stack.ground.surface in {"slick", "sealed"} or stack.grounded("old coating") or stack.faced("kitchen grease")
    clean = stack.prepared("degreases") or (stack.grounded("rusts") and stack.prepared("takes rust off"))
    if stack.laid and used and not clean and not (stack.grounded("waxed") and _greasy(stack)):
        yield Hit(
            0,
            f"{stack.ground.name.capitalize()} has not been degreased.",
            (remedy("Clean, degrease and rinse first", prep(stack, "degreases")),),
        )


@rule(
    "craters",
    "will fail",
    "likely",
    "Wax and silicone polish push water-borne coats away: they draw back into craters, coat after coat. Take the "
    "wax off before any sanding.",
)
def craters(stack: Stack) -> Iterator[Hit]:
    waxed = stack.grounded("waxed") or stack.faced("silicone polish")
    if stack.laid and waxed and not stack.prepared("takes wax off") and stack.laid[0].watery:
        yield Hit(
            0,
            "Old wax or polish beneath: the coat will crawl into craters.",
            (
                remedy(
                    "Take the old wax off first",
                    prep(stack, "takes wax off"),
                    prep(stack, "degreases"),
                ),
            ),
        )


@rule(
    "water-over-old-oil",
    "risky",
    "likely",
    "Water-borne coats hold on oil-bound ones only when these are cured and abraded, or with dewaxed shellac between.",
)
def water_over_old_oil(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or not stack.grounded("oil-bound") or stack.prepared("scuffs"):
        return
    first = stack.laid[0]
    if first.watery and "oil" not in first.film.stops and not first.film.chips:
        remedies = (
            remedy("Scuff it dull all over first", prep(stack, "scuffs")),
            remedy("Dewaxed shellac between", shellac(stack)),
        )
        yield Hit(0, f"{first.name} on old oil-bound paint that was not abraded.", remedies)


@rule(
    "pine-blotches",
    "good to know",
    "likely",
    "Raw pine drinks unevenly: a rubbed-in wash comes out blotchy. A thin washcoat evens it, or accept it.",
)
def pine_blotches(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.grounded("blotches") and stack.laid[0].film.kind == "wash":
        yield Hit(0, "Raw pine takes a wash in blotches: try it on an offcut.")


@rule(
    "grain-rises",
    "good to know",
    "certain",
    "Water makes the fibres of raw wood stand up. Damp it, let it dry, cut them off with P220: then they stay down.",
)
def grain_rises(stack: Stack) -> Iterator[Hit]:
    wet = stack.laid and stack.laid[0].watery and stack.ground.surface == "raw wood"
    if wet and not stack.prepared("raises grain"):
        yield Hit(
            0,
            "The first wet coat will raise the grain.",
            (remedy("Raise the grain first", prep(stack, "raises grain")),),
        )


@rule(
    "raw-wood-unsanded",
    "good to know",
    "likely",
    "Saw marks and mill glaze show through thin coats; through the grits once is the whole cure.",
)
def raw_wood_unsanded(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.ground.surface == "raw wood" and not stack.prepared("sands"):
        yield Hit(
            0,
            "Raw wood that has not been sanded.",
            (remedy("Sand it to P180", prep(stack, "sands", 180)),),
        )


@rule(
    "sanded-too-fine",
    "risky",
    "likely",
    "A wash takes best on P150–180: on wood polished finer it stays on top and wipes off.",
)
def sanded_too_fine(stack: Stack) -> Iterator[Hit]:
    fine = [p.slug for p in stack.preparations() if "sands" in p.does and p.grit > WASH_FINEST]
    if stack.laid and fine and (stack.laid[0].acts("rubs in") or stack.laid[0].film.kind == "wash"):
        stop = prep(stack, "sands", 180)
        swap = remedy("Stop at P180", *(DropPrep("drop prep", p) for p in fine), stop)
        yield Hit(0, "Sanded too fine for a wash to go in.", (swap,))


@rule(
    "needs-open-grain",
    "risky",
    "certain",
    "Liming and pickling live in the pores of open-grained wood. Close-grained wood has none to fill: it only turns "
    "milky.",
)
def needs_open_grain(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.acts("fills pores") and not stack.grounded("open grain"):
            swap = swap_for(stack, one, "rubbed-in wash")
            yield Hit(
                i,
                f"“{one.technique.name}” wants open grain; {stack.ground.name} has none.",
                (remedy("A rubbed-in wash instead", swap),),
            )


@rule(
    "metal-rusts",
    "will fail",
    "certain",
    "Water-borne coats rust bare steel while they dry: brown spots through the first coat. Rust off, then a "
    "rust-blocking primer.",
)
def metal_rusts(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or not stack.grounded("rusts") or not stack.laid[0].watery:
        return
    prime = insert(stack, _first_id(stack), "rust primer", wait_h=12)
    yield Hit(
        0,
        f"{stack.laid[0].name} straight on bare metal.",
        (remedy("Rust off, and a rust-blocking primer", prep(stack, "takes rust off"), prime),),
    )


@rule(
    "flaking-beneath",
    "will fail",
    "certain",
    "What flakes takes the new coats with it: scrape to a sound edge once the lead question is answered.",
)
def flaking_beneath(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.zone.condition == "flaking" and not stack.prepared("scrapes"):
        scrape = remedy(
            "Test for lead, then scrape to a sound edge",
            prep(stack, "tests for lead"),
            prep(stack, "scrapes"),
        )
        yield Hit(0, f"{stack.zone.name} is flaking beneath the first coat.", (scrape,))


@rule(
    "thirsty-plaster",
    "good to know",
    "likely",
    "Bare plaster and brick pull the water out of a coat before it can be worked: damp them, or give a thin first "
    "coat.",
)
def thirsty_plaster(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or stack.ground.surface not in {"plaster", "brick"}:
        return
    first = stack.laid[0]
    thinned = insert(stack, first.layer.id, "thinned first coat", wait_h=12)
    remedies = (remedy("A thinned coat first", thinned),)
    if first.film.kind == "paint" and first.watery and first.water < 0.1 and first.technique.plain:
        yield Hit(
            0,
            f"Neat {first.name.lower()} straight on {stack.ground.name}: it dries before it bites.",
            remedies,
            "risky",
        )
    elif first.technique.needs_open_min and not first.technique.rate_includes_ground:
        says = f"{stack.ground.name.capitalize()} shortens the time to work {first.name.lower()}."
        yield Hit(0, says, remedies)


@rule(
    "blocker-no-night",
    "risky",
    "likely",
    "A blocker shows only after a night whether it has stopped the stain: look again before going on.",
)
def blocker_no_night(stack: Stack) -> Iterator[Hit]:
    for one in hurried(stack, "night to tell"):
        yield Hit(one.index, "The stain blocker has not had its night.", (one.way,), one.grade("risky"))


@rule(
    "primer-no-night",
    "risky",
    "likely",
    "On a slick ground a bonding primer reaches its hold overnight, not after its two hours.",
)
def primer_no_night(stack: Stack) -> Iterator[Hit]:
    for one in hurried(stack, "night to hold"):
        says = f"The primer on {stack.ground.name} has not had its night."
        yield Hit(one.index, says, (one.way,), one.grade("risky"))
