"""Rehearsal: what was done on a board is replayed, and answered with what can be seen. Keeps nothing."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel

from lumso.core.book.catalogue import pick
from lumso.core.colour.difference import delta_e, lab
from lumso.core.errors import InvalidValue
from lumso.core.job.job import Job
from lumso.core.rehearse.course import Course, course_of
from lumso.core.rehearse.picture import picture_of, with_flaw
from lumso.core.rehearse.rehearsal import as_planned, can_leave, replayed
from lumso.core.rehearse.signs import Sign, Span, next_step, sign_of, span_of
from lumso.core.rehearse.truth import Truth
from lumso.core.rehearse.values import Decided, Hand, Rehearsal, Spoilt
from lumso.core.work.operations import Kind

from .context import Context
from .jobs import at_head

SAYS = "Rehearsal. An estimate."


@dataclass(frozen=True)
class Rehearsing:
    """A zone of a job, the afternoon it is rehearsed on (0 is as planned), and what was done so far."""

    job: Job
    zone: str
    seed: int
    acts: tuple[Hand, ...]


class Next(BaseModel):
    """What is to be done next."""

    operation: str
    kind: Kind
    says: str
    how: list[str]
    check: str
    take_care: list[str]
    """Cautions of this step, in full."""
    remember: list[str]
    takes_min: float
    can_leave: bool


class Compared(BaseModel):
    """The board beside the one that was planned, once all is over."""

    off: float
    """How far the colour from afar lies from the planned one, ΔE₀₀."""
    minutes: float
    planned_minutes: float


class RehearsedOut(BaseModel):
    """A rehearsal at one moment: what is seen, what is next, what went wrong so far."""

    zone: str
    minute: float
    next: Next | None
    sign: Sign
    span: Span
    spoilt: list[Spoilt]
    decided: list[Decided]
    """What was done or left out. What it truly should have been is told when all is over."""
    stopped: str
    acts: int
    over: bool
    compared: Compared | None


def _course(asked: Rehearsing, here: Context) -> Course:
    """The course of a zone, worked out once while it is remembered. Raises InvalidValue where it cannot be laid."""
    zone = next((z for z in asked.job.zones if z.id == asked.zone), None)
    if zone is None:
        known = ", ".join(z.id for z in asked.job.zones)
        raise InvalidValue(f"The job has no zone {asked.zone!r}.", value=asked.zone, allowed=known, field="zone")
    args = (asked.job, zone, here.workshop(), here.catalogue, here.room())
    made: Course | None = here.memo.recall(
        ("rehearsal", zone.id), args,
        lambda: course_of(asked.job, zone.id, here.workshop(), here.catalogue, here.room(), here.memo),
    )  # fmt: skip
    if made is None or not made.stack.laid:
        raise InvalidValue(f"{zone.name} cannot be rehearsed yet.", value=zone.name, field="zone",
                           allowed="a zone with a ground, its sizes and a mix on it")  # fmt: skip
    return made


def _next(course: Course, now: Rehearsal) -> Next | None:
    step = next_step(course, now)
    if step is None:
        return None
    return Next(operation=step.id, kind=step.kind, says=step.says, how=list(step.how), check=step.check,
                take_care=list(step.take_care), remember=list(step.remember), takes_min=step.takes_min,
                can_leave=can_leave(course, step))  # fmt: skip


def _told(one: Decided, over: bool) -> Decided:
    """A decision as it is told: the hidden truth only when all is over."""
    return one if over else replace(one, true_opens_min=None, true_closes_min=None)


def _planned(course: Course) -> Rehearsal:
    return replayed(course, as_planned(course), Truth())


def _compared(course: Course, now: Rehearsal, truth: Truth) -> Compared:
    planned = _planned(course)
    mine, theirs = (_afar(picture_of(course, r, t, 96)) for r, t in ((now, truth), (planned, Truth())))
    return Compared(off=round(float(delta_e(mine, theirs)), 1), minutes=now.minute, planned_minutes=planned.minute)


def _afar(picture: NDArray[np.uint8]) -> NDArray[np.float64]:
    """A picture's colour from afar, CIELAB: of the mean of its light."""
    share = picture.reshape(-1, 3) / 255.0
    return lab(np.where(share <= 0.04045, share / 12.92, ((share + 0.055) / 1.055) ** 2.4).mean(axis=0))


def rehearse(asked: Rehearsing, here: Context) -> RehearsedOut:
    """A rehearsal after all that was done. Raises InvalidValue."""
    course, truth = _course(asked, here), Truth(asked.seed)
    now = replayed(course, asked.acts, truth)
    over = next_step(course, now) is None
    return RehearsedOut(
        zone=course.stack.zone.name, minute=now.minute, next=_next(course, now), sign=sign_of(course, now, truth),
        span=span_of(course, now), spoilt=list(now.spoilt), decided=[_told(d, over) for d in now.decided],
        stopped=now.stopped, acts=len(asked.acts), over=over,
        compared=_compared(course, now, truth) if over else None,
    )  # fmt: skip


def picture(asked: Rehearsing, planned: bool, px: int, here: Context) -> bytes:
    """The board as it is seen now, or as it was `planned` to come out, as PNG. Raises InvalidValue."""
    course = _course(asked, here)
    seed, acts = (0, as_planned(course)) if planned else (asked.seed, asked.acts)
    place = ("rehearsed", asked.zone, seed, px, planned)
    return here.pictures.recall(place, (course, acts), lambda: _drawn(course, acts, Truth(seed), px))


def flaw_picture(job_id: str, zone: str, layer: str, slug: str, px: int, here: Context) -> bytes:
    """How a flaw looks on a layer of a saved job, as PNG: in its own colours, at its worst. Raises NotFound,
    UnknownEntry, InvalidValue."""
    job = at_head(job_id, here)
    course = _course(Rehearsing(job, zone, 0, ()), here)
    flaw = pick("flaw", course.catalogue.flaws, slug)
    if course.index(layer) < 0:
        known = ", ".join(one.layer.id for one in course.stack.laid)
        raise InvalidValue(f"There is no layer {layer!r}.", value=layer, allowed=known, field="layer")

    def drawn() -> bytes:
        from lumso.formats.png import png  # takes a while to load

        return png(picture_of(course, with_flaw(course, layer, flaw), Truth(), px), 0.0, SAYS)

    return here.pictures.recall(("flaw", zone, layer, slug, px), (course,), drawn)


def _drawn(course: Course, acts: Sequence[Hand], truth: Truth, px: int) -> bytes:
    from lumso.formats.png import png  # takes a while to load

    return png(picture_of(course, replayed(course, acts, truth), truth, px), 0.0, SAYS)
