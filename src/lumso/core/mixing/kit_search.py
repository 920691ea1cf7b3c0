"""Exact search for the fillings that measure a mix out.

Amounts live on an integer grid. Where every measure of the kit is a multiple of the smallest filling the grid is
that filling and nothing is rounded; otherwise it is 0.01 ml (0.05 ml above two litres). The amounts that k
fillings can make are one bit set; those of k + 1 are its shifts by every filling. So the fewest fillings of every
amount are known exactly, and what is left is to choose one amount per component: never short of the need, in
ratio, and least of what is asked for. Components are chosen one after the other within the window the others
leave, and a branch is cut as soon as it cannot beat the best found.
"""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from math import inf

import numpy as np
from numpy.typing import NDArray

from ..book.kit import Kit
from .fillings import Filling

EXTRA_FILLINGS = 8
"""How many fillings beyond the fewest possible a component may take, before it is clear that none do otherwise."""
EXACT = 1e-6
MOST_NODES = 20_000
Ints = NDArray[np.int64]


@dataclass(frozen=True)
class FillingValue:
    """One filling as the grid sees it."""

    units: int
    name: str
    ml: float
    to_mark: bool


@dataclass(frozen=True)
class Choices:
    """The amounts of one component inside its window, ascending, with the fewest fillings of each."""

    units: Ints
    fillings: Ints


def fillings_of(kit: Kit, dry: bool = False) -> list[tuple[str, float, bool]]:
    """Every distinct filling, smallest first: each measure to its brim and to each of its marks, brims before marks.

    What is dry is struck off level: it takes spoons, scoops and cups to the brim, no marks and no syringe.
    """
    found: dict[float, tuple[str, float, bool]] = {}
    usable = [m for m in kit.measures if not dry or m.kind in ("spoon", "scoop", "cup")]
    for measure in usable:
        found.setdefault(round(measure.ml, 6), (measure.name, measure.ml, False))
    for measure in () if dry else usable:
        marks = int(measure.ml / measure.step_ml + 1e-9) if measure.step_ml else 0
        for k in range(1, min(marks, 200) + 1):
            ml = round(k * measure.step_ml, 6)
            found.setdefault(ml, (measure.name, ml, True))
    return sorted(found.values(), key=lambda f: f[1])


def grid(kit: Kit, most_ml: float) -> tuple[float, list[FillingValue], list[FillingValue]]:
    """The grid's unit in ml, and on it the kit's fillings for what is poured and for what is dry, largest first."""
    fillings = sorted({*fillings_of(kit), *fillings_of(kit, dry=True)}, key=lambda f: f[1])
    smallest = fillings[0][1]
    common = all(abs(ml / smallest - round(ml / smallest)) < 1e-4 for _, ml, _ in fillings)
    unit = smallest if common else (0.01 if most_ml <= 2000 else 0.05)

    def on_grid(found: Sequence[tuple[str, float, bool]]) -> list[FillingValue]:
        return [FillingValue(max(round(ml / unit), 1), name, ml, marked) for name, ml, marked in found][::-1]

    return unit, on_grid(fillings_of(kit)), on_grid(fillings_of(kit, dry=True))


def reachable(values: Sequence[FillingValue], windows: Sequence[tuple[int, int]], extra: float) -> list[int]:
    """Bit sets of the amounts first reached with 0, 1, 2 … fillings, until every window has had its fill: `extra`
    fillings more than its fewest."""
    top = max(high for _, high in windows)
    mask = (1 << (top + 1)) - 1
    shifts = sorted({v.units for v in values if v.units <= top})
    seen = frontier = 1
    layers = [1]
    first: list[int | None] = [None] * len(windows)
    while frontier and shifts:
        grown = 0
        for shift in shifts:
            grown |= frontier << shift
        frontier = grown & mask & ~seen
        seen |= frontier
        layers.append(frontier)
        for i, (low, high) in enumerate(windows):
            if first[i] is None and (frontier >> low) & ((1 << (high - low + 1)) - 1):
                first[i] = len(layers) - 1
        if all(f is not None and len(layers) > f + extra for f in first):
            break
        if len(layers) > top + 1:
            break
    return layers


def choices_in(layers: Sequence[int], low: int, high: int, extra: float) -> Choices:
    """The amounts within a window, with no more fillings than `extra` beyond its fewest."""
    width = high - low + 1
    window_mask = (1 << width) - 1
    units: list[Ints] = []
    counts: list[Ints] = []
    least: int | None = None
    for k, layer in enumerate(layers):
        bits = (layer >> low) & window_mask
        if not bits:
            continue
        least = k if least is None else least
        if k > least + extra:
            break
        packed = np.frombuffer(bits.to_bytes((width + 7) // 8, "little"), dtype=np.uint8)
        at = np.flatnonzero(np.unpackbits(packed, bitorder="little")).astype(np.int64) + low
        units.append(at)
        counts.append(np.full(len(at), k, dtype=np.int64))
    if not units:
        return Choices(np.empty(0, np.int64), np.empty(0, np.int64))
    every, count = np.concatenate(units), np.concatenate(counts)
    order = np.argsort(every, kind="stable")
    return Choices(every[order], count[order])


class Search:
    """Chooses one amount per component; `needs` in grid units (fractions allowed), all positive."""

    def __init__(self, needs: Sequence[float], choices: Sequence[Choices], tolerance: float, most: float) -> None:
        self.needs, self.most = needs, most
        self.total = sum(needs)
        highest = most / self.total * (1 + tolerance) * (1 + 1e-9)  # no component may lie above this scale
        stops = [int(np.searchsorted(c.units, n * highest, side="right")) for c, n in zip(choices, needs, strict=True)]
        self.choices = [Choices(c.units[:k], c.fillings[:k]) for c, k in zip(choices, stops, strict=True)]
        self.possible = min(stops) > 0
        self.tolerance = tolerance
        self.order = sorted(range(len(needs)), key=lambda i: len(self.choices[i].units))
        self.window = (1 + tolerance) / (1 - tolerance) * (1 + 1e-9)
        if self.possible:
            self.rest_units = self._suffix([float(c.units[0]) for c in self.choices])
            self.rest_fillings = self._suffix([float(c.fillings.min()) for c in self.choices])
        self.nodes, self.proved = 0, True
        self.levels: list[list[tuple[list[int], list[int]]]] = []

    def _suffix(self, least: Sequence[float]) -> list[float]:
        sums = [0.0]
        for i in reversed(self.order):
            sums.append(sums[-1] + least[i])
        return sums[::-1]

    def in_ratio(self, amounts: Sequence[int]) -> bool:
        whole = sum(amounts)
        return all(
            abs(a / whole * self.total / n - 1) <= self.tolerance + 1e-9
            for a, n in zip(amounts, self.needs, strict=True)
        )

    def run(self, fewest_first: bool, known: tuple[int, ...] | None = None) -> tuple[int, ...] | None:
        """The best amounts in the components' own order: least total first, or fewest fillings first.

        `known` is an answer to start from: with it, amounts that take too many fillings to beat it fall away.
        """
        self.best: tuple[float, float] = (inf, inf)
        self.found: tuple[int, ...] | None = None
        self.fewest_first = fewest_first
        self.nodes = 0
        if not self.possible:
            return None
        if known and all(a <= int(c.units[-1]) for a, c in zip(known, self.choices, strict=True)):
            self._offer(known, sum(self._count(i, a) for i, a in enumerate(known)))
        if fewest_first:
            self._drop_costly()
        else:
            self._sweep()
        if fewest_first or self.tolerance > EXACT:
            self._to_levels()
            self._descend(0, [0] * len(self.needs), 0.0, 0.0, inf, 0.0)
        return self.found

    def _count(self, i: int, units: int) -> float:
        c = self.choices[i]
        return float(c.fillings[np.searchsorted(c.units, units)])

    def _drop_costly(self) -> None:
        """Of each component keep the amounts whose fillings leave the others enough to match the best known."""
        if self.best[0] == inf:
            return
        spare = self.best[0] - self.rest_fillings[0]
        for i, c in enumerate(self.choices):
            keep = c.fillings <= c.fillings.min() + spare
            self.choices[i] = Choices(c.units[keep], c.fillings[keep])

    def _offer(self, amounts: Sequence[int], fillings: float) -> None:
        whole = float(sum(amounts))
        score = (fillings, whole) if self.fewest_first else (whole, fillings)
        if score < self.best and whole <= self.most + 1e-9 and self.in_ratio(amounts):
            self.best, self.found = score, tuple(int(a) for a in amounts)

    def _sweep(self) -> None:
        """A first answer, and for an exact ratio the answer: the least amounts at or above each common scale."""
        scales = np.unique(np.concatenate([c.units / n for c, n in zip(self.choices, self.needs, strict=True)]))
        picks, inside = [], np.ones(len(scales), dtype=bool)
        for c, n in zip(self.choices, self.needs, strict=True):
            at = np.searchsorted(c.units, scales * n * (1 - EXACT))
            inside &= at < len(c.units)
            picks.append(np.minimum(at, len(c.units) - 1))
        amounts = np.stack([c.units[p] for c, p in zip(self.choices, picks, strict=True)])
        fillings = np.stack([c.fillings[p] for c, p in zip(self.choices, picks, strict=True)]).sum(axis=0)
        whole = amounts.sum(axis=0)
        shares = amounts / whole * self.total / np.array(self.needs)[:, None]
        good = inside & (np.abs(shares - 1).max(axis=0) <= self.tolerance + 1e-9) & (whole <= self.most + 1e-9)
        for k in np.flatnonzero(good)[:64]:
            self._offer(amounts[:, k].tolist(), float(fillings[k]))

    def _to_levels(self) -> None:
        """The choices that can still beat the best known, as plain lists by what comes first.

        Fewest first: a list of amounts for each number of fillings, fewest first. Least waste first: one list.
        """
        self.levels = []
        spare = min(inf if self.fewest_first else self.best[0], self.most) - self.rest_units[0]
        for c in self.choices:
            stop = int(np.searchsorted(c.units, float(c.units[0]) + spare + 1e-6, side="right"))
            units, fillings = c.units[:stop], c.fillings[:stop]
            if not self.fewest_first:
                self.levels.append([(units.tolist(), fillings.tolist())])
                continue
            by_count = [(units[fillings == n].tolist(), int(n)) for n in np.unique(fillings)]
            self.levels.append([(at, [n] * len(at)) for at, n in by_count])

    def _descend(
        self, depth: int, amounts: list[int], units: float, count: float, least: float, greatest: float
    ) -> None:
        """Choose the component at `depth`; `least` and `greatest` are the scales chosen so far."""
        i = self.order[depth]
        need = self.needs[i]
        from_units, to_units = greatest / self.window * need * (1 - 1e-9), least * self.window * need * (1 + 1e-9)
        rest_units, rest_fillings = self.rest_units[depth + 1], self.rest_fillings[depth + 1]
        last = depth == len(self.order) - 1
        for choices, fillings in self.levels[i]:
            if self.fewest_first and fillings and count + fillings[0] + rest_fillings > self.best[0]:
                return
            for k in range(bisect_left(choices, from_units), bisect_right(choices, to_units)):
                a, f = choices[k], fillings[k]
                bound_units, bound_count = units + a + rest_units, count + f + rest_fillings
                if bound_units > self.most + 1e-9:
                    break
                bound = (bound_count, bound_units) if self.fewest_first else (bound_units, bound_count)
                if bound >= self.best:
                    if self.fewest_first or bound_units > self.best[0]:
                        break
                    continue
                self.nodes += 1
                if self.nodes > MOST_NODES:
                    self.proved = False
                    return
                amounts[i] = a
                if last:
                    self._offer(amounts, count + f)
                else:
                    low, high = min(least, a / need), max(greatest, a / need)
                    self._descend(depth + 1, amounts, units + a, count + f, low, high)


def fill(units: int, layers: Sequence[int], values: Sequence[FillingValue]) -> tuple[Filling, ...]:
    """Which fillings make `units` in the fewest: back through the layers, the largest that fits first."""
    k = next(k for k, layer in enumerate(layers) if layer >> units & 1)
    counts: dict[FillingValue, int] = {}
    while units:
        k -= 1
        step = next(v for v in values if v.units <= units and layers[k] >> (units - v.units) & 1)
        counts[step] = counts.get(step, 0) + 1
        units -= step.units
    return tuple(Filling(v.name, v.ml, n, v.to_mark) for v, n in counts.items())
