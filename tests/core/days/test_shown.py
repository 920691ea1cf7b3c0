"""Days as they are shown: what waits for what in words, cautions told once, and the strip drawn to scale."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.days.hours import Timetable, parse_week, sessions
from lumso.core.days.moved import moved
from lumso.core.days.placed import Placed, Timed
from lumso.core.days.puzzle import FilmNeeds
from lumso.core.days.settle import Ask, JobAsk, settle
from lumso.core.days.strip import HOUR, LEAST_FOLD, Axis, strip_of
from lumso.core.days.view import days_of
from lumso.core.days.words import because, critical, day_of, when
from lumso.core.layers.conditions import Conditions, Room, Spell, steady
from lumso.core.layers.drying import Wait
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs

from .making import DAY, NOW, after, evenings, found, puzzle, stint

C = shipped()
JOBS = {j.name: j for j in demo_jobs()}
WEEK = Timetable(week=parse_week("mon-fri 18:30-21:30"))


def test_what_a_stint_waits_for_is_said() -> None:
    stints = [stint("a", 10), stint("b", 10), stint("c", 10), stint("d", 10), stint("e", 30)]
    ties = [after("a", "c", 60), after("c", "d", 12 * 60)]
    timed = found(puzzle(stints, ties, evenings([0, 1])))
    says = {s.id: because(timed, n) for n, s in enumerate(timed.puzzle.stints)}
    assert [says[x].kind for x in "abcde"] == ["hours", "hands", "wait", "wait", "hands"]
    assert says["c"].says == "“a” may be gone on with at Tue 24 Nov, 19:15 (a dries)."
    assert says["c"].after == "a"
    assert says["d"].says.endswith("the bench opens Wed 25 Nov, 18:05.")
    lit, chain = critical(timed)
    assert lit == {"a", "c", "d"}
    assert [line.split(":")[0] for line in chain] == ["a", "c", "d"]


def test_air_that_lets_no_film_form_is_the_reason_why() -> None:
    cold = Room((Spell(0.0, Conditions(8, 0.5)), Spell(NOW + 19 * 60, Conditions())))
    made = puzzle([stint("a", 10)], [], evenings([0]), room=cold, films={"a": FilmNeeds(Wait(30, "evaporation"), True)})
    timed = found(made)
    why = because(timed, 0)
    assert why.kind == "air"
    assert "8 °C" in why.says
    assert timed.placed.begins[0] == NOW + 19 * 60


def asked(*names: str, week: Timetable = WEEK) -> Ask:
    jobs = tuple(JobAsk(n, JOBS[n], priority=1) for n in names)
    return Ask(jobs, Workshop(), C, steady(), steady(), week, NOW)


def test_cautions_are_told_in_full_where_they_first_matter_and_in_few_words_after() -> None:
    days = days_of(settle(asked("Costume wardrobe")))
    full = [c for o in days.operations for c in o.operation.take_care]
    assert len(full) == len(set(full))
    assert full
    assert any(o.operation.remember for o in days.operations)
    assert days.first, "lead is seen to before anything else"


def test_hands_on_time_is_the_operations_own_and_each_visits() -> None:
    days = days_of(settle(asked("Costume wardrobe", "Hat stand")))
    own = sum(o.operation.hands_on_min for o in days.operations)
    around = sum(v.lay_out.hands_on_min + v.clear_away.hands_on_min for v in days.visits)
    assert days.hands_on_min == pytest.approx(own + around)
    assert sum(v.hands_on_min for v in days.visits) == pytest.approx(days.hands_on_min)
    for n, visit in enumerate(days.visits):
        mine = [o for o in days.operations if o.visit == n and o.operation.hands_on_min]
        assert visit.begins_min == pytest.approx(mine[0].begins_min - 5)
        assert set(visit.lay_out.tools) >= {t for o in mine for t in o.operation.tools}


def test_the_strip_gives_every_hour_at_the_bench_its_length_and_folds_the_rest() -> None:
    days = days_of(settle(asked("Programme rack")))
    hours = sessions(WEEK, NOW, 6)
    axis = Axis(days, hours)
    opens = days.visits[0].opens_min
    assert axis.x(opens + 60) - axis.x(opens) == pytest.approx(HOUR)
    assert axis.x(opens + 90) - axis.x(opens) == pytest.approx(HOUR * 1.5)
    night = next(s for s in axis.stretches if s.kind == "closed" and s.from_min > opens)
    assert night.width == pytest.approx(max((night.until_min - night.from_min) / 60 * 2, LEAST_FOLD))
    for before, then in zip(axis.stretches, axis.stretches[1:], strict=False):
        assert then.x == pytest.approx(before.x + before.width, abs=0.02)
        assert then.from_min == before.until_min
    strip = strip_of(days, hours)
    for bar in strip.bars:
        assert 0 <= bar.x <= bar.x + bar.width <= strip.width + 0.1, bar
    hands = [b for b in strip.bars if b.kind == "hands"]
    assert len(hands) == len({(o.job, o.stint, o.operation.zone) for o in days.operations if o.operation.hands_on_min})
    for film in days.drying:
        wet = next(b for b in strip.bars if b.kind == "wet" and b.operation == film.operation)
        assert film.touch_min is not None
        assert wet.x + wet.width == pytest.approx(axis.x(film.touch_min), abs=0.02)
    assert strip.now_x == axis.x(days.now_min)


def test_open_hours_that_are_not_needed_are_folded_too() -> None:
    made = days_of(settle(asked("Programme rack", week=Timetable(week=parse_week("mon-fri 9-10,18:30-21:30")))))
    hours = sessions(Timetable(week=parse_week("mon-fri 9-10,18:30-21:30")), NOW, 6)
    used = {v.opens_min for v in made.visits}
    kinds = {s.from_min: s.kind for s in Axis(made, hours).stretches}
    for one in hours:
        if one.begins_min in kinds and one.begins_min > NOW:
            assert kinds[one.begins_min] == ("visit" if one.begins_min in used else "open")


def test_a_move_within_a_day_is_not_announced() -> None:
    week = Timetable(week=parse_week("mon-fri 9-12,13-17"))
    ask = asked("Programme rack", week=week)
    before = days_of(settle(ask))
    shifted = replace(
        before, visits=tuple(replace(v, opens_min=v.opens_min + 240) for v in before.visits)
    )  # fmt: skip
    other = replace(ask, air=Room((Spell(0.0, Conditions(19, 0.5)),)))
    assert moved((ask, before), (other, shifted)) == ()
    next_day = replace(
        before,
        operations=tuple(replace(o, day=day_of(o.begins_min + DAY, "UTC")) for o in before.operations),
        visits=tuple(replace(v, opens_min=v.opens_min + DAY) for v in before.visits),
    )
    assert moved((ask, before), (other, next_day))
    same_hours = replace(next_day, visits=before.visits)
    assert moved((ask, before), (other, same_hours)) == ()


def test_painters_are_told_apart_and_never_at_two_things() -> None:
    table = Timetable(painters=2)
    timed = found(puzzle([stint("a", 60), stint("b", 60)], [], evenings([0]), table=table))
    assert timed.placed.begins[0] == timed.placed.begins[1]
    assert set(timed.placed.painters) == {0, 1}


def test_a_job_with_nothing_left_is_finished_when_it_was() -> None:
    made = puzzle([], [], evenings([0]), fixed={"a": (NOW - 60, NOW - 30)})
    timed = Timed(made, Placed((), ()))
    assert timed.finished("") == NOW - 30
    assert timed.visits == ()
    assert when(NOW, "UTC") == "Tue 24 Nov, 00:00"
