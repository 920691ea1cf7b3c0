"""What was chosen for the days: hours, the place and its air, which jobs, what was promised, what was pinned."""

from dataclasses import dataclass, field
from datetime import datetime
from typing import Annotated, Literal
from zoneinfo import ZoneInfo

from annotated_types import Interval, MaxLen

from ..errors import InvalidValue
from ..value import Slug, Value
from .hours import Timetable, check_timetable, minute_of
from .puzzle import Pin

Wall = Annotated[str, MaxLen(16)]
"""A date and time on the workshop's clock, ISO 8601 to the minute; "" for none."""


@dataclass(frozen=True)
class JobChosen(Value):
    """A job that is put into days. `due` is when it was promised to be finished, or fit for gentle use.

    `flat` are the places its zones take while they lie flat to dry, by zone.
    """

    job: Slug
    due: Wall = ""
    due_for: Literal["gently", "finished"] = "gently"
    priority: Annotated[int, Interval(ge=1, le=9)] = 1
    not_before: Wall = ""
    flat: dict[Slug, Annotated[int, Interval(ge=0, le=50)]] = field(default_factory=dict)
    pins: Annotated[tuple[Pin, ...], MaxLen(200)] = ()


@dataclass(frozen=True)
class Chosen(Value):
    """What was chosen for the days. `profile` is how the air of the place goes over a day; "" is as it was set."""

    format: Literal["lumso-days-chosen"] = "lumso-days-chosen"
    version: Literal[1] = 1
    table: Timetable = field(default_factory=Timetable)
    profile: str = ""
    listens: bool = True
    """Whether readings of the thermo-hygrometer count."""
    jobs: Annotated[tuple[JobChosen, ...], MaxLen(20)] = ()


def on_wall(text: str, zone: str, at: str) -> float | None:
    """The minute of a date and time on the workshop's clock; None for "". Raises InvalidValue with the field."""
    if not text:
        return None
    try:
        return minute_of(datetime.fromisoformat(text).replace(tzinfo=ZoneInfo(zone)))
    except ValueError:
        raise InvalidValue(f"{text!r} is no date and time.", value=text, allowed="such as 2026-12-05T18:00",
                           field=at) from None  # fmt: skip


def checked(chosen: Chosen) -> Chosen:
    """What was chosen, when it can be used. Raises InvalidValue with the field."""
    try:
        check_timetable(chosen.table)
    except InvalidValue as error:
        raise InvalidValue(error.says, value=error.value, allowed=error.allowed,
                           field=f"table/{error.field}") from None  # fmt: skip
    seen = set()
    for n, job in enumerate(chosen.jobs):
        on_wall(job.due, chosen.table.zone, f"jobs/{n}/due")
        on_wall(job.not_before, chosen.table.zone, f"jobs/{n}/not_before")
        if job.job in seen:
            raise InvalidValue("A job stands in the days once.", value=job.job, allowed="each job once",
                               field=f"jobs/{n}/job")  # fmt: skip
        seen.add(job.job)
    return chosen
