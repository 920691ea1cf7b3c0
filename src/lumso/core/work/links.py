"""A zone's order as it is made: its links, what holds between them, and when each ends were this the only zone."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from ..figure import Figure
from ..job.job import Zone
from ..layers.drying import Wait, dry_at
from ..layers.pace import minutes_for
from .bench import WorkedWith
from .coats import CoatWork
from .operations import Kind, Operation


@dataclass(frozen=True)
class Link:
    """A step of a zone's order: operations done one after the other, or the pots of one coat."""

    operations: tuple[Operation, ...] = ()
    coats: tuple[CoatWork, ...] = ()


@dataclass(frozen=True)
class Tie:
    """What holds between two links of a zone, by their place in its order."""

    kind: Literal["after", "at least", "at most"]
    first: int
    then: int
    wait: Wait = field(default=Wait(0.0))
    why: str = ""
    remedy: str = ""


Waits = Mapping[int, tuple[Wait, str]]
"""What the next link waits for, by the place of an earlier one: how long, and what tells that it is over."""


class Order:
    """A zone's order as it is made: links, what holds between them, and when each ends were this the only zone."""

    def __init__(self, zone: Zone, bench: WorkedWith, area: Figure) -> None:
        self.zone, self.bench, self.area = zone, bench, area
        self.links: list[Link] = []
        self.ties: list[Tie] = []
        self.ends: list[float] = []
        self.waits: Waits = {}
        self.laid: dict[int, int] = {}
        """Where each layer's last coat was laid, by its index."""

    def operation(self, kind: Kind, name: str, says: str, minutes: float) -> Operation:
        """An operation on the whole zone."""
        return Operation(
            f"{self.bench.scope}{self.zone.id}:{name}",
            kind,
            says,
            job=self.bench.job,
            zone=self.zone.id,
            zone_name=self.zone.name,
            hands_on_min=minutes,
            area_m2=self.area.value,
        )

    def minutes(self, pace_m2_per_h: float, share: float = 1.0) -> float:
        """Minutes for the zone, or a share of it, at a pace."""
        return minutes_for(self.area.value * share, pace_m2_per_h, self.bench.habits.least_min)

    @property
    def here(self) -> int:
        """The place of the last link."""
        return len(self.links) - 1

    def begins(self) -> float:
        """When the next link may begin."""
        bounds = [dry_at(self.ends[k], wait, self.bench.room) or self.ends[k] for k, (wait, _) in self.waits.items()]
        return max([self.ends[-1] if self.ends else 0.0, *bounds])

    def add(self, link: Link, minutes: float) -> None:
        """Put a link at the end, once what it waits for is over."""
        begins, place = self.begins(), len(self.links)
        if place and place - 1 not in self.waits:
            self.ties.append(Tie("after", place - 1, place))
        self.ties += [Tie("at least", first, place, wait, why) for first, (wait, why) in self.waits.items()]
        self.links.append(link)
        self.ends.append(begins + minutes)
        self.waits = {}

    def do(self, *operations: Operation) -> None:
        """Put operations at the end that are done one after the other."""
        self.add(Link(operations), sum(o.takes_min for o in operations))
