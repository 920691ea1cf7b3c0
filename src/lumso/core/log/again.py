"""Mixing a batch again as it really was, and what is different between two."""

from dataclasses import dataclass, replace

from ..book.catalogue import Catalogue
from ..book.colours import Colour, Tint
from ..book.recipes import Amount, WeightShare
from ..errors import InvalidValue
from ..figure import tidy
from ..job.entries import embed
from ..job.job import FromTotal, Job
from ..job.start import start_pot
from ..value import Value
from .summary import InPot, PotSummary

TELLS = 0.01
"""A share that differs by less, relative to itself, is the same."""


@dataclass(frozen=True)
class AgainLine(Value):
    """One thing to pour, for the amount that is wanted; `spread` is how far off what was poured may have been."""

    component: str
    name: str
    role: str
    colour: str
    hex: str
    g: float
    ml: float
    share: float
    spread: float


@dataclass(frozen=True)
class Again(Value):
    """A batch mixed again: what was really poured, additions and all, at another amount."""

    ml: float
    g: float
    lines: tuple[AgainLine, ...]
    word: str
    """What it looked like in the end; "" where nobody said."""
    says: str


def again(pot: PotSummary, ml: float) -> Again:
    """What to pour for `ml` of the mix, as it was poured then. Raises InvalidValue where nothing is known of it."""
    if not pot.parts or pot.mixed_ml <= 0:
        says = "Nothing was poured into it that is known."
        raise InvalidValue(says, value=pot.pot, allowed="a batch that was poured", field="pot")
    by = ml / pot.mixed_ml
    lines = tuple(
        AgainLine(p.component, p.name, p.role, p.colour, p.hex, p.g * by, p.ml * by, p.share, p.off_g / p.g)
        for p in pot.parts
    )
    times = "once" if pot.rescued == 1 else f"{pot.rescued} times"
    added = f" Set right {times} on the way: that is in it." if pot.rescued else ""
    carried = " Part of it came from another jar: its colours are in it too." if pot.carried_from else ""
    return Again(
        ml, pot.mixed_g * by, lines, pot.word, f"From what was poured, not from what was planned.{added}{carried}"
    )


def as_job(summary: PotSummary, made: Again, known: Catalogue, book: Catalogue,
           ids: tuple[str, str]) -> Job:  # fmt: skip
    """A quick pot that is poured as a batch really was. `ids` are its zone's and its layer's; `book` is the book pure.

    Raises InvalidValue where its recipe cannot hold that.
    """
    recipe = known.recipes.get(summary.recipe)
    parts = {line.component for line in made.lines}
    if recipe is None or not parts <= {c.id for c in recipe.components}:
        raise InvalidValue("Its recipe is not in the book any more, or what was poured is not part of it.",
                           value=summary.recipe, allowed="a batch of a recipe in the book", field="pot")  # fmt: skip
    job = start_pot(*ids, recipe.slug, made.ml, known)
    layer = job.zones[0].layers[0]
    grams = {c.id: sum(x.g for x in made.lines if x.component == c.id) for c in recipe.components}
    whole = sum(grams.values())
    amounts: dict[str, Amount] = (
        {} if len(grams) == 1 else {c: WeightShare("weight-share", min(g / whole, 0.999999)) for c, g in grams.items()}
    )
    colours, tints = {}, {}
    for component in grams:
        mine = [x for x in made.lines if x.component == component and x.colour]
        if len(mine) > 1:
            tints[component] = tuple(Tint(x.colour, x.hex, x.ml) for x in mine)
        elif mine:
            colours[component] = Colour(mine[0].colour, mine[0].hex)
    layer = replace(layer, amounts=amounts, colours=colours, tints=tints, want=FromTotal("total", made.ml))
    zone = replace(job.zones[0], layers=(layer,))
    return embed(replace(job, name=f"{summary.name}, as {summary.code}", zones=(zone,)), book)


@dataclass(frozen=True)
class Difference(Value):
    """One thing that is not the same in two batches: what it was in each, and how far that goes, relative."""

    what: str
    before: str
    after: str
    by: float


def _named(part: InPot) -> str:
    return f"{part.name}, {part.colour}" if part.colour else part.name


def what_changed(before: PotSummary, after: PotSummary) -> tuple[Difference, ...]:
    """What is different, line by line: parts by their shares first, the most changed first, then all else."""
    found: list[Difference] = []
    one, two = ({(p.component, p.colour, p.name): p for p in pot.parts} for pot in (before, after))
    for key in dict.fromkeys([*one, *two]):
        a, b = one.get(key), two.get(key)
        if a is None or b is None:
            part = a or b
            assert part is not None
            found.append(Difference(_named(part), _share(a), _share(b), 1.0))
        elif abs(b.share / a.share - 1) > TELLS:
            found.append(Difference(_named(a), _share(a), _share(b), b.share / a.share - 1))
    found.sort(key=lambda d: -abs(d.by))
    for what, x, y in (
        ("Looked like", before.word, after.word),
        ("Put on", before.technique, after.technique),
        ("Set right", _times(before.rescued), _times(after.rescued)),
        ("Came out", _verdicts(before), _verdicts(after)),
    ):
        if x != y:
            found.append(Difference(what, x or "nobody said", y or "nobody said", 0.0))
    if abs(after.mixed_ml / before.mixed_ml - 1) > TELLS if before.mixed_ml else after.mixed_ml:
        by = after.mixed_ml / before.mixed_ml - 1 if before.mixed_ml else 1.0
        found.append(Difference("Amount", f"{tidy(before.mixed_ml)} ml", f"{tidy(after.mixed_ml)} ml", by))
    if before.rate > 0 and after.rate > 0 and abs(after.rate / before.rate - 1) > 0.05:
        found.append(Difference("What the surface took", f"{before.rate:.2f} ×", f"{after.rate:.2f} × what was planned",
                                after.rate / before.rate - 1))  # fmt: skip
    return tuple(found)


def _share(part: InPot | None) -> str:
    return "none" if part is None else f"{part.share:.1%} of the whole"


def _times(count: int) -> str:
    return f"{count} ×" if count else "not at all"


def _verdicts(pot: PotSummary) -> str:
    return ", ".join(dict.fromkeys(w.verdict for w in pot.went if w.verdict))
