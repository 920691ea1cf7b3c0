"""The coats of a layer: each as a need, and as the operations that lay it once its pots are known."""

from dataclasses import dataclass, replace
from math import ceil

from ..book.colours import Pot
from ..book.habits import Habits
from ..book.hands import judged_laid
from ..book.marks import mark_of
from ..book.techniques import PartDry
from ..book.words import Phrase
from ..figure import Figure, tidy
from ..job.job import FromArea, Use
from ..job.laying import Go
from ..layers import cautions
from ..layers.conditions import Room
from ..layers.coverage import film
from ..layers.drying import HURRIED, LEAST_THIN, Wait, takes_min, thickness_factor
from ..layers.laid import Laid
from ..layers.pace import minutes_for, pace_of
from ..layers.stack import Beneath, Stack
from ..learn.margin import AREA_OFF, Risk
from ..learn.rates import about, next_job
from ..mixing.mix import pots_of
from .batches import CoatNeed
from .bench import WorkedWith
from .operations import Constraint, Operation


@dataclass(frozen=True)
class Window:
    """When part-dry work can be done to each spot, after it was laid; in minutes as it is in this room, too."""

    opens: Wait
    closes: Wait
    opens_min: float
    closes_min: float


@dataclass(frozen=True)
class CoatWork:
    """A coat, or one of its pots: the need, and what it is made of."""

    scope: str
    need: CoatNeed
    laid: Laid
    under: Beneath
    pot: Pot
    area: Figure
    lay_min: float
    again_min: float
    """Part-dry work or wiping back, all patches together; 0 where there is none."""
    window: Window | None
    touch: Wait
    """Until it may be touched."""
    use: Use
    """What its zone must stand, and where."""
    room: Room
    rescues: tuple[str, ...] = ()
    """What is done when a film of its kind goes wrong, by sign."""
    phrase: Phrase | None = None
    """How its way of being put on is said; None for one nobody has said."""
    share: float = 1.0
    """Of what its layer touches, what this pot covers in this go."""
    judged: str = ""
    """What a hand judges by eye of it, by slug."""

    @property
    def colour(self) -> str:
        """What the painter calls its colour: its name, the paints it is mixed from, or the pot's name."""
        for pour in self.laid.pours:
            part = pour.component.id
            if self.pot.tints.get(part):
                return " + ".join(t.name for t in self.pot.tints[part] if t.name) or self.pot.name
            if part in self.pot.colours and self.pot.colours[part].name:
                return self.pot.colours[part].name
        return self.pot.name

    @property
    def named(self) -> str:
        """What it is called at the bench: the mix and its colour."""
        return f"{self.laid.name}, {self.colour}" if self.colour else self.laid.name


def _slowness(laid: Laid) -> float:
    """How many times as late as usual a coat is ready for part-dry work: later than the film's reference thickness,
    sooner, down to a third, than its technique is usually laid; what lies between is as usual."""
    least = laid.technique.usual_mm * 1000 if laid.technique.per_mm else laid.film.usual_um
    most = max(least, laid.film.usual_um)
    if laid.wet_um > most:
        return thickness_factor(laid.wet_um, most)
    return min(1.0, max(thickness_factor(laid.wet_um, least), LEAST_THIN))


def window_of(laid: Laid, work: PartDry, room: Room) -> Window:
    """When part-dry work opens and closes for a layer: a thicker film is later, as it is to dry.

    Where no film forms in this room, the minutes are those at 20 °C and 50 %.
    """
    watery = laid.film.carrier == "water"
    factor = _slowness(laid) if watery else 1.0
    opens, closes = (
        Wait(minutes * factor, "evaporation" if watery else "oil") for minutes in (work.opens_min, work.closes_min)
    )
    here = [takes_min(wait, room) or wait.reference_min or 0.0 for wait in (opens, closes)]
    return Window(opens, closes, *here)


def longest_patch_min(opens_min: float, closes_min: float, pace: float, used: float) -> float:
    """Minutes of laying after which the first spot laid can still be worked in time, and the last is ready for it.

    Both go over a patch the same way, the second `pace` times as fast; `used` is the share of the window planned with.
    With L minutes of laying and L/pace of working, begun at s: L ≤ s, opens ≤ s, opens + L − L/pace ≤ s ≤ closes.

    >>> longest_patch_min(5, 20, 2, 0.7)
    14.0
    """
    lag = 1 - 1 / pace
    by_last = (closes_min - opens_min) / lag if lag > 0 else closes_min
    return used * min(closes_min, by_last)


def _patches(window: Window | None, lay_min: float, habits: Habits) -> tuple[int, float]:
    """In how many patches a coat is worked at least, and the most that each waits for its window to open."""
    if window is None:
        return 1, 0.0
    longest = longest_patch_min(window.opens_min, window.closes_min, habits.part_dry_pace, habits.window_used)
    return max(1, ceil(lay_min / longest - 1e-9)), window.opens_min


def goes_of(bench: WorkedWith, stack: Stack, index: int) -> tuple[Go, ...]:
    """What a coat of a layer paints at once: all it touches, or by its layout."""
    layer = stack.laid[index].layer
    return bench.goes.get((stack.zone.id, layer.id)) or (Go(layer.touched, 0.0),)


def coats_of(bench: WorkedWith, stack: Stack, index: int, number: int, coat: int, area: Figure,
             at_min: float, go: int = 1) -> tuple[CoatWork, ...]:  # fmt: skip
    """One coat of a layer, for each of its pots: how much, how long, in how many patches.

    `number` is the layer's place in the zone from 1, `at_min` when the coat is due, `go` which of its goes it is.
    """
    habits = bench.habits
    one, under = stack.laid[index], stack.beneath(index)
    layer, work = one.layer, one.technique.part_dry
    window = window_of(one, work, stack.room) if work else None
    goes = goes_of(bench, stack, index)
    painted = goes[go - 1].share
    whole = minutes_for(area.value * painted, pace_of(one.technique, bench.workshop, bench.turned), habits.least_min)
    in_go = f":go{go}" if len(goes) > 1 else ""
    touch = stack.wait(index, "touch")
    rescues = tuple(
        f"{r.sign}: {'; once dry, '.join(x for x in (r.wet, r.dry) if x)}"
        for r in bench.catalogue.rescues_for(one.film.kind)
    )
    mark = mark_of(one.technique, bench.catalogue.marks)
    eye = judged_laid(mark, layer.kept, bench.catalogue.hands.values())
    made = []
    for pot in pots_of(layer):
        lay_min = whole * pot.share
        again = max(lay_min / habits.part_dry_pace, habits.least_min) if work else 0.0
        patches, idle = _patches(window, lay_min, habits)
        share = pot.share * painted / layer.touched
        need = CoatNeed(
            f"{bench.scope}{stack.zone.id}:{layer.id}:{coat}:{pot.id or 'pot'}{in_go}",
            bench.job,
            stack.zone.id,
            stack.zone.name,
            layer.id,
            number,
            coat,
            layer.coats,
            area.value * painted * pot.share,
            film(area, one, under, coat, coat, share).value,
            lay_min + again,
            at_min,
            layer.margin if isinstance(layer.want, FromArea) else 0.0,
            patches,
            idle,
            go,
            len(goes),
            risk_of(one, area.spread),
        )
        made.append(
            CoatWork(
                bench.scope,
                need,
                one,
                under,
                pot,
                area,
                lay_min,
                again,
                window,
                touch,
                stack.use,
                stack.room,
                rescues,
                bench.catalogue.phrases.get(one.technique.slug),
                share,
                eye.slug if eye else "",
            )
        )
    return tuple(made)


def risk_of(laid: Laid, area_off: float) -> Risk | None:
    """How a layer's amount may be off, where its margin goes by that; None for a flat margin. `area_off` is how far its
    area may be, as a share of it."""
    layer = laid.layer
    if layer.short_one_in is None or not isinstance(layer.want, FromArea):
        return None
    rate = about(laid.learned.next_job, laid.learned.factor) if laid.learned else next_job(())
    return Risk(layer.short_one_in, rate, max(area_off, AREA_OFF))


def patches_in(need: CoatNeed, batches: int) -> int:
    """How many patches a coat is worked in when it is divided over `batches`: as many in each."""
    return batches * ceil(need.patches / batches)


def _says(coat: CoatWork, patch: int, patches: int) -> str:
    layer, technique = coat.laid.layer, coat.laid.technique
    which = f", coat {coat.need.coat} of {coat.need.coats}" if coat.need.coats > 1 else ""
    which += f", go {coat.need.go} of {coat.need.goes}" if coat.need.goes > 1 else ""
    covers = layer.touched * coat.share
    share = f", on about {covers:.0%} of it" if covers < 0.95 else ""
    part = f", patch {patch} of {patches}" if patches > 1 else ""
    if coat.phrase is None:
        return f"{coat.named}: {technique.name}{which}{share}{part}"
    colour = f", {coat.colour}" if coat.colour else ""
    return f"{coat.phrase.of(coat.laid.name)}{colour}{which}{share}{part}"


def tools_of(laid: Laid) -> tuple[str, ...]:
    """What a coat is laid with, and what must lie beside it."""
    tools = [laid.tool.name]
    if laid.acts("lifts", "rubs in", "drags"):
        tools.append("rags or sponge for lifting")
    if laid.film.kind in {"wax", "oil"}:
        tools.append("lidded metal can with water, for rags")
    return tuple(tools)


def lay(coat: CoatWork, batch: str, patch: int, patches: int) -> tuple[tuple[Operation, ...], tuple[Constraint, ...]]:
    """One patch of a coat: laying it, what is done while it is part dry, tape lifted; and what holds between them."""
    need, laid = coat.need, coat.laid
    technique = laid.technique
    base = Operation(
        f"{need.id}:lay:{patch}", "lay", _says(coat, patch, patches), job=need.job, zone=need.zone,
        zone_name=need.zone_name, layer=need.layer, number=need.number, coat=need.coat, coats=need.coats,
        pot=coat.pot.id, batch=batch, patch=patch, patches=patches, area_m2=need.area_m2 / patches,
        film_ml=need.film_ml / patches, hands_on_min=coat.lay_min / patches, tools=tools_of(laid),
        how=tuple(line for line in (technique.how, technique.direction) if line),
        check=laid.recipe.right_when or technique.right_when,
        take_care=cautions.when_laying(laid, coat.use),
        judged="" if technique.part_dry else coat.judged,
        rescues=(*(f"{f.sign}: {f.rescue}" for f in technique.faults), *coat.rescues),
    )  # fmt: skip
    done, ties = [base], []
    if technique.part_dry and coat.window:
        work, window = technique.part_dry, coat.window
        opens, closes = tidy(window.opens_min), tidy(window.closes_min)
        part = f", patch {patch} of {patches}" if patches > 1 else ""
        again = replace(
            base, id=f"{need.id}:{work.kind.replace(' ', '-')}:{patch}", kind=work.kind,
            says=f"{work.briefly}: {coat.named[:1].lower()}{coat.named[1:]}{part}, {opens}–{closes} min after laying",
            hands_on_min=coat.again_min / patches, film_ml=0.0, how=(work.what,), check=work.check, take_care=(),
            judged=coat.judged,
            rescues=(), tools=("a clean cloth",) if work.kind == "wipe back" else base.tools,
        )  # fmt: skip
        if laid.film.kind in {"wax", "oil"}:
            again = replace(again, take_care=cautions.when_laying(laid, coat.use))
        done.append(again)
        for end in ("start", "end"):  # the first spot laid is the first worked, the last the last
            ties.append(Constraint("at least", base.id, again.id, window.opens, end, end, "it is no longer wet"))
            ties.append(Constraint("at most", base.id, again.id, window.closes, end, end, "it sets hard"))
    if laid.tapes and patch == patches:
        lift = replace(
            base, id=f"{need.id}:lift-tape:{patch}", kind="lift tape", says="Lift the tape", film_ml=0.0, judged="",
            hands_on_min=min(3.0, coat.lay_min / patches), how=("At once, while it is wet, back over itself.",),
            check="A clean edge; nothing came with it.", take_care=(), rescues=("it lifted the base: touch in, dry",),
            tools=(),
        )  # fmt: skip
        done.append(lift)
    if patch == patches and (held := _held_to(coat, base)):
        done.append(held)
    ties += [Constraint("after", a.id, b.id) for a, b in zip(done, done[1:], strict=False)]
    return tuple(done), tuple(ties)


def _held_to(coat: CoatWork, base: Operation) -> Operation | None:
    """Holding warm air to a coat that is hurried: until it is touch dry somebody stands there."""
    laid = coat.laid
    if laid.layer.dries_by not in HURRIED or not laid.hurries or coat.touch.reference_min is None:
        return None
    return replace(
        base, id=f"{coat.need.id}:dry", kind="dry", says=f"Dry {coat.named} with a {laid.layer.dries_by}", film_ml=0.0,
        judged="", tools=(laid.layer.dries_by,),
        hands_on_min=takes_min(coat.touch, coat.room) or coat.touch.reference_min,
        how=("At arm's length, always moving, the same everywhere.",), check="Dull all over; cool and dry to the hand.",
        take_care=cautions.when_laying(laid, coat.use), rescues=(),
    )  # fmt: skip
