"""Where a film lies, and how thick: the mark each technique leaves on the surface it finds."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from math import sqrt

import numpy as np

from ..book.marks import Mark
from .ground import Bare, band
from .noise import Grid, Pattern, Sheet, pattern, share_above

TONE, STROKES, SECOND, THIRD, CLOTH, PRESSURE, TOUCHED = 11, 12, 13, 14, 15, 16, 17
FLAT_MM = 0.02
"""On a surface flatter than this, hollows and crests are where the hand happens to be."""


@dataclass(frozen=True)
class Place:
    """What a technique finds: the sheet, the ground, and what it is told."""

    sheet: Sheet
    ground: Bare
    touched: float
    tag: int
    """A number of its own, so that no two layers lie alike."""
    falls: Callable[[], Grid]
    """How far each spot lies below its surroundings, in mm: worked out only where it is asked for."""

    def pattern(self, name: int, across_mm: float, along_mm: float, spaced: bool = False,
                turned: float = 0.0) -> Pattern:  # fmt: skip
        """A pattern of this layer's own."""
        return pattern(self.sheet, 100 * self.tag + name, across_mm, along_mm, spaced, turned)


@dataclass(frozen=True)
class Lying:
    """How a film lies: the share of each spot it covers, how thick it is there as a multiple of its mean, how much of
    it lies where it does not cover, and how uneven it is in what the picture leaves out."""

    cover: Grid | float = 1.0
    thick: Grid | float = 1.0
    between: float = 0.0
    uneven: float = 0.0
    where: Grid | float = 1.0
    """The share of each spot that is touched at all."""


def lows(place: Place) -> Grid:
    """How low each spot lies beside its surroundings, as a multiple of how rough the surface is; on a flat one as the
    hand goes."""
    falls = place.falls()
    hand = place.pattern(TONE, 16, 30).at
    rough = float(falls.std())
    made: Grid = (falls + 0.35 * FLAT_MM * hand) / max(sqrt(rough**2 + FLAT_MM**2), 1e-6)
    return made


COVERS = {"combed": 0.52, "woven": 0.5, "broken": 0.55, "dabs": 0.62}
"""The share of what is touched that lies in the marks, where these are apart; of others, as much as is touched."""
APART = {*COVERS, "streaks", "crests", "hollows", "patches", "edges"}
IN_LOWS = {"hollows", "pores"}
"""Marks that lie in the hollows by themselves."""
WAYWARD = {"wiped": 1.03, "run": 1.1, "rubbed": 0.9, "drawn": 1.0, "peaks": 1.0, "rolled": 1.0, "swept": 0.6}
"""How uneven a film is for each unit of its mark's depth: standard deviations of a logarithm."""
NODES = ((-1.7321, 1 / 6), (0.0, 2 / 3), (1.7321, 1 / 6))
"""Three heights that stand for a normal distribution, and their weights (Gauss and Hermite)."""


def thicknesses(mark: Mark, touched: float, pores: float = 0.0) -> tuple[tuple[float, float], ...]:
    """How thick a film is on which share of the surface: (share, multiple of the mean of what is touched)."""
    porous = mark.kind == "pores" and pores > 0
    if mark.kind in APART or porous:
        share = pores if porous else COVERS.get(mark.kind, touched)
        mean, rest = share + mark.between * (1 - share), 1 - share
        laid = 1.0 if porous or mark.kind in COVERS else touched  # what is laid on a part is not heaped up there
        whole = ((share, laid / mean), (rest, laid * mark.between / mean)) if rest > 0 else ((1.0, 1.0),)
        if not porous and mark.kind not in COVERS:
            return whole
        return (*((touched * part, t) for part, t in whole), (1 - touched, 0.0))
    if mark.kind in WAYWARD:
        d = mark.depth * WAYWARD[mark.kind]
        return (*((touched * w, float(np.exp(d * z - d * d / 2))) for z, w in NODES), (1 - touched, 0.0))
    return ((touched, 1.0), (1 - touched, 0.0))


GRIT_MM = 0.12
"""How high grit stands, at most."""


def ridges(mark: Mark) -> float:
    """How high a film's marks stand, as a multiple of its thickness: a standard deviation."""
    return mark.depth * WAYWARD.get(mark.kind, 0.0)


def _even_out(of: Pattern) -> Lying:
    """A film as thick as a pattern's power of e, mean 1; what the picture leaves out keeps the mean."""
    at = of.at - float(of.at.mean())
    made = np.exp(at)
    return Lying(1.0, (made / float(made.mean())).astype(np.float32), 0.0, of.left)


def _apart(at: Pattern, mark: Mark, share: float, edge: float = 0.3) -> Lying:
    mean = share + mark.between * (1 - share)
    return Lying(at.above(share, edge), (1 if mark.kind in COVERS else share) / mean, mark.between)


def _drawn(place: Place, mark: Mark) -> Lying:
    return _even_out(place.pattern(STROKES, mark.across_mm, mark.along_mm, True, mark.turned_deg) * mark.depth)


def _combed(place: Place, mark: Mark) -> Lying:
    lines = place.pattern(STROKES, mark.across_mm, mark.along_mm, True, mark.turned_deg)
    wide = place.pattern(SECOND, mark.across_mm * 6, mark.along_mm, False, mark.turned_deg)
    return _apart(lines + wide * 0.5, mark, COVERS["combed"])


def _woven(place: Place, mark: Mark) -> Lying:
    one = place.pattern(STROKES, mark.across_mm, mark.along_mm, True, mark.turned_deg)
    other = place.pattern(SECOND, mark.across_mm, mark.along_mm, True, mark.turned_deg + 90)
    return _apart((one + other) * sqrt(0.5), mark, COVERS["woven"])


def _broken(place: Place, mark: Mark) -> Lying:
    strokes = [place.pattern(STROKES + 20 + k, mark.across_mm, mark.along_mm, True, a) for k, a in enumerate(BROKEN)]
    here = [np.exp(2.2 * place.pattern(SECOND + 30 + k, 26, 26).at) for k in range(len(BROKEN))]
    both = np.asarray(sum(h * s.at for h, s in zip(here, strokes, strict=True)) / sum(here))
    cloud = place.pattern(TONE, 30, 30)
    return _apart(Pattern(1.3 * both, strokes[0].left) + cloud * 0.35, mark, COVERS["broken"], 0.9)


BROKEN = (20.0, 65.0, 110.0, 155.0)
"""Ways strokes go where they go every way, in degrees from upright."""


def _peaks(place: Place, mark: Mark) -> Lying:
    return _even_out(place.pattern(STROKES, mark.across_mm, mark.across_mm, True) * mark.depth)


def _swept(place: Place, mark: Mark) -> Lying:
    made: Grid | None = None
    for k, angle in enumerate((25.0, 70.0, 130.0)):
        sweep = place.pattern(STROKES + k, mark.across_mm, mark.along_mm, False, angle)
        wide = sweep.softened(0.14 + 0.3 * place.sheet.mm_per_px * 2.5 / mark.across_mm)
        lip = 0.14 / wide * np.exp(-((sweep.at - 0.6) ** 2) / (2 * wide**2))
        here = mark.depth * (0.5 * sweep.at + 0.7 * lip)
        made = here if made is None else made + here
    assert made is not None
    return Lying(1.0, np.clip(1 + made - float(made.mean()), 0.15, 4).astype(np.float32))


def _islands(place: Place, mark: Mark) -> Lying:
    pulls = [place.pattern(STROKES + k, mark.across_mm, mark.along_mm, False, a).at for k, a in enumerate(PULLS)]
    highest = np.maximum(np.maximum(pulls[0], pulls[1]), pulls[2])
    torn = place.pattern(SECOND, 3, 3) * 0.22 + highest
    edge = 0.9 * place.sheet.mm_per_px / mark.across_mm
    ridges = _even_out(place.pattern(THIRD, 4, 30, True, 40) * mark.depth)
    return Lying(torn.above(place.touched, edge), ridges.thick, 0.0, ridges.uneven)


PULLS = (10.0, 75.0, 140.0)
"""Ways a knife is pulled."""


def _dabs(place: Place, mark: Mark) -> Lying:
    dabs = place.pattern(STROKES, mark.across_mm, mark.across_mm, True)
    pores = place.pattern(SECOND, 2.2, 2.2, True) * 0.6
    return _apart(dabs + pores + place.pattern(TONE, 45, 45) * 0.5, mark, COVERS["dabs"])


def _wiped(place: Place, mark: Mark) -> Lying:
    streaks = place.pattern(STROKES, mark.across_mm / 4, mark.along_mm, True)
    wide = place.pattern(SECOND, mark.across_mm, mark.along_mm)
    return _even_out((streaks * 0.35 + wide * 0.35 + 0.9 * np.clip(lows(place), -2.2, 2.2)) * mark.depth)


def _streaks(place: Place, mark: Mark) -> Lying:
    fine = place.pattern(STROKES, mark.across_mm, mark.along_mm, True)
    wide = place.pattern(SECOND, mark.across_mm * 5, mark.along_mm * 0.6)
    torn = place.pattern(THIRD, mark.across_mm * 0.5, mark.along_mm * 0.2)
    return _apart(fine * 0.6 + wide * 0.6 + torn * 0.75, mark, place.touched, 0.7)


def _run(place: Place, mark: Mark) -> Lying:
    runs = place.pattern(STROKES, mark.across_mm, mark.along_mm) * 0.65
    streaks = place.pattern(THIRD, mark.across_mm / 5, mark.along_mm, True) * 0.3
    pools = place.pattern(SECOND, 26, 26) * 0.5 + place.pattern(CLOTH, 5, 8) * 0.35
    return _even_out((runs + streaks + pools + 0.6 * np.clip(lows(place), -2.2, 2.2)) * mark.depth)


def _rubbed(place: Place, mark: Mark) -> Lying:
    drinks = place.pattern(STROKES, mark.across_mm, mark.along_mm) * 0.4
    if place.ground.grain is not None:
        drinks = drinks + place.ground.grain * -0.9
    if place.ground.pores is not None:
        drinks = drinks + 2.0 * place.ground.pores
    return _even_out(drinks * mark.depth)


def _crests(place: Place, mark: Mark) -> Lying:
    strokes = place.pattern(STROKES, mark.across_mm, mark.along_mm, True) * 0.7
    wide = place.pattern(SECOND, 24, 50) * 0.4
    near = np.exp(-place.ground.edge / 4).astype(np.float32)
    return _apart(strokes + wide + (1.2 * near - 1.5 * lows(place)), mark, place.touched, 0.35)


def _hollows(place: Place, mark: Mark) -> Lying:
    cloth = place.pattern(CLOTH, mark.across_mm, mark.along_mm) * 0.3
    near = np.exp(-place.ground.edge / 5).astype(np.float32)
    return _apart(cloth + (1.4 * lows(place) + 0.4 * near), mark, place.touched, 0.55)


def _pores(place: Place, mark: Mark) -> Lying:
    pores = place.ground.pores
    if pores is None:
        return _hollows(place, mark)
    share = float(pores.mean())
    return Lying(pores, 1 / (share + mark.between * (1 - share)), mark.between)


def _patches(place: Place, mark: Mark) -> Lying:
    blots = place.pattern(STROKES, mark.across_mm, mark.along_mm)
    return _apart(blots + place.pattern(SECOND, 4, 4) * 0.25, mark, place.touched, 0.3)


def _edges(place: Place, mark: Mark) -> Lying:
    wander = place.pattern(STROKES, mark.across_mm, mark.along_mm) * 0.6
    return _apart(wander + -place.ground.edge / 9, mark, place.touched, 0.9)


def _stripes(place: Place, mark: Mark) -> Lying:
    x, _ = place.sheet.axes()
    period, share, step = mark.across_mm, place.touched, place.sheet.mm_per_px
    main, pin = 0.7 * share * period, 0.15 * share * period
    gap = min(3.0, (1 - share) * period / 5)
    start = (period - main) / 2
    bands = band(x, start, main, period, step)
    bands = bands + band(x, start - gap - pin, pin, period, step) + band(x, start + main + gap, pin, period, step)
    return Lying(np.broadcast_to(np.clip(bands, 0, 1), (place.sheet.px, place.sheet.px)).astype(np.float32).copy())


def _figures(place: Place, mark: Mark) -> Lying:
    x, y = place.sheet.axes()
    p = mark.across_mm
    u, v = (x / p) % 1 - 0.5, ((y + p / 2 * (np.floor(x / p) % 2)) / p) % 1 - 0.5
    petals = 0.36 + 0.14 * np.cos(4 * np.arctan2(v, u)) - np.sqrt(u**2 + v**2)
    return Lying(share_above(petals.astype(np.float32), max(0.3 * place.sheet.mm_per_px / p, 0.01), place.touched))


LAYS: dict[str, Callable[[Place, Mark], Lying]] = {
    "drawn": _drawn, "broken": _broken, "combed": _combed, "woven": _woven, "peaks": _peaks, "swept": _swept,
    "islands": _islands, "dabs": _dabs, "rolled": _peaks, "wiped": _wiped, "streaks": _streaks, "run": _run,
    "rubbed": _rubbed, "crests": _crests, "hollows": _hollows, "pores": _pores, "patches": _patches, "edges": _edges,
    "stripes": _stripes, "figures": _figures, "even": lambda place, mark: Lying(),
}  # fmt: skip


PARTLY = {"streaks", "crests", "hollows", "patches", "edges", "stripes", "figures", "islands"}
"""Marks that are themselves what touches only a part; of others a part is touched in patches."""


def lying(place: Place, mark: Mark) -> Lying:
    """How a film lies on the surface it finds."""
    lies = LAYS[mark.kind](place, mark)
    hollow = mark.kind == "pores" and place.ground.pores is None
    if place.touched >= 1 or mark.kind in PARTLY or hollow:
        return lies
    return replace(lies, where=place.pattern(TOUCHED, 32, 46).above(place.touched, 0.2))


FLAKES_MM, FLAKED = 9.0, 0.22
"""How large flakes are where a film does not hold, and the share of it that comes off. Untested starting points."""


def flaked(place: Place) -> Grid:
    """The share of each spot that stays where a film comes off in flakes as it pleases."""
    cracks = [
        place.pattern(THIRD + k, FLAKES_MM, FLAKES_MM * 1.6, False, a).at for k, a in enumerate((0.0, 60.0, 120.0))
    ]
    loose = np.minimum(np.minimum(np.abs(cracks[0]), np.abs(cracks[1])), np.abs(cracks[2]))
    torn = place.pattern(TONE + 60, 2.5, 5) * 0.1
    where = place.pattern(TONE, 40, 40) * 0.35
    return 1 - (torn + where + loose).above(FLAKED, 0.6 * place.sheet.mm_per_px / FLAKES_MM)


def pressed(place: Place) -> Pattern:
    """How hard a hand presses here and there."""
    return place.pattern(PRESSURE, 14, 30)
