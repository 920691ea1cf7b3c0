"""How many coats a colour needs to cover what is beneath: Kubelka–Munk in three bands of light. An estimate.

A film of scattering S·X over a ground R_g reflects R = (1 − R_g(a − b·coth(bSX)))/(a − R_g + b·coth(bSX)), with
a = (1/R∞ + R∞)/2 and b = √(a² − 1) (Kubelka 1948). R∞ is what the colour gives back of each of the screen's three
primaries: a red lets the ground through in its red band long after it looks dark to the other two.
"""

from collections.abc import Sequence
from math import dist, sqrt, tanh

from ..colour.srgb import bands, channels, lab, lightness, luminance
from ..mixing.compose import Pour

NEAR = 2.3
"""Covered: when the colour is within so much ΔE*ab (CIE 1976) of the paint alone, about what can just be seen."""
CAREFUL = 1.0
"""What a careful eye sees side by side."""
THIN_SPOTS = 0.6
"""A brushed film is thinner than its mean in spots, and there the ground shows longest."""
FULL_FILM_UM = 75.0
"""The wet film that the classes of hiding power are said for."""
CLASSES: tuple[tuple[str, float], ...] = (
    ("white", 9.4), ("pastel", 7.0), ("mid", 4.0), ("ochre or oxide", 3.0), ("yellow", 2.2), ("black", 2.2),
    ("red", 1.4), ("deep blue or green", 1.0),
)  # fmt: skip
"""S·X of one coat by class of colour: starting values, until one tint board has been made."""


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
        return "ochre or oxide" if g > 0.4 * r and light < 65 else "red" if g < 0.45 * r else "ochre or oxide"
    if light < 45 and vivid > 0.4 and r < top:
        return "deep blue or green"
    return "pastel" if light > 70 else "mid"


def reflectance(own: float, ground: float, sx: float) -> float:
    """Luminance of a film of scattering `sx` and own luminance `own` over a ground, all 0–1 but `sx` > 0."""
    own = min(max(own, 0.004), 0.985)
    a = (1 / own + own) / 2
    b = sqrt(a * a - 1)
    coth = 1 / tanh(max(b * sx, 1e-9))
    return (1 - ground * (a - b * coth)) / (a - ground + b * coth)


def scattering_from_hiding(own: float, hiding: float) -> float:
    """S·X of a coat whose contrast ratio over black and white is `hiding` (0–1), by halving; own luminance 0–1."""
    low, high = 1e-4, 200.0
    for _ in range(60):
        middle = sqrt(low * high)
        ratio = reflectance(own, 0.0, middle) / reflectance(own, 1.0, middle)
        low, high = (middle, high) if ratio < hiding else (low, middle)
    return sqrt(low * high)


def hiding_of(pours: Sequence[Pour]) -> float:
    """The contrast ratio on the label of the paint in a mix; 0 when nobody has entered it."""
    return next((p.material.hiding for p in pours if p.component.role == "paint" and p.material.hiding), 0.0)


def per_coat(colour: str, hiding: float = 0.0) -> float:
    """S·X of a coat: from its contrast ratio where that is known and tells (Y > 0.35, at most 0.98), else by class."""
    own = luminance(colour)
    if 0 < hiding <= 0.98 and own > 0.35:
        return scattering_from_hiding(own, hiding)
    return dict(CLASSES)[class_of(colour)]


def coats_to_cover(colour: str, ground: str, hiding: float = 0.0, most: int = 12, film: float = 1.0,
                   near: float = NEAR) -> int | None:  # fmt: skip
    """Coats until the ground can no longer be seen through (`near`); None when `most` are not enough. `film` is how
    thick a coat is, of the coat that hiding power is known for."""
    own, beneath, sx = bands(colour), bands(ground), per_coat(colour, hiding) * film
    goal = lab([min(max(band, 0.004), 0.985) for band in own])
    for coats in range(1, most + 1):
        now = lab([reflectance(o, g, coats * sx) for o, g in zip(own, beneath, strict=True)])
        if dist(goal, now) <= near:
            return coats
    return None


def coats_range(colour: str, ground: str, hiding: float = 0.0, film: float = 1.0) -> tuple[int | None, int | None]:
    """Coats until the mean film covers, and until its thin spots do to a careful eye. `film` as in `coats_to_cover`."""
    return (
        coats_to_cover(colour, ground, hiding, film=film),
        coats_to_cover(colour, ground, hiding, film=film * THIN_SPOTS, near=CAREFUL),
    )
