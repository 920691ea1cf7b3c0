"""The conditions the work is done in, as they are and as they change over time."""

from bisect import bisect_right
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated

from annotated_types import Interval, MinLen

from ..value import Value

Celsius = Annotated[float, Interval(ge=-10, le=50)]
Humidity = Annotated[float, Interval(gt=0, le=1)]


@dataclass(frozen=True)
class Conditions(Value):
    """The air: °C and relative humidity 0–1. The reference is 20 °C and 50 %."""

    temperature_c: Celsius = 20.0
    humidity: Humidity = 0.5


@dataclass(frozen=True)
class Spell(Value):
    """Conditions that hold from a minute of the job on, until the next spell begins."""

    from_min: float
    conditions: Conditions


@dataclass(frozen=True)
class Room(Value):
    """The conditions over the time of a job, in order. The first hold before they begin, the last go on for good."""

    spells: Annotated[tuple[Spell, ...], MinLen(1)] = (Spell(0.0, Conditions()),)

    @cached_property
    def _from(self) -> tuple[float, ...]:
        return tuple(s.from_min for s in self.spells)

    @cached_property
    def dried(self) -> dict[tuple[str, bool], tuple[tuple[float, ...], tuple[float, ...]]]:
        """What drying has remembered of it: how much has dried until each spell, and how fast it goes in each."""
        return {}

    def place_at(self, minute: float) -> int:
        """The place of the spell that holds at a minute."""
        return max(bisect_right(self._from, minute) - 1, 0)

    def at(self, minute: float) -> Conditions:
        """As it is at a minute."""
        return self.spells[self.place_at(minute)].conditions

    @property
    def first(self) -> Conditions:
        """As it is when the job is begun."""
        return self.spells[0].conditions


def steady(temperature_c: float = 20.0, humidity: float = 0.5) -> Room:
    """A room that stays as it is."""
    return Room((Spell(0.0, Conditions(temperature_c, humidity)),))
