"""What a rehearsed board looks like now: its films as they were laid and worked, and its flaws."""

from collections.abc import Collection, Mapping
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from ..book.flaws import Cause, Flaw
from ..book.hands import Swing
from ..job.job import Layer
from ..layers.drying import dry_at
from ..look.flawed import flawed
from ..look.look import SEED, Look
from ..look.noise import Sheet
from ..look.stages import Stage, at_stage
from .course import Course, worked_id
from .truth import Truth
from .values import Rehearsal, Spoilt

SWUNG: Mapping[Cause, str] = {
    "wiped soon": "far", "dragged soon": "soon", "wiped late": "soon", "dragged late": "far",
}  # fmt: skip
"""Which way a film lies otherwise than right, by what was done to it."""
DRY_MIN = 60 * 24 * 60.0
"""After two months everything is dry."""
SHOWS_THROUGH = 0.3
"""How much of a flaw is still seen through a coat that covers."""


def swings(course: Course, now: Rehearsal) -> dict[str, Swing]:
    """How films lie otherwise than right, by layer: those that are still to be worked lie as they were laid."""
    found: dict[str, Swing] = {}
    hands = course.catalogue.hands
    for step in course.steps:
        if step.kind == "lay" and step.id in now.ended and step.judged:
            open_ = any(s.id == worked_id(step.id) for s in course.steps) and worked_id(step.id) not in now.ended
            if open_ and step.judged in hands:
                found[step.layer] = hands[step.judged].soon
    for one in now.spoilt:
        way = SWUNG.get(one.cause)
        judged = next((s.judged for s in course.steps if s.layer == one.layer and s.judged in hands), "")
        if way and judged:
            found[one.layer] = _partly(getattr(hands[judged], way), one.how)
    return found


def _partly(swing: Swing, how: float) -> Swing:
    """A swing, so far on the way to its worst."""

    def to(worst: float) -> float:
        return max(1 + (worst - 1) * how, 1e-3)

    return Swing(kept=to(swing.kept), kept_least=swing.kept_least * how, touched=to(swing.touched),
                 between=to(swing.between), between_least=swing.between_least * how, sands=to(swing.sands))  # fmt: skip


def look_of(course: Course, now: Rehearsal, truth: Truth, upto: int | None = None) -> Look:
    """The look of what lies on the board: of its first `upto` layers, or of all that were laid."""
    coats: dict[int, int] = {}
    sanded: dict[int, int] = {}
    last: dict[int, float] = {}
    pots: dict[int, set[str]] = {}
    for step in course.steps:
        index = course.index(step.layer)
        if step.id not in now.ended or index < 0:
            continue
        sanded[index] = max(sanded.get(index, 0), step.sanded)
        if step.kind == "lay":
            coats[index] = max(coats.get(index, 0), step.coat)
            last[index] = now.ended[step.id]
            pots.setdefault(index, set()).add(step.pot)
    many = len(coats) if upto is None else min(upto, len(coats))
    zone = course.stack.zone
    zone = replace(zone, layers=zone.layers[:many])
    wet = False
    if many:
        top = many - 1
        layer = zone.layers[top].id
        stage = Stage(layer, coats.get(top, 0), sanded.get(top, 0))
        zone = at_stage(zone, top, stage)
        wet = upto is None and _wet(course, top, last.get(top, 0.0), now.minute, truth)
    laid = course.stack.laid[:many]
    if many:
        layer_now = _of_pots(zone.layers[-1], pots.get(many - 1, set()))
        zone = replace(zone, layers=(*zone.layers[:-1], layer_now))
        laid = (*laid[:-1], replace(laid[-1], layer=layer_now))
    return Look(replace(course.stack, zone=zone, laid=laid), wet=wet, hands=swings(course, now))


def _of_pots(layer: Layer, laid: Collection[str]) -> Layer:
    """A layer of which so far only some of its pots are laid."""
    there = [p for p in layer.pots if p.id in laid]
    if not there or len(there) == len(layer.pots):
        return layer
    share = sum(p.share for p in there)
    pots = tuple(replace(p, share=p.share / share) for p in there)
    return replace(layer, pots=pots, touched=layer.touched * share)


def _wet(course: Course, index: int, since: float, minute: float, truth: Truth) -> bool:
    """Whether the last film is not dry to the touch."""
    done = dry_at(since, course.stack.wait(index, "touch"), course.room)
    if done is None:
        return False
    return minute < since + (done - since) * truth.dries(course.stack.laid[index].layer.id)


def picture_of(course: Course, now: Rehearsal, truth: Truth, px: int) -> NDArray[np.uint8]:
    """The board as it is seen now, (px, px, 3) bytes of sRGB. An estimate."""
    look = look_of(course, now, truth)
    made, sheet = look.picture(px), Sheet(px, look.side_mm, SEED, True)
    for one in now.spoilt:
        index = course.index(one.layer)
        if index < 0 or one.shape == "none":
            continue
        beneath = look_of(course, now, truth, index).picture(px) if one.shows in {"beneath", "doubled"} else made
        seen = _seen(course, one, len(look.stack.laid))
        flaw = course.catalogue.flaws[one.flaw]
        made = flawed(made, beneath, sheet, one.shape, one.shows, flaw.most * max(one.how, 0.3) * seen, one.how * seen)
    return made


def with_flaw(course: Course, layer: str, flaw: Flaw) -> Rehearsal:
    """A board that is dry and laid up to a layer, with a flaw in that at its worst."""
    index = course.index(layer)
    done = {s.id: 0.0 for s in course.steps if 0 <= course.index(s.layer) <= index}
    worst = Spoilt(
        flaw.slug, flaw.name, layer, flaw.causes[0], 1.0, flaw.says, flaw.mends, flaw.shape, flaw.shows, False
    )
    return Rehearsal(DRY_MIN, done, done, frozenset(), len(course.steps), (worst,))


def _seen(course: Course, one: Spoilt, laid: int) -> float:
    """How much of a flaw is seen under what was laid over it."""
    above = course.stack.laid[course.index(one.layer) + 1 : laid]
    hidden = any(x.film.kind in {"paint", "primer", "texture"} and x.layer.touched >= 0.9 for x in above)
    return SHOWS_THROUGH if hidden else 1.0
