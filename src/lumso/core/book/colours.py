"""Colours as a painter names them, the paints they are mixed from, and the pots they are mixed in."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen, Predicate

from ..value import Slug, Value


def _is_hex(text: str) -> bool:
    return len(text) == 7 and text[0] == "#" and all(c in "0123456789abcdefABCDEF" for c in text[1:])


Hex = Annotated[str, Predicate(_is_hex)]
"""A colour as #rrggbb."""


Entered = Literal["dry", "sealed", "wet"]
"""In which state a colour was when it was entered: dry and matt, under a satin sealer, or wet."""


@dataclass(frozen=True)
class Colour(Value):
    """What the user calls a colour, and how it is drawn."""

    name: Annotated[str, MaxLen(80)]
    hex: Hex
    entered: Entered = "dry"


@dataclass(frozen=True)
class Tint(Value):
    """One of the paints a colour is mixed from, with its parts by volume."""

    name: Annotated[str, MaxLen(80)]
    hex: Hex
    parts: Annotated[float, Interval(gt=0, le=1000)]


@dataclass(frozen=True)
class Pot(Value):
    """One of several pots mixed from one recipe: its share of the surface, and its colours.

    `tints` says what a component's colour is mixed from; it goes before `colours`.
    """

    id: Slug
    name: Annotated[str, MaxLen(80)]
    share: Annotated[float, Interval(gt=0, le=1)] = 1.0
    colours: dict[str, Colour] = field(default_factory=dict)
    tints: dict[str, tuple[Tint, ...]] = field(default_factory=dict)
