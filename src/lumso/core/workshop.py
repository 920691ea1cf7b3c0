"""What is true across jobs: the measures one uses, the vessels one owns; and the room the work is done in."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal, TypeVar

from annotated_types import Interval

from .errors import UnknownEntry
from .job import Entries
from .materials import Consistency, Ground, Material, PotLoss, Technique, Tool, Vessel
from .measures import MeasureSystem
from .recipes import Recipe
from .value import Slug, Value

T = TypeVar("T")


@dataclass(frozen=True)
class Workshop(Value):
    """The user's own workshop."""

    format: Literal["lumso-workshop"] = "lumso-workshop"
    version: Literal[1] = 1
    measures: Slug = "metric"


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
    techniques: Mapping[str, Technique]
    tools: Mapping[str, Tool]
    recipes: Mapping[str, Recipe]
    consistencies: tuple[Consistency, ...]
    pot_losses: Mapping[str, PotLoss]
    vessels: tuple[Vessel, ...]

    def system(self, slug: str) -> MeasureSystem:
        """The measure system called `slug`. Raises UnknownEntry."""
        return pick("measure system", self.systems, slug)

    def with_entries(self, entries: Entries) -> "Catalogue":
        """This catalogue with a job's own entries in front of its own."""
        return Catalogue(
            systems=self.systems,
            materials={**self.materials, **{e.slug: e for e in entries.materials}},
            grounds={**self.grounds, **{e.slug: e for e in entries.grounds}},
            techniques={**self.techniques, **{e.slug: e for e in entries.techniques}},
            tools={**self.tools, **{e.slug: e for e in entries.tools}},
            recipes={**self.recipes, **{e.slug: e for e in entries.recipes}},
            consistencies=self.consistencies,
            pot_losses=self.pot_losses,
            vessels=self.vessels,
        )


def pick(noun: str, entries: Mapping[str, T], slug: str) -> T:
    """The entry called `slug`. Raises UnknownEntry, which lists those there are."""
    if slug not in entries:
        raise UnknownEntry(noun, slug, entries)
    return entries[slug]
