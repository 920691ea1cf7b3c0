"""Every coat of a zone as a need: the film it lays, the work it is, and the hour it is due at the earliest."""

from dataclasses import dataclass

from ..book.colours import Pot
from ..job.job import Job
from ..layers.coverage import label_rate
from ..layers.pace import SANDING_M2_PER_H, is_turned, pace_of
from ..layers.stack import Laid, Stack
from ..mixing.mix import pots_of
from ..plan.plan import ZonePlan
from ..workshop.workshop import Workshop
from .batches import CoatNeed, MixLife


@dataclass(frozen=True)
class Coat:
    """A coat's need, with the layer and the pot it belongs to."""

    need: CoatNeed
    laid: Laid
    pot: Pot


def _rate(laid: Laid) -> float:
    """ml on a m² in one coat: by the label where that counts, else by the technique."""
    if label := label_rate(laid.pours, laid.technique):
        return label[0]
    return laid.technique.wet_rate_ml_per_m2 * (laid.layer.thickness_mm if laid.technique.per_mm else 1.0)


def coats_of(job: Job, planned: ZonePlan, stack: Stack, workshop: Workshop) -> tuple[list[Coat], float]:
    """Every coat of a zone with its film, work and time; and the hours from the first to the last."""
    area = planned.area.value if planned.area else 0.0
    zone = stack.zone
    known = stack.catalogue.preparations
    turned = is_turned(job)
    hours = sum(
        known[p].wait_min / 60 + area / known[p].pace_m2_per_h for p in zone.prep if p in known
    )  # fmt: skip
    made = []
    for i, one in enumerate(stack.laid):
        layer = one.layer
        between = (stack.minutes(i, "recoat_from") or 0.0) / 60
        for coat in range(1, layer.coats + 1):
            drinks = coat == 1 and i == 0 and not one.technique.rate_includes_ground
            extra = stack.ground.first_coat_extra_ml_per_m2 if drinks else 0.0
            work = area * layer.touched / pace_of(one.technique, workshop, turned)
            for pot in pots_of(layer):
                touched = area * layer.touched * pot.share
                need = CoatNeed(
                    job.name,
                    zone.id,
                    zone.name,
                    layer.id,
                    i + 1,
                    coat,
                    layer.coats,
                    touched,
                    touched * (_rate(one) + extra),
                    work * 60 * pot.share,
                    hours,
                    layer.margin,
                )
                made.append(Coat(need, one, pot))
            hours += work + (between if coat < layer.coats else stack.waits_h(i))
        if layer.sand_after:
            hours += area / SANDING_M2_PER_H
    return made, hours


def mix_key(coat: Coat) -> tuple[object, ...]:
    """Coats with the same key come from the same mix: recipe, shares and colours alike."""
    laid, pot = coat.laid, coat.pot
    shares = tuple(sorted((k, round(v, 6)) for k, v in laid.shares.items()))
    colours = tuple(sorted((k, c.name, c.hex) for k, c in pot.colours.items()))
    tints = tuple(sorted((k, tuple((t.name, t.hex, t.parts) for t in v)) for k, v in pot.tints.items()))
    return (laid.recipe.slug, shares, colours, tints, laid.tool.slug)


def life_of(laid: Laid) -> MixLife:
    recipe = laid.recipe
    bought = len([p for p in laid.pours if p.poured_ml > 0]) == 1
    keeps = (recipe.keeping_life_days or 0.0) * 24
    wetted = recipe.life_starts == "when wetted"
    return MixLife(recipe.working_life_min, keeps, 0.0 if bought else recipe.rest_min, wetted, bought)
