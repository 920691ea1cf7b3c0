"""The usual cautions, and the steps where they matter. Each defers to labels, local rules and licensed practice."""

from ..book.preparation import Sanding
from ..job.job import Use
from .abrasion import reaches
from .stack import Laid, Stack

LABEL = "The label and local rules come first."
DUST = (
    "Sanding dust: a mask to the standard the paper's maker names, extraction, wipe up damp; wood dust is a "
    f"sensitiser. {LABEL}"
)
OLD_DUST = (
    "Old paint: test for lead before any sanding, scraping or heat; wet only, no household vacuum; children and "
    "pregnant people away. Where it is found: local rules, and licensed help where they ask for it."
)
POWDER = (
    "Powder flies when it is tipped and stirred: dust mask, no draught, wipe up damp. Sand and texture powders may "
    f"hold silica. No powder or wash water down the drain. {LABEL}"
)
CAUSTIC = f"Milk-paint powder and lime are caustic: gloves and eye protection while mixing and sanding. {LABEL}"
PLASTER = "Plaster heats as it sets and blocks drains: never a cast round skin, leftovers into the bin when hard."
RAGS = (
    "Oily and waxy rags, pads and dust can catch fire by themselves: flat outdoors, or in water in a lidded metal can. "
    f"No flame, open window, gloves. {LABEL}"
)
VAPOUR = f"Solvent vapour: open the window, no flame or sparks; a dust filter does not stop vapour. {LABEL}"
HEAT_GUN = (
    "If you force a coat dry: thin coats only, never texture, never on old paint (fumes, burns, scorch); keep the gun "
    "moving and let it cool on its stand."
)
FOOD = "Coatings are not food-safe by default; tools and pots do not go back to the kitchen."
CHILDREN = (
    "For children: “low odour” is not toy-safe. Only a coat certified for it, fully cured, as its label and local "
    "rules say."
)
FLOOR = "Floors and steps: check slip and wear on the label before anybody walks on it."
OUTDOORS = "Outdoors: only what its label allows, renewed when it dulls; a porch is outdoors."
HEARTH = (
    "Nothing here is rated for candles, hearths in use or radiators; a licensed sweep or fitter decides about those."
)
PUBLIC = "Public rooms: fire rules for coatings and cloths are local; ask who is responsible for the building."
CURED = "A wipeable surface is not yet a cured one: no weight, tape or cleaner on it before its time."


def before_work(use: Use) -> tuple[str, ...]:
    """What must be known before anybody touches the piece."""
    return () if use.lead.settled else (OLD_DUST,)


def when_mixing(laid: Laid) -> tuple[str, ...]:
    """At the pot: what the recipe says itself, and what its powders ask for where it does not."""
    found = list(laid.base.cautions)
    own = " ".join(found).lower()
    traits = {t for p in laid.pours if p.poured_ml > 0 for t in p.material.traits}
    if any(p.material.is_solid for p in laid.pours if p.poured_ml > 0) and "mask" not in own:
        found.append(POWDER)
    if "caustic" in traits and "caustic" not in own:
        found.append(CAUSTIC)
    if "sets hard" in traits and "drain" not in own:
        found.append(PLASTER)
    return tuple(found)


def when_laying(laid: Laid) -> tuple[str, ...]:
    """On the surface: rags and vapour."""
    if laid.film.kind in {"wax", "oil"}:
        return (RAGS,)
    return (VAPOUR,) if laid.film.carrier in {"solvent", "spirit"} else ()


def when_sanding(stack: Stack, index: int, sand: Sanding) -> tuple[str, ...]:
    """At the paper: dust, what it may come through to, and what is caustic in it."""
    through = range(reaches(stack, index, sand), index + 1)
    old = through.start < 0 and stack.asks_lead
    caustic = any("caustic" in p.material.traits for k in through if k >= 0 for p in stack.laid[k].pours)
    return (DUST, *((OLD_DUST,) if old else ()), *((CAUSTIC,) if caustic else ()))


def in_use(use: Use) -> tuple[str, ...]:
    """When it is done: what its use asks for."""
    by_word = {"food": FOOD, "children": CHILDREN, "feet": FLOOR, "weather": OUTDOORS, "heat": HEARTH}
    by_word["an unknown buyer"] = "Tell the buyer what is on it, and when it will have cured."
    return (CURED, *(text for word, text in by_word.items() if word in use.touched_by))


def in_short(caution: str) -> str:
    """A caution that was given in full before, in few words: its first clause.

    >>> in_short(CAUSTIC)
    'Milk-paint powder and lime are caustic'
    """
    ends = [caution.find(mark) for mark in (": ", ". ", "; ") if mark in caution]
    return caution[: min(ends)] if ends else caution.rstrip(".")
