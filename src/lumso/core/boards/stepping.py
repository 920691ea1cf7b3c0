"""One pot stepped down through the strips of a ladder of water: each weaker than the last, none mixed anew."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from ..book.kit import Kit
from ..errors import Problem
from ..job.areas import measure, zone_area
from ..job.job import FromTotal, Job
from ..layers.coverage import film
from ..layers.stack import Stack
from ..mixing.kit_search import fillings_of
from ..value import Value
from .board import LEAST_ML

WRONG = 0.02
"""How far the water share of a strip may be off what is wanted."""
MOST_ML = 400.0


@dataclass(frozen=True)
class Step(Value):
    """What is done before one strip: so much is added to what is in the pot, and that makes such a share of water."""

    code: str
    paint_ml: float
    water_ml: float
    pot_ml: float
    water: float
    used_ml: float


@dataclass(frozen=True)
class Stepped(Value):
    """One pot for the whole ladder, and how much paint that saves against a pot for each strip."""

    steps: tuple[Step, ...]
    paint_ml: float
    saved_ml: float


def one_pot(job: Job, stack_of: Callable[[int], Stack], kit: Kit) -> Stepped | None:
    """One pot for all strips of a board, where water is all that is varied, in a mix of two parts; else None.

    `stack_of` is the stack of one of the board's zones, by its position. A strip takes what its coats lay and what
    stays in the tool, which is washed before a weaker wash.
    """
    board = job.board
    if board is None or len(board.ladders) != 1 or board.ladders[0].what != "share":
        return None
    strips, measured = {s.zone: s for s in board.strips}, measure(job)
    codes, water, used, alone = [], [], [], []
    for place, zone in enumerate(job.zones):
        strip = strips.get(zone.id)
        index = next((i for i, x in enumerate(zone.layers) if strip and x.id == strip.layer), None)
        if strip is None or index is None:
            continue
        stack = stack_of(place)
        one = stack.laid[index]
        part = next((p.component for p in one.pours if p.component.id == board.ladders[0].component), None)
        if part is None or part.role != "water" or len(one.pours) != 2:
            return None
        area = zone_area(zone, job.piece, measured.surfaces, stack.catalogue, "") if job.piece else None
        if area is None or isinstance(area, Problem):
            return None
        lies = film(area, one, stack.beneath(index), 1, one.layer.coats).value
        codes.append(strip.code)
        water.append(strip.rungs[0].value)
        used.append(lies + one.tool.holds_ml)
        alone.append(one.layer.want.ml if isinstance(one.layer.want, FromTotal) else LEAST_ML)
    return step_down(codes, water, max(used), min(alone), kit) if codes else None


def _nearest(ml: float, grain: float) -> float:
    return max(grain, round(ml / grain) * grain)


def step_down(codes: Sequence[str], water: Sequence[float], used_ml: float, each_ml: float,
              kit: Kit) -> Stepped | None:  # fmt: skip
    """The smallest pot that goes through a ladder of water shares, strongest first, in what this kit measures.

    `used_ml` is what a strip and its brush take, `each_ml` what a pot for one strip would be. None where the kit pours
    nothing, where the ladder goes back, or where it would save nothing.
    """
    pours = [ml for _, ml, _ in fillings_of(kit)]
    rising = all(a < b for a, b in zip(water, water[1:], strict=False))
    if not pours or not rising or len(water) < 2:
        return None
    grain, alone = min(pours), sum(each_ml * (1 - w) for w in water)
    paint = grain
    while paint <= MOST_ML:
        steps = _through(codes, water, used_ml, paint, grain)
        if steps:
            saved = alone - paint
            return Stepped(steps, paint, round(saved, 1)) if saved > 0 else None
        paint += grain
    return None


def _through(codes: Sequence[str], water: Sequence[float], used_ml: float, paint: float,
             grain: float) -> tuple[Step, ...]:  # fmt: skip
    """The steps from so much paint; none where it runs out, or a share cannot be met."""
    made: list[Step] = []
    held, wet = paint, 0.0
    for code, share in zip(codes, water, strict=True):
        add = held * share / (1 - share) - wet
        poured = _nearest(add, grain)
        wet += poured
        whole = held + wet
        if abs(wet / whole - share) > WRONG or whole < used_ml:
            return ()
        made.append(Step(code, paint if not made else 0.0, poured, whole, wet / whole, used_ml))
        left = (whole - used_ml) / whole
        held, wet = held * left, wet * left
    return tuple(made)
