"""The recipe book: a recipe worked out for an amount, recipes of one's own, tinting; and files in and out."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.book.recipes import Recipe
from lumso.core.job.job import FromPart, FromTotal, FromVessel
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.mixing.recipe_page import Sheet
from lumso.core.mixing.tinting import TintStep, strengthen
from lumso.formats.workshop import Arrival
from lumso.services import book, workshop
from lumso.services.book import Amount, Export, OnClash

from .bodies import RecipeBody
from .context import Here, IfMatch, Key, read_revision
from .door import MOST_BYTES
from .replies import file_reply
from .workers import BesideIt

router = APIRouter(tags=["book"])

Number = Annotated[float, Field(allow_inf_nan=False)]


class SheetIn(BaseModel):
    """A recipe, by slug or as a draft, and how much of it."""

    model_config = ConfigDict(extra="forbid")
    sequence: int
    recipe: str | Recipe
    school: str = ""
    want: FromTotal | FromPart | FromVessel

    def amount(self) -> Amount:
        """What is asked of the service."""
        return Amount(self.recipe, self.school, self.want)


class SheetOut(BaseModel):
    sequence: int
    sheet: Sheet


class TintIn(BaseModel):
    """What is in the tin now, and how strong it should be, as shares by weight."""

    model_config = ConfigDict(extra="forbid")
    tin_g: Number
    share: Number
    target: Number
    steps: Annotated[int, Field(ge=1, le=10)] = 3


class FileIn(BaseModel):
    """A file's text. `on_clash` "ask" only looks, and keeps nothing as long as something clashes."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(max_length=200)]
    text: Annotated[str, Field(max_length=MOST_BYTES)]
    on_clash: OnClash = "ask"


class FileOut(BaseModel):
    """What the file holds beside the workshop, and how many entries were taken from it."""

    arrivals: list[Arrival]
    taken: int
    asks: bool


@router.post("/sheet")
def work_out(asked: SheetIn, here: Here) -> SheetOut:
    """A recipe worked out for an amount. Keeps nothing."""
    return SheetOut(sequence=asked.sequence, sheet=book.work_out(asked.amount(), here))


class SheetMeasureIn(SheetIn):
    """A recipe worked out, and the kit to measure it with: the one in use when it is left out."""

    sequence: int = 0
    kit: str | None = None


@router.post("/sheet/measure")
async def measure_sheet(asked: SheetMeasureIn, here: Here, beside: BesideIt) -> KitAnswer:
    """How to measure a recipe worked out for an amount: the trade-offs, least waste first. Keeps nothing."""
    return await book.measure(asked.amount(), asked.kit, here, beside)


@router.put("/recipes/{slug:path}")
def put_recipe(slug: str, body: RecipeBody, here: Here, response: Response, if_match: IfMatch,
               key: Key) -> RecipeBody:  # fmt: skip
    """Keep a recipe as one's own. It must be sound, and must not take the slug of a shipped one."""
    response.headers["ETag"] = f'"{book.keep_recipe(slug, body.root, read_revision(if_match), key, here)}"'
    return body


@router.delete("/recipes/{slug:path}", status_code=204)
def delete_recipe(slug: str, here: Here, if_match: IfMatch, key: Key) -> None:
    """Take a recipe of one's own out of the book. Jobs that use it carry it with them."""
    workshop.take_out("recipe", slug, read_revision(if_match), key, here)


@router.post("/tint")
def tint(asked: TintIn) -> list[TintStep]:
    """Additions that take a tin from one strength to another, stepwise. Keeps nothing."""
    return list(strengthen(asked.tin_g, asked.share, asked.target, asked.steps))


@router.get("/export/{what}.json")
def export_json(what: Export, here: Here) -> Response:
    """Recipes, kits or shelf of one's own, or all of them, as a workshop file."""
    return file_reply(book.export(what, here), "application/json", f"lumso-{what}.json")


@router.get("/export/shelf.csv", response_class=Response, responses={200: {"content": {"text/csv": {}}}})
def export_csv(here: Here) -> Response:
    """The shelf as a table."""
    return file_reply(book.export_shelf(here), "text/csv; charset=utf-8", "lumso-shelf.csv")


@router.post("/import")
def import_file(given: FileIn, here: Here) -> FileOut:
    """Take up a workshop file, or a shelf as CSV. What is there already as it is changes nothing; a clash asks."""
    made = book.take_up(given.name, given.text, given.on_clash, here)
    return FileOut(arrivals=list(made.arrivals), taken=made.taken or 0, asks=made.taken is None)
