"""How the air of a place goes over a day, where nobody measures it."""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import Interval, Len

from ..value import Fraction, Name, Slug, Value


@dataclass(frozen=True)
class Profile(Value):
    """A usual day of a place, by the hour of its clock: °C and relative humidity 0–1. A starting value."""

    slug: Slug
    name: Name
    temperature_c: Annotated[tuple[Annotated[float, Interval(ge=-10, le=50)], ...], Len(24, 24)]
    humidity: Annotated[tuple[Fraction, ...], Len(24, 24)]
    provenance: str
