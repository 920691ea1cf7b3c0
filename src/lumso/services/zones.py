"""One zone of a job that is on the screen: where it is tried out, what the advisers say of it, its test boards."""

from functools import partial
from itertools import chain, count

from lumso.core.advice import Advice, Trial, advise, trial
from lumso.core.advice.library import Shelved, shelved
from lumso.core.boards.board import plan_board
from lumso.core.boards.offers import Offered, ladders_for, reasons
from lumso.core.boards.stepping import Stepped, one_pot
from lumso.core.boards.taught import Taught, taught
from lumso.core.errors import InvalidValue
from lumso.core.job.areas import measure
from lumso.core.job.board import Ladder
from lumso.core.job.entries import embed
from lumso.core.job.job import Job, Zone
from lumso.core.job.laying import laying_of, with_shares
from lumso.core.look.look import Look
from lumso.core.work.effort import Effort, effort
from lumso.core.work.steps import Procedure, steps_of

from .context import Context
from .printing import Paper


def zone_of(job: Job, zone: str, here: Context) -> tuple[Zone, Trial]:
    """The zone that is meant, and where it is tried out. Raises InvalidValue."""
    index = next((i for i, z in enumerate(job.zones) if z.id == zone), None)
    if index is None:
        known = ", ".join(z.id for z in job.zones)
        raise InvalidValue(f"The job has no zone {zone!r}.", value=zone, allowed=known, field="zone")
    job = with_shares(job, laying_of(job, measure(job)))
    return job.zones[index], trial(job, index, here.known_for(job), here.room())


def layer_at(zone: Zone, layer: str, field: str) -> int:
    """The position of the layer that is meant. Raises InvalidValue."""
    ids = [x.id for x in zone.layers]
    if layer not in ids:
        raise InvalidValue(f"There is no layer {layer!r}.", value=layer, allowed=", ".join(ids) or "none", field=field)
    return ids.index(layer)


def efforts(here: Context) -> dict[str, Effort]:
    """What each finish of the library takes, on the first ground it is for."""
    return {
        slug: here.memo.recall(("effort", slug), (finish, here.catalogue), partial(effort, finish, here.catalogue))
        for slug, finish in here.catalogue.finishes.items()
    }


def advice_on(job: Job, zone: str, here: Context) -> Advice:
    """What the advisers say: preparation, sealers, grits, sag, coats. Raises InvalidValue."""
    meant, bench = zone_of(job, zone, here)
    return advise(meant, bench, (f"tried-{n}" for n in count()))


def finishes_for(job: Job, zone: str, here: Context) -> list[Shelved]:
    """The finishes of the library for a zone, those that suit it first, with why the others do not. Raises
    InvalidValue."""
    meant, bench = zone_of(job, zone, here)
    return list(shelved(meant, bench.use, bench.catalogue))


def steps(job: Job, here: Context) -> Procedure:
    """The whole job as ordered steps, with the kit to lay out first."""
    return steps_of(here.work(job), here.room())


def board_for(job: Job, job_id: str, zone: str, ladders: tuple[Ladder, ...], seed: str, here: Context) -> Job:
    """A test board for a zone: the same ground, prepared, laid, dried and sealed as the piece will be. `seed` is a name
    no id was ever made of, `job_id` where the job is kept. Raises InvalidValue."""
    kit = here.known().kits[here.workshop().kit]
    ids = chain((seed,), (f"{seed}-{n}" for n in count(2)))
    made = plan_board(job, job_id, zone, ladders, kit, here.known_for(job), ids)
    return embed(made, here.book())


def board_offers(job: Job, zone: str, layer: str, here: Context) -> tuple[tuple[str, ...], tuple[Offered, ...]]:
    """Why a board is worth painting for a layer, and what can be tried on it. Raises InvalidValue."""
    meant, bench = zone_of(job, zone, here)
    look = Look(bench.stack(meant))
    return reasons(look), ladders_for(look, layer_at(meant, layer, "layer"))


def board_taught(board: Job, here: Context) -> Taught | None:
    """What the colours seen on a board's dry strips say of how strongly its layer hides; None where none was seen."""
    known, room = here.known_for(board), here.room()
    return taught(board, lambda i: Look(trial(board, i, known, room).stack(board.zones[i])))


def board_stepped(board: Job, here: Context) -> Stepped | None:
    """One pot stepped down through the strips of a board's ladder of water; None where that saves nothing."""
    known, room = here.known_for(board), here.room()
    kit = known.kits[here.workshop().kit]
    return one_pot(board, lambda i: trial(board, i, known, room).stack(board.zones[i]), kit)


def board_sheet(board: Job, paper: Paper) -> bytes:
    """The layout of a board at 1:1, with the codes of its strips, as a PDF. Raises InvalidValue."""
    from lumso.formats import pdf

    if board.board is None:
        raise InvalidValue("This job is no test board.", value=board.name, allowed="the job of a board", field="job")
    return pdf.board_sheet(board, paper)
