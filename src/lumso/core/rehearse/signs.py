"""What is seen of what is waited for, and what the plan says of when: the hidden truth shows by its signs alone."""

from dataclasses import dataclass, replace

from ..book.flaws import Cause
from ..value import Value
from ..work.operations import Operation
from .course import Bound, Course, bounds
from .truth import LIKELY, Truth
from .values import Rehearsal

FAR_MIN = 2 * 24 * 60.0
"""What is too late only after so long is not told: nobody gets there by a rehearsal's next act."""
SEEN_LATE: tuple[Cause, ...] = ("wiped late", "dragged late", "knocked late")
"""What is over when a film no longer moves: that is seen of it."""


@dataclass(frozen=True)
class Sign(Value):
    """What is seen and felt of the film that is waited for: in words, and how far along it looks, 0–5."""

    says: str
    step: int


@dataclass(frozen=True)
class When(Value):
    """A minute of the rehearsal by the plan, and from when to when it likely lies."""

    at_min: float
    least_min: float
    most_min: float


@dataclass(frozen=True)
class Span(Value):
    """When the next thing should be done by the plan. None where there is no such limit."""

    opens: When | None
    closes: When | None


def next_step(course: Course, now: Rehearsal) -> Operation | None:
    """What is next; None where all is done."""
    return course.steps[now.at] if now.at < len(course.steps) else None


def limits(course: Course, now: Rehearsal, truth: Truth) -> tuple[Bound, ...]:
    """The limits of when the next step is done."""
    step = next_step(course, now)
    return () if step is None else tuple(bounds(course, step, now.begun, now.ended, truth))


def looked_for(course: Course, now: Rehearsal, truth: Truth) -> tuple[Bound, ...]:
    """What is waited for before the next step. A pot is not mixed before what it is for can be laid: it would not
    live."""
    step = next_step(course, now)
    if step is None or step.kind != "mix":
        return limits(course, now, truth)
    ahead, lead = course.steps[now.at :], 0.0
    for one in ahead:
        if one.kind == "lay" and one.batch == step.batch:
            found = bounds(course, one, now.begun, now.ended, truth)
            return tuple(
                replace(b, planned=b.planned - lead, true=max(b.true - lead, b.since)) for b in found if not b.late
            )
        lead += one.takes_min
    return ()


SIGNS = (
    "Wet and shining all over.",
    "Still wet; the shine begins to go at the edge.",
    "The shine is gone at the edge, wet and dark in the middle.",
    "Matt all over; cool to the back of the hand.",
    "Paler, no longer cool; a fingernail still marks it.",
)
SHARES = (0.12, 0.4, 0.7, 0.9, 1.0)
"""Up to which share of its true time a film looks so."""
LATE = (
    "Open: it still moves under the cloth.",
    "It begins to drag at the edge.",
    "It has set: nothing moves any more.",
)
LATE_SHARES = (0.75, 1.0)


def sign_of(course: Course, now: Rehearsal, truth: Truth) -> Sign:
    """What is seen of what is waited for."""
    found = looked_for(course, now, truth)
    opens = [b for b in found if not b.late and b.true > b.since]
    waited = max(opens, key=lambda b: b.true, default=None)
    if waited is not None and now.minute < waited.true:
        share = (now.minute - waited.since) / (waited.true - waited.since)
        step = next(i for i, most in enumerate(SHARES) if share < most or most == 1.0)
        return Sign(SIGNS[step], step)
    closing = min((b for b in found if b.late and b.cause in SEEN_LATE), key=lambda b: b.true, default=None)
    if closing is not None:
        share = (now.minute - closing.since) / max(closing.true - closing.since, 1e-9)
        step = next((i for i, most in enumerate(LATE_SHARES) if share <= most), 2)
        return Sign(LATE[step], step)
    one = course.laid(waited.of) if waited else None
    said = one.film.waits if one else ""
    return Sign(f"Ready. {said}".strip() if waited else "", len(SHARES))


def changes_at(course: Course, now: Rehearsal, truth: Truth) -> float:
    """The minute at which what is seen changes next; now where it does not any more."""
    moments = []
    for one in looked_for(course, now, truth):
        shares = LATE_SHARES if one.late else SHARES
        moments += [one.since + (one.true - one.since) * share for share in shares]
    return min((m for m in moments if m > now.minute + 1e-6), default=now.minute) + 0.0


def span_of(course: Course, now: Rehearsal) -> Span:
    """When the next step should be done by the plan, with the spread of its times: what is drawn is not told."""
    found = looked_for(course, now, Truth())
    opens = max((b for b in found if not b.late), key=lambda b: b.planned, default=None)
    ends = (b for b in found if b.late and b.planned < now.minute + FAR_MIN)
    closes = min(ends, key=lambda b: b.planned, default=None)
    return Span(_likely(opens), _likely(closes))


def _likely(one: Bound | None) -> When | None:
    if one is None:
        return None
    wide = one.planned - one.since
    return When(one.planned, one.since + wide / LIKELY, one.since + wide * LIKELY)
