"""A layout belongs to a layer: its share, its amounts, its tape and its rules follow from where it goes."""

from dataclasses import replace
from math import hypot, pi

import pytest

from lumso.core.book.catalogue import Catalogue
from lumso.core.book.preparation import Sanding
from lumso.core.buying.needs import counted
from lumso.core.checks import check
from lumso.core.errors import InvalidValue
from lumso.core.figure import tidy
from lumso.core.job.areas import measure
from lumso.core.job.job import Job, Layer, Zone
from lumso.core.job.laying import (
    goes_of,
    laid_faces,
    laying_of,
    metres_of,
    out_of_square,
    share_of,
    surface_of,
    with_shares,
)
from lumso.core.layers.conditions import Room
from lumso.core.layout.fit import fit
from lumso.core.layout.flat import oval, polygon_area, rectangle
from lumso.core.layout.pattern import Layout, Stripe
from lumso.core.measure.drawing import Face, box
from lumso.core.measure.lengths import Length
from lumso.core.piece.kinds import kind_of
from lumso.core.piece.piece import FreePart, Piece, Shape
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


def test_what_is_painted_in_two_goes_is_taped_painted_and_freed_twice_the_second_once_the_first_holds_tape(
    rack: Job, catalogue: Catalogue
) -> None:
    once = worked(striped(rack, replace(HALF, surfaces=("top",))), catalogue)
    checks = worked(striped(rack, replace(HALF, kind="checks", surfaces=("top",))), catalogue)
    (one,) = [o for o in once.operations if o.kind == "mask"]
    assert "go" not in one.says.split()
    acts = [o for o in checks.operations if o.kind in ("mask", "lay", "lift tape")]
    assert [o.kind for o in acts] == ["mask", "lay", "lift tape"] * 2
    assert [o.says[-11:] for o in acts if o.kind == "mask"] == [", go 1 of 2", ", go 2 of 2"]
    lays = [o for o in acts if o.kind == "lay"]
    # Half of the top each way: where stripes cross, it is painted twice, and mixed for twice.
    assert [o.area_m2 for o in lays] == pytest.approx([0.25, 0.25])
    single = next(o for o in once.operations if o.kind == "lay")
    assert sum(o.film_ml for o in lays) == pytest.approx(2 * single.film_ml)
    stack = checks.jobs[0].zones[0].stack
    assert stack is not None
    safe = stack.minutes(0, "tape_safe")
    assert safe is not None
    assert safe >= 20 * 60
    assert acts[3].at_min >= lays[0].ends_min + safe - 1e-6


def test_two_coats_are_two_of_each_go_and_what_is_sanded_after_the_layer_is_sanded_once(
    rack: Job, catalogue: Catalogue
) -> None:
    job = striped(rack, replace(HALF, kind="checks", surfaces=("top",)))
    (zone,) = job.zones
    sanded = Sanding(320, "soften")
    twice = replace(zone, layers=(replace(zone.layers[0], coats=2, sandings=(sanded,)),))
    made = worked(replace(job, zones=(twice,)), catalogue)
    lays = [(o.says.split(", coat ")[1][:17]) for o in made.operations if o.kind == "lay"]
    assert lays == ["1 of 2, go 1 of 2", "2 of 2, go 1 of 2", "1 of 2, go 2 of 2", "2 of 2, go 2 of 2"]
    assert [o.kind for o in made.operations].count("sand") == 1
    assert len({o.id for o in made.operations}) == len(made.operations)
    # What lies on the surface is what the pots are made for.
    laid = sum(b.amounts.laid_ml for b in made.made.brews)
    assert sum(o.film_ml for o in made.operations) == pytest.approx(laid)


def test_edges_of_tape_are_sealed_with_the_paint_beneath_and_left_to_dry(rack: Job, catalogue: Catalogue) -> None:
    (zone,) = rack.zones
    (wash,) = zone.layers
    base = replace(wash, id="base", recipe="paint-plain", technique="brushed-paint", touched=1.0, wait_h=None)
    over = replace(base, id="over", layout=replace(HALF, surfaces=("top",)))
    made = worked(replace(rack, zones=(replace(zone, layers=(base, over)),)), catalogue)
    kinds = [o.kind for o in made.operations if o.kind in ("mask", "seal edges", "lay", "lift tape")]
    assert kinds == ["lay", "mask", "seal edges", "lay", "lift tape"]
    (seal,) = [o for o in made.operations if o.kind == "seal edges"]
    assert "plain" in seal.says or "paint" in seal.says
    stack = made.jobs[0].zones[0].stack
    assert stack is not None
    # 20 edges of 560 mm, 10 mm wide, as thick as a coat.
    ml = 20 * 0.56 * 0.01 * stack.laid[0].wet_um
    assert seal.how[0].startswith(f"About {tidy(ml)} ml of it along 11.2 m of edge")
    assert seal.hands_on_min == pytest.approx(11.2 / 2)  # two metres of edge a minute
    second = [o for o in made.operations if o.kind == "lay"][1]
    touch, recoat = stack.minutes(0, "touch"), stack.minutes(0, "recoat_from")
    assert touch is not None
    assert recoat is not None
    assert second.at_min >= seal.ends_min + touch - 1e-6
    (mask,) = [o for o in made.operations if o.kind == "mask"]
    first = next(o for o in made.operations if o.kind == "lay")
    assert mask.at_min >= first.ends_min + 24 * 60 - 1e-6
    assert recoat < 24 * 60  # it is the tape that waits longer than the next coat would
    # A wash beneath would only wet the edge: nothing is sealed with it.
    washed = worked(replace(rack, zones=(replace(zone, layers=(wash, over)),)), catalogue)
    assert "seal edges" not in {o.kind for o in washed.operations}
    (dry,) = [o for o in washed.operations if o.kind == "mask"]
    assert any("offload the brush" in line for line in dry.how)
    assert not any("seal" in line.lower() for line in mask.how)  # said once, where it is done


def test_what_somebody_says_they_wait_is_kept_and_too_soon_for_tape_is_found(rack: Job, catalogue: Catalogue) -> None:
    (zone,) = rack.zones
    (wash,) = zone.layers
    base = replace(wash, id="base", recipe="paint-plain", technique="brushed-paint", touched=1.0, wait_h=None)
    over = replace(base, id="over", layout=replace(HALF, surfaces=("top",)))
    left = worked(replace(rack, zones=(replace(zone, layers=(base, over)),)), catalogue)
    hurried = worked(replace(rack, zones=(replace(zone, layers=(replace(base, wait_h=6.0), over)),)), catalogue)
    assert "tape-lifts" not in rules(left)
    assert "tape-lifts" in rules(hurried)


def test_the_tape_to_buy_is_what_the_layout_takes_go_by_go(rack: Job, catalogue: Catalogue) -> None:
    def bought(job: Job) -> float:
        by = {t.slug: n for t, n, _ in counted(worked(job, catalogue), (), catalogue.things)}
        return by["masking-tape"]

    stripes = replace(HALF, surfaces=("top",))
    assert bought(striped(rack, stripes)) == pytest.approx(1.1 * 20 * 0.56)  # ten, two edges each, 500 mm and 60 over
    checks = replace(stripes, kind="checks")
    assert bought(striped(rack, checks)) == pytest.approx(1.1 * (20 * 0.56 + 10 * 1.06))
    (zone,) = rack.zones
    like = replace(rack, piece=replace(rack.piece, like=3)) if rack.piece else rack
    assert bought(striped(like, stripes)) == pytest.approx(3 * 1.1 * 20 * 0.56)
    # All in their goes is all there is.
    piece = measure(rack)
    areas = {slug: s.area_m2 for slug, s in piece.surfaces.items()}
    faces = laid_faces(checks, zone, piece.drawing.faces if piece.drawing else ())
    assert sum(g.metres for g in goes_of(faces, areas, zone)) == pytest.approx(metres_of(faces, areas, 1))


@pytest.mark.parametrize("kind", ["repeats", "lettering"])
def test_a_stencil_is_held_and_letters_are_drawn_nothing_is_taped_for_them(
    rack: Job, catalogue: Catalogue, kind: str
) -> None:
    held = Layout(kind, (Stripe(60, 20),), surfaces=("top",), words="Loft", even=False)  # type: ignore[arg-type]
    made = worked(striped(rack, held), catalogue)
    assert not {o.kind for o in made.operations} & {"mask", "lift tape", "seal edges"}
    assert made.jobs[0].job.zones[0].layers[0].touched < 0.2


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
    wash = replace(zone.layers[0], wait_h=5.0)
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


def usual(kind: str) -> dict[str, float]:
    """The usual sizes and counts of a kind of piece."""
    known = kind_of(kind)
    return {s.slug: s.usual_mm for s in known.sizes} | {c.slug: c.usual for c in known.counts}


def chest() -> tuple[Zone, tuple[Face, ...]]:
    """The fronts of a chest of three drawers in two columns, with the faces of its drawing."""
    drawing = kind_of("chest-of-drawers").draw(usual("chest-of-drawers") | {"rows": 3, "columns": 2})
    return Zone("z", "Fronts", "painted", ("drawer-fronts",), ()), drawing.faces


@pytest.mark.parametrize(("fronts", "between"), [("over the gaps", 4.0), ("without the gaps", 0.0)])
def test_a_pattern_runs_on_from_front_to_front(fronts: str, between: float) -> None:
    zone, faces = chest()
    on = Layout("stripes", (Stripe(40, 30),), runs="across", ends="with half a gap", fronts=fronts,  # type: ignore[arg-type]
                front_gap_mm=4, tick_mm=0.1)  # fmt: skip
    laid = laid_faces(on, zone, faces)
    assert [f.name for f in laid] == [f"Drawer {r}.{c}" for r in (1, 2, 3) for c in (1, 2)]
    high = laid[0].height_mm
    column = [f for f in laid if f.name.endswith(".1")]
    places = [(k * (high + between) + b.start_mm, k * (high + between) + b.end_mm)
              for k, f in enumerate(column) for b in (f.laid.across.bands if f.laid.across else ())]  # fmt: skip
    whole = fit(replace(on, fronts="each by itself"), 3 * high + 2 * between)
    for start, end in places:  # every piece of a stripe lies in the stripe of the whole pattern
        assert any(b.start_mm - 1e-6 <= start and end <= b.end_mm + 1e-6 for b in whole.bands)
    lost = sum(b.width_mm for b in whole.bands) - sum(b - a for a, b in places)
    in_gaps = sum(max(min(b.end_mm, g + between) - max(b.start_mm, g), 0.0)
                  for b in whole.bands for g in (high, 2 * high + between))  # fmt: skip
    assert lost == pytest.approx(in_gaps, abs=2 * 2)  # slivers under 2 mm are nobody's stripe
    apart = laid_faces(replace(on, fronts="each by itself"), zone, faces)
    assert [(f.name, f.like, len(f.at)) for f in apart] == [("Drawer 1.1", 6, 6)]


def test_a_frame_is_drawn_as_it_is_joined_and_its_members_are_its_area() -> None:
    kind, sizes = kind_of("door"), usual("door") | {"rows": 2, "columns": 2}
    (frame,) = [s for s in kind.surfaces(sizes) if s.slug == "frame"]
    drawn = [f for f in kind.draw(sizes).faces if f.surface == "frame"]
    assert [f.name for f in drawn] == ["Left stile", "Right stile", "Top rail", "Rail 2", "Bottom rail",
                                       "Mullion 1.1", "Mullion 2.1"]  # fmt: skip
    assert sum(polygon_area(f.outline) for f in drawn) / 1e6 * sizes["faces"] == pytest.approx(frame.area_m2)


def test_what_is_drawn_over_a_face_is_set_into_it() -> None:
    wall = Face("wall", "Wall", box(0, 0, 3000, 2400))
    window = Face("windows", "Window 1", box(1000, 600, 800, 1000))
    beside = Face("door", "Door", box(4000, 0, 800, 2000))
    made = surface_of(wall, (wall, window, beside))
    assert made.area == 3000 * 2400 - 800 * 1000
    assert len(made.holes) == 1
    assert surface_of(window, (wall, window, beside)).holes == ()


def test_a_part_that_is_oval_or_round_is_laid_as_one(rack: Job) -> None:
    def part(id: str, shape: Shape, **mm: float) -> FreePart:
        return FreePart(id, id, shape, {k: Length(v, f"{v} mm") for k, v in mm.items()})

    parts = (part("tray", "oval", length=600, width=400), part("pole", "round wall", diameter=40, height=900),
             part("knob", "ball", diameter=50))  # fmt: skip
    job = replace(rack, piece=Piece("parts", {}, parts=parts))
    drawing = measure(job).drawing
    assert drawing is not None
    assert {f.surface: f.shape for f in drawing.faces} == {"part-tray": "oval", "part-pole": "round",
                                                           "part-knob": "solid"}  # fmt: skip
    zone = replace(rack.zones[0], surfaces=("part-tray",))
    (tray,) = laid_faces(HALF, zone, drawing.faces)
    assert tray.laid.face_m2 == pytest.approx(pi * 0.6 * 0.4 / 4)
    assert len(tray.outline) == 180


def test_diagonals_say_how_far_a_face_leans_and_impossible_ones_are_refused() -> None:
    top = rectangle(1000, 500)
    lean = 4.0  # a parallelogram: its upper edge 4 mm further to one side
    first, second = hypot(1000 + lean, 500), hypot(1000 - lean, 500)
    says = out_of_square(replace(HALF, diagonals_mm=(first, second)), top)
    assert "it leans 4.0 mm" in says
    assert out_of_square(replace(HALF, diagonals_mm=(1118, 1118)), top).startswith("Square")
    assert out_of_square(HALF, top) == ""
    assert out_of_square(replace(HALF, diagonals_mm=(600, 600)), oval(500, 300)) == ""
    with pytest.raises(InvalidValue) as error:
        out_of_square(replace(HALF, diagonals_mm=(1000, 1000)), top)
    assert (error.value.field, error.value.allowed) == ("diagonals_mm", "about 1118 mm each")
