"""What the whole job takes, added up by mix and by material."""

from collections.abc import Sequence
from dataclasses import dataclass

from ..value import Value
from .mix import Mix, Part


@dataclass(frozen=True)
class MixTotal(Value):
    """A mix, over all the layers and pots that take it."""

    recipe: str
    name: str
    colour: str
    hex: str
    ml: float
    g: float
    pots: int


@dataclass(frozen=True)
class MaterialTotal(Value):
    """A material, over all mixes; paints of different colours apart."""

    material: str
    name: str
    colour: str
    hex: str
    ml: float
    g: float


@dataclass(frozen=True)
class Totals(Value):
    """The plan's mixes and materials, the most first."""

    mixes: tuple[MixTotal, ...]
    materials: tuple[MaterialTotal, ...]


def lots_of(part: Part) -> list[tuple[str, str, float, float]]:
    """The paints a part is mixed from, or the part itself: colour, how it is drawn, ml and g of each."""
    lots = [(paint.name, paint.hex, paint.ml, paint.g) for paint in part.paints]
    return lots or [(part.colour, part.hex, part.poured.value, part.mass.value)]


def total_up(mixes: Sequence[Mix]) -> Totals:
    """Totals by mix (recipe, shares and colours alike) and by material (colours apart; water is water)."""
    by_mix: dict[tuple[object, ...], MixTotal] = {}
    by_material: dict[tuple[str, str], MaterialTotal] = {}
    for mix in mixes:
        first = next((p for p in mix.parts if p.role in {"paint", "pigment"}), mix.parts[0])
        key = (mix.recipe, *((p.component, round(p.share, 6), p.colour, p.hex) for p in mix.parts))
        had = by_mix.get(key)
        by_mix[key] = MixTotal(
            mix.recipe,
            mix.name,
            first.colour,
            first.hex,
            mix.volume.value + (had.ml if had else 0.0),
            mix.mass_g + (had.g if had else 0.0),
            1 + (had.pots if had else 0),
        )
        for part in mix.parts:
            for colour, shade, ml, g in lots_of(part):
                tinted = part.role in {"paint", "pigment"}
                where = (part.material, f"{colour} {shade}" if tinted else "")
                been = by_material.get(where)
                by_material[where] = MaterialTotal(
                    part.material,
                    part.name,
                    colour if tinted else "",
                    shade,
                    ml + (been.ml if been else 0.0),
                    g + (been.g if been else 0.0),
                )
    return Totals(
        tuple(sorted(by_mix.values(), key=lambda t: -t.ml)), tuple(sorted(by_material.values(), key=lambda t: -t.g))
    )
