"""Light in twelve bands: reflectance from a colour of the screen, and the colour from a reflectance.

The basis is that of Mallett and Yuksel (2019): three reflectances, of the screen's red, green and blue, that add up to
a perfect white, each between 0 and 1. Their 81 wavelengths (380–780 nm by 5, under D65, for the observer of 2°) are
drawn together to twelve bands, whose borders were sought so that stacks of paint films stay as they were: over 3,000
random stacks of four films 99 of 100 lie within 0.5 ΔE₀₀ of the 81. `tools/bands.py` makes the table anew.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from .srgb import bands

Array = NDArray[np.float64]

BASIS: Array = np.array([
    (0.17900, 0.23881, 0.58219),  # 380–415 nm
    (0.05539, 0.09565, 0.84896),  # 415–425
    (0.01431, 0.03421, 0.95148),  # 425–470
    (0.01083, 0.05606, 0.93311),  # 470–485
    (0.01124, 0.25077, 0.73799),  # 485–495
    (0.00892, 0.85325, 0.13783),  # 495–510
    (0.00567, 0.96741, 0.02692),  # 510–555
    (0.01200, 0.97118, 0.01682),  # 555–580
    (0.05287, 0.93460, 0.01253),  # 580–590
    (0.62439, 0.36435, 0.01126),  # 590–595
    (0.94434, 0.04203, 0.01363),  # 595–665
    (0.64933, 0.20555, 0.14512),  # 665–780
])  # fmt: skip
"""Reflectance of the screen's red, green and blue in each band."""

TO_SCREEN: Array = np.array([
    (0.00327, 0.00755, 0.05813, -0.03770, -0.04338, -0.09681,
     -0.30427, 0.16191, 0.15698, 0.09125, 0.95967, 0.04340),
    (-0.00304, -0.00718, -0.07290, 0.01878, 0.03447, 0.09694,
     0.60651, 0.27186, 0.05989, 0.01785, -0.01841, -0.00476),
    (0.01974, 0.04825, 0.77353, 0.17927, 0.05649, 0.03498,
     -0.04275, -0.03701, -0.01097, -0.00418, -0.01705, -0.00029),
])  # fmt: skip
"""What each band adds to linear red, green and blue."""

DARKEST, PALEST = 0.004, 0.985
"""No paint gives back less of a band, or more."""
BANDS = len(BASIS)


def reflectance(colour: str) -> Array:
    """What a paint of the colour #rrggbb gives back of each band, in 0.004–0.985."""
    light: Array = np.clip(BASIS @ np.array(bands(colour)), DARKEST, PALEST)
    return light


def screen(light: Array) -> Array:
    """Linear red, green and blue of reflectances (…, bands), cut to 0–1 where the screen cannot show them."""
    linear: Array = np.clip(light @ TO_SCREEN.T, 0.0, 1.0)
    return linear


def encoded(linear: Array) -> Array:
    """sRGB channels, 0–1, of linear ones (IEC 61966-2-1)."""
    return np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * np.maximum(linear, 1e-9) ** (1 / 2.4) - 0.055)


def decoded(channels: Array) -> Array:
    """Linear channels, 0–1, of sRGB ones (IEC 61966-2-1)."""
    return np.where(channels <= 0.04045, channels / 12.92, ((channels + 0.055) / 1.055) ** 2.4)


def hex_of(light: Array | Sequence[float]) -> str:
    """The colour of the screen, #rrggbb, of one reflectance.

    >>> hex_of(reflectance("#8fc0b0"))
    '#8fc0b0'
    """
    return hex_from(screen(np.asarray(light, dtype=float)))


def hex_from(linear: Array) -> str:
    """The colour #rrggbb of linear red, green and blue, 0–1."""
    return "#" + "".join(f"{int(c):02x}" for c in np.rint(encoded(linear) * 255))
