"""Hours on the wall clock as minutes that pass: clock changes, breaks, days off, and hours as people type them."""

from datetime import UTC, datetime

import pytest

from lumso.core.days.hours import (
    Hours,
    Session,
    Timetable,
    check_timetable,
    instant,
    is_daylight,
    local,
    minute_of,
    on_clock,
    parse_week,
    sessions,
)
from lumso.core.errors import InvalidValue

PARIS = "Europe/Paris"
"""Any zone with clock changes: 29 March 2026 at 02:00, 25 October 2026 at 03:00."""


def utc(text: str) -> float:
    return minute_of(datetime.fromisoformat(text).replace(tzinfo=UTC))


def shown(made: tuple[Session, ...], zone: str) -> list[str]:
    return [f"{local(s.begins_min, zone):%a %H:%M}–{local(s.ends_min, zone):%H:%M}" for s in made]


def table(zone: str, **days: tuple[tuple[int, int], ...]) -> Timetable:
    names = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
    return Timetable(zone, tuple(tuple(Hours(a * 60, b * 60) for a, b in days.get(n, ())) for n in names))


def test_hours_are_those_of_the_clock_on_the_wall_on_both_sides_of_a_change() -> None:
    evening = table(PARIS, sat=((18, 21),), mon=((18, 21),))
    made = sessions(evening, utc("2026-03-28T00:00"), 3)
    assert shown(made, PARIS) == ["Sat 18:00–21:00", "Mon 18:00–21:00"]
    assert [f"{instant(s.begins_min):%H:%M}" for s in made] == ["17:00", "16:00"]


@pytest.mark.parametrize(("day", "hours"), [("2026-03-28", 23), ("2026-10-24", 25), ("2026-11-07", 24)])
def test_a_night_has_as_many_hours_as_it_has(day: str, hours: int) -> None:
    evening = table(PARIS, sat=((18, 21),), sun=((21, 22),))
    saturday, sunday = sessions(evening, utc(f"{day}T00:00"), 2)
    assert sunday.begins_min - saturday.ends_min == hours * 60


def test_the_hour_that_never_comes_is_not_open() -> None:
    night = table(PARIS, sun=((2, 4),))
    (made,) = sessions(night, utc("2026-03-28T12:00"), 2)
    assert made == Session(utc("2026-03-29T01:00"), utc("2026-03-29T02:00"))


def test_hours_that_begin_in_the_hour_that_never_comes_begin_when_the_clock_jumps() -> None:
    half = Timetable(PARIS, ((), (), (), (), (), (), (Hours(150, 240),)))
    (made,) = sessions(half, utc("2026-03-28T12:00"), 2)
    assert made.begins_min == utc("2026-03-29T01:00")


def test_the_hour_that_comes_twice_is_open_twice() -> None:
    night = table(PARIS, sun=((2, 4),))
    (made,) = sessions(night, utc("2026-10-24T12:00"), 2)
    assert made.ends_min - made.begins_min == 3 * 60
    zone = local(made.begins_min, PARIS).tzinfo
    assert zone is not None
    day = datetime(2026, 10, 25).date()
    twice = [on_clock(day, 150, zone, last) for last in (False, True)]  # type: ignore[arg-type]
    assert twice == [utc("2026-10-25T00:30"), utc("2026-10-25T01:30")]


def test_breaks_part_sessions_and_what_touches_is_one() -> None:
    day = table("UTC", tue=((9, 12), (13, 17)), wed=((0, 2),), mon=((22, 24),))
    day = Timetable("UTC", (day.week[0], (Hours(0, 60), *day.week[1]), *day.week[2:]))
    made = sessions(day, utc("2026-11-23T00:00"), 3)
    assert shown(made, "UTC") == ["Mon 22:00–01:00", "Tue 09:00–12:00", "Tue 13:00–17:00", "Wed 00:00–02:00"]


def test_a_session_that_has_begun_has_only_what_is_left_of_it() -> None:
    day = table("UTC", tue=((9, 12),), wed=((9, 12),))
    made = sessions(day, utc("2026-11-24T11:30"), 2)
    assert shown(made, "UTC") == ["Tue 11:30–12:00", "Wed 09:00–12:00"]
    assert shown(sessions(day, utc("2026-11-24T12:00"), 2), "UTC") == ["Wed 09:00–12:00"]


def test_nobody_is_there_on_days_off() -> None:
    day = Timetable("UTC", ((Hours(540, 600),),) * 7, days_off=("2026-11-25",))
    assert shown(sessions(day, utc("2026-11-24T00:00"), 3), "UTC") == ["Tue 09:00–10:00", "Thu 09:00–10:00"]


@pytest.mark.parametrize(
    ("bad", "field"),
    [
        (Timetable("Mars/Olympus"), "zone"),
        (Timetable(week=((Hours(600, 600),), (), (), (), (), (), ())), "week/0/0"),
        (Timetable(week=((), (Hours(600, 700), Hours(650, 720)), (), (), (), (), ())), "week/1/1"),
        (Timetable(days_off=("tomorrow",)), "days_off/0"),
    ],
)
def test_hours_that_cannot_be_are_refused_with_the_field(bad: Timetable, field: str) -> None:
    with pytest.raises(InvalidValue) as caught:
        check_timetable(bad)
    assert caught.value.field == field


def test_hours_are_read_as_people_type_them() -> None:
    week = parse_week("Tue,thu 18:30–21:30; sat 10-12,13-16")
    assert week[1] == week[3] == (Hours(1110, 1290),)
    assert week[5] == (Hours(600, 720), Hours(780, 960))
    assert week[0] == week[6] == ()
    assert parse_week("mon-sun 9-24")[6] == (Hours(540, 1440),)


@pytest.mark.parametrize("bad", ["evenings", "tue 21-18", "tue", "tue 18:30", "xyz 9-10", "tue 9-25"])
def test_what_are_no_hours_is_refused_with_an_example(bad: str) -> None:
    with pytest.raises(InvalidValue, match="opening hours"):
        parse_week(bad)


def test_daylight_is_by_the_clock_on_the_wall() -> None:
    day = Timetable(PARIS, daylight=Hours(9 * 60, 16 * 60))
    assert [is_daylight(utc(f"2026-11-24T{h}"), day) for h in ("07:59", "08:00", "14:59", "15:00")] == [
        False, True, True, False,
    ]  # fmt: skip
