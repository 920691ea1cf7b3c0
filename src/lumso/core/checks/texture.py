"""Rules about thick coats: sag, cracks, and what must stay level or clear."""

from collections.abc import Iterator

from ..changes.change import SetLayer, SetShare
from ..figure import listed
from ..layers.laid import Laid
from ..layers.stack import Stack
from .hurried import hurried
from .rule import Hit, insert, remedy, rule

GRAVITY = 9.81
SAG_FROM_MM, CRACKS_FROM_MM = 0.3, 5.0


def peak_mm(one: Laid) -> float:
    """How high the thickest of a coat stands, in mm: stippled peaks are twice the mean."""
    return one.wet_um / 1000 * (2 if one.acts("stands in peaks") else 1)


def holds_mm(one: Laid) -> float:
    """The thickness a mix can hold on an upright face, in mm: τ_y = ρ·g·t."""
    return one.stress_pa / (one.density * 1000 * GRAVITY) * 1000


@rule(
    "sags",
    "will fail",
    "likely",
    "A coat slides down an upright face when its own weight is more than it can carry: τ_y < ρ·g·t. Lay it thinner, "
    "or mix it stiffer.",
)
def sags(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        peak, most = peak_mm(one), holds_mm(one)
        if not stack.vertical or one.wet_um / 1000 < SAG_FROM_MM or peak <= most:
            continue
        mean = most / (2 if one.acts("stands in peaks") else 1)
        remedies = []
        if one.technique.per_mm and mean >= 0.2:
            thin = round(int(mean * 20) / 20, 2)
            remedies.append(remedy(f"{thin:g} mm mean instead", SetLayer("set", one.layer.id, thickness_mm=thin)))
        stiff = next(
            (x for x in one.base.limits if x.component == one.base.dial and x.most > one.shares.get(x.component, 1.0)),
            None,
        )
        if stiff and any(p.component.id == stiff.component and p.material.is_solid for p in one.pours):
            remedies.append(
                remedy(
                    f"Stiffer: {stiff.most:.0%} powder", SetShare("share", one.layer.id, stiff.component, stiff.most)
                )
            )
        says = f"{peak:.2g} mm high on an upright face; this mix holds {most:.2g} mm."
        yield Hit(i, says, tuple(remedies))


@rule(
    "cracks-thick",
    "risky",
    "likely",
    "Over 5 mm a coat cracks as it dries: the skin sets while the body still shrinks.",
)
def cracks_thick(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.wet_um / 1000 > CRACKS_FROM_MM:
            half = SetLayer(
                "set", one.layer.id, thickness_mm=one.layer.thickness_mm / 2, coats=min(one.layer.coats * 2, 12)
            )
            yield Hit(
                i,
                f"{one.wet_um / 1000:.2g} mm in one coat will crack as it dries.",
                (remedy("Twice the coats, half as thick", half),),
            )


@rule("top-not-level", "risky", "likely", "Tops must stay level enough for a cup, and hollows hold spills.")
def top_not_level(stack: Stack) -> Iterator[Hit]:
    if not stack.level or not {"water", "food", "heat"} & set(stack.use.touched_by):
        return
    for i, one in stack.each():
        level = any(sand.purpose == "level" for sand in one.layer.sandings)
        if one.technique.per_mm and peak_mm(one) > 1.0 and not level:
            thin = 0.5 if one.acts("stands in peaks") else 1.0
            yield Hit(
                i,
                f"Texture {peak_mm(one):.2g} mm high where cups will stand.",
                (remedy(f"{thin:g} mm mean at most", SetLayer("set", one.layer.id, thickness_mm=thin)),),
            )


@rule(
    "moving-parts",
    "good to know",
    "certain",
    "Leaf joints, drawer edges and closing faces must stay clear: texture rubs, binds and breaks off there.",
)
def moving_parts(stack: Stack) -> Iterator[Hit]:
    moves = tuple(dict.fromkeys(s.name.split(",")[0].lower() for s in stack.surfaces if s.does & {"closes", "slides"}))
    for i, one in stack.each():
        if moves and one.technique.per_mm:
            yield Hit(i, f"{one.name} on {listed(moves)}: keep closing edges clear of it.")


@rule(
    "texture-no-night",
    "risky",
    "likely",
    "Texture is dry on top long before it is dry beneath: what goes over it too soon stays soft.",
)
def texture_no_night(stack: Stack) -> Iterator[Hit]:
    for one in hurried(stack, "texture"):
        yield Hit(one.index, f"{one.of.name} has not had its night.", (one.way,), one.grade("risky"))


@rule(
    "texture-bare", "good to know", "likely", "Unsealed texture catches dust and loses crests to every passing sleeve."
)
def texture_bare(stack: Stack) -> Iterator[Hit]:
    rough = [x for x in stack.laid if x.technique.per_mm]
    if rough and not any(x.closes for x in stack.laid):
        seal = insert(stack, "", "dead-matt clear coat", "follows texture")
        yield Hit(len(stack.laid), f"{rough[-1].name} is left bare.", (remedy("A matt clear coat over it", seal),))
