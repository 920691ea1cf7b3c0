"""One painter's order: when each thing can be done at the earliest, given what holds between them.

What is done in one go is a block: a mix that sets with the coats it serves, a patch with its part-dry work, sanding
with dusting. Blocks are placed one after the other, the one that can begin first before the others. A mix that rests
for hours is made that much earlier, in a gap.
"""

from bisect import insort
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from heapq import heappop, heappush
from typing import NamedTuple

from ..book.habits import Habits
from ..layers.conditions import Room
from ..layers.drying import Wait, dry_at
from .operations import LIVES, Constraint, Operation

EARLIER = 1e-6


@dataclass(frozen=True)
class Block:
    """Operations done in one go. `early` are done ahead of it, its first so long before: a mix, and its rest."""

    id: str
    operations: tuple[Operation, ...]
    early: tuple[Operation, ...] = ()
    rest_min: float = 0.0
    sticky: Mapping[str, Wait] = field(default_factory=dict)
    """What it lays that dust would stick to, by operation, and until it is touch dry."""

    @cached_property
    def makes_dust(self) -> bool:
        """Whether anything in it makes dust."""
        return any(o.makes_dust for o in self.operations)

    @cached_property
    def timing(self) -> tuple[object, ...]:
        """All that its order depends on."""
        lasts = tuple((o.id, o.hands_on_min, o.lasts_min, o.makes_dust) for o in (*self.early, *self.operations))
        return (self.id, lasts, len(self.early), self.rest_min, self.sticky)

    @cached_property
    def lengths(self) -> tuple[tuple[Operation, float], ...]:
        """Its operations, each with the minutes it takes."""
        return tuple((o, o.takes_min) for o in self.operations)


@dataclass
class Placed:
    """When operations begin and end, as they are placed."""

    room: Room
    begins: dict[str, float] = field(default_factory=dict)
    ends: dict[str, float] = field(default_factory=dict)
    busy: list[tuple[float, float]] = field(default_factory=list)
    """When the painter's hands are full, in order."""

    def gap_before(self, minute: float, length: float) -> float:
        """When something of that length begins at the latest so that it is over by `minute`, in a gap."""
        for begins, ends in reversed(self.busy):
            if ends <= minute - length + EARLIER:
                break
            if begins < minute:
                minute = begins
        return minute - length

    def occupy(self, begins: float, ends: float) -> None:
        """Keep the painter's hands full between two minutes."""
        insort(self.busy, (begins, ends))


class _Tie(NamedTuple):
    """A constraint on when an operation begins: a wait after the beginning or the end of another."""

    first: str
    since_start: bool
    takes_min: float | None
    """How long the wait takes where the room stays as it is; None where it depends on when it begins."""
    wait: Wait
    until_end: bool

    def over(self, since: float, room: Room) -> float:
        """The minute it is over when it began at `since`; where nobody knows, at once."""
        if self.takes_min is not None:
            return since + self.takes_min
        return dry_at(since, self.wait, room) or since


Ties = Mapping[str, Sequence[_Tie]]
"""What must be over before an operation, by its id."""


@dataclass(frozen=True)
class Tied:
    """A part of the work as its order is found from it: worked out once, for as long as the part stays as it is.

    Two are equal when they are ordered alike: amounts and words do not matter.
    """

    blocks: tuple[Block, ...] = field(compare=False)
    timing: tuple[object, ...]
    """All of the blocks that their order depends on."""
    owner: Mapping[str, str]
    """The block of each operation."""
    ties: Ties
    pairs: tuple[tuple[str, str], ...]
    """Operations of which the second comes after the first, in another block."""
    windows: tuple[Constraint, ...]
    """What may be missed."""


def tied(blocks: Sequence[Block], constraints: Sequence[Constraint], room: Room) -> Tied:
    """A part of the work as its order is found from it. What a block's own order keeps anyway is left out."""
    owner = {o.id: b.id for b in blocks for o in (*b.early, *b.operations)}
    ties: dict[str, list[_Tie]] = {}
    pairs: dict[tuple[str, str], None] = {}
    for one in constraints:
        if one.kind == "not beside":
            continue
        block = owner.get(one.first)
        within = block is not None and block == owner.get(one.then)
        if not within:
            pairs[one.first, one.then] = None
        if one.kind == "at least" or (one.kind == "after" and not within):
            ties.setdefault(one.then, []).append(_tie(one, room))
    windows = tuple(c for c in constraints if c.kind == "at most" or c.kind in LIVES)
    return Tied(tuple(blocks), tuple(b.timing for b in blocks), owner, ties, tuple(pairs), windows)


def _tie(one: Constraint, room: Room) -> _Tie:
    takes = (dry_at(0.0, one.wait, room) or 0.0) if len(room.spells) == 1 else None
    return _Tie(one.first, one.since == "start", takes, one.wait, one.until == "end")


def _together(parts: Sequence[Tied]) -> Ties:
    """What must be over before each operation, of all parts."""
    ties: dict[str, Sequence[_Tie]] = {}
    for part in parts:
        for then in part.ties.keys() & ties.keys():
            ties[then] = (*ties[then], *part.ties[then])
        ties.update((then, t) for then, t in part.ties.items() if then not in ties)
    return ties


Run = tuple[list[tuple[Operation, float]], float]


def _run_through(block: Block, begins: float, ties: Ties, placed: Placed) -> Run:
    """When a block's operations begin one after the other from a minute on, and by how much later it should begin so
    that nothing in it waits for something outside."""
    begun: dict[str, tuple[float, float]] = {}
    at, late = begins, 0.0
    made = []
    for operation, takes in block.lengths:
        for tie in ties.get(operation.id, ()):
            mine = begun.get(tie.first)
            if mine:
                over = tie.over(mine[0] if tie.since_start else mine[1], placed.room)
                at = max(at, over - takes if tie.until_end else over)
            elif tie.first in placed.ends:
                since = placed.begins[tie.first] if tie.since_start else placed.ends[tie.first]
                over = tie.over(since, placed.room)
                late = max(late, (over - takes if tie.until_end else over) - at)
        begun[operation.id] = (at, at + takes)
        made.append((operation, at))
        at += takes
    return made, late


def _place(block: Block, run: Run, free: float, ties: Ties, placed: Placed, dust_from: float) -> None:
    """Place a block from a minute on, when the painter is free. `run` is how it runs through from minute 0."""
    begins = free
    if block.makes_dust:
        begins = max(begins, dust_from)
    made, late = run
    if len(placed.room.spells) == 1:  # begun later, all in it is as much later
        late = max(begins, late)
    else:
        made, late = _run_through(block, begins, ties, placed)
        for _ in range(3):  # what is inside may move with the room
            if late <= EARLIER:
                break
            begins += late
            made, late = _run_through(block, begins, ties, placed)
    for (operation, takes), (_, at) in zip(block.lengths, made, strict=True):
        placed.begins[operation.id] = at + late
        placed.ends[operation.id] = at + late + takes
    first, last = block.operations[0], block.operations[-1]
    if block.early:
        hands = sum(o.hands_on_min for o in block.early)
        at = placed.gap_before(placed.begins[first.id] - block.rest_min, hands)
        placed.occupy(at, at + hands)
        for operation in block.early:
            placed.begins[operation.id], placed.ends[operation.id] = at, at + operation.takes_min
            at += operation.hands_on_min
    placed.occupy(placed.begins[first.id], placed.ends[last.id])


def _before(parts: Sequence[Tied]) -> dict[str, set[str]]:
    """The blocks that each block comes after."""
    owner: dict[str, str] = {}
    for part in parts:
        owner.update(part.owner)
    needs: dict[str, set[str]] = {b.id: set() for part in parts for b in part.blocks}
    for part in parts:
        for one, other in part.pairs:
            first, then = owner.get(one), owner.get(other)
            if first and then and first != then:
                needs[then].add(first)
    return needs


class _Queue:
    """Blocks that may begin, the one that can begin first before the others, then as they were given."""

    def __init__(self, blocks: Sequence[Block], ties: Ties, placed: Placed) -> None:
        self.number = {b.id: n for n, b in enumerate(blocks)}
        self.blocks, self.ties, self.placed = blocks, ties, placed
        self.ready: list[tuple[float, int]] = []
        self.runs: dict[int, Run] = {}

    def put(self, block: str) -> None:
        """Let a block begin as soon as what it waits for is over."""
        n = self.number[block]
        self.runs[n] = _run_through(self.blocks[n], 0.0, self.ties, self.placed)
        heappush(self.ready, (self.runs[n][1], n))

    def take(self) -> tuple[Block, Run]:
        """The next block, and how it runs through from minute 0."""
        n = heappop(self.ready)[1]
        return self.blocks[n], self.runs[n]


@dataclass(frozen=True)
class Order:
    """When everything is done. `stuck` are blocks that waited for each other for ever, `missed` what cannot be kept."""

    placed: Placed
    stuck: tuple[str, ...]
    missed: tuple[Constraint, ...]


def in_order(parts: Sequence[Tied], room: Room) -> Order:
    """When everything is done at the earliest by one painter, and what comes of it.

    Blocks that can begin at the same time are done in the order they are given; of those that wait for each other the
    first is begun all the same.
    """
    by_then, needs = _together(parts), _before(parts)
    blocks = [b for part in parts for b in part.blocks]
    after = _after(needs)
    placed, free, dust_from = Placed(room), 0.0, 0.0
    queue = _Queue(blocks, by_then, placed)
    for block in blocks:
        if not needs[block.id]:
            queue.put(block.id)
    stuck: list[str] = []
    while needs:
        if not queue.ready:
            stuck += needs
            queue.put(min(needs, key=lambda b: queue.number[b]))
        block, run = queue.take()
        if needs.pop(block.id, None) is None:
            continue
        _place(block, run, free, by_then, placed, dust_from)
        free = max(free, placed.ends[block.operations[-1].id])
        for laid, wait in block.sticky.items():
            dust_from = max(dust_from, dry_at(placed.ends[laid], wait, room) or 0.0)
        for then in _freed(after.get(block.id, ()), block.id, needs):
            queue.put(then)
    return Order(placed, tuple(dict.fromkeys(stuck)), _missed(parts, placed))


def _after(needs: Mapping[str, Collection[str]]) -> dict[str, list[str]]:
    """Of each block those that wait for it."""
    found: dict[str, list[str]] = {}
    for then, firsts in needs.items():
        for first in firsts:
            found.setdefault(first, []).append(then)
    return found


def _freed(waiting: Iterable[str], done: str, needs: Mapping[str, set[str]]) -> Iterator[str]:
    """The blocks that wait for nothing more once one is done. What they wait for is taken off."""
    for then in waiting:
        firsts = needs.get(then, set())
        if done in firsts:
            firsts.discard(done)
            if not firsts:
                yield then


def _missed(parts: Sequence[Tied], placed: Placed) -> tuple[Constraint, ...]:
    """Windows and lives that one painter cannot keep in this order, the first first."""
    found = []
    for one in (c for part in parts for c in part.windows):
        if one.first not in placed.ends or one.then not in placed.ends:
            continue
        since = (placed.begins if one.since == "start" else placed.ends)[one.first]
        ends = dry_at(since, one.wait, placed.room)
        done = (placed.begins if one.until == "start" else placed.ends)[one.then]
        if one.kind in LIVES and one.wait.reference_min is not None:
            latest = since + one.wait.reference_min
            ends = latest if ends is None else min(ends, latest)
        if ends is not None and done > ends + EARLIER:
            found.append((done, one))
    found.sort(key=lambda pair: pair[0])
    return tuple(one for _, one in found)


def around(session: Sequence[Operation], habits: Habits) -> tuple[Operation, Operation]:
    """Laying out before a session at the bench, and clearing away after it."""
    first, last = session[0], session[-1]
    tools = (*habits.first_things, *(t for o in session for t in o.tools))
    out = Operation(
        f"{first.id}:lay-out", "lay out", "Lay out", job=first.job, hands_on_min=habits.lay_out_min,
        tools=tuple(dict.fromkeys(tools)), how=("All that this session takes, within reach.",),
        check="Nothing has to be looked for with wet hands.", at_min=first.at_min - habits.lay_out_min,
    )  # fmt: skip
    away = Operation(
        f"{last.id}:clear-away", "clear away", "Clear away", job=last.job, hands_on_min=habits.clear_away_min,
        how=("Lids on, labels on what is kept, cloths as their caution says, sheet shaken outdoors.",),
        check="What dries next stands free.", at_min=last.ends_min,
    )  # fmt: skip
    return out, away


def with_sessions(operations: Sequence[Operation], habits: Habits) -> tuple[Operation, ...]:
    """The operations in order of time, with laying out before each session at the bench and clearing away after it."""
    ordered = sorted(operations, key=lambda o: o.at_min)
    hands = [o for o in ordered if o.hands_on_min > 0]
    made: list[Operation] = []
    sessions: list[list[Operation]] = []
    for operation in hands:
        if sessions and operation.at_min <= sessions[-1][-1].ends_min + habits.session_gap_min:
            sessions[-1].append(operation)
        else:
            sessions.append([operation])
    for session in sessions:
        made += around(session, habits)
    return tuple(sorted([*made, *ordered], key=lambda o: o.at_min))
