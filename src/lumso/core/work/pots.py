"""Which coats come from the same pot: coats of one mix grouped and batched, with their life and their losses."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from functools import partial

from ..book.colours import Pot
from ..book.habits import Habits
from ..book.materials import PotLoss
from ..errors import InvalidValue, Problem
from ..layers.conditions import Room
from ..layers.drying import Wait, takes_min
from ..layers.laid import Laid
from ..memory import Memo
from .batches import Losses, MixLife, Split, runs, split
from .coats import CoatWork
from .step_down import StepDown, WashStep, chain


@dataclass(frozen=True)
class PotRun:
    """Coats of one mix that share their pots. `split` is None where they cannot be batched."""

    coats: tuple[CoatWork, ...]
    split: Split | None
    life: MixLife
    losses: Losses
    why: str
    """Why the coats before it could not come from the same pot."""
    step_down: StepDown | None = None

    @property
    def first(self) -> CoatWork:
        """The coat it is begun for."""
        return self.coats[0]


@dataclass(frozen=True)
class Brewing:
    """What pots are made with: the largest vessel, what clings, how work goes, the room."""

    pot_losses: Mapping[str, PotLoss]
    vessel_ml: float
    habits: Habits
    room: Room

    def losses(self, laid: Laid) -> Losses:
        """What stays in pot and tool of a layer's mix."""
        return Losses(self.pot_losses[laid.flow.cling], laid.tool, laid.layer.wrapped_tool)


def life_wait(laid: Laid) -> Wait:
    """How long a mix can be worked once ready, or wetted: a mix that sets goes by the clock, others dry up too."""
    recipe = laid.recipe
    return Wait(recipe.working_life_min, "clock" if recipe.life_starts == "when wetted" else "evaporation")


def is_as_bought(laid: Laid) -> bool:
    """Whether nothing is mixed: one thing, poured off."""
    return len([p for p in laid.pours if p.poured_ml > 0]) == 1


def life_of(laid: Laid, room: Room, habits: Habits) -> MixLife:
    """How long a layer's mix lives in this room: dry or hot air shortens a life, none is promised to last longer."""
    recipe, wait = laid.recipe, life_wait(laid)
    here = takes_min(wait, room)
    life = wait.reference_min if here is None else min(here, wait.reference_min or here)
    keeps = (recipe.keeping_life_days or 0.0) * 24 * 60
    bought = is_as_bought(laid)
    rest = 0.0 if bought else recipe.rest_min
    return MixLife(life, keeps, rest, recipe.life_starts == "when wetted", bought, habits.mix_min)


def _mix_key(laid: Laid, pot: Pot) -> tuple[object, ...]:
    shares = tuple(sorted((k, round(v, 6)) for k, v in laid.shares.items()))
    colours = tuple(sorted((k, c.name, c.hex) for k, c in pot.colours.items()))
    tints = tuple(sorted((k, tuple((t.name, t.hex, t.parts) for t in v)) for k, v in pot.tints.items()))
    return (
        laid.recipe.slug,
        shares,
        colours,
        tints,
        pot.name,
        laid.tool.slug,
        laid.layer.wrapped_tool,
        tuple(sorted(laid.layer.materials.items())),
    )


def mix_key(coat: CoatWork, memo: Memo) -> tuple[object, ...]:
    """Coats with the same key come from the same mix: recipe, shares, colours, pot and tool alike."""
    args = (coat.laid, coat.pot)
    return memo.recall(("key", coat.need.id), args, partial(_mix_key, *args))


def _is_wash(coat: CoatWork) -> bool:
    """Whether a layer can stand in a chain: a stacked wash of paint and water, in one pot."""
    roles = {p.material.role for p in coat.laid.pours if p.poured_ml > 0}
    return coat.laid.acts("stacks") and not coat.laid.layer.pots and roles == {"paint", "water"}


def _wash_step(coats: Sequence[CoatWork], brewing: Brewing) -> WashStep | None:
    """All coats of a layer as one pot; None where they need more than one."""
    one, life = coats[0], life_of(coats[0].laid, brewing.room, brewing.habits)
    losses = brewing.losses(one.laid)
    try:
        (run, *more) = runs([c.need for c in coats], life, losses, brewing.vessel_ml, brewing.habits)
        done = split(run[0], life, losses, brewing.vessel_ml, brewing.habits)
    except InvalidValue:
        return None
    if more or done.count > 1:
        return None
    name = one.colour or f"layer {one.need.number}"
    used = done.pot.film_ml + done.pot.lost_ml
    return WashStep(name, one.laid.hex, done.total_ml, one.laid.water, used)


def chains(coats: Sequence[CoatWork], brewing: Brewing) -> dict[tuple[str, str, str], StepDown]:
    """Runs of stacked washes on a zone, each pot begun from what is left of the last, by job, zone and layer.

    A run ends where a layer needs more than one pot, where another layer lies between, or where what is left does not
    keep until the next wash.
    """
    found: dict[tuple[str, str, str], StepDown] = {}
    by_layer: dict[tuple[str, str, str], list[CoatWork]] = {}
    for one in coats:
        if _is_wash(one):
            by_layer.setdefault(layer_of(one), []).append(one)
    washes = [(w, step) for w in by_layer.values() if (step := _wash_step(w, brewing)) is not None]
    links: list[list[tuple[list[CoatWork], WashStep]]] = []
    for wash in washes:
        last, now = (links[-1][-1][0][-1] if links else None), wash[0][0]
        follows = (
            last is not None
            and layer_of(last)[:2] == layer_of(now)[:2]
            and now.need.number == last.need.number + 1
            and now.need.at_min - last.need.at_min <= life_of(last.laid, brewing.room, brewing.habits).keep_min
        )
        if follows:
            links[-1].append(wash)
        else:
            links.append([wash])
    for link in links:
        if len(link) > 1:
            steps = chain([step for _, step in link], brewing.habits.rinse_ml)
            found.update((layer_of(w[0]), step) for (w, _), step in zip(link, steps, strict=True))
    return found


def layer_of(coat: CoatWork) -> tuple[str, str, str]:
    """The job, the zone and the layer a coat is of."""
    return coat.scope, coat.need.zone, coat.need.layer


def _runs_of(alike: tuple[CoatWork, ...], brewing: Brewing, apart: frozenset[str],
             step_down: StepDown | None) -> tuple[tuple[PotRun, ...], tuple[Problem, ...]]:  # fmt: skip
    """The coats of one mix in the pots they come from, and what cannot be batched."""
    life = life_of(alike[0].laid, brewing.room, brewing.habits)
    losses = brewing.losses(alike[0].laid)
    by_id = {c.need.id: c for c in alike}
    made, problems = [], []
    for served, why in runs([c.need for c in alike], life, losses, brewing.vessel_ml, brewing.habits, apart):
        mine = tuple(by_id[n.id] for n in served)
        done = None
        try:
            done = split(served, life, losses, brewing.vessel_ml, brewing.habits)
        except InvalidValue as error:
            says = f"{mine[0].laid.name} on {mine[0].need.zone_name.lower()}: {error.says}"
            problems.append(Problem(f"/layers/{mine[0].need.layer}", says, error.allowed))
        made.append(PotRun(mine, done, life, losses, why, step_down))
    return tuple(made), tuple(problems)


Mixes = tuple[tuple[tuple[CoatWork, ...], StepDown | None], ...]
"""The coats of each mix, with how it begins from the last one's leftovers."""


def mixes_of(coats: Sequence[CoatWork], brewing: Brewing, stepped: bool, memo: Memo) -> Mixes:
    """Coats by the mix they come from. With `stepped`, stacked washes begin from what is left of the last."""
    chained = chains(coats, brewing) if stepped else {}
    groups: dict[tuple[object, ...], list[CoatWork]] = {}
    for one in coats:
        own = layer_of(one) if layer_of(one) in chained else ()
        groups.setdefault((*mix_key(one, memo), *own), []).append(one)
    return tuple((tuple(mine), chained.get(layer_of(mine[0]))) for mine in groups.values())


def pot_runs(mixes: Mixes, brewing: Brewing, memo: Memo,
             apart: Collection[str] = ()) -> tuple[tuple[PotRun, ...], tuple[Problem, ...]]:  # fmt: skip
    """Every coat in the pot it comes from, and what cannot be batched. Coats in `apart` begin a pot of their own."""
    made: list[PotRun] = []
    problems: list[Problem] = []
    for alike, step_down in mixes:
        alone = frozenset(c.need.id for c in alike if c.need.id in apart) if apart else frozenset()
        args = (alike, brewing, alone, step_down)
        found, wrong = memo.recall(("runs", alike[0].need.id), args, partial(_runs_of, *args))
        made += found
        problems += wrong
    return tuple(made), tuple(problems)
