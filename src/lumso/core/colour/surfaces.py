"""The front surface of a film: what it gives back before light enters, and what a clear coat over it changes.

A front surface scatters the share g of k₁ to the eye; one of g′ over it takes (g − g′)·k₁ away, and what the clear coat
itself absorbs and scatters lies beneath its surface (Saunderson, Journal of the Optical Society of America 32 (1942)
727–736).
"""

from typing import Any

import numpy as np

from ..book.colours import Entered
from ..book.optics import Optics
from .kubelka_munk import film, k_over_s

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


def as_dry(light: Light, entered: Entered, wet_scatters: float, optics: Optics) -> Light:
    """What a paint gives back dry and matt, from its reflectance in the state it was entered in: a sealer gives back
    what it took, and a wet paint scatters the share `wet_scatters` of what it does dry."""
    if entered == "dry":
        return light
    gloss = optics.surface_of(optics.entered_sealed if entered == "sealed" else optics.wet_gloss)
    front = np.minimum(optics.first_surface, 0.8 * light.min())
    matt = np.clip(light + (1 - gloss) * front, None, 0.985)
    if entered == "sealed":
        return matt
    ratio = k_over_s(matt) * wet_scatters
    return 1 + ratio - np.sqrt(ratio * (ratio + 2))
