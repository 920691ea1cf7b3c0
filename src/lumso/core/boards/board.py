"""A test board as a job: a zone for each strip, with the layers of the zone it is for, one thing stepped.

It is prepared, laid, dried and sealed by the same rules as the piece, and planned, printed and put into the days as any
job is.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from itertools import product

from ..book.catalogue import Catalogue, pick
from ..book.colours import Tint
from ..book.kit import Kit
from ..book.preparation import Purpose, Sanding
from ..book.recipes import VolumeShare
from ..errors import InvalidValue
from ..figure import tidy
from ..job.board import MOST_STRIPS, Board, BoardStrip, Ladder, Rung
from ..job.job import FromArea, FromTotal, Job, Layer, Zone, new_job
from ..job.start import start_on
from ..layers.laid import Laid, lay
from ..measure.lengths import Length
from ..mixing.measuring import measure_out
from ..mixing.needs import Need
from ..piece.piece import FreePart, Piece

WIDTH_MM, SHORTEST_MM, LONGEST_MM = 80.0, 120.0, 250.0
"""A strip is a brush and a half wide, long enough to see, and short enough for a sheet of paper."""
LEAST_ML = 20.0
"""Less than this nobody mixes and brushes."""
LAID = 0.5
"""The share of so small a pot that comes to lie on its strip; the rest stays in brush and pot. An untested starting
point."""
CODES = "ABCDEFGH"
SANDED: tuple[tuple[float, Purpose], ...] = ((100, "reveal"), (160, "bite"), (10_000, "soften"))
"""What paper up to which grit is for."""


def says(ladder: Ladder, rung: Rung, layer: Layer, catalogue: Catalogue) -> str:
    """A step of a ladder in words: "water 45 %"."""
    match ladder.what:
        case "share":
            parts = {c.id: c.name for c in pick("recipe", catalogue.recipes, layer.recipe).components}
            return f"{parts.get(ladder.component, ladder.component).lower()} {100 * rung.value:.0f} %"
        case "tint":
            tints = layer.tints.get(ladder.component, ())
            return f"{tints[-1].name if tints else 'tint'} {tidy(100 * rung.value)} %"
        case "coats":
            return f"{rung.value:.0f} {'coat' if rung.value == 1 else 'coats'}"
        case "kept":
            return f"wiped to {100 * rung.value:.0f} %"
        case "thickness":
            return f"{tidy(rung.value)} mm"
        case "sanding":
            return f"sanded P{rung.value:.0f}" if rung.value else "not sanded"
        case "sealer":
            known = catalogue.recipes
            return known[rung.slug].name.removesuffix(", as bought").lower() if rung.slug in known else "not sealed"


def stepped(layers: Sequence[Layer], ladder: Ladder, rung: Rung, catalogue: Catalogue,
            ids: Iterator[str]) -> tuple[Layer, ...]:  # fmt: skip
    """The layers with one step taken. Raises UnknownEntry and InvalidValue for what cannot be stepped."""
    at = next((i for i, x in enumerate(layers) if x.id == ladder.layer), None)
    if at is None:
        known = ", ".join(x.id for x in layers)
        raise InvalidValue(f"There is no layer {ladder.layer!r}.", value=ladder.layer, allowed=known, field="layer")
    one = layers[at]
    if ladder.what == "sealer" and not rung.slug:
        return (*layers[:at], *layers[at + 1 :])
    return (*layers[:at], _on_rung(one, ladder, rung, catalogue), *layers[at + 1 :])


def _on_rung(one: Layer, ladder: Ladder, rung: Rung, catalogue: Catalogue) -> Layer:
    """A layer with one step taken. Raises UnknownEntry and InvalidValue for what cannot be stepped."""
    match ladder.what:
        case "share":
            return _thinned(one, ladder.component, rung.value, catalogue)
        case "tint":
            return replace(one, tints={**one.tints, ladder.component: _tinted(one, ladder.component, rung.value)})
        case "coats":
            return replace(one, coats=max(1, min(12, round(rung.value))))
        case "kept":
            return replace(one, kept=max(0.02, min(1.0, rung.value)))
        case "thickness":
            return replace(one, thickness_mm=max(0.05, min(10.0, rung.value)))
        case "sanding":
            rubs = tuple(s for s in one.sandings if s.rubs)
            purpose = next(p for most, p in SANDED if rung.value <= most)
            sanded = (Sanding(round(rung.value), purpose),) if rung.value >= 24 else ()
            return replace(one, sandings=(*sanded, *rubs))
        case "sealer":
            return replace(start_on(one.id, rung.slug, "unsealed paint", catalogue), coats=one.coats)


def _thinned(one: Layer, component: str, share: float, catalogue: Catalogue) -> Layer:
    """A layer with a component at another share of its mix. Raises UnknownEntry, InvalidValue."""
    recipe = pick("recipe", catalogue.recipes, one.recipe)
    pick("component", {c.id: c for c in recipe.components}, component)
    if not 0 < share < 1:
        raise InvalidValue(f"{share:g} is no share.", value=share, allowed="between 0 and 100 %", field="rungs")
    return replace(one, amounts={**one.amounts, component: VolumeShare("volume-share", share)})


def _tinted(one: Layer, component: str, share: float) -> tuple[Tint, ...]:
    """The paints a component is mixed of, the last at another share of them all. Raises InvalidValue."""
    tints = one.tints.get(component, ())
    if len(tints) < 2 or not 0 < share < 1:
        raise InvalidValue("There is no tint to vary.", value=share, field="rungs",
                           allowed="a part mixed of several paints, and a share between 0 and 100 %")  # fmt: skip
    rest = sum(t.parts for t in tints[:-1])
    return (*tints[:-1], replace(tints[-1], parts=max(1e-3, min(1000.0, rest * share / (1 - share)))))


def honest_ml(one: Laid, kit: Kit, least: float = LEAST_ML) -> float:
    """The smallest batch of a mix, in ml of finished mix, that this kit measures: `least` or more."""
    makes = sum(p.adds_ml for p in one.pours)
    poured = least / makes
    needs = tuple(
        Need(p.component.id, p.poured_ml * poured, p.mass_g * poured, p.material.is_solid, p.component.name)
        for p in one.pours
    )
    answer = measure_out(needs, kit)
    if answer.options or answer.weighed or answer.smallest_batch is None:
        return least
    return least * answer.smallest_batch


def _length(board: Sequence[tuple[Laid, float]]) -> tuple[float, str]:
    """How long strips are: as long as their smallest honest batch covers, within reason; and why."""
    covers = []
    for one, ml in board:
        lays = one.wet_um * one.layer.touched * one.layer.coats
        covers.append(LAID * ml / max(lays, 1.0) * 1e6 / WIDTH_MM)
    wanted = min(covers, default=LONGEST_MM)
    long = max(SHORTEST_MM, min(LONGEST_MM, round(wanted / 10) * 10))
    biggest = max((ml for _, ml in board), default=0.0)
    if biggest > LEAST_ML * 1.05:
        return long, f"The smallest batch your kit measures is {tidy(biggest)} ml: strips are as long as that is worth."
    return long, "As large as is easily judged and printed on a sheet of paper."


def plan_board(job: Job, job_id: str, zone_id: str, ladders: Sequence[Ladder], kit: Kit, catalogue: Catalogue,
               ids: Iterator[str]) -> Job:  # fmt: skip
    """A board for a zone of a job, as a job of its own. `catalogue` holds the job's and the workshop's entries.

    Raises InvalidValue and UnknownEntry for what cannot be stepped, and for more strips than a board holds.
    """
    zone = next((z for z in job.zones if z.id == zone_id), None)
    if zone is None or not zone.layers:
        known = ", ".join(z.id for z in job.zones if z.layers)
        raise InvalidValue("There is nothing to try on that zone.", value=zone_id, allowed=known, field="zone")
    steps = list(product(*(ladder.rungs for ladder in ladders)))
    if len(steps) > MOST_STRIPS:
        raise InvalidValue(f"{len(steps)} strips are too many.", value=len(steps), allowed=f"at most {MOST_STRIPS}",
                           field="ladders")  # fmt: skip
    base = {x.id: x for x in zone.layers}
    made: list[tuple[str, str, tuple[Layer, ...], tuple[Rung, ...]]] = []
    tried: list[tuple[Laid, float]] = []
    for n, rungs in enumerate(steps):
        layers: tuple[Layer, ...] = zone.layers
        for ladder, rung in zip(ladders, rungs, strict=True):
            layers = stepped(layers, ladder, rung, catalogue, ids)
        code = _code(n, ladders)
        words = ", ".join(says(x, r, base[x.layer], catalogue) for x, r in zip(ladders, rungs, strict=True))
        made.append((code, words, layers, rungs))
    varied = {ladder.layer for ladder in ladders if ladder.what in {"share", "tint", "thickness"}}
    batches: dict[tuple[int, str], float] = {}
    for n, (_, _, layers, _) in enumerate(made):
        for layer in layers:
            if layer.id in varied:
                one = lay(layer, catalogue)
                batches[n, layer.id] = ml = honest_ml(one, kit, max(LEAST_ML, one.tool.holds_ml * 2))
                tried.append((one, ml))
    long, why = _length(tried)
    zones, parts, strips = [], [], []
    for n, (code, words, layers, rungs) in enumerate(made):
        part, mine = next(ids), next(ids)
        sizes = {"length": Length(long, f"{long:g} mm"), "width": Length(WIDTH_MM, f"{WIDTH_MM:g} mm")}
        parts.append(FreePart(part, f"Strip {code}", "rectangle", sizes, 1, vertical=False))
        sized = {layer: ml for (k, layer), ml in batches.items() if k == n}
        strip, moved = _strip(zone, mine, f"{code}: {words}", f"part-{part}", layers, sized, ids)
        zones.append(strip)
        strips.append(BoardStrip(mine, code, rungs, moved.get(ladders[0].layer, "")))
    about = Board(job_id, job.name, zone.id, zone.name, tuple(ladders), tuple(strips), WIDTH_MM, long, why)
    name = f"Test board: {job.name}, {zone.name.lower()}"[:120]
    return new_job(name, tuple(zones), Piece("parts", {}, parts=tuple(parts)), job.use, job.entries, about)


def _code(n: int, ladders: Sequence[Ladder]) -> str:
    """What a strip is called aloud: A, B, C; on a grid A1, A2, B1."""
    if len(ladders) == 1:
        return CODES[n]
    across = len(ladders[1].rungs)
    return f"{CODES[n // across]}{n % across + 1}"


def _strip(zone: Zone, mine: str, name: str, surface: str, layers: Sequence[Layer], sized: Mapping[str, float],
           ids: Iterator[str]) -> tuple[Zone, Mapping[str, str]]:  # fmt: skip
    """A strip as a zone, and the ids its layers have in it. `sized` are the batches of layers that have one, in ml."""
    laid, moved = [], {}
    for layer in layers:
        moved[layer.id] = again = next(ids)
        ml = sized.get(layer.id)
        want = FromTotal("total", round(ml, 2)) if ml else FromArea("area")
        pots = tuple(replace(p, id=next(ids)) for p in layer.pots)
        whole = layer if layer.layout is None else replace(layer, layout=None, touched=1.0)  # a strip shows one colour
        laid.append(replace(whole, id=again, pots=pots, want=want))
    accepted = tuple(replace(a, layer=moved.get(a.layer, "")) for a in zone.accepted)
    made = replace(zone, id=mine, name=name[:120], surfaces=(surface,), layers=tuple(laid), accepted=accepted,
                   variants=())  # fmt: skip
    return made, moved
