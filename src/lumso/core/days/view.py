"""Days put into words and figures: a view of what was placed, with what it waits for and what was assumed."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Literal

from ..figure import lasts, tidy
from ..layers import cautions
from ..layers.drying import dry_at
from ..work.operations import LIVES, Constraint, Operation
from ..work.order import around
from ..work.work import told_once
from .air import hours_of
from .days import DayOperation, Days, Drying, Given, JobDay, Outside, Proof, Visit
from .facts import Fact
from .placed import Timed
from .puzzle import Puzzle, over_at, until_of
from .settle import Settled
from .words import Because, because, critical, day_of, span, when

FROST_C = 1.0
"""From here down a water-borne mix may freeze. A starting value of ours: water freezes at 0, and sensors are off."""


def _own(name: str) -> str:
    return name.split("|", 1)[-1]


class _View:
    def __init__(self, timed: Timed) -> None:
        self.timed, self.puzzle = timed, timed.puzzle
        self.zone = timed.puzzle.table.zone
        self.lit, self.chain = critical(timed)
        self.events = {job.scoped(o): f for job in self.puzzle.jobs for o, f in job.facts.items()}
        self.windows: dict[str, list[Constraint]] = {}
        for tie in (*self.puzzle.ties, *self.puzzle.soft):
            if tie.kind == "at most" or tie.kind in LIVES:
                self.windows.setdefault(tie.then, []).append(tie)

    def key(self, name: str) -> str:
        return name.split("|", 1)[0] if "|" in name else ""

    def must_by(self, name: str) -> tuple[float | None, str]:
        """When an operation must have been begun (or ended) for its windows, and what is done else."""
        found: tuple[float | None, str] = (None, "")
        for tie in self.windows.get(name, ()):
            if tie.first in self.timed.spans:
                since = self.timed.spans[tie.first][0 if tie.since == "start" else 1]
                until = until_of(tie, since, self.puzzle.room)
                if until < float("inf") and (found[0] is None or until < found[0]):
                    found = (until, tie.remedy or tie.why)
        return found

    def planned(self) -> list[DayOperation]:
        made = []
        for n, stint in enumerate(self.puzzle.stints):
            why: Because | None = because(self.timed, n)
            visit = self.timed.visits.index(self.timed.session_of[n])
            for operation in stint.operations:
                begins, ends = self.timed.spans[operation.id]
                by, otherwise = self.must_by(operation.id)
                pinned = any(p.operation == _own(operation.id) for p in self.puzzle.pinned.get(n, ()))
                made.append(
                    self._one(
                        operation, begins, ends, stint.id, self.timed.placed.painters[n], visit,
                        extra=operation.id in stint.extra, pinned=pinned, critical=operation.id in self.lit,
                        waits_for=why.says if why else "", must_by_min=by,
                        must_by="" if by is None else when(by, self.zone), else_do=otherwise,
                    )
                )  # fmt: skip
                why = None
            for operation in stint.passing:
                begins = self.timed.spans[stint.operations[-1].id][1]
                made.append(self._one(operation, begins, begins + operation.takes_min, stint.id, 0, visit))
        return made

    def _one(self, operation: Operation, begins: float, ends: float, stint: str, painter: int, visit: int,
             **more: object) -> DayOperation:  # fmt: skip
        key = self.key(operation.id) if "|" in operation.id else self.key(stint)
        at = span(begins, ends, self.zone)
        own = replace(operation, id=_own(operation.id), at_min=0.0)
        day = day_of(begins, self.zone)
        return DayOperation(key, own, begins, ends, at, day, _own(stint), painter, visit, **more)  # type: ignore[arg-type]

    def done(self) -> list[DayOperation]:
        """What was begun or done, as it was planned then."""
        made = []
        for job in self.puzzle.jobs:
            for name, fact in job.facts.items():
                scoped = job.scoped(name)
                if fact.did not in {"begun", "done"} or fact.planned is None or scoped not in self.puzzle.fixed:
                    continue
                begins, ends = self.puzzle.fixed[scoped]
                state: Literal["begun", "done"] = "begun" if fact.did == "begun" else "done"
                at, day = span(begins, ends, self.zone), day_of(begins, self.zone)
                made.append(
                    DayOperation(job.key, fact.planned, begins, ends, at, day, name, 0, -1, state, fact.event.id)
                )
        return made

    def drying(self) -> list[Drying]:
        ready: dict[str, float | None] = {}
        for tie in self.puzzle.ties:
            if tie.kind == "at least" and tie.since == "end" and tie.first in self.timed.spans:
                over = over_at(tie, self.timed.spans[tie.first][1], self.puzzle.room)
                before = ready.get(tie.first)
                ready[tie.first] = over if before is None else max(before, over)
        made = []
        names = {o.id: o for s in self.puzzle.stints for o in s.operations}
        for name, film in self.puzzle.films.items():
            if name not in self.timed.spans:
                continue
            ends = self.timed.spans[name][1]
            one = names.get(name) or (self.events[name].planned if name in self.events else None)
            if one is None:
                continue
            touch = dry_at(ends, film.touch, self.puzzle.room)
            last = ready.get(name)
            made.append(
                Drying(
                    self.key(name), _own(name), one.zone, one.says, ends, touch,
                    None if last is None or last == float("inf") else last, name in self.lit,
                )
            )  # fmt: skip
        return made

    def visits(self) -> list[Visit]:
        made: list[Visit] = []
        habits, spans = self.puzzle.habits, []
        for k in self.timed.visits:
            mine = [n for n, s in enumerate(self.timed.session_of) if s == k]
            begins = min(self.timed.placed.begins[n] for n in mine) - habits.lay_out_min
            ends = max(self.timed.ends(n) for n in mine) + habits.clear_away_min
            mine.sort(key=lambda n: self.timed.placed.begins[n])
            done = [o for n in mine for o in self.puzzle.stints[n].operations]
            out, tidied = around(done, habits)
            hands = sum(o.hands_on_min for o in (out, *done, tidied))
            spans.append((begins, ends, hands, self.puzzle.sessions[k], out, tidied))
        for i, (begins, ends, hands, session, out, tidied) in enumerate(spans):
            away = lasts(spans[i + 1][0] - ends) if i + 1 < len(spans) else ""
            made.append(
                Visit(begins, ends, session.begins_min, session.ends_min, day_of(begins, self.zone),
                      span(begins, ends, self.zone), hands, lasts(hands), away, out, tidied)
            )  # fmt: skip
        return made

    def jobs(self) -> list[JobDay]:
        made = []
        for job in self.puzzle.jobs:
            finished, gently = self.timed.finished(job.key), self.timed.gently(job.key)
            late = self.timed.late_min(job.key)
            mine = [s for s, key in zip(self.puzzle.stints, self.puzzle.job_of, strict=True) if key == job.key]
            left = sum(len(s.operations) for s in mine)
            due = "" if job.due_min is None else when(job.due_min, self.zone)
            usable = "when its label allows" if gently is None else when(gently, self.zone)
            made.append(
                JobDay(
                    job.key, job.name, finished, when(finished, self.zone), gently, usable, job.due_min, due,
                    late, lasts(late) if late else "", left,
                )
            )  # fmt: skip
        return made


def _cautioned(operations: Sequence[DayOperation]) -> list[DayOperation]:
    """Cautions in full where they first matter, in few words after."""
    told = told_once([o.operation for o in operations])
    return [replace(o, operation=t) for o, t in zip(operations, told, strict=True)]


def _before_all(puzzle: Puzzle) -> tuple[str, ...]:
    """What is seen to before anything else, on any of the jobs."""
    worked = [j for job in puzzle.jobs for j in job.work.jobs]
    return tuple(dict.fromkeys(c for w in worked for c in cautions.before_work(w.job.use, w.asks_lead)))


def _skipped(puzzle: Puzzle) -> list[Fact]:
    """What is left out of all jobs, and would be planned."""
    gone = {(f.event.job, f.event.operation) for f in puzzle.outside}
    facts = [f for job in puzzle.jobs for f in job.facts.values() if f.did == "skipped"]
    return [f for f in facts if (f.event.job, f.event.operation) not in gone]


def _frost(timed: Timed) -> list[str]:
    """Pots that are kept while it freezes."""
    found = []
    names = {o.id: o for s in timed.puzzle.stints for o in s.operations}
    for tie in timed.puzzle.soft:
        if tie.first not in timed.spans or tie.then not in names:
            continue
        begins, ends = timed.spans[tie.first][1], timed.spans[tie.then][0]
        coldest = min(s.conditions.temperature_c for s in hours_of(timed.puzzle.room, begins, max(ends, begins + 1)))
        if coldest <= FROST_C:
            where = f"It may be {tidy(coldest)} °C while the pot for “{names[tie.then].says}” is kept"
            found.append(f"{where}: frost spoils it. Keep it where it does not freeze.")
    return list(dict.fromkeys(found))


def _outside(fact: Fact, zone: str) -> Outside:
    says = fact.planned.says if fact.planned else fact.event.operation
    return Outside(fact.event.job, fact.event.operation, fact.event.id, says, fact.did, when(fact.at_min, zone))


def _said(how: str, proofs: Sequence[Proof], stopped: bool, rejected: str) -> str:
    """What is known of how good the days are, in words."""
    if rejected:
        return "The search found nothing that keeps everything; these are the days found at once."
    if how == "at once":
        return "Found at once: there may be better."
    if how == "best":
        return "Nothing better for what you asked; times may be half an hour off."
    open_goals = [p for p in proofs if not p.proven]
    gaps = "; ".join(f"{_goal(p)}: {_number(p)}, and no days come to less than {_bound(p)}" for p in open_goals)
    ended = "The clock ended the search. " if stopped else ""
    return f"{ended}Not proven the best: {gaps}." if gaps else f"{ended}Not proven the best."


def _goal(proof: Proof) -> str:
    return {"lateness": "late", "finish": "finishing session", "visits": "visits", "minutes": "until all is finished",
            "daylight": "colours laid out of daylight"}[proof.goal]  # fmt: skip


def _number(proof: Proof) -> str:
    return lasts(proof.value) if proof.goal in {"lateness", "minutes"} else f"{proof.value:g}"


def _bound(proof: Proof) -> str:
    return lasts(proof.bound) if proof.goal in {"lateness", "minutes"} else f"{proof.bound:g}"


def days_of(settled: Settled, proofs: Sequence[Proof] = (), searched: bool = False, stopped: bool = False,
            rejected: str = "") -> Days:  # fmt: skip
    """The days as a value."""
    view = _View(settled.timed)
    puzzle, zone = settled.timed.puzzle, settled.timed.puzzle.table.zone
    how: Literal["at once", "best", "so far"] = "at once"
    if searched and not rejected:
        proven = (proofs or not puzzle.stints) and all(p.proven for p in proofs) and not stopped
        how = "best" if proven else "so far"
    operations = _cautioned(sorted([*view.done(), *view.planned()], key=lambda o: (o.begins_min, o.ends_min)))
    names = {o.id: o for s in puzzle.stints for o in s.operations}
    assumed = [
        f"Only its label says how long “{names[t.first].says}” waits: planned with a day."
        for t in puzzle.assumed
        if t.first in names
    ]
    assumed += [
        f"What is kept of a pot will not live until “{names[t.then].says}”: mix that anew." for t in settled.outlived
        if t.then in names
    ]  # fmt: skip
    assumed += _frost(settled.timed)
    assumed += [f"{job.name}: {words}" for job in puzzle.jobs for one in job.work.jobs if (words := one.not_measured)]
    end = max([puzzle.now_min + 24 * 60, *(o.ends_min for o in operations)])
    return Days(
        "lumso-days", 1, puzzle.now_min, zone, how, tuple(proofs), _said(how, proofs, stopped, rejected),
        _before_all(puzzle), tuple(view.jobs()), tuple(view.visits()), tuple(operations), tuple(view.drying()),
        tuple(Given(x.says, x.instead) for x in puzzle.lost), tuple(_outside(f, zone) for f in puzzle.outside),
        tuple(_outside(f, zone) for f in _skipped(puzzle)),
        settled.problems, tuple(dict.fromkeys(assumed)), view.chain,
        hours_of(puzzle.room, puzzle.now_min, end + 24 * 60), settled.timed.hands_on_min,
        lasts(settled.timed.hands_on_min),
    )  # fmt: skip
