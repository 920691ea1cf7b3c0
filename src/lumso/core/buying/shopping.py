"""The list for the shop: what is short, in the packs that cover it, aisle by aisle."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ..book.catalogue import Catalogue
from ..book.materials import Material, Role
from ..book.things import AISLES, Aisle
from ..figure import tidy
from ..value import Value
from .lots import Lot, LotUse, Unit, serves
from .money import apportioned, said
from .packs import PER_UNIT, Basket, Bundle, Offer, Shop, Wanted, holds, hundredths, over, paid_for
from .promises import LotNeed, Promise, Reserved
from .purse import Purse, Stocked

AISLE_OF: Mapping[Role, Aisle] = {
    "paint": "paints and powders", "powder": "paints and powders", "pigment": "paints and powders",
    "grit": "paints and powders", "medium": "media, waxes and sealers", "wax": "media, waxes and sealers",
    "thinner": "media, waxes and sealers", "sealer": "media, waxes and sealers",
    "additive": "media, waxes and sealers", "water": "media, waxes and sealers",
}  # fmt: skip


@dataclass(frozen=True)
class PackBought(Value):
    """So many packs of a size, at a price each (None unpriced)."""

    count: int
    size: float
    unit: Unit
    each_minor: int | None
    says: str
    at: str = ""


def times(pack: PackBought, count: int) -> PackBought:
    """So many of a pack."""
    return replace(pack, count=count, says=packs_said(count, pack.size, pack.unit))


@dataclass(frozen=True)
class For(Value):
    """What something is bought for."""

    job: str
    job_name: str
    says: str
    at_min: float
    amount: float


@dataclass(frozen=True)
class ListLine(Value):
    """Something to buy. Amounts are in `unit`; `minor` is what it comes to, as shown lines add up to the total."""

    key: str
    item: str
    name: str
    kind: Literal["material", "thing"]
    colour: str
    hex: str
    aisle: Aisle
    unit: Unit
    needed: float
    """What the jobs take of it, all together, at the risk chosen for them."""
    promised: float
    """What stands in the workshop for that."""
    least: float
    """What is to be left on the shelf after it, beyond what there is."""
    kept_out: float
    """What stands there and is not used for it, because tins of a colour differ."""
    buys: float
    """What is short."""
    packs: tuple[PackBought, ...]
    over: float
    """What the packs hold beyond that."""
    minor: int | None
    state: Literal["priced", "unpriced", "no pack known"]
    notes: tuple[str, ...]
    uses: tuple[For, ...]


@dataclass(frozen=True)
class ShoppingList(Value):
    """All there is to buy, aisle by aisle, and what it comes to.

    `unpriced` are names of what no price is known of: the total is without them, never as if they cost nothing.
    """

    lines: tuple[ListLine, ...]
    minor: int
    currency: str
    total: str
    unpriced: tuple[str, ...]
    bundles: tuple[str, ...]
    """The bundles that are taken, in words."""
    promises: tuple[Promise, ...]
    ready: tuple[str, ...]
    """What lasts, and must be there."""
    proven: bool
    """Whether no cheaper basket exists."""


@dataclass(frozen=True)
class Group:
    """All that is short of one item in one colour."""

    key: str
    needs: tuple[LotNeed, ...]
    short: tuple[LotNeed, ...]
    material: Material | None
    name: str
    aisle: Aisle
    unit: Unit

    def amount(self, needs: Sequence[LotNeed]) -> float:
        """How much needs come to, in the group's unit."""
        return sum(n.use.amount(self.unit) for n in needs)


def key_of(use: LotUse) -> str:
    """What is one line of the list: an item in a colour."""
    return f"{use.item}|{(use.colour or use.hex).casefold()}"


def _unit(stocked: Stocked, material: Material | None, thing_unit: Unit) -> Unit:
    if material is None:
        return thing_unit
    if stocked.packs:
        return stocked.packs[0].unit
    return "g" if material.kind != "liquid" else "ml"


def grouped(needs: Sequence[LotNeed], reserved: Reserved, purse: Purse, catalogue: Catalogue) -> tuple[Group, ...]:
    """What is needed, by item and colour, in the order of a shop."""
    by: dict[str, list[LotNeed]] = {}
    for need in needs:
        by.setdefault(key_of(need.use), []).append(need)
    short: dict[str, list[LotNeed]] = {}
    for need in reserved.short:
        short.setdefault(key_of(need.use), []).append(need)
    found = []
    for key, mine in by.items():
        item = mine[0].use.item
        material, thing = catalogue.materials.get(item), catalogue.things.get(item)
        if material is None and thing is None:
            continue
        unit = _unit(purse.of(item), material, "m" if thing and thing.unit == "m" else "piece")
        aisle = thing.aisle if thing else AISLE_OF[material.role if material else "medium"]
        name = thing.name if thing else material.name if material else item
        found.append(Group(key, tuple(mine), tuple(short.get(key, ())), material, name, aisle, unit))
    return tuple(sorted(found, key=lambda g: (AISLES.index(g.aisle), g.name, g.key)))


def in_unit(size: float, unit: Unit, to: Unit, material: Material | None) -> float | None:
    """A size in another unit: ml and g by the weight of a level ml. None where they do not compare."""
    if unit == to:
        return size
    if material is None or {unit, to} != {"ml", "g"}:
        return None
    return size * material.bulk_density if to == "g" else size / material.bulk_density


def _there(group: Group, free: Mapping[str, float], lots: Sequence[Lot]) -> float:
    """What stands in the workshop of a group and is promised to nobody, in the group's unit."""
    use = group.needs[0].use
    mine = (lot for lot in lots if serves(lot, use))
    return sum(in_unit(free.get(lot.slug, 0.0), lot.unit, group.unit, group.material) or 0.0 for lot in mine)


@dataclass(frozen=True)
class Sought:
    """What the search for packs is asked: the shop, and what was put into it."""

    groups: tuple[Group, ...]
    wanted: Mapping[str, float]
    least: Mapping[str, float]
    there: Mapping[str, float]
    """What stands in the workshop and is promised to nobody."""
    shop: Shop
    sold: Mapping[str, tuple[str, PackBought]]
    """By the id of an offer: its group's key, and one of it."""
    lots: tuple[Lot, ...] = ()
    """All that stands in the workshop."""


def shop_of(groups: Sequence[Group], purse: Purse, free: Mapping[str, float], lots: Sequence[Lot]) -> Sought:
    """What is wanted and sold, for the search. Packs whose size does not compare are left out."""
    wanted, least, there, offers, sold = {}, {}, {}, [], {}
    for group in groups:
        there[group.key] = _there(group, free, lots)
        least[group.key] = max(purse.of(group.needs[0].use.item).least - there[group.key], 0.0)
        wanted[group.key] = group.amount(group.short) + least[group.key]
        if wanted[group.key] <= 0:
            continue
        stocked = purse.of(group.needs[0].use.item)
        for n, pack in enumerate(stocked.packs, 1):
            size = in_unit(pack.size, pack.unit, group.unit, group.material)
            if size is None or (stocked.prefers and n != stocked.prefers):
                continue
            slug = f"{group.key}#{n}"
            offers.append(Offer(slug, group.key, holds(size), pack.price_minor))
            says = packs_said(1, pack.size, pack.unit)
            sold[slug] = (group.key, PackBought(1, pack.size, pack.unit, pack.price_minor, says, pack.at))
    bundles = []
    for n, deal in enumerate(purse.deals):
        inside = [o.id for o in offers if o.price is not None and _in_deal(o.id, deal.items, deal.size, sold)]
        if inside:
            bundles.append(Bundle(str(n), deal.count, deal.price_minor, tuple(inside)))
    spoils = {g.key for g in groups if g.material and "can mould" in g.material.traits}
    want = tuple(Wanted(k, hundredths(v), k in spoils) for k, v in wanted.items() if v > 0)
    return Sought(tuple(groups), wanted, least, there, Shop(want, tuple(offers), tuple(bundles)), sold, tuple(lots))


def packs_said(count: int, size: float, unit: Unit) -> str:
    """So many packs of a size: 3 × 170 g, 2 packets of 10, 3 pieces."""
    if unit != "piece":
        return f"{count} × {tidy(size)} {unit}"
    if size == 1:
        return f"{count} {'piece' if count == 1 else 'pieces'}"
    return f"{count} {'packet' if count == 1 else 'packets'} of {tidy(size)}"


def _in_deal(offer: str, items: Sequence[str], size: float, sold: Mapping[str, tuple[str, PackBought]]) -> bool:
    key, pack = sold[offer]
    return key.split("|", 1)[0] in items and size in (0.0, pack.size)


def listed(asked: Sought, basket: Basket, reserved: Reserved, purse: Purse, ready: Sequence[str],
           jar_promises: Sequence[Promise] = ()) -> ShoppingList:  # fmt: skip
    """The list as a basket fills it."""
    paid = paid_for(asked.shop, basket)
    left = over(asked.shop, basket.packs)
    priced = {o.of for o in asked.shop.offers if o.price is not None}
    keys = [k for k in paid if k in priced]
    shown = dict(zip(keys, apportioned([paid[k] for k in keys]), strict=True))
    lines = []
    for group in asked.groups:
        wants = asked.wanted[group.key]
        if wants <= 0:
            continue
        mine = [(o, n) for o, n in basket.packs.items() if asked.sold[o][0] == group.key]
        packs = tuple(times(asked.sold[o][1], n) for o, n in mine)
        state: Literal["priced", "unpriced", "no pack known"] = (
            "priced" if group.key in priced else "unpriced" if packs else "no pack known"
        )
        use = group.needs[0].use
        needed = group.amount(group.needs)
        lines.append(
            ListLine(
                group.key, use.item, group.name, group.needs[0].kind, use.colour, use.hex, group.aisle, group.unit,
                needed, needed - group.amount(group.short), asked.least[group.key],
                asked.there[group.key] if use.hex else 0.0, wants, packs,
                max(left.get(group.key, 0), 0) / PER_UNIT if packs else 0.0,
                shown.get(group.key) if state == "priced" else None, state, _notes(group, reserved, asked, purse),
                tuple(For(n.use.by, n.job_name, n.says, n.use.at_min, n.use.amount(group.unit)) for n in group.short),
            )
        )  # fmt: skip
    taken = []
    for n, deal in enumerate(purse.deals):
        if taken_times := sum(basket.bundled.get(str(n), {}).values()) // deal.count:
            taken.append(f"{deal.name}: {taken_times} × {deal.count} for {said(deal.price_minor, purse.currency)}")
    none = tuple(line.name + (f", {line.colour}" if line.colour else "") for line in lines if line.minor is None)
    return ShoppingList(tuple(lines), basket.money, purse.currency, said(basket.money, purse.currency), none,
                        tuple(taken), (*reserved.promises, *jar_promises), tuple(ready), basket.proven)  # fmt: skip


def _colourless(group: Group, lots: Sequence[Lot]) -> tuple[float, Unit] | None:
    """What stands there of a paint that is needed in a colour, and says none itself."""
    use = group.needs[0].use
    mine = [lot for lot in lots if use.hex and lot.item == use.item and not lot.colour and not serves(lot, use)]
    return (sum(lot.left for lot in mine), mine[0].unit) if mine else None


def _notes(group: Group, reserved: Reserved, asked: Sought, purse: Purse) -> tuple[str, ...]:
    found = []
    ids = {n.id for n in group.needs}
    if any(p.several and p.need in ids for p in reserved.promises):
        found.append("From several tins: stir them together first, tins differ.")
    bought_too = {n.id for n in group.short}
    if any(p.need in bought_too for p in reserved.promises) and group.needs[0].use.hex:
        found.append("Partly from a tin that is there: stir the new one into it first, tins differ.")
    if unsaid := _colourless(group, asked.lots):
        found.append(f"{tidy(unsaid[0])} {unsaid[1]} stand on the shelf, of a colour that is not said: look first.")
    if purse.of(group.needs[0].use.item).prefers:
        found.append("The pack you prefer, whatever others cost.")
    return tuple(found)
