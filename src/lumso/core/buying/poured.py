"""What the log says was poured, as uses, and from what; and the batches nothing is needed for any more."""

from collections.abc import Mapping, Sequence
from math import inf

from ..book.materials import Material
from ..days.facts import facts_of
from ..log.acts import Begun, Poured
from ..log.event import Event, standing
from ..workshop.shelf import ShelfItem
from .lots import Lot, LotUse, use_of

NEEDED_NO_MORE = ("begun", "done", "skipped")
"""What was noted of mixing, after which nothing is needed for it."""


def mixed(of: Sequence[Event], job: str) -> frozenset[str]:
    """The operations of a job nothing is needed for any more: noted so, or a pot was begun for them."""
    noted = {o for o, f in facts_of(of, job).items() if f.did in NEEDED_NO_MORE}
    return frozenset(noted | {e.operation for e in standing(of) if isinstance(e.act, Begun)})


def poured_uses(of: Sequence[Event]) -> list[LotUse]:
    """What was poured, in the order it was first noted."""
    return [
        use_of(e.at_min, a.stuff.material, a.stuff.role, a.stuff.colour, a.stuff.hex, a.g / a.stuff.bulk_density, a.g,
               e.job)
        for e in standing(of)
        if isinstance(a := e.act, Poured)
    ]  # fmt: skip


def shelf_lots(shelf: Sequence[ShelfItem], materials: Mapping[str, Material]) -> tuple[Lot, ...]:
    """What the shelf holds beside what was bought here, as lots: of paint, in the colour the material has itself. What
    was never counted stays as it was said, whatever is poured."""
    found = []
    for item in shelf:
        material = materials.get(item.slug)
        if material is None or item.on_hand <= 0:
            continue
        hex_ = material.hex if material.role in {"paint", "pigment"} else ""
        counted = inf if item.counted_min is None else item.counted_min
        found.append(Lot(f"shelf:{item.slug}"[:80], item.slug, material.name, item.unit, item.on_hand, item.on_hand,
                         counted, hex=hex_))  # fmt: skip
    return tuple(found)
