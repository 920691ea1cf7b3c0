"""Changes to a zone's stack that can be made with one press, as values, and what they make of the zone."""

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from annotated_types import Interval

from ..book.catalogue import Catalogue, pick
from ..book.preparation import Sanding
from ..book.recipes import VolumeShare
from ..errors import InvalidValue, UnknownEntry
from ..job.job import MOST_COATS, DriesBy, FromArea, Layer, Zone
from ..job.start import start_on
from ..layers.laid import lay
from ..layers.stack import beneath_each
from ..value import Fraction, Positive, Slug, Value


@dataclass(frozen=True)
class InsertLayer(Value):
    """A new layer right beneath the layer `above`; "" puts it on top."""

    do: Literal["insert"]
    above: str
    recipe: Slug
    technique: str = ""
    """How it is put on; "" as is usual for the recipe on what it lies on."""
    wait_h: float | None = None
    coats: Annotated[int, Interval(ge=1, le=MOST_COATS)] = 1


@dataclass(frozen=True)
class SwapRecipe(Value):
    """Another mix for a layer, put on the way that is usual for it; coats and waits stay."""

    do: Literal["swap"]
    layer: Slug
    recipe: Slug
    technique: str = ""


@dataclass(frozen=True)
class RemoveLayer(Value):
    """A layer taken out."""

    do: Literal["remove"]
    layer: Slug


@dataclass(frozen=True)
class MoveLayer(Value):
    """A layer moved to right beneath `above`; "" moves it to the top."""

    do: Literal["move"]
    layer: Slug
    above: str


@dataclass(frozen=True)
class SetLayer(Value):
    """Some of a layer's own values; what is None stays as it is."""

    do: Literal["set"]
    layer: Slug
    wait_h: float | None = None
    thickness_mm: Positive | None = None
    coats: int | None = None
    technique: str | None = None
    touched: Fraction | None = None
    sandings: tuple[Sanding, ...] | None = None
    dries_by: DriesBy | None = None
    coat_wait_h: float | None = None
    wet_into_wet: bool | None = None


@dataclass(frozen=True)
class SetShare(Value):
    """A component's share of the whole in a layer's mix."""

    do: Literal["share"]
    layer: Slug
    component: Slug
    share: Fraction


@dataclass(frozen=True)
class AddPrep(Value):
    """Something done to the ground first, put where it belongs in the order."""

    do: Literal["prep"]
    prep: Slug


@dataclass(frozen=True)
class DropPrep(Value):
    """A preparation left out."""

    do: Literal["drop prep"]
    prep: Slug


@dataclass(frozen=True)
class SortPrep(Value):
    """The preparations put into their usual order."""

    do: Literal["sort prep"]


Change = InsertLayer | SwapRecipe | RemoveLayer | MoveLayer | SetLayer | SetShare | AddPrep | DropPrep | SortPrep


@dataclass(frozen=True)
class Remedy(Value):
    """A remedy of a finding: what it does, in words, and the changes that do it."""

    says: str
    changes: tuple[Change, ...]


def _place(layers: list[Layer], above: str) -> int:
    return next((i for i, layer in enumerate(layers) if layer.id == above), len(layers))


def surface_under(zone: Zone, index: int, catalogue: Catalogue) -> str:
    """The kind of surface that the layer of that index lies on; layers that cannot be composed are left out of it.

    Raises UnknownEntry for a ground nobody knows.
    """
    ground = pick("ground", catalogue.grounds, zone.ground)
    beneath = []
    for layer in zone.layers[:index]:
        with suppress(InvalidValue, UnknownEntry):
            beneath.append(lay(layer, catalogue))
    return beneath_each(ground, beneath)[-1].surface


def _swapped(layer: Layer, change: SwapRecipe, surface: str, catalogue: Catalogue) -> Layer:
    start = start_on(layer.id, change.recipe, surface, catalogue)
    if change.technique:
        technique = pick("technique", catalogue.techniques, change.technique)
        start = replace(
            start, technique=technique.slug, tool=technique.tools[0], touched=technique.touched,
            thickness_mm=technique.usual_mm,
        )  # fmt: skip
    kept = {c.id for c in pick("recipe", catalogue.recipes, change.recipe).components}
    return replace(
        start,
        coats=layer.coats,
        margin=layer.margin,
        thickness_mm=layer.thickness_mm if start.technique == layer.technique else start.thickness_mm,
        wait_h=layer.wait_h,
        sandings=layer.sandings,
        colours={k: v for k, v in layer.colours.items() if k in kept},
    )


def _set(layer: Layer, change: SetLayer, catalogue: Catalogue) -> Layer:
    given = {
        "wait_h": change.wait_h,
        "thickness_mm": change.thickness_mm,
        "coats": change.coats,
        "touched": change.touched,
        "sandings": change.sandings,
        "dries_by": change.dries_by,
        "coat_wait_h": change.coat_wait_h,
        "wet_into_wet": change.wet_into_wet,
    }
    changed = replace(layer, **{k: v for k, v in given.items() if v is not None})  # type: ignore[arg-type]
    if change.technique is not None:
        technique = pick("technique", catalogue.techniques, change.technique)
        changed = replace(changed, technique=technique.slug, tool=technique.tools[0], touched=technique.touched)
        if change.thickness_mm is None:
            changed = replace(changed, thickness_mm=technique.usual_mm)
    return changed


def _in_order(prep: tuple[str, ...], catalogue: Catalogue) -> tuple[str, ...]:
    known = catalogue.preparations
    return tuple(sorted(dict.fromkeys(prep), key=lambda p: known[p].order if p in known else 0))


def _with_layer(zone: Zone, layer_id: str) -> int:
    for i, layer in enumerate(zone.layers):
        if layer.id == layer_id:
            return i
    known = ", ".join(layer.id for layer in zone.layers) or "none"
    raise InvalidValue(f"{zone.name} has no layer {layer_id!r}.", value=layer_id, allowed=known, field="layer")


def changed(zone: Zone, change: Change, catalogue: Catalogue, ids: Iterator[str]) -> Zone:
    """The zone after one change; `ids` gives layer ids that were never used before.

    Raises InvalidValue for a layer that is not there, UnknownEntry for a name the catalogue does not have.
    """
    if isinstance(change, AddPrep | DropPrep | SortPrep):
        return _prepared(zone, change, catalogue)
    layers = list(zone.layers)
    match change:
        case InsertLayer():
            place = _place(layers, change.above)
            surface = "" if change.technique else surface_under(zone, place, catalogue)
            made = start_on(next(ids), change.recipe, surface, catalogue)
            if change.technique:
                made = _set(made, SetLayer("set", made.id, technique=change.technique), catalogue)
            want = FromArea("area")
            layers.insert(place, replace(made, want=want, wait_h=change.wait_h, coats=change.coats))
        case SwapRecipe():
            i = _with_layer(zone, change.layer)
            surface = "" if change.technique else surface_under(zone, i, catalogue)
            layers[i] = _swapped(layers[i], change, surface, catalogue)
        case RemoveLayer():
            del layers[_with_layer(zone, change.layer)]
        case MoveLayer():
            moved = layers.pop(_with_layer(zone, change.layer))
            layers.insert(_place(layers, change.above), moved)
        case SetLayer():
            i = _with_layer(zone, change.layer)
            layers[i] = _set(layers[i], change, catalogue)
        case SetShare():
            i = _with_layer(zone, change.layer)
            amounts = {**layers[i].amounts, change.component: VolumeShare("volume-share", change.share)}
            layers[i] = replace(layers[i], amounts=amounts)
    return replace(zone, layers=tuple(layers))


def _prepared(zone: Zone, change: AddPrep | DropPrep | SortPrep, catalogue: Catalogue) -> Zone:
    """The zone with one preparation more or less, or those there are in their order. Raises UnknownEntry."""
    match change:
        case AddPrep(prep=prep):
            pick("preparation", catalogue.preparations, prep)
            return replace(zone, prep=_in_order((*zone.prep, prep), catalogue))
        case DropPrep(prep=prep):
            return replace(zone, prep=tuple(p for p in zone.prep if p != prep))
        case SortPrep():
            return replace(zone, prep=_in_order(zone.prep, catalogue))


def apply(zone: Zone, changes: tuple[Change, ...], catalogue: Catalogue, ids: Iterator[str]) -> Zone:
    """The zone after all `changes`, in order."""
    for change in changes:
        zone = changed(zone, change, catalogue, ids)
    return zone
