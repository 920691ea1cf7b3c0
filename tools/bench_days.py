"""Print how long days take to be found on this machine, and how much better the best are than those found at once."""

import time
from dataclasses import replace
from datetime import UTC, datetime

from figures import ONCE, row
from lumso.catalogue import shipped
from lumso.core.days.air import outlook
from lumso.core.days.hours import Timetable, minute_of, parse_week
from lumso.core.days.placed import Timed
from lumso.core.days.settle import Ask, JobAsk, settle
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Conditions, Room, steady
from lumso.core.solver.solve import Found, Limits, solve
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs

NOW = minute_of(datetime(2026, 11, 24, 8, tzinfo=UTC))
JOBS = {job.name: job for job in demo_jobs()}
WEEKS = {"daily": "mon-sat 9-12,13-17", "two evenings": "tue,thu 18:30-21:30"}
SIZES = (20,) if ONCE else (20, 40, 80)
SECONDS = 1 if ONCE else 10


def of_size(operations: int) -> Job:
    """The ticket counter over again, zone after zone, until it has about so many operations."""
    job = JOBS["Ticket counter"]
    zones = list(job.zones[:1])
    extra = [z for name in ("Ticket counter", "Hat stand") for z in JOBS[name].zones]
    while _count(replace(job, zones=tuple(zones))) < operations and len(zones) < 30:
        zones.append(replace(extra[len(zones) % len(extra)], id=f"zone-{len(zones)}", surfaces=job.zones[0].surfaces))
    return replace(job, zones=tuple(zones))


def _count(job: Job) -> int:
    timed = settle(_ask([job], "daily", steady())).timed
    return sum(len(s.operations) for s in timed.puzzle.stints)


def _ask(jobs: list[Job], week: str, air: Room, goal: str = "finish") -> Ask:
    table = Timetable(week=parse_week(WEEKS[week]), goal=goal)  # type: ignore[arg-type]
    several = len(jobs) > 1
    asked = tuple(JobAsk(f"job{n}" if several else "", j, priority=n + 1) for n, j in enumerate(jobs))
    return Ask(asked, Workshop(), shipped(), steady(), air, table, NOW)


def _said(timed: Timed) -> str:
    finish = max(timed.finished(j.key) for j in timed.puzzle.jobs)
    return f"{(finish - NOW) / 1440:5.1f} d, {len(timed.visits):2d} visits"


def line(name: str, ask: Ask) -> None:
    """One line: what was found at once, and what the search came to."""
    begun = time.perf_counter()
    first = settle(ask).timed
    at_once = time.perf_counter() - begun
    found: list[Found] = []
    begun = time.perf_counter()
    found.append(solve(first.puzzle, first.placed, Limits(seconds=SECONDS)))
    took = time.perf_counter() - begun
    best = Timed(first.puzzle, found[0].placed)
    open_goals = [f"{p.goal} {p.value:g}, bound {p.bound:g}" for p in found[0].proofs if not p.proven]
    operations = sum(len(s.operations) for s in first.puzzle.stints)
    how = f"not proven: {'; '.join(open_goals)}" if open_goals else "proven" if found[0].proofs else "nothing found"
    row(f"days, {name}: at once", at_once * 1000)
    row(f"days, {name}: the search", took * 1000)
    print(f"    {operations} operations: {_said(first)} at once, then {_said(best)}, {how}")


def main() -> None:
    """All lines."""
    airs = {"steady": steady()}
    if not ONCE:
        airs["shed"] = outlook(shipped().profiles["unheated-shed"], Conditions(), (), "UTC", NOW, 366).room
    jobs = {size: of_size(size) for size in SIZES}
    for air in airs:
        for week in ("daily",) if ONCE else WEEKS:
            for size in SIZES:
                line(f"{size} operations, {air}, {week}", _ask([jobs[size]], week, airs[air]))
    for air in () if ONCE else airs:
        line(f"40 operations, {air}, daily, fewest visits", _ask([jobs[40]], "daily", airs[air], "visits"))
        three = [JOBS[n] for n in ("Costume wardrobe", "Hat stand", "Ticket counter")]
        line(f"three jobs together, {air}, daily", _ask(three, "daily", airs[air]))
        line(f"three jobs together, {air}, two evenings", _ask(three, "two evenings", airs[air]))


if __name__ == "__main__":
    main()
