"""One painter's order: when each thing can be done at the earliest, given what holds between them.

What is done in one go is a block: a mix that sets with the coats it serves, a patch with its part-dry work, sanding
with dusting. Blocks are placed one after the other, the one that can begin first before the others. A mix that rests
for hours is made that much earlier, in a gap.
"""

from bisect import insort
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from heapq import heappop, heappush

from ..book.habits import Habits
from ..layers.conditions import Room
from ..layers.drying import Wait, dry_at
from .operations import Constraint, Operation

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


@dataclass
class Placed:
    """When operations begin and end, as they are placed."""

    room: Room
    begins: dict[str, float] = field(default_factory=dict)
    ends: dict[str, float] = field(default_factory=dict)
    busy: list[tuple[float, float]] = field(default_factory=list)
    """When the painter's hands are full, in order."""

    def put(self, operation: Operation, at_min: float) -> None:
        """Place an operation."""
        self.begins[operation.id], self.ends[operation.id] = at_min, at_min + operation.takes_min

    def bound(self, constraint: Constraint) -> float | None:
        """The minute a constraint counts from in its first operation, with its wait; None where that is not known."""
        since = self.begins if constraint.since == "start" else self.ends
        return dry_at(since[constraint.first], constraint.wait, self.room)

    def earliest(self, operation: Operation, constraints: Sequence[Constraint], now: float) -> float:
        """When an operation may begin, from `now` on, as far as what is placed already has a say."""
        for one in constraints:
            if one.kind in {"at most", "within life", "not beside"} or one.first not in self.ends:
                continue
            begins = self.bound(one)
            if begins is None:
                begins = self.ends[one.first]
            now = max(now, begins - (operation.takes_min if one.until == "end" else 0.0))
        return now

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


def _run_through(block: Block, begins: float, by_then: Mapping[str, list[Constraint]], placed: Placed) -> float:
    """Place a block's operations from a minute on, one after the other; returns by how much it should begin later
    so that nothing in it has to wait for something outside."""
    now, late = begins, 0.0
    inside = {o.id for o in block.operations}
    for operation in block.operations:
        ties = by_then.get(operation.id, [])
        at = placed.earliest(operation, [c for c in ties if c.first in inside], now)
        late = max(late, placed.earliest(operation, [c for c in ties if c.first not in inside], at) - at)
        placed.put(operation, at)
        now = at + operation.takes_min
    return late


def _place(
    block: Block, free: float, by_then: Mapping[str, list[Constraint]], placed: Placed, dust_from: float
) -> None:
    begins = free
    if any(o.makes_dust for o in block.operations):
        begins = max(begins, dust_from)
    for _ in range(3):  # one pass in a steady room; a changing one may move what is inside
        late = _run_through(block, begins, by_then, placed)
        if late <= EARLIER:
            break
        begins += late
    first, last = block.operations[0], block.operations[-1]
    if block.early:
        ready = placed.begins[first.id] - block.rest_min
        hands = sum(o.hands_on_min for o in block.early)
        at = placed.gap_before(ready, hands)
        placed.occupy(at, at + hands)
        for operation in block.early:
            placed.put(operation, at)
            at += operation.hands_on_min
    placed.occupy(placed.begins[first.id], placed.ends[last.id])


def _before(blocks: Sequence[Block], constraints: Sequence[Constraint]) -> dict[str, set[str]]:
    """The blocks that each block comes after."""
    owner = {o.id: b.id for b in blocks for o in (*b.early, *b.operations)}
    needs: dict[str, set[str]] = {b.id: set() for b in blocks}
    for one in constraints:
        first, then = owner.get(one.first), owner.get(one.then)
        if one.kind != "not beside" and first and then and first != then:
            needs[then].add(first)
    return needs


class _Queue:
    """Blocks that may begin, the one that can begin first before the others, then as they were given."""

    def __init__(self, blocks: Sequence[Block], by_then: Mapping[str, list[Constraint]], placed: Placed) -> None:
        self.number = {b.id: n for n, b in enumerate(blocks)}
        self.blocks, self.by_then, self.placed = blocks, by_then, placed
        self.ready: list[tuple[float, int]] = []

    def put(self, block: str) -> None:
        """Let a block begin as soon as what it waits for is over."""
        n, at = self.number[block], 0.0
        for operation in self.blocks[n].operations:
            at = max(at, self.placed.earliest(operation, self.by_then.get(operation.id, ()), 0.0))
        heappush(self.ready, (at, n))

    def take(self) -> Block:
        """The next block."""
        return self.blocks[heappop(self.ready)[1]]


def in_order(blocks: Sequence[Block], constraints: Sequence[Constraint], room: Room) -> tuple[Placed, tuple[str, ...]]:
    """When everything is done at the earliest by one painter, and the blocks that waited for each other for ever.

    Blocks that can begin at the same time are done in the order they are given; of those that wait for each other the
    first is begun all the same.
    """
    by_then: dict[str, list[Constraint]] = {}
    for constraint in constraints:
        by_then.setdefault(constraint.then, []).append(constraint)
    needs = _before(blocks, constraints)
    after: dict[str, list[str]] = {}
    for then, firsts in needs.items():
        for first in firsts:
            after.setdefault(first, []).append(then)
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
        block = queue.take()
        if needs.pop(block.id, None) is None:
            continue
        _place(block, free, by_then, placed, dust_from)
        free = max(free, placed.ends[block.operations[-1].id])
        for laid, wait in block.sticky.items():
            dust_from = max(dust_from, dry_at(placed.ends[laid], wait, room) or 0.0)
        for then in after.get(block.id, ()):
            if block.id in needs.get(then, ()):
                needs[then].discard(block.id)
                if not needs[then]:
                    queue.put(then)
    return placed, tuple(dict.fromkeys(stuck))


def missed(constraints: Sequence[Constraint], placed: Placed) -> tuple[Constraint, ...]:
    """Windows and lives that one painter cannot keep in this order, the first first."""
    found = []
    for one in constraints:
        if one.kind not in {"at most", "within life"} or one.first not in placed.ends or one.then not in placed.ends:
            continue
        ends = placed.bound(one)
        done = (placed.begins if one.until == "start" else placed.ends)[one.then]
        if one.kind == "within life" and one.wait.reference_min is not None:
            since = placed.begins if one.since == "start" else placed.ends
            latest = since[one.first] + one.wait.reference_min
            ends = latest if ends is None else min(ends, latest)
        if ends is not None and done > ends + EARLIER:
            found.append((done, one))
    found.sort(key=lambda pair: pair[0])
    return tuple(one for _, one in found)


def with_sessions(operations: Sequence[Operation], habits: Habits,
                  first_things: tuple[str, ...]) -> tuple[Operation, ...]:  # fmt: skip
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
        first, last = session[0], session[-1]
        tools = (*first_things, *(t for o in session for t in o.tools))
        made.append(
            Operation(
                f"{first.id}:lay-out", "lay out", "Lay out", job=first.job, hands_on_min=habits.lay_out_min,
                tools=tuple(dict.fromkeys(tools)), how=("All that this session takes, within reach.",),
                check="Nothing has to be looked for with wet hands.", at_min=first.at_min - habits.lay_out_min,
            )
        )  # fmt: skip
        made.append(
            Operation(
                f"{last.id}:clear-away", "clear away", "Clear away", job=last.job, hands_on_min=habits.clear_away_min,
                how=("Lids on, labels on what is kept, cloths as their caution says, sheet shaken outdoors.",),
                check="What dries next stands free.", at_min=last.ends_min,
            )
        )  # fmt: skip
    return tuple(sorted([*made, *ordered], key=lambda o: o.at_min))
