"""What a job is called before anybody has named it: the piece, and what it becomes."""

from ..book.catalogue import Catalogue
from ..errors import UnknownEntry
from ..piece.kinds import kind_of
from .job import Job

UNNAMED = "New job"


def name_of(job: Job, catalogue: Catalogue) -> str:
    """The name a job has of itself: bedside table, chippy milk paint. The finish, or else the first mix, is that of
    its first zone."""
    if job.piece is None:
        return job.name
    form = catalogue.forms.get(job.piece.form)
    try:
        piece = form.name if form else kind_of(job.piece.kind).name
    except UnknownEntry:
        return job.name
    first = job.zones[0]
    finish = catalogue.finishes.get(first.finish)
    recipe = catalogue.recipes.get(first.layers[0].recipe) if first.layers else None
    named = finish or recipe
    return f"{piece}, {named.name[:1].lower()}{named.name[1:]}" if named else piece
