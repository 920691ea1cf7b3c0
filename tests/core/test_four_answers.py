"""Measuring has four answers, each held against trying everything: found, none, below the smallest, stopped."""

from dataclasses import replace
from itertools import product
from random import Random

import pytest

from lumso.catalogue import shipped
from lumso.core.book.kit import Kit, KitMeasure
from lumso.core.job.job import FromTotal, Zone, new_job
from lumso.core.job.start import start_layer
from lumso.core.layers.conditions import Room
from lumso.core.mixing import kit_search, measuring
from lumso.core.mixing.larger import with_what_speaks_against
from lumso.core.mixing.measuring import measure_out
from lumso.core.mixing.needs import Need, needs_of
from lumso.core.plan.plan import plan
from lumso.core.workshop.shelf import ShelfItem
from lumso.core.workshop.workshop import Workshop

C = shipped()

SIZES = (1.25, 2.5, 5.0, 7.5, 10.0, 12.5, 15.0, 20.0, 30.0)


def amounts(need: float, sizes: list[float], most: float) -> list[float]:
    """All that whole fillings of these come to, from the need up to `most`."""
    found = {0.0}
    frontier = {0.0}
    while frontier:
        frontier = {round(a + s, 6) for a in frontier for s in sizes if a + s <= most + 1e-9} - found
        found |= frontier
    return sorted(a for a in found if a >= need - 1e-6 * need)


def least_total(needs: list[Need], kit: Kit, surplus: float) -> float | None:
    """The least that covers every need in ratio within the surplus, by trying every combination there is."""
    whole = sum(n.ml for n in needs)
    ways = []
    for need in needs:
        sizes = [m.ml for m in kit.measures if not need.dry or m.kind in ("spoon", "scoop", "cup")]
        ways.append(amounts(need.ml, sizes, need.ml * (1 + surplus) * (1 + kit.tolerance)) if sizes else [])
    best: float | None = None
    for picks in product(*ways):
        made = sum(picks)
        if made > whole * (1 + surplus) + 1e-6 or (best is not None and made >= best):
            continue
        if all(abs(p / made * whole / n.ml - 1) <= kit.tolerance + 1e-9 for p, n in zip(picks, needs, strict=True)):
            best = made
    return best


def drawn(random: Random) -> tuple[list[Need], Kit]:
    """A kit of one to four measures and a mix of one to three parts, some of them dry."""
    kinds = ("spoon", "cup", "scoop", "syringe")
    measures = tuple(
        KitMeasure(f"{ml} ml", ml, 0.0, random.choice(kinds))  # type: ignore[arg-type]
        for ml in random.sample(SIZES, random.randint(1, 4))
    )
    kit = Kit("k", "kit", measures, 0.0, random.choice((0.0, 0.1, 0.3)), random.choice((0.0, 0.02, 0.05)))
    needs = []
    for i in range(random.randint(1, 3)):
        ml = random.choice((random.uniform(0.4, 50), float(random.randint(1, 10)) * 5))
        needs.append(Need(f"part {i}", ml, ml, random.random() < 0.25))
    return needs, kit


@pytest.mark.parametrize("seed", range(500))
def test_found_and_proved_are_what_trying_everything_says(seed: int) -> None:
    needs, kit = drawn(Random(seed))
    answer = measure_out(tuple(needs), kit)
    least = least_total(needs, kit, kit.surplus)
    assert answer.proved, "so small a kit is always looked through"
    assert (answer.outcome == "found") == (least is not None)
    if least is not None:
        assert answer.options
        assert answer.larger is None
        assert min(o.total_ml for o in answer.options) >= least - 1e-6
        return
    assert answer.options == ()
    assert answer.says
    sizes = {d: [m.ml for m in kit.measures if not d or m.kind != "syringe"] for d in (False, True)}
    if all(sizes[n.dry] for n in needs):
        high = (1 + kit.surplus) * (1 + kit.tolerance)
        below = any(min(sizes[n.dry]) > n.ml * high * (1 + 1e-6) for n in needs)
        assert answer.outcome == ("too small" if below else "none")
        assert ("too small" in answer.says) == below
    if answer.larger:
        check_larger(needs, kit, answer.larger.total_ml)


def check_larger(needs: list[Need], kit: Kit, total: float) -> None:
    """Nothing smaller does, as far as that can be tried in a moment."""
    whole = sum(n.ml for n in needs)
    over = total / whole - 1
    assert over > kit.surplus
    if over * len(needs) < 3:
        smaller = least_total(needs, kit, over - 1e-6)
        assert smaller is None or smaller == pytest.approx(total)


def test_one_s_own_two_spoons_and_a_wash_is_not_too_small_but_28_per_cent_over() -> None:
    """46.1 ml as 1 + 3 of 5 and 15 ml: within 15 % none keeps the shares; 15 + 45 = 60 ml does, exactly."""
    spoons = Kit("own", "mine", (KitMeasure("5 ml", 5), KitMeasure("15 ml", 15)), 0.0, 0.15, 0.03)
    answer = measure_out((Need("paint", 11.533, 15), Need("water", 34.6, 34.6)), spoons)
    assert answer.outcome == "none"
    assert "all were tried" in answer.says
    assert "too small" not in answer.says
    assert answer.larger
    assert answer.larger.total_ml == pytest.approx(60)
    assert answer.larger.surplus == pytest.approx(0.30, abs=0.005)
    assert [[(f.name, f.count) for f in p.fillings] for p in answer.larger.parts] == [[("15 ml", 1)], [("15 ml", 3)]]


def test_many_fillings_are_found_before_it_is_said_that_there_are_none() -> None:
    """31 ml and 62 ml in teaspoons of 1 ml beside cups of 30: the ratio is only kept by counting spoons one by one."""
    kit = Kit("k", "kit", (KitMeasure("drop spoon", 1.0), KitMeasure("cup", 40.0)), 0.0, 0.0, 0.0)
    answer = measure_out((Need("a", 39, 39), Need("b", 78, 78)), kit)
    assert answer.outcome == "found"
    assert answer.options[0].total_ml == pytest.approx(117)


def test_a_search_that_had_to_stop_says_so_and_never_that_there_is_none(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(kit_search, "MOST_NODES", 1)
    measuring.measure_out.cache_clear()
    kit = Kit("k", "kit", tuple(KitMeasure(f"{ml}", ml) for ml in (1.25, 3.1, 4.7, 8.9)), 0.0, 0.3, 0.005)
    answer = measure_out((Need("a", 23.3, 1), Need("b", 31.7, 1), Need("c", 11.9, 1)), kit)
    measuring.measure_out.cache_clear()
    assert not answer.proved
    assert answer.outcome == "stopped"
    assert "all were tried" not in answer.says


def test_more_than_is_needed_is_held_against_vessel_and_shelf() -> None:
    """A wash of 30 ml with one measure of 100 ml: 1 + 3 of it make 400 ml, which no jam jar holds."""
    layer = start_layer("l", "paint-wash-raw-wood", "raw-pine", C)
    zone = Zone("z", "Pot", "raw-pine", (), (replace(layer, want=FromTotal("total", 30)),))
    job = new_job("Pot", (zone,))
    mix = plan(job, Workshop(), C, Room()).zones[0].layers[0].pots[0].mix
    kit = Kit("k", "kit", (KitMeasure("cup", 100, 0, "cup"),))
    answer = measure_out(needs_of(mix), kit)
    assert answer.larger
    assert answer.larger.total_ml == pytest.approx(400)
    paint = next(p for p in mix.parts if p.role == "paint")
    roomy, jam = Workshop(vessel="paint-kettle"), Workshop(vessel="jam-jar")
    assert with_what_speaks_against(answer, mix, roomy, C).larger_says == ()
    assert "more than a jam jar holds" in with_what_speaks_against(answer, mix, jam, C).larger_says[0]
    for on_hand, said in ((99.0, True), (101.0, False), (0.0, False)):
        shelf = (ShelfItem(paint.material, on_hand),)
        says = with_what_speaks_against(answer, mix, Workshop(shelf=shelf), C).larger_says
        assert bool(says) == said
