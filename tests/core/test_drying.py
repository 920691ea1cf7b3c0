"""How long films take: the factor of the room, thickness, nights, and no promise where no film forms."""

from math import exp

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.layers.drying import (
    LEAST_FACTOR,
    MOST_FACTOR,
    cure_factor,
    dew_point_c,
    factor,
    no_film,
    saturation_hpa,
    takes_min,
    thickness_factor,
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


def test_a_night_is_never_under_eight_hours() -> None:
    paint = F["mineral-paint"]
    assert takes_min(paint.times.wet_rub, paint, 75, 28, 0.35) == 480
    assert takes_min(paint.times.wet_rub, paint, 75, 20, 0.5) == 720
    assert takes_min(paint.times.recoat_from, paint, 75, 28, 0.35) == pytest.approx(120 * 0.476, rel=0.003)


def test_unknown_stays_unknown() -> None:
    primer = F["bonding-primer"]
    assert takes_min(primer.times.cured, primer, 100, 20, 0.5, cure=True) is None


def test_thick_coats_take_longer_thin_ones_are_not_promised_to_be_faster() -> None:
    texture, wash = F["texture"], F["wash"]
    assert takes_min(texture.times.touch, texture, 2000, 20, 0.5) == pytest.approx(180 * 4)
    assert takes_min(wash.times.touch, wash, 10, 20, 0.5) == 30


def test_wax_and_oil_do_not_dry_by_water() -> None:
    wax, oil = F["paste-wax"], F["oil-wax"]
    assert takes_min(wax.times.touch, wax, 40, 28, 0.35) == 30
    assert takes_min(oil.times.recoat_from, oil, 60, 8, 0.5) == 1440


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
    says = no_film(t, rh, surface)
    assert (says == "") == (word == "")
    assert word in says


def test_every_film_knows_its_source_and_how_dry_looks() -> None:
    for film in F.values():
        assert film.provenance
        assert film.waits
        assert set(film.stands) == {"hands", "water", "heat", "food", "feet", "children", "weather"}
