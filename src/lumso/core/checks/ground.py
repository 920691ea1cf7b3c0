"""Rules about what can be seen on a ground: what nobody knows, spots, patterns, paper, holes, what bends."""

from collections.abc import Iterator

from ..layers.stack import Stack
from .rule import Hit, insert, prep, remedy, rule
from .stains import covers


@rule(
    "unknown-ground",
    "risky",
    "certain",
    "What nobody knows may be wax, oil, gloss or something that dissolves: a patch in a hidden spot tells, coat by "
    "coat, overnight.",
)
def unknown_ground(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.grounded("unknown") and not stack.prepared("tests a patch"):
        yield Hit(0, "Nobody knows what is beneath.", (remedy("Test a patch first", prep(stack, "tests a patch")),))


@rule(
    "filler-takes-no-wash",
    "risky",
    "certain",
    "Filler and dried glue drink nothing: under a wash, a stain or a clear coat they stay as pale patches.",
)
def filler_takes_no_wash(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.faced("filler or glue spots") and not any(covers(x) for x in stack.laid):
        yield Hit(
            0,
            "Filler or glue spots will show through it.",
            (remedy("A coat that covers, beneath", insert(stack, stack.laid[0].layer.id, "plain paint", wait_h=12)),),
        )


@rule(
    "raised-pattern-shows",
    "good to know",
    "certain",
    "A raised old pattern shows through any number of coats, for years: it is sanded or filled level first, or wanted.",
)
def raised_pattern_shows(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.faced("raised old pattern") and not stack.prepared("sands"):
        yield Hit(0, "The raised old pattern will show.")


@rule(
    "wallpaper-beneath",
    "risky",
    "certain",
    "Wallpaper lets go when it gets wet, and its paste crackles paint: off first, and the paste washed off.",
)
def wallpaper_beneath(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.faced("wallpaper or its paste") and not stack.prepared("degreases"):
        wash = remedy("Off, and the paste washed off", prep(stack, "degreases"))
        yield Hit(0, "Wallpaper or its paste beneath the first coat.", (wash,))


@rule(
    "holes-open",
    "good to know",
    "certain",
    "Holes are filled, and new ones drilled, before the first coat: filler and drill both mark paint.",
)
def holes_open(stack: Stack) -> Iterator[Hit]:
    if not stack.laid:
        return
    if stack.faced("holes to fill") and not stack.prepared("fills"):
        yield Hit(0, "There are holes to fill.", (remedy("Fill them first", prep(stack, "fills")),))
    if stack.faced("holes to drill") and not stack.prepared("drills"):
        yield Hit(0, "There are holes to drill.", (remedy("Drill them first", prep(stack, "drills")),))


@rule(
    "ground-moves",
    "good to know",
    "likely",
    "Cloth, card and thin plastic bend, and card cockles when it is wet: thin coats, both sides where it matters, and "
    "nothing brittle on top.",
)
def ground_moves(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.grounded("bends"):
        yield Hit(0, f"{stack.ground.name.capitalize()} bends: thin coats, nothing brittle.")
