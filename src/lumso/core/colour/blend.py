"""The colour that paints come to when they are stirred together."""

from collections.abc import Sequence

import numpy as np

from ..book.colours import Tint
from ..book.optics import Optics
from .hiding import per_coat
from .spectra import BANDS, hex_of, reflectance
from .strength import thick, told


def blended(tints: Sequence[Tint], optics: Optics) -> str:
    """What a mix of paints looks like, thick and dry, by Kubelka and Munk: blue and yellow make green. An estimate."""
    k, s, lacks = np.zeros(BANDS), np.zeros(BANDS), np.zeros(BANDS)
    for tint in tints:
        scattering = tint.parts * per_coat(tint.hex, optics)
        ratio, lack = told(reflectance(tint.hex), tint.hex, optics)
        k, s, lacks = k + scattering * ratio, s + scattering, lacks + scattering * lack
    return hex_of(thick(k, s, lacks / s))
