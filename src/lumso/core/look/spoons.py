"""Measuring a matched colour with the kit one owns: what rounding to spoons does to it, and what helps.

A quarter teaspoon of black in 60 ml of white is six steps of lightness: where the spoons are too coarse, the smallest
batch they are fine enough for is named, and a jar of diluted tint that does it in a small one.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..book.kit import Kit
from ..colour.difference import delta_e, lab_of
from ..mixing.fillings import Filling
from ..mixing.measuring import measure_out
from ..mixing.needs import Need
from ..value import Value
from .match import NEAR, Match, Palette

LOOSE = (0.03, 0.08, 0.2)
"""How far a share may be off when it is measured; the colour decides whether that is too much."""
DILUTED = 10
"""A jar of tint is one part in so many."""
TINT = 0.12
"""A paint of a smaller share than this may be measured from a jar of it."""
LARGEST_ML = 4000.0
JAR = "jar of tint"
DENSITY = 1.3
"""g per ml, where a kit wants to weigh: of no account for spoons."""


@dataclass(frozen=True)
class Spooned(Value):
    """What of one paint, or of the jar of tint, goes in."""

    name: str
    hex: str
    ml: float
    fillings: tuple[Filling, ...]


@dataclass(frozen=True)
class Measured(Value):
    """A way to measure a mix: what goes in, what it makes, how far the colour is off the unrounded mix, and the jar."""

    total_ml: float
    parts: tuple[Spooned, ...]
    off: float
    """ΔE₀₀ from the mix as it was found."""
    jar: tuple[Spooned, ...] = ()
    """What the jar of tint is stirred from first; empty where there is none."""


@dataclass(frozen=True)
class InSpoons(Value):
    """How a mix is measured: as asked where the spoons are fine enough; and what would be."""

    asked: Measured | None
    larger: Measured | None
    """The smallest batch that keeps the colour, where as asked does not."""
    diluted: Measured | None
    """With a jar of diluted tint, in a small batch."""


Parts = Sequence[tuple[str, str, float, Mapping[str, float]]]
"""What is measured: a name, a colour, its share of the whole, and which paints it holds, by slug."""


def _measured(parts: Parts, ml: float, kit: Kit, palette: Palette, exact: Match) -> Measured | None:
    needs = tuple(Need(name, share * ml, share * ml * DENSITY, False, name) for name, _, share, _ in parts)
    best: Measured | None = None
    for loose in LOOSE:
        for option in measure_out(needs, replace(kit, tolerance=loose, scale_g=0.0)).options:
            filled = {f.component: f for f in option.parts}
            got = np.zeros(len(palette.paints))
            for name, _, _, holds in parts:
                for i, paint in enumerate(palette.paints):
                    got[i] += filled[name].ml * holds.get(paint.slug, 0.0)
            off = float(delta_e(lab_of(palette.light(got / got.sum())), lab_of(palette.light(_whole(exact, palette)))))
            made = tuple(Spooned(name, hex_, filled[name].ml, filled[name].fillings) for name, hex_, _, _ in parts)
            if best is None or off < best.off - 1e-9:
                best = Measured(option.total_ml, made, round(off, 2))
        if best is not None and best.off <= NEAR:
            return best
    return best


def _whole(match: Match, palette: Palette) -> "np.ndarray[tuple[int], np.dtype[np.float64]]":
    shares = {p.slug: p.share for p in match.parts}
    return np.array([shares.get(p.slug, 0.0) for p in palette.paints])


def _diluted(match: Match, ml: float, kit: Kit, palette: Palette) -> Measured | None:
    """The mix with its small parts measured from a jar of them, stirred into the largest."""
    main, tints = match.parts[0], [p for p in match.parts[1:] if p.share <= TINT]
    tint = sum(p.share for p in tints)
    rest = main.share - tint * (DILUTED - 1)
    if not tints or rest <= tint:
        return None
    holds = {p.slug: p.share / tint / DILUTED for p in tints} | {main.slug: 1 - 1 / DILUTED}
    parts = [(main.name, main.hex, rest, {main.slug: 1.0})]
    parts += [(p.name, p.hex, p.share, {p.slug: 1.0}) for p in match.parts[1:] if p not in tints]
    parts.append((JAR, tints[0].hex, tint * DILUTED, holds))
    made = _measured(parts, ml, kit, palette, match)
    if made is None:
        return None
    stirred = _jar(match, holds, made.parts[-1].ml, kit)
    return replace(made, jar=stirred) if stirred else None


def _jar(match: Match, holds: Mapping[str, float], ml: float, kit: Kit) -> tuple[Spooned, ...]:
    """What a jar of at least so many ml is stirred from; nothing where the kit cannot."""
    inside = [p for p in match.parts if p.slug in holds]
    for times in (1, 2, 4, 8):
        needs = tuple(Need(p.slug, holds[p.slug] * ml * times, holds[p.slug] * ml * times * DENSITY) for p in inside)
        if options := measure_out(needs, replace(kit, scale_g=0.0)).options:
            filled = {f.component: f for f in options[0].parts}
            return tuple(Spooned(p.name, p.hex, filled[p.slug].ml, filled[p.slug].fillings) for p in inside)
    return ()


def in_spoons(match: Match, ml: float, kit: Kit, palette: Palette) -> InSpoons:
    """How a mix of `ml` is measured with a kit so that its colour stays within 1 ΔE₀₀ of what was found."""
    parts = [(p.name, p.hex, p.share, {p.slug: 1.0}) for p in match.parts]
    asked = _measured(parts, ml, kit, palette, match)
    if asked is not None and asked.off <= NEAR:
        return InSpoons(asked, None, None)
    larger, size = None, ml
    while size < LARGEST_ML and larger is None:
        size *= 1.5
        tried = _measured(parts, size, kit, palette, match)
        larger = tried if tried is not None and tried.off <= NEAR else None
    diluted = _diluted(match, ml, kit, palette)
    return InSpoons(asked, larger, diluted if diluted is not None and diluted.off <= NEAR else None)
