"""How strongly a paint hides, measured: a draw-down and a tint board give back what made them."""

import numpy as np
import pytest

from lumso.core.colour.hiding import contrast, per_coat
from lumso.core.colour.kubelka_munk import film, infinite, k_over_s
from lumso.core.colour.measured import contrast_seen, from_draw_down, from_tint_board
from lumso.core.colour.spectra import BANDS, hex_of, reflectance
from lumso.core.errors import InvalidValue
from tests.core.look.making import C

WHITE = "#f4f1ea"


def drawn_down(colour: str, scattering: float) -> tuple[str, str]:
    s = np.full(BANDS, scattering)
    k = k_over_s(reflectance(colour)) * s
    black, white = (hex_of(film(k, s, np.full(BANDS, g))) for g in (0.004, 0.985))
    return black, white


def tinted(colour: str, scattering: float, share: float, white: float = 9.4) -> str:
    own, pale = k_over_s(reflectance(colour)), k_over_s(reflectance(WHITE))
    s = np.full(BANDS, share * scattering + (1 - share) * white)
    return hex_of(infinite(share * scattering * own + (1 - share) * white * pale, s))


@pytest.mark.parametrize(
    ("colour", "scattering"),
    [(WHITE, 2.0), (WHITE, 4.0), (WHITE, 7.4), ("#c9b48c", 1.0), ("#c9b48c", 2.0), ("#a9c3cd", 2.0), ("#d8cfe0", 3.0)],
)
def test_a_draw_down_gives_back_how_it_hides(colour: str, scattering: float) -> None:
    over = drawn_down(colour, scattering)
    assert contrast_seen(*over) == pytest.approx(contrast(colour, scattering), abs=0.02)
    assert from_draw_down(colour, *over) == pytest.approx(scattering, rel=0.12)


@pytest.mark.parametrize("scattering", [0.7, 1.4, 3.0])
@pytest.mark.parametrize("colour", ["#b3261e", "#1f3f6e", "#2f2e2d", "#b98a3e"])
def test_a_tint_board_gives_back_how_a_strong_colour_hides(colour: str, scattering: float) -> None:
    seen = tinted(colour, scattering, 0.1)
    assert from_tint_board(colour, WHITE, 9.4, 0.1, seen) == pytest.approx(scattering, rel=0.1)


def test_what_tells_nothing_is_refused_in_words() -> None:
    with pytest.raises(InvalidValue, match="too dark"):
        from_draw_down("#2f2e2d", "#2f2e2d", "#302f2e")
    with pytest.raises(InvalidValue, match="all but the same"):
        from_draw_down(WHITE, "#f3f0e9", WHITE)
    with pytest.raises(InvalidValue, match="the white alone"):
        from_tint_board("#1f3f6e", WHITE, 9.4, 0.1, WHITE)
    with pytest.raises(InvalidValue, match="the paint alone"):
        from_tint_board("#1f3f6e", WHITE, 9.4, 0.1, "#1f3f6e")
    with pytest.raises(InvalidValue, match="No strength"):
        from_tint_board("#1f3f6e", WHITE, 9.4, 0.1, "#e0b83c")


def test_what_is_measured_beats_label_and_class() -> None:
    measured = from_tint_board("#1f3f6e", WHITE, 9.4, 0.1, tinted("#1f3f6e", 2.5, 0.1))
    assert per_coat("#1f3f6e", C.optics, 0.9, measured) == pytest.approx(2.5, rel=0.1)
    assert per_coat("#1f3f6e", C.optics) == 1.0
