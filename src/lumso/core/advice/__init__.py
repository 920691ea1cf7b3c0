"""Advisers: they answer from the rules of the checker, by trying things out on a zone's stack."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ..book.preparation import Abrasive
from ..checks import brings, check
from ..checks.findings import Grade
from ..checks.texture import SAG_FROM_MM, holds_mm, peak_mm
from ..colour.hiding import class_of, coats_range
from ..job.job import Zone
from ..look.films import hiding_of
from ..value import Value
from .age import AgeAdvice, age_advice
from .bench import Taken, Trial, remedied, trial, with_finish
from .seal import SealerAdvice, one_change, seal_advice, seal_asks

__all__ = ["Advice", "Taken", "Trial", "advise", "remedied", "trial", "with_finish"]


@dataclass(frozen=True)
class SagAdvice(Value):
    """A thick coat on this zone's faces: how high it stands and how high the mix can hold."""

    layer: str
    name: str
    peak_mm: float
    holds_mm: float
    upright: bool
    slides: bool


@dataclass(frozen=True)
class CoatsAdvice(Value):
    """How many coats a colour needs over what is beneath it; None when a dozen are not enough. An estimate."""

    layer: str
    name: str
    hex: str
    over_hex: str
    over: str
    colour_class: str
    coats: int | None
    """Where it hides as well as it may, to a careful eye, in thin spots too."""
    at_most: int | None
    """Where it hides as badly as it may."""
    planned: int


@dataclass(frozen=True)
class Brings(Value):
    """A remedy of a finding that would bring another finding: which, and how bad."""

    rule: str
    above: str
    remedy: str
    grade: Grade
    says: str


def what_remedies_bring(zone: Zone, bench: Trial) -> tuple[Brings, ...]:
    """The remedies of a zone's findings that would bring a finding worse than a note, each with the worst of them."""
    stack = bench.stack(zone)
    findings = check(stack)
    return tuple(
        Brings(f.rule, f.above, way.says, brought.grade, brought.says)
        for f in findings
        for way in f.remedies
        if (brought := brings(stack, findings, way))
    )


@dataclass(frozen=True)
class Advice(Value):
    """What the advisers say of one zone."""

    prep: tuple[Taken, ...]
    """What the rules would have done to a bare ground before this stack, in order, each with its reason."""
    sealers: tuple[SealerAdvice, ...]
    sealer_asks: str
    """The question that decides which sealer is best; "" where it is answered."""
    grits: tuple[Abrasive, ...]
    sag: tuple[SagAdvice, ...]
    coats: tuple[CoatsAdvice, ...]
    age: AgeAdvice
    brings: tuple[Brings, ...]
    """Remedies that would bring something else."""
    sealer_change: str
    """Where no sealer will do: the one thing to change, so that one does; "" where one does."""


_GROUND_RULES = {
    "slick-unprimed", "slick-not-scuffed", "not-cleaned", "craters", "water-over-old-oil", "knots-bleed", "grain-rises",
    "raw-wood-unsanded", "tannins-bleed", "metal-rusts", "soot-beneath", "flaking-beneath",
    "not-dusted", "primer-no-night", "blocker-no-night", "milk-paint-on-gloss", "glossy-not-scuffed", "unknown-ground",
    "holes-open", "wallpaper-beneath", "filler-takes-no-wash",
}  # fmt: skip


def _prep(zone: Zone, bench: Trial, ids: Iterator[str]) -> tuple[Taken, ...]:
    bare = replace(zone, prep=(), accepted=())
    return tuple(m for m in remedied(bare, bench, ids, seal=False)[1] if m.rule in _GROUND_RULES)


def advise(zone: Zone, bench: Trial, ids: Iterator[str]) -> Advice:
    """All advisers on one zone. Raises what looking its entries up raises."""
    stack = bench.stack(zone)
    sag = tuple(
        SagAdvice(x.layer.id, x.name, peak_mm(x), holds_mm(x), stack.vertical,
                  stack.vertical and peak_mm(x) > holds_mm(x))
        for x in stack.laid
        if x.wet_um / 1000 >= SAG_FROM_MM
    )  # fmt: skip
    coats = []
    for i, x in enumerate(stack.laid):
        if x.film.kind == "paint" and x.technique.plain:
            under = stack.beneath(i).painted
            over, name = (under.hex, under.name) if under else (stack.ground.hex, stack.ground.name)
            optics, (hiding, measured) = bench.catalogue.optics, hiding_of(x.pours)
            needs, careful = coats_range(x.hex, over, optics, hiding, x.wet_um / optics.full_film_um, measured)
            kind = next(c.name for c in optics.classes if c.slug == class_of(x.hex))
            coats.append(CoatsAdvice(x.layer.id, x.name, x.hex, over, name, kind, needs, careful, x.layer.coats))
    grits = tuple(bench.catalogue.abrasives.values())
    sealers = seal_advice(zone, bench, ids)
    asks, age = seal_asks(zone, bench), age_advice(zone, bench)
    bring = what_remedies_bring(zone, bench)
    return Advice(_prep(zone, bench, ids), sealers, asks, grits, sag, tuple(coats), age, bring, one_change(sealers))
