"""Stacks to look at, in few words."""

from dataclasses import replace
from functools import lru_cache
from itertools import count

from lumso.catalogue.load import shipped
from lumso.core.advice.bench import Trial, with_finish
from lumso.core.book.colours import Colour
from lumso.core.book.preparation import Sanding
from lumso.core.job.job import FromArea, Layer, Use, Zone
from lumso.core.layers.conditions import steady
from lumso.core.layers.stack import Stack
from lumso.core.look.look import Look

C = shipped()
BENCH = Trial(Use(), (), C, steady())


def laid(recipe: str, hex_: str = "", technique: str = "", coats: int = 1, **more: object) -> Layer:
    """A layer of a recipe, its paint in one colour."""
    known = C.recipes[recipe]
    technique = technique or known.techniques[0]
    way = C.techniques[technique]
    parts = [c.id for c in known.components if c.role in {"paint", "pigment"}]
    colours = {p: Colour("a colour", hex_) for p in parts} if hex_ else {}
    layer = Layer("l", recipe, technique, way.tools[0], FromArea("area"), coats, touched=way.touched, colours=colours)
    return replace(layer, **more)  # type: ignore[arg-type]


def stack(*layers: Layer, ground: str = "painted-unsealed", relief: str = "flat") -> Stack:
    """Layers on a ground, from the ground up."""
    named = tuple(replace(layer, id=f"l{i}") for i, layer in enumerate(layers))
    return BENCH.stack(Zone("z", "Zone", ground, (), named, relief=relief))


def look(*layers: Layer, ground: str = "painted-unsealed", relief: str = "flat") -> Look:
    """The look of layers on a ground."""
    return Look(stack(*layers, ground=ground, relief=relief))


@lru_cache(maxsize=64)
def finished(slug: str) -> Look:
    """A finish of the library on the first ground it is for."""
    finish = C.finishes[slug]
    zone = Zone("z", "Zone", finish.grounds[0], (), (), relief=finish.shown_on)
    made, _ = with_finish(zone, finish, BENCH, (f"t{n}" for n in count()))
    return Look(BENCH.stack(made))


def sanded(grit: int, purpose: str = "bite", where: str = "all", by: str = "hand") -> tuple[Sanding, ...]:
    return (Sanding(grit, purpose, "paper", by, where),)  # type: ignore[arg-type]
