"""The book as a workshop knows it: its own recipes, kits and materials, and the values it knows better."""

from dataclasses import replace

from ..book.catalogue import Catalogue, Entries
from .shelf import with_overlays
from .workshop import Workshop


def known_to(workshop: Workshop, catalogue: Catalogue, entries: Entries | None = None) -> Catalogue:
    """The catalogue with a job's own `entries` in front, and the workshop's recipes, kits and materials added.

    Values on the shelf go on last, over a job's own entries too: what was weighed is true in every job.
    """
    if entries is not None:
        catalogue = catalogue.with_entries(entries)
    materials = dict(catalogue.materials)
    for item in workshop.shelf:
        material = item.own or materials.get(item.slug)
        if material:
            materials[item.slug] = with_overlays(material, item.overlays)
    return replace(
        catalogue,
        materials=materials,
        recipes={**{r.slug: r for r in workshop.recipes}, **catalogue.recipes},
        kits={**catalogue.kits, **{k.slug: k for k in workshop.kits}},
    )
