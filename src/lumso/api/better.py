"""What the workshop knows better than the book, of films, techniques, grounds and all the rest; put back at will."""

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.workshop.better import Better, Kind
from lumso.services import workshop
from lumso.services.workshop import BetterEntry

from .context import Here

router = APIRouter(tags=["workshop"])


class BetterIn(BaseModel):
    """A value, and where it is from."""

    model_config = ConfigDict(extra="forbid")
    value: Annotated[float, Field(ge=0, allow_inf_nan=False)]
    source: Literal["label", "measured"]
    on: Annotated[str, Field(max_length=10)]


@router.get("/better")
def get_better(here: Here) -> list[BetterEntry]:
    """Every entry of the book, materials aside, with what can be known better of it."""
    return workshop.better_entries(here)


@router.put("/better/{kind}/{slug}/{field}", status_code=204)
def put_better(kind: Kind, slug: str, field: str, given: BetterIn, here: Here) -> None:
    """Know a value better: it counts in every job from now on."""
    workshop.know_better(Better(kind, slug, field, given.value, given.source, given.on), here)


@router.delete("/better/{kind}/{slug}/{field}", status_code=204)
def delete_better(kind: Kind, slug: str, field: str, here: Here) -> None:
    """Put the starting value back."""
    workshop.put_back(kind, slug, field, here)
