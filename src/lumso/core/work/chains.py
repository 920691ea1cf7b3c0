"""Which stacked washes of a job can be one chain, each pot begun from what is left of the last."""

from collections.abc import Mapping, Sequence

from ..book.materials import PotLoss
from ..errors import InvalidValue
from .batches import Losses, runs, split
from .coats import Coat, life_of
from .step_down import StepDown, WashStep, chain

RINSE_ML = 10.0
"""Water that rinses a pot into the next: an untested starting point."""


def _is_wash(one: Coat) -> bool:
    """Whether a layer can stand in a chain: a stacked wash of paint and water, in one pot."""
    roles = {p.material.role for p in one.laid.pours if p.poured_ml > 0}
    return one.laid.layer.technique == "wash-stacked" and not one.laid.layer.pots and roles == {"paint", "water"}


def _colour_name(one: Coat) -> str:
    """What the painter calls a wash's colour; its place in the stack where nobody has said."""
    paint = next(p.component.id for p in one.laid.pours if p.material.role == "paint")
    named = one.pot.colours[paint].name if paint in one.pot.colours else ""
    return named or f"layer {one.need.number}"


def _wash_step(coats: Sequence[Coat], pot_losses: Mapping[str, PotLoss], vessel_ml: float) -> WashStep | None:
    """All coats of a layer as one pot; None where they need more than one."""
    one, life = coats[0], life_of(coats[0].laid)
    losses = Losses(pot_losses[one.laid.flow.cling], one.laid.tool.holds_ml)
    try:
        (run, *more) = runs([c.need for c in coats], life, losses, vessel_ml)
        done = split(run[0], life, losses, vessel_ml)
    except InvalidValue:
        return None
    if more or done.count > 1:
        return None
    return WashStep(_colour_name(one), one.laid.hex, done.total_ml, one.laid.water, done.film_ml + done.lost_ml)


def chains(coats: Sequence[Coat], pot_losses: Mapping[str, PotLoss], vessel_ml: float) -> dict[str, StepDown]:
    """Runs of stacked washes on a zone, each pot begun from what is left of the last, by layer.

    A run ends where a layer needs more than one pot, where another layer lies between, or where what is left does not
    keep until the next wash.
    """
    found: dict[str, StepDown] = {}
    by_layer: dict[tuple[str, str], list[Coat]] = {}
    for one in coats:
        if _is_wash(one):
            by_layer.setdefault((one.need.job, one.need.layer), []).append(one)
    washes = [(w, step) for w in by_layer.values() if (step := _wash_step(w, pot_losses, vessel_ml)) is not None]
    links: list[list[tuple[list[Coat], WashStep]]] = []
    for wash in washes:
        last, now = (links[-1][-1][0][-1] if links else None), wash[0][0]
        follows = (
            last is not None
            and (last.need.job, last.need.zone) == (now.need.job, now.need.zone)
            and now.need.number == last.need.number + 1
            and now.need.at_h - last.need.at_h <= life_of(last.laid).keep_h
        )
        if follows:
            links[-1].append(wash)
        else:
            links.append([wash])
    for link in links:
        if len(link) > 1:
            steps = chain([step for _, step in link], RINSE_ML)
            found.update((w[0].need.layer, step) for (w, _), step in zip(link, steps, strict=True))
    return found
