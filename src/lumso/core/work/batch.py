"""A batch: one pot to mix, what it is for, what goes into it, when it is mixed and how long it lives."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..book.catalogue import Catalogue
from ..book.materials import Vessel
from ..book.recipes import VolumeShare
from ..errors import ImpossibleRecipe, Problem
from ..figure import Figure, Step, tidy
from ..job.job import FromArea, FromTotal
from ..layers.cautions import when_mixing
from ..layers.coverage import film
from ..memory import Memo
from ..mixing.compose import compose, with_amounts
from ..mixing.mix import Mix, Pouring, mix
from ..value import Value
from ..workshop.workshop import Workshop
from .batches import CoatNeed, Split, needed, sittings, trial_batch
from .coats import CoatWork
from .operations import Amounts, PartPoured, TintPart
from .pots import PotRun
from .step_down import StepDown

ALL_BUT = 0.9999
"""A share of the whole is always less than all of it."""
MATCH = (
    "Divide the dry and the tinted parts into so many equal lots first, mix each the same way, and intermix the jars "
    "before the second is begun: then a top stays one colour."
)


@dataclass(frozen=True)
class ForCoats(Value):
    """What a batch is for: coats of a layer on a zone."""

    job: str
    zone: str
    zone_name: str
    layer: str
    number: int
    first_coat: int
    last_coat: int
    coats: int


@dataclass(frozen=True)
class Batch(Value):
    """One pot to mix. Times are hours after the job is begun; before it when below zero.

    `use_by_h` is None where nobody knows how long it lives: read the label. `first_ml` is how much to mix first so
    that it can still be corrected; 0 for what is poured as bought.
    """

    id: str
    number: int
    of: int
    name: str
    recipe: str
    colour: str
    hex: str
    uses: tuple[ForCoats, ...]
    mix: Mix
    vessel: str
    mix_at_h: float
    ready_h: float
    use_by_h: float | None
    work_min: float
    first_ml: float
    kept_for: str
    """What is kept sealed for a later coat, in words; "" for nothing."""
    pot_test: str
    steps: tuple[str, ...]
    cautions: tuple[str, ...]
    matching: str
    """What to do so that colours match across several batches of a coat; "" for one batch."""
    step_down: StepDown | None
    """How it begins from what is left of the last wash; `mix` is then only what is added."""
    rest_min: float | None = None
    """Minutes it rests before it is stirred again; None in batches frozen before that was kept apart."""

    @property
    def rests_h(self) -> float:
        """Hours it rests."""
        return self.ready_h - self.mix_at_h if self.rest_min is None else self.rest_min / 60


@dataclass(frozen=True)
class Brew:
    """A batch before its times are known."""

    id: str
    number: int
    run: PotRun
    mix: Mix
    amounts: Amounts
    laid_share: float
    """The share of its run's film that this batch lays."""

    @property
    def of(self) -> int:
        """How many batches its coats are divided over."""
        return self.run.split.count if self.run.split and not self.as_given else 1

    @property
    def as_given(self) -> bool:
        """Whether its amount was given, not worked out from the surface."""
        return not isinstance(self.run.first.laid.layer.want, FromArea)


def batch_id(first: CoatNeed, number: int) -> str:
    """The name of a batch: the coat it is begun for, and which of that coat's batches it is."""
    return f"{first.id}:b{number}"


def _pouring(coat: CoatWork, catalogue: Catalogue, workshop: Workshop, largest: Vessel | None) -> Pouring:
    vessels = tuple(v for v in catalogue.vessels if largest is None or v.capacity_ml <= largest.capacity_ml)
    named = coat.pot if coat.laid.layer.pots else None
    system = catalogue.system(workshop.measures)
    return Pouring(system, catalogue.consistencies, vessels, catalogue.optics, coat.pot.colours, coat.pot.tints, named)


def on_surface(coats: Sequence[CoatWork]) -> Figure:
    """What all these coats lay on their surfaces, in ml, with its working: layer by layer, then together."""
    layers: dict[tuple[str, str, str, str, int], list[CoatWork]] = {}
    for coat in coats:
        layers.setdefault((coat.scope, coat.need.zone, coat.need.layer, coat.pot.id, coat.need.go), []).append(coat)
    figures = []
    for mine in layers.values():
        first, last = mine[0], mine[-1]
        figures.append((first, film(first.area, first.laid, first.under, first.need.coat, last.need.coat,
                                    first.share)))  # fmt: skip
    if len(figures) == 1:
        return figures[0][1]
    steps: list[Step] = []
    for coat, figure in figures:
        go = f", go {coat.need.go}" if coat.need.goes > 1 else ""
        where = f"On {coat.need.zone_name.lower()}, layer {coat.need.number}{go}"
        steps += [*figure.steps[:-1], replace(figure.steps[-1], name=where)]
    total = sum(figure.value for _, figure in figures)
    how = " + ".join(tidy(figure.value) for _, figure in figures)
    off = max(figure.spread for _, figure in figures)
    return Figure(total, "ml", (*steps, Step("On the surface", how, total, "ml", "geometry")), off)


def _added(coat: CoatWork, step: StepDown, pouring: Pouring) -> Mix:
    """What goes into the pot beside what is left of the last wash: the new paint and the new water."""
    new = step.add_paint_ml + step.add_water_ml
    water = next(p.component.id for p in coat.laid.pours if p.material.role == "water")
    share = min(max(step.add_water_ml / new, 0.0), ALL_BUT)
    recipe = with_amounts(coat.laid.recipe, {water: VolumeShare("volume-share", share)})
    pours = compose(recipe, {p.material.slug: p.material for p in coat.laid.pours})
    return mix(recipe, pours, FromTotal("total", new), None, pouring)


def _poured(made: Mix) -> tuple[PartPoured, ...]:
    return tuple(
        PartPoured(
            p.component, p.name, p.colour, p.hex, p.poured.value, p.mass.value,
            tuple(TintPart(t.name, t.hex, t.parts, t.ml, t.g) for t in p.paints),
        )
        for p in made.parts
    )  # fmt: skip


def _begun_from_rest(step: StepDown | None) -> bool:
    return step is not None and step.from_last_ml > 0 and step.add_paint_ml + step.add_water_ml > 0


def brews_of(run: PotRun, catalogue: Catalogue, workshop: Workshop, largest: Vessel, memo: Memo) -> tuple[Brew, ...]:
    """The batches of a run, each with its mix; remembered. Raises nothing: a run that cannot be batched has none."""
    args = (run, catalogue, workshop.measures, largest)
    return memo.recall(
        ("brews", run.first.need.id), args, lambda: _brews_of(run, catalogue, workshop, largest, memo)
    )  # fmt: skip


def _brews_of(run: PotRun, catalogue: Catalogue, workshop: Workshop, largest: Vessel, memo: Memo) -> tuple[Brew, ...]:
    done = run.split
    if done is None:
        return ()
    first = run.first
    laid = first.laid
    pouring = _pouring(first, catalogue, workshop, largest)

    def make() -> Mix:
        figure = needed(on_surface(run.coats), done, run.losses)
        return mix(laid.recipe, laid.pours, laid.layer.want, figure, pouring, laid.flow)

    place = ("mix", batch_id(first.need, 1))
    made = memo.recall(place, (run.coats, done, run.losses, pouring), make)
    pot = done.pot
    step = run.step_down
    if step is not None and _begun_from_rest(step):
        made = _added(first, step, pouring)
        amounts = Amounts(step.ml, pot.film_ml, pot.lost_ml, pot.margin_ml, 0.0, _poured(made), step.from_last_ml,
                          step.rinse_ml)  # fmt: skip
    else:
        amounts = Amounts(pot.mix_ml, pot.film_ml, pot.lost_ml, pot.margin_ml, 0.0, _poured(made))
    return tuple(Brew(batch_id(first.need, n), n, run, made, amounts, 1 / done.count) for n in range(1, done.count + 1))


def brew_as_given(coats: Sequence[CoatWork], run: PotRun, catalogue: Catalogue, workshop: Workshop,
                  at: str) -> Brew | Problem:  # fmt: skip
    """The one batch of a layer's pot whose amount was given as a total, a part or a vessel: so much, whatever it lays.

    `at` is the layer's JSON pointer.
    """
    first = run.first
    laid, want = first.laid, first.laid.layer.want
    if isinstance(want, FromTotal):
        want = FromTotal("total", want.ml * first.pot.share)
    try:
        made = mix(laid.recipe, laid.pours, want, None, _pouring(first, catalogue, workshop, None), laid.flow)
    except ImpossibleRecipe as error:
        return Problem(f"{at}/{error.field}".rstrip("/"), error.says, error.allowed)
    mixed = made.volume.value
    film_ml = sum(c.need.film_ml for c in coats)
    share = run.losses.pot.share
    lost = max(min(film_ml, mixed) * share / (1 - share), run.losses.pot.least_ml) if film_ml else 0.0
    lost += min(run.losses.tool.holds_ml * len(coats), film_ml)
    laid_ml, lost = min(film_ml, mixed), min(lost, max(mixed - min(film_ml, mixed), 0.0))
    short = max(film_ml - mixed, 0.0)
    amounts = Amounts(mixed, laid_ml, lost, 0.0, mixed - laid_ml - lost, _poured(made), short_ml=short)
    return Brew(batch_id(first.need, 1), 1, run, made, amounts, 1.0)


def uses_of(coats: Sequence[CoatNeed]) -> tuple[ForCoats, ...]:
    """What these coats are, layer by layer."""
    by_layer: dict[tuple[str, str, str], list[CoatNeed]] = {}
    for coat in coats:
        by_layer.setdefault((coat.job, coat.zone, coat.layer), []).append(coat)
    return tuple(
        ForCoats(
            c[0].job,
            c[0].zone,
            c[0].zone_name,
            c[0].layer,
            c[0].number,
            min(x.coat for x in c),
            max(x.coat for x in c),
            c[0].coats,
        )
        for c in by_layer.values()
    )


def _kept(done: Split, run: PotRun, pause_min: float) -> str:
    """What is kept for later sittings: what they lay, and what the tool takes up each time it is taken up dry."""
    first, *later = sittings(done.coats, pause_min)
    if not later or run.life.as_bought:
        return ""
    coats = [c for sitting in later for c in sitting]
    loads = 0 if run.losses.once else len(later)
    ml = sum(c.film_ml for c in coats) + run.losses.tool.holds_ml * loads
    names = ", ".join(
        dict.fromkeys(f"{c.zone_name.lower()}, coat {c.coat}{f', go {c.go}' if c.goes > 1 else ''}" for c in coats)
    )
    return f"Keep about {ml:.0f} ml sealed, for {names}, {(coats[0].at_min - first[0].at_min) / 60:.0f} h later."


def timed(brew: Brew, mix_at_min: float, ready_min: float, catalogue: Catalogue) -> Batch:
    """The batch with its times."""
    run, laid = brew.run, brew.run.first.laid
    life, done, habits = run.life, run.split, catalogue.habits
    word = next((c for c in catalogue.consistencies if c.slug == laid.recipe.target), None)
    test = "" if life.as_bought or word is None else f"{word.name[:1].upper()}{word.name[1:]}: {word.looks}."
    paint = next((p for p in brew.mix.parts if p.role in {"paint", "pigment"}), brew.mix.parts[0])
    unknown = life.usable_min is None and not life.keep_min
    lasts = max(life.usable_min or 0.0, life.keep_min)
    whole = life.as_bought or _begun_from_rest(run.step_down) or brew.as_given
    return Batch(
        brew.id,
        brew.number,
        brew.of,
        laid.name,
        laid.recipe.slug,
        run.first.colour or paint.colour,
        paint.hex,
        uses_of([c.need for c in run.coats]),
        brew.mix,
        brew.mix.jar.vessel,
        mix_at_min / 60,
        ready_min / 60,
        None if unknown else (ready_min + lasts) / 60,
        done.bench_min if done else sum(c.need.bench_min for c in run.coats),
        0.0 if whole else trial_batch(brew.amounts.mixed_ml, habits),
        "" if done is None or brew.as_given else _kept(done, run, habits.pause_min),
        test,
        laid.recipe.steps,
        when_mixing(laid, run.first.use),
        MATCH if brew.of > 1 else "",
        run.step_down,
        life.rest_min,
    )
