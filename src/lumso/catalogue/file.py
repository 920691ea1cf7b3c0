"""A catalogue file: any of the kinds of entry, in one documented format."""

from dataclasses import dataclass
from typing import Literal

from lumso.core.films import Abrasive, Film, Preparation
from lumso.core.finishes import Finish
from lumso.core.kit import Kit
from lumso.core.materials import Consistency, Ground, Material, PotLoss, Relief, Technique, Tool, Vessel
from lumso.core.measures import MeasureSystem
from lumso.core.recipes import Recipe
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
