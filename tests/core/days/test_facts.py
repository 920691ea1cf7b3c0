"""What was noted: events are only added to, and what is so follows from them."""

from dataclasses import replace

from lumso.catalogue import shipped
from lumso.core.days.facts import facts_of
from lumso.core.days.hours import Timetable, parse_week
from lumso.core.days.moved import moved
from lumso.core.days.settle import Ask, JobAsk, settle
from lumso.core.days.view import days_of
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Conditions, Room, Spell, steady
from lumso.core.log.event import Event
from lumso.core.work.operations import Operation
from lumso.core.workshop.workshop import Workshop
from tests.core.checks.stacks import layer
from tests.core.test_batches import board

from .making import DAY, NOW

C = shipped()


def event(name: str, did: str, at: float, **more: object) -> Event:
    return Event(f"{name}-{did}-{at}", "job", name, did, at, **more)  # type: ignore[arg-type]


def test_the_last_that_was_noted_is_so_and_a_mis_tap_is_taken_back() -> None:
    begun, done = event("a", "begun", 10), event("a", "done", 25)
    facts = facts_of([begun, done], "job")
    assert (facts["a"].did, facts["a"].spans(99, 200)) == ("done", (10, 25))
    back = event("a", "retracted", 30, retracts=done.id)
    again = facts_of([begun, done, back], "job")["a"]
    assert (again.did, again.spans(40, 20)) == ("begun", (10, 50))
    assert again.spans(5, 20) == (10, 20), "what is under way lasts until now at the least"
    assert facts_of([begun, done, back, event("a", "retracted", 31, retracts=begun.id)], "job") == {}
    assert facts_of([begun], "another job") == {}


def test_only_its_end_noted_it_took_as_long_as_it_takes() -> None:
    assert facts_of([event("a", "done", 25)], "job")["a"].spans(10, 99) == (15, 25)


def made(rack: Job, *events: Event, layers: int = 1, now: float = NOW) -> Ask:
    job = board(rack, "1 m", "1 m", (1000.0, 1000.0), *[layer("mineral-paint-plaster", coats=2, wait=None)] * layers)
    table = Timetable(week=parse_week("mon-sun 18:30-21:30"))
    facts = facts_of([replace(e, job="job") for e in events], "job")
    return Ask((JobAsk("job", job, facts=facts),), Workshop(), C, steady(), steady(), table, now)


def operations(ask: Ask) -> list[Operation]:
    stints = settle(ask).timed.puzzle.stints
    return [replace(o, id=o.id.removeprefix("job|")) for s in stints for o in s.operations]


def kinds(ask: Ask) -> list[str]:
    days = days_of(settle(ask))
    return [o.operation.kind for o in days.operations if o.state == "planned" and o.operation.hands_on_min]


def test_what_is_left_out_is_left_out_and_what_came_before_holds_for_what_comes_after(rack: Job) -> None:
    ask = made(rack)
    first = next(o for o in operations(ask) if o.kind == "lay" and o.coat == 1)
    second = next(o for o in operations(ask) if o.kind == "lay" and o.coat == 2)
    assert kinds(ask) == ["mix", "lay", "clean", "mix", "lay", "clean", "refit"]
    without = made(rack, event(second.id, "skipped", NOW))
    assert kinds(without) == ["mix", "lay", "clean", "refit"]
    (left_out,) = days_of(settle(without)).left_out
    assert (left_out.operation, left_out.did) == (second.id, "skipped")
    timed = settle(without).timed
    waited = timed.spans["job|refit"][0] - timed.spans[f"job|{first.id}"][1]
    assert waited >= 96 - 1e-6, "it may be refitted when what was laid last is dry"


def test_marking_what_was_laid_says_that_its_pot_was_mixed(rack: Job) -> None:
    ask = made(rack)
    first = next(o for o in operations(ask) if o.kind == "lay" and o.coat == 1)
    now = NOW + 19 * 60
    after = made(rack, event(first.id, "done", now, planned=first), now=now)
    assert kinds(after) == ["clean", "mix", "lay", "clean", "refit"]


def test_what_went_wrong_is_put_right_once_it_is_dry_and_done_again_from_a_new_pot(rack: Job) -> None:
    ask = made(rack)
    mix, lay = operations(ask)[:2]
    now = NOW + 18 * 60 + 50
    mixed = event(mix.id, "done", now - 10, planned=mix)
    ran = event(lay.id, "gone wrong", now, note="it ran", planned=lay)
    wrong = made(rack, mixed, ran, now=now)
    days = days_of(settle(wrong))
    left = [o for o in days.operations if o.state == "planned" and o.operation.hands_on_min]
    assert [o.operation.kind for o in left][:4] == ["sand", "mix", "lay", "clean"]
    assert "it ran" in left[0].operation.says
    assert any("ust" in caution for caution in left[0].operation.take_care), "it makes dust: the mask at this step"
    assert left[0].begins_min >= now + 96 - 1e-6, "dry enough to be abraded"
    assert [o.extra for o in left[:3]] == [True, True, False]


def test_an_edit_does_not_rewrite_what_was_done(rack: Job) -> None:
    mix = operations(made(rack))[0]
    assert mix.amounts
    now = NOW + 19 * 60
    ask = made(rack, event(mix.id, "done", now, planned=mix), now=now)
    (one,) = ask.jobs
    wider = replace(one.job, zones=tuple(
        replace(z, layers=tuple(replace(x, margin=0.9) for x in z.layers)) for z in one.job.zones
    ))  # fmt: skip
    days = days_of(settle(replace(ask, jobs=(replace(one, job=wider),))))
    done = next(o for o in days.operations if o.state == "done")
    assert done.operation.amounts == mix.amounts
    other = next(o for o in days.operations if o.state == "planned" and o.operation.kind == "mix")
    assert other.operation.amounts
    assert other.operation.amounts.margin_ml > mix.amounts.margin_ml


def test_a_fact_whose_operation_is_planned_no_more_stays_listed(rack: Job) -> None:
    gone = Operation("z1:old:1:pot:lay:1", "lay", "Old paint: brushed on")
    days = days_of(settle(made(rack, event(gone.id, "done", NOW - DAY, planned=gone))))
    (outside,) = days.outside
    assert (outside.says, outside.did) == ("Old paint: brushed on", "done")


def test_a_pot_that_is_lost_is_mixed_again(rack: Job) -> None:
    # Mixed, and then the phone: it lives 30 min from wetting, and it is an hour later.
    mix = operations(made(rack))[0]
    mixed = NOW + 18 * 60 + 45
    ask = made(rack, event(mix.id, "done", mixed, planned=mix), now=mixed + 60)
    days = days_of(settle(ask))
    assert [g.instead for g in days.given_up] == ["Mix it again."]
    assert [o.operation.kind for o in days.operations if o.state == "planned"][:2] == ["mix", "lay"]


def test_days_that_move_say_from_when_to_when_and_why(rack: Job) -> None:
    ask = made(rack, layers=2)
    before = days_of(settle(ask))
    colder = replace(ask, air=Room((Spell(0.0, Conditions(12, 0.75)),)))
    after = days_of(settle(colder))
    news = moved((ask, before), (colder, after))
    assert news
    assert all("by the air" in text and text.startswith("From ") for text in news)
    assert moved((ask, before), (ask, before)) == ()
    (one,) = ask.jobs
    chosen = replace(ask, jobs=(replace(one, from_min=NOW + 3 * DAY, due_min=NOW),))
    assert moved((ask, before), (chosen, days_of(settle(chosen)))) == (), "who chose it knows"
