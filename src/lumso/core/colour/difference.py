"""How different two colours look: CIE L*a*b* and the difference CIEDE2000."""

import numpy as np

from .spectra import Array, screen

TO_XYZ = np.array([(0.4124, 0.3576, 0.1805), (0.2126, 0.7152, 0.0722), (0.0193, 0.1192, 0.9505)])
WHITE = TO_XYZ.sum(axis=1)
"""D65 as the screen's white has it."""
EPSILON, KAPPA = 216 / 24389, 24389 / 27


def lab(linear: Array) -> Array:
    """CIE L*a*b* (D65, 2°) of linear red, green and blue (…, 3)."""
    t = linear @ TO_XYZ.T / WHITE
    f = np.where(t > EPSILON, np.cbrt(np.maximum(t, EPSILON)), (KAPPA * t + 16) / 116)
    x, y, z = np.moveaxis(f, -1, 0)
    return np.stack((116 * y - 16, 500 * (x - y), 200 * (y - z)), axis=-1)


def lab_of(light: Array) -> Array:
    """CIE L*a*b* of reflectances (…, bands)."""
    return lab(screen(light))


def delta_e(first: Array, second: Array) -> Array:
    """CIEDE2000 between colours in L*a*b* (…, 3), with all weights 1: about 1 is what a careful eye sees side by side.

    Sharma, Wu and Dalal, Color Research and Application 30 (2005) 21–30.

    >>> float(np.round(delta_e(np.array([50.0, 2.6772, -79.7751]), np.array([50.0, 0.0, -82.7485])), 4))
    2.0425
    """
    l1, a1, b1 = np.moveaxis(first, -1, 0)
    l2, a2, b2 = np.moveaxis(second, -1, 0)
    mean_c7 = ((np.hypot(a1, b1) + np.hypot(a2, b2)) / 2) ** 7
    stretch = 1.5 - 0.5 * np.sqrt(mean_c7 / (mean_c7 + 25.0**7))
    a1, a2 = a1 * stretch, a2 * stretch
    c1, c2 = np.hypot(a1, b1), np.hypot(a2, b2)
    grey = c1 * c2 == 0
    h1, h2 = np.degrees(np.arctan2(b1, a1)) % 360, np.degrees(np.arctan2(b2, a2)) % 360
    turn = (h2 - h1 + 180) % 360 - 180
    turn = np.where(np.abs(h2 - h1) == 180, h2 - h1, turn)
    dl, dc = l2 - l1, c2 - c1
    dh = np.where(grey, 0.0, 2 * np.sqrt(c1 * c2) * np.sin(np.radians(turn) / 2))
    ml, mc = (l1 + l2) / 2, (c1 + c2) / 2
    total = h1 + h2
    around = np.where(total < 360, total + 360, total - 360)
    mh = np.where(grey, total, np.where(np.abs(h1 - h2) > 180, around, total) / 2)
    t = (
        1
        - 0.17 * np.cos(np.radians(mh - 30))
        + 0.24 * np.cos(np.radians(2 * mh))
        + 0.32 * np.cos(np.radians(3 * mh + 6))
        - 0.20 * np.cos(np.radians(4 * mh - 63))
    )
    sl = 1 + 0.015 * (ml - 50) ** 2 / np.sqrt(20 + (ml - 50) ** 2)
    sc, sh = 1 + 0.045 * mc, 1 + 0.015 * mc * t
    twist = -2 * np.sqrt(mc**7 / (mc**7 + 25.0**7)) * np.sin(np.radians(60 * np.exp(-(((mh - 275) / 25) ** 2))))
    made: Array = np.sqrt((dl / sl) ** 2 + (dc / sc) ** 2 + (dh / sh) ** 2 + twist * (dc / sc) * (dh / sh))
    return made
