"""Measuring a mix out with the kit one owns: the trade-offs between waste and work, or why it cannot be done."""

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from math import ceil, inf

from ..book.kit import Kit
from ..figure import millilitres
from .fillings import Filled, KitAnswer, KitOption, Outcome, Weighed
from .kit_search import EXACT, EXTRA_FILLINGS, FillingValue, Search, choices_in, fill, fillings_of, grid, reachable
from .needs import Need

LITTLE = 0.1
ASKED = (
    ("least waste", False, False, 1.0),
    ("few fillings, at most 10 % more", True, False, LITTLE),
    ("fewest fillings", True, False, 1.0),
    ("exact ratio, least waste", False, True, 1.0),
    ("exact ratio, fewest fillings", True, True, 1.0),
)
"""What is offered: its name, whether fillings go before waste, whether the ratio must be exact, and the surplus."""


def _option(label: str, needs: Sequence[Need], amounts: Sequence[int],
            ways: Sequence[tuple[list[int], list[FillingValue]]]) -> KitOption:  # fmt: skip
    fillings = [fill(a, layers, values) for a, (layers, values) in zip(amounts, ways, strict=True)]
    ml = [sum(f.ml * f.count for f in parts) for parts in fillings]
    whole, need = sum(ml), sum(n.ml for n in needs)
    errors = [m / whole * need / n.ml - 1 for m, n in zip(ml, needs, strict=True)]
    parts = tuple(Filled(n.component, n.ml, m, e, f) for n, m, e, f in zip(needs, ml, errors, fillings, strict=True))
    count = sum(f.count for filling in fillings for f in filling)
    return KitOption(label, whole, whole / need - 1, max(map(abs, errors)), count, parts)


MOST_FILLINGS = 500
"""More fillings of one component than this nobody counts."""
MOST_UNITS = 1_000_000
"""The longest grid that is searched: 10 l in hundredths of a millilitre."""


def too_much(needs: Sequence[Need], kit: Kit, high: float) -> Need | None:
    """The first need that is beyond counting, or beyond telling apart, with this kit; sized before it is searched."""
    unit, *grids = grid(kit, max(n.ml for n in needs) * high)
    for need in needs:
        largest = max((v.ml for v in grids[need.dry]), default=inf)
        if need.ml > MOST_FILLINGS * largest or need.ml * high > MOST_UNITS * unit:
            return need
    return None


def offers(
    needs: Sequence[Need], kit: Kit, surplus: float, extra: float = EXTRA_FILLINGS
) -> tuple[list[KitOption], bool]:
    """The best option for each thing that can be asked for, without repeats; and whether all was looked at.

    `surplus` is the share more than needed that may be mixed, `extra` how many fillings more than the fewest possible a
    component may take.
    """
    high = (1 + surplus) * (1 + kit.tolerance)
    if too_much(needs, kit, high):
        return [], True
    unit, wet, dry = grid(kit, max(n.ml for n in needs) * high)
    units = [n.ml / unit for n in needs]
    windows = [(ceil(u - 1e-6), max(int(u * high + 1e-9), ceil(u - 1e-6))) for u in units]
    layers = {}
    for is_dry, values in ((False, wet), (True, dry)):
        own = [w for w, n in zip(windows, needs, strict=True) if n.dry == is_dry]
        layers[is_dry] = (reachable(values, own, extra) if own and values else [1], values)
    ways = [layers[n.dry] for n in needs]
    choices = [choices_in(way[0], *window, extra) for way, window in zip(ways, windows, strict=True)]
    if any(len(c.units) == 0 for c in choices):
        return [], True
    options: list[KitOption] = []
    taken: set[tuple[int, ...]] = set()
    proved = True
    known: dict[bool, tuple[int, ...] | None] = {}
    for label, fewest_first, exact, at_most in ASKED:
        most = sum(units) * (1 + min(surplus, at_most) if at_most < 1 else 1 + surplus)
        search = Search(units, choices, EXACT if exact else kit.tolerance, most)
        found = search.run(fewest_first, known.get(exact) if fewest_first else None)
        known[exact] = found or known.get(exact)
        proved &= search.proved
        if found and found not in taken:
            taken.add(found)
            options.append(_option(label, needs, found, ways))
    return options, proved


def worthwhile(options: Sequence[KitOption]) -> tuple[KitOption, ...]:
    """The options nobody would do without.

    Those that another one beats or equals in waste (to the whole per cent), fillings and share error (to a tenth
    of one) fall away; of equals the first stays.
    """

    def cost(o: KitOption) -> tuple[float, int, float]:
        return round(o.surplus, 2), o.count, round(o.error, 3)

    def beaten(i: int) -> bool:
        mine = cost(options[i])
        others = [(cost(o), k) for k, o in enumerate(options) if k != i]
        return any(
            all(a <= b for a, b in zip(theirs, mine, strict=True)) and (theirs != mine or k < i) for theirs, k in others
        )

    return tuple(o for i, o in enumerate(options) if not beaten(i))


TRIED = 1000
"""How many steps of the scale above the least need are tried before a batch is called too small to weigh at all."""


def _on_scale(needs: Sequence[Need], times: float, resolution_g: float) -> tuple[Weighed, ...]:
    """So many times the needs, each rounded up to what the scale shows."""
    shown = [ceil(n.g * times / resolution_g - 1e-9) * resolution_g for n in needs]
    need, whole = sum(n.g for n in needs), sum(shown)
    return tuple(Weighed(n.component, n.g, s, s / whole * need / n.g - 1) for n, s in zip(needs, shown, strict=True))


def weigh(needs: Sequence[Need], kit: Kit) -> tuple[tuple[Weighed, ...], str, float | None]:
    """The smallest amounts on the scale that cover each need, with every share within the kit's tolerance and the whole
    within its surplus; or none, why, and how many times the need the smallest batch is that can be weighed."""
    if not kit.scale_g or not needs:
        return (), "", None
    need, least = sum(n.g for n in needs), min(needs, key=lambda n: n.g)
    short = f"{least.called} needs {least.g:.2g} g; this scale shows {kit.scale_g:g} g"
    first = max(ceil(least.g / kit.scale_g - 1e-9), 1)
    for times in (1.0, *(max(n * kit.scale_g / least.g, 1.0) for n in range(first, first + TRIED))):
        made = _on_scale(needs, times, kit.scale_g)
        if max(abs(w.error) for w in made) > kit.tolerance + 1e-9:
            continue
        more = sum(w.g for w in made) / need
        if more <= 1 + kit.surplus + 1e-9:
            return made, "", None
        return (), f"{short}. The batch is too small to weigh.", more
    return (), f"{short}: use a finer one.", None


def _default_first(options: tuple[KitOption, ...]) -> tuple[KitOption, ...]:
    """What a painter would do first: the fewest fillings with at most a tenth more than is needed."""
    near = [o for o in options if o.surplus <= LITTLE + 1e-9]
    best = min(near, key=lambda o: (o.count, round(o.surplus, 3)), default=None)
    return options if best is None else (best, *(o for o in options if o is not best))


DOUBLED = 8
"""How often the batch is doubled until something can be measured."""
EXACTLY = 3
"""For so many doublings every amount is looked at, however many fillings it takes."""


def _larger(needs: Sequence[Need], kit: Kit) -> KitOption | None:
    """The smallest batch above the surplus that can be measured in the same shares; None where none is in reach."""
    least = {dry: fillings[0][1] for dry in (False, True) if (fillings := fillings_of(kit, dry))}
    if any(n.dry not in least for n in needs):
        return None
    # Nothing smaller can be: each part takes a filling at least, within the tolerance of its share.
    scale = max(1.0, *(least[n.dry] / n.ml / (1 + kit.tolerance) ** 2 for n in needs))
    for doubled in range(DOUBLED):
        times = scale * 2**doubled
        larger = [Need(n.component, n.ml * times, n.g * times, n.dry, n.name) for n in needs]
        found, _ = offers(larger, kit, max(1.0, kit.surplus), inf if doubled < EXACTLY else EXTRA_FILLINGS)
        if found:
            best = min(found, key=lambda o: (o.total_ml, o.count))
            parts = tuple(replace(p, need_ml=n.ml) for p, n in zip(best.parts, needs, strict=True))
            return replace(best, surplus=best.total_ml / sum(n.ml for n in needs) - 1, parts=parts)
    return None


def _cannot(needs: Sequence[Need], kit: Kit, proved: bool) -> tuple[Outcome, str]:
    """Which of the answers that is, and why."""
    for need in needs:
        if not fillings_of(kit, need.dry):
            kind = "is measured level, and this kit has no spoon, scoop or cup" if need.dry else "cannot be poured"
            return "none", f"{need.called} {kind}: weigh it, or use another kit."
    high = (1 + kit.surplus) * (1 + kit.tolerance)
    if much := too_much(needs, kit, high):
        says = f"{much.called} needs {millilitres(much.ml)}: too much for measures this small."
        return "stopped", f"{says} Add a larger jug to the kit."
    least = {dry: fillings[0][1] for dry in (False, True) if (fillings := fillings_of(kit, dry))}
    short = min(needs, key=lambda n: n.ml / least[n.dry])
    if least[short.dry] > short.ml * high * (1 + EXACT):
        return "too small", (
            f"{short.called} needs {millilitres(short.ml)}, less than the smallest filling of this kit, "
            f"{millilitres(least[short.dry])}. The batch is too small to measure."
        )
    whole = sum(n.ml for n in needs)
    if not proved:
        return (
            "stopped",
            f"There are too many ways to measure {millilitres(whole)} to try them all: none was found so far.",
        )
    more = f"or up to {kit.surplus:.0%} more " if kit.surplus else ""
    return "none", (
        f"No fillings of this kit make {millilitres(whole)} {more}with every share within {kit.tolerance:.0%}: "
        "all were tried."
    )


@lru_cache(maxsize=512)
def measure_out(needs: tuple[Need, ...], kit: Kit) -> KitAnswer:
    """How to measure a mix with a kit.

    Every option covers every need, exceeds the whole by no more than `kit.surplus`, and keeps every share within
    `kit.tolerance`. Where none can, the answer says so and how much larger the smallest batch is that can be
    measured: nothing is ever rounded to nothing. Needs of zero are left out.
    """
    needs = tuple(n for n in needs if n.ml > 0 and n.g > 0)
    weighed, light, lightest = weigh(needs, kit)
    if not needs or not kit.measures:
        nothing = "" if weighed or not needs else "This kit holds nothing to measure with."
        return KitAnswer(
            (), weighed, nothing, weigh_says=light, smallest_weighed=lightest, outcome="none" if nothing else "found"
        )
    options, proved = offers(needs, kit, kit.surplus)
    if not options:  # before it is said that there are none, those that take many more fillings are tried too
        options, proved = offers(needs, kit, kit.surplus, inf)
    if options:
        best = _default_first(worthwhile(options))
        outcome: Outcome = "found" if proved else "stopped"
        return KitAnswer(best, weighed, "", None, proved, light, lightest, outcome)
    outcome, says = _cannot(needs, kit, proved)
    larger = _larger(needs, kit)
    times = larger.total_ml / sum(n.ml for n in needs) if larger else None
    return KitAnswer((), weighed, says, times, proved, light, lightest, outcome, larger)
