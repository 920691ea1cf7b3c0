"""What is true across jobs: measures, kits, shelf and recipes of one's own."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from annotated_types import Interval

from ..book.kit import Kit
from ..book.recipes import Recipe
from ..learn.rates import LearnedRate
from ..value import Slug, Value
from .better import Better
from .shelf import ShelfItem


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
    better: tuple[Better, ...] = ()
    """What is known better of entries of the book, materials aside."""
    learned: tuple[LearnedRate, ...] = ()
    """What the log says mixes take, as far as it counts."""
    waits: dict[str, Annotated[float, Interval(gt=0, le=10)]] = field(default_factory=dict)
    """How many times as long as usual mixes dry here, by recipe, as far as the log tells."""
