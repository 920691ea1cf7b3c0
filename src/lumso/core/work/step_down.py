"""Stacked washes as a chain: each pot starts from what is left of the last.

What is left carries its paint and its water over, and rinse water counts. New paint and water are what is missing to
the wanted volume and water share; the share of old paint is the tint that is carried on.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from ..value import Value


@dataclass(frozen=True)
class WashStep(Value):
    """A wash that is wanted: `ml` in the pot at `water` (share of the whole), of which `used_ml` are used up."""

    name: str
    hex: str
    ml: float
    water: float
    used_ml: float


@dataclass(frozen=True)
class Carried(Value):
    """An earlier colour in the pot, as a share of all its paint."""

    name: str
    share: float


@dataclass(frozen=True)
class StepDown(Value):
    """One pot of the chain.

    `poured_off_ml` of the last pot's rest is put aside, because it is more than this pot can take up; `left_ml` is
    what is left of this one for the next.
    """

    name: str
    hex: str
    from_last_ml: float
    poured_off_ml: float
    rinse_ml: float
    add_paint_ml: float
    add_water_ml: float
    ml: float
    water: float
    carried: tuple[Carried, ...]
    left_ml: float
    saved_paint_ml: float
    """Paint that a fresh pot would have taken more."""


def chain(steps: Sequence[WashStep], rinse_ml: float = 0.0) -> tuple[StepDown, ...]:
    """The pots of a chain, first to last. `rinse_ml` of water rinse each pot into the next.

    Where what is left holds more paint or more water than the next pot wants, only as much of it as fits is taken.
    """
    made: list[StepDown] = []
    paints: dict[str, float] = {}  # ml of each colour left in the pot
    water = 0.0
    for step in steps:
        rest = sum(paints.values()) + water
        want_water, want_paint = step.ml * step.water, step.ml * (1 - step.water)
        rinse = min(rinse_ml if rest > 0 else 0.0, want_water)
        paint = sum(paints.values())
        fits = min(
            1.0,
            want_paint / paint if paint > 0 else 1.0,
            (want_water - rinse) / water if water > 0 else 1.0,
            step.ml / rest if rest > 0 else 1.0,
        )
        taken = {name: ml * fits for name, ml in paints.items()}
        old_paint, old_water = sum(taken.values()), water * fits
        new_paint = want_paint - old_paint
        taken[step.name] = taken.get(step.name, 0.0) + new_paint
        whole = sum(taken.values())
        carried = tuple(
            Carried(name, ml / whole) for name, ml in taken.items() if name != step.name and whole and ml / whole > 1e-6
        )
        left = max(step.ml - step.used_ml, 0.0)
        made.append(
            StepDown(
                step.name,
                step.hex,
                rest * fits,
                rest * (1 - fits),
                rinse,
                new_paint,
                want_water - rinse - old_water,
                step.ml,
                step.water,
                carried,
                left,
                old_paint,
            )
        )
        keep = left / step.ml if step.ml else 0.0
        paints = {name: ml * keep for name, ml in taken.items()}
        water = want_water * keep
    return tuple(made)
