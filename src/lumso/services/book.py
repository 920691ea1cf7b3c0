"""The recipe book: recipes worked out for an amount, recipes of one's own, and workshop files in and out."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Literal

from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.book.recipes import Recipe
from lumso.core.job.job import FromPart, FromTotal, FromVessel
from lumso.core.mixing.fillings import KitAnswer
from lumso.core.mixing.recipe_page import Sheet, sheet
from lumso.formats import workshop as files
from lumso.formats.names import with_names_cleaned
from lumso.formats.workshop import Arrival, WorkshopFile, document
from lumso.store import entries
from lumso.store.entries import Kind

from .beside import Beside, aside
from .context import Context
from .printing import in_use, measured
from .workshop import same

OnClash = Literal["ask", "keep mine", "take theirs"]
Export = Literal["recipes", "kits", "shelf", "workshop"]


@dataclass(frozen=True)
class Amount:
    """A recipe, by slug or as a draft, in one of its schools ("" for its own), and how much of it."""

    recipe: str | Recipe
    school: str
    want: FromTotal | FromPart | FromVessel


def work_out(asked: Amount, here: Context) -> Sheet:
    """A recipe worked out for an amount. Raises UnknownEntry, InvalidValue."""
    recipe = asked.recipe if isinstance(asked.recipe, Recipe) else pick("recipe", here.known().recipes, asked.recipe)
    return sheet(recipe, asked.school, asked.want, here.workshop(), here.catalogue)


async def measure(asked: Amount, kit: str | None, here: Context, beside: Beside) -> KitAnswer:
    """How to measure a recipe worked out for an amount with a kit, the one in use for None: least waste first."""
    made = await aside(work_out, asked, here)
    return (await measured([made.mix], in_use(here, kit), here, beside))[0]


def keep_recipe(slug: str, recipe: Recipe, read: int, key: str, here: Context) -> int:
    """Keep a recipe as one's own; its revision. It must be sound, and must not take the slug of a shipped one.

    Raises InvalidValue, UnfitDocument, StaleRevision.
    """
    same(slug, recipe.slug, "recipe")
    files.check(WorkshopFile("lumso-workshop-file", 1, recipes=(recipe,)), _base(here), recipe.name)
    return entries.save(here.db, "recipe", slug, read, document("recipe", recipe), key)


def _base(here: Context) -> Catalogue:
    """The shipped catalogue with the materials on the shelf: what a file may refer to."""
    return replace(here.catalogue, materials=here.known().materials)


def export(what: Export, here: Context) -> str:
    """Recipes, kits or shelf of one's own, or all of them, as a workshop file."""
    w = here.workshop()
    return files.to_json(
        WorkshopFile(
            "lumso-workshop-file",
            1,
            recipes=w.recipes if what in ("recipes", "workshop") else (),
            kits=w.kits if what in ("kits", "workshop") else (),
            shelf=w.shelf if what in ("shelf", "workshop") else (),
        )
    )


def export_shelf(here: Context) -> str:
    """The shelf as a table, CSV."""
    return files.shelf_to_csv(here.workshop(), here.catalogue)


@dataclass(frozen=True)
class TakenUp:
    """What a file holds beside the workshop, and how many entries were taken from it; None where it asks first."""

    arrivals: tuple[Arrival, ...]
    taken: int | None


def take_up(name: str, text: str, on_clash: OnClash, here: Context) -> TakenUp:
    """Take up a workshop file, or a shelf as CSV. What is there already as it is changes nothing; a clash asks.

    Raises UnfitDocument, StaleRevision.
    """
    seen = here.revisions()
    base, workshop = _base(here), here.workshop()
    if name.lower().endswith(".csv"):
        today = datetime.fromtimestamp(here.now_min() * 60, UTC).date().isoformat()
        file = files.shelf_from_csv(text, workshop, base, today, name)
    else:
        file = files.from_json(with_names_cleaned(text), base, name)
    found = files.arrivals(file, workshop)
    if on_clash == "ask" and any(a.state == "clash" for a in found):
        return TakenUp(tuple(found), None)
    takes = {"new", "clash"} if on_clash == "take theirs" else {"new"}
    taking = {(a.kind, a.slug) for a in found if a.state in takes}
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
    return TakenUp(tuple(found), len(rows))
