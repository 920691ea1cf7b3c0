"""The jar: a mix in pouring order, true to volume, graduated in the user's own measures."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..book.materials import Vessel
from ..measure.measures import MeasureSystem, written
from ..value import Value

HEADROOM = 0.15
"""The share of a jar kept free for stirring."""


@dataclass(frozen=True)
class Stratum(Value):
    """A component in the jar, from `bottom_ml` to `top_ml`; `dry_top_ml` is where its powder would reach
    with the air still in it (the same as `top_ml` for a liquid)."""

    component: str
    name: str
    hex: str
    solid: bool
    bottom_ml: float
    top_ml: float
    dry_top_ml: float


@dataclass(frozen=True)
class Graduation(Value):
    """A mark on the jar's wall; an unlabelled one has "" for its label."""

    ml: float
    label: str


@dataclass(frozen=True)
class Jar(Value):
    """A straight-walled vessel drawn so that height is volume."""

    vessel: str
    capacity_ml: float
    fill_ml: float
    strata: tuple[Stratum, ...]
    graduations: tuple[Graduation, ...]
    fits: bool
    """False when even the largest vessel is too small with room to stir."""


def vessel_for(volume_ml: float, vessels: Sequence[Vessel]) -> tuple[Vessel, bool]:
    """The smallest vessel that holds `volume_ml` with room to stir, and whether one does."""
    ordered = sorted(vessels, key=lambda v: v.capacity_ml)
    for vessel in ordered:
        if vessel.capacity_ml * (1 - HEADROOM) >= volume_ml:
            return vessel, True
    return ordered[-1], False


def graduate(capacity_ml: float, system: MeasureSystem, labels: int = 8) -> tuple[Graduation, ...]:
    """Marks from the bottom to the brim: at most `labels` labelled ones, quarters between them unlabelled."""
    spacings = [(mark, system.measure(mark.measure)) for mark in system.jar_marks]
    fitting = [s for s in spacings if capacity_ml / (s[0].count * s[1].ml) <= labels]
    mark, measure = fitting[0] if fitting else spacings[-1]
    spacing = mark.count * measure.ml
    marks: list[Graduation] = []
    for k in range(1, int(capacity_ml / spacing + 1e-9) + 1):
        count = Fraction(mark.count * k).limit_denominator(8)
        name = measure.name if count <= 1 else measure.plural
        marks.extend(Graduation(spacing * (k - 1 + q / 4), "") for q in (1, 2, 3))
        marks.append(Graduation(spacing * k, f"{written(count)} {name}"))
    return tuple(marks)


def draw(
    pours: Sequence[tuple[str, str, str, bool, float, float]],
    vessels: Sequence[Vessel],
    system: MeasureSystem,
) -> Jar:
    """Lay pours (id, name, hex, solid, poured ml, added ml) on each other in the order they are given."""
    level, strata = 0.0, []
    for component, name, colour, solid, poured_ml, adds_ml in pours:
        strata.append(Stratum(component, name, colour, solid, level, level + adds_ml, level + poured_ml))
        level += adds_ml
    vessel, fits = vessel_for(level, vessels)
    return Jar(vessel.name, vessel.capacity_ml, level, tuple(strata), graduate(vessel.capacity_ml, system), fits)
