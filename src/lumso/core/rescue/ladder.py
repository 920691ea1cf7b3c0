"""What a mix shows at each word of the ladder, drawn from how it flows, and short tests that lead to a word.

The drawings are geometry in mm, from viscosity η and yield stress τ: a film runs off a stick until it holds itself
(h = τ/ρg), a thread is as thick as the square root of η, a peak stands as high as the yield stress carries it. They
are proportions to judge by, not pictures of a pot.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import cos, log10, pi, sin

from ..book.materials import Consistency
from ..errors import InvalidValue
from ..mixing.consistency import word_for, yield_stress
from ..value import Value

G = 9.81
CUP_LEAST_S, CUP_MOST_S = 20.0, 150.0
"""The seconds a 4 mm flow cup is good for; below and beyond them its formula is not."""


@dataclass(frozen=True)
class Shape(Value):
    """A filled outline, x to the right and y down, in mm."""

    of: str
    points: tuple[float, ...]
    """x and y in turn."""


@dataclass(frozen=True)
class LadderRung(Value):
    """A word of the ladder, as it is told from the others."""

    slug: str
    name: str
    looks: str
    stick: tuple[Shape, ...]
    """A flat stick pulled out of the pot: what stays on it and what falls."""
    peak: tuple[Shape, ...]
    """A brush pounced on the surface and lifted."""
    streak: tuple[Shape, ...]
    """A finger drawn through the film on the stick: how far it has closed after a breath."""
    ribbon_s: float
    """How long a ribbon that falls back stays to be seen, in seconds; 0 for at once, 60 for as long as one looks."""


def _flat(points: Sequence[tuple[float, float]]) -> tuple[float, ...]:
    return tuple(round(v, 2) for point in points for v in point)


def _stick(eta: float, tau: float) -> tuple[Shape, ...]:
    """A stick 20 mm wide: its coat grows with η, what falls goes from drops by a thread to a lump that stays."""
    much = min(max(log10(eta) / 5.1, 0.0), 1.0)
    coat = 0.3 + 5.5 * much**1.6
    shapes = [Shape("wood", _flat([(-10, -30), (10, -30), (10, 30), (-10, 30)]))]
    low, edge = 30 + coat, [(-10 - coat, -12.0), (10 + coat, -12.0)]
    shapes.append(Shape("mix", _flat([*edge, (10 + coat, 24), (5, low), (-5, low), (-10 - coat, 24)])))
    if tau < 60:
        wide = 0.35 + 2.6 * much**1.5
        long = 30 * (1 - (tau / 60) ** 0.5)
        if eta < 8:
            drops = ((36, 1.6), (46, 1.3), (58, 1.6), (66, 1.0))
            shapes += [Shape("mix", _disc(0.0, low - 30 + y, r)) for y, r in drops]
        else:
            shapes.append(Shape("mix", _flat([(-wide * 2.2, low), (wide * 2.2, low), (wide, low + long * 0.5),
                                              (wide * 0.7, low + long), (-wide * 0.7, low + long),
                                              (-wide, low + long * 0.5)])))  # fmt: skip
    return tuple(shapes)


def _disc(x: float, y: float, r: float) -> tuple[float, ...]:
    return _flat([(x + r * cos(i * pi / 8), y + r * sin(i * pi / 8)) for i in range(16)])


def _peak(eta: float, tau: float) -> tuple[Shape, ...]:
    """The surface 60 mm wide; a peak stands h = τ/ρg high, up to what a brush pulls up, and nods where it is soft."""
    high = min(tau / (1300 * G) * 1000 * 2.2, 24.0)
    nod = 7.0 * max(0.0, 1 - tau / 150) if high > 3 else 0.0
    half = 15 - 8 * min(tau / 200, 1.0)
    rim: list[tuple[float, float]] = [(-30, 12), (-30, 0), (-half, 0)]
    if high < 0.4:
        rim += [(x, 0.5 * sin(x / 2.2)) for x in range(-14, 15, 2)] if eta < 200 else [(0, 0.0)]
    else:
        rim += [(-half * 0.35, -high * 0.55), (nod * 0.6, -high), (nod, -high * 0.9), (half * 0.35, -high * 0.5)]
    return (Shape("mix", _flat([*rim, (half, 0), (30, 0), (30, 12)])),)


def _streak(eta: float, tau: float) -> tuple[Shape, ...]:
    """A gap 10 mm wide drawn through the film: surface tension closes it in the time η gives it, a yield stress keeps
    it open."""
    shut = min(max(1 - (log10(eta) - 0.6) / 3.4, 0.0), 1.0) if tau < 20 else 0.0
    gap = 10 * (1 - shut)
    top: list[tuple[float, float]] = [(-30, -8), (30, -8), (30, -gap / 2), (-30, -gap / 2)]
    low: list[tuple[float, float]] = [(-30, gap / 2), (30, gap / 2), (30, 8), (-30, 8)]
    if shut >= 1:
        return (Shape("mix", _flat([(-30, -8), (30, -8), (30, 8), (-30, 8)])),)
    return Shape("mix", _flat(top)), Shape("mix", _flat(low))


def ladder_of(scale: Sequence[Consistency]) -> tuple[LadderRung, ...]:
    """The words with what they show, the thinnest first."""
    made = []
    for word in sorted(scale, key=lambda c: c.viscosity_mpa_s):
        eta, tau = word.viscosity_mpa_s, word.yield_stress_pa
        stays = 0.0 if tau < 3 else min(2 * (tau / 10) ** 1.5, 60.0)
        made.append(
            LadderRung(word.slug, word.name, word.looks, _stick(eta, tau), _peak(eta, tau), _streak(eta, tau), stays)
        )
    return tuple(made)


def by_flow_cup(seconds: float, density: float, scale: Sequence[Consistency]) -> Consistency:
    """The word for a time out of a 4 mm flow cup: ν = 1.37·t − 200/t mm²/s (ISO 2431), η = ν·ρ with ρ in g/ml.

    Raises InvalidValue for a time the cup is not good for.
    """
    if not CUP_LEAST_S <= seconds <= CUP_MOST_S:
        raise InvalidValue(
            f"A 4 mm cup that takes {seconds:g} s says nothing of a mix.",
            value=seconds,
            allowed=f"{CUP_LEAST_S:g} to {CUP_MOST_S:g} s; thinner or thicker is told by the stick",
            field="seconds",
        )
    return word_for((1.37 * seconds - 200 / seconds) * density, scale)


def by_sag(thickness_mm: float, density: float, scale: Sequence[Consistency]) -> Consistency:
    """The word for the thickest streak that stays on an upright scrap: τ = ρ·g·t. Raises InvalidValue
    outside 0.1–10."""
    if not 0.1 <= thickness_mm <= 10:
        raise InvalidValue(
            f"A streak of {thickness_mm:g} mm cannot be judged so.", value=thickness_mm, allowed="0.1 to 10 mm",
            field="thickness_mm",
        )  # fmt: skip
    tau = density * 1000 * G * thickness_mm / 1000
    standing = [w for w in scale if yield_stress(w.viscosity_mpa_s, scale) > 0]
    return min(standing, key=lambda w: abs(log10(w.yield_stress_pa) - log10(tau)))
