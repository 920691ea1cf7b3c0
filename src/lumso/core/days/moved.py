"""What has moved since the days were last found, and why: so that nobody comes for nothing."""

from ..figure import listed
from .days import Days
from .settle import Ask

MOST_NAMED = 3


def why_moved(before: Ask, after: Ask) -> str:
    """What has changed between two times the days were found, beyond the clock; "" where somebody chose it himself."""
    if [(j.key, j.job, j.pins, j.due_min, j.priority, j.flat) for j in before.jobs] != [
        (j.key, j.job, j.pins, j.due_min, j.priority, j.flat) for j in after.jobs
    ] or before.table != after.table:
        return ""
    if [j.facts for j in before.jobs] != [j.facts for j in after.jobs]:
        return "by what was done"
    if before.air != after.air:
        return "by the air"
    return "by the hour it is"


def moved(before: tuple[Ask, Days], after: tuple[Ask, Days]) -> tuple[str, ...]:
    """What is done in another session than was said before, each day once; smaller changes are not announced."""
    why = why_moved(before[0], after[0])
    if not why:
        return ()

    def sessions(days: Days) -> dict[tuple[str, str], tuple[float, str, str]]:
        return {
            (o.job, o.stint): (days.visits[o.visit].opens_min, o.day, o.operation.says)
            for o in reversed(days.operations)
            if o.visit >= 0 and o.state == "planned"
        }

    was, now = sessions(before[1]), sessions(after[1])
    groups: dict[tuple[str, str], list[str]] = {}
    for key, (opens, day, says) in now.items():
        if key in was and abs(was[key][0] - opens) > 1 and was[key][1] != day:
            groups.setdefault((was[key][1], day), []).append(says)
    found = []
    for (from_day, to_day), names in groups.items():
        names.reverse()
        more = f" and {len(names) - MOST_NAMED} more" if len(names) > MOST_NAMED else ""
        found.append(f"From {from_day} to {to_day}, {why}: {listed(names[:MOST_NAMED])}{more}.")
    return tuple(found)
