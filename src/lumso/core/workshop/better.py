"""What a workshop knows better than the book, of any kind of entry, value by value: with its source and its day.

Materials have the same on the shelf (`shelf.py`), where they are weighed.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal, NamedTuple

from ..book.catalogue import ORDERED, Catalogue
from ..errors import InvalidValue, UnknownEntry
from ..value import NotNegative, Slug, Value

Kind = Literal["films", "techniques", "grounds", "tools", "reliefs", "preparations", "pot_losses", "consistencies",
               "recipes"]  # fmt: skip


class Bound(NamedTuple):
    """A value that can be known better: its name, the least and the most that is believed, and its unit."""

    name: str
    least: float
    most: float
    unit: str


FIELDS: Mapping[Kind, Mapping[str, Bound]] = {
    "films": {
        "times.touch": Bound("Touch dry", 1, 400_000, "min"),
        "times.recoat_from": Bound("Next coat from", 1, 400_000, "min"),
        "times.recoat_until": Bound("Next coat until, then abrade", 1, 400_000, "min"),
        "times.wet_rub": Bound("May be rubbed wet", 1, 400_000, "min"),
        "times.seal": Bound("May be sealed", 1, 400_000, "min"),
        "times.tape_safe": Bound("Holds low-tack tape from", 1, 400_000, "min"),
        "times.cured": Bound("Cured", 1, 400_000, "min"),
        "gentle_days": Bound("Ready for light use from", 0, 365, "days"),
        "open_least_min": Bound("Stays open, at the least", 0, 600, "min"),
        "open_most_min": Bound("Stays open, at the most", 0, 600, "min"),
        "usual_um": Bound("Usual wet thickness", 1, 5000, "µm"),
    },
    "techniques": {
        "wet_rate_ml_per_m2": Bound("Takes", 1, 5000, "ml/m²"),
        "pace_m2_per_h": Bound("Goes", 0.05, 100, "m²/h"),
    },
    "grounds": {"first_coat_extra_ml_per_m2": Bound("The first coat drinks", 0, 500, "ml/m²")},
    "tools": {"holds_ml": Bound("Stays in it", 0, 300, "ml")},
    "reliefs": {"factor": Bound("Times its flat area", 1, 3, "×")},
    "preparations": {
        "wait_min": Bound("Left to dry", 0, 400_000, "min"),
        "pace_m2_per_h": Bound("Goes", 0.05, 200, "m²/h"),
    },
    "pot_losses": {"share": Bound("Clings to the pot", 0, 0.5, "share"), "least_ml": Bound("At least", 0, 50, "ml")},
    "consistencies": {"viscosity_mpa_s": Bound("Thickness", 0.5, 1_000_000, "mPa·s")},
    "recipes": {
        "rest_min": Bound("Rests", 0, 10_000, "min"),
        "working_life_min": Bound("Can be worked", 0, 100_000, "min"),
        "keeping_life_days": Bound("Keeps, sealed", 0, 3650, "days"),
        "wet_rate_ml_per_m2": Bound("An even coat takes", 0, 5000, "ml/m²"),
    },
}
"""What can be known better of each kind of entry, by the name of its field."""


@dataclass(frozen=True)
class Better(Value):
    """A value of the workshop's own in place of a starting value; taken away, the starting value is back."""

    kind: Kind
    slug: Slug
    field: str
    value: NotNegative
    source: Literal["label", "measured"]
    on: str
    """The day, as 2026-11-24."""


def checked(better: Better) -> Better:
    """The value, where it can be believed. Raises UnknownEntry for a field, InvalidValue for what is out of bounds."""
    bound = FIELDS[better.kind].get(better.field)
    if bound is None:
        raise UnknownEntry(f"value of {better.kind}", better.field, FIELDS[better.kind])
    if not bound.least <= better.value <= bound.most:
        says = f"{bound.name} is {better.value:g} {bound.unit}."
        allowed = f"{bound.least:g} to {bound.most:g} {bound.unit}"
        raise InvalidValue(says, value=better.value, allowed=allowed, field="value")
    return better


def value_of(entry: object, field: str) -> float | None:
    """A value of an entry, by the name of its field."""
    for name in field.split("."):
        entry = getattr(entry, name)
    return None if entry is None else float(entry)  # type: ignore[arg-type]


def _changed(entry: Any, better: Better) -> Any:
    first, _, rest = better.field.partition(".")
    value: object = replace(getattr(entry, first), **{rest: better.value}) if rest else better.value
    more: dict[str, object] = {first: value}
    if better.kind == "films" and better.source == "label" and rest:
        more["labelled"] = tuple(dict.fromkeys((*entry.labelled, rest)))
    return replace(entry, **more)


def laid_over(book: Catalogue, values: Iterable[Better]) -> Catalogue:
    """The book with these values in place of its own. Those of entries that are not there wait for them."""
    changed: dict[str, Any] = {}
    for better in values:
        held = changed.get(better.kind, getattr(book, better.kind))
        kept = {e.slug: e for e in held} if better.kind in ORDERED else dict(held)
        if better.slug in kept:
            kept[better.slug] = _changed(kept[better.slug], better)
            changed[better.kind] = tuple(kept.values()) if better.kind in ORDERED else kept
    return replace(book, **changed)
