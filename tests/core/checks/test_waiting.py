"""One truth about waiting: what Lumso proposes it never condemns; a tenth less is one finding, mended by one press."""

import random
import re
from dataclasses import replace
from itertools import count, product

import pytest

from lumso.catalogue import shipped
from lumso.core.changes.change import apply
from lumso.core.checks import check
from lumso.core.job.job import Job, Zone
from lumso.core.layers.awaited import RULES, WORDS
from lumso.core.layers.conditions import Conditions, steady
from lumso.core.layers.drying import takes_min
from lumso.core.layers.laid import Laid, lay
from lumso.core.layers.stack import Stack
from lumso.core.plan.plan import plan
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop
from tests.conftest import ROOT
from tests.counts import PROOF

from .stacks import layer, stack

C = shipped()
WAITS = {*RULES.values(), "recoat-too-late", "sanded-wet"}
USUAL_BELOW = ("paint-plain", "milk-paint", "glaze-dragged", "salt-wash", "whitewash-dry-wiped", "mineral-paint-chalk")
USUAL_ABOVE = ("clear-coat-plain", "clear-wax-plain", "oil-wax-plain", "paint-wash-raw-wood", "paint-plain")
AIRS = (Conditions(20.0, 0.5), Conditions(12.0, 0.75), Conditions(28.0, 0.35), Conditions(16.5, 0.62))


def of(ground: str, *layers: object, air: Conditions = AIRS[0]) -> Stack:
    case = stack(ground, *(layer(x, wait=None) if isinstance(x, str) else x for x in layers))  # type: ignore[arg-type]
    return replace(case.bench.stack(case.zone), room=steady(air.temperature_c, air.humidity))


def found(made: Stack) -> list[str]:
    return [f.rule for f in check(made) if f.rule in WAITS]


def recipes() -> list[tuple[str, str]]:
    """Every mix with every way it is usually put on."""
    return [(r.slug, t) for r in C.recipes.values() for t in r.techniques]


def gap(made: Stack, index: int) -> float:
    """Hours between a layer and the next, as Lumso proposes them."""
    return made.waits_h(index)


def test_the_usual_pairs_wait_as_long_as_the_next_asks_and_nothing_is_said() -> None:
    """Of 30 such pairs 23 once raised Lumso's own alarm."""
    for lower, upper, air in product(USUAL_BELOW, USUAL_ABOVE, AIRS):
        assert found(of("painted-unsealed", lower, upper, air=air)) == [], (lower, upper, air)


def _mixed(luck: random.Random, most: int = 5) -> list[object]:
    every = recipes()
    return [layer(r, t, None, coats=luck.choice((1, 1, 2))) for r, t in luck.sample(every, luck.randint(2, most))]


def _shorter(made: Stack, index: int, share: float) -> Stack | None:
    """The stack with the wait after a layer typed as a share of what Lumso proposes; None where that is nothing."""
    hours = gap(made, index)
    if hours < 0.1 or made.laid[index].layer.wait_h is not None or made.laid[index + 1].layer.wet_into_wet:
        return None
    binding = made.binding(index + 1)
    if binding is None or not binding.judged:
        return None
    typed = replace(made.laid[index].layer, wait_h=hours * share)
    layers = tuple(typed if n == index else x for n, x in enumerate(made.zone.layers))
    laid: tuple[Laid, ...] = tuple(lay(typed, C) if n == index else x for n, x in enumerate(made.laid))
    return replace(made, zone=replace(made.zone, layers=layers), laid=laid)


def _at(made: Stack, index: int) -> list[str]:
    above = made.laid[index + 1].layer.id
    return [f.rule for f in check(made) if f.rule in RULES.values() and f.above == above]


def _holds(made: Stack) -> None:
    """Nothing typed: quiet. A tenth less: one finding at that place, with a press that ends it."""
    assert found(made) == [], [x.layer.recipe for x in made.laid]
    for index in range(len(made.laid) - 1):
        typed = _shorter(made, index, 0.9)
        if typed is None:
            continue
        rules = _at(typed, index)
        assert len(rules) == 1, ([x.layer.recipe for x in made.laid], index, rules)
        (one,) = [f for f in check(typed) if f.rule in RULES.values() and f.above == made.laid[index + 1].layer.id]
        assert one.grade == "good to know", "a tenth of an estimate is no matter"
        for way in one.remedies[:1]:
            zone: Zone = apply(typed.zone, way.changes, C, (f"n{n}" for n in count()))
            again = replace(typed, zone=zone, laid=tuple(lay(x, C) for x in zone.layers))
            assert one.rule not in _at(again, index), way.says


def test_all_pairs_of_mixes_hold() -> None:
    every = recipes()
    some = every if PROOF else every[::3]
    for (lower, first), (upper, then) in product(some, every if PROOF else every[::4]):
        _holds(of("painted-unsealed", layer(lower, first, None), layer(upper, then, None), air=AIRS[0]))


@pytest.mark.parametrize("air", AIRS, ids=lambda a: f"{a.temperature_c:g} °C")
def test_mixed_stacks_hold_in_any_air(air: Conditions) -> None:
    luck = random.Random(30)
    for _ in range(500 if PROOF else 25):
        ground = luck.choice(("painted-unsealed", "raw-pine", "slick", "painted-sealed", "raw-oak"))
        _holds(of(ground, *_mixed(luck), air=air))


def test_the_longest_of_all_that_is_asked_is_what_is_waited_for() -> None:
    made = of("painted-unsealed", "paint-plain", "clear-coat-plain")
    seal = max(a.wait.reference_min or 0 for a in made.awaited(1))
    assert gap(made, 0) * 60 == pytest.approx(seal, rel=1e-6)
    assert made.binding(1) is not None
    three = of("painted-unsealed", "milk-paint", layer("glaze-dragged", wait=None, touched=0.4), "clear-coat-plain")
    asked = {a.asked for a in three.awaited(2)}
    assert {"recoat", "seal"} <= asked
    for one in three.awaited(2):
        assert 60 * three.hours_between(one.of, 2) >= three.takes(one) - 1e-6


def test_the_grade_follows_how_much_is_missing() -> None:
    made = of("painted-unsealed", "paint-plain", "paint-wash-raw-wood")
    grades = {}
    for share in (0.95, 0.7, 0.3):
        typed = _shorter(made, 0, share)
        assert typed is not None
        (one,) = [f for f in check(typed) if f.rule in RULES.values()]
        grades[share] = one.grade
    assert grades[0.95] == "good to know"
    assert grades[0.7] == "risky"
    assert grades[0.3] in {"risky", "will fail"}


def test_coats_of_one_layer_laid_a_minute_apart_are_spoken_of() -> None:
    hurried = of("painted-unsealed", "paint-plain", layer("clear-coat-plain", wait=None, coats=3, coat_wait_h=1 / 60))
    assert "recoat-too-soon" in found(hurried)
    assert found(of("painted-unsealed", "paint-plain", layer("clear-coat-plain", wait=None, coats=3))) == []


@pytest.mark.parametrize("word", WORDS)
def test_a_wait_chosen_as_a_word_comes_to_what_the_air_asks_and_never_under_its_own_length(word: float) -> None:
    for air in AIRS:
        free = of("painted-unsealed", layer("paint-plain", wait=None), "clear-coat-plain", air=air)
        said = of("painted-unsealed", layer("paint-plain", wait=word), "clear-coat-plain", air=air)
        assert gap(said, 0) == pytest.approx(max(word, gap(free, 0)))
        assert found(said) == []
    cold = AIRS[1]
    hours = of("painted-unsealed", layer("paint-plain", wait=13), "clear-coat-plain", air=cold)
    assert gap(hours, 0) == 13, "hours that were typed are hours"
    assert "seal-too-soon" in found(hours)


def test_where_a_film_closes_before_the_next_may_follow_it_is_abraded_in_the_work(rack: Job) -> None:
    """A primer that may be recoated for a week, gone over after four: keyed, without being asked."""
    late = layer("bonding-primer-plain", wait=672)
    zone = replace(rack.zones[0], ground="slick", layers=(replace(late, id="a"), replace(layer("paint-plain"), id="b")))
    made = work(replace(rack, zones=(zone,)), Workshop(), C, steady())
    assert any(o.kind == "sand" and "P320" in o.says for o in made.operations)
    assert found(of("slick", late, "paint-plain")) == []


def test_the_order_of_work_keeps_all_that_is_waited_for(rack: Job) -> None:
    """A thin coat that is quick over a base that is not: the clear coat waits for both, each from its own end."""
    layers = (layer("milk-paint", wait=None), layer("glaze-dragged", wait=None, touched=0.4),
              layer("clear-coat-plain", wait=None))  # fmt: skip
    zone = replace(rack.zones[0], layers=tuple(replace(x, id=f"l{n}") for n, x in enumerate(layers)))
    job = replace(rack, zones=(zone,))
    for air in AIRS:
        room = steady(air.temperature_c, air.humidity)
        made = work(job, Workshop(), C, room)
        (worked,) = made.jobs[0].zones
        assert worked.stack is not None
        lays = {o.layer: o for o in made.operations if o.kind == "lay"}
        for one in worked.stack.awaited(2):
            waited = lays["l2"].at_min - lays[f"l{one.of}"].ends_min
            assert waited >= worked.stack.takes(one) - 1e-6, (air, one)


def test_between_coats_a_word_comes_to_what_the_air_asks_and_fresh_wax_is_a_matter_of_school() -> None:
    cold = AIRS[1]
    made = of("painted-unsealed", layer("salt-wash", wait=None, coats=2, coat_wait_h=12.0, thickness_mm=0.6), air=cold)
    assert (takes_min(made.between_coats(0), made.room) or 0) >= (made.minutes(0, "recoat_from") or 0)
    assert found(made) == []
    waxed = of("painted-unsealed", "paint-plain", layer("clear-wax-plain", wait=None, coats=2, coat_wait_h=0.5))
    assert "recoat-too-soon" not in found(waxed)


def test_the_words_are_those_that_the_screen_offers() -> None:
    text = (ROOT / "ui/src/finish/waits.ts").read_text(encoding="utf-8")
    offered = [float(h) for h in re.findall(r'slug: "(\d+)"', text)]
    assert tuple(offered) == WORDS


def test_the_section_the_plan_and_the_order_say_the_same_wait(rack: Job) -> None:
    """Overnight in cold air is longer than twelve hours, wherever it is said."""
    layers = (layer("paint-plain", wait=12), layer("clear-coat-plain", wait=None))
    zone = replace(rack.zones[0], layers=tuple(replace(x, id=f"l{n}") for n, x in enumerate(layers)))
    job = replace(rack, zones=(zone,))
    room = steady(AIRS[1].temperature_c, AIRS[1].humidity)
    planned = plan(job, Workshop(), C, room).zones[0]
    assert planned.section is not None
    (band,) = [b for b in planned.section.bands if b.layer == "l0"]
    lays = {o.layer: o for o in work(job, Workshop(), C, room).operations if o.kind == "lay"}
    assert (
        planned.layers[0].wait_h
        == band.wait_h
        == pytest.approx((lays["l1"].at_min - lays["l0"].ends_min) / 60, abs=0.5)
    )
    assert planned.layers[0].wait_h is not None
    assert planned.layers[0].wait_h > 12
    assert "seals" in planned.layers[0].wait_why
