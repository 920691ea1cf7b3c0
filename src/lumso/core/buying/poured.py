"""What the log says was poured, as uses; and the batches nothing is needed for any more."""

from collections.abc import Sequence

from ..days.facts import facts_of
from ..log.acts import Begun, Poured
from ..log.event import Event, standing
from .lots import Use, use_of

NEEDED_NO_MORE = ("begun", "done", "skipped")
"""What was noted of mixing, after which nothing is needed for it."""


def mixed(of: Sequence[Event], job: str) -> frozenset[str]:
    """The operations of a job nothing is needed for any more: noted so, or a pot was begun for them."""
    noted = {o for o, f in facts_of(of, job).items() if f.did in NEEDED_NO_MORE}
    return frozenset(noted | {e.operation for e in standing(of) if isinstance(e.act, Begun)})


def poured_uses(of: Sequence[Event]) -> list[Use]:
    """What was poured, in the order it was first noted."""
    return [
        use_of(e.at_min, a.stuff.material, a.stuff.role, a.stuff.colour, a.stuff.hex, a.g / a.stuff.bulk_density, a.g,
               e.job)
        for e in standing(of)
        if isinstance(a := e.act, Poured)
    ]  # fmt: skip
