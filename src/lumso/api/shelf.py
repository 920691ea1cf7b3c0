"""The shelf: materials with what is known of them here, what is on hand, and what was weighed."""

from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.workshop.shelf import density_from_weighing
from lumso.services import workshop
from lumso.services.workshop import ShelfLine, ShelfOut

from .bodies import ShelfBody
from .context import Here, IfMatch, Key, read_revision

router = APIRouter(tags=["workshop"])


class WeighingIn(BaseModel):
    """A level measure of `ml` that weighs `grams`."""

    model_config = ConfigDict(extra="forbid")
    grams: Annotated[float, Field(allow_inf_nan=False)]
    ml: Annotated[float, Field(allow_inf_nan=False)]


class DensityOut(BaseModel):
    density: float


@router.get("/shelf")
def get_shelf(
    here: Here,
    on: bool | None = None,
    search: Annotated[str, Query(max_length=200)] = "",
    after: Annotated[str, Query(max_length=15, pattern="^[0-9]*$")] = "",
    most: Annotated[int, Query(ge=1, le=200)] = 40,
) -> ShelfOut:
    """Materials by name, with what the shelf knows of them: those on it, those not, or all; a page of them."""
    return workshop.shelf(on, search, int(after or 0), most, here)


@router.put("/shelf/{slug:path}")
def put_shelf_item(slug: str, body: ShelfBody, here: Here, response: Response, if_match: IfMatch,
                   key: Key) -> ShelfLine:  # fmt: skip
    """Put a material on the shelf, or change what is known of it."""
    line = workshop.keep_on_shelf(slug, body.root, read_revision(if_match), key, here)
    response.headers["ETag"] = f'"{line.revision}"'
    return line


@router.delete("/shelf/{slug:path}", status_code=204)
def delete_shelf_item(slug: str, here: Here, if_match: IfMatch, key: Key) -> None:
    """Take a material off the shelf: every value of its own is put back."""
    workshop.take_off_shelf(slug, read_revision(if_match), key, here)


@router.post("/shelf/density")
def weigh_level_cup(weighing: WeighingIn) -> DensityOut:
    """The density that weighing a level measure gives, or why that cannot be right."""
    return DensityOut(density=density_from_weighing(weighing.grams, weighing.ml))
