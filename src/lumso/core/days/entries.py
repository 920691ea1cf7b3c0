"""Days as entries of a calendar: one for what is done in one go, that keeps its name when it moves."""

from collections.abc import Sequence
from dataclasses import dataclass

from .days import DayOperation, Days
from .hours import instant
from .words import named


@dataclass(frozen=True)
class Entry:
    """One entry of a calendar. Times are UTC, ISO 8601; `state` is all that it is written from."""

    uid: str
    begins: str
    ends: str
    summary: str
    state: str


@dataclass(frozen=True)
class Numbered:
    """An entry with its number, and whether it is no more."""

    entry: Entry
    sequence: int
    gone: bool


Go = tuple[DayOperation, ...]
"""What is done in one go."""


def closing(go: Sequence[DayOperation]) -> DayOperation | None:
    """What of it stands in a window that closes first."""
    windows = [o for o in go if o.must_by_min is not None]
    return min(windows, key=lambda o: o.must_by_min or 0.0, default=None)


def _summary(go: Go, job: str) -> str:
    lays = [o for o in go if o.operation.kind == "lay"]
    says = named((lays or list(go))[0].operation)
    more = f", and {len(lays) - 1} more" if len(lays) > 1 else ""
    return f"{job}: {says}{more}"


def entries_of(days: Days) -> list[tuple[Entry, Go]]:
    """What is still to be done, in order of time, each with what it stands for."""
    goes: dict[tuple[str, str], list[DayOperation]] = {}
    for one in days.operations:
        if one.state == "planned" and one.operation.hands_on_min > 0:
            goes.setdefault((one.job, one.stint), []).append(one)
    names = {j.job: j.name for j in days.jobs}
    made = []
    for (job, stint), mine in goes.items():
        go = tuple(mine)
        summary = _summary(go, names.get(job, ""))
        begins, ends = instant(go[0].begins_min).isoformat(), instant(max(o.ends_min for o in go)).isoformat()
        last = closing(go)
        by = None if last is None else last.must_by_min
        state = f"{begins} {ends} {by} {summary}"
        made.append((Entry(f"{job or 'job'}/{stint}@lumso", begins, ends, summary, state), go))
    return made
