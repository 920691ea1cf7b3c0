"""Days in words: when something is, and what it waits for."""

from dataclasses import dataclass
from typing import Literal

from ..work.operations import Constraint, Operation
from .hours import local
from .placed import Timed
from .puzzle import over_at

CLOSE_MIN = 1.0


def day_of(minute: float, zone: str) -> str:
    """The day, as people write it.

    >>> day_of(29672640, "UTC")
    'Tue 2 Jun'
    """
    at = local(minute, zone)
    return f"{at:%a} {at.day} {at:%b}"


def on_day(minute: float, zone: str) -> str:
    """The day, as 2026-11-24 and with its month in full.

    >>> on_day(29672640, "UTC")
    '2026-06-02 June'
    """
    return f"{local(minute, zone):%Y-%m-%d %B}"


def time_of(minute: float, zone: str) -> str:
    """The time on the clock.

    >>> time_of(29672640, "UTC")
    '00:00'
    """
    return f"{local(minute, zone):%H:%M}"


def when(minute: float, zone: str) -> str:
    """Day and time."""
    return f"{day_of(minute, zone)}, {time_of(minute, zone)}"


def span(begins: float, ends: float, zone: str) -> str:
    """From when to when on a day."""
    return f"{time_of(begins, zone)}–{time_of(ends, zone)}"


def named(operation: Operation) -> str:
    """What an operation is called among those of other zones."""
    zone = operation.zone_name.lower()
    return operation.says if not zone or zone in operation.says.lower() else f"{operation.says} ({zone})"


@dataclass(frozen=True)
class Because:
    """What a stint waits for last of all: words, and the operation it waits for, if any."""

    kind: Literal["wait", "hands", "hours", "air", "pin", "now", "choice"]
    says: str
    after: str = ""


def because(timed: Timed, n: int) -> Because:
    """Why a stint is not begun earlier."""
    puzzle, zone = timed.puzzle, timed.puzzle.table.zone
    begins = timed.placed.begins[n]
    names = {o.id: o for s in puzzle.stints for o in s.operations}
    wait = _last_wait(timed, n)
    if n in puzzle.pinned and begins >= max(p.from_min for p in puzzle.pinned[n]) - CLOSE_MIN:
        return Because("pin", "It is pinned here.", wait[0].first if wait else "")
    opens = puzzle.usable[timed.session_of[n]][0] if timed.session_of[n] >= 0 else begins
    if wait:
        tie, over = wait
        first = names.get(tie.first)
        what = f"“{named(first)}”" if first else "What is done"
        until = f"{when(over, zone)}{f' ({tie.why})' if tie.why and tie.kind == 'at least' else ''}"
        held = "is done" if tie.kind == "after" else "may be gone on with"
        if over >= begins - CLOSE_MIN:
            return Because("wait", f"{what} {held} at {until}.", tie.first)
        session = timed.session_of[n]
        if session > 0 and over > puzzle.usable[session - 1][1] - (timed.ends(n) - begins) and begins <= opens + 1:
            return Because("wait", f"{what} {held} at {until}; the bench opens {when(opens, zone)}.", tie.first)
    for m in range(len(puzzle.stints)):
        same = m != n and timed.placed.painters[m] == timed.placed.painters[n]
        if same and abs(timed.ends(m) - begins) <= CLOSE_MIN:
            return Because("hands", f"It comes after “{named(puzzle.stints[m].operations[0])}”.",
                           puzzle.stints[m].operations[0].id)  # fmt: skip
    if begins <= puzzle.bounds[n][0] + CLOSE_MIN:
        return Because("now", "It is the first thing to do.")
    before = puzzle.fits(n, max(puzzle.bounds[n][0], wait[1] if wait else 0.0, opens))
    if before[1] and begins <= before[0] + 60:
        return Because("air", f"Before that no film forms. {before[1]}", wait[0].first if wait else "")
    if begins <= opens + CLOSE_MIN:
        return Because("hours", f"The bench opens {when(opens, zone)}.", wait[0].first if wait else "")
    return Because("choice", "Nothing is ready sooner by beginning it sooner.", wait[0].first if wait else "")


def _last_wait(timed: Timed, n: int) -> tuple[Constraint, float] | None:
    """The wait that is over last before a stint, and the minute from which the stint could be begun for it."""
    found = None
    mine = {o.id for o in timed.puzzle.stints[n].operations}
    begins = timed.placed.begins[n]
    for tie in timed.puzzle.ties:
        if tie.then not in mine or tie.first in mine or tie.kind not in {"after", "at least"}:
            continue
        if tie.first in timed.spans:
            since = timed.spans[tie.first][0 if tie.since == "start" else 1]
            over = over_at(tie, since, timed.puzzle.room)
            offset = timed.spans[tie.then][0 if tie.until == "start" else 1] - begins
            if found is None or over - offset > found[1]:
                found = (tie, over - offset)
    return found


def critical(timed: Timed) -> tuple[frozenset[str], tuple[str, ...]]:
    """What the finish hangs on: the operations of the chain that ends last, and what each waits for, in words."""
    if not timed.puzzle.stints:
        return frozenset(), ()
    owner = timed.puzzle.owner
    n = max(range(len(timed.puzzle.stints)), key=timed.ends)
    lit: list[str] = []
    says: list[str] = []
    seen: set[int] = set()
    while n not in seen:
        seen.add(n)
        stint = timed.puzzle.stints[n]
        lit += [o.id for o in stint.operations]
        why = because(timed, n)
        says.append(
            f"{named(stint.operations[0])}: {when(timed.placed.begins[n], timed.puzzle.table.zone)}. {why.says}"
        )
        if why.after not in owner:
            break
        n = owner[why.after]
    return frozenset(lit), tuple(reversed(says))
