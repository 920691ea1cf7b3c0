"""How strongly a paint hides what is beneath it, and how many coats cover. Estimates."""

from math import sqrt

import numpy as np

from ..book.optics import Optics
from .difference import delta_e, lab_of
from .kubelka_munk import film, k_over_s
from .spectra import BANDS, reflectance, screen
from .srgb import channels, lightness, luminance

LUMINANCE = np.array([0.2126, 0.7152, 0.0722])
"""Y of linear red, green and blue (IEC 61966-2-1)."""
TELLS_FROM, TELLS_TO = 0.35, 0.98
"""A contrast ratio tells nothing of a colour darker than this, nor where it is higher: hiding is saturated there."""


def class_of(colour: str) -> str:
    """The hiding class a colour is counted in, from its lightness and its hue."""
    r, g, b = channels(colour)
    light, top, low = lightness(colour), max(r, g, b), min(r, g, b)
    vivid = (top - low) / top if top else 0.0
    if light < 22 and vivid < 0.5:
        return "black"
    if light > 90 and vivid < 0.15:
        return "white"
    if vivid > 0.55 and r == top:
        if g > 0.72 * r:
            return "yellow"
        return "ochre" if g > 0.4 * r and light < 65 else "red" if g < 0.45 * r else "ochre"
    if light < 45 and vivid > 0.4 and r < top:
        return "deep"
    return "pastel" if light > 70 else "mid"


def contrast(colour: str, scattering: float) -> float:
    """The contrast ratio of a coat: its luminance over black by that over white."""
    own, s = reflectance(colour), np.full(BANDS, scattering)
    over = film(np.stack([k_over_s(own) * s] * 2), np.stack([s] * 2), np.stack([np.zeros(BANDS), np.ones(BANDS)]))
    black, white = screen(over) @ LUMINANCE
    return float(black / white)


def scattering_from_hiding(colour: str, hiding: float) -> float:
    """S·X of a coat whose contrast ratio over black and white is `hiding` (0–1), by halving.

    >>> round(scattering_from_hiding("#f4f1ea", 0.93), 2)
    7.44
    """
    low, high = 1e-4, 200.0
    for _ in range(40):
        middle = sqrt(low * high)
        low, high = (middle, high) if contrast(colour, middle) < hiding else (low, middle)
    return sqrt(low * high)


def per_coat(colour: str, optics: Optics, hiding: float = 0.0, measured: float = 0.0) -> float:
    """S·X of a full coat: as `measured`, else from its contrast ratio where that tells, else by class."""
    if measured > 0:
        return measured
    if 0 < hiding <= TELLS_TO and luminance(colour) > TELLS_FROM:
        return scattering_from_hiding(colour, hiding)
    return optics.scattering_of(class_of(colour))


def spread_of(colour: str, optics: Optics, hiding: float = 0.0, measured: float = 0.0) -> float:
    """How far off that may be, as a standard deviation of its logarithm."""
    if measured > 0:
        return optics.spread.measured
    told = 0 < hiding <= TELLS_TO and luminance(colour) > TELLS_FROM
    return optics.spread.by_label if told else optics.spread.by_class


def coats_to_cover(colour: str, ground: str, scattering: float, optics: Optics, most: int = 12) -> int | None:
    """Coats until the thin spots of a film of S·X = `scattering` a coat cannot be told from the paint alone; None when
    `most` are not enough."""
    own = reflectance(colour)
    s = np.outer(np.arange(1, most + 1) * scattering * optics.thin_spots, np.ones(BANDS))
    off = delta_e(lab_of(film(k_over_s(own) * s, s, reflectance(ground))), lab_of(own))
    near = np.flatnonzero(off <= optics.covered)
    return int(near[0]) + 1 if len(near) else None


def coats_range(colour: str, ground: str, optics: Optics, hiding: float = 0.0, film: float = 1.0,
                measured: float = 0.0) -> tuple[int | None, int | None]:  # fmt: skip
    """Coats to cover where the paint hides as well as it may, and where as badly. `film` is how thick a coat is, of
    the full film that hiding power is said for."""
    scattering = per_coat(colour, optics, hiding, measured) * film
    weak = 1 - spread_of(colour, optics, hiding, measured)
    return (
        coats_to_cover(colour, ground, scattering / weak, optics),
        coats_to_cover(colour, ground, scattering * weak, optics),
    )
