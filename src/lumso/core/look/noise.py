"""Irregular patterns that are the same at every size of picture: random waves, drawn from a seed in mm.

A pattern is a sum of waves of random height. A coarse picture has the same waves as a fine one up to what it can show;
how much the waves it leaves out would have added is known, so that what depends on the height is drawn as its mean.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import cos, erf, log, pi, radians, sin, sqrt
from typing import Any

import numpy as np
from numpy.typing import NDArray

Grid = NDArray[Any]
"""A value for each px: (px, px), in single precision."""

MOST_WAVES = 320
"""Waves across a picture: what one of 640 px can show. Finer ones are left out of every picture."""
HELD_WAVES = 60
"""Waves that every picture shows: by them a pattern is brought to its height."""
FAINT = 1e-3


@dataclass(frozen=True)
class Sheet:
    """A square of a surface, `mm` wide, drawn in `px` × `px`."""

    px: int
    mm: float
    seed: int
    edged: bool = True
    """Whether its top and its left are edges of the piece."""

    @property
    def mm_per_px(self) -> float:
        """How much of the surface one px is."""
        return self.mm / self.px

    def axes(self) -> tuple[Grid, Grid]:
        """Where the middles of the px lie, in mm from the left and from the top: (1, px) and (px, 1)."""
        at = ((np.arange(self.px) + 0.5) * self.mm_per_px).astype(np.float32)
        return at[None, :], at[:, None]


@dataclass(frozen=True)
class Pattern:
    """Heights about 0, each the mean over its px; `left` is the standard deviation of what that leaves out."""

    at: Grid
    left: float = 0.0

    def __mul__(self, times: float) -> "Pattern":
        """As many times as high."""
        return Pattern((np.float32(times) * self.at).astype(np.float32), abs(times) * self.left)

    def __add__(self, other: "Pattern | Grid") -> "Pattern":
        """With another on top; of a bare grid nothing is left out."""
        if isinstance(other, Pattern):
            return Pattern(self.at + other.at, sqrt(self.left**2 + other.left**2))
        return Pattern((self.at + other).astype(np.float32), self.left)

    def softened(self, edge: float) -> float:
        """How wide a border is in it, in its own height: what is left out, and how soft the border is anyway."""
        return max(sqrt(self.left**2 + edge**2), 0.02)

    def above(self, share: float, edge: float = 0.0, of: "Grid | float" = 1.0) -> Grid:
        """Where it is high, 0–1, so that the whole comes to `share`, counting each spot as much as `of` has of it; its
        border is as soft as `edge`."""
        return share_above(self.at, self.softened(edge), share, of)


def _random(seed: tuple[int, ...], rows: int, columns: int) -> Grid:
    made = np.random.Generator(np.random.PCG64(seed)).standard_normal((2, 2 * rows + 1, columns + 1), dtype=np.float32)
    waves: Grid = made[0] + 1j * made[1]
    return waves


def _crop(waves: Grid, rows: int, columns: int) -> Grid:
    """The waves up to `rows` and `columns`: the middle rows, the first columns."""
    middle = len(waves) // 2
    return waves[middle - rows : middle + rows + 1, : columns + 1]


@lru_cache(maxsize=48)
def pattern(sheet: Sheet, name: int, across_mm: float, along_mm: float, spaced: bool = False,
            turned_deg: float = 0.0) -> Pattern:  # fmt: skip
    """A pattern on a sheet, `name`d by a number: blots `across_mm` wide and `along_mm` long (from the top down, unless
    turned). `spaced` ones come as lines or peaks about so far apart, others are of any size above it."""
    fx_most, fy_most = _reach(across_mm, along_mm, spaced)
    if turned_deg % 180:
        fx_most = fy_most = max(fx_most, fy_most)
    columns, rows = (min(MOST_WAVES, int(f * sheet.mm) + 1) for f in (fx_most, fy_most))
    fx = np.arange(columns + 1, dtype=np.float32)[None, :] / np.float32(sheet.mm)
    fy = np.arange(-rows, rows + 1, dtype=np.float32)[:, None] / np.float32(sheet.mm)
    height = _heights(fx, fy, across_mm, along_mm, spaced, turned_deg)
    height[rows, 0] = 0.0
    twice = np.where(np.arange(columns + 1) == 0, 1.0, 4.0).astype(np.float32)
    power = height**2 * twice
    there = _there(sheet, across_mm, along_mm, spaced, turned_deg) if max(columns, rows) == MOST_WAVES else 1.0
    if there < FAINT:
        return Pattern(np.zeros((sheet.px, sheet.px), np.float32), 1.0)
    waves = _random((sheet.seed, name), rows, columns) * height
    r, c = min(rows, sheet.px // 2 - 1), min(columns, sheet.px // 2 - 1)
    hr, hc = min(rows, HELD_WAVES), min(columns, HELD_WAVES)
    held = _crop(np.abs(waves) ** 2 / 2 * twice, hr, hc).sum()
    total = float(held + power.sum() - _crop(power, hr, hc).sum())
    cx, cy = fx[:, : c + 1], fy[rows - r : rows + r + 1]
    step = sheet.mm_per_px
    mean = np.sinc(cx * step) * np.sinc(cy * step)  # what a px leaves of a wave
    middle = np.exp(1j * pi * step * (cx + cy))  # and where its middle is
    shown = (_crop(waves, r, c) * (mean * middle)).astype(np.complex64)
    left = max(0.0, 1 - there * float((_crop(power, r, c) * mean**2).sum()) / float(power.sum()))
    whole = np.zeros((sheet.px, sheet.px // 2 + 1), np.complex64)
    whole[: r + 1, : c + 1] = shown[r:]
    if r:
        whole[-r:, : c + 1] = shown[:r]
    at = np.fft.irfft2(whole, s=(sheet.px, sheet.px)).astype(np.float32)
    at = at * np.float32(sheet.px * sheet.px * sqrt(there / total))
    return Pattern(at, sqrt(left))


def _there(sheet: Sheet, across_mm: float, along_mm: float, spaced: bool, turned_deg: float) -> float:
    """The share of a pattern that has waves a sheet of this width can show at all: of a wide one little of what is
    fine."""
    most = MOST_WAVES / sheet.mm
    ring = spaced and along_mm == across_mm
    across = 0.5 * (1 + erf((most * across_mm - 1) / SPREAD)) if spaced else erf(most * across_mm / SLOW)
    along = 1.0 if ring else erf(most * along_mm / SLOW)
    return min(across, along) if turned_deg % 180 else across * along


SPREAD, SLOW = 0.28, 0.4
"""How far waves of lines and peaks vary about their distance, and how much slower blots change than they are wide."""


def _reach(across_mm: float, along_mm: float, spaced: bool) -> tuple[float, float]:
    """Waves a mm beyond which nothing is left, each way."""
    far = sqrt(2 * log(1 / FAINT))
    lines, blots = 1 + SPREAD * far, SLOW * far
    across = lines if spaced else blots
    along = lines if spaced and along_mm == across_mm else blots
    return across / across_mm, along / along_mm


def _heights(fx: Grid, fy: Grid, across: float, along: float, spaced: bool, turned_deg: float) -> Grid:
    if turned_deg % 180:
        t = radians(turned_deg)
        fx, fy = fx * np.float32(cos(t)) + fy * np.float32(sin(t)), fy * np.float32(cos(t)) - fx * np.float32(sin(t))
    if spaced and along == across:
        ring = np.sqrt(fx**2 + fy**2) * across - 1
        off: Grid = (ring / SPREAD) ** 2
    elif spaced:
        off = ((np.abs(fx) * across - 1) / SPREAD) ** 2 + (fy * along / SLOW) ** 2
    else:
        off = (fx * across / SLOW) ** 2 + (fy * along / SLOW) ** 2
    return np.asarray(np.exp(-0.5 * off))


def below(value: Grid | float) -> Grid:
    """The share of a normal distribution below a value, to 0.01."""
    share: Grid = (1 / (1 + np.exp(np.clip(-1.702 * np.asarray(value, np.float32), -30, 30)))).astype(np.float32)
    return share


def share_above(at: Grid, soft: float, share: float, of: Grid | float = 1.0) -> Grid:
    """Where a pattern is high, 0–1, so that what there is `of` each spot comes to `share`."""
    step = max(1, at.shape[0] // 160)
    few = at[step // 2 :: step, step // 2 :: step]
    weight = np.broadcast_to(np.asarray(of, np.float32), at.shape)[step // 2 :: step, step // 2 :: step]
    if share >= float(weight.mean()):
        return np.ones_like(at)
    spread = float(few.std())
    low, high = float(few.min()) - 4 * soft - spread, float(few.max()) + 4 * soft + spread
    for _ in range(18):
        middle = (low + high) / 2
        low, high = (middle, high) if float((weight * below((few - middle) / soft)).mean()) > share else (low, middle)
    return below((at - (low + high) / 2) / soft)


AROUND_MM = 14.0
"""A hollow is what lies lower than its surroundings of so many mm."""


def blurred(grid: Grid, mm: float, sheet: Sheet) -> Grid:
    """A grid without what is smaller than `mm`."""
    step = sheet.mm_per_px
    f = np.fft.fftfreq(sheet.px, step)[:, None] ** 2 + np.fft.rfftfreq(sheet.px, step)[None, :] ** 2
    keep = np.exp(-2 * (np.pi * mm / 2.5) ** 2 * f).astype(np.float32)
    return np.fft.irfft2(np.fft.rfft2(grid) * keep, s=grid.shape).astype(np.float32)


def fall(height: Grid, sheet: Sheet) -> Grid:
    """How far each spot lies below its surroundings, in mm."""
    return blurred(height, AROUND_MM, sheet) - height


def hollow(falls: Grid, bridges_mm: float) -> Grid:
    """How far each spot is out of a cloth's reach, 0–1, by how far it lies below its surroundings."""
    return np.clip(falls / bridges_mm, 0, 1).astype(np.float32)
