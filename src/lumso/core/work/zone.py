"""One zone worked apart: its stack, its coats as needs, and all that is done to it beside mixing and laying.

A zone is computed from itself alone, so that an edit of one costs one. Batches and the order of work need all of them.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from ..book.catalogue import Catalogue
from ..book.hands import judged_sanded
from ..book.preparation import Preparation, Sanding
from ..errors import InvalidValue, Problem, UnknownEntry
from ..figure import Figure, listed, tidy
from ..job.job import FromArea, Zone, use_of
from ..layers import cautions
from ..layers.awaited import Awaited, is_word
from ..layers.drying import NIGHT, Wait, takes_min
from ..layers.laid import Laid, lay
from ..layers.stack import Beneath, Stack, beneath_each
from ..memory import Memo
from ..mixing.mix import refuse_crumbs
from ..piece.kinds import FaceGroup
from .bench import WorkedWith
from .coats import CoatWork, coats_of, goes_of
from .links import Link, Order, Tie

FROM_DATUM = "Where its layout lists them, every mark from the one datum."
PRESSED = "Press the edges down."
SEALED = "Seal them with the colour beneath, or offload the brush."
OFFLOADED = "Nothing beneath it seals its edges: offload the brush, and paint away from the tape."
HELD = "A strip of tape on a hidden spot first: it comes off and takes nothing with it."
SEAL_MM = 10.0
"""How wide the colour beneath is brushed along an edge of tape: an untested starting point."""
SEALS = {"paint", "metal", "clear"}
"""Kinds of film that an edge of tape is sealed with: a wash or a glaze would only wet it."""
LESS = "Less than looks right: sealing wakes the darks."
THROUGH = "through to the ground: base colour on the spot, dry, sand again"
BETWEEN: Literal["between clear coats"] = "between clear coats"
PLACES = {"technique": "technique", "tool": "tool", "material": "materials"}
"""Where a name stands in a layer that is looked up."""
RUBS = {"blend": "Blend", "burnish": "Burnish", "polish": "Polish"}


@dataclass(frozen=True)
class ZoneWork:
    """A zone worked apart. `laid` holds None where a layer cannot be looked up or composed.

    `stack` is what can be: all of it where `whole`.
    """

    zone: Zone
    area: Figure | None
    stack: Stack | None
    whole: bool
    laid: tuple[Laid | None, ...]
    under: tuple[Beneath | None, ...]
    """What each layer lies on; None on a ground nobody knows."""
    links: tuple[Link, ...] = ()
    ties: tuple[Tie, ...] = ()
    given: tuple[CoatWork, ...] = ()
    """Pots whose amount was given, where there is no area to lay them on."""
    problems: tuple[Problem, ...] = ()

    @cached_property
    def coats(self) -> tuple[CoatWork, ...]:
        """Every coat, in order."""
        return tuple(coat for link in self.links for coat in link.coats)

    @cached_property
    def coat_ids(self) -> tuple[str, ...]:
        """The ids of its coats, in order."""
        return tuple(coat.need.id for coat in self.coats)


def prep_wait(known: Preparation) -> Wait:
    """What a preparation leaves to dry: by the air; what takes a night is never under eight hours."""
    return Wait(known.wait_min, "night" if known.wait_min >= NIGHT else "evaporation")


def _prepare(order: Order, stack: Stack) -> None:
    for slug in order.zone.prep:
        known = order.bench.catalogue.preparations.get(slug)
        if known is None:
            continue
        says = known.name[:1].upper() + known.name[1:]
        made = order.operation("prepare", f"prepare:{slug}", says, order.minutes(known.pace_m2_per_h))
        order.do(
            replace(
                made,
                how=(known.how,),
                check=known.check,
                take_care=cautions.when_preparing(stack, known),
                tools=known.kit,
                makes_dust=known.abrades,
            )
        )
        if known.wait_min:
            order.waits = {order.here: (prep_wait(known), "")}


def _keep_bare(order: Order) -> None:
    """Masking what stays bare, once, before the first coat: glue faces, tenons, hinges."""
    bands = [b for b in order.bench.bands if b.surface in order.zone.surfaces]
    if not bands or not order.zone.layers:
        return
    names = listed([b.name.lower() for b in bands])
    count = sum(b.count for b in bands)
    made = order.operation("mask", "keep-bare", f"Mask {names}", order.bench.habits.least_min * count)
    order.do(
        replace(
            made, tools=("low-tack tape",), how=("Paint keeps glue from holding, and hinges from moving: tape them.",),
            check="Every edge pressed down; nothing bare beside the tape.",
        )
    )  # fmt: skip


def _sand(order: Order, stack: Stack, index: int, number: int, sand: Sanding, nth: int, coat: int,
          in_go: str) -> None:  # fmt: skip
    """The nth sanding of a dry coat, and dusting it off. `coat` is 0 for the whole layer."""
    one, bench = stack.laid[index], order.bench
    known = bench.catalogue.abrasives.get(sand.purpose)
    name = f"{one.layer.id}:{coat}{in_go}" if coat else one.layer.id
    name = f"{name}:{nth + 1}" if nth else name
    does = "Sand" if not sand.rubs else RUBS[sand.purpose]
    spots = {"all": "", "edges": ", edges only", "spots": ", in spots"}[sand.where]
    machine = ", by machine" if sand.by == "machine" else ""
    says = f"{does} {one.name.lower()} with {sand.named}{machine}{spots}"
    minutes = order.minutes(bench.habits.sanding_m2_per_h)
    made = replace(
        order.operation("sand", f"{name}:sand", says, minutes),
        layer=one.layer.id,
        number=number,
        coat=coat,
        coats=one.layer.coats,
        tools=(sand.named,),
        how=(known.why if known else "", "Edges, corners and where hands go first. Stop, step back, look; repeat."),
        check=LESS
        if sand.back
        else "Even and dull to the touch."
        if not sand.rubs
        else "Even; nothing has gone through.",
        take_care=cautions.when_sanding(stack, index, sand),
        rescues=(THROUGH,),
        makes_dust=True,
        judged=eye.slug if (eye := judged_sanded(sand, bench.catalogue.hands.values())) else "",
        sanded=nth + 1,
    )
    dust = order.operation("dust off", f"{name}:dust-off", "Dust off", order.minutes(bench.habits.dusting_m2_per_h))
    dust = replace(
        dust, layer=one.layer.id, number=number, coat=coat, coats=one.layer.coats, tools=("a damp cloth",),
        how=("Wipe the dust up with a damp cloth, never dry.",), check="A dark cloth stays clean.",
    )  # fmt: skip
    order.do(made, dust)


def _buffed(stack: Stack, index: int) -> bool:
    """Whether a layer is wax that is buffed: not a resist, and not while more wax goes on it."""
    one = stack.laid[index]
    above = stack.laid[index + 1] if index + 1 < len(stack.laid) else None
    return one.film.kind == "wax" and not one.acts("resists") and (above is None or above.film.kind != "wax")


def _buff(order: Order, stack: Stack, index: int, number: int, coat: int, in_go: str) -> None:
    one = stack.laid[index]
    order.waits = {order.here: (stack.wait(index, "touch"), "Dull and no longer tacky.")}
    minutes = order.minutes(order.bench.habits.buffing_m2_per_h, one.layer.touched)
    name = f"{one.layer.id}:{coat}{in_go}:buff"
    made = order.operation("buff", name, f"Buff {one.name.lower()}", minutes)
    made = replace(
        made, layer=one.layer.id, number=number, coat=coat, coats=one.layer.coats, tools=("buffing cloth",),
        how=("With a clean cloth, turned often, lightly at first.",),
        check="The cloth glides; no drag, no smear.", take_care=cautions.when_laying(one, order.bench.use),
    )  # fmt: skip
    order.do(made)


def sealed_with(stack: Stack, index: int) -> Laid | None:
    """What the edges of a layer's tape are sealed with: the nearest paint beneath it, or what closes; None where there
    is none."""
    return next((m for m in stack.beneath(index).meets if m.film.kind in SEALS and m.film.carrier == "water"), None)


def _mask(order: Order, stack: Stack, index: int, number: int, coat: int, go: int) -> None:
    """Taping for a coat, or one go of it, and sealing the tape's edges with the colour beneath."""
    one, bench, waits = stack.laid[index], order.bench, order.waits
    goes = goes_of(bench, stack, index)
    in_go = f":go{go}" if len(goes) > 1 else ""
    metres = goes[go - 1].metres * bench.like
    under = sealed_with(stack, index)
    edges = OFFLOADED if under is None else "" if metres else SEALED
    says = f"Tape for {one.name.lower()}" + (f", go {go} of {len(goes)}" if in_go else "")
    minutes = order.minutes(bench.habits.taping_m2_per_h)
    made = order.operation("mask", f"{one.layer.id}:{coat}{in_go}:mask", says, minutes)
    made = replace(
        made, layer=one.layer.id, number=number, coat=coat, coats=one.layer.coats,
        tape_m=metres,
        tools=("low-tack tape, steel rule",), how=(*((FROM_DATUM,) if one.layer.layout else ()), HELD, PRESSED,
             *((edges,) if edges else ())),
        check="No edge lifts under a fingernail.",
    )  # fmt: skip
    order.do(made)
    order.waits = {k: v for k, v in waits.items() if k < order.here}
    if under is None or not metres:
        return
    ml = metres * SEAL_MM / 1000 * under.wet_um
    seal = replace(
        made, id=f"{made.id}:seal", kind="seal edges", tape_m=0.0, tools=("a small brush",),
        says=f"Seal the tape's edges with {under.name.lower()}",
        hands_on_min=max(metres / bench.habits.sealing_m_per_min, bench.habits.least_min),
        how=(f"About {tidy(ml)} ml of it along {tidy(metres)} m of edge, nearly dry, away from the tape.",),
        check="Touch dry, and no ridge along the tape.",
    )  # fmt: skip
    order.do(seal)
    order.waits = {order.here: (stack.wait(stack.laid.index(under), "touch"), under.film.waits)}


def _layer(order: Order, stack: Stack, index: int, number: int) -> None:
    """A layer's coats, with what is done between and after them: one go after the other, each in all its coats.
    `number` is its place among all layers, from 1."""
    goes = len(goes_of(order.bench, stack, index))
    for go in range(1, goes + 1):
        for coat in range(1, stack.laid[index].layer.coats + 1):
            _coat(order, stack, index, number, coat, go, goes)


def _coat(order: Order, stack: Stack, index: int, number: int, coat: int, go: int, goes: int) -> None:
    """One coat of one go, and what is done after it."""
    one = stack.laid[index]
    layer, in_go = one.layer, f":go{go}" if goes > 1 else ""
    recoat, until = stack.between_coats(index), stack.wait(index, "recoat_until")
    top, last = index == len(stack.laid) - 1, coat == layer.coats
    ends = last and go == goes
    if one.tapes:
        _mask(order, stack, index, number, coat, go)
    coats = coats_of(order.bench, stack, index, number, coat, order.area, order.begins(), go)
    order.add(Link((), coats), sum(c.need.bench_min for c in coats))
    laid_at = order.laid[index] = order.here
    if _buffed(stack, index):
        _buff(order, stack, index, number, coat, in_go)
    wait = stack.alone(index) if ends else stack.tape_safe(index) if last else recoat
    after = {laid_at: (wait, one.film.waits)} if not (ends and top) else {}
    free = layer.wait_h is None or is_word(layer.wait_h)
    if ends and not top and free:
        after = _awaited(order, stack, index + 1) | (after if layer.wait_h is not None else {}) or after
    order.waits = after
    done = [s for s in layer.sandings if (ends or not last) and _sanded_now(s, coat, layer.coats, top)]
    for nth, sand in enumerate(done):
        order.waits = {laid_at: (stack.ready_to_sand(index, wait), one.film.waits)}
        _sand(order, stack, index, number, sand, nth, 0 if last else coat, in_go)
    if ends and not done and free and stack.closes_first(index):
        order.waits = {laid_at: (wait, one.film.waits)}
        _sand(order, stack, index, number, ABRADED, 0, 0, in_go)
        done = [ABRADED]
    if done:
        order.waits = after
    elif ends and not top and stack.laid[index + 1].layer.wet_into_wet:
        damp = Wait(one.film.open_most_min, "evaporation")
        remedy = "let it dry, and lay it as usual"
        order.ties.append(Tie("at most", laid_at, laid_at + 1, damp, "what is beneath is no longer damp", remedy))
    elif not (ends and top) and (ends or not last):
        _window(order, laid_at, wait, until)


def _awaited(order: Order, stack: Stack, index: int) -> dict[int, tuple[Wait, str]]:
    """All that a layer waits for, by where what it lies on was laid: of what is asked of one layer the longest."""
    found: dict[int, Awaited] = {}
    for one in stack.awaited(index):
        before = found.get(one.of)
        if before is None or stack.takes(one) > stack.takes(before):
            found[one.of] = one
    return {order.laid[k]: (one.wait, one.why) for k, one in found.items() if k in order.laid}


ABRADED = Sanding(320, BETWEEN)
"""How a film is keyed that has closed before what lies on it may follow."""


def _sanded_now(sand: Sanding, coat: int, coats: int, top: bool) -> bool:
    """Whether a sanding is done after this coat: between the coats where it is for that, else after the last."""
    last = coat == coats
    if sand.purpose == BETWEEN and coats > 1:
        return not last
    return last and not (sand.purpose == BETWEEN and top)


def _window(order: Order, laid_at: int, wait: Wait, until: Wait) -> None:
    """The time within which the next coat bites, where what is left alone does not already outlast it."""
    lasts, waits = takes_min(until, order.bench.room), takes_min(wait, order.bench.room)
    if lasts is not None and (waits is None or waits <= lasts):
        why = "later the film is too hard for the next to bite"
        order.ties.append(Tie("at most", laid_at, laid_at + 1, until, why, "abrade it with P320, dust off, go on"))


def _looked_up(zone: Zone, at: str, catalogue: Catalogue, memo: Memo) -> tuple[list[Laid | None], list[Problem]]:
    found: list[Laid | None] = []
    problems = []
    for j, layer in enumerate(zone.layers):
        where = f"{at}/layers/{j}"
        try:
            one = lay(layer, catalogue, memo)
            refuse_crumbs(one.recipe, one.flow)
            found.append(one)
        except InvalidValue as error:
            problems.append(Problem(f"{where}/{error.field}".rstrip("/"), error.says, error.allowed))
            found.append(None)
        except UnknownEntry as error:
            part = PLACES.get(error.noun, "recipe")
            says = f"There is no {error.noun} called {error.slug!r}."
            problems.append(Problem(f"{where}/{part}", says, ", ".join(error.known)))
            found.append(None)
    return found, problems


def _pot_problems(zone: Zone, at: str, has_piece: bool) -> list[Problem]:
    """Pots that cover more than there is, and amounts by area where there is none."""
    problems = []
    for j, layer in enumerate(zone.layers):
        over = sum(pot.share for pot in layer.pots) - 1
        if over > 1e-6:
            says = f"The pots of layer {j + 1} cover {1 + over:.0%} of the surface."
            problems.append(Problem(f"{at}/layers/{j}/pots", says, "shares that come to at most 100 %"))
        if not has_piece and isinstance(layer.want, FromArea):
            says = "An amount by area needs a piece to take it from."
            problems.append(Problem(f"{at}/layers/{j}/want", says, "a total, a part or a vessel"))
    return problems


def _beneath(laid: Sequence[Laid | None], zone: Zone, catalogue: Catalogue) -> tuple[Beneath | None, ...]:
    """What each layer lies on, those that cannot be composed left out of it."""
    ground = catalogue.grounds.get(zone.ground)
    if ground is None:
        return tuple(None for _ in laid)
    found: list[Beneath | None] = []
    for index in range(len(laid)):
        known = [one for one in laid[:index] if one is not None]
        found.append(beneath_each(ground, known)[-1])
    return tuple(found)


def work_zone(zone: Zone, at: str, area: Figure | None, surfaces: tuple[FaceGroup, ...] | None, bench: WorkedWith,
              memo: Memo) -> ZoneWork:  # fmt: skip
    """A zone worked apart. `at` is its JSON pointer; `surfaces` those it coats, None for a pot with no piece."""
    laid, problems = _looked_up(zone, at, bench.catalogue, memo)
    problems += _pot_problems(zone, at, surfaces is not None)
    ground = bench.catalogue.grounds.get(zone.ground)
    if ground is None:
        known = ", ".join(sorted(bench.catalogue.grounds))
        problems.append(Problem(f"{at}/ground", f"There is no ground called {zone.ground!r}.", known))
    for k, slug in enumerate(zone.prep):
        if slug not in bench.catalogue.preparations:
            known = ", ".join(sorted(bench.catalogue.preparations))
            problems.append(Problem(f"{at}/prep/{k}", f"There is no preparation called {slug!r}.", known))
    under = _beneath(laid, zone, bench.catalogue)
    done = tuple(one for one in laid if one is not None)
    whole = len(done) == len(laid) and ground is not None and surfaces is not None
    if ground is None:
        return ZoneWork(zone, area, None, False, tuple(laid), under, problems=tuple(problems))
    numbers = [j for j, one in enumerate(laid, 1) if one is not None]
    stack = Stack(zone, ground, use_of(zone, bench.use), surfaces or (), bench.room, done, bench.catalogue)
    made = ZoneWork(zone, area, stack, whole, tuple(laid), under, problems=tuple(problems))
    if area is None:
        nothing = Figure(0.0, "m²", ())
        given = tuple(
            coat
            for index, number in enumerate(numbers)
            if not isinstance(done[index].layer.want, FromArea)
            for coat in coats_of(bench, stack, index, number, 1, nothing, 0.0)
        )
        return replace(made, given=given)
    order = Order(zone, bench, area)
    _prepare(order, stack)
    _keep_bare(order)
    for index, number in enumerate(numbers):
        _layer(order, stack, index, number)
    return replace(made, links=tuple(order.links), ties=tuple(order.ties))


def zone_work(zone: Zone, at: str, area: Figure | None, surfaces: tuple[FaceGroup, ...] | None, bench: WorkedWith,
              memo: Memo) -> ZoneWork:  # fmt: skip
    """`work_zone`, remembered: an edit to another zone does not work this one again."""
    args = (zone, at, area, surfaces, bench)
    return memo.recall(("zone", bench.scope, zone.id), args, lambda: work_zone(*args, memo))
