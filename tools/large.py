"""A large job to time things on: twelve zones of ten layers each, from the finish library."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import count

from lumso.catalogue import shipped
from lumso.core.changes.finish import layers_of
from lumso.core.job.entries import embed
from lumso.core.job.job import Job, Layer, Use, Zone, new_job
from lumso.core.measure.lengths import Length
from lumso.core.piece.kinds import kind_of
from lumso.core.piece.piece import Piece
from lumso.formats.jobfile import from_json, to_json

ZONES, LAYERS = 12, 10


def large_job() -> Job:
    """Twelve zones on a bookcase of parts, each with ten layers; it carries its entries, as saved jobs do."""
    catalogue, ids = shipped(), (f"layer-{i}" for i in count())
    finishes = list(catalogue.finishes.values())
    kind = kind_of("chest-of-drawers")
    sizes = {s.slug: Length(s.usual_mm, f"{s.usual_mm:g} mm") for s in kind.sizes}
    surfaces = [s.slug for s in kind.surfaces(kind.usual())]
    zones = []
    for number in range(ZONES):
        layers: list[Layer] = []
        for finish in (finishes[(number + k) % len(finishes)] for k in count()):
            layers += layers_of(finish, "unsealed paint", catalogue, ids)
            if len(layers) >= LAYERS:
                break
        mine = surfaces[number % len(surfaces)]
        zones.append(Zone(f"zone-{number}", f"Zone {number}", "painted-unsealed", (mine,), tuple(layers[:LAYERS])))
    job = new_job("Large job", tuple(zones), Piece(kind.slug, sizes), Use(("hands",)))
    return embed(job, catalogue)


def edits(job: Job) -> Iterator[Job]:
    """The job again and again with one layer's coats changed, each read anew from its file as the server gets it."""
    for number in count():
        zone = job.zones[number % ZONES]
        chosen = zone.layers[number % LAYERS]
        changed = replace(chosen, coats=1 + chosen.coats % 3)
        layers = tuple(changed if x is chosen else x for x in zone.layers)
        job = replace(job, zones=tuple(replace(z, layers=layers) if z is zone else z for z in job.zones))
        job = from_json(to_json(job))
        yield job
