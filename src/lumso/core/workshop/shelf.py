"""The shelf: what is on hand, and what the user knows better than the starting values."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from annotated_types import Interval, MaxLen

from ..book.materials import Material
from ..errors import InvalidValue
from ..value import NotNegative, Positive, Slug, Value

MaterialField = Literal[
    "bulk_density",
    "true_density",
    "swelling",
    "packing_limit",
    "viscosity_mpa_s",
    "label_rate_ml_per_m2",
    "hiding",
    "scattering",
]
BOUNDS: Mapping[str, tuple[str, float, float, str]] = {
    "bulk_density": ("Weight of a level ml", 0.05, 8, "g/ml"),
    "true_density": ("Weight of an ml without air", 0.3, 22, "g/ml"),
    "swelling": ("Swelling", 1, 6, "times"),
    "packing_limit": ("Packing limit", 0.2, 0.8, "share"),
    "viscosity_mpa_s": ("Thickness as stirred", 0.5, 500_000, "mPa·s"),
    "label_rate_ml_per_m2": ("Label spreading rate", 5, 3000, "ml/m²"),
    "hiding": ("Hiding power", 0, 1, "share"),
    "scattering": ("Hides, from a tint board", 0.05, 40, "hides in one coat"),
}
"""What can be known better: its name, the least and most that is believed, and the unit."""


@dataclass(frozen=True)
class Overlay(Value):
    """A value of the user's own in place of a starting value; deleting it puts the starting value back."""

    field: MaterialField
    value: Positive
    source: Literal["label", "measured"]
    at: str
    """The day, as 2026-11-24."""
    said: Annotated[str, MaxLen(60)] = ""
    """As its label says it, with its unit: 12 m²/l, 400 ft² per US gallon."""


@dataclass(frozen=True)
class Pack(Value):
    """A size it is sold in, and what that costs."""

    size: Positive
    unit: Literal["ml", "g"]
    price: NotNegative
    currency: Annotated[str, MaxLen(8)] = ""


@dataclass(frozen=True)
class ShelfItem(Value):
    """A material on the shelf. `own` defines one the catalogue does not have."""

    slug: Slug
    on_hand: Annotated[float, Interval(ge=0, le=1_000_000)] = 0.0
    unit: Literal["ml", "g"] = "ml"
    counted_min: NotNegative | None = None
    """When so much was on hand, minutes since 1970 UTC: what was poured later is taken off it. None is never counted:
    what is said stays as it is said."""
    opened_on: Annotated[str, MaxLen(10)] = ""
    packs: Annotated[tuple[Pack, ...], MaxLen(20)] = ()
    overlays: tuple[Overlay, ...] = ()
    own: Material | None = None
    note: Annotated[str, MaxLen(500)] = ""


def with_overlays(material: Material, overlays: Sequence[Overlay]) -> Material:
    """The material as the user knows it, each changed value with its source.

    A liquid holds no air, so its two densities are one. Raises InvalidValue for a value outside its bounds.
    """
    values: dict[str, float] = {}
    sources = dict(material.sources)
    for overlay in overlays:
        name, least, most, unit = BOUNDS[overlay.field]
        if not least <= overlay.value <= most:
            raise InvalidValue(
                f"{name} of {material.name} is {overlay.value:g} {unit}.",
                value=overlay.value,
                allowed=f"{least:g} to {most:g} {unit}",
                field=overlay.field,
            )
        values[overlay.field] = overlay.value
        sources[overlay.field] = overlay.source
    if not material.is_solid and "bulk_density" in values:
        values["true_density"] = values["bulk_density"]
    changed: Material = replace(material, **values, sources=sources)  # type: ignore[arg-type]
    if changed.bulk_density > changed.true_density + 1e-9:
        raise InvalidValue(
            f"{material.name} would weigh more with air ({changed.bulk_density:g} g/ml) than without "
            f"({changed.true_density:g} g/ml).",
            value=changed.bulk_density,
            allowed=f"at most {changed.true_density:g} g/ml as measured",
            field="bulk_density",
        )
    return changed


def density_from_weighing(grams: float, ml: float) -> float:
    """g per ml from weighing a level measure of `ml`. Raises InvalidValue for zero, below, or beyond belief."""
    _, least, most, _ = BOUNDS["bulk_density"]
    if grams <= 0 or ml <= 0 or not least <= grams / ml <= most:
        raise InvalidValue(
            f"{grams:g} g in {ml:g} ml cannot be right.",
            value=grams,
            allowed=f"{least * max(ml, 0):.3g} to {most * max(ml, 0):.3g} g for {ml:g} ml",
            field="grams",
        )
    return grams / ml
