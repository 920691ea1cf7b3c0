"""Which sealer for this use and this texture, and why not the others."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from ..book.films import Stand, UseWord
from ..book.offers import SEALERS
from ..changes.change import InsertLayer, RemoveLayer, WayOut, apply
from ..checks import look
from ..checks.findings import GRADES, Finding, Grade
from ..job.job import Zone
from ..value import Value
from .bench import Trial

NOTHING = "as it is"
NOT_ABOUT_SEALERS = {"closing-parts-stick"}


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
    way: WayOut | None


def _unsealed(zone: Zone, bench: Trial) -> Zone:
    """The zone without the sealers on its top."""
    laid = bench.stack(zone).laid
    keep, sealers = len(laid), {bench.catalogue.offer(need) for need in SEALERS}
    while keep and laid[keep - 1].recipe.slug in sealers and not laid[keep - 1].acts("resists", "stays in recesses"):
        keep -= 1
    return replace(zone, layers=zone.layers[:keep])


def _weight(findings: list[Finding]) -> tuple[int, ...]:
    """How many of each grade, worst first: less is better."""
    return tuple(sum(f.grade == grade for f in findings) for grade in GRADES)


def seal_advice(zone: Zone, bench: Trial, ids: Iterator[str]) -> tuple[SealerAdvice, ...]:
    """Every sealer, and nothing, on this zone, the best first. What is wrong beneath it is not held against it."""
    bare = _unsealed(zone, bench)
    off = tuple(RemoveLayer("remove", layer.id) for layer in zone.layers[len(bare.layers) :])
    base = {(f.rule, f.above, f.says) for f in look(bench.stack(bare)) if f.above or f.rule in NOT_ABOUT_SEALERS}
    rough = any(x.acts("stands in peaks") for x in bench.stack(bare).laid)
    tried = []
    sealers = [bench.catalogue.offer(need) for need in SEALERS]
    for slug in ("", *sealers):
        name, gloss, ambers, way, stands = NOTHING, "", False, None, {}
        sealed = bare
        if slug:
            recipe = bench.catalogue.recipes[slug]
            film = bench.catalogue.films[recipe.film]
            technique = bench.catalogue.way_that(slug, "follows texture") if rough else ""
            change = InsertLayer("insert", "", slug, technique)
            sealed = apply(bare, (change,), bench.catalogue, ids)
            name, gloss, ambers = recipe.name.removesuffix(", as bought"), film.gloss, film.ambers
            way, stands = WayOut(f"Seal it with {name.lower()}", (*off, change)), film.stands
        found = [f for f in look(bench.stack(sealed)) if (f.rule, f.above, f.says) not in base]
        tried.append((_weight(found), slug, name, gloss, ambers, way, stands, found))
    order = {slug: i for i, slug in enumerate(("", *sealers))}
    tried.sort(key=lambda t: (t[0], order[t[1]]))
    return tuple(
        SealerAdvice(
            slug,
            name,
            gloss,
            "best"
            if i == 0 and not weight[0] and not weight[1]
            else "not here"
            if weight[0] or weight[1]
            else "will do",
            tuple(Against(f.grade, f.says) for f in sorted(found, key=lambda f: GRADES.index(f.grade))),
            stands,
            ambers,
            way,
        )
        for i, (weight, slug, name, gloss, ambers, way, stands, found) in enumerate(tried)
    )
