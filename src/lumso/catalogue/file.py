"""A catalogue file: any of the kinds of entry, in one documented format."""

from dataclasses import dataclass
from typing import Literal

from lumso.core.book.films import Film
from lumso.core.book.finishes import Finish
from lumso.core.book.habits import Habits
from lumso.core.book.kit import Kit
from lumso.core.book.materials import Consistency, Material, PotLoss, Vessel
from lumso.core.book.preparation import Abrasive, Preparation
from lumso.core.book.recipes import Recipe
from lumso.core.book.surfaces import Ground, Relief
from lumso.core.book.techniques import Technique, Tool
from lumso.core.measure.measures import MeasureSystem
from lumso.core.value import Value


@dataclass(frozen=True)
class CatalogueFile(Value):
    """Entries of any kind. Shipped data, a user's exported recipes and an imported file all look like this."""

    format: Literal["lumso-catalogue"]
    version: Literal[1]
    systems: tuple[MeasureSystem, ...] = ()
    materials: tuple[Material, ...] = ()
    grounds: tuple[Ground, ...] = ()
    reliefs: tuple[Relief, ...] = ()
    techniques: tuple[Technique, ...] = ()
    tools: tuple[Tool, ...] = ()
    vessels: tuple[Vessel, ...] = ()
    consistencies: tuple[Consistency, ...] = ()
    pot_losses: tuple[PotLoss, ...] = ()
    recipes: tuple[Recipe, ...] = ()
    kits: tuple[Kit, ...] = ()
    films: tuple[Film, ...] = ()
    preparations: tuple[Preparation, ...] = ()
    abrasives: tuple[Abrasive, ...] = ()
    finishes: tuple[Finish, ...] = ()
    habits: tuple[Habits, ...] = ()
