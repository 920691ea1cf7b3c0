"""Like with like: in the same sessions and no later, jobs and zones one after the other rather than in turns."""

from dataclasses import replace

from .check import broken
from .placed import Placed, Timed
from .puzzle import Puzzle
from .tighten import tighten

MOST_TRIED = 60


def _switches(puzzle: Puzzle, placed: Placed) -> int:
    """How often a painter turns to another job, and to another zone."""
    count = 0
    last: dict[int, tuple[str, str]] = {}
    for n in sorted(range(len(placed.begins)), key=lambda n: placed.begins[n]):
        operation = puzzle.stints[n].operations[0]
        here = (puzzle.job_of[n], operation.zone)
        before = last.get(placed.painters[n])
        if before is not None:
            count += 3 * (before[0] != here[0]) + (before != here)
        last[placed.painters[n]] = here
    return count


def _swapped(timed: Timed, first: int, then: int) -> Placed:
    """The order with a stint before the one it followed: both where the first began, tightened after."""
    begins = list(timed.placed.begins)
    begins[then], begins[first] = begins[first], begins[first] + (timed.ends(then) - begins[then])
    return replace(timed.placed, begins=tuple(begins))


def like_with_like(puzzle: Puzzle, placed: Placed) -> Placed:
    """The same days with fewer turns from job to job and zone to zone, where nothing is lost by it."""
    best = Timed(puzzle, placed)
    turns = _switches(puzzle, placed)
    tried = 0
    going = True
    while going and tried < MOST_TRIED:
        going = False
        order = sorted(range(len(puzzle.stints)), key=lambda n: best.placed.begins[n])
        for a, first in enumerate(order):
            for then in order[a + 1 : a + 4]:
                same = best.placed.painters[first] == best.placed.painters[then]
                if not same or best.session_of[first] != best.session_of[then]:
                    continue
                rough = _swapped(best, first, then)
                if _switches(puzzle, rough) >= turns:
                    continue
                tried += 1
                made = tighten(puzzle, rough)
                if made is None or _switches(puzzle, made) >= turns or broken(Timed(puzzle, made)):
                    continue
                if Timed(puzzle, made).score <= best.score:
                    best, turns, going = Timed(puzzle, made), _switches(puzzle, made), True
                    break
            if going or tried >= MOST_TRIED:
                break
    return best.placed
