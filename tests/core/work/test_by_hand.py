"""Orders of work worked by hand: what is mixed when, what is laid when, what is left between."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.job.job import Job
from lumso.core.layers.conditions import Conditions, Room, Spell, steady
from lumso.core.work.operations import Operation
from lumso.core.work.work import Work, work, work_together
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from tests.core.checks.stacks import layer
from tests.core.test_batches import board

C = shipped()
JOBS = {job.name: job for job in demo_jobs()}
SQUARE = (1000.0, 1000.0)
BOOKKEEPING = {"lay out", "clear away", "clean", "cure", "refit"}


def worked(job: Job, room: Room | None = None) -> Work:
    made = work(job, Workshop(), C, room or steady())
    assert made.problems == ()
    assert made.missed == ()
    return made


def told(made: Work) -> list[tuple[str, float]]:
    """What is done and when, in minutes, bookkeeping left out."""
    return [(o.kind, round(o.at_min, 2)) for o in made.operations if o.kind not in BOOKKEEPING]


def of_kind(made: Work, *kinds: str) -> list[Operation]:
    return [o for o in made.operations if o.kind in kinds]


def mixed(made: Work) -> list[float]:
    return [round(o.amounts.mixed_ml, 1) for o in made.operations if o.amounts]


def test_three_coats_of_a_setting_paint_are_three_pots_each_mixed_when_it_is_needed(rack: Job) -> None:
    # 1 m², plaster paint at 60 ml/m² and 5 the old paint drinks. Each pot: 3 % clings, 10 ml stay in the brush, 10 %:
    # (65/0.97 + 10)·1.1 = 84.7; (60/0.97 + 10)·1.1 = 79.0. A coat is 1 ÷ 6 m²/h = 10 min; a film of 60 µm is dry
    # after 120·60/75 = 96 min.
    made = worked(board(rack, "1 m", "1 m", SQUARE, layer("mineral-paint-plaster", coats=3, wait=None)))
    assert mixed(made) == [84.7, 79.0, 79.0]
    assert told(made) == [
        ("mix", 0), ("lay", 8),
        ("mix", 18 + 96 - 8), ("lay", 114),
        ("mix", 124 + 96 - 8), ("lay", 220),
    ]  # fmt: skip
    assert [o.kind for o in made.operations].count("clean") == 3
    lives = [c for c in made.constraints if c.kind == "within life"]
    assert [(c.since, c.until, c.wait.reference_min) for c in lives] == [("start", "end", 30.0)] * 3


def test_the_same_at_12_degrees_waits_three_times_as_long(rack: Job) -> None:
    # 12 °C and 75 %: ×3.33. What sets in the pot sets by the clock all the same.
    job = board(rack, "1 m", "1 m", SQUARE, layer("mineral-paint-plaster", coats=3, wait=None))
    made = worked(job, steady(12, 0.75))
    lays = [o.at_min for o in of_kind(made, "lay")]
    assert lays == pytest.approx([8, 18 + 96 * 3.33, 28 + 2 * 96 * 3.33], rel=0.003)
    assert [o.at_min for o in of_kind(made, "mix")] == pytest.approx([lay - 8 for lay in lays])
    assert [c.wait.reference_min for c in made.constraints if c.kind == "within life"] == [30.0] * 3


def test_thickened_paint_rests_one_night_for_two_layers(rack: Job) -> None:
    # ½ mm trowelled twice, a day between: 505 + 500 ml on the surface. Once it has rested it is as stiff as frosting:
    # 10 % cling, 5 ml twice in the trowel: (1005/0.9 + 10)·1.03 = 1160.5 with 3 % of margin. Mixed 8 h 8 min ahead.
    one = layer("paste-thickened", "trowelled", thickness_mm=0.5, wait=24, margin=0.03)
    made = worked(board(rack, "1 m", "1 m", SQUARE, one, replace(one)))
    assert mixed(made) == [1160.5]
    assert told(made)[:4] == [("mix", -488), ("rest", -480), ("stir", 0), ("lay", 1)]
    assert len(of_kind(made, "rest")) == 1
    again = of_kind(made, "stir")[1]
    last = max(o.ends_min for o in of_kind(made, "part-dry") if o.number == 1)
    # The second layer begins a day after the first was closed, and its pot is opened when it does.
    second = next(o for o in of_kind(made, "lay") if o.number == 2)
    assert second.at_min == pytest.approx(last + 24 * 60)
    assert again.ends_min == pytest.approx(last + 24 * 60)


def test_a_mix_that_rests_for_hours_is_made_in_a_gap_of_other_work(rack: Job) -> None:
    # Top: paint, left 9 h, then a thickened paint that rests 8: due an hour after the start. The edges are
    # trowelled just then, and nobody mixes with a trowel in hand: it is made before.
    thick = layer("paste-thickened", "brushed-paint", wait=12)
    job = board(rack, "1 m", "1 m", SQUARE, layer("paint-plain", wait=9), thick)
    slow = replace(layer("trowelled-plaster", "trowelled", thickness_mm=0.2, wait=0), id="e1")
    edges = replace(job.zones[0], id="edges", surfaces=("edges",), layers=(slow,))
    made = work(replace(job, zones=(job.zones[0], edges)), Workshop(paces={"trowelled": 0.05}), C, steady())
    (rest,) = of_kind(made, "rest")
    stirred = of_kind(made, "stir")[0]
    pot = next(o for o in of_kind(made, "mix") if o.batch == rest.batch)
    other = [o for o in made.operations if o.zone == "edges" and o.hands_on_min]
    wanted = stirred.at_min - 480 - 8
    assert any(o.at_min < wanted + 8 and wanted < o.ends_min for o in other), "the edges are in hand just then"
    assert not any(o.at_min < pot.ends_min - 1e-6 and pot.at_min < o.ends_min - 1e-6 for o in other)
    assert stirred.at_min >= pot.ends_min + 480 - 1e-6


def test_stacked_washes_say_what_is_left_and_what_is_added() -> None:
    job = JOBS["Outdoor notice board"]
    fresh = work_together((job,), Workshop(), C, steady())
    made = work_together((job,), Workshop(), C, steady(), stepped=True)
    assert made.problems == ()
    by_batch = {o.batch: o.amounts for o in made.operations if o.amounts}
    pots = [by_batch[b.id] for b in made.batches if b.step_down]
    wanted = [o.amounts for o in fresh.operations if o.amounts and o.batch in by_batch and o.number in {2, 3, 4}]
    assert len(pots) == len(wanted) == 3
    left = 0.0
    for pot, alone in zip(pots, wanted, strict=True):
        # What is wanted is what a fresh pot would hold; it begins from what the last one was mixed over its use.
        assert pot.mixed_ml == pytest.approx(alone.mixed_ml)
        assert pot.from_last_ml == pytest.approx(left)
        assert pot.rinse_ml == (10 if left else 0)
        added = sum(p.ml for p in pot.parts)
        assert added == pytest.approx(pot.mixed_ml - pot.from_last_ml - pot.rinse_ml)
        left = pot.mixed_ml - pot.laid_ml - pot.lost_ml
    assert left > 0


def test_a_textured_wall_is_worked_patch_by_patch_within_its_window(rack: Job) -> None:
    # 2 m² stippled at 2.5 m²/h is 48 min; part-dry work goes twice as fast, 24 min, from 5 to 20 min after laying. The
    # longest patch is 0.7 of min(20, (20 − 5)/(1 − ½)) = 14 min: 4 patches of 12. The salt wash lives an hour, a patch
    # takes at most 12 + 6 + 5: two in a pot, two pots. Half a millimetre: (505/0.94 + ½·4)·1.1 = 593.2 ml in each.
    made = worked(board(rack, "2 m", "1 m", (2000, 1000), layer("salt-wash", "stippled", wait=24)))
    assert mixed(made) == [593.2, 593.2]
    assert told(made) == [
        ("mix", 0), ("lay", 8), ("part-dry", 20), ("lay", 26), ("part-dry", 38),
        ("mix", 49), ("lay", 57), ("part-dry", 69), ("lay", 75), ("part-dry", 87),
    ]  # fmt: skip
    assert [o.area_m2 for o in of_kind(made, "lay")] == [0.5] * 4
    assert [o.batch[-2:] for o in of_kind(made, "lay")] == ["b1", "b1", "b2", "b2"]


def test_oil_wax_twice_is_wiped_back_each_time_at_12_degrees(rack: Job) -> None:
    # 1 m²: 60 ml, then 35; it hardly sinks into old paint. Oils go by warmth: 2^0.6 = 1.516 at 12 °C. Wiped 20 to
    # 30 min after laying, so 30.3 to 45.5; the last spot is laid 10 min after the first and reached 5 after it: begun
    # at 30.3 + 10 − 5. A night of 12 h is 1091.6 min. 3 % cling, 5 ml twice in the cloth: (95/0.97 + 10)·1.1 = 118.7.
    made = worked(board(rack, "1 m", "1 m", SQUARE, layer("oil-wax-plain", "oil-waxed", coats=2, wait=None)),
                  steady(12, 0.75))  # fmt: skip
    slow = 2**0.6
    assert [round(o.film_ml, 1) for o in of_kind(made, "lay")] == [60, 35]
    wipes = of_kind(made, "wipe back")
    assert [w.at_min for w in wipes] == pytest.approx([2 + 20 * slow + 10 - 5, wipes[0].ends_min + 720 * slow + 35.31],
                                                      abs=0.01)  # fmt: skip
    assert of_kind(made, "lay")[1].at_min == pytest.approx(wipes[0].ends_min + 720 * slow)
    assert mixed(made) == [118.7]


def test_a_cold_night_holds_the_next_coat_back(rack: Job) -> None:
    # Laid at noon, 96 minutes' drying; an hour later the room falls to 12 °C and 75 %.
    job = board(rack, "1 m", "1 m", SQUARE, layer("mineral-paint-plaster", coats=2, wait=None))
    falling = Room((Spell(0, Conditions()), Spell(78, Conditions(12, 0.75))))
    first, second = of_kind(worked(job, falling), "lay")
    assert second.at_min == pytest.approx(first.ends_min + 60 + 36 * 3.33, abs=0.5)


def test_the_hat_stand_is_one_pot_of_each_colour_and_both_screens_say_so() -> None:
    # Like layers of post, base and arms, 0.6078 m² together, share their pots. Milk paint 75 ml/m², 20 the pine drinks,
    # 2 % clings, 10 ml a brush, 10 %: (57.74/0.98 + 10)·1.1 = 75.8; two coats more (91.17/0.98 + 20)·1.1 = 124.3.
    made = worked(JOBS["Hat stand"])
    assert [round(b.mix.volume.value) for b in made.batches] == [76, 124, 72]
    assert [b.colour for b in made.batches] == ["loft ochre", "rain-barrel blue", ""]


def test_tints_and_colour_names_reach_the_pot(rack: Job) -> None:
    made = worked(JOBS["Prop chest"])
    named = {o.says for o in of_kind(made, "mix")}
    assert any("red" in says or "ochre" in says for says in named), named
    for operation in of_kind(made, "mix"):
        assert operation.amounts
        for part in operation.amounts.parts:
            if part.tints:
                assert sum(t.ml for t in part.tints) == pytest.approx(part.ml)


def test_varnish_that_is_wet_keeps_dust_away(rack: Job) -> None:
    # Zone one is varnished while zone two waits to be sanded: the paper waits until the varnish is touch dry.
    job = board(rack, "1 m", "1 m", SQUARE, layer("clear-coat-plain", wait=None))
    painted = replace(layer("paint-plain", wait=0, sand=(220, "soften")), id="p1")
    edges = replace(job.zones[0], id="edges", surfaces=("edges",), layers=(painted, replace(painted, id="p2")))
    made = worked(replace(job, zones=(job.zones[0], edges)))
    (varnish,) = [o for o in of_kind(made, "lay") if o.zone != "edges"]
    ties = [c for c in made.constraints if c.kind == "not beside"]
    assert {c.first for c in ties} == {varnish.id}
    assert {c.then for c in ties} >= {o.id for o in of_kind(made, "sand")}
    assert all(o.at_min >= varnish.ends_min + 60 - 1e-6 for o in of_kind(made, "sand") if o.at_min > varnish.at_min)


def test_mixing_counts_for_a_paint_that_sets_from_when_it_is_wetted(rack: Job) -> None:
    # 2.4 m² take 24 min. It sets 30 min after it was wetted, and 8 of them are gone when it is mixed: two pots.
    made = worked(board(rack, "2.4 m", "1 m", (2400, 1000), layer("mineral-paint-plaster")))
    assert [o.hands_on_min for o in of_kind(made, "lay")] == pytest.approx([12, 12])
    smaller = worked(board(rack, "2.2 m", "1 m", (2200, 1000), layer("mineral-paint-plaster")))
    assert [o.hands_on_min for o in of_kind(smaller, "lay")] == pytest.approx([22])
