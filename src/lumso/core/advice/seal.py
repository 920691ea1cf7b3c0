"""Which sealer for this use and this texture, and why not the others."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from ..book.films import Stand, UseWord
from ..book.offers import SEALERS
from ..changes.change import InsertLayer, Remedy, RemoveLayer, SetLayer, apply
from ..checks import look
from ..checks.findings import ALARMS, GRADES, Finding, Grade
from ..checks.sealing import coats_wanted
from ..job.job import Zone
from ..layers.laid import WHOLE, Laid
from ..value import Value
from .bench import Trial

NOTHING = "as it is"
NOT_ABOUT_SEALERS = {"closing-parts-stick"}
HOW_TO = {
    "closing-parts-stick",
    "sealer-deepens",
    "sealer-wakes-paint",
    "time-unknown",
    "clear-not-keyed",
    "moving-parts",
}
"""Notes about how a sealer is put on, which make it no worse."""


@dataclass(frozen=True)
class Against(Value):
    """What the checker has against a sealer here."""

    grade: Grade
    says: str


@dataclass(frozen=True)
class SealerAdvice(Value):
    """A sealer tried on the zone: what it would be like, and the changes that put it on in place of the present one."""

    recipe: str
    name: str
    gloss: str
    verdict: Literal["best", "will do", "not here"]
    against: tuple[Against, ...]
    stands: dict[UseWord, Stand]
    ambers: bool
    remedy: Remedy | None
    on: bool
    """Whether it is what seals the zone now."""


def _is_accent(one: Laid) -> bool:
    """What is looked through to find the sealer: patina, gilding, stripes, wax in recesses."""
    return one.layer.touched < WHOLE or one.film.kind in {"patina", "leaf", "metal"}


def _unsealed(zone: Zone, bench: Trial) -> tuple[Zone, str]:
    """The zone without the sealers on its top, and the layer a sealer would lie beneath ("" for on top): accents that
    lie on a sealer stay on top of it."""
    laid = bench.stack(zone).laid
    sealers = {bench.catalogue.offer(need) for need in SEALERS}

    def seals(one: Laid) -> bool:
        return one.recipe.slug in sealers and not one.acts("resists", "stays in recesses")

    top = len(laid)
    while top and _is_accent(laid[top - 1]):
        top -= 1
    if not (top and seals(laid[top - 1])):
        top = len(laid)
    keep = top
    while keep and seals(laid[keep - 1]):
        keep -= 1
    above = laid[top].layer.id if top < len(laid) else ""
    return replace(zone, layers=(*zone.layers[:keep], *zone.layers[top:])), above


def _only_waits(finding: Finding) -> bool:
    """Whether waiting longer is all that it asks."""
    return any(
        all(isinstance(c, SetLayer) and c.wait_h is not None for c in one.changes)
        for one in finding.remedies
        if one.changes
    )


def _weight(findings: list[Finding]) -> tuple[int, ...]:
    """How many of each grade, worst first: less is better. What can hurt a person is no better for a sealer."""
    return tuple(sum(f.grade == grade for f in findings) for grade in (*ALARMS, "know this"))


ASKS = "Say what it must stand: water, feet, weather and children decide which sealer is best."


def seal_asks(zone: Zone, bench: Trial) -> str:
    """The question that decides, where nothing is known of the use; "" where something is."""
    return "" if bench.stack(zone).use.touched_by else ASKS


def seal_advice(zone: Zone, bench: Trial, ids: Iterator[str]) -> tuple[SealerAdvice, ...]:
    """Every sealer, and nothing, on this zone, the best first. What is wrong beneath it is not held against it."""
    bare, above = _unsealed(zone, bench)
    kept = {layer.id for layer in bare.layers}
    now = [layer for layer in zone.layers if layer.id not in kept]
    off = tuple(RemoveLayer("remove", layer.id) for layer in now)
    beneath = look(bench.stack(bare))
    failing = any(f.grade == "will fail" and f.accepted is None for f in beneath)
    base = {(f.rule, f.above, f.says) for f in beneath if f.above or f.rule in NOT_ABOUT_SEALERS}
    rough = any(x.acts("stands in peaks") for x in bench.stack(bare).laid)
    tried = []
    sealers = [bench.catalogue.offer(need) for need in SEALERS]
    for slug in ("", *sealers):
        name, gloss, ambers, stands = NOTHING, "", False, {}
        way = Remedy("Leave it unsealed", off) if off else None
        sealed = bare
        if slug:
            recipe = bench.catalogue.recipes[slug]
            film = bench.catalogue.films[recipe.film]
            technique = bench.catalogue.way_that(slug, "follows texture") if rough else ""
            coats = 1 if film.kind in {"wax", "oil"} else coats_wanted(bench.stack(bare))
            change = InsertLayer("insert", above, slug, technique, coats=coats)
            sealed = apply(bare, (change,), bench.catalogue, ids)
            name, gloss, ambers = recipe.name.removesuffix(", as bought"), film.gloss, film.ambers
            way, stands = Remedy(f"Seal it with {name.lower()}", (*off, change)), film.stands
        found = [f for f in look(bench.stack(sealed)) if (f.rule, f.above, f.says) not in base]
        lasting = [f for f in found if not _only_waits(f) and f.rule not in HOW_TO]
        tried.append((_weight(lasting), slug, name, gloss, ambers, way, stands, found))
    known = bool(bench.stack(zone).use.touched_by)
    order = {slug: i for i, slug in enumerate(("", *sealers))}
    tried.sort(key=lambda t: (t[0], order[t[1]]))
    return tuple(
        SealerAdvice(
            slug,
            name,
            gloss,
            "not here" if any(weight[: len(ALARMS)]) else "best" if i == 0 and not failing and known else "will do",
            tuple(Against(f.grade, f.says) for f in sorted(found, key=lambda f: GRADES.index(f.grade))),
            stands,
            ambers,
            way,
            slug == (now[-1].recipe if now else ""),
        )
        for i, (weight, slug, name, gloss, ambers, way, stands, found) in enumerate(tried)
    )
