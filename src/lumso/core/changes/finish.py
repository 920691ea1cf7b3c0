"""Putting a finish of the library on: its layers, and what it means on purpose."""

from collections.abc import Iterator
from dataclasses import replace

from ..book.catalogue import Catalogue, pick
from ..book.finishes import Finish
from ..job.job import Acceptance, FromArea, Layer
from ..job.start import technique_for


def layers_of(finish: Finish, surface: str, catalogue: Catalogue, ids: Iterator[str]) -> tuple[Layer, ...]:
    """The finish's layers for a kind of surface, with ids from `ids`. Raises UnknownEntry."""
    made = []
    for i, one in enumerate(finish.layers):
        recipe = pick("recipe", catalogue.recipes, one.recipe)
        usual = technique_for(recipe, surface if i == 0 else "unsealed paint", catalogue)
        technique = pick("technique", catalogue.techniques, one.technique or usual.slug)
        touched = technique.touched if one.touched is None else one.touched
        layer = Layer(next(ids), recipe.slug, technique.slug, technique.tools[0], FromArea("area"), one.coats)
        made.append(
            replace(
                layer,
                touched=touched,
                thickness_mm=technique.usual_mm if one.thickness_mm is None else one.thickness_mm,
                wait_h=one.wait_h,
                sandings=one.sandings,
                school=one.school,
                amounts=one.amounts,
                colours=one.colours,
                pots=tuple(replace(pot, id=next(ids)) for pot in one.pots),
            )
        )
    return tuple(made)


def acceptances(finish: Finish, layers: tuple[Layer, ...]) -> tuple[Acceptance, ...]:
    """What the finish means, as acceptances of the layers it was made into."""
    above = [layer.id for layer in layers] + [""]
    return tuple(Acceptance(m.rule, above[min(m.layer, len(layers))], m.reason) for m in finish.meant)
