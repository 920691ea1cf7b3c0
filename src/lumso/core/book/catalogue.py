"""The book: the trade's starting knowledge by slug, with what a job carries in front of it."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Protocol, TypeVar

from ..errors import UnknownEntry
from ..measure.measures import MeasureSystem
from ..value import Value
from .films import UNKNOWN, Film, film_slug
from .finishes import Finish
from .habits import Habits
from .kit import Kit
from .materials import Consistency, Material, PotLoss, Vessel
from .preparation import Abrasive, Preparation
from .recipes import Recipe
from .surfaces import Ground, Relief
from .techniques import Technique, Tool


@dataclass(frozen=True)
class Entries(Value):
    """The catalogue entries a job uses, as they were when it took them up: it opens anywhere, and stays itself."""

    recipes: tuple[Recipe, ...] = ()
    materials: tuple[Material, ...] = ()
    grounds: tuple[Ground, ...] = ()
    techniques: tuple[Technique, ...] = ()
    tools: tuple[Tool, ...] = ()
    films: tuple[Film, ...] = ()
    preparations: tuple[Preparation, ...] = ()
    reliefs: tuple[Relief, ...] = ()
    consistencies: tuple[Consistency, ...] = ()
    pot_losses: tuple[PotLoss, ...] = ()


T = TypeVar("T")


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
    habits: Habits

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
            reliefs=_in_front(self.reliefs, entries.reliefs),
            consistencies=tuple(_in_front({c.slug: c for c in self.consistencies}, entries.consistencies).values()),
            pot_losses={**self.pot_losses, **{loss.cling: loss for loss in entries.pot_losses}},
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
