"""How strongly a pigment absorbs, as far as the colour of its paint tells.

A matt surface itself gives back about 4 %: a band that looks darker than that says nothing more of the pigment beneath
it, but for blacks, of which a class is known. So absorption is taken from the colour as if a little white light lay
over it, and what a full film is darker than that is taken off where it hides.
"""

import numpy as np

from ..book.optics import Optics
from .hiding import class_of
from .kubelka_munk import infinite, k_over_s
from .spectra import Array

UNTOLD = 0.69
"""Where the floor counts, absorption may be so far off, as a standard deviation of its logarithm: a factor of 2.
An untested starting point."""


def told(light: Array, colour: str, optics: Optics) -> tuple[Array, Array]:
    """K/S of a paint of a `colour` that gives back `light`, and by how much it is darker than that comes to."""
    least = optics.told_from(class_of(colour))
    told_by = least + (1 - least) * light  # order is kept: what is darker in one band stays so
    return k_over_s(told_by), told_by - light


def spread_of_absorption(light: Array, colour: str, optics: Optics) -> float:
    """How far off the absorption is, as a standard deviation of its logarithm: more where much of it is not told."""
    untold = float((light < optics.told_from(class_of(colour))).mean())
    return optics.spread.absorbing + untold * max(UNTOLD - optics.spread.absorbing, 0.0)


def thick(k: Array, s: Array, lack: Array) -> Array:
    """What a film gives back that nothing shines through, of K and S of a mix and what its full film is darker by."""
    return np.maximum(infinite(k, s) - lack, 0.0)


def hides(k: Array, s: Array) -> Array:
    """How far a film hides what is beneath, band by band, 0–1."""
    hidden: Array = 1 - np.exp(-2 * (k + s))
    return hidden
