"""How long films take: the factor of the room, thickness, nights, and no promise where no film forms."""

from dataclasses import replace
from math import exp

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.layers.conditions import Conditions, Room, Spell, steady
from lumso.core.layers.drying import (
    LEAST_FACTOR,
    MOST_FACTOR,
    Wait,
    cure_factor,
    dew_point_c,
    dry_at,
    factor,
    no_film,
    saturation_hpa,
    takes_min,
    thickness_factor,
    wait_for,
)

F = shipped().films
rooms = st.tuples(st.floats(-5, 45), st.floats(0.01, 1))


@pytest.mark.parametrize(
    ("t", "rh", "expected"),
    [
        (20, 0.5, 1.0),
        (28, 0.35, 0.476),
        (12, 0.75, 3.33),
        (16, 0.6, 1.61),
        (45, 0.05, 0.35),
        (5, 0.95, 6.0),
        (20, 1, 6.0),
    ],
)
def test_the_room(t: float, rh: float, expected: float) -> None:
    assert factor(t, rh) == pytest.approx(expected, rel=0.003)


@given(rooms)
def test_the_factor_is_held_and_damper_is_never_faster(room: tuple[float, float]) -> None:
    t, rh = room
    assert LEAST_FACTOR <= factor(t, rh) <= MOST_FACTOR
    assert factor(t, min(1.0, rh + 0.1)) >= factor(t, rh) - 1e-12
    assert factor(t + 3, rh) <= factor(t, rh) + 1e-12


@given(st.floats(-5, 45), st.floats(0.05, 1))
def test_the_dew_point_is_where_the_air_is_full(t: float, rh: float) -> None:
    assert saturation_hpa(dew_point_c(t, rh)) == pytest.approx(rh * saturation_hpa(t), rel=1e-6)


def test_saturation_by_hand() -> None:
    assert saturation_hpa(20) == pytest.approx(6.112 * exp(17.62 * 20 / 263.12))
    assert saturation_hpa(20) == pytest.approx(23.3, abs=0.1)


def test_cure_doubles_for_each_ten_degrees_below_eighteen() -> None:
    assert [cure_factor(t) for t in (25, 18, 8, -2)] == [1, 1, 2, 4]


def test_thickness_is_linear_to_half_a_millimetre_and_square_beyond() -> None:
    assert thickness_factor(150, 75) == 2
    assert thickness_factor(1000, 500) == 4
    assert thickness_factor(2000, 1000) == 4


def minutes(film: str, moment: str, um: float, *room: float, whole: bool = True) -> float | None:
    thick = F.get(F[film].thick)
    return takes_min(wait_for(F[film], moment, um, whole, thick), steady(*room))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("um", "touch", "recoat", "seal"),
    [
        # Grit paint: 75, 300 and 720 min at 150 µm; laid thick it takes the times of texture: 180, 720, 1440 at 1 mm.
        (100, 50, 200, 720),  # ×⅔; a full coat is not sealed sooner for being thin
        (150, 75, 300, 720),
        (250, 75, 300, 1200),  # its own would be ×1⅔; a thick one's 60 and 240, but never less than its usual
        (500, 75, 300, 1440),  # ×3⅓ is 2400 to seal: a thick one's 1440 is less
        (1000, 180, 720, 1440),
        (2000, 720, 2880, 5760),  # twice the thickness beyond half a millimetre: four times as long
    ],
)
def test_times_by_hand_over_both_records(um: float, touch: float, recoat: float, seal: float) -> None:
    asked = [minutes("brushed-texture", moment, um) for moment in ("touch", "recoat_from", "seal")]
    assert asked == pytest.approx([touch, recoat, seal])


def test_a_dry_brush_is_no_full_coat() -> None:
    # 25 µm of paint on a tenth of it: a third of 30, 120 and 720 min.
    asked = [minutes("mineral-paint", moment, 25, whole=False) for moment in ("touch", "recoat_from", "seal")]
    assert asked == pytest.approx([10, 40, 240])


@given(st.floats(20, 3000), st.sampled_from(["touch", "recoat_from", "seal"]))
def test_times_rise_with_thickness_and_never_jump(um: float, moment: str) -> None:
    here, thicker = minutes("brushed-texture", moment, um), minutes("brushed-texture", moment, um * 1.01)
    assert here is not None
    assert thicker is not None
    assert here - 1e-6 <= thicker <= here * 1.021


@pytest.mark.parametrize(("dries_by", "recoat"), [("air", 120), ("hair dryer", 60), ("heat gun", 40)])
def test_warm_air_lets_a_thin_coat_be_covered_sooner_and_nothing_else(dries_by: str, recoat: float) -> None:
    def takes(moment: str) -> float | None:
        return takes_min(wait_for(F["mineral-paint"], moment, 75, dries_by=dries_by), steady())  # type: ignore[arg-type]

    assert takes("recoat_from") == pytest.approx(recoat)
    assert (takes("wet_rub"), takes("seal"), takes("cured")) == (720, 720, 40320)


def test_a_warm_room_is_counted_once() -> None:
    warm = wait_for(F["mineral-paint"], "recoat_from", 75, dries_by="warm room")
    assert takes_min(warm, steady()) == pytest.approx(120 * 0.476, rel=0.003)
    assert takes_min(warm, steady(28, 0.35)) == pytest.approx(120 * 0.476, rel=0.003)
    assert takes_min(warm, steady(40, 0.35)) == pytest.approx(120 * 0.35)


def test_a_night_is_never_under_eight_hours() -> None:
    assert minutes("mineral-paint", "wet_rub", 75, 28, 0.35) == 480
    assert minutes("mineral-paint", "wet_rub", 75) == 720
    assert minutes("mineral-paint", "wet_rub", 20) == 720
    assert minutes("mineral-paint", "wet_rub", 20, whole=False) == 240
    assert minutes("mineral-paint", "recoat_from", 75, 28, 0.35) == pytest.approx(120 * 0.476, rel=0.003)


def test_unknown_stays_unknown() -> None:
    assert minutes("bonding-primer", "cured", 100) is None
    assert dry_at(0, Wait(None, "evaporation"), steady()) is None


def test_thick_coats_take_longer_and_thin_ones_are_sooner() -> None:
    # 2 mm against the usual 1 mm, both beyond half a millimetre: by the square. 30 µm against 45: by as much, but
    # never to less than a third.
    assert minutes("texture", "touch", 2000) == pytest.approx(180 * 4)
    assert minutes("wash", "touch", 30) == pytest.approx(30 * 30 / 45)
    assert minutes("wash", "touch", 10) == pytest.approx(10)


def test_wax_and_oil_do_not_dry_by_water_nor_by_thickness() -> None:
    assert minutes("paste-wax", "touch", 40, 28, 0.35) == 30
    assert minutes("oil-wax", "recoat_from", 60, 8, 0.5) == 1440
    for film in ("paste-wax", "dark-wax", "oil-wax"):
        assert minutes(film, "touch", 10) == minutes(film, "touch", 400) == F[film].times.touch
    washable = replace(F["paste-wax"], carrier="water")
    assert wait_for(washable, "touch", 10) == wait_for(washable, "touch", 400)


def test_a_cure_goes_by_warmth_alone() -> None:
    assert minutes("clear-coat", "cured", 900, 8, 0.8) == 2 * 40320
    assert minutes("clear-coat", "cured", 10, 28, 0.1) == 40320


def test_what_was_laid_in_the_evening_dries_through_a_cold_night_as_far_as_the_night_takes_it() -> None:
    # Two hours' worth at 20 °C and 50 %. From 60 on it is 12 °C and 75 %, where each minute counts 1/3.33:
    # 60 min are done, 60 are left and take 200; a spell without film stands still, and at the end is no promise.
    cold, frost = Conditions(12, 0.75), Conditions(4, 0.5)
    evening = Room((Spell(0, Conditions()), Spell(60, cold)))
    wait = Wait(120, "evaporation")
    assert dry_at(0, wait, evening) == pytest.approx(60 + 60 * factor(12, 0.75))
    assert dry_at(100, wait, evening) == pytest.approx(100 + 120 * factor(12, 0.75))
    snap = Room((Spell(0, Conditions()), Spell(60, frost), Spell(500, Conditions())))
    assert dry_at(0, wait, snap) == 560
    assert dry_at(0, wait, Room((Spell(0, Conditions()), Spell(60, frost)))) is None
    assert dry_at(0, Wait(30, "evaporation"), Room((Spell(0, Conditions()), Spell(60, frost)))) == 30
    assert dry_at(0, Wait(120, "clock"), snap) == 120


@given(rooms, st.floats(0, 3000), st.floats(0, 5000), st.sampled_from(["evaporation", "night", "oil", "clock"]))
def test_a_room_that_stays_as_it_is_may_be_cut_into_spells(
    room: tuple[float, float], minutes: float, at: float, by: str
) -> None:
    air = Conditions(*room)
    cut = Room((Spell(0, air), Spell(100, air), Spell(2000, air)))
    wait = Wait(minutes, by)  # type: ignore[arg-type]
    whole, parts = dry_at(at, wait, steady(*room)), dry_at(at, wait, cut)
    assert parts == (None if whole is None else pytest.approx(whole))
    assert whole is None or whole >= at


@pytest.mark.parametrize(
    ("t", "rh", "surface", "word"),
    [
        (20, 0.5, None, ""),
        (9, 0.5, None, "9 °C"),
        (20, 0.86, None, "86%"),
        (20, 0.5, 11.0, "dew point"),
        (20, 0.5, 8.0, "8 °C"),
        (12, 0.84, None, "dew point"),
    ],
)
def test_where_no_film_forms_no_time_is_promised(t: float, rh: float, surface: float | None, word: str) -> None:
    says = no_film(Conditions(t, rh), surface)
    assert (says == "") == (word == "")
    assert word in says


def test_every_film_knows_its_source_and_how_dry_looks() -> None:
    for film in F.values():
        assert film.provenance
        assert film.waits
        assert set(film.stands) == {"hands", "water", "heat", "food", "feet", "children", "weather"}
