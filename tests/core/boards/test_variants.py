"""Looks kept beside the one that is planned, and a strip of a board taken into the job."""

from dataclasses import replace

import pytest

from lumso.core.edits.edit import edited
from lumso.core.edits.variants import ChooseVariant, DropVariant, KeepVariant, TakeStrip, as_variant
from lumso.core.errors import InvalidValue, UnknownEntry
from lumso.core.job.entries import embed
from lumso.core.job.job import MOST_VARIANTS, FromArea, Job
from lumso.core.layers.conditions import steady
from tests.core.boards.test_boards import JOB, WATER, board
from tests.core.look.making import C


def kept(job: Job, name: str, seed: str) -> Job:
    return edited(job, KeepVariant("keep variant", seed, "z", name), C, steady()).job


def test_keeping_a_look_leaves_the_plan_and_choosing_it_swaps_them() -> None:
    job = kept(JOB, "Mint", "s1")
    (zone,) = job.zones
    assert zone.layers == JOB.zones[0].layers
    (mint,) = zone.variants
    assert [x.recipe for x in mint.layers] == [x.recipe for x in zone.layers]
    assert not {x.id for x in mint.layers} & {x.id for x in zone.layers}
    bare = replace(job, zones=(replace(zone, layers=zone.layers[:1]),))
    chosen = edited(bare, ChooseVariant("choose variant", "s2", "z", mint.id, "Bare"), C, steady()).job.zones[0]
    assert chosen.layers == mint.layers
    assert [(v.name, len(v.layers)) for v in chosen.variants] == [("Bare", 1)]
    dropped = edited(job, DropVariant("drop variant", "s3", "z", mint.id), C, steady()).job.zones[0]
    assert dropped.variants == ()
    assert dropped.layers == zone.layers


def test_what_was_accepted_goes_along_with_its_layer() -> None:
    from lumso.core.job.job import Acceptance

    zone = replace(JOB.zones[0], accepted=(Acceptance("sags", "wash", "meant"),))
    mint = kept(replace(JOB, zones=(zone,)), "Mint", "s1").zones[0].variants[0]
    assert mint.accepted[0].layer == mint.layers[1].id


def test_no_more_looks_than_can_be_compared_and_none_that_is_not_there() -> None:
    job = JOB
    for n in range(MOST_VARIANTS):
        job = kept(job, f"Look {n}", f"s{n}")
    with pytest.raises(InvalidValue, match="looks already"):
        kept(job, "One more", "s9")
    with pytest.raises(UnknownEntry):
        as_variant(job.zones[0], "none such")
    assert as_variant(job.zones[0], "") is job.zones[0]


def test_a_job_carries_what_its_other_looks_refer_to() -> None:
    job = kept(JOB, "Mint", "s1")
    zone = replace(job.zones[0], layers=job.zones[0].layers[:1])
    carried = embed(replace(job, zones=(zone,)), C).entries
    assert "colour-wash" in {r.slug for r in carried.recipes}


def test_the_winner_goes_into_the_job_and_amounts_follow_its_area() -> None:
    made = board(WATER)
    strip = made.zones[2]
    edit = TakeStrip("take strip", "t1", "z", "Before the board", strip)
    (zone,) = edited(JOB, edit, C, steady()).job.zones
    assert [x.id for x in zone.layers] == ["base", "wash", "seal"], "they stay the layers they were"
    assert zone.layers[1].amounts == strip.layers[1].amounts
    assert all(isinstance(x.want, FromArea) for x in zone.layers)
    assert [v.name for v in zone.variants] == ["Before the board"]


def test_a_strip_of_other_layers_brings_them() -> None:
    made = board(WATER)
    strip = replace(made.zones[0], layers=made.zones[0].layers[:2])
    (zone,) = edited(JOB, TakeStrip("take strip", "t1", "z", "Before", strip), C, steady()).job.zones
    assert len(zone.layers) == 2
    ids = [x.id for x in zone.layers] + [x.id for v in zone.variants for x in v.layers]
    assert len(set(ids)) == len(ids)
