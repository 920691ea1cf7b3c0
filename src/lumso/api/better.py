"""What the workshop knows better than the book, of films, techniques, grounds and all the rest; put back at will."""

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.book.catalogue import ORDERED, pick
from lumso.core.workshop.better import FIELDS, Better, Kind, checked, value_of
from lumso.services.context import Context

from .context import Here

router = APIRouter(tags=["workshop"])


class BetterIn(BaseModel):
    """A value, and where it is from."""

    model_config = ConfigDict(extra="forbid")
    value: Annotated[float, Field(ge=0, allow_inf_nan=False)]
    source: Literal["label", "measured"]
    on: Annotated[str, Field(max_length=10)]


class BetterValue(BaseModel):
    """A value of an entry: as it is now, as the book starts with it (None is unknown), and where it comes from."""

    field: str
    name: str
    unit: str
    least: float
    most: float
    value: float | None
    starting: float | None
    source: str


class BetterEntry(BaseModel):
    """An entry of the book with what can be known better of it."""

    kind: Kind
    slug: str
    name: str
    values: list[BetterValue]


def _entries(here: Context) -> list[BetterEntry]:
    book, known = here.book(), {(b.kind, b.slug, b.field): b for b in here.workshop().better}
    found = []
    for kind, bounds in FIELDS.items():
        held = getattr(book, kind)
        for entry in held if kind in ORDERED else held.values():
            values = []
            for field, bound in bounds.items():
                mine = known.get((kind, entry.slug, field))
                start = value_of(entry, field)
                values.append(
                    BetterValue(
                        field=field,
                        name=bound.name,
                        unit=bound.unit,
                        least=bound.least,
                        most=bound.most,
                        value=mine.value if mine else start,
                        starting=start,
                        source=f"{mine.source}, {mine.on}" if mine else "starting value",
                    )
                )
            found.append(BetterEntry(kind=kind, slug=entry.slug, name=entry.name, values=values))
    return found


def _but(known: tuple[Better, ...], kind: Kind, slug: str, field: str) -> list[Better]:
    """What is known better, but for one value."""
    return [b for b in known if (b.kind, b.slug, b.field) != (kind, slug, field)]


@router.get("/better")
def get_better(here: Here) -> list[BetterEntry]:
    """Every entry of the book, materials aside, with what can be known better of it."""
    return _entries(here)


@router.put("/better/{kind}/{slug}/{field}", status_code=204)
def put_better(kind: Kind, slug: str, field: str, given: BetterIn, here: Here) -> None:
    """Know a value better: it counts in every job from now on."""
    held = getattr(here.book(), kind)
    pick(kind, {e.slug: e for e in held} if kind in ORDERED else held, slug)
    mine = checked(Better(kind, slug, field, given.value, given.source, given.on))
    here.know_better(lambda known: (*_but(known, kind, slug, field), mine))


@router.delete("/better/{kind}/{slug}/{field}", status_code=204)
def delete_better(kind: Kind, slug: str, field: str, here: Here) -> None:
    """Put the starting value back."""
    here.know_better(lambda known: _but(known, kind, slug, field))
