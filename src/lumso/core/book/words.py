"""Words of the interface and of the core's texts: how each way of putting a mix on is said, what trade words mean, and
which words are no longer used."""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import MaxLen

from ..value import Name, Slug, Value

MIX = "{mix}"


@dataclass(frozen=True)
class Phrase(Value):
    """What is done when a mix is put on in one way: Brush on {mix}."""

    slug: Slug
    """The technique."""
    says: Annotated[str, MaxLen(80)]

    def of(self, mix: str) -> str:
        """The phrase with a mix in it, in the middle of a sentence.

        >>> Phrase("brushed-paint", "Brush on {mix}").of("Milk paint")
        'Brush on the milk paint'
        """
        return self.says.replace(MIX, f"the {mix[:1].lower()}{mix[1:]}")


@dataclass(frozen=True)
class Term(Value):
    """A word of the trade, in plain words. `forms` are the ways it is written."""

    slug: Slug
    name: Name
    says: Annotated[str, MaxLen(400)]
    forms: tuple[Annotated[str, MaxLen(40)], ...] = ()


@dataclass(frozen=True)
class Retired(Value):
    """Words that were on the screen once, and what is said now."""

    slug: Slug
    was: Annotated[str, MaxLen(80)]
    now: Annotated[str, MaxLen(120)]
