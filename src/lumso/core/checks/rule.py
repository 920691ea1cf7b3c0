"""What a rule of the checker is: a small piece of knowledge over a stack, with its reason and its source."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from ..book.offers import Need
from ..book.preparation import Does
from ..book.techniques import Act
from ..changes.change import AddPrep, Change, InsertLayer, Remedy, SwapRecipe
from ..layers.laid import Laid
from ..layers.stack import Stack
from .findings import Grade, Sure


@dataclass(frozen=True)
class Hit:
    """A place where a rule applies: at the boundary beneath the layer `above` (the number of layers is the top)."""

    above: int
    says: str
    remedies: tuple[Remedy, ...] = ()
    grade: Grade | None = None
    """Where this case is worse or milder than the rule's usual grade."""


@dataclass(frozen=True)
class Rule:
    """A rule, and the function that looks for it in a stack."""

    slug: str
    grade: Grade
    sure: Sure
    reason: str
    provenance: str
    look: Callable[[Stack], Iterable[Hit]]
    may_fail: bool
    """Whether what it finds may be certain to fail: its grade, or a case of it."""


RULES: dict[str, Rule] = {}
"""Every rule by its slug, in the order they are written."""

Look = Callable[[Stack], Iterable[Hit]]


def rule(
    slug: str, grade: Grade, sure: Sure, reason: str, provenance: str = "rule of the trade", may_fail: bool = False
) -> Callable[[Look], Look]:
    """Make a function over a stack a rule of the checker. `may_fail` where some of its cases are certain to fail."""

    def keep(look: Look) -> Look:
        RULES[slug] = Rule(slug, grade, sure, reason, provenance, look, may_fail or grade == "will fail")
        return look

    return keep


def insert(stack: Stack, above: str, need: Need, act: Act | None = None, wait_h: float | None = None) -> InsertLayer:
    """What answers a need put beneath the layer `above`, "" on top; on the way that does `act` where it has one."""
    recipe = stack.offer(need)
    return InsertLayer("insert", above, recipe, stack.catalogue.way_that(recipe, act) if act else "", wait_h)


def swap_for(stack: Stack, one: Laid, need: Need, act: Act | None = None) -> SwapRecipe:
    """What answers a need in a layer's place; on the way that does `act` where it has one."""
    recipe = stack.offer(need)
    return SwapRecipe("swap", one.layer.id, recipe, stack.catalogue.way_that(recipe, act) if act else "")


def prep(stack: Stack, does: Does, finest: int = 10_000) -> AddPrep:
    """The usual preparation that does something, no finer than a grit."""
    return AddPrep("prep", stack.catalogue.preparation_that(does, finest))


def remedy(says: str, *changes: Change) -> Remedy:
    """A remedy."""
    return Remedy(says, changes)
