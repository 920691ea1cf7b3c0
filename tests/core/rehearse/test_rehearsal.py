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
from lumso.core.rehearse.rehearsal import act, as_planned, begin, replayed
from lumso.core.rehearse.signs import limits, next_step, sign_of, span_of
from lumso.core.rehearse.truth import Truth
from lumso.core.rehearse.values import Go, Hand, Leave, Pass, Rehearsal, Watch
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
            hurried = hurry < 1 and (mine or (step.kind == "mix" and made.index(step.layer) == layer))
            wait = (opens - now.minute) * hurry if hurried else opens - now.minute + 1e-6
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


def flaws(now: Rehearsal) -> set[str]:
    return {s.flaw for s in now.spoilt}


def layer_of(made: Course, kind: str) -> int:
    return next(i for i, one in made.stack.each() if one.film.kind == kind and i)


def test_knocked_back_too_soon_peaks_sink_and_too_late_nothing_moves() -> None:
    made = course("salt-wash-undercolours")
    assert flaws(until(made, "part-dry", hurry=0.2)) == {"flat-peaks"}
    assert flaws(until(made, "part-dry", late=20)) == {"set-peaks"}
    assert flaws(until(made, "part-dry")) == set()


def test_a_clear_coat_an_hour_after_a_wash_clouds_it() -> None:
    made = course("rubbed-wash")
    sealed = layer_of(made, "clear")
    assert "cloudy" in flaws(until(made, "lay", sealed, hurry=0.1))
    assert flaws(until(made, "lay", sealed)) == set()


def test_a_glaze_is_dragged_while_it_is_open() -> None:
    made = course("dragged-linen")
    assert flaws(until(made, "part-dry", late=40)) == {"torn"}
    assert flaws(until(made, "part-dry")) == set()


def test_a_wash_rubbed_in_the_same_hour_lifts_the_base_and_worse_the_sooner() -> None:
    made = course("brushed-glaze-doors")
    glaze = layer_of(made, "glaze")
    early, later = (until(made, "lay", glaze, hurry=h) for h in (0.1, 0.6))
    assert "lifted" in flaws(early) & flaws(later)
    how = [next(s.how for s in now.spoilt if s.flaw == "lifted") for now in (early, later)]
    assert how[0] > how[1]


def test_what_the_plan_allowed_and_the_afternoon_did_not_is_bad_luck() -> None:
    made, unlucky = course("rubbed-wash"), 0
    for seed in range(1, 40):
        now = replayed(made, as_planned(made), Truth(seed))
        assert all(s.bad_luck for s in now.spoilt)
        unlucky += bool(now.spoilt)
    assert 2 <= unlucky <= 38


def test_a_hundred_novices_late_or_early_beyond_the_window_see_what_they_did() -> None:
    made = course("salt-wash-undercolours")
    seen = 0
    for n in range(100):
        truth, soon = Truth(n + 1), n % 2 == 0
        now = begin(made)
        step = next_step(made, now)
        while step is not None and step.kind != "part-dry":
            now = act(made, now, Go("go"), truth)
            step = next_step(made, now)
        found = limits(made, now, truth)
        opens = max(b.true for b in found if not b.late)
        closes = min(b.true for b in found if b.late)
        at = now.minute + (opens - now.minute) * 0.5 if soon else closes + 2 + n % 7
        now = act(made, now, Pass("pass", max(at - now.minute, 1e-3)), truth)
        now = act(made, now, Go("go"), truth)
        seen += flaws(now) == {"flat-peaks" if soon else "set-peaks"}
    assert seen >= 95


def test_a_preparation_left_out_shows_where_the_rules_speak_of_it_and_a_test_for_lead_is_never_left_out() -> None:
    made = course("brushed-glaze-doors", next(g.slug for g in C.grounds.values() if g.surface == "slick"))
    now, left, guarded = begin(made), 0, 0
    while (step := next_step(made, now)) is not None and step.kind == "prepare":
        known = next(p for p in C.preparations.values() if step.id.endswith(f":prepare:{p.slug}"))
        if "tests for lead" in known.does:
            guarded += act(made, now, Leave("leave"), Truth()) == now
            now = act(made, now, Go("go"), Truth())
            continue
        now = act(made, now, Leave("leave"), Truth())
        left += 1
    assert left
    assert "no-hold" in flaws(now)
    assert guarded == sum("tests for lead" in C.preparations[p].does for p in made.stack.zone.prep)


def test_a_film_that_is_never_worked_lies_as_it_was_laid() -> None:
    made = course("dragged-linen")
    now = begin(made)
    while (step := next_step(made, now)) is not None and not step.id.endswith(":work"):
        now = act(made, now, Watch("watch"), Truth())
        if sign_of(made, now, Truth()).step >= 5 or not limits(made, now, Truth()):
            now = act(made, now, Go("go"), Truth())
    laid = replayed(made, (), Truth())
    assert laid.spoilt == ()
    now = act(made, now, Leave("leave"), Truth())
    assert flaws(now) >= {"closed-up"}
