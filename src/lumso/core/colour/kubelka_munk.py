"""Films of paint: two-constant Kubelka–Munk. K absorbs, S scatters; both for the whole film, K·X and S·X.

Kubelka and Munk, Zeitschrift für technische Physik 12 (1931) 593–601; mixing after Duncan (1940).
"""

from typing import Any

import numpy as np
from numpy.typing import NDArray

from .spectra import Array


def k_over_s(light: Array) -> Array:
    """K/S of a film so thick that nothing shines through, by what it gives back (0–1)."""
    return (1 - light) ** 2 / (2 * light)


def infinite(k: Array, s: Array) -> Array:
    """What a film gives back that nothing shines through; `s` above 0."""
    ratio = k / s
    return 1 + ratio - np.sqrt(ratio * (ratio + 2))


def terms(k: Array, s: Array) -> tuple[Array, Array]:
    """What a film of K·X = `k` and S·X = `s` (0 or more) sends back by itself, and how far it dims what it lies on.

    With β = √(k(k + 2s)) and t = tanh β/β they are s·t and (k + s)·t: finite where nothing scatters, and where nothing
    absorbs.
    """
    beta = np.sqrt(k * (k + 2 * s))
    t = np.where(beta < 1e-6, 1.0, np.tanh(beta) / np.maximum(beta, 1e-9))
    return s * t, (k + s) * t


def through(gives: NDArray[Any], dims: NDArray[Any], ground: NDArray[Any]) -> NDArray[Any]:
    """What is seen of a `ground` (0–1) through a film of these terms, 0–1:
    (s·t + R_g(1 − (k + s)t)) / (1 + (k + s − s·R_g)t), Kubelka's film, which comes to R_g·e^(−2k), Beer and Lambert,
    where nothing scatters."""
    return np.asarray((gives + ground - ground * dims) / (1 + dims - ground * gives))


def film(k: Array, s: Array, ground: Array) -> Array:
    """What a film of K·X = `k` and S·X = `s` (0 or more) over a `ground` (0–1) gives back, 0–1."""
    return through(*terms(k, s), ground)
