"""What can go wrong, as one small family.

LumsoError
 ├─ InvalidValue (also a ValueError)      a value that is not allowed, with what is
 │   ├─ UnreadableLength                  text that is no length
 │   ├─ AmbiguousValue                    text that could be two things; both are named
 │   └─ ImpossibleRecipe                  components that contradict each other or make no paint
 └─ UnknownEntry (also a LookupError)     a name that is not in the catalogue, with those that are

Each message names the value, what is allowed and what to do.
"""

from collections.abc import Iterable
from dataclasses import dataclass

from .value import Value


class LumsoError(Exception):
    """Anything Lumso refuses, with a message meant for the person at the bench."""


class InvalidValue(LumsoError, ValueError):
    """A value that is not allowed.

    `field` is where it was given ("" when the caller knows better), `allowed` what would be accepted.
    """

    def __init__(self, says: str, *, value: object, allowed: str, field: str = "") -> None:
        super().__init__(says)
        self.says = says
        self.value = value
        self.allowed = allowed
        self.field = field


class UnreadableLength(InvalidValue):
    """Text that cannot be read as a length."""


class AmbiguousValue(InvalidValue):
    """Text that can be read as two different lengths or rates; `readings` are texts that mean one each."""

    def __init__(self, says: str, *, value: object, readings: tuple[str, ...], field: str = "") -> None:
        super().__init__(says, value=value, allowed=f"say which: {' or '.join(readings)}", field=field)
        self.readings = readings


class ImpossibleRecipe(InvalidValue):
    """Components whose amounts contradict each other, or that make crumbs rather than paint."""


class UnknownEntry(LumsoError, LookupError):
    """A name that nothing in the catalogue answers to."""

    def __init__(self, noun: str, slug: str, known: Iterable[str]) -> None:
        self.noun, self.slug, self.known = noun, slug, tuple(sorted(known))
        super().__init__(f"There is no {noun} called {slug!r}. Known: {', '.join(self.known) or 'none'}.")


@dataclass(frozen=True)
class Problem(Value):
    """Something in the job that nothing can be computed from. `at` is a JSON pointer into the job."""

    at: str
    says: str
    allowed: str
