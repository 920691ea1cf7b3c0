"""Promises: which tin or jar each coat that is still to be laid will come from. They are worked out, never kept: what
is put away, skipped or logged asks for nothing, and frees what it was promised."""

from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ..value import Value
from .lots import Lot, LotUse, Unit, first_to_go, serves

CRUMB = 1e-9


@dataclass(frozen=True)
class LotNeed:
    """Something a job still takes. `matches` where it is one colour that several tins may not have."""

    id: str
    use: LotUse
    job_name: str
    says: str
    kind: Literal["material", "thing"] = "material"
    matches: bool = False


@dataclass(frozen=True)
class Promise(Value):
    """What a lot, or a jar of mix, is promised to: `share` of the need, `amount` in the lot's unit."""

    need: str
    lot: str
    job: str
    job_name: str
    says: str
    at_min: float
    share: float
    amount: float
    unit: Unit
    several: bool = False
    """Whether the need is met from more than one lot: said, because tins differ."""


@dataclass(frozen=True)
class Reserved:
    """What was promised, what is free in each lot, and what is still to be bought."""

    promises: tuple[Promise, ...]
    free: dict[str, float]
    short: tuple[LotNeed, ...]


def reserve(needs: Sequence[LotNeed], lots: Sequence[Lot], left: dict[str, float], day_of: Callable[[float], str],
            may_split: Collection[str] = ()) -> Reserved:  # fmt: skip
    """Promise lots to needs, the earliest need first, from what is `left` of each.

    A lot serves a need of its item and colour while it keeps until the day of it; `day_of` says the day of a minute.
    What spoils soonest goes first. A colour that must match is not met from several lots, unless its item is in
    `may_split`: then it is marked. What no lot meets is short.
    """
    free, promises, short = dict(left), [], []
    ordered = sorted(lots, key=first_to_go)
    for need in sorted(needs, key=lambda n: (n.use.at_min, n.id)):
        day = day_of(need.use.at_min)
        mine = [
            (lot, free[lot.slug] / need.use.amount(lot.unit))
            for lot in ordered
            if need.use.amount(lot.unit) > 0 and serves(lot, need.use) and free[lot.slug] > CRUMB
            and (not lot.keeps_until or lot.keeps_until >= day)
        ]  # fmt: skip
        whole = next((lot for lot, share in mine if share >= 1 - CRUMB), None)
        if whole is not None and (need.matches or mine[0][0] is whole):
            takes = [(whole, 1.0)]
        elif need.matches and need.use.item not in may_split:
            takes = []
        else:
            takes, still = [], 1.0
            for lot, share in mine:
                if still > CRUMB:
                    takes.append((lot, min(share, still)))
                    still -= takes[-1][1]
        for lot, share in takes:
            amount = min(need.use.amount(lot.unit) * share, free[lot.slug])
            free[lot.slug] -= amount
            promises.append(
                Promise(need.id, lot.slug, need.use.by, need.job_name, need.says, need.use.at_min, share, amount,
                        lot.unit, len(takes) > 1)
            )  # fmt: skip
        rest = 1.0 - sum(share for _, share in takes)
        if rest > CRUMB:
            use = need.use
            short.append(replace(need, use=use.alike(use.ml * rest, use.g * rest, use.count * rest)))
    return Reserved(tuple(promises), free, tuple(short))
