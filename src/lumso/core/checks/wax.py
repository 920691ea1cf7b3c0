"""Rules about wax, oil, patina and gilding: what holds over them, and what they do to what is beneath."""

from collections.abc import Iterator

from ..book.preparation import Sanding
from ..changes.change import MoveLayer, RemoveLayer, SetLayer
from ..figure import lasts
from ..layers.laid import Laid
from ..layers.stack import Stack
from .hurried import hurried
from .rule import Hit, insert, remedy, rule, swap_for


def _through_blockers(stack: Stack) -> Iterator[tuple[int, Laid, Laid]]:
    """Each layer with every one it lies on, shellac and other blockers between looked through."""
    for i, lower, upper in stack.meets():
        yield i, lower, upper
        k = i - 1
        while k > 0 and stack.laid[k] is lower and lower.film.kind == "blocker":
            k -= 1
            lower = stack.laid[k]
            yield i, lower, upper


def _cured_and_keyed(stack: Stack, index: int, above: int) -> bool:
    """Whether a layer of oil had its whole cure and was abraded before what lies above."""
    cured = stack.minutes(index, "cured")
    waited = stack.hours_between(index, above) * 60
    return cured is not None and waited >= cured - 1e-6 and bool(stack.laid[index].layer.sandings)


@rule(
    "water-over-wax",
    "will fail",
    "likely",
    "Nothing with water in it holds on wax, nor does shellac between make it hold, unless the wax is there as a "
    "resist.",
)
def water_over_wax(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in _through_blockers(stack):
        if lower.film.kind != "wax" or lower.acts("resists") or not upper.watery or upper.film.kind == "clear":
            continue
        remedies = [remedy(f"Move {lower.name.lower()} to the top", MoveLayer("move", lower.layer.id, ""))]
        if i + 1 < len(stack.laid):
            remedies = [remedy(f"Leave {lower.name.lower()} out", RemoveLayer("remove", lower.layer.id))]
        remedies.append(
            remedy(
                "It is a resist: only where wear would come",
                swap_for(stack, lower, "clear wax", "resists"),
            )
        )
        yield Hit(i, f"{upper.name} over wax will not hold.", tuple(remedies))


@rule(
    "hard-coat-over-wax",
    "will fail",
    "likely",
    "Wax is usually last. A clear coat over it needs its maker's word and a test, or it stays soft and scratches off.",
)
def hard_coat_over_wax(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in stack.meets():
        greasy = lower.film.kind in {"wax", "oil"} and not lower.acts("resists")
        done = lower.film.kind == "oil" and _cured_and_keyed(stack, stack.laid.index(lower), i)
        if greasy and upper.film.kind == "clear" and not done:
            yield Hit(
                i,
                f"{upper.name} over {lower.name.lower()}.",
                (
                    remedy(f"Leave {lower.name.lower()} out", RemoveLayer("remove", lower.layer.id)),
                    remedy(f"Leave {upper.name.lower()} out", RemoveLayer("remove", upper.layer.id)),
                ),
            )


@rule(
    "clear-over-patina",
    "risky",
    "likely",
    "A hard coat over patina or gilding needs the maker's word and a test: some turn milky, some dissolve it.",
)
def clear_over_patina(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in stack.meets():
        if lower.film.kind in {"patina", "leaf"} and upper.film.kind == "clear":
            between = insert(stack, upper.layer.id, "insulating coat")
            first = MoveLayer("move", lower.layer.id, "")
            yield Hit(
                i,
                f"{upper.name} over {lower.name.lower()}: test it first.",
                (
                    remedy("Dewaxed shellac between", between),
                    remedy(f"{lower.name} after the clear coat", first),
                ),
            )


@rule(
    "water-over-oil",
    "will fail",
    "likely",
    "Water-borne coats do not hold on fresh oil: it must be cured and abraded, or have dewaxed shellac between.",
)
def water_over_oil(stack: Stack) -> Iterator[Hit]:
    for i, lower, upper in stack.meets():
        fresh = lower.film.kind == "oil" and not _cured_and_keyed(stack, stack.laid.index(lower), i)
        if fresh and upper.watery and upper.film.kind != "clear":
            between = insert(stack, upper.layer.id, "insulating coat")
            yield Hit(
                i,
                f"{upper.name} over {lower.name.lower()}.",
                (
                    remedy("Dewaxed shellac between", between),
                    remedy(f"Leave {lower.name.lower()} out", RemoveLayer("remove", lower.layer.id)),
                ),
            )


@rule(
    "dark-wax-stays",
    "risky",
    "certain",
    "Dark wax straight on paint or raw wood stays where it lands. Clear wax first gives control; so does a clear coat.",
)
def dark_wax_stays(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if not one.film.colours or one.acts("fills pores"):
            continue
        lower = stack.beneath(i).floor
        bare = lower is None and stack.ground.surface in {"raw wood", "unsealed paint", "plaster", "brick"}
        if bare or (lower is not None and not lower.closes and lower.film.kind != "glaze"):
            beneath = stack.ground.name if lower is None else lower.name.lower()
            yield Hit(
                i,
                f"{one.name} straight on {beneath} cannot be taken back.",
                (
                    remedy("Clear wax first", insert(stack, one.layer.id, "clear wax")),
                    remedy("A clear coat first", insert(stack, one.layer.id, "clear coat", wait_h=12)),
                ),
            )


@rule(
    "wax-breaks-crests",
    "risky",
    "likely",
    "Rubbing wax into stiff texture can break its crests and leaves white crumbs in the wax. A brushed-on clear coat "
    "is the safer school; wax for steering dark wax is the other.",
)
def wax_breaks_crests(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.film.kind != "wax" or one.acts("stays in recesses"):
            continue
        rough = [x for x in stack.laid[:i] if x.acts("stands in peaks")]
        if rough and not any(x.closes for x in stack.laid[:i]):
            swap = swap_for(stack, one, "dead-matt clear coat", "follows texture")
            before = insert(stack, one.layer.id, "dead-matt clear coat", "follows texture", 12)
            yield Hit(
                i,
                f"Rubbing {one.name.lower()} into the peaks of {rough[-1].name.lower()}.",
                (remedy("A brushed-on clear coat instead", swap), remedy("A clear coat first", before)),
            )


@rule(
    "oil-over-coat",
    "risky",
    "likely",
    "Oil wax must soak in. Over a film that closes the surface it stays on top, sticky.",
)
def oil_over_coat(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        shut = stack.ground.surface in {"slick", "sealed"} if i == 0 else stack.laid[i - 1].closes
        if one.film.kind == "oil" and shut and (i == 0 or stack.laid[i - 1].film.kind != "oil"):
            swap = swap_for(stack, one, "clear coat")
            yield Hit(i, f"{one.name} over something it cannot soak into.", (remedy("A clear coat instead", swap),))


@rule(
    "thick-wax",
    "good to know",
    "likely",
    "More wax is not more protection: excess stays soft and collects dust. Two thin coats a day apart are the most.",
)
def thick_wax(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.film.kind == "wax" and one.layer.coats > 2:
            yield Hit(
                i,
                f"{one.layer.coats} coats of {one.name.lower()}.",
                (remedy("Two coats", SetLayer("set", one.layer.id, coats=2)),),
            )


@rule(
    "resist-left",
    "risky",
    "certain",
    "Wax that was put on as a resist comes off with the paint over it, before anything seals: a clear coat over it "
    "holds on wax, and peels there.",
)
def resist_left(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.film.kind != "wax" or not one.acts("resists"):
            continue
        sealer = next((k for k in range(i + 1, len(stack.laid)) if stack.laid[k].film.kind == "clear"), None)
        if sealer is None or any(x.layer.sandings for x in stack.laid[i:sealer]):
            continue
        below = stack.laid[sealer - 1]
        rub = SetLayer("set", below.layer.id, sandings=(Sanding(180, "reveal"),))
        says = f"{one.name} under {stack.laid[sealer].name.lower()} was never rubbed off."
        yield Hit(sealer, says, (remedy("Rub it off with P180 first", rub),))


@rule(
    "solvent-over-green",
    "risky",
    "likely",
    "Wax, oil and solvent primers soften water-borne paint that is only touch dry, and shut its water in: it wants its "
    "night first.",
)
def solvent_over_green(stack: Stack) -> Iterator[Hit]:
    for one in hurried(stack, "solvent"):
        yield Hit(one.index, f"{one.after}; it wants {lasts(one.needs)}.", (one.way,), one.grade("risky"))
