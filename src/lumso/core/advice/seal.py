"""Which sealer for this use and this texture, and why not the others."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from ..book.films import Stand, UseWord
from ..book.offers import SEALERS
from ..changes.change import Change, InsertLayer, Remedy, RemoveLayer, SetLayer, apply
from ..checks import look
from ..checks.findings import ALARMS, GRADES, Finding, Grade
from ..checks.sealing import coats_wanted
from ..job.job import Zone
from ..layers.laid import WHOLE, Laid
from ..layers.stack import Stack
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


WAITS = 4
"""How often a wait is mended before it is left as it is."""
STANDS = ("no", "a little", "yes")


@dataclass(frozen=True)
class Against(Value):
    """What the checker has against a sealer here."""

    grade: Grade
    says: str
    remedy: str
    """What would answer it; "" where nothing is known to."""


@dataclass(frozen=True)
class SealerAdvice(Value):
    """A sealer tried on the zone: what it would be like, and the changes that put it on in place of the present one.

    It is tried with the wait it wants: `wait_h` hours after the last coat beneath it; None where it wants none of its
    own.
    """

    recipe: str
    name: str
    gloss: str
    verdict: Literal["best", "will do", "not here"]
    against: tuple[Against, ...]
    stands: dict[UseWord, Stand]
    ambers: bool
    wait_h: float | None
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


def _waited(zone: Zone, bench: Trial, ids: Iterator[str]) -> tuple[Zone, tuple[Change, ...]]:
    """The zone with every wait as long as what lies on it wants, and the changes that make it so."""
    changes: list[Change] = []
    for _ in range(WAITS):
        mended = [
            one.changes
            for finding in look(bench.stack(zone))
            if finding.grade in ALARMS and finding.accepted is None
            for one in finding.remedies[:1]
            if one.changes and all(isinstance(c, SetLayer) and c.wait_h is not None for c in one.changes)
        ]
        if not mended:
            break
        zone = apply(zone, mended[0], bench.catalogue, ids)
        changes += mended[0]
    return zone, tuple(changes)


def _own_wait(stack: Stack, kept: set[str]) -> float | None:
    """Hours that the first layer which is not among those kept waits for more than that it may be gone over."""
    first = next((i for i, one in stack.each() if one.layer.id not in kept), 0)
    last = stack.binding(first) if first else None
    return None if last is None or last.asked == "recoat" else stack.waits_h(first - 1)


def _weight(findings: list[Finding]) -> tuple[int, ...]:
    """How many of each grade, worst first: less is better. What can hurt a person is no better for a sealer."""
    return tuple(sum(f.grade == grade for f in findings) for grade in (*ALARMS, "good to know"))


ASKS = "Say what it must stand: water, feet, weather and children decide which sealer is best."


def seal_asks(zone: Zone, bench: Trial) -> str:
    """The question that decides, where nothing is known of the use; "" where something is."""
    return "" if bench.stack(zone).use.touched_by else ASKS


@dataclass(frozen=True)
class _Tried:
    """A sealer as it was tried: what was found against it, how tough it is for the use, and how long it makes wait."""

    slug: str
    weight: tuple[int, ...]
    failing: bool
    toughness: int
    wait_h: float | None
    bare: bool
    """Whether it leaves a ground bare that nothing lies on: no answer to which sealer."""
    advice: SealerAdvice

    @property
    def order(self) -> tuple[object, ...]:
        """Before another: fewer alarms, then tougher for the use, then a shorter wait, then fewer notes."""
        return self.bare, self.weight[: len(ALARMS)], -self.toughness, self.wait_h or 0.0, self.weight


def seal_advice(zone: Zone, bench: Trial, ids: Iterator[str]) -> tuple[SealerAdvice, ...]:
    """Every sealer, and nothing, on this zone after the wait it wants, the best first.

    What is wrong beneath it is not held against it; but the best leaves nothing that will fail.
    """
    bare, above = _unsealed(zone, bench)
    beneath = look(bench.stack(bare))
    base = {(f.rule, f.above, f.says) for f in beneath if f.above or f.rule in NOT_ABOUT_SEALERS}
    sealers = [bench.catalogue.offer(need) for need in SEALERS]
    tried = [_try(slug, zone, bare, above, base, bench, ids) for slug in ("", *sealers)]
    known = bool(bench.stack(zone).use.touched_by)
    order = {slug: i for i, slug in enumerate(("", *sealers))}
    tried.sort(key=lambda t: (*t.order, order[t.slug]))
    made: list[SealerAdvice] = []
    for one in tried:
        best = known and not one.failing and not one.bare and not made
        verdict: Literal["best", "will do", "not here"] = "best" if best else "will do"
        if any(one.weight[: len(ALARMS)]):
            verdict = "not here"
        made.append(replace(one.advice, verdict=verdict))
    return tuple(made)


def _try(slug: str, zone: Zone, bare: Zone, above: str, base: set[tuple[str, str, str]], bench: Trial,
         ids: Iterator[str]) -> _Tried:  # fmt: skip
    """One sealer, or nothing for "", put on the bare zone."""
    kept = {layer.id for layer in bare.layers}
    now = [layer for layer in zone.layers if layer.id not in kept]
    off = tuple(RemoveLayer("remove", layer.id) for layer in now)
    name, gloss, ambers, stands = NOTHING, "", False, {}
    way = Remedy("Leave it unsealed", off) if off else None
    sealed, wait = bare, None
    changes: tuple[Change, ...] = off
    if slug:
        recipe, rough = bench.catalogue.recipes[slug], any(x.acts("stands in peaks") for x in bench.stack(bare).laid)
        film = bench.catalogue.films[recipe.film]
        technique = bench.catalogue.way_that(slug, "follows texture") if rough else ""
        coats = 1 if film.kind in {"wax", "oil"} else coats_wanted(bench.stack(bare))
        change = InsertLayer("insert", above, slug, technique, coats=coats)
        sealed = apply(bare, (change,), bench.catalogue, ids)
        sealed, waits = _waited(sealed, bench, ids)
        waits = tuple(c for c in waits if isinstance(c, SetLayer) and c.layer in kept)
        wait = max((c.wait_h for c in waits if isinstance(c, SetLayer) and c.wait_h is not None), default=None)
        wait = _own_wait(bench.stack(sealed), kept) if wait is None else wait
        name, gloss, ambers = recipe.name.removesuffix(", as bought"), film.gloss, film.ambers
        changes = (*off, *waits, change)
        way, stands = Remedy(f"Seal it with {name.lower()}", changes), film.stands
    after = look(bench.stack(sealed))
    found = [f for f in after if (f.rule, f.above, f.says) not in base]
    lasting = [f for f in found if f.rule not in HOW_TO]
    uses = [u for u in bench.stack(zone).use.touched_by if u != "an unknown buyer"]
    toughness = sum(STANDS.index(stands.get(u, "no")) for u in uses)
    failing = any(f.grade == "will fail" and f.accepted is None for f in after)
    against = tuple(
        Against(f.grade, f.says, f.remedies[0].says if f.remedies else "")
        for f in sorted(found, key=lambda f: GRADES.index(f.grade))
    )
    on = slug == (now[-1].recipe if now else "")
    advice = SealerAdvice(slug, name, gloss, "will do", against, stands, ambers, wait, way, on)
    return _Tried(slug, _weight(lasting), failing, toughness, wait, not sealed.layers, advice)


def one_change(sealers: tuple[SealerAdvice, ...]) -> str:
    """Where no sealer will do: the one thing that stands against most of them, worst first, and what answers it.

    What only a sealer's own nature says (that it does not stand weather) is no thing to change where another does.
    """
    real = [s for s in sealers if s.recipe]
    if not real or any(s.verdict != "not here" for s in real):
        return ""
    nearest = min(real, key=lambda s: sum(a.grade in ALARMS for a in s.against))
    worst = next(a for a in nearest.against if a.grade in ALARMS)
    way = f" {worst.remedy}." if worst.remedy else ""
    return f"No sealer will do here as it is. Nearest is {nearest.name.lower()}: {worst.says}{way}"
