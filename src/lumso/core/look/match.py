"""Matching a colour: which paints, in which shares, come nearest to it. Estimates, each with its range.

For every few paints the shares that bring K/S nearest to that of the wanted colour are found at once, by least squares;
the best of these are then moved, by Levenberg and Marquardt, to where CIE L*a*b* of the dry film is nearest.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from ..book.catalogue import Catalogue
from ..book.optics import Optics
from ..colour.difference import delta_e, lab_of
from ..colour.hiding import class_of, per_coat, spread_of
from ..colour.kubelka_munk import film
from ..colour.spectra import BANDS, Array, hex_of, reflectance
from ..colour.strength import hides, thick, told
from ..colour.surfaces import sealed
from ..errors import InvalidValue
from ..value import Name, Slug, Value
from ..workshop.workshop import Workshop
from .column import SAMPLES, Shade, shade

MOST_PAINTS, MOST_TOGETHER = 40, 3
REFINED, STEPS = 120, 14
"""How many of the mixes found at once are moved nearer, and in how many steps."""
ANOTHER = 0.25
"""ΔE₀₀ that one more paint must be worth."""
NEAR, FAR = 1.0, 4.0
"""Within the first a careful eye sees no difference; beyond the second nothing near has been found."""
LEAST = 0.005
"""Less than this of a paint is left out."""
STILL = np.zeros(BANDS)
Places = NDArray[np.intp]
"""Which paints of a palette, by their position: (subsets, size)."""


@dataclass(frozen=True)
class ShelfPaint(Value):
    """A paint that may be mixed with: its colour dry and matt, and what is known of how it hides."""

    slug: Slug
    name: Name
    hex: str
    hiding: float = 0.0
    scattering: float = 0.0


def paints_on_shelf(workshop: Workshop, catalogue: Catalogue) -> tuple[ShelfPaint, ...]:
    """The paints of one's own on the shelf."""
    own = [catalogue.materials[i.slug] for i in workshop.shelf if i.own and i.slug in catalogue.materials]
    return tuple(ShelfPaint(m.slug, m.name, m.hex, m.hiding, m.scattering) for m in own if m.role == "paint")


@dataclass(frozen=True)
class Onto:
    """What a mix is put onto: its reflectance, how thick as full coats of unthinned paint, and the surface share of
    the sealer over it; 1 for none."""

    light: Array
    thickness: float
    sealed: float = 1.0


@dataclass(frozen=True)
class MatchPart(Value):
    """One paint of a mix, and its share of the paints by volume."""

    slug: Slug
    name: str
    hex: str
    share: float


@dataclass(frozen=True)
class Match(Value):
    """A mix: its parts, the largest first, what it is estimated to look like, and how far that is from the wanted."""

    parts: tuple[MatchPart, ...]
    shade: Shade
    off: float
    """ΔE₀₀ from the wanted colour."""


class Palette:
    """Paints as light sees them, and what a mix of them looks like."""

    def __init__(self, paints: Sequence[ShelfPaint], optics: Optics, onto: Onto | None) -> None:
        if not 1 <= len(paints) <= MOST_PAINTS:
            says = f"{len(paints)} paints to mix from."
            raise InvalidValue(says, value=len(paints), allowed=f"1 to {MOST_PAINTS}", field="paints")
        self.paints, self.optics, self.onto = tuple(paints), optics, onto
        strong = [per_coat(p.hex, optics, p.hiding, p.scattering) for p in paints]
        self.s = np.outer(strong, np.ones(BANDS))
        pairs = [told(reflectance(p.hex), p.hex, optics) for p in paints]
        ratio, lack = (np.stack(x) for x in zip(*pairs, strict=True))
        self.k, self.lack = ratio * self.s, lack * self.s
        self.s_spread = np.array([spread_of(p.hex, optics, p.hiding, p.scattering) for p in paints])

    def seen(self, k: Array, s: Array, lack: Array) -> Array:
        """What mixes of K and S a full coat, darker by `lack` / S where they hide, give back: (…, bands)."""
        lack = lack / s
        if self.onto is None:
            return thick(k, s, lack)
        k, s = k * self.onto.thickness, s * self.onto.thickness
        light = np.maximum(film(k, s, self.onto.light) - lack * hides(k, s), 0)
        return np.asarray(sealed(light, 1.0, self.onto.sealed, STILL, STILL, self.optics))

    def light(self, shares: Array) -> Array:
        """What mixes of all the paints look like: shares (…, paints) to (…, bands)."""
        return self.seen(shares @ self.k, shares @ self.s, shares @ self.lack)

    def shade(self, shares: Array) -> Shade:
        """What one mix looks like, with its range."""
        draw = np.random.default_rng(len(self.paints)).standard_normal((SAMPLES, 2, len(self.paints)))
        draw = np.concatenate((np.zeros((1, 2, len(self.paints))), draw))
        k = (shares * np.exp(self.optics.spread.absorbing * draw[:, 0])) @ self.k
        s = (shares * np.exp(self.s_spread * draw[:, 1])) @ self.s
        return shade(self.seen(k, s, shares @ self.lack * (s / (shares @ self.s))))


def _subsets(palette: Palette) -> list[list[int]]:
    """At most three paints, and with them one that is white or black, as positions."""
    every = range(len(palette.paints))
    plain = [i for i in every if class_of(palette.paints[i].hex) in {"white", "black"}]
    found = [c for n in range(1, MOST_TOGETHER + 1) for c in combinations(every, n)]
    more = [(*c, p) for c in found if len(c) == MOST_TOGETHER for p in plain if p not in c]
    return [list(c) for c in dict.fromkeys(tuple(sorted(c)) for c in (*found, *more))]


def _at_once(palette: Palette, wanted: Array, subsets: Places) -> Array:
    """Shares of each subset's paints that bring K/S nearest to that of the wanted colour: (subsets, size); a share
    below 0 says that the paint would have to be taken out."""
    q, _ = told(wanted, hex_of(wanted), palette.optics)
    counts = 1 / (1 + q) ** 2  # a band that is dark already hardly changes
    size = subsets.shape[1]
    off = (palette.k - q * palette.s)[subsets] * np.sqrt(counts)
    scale = palette.s.mean(axis=1)[subsets]
    system = np.zeros((len(subsets), size + 1, size + 1))
    system[:, :size, :size] = off @ np.swapaxes(off, 1, 2)
    system[:, :size, :size] += 1e-9 * np.trace(system[:, :size, :size], axis1=1, axis2=2)[:, None, None] * np.eye(size)
    system[:, :size, size] = system[:, size, :size] = scale
    right = np.zeros((len(subsets), size + 1, 1))
    right[:, size] = 1
    shares = np.linalg.solve(system, right)[:, :size, 0]
    made: Array = shares / shares.sum(axis=1, keepdims=True)
    return made


def _lab(palette: Palette, subsets: Places, shares: Array) -> Array:
    k = np.einsum("ij,ijb->ib", shares, palette.k[subsets])
    s = np.einsum("ij,ijb->ib", shares, palette.s[subsets])
    return lab_of(palette.seen(k, s, np.einsum("ij,ijb->ib", shares, palette.lack[subsets])))


def _shares(free: Array) -> Array:
    grown = np.exp(free - free.max(axis=1, keepdims=True))
    made: Array = grown / grown.sum(axis=1, keepdims=True)
    return made


def _nearer(palette: Palette, wanted: Array, subsets: Places, shares: Array) -> Array:
    """Shares moved to where the dry colour is nearest to the wanted L*a*b*."""
    free, size = np.log(np.clip(shares, 1e-4, 1)), subsets.shape[1]
    damp = np.full(len(free), 1e-2)
    now = _lab(palette, subsets, _shares(free)) - wanted
    for _ in range(STEPS):
        slopes = np.stack(
            [
                (_lab(palette, subsets, _shares(free + 1e-4 * np.eye(size)[j])) - wanted - now) / 1e-4
                for j in range(size)
            ],
            axis=2,
        )
        normal = np.swapaxes(slopes, 1, 2) @ slopes
        normal = normal + (damp * (1 + np.trace(normal, axis1=1, axis2=2)))[:, None, None] * np.eye(size)
        step = np.linalg.solve(normal, np.swapaxes(slopes, 1, 2) @ now[:, :, None])[:, :, 0]
        tried = free - np.clip(step, -2, 2)
        then = _lab(palette, subsets, _shares(tried)) - wanted
        better = (then**2).sum(axis=1) < (now**2).sum(axis=1)
        free, now = np.where(better[:, None], tried, free), np.where(better[:, None], then, now)
        damp = np.where(better, damp * 0.3, damp * 6)
    return _shares(free)


def matches(wanted: Array, palette: Palette, most: int = 5) -> tuple[Match, ...]:
    """The mixes nearest to a wanted reflectance, the best first; one more paint must be worth it.

    What is wanted is what is to be seen: sealed, where the mix is.
    """
    goal = lab_of(wanted)
    dry = wanted
    if palette.onto is not None and palette.onto.sealed < 1:
        dry = np.clip(wanted + (1 - palette.onto.sealed) * palette.optics.first_surface, None, 0.985)
    found: list[tuple[float, tuple[int, ...], Array]] = []
    for size in range(1, MOST_TOGETHER + 2):
        subsets = np.array([s for s in _subsets(palette) if len(s) == size], dtype=np.intp).reshape(-1, size)
        if not len(subsets):
            continue
        shares = _at_once(palette, dry, subsets) if size > 1 else np.ones((len(subsets), 1))
        inside = (shares > -0.02).all(axis=1) if palette.onto is None else np.full(len(shares), True)
        subsets, shares = subsets[inside], np.clip(shares[inside], LEAST, None)
        shares = shares / shares.sum(axis=1, keepdims=True)
        off = delta_e(_lab(palette, subsets, shares), goal)
        best = np.argsort(off)[:REFINED]
        subsets, shares = subsets[best], shares[best]
        if size > 1 and len(subsets):
            shares = _nearer(palette, goal, subsets, shares)
            off = delta_e(_lab(palette, subsets, shares), goal)
        else:
            off = off[best]
        found += [(float(o) + ANOTHER * size, tuple(s), c) for o, s, c in zip(off, subsets, shares, strict=True)]
    found.sort(key=lambda x: x[0])
    made: list[Match] = []
    for _, subset, shares in found:
        one = _match(palette, goal, subset, shares)
        if all({p.slug for p in one.parts} != {p.slug for p in m.parts} for m in made):
            made.append(one)
        if len(made) == most:
            break
    return tuple(made)


def _match(palette: Palette, goal: Array, subset: Sequence[int], shares: Array) -> Match:
    whole = np.zeros(len(palette.paints))
    whole[list(subset)] = np.where(shares < LEAST, 0, shares)
    whole /= whole.sum()
    parts = sorted(
        (MatchPart(p.slug, p.name, p.hex, float(x)) for p, x in zip(palette.paints, whole, strict=True) if x > 0),
        key=lambda p: -p.share,
    )
    off = float(delta_e(lab_of(palette.light(whole)), goal))
    return Match(tuple(parts), palette.shade(whole), round(off, 2))


def closer(wanted: Array, best: Match) -> str:
    """What would bring a mix nearer, in words; "" where a careful eye sees no difference."""
    if best.off <= NEAR:
        return ""
    want, have = lab_of(wanted), lab_of(reflectance(best.shade.hex))
    light, chroma = want[0] - have[0], np.hypot(*want[1:]) - np.hypot(*have[1:])
    ways = []
    if abs(light) > 1.5:
        ways.append(f"{'lighter' if light > 0 else 'darker'} by {abs(light):.0f} L*")
    if chroma > 2:
        ways.append("stronger")
    elif chroma < -2:
        ways.append("greyer")
    turn = want[1:] - have[1:]
    if np.hypot(*turn) > 3 and abs(chroma) < 0.8 * np.hypot(*turn):
        ways.append(
            ("redder" if turn[0] > 0 else "greener") if abs(turn[0]) > abs(turn[1]) else
            ("yellower" if turn[1] > 0 else "bluer")
        )  # fmt: skip
    return f"A paint that is {', '.join(ways)} would bring it closer." if ways else "It is as near as these paints go."
