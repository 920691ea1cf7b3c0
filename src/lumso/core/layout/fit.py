"""Coming out even: where each stripe begins and ends on a length, in whole repeats, exactly and to the rule's tick."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import floor

from ..errors import InvalidValue
from ..value import Value
from .pattern import LEAST_MM, Ends, Gives, Layout, Stripe

MOST_STRIPES = 400
"""More are no pattern that anybody tapes."""


@dataclass(frozen=True)
class Band(Value):
    """A stripe on a length: from where to where, mm from the datum, exactly and as it is marked to the tick.

    `index` is its place in the repeat, from 0. `cut` where the edge of the surface cuts it.
    """

    number: int
    index: int
    start_mm: float
    end_mm: float
    marks_mm: tuple[float, ...]
    """Both, in order."""
    cut: bool = False

    @property
    def width_mm(self) -> float:
        """How wide it is, exactly."""
        return self.end_mm - self.start_mm


@dataclass(frozen=True)
class Fit(Value):
    """A pattern on a length. `stripes` are the repeat as it was made to fit; `changed` by how much what gives gave, as
    a share of it; `off_mm` how far a mark is from where it should be, at the most."""

    length_mm: float
    bands: tuple[Band, ...]
    stripes: tuple[Stripe, ...]
    repeats: int
    changed: float
    off_mm: float
    symmetrical: bool
    """Whether it is the same from both edges."""
    says: str


@dataclass(frozen=True)
class Given:
    """A repeat with what gives made so many times as wide."""

    stripes: tuple[Stripe, ...]
    factor: float


def _given(stripes: Sequence[Stripe], gives: Gives, factor: float) -> tuple[Stripe, ...]:
    wide = factor if gives in ("stripes", "all") else 1.0
    apart = factor if gives in ("gaps", "all") else 1.0
    return tuple(Stripe(s.width_mm * wide, s.gap_mm * apart, s.name) for s in stripes)


def _closes(layout: Layout) -> bool:
    """Whether the first stripe comes once more after the last repeat: at both edges, or there and back."""
    return layout.ends == "with a stripe" or (layout.mirrored and len(layout.stripes) > 1)


def _taken(stripes: Sequence[Stripe], repeats: int, layout: Layout) -> tuple[float, float]:
    """What stripes and gaps of so many repeats take, mm, with the stripe that closes them and half a gap at both ends
    where it is asked for."""
    wide = repeats * sum(s.width_mm for s in stripes)
    apart = repeats * sum(s.gap_mm for s in stripes)
    if _closes(layout):
        wide += stripes[0].width_mm
        apart += stripes[0].gap_mm if layout.ends == "with half a gap" else 0.0
    return wide, apart


def even(layout: Layout, length_mm: float) -> tuple[int, Given] | None:
    """The whole number of repeats that changes what gives by the least share, and the repeat it makes; None where none
    leaves everything wide enough. Of two that change as much, the fewer repeats."""
    best: tuple[float, int, Given] | None = None
    about = length_mm / layout.repeat_mm
    for repeats in range(max(floor(about) - 2, 1), floor(about) + 4):
        wide, apart = _taken(layout.repeat, repeats, layout)
        gives, stays = {
            "gaps": (apart, wide), "stripes": (wide, apart), "all": (wide + apart, 0.0)
        }[layout.gives]  # fmt: skip
        factor = (length_mm - stays) / gives
        made = _given(layout.repeat, layout.gives, factor) if factor > 0 else ()
        if not made or min(min(s.width_mm, s.gap_mm) for s in made) < LEAST_MM:
            continue
        rank = abs(factor - 1)
        if best is None or rank < best[0] - 1e-12:
            best = rank, repeats, Given(made, factor)
    return None if best is None else (best[1], best[2])


def _marked(mm: float, tick: float) -> float:
    """The nearest tick of the rule; of two as near, the lower. Each by itself, never summed from rounded widths."""
    return -floor(0.5 - mm / tick) * tick


def marks_of(low: float, high: float, length: float, layout: Layout) -> tuple[float, float]:
    """Where a stripe is marked, mm: half a pen's width outside it, each to the tick by itself; an edge needs no pen."""
    pen = layout.pen_mm / 2
    places = (low - pen if low > 1e-9 else low, high + pen if high < length - 1e-9 else high)
    first, second = (_marked(place, layout.tick_mm) for place in places)
    return first, second


def _bands(starts: Sequence[tuple[int, float, float]], length: float, layout: Layout) -> tuple[Band, ...]:
    """Stripes inside a length. What an edge cuts narrower than is painted is left out; a gap at an edge that no tape
    fits into is painted with the stripe beside it, where stripes are cut by edges anyway."""
    least = layout.narrowest_mm if layout.ends == "cut" else LEAST_MM
    room = min(layout.tapes_mm, default=0.0) if layout.ends == "cut" else 0.0
    inside = [
        (index, start, end, max(start, 0.0), min(end, length))
        for index, start, end in starts
        if min(end, length) - max(start, 0.0) >= least - 1e-9
    ]
    found: list[Band] = []
    for n, (index, start, end, low, high) in enumerate(inside):
        if n == 0 and low < room:
            low = 0.0
        if n == len(inside) - 1 and length - high < room:
            high = length
        cut = abs(low - start) > 1e-9 or abs(high - end) > 1e-9
        found.append(Band(n + 1, index, low, high, marks_of(low, high, length, layout), cut))
    return tuple(found)


TICKS_MM = (5.0, 2.0, 1.0, 0.5, 0.1)
"""Ticks that rules have, the coarsest first."""


def _too_coarse(bands: Sequence[Band], length: float, layout: Layout) -> bool:
    """Whether, rounded to the rule's tick, something painted, or a gap between, is under what can be painted and
    taped."""
    marks = [marks_of(b.start_mm, b.end_mm, length, layout) for b in bands]
    wide = [high - low for (low, high), b in zip(marks, bands, strict=True) if not b.cut]
    apart = [then - end + 2 * layout.pen_mm for (_, end), (then, _) in pairwise(marks)]
    return min((*wide, *apart), default=LEAST_MM) < LEAST_MM - 1e-6


def _refuse_coarse(bands: Sequence[Band], length: float, layout: Layout) -> None:
    """Raises InvalidValue where a rule's tick is too coarse for a pattern."""
    if not _too_coarse(bands, length, layout):
        return
    finer = next((t for t in TICKS_MM if not _too_coarse(bands, length, replace(layout, tick_mm=t))), TICKS_MM[-1])
    raise InvalidValue(
        f"To a tick of {layout.tick_mm:g} mm something would be marked under {LEAST_MM:g} mm wide.",
        value=layout.tick_mm, field="tick_mm", allowed=f"a rule with a tick of {finer:g} mm",
    )  # fmt: skip


def shifted(made: Fit, by_mm: float, length_mm: float, layout: Layout) -> Fit:
    """A pattern moved along, what then lies outside a length cut off: a front of several, or what lies between caps.
    Raises InvalidValue where the rule's tick is too coarse for it there."""
    bands: list[Band] = []
    for band in made.bands:
        low, high = max(band.start_mm + by_mm, 0.0), min(band.end_mm + by_mm, length_mm)
        if high - low >= LEAST_MM - 1e-9:
            cut = band.cut or high - low < band.width_mm - 1e-9
            marks = marks_of(low, high, length_mm, layout)
            bands.append(Band(len(bands) + 1, band.index, low, high, marks, cut))
    _refuse_coarse(bands, length_mm, layout)
    return replace(made, length_mm=length_mm, bands=tuple(bands), off_mm=off_of(bands, length_mm, layout),
                   symmetrical=symmetrical(bands, length_mm))  # fmt: skip


def off_of(bands: Sequence[Band], length: float, layout: Layout) -> float:
    """How far a mark is from where it should be, at the most."""
    exact = replace(layout, tick_mm=1e-6)
    return max(
        (
            abs(m - x)
            for b in bands
            for m, x in zip(b.marks_mm, marks_of(b.start_mm, b.end_mm, length, exact), strict=True)
        ),
        default=0.0,
    )


def fit(layout: Layout, length_mm: float) -> Fit:
    """A pattern on a length, less what is left free at both its ends. Raises InvalidValue for one that cannot come out
    even, for too many stripes, and where nothing is left between the ends."""
    free = layout.remainder_mm
    if not free:
        return _fit(layout, length_mm)
    if length_mm - 2 * free < 2 * LEAST_MM:
        raise InvalidValue(
            f"{free:.0f} mm free at both ends leave nothing of {length_mm:.0f} mm.", value=free, field="remainder_mm",
            allowed=f"less than {length_mm / 2 - LEAST_MM:.0f} mm",
        )  # fmt: skip
    inside = replace(layout, centre_mm=None if layout.centre_mm is None else max(layout.centre_mm - free, 0.0))
    return shifted(_fit(inside, length_mm - 2 * free), free, length_mm, layout)


def _fit(layout: Layout, length_mm: float) -> Fit:
    if length_mm / layout.repeat_mm * len(layout.repeat) > MOST_STRIPES:
        raise InvalidValue(
            f"That would be more than {MOST_STRIPES} stripes.", value=layout.repeat_mm, field="stripes",
            allowed=f"a repeat of at least {length_mm * len(layout.repeat) / MOST_STRIPES:.1f} mm",
        )  # fmt: skip
    stripes, repeats, factor = layout.repeat, 0, 1.0
    if layout.even and layout.ends != "cut":
        found = even(layout, length_mm)
        if found is None:
            raise InvalidValue(
                f"On {length_mm:.0f} mm it does not come out even: something would be under {LEAST_MM:g} mm.",
                value=layout.repeat_mm, field="stripes", allowed="narrower stripes or gaps, or cut at the edges",
            )  # fmt: skip
        repeats, given = found
        stripes, factor = given.stripes, given.factor
        starts = _even_starts(stripes, repeats, layout)
    elif layout.ends == "cut":
        starts = _cut_starts(layout, length_mm)
    else:
        repeats, starts = _whole_starts(layout, length_mm)
    bands = _bands(starts, length_mm, layout)
    if not layout.remainder_mm:  # else it is marked, and judged, where it is moved to
        _refuse_coarse(bands, length_mm, layout)
    if layout.ends == "cut":
        repeats = sum(b.index == 0 for b in bands)
    off = off_of(bands, length_mm, layout)
    same = symmetrical(bands, length_mm)
    says = f"{_says(layout, repeats, factor, bands)} {'The same' if same else 'Not the same'} from both edges."
    return Fit(length_mm, bands, stripes, repeats, factor - 1, off, same, says)


def symmetrical(bands: Sequence[Band], length_mm: float) -> bool:
    """Whether stripes lie the same from both ends of a length, to a thousandth of a mm."""
    turned = [(length_mm - b.end_mm, length_mm - b.start_mm) for b in reversed(bands)]
    pairs = zip(bands, turned, strict=True)
    return all(abs(b.start_mm - start) < 1e-3 and abs(b.end_mm - end) < 1e-3 for b, (start, end) in pairs)


def _even_starts(stripes: Sequence[Stripe], repeats: int, layout: Layout) -> list[tuple[int, float, float]]:
    edge = stripes[0 if _closes(layout) else -1].gap_mm / 2
    at = 0.0 if layout.ends == "with a stripe" else edge
    found: list[tuple[int, float, float]] = []
    for _ in range(repeats):
        for index, s in enumerate(stripes):
            found.append((index, at, at + s.width_mm))
            at += s.width_mm + s.gap_mm
    if _closes(layout):
        found.append((0, at, at + stripes[0].width_mm))
    return found


def _whole_starts(layout: Layout, length: float) -> tuple[int, list[tuple[int, float, float]]]:
    """As many whole repeats as there is room for, as wide as they are; what is over is halved at both ends. Raises
    InvalidValue where there is no room for one."""
    first = sum(_taken(layout.repeat, 0, layout))
    repeats = floor((length - first) / layout.repeat_mm + 1e-9)
    if repeats < 1:
        raise InvalidValue(
            f"On {length:.0f} mm there is no room for a repeat.", value=layout.repeat_mm, field="stripes",
            allowed=f"a repeat of at most {length - first:.0f} mm",
        )  # fmt: skip
    offset = (length - first - repeats * layout.repeat_mm) / 2
    return repeats, [(n, a + offset, b + offset) for n, a, b in _even_starts(layout.repeat, repeats, layout)]


def _cut_starts(layout: Layout, length: float) -> list[tuple[int, float, float]]:
    """Stripes as wide as they are, set by the anchor, cut by the edges."""
    repeat, first = layout.repeat_mm, layout.repeat[0]
    middle = length / 2 if layout.centre_mm is None else layout.centre_mm
    origin = {
        "centred on a stripe": middle - first.width_mm / 2,
        "centred on a gap": middle - first.width_mm - first.gap_mm / 2,
        "from an edge": 0.0,
    }[layout.anchor]
    origin -= (floor(origin / repeat) + 1) * repeat
    found: list[tuple[int, float, float]] = []
    at = origin
    while at < length:
        for index, s in enumerate(layout.repeat):
            found.append((index, at, at + s.width_mm))
            at += s.width_mm + s.gap_mm
    return [x for x in found if x[2] > 0 and x[1] < length]


def _says(layout: Layout, repeats: int, factor: float, bands: Sequence[Band]) -> str:
    noun = {"repeats": "motifs", "panels": "panels"}.get(layout.kind, "stripes")
    many = f"{repeats} {'repeat' if repeats == 1 else 'repeats'}, {len(bands)} {noun}"
    if not layout.even or layout.ends == "cut":
        cut = sum(b.cut for b in bands)
        return f"{many}{f', {cut} of them cut at the edges' if cut else ''}, as wide as asked."
    if abs(factor - 1) < 5e-4:
        return f"{many}, exactly as asked."
    what = {"gaps": "gaps", "stripes": noun, "all": f"{noun} and gaps"}[layout.gives]
    return f"{many}; the {what} are {abs(factor - 1):.1%} {'wider' if factor > 1 else 'narrower'} than asked."


def to_the_tick(layout: Layout, length_mm: float) -> tuple[Layout, float] | None:
    """The same pattern with every stripe and gap a whole number of ticks, and what is left over, mm: half of it at each
    end. None where nothing is left of it."""
    tick = layout.tick_mm
    found = even(layout, length_mm) if layout.even and layout.ends != "cut" else None
    stripes = found[1].stripes if found else layout.repeat
    whole = tuple(
        Stripe(max(_marked(s.width_mm, tick), tick), max(floor(s.gap_mm / tick + 1e-9) * tick, tick), s.name)
        for s in stripes
    )
    first = sum(_taken(whole, 0, layout))
    repeats = found[0] if found else floor((length_mm - first) / sum(s.width_mm + s.gap_mm for s in whole))
    wide, apart = _taken(whole, repeats, layout)
    if repeats < 1 or wide + apart > length_mm + 1e-9:
        return None
    return replace(layout, stripes=whole[: len(layout.stripes)], even=False), length_mm - wide - apart


NEAR_TAPE = 1.5
"""A gap that a tape would make so many times as wide or as narrow is another gap."""
MOST_CHANGED = 0.25
"""By more than this a stripe that gives is no longer the stripe that was asked for."""


@dataclass(frozen=True)
class ByTape(Value):
    """The same pattern with every gap as wide as a tape there is: gaps are taped over in one width, stripes give."""

    layout: Layout
    tape_mm: float
    changed: float
    """By how much stripes give, as a share."""


def by_tapes(layout: Layout, length_mm: float, most: int = 3) -> tuple[ByTape, ...]:
    """The pattern made even with gaps of one tape each, the nearest width first: of each width there is that no gap is
    far from, and that leaves stripes within a quarter of what was asked."""
    found = []
    gaps = [s.gap_mm for s in layout.repeat]
    for tape in layout.tapes_mm:
        if max(gaps) > tape * NEAR_TAPE or min(gaps) < tape / NEAR_TAPE:
            continue
        stripes = tuple(replace(s, gap_mm=tape) for s in layout.stripes)
        made = replace(layout, stripes=stripes, gives="stripes", even=True, ends=_ends(layout))
        solved = even(made, length_mm - 2 * layout.remainder_mm) if length_mm > 2 * layout.remainder_mm else None
        if solved and abs(solved[1].factor - 1) <= MOST_CHANGED:
            found.append(ByTape(made, tape, solved[1].factor - 1))
    return tuple(sorted(found, key=lambda t: (abs(t.tape_mm - gaps[0]), abs(t.changed)))[:most])


def _ends(layout: Layout) -> Ends:
    return "with a stripe" if layout.ends == "cut" else layout.ends


def passes_of(fit: Fit, narrowest_mm: float) -> list[int]:
    """The pass each stripe is painted in: neighbours whose gap no tape fits between are not painted at once."""
    found: list[int] = []
    for n, band in enumerate(fit.bands):
        gap = band.start_mm - fit.bands[n - 1].end_mm if n else float("inf")
        found.append(3 - found[-1] if found and gap < narrowest_mm - 1e-9 else found[-1] if found else 1)
    return found
