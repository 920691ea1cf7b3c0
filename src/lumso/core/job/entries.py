"""Which catalogue entries a job uses, so that it can carry them."""

from dataclasses import replace

from ..book.catalogue import Catalogue, Entries
from .job import Job


def embed(job: Job, catalogue: Catalogue) -> Job:
    """The job carrying every entry it refers to: the ones it already has as they are, new ones as they are now.

    Entries no longer referred to are dropped; names unknown to both are left for the plan to report.
    """
    known = catalogue.with_entries(job.entries)
    layers = [layer for zone in job.zones for layer in zone.layers]
    recipes = [known.recipes[s] for s in sorted({x.recipe for x in layers}) if s in known.recipes]
    materials = {c.material for recipe in recipes for c in recipe.components}
    films = {r.film for r in recipes if r.film}
    prep = {p for zone in job.zones for p in zone.prep}
    return replace(
        job,
        entries=Entries(
            recipes=tuple(recipes),
            materials=tuple(known.materials[s] for s in sorted(materials) if s in known.materials),
            grounds=tuple(known.grounds[s] for s in sorted({z.ground for z in job.zones}) if s in known.grounds),
            techniques=tuple(
                known.techniques[s] for s in sorted({x.technique for x in layers}) if s in known.techniques
            ),
            films=tuple(known.films[s] for s in sorted(films) if s in known.films),
            preparations=tuple(known.preparations[s] for s in sorted(prep) if s in known.preparations),
            tools=tuple(known.tools[s] for s in sorted({x.tool for x in layers}) if s in known.tools),
        ),
    )
