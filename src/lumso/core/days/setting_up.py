"""A puzzle made of worked jobs: their stints, what holds between them, and what has happened so far.

What is done or under way is fixed. What was skipped is left out, and what came before it holds for what comes after.
What went wrong is put right and done again. A window that has closed becomes its remedy.
"""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from ..book.habits import Habits
from ..book.preparation import Sanding
from ..layers import cautions
from ..layers.conditions import Room
from ..layers.drying import Wait
from ..layers.pace import minutes_for
from ..work.operations import Constraint, Operation
from .facts import Fact
from .hours import Session, Timetable
from .puzzle import FilmNeeds, JobIn, Lost, Puzzle
from .stints import Stint, stints_of

UNKNOWN = Wait(24 * 60)
"""What only a label knows is planned with a day, and said to be."""
ABRADING = Sanding(320, "between clear coats")
"""What a film that has gone too hard is abraded with."""
ABRADE = f"P{ABRADING.grit}"


def _known(tie: Constraint) -> Constraint:
    return replace(tie, wait=UNKNOWN) if tie.kind == "at least" and tie.wait.reference_min is None else tie


def _films(job: JobIn) -> dict[str, FilmNeeds]:
    coats = {c.need.id: c for j in job.work.jobs for z in j.zones for c in z.coats}
    found = {}
    lays = [o.id for b in job.work.made.blocks for o in b.operations if o.kind == "lay"]
    for operation in lays:
        one = coats.get(job.work.made.coat_of.get(operation, ""))
        if one is not None:
            watery = one.touch.by in {"evaporation", "night"} and not one.touch.warmed
            found[job.scoped(operation)] = FilmNeeds(
                one.touch, watery, job.scoped(one.need.id), job.flat.get(one.need.zone, 0)
            )
    return found


def _ends(job: JobIn) -> tuple[tuple[str, Wait], ...]:
    stacks = {z.zone.id: z.stack for j in job.work.jobs for z in j.zones}
    found = []
    for cure, after in job.work.made.cures:
        stack = stacks.get(cure.zone)
        if stack:
            found.append((job.scoped(after), stack.gentle(len(stack.laid) - 1)))
    return tuple(found)


def _rename(job: JobIn, operation: Operation) -> Operation:
    return replace(operation, id=job.scoped(operation.id)) if job.key else operation


@dataclass
class _Parts:
    """A puzzle as it is put together."""

    stints: list[Stint] = field(default_factory=list)
    ties: list[Constraint] = field(default_factory=list)


def _job_parts(job: JobIn, longest_min: float, room: Room, habits: Habits, films: Mapping[str, FilmNeeds],
               places: int) -> _Parts:  # fmt: skip
    made = _Parts()
    flat = {name: (film.coat, film.places) for name, film in films.items() if film.places}
    ties = [replace(t, first=job.scoped(t.first), then=job.scoped(t.then)) for t in job.work.constraints]
    for block in job.work.made.blocks:
        named = replace(
            block,
            operations=tuple(_rename(job, o) for o in block.operations),
            early=tuple(_rename(job, o) for o in block.early),
        )
        goes = stints_of(named, ties, longest_min, room, habits, flat, places)
        ties = _kept_for(goes, ties, job)
        made.stints += goes
    passing = {o.id for s in made.stints for o in s.passing} | {job.scoped(c.id) for c, _ in job.work.made.cures}
    made.ties = [t for t in ties if t.first not in passing and t.then not in passing]
    return made


def _kept_for(goes: Sequence[Stint], ties: list[Constraint], job: JobIn) -> list[Constraint]:
    """What holds, where a block was parted: the later goes use what was kept of the pot."""
    later = {o.id for go in goes if go.operations[0].id in go.extra for o in go.operations}
    if not later:
        return ties
    keeps = {job.scoped(b.id): b.run.life.reach_min for b in job.work.made.brews}
    found = []
    for tie in ties:
        if tie.kind == "within life" and tie.then in later:
            batch = next((b for b in keeps if tie.first.startswith(f"{b}:")), "")
            reach = keeps.get(batch, 0.0)
            if reach == float("inf"):
                continue
            tie = replace(tie, kind="keeps", wait=Wait(reach), why="what was kept of the pot goes off")
        found.append(tie)
    return found


def _bridged(ties: Sequence[Constraint], skipped: Collection[str]) -> list[Constraint]:
    """What holds between the rest where some are skipped: what came before one holds for what comes after it."""
    left = list(ties)
    for gone in skipped:
        before = [t for t in left if t.then == gone and t.kind in {"after", "at least"}]
        after = [t for t in left if t.first == gone and t.kind in {"after", "at least"}]
        left = [t for t in left if gone not in (t.first, t.then)]
        left += [replace(a, then=b.then, until=b.until) for a in before for b in after]
    return left


def puzzle_of(jobs: Sequence[JobIn], sessions: tuple[Session, ...], room: Room, table: Timetable, now_min: float,
              habits: Habits) -> Puzzle:  # fmt: skip
    """What is still to be done of jobs, from `now_min` on."""
    longest = max((s.ends_min - s.begins_min for s in sessions), default=0.0) - habits.lay_out_min
    longest -= habits.clear_away_min
    stints: list[Stint] = []
    ties: list[Constraint] = []
    films: dict[str, FilmNeeds] = {}
    fixed: dict[str, tuple[float, float]] = {}
    ends: dict[str, tuple[tuple[str, Wait], ...]] = {}
    outside: list[Fact] = []
    wrong: list[tuple[str, Fact]] = []
    skipped: list[str] = []
    for job in jobs:
        mine = _films(job)
        parts = _job_parts(job, longest, room, habits, mine, table.flat_places)
        known = {o.id: o for s in parts.stints for o in (*s.operations, *s.passing)}
        ends[job.key] = _ends(job)
        films |= mine
        for name, fact in job.facts.items():
            scoped = job.scoped(name)
            if scoped not in known:
                outside.append(fact)
            if fact.did in {"begun", "done"}:
                operation = known.get(scoped) or fact.planned
                fixed[scoped] = fact.spans(operation.takes_min if operation else 0.0, now_min)
            elif fact.did == "skipped":
                skipped.append(scoped)
            elif fact.did == "gone wrong":
                wrong.append((scoped, fact))
        stints += parts.stints
        ties += _bridged(parts.ties, skipped)
    assumed = tuple(t for t in ties if t.kind == "at least" and t.wait.reference_min is None)
    left = [one for s in stints if (one := _left(s, fixed, skipped))]
    ties = [_known(t) for t in ties if t.then not in fixed]
    soft = tuple(t for t in ties if t.kind == "keeps")
    made = Puzzle(
        tuple(left), tuple(t for t in ties if t.kind != "keeps"), soft, films, fixed, tuple(jobs), ends, sessions,
        room, table, now_min, habits, outside=tuple(outside), assumed=assumed,
    )  # fmt: skip
    for name, fact in wrong:
        made = _put_right(made, name, fact)
    return made


def _left(stint: Stint, fixed: Collection[str], skipped: Collection[str]) -> Stint | None:
    """What is left of a stint. Mixing goes where what it is for was begun, all of it where that is skipped."""
    lays = [o.id for o in stint.operations if o.kind == "lay"]
    if lays and all(o in skipped for o in lays):
        return None
    done = {*fixed, *skipped}
    poured = {o.batch for o in stint.operations if o.kind == "lay" and o.id in fixed}
    operations = tuple(
        o for o in stint.operations if o.id not in done and not (o.kind in {"mix", "stir"} and o.batch in poured)
    )
    if not operations:
        return None
    if len(operations) == len(stint.operations):
        return stint
    ids = {o.id for o in operations}
    inner = {o: tuple(t for t in ties if t.first in ids) for o, ties in stint.inner.items() if o in ids}
    return replace(stint, operations=operations, inner=inner)


def _with_first(puzzle: Puzzle, operation: str, before: Iterable[Operation]) -> Puzzle:
    """The puzzle with something done first in the stint of an operation, only because of what happened."""
    n = puzzle.owner[operation]
    stint = puzzle.stints[n]
    more = tuple(before)
    extra = stint.extra | {o.id for o in more}
    changed = replace(stint, operations=(*more, *stint.operations), extra=extra)
    return replace(puzzle, stints=(*puzzle.stints[:n], changed, *puzzle.stints[n + 1 :]))


def _dust(job: JobIn, operation: Operation) -> tuple[str, ...]:
    """What is taken care of where a layer of a zone, or the one beneath it, is abraded."""
    zone = next((z for w in job.work.jobs for z in w.zones if z.zone.id == operation.zone), None)
    if zone is None or zone.stack is None or not zone.stack.laid:
        return ()
    index = next((i for i, one in enumerate(zone.stack.laid) if one.layer.id == operation.layer), 0)
    found = [cautions.when_sanding(zone.stack, i, ABRADING) for i in range(max(index - 1, 0), index + 1)]
    return tuple(dict.fromkeys(c for each in found for c in each))


def _job_of(puzzle: Puzzle, operation: str) -> JobIn:
    """The job an operation of the puzzle is of."""
    key = puzzle.job_of[puzzle.owner[operation]]
    return next(j for j in puzzle.jobs if j.key == key)


def _abrading(puzzle: Puzzle, operation: Operation, name: str, says: str) -> Operation:
    """Abrading a zone, and dusting it off."""
    habits = puzzle.habits
    minutes = minutes_for(operation.area_m2, habits.sanding_m2_per_h, habits.least_min)
    minutes += minutes_for(operation.area_m2, habits.dusting_m2_per_h, habits.least_min)
    return replace(
        operation, id=f"{operation.id}:{name}", kind="sand", says=says, hands_on_min=minutes, lasts_min=0.0,
        film_ml=0.0, amounts=None, tools=(ABRADE, "a damp cloth"), makes_dust=True, rescues=(),
        take_care=_dust(_job_of(puzzle, operation.id), operation), remember=(),
        how=("Dull it evenly; wipe the dust up with a damp cloth, never dry.",), check="Even and dull to the touch.",
    )  # fmt: skip


def _mixing_again(puzzle: Puzzle, operation: Operation) -> tuple[Operation, ...]:
    """The mixing of an operation's batch over again, where it was mixed before."""
    job = _job_of(puzzle, operation.id)
    for block in job.work.made.blocks:
        for o in (*block.early, *block.operations):
            if o.batch == operation.batch and o.kind == "mix" and job.scoped(o.id) in puzzle.fixed:
                return (replace(o, id=f"{job.scoped(o.id)}:again", says=f"{o.says}, again"),)
    return ()


def _put_right(puzzle: Puzzle, operation: str, fact: Fact) -> Puzzle:
    """What went wrong is put right first, and done again: a film once it is dry is abraded, and its pot mixed again."""
    n = puzzle.owner.get(operation)
    if n is None:
        return puzzle
    one = next(o for o in puzzle.stints[n].operations if o.id == operation)
    if one.kind != "lay":
        return puzzle
    right = _abrading(puzzle, one, "put-right", f"Put right what went wrong: {fact.event.note or one.says}")
    puzzle = _with_first(puzzle, operation, (right, *_mixing_again(puzzle, one)))
    waits = [t.wait for t in puzzle.ties if t.first == operation and t.kind == "at least" and t.since == "end"]
    film = puzzle.films.get(operation)
    dry = max((*waits, *((film.touch,) if film else ())), key=lambda w: w.reference_min or 0.0, default=Wait(0.0))
    laid = f"{operation}:wrong"
    tie = Constraint("at least", laid, right.id, dry, why="what went wrong is dry enough to be abraded")
    return replace(puzzle, fixed={**puzzle.fixed, laid: (fact.at_min, fact.at_min)}, ties=(*puzzle.ties, tie))


def lose(puzzle: Puzzle, tie: Constraint) -> Puzzle:
    """The puzzle where a window that closed before anything could be done is given up, and its remedy done instead."""
    names = {o.id: o for s in puzzle.stints for o in s.operations}
    then = names[tie.then]
    left = replace(puzzle, ties=tuple(t for t in puzzle.ties if t is not tie))
    if tie.kind == "within life":
        again = _mixing_again(left, then)
        if again and again[0].id not in names:
            left = _with_first(left, tie.then, again)
        instead = "Mix it again."
    elif tie.remedy.startswith("abrade"):
        left = _with_first(left, tie.then, (_abrading(left, then, "abraded", f"Abrade it with {ABRADE} first"),))
        instead = f"{tie.remedy[:1].upper()}{tie.remedy[1:]}."
    elif then.kind in {"part-dry", "wipe back", "lift tape"}:
        left = _without(left, tie.then)
        instead = "It is too late for it: leave it, or mark the coat as gone wrong to lay it again."
    else:
        instead = f"{tie.remedy[:1].upper()}{tie.remedy[1:]}." if tie.remedy else "Go on once it is dry."
    if tie.first in puzzle.fixed:
        says = f"Too late for “{then.says}”: {tie.why}."
    else:
        first = names[tie.first]
        says = f"From “{first.says}” to “{then.says}” these hours leave more time than there is: {tie.why}."
    return replace(left, lost=(*left.lost, Lost(tie, says, instead)))


def _without(puzzle: Puzzle, operation: str) -> Puzzle:
    """The puzzle without an operation that can be done no more."""
    ties = tuple(_bridged(puzzle.ties, [operation]))
    left = [one for s in puzzle.stints if (one := _left(s, {operation: (0.0, 0.0)}, ()))]
    return replace(puzzle, stints=tuple(left), ties=ties)


def too_warm(puzzle: Puzzle, n: int, spoilt: Sequence[Constraint]) -> Puzzle:
    """The puzzle where what is done in one go is done all the same, though its pot does not last in this air."""
    says = f"“{puzzle.stints[n].operations[0].says}”: in this air it does not last as long as its coat takes."
    lost = Lost(spoilt[0], says, "Smaller pots, one after the other, or a cooler hour.")
    return replace(puzzle, ties=tuple(t for t in puzzle.ties if t not in spoilt), lost=(*puzzle.lost, lost))
