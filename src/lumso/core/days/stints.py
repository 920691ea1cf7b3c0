"""What is done in one go at the bench: a pot with what it lays, a patch with its part-dry work, sanding with dusting.

A stint is the least that is planned: nothing else comes between its operations, and the painter stays. Where one lasts
longer than anybody is there, it is parted between two coats or patches: the tool is cleaned, the pot closed, opened
and stirred again.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from ..book.habits import Habits
from ..layers.conditions import Room
from ..layers.drying import dry_at
from ..work.operations import Constraint, Operation
from ..work.order import Block


@dataclass(frozen=True)
class Stint:
    """Operations done one after the other. `inner` are the waits between them; `passing` follows by itself."""

    operations: tuple[Operation, ...]
    inner: Mapping[str, tuple[Constraint, ...]] = field(default_factory=dict)
    """By the operation that waits."""
    passing: tuple[Operation, ...] = ()
    extra: frozenset[str] = frozenset()
    """What of it is done only because of how the days fall."""

    @property
    def id(self) -> str:
        """The id of its first operation."""
        return self.operations[0].id

    @property
    def job(self) -> str:
        """The job it is of."""
        return self.operations[0].job

    @cached_property
    def makes_dust(self) -> bool:
        """Whether anything in it makes dust."""
        return any(o.makes_dust for o in self.operations)

    @cached_property
    def waits(self) -> bool:
        """Whether anything in it waits for a film: then how long it takes depends on the air."""
        return any(ties for ties in self.inner.values())

    @cached_property
    def bare_min(self) -> float:
        """Minutes it takes with no wait."""
        return sum(o.takes_min for o in self.operations)


Run = tuple[tuple[float, float], ...]
"""When each operation of a stint begins and ends."""


def run(stint: Stint, begins: float, room: Room) -> Run:
    """When each operation is done when the stint begins at a minute."""
    at, made = begins, []
    ended: dict[str, tuple[float, float]] = {}
    for operation in stint.operations:
        takes = operation.takes_min
        for tie in stint.inner.get(operation.id, ()):
            since = ended[tie.first][0 if tie.since == "start" else 1]
            over = dry_at(since, tie.wait, room)
            if over is not None:
                at = max(at, over - takes if tie.until == "end" else over)
        ended[operation.id] = (at, at + takes)
        made.append((at, at + takes))
        at += takes
    return tuple(made)


def _inner(operations: Sequence[Operation], ties: Iterable[Constraint]) -> dict[str, tuple[Constraint, ...]]:
    mine = {o.id for o in operations}
    found: dict[str, tuple[Constraint, ...]] = {}
    for tie in ties:
        if tie.kind == "at least" and tie.first in mine and tie.then in mine:
            found[tie.then] = (*found.get(tie.then, ()), tie)
    return found


def _cuts(operations: Sequence[Operation]) -> list[list[Operation]]:
    """The least it can be parted into: mixing with the first patch, each patch with its own work, cleaning with the
    last."""
    parts: list[list[Operation]] = [[]]
    for operation in operations:
        if operation.kind == "lay" and any(o.kind == "lay" for o in parts[-1]):
            parts.append([])
        parts[-1].append(operation)
    return parts


def _opened(first: Operation, habits: Habits) -> Operation:
    return replace(
        first, id=f"{first.id}:opened", kind="stir", says="Open and stir what is left",
        hands_on_min=habits.stir_min, lasts_min=0.0, film_ml=0.0, amounts=None, tools=(), take_care=(), rescues=(),
        how=("To the bottom; what has settled or skinned is not paint.",), check="Even again; no skin, no smell.",
        makes_dust=False,
    )  # fmt: skip


def _closed(last: Operation, clean: Operation) -> Operation:
    return replace(clean, id=f"{last.id}:closed", says=f"{clean.says}, close the pot")


Flat = Mapping[str, tuple[str, int]]
"""The coat of what is laid, and the places it lies on, by the operation."""


def _on_places(operations: Iterable[Operation], flat: Flat) -> int:
    """The places that what is laid lies on."""
    return sum(dict(flat[o.id] for o in operations if o.id in flat).values())


Goes = tuple[list[tuple[Operation, ...]], frozenset[str]]
"""Operations in goes, and which of them are done only because they are."""


def parted(operations: Sequence[Operation], longest_min: float, length: Mapping[str, float], habits: Habits,
           flat: Flat | None = None, places: int = 0) -> Goes:  # fmt: skip
    """Operations in as few goes as fit the longest session and the places to lie flat (0 is any number), and which of
    them are extra. `length` is what each takes with its waits. What cannot be parted further stays too long."""
    clean, flat = operations[-1], flat or {}
    lies = places > 0 and _on_places(operations, flat) > places
    if (sum(length[o.id] for o in operations) <= longest_min and not lies) or clean.kind != "clean":
        return [tuple(operations)], frozenset()
    around = habits.stir_min + clean.hands_on_min
    made: list[list[Operation]] = []
    room = 0.0
    for part in _cuts(operations):
        takes = sum(length[o.id] for o in part if o is not clean)
        full = bool(made) and places > 0 and _on_places([*made[-1], *part], flat) > places
        if not made or takes > room or full:
            made.append([])
            room = longest_min - around
        made[-1] += part
        room -= takes
    done, extra = [], set()
    for n, part in enumerate(made):
        whole = list(part)
        if n:
            whole.insert(0, _opened(part[0], habits))
            extra.add(whole[0].id)
        if n < len(made) - 1:
            whole.append(_closed(part[-1], clean))
            extra.add(whole[-1].id)
        done.append(tuple(whole))
    return done, frozenset(extra)


def stints_of(block: Block, ties: Sequence[Constraint], longest_min: float, room: Room, habits: Habits,
              flat: Flat | None = None, places: int = 0) -> list[Stint]:  # fmt: skip
    """The stints of a block: what is mixed long ahead, and the rest in as few goes as the hours allow."""
    inner = _inner(block.operations, ties)
    whole = Stint(block.operations, inner)
    times = run(whole, room.spells[0].from_min, room)
    length, before = {}, times[0][0]
    for operation, (_, ends) in zip(block.operations, times, strict=True):
        length[operation.id], before = ends - before, ends
    made = []
    if block.early:
        busy = tuple(o for o in block.early if o.hands_on_min > 0)
        made.append(Stint(busy, {}, tuple(o for o in block.early if o.hands_on_min <= 0)))
    goes, extra = parted(block.operations, longest_min, length, habits, flat, places)
    made += [Stint(go, _inner(go, ties), (), frozenset(o.id for o in go if o.id in extra)) for go in goes]
    return made
