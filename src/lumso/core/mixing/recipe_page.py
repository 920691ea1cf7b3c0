"""A recipe's page in the book: what an amount of it comes to, its shares said both ways, and what does not add up."""

from dataclasses import dataclass

from ..book.catalogue import Catalogue
from ..book.recipes import Recipe, VolumeParts
from ..job.job import Want
from ..value import Value
from ..workshop.known import known_to
from ..workshop.workshop import Workshop
from .compose import Pour, compose, with_school
from .limits import DialLimit, dial_limits
from .mix import Mix, Pouring, mix


@dataclass(frozen=True)
class Contradiction(Value):
    """A share that is written beside the parts and does not follow from them, with both readings."""

    component: str
    says: str
    stated: float
    from_parts: float
    parts_for_stated: float | None
    """The parts of this component that would make the stated share true; None where parts cannot say it."""


@dataclass(frozen=True)
class Sheet(Value):
    """A recipe worked out for an amount."""

    recipe: Recipe
    mix: Mix
    limits: tuple[DialLimit, ...]
    contradictions: tuple[Contradiction, ...]


def contradictions(recipe: Recipe, pours: tuple[Pour, ...]) -> tuple[Contradiction, ...]:
    """Stated shares that differ from the poured ones by more than half a percentage point."""
    found = []
    for pour in pours:
        component, stated = pour.component, pour.component.stated_share
        if stated is None or abs(stated - pour.poured_ml) <= 0.005:
            continue
        parts = None
        if isinstance(component.amount, VolumeParts):
            others = component.amount.parts * (1 - pour.poured_ml) / pour.poured_ml if pour.poured_ml else 0.0
            parts = others * stated / (1 - stated)
        says = (
            f"{component.name} is written as {stated:.0%} of the whole, but the amounts make it {pour.poured_ml:.0%}. "
            f"“{stated:.0%}” and “one part to so many” are often mixed up: say which is meant."
        )
        found.append(Contradiction(component.id, says, stated, pour.poured_ml, parts))
    return tuple(found)


def sheet(recipe: Recipe, school: str, want: Want, workshop: Workshop, catalogue: Catalogue) -> Sheet:
    """Work a recipe out for `want`, which must not be by area.

    Raises ImpossibleRecipe for amounts that contradict each other or make crumbs, InvalidValue for an unknown
    school, UnknownEntry for a material that is not there.
    """
    known = known_to(workshop, catalogue)
    mixed = with_school(recipe, school)
    pours = compose(mixed, known.materials)
    bench = Pouring(known.system(workshop.measures), known.consistencies, known.vessels, known.optics)
    made = mix(mixed, pours, want, None, bench)
    shares = {p.component.id: p.poured_ml for p in pours}
    surface = mixed.surfaces[0] if mixed.surfaces else ""
    technique = mixed.techniques[0] if mixed.techniques else ""
    limits = dial_limits(mixed, surface, technique, shares)
    return Sheet(mixed, made, limits, contradictions(mixed, pours))
