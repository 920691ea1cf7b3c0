"""Flaws on a picture: where each lies, by its shape, and what is seen there. Only what the model shows is laid in: the
surface beneath, or the same one paler, darker or without its relief."""

import numpy as np
from numpy.typing import NDArray

from ..book.flaws import Shape, Shows
from .noise import Grid, Sheet, pattern

Picture = NDArray[np.uint8]

PATCHES, STREAKS, CRACKS, WAVER, SPECKS, TEAR, RAGGED = 81, 82, 83, 84, 85, 86, 87
"""Names of the patterns flaws lie by."""
MILKY = np.array([214.0, 214.0, 208.0], np.float32)
"""What water that is shut in scatters, sRGB. Untested starting value."""
VEIL, STAINED = 0.45, 0.72
"""How much of a milky veil is seen at the worst, and how dark a stain is. Untested starting values."""
DOUBLED, MOST_DOUBLED = 0.6, 20.0
"""How much further from what is beneath a doubled film lies than one, and by how much at the most, sRGB codes."""
EDGE_MM, LINE_MM = 9.0, 5.0


def flawed(seen: Picture, beneath: Picture, sheet: Sheet, shape: Shape, shows: Shows, share: float,
           how: float) -> Picture:  # fmt: skip
    """A picture with one flaw on it, that takes so large a share of it (0–1), so badly (0–1). `beneath` is what is seen
    without the film."""
    if shape == "none" or how <= 0:
        return seen
    where = _where(shape, sheet, share, how)[:, :, None]
    now = seen.astype(np.float32)
    match shows:
        case "beneath":
            there = beneath.astype(np.float32)
        case "paler":
            there = now + np.float32(VEIL) * (MILKY - now)
        case "darker":
            there = now * np.float32(STAINED)
        case "doubled":
            further = np.float32(DOUBLED) * (now - beneath.astype(np.float32))
            far = np.abs(further).max(axis=2, keepdims=True)
            there = now + further * np.minimum(1.0, MOST_DOUBLED / np.maximum(far, 1e-3))
        case "flat":
            there = _smooth(now, sheet)
    made: Picture = np.clip(now + where * (there - now) + 0.5, 0, 255).astype(np.uint8)
    return made


def _where(shape: Shape, sheet: Sheet, share: float, how: float) -> Grid:
    """How much of the flaw there is at each spot, 0–1."""
    x, y = sheet.axes()
    match shape:
        case "patches":
            return (pattern(sheet, PATCHES, 16, 16) + pattern(sheet, RAGGED, 3, 3) * 0.35).above(share, 0.22)
        case "streaks":
            return (pattern(sheet, STREAKS, 3.5, 55) + pattern(sheet, RAGGED, 1.2, 18) * 0.5).above(share, 0.35)
        case "specks":
            return pattern(sheet, SPECKS, 2.2, 2.2).above(share, 0.08)
        case "cracks":
            net = np.abs(pattern(sheet, CRACKS, 15, 15, True).at)
            return np.clip(1 - net / (0.12 + share), 0, 1).astype(np.float32)
        case "line":
            middle = sheet.mm * 0.58 + 2.5 * pattern(sheet, WAVER, 25, 400).at[:1]
            off = y - middle  # sharp on the side that was dry, fading out on the other
            lap = np.where(off > 0, np.exp(-((off / (3 * LINE_MM)) ** 2)), np.exp(-((off / (LINE_MM / 4)) ** 2)))
            return lap.astype(np.float32) * np.float32(min(1.0, 0.5 + how / 2))
        case "edge":
            jagged = sheet.mm * 0.4 + 4.0 * pattern(sheet, TEAR, 400, 6).at[:, :1]
            return ((x > jagged) & (x < jagged + EDGE_MM * (0.4 + how))).astype(np.float32)
        case "veil" | "smooth":
            return np.full((sheet.px, sheet.px), how, np.float32)
        case "none":
            return np.zeros((sheet.px, sheet.px), np.float32)


def _smooth(now: NDArray[np.float32], sheet: Sheet) -> NDArray[np.float32]:
    """A picture without what stands up in it: without what is smaller than a peak."""
    reach = max(1, round(3.0 / sheet.mm_per_px))
    box = np.ones(2 * reach + 1, np.float32) / (2 * reach + 1)
    made = np.pad(now, ((reach, reach), (reach, reach), (0, 0)), mode="edge")
    for axis in (0, 1):
        made = np.apply_along_axis(lambda line: np.convolve(line, box, mode="valid"), axis, made)
    return made.astype(np.float32)
