"""A colour taken from a photograph, balanced by a white card that lies in it.

Whatever the light and the camera, the card gives back all wavelengths alike: what it came out as is taken for white.
A photograph is still no measuring device: no colour of one is better than ±4 ΔE₀₀.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..colour.spectra import decoded, hex_from
from ..errors import InvalidValue
from ..job.board import SEEN_WITHIN, SeenColour
from ..value import Fraction, Value

CARD_GIVES_BACK = 0.87
"""What white card or paper gives back of all light: a starting value."""
LEAST_WITHIN = SEEN_WITHIN.photograph
CLIPPED, CLIPPED_SHARE = 251, 0.02
"""From this code on white may be cut off; a card with more than this share of such pixels tells nothing."""
DARKEST = 0.12
"""Linear light below which nothing is taken for a white card."""
UNEVEN, TILTED = 0.10, 0.16
"""How far a card may vary, and its quarters may be apart, as shares of its mean."""
TINTED = 2.6
"""How many times the strongest of a card's red, green and blue may be the weakest: the warmest lamp is within it."""
FEWEST = 60
"""Pixels a card has at least. All of these are untested starting points."""


@dataclass(frozen=True)
class Box(Value):
    """A part of a picture: its corner and its size, as shares of the whole."""

    x: Fraction
    y: Fraction
    w: Fraction
    h: Fraction


Pixels = NDArray[np.uint8]


def cut(picture: Pixels, box: Box) -> Pixels:
    """The pixels in a box."""
    high, wide = picture.shape[:2]
    left, top = int(box.x * wide), int(box.y * high)
    return picture[top : max(top + 1, int((box.y + box.h) * high)), left : max(left + 1, int((box.x + box.w) * wide))]


def _refused(says: str, allowed: str) -> InvalidValue:
    return InvalidValue(says, value="", allowed=allowed, field="card")


def white_of(card: Pixels) -> NDArray[np.float64]:
    """What the card came out as, in linear red, green and blue. Raises InvalidValue for a card that tells nothing."""
    flat = card.reshape(-1, 3)
    if len(flat) < FEWEST:
        raise _refused("There is hardly any white card marked.", "a white card, at least a thumb wide in the picture")
    if float((flat >= CLIPPED).any(axis=1).mean()) > CLIPPED_SHARE:
        raise _refused("The white card is overexposed: its white is cut off.", "a darker exposure, or less light on it")
    light = decoded(card / 255)
    mean = light.reshape(-1, 3).mean(axis=0)
    if mean.max() < DARKEST:
        raise _refused(
            "What is marked is too dark for a white card.", "white card or paper, as brightly lit as the strip"
        )
    if mean.max() / max(mean.min(), 1e-6) > TINTED:
        raise _refused("What is marked is coloured, not white.", "plain white card or paper in the picture")
    grey = light.mean(axis=2)
    h, w = grey.shape
    quarters = [
        grey[a:b, c:d].mean() for a, b in ((0, h // 2 or 1), (h // 2, h)) for c, d in ((0, w // 2 or 1), (w // 2, w))
    ]
    if grey.std() / grey.mean() > UNEVEN or (max(quarters) - min(quarters)) / grey.mean() > TILTED:
        raise _refused(
            "The white card is lit unevenly, or something lies on it.", "even light, no shadow across the card"
        )
    return np.asarray(mean)


def balanced(picture: Pixels, card: Box | None, spot: Box) -> SeenColour:
    """The colour of a spot, balanced by the card, and how far off it may be. Raises InvalidValue in words."""
    if card is None:
        raise _refused("No white card is marked in the photograph.", "a white card in the picture, marked")
    white = white_of(cut(picture, card))
    seen = decoded(cut(picture, spot) / 255).reshape(-1, 3)
    light = np.clip(seen.mean(axis=0) / white * CARD_GIVES_BACK, 0, 1)
    uneven = float(seen.std(axis=0).mean() / max(float(seen.mean()), 1e-6))
    return SeenColour(hex_from(light), "photograph", round(LEAST_WITHIN + min(6.0, 8 * uneven), 1))
