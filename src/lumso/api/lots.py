"""Lots: what was bought and stands in the workshop, what the shelf says beside it, and what was poured from both."""

from collections.abc import Sequence
from dataclasses import asdict
from math import inf
from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from lumso.core.buying.lots import Lot, Use, drawn
from lumso.core.buying.poured import poured_uses, shelf_lots
from lumso.core.errors import InvalidValue
from lumso.formats.names import refuse_hidden
from lumso.formats.workshop import document
from lumso.services.context import Context
from lumso.store import entries, events

from .context import Here, IfMatch, Key, read_revision
from .noting import event_of

router = APIRouter(tags=["buying"])


class LotOut(BaseModel):
    """What was bought, and what is left of it now by what was poured since it was counted."""

    lot: Lot
    revision: int
    left_now: float
    free: float
    """What is not promised."""
    paid: str


LotSlug = Annotated[str, Field(max_length=80)]


@router.put("/lots/{slug}")
def put_lot(slug: LotSlug, lot: Lot, here: Here, response: Response, if_match: IfMatch, key: Key) -> Lot:
    """Put what was bought on the shelf, or say what is left of it."""
    refuse_hidden(asdict(lot))
    if lot.slug != slug:
        raise InvalidValue("The lot and its address differ.", value=lot.slug, allowed=slug, field="slug")
    if lot.left > lot.whole + 1e-9:
        raise InvalidValue(f"{lot.left:g} {lot.unit} are more than was bought.", value=lot.left, field="left",
                           allowed=f"0 to {lot.whole:g} {lot.unit}")  # fmt: skip
    made = entries.save(here.db, "lot", slug, read_revision(if_match), document("lot", lot), key)
    response.headers["ETag"] = f'"{made}"'
    return lot


@router.delete("/lots/{slug}", status_code=204)
def delete_lot(slug: LotSlug, here: Here, if_match: IfMatch, key: Key) -> None:
    """Take back that something was bought."""
    entries.delete(here.db, "lot", slug, read_revision(if_match), key)


def poured_since(here: Context, lots: Sequence[Lot]) -> list[Use]:
    """What was poured since the first of the lots was counted."""
    first = min((lot.counted_min for lot in lots), default=inf)
    return [] if first == inf else poured_uses([event_of(e) for e in events.of_acts(here.db, "poured", first)])


def on_shelf_now(here: Context) -> dict[str, float]:
    """What is on hand now of each material on the shelf, in its unit, by what was poured since it was counted."""
    lots = shelf_lots(here.workshop().shelf, here.known().materials)
    both = (*here.lots(), *lots)
    left, _ = drawn(both, poured_since(here, both))
    return {lot.item: left[lot.slug] for lot in lots}
