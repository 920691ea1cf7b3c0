"""Edits that ask the rules: what each makes of a job, that the same comes to the same, and what is refused."""

from dataclasses import replace

import pytest

from lumso.catalogue import shipped
from lumso.core.changes.change import AddPrep, InsertLayer, MoveLayer, RemoveLayer, SwapRecipe
from lumso.core.edits.edit import (
    ChooseGround,
    ChoosePiece,
    CopyStack,
    Edit,
    EditStack,
    KeepWhatIf,
    MergeZone,
    PutFinish,
    SplitZone,
    edited,
    ids_of,
)
from lumso.core.errors import InvalidValue, LumsoError, UnknownEntry
from lumso.core.job.job import Acceptance, Job
from lumso.core.layers.conditions import steady
from lumso.core.plan.plan import plan
from lumso.core.workshop.workshop import Workshop
from lumso.demo import demo_jobs
from tests.core.checks.stacks import layer
from tests.core.test_stack_plan import with_stack

C = shipped()
JOBS = {job.name: job for job in demo_jobs()}


def after(job: Job, edit: Edit) -> Job:
    return edited(job, edit, C, steady()).job


def stacked(job: Job, *changes: object, seed: str = "new") -> Job:
    return after(job, EditStack("stack", seed, job.zones[0].id, changes))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("beneath", "wash", "wax"),
    [
        ((), "wash-rubbed", "limed"),
        (("colour-wash",), "wash-rubbed", "limed"),  # wood stays wood under a wash
        (("paint-plain",), "wash-stacked", "waxed"),
        (("clear-coat-plain",), "wash-stacked", "waxed"),
        (("paint-plain", "colour-wash"), "wash-stacked", "waxed"),
    ],
)
def test_a_layer_goes_on_the_way_that_is_usual_on_what_it_lies_on(
    rack: Job, beneath: tuple[str, ...], wash: str, wax: str
) -> None:
    on = with_stack(rack, *beneath, "paint-plain")
    top = f"l{len(beneath) + 1}"
    put = stacked(on, InsertLayer("insert", top, "milk-paint-wash"))
    assert put.zones[0].layers[len(beneath)].technique == wash
    swapped = stacked(on, SwapRecipe("swap", top, "liming-wax")).zones[0].layers[-1]
    assert (swapped.id, swapped.technique) == (top, wax)
    said = stacked(on, InsertLayer("insert", "", "milk-paint-wash", "wash-rubbed"))
    assert said.zones[0].layers[-1].technique == "wash-rubbed"


def test_a_layer_is_known_by_the_seed_before_anybody_has_answered(rack: Job) -> None:
    made = stacked(rack, InsertLayer("insert", "", "paint-plain"), InsertLayer("insert", "", "clear-coat-plain"))
    assert [x.id for x in made.zones[0].layers] == ["wash", "new", "new-2"]
    moved = stacked(made, MoveLayer("move", "new-2", "new"), RemoveLayer("remove", "wash"), AddPrep("prep", "dusted"))
    assert [x.id for x in moved.zones[0].layers] == ["new-2", "new"]
    assert moved.zones[0].prep == ("dusted",)


@pytest.mark.parametrize(
    "edit",
    [
        EditStack("stack", "new", "rack", (InsertLayer("insert", "wash", "bonding-primer-plain"),)),
        PutFinish("finish", "new", "rack", "salt-wash-undercolours"),
        ChooseGround("ground", "new", "rack", "laminate"),
        ChoosePiece("piece", "new", "chest-of-drawers"),
        SplitZone("split", "new", "rack", "edges"),
        KeepWhatIf("what if", "new", {"wash": 3}, 0.25),
    ],
    ids=lambda e: e.edit,
)
def test_the_same_edit_of_the_same_job_comes_to_the_same_under_ids_never_used(rack: Job, edit: Edit) -> None:
    if isinstance(edit, ChooseGround):
        edit = replace(edit, ground=next(g for g in C.grounds if C.grounds[g].surface == "slick"))
    once, again = after(rack, edit), after(rack, edit)
    assert once == again
    before = {x.id for z in rack.zones for x in z.layers} | {z.id for z in rack.zones}
    now = [x.id for z in once.zones for x in z.layers] + [z.id for z in once.zones]
    assert len(now) == len(set(now))
    assert all(i in before or i.startswith("new") for i in now)


def test_another_ground_brings_the_first_layers_technique_and_leaves_the_rest(rack: Job) -> None:
    job = with_stack(rack, layer("colour-wash", "wash-wiped"), layer("colour-wash", "wash-wiped"))
    first, second = after(job, ChooseGround("ground", "s", "rack", "raw-pine")).zones[0].layers
    usual = C.recipes["colour-wash"].techniques
    fits = [t for t in usual if not C.techniques[t].surfaces or "raw wood" in C.techniques[t].surfaces]
    assert first.technique == (fits[0] if fits else usual[0])
    assert second == job.zones[0].layers[1]


def test_a_zone_is_split_and_merged_again_and_nothing_of_its_treatment_is_lost(rack: Job) -> None:
    meant = (Acceptance("knots-bleed", "wash", "they are part of it"),)
    job = replace(rack, zones=(replace(rack.zones[0], accepted=meant),))
    one, two = after(job, SplitZone("split", "new", "rack", "edges")).zones
    assert (one.surfaces, two.surfaces) == (("top",), ("edges",))
    assert two.name == "Edges"
    assert replace(two.layers[0], id="wash") == one.layers[0]
    assert two.accepted == (Acceptance("knots-bleed", two.layers[0].id, "they are part of it"),)
    apart = replace(job, zones=(one, two))
    areas = [z.area.value for z in plan(apart, Workshop(), C, steady()).zones if z.area]
    assert sum(areas) == pytest.approx(0.56)
    (whole,) = after(apart, MergeZone("merge", "s", two.id)).zones
    assert set(whole.surfaces) == {"top", "edges"}
    copied = after(
        replace(apart, zones=(one, replace(two, layers=(), prep=()))), CopyStack("copy", "c", "rack", (two.id,))
    )
    assert copied.zones[1].layers[0].recipe == one.layers[0].recipe
    assert copied.zones[1].prep == one.prep


def test_what_was_tried_becomes_so(rack: Job) -> None:
    (wash,) = after(rack, KeepWhatIf("what if", "s", {"wash": 2}, 0.3)).zones[0].layers
    assert (wash.coats, wash.margin) == (2, 0.3)
    (kept,) = after(rack, KeepWhatIf("what if", "s", {}, None)).zones[0].layers
    assert kept == rack.zones[0].layers[0]


@pytest.mark.parametrize(
    ("edit", "says"),
    [
        (EditStack("stack", "s", "nowhere", (RemoveLayer("remove", "wash"),)), "rack"),
        (EditStack("stack", "s", "rack", (RemoveLayer("remove", "gone"),)), "wash"),
        (EditStack("stack", "s", "rack", (InsertLayer("insert", "", "moonlight"),)), "colour-wash"),
        (PutFinish("finish", "s", "rack", "moonlight"), "rubbed-wash"),
        (ChooseGround("ground", "s", "rack", "moon"), "raw-pine"),
        (ChoosePiece("piece", "s", "spaceship"), "chest-of-drawers"),
        (MergeZone("merge", "s", "rack"), "several zones"),
        (SplitZone("split", "s", "rack", "lid"), "top"),
    ],
)
def test_what_is_not_there_is_refused_with_what_is(rack: Job, edit: Edit, says: str) -> None:
    with pytest.raises(LumsoError) as caught:
        after(rack, edit)
    error = caught.value
    assert isinstance(error, InvalidValue | UnknownEntry)
    assert says in (error.allowed if isinstance(error, InvalidValue) else ", ".join(error.known))


def test_a_finish_that_is_meant_as_it_is_gets_no_sealer(rack: Job) -> None:
    bare = next(f for f in C.finishes.values() if f.sealed == "as it is")
    made = after(rack, PutFinish("finish", "new", "rack", bare.slug))
    sealed = {x.recipe for x in made.zones[0].layers} - {x.recipe for x in bare.layers}
    assert not {r for r in sealed if C.films[C.recipes[r].film].kind in {"clear", "wax", "oil"}}


def test_seeds_make_ids() -> None:
    ids = ids_of("ab")
    assert [next(ids) for _ in range(3)] == ["ab", "ab-2", "ab-3"]
