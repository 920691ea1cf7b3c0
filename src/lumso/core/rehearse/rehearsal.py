"""A rehearsal as a value: what was done, when, and what came of it. Going back is an earlier value."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace

from ..book.catalogue import Catalogue
from ..book.flaws import Cause, Flaw
from ..book.preparation import Does, Preparation
from ..checks import check
from ..work.operations import Operation
from .course import BY_ITSELF, MAY_BE_LEFT, Bound, Course
from .signs import changes_at, limits, next_step, span_of
from .truth import Truth
from .values import Decided, Go, Hand, Leave, Pass, Rehearsal, Spoilt, Watch

LEAST_BAD, WORST_LATE = 0.2, 2.0
"""The least a flaw shows; and how many times over its time something is fully spoilt. Untested starting values."""
MOST_ACTS = 400
KEEPS_SAFE: tuple[Does, ...] = ("tests for lead", "tests a patch")
"""Preparations that are never left out: they keep somebody from harm."""
ABRADES: tuple[Does, ...] = ("scrapes", "drills", "sands", "scuffs", "takes rust off")


def begin(course: Course) -> Rehearsal:
    """Before anything is done."""
    return _past(course, Rehearsal())


def can_leave(course: Course, step: Operation) -> bool:
    """Whether a step may be left out, to see what comes of it. Never what keeps anybody from harm."""
    known = _preparation(course, step)
    guards = known is not None and any(d in KEEPS_SAFE for d in known.does)
    return step.kind in MAY_BE_LEFT and not guards and not course.asks


def _past(course: Course, now: Rehearsal) -> Rehearsal:
    """What passes or is done by itself."""
    while (step := next_step(course, now)) is not None and step.kind in BY_ITSELF:
        now = _done(now, step)
    return now


def _done(now: Rehearsal, step: Operation) -> Rehearsal:
    end = now.minute + step.takes_min
    return replace(now, minute=end, at=now.at + 1, begun={**now.begun, step.id: now.minute},
                   ended={**now.ended, step.id: end})  # fmt: skip


def act(course: Course, now: Rehearsal, hand: Hand, truth: Truth, before: int = 0) -> Rehearsal:
    """The rehearsal after one act; `before` is how many there were before it."""
    now = replace(now, stopped="")
    step = next_step(course, now)
    match hand:
        case Pass():
            return replace(now, minute=now.minute + hand.minutes)
        case Watch():
            return replace(now, minute=changes_at(course, now, truth))
    if step is None:
        return now
    if course.asks and (step.makes_dust or _rubs(course, step)):
        return replace(now, stopped=course.asks)
    if isinstance(hand, Leave):
        return _left(course, now, step, before) if can_leave(course, step) else now
    found = limits(course, now, truth)
    fresh = _missed(course, step, now, found)
    decided = _decision(step, now, found, [s.name for s in fresh], before)
    after = _done(replace(now, spoilt=(*now.spoilt, *fresh), decided=(*now.decided, decided)), step)
    return _past(course, after)


def _rubs(course: Course, step: Operation) -> bool:
    """Whether an old coating is rubbed, scraped or heated by a preparation."""
    known = _preparation(course, step)
    return known is not None and (known.grit > 0 or any(d in ABRADES for d in known.does))


def _preparation(course: Course, step: Operation) -> Preparation | None:
    """The preparation that a step is; None where it is none."""
    known = course.catalogue.preparations.values()
    return next((p for p in known if step.id.endswith(f":prepare:{p.slug}")), None)


NOT_WORKED: Mapping[str, Cause] = {"wiping": "wiped late", "liming": "wiped late", "dragging": "dragged soon"}
"""What comes of leaving out to work a film, by what is judged of it."""


def _left(course: Course, now: Rehearsal, step: Operation, before: int) -> Rehearsal:
    """A step left out. A film that is not worked stays as it was laid; what comes of other things is found by the rules
    that speak of it."""
    fresh = []
    if step.kind in {"part-dry", "wipe back"}:
        fresh = [_spoilt(course, step, NOT_WORKED.get(step.judged, "knocked late"), 1.0, False)]
    elif step.kind == "prepare" and _needed(course, step):
        fresh = [_spoilt(course, step, "ground not prepared", 1.0, False)]
    decided = Decided(
        step.id, step.says, now.minute, True, None, None, None, None, tuple(s.name for s in fresh), before
    )
    left = replace(now, at=now.at + 1, left_out=now.left_out | {step.id}, spoilt=(*now.spoilt, *fresh),
                   decided=(*now.decided, decided))  # fmt: skip
    return _past(course, left)


def _needed(course: Course, step: Operation) -> bool:
    """Whether the rules speak where a preparation is left out, by asking them."""
    zone = course.stack.zone
    without = replace(zone, prep=tuple(p for p in zone.prep if not step.id.endswith(f":prepare:{p}")))
    bad = {"will fail", "risky"}
    had = {f.rule for f in check(course.stack) if f.grade in bad}
    return any(f.grade in bad and f.rule not in had for f in check(replace(course.stack, zone=without)))


def _missed(course: Course, step: Operation, now: Rehearsal, found: Iterable[Bound]) -> list[Spoilt]:
    """What comes of doing a step now: of each cause the worst."""
    worst: dict[Cause, Spoilt] = {}
    for one in found:
        how = _how(one, now.minute)
        if how <= 0 or (one.cause in worst and worst[one.cause].how >= how):
            continue
        lucky = now.minute > one.planned if one.late else now.minute < one.planned
        worst[one.cause] = _spoilt(course, step, one.cause, how, not lucky, one.of)
    return list(worst.values())


def _how(one: Bound, minute: float) -> float:
    """How badly a limit is missed, 0–1; 0 where it is kept."""
    span = max(one.true - one.since, 1e-9)
    if one.late:
        over = minute - one.true
        return 0.0 if over <= 1e-9 else min(1.0, max(LEAST_BAD, over / (span * (WORST_LATE - 1))))
    short = one.true - minute
    return 0.0 if short <= 1e-9 else min(1.0, max(LEAST_BAD, short / span))


def _spoilt(course: Course, step: Operation, cause: Cause, how: float, bad_luck: bool, of: str = "") -> Spoilt:
    flaw = flaw_of(cause, course.catalogue)
    upper, under = course.laid(step.layer), course.laid(of) if of and of != step.layer else None
    index = course.index(step.layer)
    lower = under or (course.stack.laid[index - 1] if index > 0 else None)
    names = {
        "upper": upper.name.lower() if upper else "what goes on it",
        "lower": "the coat before"
        if of == step.layer
        else lower.name.lower()
        if lower
        else course.stack.ground.name.lower(),
    }
    says = flaw.says.format(**names)
    return Spoilt(flaw.slug, flaw.name, step.layer, cause, round(how, 3), f"{says[:1].upper()}{says[1:]}",
                  _mends(course, flaw, upper.film.kind if upper else ""), flaw.shape, flaw.shows, bad_luck)  # fmt: skip


def flaw_of(cause: Cause, catalogue: Catalogue) -> Flaw:
    """What a cause comes to. Every cause has its flaw, and only one: a test holds that."""
    return next(f for f in catalogue.flaws.values() if cause in f.causes)


def _mends(course: Course, flaw: Flaw, kind: str) -> str:
    """What is done about a flaw: what the rescues know of its sign, else what is said with it."""
    known = next((r for r in course.catalogue.rescues_for(kind) if r.sign == flaw.sign), None) if flaw.sign else None
    if known is None:
        return flaw.mends
    said = f"{known.dry or known.wet}."
    return f"{said[:1].upper()}{said[1:]}"


def _decision(step: Operation, now: Rehearsal, found: Sequence[Bound], came: Sequence[str], before: int) -> Decided:
    opens, closes = [b for b in found if not b.late], [b for b in found if b.late]
    return Decided(
        step.id, step.says, now.minute, False,
        max((b.planned for b in opens), default=None), min((b.planned for b in closes), default=None),
        max((b.true for b in opens), default=None), min((b.true for b in closes), default=None), tuple(came), before,
    )  # fmt: skip


def replayed(course: Course, acts: Sequence[Hand], truth: Truth) -> Rehearsal:
    """The rehearsal after all acts, in order."""
    now = begin(course)
    for n, hand in enumerate(acts[:MOST_ACTS]):
        now = act(course, now, hand, truth, n)
    return now


def as_planned(course: Course) -> tuple[Hand, ...]:
    """The acts of whoever does everything when the plan says."""
    now, acts, truth = begin(course), list[Hand](), Truth()
    while (step := next_step(course, now)) is not None:
        opens = span_of(course, now).opens
        if opens is not None and opens.at_min > now.minute:
            wait = Pass("pass", opens.at_min - now.minute + 1e-6)
            acts.append(wait)
            now = act(course, now, wait, truth)
        acts.append(Go("go"))
        now = act(course, now, Go("go"), truth)
        if now.stopped:
            break
        assert step is not next_step(course, now)
    return tuple(acts)
