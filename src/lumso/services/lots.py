"""What stands in the workshop by what was bought, counted and poured."""

from collections.abc import Sequence
from dataclasses import asdict
from math import inf

from lumso.core.buying.lots import Lot, LotUse, drawn
from lumso.core.buying.poured import poured_uses, shelf_lots
from lumso.core.errors import InvalidValue
from lumso.formats.names import refuse_hidden
from lumso.formats.workshop import document
from lumso.store import entries, events

from .context import Context
from .noting import event_of


def keep_lot(slug: str, lot: Lot, read: int, key: str, here: Context) -> int:
    """Put what was bought on the shelf, or say what is left of it; its revision. Raises InvalidValue, StaleRevision."""
    refuse_hidden(asdict(lot))
    if lot.slug != slug:
        raise InvalidValue("The lot and its address differ.", value=lot.slug, allowed=slug, field="slug")
    if lot.left > lot.whole + 1e-9:
        raise InvalidValue(f"{lot.left:g} {lot.unit} are more than was bought.", value=lot.left, field="left",
                           allowed=f"0 to {lot.whole:g} {lot.unit}")  # fmt: skip
    return entries.save(here.db, "lot", slug, read, document("lot", lot), key)


def poured_since(here: Context, lots: Sequence[Lot]) -> list[LotUse]:
    """What was poured since the first of the lots was counted."""
    first = min((lot.counted_min for lot in lots), default=inf)
    return [] if first == inf else poured_uses([event_of(e) for e in events.of_acts(here.db, "poured", first)])


def on_shelf_now(here: Context) -> dict[str, float]:
    """What is on hand now of each material on the shelf, in its unit, by what was poured since it was counted."""
    lots = shelf_lots(here.workshop().shelf, here.known().materials)
    both = (*here.lots(), *lots)
    left, _ = drawn(both, poured_since(here, both))
    return {lot.item: left[lot.slug] for lot in lots}
