"""The book as a workshop knows it: its own recipes, kits and materials, and the values it knows better."""

from contextlib import suppress
from dataclasses import replace

from ..book.catalogue import Catalogue, Entries
from ..errors import InvalidValue
from .better import laid_over
from .shelf import with_overlays
from .workshop import Workshop


def book_of(workshop: Workshop, catalogue: Catalogue) -> Catalogue:
    """The book pure: the catalogue with the workshop's own recipes, kits and materials, nothing laid over it."""
    own = {item.slug: item.own for item in workshop.shelf if item.own}
    return replace(
        catalogue,
        materials={**catalogue.materials, **own},
        recipes={**{r.slug: r for r in workshop.recipes}, **catalogue.recipes},
        kits={**catalogue.kits, **{k.slug: k for k in workshop.kits}},
    )


def known_to(workshop: Workshop, catalogue: Catalogue, entries: Entries | None = None) -> Catalogue:
    """The book with a job's own `entries` in front, and what the workshop knows better laid over both.

    Values on the shelf go on last: what was weighed is true in every job, and deleted it is true in none.
    """
    book = book_of(workshop, catalogue)
    if entries is not None:
        book = book.with_entries(entries)
    materials = dict(book.materials)
    for item in workshop.shelf:
        if item.overlays and item.slug in materials:
            with suppress(InvalidValue):  # it was checked against the book: a job's own may contradict it, and stands
                materials[item.slug] = with_overlays(materials[item.slug], item.overlays)
    learned = {one.of: one for one in workshop.learned}
    return laid_over(replace(book, materials=materials, learned=learned, waits=workshop.waits), workshop.better)
