"""What is left: the planner asked the other way round."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.edits.beginning import Beginning, begun
from lumso.core.errors import UnknownEntry
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Room
from lumso.core.measure.lengths import parse_length
from lumso.core.mixing.compose import compose
from lumso.core.plan.left import LeftOver, left_over
from lumso.core.plan.plan import plan
from lumso.core.workshop.workshop import Workshop

C = shipped()


def left(recipe: str, ml: float, *jobs: Job) -> LeftOver:
    told = [(f"job {n}", job, plan(job, Workshop(), C, Room())) for n, job in enumerate(jobs)]
    return left_over(recipe, ml, told, Workshop(), C, Room())


def board(length_mm: float, recipe: str, ground: str) -> Job:
    sizes = (parse_length(f"{length_mm} mm"), parse_length("1 m"), parse_length("20 mm"))
    job = begun(Beginning("s", "board", sizes, ground, recipe=recipe), C, Room()).job
    top = replace(job.zones[0], surfaces=("top",))
    layer = replace(top.layers[0], margin=0.0)
    return replace(job, zones=(replace(top, layers=(layer,)),))


@pytest.mark.parametrize("recipe", ["paint-wash-raw-wood", "milk-paint", "salt-wash", "glaze-retarded", "paint-plain"])
def test_a_board_of_the_size_it_goes_is_planned_with_just_that_much(recipe: str) -> None:
    said = left(recipe, 120)
    way = said.goes[0]
    ground = next(g.slug for g in C.grounds.values() if g.name == way.ground)
    job = board(way.area_m2 * 1000, recipe, ground)
    needs = sum(p.ml for p in plan(job, Workshop(), C, Room()).zones[0].layers[0].pots)
    assert needs == pytest.approx(120, rel=0.02)
    assert way.least_m2 < way.area_m2 < way.most_m2


def test_by_hand_a_wash_on_raw_pine() -> None:
    """60 ml/m² and 12 ml that cling: 120 ml goes (120 − c) ÷ 60 m²; twice as much goes further by 120 ÷ 60 m²."""
    one, two = left("paint-wash-raw-wood", 120).goes[0], left("paint-wash-raw-wood", 240).goes[0]
    assert one.ground == "raw pine"
    assert two.area_m2 - one.area_m2 == pytest.approx(120 / (60 * 1.0), rel=0.12)


def test_less_than_clings_to_the_pot_goes_nowhere() -> None:
    assert left("paint-wash-raw-wood", 0.5).goes[0].area_m2 == 0


def test_layers_of_open_jobs_that_are_laid_with_it_are_named_those_it_covers_first() -> None:
    small, large = board(400, "milk-paint", "raw-pine"), board(4000, "milk-paint", "raw-pine")
    other = board(400, "paint-plain", "raw-pine")
    said = left("milk-paint", 120, large, other, small)
    assert [s.job for s in said.serves] == ["job 2", "job 0"]
    assert said.serves[0].share == 1
    assert said.serves[1].share == pytest.approx(120 / said.serves[1].needs_ml)
    assert said.serves[1].share < 0.5


def test_thinned_it_has_the_share_that_is_said_and_loses_no_paint() -> None:
    for recipe in ("paint-wash-raw-wood", "milk-paint", "stacked-wash", "thinned-paint"):
        pours = compose(C.recipes[recipe], C.materials)
        dial = next(p for p in pours if p.component.id == C.recipes[recipe].dial)
        poured = 120 / sum(p.adds_ml for p in pours)
        for one in left(recipe, 120).thinner:
            assert (poured * dial.poured_ml + one.add_ml) / (poured + one.add_ml) == pytest.approx(one.share)
            assert one.ml == pytest.approx(120 + one.add_ml)
            assert one.add_ml > 0


def test_a_texture_is_not_thinned_with_its_powder_nor_beyond_a_limit() -> None:
    assert left("salt-wash", 120).thinner == ()
    most = min(x.most for x in C.recipes["milk-paint"].limits if x.component == "water")
    assert max(t.share for t in left("milk-paint", 120).thinner) <= most + 1e-9


def test_an_unknown_mix_is_refused() -> None:
    with pytest.raises(UnknownEntry):
        left("soup", 100)
