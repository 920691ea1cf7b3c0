"""The recipe book: a recipe worked out for an amount, recipes of one's own, tinting; and files in and out."""

from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Literal

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field

from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.book.recipes import Recipe
from lumso.core.errors import InvalidValue
from lumso.core.job.job import FromPart, FromTotal, FromVessel
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.mixing.recipe_page import Sheet, sheet
from lumso.core.mixing.tinting import TintStep, strengthen
from lumso.formats import workshop as files
from lumso.formats.names import with_names_cleaned
from lumso.formats.workshop import Arrival, WorkshopFile, document
from lumso.services.context import Context
from lumso.store import entries
from lumso.store.entries import Kind

from .air import now_min
from .bodies import RecipeBody
from .context import Here, IfMatch, Key, read_revision
from .door import MOST_BYTES
from .sheets import in_use, measured

router = APIRouter(tags=["book"])

Number = Annotated[float, Field(allow_inf_nan=False)]


class SheetIn(BaseModel):
    """A recipe, by slug or as a draft, and how much of it."""

    model_config = ConfigDict(extra="forbid")
    sequence: int
    recipe: str | Recipe
    school: str = ""
    want: FromTotal | FromPart | FromVessel


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
    on_clash: Literal["ask", "keep mine", "take theirs"] = "ask"


class FileOut(BaseModel):
    """What the file holds beside the workshop, and how many entries were taken from it."""

    arrivals: list[Arrival]
    taken: int
    asks: bool


@router.post("/sheet")
def work_out(asked: SheetIn, here: Here) -> SheetOut:
    """A recipe worked out for an amount. Keeps nothing."""
    recipe = asked.recipe if isinstance(asked.recipe, Recipe) else pick("recipe", here.known().recipes, asked.recipe)
    made = sheet(recipe, asked.school, asked.want, here.workshop(), here.catalogue)
    return SheetOut(sequence=asked.sequence, sheet=made)


class SheetMeasureIn(SheetIn):
    """A recipe worked out, and the kit to measure it with: the one in use when it is left out."""

    sequence: int = 0
    kit: str | None = None


@router.post("/sheet/measure")
async def measure_sheet(asked: SheetMeasureIn, request: Request, here: Here) -> KitAnswer:
    """How to measure a recipe worked out for an amount: the trade-offs, least waste first. Keeps nothing."""
    made = await run_in_threadpool(work_out, asked, here)
    return (await measured([made.sheet.mix], in_use(here, asked.kit), request, here))[0]


@router.put("/recipes/{slug:path}")
def put_recipe(slug: str, body: RecipeBody, here: Here, response: Response, if_match: IfMatch,
               key: Key) -> RecipeBody:  # fmt: skip
    """Keep a recipe as one's own. It must be sound, and must not take the slug of a shipped one."""
    recipe = body.root
    if recipe.slug != slug:
        raise InvalidValue("The recipe and its address differ.", value=recipe.slug, allowed=slug, field="slug")
    files.check(WorkshopFile("lumso-workshop-file", 1, recipes=(recipe,)), _base(here), recipe.name)
    made = entries.save(here.db, "recipe", slug, read_revision(if_match), document("recipe", recipe), key)
    response.headers["ETag"] = f'"{made}"'
    return body


@router.delete("/recipes/{slug:path}", status_code=204)
def delete_recipe(slug: str, here: Here, if_match: IfMatch, key: Key) -> None:
    """Take a recipe of one's own out of the book. Jobs that use it carry it with them."""
    entries.delete(here.db, "recipe", slug, read_revision(if_match), key)


@router.post("/tint")
def tint(asked: TintIn) -> list[TintStep]:
    """Additions that take a tin from one strength to another, stepwise. Keeps nothing."""
    return list(strengthen(asked.tin_g, asked.share, asked.target, asked.steps))


def _base(here: Context) -> Catalogue:
    """The shipped catalogue with the materials on the shelf: what a file may refer to."""
    return replace(here.catalogue, materials=here.known().materials)


def _export(here: Context, what: str) -> WorkshopFile:
    w = here.workshop()
    return WorkshopFile(
        "lumso-workshop-file",
        1,
        recipes=w.recipes if what in ("recipes", "workshop") else (),
        kits=w.kits if what in ("kits", "workshop") else (),
        shelf=w.shelf if what in ("shelf", "workshop") else (),
    )


@router.get("/export/{what}.json")
def export_json(what: Literal["recipes", "kits", "shelf", "workshop"], here: Here) -> Response:
    """Recipes, kits or shelf of one's own, or all of them, as a workshop file."""
    headers = {"Content-Disposition": f'attachment; filename="lumso-{what}.json"'}
    return Response(files.to_json(_export(here, what)), media_type="application/json", headers=headers)


@router.get("/export/shelf.csv", response_class=Response, responses={200: {"content": {"text/csv": {}}}})
def export_csv(here: Here) -> Response:
    """The shelf as a table."""
    headers = {"Content-Disposition": 'attachment; filename="lumso-shelf.csv"'}
    text = files.shelf_to_csv(here.workshop(), here.catalogue)
    return Response(text, media_type="text/csv; charset=utf-8", headers=headers)


@router.post("/import")
def import_file(given: FileIn, here: Here, request: Request) -> FileOut:
    """Take up a workshop file, or a shelf as CSV. What is there already as it is changes nothing; a clash asks."""
    seen = here.revisions()
    base, workshop = _base(here), here.workshop()
    if given.name.lower().endswith(".csv"):
        today = datetime.fromtimestamp(now_min(request) * 60, UTC).date().isoformat()
        file = files.shelf_from_csv(given.text, workshop, base, today, given.name)
    else:
        file = files.from_json(with_names_cleaned(given.text), base, given.name)
    found = files.arrivals(file, workshop)
    clashes = any(a.state == "clash" for a in found)
    if clashes and given.on_clash == "ask":
        return FileOut(arrivals=list(found), taken=0, asks=True)
    taking = {(a.kind, a.slug) for a in found if a.state == "new"}
    if given.on_clash == "take theirs":
        taking |= {(a.kind, a.slug) for a in found if a.state == "clash"}
    kinds: tuple[tuple[Kind, tuple[object, ...]], ...] = (
        ("recipe", file.recipes),
        ("kit", file.kits),
        ("shelf", file.shelf),
    )
    rows: list[tuple[Kind, str, str]] = [
        (kind, slug, document(kind, entry))
        for kind, held in kinds
        for entry in held
        if (kind, slug := str(getattr(entry, "slug", ""))) in taking
    ]
    if rows:
        entries.put(here.db, rows, {(kind, slug): seen.get((kind, slug), 0) for kind, slug, _ in rows})
    return FileOut(arrivals=list(found), taken=len(rows), asks=False)
