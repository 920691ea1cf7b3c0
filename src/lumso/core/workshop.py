"""What is true across jobs: measures, kits, shelf and recipes of one's own; and the room the work is done in."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal, Protocol, TypeVar

from annotated_types import Interval

from .errors import UnknownEntry
from .films import UNKNOWN, Abrasive, Film, Preparation, film_slug
from .finishes import Finish
from .job import Entries
from .kit import Kit
from .materials import Consistency, Ground, Material, PotLoss, Relief, Technique, Tool, Vessel
from .measures import MeasureSystem
from .recipes import Recipe
from .shelf import ShelfItem, with_overlays
from .value import Slug, Value

T = TypeVar("T")


@dataclass(frozen=True)
class Workshop(Value):
    """The user's own workshop."""

    format: Literal["lumso-workshop"] = "lumso-workshop"
    version: Literal[1] = 1
    measures: Slug = "metric"
    kit: Slug = "metric-spoons"
    """The kit in use."""
    vessel: Slug = "paint-kettle"
    """The largest vessel that is mixed in."""
    paces: dict[str, Annotated[float, Interval(gt=0, le=10)]] = field(default_factory=dict)
    """How fast the painter is with a technique, as a multiple of its usual pace; "" for all others."""
    kits: tuple[Kit, ...] = ()
    shelf: tuple[ShelfItem, ...] = ()
    recipes: tuple[Recipe, ...] = ()


@dataclass(frozen=True)
class Conditions(Value):
    """The room: °C and relative humidity 0–1. The reference is 20 °C and 50 %."""

    temperature_c: Annotated[float, Interval(ge=-10, le=50)] = 20.0
    humidity: Annotated[float, Interval(gt=0, le=1)] = 0.5


@dataclass(frozen=True)
class Catalogue:
    """The trade's starting knowledge, by slug."""

    systems: Mapping[str, MeasureSystem]
    materials: Mapping[str, Material]
    grounds: Mapping[str, Ground]
    reliefs: Mapping[str, Relief]
    techniques: Mapping[str, Technique]
    tools: Mapping[str, Tool]
    recipes: Mapping[str, Recipe]
    kits: Mapping[str, Kit]
    consistencies: tuple[Consistency, ...]
    pot_losses: Mapping[str, PotLoss]
    vessels: tuple[Vessel, ...]
    films: Mapping[str, Film]
    preparations: Mapping[str, Preparation]
    abrasives: Mapping[str, Abrasive]
    finishes: Mapping[str, Finish]

    def system(self, slug: str) -> MeasureSystem:
        """The measure system called `slug`. Raises UnknownEntry."""
        return pick("measure system", self.systems, slug)

    def film_of(self, recipe: Recipe, shares: Mapping[str, float]) -> Film:
        """The film a recipe dries to; `shares` are of the whole as poured, by component."""
        return self.films.get(film_slug(recipe, shares), UNKNOWN)

    def with_entries(self, entries: Entries) -> "Catalogue":
        """This catalogue with a job's own entries in front of its own."""
        return replace(
            self,
            materials=_in_front(self.materials, entries.materials),
            grounds=_in_front(self.grounds, entries.grounds),
            techniques=_in_front(self.techniques, entries.techniques),
            tools=_in_front(self.tools, entries.tools),
            recipes=_in_front(self.recipes, entries.recipes),
            films=_in_front(self.films, entries.films),
            preparations=_in_front(self.preparations, entries.preparations),
        )

    def with_workshop(self, workshop: Workshop) -> "Catalogue":
        """This catalogue with the workshop's recipes, kits and materials, the values the user knows better on top.

        Values on the shelf also go over a job's own entries: apply this after `with_entries`.
        """
        materials = dict(self.materials)
        for item in workshop.shelf:
            material = item.own or materials.get(item.slug)
            if material:
                materials[item.slug] = with_overlays(material, item.overlays)
        return replace(
            self,
            materials=materials,
            recipes={**{r.slug: r for r in workshop.recipes}, **self.recipes},
            kits={**self.kits, **{k.slug: k for k in workshop.kits}},
        )


class _HasSlug(Protocol):
    @property
    def slug(self) -> str: ...


E = TypeVar("E", bound=_HasSlug)


def _in_front(own: Mapping[str, E], carried: Iterable[E]) -> Mapping[str, E]:
    """`own` with what a job carries in front of it. What is alike stays the very same entry, and compares at once."""
    return {**own, **{e.slug: own[e.slug] if own.get(e.slug) == e else e for e in carried}}


def pick(noun: str, entries: Mapping[str, T], slug: str) -> T:
    """The entry called `slug`. Raises UnknownEntry, which lists those there are."""
    if slug not in entries:
        raise UnknownEntry(noun, slug, entries)
    return entries[slug]
