"""The air by the hour: what is believed, and what is assumed of the hours to come."""

import pytest

from lumso.catalogue import shipped
from lumso.core.days.air import Judged, Reading, judge, now_from, outlook
from lumso.core.days.air_drawing import air_drawing
from lumso.core.days.hours import local
from lumso.core.layers.conditions import Conditions, Spell
from lumso.core.layers.drying import Wait, dry_at, factor, no_film, saturation_hpa

from .making import DAY, NOW

C = shipped()
SHED = C.profiles["unheated-shed"]


def every(minutes: float, *air: tuple[float, float]) -> list[Reading]:
    return [Reading(NOW + i * minutes, t, h) for i, (t, h) in enumerate(air)]


def doubts(readings: list[Reading]) -> list[str]:
    return [j.doubt.split(":")[0] for j in judge(readings)]


@pytest.mark.parametrize(("t", "h"), [(-11.0, 0.5), (51.0, 0.5), (20.0, 0.0), (20.0, 1.01)])
def test_what_cannot_be_is_not_believed(t: float, h: float) -> None:
    assert doubts(every(1, (20, 0.5), (t, h), (20, 0.5))) == ["", "out of range", ""]


def test_a_jump_is_not_believed_until_it_stays() -> None:
    # A hand on the sensor for two minutes; and a door that was opened for good.
    assert doubts(every(1, (20, 0.5), (31, 0.5), (31, 0.5), (20.2, 0.5))) == ["", "it jumps", "it jumps", ""]
    assert doubts(every(1, (20, 0.5), (12, 0.5), (12.1, 0.5), (12, 0.5), (12, 0.5))) == [
        "", "it jumps", "it jumps", "", "",
    ]  # fmt: skip
    assert doubts(every(1, (20, 0.5), (20, 0.85), (20, 0.5))) == ["", "it jumps", ""]
    assert doubts(every(20, (20, 0.5), (12, 0.5))) == ["", ""], "over twenty minutes a room may change so"
    assert doubts(every(1, (20, 0.5), (12, 0.5), (28, 0.5), (12, 0.5), (28, 0.5))) == ["", *["it jumps"] * 4]


def test_how_it_is_now_is_the_last_that_is_believed_unless_it_is_old() -> None:
    judged = judge(every(1, (20, 0.5), (20.5, 0.5), (40, 0.5)))
    now = now_from(judged, NOW + 3)
    assert now
    assert now.temperature_c == 20.5
    assert now_from(judged, NOW + 31) is not None
    assert now_from(judged, NOW + 31.5) is None
    assert now_from((), NOW) is None


def off(hours: float, by: float) -> tuple[Judged, ...]:
    """A day's readings of the shed, all of them warmer by so much."""
    made = []
    for h in range(24):
        at = NOW - 24 * 60 + h * 60 + 30
        hour = local(at, "UTC").hour
        made.append(Reading(at, SHED.temperature_c[hour] + by, SHED.humidity[hour]))
    return judge(made)


def test_hours_to_come_are_a_usual_day_moved_by_the_last_and_that_fades_over_a_day() -> None:
    made = outlook(SHED, Conditions(), off(24, 4.0), "UTC", NOW, 4)
    for hours, share in [(0, 1.0), (6, 0.75), (12, 0.5), (24, 0.0), (30, 0.0), (72, 0.0)]:
        at = NOW + hours * 60
        usual = SHED.temperature_c[local(at, "UTC").hour]
        assert made.room.at(at).temperature_c == pytest.approx(usual + 4 * share, abs=0.06), hours
    assert made.off_c == pytest.approx(4.0)
    assert made.hours == 24
    assert "+4.0 °C" in made.says
    assert made.says.endswith("an assumption")


def test_hours_that_passed_are_as_they_were_measured() -> None:
    made = outlook(SHED, Conditions(), off(24, 4.0), "UTC", NOW, 2)
    hour = local(NOW - 5 * 60, "UTC").hour
    assert made.room.at(NOW - 5 * 60).temperature_c == pytest.approx(SHED.temperature_c[hour] + 4.0)
    assert made.room.at(NOW - 3 * DAY).temperature_c == SHED.temperature_c[local(NOW, "UTC").hour]


def test_the_usual_day_is_by_the_clock_on_the_wall() -> None:
    there = outlook(SHED, Conditions(), (), "Europe/Paris", NOW, 2).room
    assert there.at(NOW + 14 * 60).temperature_c == SHED.temperature_c[15]


def test_with_nothing_measured_and_no_place_the_room_stays_as_it_was_set() -> None:
    made = outlook(None, Conditions(18, 0.6), (), "UTC", NOW, 2)
    assert len(made.room.spells) == 1
    assert made.room.first == Conditions(18, 0.6)


@pytest.mark.parametrize("slug", ["unheated-shed", "porch", "heated-room"])
def test_a_place_keeps_its_vapour_through_the_day_while_it_can(slug: str) -> None:
    place = C.profiles[slug]
    vapour = [saturation_hpa(t) * h for t, h in zip(place.temperature_c, place.humidity, strict=True) if h < 0.98]
    assert max(vapour) - min(vapour) < 0.25
    if slug == "unheated-shed":
        assert max(place.temperature_c) - min(place.temperature_c) == pytest.approx(6.0)


def test_drying_is_summed_hour_by_hour_and_unfit_hours_count_nothing() -> None:
    # A film that takes 2 h at 20 °C and 50 %, laid in a shed at 20:00: it dries until the air is no longer fit, and
    # goes on in the morning.
    room = outlook(SHED, Conditions(), (), "UTC", NOW, 3).room
    reference = 120.0
    wait = Wait(reference, "evaporation")
    laid = NOW + 20 * 60
    done = dry_at(laid, wait, room)
    assert done is not None
    left, at = reference, laid
    while left > 1e-9:
        air = room.at(at)
        minutes = 60 - at % 60
        pace = 0.0 if no_film(air) else 1 / factor(air.temperature_c, air.humidity)
        step = min(minutes, left / pace) if pace else minutes
        left -= pace * step
        at += step
    assert done == pytest.approx(at, abs=0.01)
    assert at - laid > 9 * 60, "it lies wet over the night"


def test_the_air_is_drawn_a_day_back_and_two_ahead_on_one_scale() -> None:
    readings = [Reading(NOW - 60, 35.0, 0.5), Reading(NOW - 59, 12.0, 0.5), Reading(NOW - 25 * 60, 20.0, 0.5)]
    spells = (Spell(NOW, Conditions(17.5, 0.5)), Spell(NOW + 12 * 60, Conditions(9.0, 0.5)))
    made = air_drawing(judge(readings), spells, NOW, "UTC")
    assert [d.believed for d in made.dots] == [True, False]
    assert [d.x for d in made.dots] == pytest.approx([480 * 23 / 72, 480 * 23 / 72 + 0.1], abs=0.1)
    assert made.dots[0].y == 0.0
    assert made.now_x == 160.0
    assert [(h.x, h.width, h.y, h.fit) for h in made.hours] == [
        (160.0, 80.0, 48.0, True),
        (240.0, 240.0, pytest.approx(96 * (1 - 9 / 35), abs=0.1), False),
    ]
    assert [d.says for d in made.days] == ["Tue 24 Nov", "Wed 25 Nov", "Thu 26 Nov"]
    assert [d.x for d in made.days] == [160.0, 320.0, 480.0]
