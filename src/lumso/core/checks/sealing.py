"""Rules about the last film: what the use asks of it, and whether it stands that."""

from collections.abc import Iterator
from dataclasses import replace

from ..book.films import UseWord
from ..book.offers import Need
from ..changes.change import InsertLayer, Remedy, SetLayer, SwapRecipe
from ..layers.laid import WHOLE, Laid
from ..layers.stack import Stack
from .rule import Hit, insert, remedy, rule, swap_for

SEALERS = {"clear", "wax", "oil"}
WORDS: dict[UseWord, str] = {
    "hands": "being handled",
    "water": "water and wet cups",
    "heat": "heat",
    "food": "food",
    "feet": "feet",
    "children": "children’s use",
    "weather": "weather",
}
BEST: dict[str, Need] = {
    "water": "hard clear coat",
    "heat": "hard clear coat",
    "feet": "hard clear coat",
    "weather": "exterior clear coat",
    "hands": "clear coat",
    "children": "clear coat",
    "an unknown buyer": "clear coat",
}


def sealer_for(stack: Stack) -> Need:
    """The sealer the use asks for: weather before feet, water and heat, these before hands."""
    order = ("weather", "feet", "water", "heat", "children", "an unknown buyer", "hands")
    asked = next((u for u in order if u in stack.use.touched_by), "hands")
    return BEST[asked]


def protected(stack: Stack, word: UseWord) -> str:
    """The best that what lies on top does about a use: the topmost film that covers the whole, and what is beneath wax.

    A sealer under bare paint protects nothing above it.
    """
    order = ("no", "a little", "yes")
    whole = [x for x in stack.laid if x.layer.touched >= WHOLE and not x.acts("resists")]
    covering: list[Laid] = []
    for one in reversed(whole):
        covering.append(one)
        if one.film.kind not in {"wax", "patina"}:
            break
    return max((x.film.stands.get(word, "no") for x in covering), default="no", key=order.index)


def coats_wanted(stack: Stack) -> int:
    """How many thin coats of a sealer the use asks for: three on floors, two on dining tops and used texture."""
    touched = set(stack.use.touched_by)
    rough = any(x.technique.per_mm and x.acts("stands in peaks") for x in stack.laid)
    if "feet" in touched:
        return 3
    return 2 if stack.level and ("water" in touched or (rough and "hands" in touched)) else 1


def _sealer_coats(stack: Stack) -> tuple[int, Laid | None]:
    """How many coats of sealer lie on top, one over the other, and the topmost of them; accents looked through."""
    coats, top = 0, None
    for one in reversed(stack.laid):
        if one.film.kind in {"clear", "oil"} and one.layer.touched >= WHOLE:
            coats, top = coats + one.layer.coats, top or one
        elif one.layer.touched >= WHOLE:
            break
    return coats, top


@rule(
    "one-thin-sealer",
    "risky",
    "likely",
    "Floors, dining tops and texture that is used wear through one thin coat of sealer: two, on floors three, thin "
    "and each dry before the next.",
)
def one_thin_sealer(stack: Stack) -> Iterator[Hit]:
    coats, top = _sealer_coats(stack)
    most = coats_wanted(stack)
    if not top or coats > 1 or most == 1 or top.film.kind == "oil":
        return
    more = SetLayer("set", top.layer.id, coats=most)
    yield Hit(len(stack.laid), f"One coat of {top.name.lower()} wears through here.", (remedy(f"{most} coats", more),))


def _ways(stack: Stack, need: Need) -> tuple[Remedy, ...]:
    """Another sealer in place of the one on top, one on top, or one beneath the accents that end the stack."""
    top = stack.laid[-1]
    rough = any(x.acts("stands in peaks") for x in stack.laid)
    recipe = stack.offer(need)
    technique = stack.catalogue.way_that(recipe, "follows texture") if rough else ""
    name = stack.catalogue.recipes[recipe].name.removesuffix(", as bought").lower()
    remedies = []
    if top.film.kind in SEALERS and not top.acts("stays in recesses", "resists"):
        swap = SwapRecipe("swap", top.layer.id, recipe, technique)
        remedies.append(remedy(f"{name.capitalize()} instead of {top.name.lower()}", swap))
    else:
        remedies.append(
            remedy(f"Seal it with {name}", InsertLayer("insert", "", recipe, technique, coats=coats_wanted(stack)))
        )
    accents = []
    for one in reversed(stack.laid):
        if one.layer.touched >= WHOLE or one.film.kind not in {"wax", "patina", "leaf", "metal"}:
            break
        accents.append(one)
    if accents and len(accents) < len(stack.laid):
        beneath = InsertLayer("insert", accents[-1].layer.id, recipe, technique, 24)
        remedies.append(remedy(f"{name.capitalize()} beneath {accents[-1].name.lower()}", beneath))
    return tuple(remedies)


def _use(stack: Stack, word: UseWord, need: Need) -> Iterator[Hit]:
    if not stack.laid or word not in stack.use.touched_by:
        return
    stands = protected(stack, word)
    top = next((x for x in reversed(stack.laid) if x.layer.touched >= WHOLE), stack.laid[-1])
    remedies = _ways(stack, need)
    if stands == "no":
        yield Hit(len(stack.laid), f"{top.name} is last, and does not stand {WORDS[word]}.", remedies)
    elif stands == "a little" and stack.catalogue.recipes[stack.offer(need)].film != top.film.slug:
        yield Hit(len(stack.laid), f"{top.name} stands {WORDS[word]} only a little.", remedies, "good to know")


@rule(
    "weather",
    "will fail",
    "certain",
    "Indoor coats outdoors go milky and peel; unsealed paint washes off. A porch is outdoors.",
)
def weather(stack: Stack) -> Iterator[Hit]:
    yield from _use(stack, "weather", "exterior clear coat")


@rule(
    "feet",
    "will fail",
    "certain",
    "Floors and steps wear through anything but a floor coat, and some coats are slippery: check slip and wear on its "
    "label.",
)
def feet(stack: Stack) -> Iterator[Hit]:
    yield from _use(stack, "feet", "hard clear coat")


@rule(
    "wet-cups",
    "risky",
    "certain",
    "Bedside and dining tops, counters and kitchen walls meet water: unsealed paint marks at the first glass.",
)
def wet_cups(stack: Stack) -> Iterator[Hit]:
    yield from _use(stack, "water", "hard clear coat")


@rule(
    "heat",
    "good to know",
    "likely",
    "Nothing here is rated for heat: no candle, no hearth in use, no radiator; trivets under cups.",
)
def heat(stack: Stack) -> Iterator[Hit]:
    if stack.laid and "heat" in stack.use.touched_by:
        yield Hit(len(stack.laid), "None of these coats is rated for heat: trivets, and only disused hearths.")


@rule(
    "food",
    "can hurt",
    "certain",
    "Coatings are not food-safe by default, cured or not: keep food off it, or use only what is certified for it.",
)
def food(stack: Stack) -> Iterator[Hit]:
    if stack.laid and "food" in stack.use.touched_by:
        yield Hit(len(stack.laid), "Food would touch a coating that is not food-safe.")


@rule("children", "can hurt", "likely", "“Low odour” is not toy-safe: cured and certified, or not at all.")
def children(stack: Stack) -> Iterator[Hit]:
    if not stack.laid or "children" not in stack.use.touched_by:
        return
    if protected(stack, "children") == "no":
        for hit in _use(stack, "children", "clear coat"):
            yield replace(hit, grade="risky")
    yield Hit(len(stack.laid), "For children: only a coat certified for it, fully cured.")


@rule(
    "unsealed-hands",
    "good to know",
    "likely",
    "Bare matt paint takes up the grease of hands and marks when rubbed. Sealed or left bare are two schools.",
)
def unsealed_hands(stack: Stack) -> Iterator[Hit]:
    for hit in _use(stack, "hands", sealer_for(stack)):
        yield Hit(
            hit.above,
            hit.says,
            hit.remedies,
            "good to know" if hit.grade else "risky" if _dusts(stack) else "good to know",
        )


def _dusts(stack: Stack) -> bool:
    return stack.laid[-1].film.stands.get("hands") == "no"


@rule(
    "unknown-buyer",
    "risky",
    "likely",
    "Nobody knows what an unknown buyer will put on it: a piece for sale wants a coat that can be wiped.",
)
def unknown_buyer(stack: Stack) -> Iterator[Hit]:
    if stack.laid and "an unknown buyer" in stack.use.touched_by and protected(stack, "hands") != "yes":
        yield Hit(
            len(stack.laid),
            "For sale to somebody unknown, with nothing wipeable on it.",
            _ways(stack, "clear coat"),
        )


@rule(
    "gilding-bare-outdoors",
    "will fail",
    "certain",
    "Unsealed leaf outdoors is gone in a season: metal leaf tarnishes, all leaf wears.",
)
def gilding_bare_outdoors(stack: Stack) -> Iterator[Hit]:
    if "weather" not in stack.use.touched_by:
        return
    for i, one in stack.each():
        if one.film.kind == "leaf" and not any(x.film.stands.get("weather") == "yes" for x in stack.laid[i + 1 :]):
            seal = insert(stack, "", "exterior clear coat")
            yield Hit(i, "Gilding left bare outdoors.", (remedy("Seal it with exterior clear coat", seal),))


@rule(
    "salt-outdoors",
    "will fail",
    "certain",
    "Salt and soda stay water-soluble inside the film: rain takes them out, and they eat metal. Sand instead, or "
    "keep it indoors.",
)
def salt_outdoors(stack: Stack) -> Iterator[Hit]:
    wet = "weather" in stack.use.touched_by
    for i, one in stack.each():
        if one.film.dissolves_in_water and (wet or stack.grounded("rusts")):
            where = "outdoors" if wet else "on metal"
            yield Hit(
                i,
                f"{one.name} {where}.",
                (remedy("Sand paint instead", swap_for(stack, one, "lasting grit")),),
            )


@rule("salt-unsealed", "risky", "certain", "Salt and soda draw damp and come off on wet hands: seal them.")
def salt_unsealed(stack: Stack) -> Iterator[Hit]:
    for i, one in stack.each():
        if one.film.dissolves_in_water and not any(x.closes for x in stack.laid[i + 1 :]):
            yield Hit(i + 1, f"{one.name} is not sealed.", _ways(stack, sealer_for(stack)))
            return


@rule(
    "grit-moulds",
    "risky",
    "likely",
    "Coffee and sawdust in paint can mould where it is damp: bone dry first, sealed, and not in wet rooms.",
)
def grit_moulds(stack: Stack) -> Iterator[Hit]:
    damp = {"water", "weather"} & set(stack.use.touched_by)
    for i, one in stack.each():
        organic = any("can mould" in p.material.traits and p.poured_ml > 0 for p in one.pours)
        if organic and damp:
            yield Hit(
                i,
                f"{one.name} where it gets damp.",
                (remedy("Sand paint instead", swap_for(stack, one, "lasting grit")),),
            )
