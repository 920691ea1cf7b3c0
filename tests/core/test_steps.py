"""The job as steps: in order, with checks, waits, the kit to lay out, and cautions where they matter."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.job.job import Answered, Job, Use
from lumso.core.layers import cautions
from lumso.core.layers.conditions import Room, steady
from lumso.core.work.operations import Operation
from lumso.core.work.steps import BenchStep, Procedure, steps_of
from lumso.core.work.work import work
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from tests.conftest import planned
from tests.core.checks.stacks import layer
from tests.core.test_stack_plan import with_stack

C = shipped()
JOBS = {job.name: job for job in demo_jobs()}


def steps(job: Job, room: Room | None = None, workshop: Workshop | None = None) -> Procedure:
    room = room or steady()
    return steps_of(work(job, workshop or Workshop(), C, room), room)


def of_kind(made: Procedure, *kinds: str) -> list[BenchStep]:
    return [s for s in made.steps if s.operation.kind in kinds]


def test_the_steps_of_a_zone_are_in_order(rack: Job) -> None:
    worn = layer("milk-paint", coats=2, wait=24, sand=(120, "bite"))
    prep = ("sanded-180", "dusted")
    made = steps(with_stack(rack, layer("milk-paint", wait=12), worn, "clear-wax-plain", prep=prep))
    pot = ["mix", "rest", "stir", "lay", "clean"]
    assert [s.operation.kind for s in made.steps if s.operation.kind not in {"lay out", "clear away"}] == [
        "prepare", "prepare", *pot, *pot, "stir", "lay", "clean", "sand", "dust off", "mix", "lay", "clean",
        "buff", "cure", "refit",
    ]  # fmt: skip
    assert len({s.operation.id for s in made.steps}) == len(made.steps)
    first, between, last = (s for s in of_kind(made, "lay") if s.operation.layer in {"l1", "l2"})
    assert (first.wait_min, between.wait_min, last.wait_min) == (720, 60, 1440)
    assert "coat 1 of 2" in between.operation.says
    # 0.56 m² at 6 m² an hour is 5.6 min
    assert first.operation.hands_on_min == pytest.approx(5.6)
    (rest, _) = of_kind(made, "rest")
    assert rest.operation.lasts_min == 10
    mixing = of_kind(made, "mix")[0].operation
    assert mixing.amounts
    assert [p.name for p in mixing.amounts.parts] == ["Milk-paint powder", "Water"]


def test_minutes_of_each_kind_of_work_by_hand(rack: Job) -> None:
    # 0.56 m²: sanding at 4 m²/h 8.4 min, dusting at 20 m²/h under the least of 3, laying at 6 m²/h 5.6 min, buffing at
    # 10 m²/h 3.36 min; mixing 8, pouring off 2, stirring 1, cleaning 5 a sitting, 5 + 5 a session, refitting 20.
    made = steps(with_stack(rack, layer("milk-paint", sand=(120, "bite")), "clear-wax-plain", prep=()))
    minutes = {kind: sum(s.operation.hands_on_min for s in of_kind(made, kind)) for kind in
               ("mix", "stir", "lay", "clean", "sand", "dust off", "buff", "refit")}  # fmt: skip
    assert minutes == pytest.approx(
        {"mix": 8 + 2, "stir": 1, "lay": 2 * 5.6, "clean": 2 * 5, "sand": 8.4, "dust off": 3, "buff": 3.36, "refit": 20}
    )
    sessions = len(of_kind(made, "lay out"))
    assert made.sessions == sessions == len(of_kind(made, "clear away")) == 3
    assert made.hands_on_min == pytest.approx(sum(minutes.values()) + 10 * sessions)


def test_part_dry_work_is_a_step_of_its_own_with_its_window(rack: Job) -> None:
    made = steps(with_stack(rack, layer("salt-wash", wait=36), "paint-plain"))
    both = [s for s in of_kind(made, "lay", "part-dry") if s.operation.layer == "l1"]
    assert [s.operation.kind for s in both] == ["lay", "part-dry"] * (len(both) // 2)
    assert both[0].wait_min == 0
    assert "5–20 min" in both[1].operation.says
    assert both[-1].wait_min == 36 * 60


@pytest.mark.parametrize("name", sorted(JOBS))
def test_every_step_of_the_loft_says_what_right_looks_like(name: str) -> None:
    made = steps(JOBS[name])
    assert made.steps
    for one in (s.operation for s in made.steps):
        assert one.says
        assert one.check or one.kind == "mix"
        assert one.hands_on_min > 0 or one.kind in {"rest", "cure"}
    assert made.hands_on_min == pytest.approx(sum(s.operation.hands_on_min for s in made.steps))
    assert len(set(made.kit)) == len(made.kit)
    assert {z.zone for z in made.zones} == {z.id for z in JOBS[name].zones}
    assert all(z.elapsed_h <= made.elapsed_h for z in made.zones)
    for zone in made.zones:
        its = [s.operation for s in made.steps if s.operation.zone == zone.zone]
        assert zone.hands_on_min == pytest.approx(sum(o.hands_on_min for o in its))
        done = [o for o in its if o.kind != "cure"]
        first, last = min(o.at_min for o in done), max(o.at_min + o.hands_on_min + o.lasts_min for o in done)
        assert zone.elapsed_h * 60 == pytest.approx(last - first)
    assert made.missed == ()


def test_the_kit_to_lay_out_comes_from_the_plan(rack: Job) -> None:
    kit = steps(with_stack(rack, layer("milk-paint", sand=(120, "bite")), "clear-wax-plain", prep=("sanded-180",))).kit
    assert {"50 mm flat brush", "P120 paper", "wax brush or cloth", "dust mask, gloves, eye protection"} <= set(kit)
    assert "lidded metal can with water, for rags" in kit
    assert "P80, P120 and P180 paper" in kit


def test_a_colder_room_takes_longer_and_every_wait_says_so(rack: Job) -> None:
    job = with_stack(rack, layer("paint-plain", wait=None, coats=2), layer("paint-plain", wait=None))
    cold, warm = steps(job, steady(12, 0.75)), steps(job)
    assert cold.elapsed_h > warm.elapsed_h
    assert [s.wait_min for s in of_kind(warm, "lay")][:2] == [120, 120]
    assert [s.wait_min for s in of_kind(cold, "lay")][:2] == pytest.approx([120 * 3.33] * 2, rel=0.003)
    frost = steps(job, steady(5, 0.5))
    assert [s.wait_min for s in of_kind(frost, "lay")][:2] == [None, None]


def test_turned_work_goes_half_as_fast_and_the_painters_own_pace_counts(rack: Job) -> None:
    def laying(job: Job, zone: str, **paces: float) -> float:
        made = steps(job, workshop=Workshop(paces=paces))
        return next(s.operation.hands_on_min for s in of_kind(made, "lay") if s.operation.zone == zone)

    job = with_stack(rack, "paint-plain")
    assert laying(job, "rack") == pytest.approx(5.6)
    assert laying(job, "rack", **{"": 0.5}) == pytest.approx(11.2)
    assert laying(job, "rack", **{"": 0.5, "brushed-paint": 0.8}) == pytest.approx(7.0)
    stand = JOBS["Hat stand"]
    zone = next(z for z in planned(stand).zones if z.area)
    assert zone.area
    assert laying(stand, zone.zone) == pytest.approx(max(zone.area.value / 3 * 60, 3))


def test_sanding_between_clear_coats_lies_between_them_and_not_after_the_last(rack: Job) -> None:
    clear = layer("hard-clear-coat-plain", coats=3, wait=None, sand=(320, "between clear coats"))
    made = steps(with_stack(rack, "paint-plain", clear))
    kinds = [s.operation.kind for s in of_kind(made, "lay", "sand") if s.operation.layer == "l2"]
    assert kinds == ["lay", "sand", "lay", "sand", "lay"]
    one = steps(with_stack(rack, "paint-plain", replace(clear, coats=1)))
    assert of_kind(one, "sand") == []


def test_tools_are_cleaned_when_their_mix_ends(rack: Job) -> None:
    made = steps(with_stack(rack, layer("milk-paint", wait=24), layer("milk-paint", wait=24), "clear-coat-plain"))
    operations = [s.operation for s in made.steps]
    for at, one in enumerate(operations):
        if one.kind == "lay":
            after = next(o for o in operations[at + 1 :] if o.hands_on_min)
            assert after.kind == "clean"
            assert after.at_min == pytest.approx(one.ends_min)


def care(made: Procedure, kind: str) -> set[str]:
    return {text for s in of_kind(made, kind) for text in s.operation.take_care}


@pytest.mark.parametrize(
    ("recipe", "kind", "text"),
    [
        ("oil-wax-plain", "lay", cautions.RAGS),
        ("clear-wax-plain", "lay", cautions.RAGS),
        ("dewaxed-shellac-plain", "lay", cautions.VAPOUR),
        ("metal-primer-plain", "lay", cautions.VAPOUR),
    ],
)
def test_cautions_stand_at_the_step_where_they_matter(rack: Job, recipe: str, kind: str, text: str) -> None:
    assert text in care(steps(with_stack(rack, recipe)), kind)
    assert text not in care(steps(with_stack(rack, "paint-plain")), kind)


@pytest.mark.parametrize(
    ("recipe", "words"),
    [
        ("milk-paint", ("caustic", "mask")),
        ("milk-paint-bonding", ("caustic", "mask")),
        ("sand-paint", ("mask", "silica")),
        ("salt-wash", ("mask",)),
        ("mineral-paint-plaster", ("mask", "heats", "drain")),
        ("mineral-paint-chalk", ("mask",)),
    ],
)
def test_powders_have_their_cautions_at_the_pot_once(rack: Job, recipe: str, words: tuple[str, ...]) -> None:
    texts = care(steps(with_stack(rack, recipe)), "mix")
    for word in words:
        assert [t for t in texts if word in t.lower()], word
    assert len(texts) <= 5


def test_layers_dragged_into_each_other_are_laid_at_once_and_dry_as_one(rack: Job) -> None:
    # Two washes of 45 µm: the second within the 5 min the first stays open; together 90 µm, twice as long as one, and
    # a clear coat seals them in: from 6 h on, of one.
    damp = layer("colour-wash", "wash-wiped", wait=None, wet_into_wet=True)
    job = with_stack(rack, layer("colour-wash", "wash-wiped", wait=None), damp, "clear-coat-plain")
    made = work(replace(job, zones=(replace(job.zones[0], ground="painted-sealed"),)), Workshop(), C, steady())
    lays = [o for o in made.operations if o.kind == "lay"]
    between = [o for o in made.operations if lays[0].ends_min <= o.at_min < lays[1].at_min and o.kind == "cure"]
    assert between == []
    (within,) = [c for c in made.constraints if c.kind == "at most" and c.then == lays[1].id]
    assert within.wait.reference_min == 5
    (dries,) = [c for c in made.constraints if c.kind == "at least" and c.first == lays[1].id and c.then == lays[2].id]
    assert dries.wait.reference_min == pytest.approx(360 * 2)


def test_sanding_dust_lead_and_caustic_paint(rack: Job) -> None:
    job = with_stack(rack, layer("milk-paint", sand=(120, "bite")))
    assert care(steps(job), "sand") == {cautions.DUST, cautions.CAUSTIC}
    zones = tuple(replace(z, ground="old-matt") for z in job.zones)
    old = replace(job, zones=zones, use=Use((), Answered("not tested")))
    assert cautions.OLD_DUST in care(steps(old), "sand")
    assert steps(old).first == (cautions.OLD_DUST,)
    assert steps(job).first == ()
    assert cautions.LEAD_FOUND in care(steps(replace(old, use=Use((), Answered("found")))), "sand")
    assert cautions.SILICA in care(steps(with_stack(rack, layer("sand-paint", sand=(120, "level")))), "sand")


@pytest.mark.parametrize(
    ("use", "text"),
    [
        ("food", cautions.FOOD),
        ("children", cautions.CHILDREN),
        ("feet", cautions.FLOOR),
        ("weather", cautions.OUTDOORS),
        ("heat", cautions.HEARTH),
    ],
)
def test_the_use_has_its_caution_at_the_end(rack: Job, use: str, text: str) -> None:
    job = replace(with_stack(rack, "paint-plain"), use=Use((use,)))  # type: ignore[arg-type]
    assert text in care(steps(job), "cure")
    assert text not in care(steps(with_stack(rack, "paint-plain")), "cure")


def test_cautions_defer_to_labels_and_local_rules() -> None:
    for text in (cautions.DUST, cautions.POWDER, cautions.CAUSTIC, cautions.RAGS, cautions.VAPOUR):
        assert "label" in text.lower()
    for text in (cautions.OLD_DUST, cautions.PUBLIC, cautions.CHILDREN):
        assert "local" in text
    assert "licensed" in cautions.HEARTH
    assert "licensed" in cautions.OLD_DUST


def test_a_caution_stands_in_full_where_it_first_matters_and_in_short_after(rack: Job) -> None:
    made = steps(with_stack(rack, layer("milk-paint", wait=24), layer("milk-paint", wait=24, sand=(120, "bite"))))
    mixes = [s.operation for s in of_kind(made, "mix")]
    assert len(mixes) == 2
    assert any("caustic" in c and "gloves" in c for c in mixes[0].take_care)
    assert mixes[1].take_care == ()
    assert "Milk-paint powder is caustic" in mixes[1].remember
    texts = [c for s in made.steps for c in s.operation.take_care]
    assert len(texts) == len(set(texts))
    waxed = steps(with_stack(rack, "dark-wax"))
    assert care(waxed, "lay") == {cautions.RAGS}
    (clean,) = of_kind(waxed, "clean")
    assert clean.operation.remember == (cautions.in_short(cautions.RAGS),)


def test_old_paint_is_warned_of_where_paper_can_reach_it_and_not_above(rack: Job) -> None:
    # P120 bites 60 µm deep. Of 75 µm of paint 29 stay, 0.45 of its 1.35 g/ml being water: 75·(1 − 0.6075); in thin
    # spots 18. Three coats, 53, it goes through; four, 71, hold it.
    coats = [layer("paint-plain", sand=(120, "bite")) for _ in range(4)]
    job = with_stack(rack, *coats)
    zones = tuple(replace(z, ground="old-matt") for z in job.zones)
    job = replace(job, zones=zones, use=Use((), Answered("not tested")))
    sanded: list[Operation] = [s.operation for s in of_kind(steps(job), "sand")]
    short = cautions.in_short(cautions.OLD_DUST)
    warned = [cautions.OLD_DUST in o.take_care or short in o.remember for o in sanded]
    assert warned == [True, True, True, False]
