"""How far a component may go on this ground, put on this way."""

from dataclasses import dataclass

from ..book.recipes import Limit, Recipe
from ..value import Value


@dataclass(frozen=True)
class DialLimit(Value):
    """A stretch of a component's dial that is allowed here: `least` to `most` of the whole, and why."""

    component: str
    least: float
    most: float
    reason: str
    provenance: str
    crossed: bool


def applying(recipe: Recipe, surface: str, technique: str, over: str = "") -> tuple[Limit, ...]:
    """The limits of the recipe that hold for this kind of surface and this technique, over this kind of film.

    Where any limit of a component names the surface or the technique, those that name neither step back: the
    particular rule knows more than the general one.
    """
    present = {c.id for c in recipe.components}  # a draft may name one that is not there
    fitting = [
        limit
        for limit in recipe.limits
        if limit.component in present
        and (not limit.surfaces or surface in limit.surfaces)
        and (not limit.techniques or technique in limit.techniques)
        and over not in limit.not_over
    ]
    particular = {limit.component for limit in fitting if limit.surfaces or limit.techniques}
    return tuple(limit for limit in fitting if limit.surfaces or limit.techniques or limit.component not in particular)


def dial_limits(recipe: Recipe, surface: str, technique: str, shares: dict[str, float],
                over: str = "") -> tuple[DialLimit, ...]:  # fmt: skip
    """The applying limits beside the `shares` the mix has now (of the whole, as poured). `over` is the kind of film it
    lies on."""
    return tuple(
        DialLimit(
            limit.component,
            limit.least,
            limit.most,
            limit.reason,
            limit.provenance,
            not limit.least - 1e-6 <= shares[limit.component] <= limit.most + 1e-6,
        )
        for limit in applying(recipe, surface, technique, over)
    )
