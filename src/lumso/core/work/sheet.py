"""The mix sheet: every batch of a job, or of several, in the order they are needed; and what would change if."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..book.catalogue import Catalogue
from ..changes.what_if import WhatIf, changed
from ..errors import InvalidValue, Problem
from ..job.job import Job, Zone
from ..job.laying import size_of, surface_of
from ..layers.conditions import Room, steady
from ..layers.drying import Wait, takes_min
from ..layers.laid import Laid
from ..layers.wet_edge import GlazePlan, Stroke, glaze_plan
from ..layout.flat import FlatFace
from ..measure.drawing import Point
from ..memory import Memo
from ..mixing.totals import Totals, total_up
from ..value import Value
from ..workshop.workshop import Workshop
from .batch import Batch
from .batches import CoatNeed, split
from .pots import PotRun
from .work import JobWork, Work, work_together


@dataclass(frozen=True)
class Pooled(Value):
    """Batches that serve several zones or layers: what that saves beside mixing for each alone, in ml."""

    batch: str
    name: str
    zones: tuple[str, ...]
    alone_ml: float
    together_ml: float
    saved_ml: float


@dataclass(frozen=True)
class Apart(Value):
    """Coats of the same mix that need a pot of their own, and why."""

    name: str
    zones: tuple[str, ...]
    why: str


@dataclass(frozen=True)
class MixSheet(Value):
    """The sheet: batches in the order they are mixed, what is pooled and what not, sections, and what cannot be."""

    batches: tuple[Batch, ...]
    pooled: tuple[Pooled, ...]
    apart: tuple[Apart, ...]
    sections: tuple[GlazePlan, ...]
    totals: Totals
    problems: tuple[Problem, ...]
    mixed_ml: float
    elapsed_h: float
    not_measured: str
    """Which sizes are usual ones, in words; "" where all are measured."""


def tried_room(room: Room, what_if: WhatIf) -> Room:
    """The room that is tried."""
    if what_if.temperature_c is None and what_if.humidity is None:
        return room
    now = room.first
    return steady(
        now.temperature_c if what_if.temperature_c is None else what_if.temperature_c,
        now.humidity if what_if.humidity is None else what_if.humidity,
    )


def tried_workshop(workshop: Workshop, what_if: WhatIf) -> Workshop:
    """The workshop with the pace and the vessel that are tried."""
    paces = workshop.paces if what_if.pace is None else {**workshop.paces, "": what_if.pace}
    return replace(workshop, paces=paces, vessel=what_if.vessel or workshop.vessel)


def _stroke(chosen: str, face: FlatFace) -> Stroke:
    """Which way strokes run on a face."""
    if chosen == "along each part":
        return "across" if face.width > face.height else "down"
    return "across" if chosen == "across" else "down"


def _sections(job: JobWork, room: Room) -> list[GlazePlan]:
    """Every face that is glazed wet in wet, in sections; like faces of a surface once."""
    found: list[GlazePlan] = []
    for zone in job.zones:
        for one in zone.stack.laid if zone.stack and zone.area else ():
            if one.technique.lays_m2_per_h and one.film.open_least_min is not None:
                found += _of_layer(job, zone.zone, one, room)
    return found


def _of_layer(job: JobWork, zone: Zone, one: Laid, room: Room) -> list[GlazePlan]:
    """The sections of one layer, face by face; on a pattern those of its painted parts."""
    technique, layer = one.technique, one.layer
    faces = job.piece.drawing.faces if job.piece.drawing else ()
    pieces = job.job.piece.like if job.job.piece else 1
    open_least = one.film.open_least_min or 0.0
    open_min = takes_min(Wait(open_least, "evaporation"), room) or open_least
    laid_on = job.laying.faces.get((zone.id, layer.id), ())
    if layer.layout is not None and not laid_on:
        return []  # why not is said at the layout
    patterned = {f.size: f for f in laid_on}
    sizes = [size_of(face) for face in faces]
    found = []
    for n, (face, size) in enumerate(zip(faces, sizes, strict=True)):
        laid = patterned.get(size)
        if face.surface not in zone.surfaces or size in sizes[:n] or (patterned and laid is None):
            continue
        if min(size[1:]) < technique.tool_width_mm / 2:
            continue
        surface = surface_of(face, faces)
        regions = [FlatFace("polygon", r.outline, r.holes) for r in laid.laid.regions] if laid else []
        plan = glaze_plan(
            zone.id, layer.id, face.name, surface, open_min, technique.lays_m2_per_h, technique.passes,
            technique.pass_m2_per_h, technique.tool_width_mm, _stroke(layer.stroke, surface), layer.second_pair,
            regions if face.shape != "round" else (),
        )  # fmt: skip
        like = [f for f, s in zip(faces, sizes, strict=True) if s == size]
        at = tuple(Point(min(p.x for p in f.outline), min(p.y for p in f.outline)) for f in like)
        found.append(replace(plan, like=len(like) * pieces, at=at))
    return found


def _pooled(run: PotRun, batch: str, vessel_ml: float, made: Work) -> Pooled | None:
    """What a run over several layers saves beside mixing for each alone."""
    by_layer: dict[tuple[str, str], list[CoatNeed]] = {}
    for coat in run.coats:
        by_layer.setdefault((coat.scope + coat.need.zone, coat.need.layer), []).append(coat.need)
    done = run.split
    if len(by_layer) < 2 or done is None:
        return None
    habits = made.jobs[0].catalogue.habits
    try:
        alone = sum(split(c, run.life, run.losses, vessel_ml, habits).total_ml for c in by_layer.values())
    except InvalidValue:
        return None  # some could not be mixed alone at all: there is nothing to compare with
    zones = tuple(dict.fromkeys(c.need.zone_name for c in run.coats))
    return Pooled(batch, run.first.laid.name, zones, alone, done.total_ml, alone - done.total_ml)


def sheet_of(made: Work, room: Room, vessel_ml: float) -> MixSheet:
    """The work as a sheet of its batches."""
    pooled = []
    for run in made.runs:
        batches = made.served.get(run.first.need.id, ())
        if batches and (one := _pooled(run, batches[-1], vessel_ml, made)):
            pooled.append(one)
    return MixSheet(
        made.batches,
        tuple(pooled),
        tuple(
            Apart(run.first.laid.name, tuple(dict.fromkeys(c.need.zone_name for c in run.coats)), run.why)
            for run in made.runs
            if run.why
        ),
        tuple(section for job in made.jobs for section in _sections(job, room)),
        total_up([b.mix for b in made.batches]),
        made.problems,
        sum(b.mix.volume.value for b in made.batches),
        made.elapsed_min / 60,
        made.not_measured,
    )


def mix_sheet(jobs: Sequence[Job], workshop: Workshop, catalogue: Catalogue, room: Room,
              what_if: WhatIf | None = None, memo: Memo | None = None) -> MixSheet:  # fmt: skip
    """The sheet of one job or several. What cannot be planned or batched is in `problems`, with the numbers.

    Raises UnknownEntry for a vessel that is not there.
    """
    tried = what_if or WhatIf()
    workshop, room = tried_workshop(workshop, tried), tried_room(room, tried)
    made = work_together(
        [changed(job, tried) for job in jobs], workshop, catalogue, room, stepped=tried.step_down, memo=memo
    )
    vessel = next(v for v in catalogue.vessels if v.slug == workshop.vessel)
    return sheet_of(made, room, vessel.capacity_ml)
