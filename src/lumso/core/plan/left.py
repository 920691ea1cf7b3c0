"""What is left of a mix: how far it goes, which zones of open jobs it covers, and what it can be thinned to.

How far it goes is the planner asked the other way round: a plain board of one and of two square metres is planned
without a margin, and what lies between them is what a square metre takes, pot and tool losses apart.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from ..book.catalogue import Catalogue, pick
from ..book.recipes import Recipe
from ..job.job import Job, Layer, Zone, new_job
from ..job.start import start_on
from ..layers.conditions import Room
from ..measure.lengths import Length
from ..memory import Memo
from ..mixing.compose import compose
from ..piece.piece import Piece
from ..value import Value
from ..work.work import work
from ..workshop.known import known_to
from ..workshop.workshop import Workshop
from .plan import Plan


@dataclass(frozen=True)
class Goes(Value):
    """How far an amount goes, put on one way on one ground, in one coat: m², and between which it may turn out."""

    technique: str
    ground: str
    area_m2: float
    least_m2: float
    most_m2: float


@dataclass(frozen=True)
class Serves(Value):
    """A layer of an open job that is laid with this mix: what it takes, and the share of it that is there."""

    job: str
    job_name: str
    zone: str
    zone_name: str
    layer: str
    number: int
    needs_ml: float
    share: float
    colour: str
    """What its colour is called there; "" for none."""


@dataclass(frozen=True)
class Thinner(Value):
    """What it makes with more of the liquid it is thinned with: its share then, what is added and what there is."""

    component: str
    name: str
    share: float
    add_ml: float
    ml: float


@dataclass(frozen=True)
class LeftOver(Value):
    """What can be done with an amount of a mix."""

    recipe: str
    name: str
    ml: float
    goes: tuple[Goes, ...]
    serves: tuple[Serves, ...]
    thinner: tuple[Thinner, ...]
    keeps: str
    """How long it may be kept, in words of days; "" where nobody knows."""


SIDE_MM = 1000.0


def _board(area_m2: float, layer: Layer, ground: str) -> Job:
    side = Length(SIDE_MM, "1 m")
    sizes = {"length": Length(SIDE_MM * area_m2, f"{area_m2:g} m"), "width": side, "thickness": Length(20, "20 mm")}
    zone = Zone("left", "Board", ground, ("top",), (layer,))
    return new_job("What is left", (zone,), Piece("board", sizes))


def _mixed(job: Job, workshop: Workshop, catalogue: Catalogue, room: Room) -> tuple[float, float]:
    """What is mixed for a board, ml, and how far that may be off."""
    made = work(job, workshop, catalogue, room, Memo())
    volume = made.batches[0].mix.volume
    return sum(b.mix.volume.value for b in made.batches), volume.spread


def _grounds(recipe: Recipe, catalogue: Catalogue) -> list[str]:
    """The grounds it is asked about: the first of each kind of surface the recipe is for, or most are."""
    kinds = recipe.surfaces or ("raw wood", "unsealed paint", "sealed")
    found = []
    for kind in kinds:
        known = [g.slug for g in catalogue.grounds.values() if g.surface == kind and "unknown" not in g.traits]
        found += known[:1]
    return found


def _goes(recipe: Recipe, ml: float, workshop: Workshop, catalogue: Catalogue, room: Room) -> list[Goes]:
    known = known_to(workshop, catalogue)
    found = []
    for ground in _grounds(recipe, known):
        surface = known.grounds[ground].surface
        for slug in recipe.techniques:
            technique = known.techniques[slug]
            if technique.surfaces and surface not in technique.surfaces:
                continue
            laid = replace(start_on("left", recipe.slug, surface, known), technique=slug, tool=technique.tools[0])
            layer = replace(laid, margin=0.0, touched=technique.touched, thickness_mm=technique.usual_mm)
            one, off = _mixed(_board(1, layer, ground), workshop, catalogue, room)
            two, _ = _mixed(_board(2, layer, ground), workshop, catalogue, room)
            each = two - one
            area = max((ml - (one - each)) / each, 0.0)
            found.append(Goes(technique.name, known.grounds[ground].name, area, area / (1 + off), area / (1 - off)))
    return found


def _serves(recipe: str, ml: float, jobs: Iterable[tuple[str, Job, Plan]]) -> list[Serves]:
    found = []
    for key, job, made in jobs:
        for zone, planned in zip(job.zones, made.zones, strict=True):
            for number, (layer, told) in enumerate(zip(zone.layers, planned.layers, strict=True), 1):
                needs = sum(pot.ml for pot in told.pots)
                if layer.recipe != recipe or not needs:
                    continue
                colour = next((c.name for c in layer.colours.values() if c.name), "")
                share = min(ml / needs, 1.0)
                found.append(
                    Serves(key, job.name, zone.id, zone.name, layer.id, number, needs, share, colour)
                )  # fmt: skip
    return sorted(found, key=lambda s: (-s.share, s.needs_ml))


STEP = 0.05
"""Thinner washes are offered in shares of the whole that are multiples of this."""


def _thinner(recipe: Recipe, ml: float, catalogue: Catalogue) -> list[Thinner]:
    """With more of the liquid the recipe is thinned with, as far as its limits go. Shares are as poured."""
    pours = compose(recipe, catalogue.materials)
    dial = next((p for p in pours if p.component.id == recipe.dial and not p.material.is_solid), None)
    if dial is None:
        return []
    most = min((x.most for x in recipe.limits if x.component == recipe.dial), default=1.0)
    poured = ml / sum(p.adds_ml for p in pours)
    now, found = dial.poured_ml, []
    for step in range(int(now / STEP + 1e-9) + 1, round(1 / STEP)):
        share = step * STEP
        if share > most + 1e-9:
            break
        add = poured * (share - now) / (1 - share)
        found.append(Thinner(dial.component.id, dial.component.name, share, add, ml + add))
    return found


def left_over(recipe: str, ml: float, jobs: Sequence[tuple[str, Job, Plan]], workshop: Workshop,
              catalogue: Catalogue, room: Room) -> LeftOver:  # fmt: skip
    """What can be done with `ml` (more than zero) of a recipe; `jobs` are those it could serve, each with its plan.

    Raises UnknownEntry for a recipe that is not there.
    """
    known = known_to(workshop, catalogue)
    mixed = pick("recipe", known.recipes, recipe)
    days = mixed.keeping_life_days
    keeps = "" if days is None else "not at all" if days == 0 else f"{days:g} days, sealed"
    return LeftOver(
        mixed.slug,
        mixed.name,
        ml,
        tuple(_goes(mixed, ml, workshop, catalogue, room)),
        tuple(_serves(recipe, ml, jobs)),
        tuple(_thinner(mixed, ml, known)),
        keeps,
    )
