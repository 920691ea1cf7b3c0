"""What can hurt a person: answered, never accepted away. Each defers to labels, local rules and licensed practice."""

from collections.abc import Iterator

from ..changes.change import SetLayer
from ..layers.stack import Stack
from .rule import Hit, remedy, rule

LOCAL = "rule of the trade; local rules come first"
GUNS = {"hair dryer", "heat gun"}
VAPOURS = {"solvent", "spirit", "oil"}


@rule(
    "lead-untested",
    "can hurt",
    "certain",
    "No date clears old paint, untested is suspect: until it is tested no dry sanding, scraping or heat, no household "
    "vacuum; children and pregnant people away. Local rules, and licensed help where they ask for it.",
    LOCAL,
)
def lead_untested(stack: Stack) -> Iterator[Hit]:
    lead = stack.use.lead
    if stack.grounded("may hide lead") and lead.answer in {"not tested", "test planned"}:
        said = "a test is planned, not done" if lead.answer == "test planned" else "it has not been tested"
        yield Hit(0, f"{stack.ground.name.capitalize()} may hold lead: {said}.")


@rule(
    "lead-found",
    "can hurt",
    "certain",
    "Where lead was found nothing is sanded dry, scraped or heated, by anybody unlicensed: it is left alone under "
    "sound coats, or taken off by licensed help, as local rules say. Children and pregnant people away.",
    LOCAL,
)
def lead_found(stack: Stack) -> Iterator[Hit]:
    if stack.use.lead.answer == "found" and stack.grounded("may hide lead"):
        yield Hit(0, f"Lead was found in {stack.ground.name}: no dry sanding, no scraping, no heat. Licensed help.")


@rule(
    "asbestos-untested",
    "can hurt",
    "certain",
    "Old textured and patterned coatings, and coats on old plaster, may hold asbestos, whatever was said of lead: do "
    "not sand, scrape or drill; have it tested first, as local rules say, and licensed help where it is found.",
    LOCAL,
)
def asbestos_untested(stack: Stack) -> Iterator[Hit]:
    if stack.asks_asbestos:
        found = stack.use.asbestos.answer == "found"
        says = (
            "Asbestos was found in it: leave it alone, licensed help." if found else "It may hold asbestos: test first."
        )
        yield Hit(0, says)


@rule(
    "heat-on-old-coat",
    "can hurt",
    "certain",
    "Heat on a coat that was not tested frees lead fumes, however many new layers lie between: no heat gun, no dryer, "
    "no torch until the question is closed.",
    LOCAL,
)
def heat_on_old_coat(stack: Stack) -> Iterator[Hit]:
    if not stack.asks_lead:
        return
    for i, one in stack.each():
        if one.layer.dries_by in GUNS:
            air = SetLayer("set", one.layer.id, dries_by="air")
            says = f"A {one.layer.dries_by} over an old coat that is not known to be free of lead."
            yield Hit(i, says, (remedy("Let it dry by itself", air),))


@rule(
    "rotating-work",
    "can hurt",
    "certain",
    "What turns takes hold: no gloves, no cloth in the hand, no loose hair, sleeves or jewellery; paper in strips; the "
    "lathe off for wax and steel wool. Its maker's instructions come first.",
    "rule of the trade; the machine's own instructions come first",
)
def rotating_work(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.use.there("turned on a lathe"):
        yield Hit(0, f"{stack.zone.name} turns while it is worked on.")


@rule(
    "kitchen-tools",
    "can hurt",
    "certain",
    "Spoons, cups and jars that have held paint, powder or wax do not go back to the kitchen, and paint is never "
    "kept in a food fridge.",
)
def kitchen_tools(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.use.there("kitchen tools in use"):
        yield Hit(0, "Kitchen tools are used for mixing: they stay in the workshop from now on.")


@rule(
    "flame-near",
    "can hurt",
    "certain",
    "Solvent, spirit and oil vapours catch fire from a candle, a stove or a spark, and so do the rags: put them out, "
    "air the room, and nothing painted here is rated for a flame. A licensed fitter decides about hearths.",
    LOCAL,
)
def flame_near(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or not stack.use.there("candles or a fire near it"):
        return
    strips = stack.prepared("takes wax off", "takes rust off")
    smells = next((x for x in stack.laid if x.film.carrier in VAPOURS), None)
    if smells:
        yield Hit(0, f"{smells.name} near an open flame.")
    elif strips:
        yield Hit(0, "Spirit, for taking wax or rust off, near an open flame.")
    else:
        yield Hit(0, "Candles or a fire near it: no coat here is rated for heat.", (), "good to know")


@rule(
    "ladder",
    "can hurt",
    "certain",
    "From a ladder: three points of contact, no leaning out, a hook for the pot, somebody below. Tall pieces are tied "
    "before they are leaned on.",
)
def ladder(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.use.there("reached by ladder"):
        yield Hit(0, f"{stack.zone.name} is reached by ladder.")


@rule(
    "household",
    "can hurt",
    "likely",
    "Children and pregnant people stay away from dust, solvents and fresh oil until the room has been aired and wiped "
    "damp; pots, powders and rags are locked away.",
    LOCAL,
)
def household(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or not stack.use.there("children in the house", "someone pregnant in the house"):
        return
    dusty = any(x.layer.sandings for x in stack.laid) or any(p.abrades for p in stack.preparations())
    smells = any(x.film.carrier in VAPOURS for x in stack.laid)
    powder = any(p.material.is_solid and p.poured_ml > 0 for x in stack.laid for p in x.pours)
    if dusty or smells or powder or stack.asks_lead:
        what = (
            ["dust"] * dusty + ["solvent"] * smells + ["powder"] * powder + ["an untested old coat"] * stack.asks_lead
        )
        yield Hit(0, f"{' and '.join(what).capitalize()} where children or a pregnant person live.")


@rule(
    "public-room",
    "good to know",
    "certain",
    "Public rooms have fire rules for coatings and cloths, and they are local: ask who is responsible for the "
    "building.",
    LOCAL,
)
def public_room(stack: Stack) -> Iterator[Hit]:
    if stack.laid and stack.use.there("public room"):
        yield Hit(0, "In a public room: local fire rules for coatings and cloths.")


@rule(
    "frost",
    "good to know",
    "certain",
    "Water-borne mixes die of frost, in the pot and before they have cured on the piece: keep both above 5 °C, and "
    "judge nothing that has been frozen.",
)
def frost(stack: Stack) -> Iterator[Hit]:
    if any(x.watery for x in stack.laid) and stack.use.there("may freeze"):
        yield Hit(0, "It may freeze where the stock or the piece stands.")
