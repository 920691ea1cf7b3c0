"""A plan without the working and the drawings of the zones nobody is looking at: most of a large plan is that."""

from dataclasses import replace

from ..figure import Figure
from ..memory import Memo
from ..mixing.mix import Mix
from .plan import Plan, ZonePlan


def _bare(figure: Figure) -> Figure:
    return Figure(figure.value, figure.unit, (), figure.spread)


def _slim(mix: Mix) -> Mix:
    parts = tuple(replace(p, poured=_bare(p.poured), mass=_bare(p.mass)) for p in mix.parts)
    jar = replace(mix.jar, strata=(), graduations=())
    return replace(mix, volume=_bare(mix.volume), parts=parts, jar=jar)


def _slim_zone(zone: ZonePlan) -> ZonePlan:
    layers = tuple(replace(x, ways=(), pots=tuple(replace(p, mix=_slim(p.mix)) for p in x.pots)) for x in zone.layers)
    return replace(zone, layers=layers, section=None)


def without_workings(made: Plan, looked_at: str, memo: Memo) -> Plan:
    """The plan with working, jars and sections left out everywhere but in the zone `looked_at` (an id).

    Amounts, findings, and areas with their working stay. What did not change since it was last asked for is the same
    object.
    """

    def slim(zone: ZonePlan) -> ZonePlan:
        return memo.recall(("slim", zone.zone), (zone,), lambda: _slim_zone(zone))

    return replace(made, zones=tuple(z if z.zone == looked_at else slim(z) for z in made.zones))
