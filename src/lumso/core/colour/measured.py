"""How strongly a paint hides, measured by its user: one draw-down over black and white, or one tint board."""

from math import sqrt

import numpy as np

from ..errors import InvalidValue
from .difference import delta_e, lab_of
from .hiding import LUMINANCE, TELLS_FROM, TELLS_TO, scattering_from_hiding
from .kubelka_munk import infinite, k_over_s
from .spectra import BANDS, reflectance, screen
from .srgb import luminance

LEAST, MOST = 0.05, 40.0
"""S·X of one coat that is believed."""
TOO_ALIKE = 3.0
"""ΔE₀₀ between a tint and its white, or between a tint and the paint, below which a tint board tells nothing."""


def contrast_seen(over_black: str, over_white: str) -> float:
    """The contrast ratio of one coat, 0–1, from the colours it has over black and over white."""
    black, white = (float(screen(reflectance(c)) @ LUMINANCE) for c in (over_black, over_white))
    return min(1.0, black / white)


def from_draw_down(colour: str, over_black: str, over_white: str) -> float:
    """S·X of one coat of a paint from one draw-down over black and white.

    Raises InvalidValue where the coat hides too well to tell, or is darker over white than over black.
    """
    if luminance(colour) <= TELLS_FROM:
        raise InvalidValue(
            "This paint is too dark for a draw-down to tell: one coat hides all.",
            value=colour,
            allowed="a tint board: a little of it in white",
            field="colour",
        )
    ratio = contrast_seen(over_black, over_white)
    if ratio > TELLS_TO:
        raise InvalidValue(
            f"Over black and white it looks all but the same ({ratio:.1%}).",
            value=ratio,
            allowed="a thinner coat, in which a difference can be seen; or a tint board",
            field="over_black",
        )
    return min(MOST, max(LEAST, scattering_from_hiding(colour, ratio)))


def from_tint_board(colour: str, white: str, white_scattering: float, share: float, seen: str) -> float:
    """S·X of one coat of a paint, from what a tint of it in a white looks like.

    `share` is the paint's share of the mix by volume, 0–1, `white_scattering` the white's own S·X. Raises InvalidValue
    where the tint can hardly be told from the white or from the paint, or no strength of paint explains it.
    """
    goal = lab_of(reflectance(seen))
    for other, name in ((white, "the white alone"), (colour, "the paint alone")):
        if float(delta_e(lab_of(reflectance(other)), goal)) < TOO_ALIKE:
            raise InvalidValue(f"That looks like {name}.", value=seen, allowed="a tint between the two", field="seen")
    own, pale = k_over_s(reflectance(colour)), k_over_s(reflectance(white))

    def off(scattering: float) -> float:
        s = np.full(BANDS, share * scattering + (1 - share) * white_scattering)
        k = share * scattering * own + (1 - share) * white_scattering * pale
        return float(delta_e(lab_of(infinite(k, s)), goal))

    tried = np.geomspace(LEAST, MOST, 60)
    best = int(np.argmin([off(float(x)) for x in tried]))
    low, high = float(tried[max(best - 1, 0)]), float(tried[min(best + 1, 59)])
    for _ in range(30):  # the best lies between these: halve on the side that is nearer
        a, b = low ** (2 / 3) * high ** (1 / 3), low ** (1 / 3) * high ** (2 / 3)
        low, high = (low, b) if off(a) < off(b) else (a, high)
    found = sqrt(low * high)
    if off(found) > 2 * TOO_ALIKE:
        raise InvalidValue(
            f"No strength of this paint makes that colour; the nearest is ΔE {off(found):.0f} off.",
            value=seen,
            allowed="the colour of the dry tint, in the light the others were picked in",
            field="seen",
        )
    return found
