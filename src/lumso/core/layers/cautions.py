"""The usual cautions, and the steps where they matter. Each defers to labels, local rules and licensed practice."""

from ..book.preparation import Preparation, Sanding
from ..job.job import Use
from .abrasion import reaches
from .laid import Laid
from .stack import Stack

LABEL = "The label and local rules come first."
DUST = (
    "Sanding dust: a mask to the standard the paper's maker names, extraction, wipe up damp; wood dust is a "
    f"sensitiser. {LABEL}"
)
OLD_DUST = (
    "Old paint: test for lead before any sanding, scraping or heat; wet only, no household vacuum; children and "
    "pregnant people away. Where it is found: local rules, and licensed help where they ask for it."
)
LEAD_FOUND = (
    "Lead was found in the old coat: no dry sanding, no scraping, no heat. Leave it alone under sound coats, or "
    "licensed help, as local rules say; children and pregnant people away."
)
ASBESTOS = (
    "Old texture or old plaster may hold asbestos: no sanding, scraping or drilling before it is tested. Where it is "
    "found: local rules, and licensed help."
)
SILICA = (
    "Sanding texture or grit: the dust may hold silica, which stays in the lungs. A fine-dust mask to the standard its "
    f"label names, extraction, wipe up damp, never sweep. {LABEL}"
)
ROTATING = (
    "It turns: no gloves, no cloth in the hand, no loose hair, sleeves or jewellery, no steel wool near sparks. The "
    "machine's own instructions come first."
)
LADDER = "From a ladder: three points of contact, a hook for the pot, somebody below; no leaning out."
KITCHEN = "Tools, cups and jars from the kitchen do not go back there, and no paint in a food fridge."
FROST = "Keep mixes and piece above 5 °C until it has cured: frost kills water-borne paint, in the pot too."
FLAME = "Put out candles and stoves, no sparks: vapour and rags catch fire. A licensed fitter decides about hearths."
FAMILY = "Children and pregnant people away until it has been aired and wiped damp; pots and powders locked away."
FORCED = (
    "Warm air on thin coats only, half a metre off and moving; burns, scorch and fumes otherwise. Let the gun cool on "
    "its stand; never near oily rags, and never on an old coat that was not tested."
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


VAPOURS = {"solvent", "spirit", "oil"}


def before_work(use: Use, old: bool) -> tuple[str, ...]:
    """What must be known before anybody touches the piece; `old` where it has a coat that may hold lead."""
    return _old_coat(use) if old else ()


def _old_coat(use: Use) -> tuple[str, ...]:
    if use.lead.settled:
        return ()
    return (LEAD_FOUND if use.lead.answer == "found" else OLD_DUST,)


def when_preparing(stack: Stack, prep: Preparation) -> tuple[str, ...]:
    """At the ground: its own, and what the old coat asks for where it is abraded or drilled."""
    found = list(prep.cautions)
    use = stack.use
    if prep.abrades and stack.asks_lead:
        found += _old_coat(use)
    if (prep.abrades or "drills" in prep.does) and stack.asks_asbestos:
        found.append(ASBESTOS)
    if prep.abrades and use.there("turned on a lathe"):
        found.append(ROTATING)
    if prep.abrades and use.there("children in the house", "someone pregnant in the house"):
        found.append(FAMILY)
    if {"takes wax off", "takes rust off"} & set(prep.does) and use.there("candles or a fire near it"):
        found.append(FLAME)
    return tuple(found)


def when_mixing(laid: Laid, use: Use) -> tuple[str, ...]:
    """At the pot: what the recipe says itself, and what its powders ask for where it does not."""
    found = list(laid.base.cautions)
    own = " ".join(found).lower()
    traits = {t for p in laid.pours if p.poured_ml > 0 for t in p.material.traits}
    powder = any(p.material.is_solid for p in laid.pours if p.poured_ml > 0)
    if powder and "mask" not in own:
        found.append(POWDER)
    if "caustic" in traits and "caustic" not in own:
        found.append(CAUSTIC)
    if "sets hard" in traits and "drain" not in own:
        found.append(PLASTER)
    if powder and use.there("children in the house", "someone pregnant in the house"):
        found.append(FAMILY)
    if use.there("kitchen tools in use"):
        found.append(KITCHEN)
    if use.there("may freeze") and laid.watery:
        found.append(FROST)
    return tuple(found)


def when_laying(laid: Laid, use: Use) -> tuple[str, ...]:
    """On the surface: rags and vapour, and what the place asks for."""
    found = []
    smells = laid.film.carrier in VAPOURS
    if laid.film.kind in {"wax", "oil"}:
        found.append(RAGS)
    elif smells:
        found.append(VAPOUR)
    if smells and use.there("candles or a fire near it"):
        found.append(FLAME)
    if smells and use.there("children in the house", "someone pregnant in the house"):
        found.append(FAMILY)
    if laid.layer.dries_by in {"hair dryer", "heat gun"}:
        found.append(FORCED)
    if use.there("turned on a lathe"):
        found.append(ROTATING)
    if use.there("reached by ladder"):
        found.append(LADDER)
    return tuple(found)


def when_sanding(stack: Stack, index: int, sand: Sanding) -> tuple[str, ...]:
    """At the paper: dust, what it may come through to, and what is in it that burns or stays in the lungs."""
    through = range(reaches(stack, index, sand), index + 1)
    old = through.start < 0
    traits = {t for k in through if k >= 0 for p in stack.laid[k].pours for t in p.material.traits}
    use = stack.use
    found = [DUST]
    if old and stack.asks_lead:
        found += _old_coat(use)
    if old and stack.asks_asbestos:
        found.append(ASBESTOS)
    if "caustic" in traits:
        found.append(CAUSTIC)
    if "silica" in traits:
        found.append(SILICA)
    if use.there("turned on a lathe"):
        found.append(ROTATING)
    if use.there("children in the house", "someone pregnant in the house"):
        found.append(FAMILY)
    return tuple(found)


def in_use(use: Use) -> tuple[str, ...]:
    """When it is done: what its use asks for."""
    by_word = {"food": FOOD, "children": CHILDREN, "feet": FLOOR, "weather": OUTDOORS, "heat": HEARTH}
    by_word["an unknown buyer"] = "Tell the buyer what is on it, and when it will have cured."
    place = (PUBLIC,) if use.there("public room") else ()
    frost = (FROST,) if use.there("may freeze") else ()
    fire = (HEARTH,) if use.there("candles or a fire near it") and "heat" not in use.touched_by else ()
    return (CURED, *(text for word, text in by_word.items() if word in use.touched_by), *place, *frost, *fire)


def in_short(caution: str) -> str:
    """A caution that was given in full before, in few words: its first clause.

    >>> in_short(CAUSTIC)
    'Milk-paint powder and lime are caustic'
    """
    ends = [caution.find(mark) for mark in (": ", ". ", "; ") if mark in caution]
    return caution[: min(ends)] if ends else caution.rstrip(".")
