"""What anybody in the trade expects of a rehearsal: on time it comes out, too soon and too late it shows."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.book.flaws import Cause
from lumso.core.edits.beginning import Beginning, begun
from lumso.core.job.job import Answered, Job
from lumso.core.layers.conditions import steady
from lumso.core.memory import Memo
from lumso.core.rehearse.course import Course, course_of
from lumso.core.rehearse.rehearsal import (
    Go,
    Hand,
    Leave,
    Pass,
    Rehearsal,
    Watch,
    act,
    as_planned,
    begin,
    next_step,
    replayed,
    sign_of,
    span_of,
)
from lumso.core.rehearse.truth import Truth
from lumso.core.workshop.workshop import Workshop

C = shipped()
ROOM = steady()
CAUSES: tuple[str, ...] = Cause.__args__  # type: ignore[attr-defined]


def job_with(finish: str, ground: str = "") -> Job:
    known = C.finishes[finish]
    told = Beginning("x", "side-table", (), ground or known.grounds[0], Answered("never coated"), finish, "")
    return begun(told, C, ROOM).job


def course(finish: str, ground: str = "") -> Course:
    job = job_with(finish, ground)
    made = course_of(job, job.zones[0].id, Workshop(), C, ROOM, Memo())
    assert made is not None
    return made


def until(made: Course, kind: str, layer: int = -1, hurry: float = 1.0, late: float = 0.0) -> Rehearsal:
    """Everything on time up to the first thing of a kind (on a layer), which is done when `hurry` of its wait is over,
    or `late` minutes after its time."""
    now, truth = begin(made), Truth()
    while (step := next_step(made, now)) is not None:
        span = span_of(made, now)
        opens = span.opens.at_min if span.opens else None
        mine = step.kind == kind and (layer < 0 or made.index(step.layer) == layer)
        if mine and late and span.closes is not None:
            now = act(made, now, Pass("pass", max(span.closes.at_min - now.minute, 0) + late), truth)
        elif opens is not None and opens > now.minute:
            wait = (opens - now.minute) * (hurry if mine else 1.0) + (0 if mine and hurry < 1 else 1e-6)
            if wait > 0:
                now = act(made, now, Pass("pass", wait), truth)
        now = act(made, now, Go("go"), truth)
        if mine:
            return now
    raise AssertionError(f"nothing is a {kind}")


@pytest.mark.parametrize("finish", sorted(C.finishes))
def test_done_when_the_plan_says_every_finish_comes_out_without_a_flaw(finish: str) -> None:
    made = course(finish)
    done = replayed(made, as_planned(made), Truth())
    assert next_step(made, done) is None
    assert [s.says for s in done.spoilt] == []


@pytest.mark.parametrize("finish", sorted(C.finishes))
def test_done_at_a_third_of_every_wait_it_shows(finish: str) -> None:
    made, truth = course(finish), Truth()
    now, waited = begin(made), False
    while next_step(made, now) is not None:
        opens = span_of(made, now).opens
        if opens is not None and opens.at_min - now.minute > 2:
            waited = True
            now = act(made, now, Pass("pass", (opens.at_min - now.minute) / 3), truth)
        now = act(made, now, Go("go"), truth)
    assert bool(now.spoilt) == waited


def test_every_cause_has_its_flaw_and_only_one_and_every_flaw_a_cause() -> None:
    for cause in CAUSES:
        assert len([f for f in C.flaws.values() if cause in f.causes]) == 1, cause
    assert all(f.causes for f in C.flaws.values())
    signs = {r.sign for r in C.rescues.values()}
    assert {f.sign for f in C.flaws.values() if f.sign} <= signs


def test_the_same_seed_is_the_same_afternoon_and_another_is_another() -> None:
    made = course(sorted(C.finishes)[0])
    acts = as_planned(made)
    assert replayed(made, acts, Truth(7)) == replayed(made, acts, Truth(7))
    assert len({replayed(made, acts, Truth(s)).spoilt for s in range(1, 12)}) > 1


def test_going_back_loses_nothing() -> None:
    made = course(sorted(C.finishes)[0])
    acts = as_planned(made)
    for n in range(len(acts)):
        half = replayed(made, acts[:n], Truth(3))
        rest = half
        for k, hand in enumerate(acts[n:]):
            rest = act(made, rest, hand, Truth(3), n + k)
        assert rest == replayed(made, acts, Truth(3))


def watchful(made: Course, truth: Truth) -> Rehearsal:
    """Who goes by the sign, not by the hour."""
    now, acts = begin(made), 0
    while next_step(made, now) is not None and acts < 300:
        hand: Hand = Go("go")
        if sign_of(made, now, truth).says.startswith(("Wet", "Still", "The shine", "Matt", "Paler")):
            hand = Watch("watch")
        now = act(made, now, hand, truth, acts)
        acts += 1
    return now


@pytest.mark.parametrize("seed", range(1, 9))
@pytest.mark.parametrize("finish", sorted(C.finishes))
def test_who_waits_for_the_sign_spoils_nothing_whatever_the_afternoon_is_like(finish: str, seed: int) -> None:
    made = course(finish)
    assert [s.says for s in watchful(made, Truth(seed)).spoilt] == []


def test_nothing_that_makes_dust_is_begun_while_the_lead_question_is_open() -> None:
    job = job_with(sorted(C.finishes)[0])
    old = next(g.slug for g in C.grounds.values() if "may hide lead" in g.traits)
    zone = replace(job.zones[0], ground=old, prep=("scuffed", *job.zones[0].prep))
    job = replace(job, zones=(zone,), use=replace(job.use, lead=Answered("not tested")))
    made = course_of(job, zone.id, Workshop(), C, ROOM, Memo())
    assert made is not None
    assert made.asks
    now, truth = begin(made), Truth()
    for hand in (Go("go"), Leave("leave"), Go("go")):
        now = act(made, now, hand, truth)
    assert "lead" in now.stopped
    assert not now.spoilt
