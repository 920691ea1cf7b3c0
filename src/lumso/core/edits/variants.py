"""Several looks for one zone: kept beside the one that is planned, and chosen among."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from ..book.catalogue import pick
from ..errors import InvalidValue
from ..job.job import MOST_VARIANTS, FromArea, Layer, Variant, Zone
from ..value import Name, Slug, Value


@dataclass(frozen=True)
class KeepVariant(Value):
    """What is planned on a zone kept as one of its looks; planning goes on from it."""

    edit: Literal["keep variant"]
    seed: Slug
    zone: Slug
    name: Name


@dataclass(frozen=True)
class ChooseVariant(Value):
    """One of a zone's looks planned in place of what is planned now, which is kept under `name`."""

    edit: Literal["choose variant"]
    seed: Slug
    zone: Slug
    variant: Slug
    name: Name = "the one before"


@dataclass(frozen=True)
class DropVariant(Value):
    """One of a zone's looks let go."""

    edit: Literal["drop variant"]
    seed: Slug
    zone: Slug
    variant: Slug


@dataclass(frozen=True)
class TakeStrip(Value):
    """What was painted on a strip of a test board becomes what is planned on the zone it was for: its layers and its
    preparation. What was planned is kept as a look, where there is room."""

    edit: Literal["take strip"]
    seed: Slug
    zone: Slug
    name: Name
    strip: Zone


def with_strip(zone: Zone, edit: TakeStrip, ids: Iterator[str]) -> Zone:
    """The zone with a strip's layers on it; amounts follow the zone's own area."""
    if len(zone.variants) < MOST_VARIANTS:
        zone = replace(zone, variants=(*zone.variants, _kept(zone, edit.name, ids)))
    held = {i: layer.id for i, layer in enumerate(zone.layers)}
    layers, moved = [], {}
    for i, layer in enumerate(edit.strip.layers):
        mine = held[i] if len(held) == len(edit.strip.layers) else next(ids)
        moved[layer.id] = mine
        layers.append(replace(layer, id=mine, want=FromArea("area")))
    accepted = tuple(replace(a, layer=moved.get(a.layer, "")) for a in edit.strip.accepted)
    return replace(zone, layers=tuple(layers), prep=edit.strip.prep, accepted=accepted)


VariantEdit = KeepVariant | ChooseVariant | DropVariant


def _kept(zone: Zone, name: str, ids: Iterator[str]) -> Variant:
    def copied(layer: Layer) -> Layer:
        return replace(layer, id=next(ids), pots=tuple(replace(p, id=next(ids)) for p in layer.pots))

    mine = next(ids)
    layers = tuple(copied(x) for x in zone.layers)
    moved = dict(zip((x.id for x in zone.layers), (x.id for x in layers), strict=True))
    accepted = tuple(replace(a, layer=moved.get(a.layer, "")) for a in zone.accepted)
    return Variant(mine, name, layers, zone.finish, zone.prep, accepted)


def with_variant(zone: Zone, edit: VariantEdit, ids: Iterator[str]) -> Zone:
    """The zone after one of these edits. Raises UnknownEntry, and InvalidValue for more looks than can be kept."""
    known = {v.id: v for v in zone.variants}
    match edit:
        case KeepVariant():
            if len(known) >= MOST_VARIANTS:
                says = f"{zone.name} has {len(known)} looks already."
                raise InvalidValue(says, value=len(known), allowed=f"at most {MOST_VARIANTS}; drop one", field="name")
            return replace(zone, variants=(*zone.variants, _kept(zone, edit.name, ids)))
        case ChooseVariant():
            one = pick("look", known, edit.variant)
            before = _kept(zone, edit.name, ids)
            others = tuple(before if v is one else v for v in zone.variants)
            return replace(as_variant(zone, one.id), variants=others)
        case DropVariant():
            gone = pick("look", known, edit.variant)
            return replace(zone, variants=tuple(v for v in zone.variants if v is not gone))


def as_variant(zone: Zone, variant: str) -> Zone:
    """The zone as if one of its looks were planned on it; "" is what is. Raises UnknownEntry."""
    if not variant:
        return zone
    one = pick("look", {v.id: v for v in zone.variants}, variant)
    return replace(zone, layers=one.layers, finish=one.finish, prep=one.prep, accepted=one.accepted)
