"""What a mix is once it lies on the surface: how it dries, what water does to it, what it stands."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Interval

from ..value import Name, NotNegative, Positive, Slug, Value
from .recipes import Recipe

Kind = Literal[
    "paint", "wash", "glaze", "texture", "primer", "blocker", "clear", "wax", "oil", "patina", "leaf", "metal"
]
Stand = Literal["yes", "a little", "no"]
UseWord = Literal["hands", "water", "heat", "food", "feet", "children", "weather"]
Minutes = Annotated[float, Interval(ge=0, le=400_000)]


@dataclass(frozen=True)
class DryingTimes(Value):
    """Minutes at 20 °C and 50 % for a usual coat. None is unknown: read the label; it is never zero or forever.

    Touch dry, recoat from, recoat until (then abrade), ready to be rubbed wet, ready to seal, ready for low-tack tape,
    and cured are different times. What takes 480 minutes or more is a night, and never less than 8 hours.
    """

    touch: Minutes | None = None
    recoat_from: Minutes | None = None
    recoat_until: Minutes | None = None
    wet_rub: Minutes | None = None
    seal: Minutes | None = None
    tape_safe: Minutes | None = None
    """From when low-tack tape comes off it again without lifting it: an untested starting point. What stays unknown, a
    strip on a hidden spot tells."""
    cured: Minutes | None = None


@dataclass(frozen=True)
class Film(Value):
    """A kind of dry film. Starting values, until a label or the log says otherwise."""

    slug: Slug
    name: Name
    kind: Kind
    carrier: Literal["water", "solvent", "oil", "spirit", "none"]
    """What it is thinned with, and so what it does to the film beneath while it is wet."""
    times: DryingTimes
    stands: dict[UseWord, Stand]
    """What it stands as the last film, cured."""
    provenance: str
    rewets: bool = False
    """Water brings it back until something seals it."""
    closes: bool = False
    """Water no longer reaches what is beneath."""
    grips: bool = False
    """Holds on a slick ground by itself, once that is clean."""
    stops: tuple[Literal["tannins", "knots", "rust", "oil"], ...] = ()
    """What it keeps from coming through."""
    alkaline: bool = False
    ambers: bool = False
    matting: bool = False
    """Holds matting agents, which cloud a dark colour from the second coat on."""
    chips: bool = False
    """On a closed ground it comes off in flakes, as it pleases."""
    colours: bool = False
    """A wax that colours what it lands on, and stays there."""
    tells_overnight: bool = False
    """Only after a night it shows whether it has stopped what it should."""
    dissolves_in_water: bool = False
    """Salt and soda stay soluble for good."""
    gloss: Literal["dead matt", "matt", "eggshell", "satin", "gloss"] = "matt"
    usual_um: Positive = 75.0
    """The wet thickness its times hold for, in µm."""
    open_least_min: NotNegative | None = None
    open_most_min: NotNegative | None = None
    """How long it can be worked, at the least and at the most; None is unknown."""
    sands_soft_min: NotNegative | None = None
    """From when it is sanded on purpose while it is dry on top and soft beneath: it balls instead of flying."""
    labelled: tuple[str, ...] = ()
    """Which of its times are from a label: none of these is ever undercut."""
    thick: str = ""
    """The film whose times hold for it where it is laid thick; "" for its own."""
    gentle_days: NotNegative | None = None
    """Days until it may be closed, stacked and used gently, long before it has cured; None is unknown."""
    waits: str = ""
    """What dry looks and feels like before the next coat."""


UNKNOWN = Film(
    "unknown", "a film of unknown kind", "paint", "water", DryingTimes(), {}, "read the label: nothing is known of it"
)

SIGNS: tuple[tuple[str, float, str], ...] = (
    ("oil-wax", 0.5, "oil-wax"),
    ("clear-wax", 0.3, "paste-wax"),
    ("dark-wax", 0.3, "dark-wax"),
    ("milk-paint-powder", 0.0, "milk-paint"),
    ("plaster-medium", 0.2, "trowelled-plaster"),
    ("texture-powder", 0.0, "texture"),
    ("thickener", 0.0, "texture"),
    ("fine-salt", 0.0, "salt-texture"),
    ("baking-soda", 0.0, "salt-texture"),
    ("glaze-medium", 0.2, "glaze"),
    ("bonding-primer", 0.5, "bonding-primer"),
    ("clear-coat", 0.5, "clear-coat"),
    ("clear-coat", 0.0, "self-sealing"),
    ("water", 0.35, "wash"),
)
"""What a recipe holds, from what share as poured on, and the film that makes it when nobody has said."""


def film_slug(recipe: Recipe, shares: Mapping[str, float]) -> str:
    """The film a recipe dries to: what it says itself, else what its materials suggest.

    `shares` are of the whole as poured, by component. Recipes written before films were known say nothing.
    """
    if recipe.film:
        return recipe.film
    held: dict[str, float] = {}
    for component in recipe.components:
        held[component.material] = held.get(component.material, 0.0) + shares.get(component.id, 0.0)
    for material, least, film in SIGNS:
        if held.get(material, -1.0) > least:
            return film
    return "mineral-paint"
