"""The colour that paints come to when they are stirred together."""

from collections.abc import Sequence

import numpy as np

from ..book.colours import Tint
from ..book.optics import Optics
from .hiding import per_coat
from .kubelka_munk import infinite, k_over_s
from .spectra import BANDS, hex_of, reflectance


def blended(tints: Sequence[Tint], optics: Optics) -> str:
    """What a mix of paints looks like, thick and dry, by Kubelka and Munk: blue and yellow make green. An estimate."""
    k, s = np.zeros(BANDS), np.zeros(BANDS)
    for tint in tints:
        scattering = tint.parts * per_coat(tint.hex, optics)
        k, s = k + scattering * k_over_s(reflectance(tint.hex)), s + scattering
    return hex_of(infinite(k, s))
