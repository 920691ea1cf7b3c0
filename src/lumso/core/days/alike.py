"""Like with like: in the same sessions and no later, jobs and zones one after the other rather than in turns."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from .placed import Placed, Timed
from .puzzle import Puzzle
from .tighten import tighten

MOST_TRIED = 60
JUST_AFTER_MIN = 0.001


def _order(placed: Placed) -> list[int]:
    return sorted(range(len(placed.begins)), key=lambda n: placed.begins[n])


def turns(puzzle: Puzzle, placed: Placed) -> int:
    """How often a painter turns to another zone; to another job counts four times."""
    count = 0
    last: dict[int, tuple[str, str]] = {}
    for n in _order(placed):
        here = _place(puzzle, n)
        before = last.get(placed.painters[n], here)
        count += 3 * (before[0] != here[0]) + (before != here)
        last[placed.painters[n]] = here
    return count


def _place(puzzle: Puzzle, n: int) -> tuple[str, str]:
    return puzzle.job_of[n], puzzle.stints[n].operations[0].zone


def _moves(timed: Timed, order: Sequence[int]) -> Iterator[Placed]:
    """What is done one after the other on a job, or on a zone of it, drawn to what is done on the same before it."""
    puzzle, placed = timed.puzzle, timed.placed

    def beside(n: int, m: int) -> bool:
        return timed.session_of[m] == timed.session_of[n] and placed.painters[m] == placed.painters[n]

    for like in (lambda n: puzzle.job_of[n], lambda n: _place(puzzle, n)):
        for at, n in enumerate(order):
            mine = [m for m in order[:at] if beside(n, m)]
            before = [m for m in mine if like(m) == like(n)]
            if not before or before[-1] == mine[-1]:
                continue
            group = [n]
            for m in order[at + 1 :]:
                if beside(n, m) and like(m) == like(n):
                    group.append(m)
                elif beside(n, m):
                    break
            begins = list(placed.begins)
            for i, m in enumerate(group, 1):
                begins[m] = begins[before[-1]] + JUST_AFTER_MIN * i
            yield replace(placed, begins=tuple(begins))


def like_with_like(puzzle: Puzzle, placed: Placed) -> Placed:
    """The same days with fewer turns from job to job and zone to zone, where nothing is lost by it."""
    best, count, tried = Timed(puzzle, placed), turns(puzzle, placed), 0
    going = True
    while going:
        going = False
        for rough in _moves(best, _order(best.placed)):
            if turns(puzzle, rough) >= count:
                continue
            if (tried := tried + 1) > MOST_TRIED:
                return best.placed
            made = tighten(puzzle, rough)
            if made is None or turns(puzzle, made) >= count:
                continue
            if Timed(puzzle, made).score <= best.score:
                best, count, going = Timed(puzzle, made), turns(puzzle, made), True
                break
    return best.placed
