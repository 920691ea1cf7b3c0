"""Lots: what was bought and stands in the workshop."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import Field

from lumso.core.buying.lots import Lot
from lumso.services import lots, workshop

from .context import Here, IfMatch, Key, read_revision

router = APIRouter(tags=["buying"])

LotSlug = Annotated[str, Field(max_length=80)]


@router.put("/lots/{slug}")
def put_lot(slug: LotSlug, lot: Lot, here: Here, response: Response, if_match: IfMatch, key: Key) -> Lot:
    """Put what was bought on the shelf, or say what is left of it."""
    response.headers["ETag"] = f'"{lots.keep_lot(slug, lot, read_revision(if_match), key, here)}"'
    return lot


@router.delete("/lots/{slug}", status_code=204)
def delete_lot(slug: LotSlug, here: Here, if_match: IfMatch, key: Key) -> None:
    """Take back that something was bought."""
    workshop.take_out("lot", slug, read_revision(if_match), key, here)
