"""The conditions the work is done in."""

from dataclasses import dataclass
from typing import Annotated

from annotated_types import Interval

from ..value import Value


@dataclass(frozen=True)
class Conditions(Value):
    """The room: °C and relative humidity 0–1. The reference is 20 °C and 50 %."""

    temperature_c: Annotated[float, Interval(ge=-10, le=50)] = 20.0
    humidity: Annotated[float, Interval(gt=0, le=1)] = 0.5
