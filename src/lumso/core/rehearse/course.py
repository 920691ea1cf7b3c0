"""What is rehearsed: one zone's operations in their order, what each waits for, and when its time is over.

Nothing here judges by itself: what a layer waits for is `layers.awaited`, what else lies between two operations are the
constraints of the order of work, how long a film can be worked is said by the film.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from ..book.catalogue import Catalogue
from ..book.flaws import Cause
from ..job.job import Job
from ..layers.awaited import awaited
from ..layers.conditions import Room
from ..layers.drying import Wait, dry_at
from ..layers.laid import Laid
from ..layers.stack import Stack
from ..memory import Memo
from ..work.operations import LIVES, Constraint, Operation
from ..work.work import Work, work
from ..workshop.workshop import Workshop
from .truth import Truth

BY_ITSELF = {"clean", "dust off", "rest", "seal edges", "dry"}
"""What is done, or passes, without being asked for."""
NOT_HERE = {"lay out", "clear away", "refit", "cure"}
"""What has nothing to do with how it comes out."""
MAY_BE_LEFT = {"prepare", "sand", "buff", "part-dry", "wipe back"}
"""What a hand may leave out, and see."""
WORKED: Mapping[str, tuple[Cause, Cause]] = {
    "wiping": ("wiped soon", "wiped late"),
    "liming": ("wiped soon", "wiped late"),
    "dragging": ("dragged soon", "dragged late"),
}
"""What is judged by eye while a film is open, and what comes of working it too soon and too late."""
LEAD = (
    "Stop: nobody has said whether the old coating holds lead. Dry sanding, scraping or heating it puts lead into the "
    "air and into everybody in the house. Test it first; follow local codes, and leave what is found to those who are "
    "licensed for it."
)
ASBESTOS = (
    "Stop: this ground may hold asbestos. It is not sanded, scraped or drilled before a laboratory has looked at it; "
    "follow local codes."
)
BOARD_MIN = 5.0
"""Nothing on a board takes longer: it is small."""
SOON = 0.15
"""Before this share of the time it surely stays open a film does not hold yet. Untested starting value."""
SOON_OF: Mapping[str, Cause] = {"sand": "sanded soon", "buff": "buffed soon", "mask": "tape", "prepare": "damp ground"}
"""What comes of doing something before what it waits for is over, by what is done."""


@dataclass(frozen=True)
class Bound:
    """One limit of when something is done: minutes of the rehearsal, as planned and as it truly is."""

    cause: Cause
    late: bool
    """Whether it is a time that is over, not one that has to come."""
    since: float
    planned: float
    true: float
    of: str
    """The layer whose film it goes by; "" for none."""


@dataclass(frozen=True)
class Course:
    """One zone of a job as it is rehearsed."""

    job: Job
    made: Work
    stack: Stack
    catalogue: Catalogue
    room: Room
    steps: tuple[Operation, ...]
    ties: Mapping[str, tuple[Constraint, ...]]
    """What holds before each operation, by its id."""

    def index(self, layer: str) -> int:
        """The place of a layer in the stack; -1 for none."""
        return next((i for i, one in self.stack.each() if one.layer.id == layer), -1)

    def laid(self, layer: str) -> Laid | None:
        """A layer with all that is known of it; None for none."""
        at = self.index(layer)
        return self.stack.laid[at] if at >= 0 else None

    @property
    def asks(self) -> str:
        """Why nothing that makes dust may be begun; "" where nothing is open."""
        if self.stack.asks_lead:
            return LEAD
        return ASBESTOS if self.stack.asks_asbestos else ""


def _says(one: Operation) -> str:
    """What is done, as a key says it."""
    return one.says.split(":")[0] if one.kind in {"part-dry", "wipe back"} else one.says


def worked_id(lay: str) -> str:
    """What working a film that was laid is called."""
    return f"{lay}:work"


def _worked(lay: Operation, one: Laid, catalogue: Catalogue) -> Operation | None:
    """Working a film by hand once it is laid, where that is a matter of time; None where it is not."""
    if lay.judged not in WORKED or one.film.open_least_min is None:
        return None
    judged = catalogue.hands[lay.judged]
    return replace(
        lay, id=worked_id(lay.id), kind="part-dry" if lay.judged == "dragging" else "wipe back", film_ml=0.0,
        says=f"{judged.name[:1].upper()}{judged.name[1:]}: {one.name.lower()}", take_care=(), remember=(), rescues=(),
        hands_on_min=min(2.0, lay.hands_on_min),
    )  # fmt: skip


def course_of(job: Job, zone: str, workshop: Workshop, catalogue: Catalogue, room: Room, memo: Memo) -> Course | None:
    """A zone of a job as a course; None where it cannot be laid: its sizes or its stack are not known."""
    alone = replace(job, zones=tuple(z for z in job.zones if z.id == zone))
    made = work(alone, workshop, catalogue, room, memo)
    worked = made.jobs[0].zones[0]
    if worked.stack is None or not worked.whole or not made.operations:
        return None
    known = made.jobs[0].catalogue
    stack = worked.stack
    steps: list[Operation] = []
    for one in made.operations:
        if one.kind in NOT_HERE:
            continue
        one = replace(one, hands_on_min=min(one.hands_on_min, BOARD_MIN), says=_says(one))
        steps.append(one)
        laid = next((x for x in stack.laid if x.layer.id == one.layer), None)
        if one.kind == "lay" and laid and (hand := _worked(one, laid, known)):
            steps.append(hand)
    ties: dict[str, list[Constraint]] = {}
    for tie in made.constraints:
        ties.setdefault(tie.then, []).append(tie)
    return Course(alone, made, stack, known, room, tuple(steps), {k: tuple(v) for k, v in ties.items()})


def _true(since: float, planned: float, factor: float) -> float:
    return since + (planned - since) * factor


def bounds(course: Course, step: Operation, begun: Mapping[str, float], ended: Mapping[str, float],
           truth: Truth) -> Iterator[Bound]:  # fmt: skip
    """The limits of when a step is done, by what was done before it and when."""
    if step.id.endswith(":work"):
        yield from _open(course, step, ended, truth)
        return
    layers = _last_laid(course, ended)
    index = course.index(step.layer)
    first = step.kind == "lay" and step.layer not in layers
    if first and index >= 1:
        for one in awaited(course.stack, index):
            under = course.stack.laid[one.of].layer.id
            ready = dry_at(layers[under], one.wait, course.room) if under in layers else None
            if one.judged and ready is not None:
                true = _true(layers[under], ready, truth.dries(under))
                yield Bound(one.asked, False, layers[under], ready, true, under)
    for tie in course.ties.get(step.id, ()):
        if tie.first in ended and tie.until == "start":
            yield from _tied(course, step, tie, (begun if tie.since == "start" else ended)[tie.first], truth)
        elif tie.first in ended and tie.kind in LIVES:
            yield from _living(course, step, tie, ended[tie.first], truth)


def _last_laid(course: Course, ended: Mapping[str, float]) -> dict[str, float]:
    """When the last of each layer was laid."""
    found: dict[str, float] = {}
    for one in course.steps:
        if one.kind == "lay" and one.id in ended:
            found[one.layer] = max(found.get(one.layer, 0.0), ended[one.id])
    return found


def _tied(course: Course, step: Operation, tie: Constraint, since: float, truth: Truth) -> Iterator[Bound]:
    """What a constraint of the order of work comes to."""
    before = next((o for o in course.steps if o.id == tie.first), None)
    of = before.layer if before else ""
    over = dry_at(since, tie.wait, course.room)
    if over is None or tie.wait.reference_min == 0:
        return
    cause = _cause(course, step, tie, before)
    if cause is not None:
        true = _true(since, over, truth.dries(of or tie.first))
        yield Bound(cause, tie.kind == "at most", since, over, true, of)


def _cause(course: Course, step: Operation, tie: Constraint, before: Operation | None) -> Cause | None:
    """What comes of not keeping to a constraint; None where something else judges it, or nothing comes of it."""
    late = tie.kind == "at most"
    if tie.kind not in {"at least", "at most"}:
        return None
    if step.kind in {"part-dry", "wipe back"}:
        soon = WORKED.get(step.judged, ("knocked soon", "knocked late"))
        return soon[1] if late else soon[0]
    if step.kind == "lay":
        if late:
            return "closed"
        if before is None or before.kind == "prepare":
            return "damp ground"
        return "recoat" if before.layer == step.layer else None  # another layer's is `awaited`
    return None if late else SOON_OF.get(step.kind)


def _living(course: Course, step: Operation, tie: Constraint, since: float, truth: Truth) -> Iterator[Bound]:
    """Until when a step has to begin so that its pot lives to the end of it."""
    over = dry_at(since, tie.wait, course.room)
    if over is None or tie.wait.reference_min is None:
        return
    over = min(over, since + tie.wait.reference_min)
    true = _true(since, over, truth.dries(f"{step.batch} pot"))
    yield Bound("life", True, since, over - step.takes_min, true - step.takes_min, step.layer)


def _open(course: Course, step: Operation, ended: Mapping[str, float], truth: Truth) -> Iterator[Bound]:
    """How long a film that was laid can be worked, and from when it holds."""
    one, since = course.laid(step.layer), ended.get(step.id.removesuffix(":work"))
    if one is None or since is None or one.film.open_least_min is None:
        return
    soon, late = WORKED[step.judged]
    least = dry_at(since, Wait(one.film.open_least_min, "evaporation"), course.room) or since
    most = dry_at(since, Wait(one.film.open_most_min or one.film.open_least_min, "evaporation"), course.room) or least
    opens = since + (least - since) * SOON
    yield Bound(soon, False, since, opens, _true(since, opens, truth.dries(step.layer)), step.layer)
    yield Bound(late, True, since, least, least + (most - least) * truth.open(step.layer), step.layer)
