"""The book: the trade's starting knowledge by slug, with what a job carries in front of it."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, fields, replace
from typing import Any, Literal, Protocol, TypeVar

from ..errors import UnknownEntry
from ..learn.rates import LearnedRate
from ..measure.measures import MeasureSystem
from ..value import Slug, Value
from .films import UNKNOWN, Film, film_slug
from .finishes import Finish
from .flaws import Flaw
from .forms import Form, Synonym
from .habits import Habits
from .hands import Judged
from .kit import Kit
from .marks import Mark
from .materials import Consistency, Material, PotLoss, Vessel
from .offers import Need, Offer
from .optics import Optics
from .preparation import Abrasive, Does, Preparation
from .profiles import Profile
from .recipes import Recipe
from .surfaces import Ground, Relief
from .techniques import Act, Rescue, Technique, Thickness, Tool
from .things import Thing
from .words import Phrase, Retired, Term


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


EntryKind = Literal[
    "recipes", "materials", "grounds", "techniques", "tools", "films", "preparations", "reliefs", "consistencies",
    "pot_losses",
]  # fmt: skip
"""The fields of `Entries`: the kinds of entry a job carries."""

ORDERED = {"consistencies", "vessels", "thicknesses"}
"""Kinds that are kept in their order; all others are kept by slug."""

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
    thicknesses: tuple[Thickness, ...]
    """Words for how thick a textured coat lies, the thinnest first."""
    rescues: Mapping[str, Rescue]
    flaws: Mapping[str, Flaw]
    """What goes wrong under a hand that comes too soon or too late."""
    habits: Habits
    offers: Mapping[str, Offer]
    """The recipe that is offered for each need of a stack."""
    profiles: Mapping[str, Profile]
    """How the air of places goes over a day."""
    forms: Mapping[str, Form]
    """Pieces by their everyday words."""
    synonyms: Mapping[str, Synonym]
    """Words that things are looked for by, beside their names."""
    phrases: Mapping[str, Phrase]
    """How each technique is said, by technique."""
    terms: Mapping[str, Term]
    """Words of the trade."""
    retired: Mapping[str, Retired]
    """Words that are said no longer."""
    optics: Optics
    """Constants of how films look."""
    marks: Mapping[str, Mark]
    """The marks techniques leave, by technique."""
    hands: Mapping[str, Judged]
    """What a hand judges by eye."""
    things: Mapping[str, Thing]
    """What is bought and used up beside what is mixed."""
    learned: Mapping[str, LearnedRate] = field(default_factory=dict)
    """What the painter's log says a mix takes, by "recipe|technique"."""
    waits: Mapping[str, float] = field(default_factory=dict)
    """How many times as long as usual mixes dry, by recipe, by the painter's log."""

    def system(self, slug: str) -> MeasureSystem:
        """The measure system called `slug`. Raises UnknownEntry."""
        return pick("measure system", self.systems, slug)

    def film_of(self, recipe: Recipe, shares: Mapping[str, float]) -> Film:
        """The film a recipe dries to; `shares` are of the whole as poured, by component."""
        return self.films.get(film_slug(recipe, shares), UNKNOWN)

    def rescues_for(self, kind: str) -> tuple[Rescue, ...]:
        """What is done when a film of this kind goes wrong."""
        return tuple(r for r in self.rescues.values() if not r.kinds or kind in r.kinds)

    def offer(self, need: Need) -> Slug:
        """The recipe that is offered for a need. Raises UnknownEntry where there is none."""
        return pick("offer", self.offers, need).recipe

    def preparation_that(self, does: Does, finest: int = 10_000) -> Slug:
        """The usual preparation that does something, no finer than a grit. Raises UnknownEntry where there is none."""
        fits = [p for p in self.preparations.values() if does in p.does and p.grit <= finest]
        if not fits:
            raise UnknownEntry(f"preparation that {does}", does, ())
        return min(fits, key=lambda p: (p.order, -p.grit)).slug

    def way_that(self, recipe: Slug, *acts: Act) -> str:
        """The first of a recipe's ways of being put on that does one of these; "" where none does."""
        known = (self.techniques[t] for t in self.recipes[recipe].techniques)
        return next((t.slug for t in known if any(a in t.acts for a in acts)), "")

    def with_entries(self, entries: Entries) -> "Catalogue":
        """This catalogue with a job's own entries in front of its own."""
        changed: dict[str, Any] = {}
        for kind in (f.name for f in fields(Entries)):
            if carried := getattr(entries, kind):
                own = getattr(self, kind)
                held = _in_front({e.slug: e for e in own} if kind in ORDERED else own, carried)
                changed[kind] = tuple(held.values()) if kind in ORDERED else held
        return replace(self, **changed)


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
