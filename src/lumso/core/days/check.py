"""Whether days keep everything that must be kept, in minutes. It knows nothing of how they were found."""

from collections.abc import Iterator
from itertools import combinations

from ..layers.drying import dry_at, unfit
from ..work.operations import LIVES
from .placed import Timed
from .puzzle import over_at, until_of

CLOSE = 1e-3
"""Minutes that arithmetic may be off by."""


def broken(timed: Timed) -> list[str]:
    """What is not kept, in words; nothing where all is."""
    return [*_hours(timed), *_hands(timed), *_ties(timed), *_air(timed), *_flat(timed), *_pins(timed), *_inside(timed)]


def _hours(timed: Timed) -> Iterator[str]:
    """Everything in open hours, with laying out before and clearing away after; nothing before now."""
    puzzle = timed.puzzle
    for n, begins in enumerate(timed.placed.begins):
        if begins < puzzle.bounds[n][0] - CLOSE:
            yield f"{puzzle.stints[n].id} begins before it may"
        inside = [
            s for s in puzzle.sessions
            if s.begins_min + puzzle.habits.lay_out_min <= begins + CLOSE
            and timed.ends(n) <= s.ends_min - puzzle.habits.clear_away_min + CLOSE
        ]  # fmt: skip
        if not inside:
            yield f"{puzzle.stints[n].id} is not done in open hours"


def _hands(timed: Timed) -> Iterator[str]:
    """Each painter at one thing at a time, and no more painters than there are."""
    puzzle = timed.puzzle
    if any(not 0 <= p < puzzle.table.painters for p in timed.placed.painters):
        yield "there are more painters than there are"
    for a, b in combinations(range(len(puzzle.stints)), 2):
        if timed.placed.painters[a] != timed.placed.painters[b]:
            continue
        if timed.placed.begins[a] < timed.ends(b) - CLOSE and timed.placed.begins[b] < timed.ends(a) - CLOSE:
            yield f"{puzzle.stints[a].id} and {puzzle.stints[b].id} are done at once by one painter"


def _ties(timed: Timed) -> Iterator[str]:
    """Waits, windows and lives."""
    room, spans = timed.puzzle.room, timed.spans
    for tie in timed.puzzle.ties:
        if tie.first not in spans or tie.then not in spans:
            continue
        since = spans[tie.first][0 if tie.since == "start" else 1]
        then = spans[tie.then][0 if tie.until == "start" else 1]
        says = f"{tie.kind} between {tie.first} and {tie.then}: {then - since:.1f} min"
        early = tie.kind in {"after", "at least"} and then < over_at(tie, since, room) - CLOSE
        late = (tie.kind == "at most" or tie.kind in LIVES) and then > until_of(tie, since, room) + CLOSE
        if early or late:
            yield says
        elif tie.kind == "not beside":
            wet_until = dry_at(spans[tie.first][1], tie.wait, room)
            before = spans[tie.then][1] <= spans[tie.first][0] + CLOSE
            if not before and (wet_until is None or spans[tie.then][0] < wet_until - CLOSE):
                yield says


def _air(timed: Timed) -> Iterator[str]:
    """Air that lets every water-borne film form until it is touch dry."""
    puzzle = timed.puzzle
    for stint in puzzle.stints:
        for operation in stint.operations:
            film = puzzle.films.get(operation.id)
            if film and film.watery:
                begins, ends = timed.spans[operation.id]
                dry = dry_at(ends, film.touch, puzzle.room)
                if dry is None or unfit(begins, dry, puzzle.room):
                    yield f"{operation.id} is laid where no film forms"


def _flat(timed: Timed) -> Iterator[str]:
    """No more parts lying flat than there are places."""
    puzzle = timed.puzzle
    lying = [
        (span, puzzle.films[names[0]].places, coat)
        for coat, names in puzzle.flat.items()
        if (span := puzzle.lies(coat, timed.spans))
    ]
    for (begins, _), _, coat in lying:
        there = sum(p for (b, e), p, _ in lying if b <= begins + CLOSE and e > begins + CLOSE)
        if there > puzzle.table.flat_places:
            yield f"{coat}: {there} parts lie flat, and there is room for {puzzle.table.flat_places}"


def _pins(timed: Timed) -> Iterator[str]:
    """What was pinned, where it was pinned."""
    for job in timed.puzzle.jobs:
        for pin in job.pins:
            span = timed.spans.get(job.scoped(pin.operation))
            free = span and job.scoped(pin.operation) not in timed.puzzle.fixed
            if span and free and not pin.from_min - CLOSE <= span[0] <= pin.until_min + CLOSE:
                yield f"{pin.operation} is not begun when it is pinned to"


def _inside(timed: Timed) -> Iterator[str]:
    """The operations of a stint one after the other, each as long as it takes."""
    for stint in timed.puzzle.stints:
        at = float("-inf")
        for operation in stint.operations:
            begins, ends = timed.spans[operation.id]
            if begins < at - CLOSE or abs(ends - begins - operation.takes_min) > CLOSE:
                yield f"{operation.id} is not done in its turn, or not as long as it takes"
            at = ends
