"""Light, films and differences: against the textbook, against 81 wavelengths, and by their laws."""

from pathlib import Path
from runpy import run_path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.colour.difference import delta_e, lab_of
from lumso.core.colour.kubelka_munk import film, infinite, k_over_s
from lumso.core.colour.spectra import BANDS, BASIS, TO_SCREEN, hex_of, reflectance
from lumso.core.colour.surfaces import sealed
from tests.core.look.making import C

TOOL = run_path(str(Path(__file__).parents[3] / "tools" / "bands.py"))
drawn_together, fine = TOOL["drawn_together"], TOOL["fine"]
O = C.optics  # noqa: E741
ONES = np.ones(BANDS)
colours = st.tuples(*[st.integers(0, 255)] * 3).map(lambda c: "#{:02x}{:02x}{:02x}".format(*c))
shares = st.floats(0.02, 0.98)
films = st.floats(0.0, 12.0)


def apart(one: str, other: str) -> float:
    return float(delta_e(lab_of(reflectance(one)), lab_of(reflectance(other))))


# Colours and bands -------------------------------------------------------------------------------------------------


def test_the_bands_are_those_drawn_together_from_81_wavelengths() -> None:
    bands, back = drawn_together(*fine())
    assert np.abs(bands - BASIS).max() < 1e-4
    assert np.abs(back - TO_SCREEN).max() < 1e-4


@given(colours)
def test_a_colour_comes_back_as_itself(colour: str) -> None:
    assert apart(hex_of(reflectance(colour)), colour) < 0.6  # what no paint gives back is cut off


def _stacks(basis: np.ndarray, back: np.ndarray) -> np.ndarray:
    """L*a*b* of the same random stacks of four mixed films in any bands."""
    draw = np.random.default_rng(5)
    light = np.clip(draw.random((600, 3)) ** 2.2 @ basis.T, 0.004, 0.985)
    for _ in range(4):
        own = [np.clip(draw.random((600, 3)) ** 2.2 @ basis.T, 0.004, 0.985) for _ in range(2)]
        strong = np.exp(draw.uniform(np.log(0.3), np.log(9), (2, 600, 1)))
        part, thick = draw.random((600, 1)), np.exp(draw.uniform(np.log(0.05), np.log(2), (600, 1)))
        weight = (1 - part, part)
        s = sum(w * x for w, x in zip(weight, strong, strict=True))
        k = sum(w * x * k_over_s(r) for w, x, r in zip(weight, strong, own, strict=True))
        light = film(k * thick, s * thick, light)
    from lumso.core.colour.difference import lab

    return lab(np.clip(light @ back.T, 0, 1))


def test_twelve_bands_come_to_what_81_come_to() -> None:
    basis, xyz = fine()
    off = delta_e(_stacks(BASIS, TO_SCREEN), _stacks(basis, np.linalg.inv(xyz @ basis) @ xyz))
    assert np.quantile(off, 0.98) < 0.5
    assert off.max() < 1.5


SHARMA = [
    ((50, 2.6772, -79.7751), (50, 0, -82.7485), 2.0425), ((50, 3.1571, -77.2803), (50, 0, -82.7485), 2.8615),
    ((50, 2.8361, -74.0200), (50, 0, -82.7485), 3.4412), ((50, -1.3802, -84.2814), (50, 0, -82.7485), 1.0),
    ((50, 0, 0), (50, -1, 2), 2.3669), ((50, 2.49, -0.001), (50, -2.49, 0.0009), 7.1792),
    ((50, 2.49, -0.001), (50, -2.49, 0.0011), 7.2195), ((50, -0.001, 2.49), (50, 0.0009, -2.49), 4.8045),
    ((50, -0.001, 2.49), (50, 0.0011, -2.49), 4.7461), ((50, 2.5, 0), (50, 0, -2.5), 4.3065),
    ((50, 2.5, 0), (73, 25, -18), 27.1492), ((50, 2.5, 0), (61, -5, 29), 22.8977),
    ((50, 2.5, 0), (56, -27, -3), 31.9030), ((50, 2.5, 0), (58, 24, 15), 19.4535),
    ((60.2574, -34.0099, 36.2677), (60.4626, -34.1751, 39.4387), 1.2644),
    ((63.0109, -31.0961, -5.8663), (62.8187, -29.7946, -4.0864), 1.2630),
    ((35.0831, -44.1164, 3.7933), (35.0232, -40.0716, 1.5901), 1.8645),
    ((22.7233, 20.0904, -46.6940), (23.0331, 14.9730, -42.5619), 2.0373),
    ((90.9257, -0.5406, -0.9208), (88.6381, -0.8985, -0.7239), 1.5381),
    ((6.7747, -0.2908, -2.4247), (5.8714, -0.0985, -2.2286), 0.6377), 
    ((2.0776, 0.0795, -1.1350), (0.9033, -0.0636, -0.5514), 0.9082),
]  # fmt: skip
"""Pairs of the paper's own table, those that catch every branch: hue across 0°, grey, the turn in blue."""


@pytest.mark.parametrize(("one", "other", "de"), SHARMA)
def test_differences_are_those_of_the_published_pairs(
    one: tuple[float, ...], other: tuple[float, ...], de: float
) -> None:
    assert float(delta_e(np.array(one), np.array(other))) == pytest.approx(de, abs=1e-4)
    assert float(delta_e(np.array(other), np.array(one))) == pytest.approx(de, abs=1e-4)


def test_lab_is_that_of_a_second_library() -> None:
    import warnings

    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        import colour
    for hex_ in ("#8fc0b0", "#2b1d12", "#f4f1ea", "#c0281f"):
        rgb = np.array([int(hex_[i : i + 2], 16) for i in (1, 3, 5)]) / 255
        theirs = colour.XYZ_to_Lab(colour.sRGB_to_XYZ(rgb))
        assert np.abs(lab_of(reflectance(hex_)) - theirs).max() < 0.15


# Films -------------------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("left", "kept", "rate", "seen"),
    [
        (0.25, 1.0, 75, "#d8dfda"), (0.25, 0.5, 75, "#c6d5ce"), (0.10, 1.0, 75, "#c0d2ca"),
        (0.25, 1.0, 45, "#cbd7d1"), (0.25, 0.5, 45, "#b8cfc5"), (0.10, 1.0, 45, "#b3ccc2"),
    ],
)  # fmt: skip
def test_a_white_washed_over_a_green(left: float, kept: float, rate: float, seen: str) -> None:
    s = 7.44 * left * kept * rate / 75 * ONES
    made = film(k_over_s(reflectance("#f4f1ea")) * s, s, reflectance("#8fc0b0"))
    assert apart(hex_of(made), seen) < 1


@pytest.mark.parametrize(("black", "light"), [(0.02, 81), (0.05, 72), (0.10, 62), (0.50, 33)])
def test_black_in_white(black: float, light: float) -> None:
    white = reflectance("#f4f1ea")
    k = (1 - black) * k_over_s(white) * 9.4 + black * 68
    s = ((1 - black) * 9.4 + black * 2.2) * ONES
    assert float(lab_of(infinite(k, s))[0]) == pytest.approx(light, abs=1)


@given(colours, films, shares)
def test_films_stay_between_nothing_and_all(colour: str, s: float, ground: float) -> None:
    own = reflectance(colour)
    seen = film(k_over_s(own) * s, s * ONES, ground * ONES)
    assert (seen >= 0).all()
    assert (seen <= 1).all()
    assert np.allclose(film(0 * ONES, 0 * ONES, ground * ONES), ground)
    assert np.allclose(film(k_over_s(own) * 4000, 4000 * ONES, ground * ONES), own, atol=2e-3)


@given(st.floats(0, 5), shares)
def test_a_film_that_does_not_scatter_dims_as_beer_and_lambert_say(k: float, ground: float) -> None:
    assert film(np.array(k), np.array(1e-12), np.array(ground)) == pytest.approx(
        ground * np.exp(-2 * k), rel=1e-5, abs=1e-9
    )


@given(st.floats(0, 50), shares)
def test_a_film_that_does_not_absorb_stays_finite(s: float, ground: float) -> None:
    assert film(np.array(0.0), np.array(s), np.array(ground)) == pytest.approx(
        (s + ground * (1 - s)) / (1 + s - s * ground), rel=1e-6
    )


@given(colours, shares, st.floats(0.05, 6), st.floats(0.05, 0.95))
def test_more_water_takes_a_wash_nearer_to_its_ground_in_every_band(
    colour: str, g: float, s: float, less: float
) -> None:
    own, ground = reflectance(colour), g * ONES
    strong, weak = (np.abs(film(k_over_s(own) * s * x, s * x * ONES, ground) - ground) for x in (1.0, less))
    assert (weak <= strong + 1e-9).all()


def test_two_films_on_each_other_are_not_the_same_turned_round() -> None:
    def over(first: str, second: str) -> np.ndarray:
        light = reflectance("#d9d6cc")
        for c in (first, second):
            light = film(k_over_s(reflectance(c)) * 1.5, 1.5 * ONES, light)
        return light

    off = delta_e(lab_of(over("#b5694a", "#ece3cc")), lab_of(over("#ece3cc", "#b5694a")))
    assert float(off) > 5


# Sealing -----------------------------------------------------------------------------------------------------------

STILL = np.zeros(BANDS)


@given(colours, st.sampled_from(["matt", "eggshell", "satin", "gloss"]))
def test_sealing_takes_away_what_the_surface_scattered_and_no_more(colour: str, gloss: str) -> None:
    light, new = reflectance(colour), O.surface_of(gloss)
    over = sealed(light, 1.0, new, STILL, STILL, O)
    took = light - over
    assert (took >= -1e-12).all()
    assert (took <= (1 - new) * O.first_surface + 1e-12).all()
    assert (over > 0).all()
    again = sealed(over, new, new, STILL, STILL, O)
    assert np.allclose(again, over), "a second sealer of the same sheen deepens no further"


def test_sealing_by_hand() -> None:
    light = reflectance("#8fc0b0")  # far from black: k₁ is .04
    assert np.allclose(sealed(light, 1.0, 0.5, STILL, STILL, O), light - 0.5 * 0.04)
    dark = np.full(BANDS, 0.01)  # no surface can give back more than is seen: k₁ is .008
    assert np.allclose(sealed(dark, 1.0, 0.1, STILL, STILL, O), 0.01 - 0.9 * 0.008)


def test_the_long_way_through_a_clear_coat_comes_to_the_short_one() -> None:
    light = reflectance("#8fc0b0")
    near = 1e-9 * ONES
    assert np.allclose(sealed(light, 1.0, 0.5, near, near, O), sealed(light, 1.0, 0.5, STILL, STILL, O), atol=1e-6)


def test_amber_takes_blue_and_haze_greys_a_dark() -> None:
    white, dark = reflectance("#f4f1ea"), reflectance("#26282c")
    amber = sealed(white, 1.0, 0.5, -0.5 * np.log(reflectance(O.amber) / 0.985), STILL, O)
    clear = sealed(white, 1.0, 0.5, STILL, STILL, O)
    assert lab_of(amber)[2] > lab_of(clear)[2] + 3
    hazy = sealed(dark, 1.0, 1.0, STILL, np.full(BANDS, 2 * O.haze_of("dead matt")), O)
    assert lab_of(hazy)[0] > lab_of(dark)[0] + 0.5
