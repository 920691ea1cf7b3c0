"""What can be tried on a board for a layer: ladders that are worth painting, and reasons to paint one."""

from dataclasses import dataclass

from ..book.catalogue import Catalogue
from ..book.offers import SEALERS
from ..book.preparation import SANDED_BACK
from ..colour.difference import lab_of
from ..colour.spectra import reflectance
from ..job.board import Ladder, Rung
from ..job.job import Layer
from ..layers.laid import Laid
from ..look.look import Look
from ..value import Value
from .board import says

STEPS = 5
SPAN = 0.15
"""A ladder of shares reaches so far either side of what is planned."""
STRONG = 38.0
"""A colour of more chroma than this is strong: a step too much of it is seen from across the room."""
UNSURE = 5.0
"""ΔE₀₀: a look that is not known closer than this is worth a board."""
COSTLY = {"an unknown buyer", "children", "food"}


@dataclass(frozen=True)
class Offered(Value):
    """A ladder to paint: what is varied, in words, and what each step is."""

    name: str
    ladder: Ladder
    steps: tuple[str, ...]


def _rungs(*values: float) -> tuple[Rung, ...]:
    return tuple(Rung(round(v, 3)) for v in values)


def _shares(one: Laid) -> Ladder | None:
    """The dial of its recipe turned up and down, within its limits."""
    part = next((p for p in one.pours if p.component.id == one.recipe.dial), None)
    if part is None or one.recipe.measured_by != "volume":
        return None
    now = one.shares[part.component.id]
    bounds = [x for x in one.recipe.limits if x.component == part.component.id]
    least = max([0.05, now - SPAN, *(x.least for x in bounds[:1])])
    most = min([0.9, now + SPAN, *(x.most for x in bounds[:1])])
    if most - least < 0.04:
        return None
    grain = 0.05 if most - least >= 0.2 else 0.01
    steps = [round((least + (most - least) * i / (STEPS - 1)) / grain) * grain for i in range(STEPS)]
    unlike = sorted({round(s, 3) for s in steps if 0 < s < 1})
    return Ladder("share", one.layer.id, _rungs(*unlike), part.component.id)


def _sealers(catalogue: Catalogue) -> tuple[Rung, ...]:
    return (Rung(slug=""), *(Rung(slug=catalogue.offer(need)) for need in SEALERS[:STEPS]))


def ladders_for(look: Look, index: int) -> tuple[Offered, ...]:
    """The ladders worth painting for one layer of a zone, the most telling first."""
    stack, film = look.stack, look.films[index]
    one, layer = film.laid, film.laid.layer
    found: list[tuple[str, Ladder]] = []
    if shares := _shares(one):
        name = next(p.component.name for p in one.pours if p.component.id == shares.component)
        found.append((f"{name} in it", shares))
    for component, tints in layer.tints.items():
        if len(tints) > 1:
            now = tints[-1].parts / sum(t.parts for t in tints)
            steps = _rungs(*(min(0.9, now * times) for times in (0.25, 0.5, 1, 1.5, 2)))
            found.append((f"{tints[-1].name or 'Tint'} in it", Ladder("tint", layer.id, steps, component)))
    if film.wiped:
        found.append(("How much is wiped away", Ladder("kept", layer.id, _rungs(0.2, 0.4, 0.7, 1.0))))
    if one.technique.per_mm:
        mm = layer.thickness_mm
        found.append(("How thick it lies", Ladder("thickness", layer.id, _rungs(mm / 2, mm, mm * 1.5))))
    if not film.clear:
        found.append(("How many coats", Ladder("coats", layer.id, _rungs(1, 2, 3))))
        grits = _rungs(*(way.grit for way in SANDED_BACK))
        found.append(("How far it is sanded back", Ladder("sanding", layer.id, grits)))
    elif index == len(stack.laid) - 1:
        found.append(("What it is sealed with", Ladder("sealer", layer.id, _sealers(stack.catalogue))))
    return tuple(Offered(name, ladder, _words(ladder, layer, stack.catalogue)) for name, ladder in found)


def _words(ladder: Ladder, layer: Layer, catalogue: Catalogue) -> tuple[str, ...]:
    return tuple(says(ladder, rung, layer, catalogue) for rung in ladder.rungs)


def reasons(look: Look) -> tuple[str, ...]:
    """Why a board is worth making before the piece is painted; nothing where it is not."""
    stack, said = look.stack, []
    if stack.ground.surface == "raw wood":
        said.append("Raw wood takes colour as it likes.")
    strong = [f.laid.name.lower() for f in look.films if f.hex and _chroma(f.hex) > STRONG]
    if strong:
        said.append(
            f"Strong colour ({', '.join(dict.fromkeys(strong))}): a step too much is seen from across the room."
        )
    if stack.zone.accepted:
        said.append("A risk was accepted here: see it on a board first.")
    if COSTLY & set(stack.use.touched_by):
        said.append("It is for somebody else, or for children or food: no surprises.")
    untested = [f.laid.name.lower() for f in look.films if "untested" in f.laid.recipe.provenance]
    if untested:
        said.append(f"Starting values that nobody has tested yet: {', '.join(dict.fromkeys(untested))}.")
    if look.column.top.within > UNSURE:
        said.append(f"The estimate is no closer than ΔE {look.column.top.within:.0f}.")
    return tuple(said)


def _chroma(hex_: str) -> float:
    lab = lab_of(reflectance(hex_))
    return float((lab[1] ** 2 + lab[2] ** 2) ** 0.5)
