"""Days in the order and the sessions they were found in, moved to the earliest minute that keeps everything."""

from collections.abc import Sequence
from math import inf

from ..work.operations import LIVES, Constraint
from .check import broken
from .placed import Placed, Timed
from .puzzle import EPS, Puzzle, over_at, until_of

ROUNDS = 400


def tighten(puzzle: Puzzle, found: Placed) -> Placed | None:
    """The same order, each stint as early as its session lets it; None where what was found is not kept so.

    Starts only ever move later, from the earliest there is: the first that keeps all is the earliest of this order.
    """
    timed = Timed(puzzle, found)
    sessions = timed.session_of
    if -1 in sessions:
        return None
    order = sorted(range(len(puzzle.stints)), key=lambda n: (found.begins[n], timed.ends(n)))
    low = [max(puzzle.usable[sessions[n]][0], puzzle.bounds[n][0]) for n in range(len(order))]
    owner = puzzle.owner
    before = _on_one_pair_of_hands(order, found.painters)
    ties = [(t, owner.get(t.first), n) for t in puzzle.ties if (n := owner.get(t.then)) is not None]
    for _ in range(ROUNDS):
        moved = _swept(puzzle, order, low, before)
        made = Timed(puzzle, Placed(tuple(low), found.painters))
        for tie, first, then in ties:
            if first == then or tie.first not in made.spans:
                continue
            n, late = _late(puzzle, tie, (first, then), timed, made)
            if n is not None and late > EPS:
                low[n] = low[n] + late
                moved = True
        if max(low, default=0.0) == inf:
            return None
        if not moved:
            break
    done = Placed(tuple(_just_in_time(puzzle, Placed(tuple(low), found.painters))), found.painters)
    for one in (done, Placed(tuple(low), found.painters)):
        if not broken(Timed(puzzle, one)):
            return one
    return None


def _late(puzzle: Puzzle, tie: Constraint, stints: tuple[int | None, int], found: Timed,
          made: Timed) -> tuple[int | None, float]:  # fmt: skip
    """Which stint has to move so that a tie is kept, and by how many minutes; None where none of them can."""
    first, then = stints
    since = made.spans[tie.first][0 if tie.since == "start" else 1]
    until = made.spans[tie.then][0 if tie.until == "start" else 1]
    if tie.kind in {"after", "at least"}:
        return then, over_at(tie, since, puzzle.room) - until
    if tie.kind == "at most" or tie.kind in LIVES:
        return first, until - until_of(tie, since, puzzle.room)
    if first is not None and found.spans[tie.then][1] <= found.spans[tie.first][0] + EPS:
        return first, made.spans[tie.then][1] - made.spans[tie.first][0]
    return then, over_at(tie, made.spans[tie.first][1], puzzle.room) - made.spans[tie.then][0]


def _on_one_pair_of_hands(order: Sequence[int], painters: Sequence[int]) -> dict[int, int]:
    """What each stint follows with the same painter."""
    last: dict[int, int] = {}
    found = {}
    for n in order:
        if painters[n] in last:
            found[n] = last[painters[n]]
        last[painters[n]] = n
    return found


def _swept(puzzle: Puzzle, order: Sequence[int], low: list[float], before: dict[int, int]) -> bool:
    """Each stint once what its painter does before it is over, and when its films can form; whether any moved."""
    moved = False
    for n in order:
        at = low[n]
        if n in before:
            prior = before[n]
            at = max(at, puzzle.run(prior, low[prior])[-1][1])
        at = puzzle.fits(n, at)[0]
        if at > low[n] + EPS:
            low[n], moved = at, True
        if at == inf:
            break
    return moved


def _just_in_time(puzzle: Puzzle, placed: Placed) -> list[float]:
    """What is mixed long ahead, no earlier than it must be in its session."""
    timed = Timed(puzzle, placed)
    begins = list(placed.begins)
    for n, stint in enumerate(puzzle.stints):
        if not stint.passing:
            continue
        takes = timed.ends(n) - begins[n]
        latest = puzzle.usable[timed.session_of[n]][1] - takes
        for tie in puzzle.ties:
            if puzzle.owner.get(tie.first) == n and tie.kind in {"after", "at least"} and tie.then in timed.spans:
                slack = timed.spans[tie.then][0] - over_at(tie, timed.spans[tie.first][1], puzzle.room)
                latest = min(latest, begins[n] + max(slack, 0.0))
        for m in range(len(begins)):
            if m != n and placed.painters[m] == placed.painters[n] and begins[m] > begins[n] - EPS:
                latest = min(latest, begins[m] - takes)
        begins[n] = max(begins[n], min(latest, puzzle.bounds[n][1]))
    return begins
