"""A layout belongs to a layer: its share, its amounts, its tape and its rules follow from where it goes."""

from dataclasses import replace

import pytest

from lumso.core.book.catalogue import Catalogue
from lumso.core.buying.needs import counted
from lumso.core.checks import check
from lumso.core.job.areas import measure
from lumso.core.job.job import Job, Layer
from lumso.core.job.laying import laid_faces, laying_of, share_of, tape_metres, with_shares
from lumso.core.layers.conditions import Room
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.work.work import Work, work
from lumso.core.workshop.workshop import Workshop

HALF = Layout("stripes", (Stripe(50, 50),), ends="with half a gap")


def striped(rack: Job, layout: Layout | None, technique: str = "") -> Job:
    """The rack's board, its one layer laid out."""
    (zone,) = rack.zones
    (layer,) = zone.layers
    changed = replace(layer, layout=layout, technique=technique or layer.technique)
    return replace(rack, zones=(replace(zone, layers=(changed,)),))


def worked(job: Job, catalogue: Catalogue) -> Work:
    return work(job, Workshop(), catalogue, Room())


def rules(made: Work) -> set[str]:
    return {f.rule for z in made.jobs[0].zones if z.stack for f in check(z.stack)}


def test_half_of_the_top_is_painted_and_of_the_edges_nothing(rack: Job, catalogue: Catalogue) -> None:
    """1000 × 500 of 0.56 m² with its edges: half of the top is 0.25 m²."""
    job = striped(rack, HALF)
    piece = measure(job)
    faces = laid_faces(HALF, job.zones[0], piece.drawing.faces if piece.drawing else ())
    on_top = [f for f in faces if f.surface == "top"]
    (top,) = on_top
    assert top.laid.share == pytest.approx(0.5)
    areas = {slug: s.area_m2 for slug, s in piece.surfaces.items()}
    only = replace(HALF, surfaces=("top",))
    assert share_of(on_top, areas, job.zones[0]) == pytest.approx(0.25 / 0.56)
    laying = laying_of(striped(rack, only), piece)
    assert laying.problems == ()
    laid = with_shares(striped(rack, only), laying)
    assert laid.zones[0].layers[0].touched == pytest.approx(0.25 / 0.56)


def test_amounts_follow_the_layout_and_not_what_was_typed_before(rack: Job, catalogue: Catalogue) -> None:
    only = replace(HALF, surfaces=("top",))
    plain, laid = worked(striped(rack, None), catalogue), worked(striped(rack, only), catalogue)
    before = sum(b.amounts.laid_ml for b in plain.made.brews)
    after = sum(b.amounts.laid_ml for b in laid.made.brews)
    assert after == pytest.approx(before * 0.25 / 0.56)
    wider = worked(striped(rack, replace(only, stripes=(Stripe(60, 40),))), catalogue)
    assert sum(b.amounts.laid_ml for b in wider.made.brews) == pytest.approx(after * 1.2)


def test_it_is_taped_before_and_the_tape_lifted_after_whatever_it_is_put_on_with(
    rack: Job, catalogue: Catalogue
) -> None:
    plain, laid = worked(striped(rack, None), catalogue), worked(striped(rack, HALF), catalogue)
    assert not {o.kind for o in plain.operations} & {"mask", "lift tape"}
    kinds = [o.kind for o in laid.operations if o.kind in ("mask", "lay", "lift tape")]
    assert kinds == ["mask", "lay", "lift tape"]


def test_stripes_that_are_painted_in_two_goes_say_so_where_they_are_taped_and_take_as_long(
    rack: Job, catalogue: Catalogue
) -> None:
    once = worked(striped(rack, replace(HALF, surfaces=("top",))), catalogue)
    checks = worked(striped(rack, replace(HALF, kind="checks", surfaces=("top",))), catalogue)
    (one,), (two,) = ([o for o in made.operations if o.kind == "mask"] for made in (once, checks))
    assert "goes" not in one.says
    assert two.says.endswith(", painted in 2 goes")
    assert two.hands_on_min == pytest.approx(2 * one.hands_on_min)
    assert any("hidden spot" in line for line in two.how)
    assert not any("hidden spot" in line for line in one.how)


def test_the_tape_to_buy_is_what_the_layout_takes(rack: Job, catalogue: Catalogue) -> None:
    only = replace(HALF, surfaces=("top",))
    job = striped(rack, only)
    metres = tape_metres(job.zones[0].layers[0], job.zones[0], measure(job))
    assert metres == pytest.approx(20 * 0.56)  # ten stripes, two edges each, 500 mm and 60 over
    by = {t.slug: n for t, n, _ in counted(worked(job, catalogue), (), catalogue.things)}
    assert by["masking-tape"] == pytest.approx(1.1 * 20 * 0.56)
    assert tape_metres(rack.zones[0].layers[0], rack.zones[0], measure(rack)) is None


def test_what_cannot_be_laid_is_said_at_the_layer_and_hides_nothing_else(rack: Job, catalogue: Catalogue) -> None:
    wrong = worked(striped(rack, Layout("border", (Stripe(20, 400),))), catalogue)
    edge = worked(striped(rack, replace(HALF, surfaces=("edges",))), catalogue)
    assert ["does not come out even" in p.says for p in edge.problems if "layout" in p.at] == [True]
    (problem,) = [p for p in wrong.problems if "layout" in p.at]
    assert problem.at.startswith("/zones/0/layers/0/layout/")
    assert problem.allowed
    assert wrong.batches
    nowhere = worked(striped(rack, replace(HALF, surfaces=("lid",))), catalogue)
    assert [p.at for p in nowhere.problems] == ["/zones/0/layers/0/layout/surfaces"]


def test_tape_over_a_fresh_coat_is_found_whatever_the_stripes_are_put_on_with(rack: Job, catalogue: Catalogue) -> None:
    (zone,) = rack.zones
    (wash,) = zone.layers
    over = replace(wash, id="over", recipe="paint-plain", technique="brushed-paint", layout=HALF)
    fresh = replace(rack, zones=(replace(zone, layers=(wash, over)),))
    found = rules(worked(fresh, catalogue))
    bare = replace(fresh, zones=(replace(zone, layers=(wash, replace(over, layout=None))),))
    without = rules(worked(bare, catalogue))
    assert "tape-lifts" in found
    assert "tape-lifts" not in without


def test_a_job_without_layouts_is_the_very_same(rack: Job) -> None:
    laying = laying_of(rack, measure(rack))
    assert with_shares(rack, laying) is rack
    assert laying.problems == ()
    assert isinstance(rack.zones[0].layers[0], Layer)
