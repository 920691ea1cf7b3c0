"""New jobs: on a piece from a few answers, a quick pot, a sample, or one that is there once more."""

from dataclasses import dataclass, replace
from pathlib import Path
from typing import Literal

from lumso.core.edits.beginning import Beginning, begun, sizes_said
from lumso.core.job.job import Answered
from lumso.core.job.start import start_pot
from lumso.core.measure.lengths import bare_unit
from lumso.formats import jobfile
from lumso.formats.names import refuse_hidden
from lumso.store.ids import new_id

from .context import Context
from .jobs import Opened, at_head, create

SAMPLE = Path(__file__).parents[1] / "demo" / "jobs" / "programme-rack.json"
MOST_NAME = 100
QUICK = "paint-wash-raw-wood"
"""The mix of a quick pot that nobody chose one for."""
Lead = Literal["not tested", "test planned", "none found", "found", "never coated"]


@dataclass(frozen=True)
class Start:
    """What a new job starts from: with `ml` it is a quick pot of a recipe, with None a piece.

    Of a piece each answer may be "": sizes (as they are said) are usual ones then, the ground is not known, nothing
    goes on it yet, and its name is the one it has of itself.
    """

    ml: float | None
    recipe: str
    form: str
    sizes: str
    ground: str
    lead: Lead
    finish: str
    name: str


def begin(start: Start, key: str, here: Context) -> Opened:
    """A new job on a piece, or a quick pot. Raises InvalidValue, UnknownEntry."""
    refuse_hidden({"name": start.name})
    book = here.known()
    if start.ml is not None:
        job = start_pot(new_id(), new_id(), start.recipe or QUICK, start.ml, book)
    else:
        bare = bare_unit(here.workshop().measures)
        sizes = sizes_said(start.form, start.sizes, bare, book)
        told = Beginning(new_id(), start.form, sizes, start.ground, Answered(start.lead), start.finish, start.recipe)
        job = begun(told, book, here.room(), bare).job
    return create(replace(job, name=start.name or job.name), here, key)


def sample(key: str, here: Context) -> Opened:
    """A made-up job to look at, and to throw away: an ordinary one from then on."""
    made = jobfile.from_json(SAMPLE.read_text(encoding="utf-8"), "The sample")
    return create(replace(made, name="A sample: rack"), here, key)


def copy(job_id: str, key: str, here: Context) -> Opened:
    """A job once more, as a new one of its own: what was mixed and noted stays with the first. Raises NotFound."""
    job = at_head(job_id, here)
    return create(replace(job, name=f"{job.name[:MOST_NAME]}, again"), here, key)
