"""What runs at the bench, by hand: each timer follows from what was done, and what is seen moves it."""

import pytest

from lumso.core.bench.timers import Timer, running, shown
from lumso.core.days.facts import facts_of
from lumso.core.layers.conditions import Room, steady
from lumso.core.layers.drying import Wait
from lumso.core.log.acts import SawDry
from lumso.core.log.event import Event
from lumso.core.work.operations import Constraint, Operation

LAY, BACK, NEXT = (Operation(name, "lay", f"Do {name}", zone_name="Lid") for name in ("lay", "back", "next"))
OPERATIONS = (LAY, BACK, NEXT)
ROOM = steady(20, 0.5)
DRY = Constraint("at least", "lay", "next", Wait(60.0, "evaporation"), why="chalky")
KEPT = Constraint("at least", "lay", "next", Wait(90.0, "clock"))
OPENS = Constraint("at least", "lay", "back", Wait(5.0, "evaporation"))
CLOSES = Constraint("at most", "lay", "back", Wait(20.0, "evaporation"), remedy="lay it again")
LIVES = Constraint("within life", "lay", "back", Wait(240.0, "evaporation"), until="end")
AFTER = Constraint("after", "lay", "next")


def event(name: str, did: str, at: float, **more: object) -> Event:
    return Event(f"{name} {did} {at}", "job", name, did, at, **more)  # type: ignore[arg-type]


def run(*ties: Constraint, events: tuple[Event, ...], now: float = 1010.0, room: Room = ROOM) -> tuple[Timer, ...]:
    return running(OPERATIONS, ties, facts_of(events, "job"), events, room, now)


DONE = event("lay", "done", 1000)


def test_nothing_runs_before_anything_is_done_nor_after_what_it_waits_for() -> None:
    assert run(DRY, events=()) == ()
    assert run(DRY, events=(event("lay", "begun", 990),)) == ()
    assert run(DRY, AFTER, events=(DONE, event("next", "done", 1061))) == ()


def test_a_wait_opens_when_the_longest_of_its_reasons_is_over() -> None:
    (one,) = run(DRY, events=(DONE,))
    assert (one.kind, one.since_min, one.opens_min, one.closes_min) == ("wait", 1000, 1060, None)
    assert one.dries
    (both,) = run(DRY, KEPT, AFTER, events=(DONE,))
    assert both.opens_min == 1090
    (chosen,) = run(KEPT, events=(DONE,))
    assert not chosen.dries
    (damp,) = run(DRY, events=(DONE,), room=steady(12, 0.75))
    assert damp.opens_min == pytest.approx(1000 + 60 * 3.33, abs=0.5)


def test_a_window_opens_and_closes_and_a_life_only_ends() -> None:
    window, life = run(OPENS, CLOSES, LIVES, events=(DONE,))
    assert (window.kind, window.opens_min, window.closes_min, window.remedy) == ("window", 1005, 1020, "lay it again")
    assert (life.kind, life.closes_min) == ("life", 1240)
    assert life.says == "The pot for “Do back” is good until then"


def test_what_only_a_label_knows_has_no_time() -> None:
    (one,) = run(Constraint("at least", "lay", "next", Wait(None)), events=(DONE,))
    assert one.opens_min is None
    assert one.trouble == "Only its label says how long."
    (cold,) = run(DRY, events=(DONE,), room=steady(5, 0.5))
    assert cold.opens_min is None
    assert cold.trouble.startswith("It is 5 °C")


def saw(at: float, dry: bool, more: float = 0.0) -> Event:
    return event("lay", "noted", at, act=SawDry("saw dry", "lay>next", dry, more))


def test_what_is_seen_moves_it() -> None:
    (dry,) = run(DRY, events=(DONE, saw(1030, True)))
    assert (dry.opens_min, dry.moved) == (1030, "found dry")
    (late,) = run(DRY, events=(DONE, saw(1058, False, 20)))
    assert (late.opens_min, late.moved) == (1078, "not dry yet")
    (soon,) = run(DRY, events=(DONE, saw(1010, False, 20)))
    assert soon.opens_min == 1060  # it is not sooner for not being dry
    (both,) = run(DRY, events=(DONE, saw(1058, False, 60), saw(1090, True)))
    assert both.opens_min == 1090
    unseen = (DONE, saw(900, True), event("lay", "noted", 1030, act=SawDry("saw dry", "other>next", True)))
    assert run(DRY, events=unseen)[0].opens_min == 1060


def test_a_film_that_dries_later_is_worked_later_too() -> None:
    late = event("lay", "noted", 1004, act=SawDry("saw dry", "lay>back", False, 11.0))
    (window,) = run(OPENS, CLOSES, events=(DONE, late))
    assert (window.opens_min, window.closes_min) == (1015, 1030)


def test_of_alike_only_the_first_is_shown_the_soonest_first() -> None:
    also = Constraint("at least", "lay", "back", Wait(60.0, "evaporation"))
    (one,) = shown(run(DRY, also, events=(DONE,)), 1010)
    assert one.then == "back"
    later, window = run(DRY, OPENS, CLOSES, events=(DONE,))[::-1]
    assert [t.id for t in shown((later, window), 1010)] == [window.id, later.id]
    over = run(OPENS, CLOSES, events=(DONE,), now=1000 + 20 + 25 * 60)
    assert over == ()  # a day after it has closed nobody asks any more
