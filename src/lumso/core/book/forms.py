"""Forms: pieces by their everyday words, each a kind of piece with the sizes it usually has."""

from dataclasses import dataclass, field
from typing import Annotated

from annotated_types import Interval, MaxLen

from ..value import Name, NotNegative, Slug, Value


@dataclass(frozen=True)
class Form(Value):
    """What people call a piece: a bedside table, a candlestick, a settle.

    Sizes and counts that are not said are as usual for the kind. They stand for what was not measured yet, and are
    marked so wherever they are counted with.
    """

    slug: Slug
    name: Name
    kind: Slug
    words: tuple[Annotated[str, MaxLen(40)], ...] = ()
    """Other words people look for it by."""
    sizes: dict[str, NotNegative] = field(default_factory=dict)
    """Usual sizes, mm."""
    counts: dict[str, Annotated[int, Interval(ge=0, le=1000)]] = field(default_factory=dict)
    provenance: str = "untested starting point: usual sizes of such pieces; measure yours"


@dataclass(frozen=True)
class Synonym(Value):
    """A word people look for things by, and the words of the book it stands for."""

    slug: Slug
    word: Annotated[str, MaxLen(40)]
    means: tuple[Annotated[str, MaxLen(60)], ...]
