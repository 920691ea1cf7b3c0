"""The piece as it is described: its kind, its sizes, its free parts and the bands that stay bare."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen

from ..measure.lengths import Length
from ..value import Name, Slug, Value


@dataclass(frozen=True)
class Band(Value):
    """Something on a surface that gets no coat: a glue face, a tenon, a hinge, a masked stripe; `count` like ones."""

    surface: Slug
    name: Name
    length: Length
    width: Length
    count: Annotated[int, Interval(ge=1, le=1000)] = 1


Shape = Literal["rectangle", "round", "oval", "round wall", "tapering wall", "ball"]


@dataclass(frozen=True)
class FreePart(Value):
    """A part that the kind of piece does not know: `count` like faces of a plain shape, with the sizes it asks for."""

    id: Slug
    name: Name
    shape: Shape
    sizes: dict[str, Length]
    count: Annotated[int, Interval(ge=1, le=1000)] = 1
    vertical: bool = True


@dataclass(frozen=True)
class Piece(Value):
    """A piece of a known kind, with the sizes and counts that kind asks for.

    With `rough` anything but "measured", sizes not given are taken from the usual proportions, and the amounts
    carry a range. `like` is how many like pieces there are.
    """

    kind: Slug
    sizes: dict[str, Length]
    """Those with the source "usual" were not measured: they are what such a piece usually has."""
    counts: dict[str, Annotated[int, Interval(ge=0, le=1000)]] = field(default_factory=dict)
    rough: Literal["measured", "small", "medium", "large"] = "measured"
    like: Annotated[int, Interval(ge=1, le=500)] = 1
    parts: Annotated[tuple[FreePart, ...], MaxLen(40)] = ()
    """Parts added to what the kind knows; a piece of the kind "parts" is made of nothing else."""
    bands: Annotated[tuple[Band, ...], MaxLen(40)] = ()
    reasons: dict[str, Annotated[str, MaxLen(120)]] = field(default_factory=dict)
    """Why a surface is left out, where the user has said so."""
    form: Annotated[str, MaxLen(60)] = ""
    """The everyday word it was begun by, a slug; "" for none."""
