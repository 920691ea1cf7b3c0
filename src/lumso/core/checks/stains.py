"""Rules about what comes through from the ground: resin, tannins, soot."""

from collections.abc import Iterator

from ..changes.change import InsertLayer
from ..colour.srgb import lightness
from ..layers.laid import WHOLE, Laid
from ..layers.stack import Stack
from .rule import Hit, insert, prep, remedy, rule


def covers(one: Laid) -> bool:
    """Whether a layer hides what is beneath, so that a stain in it would be a fault."""
    return one.film.kind in {"paint", "texture"} and one.water < 0.6 and one.layer.touched >= WHOLE


def _stains(stack: Stack, what: str) -> Laid | None:
    """The coat that shows a stain from the ground: the topmost that hides what is beneath, where nothing beneath it
    stops the stain. What is stained under a stop is hidden by what lies on it."""
    top = next((i for i in range(len(stack.laid) - 1, -1, -1) if covers(stack.laid[i])), None)
    if top is None or what in stack.beneath(top).stops or not stack.laid[top].watery:
        return None
    return stack.laid[top]


def shellac(stack: Stack) -> InsertLayer:
    return insert(stack, stack.laid[0].layer.id, "insulating coat", wait_h=12)


@rule(
    "knots-bleed",
    "risky",
    "likely",
    "Pine knots bleed resin for years, through any water-borne paint. Knotting or shellac first; or choose a colour "
    "that forgives it, which is a school of its own.",
)
def knots_bleed(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or not (stack.grounded("knots") or stack.faced("resinous knots")):
        return
    says = "Knots in the wood will bleed yellow through it."
    if _stains(stack, "knots"):
        yield Hit(0, says, (remedy("Dewaxed shellac over the knots first", shellac(stack)),))
    elif not any(covers(x) for x in stack.laid) and not any("knots" in x.film.stops for x in stack.laid):
        yield Hit(0, says, (), "good to know")


@rule(
    "tannins-bleed",
    "risky",
    "likely",
    "Oak and other tannin woods bleed brown into pale water-borne paint, at once or after weeks. A blocker, a night, "
    "look again; or choose a colour that forgives it.",
)
def tannins_bleed(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or not stack.grounded("tannins", "stain bleeds"):
        return
    one = _stains(stack, "tannins")
    if one and lightness(one.hex) > 60:
        block = insert(stack, stack.laid[0].layer.id, "stain blocker", wait_h=12)
        remedies = (
            remedy("A stain blocker first, left a night", block),
            remedy("Dewaxed shellac first", shellac(stack)),
        )
        yield Hit(0, f"{stack.ground.name.capitalize()} will bleed brown into the pale {one.name.lower()}.", remedies)


@rule(
    "alkali-darkens",
    "good to know",
    "likely",
    "Milk paint and lime are alkaline and darken tannin woods. Wanted, it is part of the look; unwanted, shellac "
    "first.",
)
def alkali_darkens(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.grounded("tannins") and stack.laid[0].film.alkaline:
        yield Hit(
            0,
            f"{stack.laid[0].name} will darken {stack.ground.name}.",
            (remedy("Dewaxed shellac first", shellac(stack)),),
        )


@rule(
    "soot-beneath",
    "risky",
    "certain",
    "Soot and its salts stain through water-borne paint and let it peel: wash, rinse, let it dry.",
)
def soot_beneath(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.grounded("soot") and not stack.prepared("washes soot off"):
        yield Hit(
            0,
            f"Soot on {stack.ground.name} has not been washed off.",
            (remedy("Wash the soot off and rinse", prep(stack, "washes soot off")),),
        )
