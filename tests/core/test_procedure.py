"""The job as steps: in order, with checks, waits, the kit to lay out, and cautions where they matter."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.job.job import Job, Use
from lumso.core.layers import cautions
from lumso.core.layers.conditions import Conditions
from lumso.core.plan.plan import plan, stacks
from lumso.core.work.procedure import Procedure, procedure
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from tests.core.checks.stacks import layer
from tests.core.test_stack_plan import with_stack

C = shipped()
JOBS = {job.name: job for job in demo_jobs()}


def steps(job: Job, room: Conditions | None = None, workshop: Workshop | None = None) -> Procedure:
    here = (job, workshop or Workshop(), C, room or Conditions())
    return procedure(job, plan(*here), stacks(*here), C, here[1])


def test_the_steps_of_a_zone_are_in_order(rack: Job) -> None:
    worn = layer("milk-paint", coats=2, wait=24, sand=(120, "bite"))
    prep = ("sanded-180", "dusted")
    job = with_stack(rack, layer("milk-paint", wait=12), worn, "clear-wax-plain", prep=prep)
    (zone,) = steps(job).zones
    assert [t.kind for t in zone.tasks] == [
        "prepare", "prepare", "mix", "lay", "mix", "lay", "lay", "sand", "mix", "lay", "clean", "finish",
    ]  # fmt: skip
    assert len({t.id for t in zone.tasks}) == len(zone.tasks)
    first, between, last = (t for t in zone.tasks if t.kind == "lay" and t.layer in {"l1", "l2"})
    assert (first.wait_min, between.wait_min, last.wait_min) == (720, 60, 1440)
    assert "coat 1 of 2" in between.says
    # 0.56 m² at 6 m² an hour is 5.6 min
    assert first.hands_on_min == pytest.approx(5.6)
    mixing = next(t for t in zone.tasks if t.kind == "mix")
    assert "Rest 10 min" in mixing.check
    assert "ml milk-paint powder" in mixing.how[0]


def test_part_dry_work_is_a_step_of_its_own_with_its_window(rack: Job) -> None:
    (zone,) = steps(with_stack(rack, layer("salt-wash", wait=36))).zones
    lay, work = (t for t in zone.tasks if t.kind in {"lay", "part-dry"})
    assert lay.wait_min == 0
    assert "5 to 20 min" in work.says
    assert work.wait_min == 36 * 60


@pytest.mark.parametrize("name", sorted(JOBS))
def test_every_step_of_the_loft_says_what_right_looks_like(name: str) -> None:
    made = steps(JOBS[name])
    for zone in made.zones:
        assert zone.tasks
        for task in zone.tasks:
            assert task.says
            assert task.check or task.kind == "mix"
            assert task.hands_on_min > 0
    assert made.elapsed_h == max(z.elapsed_h for z in made.zones)
    assert made.hands_on_min == pytest.approx(sum(z.hands_on_min for z in made.zones))
    assert len(set(made.kit)) == len(made.kit)


def test_the_kit_to_lay_out_comes_from_the_plan(rack: Job) -> None:
    kit = steps(with_stack(rack, layer("milk-paint", sand=(120, "bite")), "clear-wax-plain", prep=("sanded-180",))).kit
    assert {"50 mm flat brush", "P120 paper", "wax brush or cloth", "dust mask, gloves, eye protection"} <= set(kit)
    assert "lidded metal can with water, for rags" in kit
    assert "P80, P120 and P180 paper" in kit


def test_a_colder_room_takes_longer(rack: Job) -> None:
    job = with_stack(rack, layer("paint-plain", wait=None), layer("paint-plain", wait=None))
    assert steps(job, Conditions(12, 0.75)).elapsed_h > steps(job).elapsed_h


def test_turned_work_goes_half_as_fast_and_the_painters_own_pace_counts(rack: Job) -> None:
    def laying(job: Job, **paces: float) -> float:
        made = steps(job, workshop=Workshop(paces=paces))
        return next(t.hands_on_min for z in made.zones for t in z.tasks if t.kind == "lay")

    job = with_stack(rack, "paint-plain")
    assert laying(job) == pytest.approx(5.6)
    assert laying(job, **{"": 0.5}) == pytest.approx(11.2)
    assert laying(job, **{"": 0.5, "brushed-paint": 0.8}) == pytest.approx(7.0)
    stand = JOBS["Hat stand"]
    area = next(z.area.value for z in plan(stand, Workshop(), C, Conditions()).zones if z.area)
    assert laying(stand) == pytest.approx(max(area / 3 * 60, 3))


def care(made: Procedure, kind: str) -> set[str]:
    return {text for z in made.zones for t in z.tasks if t.kind == kind for text in t.take_care}


@pytest.mark.parametrize(
    ("recipe", "kind", "text"),
    [
        ("oil-wax-plain", "lay", cautions.RAGS),
        ("clear-wax-plain", "lay", cautions.RAGS),
        ("dark-wax", "clean", cautions.RAGS),
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


def test_sanding_dust_lead_and_caustic_paint(rack: Job) -> None:
    job = with_stack(rack, layer("milk-paint", sand=(120, "bite")))
    assert care(steps(job), "sand") == {cautions.DUST, cautions.CAUSTIC}
    old = replace(job, use=Use((), "of unknown age"))
    assert cautions.OLD_DUST in care(steps(old), "sand")
    assert steps(old).first == (cautions.OLD_DUST,)
    assert steps(job).first == ()


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
    assert text in care(steps(job), "finish")
    assert text not in care(steps(with_stack(rack, "paint-plain")), "finish")


def test_cautions_defer_to_labels_and_local_rules() -> None:
    for text in (cautions.DUST, cautions.POWDER, cautions.CAUSTIC, cautions.RAGS, cautions.VAPOUR):
        assert "label" in text.lower()
    for text in (cautions.OLD_DUST, cautions.PUBLIC, cautions.CHILDREN):
        assert "local" in text
    assert "licensed" in cautions.HEARTH
    assert "licensed" in cautions.OLD_DUST
