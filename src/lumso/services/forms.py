"""Pieces by their everyday words: what there is to begin with, and what one of them looks like with its sizes."""

from pydantic import BaseModel

from lumso.core.book.forms import Form
from lumso.core.edits.beginning import Beginning, begun, sizes_said
from lumso.core.job.areas import measure
from lumso.core.measure.drawing import Drawing
from lumso.core.measure.lengths import Length, bare_unit
from lumso.core.piece.kinds import kind_of

from .context import Context


class FormSize(BaseModel):
    """A size a piece asks for, as it is now: typed, or usual."""

    slug: str
    name: str
    length: Length


class FormOut(BaseModel):
    """A piece by its everyday word, drawn with the sizes it usually has or was given."""

    form: Form
    sizes: list[FormSize]
    drawing: Drawing | None
    area_m2: float
    """Of all that is usually coated."""


def form_with(slug: str, typed: str, here: Context) -> FormOut:
    """A piece with sizes as they are said, in the order it asks for them; usual ones with "". Raises InvalidValue."""
    bare, book = bare_unit(here.workshop().measures), here.known()
    job = begun(Beginning("look", slug, sizes_said(slug, typed, bare, book)), book, here.room(), bare).job
    measured, piece = measure(job), job.piece
    assert piece
    names = {s.slug: s.name for s in kind_of(piece.kind).sizes}
    coated = {s for zone in job.zones for s in zone.surfaces}
    return FormOut(
        form=book.forms[slug],
        sizes=[FormSize(slug=s, name=names[s], length=length) for s, length in piece.sizes.items()],
        drawing=measured.drawing,
        area_m2=sum(s.area_m2 for slug, s in measured.surfaces.items() if slug in coated),
    )


def every_form(here: Context) -> list[FormOut]:
    """Every piece there is a word for, drawn with its usual sizes."""
    measures = here.workshop().measures
    return here.memo.recall(
        "forms", (here.catalogue, measures), lambda: [form_with(slug, "", here) for slug in here.catalogue.forms]
    )
