"""Jars: what is left, how long it keeps, how much water left it meanwhile, and what it is good for."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import pi
from typing import Literal

from ..book.materials import Material, Vessel
from ..value import Value
from ..work.batch import Brew
from .acts import Closed
from .pot import PotState, traits_of

EVAPORATES: dict[Closed, float] = {"open": 2400.0, "wrapped": 100.0, "lid": 5.0}
"""g of water a day from a m² of mouth at 20 °C and 50 %: untested starting values, the open one that of still water."""
DAY_MIN = 24 * 60.0
SAME_WATER = 0.02
"""A jar whose share of water is off by no more is the same mix."""
MOST_LOST = 0.95
"""No more of the water in a pot is ever believed to have left it: an untested starting value."""
UNKNOWN_JAR_ML = 370.0
"""How large a jar is taken to be where nobody said: the common jam jar."""
MOST_TINT = 0.5
"""A jar that would be more than this share of the paint of another colour is not the start of it."""


@dataclass(frozen=True)
class JarNow(Value):
    """A jar as it stands: what it holds, what may have left it, until when it keeps."""

    pot: str
    g: float
    ml: float
    water: float
    """Added water, as a share of the whole by volume."""
    stood_days: float
    lost_g: float
    """Water that may have left it since it was last weighed: an estimate."""
    keeps_until_min: float | None
    """None where only a label knows."""
    past: bool
    says: str
    discard: str


@dataclass(frozen=True)
class Wanted(Value):
    """A coat that is still to be laid: what it takes, of what, and how much water it should hold."""

    job: str
    job_name: str
    zone: str
    layer: str
    says: str
    recipe: str
    colour: str
    hex: str
    ml: float
    water: float
    materials: tuple[str, ...] = ()


@dataclass(frozen=True)
class JarUse(Value):
    """What a jar is good for: as it is, with water, or as the beginning of another colour."""

    job: str
    job_name: str
    zone: str
    layer: str
    says: str
    how: Literal["as it is", "with water", "as the start of it"]
    covers: float
    """The share of what is wanted that the jar makes."""
    add_water_ml: float
    tint: float
    """How much of the paint in it would be the jar's: 1 where the colour is the same."""


def wanted_for(job: str, name: str, brew: Brew) -> Wanted:
    """What a batch that is still to be mixed takes."""
    coat = brew.run.first
    paint = next((p for p in brew.mix.parts if p.role in {"paint", "pigment"}), brew.mix.parts[0])
    where = ", ".join(dict.fromkeys(c.need.zone_name.lower() for c in brew.run.coats))
    return Wanted(
        job, name, coat.need.zone, coat.need.layer, f"{coat.named} on {where}", coat.laid.recipe.slug,
        coat.colour or paint.colour, paint.hex, brew.amounts.mixed_ml, coat.laid.water,
        tuple(p.material for p in brew.mix.parts),
    )  # fmt: skip


def mouth_m2(capacity_ml: float) -> float:
    """The mouth of a vessel as wide as it is high."""
    wide_cm = (4 * capacity_ml / pi) ** (1 / 3)
    return float(pi * wide_cm**2 / 4 / 10_000)


def water_of(pot: PotState) -> float:
    """The share of added water in a pot, by volume."""
    return sum(h.adds_ml for h in pot.held if h.stuff.role == "water") / pot.ml if pot.ml else 0.0


def lost_since(pot: PotState, now_min: float, factor: float, vessels: Sequence[Vessel]) -> float:
    """g of water that may have left a pot since its water was last known; never more than it holds.

    `factor` is how many times as slowly water leaves here as at 20 °C and 50 %.
    """
    if pot.left_min is None:
        return 0.0
    name = pot.begun.vessel if pot.begun else ""
    capacity = next((v.capacity_ml for v in vessels if v.name == name), UNKNOWN_JAR_ML)
    days = max(now_min - max(pot.left_min, pot.water_min or 0.0), 0.0) / DAY_MIN
    water = sum(h.g for h in pot.held if h.stuff.role == "water")
    return min(EVAPORATES[pot.closed] * mouth_m2(capacity) * days / factor, water * MOST_LOST)


def jar_now(pot: PotState, now_min: float, factor: float, keeps_days: float | None, vessels: Sequence[Vessel],
            materials: Mapping[str, Material]) -> JarNow:  # fmt: skip
    """A jar as it stands now. `keeps_days` is how long the mix keeps sealed; None where only a label knows."""
    left = pot.left_min if pot.left_min is not None else now_min
    until = None if keeps_days is None else left + keeps_days * DAY_MIN
    past = until is not None and now_min > until
    lost = lost_since(pot, now_min, factor, vessels)
    says = "Past its keeping life: look, smell and stir before you trust it; throw it away if it smells or gels."
    if not past:
        says = "Open: it dries as you look." if pot.closed == "open" else ""
    return JarNow(pot.pot, pot.g, pot.ml, water_of(pot), (now_min - left) / DAY_MIN, lost, until, past, says,
                  _discard(pot, materials))  # fmt: skip


def _discard(pot: PotState, materials: Mapping[str, Material]) -> str:
    known = [materials[h.stuff.material] for h in pot.held if h.stuff.material in materials]
    traits = traits_of(pot.held, materials)
    if "sets hard" in traits:
        return "It sets hard in a drain: let it set in the pot, then with the rubbish, as local rules say."
    if any(m.role == "wax" or m.solvent_by_weight > 0 for m in known):
        return (
            "Oily or with solvent: none down a drain; rags flat outdoors or in water in a lidded metal can; the rest "
            "to the collection, as local rules say."
        )
    if "caustic" in traits:
        return (
            "Caustic: gloves and eyes. Let it dry out, then with the rubbish, as local rules say; none down the drain."
        )
    return "None down the drain: let it dry out, then with the rubbish, as local rules say."


def uses_of(pot: PotState, wanted: Sequence[Wanted]) -> tuple[JarUse, ...]:
    """What a jar is good for among coats that are still to be laid, the most covered first."""
    begun = pot.begun
    if begun is None or pot.ml <= 0:
        return ()
    has, found = water_of(pot), []
    paint_ml = pot.ml * (1 - has)
    for w in wanted:
        if w.recipe != begun.recipe and not {h.stuff.material for h in pot.held} <= set(w.materials):
            continue  # another binder: they do not go together
        alike = w.colour == begun.colour and w.hex == begun.hex
        if alike and abs(w.water - has) <= SAME_WATER:
            found.append(_use(w, "as it is", min(pot.ml / w.ml, 1.0), 0.0, 1.0))
        elif alike and w.water > has and w.water < 1:
            whole = paint_ml / (1 - w.water)
            take = min(w.ml / whole, 1.0) if whole else 0.0
            found.append(_use(w, "with water", min(whole / w.ml, 1.0), take * (whole - pot.ml), 1.0))
        elif not alike and w.water > 0 and w.water < 1:
            wants = w.ml * (1 - w.water)
            tint = min(paint_ml, wants * MOST_TINT) / wants if wants else 0.0
            if tint > 0 and paint_ml / wants <= MOST_TINT:
                found.append(_use(w, "as the start of it", min(pot.ml / w.ml, 1.0), 0.0, tint))
    return tuple(sorted(found, key=lambda u: (u.how != "as it is", u.how != "with water", -u.covers)))


def _use(w: Wanted, how: Literal["as it is", "with water", "as the start of it"], covers: float, water: float,
         tint: float) -> JarUse:  # fmt: skip
    return JarUse(w.job, w.job_name, w.zone, w.layer, w.says, how, covers, water, tint)


def taken_g(pot: PotState, use: JarUse, wanted_ml: float) -> float:
    """How much of a jar goes into a pot of `wanted_ml`, with the water the use adds; in g, at the most all of it."""
    return pot.g * min(1.0, wanted_ml / (pot.ml + use.add_water_ml))
