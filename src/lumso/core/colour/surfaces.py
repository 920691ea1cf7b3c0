"""The front surface of a film: what it gives back before light enters, and what a clear coat over it changes.

A front surface scatters the share g of k₁ to the eye; one of g′ over it takes (g − g′)·k₁ away, and what the clear coat
itself absorbs and scatters lies beneath its surface (Saunderson, Journal of the Optical Society of America 32 (1942)
727–736).
"""

from typing import Any

import numpy as np

from ..book.optics import Optics
from .kubelka_munk import film

Light = Any
"""Reflectances in arrays of any precision, their bands along one axis."""


def first_surface(light: Light, surface: Light, optics: Optics, axis: int = -1) -> Light:
    """k₁ as far as it can be: no surface of share `surface` gives back more than is seen."""
    least = light.min(axis=axis, keepdims=True)
    return np.minimum(light.dtype.type(optics.first_surface), 0.8 * least / np.maximum(surface, 1e-6))


def sealed(light: Light, surface: Light, new: float, k: Light, s: Light, optics: Optics, axis: int = -1,
           loose: Light = 1.0) -> Light:  # fmt: skip
    """What is seen through a clear coat of K·X and S·X and of surface share `new`, over `light` seen at `surface`.

    `loose` scales k₁, where it is not known. A coat that neither absorbs nor scatters takes (g − g′)·k₁ away.
    """
    k1 = first_surface(light, surface, optics, axis) * loose
    if not (np.any(k) or np.any(s)):
        return light - (surface - new) * k1
    k2 = optics.inner_surface
    u = light - surface * k1
    inner = film(k, s, u / ((1 - k1) * (1 - k2) + k2 * u))
    return new * k1 + (1 - k1) * (1 - k2) * inner / (1 - k2 * inner)
