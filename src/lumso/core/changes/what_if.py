"""Changes to try before keeping them."""

from dataclasses import dataclass, field, replace
from typing import Annotated

from annotated_types import Interval

from ..job.job import Job
from ..layers.conditions import Celsius, Humidity
from ..value import Slug, Value


@dataclass(frozen=True)
class WhatIf(Value):
    """Changes to try on the sheet before keeping them; what is None or missing stays."""

    coats: dict[str, Annotated[int, Interval(ge=1, le=12)]] = field(default_factory=dict)
    margin: Annotated[float, Interval(ge=0, le=1)] | None = None
    vessel: Slug | None = None
    pace: Annotated[float, Interval(gt=0, le=10)] | None = None
    temperature_c: Celsius | None = None
    humidity: Humidity | None = None
    step_down: bool = False
    """Start each of a run of stacked washes from what is left of the last."""


def changed(job: Job, what_if: WhatIf) -> Job:
    """The job with the coats and the margin that are tried."""
    zones = tuple(
        replace(
            zone,
            layers=tuple(
                replace(
                    layer,
                    coats=what_if.coats.get(layer.id, layer.coats),
                    margin=layer.margin if what_if.margin is None else what_if.margin,
                    short_one_in=layer.short_one_in if what_if.margin is None else None,
                )
                for layer in zone.layers
            ),
        )
        for zone in job.zones
    )
    return replace(job, zones=zones)
