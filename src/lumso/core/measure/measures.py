"""The measures people pour and spoon with, in millilitres, and how to say an amount in them."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import ceil
from typing import Literal

from ..errors import UnknownEntry
from ..value import Name, Positive, Slug, Value


@dataclass(frozen=True)
class Measure(Value):
    """One spoon, cup or jug size. `parts` are the fractions of it that are sold or marked, largest first."""

    slug: Slug
    name: Name
    plural: Name
    ml: Positive
    spoken: bool
    """Whether amounts are said in it: a gallon is a measure, but nobody mixes a wash in gallons."""
    halves: tuple[int, ...] = (1,)
    """Denominators of the fractions that can be filled: 1, 2, 4 for whole, half and quarter."""


@dataclass(frozen=True)
class JarMark(Value):
    """A spacing a jar can be graduated in: so many of a measure."""

    measure: Slug
    count: Positive


@dataclass(frozen=True)
class MeasureSystem(Value):
    """A family of measures that go together, with where their sizes are laid down."""

    slug: Slug
    name: Name
    fluid_ounce: Literal["US fl oz", "imperial fl oz", "none"]
    measures: tuple[Measure, ...]
    """Largest first."""
    jar_marks: tuple[JarMark, ...]
    """Spacings for graduations, finest first."""
    provenance: str

    def measure(self, slug: str) -> Measure:
        """The measure called `slug`. Raises UnknownEntry with the known ones."""
        for measure in self.measures:
            if measure.slug == slug:
                return measure
        raise UnknownEntry(f"{self.name} measure", slug, (m.slug for m in self.measures))


@dataclass(frozen=True)
class Spoonful(Value):
    """`count` of a measure: 1¼ tsp is Spoonful(1.25, "1¼", "tsp")."""

    count: float
    written: str
    measure: str
    ml: float


@dataclass(frozen=True)
class Spoken(Value):
    """An amount said in a measure system: `words` for people, the spoonfuls, and how far off it is."""

    words: str
    spoonfuls: tuple[Spoonful, ...]
    ml: float
    error: float
    """(said − exact) / exact."""


MARKS = {
    Fraction(1, 8): "⅛",
    Fraction(1, 4): "¼",
    Fraction(1, 3): "⅓",
    Fraction(3, 8): "⅜",
    Fraction(1, 2): "½",
}
MARKS |= {Fraction(5, 8): "⅝", Fraction(2, 3): "⅔", Fraction(3, 4): "¾", Fraction(7, 8): "⅞"}


def written(count: Fraction) -> str:
    """A count as cooks write it.

    >>> written(Fraction(5, 4)), written(Fraction(1, 2)), written(Fraction(3))
    ('1¼', '½', '3')
    """
    whole, rest = divmod(count, 1)
    if not rest:
        return str(whole)
    mark = MARKS.get(rest) or f" {rest.numerator}/{rest.denominator}"
    return f"{whole or ''}{mark}".strip()


def to_ml(count: float, system: MeasureSystem, measure: str) -> float:
    """`count` of `measure` in ml. Raises UnknownEntry for a measure the system does not have."""
    return count * system.measure(measure).ml


def from_ml(ml: float, system: MeasureSystem, measure: str) -> float:
    """How many of `measure` make `ml`. The inverse of `to_ml`."""
    return ml / system.measure(measure).ml


CLOSE = 0.02
"""How far off an amount may be that is said in fewer fillings."""


def _largest_first(rest: float, usable: Sequence[Measure], step: Fraction, grain: float) -> list[Spoonful]:
    """Whole measures, largest first, the rest in fractions of the smallest."""
    spoonfuls: list[Spoonful] = []
    for measure in usable:
        smallest = measure is usable[-1]
        count = step * round(rest / grain) if smallest else Fraction(int((rest + grain * 1e-6) / measure.ml))
        if count:
            rest -= measure.ml * float(count)
            spoonfuls.append(_spoonful(count, measure))
    return spoonfuls


def _spoonful(count: Fraction, measure: Measure) -> Spoonful:
    name = measure.name if count <= 1 else measure.plural
    return Spoonful(float(count), written(count), name, measure.ml * float(count))


def _dips(spoonfuls: Sequence[Spoonful]) -> int:
    """How often something is filled: 1¾ cups are two fillings."""
    return sum(ceil(s.count - 1e-9) for s in spoonfuls)


def spoken(ml: float, system: MeasureSystem) -> Spoken:
    """Say `ml` (more than zero) in the system's spoken measures: in the fewest fillings that come within 2 %, else to
    the nearest fraction of the smallest.

    An amount below the smallest fraction is said as "less than" that: it is never rounded to nothing.
    """
    usable = [m for m in system.measures if m.spoken]
    smallest = usable[-1]
    step = Fraction(1, max(smallest.halves))
    grain = smallest.ml * float(step)
    if ml < grain * 0.5:
        return Spoken(f"less than {written(step)} {smallest.name}", (), 0.0, -1.0 if ml else 0.0)
    rest = max(round(ml / grain), 1) * grain
    ways = [_largest_first(rest, usable, step, grain)]
    for place, measure in enumerate(usable[:-1]):
        for part in (Fraction(n, d) for d in measure.halves if d > 1 for n in range(1, d)):
            count = part + int(max(ml * (1 + CLOSE) / measure.ml - float(part), 0))
            left = ml - measure.ml * float(count)
            if left < -CLOSE * ml or count * measure.ml < ml / 2:
                continue
            more = [] if left <= CLOSE * ml else _largest_first(left, usable[place + 1 :], step, grain)
            ways.append([_spoonful(count, measure), *more])
    for measure in usable[:-1]:
        whole = round(ml / measure.ml)
        if whole and abs(ml - whole * measure.ml) <= CLOSE * ml:
            ways.append([_spoonful(Fraction(whole), measure)])
    best = min(ways, key=lambda w: (_dips(w), abs(sum(s.ml for s in w) - ml)))
    said = sum(s.ml for s in best)
    words = " + ".join(f"{s.written} {s.measure}" for s in best)
    return Spoken(words, tuple(best), said, said / ml - 1)
