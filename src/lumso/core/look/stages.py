"""A surface at each step: as it is laid, and what a hand judges there, not yet, right and too far. Estimates."""

from dataclasses import dataclass, replace
from typing import Literal

from ..book.hands import Judged, Swing
from ..job.job import Zone
from ..value import Value
from .films import LayerFilm

Hand = Literal["", "not yet", "too far"]
"""How far a hand has gone: as it should, or otherwise."""


@dataclass(frozen=True)
class Stage(Value):
    """How much of a zone's stack there is: up to a layer, so many of its coats, and so many of its sandings."""

    layer: str
    coats: int = 0
    """0 for all of them."""
    sandings: int = 0
    """How many of what it is sanded with; nothing but coats where it is 0."""
    hand: Hand = ""
    wet: bool = False
    """Before its last film is dry."""


def at_stage(zone: Zone, index: int, stage: Stage) -> Zone:
    """A zone as it stands then."""
    layer = zone.layers[index]
    coats = min(stage.coats or layer.coats, layer.coats)
    layer = replace(layer, coats=coats, sandings=layer.sandings[: stage.sandings])
    return replace(zone, layers=(*zone.layers[:index], layer))


def swing_of(judged: Judged | None, stage: Stage) -> Swing | None:
    """How its last film lies otherwise than right; None where the hand went as it should, or nothing is judged."""
    if judged is None or not stage.hand:
        return None
    return judged.soon if stage.hand == "not yet" else judged.far


def swung(one: LayerFilm, swing: Swing) -> LayerFilm:
    """A film where the hand did otherwise than right."""
    mark = one.mark
    if swing.between != 1 or swing.between_least:
        mark = replace(mark, between=min(1.0, max(mark.between * swing.between, swing.between_least)))
    kept = min(1.0, max(one.kept * swing.kept, swing.kept_least))
    hollows = min(1.0, max(one.hollows * min(1.0, 0.5 + swing.kept / 2), kept))
    return replace(
        one,
        mark=mark,
        kept=kept,
        hollows=hollows,
        touched=min(1.0, one.touched * swing.touched),
        sands=one.sands * swing.sands,
    )
