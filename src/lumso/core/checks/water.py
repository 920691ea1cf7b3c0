"""Rules about water: what it brings back, and what it kills."""

from collections.abc import Iterator

from ..changes.change import RemoveLayer, SetShare
from ..figure import lasts
from ..layers.stack import Stack
from ..layers.wet_edge import section_area
from .hurried import hurried
from .rule import Hit, insert, remedy, rule, swap_for


@rule(
    "no-night-before-water",
    "risky",
    "likely",
    "A wash or glaze lifts a clay, mineral or milk base that is only touch dry: it wants its night first.",
    may_fail=True,
)
def no_night_before_water(stack: Stack) -> Iterator[Hit]:
    for one in hurried(stack, "rub wet"):
        seal = insert(stack, one.upper.layer.id, "clear coat", wait_h=12)
        says = f"{one.after}: it wants {lasts(one.needs)} before it is rubbed wet."
        grade = one.grade("will fail" if one.upper.acts("lifts", "drags") else "risky")
        yield Hit(one.index, says, (one.way, remedy("A clear coat between", seal)), grade)


@rule(
    "strong-water",
    "risky",
    "likely",
    "Above 60 % water a wash that is worked and lifted brings up unsealed paint beneath it.",
)
def strong_water(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        soft = stack.beneath(i).open is not None or (i == 0 and stack.ground.surface == "unsealed paint")
        water = next((p.component.id for p in one.pours if p.material.role == "water"), "")
        if one.water > 0.6 + 1e-6 and one.acts("lifts") and soft and water:
            yield Hit(
                i,
                f"{one.water:.0%} water, worked and lifted over unsealed paint: it kills what is under it.",
                (
                    remedy("60 % water", SetShare("share", one.layer.id, water, 0.6)),
                    remedy("Seal what is beneath first", insert(stack, one.layer.id, "clear coat", wait_h=12)),
                ),
            )


@rule(
    "sealer-wakes-paint",
    "good to know",
    "likely",
    "A water-borne sealer brushed too often brings unsealed paint back and colours the sealer pot: few strokes, "
    "decant first, never dip back (mould).",
)
def sealer_wakes_paint(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.film.kind == "clear" and one.watery and stack.beneath(i).open is not None:
            yield Hit(i, f"{one.name} over unsealed paint: few strokes, from a decanted pot.")


@rule(
    "sealer-under-pickling",
    "will fail",
    "certain",
    "Liming and pickling must get into open pores: a sealer beneath has closed them.",
)
def sealer_under_pickling(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        shut = next((x for x in stack.laid[:i] if x.closes), None)
        if shut and (one.acts("fills pores") or one.acts("rubs in")):
            yield Hit(
                i,
                f"{shut.name} has closed the pores {one.name.lower()} needs.",
                (remedy(f"Leave {shut.name.lower()} out", RemoveLayer("remove", shut.layer.id)),),
            )


@rule(
    "wash-settles",
    "good to know",
    "certain",
    "Above 75 % water the pigment sinks while one looks: keep stirring, and judge after stirring.",
)
def wash_settles(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.water > 0.75 + 1e-6:
            yield Hit(i, f"{one.name} at {one.water:.0%} water settles: stir before every dip.")


@rule(
    "binder-thinned",
    "good to know",
    "likely",
    "Thinned beyond what its label allows, paint has too little binder left: it dusts and marks unless something "
    "seals it.",
)
def binder_thinned(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        thin = one.film.kind in {"paint", "wash"} and one.film.carrier == "water" and one.water > 0.24
        medium = any(p.component.role in {"medium", "sealer", "additive"} for p in one.pours)
        milk = any("binds itself" in p.material.traits for p in one.pours)
        sealed = any(x.closes for x in stack.laid[i + 1 :])
        if thin and not medium and not milk and not sealed and i == len(stack.laid) - 1:
            yield Hit(
                i + 1,
                f"{one.name} is last and thin in binder: it will dust.",
                (remedy("A matt clear coat over it", insert(stack, "", "dead-matt clear coat")),),
            )


@rule(
    "open-too-short", "risky", "likely", "The way it is put on needs a mix that stays open longer than this one does."
)
def open_too_short(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.film.open_most_min is None or one.film.open_most_min >= one.technique.needs_open_min:
            continue
        technique = one.technique
        if technique.lays_m2_per_h and technique.pass_m2_per_h and stack.surfaces:
            fits = section_area(
                one.film.open_most_min, technique.lays_m2_per_h, technique.passes, technique.pass_m2_per_h
            )
            if max(s.area_m2 for s in stack.surfaces) <= fits:
                continue
        says = (
            f"“{one.technique.name}” needs about {one.technique.needs_open_min:g} min; {one.film.name} stays open "
            f"{one.film.open_most_min:g} at most."
        )
        yield Hit(i, says, (remedy("The medium-rich glaze instead", swap_for(stack, one, "slow glaze")),))


@rule(
    "runs-on-sealed",
    "good to know",
    "likely",
    "A mix thinner than double cream runs on a sealed upright face: lay it thin and wipe what gathers.",
)
def runs_on_sealed(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        shut = stack.beneath(i).surface in {"sealed", "slick"}
        if stack.vertical and one.watery and one.flow.viscosity_mpa_s < 60 and shut:
            yield Hit(i, f"{one.name} may run on upright faces: wipe.")


@rule(
    "too-much-retarder",
    "risky",
    "likely",
    "A retarder lengthens open time; too much stays tacky. About 5 % to start, and the label's limit.",
)
def too_much_retarder(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        for pour in one.pours:
            if "retards" in pour.material.traits and pour.poured_ml > 0.05 + 1e-6:
                yield Hit(
                    i,
                    f"{pour.poured_ml:.0%} retarder: it will stay tacky.",
                    (remedy("5 % retarder", SetShare("share", one.layer.id, pour.component.id, 0.05)),),
                )


@rule(
    "glaze-drunk",
    "risky",
    "likely",
    "Matt paint drinks a glaze before it can be dragged: a clear coat, or an eggshell base, keeps it open.",
)
def glaze_drunk(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        lower = stack.beneath(i).floor
        matt = lower is not None and lower.film.rewets and not lower.closes
        if one.film.kind == "glaze" and one.acts("drags") and lower and matt:
            seal = insert(stack, one.layer.id, "clear coat", wait_h=12)
            yield Hit(
                i, f"{lower.name} drinks {one.name.lower()} while it is dragged.", (remedy("A clear coat first", seal),)
            )
