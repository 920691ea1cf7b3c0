"""Every edit of a job that decides something, as a value; and what it makes of the job.

Plain values (a length, a name, the coats of a layer) are set where they are entered. What asks the rules is an edit: it
carries a `seed` that no id was ever made of, so that it can be shown, kept and referred to before it is worked out,
and comes to the same however often it is.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import chain, count
from typing import Annotated, Literal

from annotated_types import Interval, Len

from ..advice import remedied, trial, with_finish
from ..advice.bench import Taken
from ..book.catalogue import Catalogue, EntryKind, pick
from ..changes.change import Change, apply, surface_under
from ..changes.what_if import WhatIf, changed
from ..errors import InvalidValue
from ..job.areas import measure
from ..job.entries import without_entry
from ..job.job import MOST_ZONES, Job, Layer, Zone
from ..job.naming import UNNAMED, name_of
from ..job.start import on_piece, technique_for, usual_sizes
from ..layers.conditions import Room
from ..measure.lengths import Bare, read_length
from ..piece.kinds import kind_of
from ..value import Slug, Value
from .variants import ChooseVariant, DropVariant, KeepVariant, TakeStrip, with_strip, with_variant


@dataclass(frozen=True)
class EditStack(Value):
    """Changes to a zone's stack: a layer added, swapped, moved or taken out, a preparation, a remedy taken."""

    edit: Literal["stack"]
    seed: Slug
    zone: Slug
    changes: Annotated[tuple[Change, ...], Len(1, 40)]


@dataclass(frozen=True)
class PutFinish(Value):
    """A finish of the library put on a zone, prepared, primed and sealed as its ground and its use ask."""

    edit: Literal["finish"]
    seed: Slug
    zone: Slug
    finish: Slug


@dataclass(frozen=True)
class RemedyZone(Value):
    """The first remedy taken of everything worse than a note that has one."""

    edit: Literal["remedy"]
    seed: Slug
    zone: Slug


@dataclass(frozen=True)
class ChooseGround(Value):
    """Another ground; the first layer goes on the way that is usual there."""

    edit: Literal["ground"]
    seed: Slug
    zone: Slug
    ground: Slug


@dataclass(frozen=True)
class ChoosePiece(Value):
    """Another kind of piece, with its usual zones."""

    edit: Literal["piece"]
    seed: Slug
    kind: Slug


@dataclass(frozen=True)
class TakeUsual(Value):
    """Every size that nobody gave becomes as such pieces usually have it, and stays marked so. `bare` is the unit the
    workshop says lengths in."""

    edit: Literal["usual sizes"]
    seed: Slug
    bare: Bare = "mm"


@dataclass(frozen=True)
class TypeSize(Value):
    """A size of the piece as it was typed while nobody could read it."""

    edit: Literal["size"]
    seed: Slug
    size: Slug
    typed: Annotated[str, Len(1, 60)]
    bare: Bare = "mm"


@dataclass(frozen=True)
class SplitZone(Value):
    """A surface made a zone of its own, with the treatment of the zone that had it."""

    edit: Literal["split"]
    seed: Slug
    zone: Slug
    surface: Slug


@dataclass(frozen=True)
class MergeZone(Value):
    """A zone's surfaces given to the first other one; the zone and its layers go."""

    edit: Literal["merge"]
    seed: Slug
    zone: Slug


@dataclass(frozen=True)
class CopyStack(Value):
    """A zone's whole treatment copied to others: layers, preparation, and what was accepted."""

    edit: Literal["copy"]
    seed: Slug
    zone: Slug
    to: tuple[Slug, ...]


@dataclass(frozen=True)
class KeepWhatIf(Value):
    """Coats and a margin that were tried become so."""

    edit: Literal["what if"]
    seed: Slug
    coats: dict[str, Annotated[int, Interval(ge=1, le=12)]]
    margin: Annotated[float, Interval(ge=0, le=1)] | None = None


@dataclass(frozen=True)
class TakeEntry(Value):
    """An entry the job has kept as it had it becomes as the book has it."""

    edit: Literal["take entry"]
    seed: Slug
    kind: EntryKind
    slug: Slug


Edit = (
    EditStack
    | PutFinish
    | RemedyZone
    | ChooseGround
    | ChoosePiece
    | TakeUsual
    | TypeSize
    | SplitZone
    | MergeZone
    | CopyStack
    | KeepWhatIf
    | TakeEntry
    | KeepVariant
    | ChooseVariant
    | DropVariant
    | TakeStrip
)


@dataclass(frozen=True)
class Edited:
    """The job after an edit, and what was done of itself and why."""

    job: Job
    taken: tuple[Taken, ...] = ()


def touches(edit: Edit) -> tuple[tuple[str, ...], ...]:
    """What an edit changes or asks of a job, as keys and ids on the way to it: where somebody else changed none of it,
    the edit means the same there. The whole job is the empty way."""
    match edit:
        case ChoosePiece() | KeepWhatIf() | SplitZone() | MergeZone():
            return ((),)
        case TakeUsual() | TypeSize():
            return (("piece",),)
        case TakeEntry():
            return (("entries", edit.kind),)
        case CopyStack():
            return tuple(("zones", zone) for zone in (edit.zone, *edit.to))
        case _:
            return (("zones", edit.zone),)


def ids_of(seed: str) -> Iterator[str]:
    """Ids made of a seed: the seed itself first."""
    return chain((seed,), (f"{seed}-{n}" for n in count(2)))


def _at(job: Job, zone: str) -> int:
    for i, one in enumerate(job.zones):
        if one.id == zone:
            return i
    known = ", ".join(z.id for z in job.zones)
    raise InvalidValue(f"The job has no zone {zone!r}.", value=zone, allowed=known, field="zone")


def _with_zone(job: Job, index: int, zone: Zone) -> Job:
    return replace(job, zones=(*job.zones[:index], zone, *job.zones[index + 1 :]))


def _on_ground(zone: Zone, ground: str, catalogue: Catalogue) -> Zone:
    pick("ground", catalogue.grounds, ground)
    moved = replace(zone, ground=ground)
    if not zone.layers:
        return moved
    first = zone.layers[0]
    recipe = pick("recipe", catalogue.recipes, first.recipe)
    technique = technique_for(recipe, surface_under(moved, 0, catalogue), catalogue)
    laid = replace(first, technique=technique.slug, tool=technique.tools[0], touched=technique.touched)
    return replace(moved, layers=(laid, *zone.layers[1:]))


def _copies(layers: tuple[Layer, ...], ids: Iterator[str]) -> tuple[Layer, ...]:
    """Layers again, under ids of their own."""
    return tuple(
        replace(x, id=next(ids), pots=tuple(replace(pot, id=next(ids)) for pot in x.pots)) for x in layers
    )  # fmt: skip


def _split(job: Job, edit: SplitZone, ids: Iterator[str]) -> Job:
    at = _at(job, edit.zone)
    base = job.zones[at]
    if edit.surface not in base.surfaces or len(base.surfaces) < 2:
        others = ", ".join(base.surfaces) if len(base.surfaces) > 1 else "a zone of several surfaces"
        says = f"{base.name} has no surface {edit.surface!r} to part with."
        raise InvalidValue(says, value=edit.surface, allowed=others, field="surface")
    if len(job.zones) >= MOST_ZONES:
        says = f"A job has at most {MOST_ZONES} zones."
        raise InvalidValue(says, value=len(job.zones), allowed=f"at most {MOST_ZONES}", field="zone")
    named = measure(job).surfaces.get(edit.surface)
    name = named.name if named else edit.surface
    own = replace(base, id=next(ids), name=name, surfaces=(edit.surface,), layers=_copies(base.layers, ids))
    moved = dict(zip((x.id for x in base.layers), (x.id for x in own.layers), strict=True))
    own = replace(own, accepted=tuple(replace(a, layer=moved.get(a.layer, "")) for a in base.accepted))
    rest = replace(base, surfaces=tuple(s for s in base.surfaces if s != edit.surface))
    return replace(_with_zone(job, at, rest), zones=(*_with_zone(job, at, rest).zones, own))


def _with_usual(job: Job, bare: Bare, catalogue: Catalogue) -> Job:
    if job.piece is None:
        raise InvalidValue("There is no piece.", value="", allowed="a job with a piece", field="piece")
    usual = usual_sizes(kind_of(job.piece.kind), catalogue.forms.get(job.piece.form), bare)
    return replace(job, piece=replace(job.piece, sizes={**usual, **job.piece.sizes}))


def _sized(job: Job, edit: TypeSize) -> Job:
    """The job with a size read now. Raises what `read_length` raises, with the size as the field."""
    if job.piece is None:
        raise InvalidValue("There is no piece.", value="", allowed="a job with a piece", field="piece")
    spec = next((s for s in kind_of(job.piece.kind).sizes if s.slug == edit.size), None)
    if spec is None:
        known = ", ".join(s.slug for s in kind_of(job.piece.kind).sizes)
        raise InvalidValue(f"It has no size {edit.size!r}.", value=edit.size, allowed=known, field="size")
    length = read_length(edit.typed, edit.bare, (spec.least_mm, spec.most_mm))
    return replace(job, piece=replace(job.piece, sizes={**job.piece.sizes, edit.size: length}))


def _merge(job: Job, edit: MergeZone) -> Job:
    at = _at(job, edit.zone)
    gone = job.zones[at]
    into = next((z for z in job.zones if z.id != gone.id), None)
    if into is None:
        raise InvalidValue("There is no other zone.", value=gone.id, allowed="a job of several zones", field="zone")
    taken = replace(into, surfaces=(*into.surfaces, *gone.surfaces))
    return replace(job, zones=tuple(taken if z is into else z for z in job.zones if z is not gone))


def _copied(job: Job, edit: CopyStack, ids: Iterator[str]) -> Job:
    source = job.zones[_at(job, edit.zone)]
    for to in edit.to:
        at = _at(job, to)
        layers = _copies(source.layers, ids)
        moved = dict(zip((x.id for x in source.layers), (x.id for x in layers), strict=True))
        accepted = tuple(replace(a, layer=moved.get(a.layer, "")) for a in source.accepted)
        zone = replace(job.zones[at], layers=layers, accepted=accepted, prep=source.prep, finish=source.finish)
        job = _with_zone(job, at, zone)
    return job


def edited(job: Job, edit: Edit, catalogue: Catalogue, room: Room) -> Edited:
    """The job after an edit. `catalogue` already holds the job's and the workshop's entries.

    A job that nobody has named is named by what it is now.

    Raises InvalidValue or UnknownEntry for what is not there, with what is.
    """
    done = _edited(job, edit, catalogue, room)
    if job.name in {name_of(job, catalogue), UNNAMED}:
        return replace(done, job=replace(done.job, name=name_of(done.job, catalogue)))
    return done


def _edited(job: Job, edit: Edit, catalogue: Catalogue, room: Room) -> Edited:
    ids = ids_of(edit.seed)
    match edit:
        case (
            EditStack() | PutFinish() | RemedyZone() | ChooseGround() | KeepVariant() | ChooseVariant() | DropVariant()
        ):
            return _in_zone(job, edit, catalogue, room)
        case TakeStrip():
            at = _at(job, edit.zone)
            return Edited(_with_zone(job, at, with_strip(job.zones[at], edit, ids)))
        case SplitZone():
            return Edited(_split(job, edit, ids))
        case MergeZone():
            return Edited(_merge(job, edit))
        case CopyStack():
            return Edited(_copied(job, edit, ids))
        case KeepWhatIf():
            return Edited(changed(job, WhatIf(coats=edit.coats, margin=edit.margin)))
        case TakeEntry():
            return Edited(without_entry(job, edit.kind, edit.slug))
        case ChoosePiece() | TakeUsual() | TypeSize():
            return Edited(_pieced(job, edit, catalogue))


def _pieced(job: Job, edit: ChoosePiece | TakeUsual | TypeSize, catalogue: Catalogue) -> Job:
    """The job with another piece, or its sizes."""
    match edit:
        case ChoosePiece():
            return on_piece(job, edit.kind, ids_of(edit.seed))
        case TakeUsual():
            return _with_usual(job, edit.bare, catalogue)
        case TypeSize():
            return _sized(job, edit)


InZone = EditStack | PutFinish | RemedyZone | ChooseGround | KeepVariant | ChooseVariant | DropVariant


def _in_zone(job: Job, edit: InZone, catalogue: Catalogue, room: Room) -> Edited:
    """The job with one zone changed, and what was done of itself."""
    at, ids = _at(job, edit.zone), ids_of(edit.seed)
    zone, taken = job.zones[at], tuple[Taken, ...]()
    match edit:
        case EditStack():
            zone = apply(zone, edit.changes, catalogue, ids)
        case PutFinish():
            finish = pick("finish", catalogue.finishes, edit.finish)
            zone, taken = with_finish(zone, finish, trial(job, at, catalogue, room), ids)
        case RemedyZone():
            zone, taken = remedied(zone, trial(job, at, catalogue, room), ids, seal=False)
        case ChooseGround():
            zone = _on_ground(zone, edit.ground, catalogue)
        case KeepVariant() | ChooseVariant() | DropVariant():
            zone = with_variant(zone, edit, ids)
    return Edited(_with_zone(job, at, zone), taken)
