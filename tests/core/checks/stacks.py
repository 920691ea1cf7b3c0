"""Stacks in few words, for tests of the checker."""

from dataclasses import dataclass, replace
from itertools import count
from typing import Any

from lumso.catalogue import shipped
from lumso.core.advice import Trial
from lumso.core.book.colours import Colour
from lumso.core.book.preparation import Sanding
from lumso.core.book.recipes import VolumeShare
from lumso.core.checks.findings import Finding
from lumso.core.job.job import Answered, Layer, Use, Zone
from lumso.core.job.start import start_layer
from lumso.core.layers.conditions import steady
from lumso.core.piece.kinds import FaceGroup

C = shipped()
PALE, DARK, RED = "#f1ead8", "#26282c", "#b02a24"
CLEAN = "degreased scuffed"
READY = "sanded-180 grain-raised dusted"


@dataclass(frozen=True)
class Case:
    """A zone and the bench to check it on."""

    zone: Zone
    bench: Trial

    def findings(self) -> tuple[Finding, ...]:
        return self.bench.findings(self.zone)

    def rules(self) -> set[str]:
        return {f.rule for f in self.findings()}


def layer(
    recipe: str,
    technique: str = "",
    wait: float | None = 12,
    sand: tuple[int, str] | None = None,
    hex: str = "",
    share: tuple[str, float] | None = None,
    abrasive: str = "paper",
    **more: object,
) -> Layer:
    """A layer of a recipe: `wait` in hours, `sand` as grit and purpose, `share` as component and share of the whole."""
    made = start_layer("?", recipe, "painted-unsealed", C)
    if technique:
        known = C.techniques[technique]
        made = replace(made, technique=technique, tool=known.tools[0], touched=known.touched)
    if sand:
        made = replace(made, sandings=(Sanding(sand[0], sand[1], abrasive),))  # type: ignore[arg-type]
    if hex:
        first = C.recipes[recipe].components[0].id
        paint = next((c.id for c in C.recipes[recipe].components if c.role in {"paint", "pigment"}), first)
        made = replace(made, colours={paint: Colour("", hex)})
    if share:
        made = replace(made, amounts={share[0]: VolumeShare("volume-share", share[1])})
    return replace(made, wait_h=wait, **more)  # type: ignore[arg-type]


def stack(
    ground: str,
    *layers: Layer | str,
    use: str = "",
    prep: str = "",
    room: tuple[float, float] = (20.0, 0.5),
    upright: bool = True,
    part: str = "front",
    does: tuple[str, ...] = (),
    m2: float = 1.0,
    facts: tuple[str, ...] = (),
    narrow: bool = False,
    asbestos: str = "never coated",
    old: str = "none",
    place: tuple[str, ...] = (),
    condition: str = "sound",
    nobody_knows: str = "",
    sheen: str = "unknown",
) -> Case:
    """A stack on a ground, from the ground up; `use` and `prep` are words with spaces between.

    `nobody_knows` is a film that is missing from the catalogue, `old` the answer to the lead question, "none" where
    there never was a coat.
    """
    ids = count(1)
    laid = tuple(replace(layer(one) if isinstance(one, str) else one, id=f"l{next(ids)}") for one in layers)
    words = tuple("an unknown buyer" if w == "buyer" else w for w in use.split())
    told: dict[str, Any] = {"condition": condition, "prep": tuple(prep.split()), "sheen": sheen, "facts": facts}
    zone = Zone("z", "Front", ground, (part,), laid, **told)
    moves: Any = frozenset(does)
    surface = FaceGroup(part, part.capitalize(), m2, "given", vertical=upright, does=moves, narrow=narrow)
    known = replace(C, films={k: v for k, v in C.films.items() if k != nobody_knows})
    answer = "never coated" if old == "none" else old
    use_of_it = Use(words, Answered(answer), Answered(asbestos), tuple(place))  # type: ignore[arg-type]
    bench = Trial(use_of_it, (surface,), known, steady(*room))
    return Case(zone, bench)
