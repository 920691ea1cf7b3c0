"""How much a coat takes.

V_film = A · f · (q + extra) for each coat, with A the area, f the share of it touched, q the wet rate of the material
and technique, and extra what a thirsty ground drinks of the first coat.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..book.techniques import Technique
from ..figure import Figure, SourceKind, Step, tidy
from ..mixing.compose import Pour
from .laid import Laid, rate_of
from .stack import Beneath

MOSTLY = 0.9
"""A mix is the paint on its label when this much of it, as poured, is."""


def label_rate(pours: Sequence[Pour], technique: Technique) -> tuple[float, str] | None:
    """The spreading rate on the label (ml/m²) and its source, where it may stand in for the technique's.

    That is so for an even coat of a mix that is nearly all one paint; a thinned or patchy one is no longer what
    the label speaks of.
    """
    if not technique.plain:
        return None
    for pour in pours:
        if pour.poured_ml >= MOSTLY and pour.material.label_rate_ml_per_m2:
            return pour.material.label_rate_ml_per_m2, pour.material.name
    return None


OFF: dict[SourceKind, float] = {"starting value": 0.2, "label": 0.1, "measured": 0.05}
"""How far a rate may be off by where it is from: untested starting points, until the log says."""


@dataclass(frozen=True)
class WetRate:
    """What a coat takes, ml/m²: the `first` over whatever lies beneath, the `next` over a coat of its own kind."""

    first: float
    next: float
    name: str
    source: SourceKind
    note: str


def wet_rate(laid: Laid) -> WetRate:
    """The wet rate of a layer: by the label where that counts, else by the technique, for each mm where it is thick."""
    technique = laid.technique
    q = rate_of(laid.recipe, technique)
    if label := label_rate(laid.pours, technique):
        note = f"the label's spreading rate, instead of {q:g} for {technique.name}"
        return WetRate(label[0], label[0], f"{label[1]}, by its label", "label", note)
    name, factor = technique.name, 1.0
    if technique.per_mm:
        factor = laid.layer.thickness_mm
        name = f"{tidy(factor)} mm × {tidy(q)} ml/m² for each mm, {technique.name}"
    if q != technique.wet_rate_ml_per_m2:
        return WetRate(q, q, laid.name, "starting value", laid.recipe.provenance)
    later = technique.next_wet_rate_ml_per_m2 or q
    return WetRate(q * factor, later * factor, name, "starting value", technique.provenance)


def film(area: Figure, laid: Laid, under: Beneath, first_coat: int, last_coat: int, share: float = 1.0) -> Figure:
    """What lies on the surface after the coats `first_coat` to `last_coat` (from 1), in ml.

    `area` is in m², `under` what the layer lies on, `share` the share of the surface that one of its pots covers.
    """
    rate, learned = wet_rate(laid), laid.learned
    over_its_own = bool(under.meets) and under.meets[0].film.slug == laid.film.slug
    fresh = first_coat == 1 and not over_its_own
    coats = last_coat - first_coat + 1
    touched = laid.layer.touched * share
    q = rate.first if fresh else rate.next
    off = 0.0 if learned else OFF[rate.source]
    figure = area.then(Step("Wet rate", rate.name, q, "ml/m² a coat", rate.source, rate.note, off))
    if learned:
        rate = replace(rate, first=rate.first * learned.factor, next=rate.next * learned.factor)
        how = f"{tidy(q)} ml/m² × {learned.factor:.3g}"
        q *= learned.factor
        jobs = "one job" if learned.jobs == 1 else f"{learned.jobs} jobs"
        note = f"what {jobs} of this mix, put on so, took"
        figure = figure.then(Step("Your log", how, q, "ml/m² a coat", "your log", note, learned.off))
    per_m2 = coats * q
    sums = tidy(q) if coats == 1 else f"{coats} × {tidy(q)}"
    if fresh and coats > 1 and rate.next != rate.first:
        next_rate = Step("Wet rate, over its own", rate.name, rate.next, "ml/m² a coat", rate.source, rate.note)
        figure = figure.then(next_rate)
        per_m2 = rate.first + (coats - 1) * rate.next
        sums = f"{tidy(rate.first)} + {coats - 1} × {tidy(rate.next)}"
    thirsty = under.bare if first_coat == 1 and not laid.technique.rate_includes_ground else None
    extra = thirsty.first_coat_extra_ml_per_m2 * under.thirst if thirsty else 0.0
    if thirsty and extra:
        name = thirsty.name if under.thirst >= 1 else f"{thirsty.name}, {under.thirst:.0%} of it still bare"
        step = Step("First coat drinks", name, extra, "ml/m²", "starting value", thirsty.provenance)
        figure = figure.then(step)
        per_m2 += extra
        sums += f" + {tidy(extra)}"
    how = f"{tidy(area.value)} m² × {sums if sums == tidy(q) else f'({sums})'} ml/m²"
    value = area.value * touched * per_m2
    if under.relief > 1:
        how += f" × {under.relief:.3g} over the texture beneath"
        value *= under.relief
    if touched < 1:
        how += f" × {touched:.0%} touched"
    if lost := laid.technique.lost_to_cloth:
        how += f" ÷ {1 - lost:.0%}, the rest goes into the cloth"
        value /= 1 - lost
    return figure.then(Step("On the surface", how, value, "ml", "geometry"))
