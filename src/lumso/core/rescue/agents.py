"""What may be added to a mix to set it right, with the school it belongs to, and how far."""

from collections.abc import Mapping, Sequence

from ..book.materials import Material
from ..book.recipes import Limit
from ..log.acts import Stuff
from ..log.pot import PotHeld, traits_of
from ..mixing.limits import applying
from ..pour.pouring import PourLine
from ..work.work import Work
from .setting_right import Agent, Chosen

SCHOOLS = {
    "water": "Water: thins most, and thins the binder with it.",
    "paint": "Paint: keeps the binder as strong as it was; colour and cost go with it.",
    "medium": "Medium: stays clear and open longer.",
    "powder": "Powder: only as much as is left of it.",
}
"""Why one adds it, by the role of what is added."""
THINNED_BY_WATER = {"paint", "medium"}


def agents_for(held: Sequence[PotHeld], planned: Sequence[PourLine], on_shelf: Mapping[str, float],
               materials: Mapping[str, Material]) -> tuple[Agent, ...]:  # fmt: skip
    """What the mix is made of; and water, where it has none and water thins it. `on_shelf` is g by material; what is
    not counted there is taken to be enough."""
    found = {}
    for stuff in (line.stuff for line in planned):
        found[stuff.key] = Agent(stuff, SCHOOLS.get(stuff.role, ""), on_shelf.get(stuff.material, float("inf")))
    water = materials.get("water")
    thinned = any(h.stuff.role in THINNED_BY_WATER for h in held)
    if water is not None and thinned and not any(a.stuff.material == water.slug for a in found.values()):
        made = Stuff("water", water.slug, water.name, water.role, False, water.bulk_density, water.true_density)
        found[made.key] = Agent(made, SCHOOLS["water"])
    return tuple(found.values())


def sets_hard(held: Sequence[PotHeld], materials: Mapping[str, Material]) -> bool:
    """Whether a mix is past saving at the end of its life, and not only past its best."""
    return "sets hard" in traits_of(held, materials)


def chosen_in(batch: str, made: Work | None, planned: Sequence[PourLine]) -> tuple[Chosen, ...]:
    """The shares of a batch's mix that the painter set otherwise than its recipe, water first: where that was set, what
    follows of it needs no word."""
    brew = next((b for b in made.made.brews if b.id == batch), None) if made else None
    chosen = brew.run.first.laid.chosen if brew else frozenset()
    whole = sum(line.planned_ml for line in planned)
    found: dict[str, Chosen] = {}
    for line in planned:
        part = line.stuff.component
        if part in chosen:
            share = line.planned_ml / whole + (found[part].share if part in found else 0.0)
            found[part] = Chosen(part, line.stuff.name, share)
    water = {line.stuff.component for line in planned if line.stuff.role == "water"}
    return tuple(c for p, c in found.items() if p in water) or tuple(found.values())


def holds(batch: str, made: Work | None) -> tuple[tuple[Limit, ...], float | None]:
    """How much the mix of a batch may hold of its parts where it goes, and how many minutes it lives from being wetted;
    None where it does not go by that, or nobody knows where it goes."""
    if made is None:
        return (), None
    for brew in made.made.brews:
        if brew.id == batch:
            coat = brew.run.first
            over = coat.under.meets[0].film.kind if coat.under.meets else ""
            recipe = coat.laid.recipe
            life = recipe.working_life_min if recipe.life_starts == "when wetted" else None
            return applying(recipe, coat.under.surface, coat.laid.layer.technique, over), life
    return (), None
